package build

import (
	"fmt"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// shine is how far the light and the dark edge of raised powder and pressed lines stand
// from what they edge, mm, and how much lighter or darker they are.
const (
	shine     = 0.12
	shineBy   = 0.10
	pressedBy = 0.07
)

func lighter(c colour.Linear, by float64) colour.Linear { return mixed(c, colour.Linear{1, 1, 1}, by) }

func darker(c colour.Linear, by float64) colour.Linear { return mixed(c, colour.Linear{}, by) }

// raise paints the light from the top left on a region that stands up, or lies down.
func (t *treating) raise(g shape.Region, up bool, by float64) error {
	c := t.under(g)
	light, dark := lighter(c, by), darker(c, by)
	if !up {
		light, dark = dark, light
	}
	if err := t.mark(g.Move(shape.Point{X: shine, Y: shine}), dark); err != nil {
		return err
	}
	if err := t.mark(g.Move(shape.Point{X: -shine, Y: -shine}), light); err != nil {
		return err
	}
	return t.mark(g, c)
}

// usualPitch is from rib to rib and dot to dot where none is given, mm.
const usualPitch = 4.0

func (t *treating) pressed(p card.Pressed) (Treated, error) {
	if p.Relief == card.InPart {
		part, ok := t.b.partOf(p.Set, p.Part)
		if !ok {
			return Treated{Problem: noPart}, nil
		}
		g := part.Outline
		place := card.Place{X: p.X, Y: p.Y, Turn: p.Turn}
		at := layout.Place(g, g.Bounds(), place)
		if err := t.raise(at, true, pressedBy); err != nil {
			return Treated{}, err
		}
		for _, s := range part.Seats() {
			t.seats = append(t.seats, layout.Place(s, g.Bounds(), place))
		}
		return Treated{Regions: []shape.Region{at}}, t.lines(part, place)
	}
	step := p.Pitch
	if step == 0 {
		step = usualPitch
	}
	w, h := t.size.W(), t.size.H()
	if (w/step)*(h/step) > mostBumps {
		return Treated{Problem: "So fine a relief is not drawn: take a larger step."}, nil
	}
	var bits []shape.Region
	long := math.Hypot(w, h)
	rib := func(turn float64) {
		for x := -long / 2; x <= long/2; x += step {
			bits = append(bits, shape.Rect(x-step/5, -long/2, step/2.5, long).Turn(turn, shape.Point{}))
		}
	}
	switch p.Relief {
	case card.Ribs:
		rib(p.Turn)
	case card.Weave:
		rib(p.Turn + 45)
	case card.Dots:
		row := 0
		for y := -h / 2; y <= h/2; y += step * math.Sqrt(3) / 2 {
			for x := -w/2 + step/2*float64(row%2); x <= w/2; x += step {
				bits = append(bits, shape.Disc(shape.Point{X: x, Y: y}, step/4))
			}
			row++
		}
	}
	var rings []shape.Ring
	for _, g := range bits {
		rings = append(rings, g.Rings()...)
	}
	all := shape.Raw(rings...)
	if p.Relief == card.Weave {
		bits = bits[:0]
		rib(p.Turn - 45)
		var across []shape.Ring
		for _, g := range bits {
			across = append(across, g.Rings()...)
		}
		if err := t.raise(all, true, pressedBy); err != nil {
			return Treated{}, err
		}
		all = shape.Raw(across...)
	}
	return Treated{Regions: []shape.Region{t.outline}}, t.raise(all, true, pressedBy)
}

// mostBumps is how many ribs and dots are drawn at the most.
const mostBumps = 6000

func (t *treating) glaze(c card.Glaze) (Treated, error) {
	g := t.outline
	if c.Reach > 0 {
		var err error
		if g, err = shape.Disc(shape.Point{X: c.X, Y: c.Y}, c.Reach).Intersect(t.outline); err != nil {
			return Treated{}, fmt.Errorf("glaze a sheet: %w", err)
		}
	}
	out := Treated{Regions: []shape.Region{g}}
	// A clear coat deepens what is beneath a little; shimmer lightens it (our own guess).
	by := map[card.Glazed]float64{card.Gloss: 0.06, card.Shimmer: -0.05, card.Fixed: 0.02}[c.Kind]
	return out, t.apply(g, func(under colour.Linear, _ bool) colour.Linear {
		if by < 0 {
			return lighter(under, -by)
		}
		return darker(under, by)
	})
}

// lineWide is how wide a pressed line is drawn, mm.
const lineWide = 0.25

// lineBy is how much lighter and darker than the card its two edges are.
const lineBy = 0.2

// lines presses the lines of a part, which lies at a place, into the sheet.
func (t *treating) lines(p kit.Part, at card.Place) error {
	c := p.Outline.Bounds().Centre()
	var all []shape.Region
	for _, line := range p.Pressed() {
		ps := make([]card.Offset, 0, len(line))
		for _, q := range line {
			ps = append(ps, card.Offset{X: q.X - c.X, Y: q.Y - c.Y})
		}
		g, err := layout.LineOf(ps, lineWide)
		if err != nil {
			return fmt.Errorf("press the lines of %s: %w", p.Label, err)
		}
		all = append(all, layout.Place(g, shape.Box{}, at))
	}
	if len(all) == 0 {
		return nil
	}
	g, err := shape.UnionAll(all...)
	if err != nil {
		return fmt.Errorf("press the lines of %s: %w", p.Label, err)
	}
	return t.raise(g, false, lineBy)
}
