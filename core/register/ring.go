package register

import "math"

// Chord is the distance between neighbours of n images turned about a centre at
// radius r: 2 r sin(180°/n).
func Chord(n int, r float64) float64 { return 2 * r * math.Sin(math.Pi/float64(n)) }

// TouchRadius is the radius at which n images of a given width, each turned to
// point outward, just touch their neighbours at half their width: the chord is
// the width.
func TouchRadius(n int, width float64) float64 {
	return width / (2 * math.Sin(math.Pi/float64(n)))
}

// Step is the turn from one image to the next, degrees.
func Step(n int) float64 { return 360 / float64(n) }

// Interleave is the radius of a second ring of n images of width inner that stand
// between those of a ring of n images of a width at radius r, half a turn on, as
// far out as they go with the gap between all. ok is false when they cannot stand
// there without touching.
func Interleave(n int, r, width, inner, gap float64) (radius float64, ok bool) {
	a := math.Pi / float64(n)
	apart := (width+inner)/2 + gap
	if 2*r*math.Sin(a/2) >= apart {
		radius = r // there is room on the same circle
	} else {
		left := apart*apart - r*r*math.Sin(a)*math.Sin(a)
		radius = r*math.Cos(a) - math.Sqrt(math.Max(0, left))
	}
	return radius, radius > 0 && Chord(n, radius) >= inner+gap-1e-9
}

// LargestInRing is the width of the largest image that clears its neighbours by
// the gap in a ring of n whose images reach no further than reach from the centre:
// w + gap = 2(reach - w/2) sin(180°/n). It is 0 when there is no room.
func LargestInRing(n int, reach, gap float64) float64 {
	s := math.Sin(math.Pi / float64(n))
	return math.Max(0, (2*reach*s-gap)/(1+s))
}
