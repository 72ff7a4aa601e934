package assemble

import (
	"math"

	"ochrestone/core/shape"
)

// Twin says how two pieces are alike.
type Twin int

// Kinds of twins.
const (
	NotTwins Twin = iota
	Same          // the same outline
	Mirror        // each the other's mirror image
)

// twinSlack is how far apart, mm on the mean, the edges of twins may lie.
const twinSlack = 0.15

// Twins compares two pieces by outline, however they are turned. Pieces that
// are their own mirror image are Same.
func Twins(g, h shape.Region) Twin {
	a, b := g.Area(), h.Area()
	if math.Abs(a-b) > 0.03*math.Max(a, b) || math.Abs(g.Length()-h.Length()) > 0.04*math.Max(g.Length(), h.Length()) || len(g.Rings()) != len(h.Rings()) {
		return NotTwins
	}
	g, h = g.Move(g.Centroid().Scale(-1)), h.Move(h.Centroid().Scale(-1))
	if turnedOnto(g, h) < twinSlack {
		return Same
	}
	if turnedOnto(g.Mirror(0), h) < twinSlack {
		return Mirror
	}
	return NotTwins
}

// turnedOnto is the least mean distance between the edges of g, turned about
// the origin, and h.
func turnedOnto(g, h shape.Region) float64 {
	miss, _ := turned(g, h)
	return miss
}

// turnOnto is the turn at which that is.
func turnOnto(g, h shape.Region) float64 {
	_, deg := turned(g, h)
	return deg
}

func turned(g, h shape.Region) (least, deg float64) {
	r := shape.NewField(h, math.Max(0.15, math.Sqrt(h.Area())/120))
	pts := even(g, 72)
	miss := func(deg float64) float64 {
		s, c := math.Sincos(deg * math.Pi / 180)
		var sum float64
		for _, p := range pts {
			sum += math.Abs(r.Inside(shape.Point{X: p.X*c - p.Y*s, Y: p.X*s + p.Y*c}))
		}
		return sum / float64(len(pts))
	}
	best, at := math.Inf(1), 0.0
	for d := 0.0; d < 360; d += 3 {
		if m := miss(d); m < best {
			best, at = m, d
		}
	}
	for step := 1.5; step > 0.05; step /= 2 {
		for _, d := range [2]float64{at - step, at + step} {
			if m := miss(d); m < best {
				best, at = m, d
			}
		}
	}
	return best, at
}

// Symmetry is an axis through the centroid.
type Symmetry struct {
	Deg float64 // direction of the axis, degrees clockwise from the right, 0 to 180
	Off float64 // mean distance between the piece and its mirror image, mm
}

// Axis finds the axis of symmetry nearest to upright, and whether the piece
// has one.
func Axis(g shape.Region) (Symmetry, bool) {
	c := g.Centroid()
	r := shape.NewField(g.Move(c.Scale(-1)), math.Max(0.15, math.Sqrt(g.Area())/120))
	pts := even(g, 96)
	for i := range pts {
		pts[i] = pts[i].Sub(c)
	}
	miss := func(deg float64) float64 {
		s, k := math.Sincos(2 * deg * math.Pi / 180)
		var sum float64
		for _, p := range pts {
			sum += math.Abs(r.Inside(shape.Point{X: p.X*k + p.Y*s, Y: p.X*s - p.Y*k}))
		}
		return sum / float64(len(pts))
	}
	limit := math.Max(0.12, math.Sqrt(g.Area())*0.006)
	var best Symmetry
	found := false
	for d := 0.0; d < 180; d++ {
		if m := miss(d); m > 2.5*limit || m > miss(d-1) || m > miss(d+1) {
			continue
		}
		at, m := d, miss(d)
		for step := 0.5; step > 0.01; step /= 2 {
			for _, q := range [2]float64{at - step, at + step} {
				if v := miss(q); v < m {
					at, m = q, v
				}
			}
		}
		at = math.Mod(at+180, 180)
		if m < limit && (!found || math.Abs(at-90) < math.Abs(best.Deg-90)) {
			best, found = Symmetry{at, m}, true
		}
	}
	return best, found
}

// even spreads about n points evenly along the outer edges of a region.
func even(g shape.Region, n int) []shape.Point {
	outer := g.Filled()
	step := outer.Length() / float64(n)
	var out []shape.Point
	next, gone := 0.0, 0.0
	for _, ring := range outer.Rings() {
		for i, a := range ring {
			b := ring[(i+1)%len(ring)]
			d := a.Distance(b)
			for d > 0 && next <= gone+d && len(out) < n {
				out = append(out, a.Add(b.Sub(a).Scale((next-gone)/d)))
				next += step
			}
			gone += d
		}
	}
	return out
}
