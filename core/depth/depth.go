// Package depth computes how high everything on a card stands: the layers of
// an image on each other, the image on the front, the whole in its envelope.
package depth

import (
	"math"
	"slices"

	"ochrestone/core/bend"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Stood is a piece with its heights.
type Stood struct {
	build.Piece
	Z0   float64 // underside, mm above the table; of one that leans, in the middle of its weight
	Z1   float64 // top
	Turn int     // when it is laid down, from 0: what is laid later lies over it

	Under    Plane      // its underside; of one that is bent, about how it lies
	Bent     bend.Field // its underside where it is bent; flat: it is not
	Supports []Support  // what holds it, where it is raised
	Uneven   *Uneven    // how it lies where what is beneath is of several heights; nil where it lies level
	Off      float64    // how far a part of it hangs from the nearest pad, mm; 0 where that is no trouble
	OffAt    shape.Point
}

// Over is the height of its top at a point, mm.
func (s Stood) Over(q shape.Point) float64 { return s.Below(q) + s.Thick }

// Gap is how near a piece comes to one beneath it, mm of air; below 0 where it is pressed in. Of two
// that do not lie over each other it is infinite.
func (s Stood) Gap(o Stood) float64 {
	if s.Uneven == nil && o.Uneven == nil {
		return s.Z0 - o.Z1
	}
	gap := math.Inf(1)
	mine, its := shape.Banded(s.Outline), shape.Banded(o.Outline)
	for _, q := range slices.Concat(scattered(s.Outline, spread), shape.Along(o.Outline, spread)) {
		if mine.Contains(q) && its.Contains(q) {
			gap = min(gap, s.Below(q)-o.Over(q))
		}
	}
	return gap
}

// Highest is the height of its top where it is highest, mm.
func (s Stood) Highest() float64 {
	if s.Uneven == nil {
		return s.Z1
	}
	return s.Over(s.Uneven.High)
}

// Stack stands the pieces on each other in order, on a floor at the given
// height: each rests on the highest thing beneath any part of it, since card
// is stiff at this size. What comes back goes by the pieces.
func Stack(pieces []build.Piece, floor float64) []Stood {
	out := make([]Stood, len(pieces))
	boxes := make([]shape.Box, len(pieces))
	for i, s := range pieces {
		boxes[i] = s.Outline.Bounds()
		z := floor
		// From the top down the first that is met is mostly the highest, and
		// spares comparing outlines with all that lie lower.
		for j := i - 1; j >= 0; j-- {
			if b := &out[j]; b.Z1 > z && boxes[j].Meets(boxes[i]) && b.Outline.Overlaps(s.Outline) {
				z = b.Z1
			}
		}
		z += s.Lift
		out[i] = Stood{Piece: s, Z0: z, Z1: z + s.Thick, Turn: i, Under: Level(z)}
	}
	return out
}

// Top is the greatest height of the stack, at least floor, and the piece that
// reaches it (-1 for none).
func Top(stood []Stood, floor float64) (float64, int) {
	top, at := floor, -1
	for i, s := range stood {
		if z := s.Highest(); z > top+1e-9 {
			top, at = z, i
		}
	}
	return top, at
}

// Slab is where a section passes through a piece.
type Slab struct {
	Index  int     // of the piece
	X0, X1 float64 // mm along the cut
}

// Section cuts the stack along the horizontal line at height y of the front.
func Section(stood []Stood, y float64) []Slab {
	var out []Slab
	for i, s := range stood {
		for _, x := range s.Outline.Cross(y) {
			out = append(out, Slab{i, x[0], x[1]})
		}
	}
	return out
}

// Image gives every layer of an image's look its heights, as the image stands by
// itself, and how high it stands in all, mm.
func Image(s look.Stock, m look.Image, w card.Colourway, as *look.Colourway) {
	stood := Stack(build.Stack(s, m, w, *as), 0)
	for i, p := range stood {
		l := &as.Layers[i]
		l.Z0, l.Z1, l.Thick, l.Lift, l.Foam = p.Z0, p.Z1, p.Thick, p.Lift, p.Foam
	}
	as.Height, _ = Top(stood, 0)
}

// Weigh returns the weight in grams of an area in mm² of sheets of gsm.
func Weigh(area, gsm float64) float64 { return math.Max(0, area) * gsm / 1e6 }

// Girth is how much flat width and height of an envelope a card takes up: half
// the length of a taut wrapping round its cross-section, across and down. A
// plain card of width W and thickness t takes W + t; parts raised well inside
// the edge take less than that.
func Girth(s measure.Size, base float64, stood []Stood) measure.Size {
	across := []shape.Point{{X: 0, Y: 0}, {X: s.W, Y: 0}, {X: 0, Y: base}, {X: s.W, Y: base}}
	down := []shape.Point{{X: 0, Y: 0}, {X: s.H, Y: 0}, {X: 0, Y: base}, {X: s.H, Y: base}}
	for _, t := range stood {
		if t.Outline.Empty() {
			continue
		}
		b := t.Outline.Bounds()
		across = append(across, shape.Point{X: b.Min.X, Y: t.Highest()}, shape.Point{X: b.Max.X, Y: t.Highest()})
		down = append(down, shape.Point{X: b.Min.Y, Y: t.Highest()}, shape.Point{X: b.Max.Y, Y: t.Highest()})
	}
	return measure.Size{W: shape.HullLength(across) / 2, H: shape.HullLength(down) / 2}
}
