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
