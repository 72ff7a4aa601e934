package sheet

import (
	"fmt"
	"image/color"
	"io"

	"github.com/tdewolff/canvas/renderers/pdf"

	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
	"ochrestone/vision/swatch"
)

// Mat writes the measuring mat as a PDF at true size.
func Mat(w io.Writer, page measure.Size, dark bool) error {
	l := mat.For(page, dark)
	p, err := matPage(l, "Ochrestone measuring mat", "Print at 100 %, no fitting. Lay pieces in the field, nothing on the rings, and take the whole page from straight above.")
	if err != nil {
		return fmt.Errorf("lay out the mat: %w", err)
	}
	return matPDF(w, p, l, "Measuring mat")
}

// Swatches writes a swatch sheet: the mat with a grid of cells to fill, each
// with what goes in it written below.
func Swatches(w io.Writer, page measure.Size, number int, title string, labels []string) error {
	l := mat.For(page, false)
	p, err := matPage(l, title, "Fill each cell evenly with its ink, not over its edge. Scan or photograph it wet, and again dry.")
	if err != nil {
		return fmt.Errorf("lay out the swatch sheet: %w", err)
	}
	g := swatch.For(l)
	for i, s := range labels {
		if i >= g.Cells() {
			break
		}
		b := g.Box(i)
		x, y := l.Field.Min.X+b.Min.X, l.Field.Min.Y+b.Min.Y
		p.rect(x, y, g.W, g.H, none, quiet, 0.15)
		for n, line := range p.wrap(p.f.text, 2.1, g.StepX-0.6, s) {
			if n < 2 {
				p.text(p.f.text, 2.1, x+g.W/2, y+g.H+2.6+2.3*float64(n), 0, inkText, line)
			}
		}
	}
	for _, b := range g.Number(number) {
		p.region(shape.Rect(l.Field.Min.X+b.Min.X, l.Field.Min.Y+b.Min.Y, b.W(), b.H()), place{k: 1}, color.RGBA{20, 20, 21, 255}, none, 0)
	}
	return matPDF(w, p, l, title)
}

// matPage draws everything of a mat but what stands in its field.
func matPage(l mat.Layout, title, how string) (*paper, error) {
	page, dark := l.Page, l.Dark
	p, err := newPaper(page.W, page.H)
	if err != nil {
		return nil, err
	}
	black := color.RGBA{20, 20, 21, 255}
	at := place{k: 1}
	for _, g := range l.Ink() {
		p.region(g, at, black, none, 0)
	}
	for _, t := range l.Patches {
		p.region(shape.Rect(t.Box.Min.X, t.Box.Min.Y, t.Box.W(), t.Box.H()), at, hex(t.Colour.Hex()), none, 0)
	}
	f := l.Field
	if !dark {
		p.rect(f.Min.X, f.Min.Y, f.W(), f.H(), none, rule, 0.15)
	}
	// What to do stands where no mark and no piece is.
	at0 := f.Min.X + p.text(p.f.bold, 2.6, f.Min.X, 20.4, -1, inkText, title) + 3
	p.text(p.f.text, 2.3, at0, 20.4, -1, inkText, how)
	for i := range 11 {
		x := f.Min.X + 10*float64(i)
		h := 1.2
		if i%5 == 0 {
			h = 2
		}
		p.line(x, page.H-7.2, x, page.H-7.2+h, 0.2, inkText)
	}
	p.line(f.Min.X, page.H-7.2, f.Min.X+100, page.H-7.2, 0.2, inkText)
	p.text(p.f.text, 2.3, f.Min.X+102, page.H-5.6, -1, inkText, "100 mm: measure it before you trust the mat")
	return p, nil
}

func matPDF(w io.Writer, p *paper, l mat.Layout, title string) error {
	out := pdf.New(w, l.Page.W, l.Page.H, nil)
	out.SetInfo(title, "Print at 100 %", "", "", "Ochrestone")
	p.c.RenderTo(out)
	if err := out.Close(); err != nil {
		return fmt.Errorf("write the mat: %w", err)
	}
	return nil
}

// Letters draws words as outlines of the shipped face, capital mm high, for
// word dies: the words themselves and the islands of their closed letters.
func Letters(text string, capital float64) (words, islands shape.Region, err error) {
	f, err := loadFonts()
	if err != nil {
		return words, islands, err
	}
	path, _, err := lettering(f.head, capital, text)
	if err != nil {
		return words, islands, err
	}
	flip := path.Scale(1, -1) // the face draws upward
	words = shape.FromPath(flip, true)
	var loose []shape.Ring
	for _, h := range words.Holes() {
		loose = append(loose, h.Rings()...)
	}
	return words, shape.Raw(loose...), nil
}
