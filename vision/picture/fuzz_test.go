package picture

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"testing"

	"golang.org/x/image/tiff"
)

// Whatever the bytes, a picture is read whole or refused in words.
func FuzzDecode(f *testing.F) {
	img := image.NewPaletted(image.Rect(0, 0, 24, 20), color.Palette{color.White, color.Black, color.NRGBA{200, 10, 10, 128}})
	for i := range img.Pix {
		img.Pix[i] = uint8(i % 3)
	}
	var p, j, t bytes.Buffer
	_ = png.Encode(&p, img)
	_ = jpeg.Encode(&j, img, nil)
	_ = tiff.Encode(&t, img, nil)
	for _, b := range [][]byte{p.Bytes(), j.Bytes(), t.Bytes(), physical(p.Bytes(), 300, 600)} {
		f.Add(b)
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		if cfg, _, err := image.DecodeConfig(bytes.NewReader(b)); err == nil && cfg.Width*cfg.Height > 1<<20 {
			t.Skip() // size is tried elsewhere; here it only slows the search
		}
		p, err := Decode(b)
		if err != nil {
			if q, ok := AsProblem(err); !ok || q.Mend == "" {
				t.Fatalf("no words: %v", err)
			}
			return
		}
		if len(p.Pix) != 3*p.W*p.H || p.DPI < 0 || p.DPI != p.DPI {
			t.Fatalf("%d by %d with %d bytes at %g", p.W, p.H, len(p.Pix), p.DPI)
		}
	})
}
