package sheet

import (
	"fmt"
	"image/color"
	"math"

	"github.com/tdewolff/canvas"
)

// foot is the height kept free at the foot of a page for its check bar, mm, and
// top that for its heading.
const (
	foot = 22.0
	top  = margin + 12
)

// drawing is something of w by h mm drawn at x, y of a surface.
type drawing struct {
	w, h float64
	draw func(p *paper, x, y float64) error
}

// whole puts a drawing on the page at true size and leaves g.y beneath it. One
// that is too wide for the page is turned a quarter where that helps, else folded
// over several pages, with lines to join them at; either is said on the page. It
// returns where the drawing's right edge came to lie, mm.
func (g *guide) whole(name string, d drawing) (right float64, err error) {
	wide, high := g.size.W-2*margin, g.size.H-foot-top
	switch {
	case d.w <= wide && d.h <= high:
		if err := g.room(d.h + 10); err != nil {
			return 0, err
		}
		if err := d.draw(g.p, margin, g.y); err != nil {
			return 0, err
		}
		g.y += d.h
		return margin + d.w, nil
	case d.h <= wide && d.w <= high-6:
		return g.turned(name, d)
	}
	return g.folded(name, d, wide, high-6)
}

// turned draws with the top edge at the right.
func (g *guide) turned(name string, d drawing) (float64, error) {
	if err := g.room(d.w + 10); err != nil {
		return 0, err
	}
	sub, err := newPaper(d.w, d.h)
	if err != nil {
		return 0, err
	}
	if err := d.draw(sub, 0, 0); err != nil {
		return 0, err
	}
	g.p.text(g.p.f.text, 2.8, margin, g.y+2, -1, quiet, fmt.Sprintf("%s is wider than this page, so it is turned: its top edge is at the right.", name))
	g.y += 5
	// The surface has its origin at the foot: a quarter turn clockwise about it, then
	// to its place.
	m := canvas.Identity.Translate(margin, g.p.h-g.y).Rotate(-90)
	sub.c.RenderViewTo(g.p.c, m)
	g.y += d.w
	return margin + d.h, nil
}

// folded draws as many pages as it takes, each with lines where the next joins on.
func (g *guide) folded(name string, d drawing, wide, high float64) (float64, error) {
	cols, rows := int(math.Ceil(d.w/wide)), int(math.Ceil(d.h/high))
	white := color.RGBA{255, 255, 255, 255}
	for r := range rows {
		for c := range cols {
			if r+c > 0 || g.y > top+1 {
				if err := g.page(); err != nil {
					return 0, err
				}
			}
			y := g.y + 6
			x0, y0 := float64(c)*wide, float64(r)*high
			w, h := math.Min(wide, d.w-x0), math.Min(high, d.h-y0)
			sub, err := newPaper(g.size.W, g.size.H)
			if err != nil {
				return 0, err
			}
			if err := d.draw(sub, margin-x0, y-y0); err != nil {
				return 0, err
			}
			// What belongs on another page is covered, then the page's own marks go on top.
			sub.rect(-500, -500, 500+margin, 3000, white, none, 0)
			sub.rect(margin+w, -500, 1000, 3000, white, none, 0)
			sub.rect(-500, -500, 3000, 500+y, white, none, 0)
			sub.rect(-500, y+h, 3000, 1000, white, none, 0)
			page := g.pages[len(g.pages)-1]
			sub.c.RenderTo(page.c)
			if err := g.marks(); err != nil {
				return 0, err
			}
			g.p.text(g.p.f.text, 2.8, margin, y-3, -1, quiet, fmt.Sprintf("%s is larger than this page: part %d of %d. Join the parts at the dashed lines.", name, r*cols+c+1, rows*cols))
			if c > 0 {
				g.p.dashes(margin, y, margin, y+h)
			}
			if c < cols-1 {
				g.p.dashes(margin+w, y, margin+w, y+h)
			}
			if r > 0 {
				g.p.dashes(margin, y, margin+w, y)
			}
			if r < rows-1 {
				g.p.dashes(margin, y+h, margin+w, y+h)
			}
			g.y = y + h
		}
	}
	return g.size.W - margin, nil
}

// dashes draws a dashed line, straight along or down.
func (p *paper) dashes(x0, y0, x1, y1 float64) {
	n := math.Hypot(x1-x0, y1-y0)
	ux, uy := (x1-x0)/n, (y1-y0)/n
	for s := 0.0; s < n; s += 5 {
		e := math.Min(n, s+3)
		p.line(x0+ux*s, y0+uy*s, x0+ux*e, y0+uy*e, 0.2, quiet)
	}
}
