package picture_test

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/image/tiff"

	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
)

func block() *image.RGBA {
	img := image.NewRGBA(image.Rect(0, 0, 40, 24))
	for i := range img.Pix {
		img.Pix[i] = 255
	}
	for y := range 8 {
		for x := range 8 {
			img.Set(x, y, color.RGBA{200, 30, 40, 255})
		}
	}
	return img
}

// exif makes an EXIF block (CIPA DC-008, a TIFF 6.0 directory) that says a
// resolution, its unit and an orientation.
func exif(order binary.ByteOrder, dpi uint32, unit, orientation uint16) []byte {
	b := []byte("II*\x00")
	if order == binary.BigEndian {
		b = []byte("MM\x00*")
	}
	app := order.(binary.AppendByteOrder)
	b = app.AppendUint32(b, 8)
	b = app.AppendUint16(b, 4)
	entry := func(tag, kind uint16, value func([]byte) []byte) {
		b = app.AppendUint16(b, tag)
		b = app.AppendUint16(b, kind)
		b = app.AppendUint32(b, 1)
		b = value(b)
	}
	short := func(v uint16) func([]byte) []byte {
		return func(b []byte) []byte { return app.AppendUint16(app.AppendUint16(b, v), 0) }
	}
	long := func(v uint32) func([]byte) []byte {
		return func(b []byte) []byte { return app.AppendUint32(b, v) }
	}
	entry(0x0112, 3, short(orientation))
	entry(0x011a, 5, long(62))
	entry(0x011b, 5, long(62))
	entry(0x0128, 3, short(unit))
	b = app.AppendUint32(b, 0)
	for len(b) < 62 {
		b = append(b, 0)
	}
	return app.AppendUint32(app.AppendUint32(b, dpi), 1)
}

func withExif(t *testing.T, img image.Image, e []byte) []byte {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, img, &jpeg.Options{Quality: 95}))
	raw := b.Bytes()
	body := append([]byte("Exif\x00\x00"), e...)
	out := append([]byte{}, raw[:2]...)
	out = append(out, 0xff, 0xe1)
	out = binary.BigEndian.AppendUint16(out, uint16(len(body)+2))
	return append(append(out, body...), raw[2:]...)
}

func TestResolutionFields(t *testing.T) {
	raw, err := sim.PNG(block(), 300)
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	assert.InDelta(t, 300, p.DPI, 0.01, "pHYs counts dots to the metre")
	assert.Equal(t, 40, p.W)

	raw, err = sim.JPEG(block(), 600, 90)
	require.NoError(t, err)
	p, err = picture.Decode(raw)
	require.NoError(t, err)
	assert.Equal(t, 600.0, p.DPI, "JFIF density")

	for _, o := range []binary.ByteOrder{binary.LittleEndian, binary.BigEndian} {
		p, err = picture.Decode(withExif(t, block(), exif(o, 240, 2, 1)))
		require.NoError(t, err)
		assert.Equal(t, 240.0, p.DPI, "EXIF, dots to the inch")
		p, err = picture.Decode(withExif(t, block(), exif(o, 118, 3, 1)))
		require.NoError(t, err)
		assert.InDelta(t, 118*2.54, p.DPI, 1e-9, "EXIF, dots to the cm")
	}
	var b bytes.Buffer
	require.NoError(t, tiff.Encode(&b, block(), nil))
	p, err = picture.Decode(b.Bytes())
	require.NoError(t, err)
	assert.Equal(t, 72.0, p.DPI, "the TIFF encoder of x/image writes 72")

	for _, dpi := range []float64{1, 30000} {
		raw, err = sim.PNG(block(), dpi)
		require.NoError(t, err)
		p, err = picture.Decode(raw)
		require.NoError(t, err)
		assert.Zero(t, p.DPI, "not believed")
		assert.Contains(t, p.Notes[0], "no scanner uses")
	}
	b.Reset()
	require.NoError(t, png.Encode(&b, block()))
	p, err = picture.Decode(b.Bytes())
	require.NoError(t, err)
	assert.Zero(t, p.DPI, "none is said")
}

// The red corner lies at the top left however the camera was held.
func TestOrientationIsUndone(t *testing.T) {
	img := block()
	turned := map[uint16]func(x, y, w, h int) (int, int){
		1: func(x, y, _, _ int) (int, int) { return x, y },
		2: func(x, y, w, _ int) (int, int) { return w - 1 - x, y },
		3: func(x, y, w, h int) (int, int) { return w - 1 - x, h - 1 - y },
		4: func(x, y, _, h int) (int, int) { return x, h - 1 - y },
		5: func(x, y, _, _ int) (int, int) { return y, x },
		6: func(x, y, _, h int) (int, int) { return y, h - 1 - x }, // the stored row is the shown column from the right
		7: func(x, y, w, h int) (int, int) { return h - 1 - y, w - 1 - x },
		8: func(x, y, w, _ int) (int, int) { return w - 1 - y, x },
	}
	for o := uint16(1); o <= 8; o++ {
		w, h := 40, 24
		if o >= 5 {
			w, h = h, w
		}
		stored := image.NewRGBA(image.Rect(0, 0, w, h))
		for y := range h {
			for x := range w {
				// Where the stored pixel is shown, by the EXIF table of rows and columns.
				var sx, sy int
				switch o {
				case 6:
					sx, sy = h-1-y, x
				case 8:
					sx, sy = y, w-1-x
				default:
					sx, sy = turned[o](x, y, w, h)
				}
				stored.Set(x, y, img.At(sx, sy))
			}
		}
		p, err := picture.Decode(withExif(t, stored, exif(binary.BigEndian, 300, 2, o)))
		require.NoError(t, err)
		require.Equal(t, []int{40, 24}, []int{p.W, p.H}, "orientation %d", o)
		r, g, _ := p.At(3, 3)
		assert.Greater(t, int(r), int(g)+80, "orientation %d", o)
		r, g, _ = p.At(36, 20)
		assert.InDelta(t, float64(r), float64(g), 20, "orientation %d", o)
	}
}

func TestKindsOfPixels(t *testing.T) {
	grey16 := image.NewGray16(image.Rect(0, 0, 20, 20))
	clear := image.NewNRGBA(image.Rect(0, 0, 20, 20))
	for i := range 400 {
		grey16.SetGray16(i%20, i/20, color.Gray16{0x8000})
	}
	enc := func(img image.Image) *picture.Picture {
		var b bytes.Buffer
		require.NoError(t, png.Encode(&b, img))
		p, err := picture.Decode(b.Bytes())
		require.NoError(t, err)
		return p
	}
	p := enc(grey16)
	assert.Equal(t, uint8(0x80), p.Pix[0])
	assert.Contains(t, p.Notes[0], "16 bits")
	assert.Equal(t, uint8(255), enc(clear).Pix[0], "what is clear counts as white")
	pal := image.NewPaletted(image.Rect(0, 0, 20, 20), color.Palette{color.RGBA{9, 120, 33, 255}})
	assert.Equal(t, []uint8{9, 120, 33}, enc(pal).Pix[:3])
}

func TestNotAPicture(t *testing.T) {
	whole, err := sim.PNG(block(), 300)
	require.NoError(t, err)
	tiny := image.NewGray(image.Rect(0, 0, 4, 4))
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, tiny))
	// A PNG that claims 60,000 by 60,000 pixels: refused before a pixel is read.
	bomb := append([]byte{}, whole...)
	binary.BigEndian.PutUint32(bomb[16:], 60000)
	binary.BigEndian.PutUint32(bomb[20:], 60000)
	binary.BigEndian.PutUint32(bomb[29:], crc32.ChecksumIEEE(bomb[12:29]))
	for what, c := range map[string]struct {
		raw  []byte
		says string
	}{
		"words":     {[]byte("dear scanner"), "not a picture"},
		"empty":     {nil, "not a picture"},
		"truncated": {whole[:len(whole)-40], "breaks off"},
		"tiny":      {b.Bytes(), "only 4 × 4"},
		"bomb":      {bomb, "60000 × 60000"},
		"huge file": {make([]byte, picture.MaxBytes+1), "at most 64 MB"},
	} {
		_, err := picture.Decode(c.raw)
		pr, ok := picture.AsProblem(err)
		require.True(t, ok, what)
		assert.Contains(t, pr.What, c.says, what)
		assert.NotEmpty(t, pr.Mend, what)
	}
}

// IEC 61966-2-1: 0.5 of the signal is 0.2140 of the light; the two curves meet
// at 0.04045.
func TestLightAgainstTheStandard(t *testing.T) {
	assert.InDelta(t, 0.21404, picture.ToLinear(0.5), 1e-5)
	assert.InDelta(t, picture.ToLinear(0.04045-1e-9), picture.ToLinear(0.04045+1e-9), 1e-6)
	for v := 0.0; v <= 1; v += 0.01 {
		assert.InDelta(t, v, picture.FromLinear(picture.ToLinear(v)), 1e-6)
	}
	assert.Equal(t, float32(1), picture.Linear(255))
	assert.InDelta(t, math.Pow((0.2+0.055)/1.055, 2.4), float64(picture.Linear(51)), 1e-6)
}
