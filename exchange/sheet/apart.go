package sheet

import (
	"cmp"
	"fmt"
	"image/color"
	"slices"

	"ochrestone/core/motif"
	"ochrestone/core/placing"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
)

// around is how much of a host is drawn round a piece on it, mm.
const around = 9.0

// spread is a piece with what is drawn of its host, in the frame of its image.
type spread struct {
	i    int // of the image's views
	box  shape.Box
	host shape.Region
}

// spreads are the pieces of an image, each with its surroundings on its host.
func spreads(img motif.Image) ([]spread, error) {
	out := make([]spread, len(img.Views))
	for i, v := range img.Views {
		b := v.Outline.Bounds()
		s := spread{i: i, box: b}
		if v.Host != motif.Ground {
			h := img.Views[v.Host].Outline
			near := shape.Rect(b.Min.X-around, b.Min.Y-around, b.W()+2*around, b.H()+2*around)
			var err error
			if s.host, err = h.Intersect(near); err != nil {
				return nil, fmt.Errorf("draw the surroundings of %s: %w", v.Layer.Label, err)
			}
			if hb := s.host.Bounds(); !s.host.Empty() {
				s.box.Min.X, s.box.Min.Y = min(b.Min.X, hb.Min.X), min(b.Min.Y, hb.Min.Y)
				s.box.Max.X, s.box.Max.Y = max(b.Max.X, hb.Max.X), max(b.Max.Y, hb.Max.Y)
			}
		}
		out[i] = s
	}
	return out, nil
}

// apart lays every layer out at true size with its host in outline, high ones first, in
// rows: each goes where a row still has room for it.
func (g *guide) apart(m plan.Motif) error {
	img := m.Image()
	all, err := spreads(img)
	if err != nil || len(all) == 0 {
		return err
	}
	slices.SortStableFunc(all, func(a, b spread) int { return cmp.Compare(b.box.H(), a.box.H()) })
	if err := g.room(all[0].box.H() + 24); err != nil {
		return err
	}
	if err := g.heading(m.Name + ": laid apart at true size, with the points to sight on"); err != nil {
		return err
	}
	name := func(s spread) string { return fmt.Sprintf("%d  %s", s.i+1, img.Views[s.i].Layer.Label) }
	wide, high := g.size.W-2*margin, g.size.H-foot-top-12
	type row struct{ x, y, h float64 }
	var rows []row
	for _, s := range all {
		if s.box.W() > wide || s.box.H() > high {
			rows = nil
			if _, err := g.whole(name(s), drawing{s.box.W(), s.box.H(), func(p *paper, x, y float64) error {
				return g.piece(p, m, s, place{x - s.box.Min.X, y - s.box.Min.Y, 1})
			}}); err != nil {
				return err
			}
			g.y += 9
			continue
		}
		k := slices.IndexFunc(rows, func(r row) bool { return r.x+s.box.W() <= g.size.W-margin && s.box.H() <= r.h })
		if k < 0 {
			if g.y+s.box.H()+8 > g.size.H-foot {
				if err := g.page(); err != nil {
					return err
				}
				rows = nil
			}
			k, rows = len(rows), append(rows, row{margin, g.y, s.box.H()})
			g.y += s.box.H() + 8
		}
		r := &rows[k]
		if err := g.piece(g.p, m, s, place{r.x - s.box.Min.X, r.y + 4 - s.box.Min.Y, 1}); err != nil {
			return err
		}
		w := g.p.text(g.p.f.bold, 2.8, r.x, r.y+2.5, -1, inkText, name(s))
		r.x += max(s.box.W(), w) + 6
	}
	return nil
}

// piece draws a layer on the outline of its host, with its sighting points.
func (g *guide) piece(p *paper, m plan.Motif, s spread, at place) error {
	img := m.Image()
	v := img.Views[s.i]
	if !s.host.Empty() {
		p.region(s.host, at, none, rule, 0.2)
	}
	fill := "#dddddd"
	if len(m.Colourways) > 0 {
		fill = m.Colourways[0].Layers[s.i].Dry
	}
	p.region(v.Outline, at, hex(fill), inkText, 0.15)
	if len(m.Colourways) > 0 {
		if err := p.shades(v.Outline, at, m.Colourways[0].Layers[s.i].Blends); err != nil {
			return err
		}
	}
	sights(p, img, s.i, at)
	return nil
}

// sights numbers the points to bring a layer into place by.
func sights(p *paper, img motif.Image, i int, at place) {
	for n, f := range placing.Sights(img, i) {
		q := shape.Point{X: at.x + f.X, Y: at.y + f.Y}
		p.region(shape.Disc(q, 0.7), place{k: 1}, none, inkText, 0.25)
		p.region(shape.Disc(q.Add(shape.Point{X: 3}), 1.7), place{k: 1}, color.RGBA{255, 255, 255, 255}, inkText, 0.2)
		p.text(p.f.bold, 2.4, q.X+3, q.Y+0.9, 0, inkText, fmt.Sprint(n+1))
	}
}
