package sheet

import (
	"cmp"
	"fmt"
	"image/color"
	"io"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/scene"
	"ochrestone/core/shape"
	"ochrestone/core/work"
)

// Of the pictures of a hand-out: how many stand beside one another, how high each is, and the room between
// them, mm; what is about as much of the card as is lit is shown, and no less than nearest of it.
const (
	across  = 3
	highest = 34.0
	between = 5.0
	nearest = 0.4
)

// lamp is the colour of what a step is about; a thick line of it is seen on a black-and-white printer too.
var lamp = color.RGBA{0x9a, 0x4d, 0x00, 255}

// Handout writes a card to teach or to give away: the finished front at true size, what is needed, the
// pieces at true size, and every step as a picture with a sentence. Nothing of what its maker owns, has left
// or paid is on it.
func Handout(w io.Writer, c card.Card, k kit.Kit, pl plan.Plan, opts ...Option) error {
	g := newGuide("A card to make", c, k, pl, opts)
	if err := g.handout(); err != nil {
		return fmt.Errorf("lay out the hand-out: %w", err)
	}
	return g.save(w)
}

func (g *guide) handout() error {
	if err := g.page(); err != nil {
		return err
	}
	right, err := g.whole("The front", drawing{g.card.Base.W, g.card.Base.H, func(p *paper, x, y float64) error {
		return front(p, g.card, g.kit, g.plan, x, y)
	}})
	if err != nil {
		return err
	}
	var hand []string
	for _, h := range work.AtHand(&g.plan.Build, g.plan.Steps, true) {
		hand = append(hand, h.Kind+": "+strings.Join(h.Names, "; ")+".")
	}
	x, y, w := right+8, top, g.size.W-margin-right-8
	if w < 52 {
		x, y, w = margin, g.y+4, g.size.W-2*margin
	}
	g.y = max(g.y, g.list(x, y, w, "What is needed", hand)) + 2
	for _, m := range g.plan.Motifs {
		if m.Problem != "" {
			continue
		}
		if err := g.apart(m); err != nil {
			return err
		}
	}
	return g.tiles()
}

// tiles lays the steps out as pictures, row by row, in the order of work.
func (g *guide) tiles() error {
	if len(g.plan.Steps) == 0 {
		return nil
	}
	if err := g.page(); err != nil {
		return err
	}
	wide := (g.size.W - 2*margin - (across-1)*between) / across
	pictures, pieces := scene.Of(&g.plan.Build, g.plan.Steps), g.small()
	cared := map[string]bool{}
	for from := 0; from < len(g.plan.Steps); from += across {
		row := g.plan.Steps[from:min(from+across, len(g.plan.Steps))]
		tiles, high := make([]block, len(row)), 0.0
		for n, s := range row {
			tiles[n] = g.tile(wide, s, pictures[from+n], pieces, cared)
			high = max(high, tiles[n].h)
		}
		if err := g.room(high); err != nil {
			return err
		}
		for n, t := range tiles {
			if err := t.draw(g.p, margin+float64(n)*(wide+between), g.y); err != nil {
				return err
			}
		}
		g.y += high + 3
	}
	return nil
}

// tile is one step: its picture, its number and title, its ink, what is done, and a caution where it first
// matters.
func (g *guide) tile(wide float64, s work.Act, pic scene.Step, pieces []miniature, cared map[string]bool) block {
	p := g.p
	title := fmt.Sprintf("%d  %s", s.Number, s.Title)
	if s.Minutes > 0 {
		title += fmt.Sprintf(", then wait %.0f min", s.Minutes)
	}
	head := p.wrap(p.f.bold, 3, wide, title)
	said := p.wrap(p.f.text, 2.6, wide, strings.TrimSpace(s.Detail+" "+s.Alike))
	var care []string
	for _, c := range s.Cautions {
		if !cared[c] {
			cared[c] = true
			care = append(care, p.wrap(p.f.bold, 2.4, wide, "Care: "+c)...)
		}
	}
	ink, inked := g.kit.Ink(s.Ink)
	patch := 0.0
	if inked {
		patch = 5
	}
	h := highest + 5 + float64(len(head))*3.8 + patch + float64(len(said))*3.4 + float64(len(care))*3.1
	return block{h: h, draw: func(p *paper, x, y float64) error {
		g.scene(p, pic, s.Mark(), pieces, x, y, wide)
		y += highest + 4.2
		for _, l := range head {
			p.text(p.f.bold, 3, x, y, -1, inkText, l)
			y += 3.8
		}
		if inked {
			// Wet at the left, dried at the right.
			wet, dry := g.patch(s, ink)
			p.rect(x, y-2.4, 4, 3.4, hex(wet), inkText, 0.1)
			p.rect(x+4, y-2.4, 6, 3.4, hex(dry), inkText, 0.1)
			p.text(p.f.text, 2.6, x+11.5, y+0.3, -1, inkText, ink.Name)
			y += patch
		}
		for _, l := range said {
			p.text(p.f.text, 2.6, x, y, -1, inkText, l)
			y += 3.4
		}
		for _, l := range care {
			p.text(p.f.bold, 2.4, x, y, -1, quiet, l)
			y += 3.1
		}
		return nil
	}}
}

// patch is the ink of a step wet and dried: as it comes out on its layer where it is that layer's own ink,
// else as it is in the stores.
func (g *guide) patch(s work.Act, ink kit.Ink) (wet, dry string) {
	for _, m := range g.plan.Motifs {
		for _, w := range m.Colourways {
			if l, ok := w.Of(s.ID.Part); ok && m.ID == s.ID.Motif && w.ID == s.ID.Colourway && l.InkName == ink.Name && len(l.Blends) == 0 {
				return l.Wet, l.Dry
			}
		}
	}
	return cmp.Or(ink.Wet, ink.Dry), cmp.Or(ink.Dry, ink.Wet)
}

// fine is how far the line of a small picture may lie off, mm of the card: less than a hair on paper.
const fine = 0.12

// miniature is a piece of the card as small pictures draw it, in its place on the front.
type miniature struct {
	outline shape.Region
	fill    color.RGBA
	films   []shape.Region
	inks    []color.RGBA
	of      []int // which treatment leaves each
}

// small are the pieces of the card for small pictures, as they are laid; those that are not drawn are empty.
func (g *guide) small() []miniature {
	b := &g.plan.Build
	up := b.Upward()
	out := make([]miniature, len(up))
	for n, i := range up {
		piece := b.Pieces[i]
		if piece.Bare || piece.Outline.Empty() {
			continue
		}
		m := miniature{outline: piece.Outline.Simplify(fine), fill: hex(piece.Top)}
		if piece.ID.Part == "" {
			m.fill = hex(piece.Body)
		}
		if t := thingOf(g.plan, piece.ID.Element); t != nil {
			for _, f := range piece.Films {
				if r := t.Place(f.Region).Simplify(fine); !r.Empty() {
					m.films, m.inks, m.of = append(m.films, r), append(m.inks, hex(f.Colour)), append(m.of, f.Treatment)
				}
			}
		}
		out[n] = m
	}
	return out
}

// scene draws the card as it is at a step in a frame so wide: what lies in its place, what was begun pale,
// what is to come in outline, what the step is about with a thick line round it.
func (g *guide) scene(p *paper, s scene.Step, mark shape.Region, pieces []miniature, x, y, wide float64) {
	base := g.card.Base
	see := lookedAt(base.W, base.H, wide/highest, pieces, s, mark)
	k := min(wide/see.W(), highest/see.H())
	at := place{x + (wide-see.W()*k)/2 - see.Min.X*k, y + (highest-see.H()*k)/2 - see.Min.Y*k, k}
	draw := func(r shape.Region, fill, edge color.RGBA, width float64) {
		if in := clipped(r, see); !in.Empty() {
			p.region(in, at, fill, edge, width)
		}
	}
	whole := shape.Rect(0, 0, base.W, base.H)
	draw(whole, hex(g.plan.Build.Stock.PaperColour(base.Paper).Hex()), rule, 0.15)
	for _, i := range s.Order() {
		m, share := pieces[i], 1.0
		switch scene.State(s.States[i]) {
		case scene.ToCome:
			draw(m.outline, none, rule, 0.1)
			continue
		case scene.Begun:
			share = 0.4
		}
		draw(m.outline, paled(m.fill, share), quiet, 0.08)
		for n, f := range m.films {
			if !s.Shows(i, m.of[n]) {
				continue // it comes later
			}
			draw(f, paled(m.inks[n], share), none, 0)
		}
	}
	switch {
	case !mark.Empty():
		draw(mark, none, lamp, 0.6)
	case len(s.Lit) == 0:
		draw(whole, none, lamp, 0.6)
	}
	for _, i := range s.Lit {
		if mark.Empty() {
			draw(pieces[i].outline, none, lamp, 0.6)
		}
	}
	p.rect(x, y, wide, highest, none, rule, 0.1)
}

// lookedAt is what of a card of w by h mm a picture shows whose frame is so much wider than high: all of it,
// or what is lit with some of what is round it.
func lookedAt(w, h, frame float64, pieces []miniature, s scene.Step, mark shape.Region) shape.Box {
	var lit []shape.Region
	for _, i := range s.Lit {
		if !pieces[i].outline.Empty() {
			lit = append(lit, pieces[i].outline)
		}
	}
	if !mark.Empty() {
		lit = []shape.Region{mark}
	}
	if len(lit) == 0 {
		return shape.Rect(0, 0, w, h).Bounds()
	}
	box := lit[0].Bounds()
	for _, g := range lit[1:] {
		b := g.Bounds()
		box.Min.X, box.Min.Y = min(box.Min.X, b.Min.X), min(box.Min.Y, b.Min.Y)
		box.Max.X, box.Max.Y = max(box.Max.X, b.Max.X), max(box.Max.Y, b.Max.Y)
	}
	wide, high := max(nearest*w, 2*box.W()), max(nearest*h, 2*box.H())
	wide, high = min(w, max(wide, high*frame)), min(h, max(high, wide/frame))
	c := box.Centre()
	return shape.Rect(min(max(c.X-wide/2, 0), w-wide), min(max(c.Y-high/2, 0), h-high), wide, high).Bounds()
}

// paled is a colour mixed with so much white that a share of it is left.
func paled(c color.RGBA, share float64) color.RGBA {
	mix := func(v uint8) uint8 { return uint8(255 - share*float64(255-v)) }
	return color.RGBA{mix(c.R), mix(c.G), mix(c.B), c.A}
}

// clipped is what of a region lies in a box: ring by ring, so that an opening stays one.
func clipped(g shape.Region, b shape.Box) shape.Region {
	o := g.Bounds()
	if o.Min.X >= b.Min.X && o.Min.Y >= b.Min.Y && o.Max.X <= b.Max.X && o.Max.Y <= b.Max.Y {
		return g
	}
	if o.Max.X <= b.Min.X || o.Max.Y <= b.Min.Y || o.Min.X >= b.Max.X || o.Min.Y >= b.Max.Y {
		return shape.Region{}
	}
	var out []shape.Ring
	for _, r := range g.Rings() {
		// A side of the box after another (Sutherland and Hodgman, Reentrant Polygon Clipping, 1974).
		for _, side := range []func(p shape.Point) float64{
			func(p shape.Point) float64 { return p.X - b.Min.X }, func(p shape.Point) float64 { return b.Max.X - p.X },
			func(p shape.Point) float64 { return p.Y - b.Min.Y }, func(p shape.Point) float64 { return b.Max.Y - p.Y },
		} {
			var in shape.Ring
			for i, p := range r {
				q := r[(i+len(r)-1)%len(r)]
				dp, dq := side(p), side(q)
				if (dp >= 0) != (dq >= 0) {
					in = append(in, q.Add(p.Sub(q).Scale(dq/(dq-dp))))
				}
				if dp >= 0 {
					in = append(in, p)
				}
			}
			r = in
		}
		if len(r) > 2 {
			out = append(out, r)
		}
	}
	return shape.Raw(out...)
}
