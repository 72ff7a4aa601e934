package sheet

import (
	"ochrestone/core/depth"
	"ochrestone/core/look"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/work"
)

// highPicture is how high a picture of a state may be, mm.
const highPicture = 34.0

// state is a picture of what lies on the bench when the first n steps are done: pieces
// apart, images stacked, or the front as far as it is built. Nil where there is nothing
// to see, or where the card is finished: that stands on the first page.
func (g *guide) state(n int, wide float64) (*block, error) {
	done := g.plan.Steps[:n]
	switch g.plan.Steps[n-1].Group {
	case work.CutGroup:
		return g.picture(wide, g.pieces(done, false))
	case work.InkGroup:
		if parts := g.pieces(done, true); len(parts) > 0 {
			return g.picture(wide, parts)
		}
		return g.picture(wide, g.built(done))
	case work.StackGroup:
		return g.picture(wide, g.stacks())
	case work.BuildGroup:
		return g.picture(wide, g.built(done))
	}
	return nil, nil
}

// shown is a thing in a picture of a state, in a frame of its own.
type shown struct {
	box  shape.Box
	draw func(p *paper, at place) error
}

// picture lays things side by side, at one scale, as large as their room lets them be.
func (g *guide) picture(wide float64, things []shown) (*block, error) {
	const gap = 4.0
	w, h := 0.0, 0.0
	for _, t := range things {
		w += t.box.W()
		h = max(h, t.box.H())
	}
	if len(things) == 0 || w <= 0 || h <= 0 {
		return nil, nil
	}
	k := min((wide-gap*float64(len(things)-1))/w, highPicture/h, 1)
	if k <= 0 {
		return nil, nil
	}
	return &block{h: h*k + 6, draw: func(p *paper, x, y float64) error {
		for _, t := range things {
			at := place{x - t.box.Min.X*k, y + 2 + (h-t.box.H())*k/2 - t.box.Min.Y*k, k}
			if err := t.draw(p, at); err != nil {
				return err
			}
			x += t.box.W()*k + gap
		}
		return nil
	}}, nil
}

// pieces are the cut layers of the images, each image once: in the colour of their paper,
// or as they were inked and printed on so far.
func (g *guide) pieces(done []work.Act, inked bool) []shown {
	printed := map[[3]string]bool{}
	for _, a := range done {
		printed[[3]string{a.ID.Motif, a.ID.Colourway, a.ID.Part}] = true
	}
	var out []shown
	for _, m := range g.used() {
		img := m.m.Image()
		for i, v := range img.Views {
			l := m.w.Layers[i]
			if l.Thick <= 0 {
				continue
			}
			out = append(out, shown{v.Outline.Bounds(), func(p *paper, at place) error {
				fill := l.Paper
				if inked {
					fill = l.Dry
				}
				p.region(v.Outline, at, hex(fill), inkText, 0.1)
				for k, o := range img.Views {
					if inked && o.Host == i && m.w.Layers[k].Thick <= 0 && !m.w.Layers[k].Bare && (o.Layer.Spares() || printed[[3]string{m.m.ID, m.w.ID, m.w.Layers[k].ID}]) {
						p.region(o.Outline, at, hex(m.w.Layers[k].Dry), none, 0)
					}
				}
				return nil
			}})
		}
	}
	return out
}

// stacks are the images, each colourway once, as they lie stacked.
func (g *guide) stacks() []shown {
	var out []shown
	for _, m := range g.used() {
		img := m.m.Image()
		if len(img.Views) == 0 {
			continue
		}
		box := img.Views[0].Outline.Bounds()
		for _, v := range img.Views {
			b := v.Outline.Bounds()
			box.Min.X, box.Min.Y, box.Max.X, box.Max.Y = min(box.Min.X, b.Min.X), min(box.Min.Y, b.Min.Y), max(box.Max.X, b.Max.X), max(box.Max.Y, b.Max.Y)
		}
		out = append(out, shown{box, func(p *paper, at place) error {
			for i, v := range img.Views {
				edge := 0.0
				if m.w.Layers[i].Bare {
					continue
				}
				if m.w.Layers[i].Thick > 0 {
					edge = 0.1
				}
				p.region(v.Outline, at, hex(m.w.Layers[i].Dry), inkText, edge)
			}
			return nil
		}})
	}
	return out
}

// dressed is an image in a colourway that is on the card.
type dressed struct {
	m plan.Motif
	w look.Colourway
}

// used are the images on the card, each colourway once.
func (g *guide) used() []dressed {
	var out []dressed
	seen := map[[2]string]bool{}
	for _, e := range g.card.Elements {
		if e.Image == nil || seen[[2]string{e.Image.Motif, e.Image.Colourway}] {
			continue
		}
		seen[[2]string{e.Image.Motif, e.Image.Colourway}] = true
		for _, m := range g.plan.Motifs {
			for _, w := range m.Colourways {
				if m.Problem == "" && m.ID == e.Image.Motif && w.ID == e.Image.Colourway {
					out = append(out, dressed{m, w})
				}
			}
		}
	}
	return out
}

// built is the front as far as the acts have brought it: what is put down, and what is
// printed on a sheet that is cut.
func (g *guide) built(done []work.Act) []shown {
	base, down, made := false, map[string]bool{}, map[[3]string]bool{}
	mats := 0
	for _, a := range done {
		switch a.ID.Verb {
		case work.Place, work.Mount:
			down[a.ID.Element] = true
			if a.ID.Verb == work.Mount {
				mats++
			}
		case work.Cut:
			if a.ID.Motif == "" {
				down[a.ID.Element] = true
			}
		case work.Print:
			made[[3]string{a.ID.Element, a.ID.Motif, a.ID.Part}] = true
		}
	}
	for _, e := range g.card.Elements {
		// A strip lies on the bench beside until it is put down.
		if e.Sheet != nil && e.Inset == nil {
			down[e.ID] = false
		}
	}
	for _, a := range done {
		if a.ID.Verb == work.Place {
			down[a.ID.Element] = true
		}
	}
	base = mats > 0
	pl := g.plan
	pl.Stood = nil
	for _, s := range g.plan.Stood {
		if down[s.ID.Element] || g.printedOn(s, made) {
			pl.Stood = append(pl.Stood, s)
		}
	}
	if len(pl.Stood) == 0 {
		return nil
	}
	w, h := g.card.Base.W, g.card.Base.H
	return []shown{{shape.Rect(0, 0, w, h).Bounds(), func(p *paper, at place) error {
		return frontAt(p, g.card, g.kit, pl, at, base)
	}}}
}

// printedOn reports whether a piece is a print that has been made.
func (g *guide) printedOn(s depth.Stood, made map[[3]string]bool) bool {
	if s.Thick > 0 || s.ID.Part == "" {
		return false
	}
	e, ok := g.card.Element(s.ID.Element)
	if !ok || e.Image == nil {
		return false
	}
	return made[[3]string{"", e.Image.Motif, s.ID.Part}] || made[[3]string{e.ID, e.Image.Motif, s.ID.Part}]
}
