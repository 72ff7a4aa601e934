// Package sheet draws what is printed or saved: the layering guide and work
// sheet as a PDF at true size, the assembled front as SVG and PNG.
package sheet

import (
	"embed"
	"fmt"
	"image/color"
	"strconv"
	"sync"

	"github.com/tdewolff/canvas"

	"ochrestone/core/shape"
)

//go:embed fonts/*.woff
var fontFiles embed.FS

// fonts are the two shipped families.
type fonts struct{ text, bold, head *canvas.FontFamily }

var loadFonts = sync.OnceValues(func() (fonts, error) {
	var f fonts
	for _, l := range []struct {
		to   **canvas.FontFamily
		file string
	}{{&f.text, "atkinson-hyperlegible-next-latin-400-normal"}, {&f.bold, "atkinson-hyperlegible-next-latin-700-normal"}, {&f.head, "bricolage-grotesque-latin-700-normal"}} {
		raw, err := fontFiles.ReadFile("fonts/" + l.file + ".woff")
		if err != nil {
			return f, fmt.Errorf("read font: %w", err)
		}
		*l.to = canvas.NewFontFamily(l.file)
		if err := (*l.to).LoadFont(raw, 0, canvas.FontRegular); err != nil {
			return f, fmt.Errorf("load font %s: %w", l.file, err)
		}
	}
	return f, nil
})

// ptPerMM turns a letter size in mm into points.
const ptPerMM = 72 / 25.4

var (
	inkText = color.RGBA{0x1d, 0x23, 0x27, 255}
	quiet   = color.RGBA{0x56, 0x60, 0x6a, 255}
	rule    = color.RGBA{0xbf, 0xc2, 0xc1, 255}
	none    = color.RGBA{}
)

// paper is a drawing surface with its origin at the top left, y down, in mm.
type paper struct {
	c   *canvas.Canvas
	ctx *canvas.Context
	f   fonts
	w   float64
	h   float64
}

func newPaper(w, h float64) (*paper, error) {
	f, err := loadFonts()
	if err != nil {
		return nil, err
	}
	c := canvas.New(w, h)
	return &paper{c, canvas.NewContext(c), f, w, h}, nil
}

// place is where a region drawn in mm goes: scaled by k, then moved.
type place struct{ x, y, k float64 }

func (p *paper) region(g shape.Region, at place, fill color.RGBA, edge color.RGBA, width float64) {
	path := &canvas.Path{}
	for _, r := range g.Rings() {
		for i, q := range r {
			x, y := at.x+q.X*at.k, p.h-(at.y+q.Y*at.k)
			if i == 0 {
				path.MoveTo(x, y)
			} else {
				path.LineTo(x, y)
			}
		}
		path.Close()
	}
	p.path(path, fill, edge, width)
}

func (p *paper) path(path *canvas.Path, fill, edge color.RGBA, width float64) {
	p.ctx.SetFillColor(fill)
	p.ctx.SetStrokeColor(edge)
	if width == 0 {
		p.ctx.SetStrokeColor(none)
	}
	p.ctx.SetStrokeWidth(width)
	p.ctx.DrawPath(0, 0, path)
}

func (p *paper) rect(x, y, w, h float64, fill, edge color.RGBA, width float64) {
	p.region(shape.Rect(x, y, w, h), place{k: 1}, fill, edge, width)
}

func (p *paper) line(x0, y0, x1, y1, width float64, c color.RGBA) {
	path := &canvas.Path{}
	path.MoveTo(x0, p.h-y0)
	path.LineTo(x1, p.h-y1)
	p.path(path, none, c, width)
}

// text writes a line with its baseline at y; align is -1 left, 0 centre, 1
// right. It returns the width of the line.
func (p *paper) text(f *canvas.FontFamily, size float64, x, y float64, align int, c color.RGBA, s string) float64 {
	s = drawable(s)
	face := f.Face(size*ptPerMM, c)
	w := face.TextWidth(s)
	switch align {
	case 0:
		x -= w / 2
	case 1:
		x -= w
	}
	p.ctx.DrawText(x, p.h-y, canvas.NewTextLine(face, s, canvas.Left))
	return w
}

// lettering is text as outlines, for files that must look the same anywhere.
func lettering(f *canvas.FontFamily, capital float64, s string) (*canvas.Path, float64, error) {
	face := f.Face(100*ptPerMM, inkText)
	cap := face.Metrics().CapHeight
	if cap <= 0 {
		cap = 70
	}
	path, w, err := face.ToPath(drawable(s))
	if err != nil {
		return nil, 0, fmt.Errorf("draw the words %q: %w", s, err)
	}
	k := capital / cap
	return path.Scale(k, k), w * k, nil
}

// wrap breaks s into lines no wider than w.
func (p *paper) wrap(f *canvas.FontFamily, size, w float64, s string) []string {
	face := f.Face(size*ptPerMM, inkText)
	var lines []string
	line := ""
	for _, word := range splitWords(s) {
		try := word
		if line != "" {
			try = line + " " + word
		}
		if line != "" && face.TextWidth(try) > w {
			lines = append(lines, line)
			try = word
		}
		line = try
	}
	if line != "" {
		lines = append(lines, line)
	}
	return lines
}

func splitWords(s string) []string {
	var out []string
	word := ""
	for _, r := range s {
		if r == ' ' || r == '\n' {
			if word != "" {
				out = append(out, word)
			}
			word = ""
			continue
		}
		word += string(r)
	}
	if word != "" {
		out = append(out, word)
	}
	return out
}

func hex(s string) color.RGBA {
	if len(s) != 7 {
		return color.RGBA{255, 255, 255, 255}
	}
	v, err := strconv.ParseUint(s[1:], 16, 32)
	if err != nil {
		return color.RGBA{255, 255, 255, 255}
	}
	return color.RGBA{uint8(v >> 16), uint8(v >> 8), uint8(v), 255}
}
