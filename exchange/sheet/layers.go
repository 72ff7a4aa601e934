package sheet

import (
	"fmt"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/look"
	"ochrestone/core/plan"

	"github.com/tdewolff/canvas"
)

// gutter is between two columns, mm.
const gutter = 8.0

// cell is the height of a layer in the table, mm.
const cell = 12.4

// layers is the table of one image in two columns, lowest first, for each colourway in use.
func (g *guide) layers(m plan.Motif, cm card.Motif) error {
	wide := (g.size.W - 2*margin - gutter) / 2
	for _, w := range m.Colourways {
		rows := (len(w.Layers) + 1) / 2
		if err := g.room(min(10+float64(rows)*cell, 60)); err != nil {
			return err
		}
		if err := g.heading(m.Name + ", " + w.Name + ": layers, lowest first"); err != nil {
			return err
		}
		for i := 0; i < len(w.Layers); {
			// As many rows as this page still has, down the left, then down the right.
			here := min((len(w.Layers)-i+1)/2, int((g.size.H-foot-g.y)/cell))
			if here < 1 {
				if err := g.page(); err != nil {
					return err
				}
				continue
			}
			from := g.y
			for k := 0; k < 2*here && i < len(w.Layers); k++ {
				g.row(margin+float64(k/here)*(wide+gutter), from+float64(k%here)*cell, wide, i, m.Layers[i], cm, w)
				i++
			}
			g.y = from + float64(here)*cell + 1
		}
	}
	return nil
}

// row writes one layer in a cell of the table.
func (g *guide) row(x, y, w float64, i int, l plan.Layer, m card.Motif, way look.Colourway) {
	p, cl, look := g.p, m.Layers[i], way.Layers[i]
	p.line(x, y, x+w, y, 0.1, rule)
	p.rect(x, y+1.6, 9, 8.4, hex(look.Dry), rule, 0.15)
	ink := look.InkName
	if ink == "" {
		ink = g.inkless(cl, m, way.ID)
	}
	for n, b := range look.Blends {
		if n < 3 && b.Dry != "" {
			p.rect(x+6-3*float64(n), y+1.6+float64(n), 3, 8.4-2*float64(n), hex(b.Dry), none, 0)
		}
		ink += fmt.Sprintf(", %s at the %s", b.InkName, b.Zone)
	}
	what := look.PaperName
	if cl.Make != card.Cut {
		what = string(cl.Make)
		if cl.Region != nil && cl.Region.By == card.Enclosed {
			what = "coloured within its line"
		} else if cl.Spares() {
			what = "no ink on it"
		}
	}
	tx, tw := x+11.5, w-11.5
	p.text(p.f.bold, 3.1, tx, y+4, -1, inkText, fitting(p, p.f.bold, 3.1, tw-16, fmt.Sprintf("%d  %s", i+1, l.Label)))
	p.text(p.f.bold, 2.6, x+w, y+4, 1, inkText, fmt.Sprintf("× %d", max(1, cl.Copies)))
	p.text(p.f.text, 2.7, tx, y+7.6, -1, inkText, fitting(p, p.f.text, 2.7, tw, fmt.Sprintf("%s; %s", ink, what)))
	p.text(p.f.text, 2.5, tx, y+11, -1, quiet, fitting(p, p.f.text, 2.5, tw, fmt.Sprintf("%s; top at %s; lightness %.0f, %s", g.play(l), g.write.Thin(look.Z1), look.L, look.Source)))
}

// inkless says of a layer without an ink what that means.
func (g *guide) inkless(l card.Layer, m card.Motif, way string) string {
	if l.Make == card.Cut {
		return "plain"
	}
	if l.Spares() {
		return "kept as it is"
	}
	if w, ok := m.Colourway(way); ok && w.Layers[l.ID].Bare {
		return "left bare on purpose"
	}
	return "no ink yet"
}

// fitting is the text, cut short with a mark where it is wider than w mm.
func fitting(p *paper, f *canvas.FontFamily, size, w float64, s string) string {
	if lines := p.wrap(f, size, w, s); len(lines) > 1 {
		return lines[0] + " …"
	}
	return s
}

func (g *guide) play(l plan.Layer) string {
	switch {
	case !l.Play.Judged:
		return "place freely"
	case l.Play.Outside > 0:
		return "runs over its host"
	}
	turn := math.Min(l.Play.Clock, l.Play.Anti)
	if turn > 90 {
		return fmt.Sprintf("play %s, turns freely", g.write.Thin(l.Play.Tight))
	}
	return fmt.Sprintf("play %s, turn %.1f°", g.write.Thin(l.Play.Tight), turn)
}
