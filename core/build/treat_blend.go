package build

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// fadeBands is how finely fades are drawn: bands for each ink.
const fadeBands = 18

func (t *treating) fade(f card.Fade) (Treated, error) {
	out := Treated{}
	k := len(f.Inks)
	if f.From == card.FromImage {
		g, ok := t.b.imageOn(f.Round, t.e, t.at, t.images)
		if !ok {
			return Treated{Problem: "The image it glows round is not there any more: choose another."}, nil
		}
		t.round = g
	}
	if f.From == card.FromAll {
		for _, ink := range f.Inks {
			if err := t.ink(t.outline, ink, f.Passes()); err != nil {
				return out, err
			}
		}
		out.Regions = []shape.Region{t.outline}
		return out, nil
	}
	n := fadeBands * k
	zones := make([]shape.Region, n)
	for i := range zones {
		g, err := t.zone(f, f.Reach*float64(i+1)/float64(n))
		if err != nil {
			return out, err
		}
		zones[i] = g
	}
	inks := make([]makes, k)
	for j, ink := range f.Inks {
		inks[j] = t.inked(ink, f.Passes())
	}
	// From the outside in: each band is painted with all that lies further in, which is
	// painted after it, so that no seam is left between them.
	t.nests++
	nest := t.nests
	before := t.patches
	var all []Patch
	for i := n - 1; i >= 0; i-- {
		at := (float64(i) + 0.5) / fadeBands // in inks from where it begins
		t.patches = before
		if err := t.apply(zones[i], func(under colour.Linear, bare bool) colour.Linear { return faded(inks, at, under, bare) }); err != nil {
			return out, err
		}
		for _, p := range t.patches[len(before):] {
			p.nest = nest
			all = append(all, p)
		}
	}
	t.patches = append(slices.Clone(before), all...)
	out.Regions = []shape.Region{zones[n-1]}
	return out, nil
}

// faded is the colour of a fade at a distance from its start, counted in inks: each ink
// is fullest in the middle of its stretch, the first from the start on, and the last
// fades out; one alone pales from the start on.
func faded(inks []makes, at float64, under colour.Linear, bare bool) colour.Linear {
	k := len(inks)
	c := under
	for j, ink := range inks {
		share := 1 - math.Abs(at-(float64(j)+0.5))
		switch {
		case k == 1:
			share = 1 - at // one ink alone pales from the start on
		case j == 0 && at < 0.5:
			share = 1
		case j == k-1 && at > float64(j)+0.5:
			share = 1 - 2*(at-float64(j)-0.5)
		}
		if share <= 0 {
			continue
		}
		full := ink(under, bare)
		for i := range c {
			c[i] += min(1, share) * (full[i] - under[i])
		}
	}
	return c
}

// zone is the part of the sheet that lies no further than so much from where a fade
// begins.
func (t *treating) zone(f card.Fade, d float64) (shape.Region, error) {
	b := t.size
	w, h := b.W(), b.H()
	corner := func(x, y float64) shape.Region { return shape.Disc(shape.Point{X: x, Y: y}, d) }
	var g shape.Region
	switch f.From {
	case card.FromLeft:
		g = shape.Rect(b.Min.X, b.Min.Y, d, h)
	case card.FromRight:
		g = shape.Rect(b.Max.X-d, b.Min.Y, d, h)
	case card.FromTop:
		g = shape.Rect(b.Min.X, b.Min.Y, w, d)
	case card.FromFoot:
		g = shape.Rect(b.Min.X, b.Max.Y-d, w, d)
	case card.FromTopLeft:
		g = corner(b.Min.X, b.Min.Y)
	case card.FromTopRight:
		g = corner(b.Max.X, b.Min.Y)
	case card.FromBottomLeft:
		g = corner(b.Min.X, b.Max.Y)
	case card.FromBottomRight:
		g = corner(b.Max.X, b.Max.Y)
	case card.FromMiddle:
		g = corner(0, 0)
	case card.FromSpot:
		g = corner(f.X, f.Y)
	case card.FromImage:
		g, err := t.round.Offset(d)
		if err != nil {
			return g, fmt.Errorf("glow round an image: %w", err)
		}
		return g, nil
	case card.FromEdge:
		in, err := t.whole.Offset(-d)
		if err != nil {
			return g, fmt.Errorf("blend from the edge of a sheet: %w", err)
		}
		if g, err = t.outline.Minus(in); err != nil {
			return g, fmt.Errorf("blend from the edge of a sheet: %w", err)
		}
		return g, nil
	}
	return g, nil
}

func (t *treating) bands(b card.Bands) (Treated, error) {
	out := Treated{Sum: b.Sum(), Room: t.size.H() - b.Start}
	if b.Up {
		out.Room = t.size.W() - b.Start
	}
	at := b.Start
	for _, x := range b.Bands {
		g := shape.Rect(t.size.Min.X, t.size.Min.Y+at, t.size.W(), x.W)
		if b.Up {
			g = shape.Rect(t.size.Min.X+at, t.size.Min.Y, x.W, t.size.H())
		}
		at += x.W + b.Gap
		in, err := g.Intersect(t.outline)
		if err != nil {
			return out, fmt.Errorf("lay a band: %w", err)
		}
		out.Regions = append(out.Regions, in)
		if err := t.ink(in, x.Ink, 1); err != nil {
			return out, err
		}
	}
	return out, nil
}

func (t *treating) splash(s card.Splash) (Treated, error) {
	r := rand.New(rand.NewPCG(uint64(s.Seed)+1, uint64(s.Drops))) // the same throw for the same card
	var drops []shape.Region
	for range s.Drops {
		// Many small ones and a few large: as they fall off a brush.
		d := s.Size * math.Exp(0.55*r.NormFloat64())
		p := shape.Point{X: t.size.Min.X + r.Float64()*t.size.W(), Y: t.size.Min.Y + r.Float64()*t.size.H()}
		if s.Reach > 0 {
			p = shape.Polar(s.Reach*math.Sqrt(r.Float64()), 360*r.Float64()).Add(shape.Point{X: s.X, Y: s.Y})
		}
		drops = append(drops, shape.Disc(p, min(d, 6*s.Size)/2))
	}
	all, err := shape.UnionAll(drops...)
	if err != nil {
		return Treated{}, fmt.Errorf("splash a sheet: %w", err)
	}
	in, err := all.Intersect(t.outline)
	if err != nil {
		return Treated{}, fmt.Errorf("splash a sheet: %w", err)
	}
	out := Treated{Regions: []shape.Region{in}, Prints: s.Drops}
	if s.Ink != "" {
		return out, t.ink(in, s.Ink, 1)
	}
	// Water lifts ink that has not set: the longer it lies the more (common practice, no
	// source; how much is our own guess). Bare card is only dulled by it.
	lift := 0.25 + 0.5*min(1, s.Dwell/60)
	bare := t.b.Stock.PaperColour(t.paper)
	return out, t.apply(in, func(under colour.Linear, _ bool) colour.Linear { return mixed(under, bare, lift) })
}

func (t *treating) stroke(s card.Stroke) (Treated, error) {
	line, err := layout.LineOf(s.Points, s.W)
	if err != nil {
		return Treated{}, fmt.Errorf("paint a stroke: %w", err)
	}
	in, err := line.Intersect(t.outline)
	if err != nil {
		return Treated{}, fmt.Errorf("paint a stroke: %w", err)
	}
	return Treated{Regions: []shape.Region{in}}, t.ink(in, s.Ink, 1)
}

func (t *treating) edged(x card.Edged) (Treated, error) {
	in, err := t.whole.Offset(-x.W)
	if err != nil {
		return Treated{}, fmt.Errorf("ink the edge of a sheet: %w", err)
	}
	rim, err := t.outline.Minus(in)
	if err != nil {
		return Treated{}, fmt.Errorf("ink the edge of a sheet: %w", err)
	}
	return Treated{Regions: []shape.Region{rim}}, t.ink(rim, x.Ink, 1)
}
