// Package picture reads scans and photographs: PNG, JPEG and TIFF files with
// the resolution they were made at, turned upright, in plain 8-bit RGB.
package picture

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/color"
	_ "image/jpeg" // decoders register themselves
	_ "image/png"
	"math"

	"golang.org/x/image/tiff"
)

// Limits of a picture file.
const (
	MaxBytes  = 64 << 20
	MaxPixels = 100_000_000
)

// Resolutions outside this range, in dots to the inch, are not believed: they
// are what programs write when they do not know.
const (
	minDPI = 50
	maxDPI = 4800
)

// Picture is a picture in sRGB, 8 bits a channel, three bytes a pixel.
type Picture struct {
	W, H  int
	Pix   []uint8
	DPI   float64  // dots to the inch as the file says, 0 when it does not
	Notes []string // what a person should know about how it was read
	// Reduced is the factor by which it was reduced on reading, 1 for not at all; DPI
	// is that of the reduced picture.
	Reduced int
	Soft    bool // colour is kept more coarsely than lightness, as most JPEG files do
}

// At returns the channels of a pixel.
func (p *Picture) At(x, y int) (r, g, b uint8) {
	i := 3 * (y*p.W + x)
	return p.Pix[i], p.Pix[i+1], p.Pix[i+2]
}

// Problem says why a picture cannot be used, and what to do.
type Problem struct{ What, Mend string }

func (p *Problem) Error() string { return p.What + " " + p.Mend }

// Decode reads a picture file.
func Decode(data []byte) (*Picture, error) {
	if len(data) > MaxBytes {
		return nil, &Problem{fmt.Sprintf("The file is %d MB; at most %d MB are read.", len(data)>>20, MaxBytes>>20), "Scan at 300 dpi, or save it as JPEG."}
	}
	cfg, kind, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return nil, &Problem{"This is not a picture that can be read.", "Choose a PNG, JPEG or TIFF file."}
	}
	if n := cfg.Width * cfg.Height; cfg.Width > 1<<17 || cfg.Height > 1<<17 || n > MaxPixels {
		return nil, &Problem{fmt.Sprintf("The picture is %d × %d pixels; at most %d million pixels are read.", cfg.Width, cfg.Height, MaxPixels/1_000_000), "Scan at 300 dpi, or crop it."}
	}
	if cfg.Width < 16 || cfg.Height < 16 {
		return nil, &Problem{fmt.Sprintf("The picture is only %d × %d pixels.", cfg.Width, cfg.Height), "Scan at 300 dpi."}
	}
	m := readMeta(data, kind)
	by := reduction(cfg.Width, cfg.Height)
	p, err := decode(data, kind, cfg, by)
	if err != nil {
		return nil, err
	}
	if by > 1 {
		m.dpi, m.down = m.dpi/float64(by), m.down/float64(by)
		p.Notes = append(p.Notes, fmt.Sprintf("The picture has %.0f million pixels; it was read at 1/%d of its resolution, which makes nothing less true.", float64(cfg.Width)*float64(cfg.Height)/1e6, by))
	}
	p.Reduced = by
	switch {
	case m.dpi == 0:
	case m.camera:
		p.Notes = append(p.Notes, fmt.Sprintf("This is a photograph: the %.4g dpi in the file say nothing of its scale.", m.dpi*float64(by)))
	case m.dpi*float64(by) < minDPI || m.dpi*float64(by) > maxDPI:
		p.Notes = append(p.Notes, fmt.Sprintf("The file claims %.4g dpi, which no scanner uses; say what it was scanned at.", m.dpi*float64(by)))
	case m.uneven && (m.down*float64(by) < minDPI || m.down*float64(by) > maxDPI || m.dpi/m.down > 8 || m.down/m.dpi > 8):
		p.Notes = append(p.Notes, fmt.Sprintf("The file claims %.4g dpi across and %.4g down; say what it was scanned at.", m.dpi, m.down))
	case m.uneven:
		p.square(m.dpi, m.down)
		p.DPI = math.Min(m.dpi, m.down)
		p.Notes = append(p.Notes, fmt.Sprintf("The file has %.4g dots to the inch across and %.4g down; each way was taken by its own.", m.dpi, m.down))
	default:
		p.DPI = m.dpi
	}
	p.upright(m.orientation)
	return p, nil
}

// mostDeep bounds pictures of 16 bits a channel that cannot be read row by row.
const mostDeep = 50_000_000

// decode reads the pixels, reduced by a whole factor.
func decode(data []byte, kind string, cfg image.Config, by int) (*Picture, error) {
	var p *Picture
	deep := false
	if kind == "png" {
		q, d, ok, err := decodePNG(data, by)
		if err != nil {
			return nil, &Problem{"The png file breaks off or is damaged.", "Save or scan it again."}
		}
		if ok {
			p, deep = q, d
		}
	}
	if p == nil {
		switch cfg.ColorModel {
		case color.RGBA64Model, color.NRGBA64Model, color.Gray16Model:
			deep = true
			if cfg.Width*cfg.Height > mostDeep {
				return nil, &Problem{fmt.Sprintf("The picture has %d million pixels of 16 bits; at most %d million of such are read from this kind of file.", cfg.Width*cfg.Height/1_000_000, mostDeep/1_000_000), "Save it with 8 bits a channel, or as PNG without interlacing."}
			}
		}
		img, _, err := image.Decode(bytes.NewReader(data))
		var unsupported tiff.UnsupportedError
		switch {
		case errors.As(err, &unsupported):
			return nil, &Problem{fmt.Sprintf("This TIFF file keeps its picture in a way that is not read (%s).", inside(data, string(unsupported))), "Save it as PNG, or as TIFF without compression."}
		case err != nil:
			return nil, &Problem{fmt.Sprintf("The %s file breaks off or is damaged.", kind), "Save or scan it again."}
		}
		p = &Picture{}
		p.pack(img)
		if _, ok := img.(*image.CMYK); ok {
			p.Notes = append(p.Notes, "The colours of this file are mixed for print; shapes are right, colours only roughly so.")
		}
		if by > 1 {
			out := newSink(p.W, p.H, by)
			for y := range p.H {
				out.row(p.Pix[3*p.W*y : 3*p.W*(y+1)])
			}
			q := out.done()
			q.Soft, q.Notes = p.Soft, p.Notes
			p = q
		}
	}
	if deep {
		p.Notes = append(p.Notes, "The file has 16 bits a channel; 8 are used.")
	}
	return p, nil
}

// inside says what an unsupported TIFF holds.
func inside(data []byte, or string) string {
	var m meta
	m.tiff(data)
	if name := map[int]string{6: "JPEG, old style", 7: "JPEG", 3: "fax", 4: "fax", 34712: "JPEG 2000", 34892: "JPEG, lossy", 50000: "Zstandard", 50001: "WebP"}[m.compression]; name != "" {
		return name
	}
	return or
}

// pack copies the pixels; what is clear counts as white.
func (p *Picture) pack(img image.Image) {
	b := img.Bounds()
	p.W, p.H = b.Dx(), b.Dy()
	p.Pix = make([]uint8, 3*p.W*p.H)
	at := 0
	put := func(r, g, bl uint8) {
		p.Pix[at], p.Pix[at+1], p.Pix[at+2] = r, g, bl
		at += 3
	}
	switch m := img.(type) {
	case *image.YCbCr:
		p.Soft = m.SubsampleRatio != image.YCbCrSubsampleRatio444
		for y := b.Min.Y; y < b.Max.Y; y++ {
			for x := b.Min.X; x < b.Max.X; x++ {
				i, j := m.YOffset(x, y), m.COffset(x, y)
				put(color.YCbCrToRGB(m.Y[i], m.Cb[j], m.Cr[j]))
			}
		}
	case *image.Gray:
		for y := range p.H {
			for _, v := range m.Pix[y*m.Stride : y*m.Stride+p.W] {
				put(v, v, v)
			}
		}
	case *image.RGBA:
		p.packed(m.Pix, m.Stride, true)
	case *image.NRGBA:
		p.packed(m.Pix, m.Stride, false)
	default:
		for y := b.Min.Y; y < b.Max.Y; y++ {
			for x := b.Min.X; x < b.Max.X; x++ {
				r, g, bl, a := img.At(x, y).RGBA()
				put(uint8((r+0xffff-a)>>8), uint8((g+0xffff-a)>>8), uint8((bl+0xffff-a)>>8))
			}
		}
	}
}

// packed copies four bytes a pixel; mixed says that colours hold their alpha
// already.
func (p *Picture) packed(pix []uint8, stride int, mixed bool) {
	at := 0
	for y := range p.H {
		row := pix[y*stride : y*stride+4*p.W]
		for i := 0; i < len(row); i += 4 {
			r, g, b, a := row[i], row[i+1], row[i+2], uint32(row[i+3])
			if a != 255 {
				k := a
				if mixed {
					k = 255
				}
				on := func(v uint8) uint8 { return uint8(min(255, (uint32(v)*k+127)/255+255-a)) }
				r, g, b = on(r), on(g), on(b)
			}
			p.Pix[at], p.Pix[at+1], p.Pix[at+2] = r, g, b
			at += 3
		}
	}
}

// upright undoes the orientation of the EXIF standard (CIPA DC-008), 1 to 8.
func (p *Picture) upright(o int) {
	if o < 2 || o > 8 {
		return
	}
	w, h := p.W, p.H
	if o >= 5 {
		w, h = h, w
	}
	out := make([]uint8, len(p.Pix))
	for y := range h {
		for x := range w {
			sx, sy := x, y
			switch o {
			case 2:
				sx = w - 1 - x
			case 3:
				sx, sy = w-1-x, h-1-y
			case 4:
				sy = h - 1 - y
			case 5:
				sx, sy = y, x
			case 6:
				sx, sy = y, w-1-x
			case 7:
				sx, sy = h-1-y, w-1-x
			case 8:
				sx, sy = h-1-y, x
			}
			copy(out[3*(y*w+x):3*(y*w+x)+3], p.Pix[3*(sy*p.W+sx):])
		}
	}
	p.Pix, p.W, p.H = out, w, h
	p.Notes = append(p.Notes, "The camera's turn was undone.")
}

// linear holds the sRGB transfer function of IEC 61966-2-1 for 8-bit values.
var linear = func() (t [256]float32) {
	for i := range t {
		t[i] = float32(ToLinear(float64(i) / 255))
	}
	return t
}()

// Linear gives the linear light of an 8-bit sRGB value, 0 to 1.
func Linear(v uint8) float32 { return linear[v] }

// ToLinear is the sRGB transfer function of IEC 61966-2-1, 0 to 1 both ways.
func ToLinear(v float64) float64 {
	if v <= 0.04045 {
		return v / 12.92
	}
	return math.Pow((v+0.055)/1.055, 2.4)
}

// FromLinear undoes ToLinear.
func FromLinear(v float64) float64 {
	if v <= 0.0031308 {
		return v * 12.92
	}
	return 1.055*math.Pow(v, 1/2.4) - 0.055
}

// AsProblem finds a Problem in an error.
func AsProblem(err error) (*Problem, bool) {
	var p *Problem
	ok := errors.As(err, &p)
	return p, ok
}

// Typed is the resolution of the picture as it was read when somebody says at how
// many dots to the inch it was scanned.
func (p *Picture) Typed(dpi float64) float64 { return dpi / float64(max(1, p.Reduced)) }
