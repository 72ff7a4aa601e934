package sheet

import (
	"fmt"
	"html"
	"image/color"
	"io"
	"strconv"
	"strings"

	"github.com/tdewolff/canvas/renderers/pdf"

	"ochrestone/core/cut"
	"ochrestone/core/measure"
	"ochrestone/exchange/table"
)

// Colours of lines on a sheet: what is cut straight, what is cut along an outline, folds.
var (
	straightInk = color.RGBA{0x1d, 0x23, 0x27, 0xff}
	outlineInk  = color.RGBA{0x9a, 0x2f, 0x2b, 0xff}
)

// WriteCutting writes what to cut as a PDF: the list by cardstock, and after it every sheet
// at true size on a page as large as the sheet, with the pieces on it and its straight cuts
// numbered in order.
func WriteCutting(w io.Writer, title string, c cut.Plan, opts ...Option) error {
	g := &guide{size: measure.A4, write: measure.Metric}
	for _, o := range opts {
		o(g)
	}
	p, err := newPaper(g.size.W, g.size.H)
	if err != nil {
		return err
	}
	r := pdf.New(w, p.w, p.h, &pdf.Options{Compress: true})
	flush := func(next *paper) {
		p.c.RenderTo(r)
		if next != nil {
			r.NewPage(next.w, next.h)
		}
		p = next
	}
	y := 0.0
	page := func() error {
		q, err := newPaper(g.size.W, g.size.H)
		if err != nil {
			return err
		}
		flush(q)
		g.p = p
		y = 24
		return nil
	}
	g.p = p
	g.checkBar()
	p.text(p.f.head, 5, margin, 18, -1, inkText, "Cut list of “"+title+"”")
	y = 26
	box := func() { p.rect(margin, y-2.4, 2.6, 2.6, none, inkText, 0.2) }
	line := func(size float64, bold bool, s string) error {
		f := p.f.text
		if bold {
			f = p.f.bold
		}
		for _, l := range p.wrap(f, size, g.size.W-2*margin, s) {
			if y > g.size.H-24 {
				if err := page(); err != nil {
					return err
				}
				f = p.f.text
				if bold {
					f = p.f.bold
				}
			}
			x := margin
			if rest, ok := strings.CutPrefix(l, "\x01"); ok {
				box()
				l, x = rest, margin+5
			}
			p.text(f, size, x, y, -1, inkText, l)
			y += size * 1.45
		}
		return nil
	}
	cards := "one card"
	if c.Copies > 1 {
		cards = fmt.Sprintf("%d cards", c.Copies)
	}
	if err := line(3, false, fmt.Sprintf("For %s. Keep fingers clear of blades; cut away from your hands. Squares are to be ticked. Sheets follow at true size, one to a page; a piece too small for its name has its number.", cards)); err != nil {
		return err
	}
	for _, s := range c.Stocks {
		y += 2
		head := fmt.Sprintf("%s: %s", s.Name, several(s.Needs, "sheet"))
		if s.Owned {
			head += fmt.Sprintf(" of %d", s.Has)
		}
		if err := line(3.4, true, head); err != nil {
			return err
		}
		for n, x := range s.Wants {
			t := fmt.Sprintf("\x01%d. %d × %s, %s × %s, %s", n+1, x.N, x.Name, g.write.Length(x.W), g.write.Length(x.H), x.By)
			if x.Spares > 0 {
				t += fmt.Sprintf(" (%d of them to spare)", x.Spares)
			}
			if err := line(3, false, t); err != nil {
				return err
			}
		}
		for _, l := range s.Lacks {
			if err := line(3, false, fmt.Sprintf("Not laid: %d × %s. %s %s", l.N, s.Wants[l.Want].Name, l.Why, l.Do)); err != nil {
				return err
			}
		}
	}
	if len(c.Counts) > 0 {
		y += 2
		if err := line(3.4, true, "Beside paper"); err != nil {
			return err
		}
		for _, x := range c.Counts {
			t := fmt.Sprintf("\x01%d × %s", x.N, x.Name)
			if x.Said != "" {
				t += ", " + x.Said
			}
			if err := line(3, false, t); err != nil {
				return err
			}
		}
	}
	for _, s := range c.Stocks {
		for n, sh := range s.Sheets {
			q, err := newPaper(sh.W, sh.H)
			if err != nil {
				return err
			}
			flush(q)
			onSheet(p, s, sh, n, g.write)
		}
	}
	flush(nil)
	if err := r.Close(); err != nil {
		return fmt.Errorf("write the cut list: %w", err)
	}
	return nil
}

// onSheet draws a sheet at true size.
func onSheet(p *paper, s cut.Stock, sh cut.Sheet, n int, w measure.Writing) {
	p.rect(0.1, 0.1, sh.W-0.2, sh.H-0.2, none, rule, 0.2)
	for _, pl := range sh.Placed {
		edge := outlineInk
		if s.Wants[pl.Want].By == "trimmer" {
			edge = straightInk
		}
		p.region(regionOf(pl.Path), place{0, 0, 1}, none, edge, 0.2)
		label := s.Wants[pl.Want].Name
		if p.f.text.Face(2.4*ptPerMM, quiet).TextWidth(label) > regionOf(pl.Path).Bounds().W()-2 {
			label = strconv.Itoa(pl.Want + 1) // its number in the list
		}
		p.text(p.f.text, 2.4, pl.X, pl.Y, 0, quiet, label)
	}
	for i, c := range sh.Cuts {
		x, y := c.X+c.At, c.Y+2.5
		if c.Down {
			p.line(x, c.Y, x, c.Y+c.H, 0.3, straightInk)
		} else {
			x, y = c.X+1.5, c.Y+c.At
			p.line(c.X, y, c.X+c.W, y, 0.3, straightInk)
			y -= 0.6
		}
		p.text(p.f.bold, 2.4, x+0.6, y+2, -1, inkText, strconv.Itoa(i+1))
	}
	p.text(p.f.text, 2.2, 2, sh.H-1.5, -1, quiet, fmt.Sprintf("%s, %s %d", s.Name, sh.Kind, n+1))
}

// WriteCuttingSheet writes one sheet as SVG in mm with its lines by layers and colours:
// black straight cuts, red outlines, blue the middle of folds.
func WriteCuttingSheet(w io.Writer, s cut.Stock, sh cut.Sheet) error {
	var b []byte
	b = fmt.Appendf(b, `<svg xmlns="http://www.w3.org/2000/svg" width="%.3fmm" height="%.3fmm" viewBox="0 0 %.3f %.3f" fill="none" stroke-width="0.1">`+"\n<title>%s</title>\n", sh.W, sh.H, sh.W, sh.H, html.EscapeString(s.Name))
	b = append(b, `<g id="cut-straight" stroke="#000000">`...)
	for _, pl := range sh.Placed {
		if s.Wants[pl.Want].By == "trimmer" {
			b = fmt.Appendf(b, `<path d="%s"><title>%s</title></path>`, pl.Path, html.EscapeString(s.Wants[pl.Want].Name))
		}
	}
	b = append(b, "</g>\n"+`<g id="cut-outlines" stroke="#d00000">`...)
	for _, pl := range sh.Placed {
		if s.Wants[pl.Want].By != "trimmer" {
			b = fmt.Appendf(b, `<path d="%s"><title>%s</title></path>`, pl.Path, html.EscapeString(s.Wants[pl.Want].Name))
		}
	}
	b = append(b, "</g>\n"+`<g id="score" stroke="#0000d0" stroke-dasharray="2 1">`...)
	for _, pl := range sh.Placed {
		x := s.Wants[pl.Want]
		if x.Fold == "" || x.Part != "" || x.Element != "" {
			continue // flaps are marked on their own drawings
		}
		box := regionOf(pl.Path).Bounds()
		down := (x.Fold == "down") == (pl.Turn == 0)
		if down {
			b = fmt.Appendf(b, `<path d="M%.3f %.3fV%.3f"/>`, pl.X, box.Min.Y, box.Max.Y)
		} else {
			b = fmt.Appendf(b, `<path d="M%.3f %.3fH%.3f"/>`, box.Min.X, pl.Y, box.Max.X)
		}
	}
	b = append(b, "</g>\n</svg>\n"...)
	_, err := w.Write(b)
	return err
}

// WriteCutList writes what to cut as a table: one row for each sort of piece.
func WriteCutList(w io.Writer, c cut.Plan) error {
	rows := [][]string{{"stock", "piece", "each", "in all", "spares", "width mm", "height mm", "cut with", "sheets needed", "sheets owned"}}
	for _, s := range c.Stocks {
		for _, x := range s.Wants {
			rows = append(rows, []string{s.Name, x.Name, strconv.Itoa(x.Each), strconv.Itoa(x.N), strconv.Itoa(x.Spares), fmt.Sprintf("%.1f", x.W), fmt.Sprintf("%.1f", x.H), x.By, strconv.Itoa(s.Needs), strconv.Itoa(s.Has)})
		}
	}
	for _, x := range c.Counts {
		has := ""
		if x.Has >= 0 {
			has = strconv.Itoa(x.Has)
		}
		rows = append(rows, []string{"", x.Name, strconv.Itoa(x.Each), strconv.Itoa(x.N), "", "", "", "", "", has})
	}
	if err := table.Write(w, rows); err != nil {
		return fmt.Errorf("write the cut list: %w", err)
	}
	return nil
}
