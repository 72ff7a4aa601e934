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
	"strings"

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
	p, err := decode(data, kind, cfg, m, by)
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

// mostWhole is how many bytes a picture may take that can only be read whole, as
// those of TIFF, JPEG and interlaced PNG are.
const mostWhole = 700 << 20

// whole is how many bytes reading a picture takes at its most.
func whole(kind string, cfg image.Config, m meta) (bytes int, deep bool) {
	per := 4
	switch cfg.ColorModel {
	case color.RGBA64Model, color.NRGBA64Model:
		per, deep = 8, true
	case color.Gray16Model:
		per, deep = 2, true
	case color.GrayModel:
		per = 1
	case color.YCbCrModel:
		per = 3
	}
	if kind == "tiff" && m.compression > 1 && m.strips <= 1 {
		per *= 4 // what is unpacked lies beside the picture, and grows by doubling
	}
	return cfg.Width * cfg.Height * per, deep
}

// decode reads the pixels, reduced by a whole factor.
func decode(data []byte, kind string, cfg image.Config, m meta, by int) (*Picture, error) {
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
		n, d := whole(kind, cfg, m)
		deep = d
		if n > mostWhole {
			return nil, &Problem{fmt.Sprintf("The picture has %d million pixels, which a %s file gives only all at once: more than is read.", cfg.Width*cfg.Height/1_000_000, strings.ToUpper(kind)), "Save it as PNG without interlacing, or scan it at 600 dpi or less."}
		}
		img, _, err := image.Decode(bytes.NewReader(data))
		var unsupported tiff.UnsupportedError
		switch {
		case errors.As(err, &unsupported):
			return nil, &Problem{fmt.Sprintf("This TIFF file keeps its picture in a way that is not read (%s).", inside(data, string(unsupported))), "Save it as PNG, or as TIFF without compression."}
		case err != nil:
			return nil, &Problem{fmt.Sprintf("The %s file breaks off or is damaged.", kind), "Save or scan it again."}
		}
		p = pack(img, by)
		if _, ok := img.(*image.CMYK); ok {
			p.Notes = append(p.Notes, "The colours of this file are mixed for print; shapes are right, colours only roughly so.")
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

// pack copies the pixels row by row, reduced by a whole factor; what is clear
// counts as white.
func pack(img image.Image, by int) *Picture {
	b := img.Bounds()
	out := newSink(b.Dx(), b.Dy(), by)
	row := make([]uint8, 3*b.Dx())
	for y := b.Min.Y; y < b.Max.Y; y++ {
		at := 0
		put := func(r, g, bl uint8) {
			row[at], row[at+1], row[at+2] = r, g, bl
			at += 3
		}
		switch m := img.(type) {
		case *image.YCbCr:
			for x := b.Min.X; x < b.Max.X; x++ {
				i, j := m.YOffset(x, y), m.COffset(x, y)
				put(color.YCbCrToRGB(m.Y[i], m.Cb[j], m.Cr[j]))
			}
		case *image.Gray:
			for _, v := range m.Pix[m.PixOffset(b.Min.X, y):][:b.Dx()] {
				put(v, v, v)
			}
		case *image.RGBA:
			packed(m.Pix[m.PixOffset(b.Min.X, y):][:4*b.Dx()], row, true)
		case *image.NRGBA:
			packed(m.Pix[m.PixOffset(b.Min.X, y):][:4*b.Dx()], row, false)
		default:
			for x := b.Min.X; x < b.Max.X; x++ {
				r, g, bl, a := img.At(x, y).RGBA()
				put(uint8((r+0xffff-a)>>8), uint8((g+0xffff-a)>>8), uint8((bl+0xffff-a)>>8))
			}
		}
		out.row(row)
	}
	p := out.done()
	if m, ok := img.(*image.YCbCr); ok {
		p.Soft = m.SubsampleRatio != image.YCbCrSubsampleRatio444
	}
	return p
}

// packed copies a row of four bytes a pixel; mixed says that colours hold their
// alpha already.
func packed(from, to []uint8, mixed bool) {
	at := 0
	for i := 0; i < len(from); i += 4 {
		r, g, b, a := from[i], from[i+1], from[i+2], uint32(from[i+3])
		if a != 255 {
			k := a
			if mixed {
				k = 255
			}
			on := func(v uint8) uint8 { return uint8(min(255, (uint32(v)*k+127)/255+255-a)) }
			r, g, b = on(r), on(g), on(b)
		}
		to[at], to[at+1], to[at+2] = r, g, b
		at += 3
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
