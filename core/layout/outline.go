package layout

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// ErrNoPart is returned for an outline of a die part that the stores do not hold.
var ErrNoPart = errors.New("the die part is not in the stores")

// PartOf finds the outline of a part of a set.
type PartOf func(set, part string) (shape.Region, bool)

// Usual measures of outlines where none are given: our own defaults, mm or shares.
const (
	usualPitch  = 6.0 // of scallops, waves
	usualStrip  = 3.0 // of a fringe
	usualWave   = 1.5 // depth of a wave
	usualNotch  = 1.0 / 3
	usualFringe = 0.6 // of the height
	slit        = 0.3 // a cut of a fringe as it is drawn
	tagHole     = 2.0 // radius of a tag's hole
)

// Outline is the region of an outline of w by h mm about the origin; nil is a plain
// rectangle. A die part keeps its own size. It returns ErrNoPart where that is gone, and
// an error where the measures leave nothing.
func Outline(o *card.Outline, w, h float64, part PartOf) (shape.Region, error) {
	if o == nil {
		return shape.Rect(-w/2, -h/2, w, h), nil
	}
	short := min(w, h)
	d := o.Depth
	if d == 0 {
		d = usualNotch * h
	}
	switch o.Kind {
	case card.Rectangle:
		return round(w, h, min(o.Pitch, short/2)), nil
	case card.Oval:
		return oval(w, h), nil
	case card.Arch:
		return arch(w, h), nil
	case card.Scalloped, card.Wavy:
		return edged(*o, w, h)
	case card.Fringe:
		return fringe(*o, w, h), nil
	case card.Fishtail, card.Notched, card.Pointed, card.Slanted:
		if d >= w/2 {
			return shape.Region{}, fmt.Errorf("its ends go %.4g mm deep into %.4g mm: make them shallower", d, w)
		}
		return banner(o.Kind, w, h, d), nil
	case card.Tag:
		return tag(w, h, o.Pitch)
	case card.DiePart:
		g, ok := part(o.Set, o.Part)
		if !ok || g.Empty() {
			return shape.Region{}, ErrNoPart
		}
		c := g.Bounds().Centre()
		return g.Move(shape.Point{X: -c.X, Y: -c.Y}), nil
	}
	return shape.Region{}, fmt.Errorf("%q is not an outline this version knows", o.Kind)
}

// Sheet is the outline of a sheet of w by h mm about the origin, and whether a die cuts it so. One that is
// to be of another size than its die is the die's outline drawn to that size, which no die cuts; one that
// is laid by margins, or has no size of its own, is as large as its die. Errors are those of Outline.
func Sheet(s card.Sheet, w, h float64, part PartOf) (g shape.Region, die bool, err error) {
	g, err = Outline(s.Shape, w, h, part)
	if err != nil || s.Shape == nil || s.Shape.Kind != card.DiePart {
		return g, false, err
	}
	box := g.Bounds()
	if s.W <= 0 || s.H <= 0 || box.Sized(w, h, kit.SameSize) {
		return g, true, nil
	}
	return g.Stretch(w/box.W(), h/box.H()), false, nil
}

// arcSteps is in how many straight bits a quarter of a round is drawn; 4 and more for
// larger ones, so that no chord leaves the arc by more than the tolerance of regions.
func arcSteps(r float64) int {
	if r <= 0 {
		return 1
	}
	return max(4, int(math.Ceil(math.Pi/2/math.Acos(1-math.Min(0.5, shape.Tolerance/2/r))/2)))
}

func round(w, h, r float64) shape.Region {
	if r <= 0 {
		return shape.Rect(-w/2, -h/2, w, h)
	}
	n := arcSteps(r)
	var ring shape.Ring
	for q, c := range []shape.Point{{X: w/2 - r, Y: h/2 - r}, {X: -w/2 + r, Y: h/2 - r}, {X: -w/2 + r, Y: -h/2 + r}, {X: w/2 - r, Y: -h/2 + r}} {
		for i := range n + 1 {
			s, cs := math.Sincos(math.Pi / 2 * (float64(q) + float64(i)/float64(n)))
			ring = append(ring, shape.Point{X: c.X + r*cs, Y: c.Y + r*s})
		}
	}
	return shape.New(true, ring)
}

func oval(w, h float64) shape.Region {
	n := 4 * arcSteps(max(w, h)/2)
	ring := make(shape.Ring, n)
	for i := range ring {
		s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		ring[i] = shape.Point{X: w / 2 * c, Y: h / 2 * s}
	}
	return shape.Raw(ring)
}

// arch is a rectangle with a half round on top: of a circle where it is high enough.
func arch(w, h float64) shape.Region {
	up := min(w/2, h)
	n := 2 * arcSteps(w/2)
	ring := shape.Ring{{X: w / 2, Y: h / 2}, {X: -w / 2, Y: h / 2}}
	for i := range n + 1 {
		s, c := math.Sincos(math.Pi * float64(i) / float64(n))
		ring = append(ring, shape.Point{X: -w / 2 * c, Y: -h/2 + up - up*s})
	}
	return shape.New(true, ring)
}

func banner(k card.Outlined, w, h, d float64) shape.Region {
	x, y := w/2, h/2
	left := shape.Ring{{X: -x, Y: y}, {X: -x, Y: -y}}
	switch k {
	case card.Fishtail:
		return shape.New(true, append(shape.Ring{{X: x, Y: -y}, {X: x - d, Y: 0}, {X: x, Y: y}, {X: -x, Y: y}, {X: -x + d, Y: 0}}, shape.Point{X: -x, Y: -y}))
	case card.Notched:
		return shape.New(true, append(shape.Ring{{X: x, Y: -y}, {X: x - d, Y: 0}, {X: x, Y: y}}, left...))
	case card.Pointed:
		return shape.New(true, append(shape.Ring{{X: x - d, Y: -y}, {X: x, Y: 0}, {X: x - d, Y: y}}, left...))
	}
	return shape.New(true, append(shape.Ring{{X: x, Y: -y}, {X: x - d, Y: y}}, left...))
}

func tag(w, h, corner float64) (shape.Region, error) {
	c := min(corner, min(w, h)/2)
	if c <= 0 {
		c = min(w, h) / 4
	}
	body := shape.New(true, shape.Ring{{X: -w/2 + c, Y: -h / 2}, {X: w/2 - c, Y: -h / 2}, {X: w / 2, Y: -h/2 + c}, {X: w / 2, Y: h / 2}, {X: -w / 2, Y: h / 2}, {X: -w / 2, Y: -h/2 + c}})
	g, err := body.Minus(shape.Disc(shape.Point{Y: -h/2 + max(4, c)}, min(tagHole, min(w, h)/8)))
	if err != nil {
		return g, fmt.Errorf("punch the hole of a tag: %w", err)
	}
	return g, nil
}

// edged is a rectangle with some sides scalloped or wavy: hills reach out to the box,
// valleys go in by the depth, and there is a whole number of them on every side.
func edged(o card.Outline, w, h float64) (shape.Region, error) {
	pitch := o.Pitch
	if pitch == 0 {
		pitch = usualPitch
	}
	depth := o.Depth
	if depth == 0 {
		depth = usualWave
		if o.Kind == card.Scalloped {
			depth = pitch / 2
		}
	}
	has := func(s card.Side) bool { return len(o.Sides) == 0 || slices.Contains(o.Sides, s) }
	in := func(s card.Side) float64 {
		if has(s) {
			return depth
		}
		return 0
	}
	l, r, t, b := -w/2+in(card.LeftSide), w/2-in(card.RightSide), -h/2+in(card.TopSide), h/2-in(card.BottomSide)
	if r-l < pitch || b-t < pitch {
		return shape.Region{}, fmt.Errorf("valleys %.4g mm deep and %.4g mm wide leave nothing of %.4g × %.4g mm: make them smaller", depth, pitch, w, h)
	}
	var ring shape.Ring
	side := func(s card.Side, from, to shape.Point) {
		ring = append(ring, from)
		if !has(s) {
			return
		}
		along := to.Sub(from)
		out := shape.Point{X: along.Y, Y: -along.X}.Scale(1 / along.Len()) // to the left of the way: outwards, as we go clockwise with y down
		n := max(1, int(math.Round(along.Len()/pitch)))
		const steps = 20
		for i := 1; i < n*steps; i++ {
			u := float64(i%steps) / steps
			f := (1 - math.Cos(2*math.Pi*u)) / 2
			if o.Kind == card.Scalloped {
				f = math.Sqrt(max(0, 1-(2*u-1)*(2*u-1)))
			}
			ring = append(ring, from.Add(along.Scale(float64(i)/float64(n*steps))).Add(out.Scale(depth*f)))
		}
	}
	side(card.TopSide, shape.Point{X: l, Y: t}, shape.Point{X: r, Y: t})
	side(card.RightSide, shape.Point{X: r, Y: t}, shape.Point{X: r, Y: b})
	side(card.BottomSide, shape.Point{X: r, Y: b}, shape.Point{X: l, Y: b})
	side(card.LeftSide, shape.Point{X: l, Y: b}, shape.Point{X: l, Y: t})
	return shape.New(true, ring), nil
}

// fringe is a rectangle cut into strips from its foot, or from the sides named.
func fringe(o card.Outline, w, h float64) shape.Region {
	pitch, depth := o.Pitch, o.Depth
	if pitch == 0 {
		pitch = usualStrip
	}
	sides := o.Sides
	if len(sides) == 0 {
		sides = []card.Side{card.BottomSide}
	}
	has := func(s card.Side) bool { return slices.Contains(sides, s) }
	var ring shape.Ring
	side := func(s card.Side, from, to shape.Point, across float64) {
		ring = append(ring, from)
		if !has(s) {
			return
		}
		d := depth
		if d == 0 {
			d = usualFringe * across
		}
		d = min(d, across-1)
		along := to.Sub(from)
		u := along.Scale(1 / along.Len())
		in := shape.Point{X: -u.Y, Y: u.X} // inwards, as we go clockwise with y down
		n := max(1, int(math.Round(along.Len()/pitch)))
		for i := 1; i < n; i++ {
			at := from.Add(along.Scale(float64(i) / float64(n)))
			a, b := at.Sub(u.Scale(slit/2)), at.Add(u.Scale(slit/2))
			ring = append(ring, a, a.Add(in.Scale(d)), b.Add(in.Scale(d)), b)
		}
	}
	x, y := w/2, h/2
	side(card.TopSide, shape.Point{X: -x, Y: -y}, shape.Point{X: x, Y: -y}, h)
	side(card.RightSide, shape.Point{X: x, Y: -y}, shape.Point{X: x, Y: y}, w)
	side(card.BottomSide, shape.Point{X: x, Y: y}, shape.Point{X: -x, Y: y}, h)
	side(card.LeftSide, shape.Point{X: -x, Y: y}, shape.Point{X: -x, Y: -y}, w)
	return shape.New(true, ring)
}
