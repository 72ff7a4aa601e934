package depth

import (
	"math"

	"ochrestone/core/shape"
)

// Plane is the underside of a stiff part: Z at the point At, rising by SX and SY for each
// mm to the right and down.
type Plane struct {
	At     shape.Point
	Z      float64 // mm
	SX, SY float64 // mm a mm
}

// Level is a plane of one height.
func Level(z float64) Plane { return Plane{Z: z} }

// Over is the height of the plane at a point, mm.
func (p Plane) Over(q shape.Point) float64 {
	return p.Z + p.SX*(q.X-p.At.X) + p.SY*(q.Y-p.At.Y)
}

// Slope is how steep the plane is, mm a mm.
func (p Plane) Slope() float64 { return math.Hypot(p.SX, p.SY) }

// Rise is how much higher the plane is at one end of an outline than at the other, mm, and
// where it is highest and lowest.
func (p Plane) Rise(g shape.Region) (rise float64, high, low shape.Point) {
	hi, lo := math.Inf(-1), math.Inf(1)
	for _, r := range g.Rings() {
		for _, q := range r {
			z := p.Over(q)
			if z > hi {
				hi, high = z, q
			}
			if z < lo {
				lo, low = z, q
			}
		}
	}
	return max(0, hi-lo), high, low
}

// Bearing is a point at which a part would be borne, no lower than Z.
type Bearing struct {
	At shape.Point
	Z  float64 // the underside is at least so high there, mm
}

// steepest is how steep a part may come to lie, mm a mm: a card that leans more than one
// in two has fallen over.
const steepest = 0.5

// Rest is how a stiff part of which the middle of its weight is at g comes to lie on what
// bears it: the plane over all the bearings that is lowest at g, which is what weight
// makes of it; it touches three of them around g, two with g between, or one beneath g.
// Where g lies outside all of them it leans as far as a part may, a half. Without bearings
// it is level at 0.
//
// Statics: a rigid plate on unilateral supports has the least potential energy; by the
// duality of linear programs its load is carried by those it touches.
func Rest(g shape.Point, on []Bearing) Plane {
	if len(on) == 0 {
		return Plane{At: g}
	}
	most, tops := math.Inf(-1), []shape.Point{}
	for _, b := range on {
		if b.Z > most+1e-9 {
			most, tops = b.Z, tops[:0]
		}
		if b.Z > most-1e-9 {
			tops = append(tops, b.At)
		}
	}
	if len(tops) == len(on) || shape.Raw(shape.Hull(tops)).Contains(g) {
		return Plane{At: g, Z: most}
	}
	// Few of the bearings matter: those that the part would sink below, one by one, the
	// deepest first.
	p := Plane{At: g, Z: math.Inf(-1)}
	var some []Bearing
	for len(some) < len(on) {
		deepest, sunk := -1, 1e-7
		for i, b := range on {
			if d := b.Z - p.Over(b.At); d > sunk {
				deepest, sunk = i, d
			}
		}
		if deepest < 0 {
			break
		}
		some = append(some, on[deepest])
		p = restOn(g, some)
	}
	return p
}

// restOn is Rest without ado.
func restOn(g shape.Point, on []Bearing) Plane {
	// The height at g is a convex function of the two slopes, piecewise linear: a search
	// within a search finds its lowest. Of equally low planes the flattest counts.
	at := func(sx, sy float64) float64 {
		z := math.Inf(-1)
		for _, b := range on {
			z = max(z, b.Z-sx*(b.At.X-g.X)-sy*(b.At.Y-g.Y))
		}
		return z + flatter*(sx*sx+sy*sy)
	}
	over := func(sx float64) (z, sy float64) {
		return lowest(func(sy float64) float64 { return at(sx, sy) })
	}
	_, sx := lowest(func(sx float64) float64 { z, _ := over(sx); return z })
	_, sy := over(sx)
	return Plane{At: g, Z: at(sx, sy) - flatter*(sx*sx+sy*sy), SX: sx, SY: sy}
}

// How far, mm, an end of a part may stand above all that bears it before the hand that presses it
// on bends it down, and how far it then still stands up; our own defaults.
const (
	levers = 1.0
	bentTo = 0.05
)

// drooped is how a part of card lies where a stiff one would lever an end far up: card bends, and
// pressed on it ends hardly above the highest thing that bears it.
func drooped(p Plane, g shape.Region, on []Bearing) Plane {
	top := Bearing{Z: math.Inf(-1)}
	for _, b := range on {
		if b.Z > top.Z {
			top = b
		}
	}
	high := math.Inf(-1)
	for _, r := range g.Rings() {
		for _, q := range r {
			high = max(high, p.Over(q))
		}
	}
	if at := p.Over(top.At); high > top.Z+levers {
		s := bentTo / max(bentTo, high-at)
		level := Plane{At: top.At, Z: top.Z, SX: s * p.SX, SY: s * p.SY}
		return Plane{At: p.At, Z: level.Over(p.At), SX: level.SX, SY: level.SY}
	}
	return p
}

// flatter is how much flatness counts among planes that are equally low.
const flatter = 1e-7

// lowest finds where a convex function is lowest between the steepest slopes.
func lowest(f func(float64) float64) (value, at float64) {
	const ratio = 0.6180339887498949
	lo, hi := -steepest, steepest
	a, b := hi-ratio*(hi-lo), lo+ratio*(hi-lo)
	fa, fb := f(a), f(b)
	for hi-lo > 1e-6 {
		if fa < fb {
			hi, b, fb = b, a, fa
			a = hi - ratio*(hi-lo)
			fa = f(a)
		} else {
			lo, a, fa = a, b, fb
			b = lo + ratio*(hi-lo)
			fb = f(b)
		}
	}
	at = (lo + hi) / 2
	return f(at), at
}
