package trace

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// What belongs to one print: ink of one colour, none of it far from the rest.
const (
	sameInk  = 20.0 // CIEDE2000
	sameStep = 14.0 // mm between the boxes of two dots of one print
)

// Step is one print of a stamped sheet: all its dots and solids.
type Step struct {
	Region shape.Region
	Colour colour.Linear
}

// Steps gathers what was found on a stamped sheet into prints, from the top
// left in rows as they are read.
func Steps(pieces []Piece) []Step {
	group := make([]int, len(pieces))
	for i := range group {
		group[i] = i
	}
	root := func(i int) int {
		for group[i] != i {
			i = group[i]
		}
		return i
	}
	labs := make([]colour.Lab, len(pieces))
	for i, p := range pieces {
		labs[i] = p.Colour.Lab()
	}
	for i := range pieces {
		for j := range i {
			if boxGap(pieces[i].Region.Bounds(), pieces[j].Region.Bounds()) < sameStep && colour.Difference(labs[i], labs[j]) < sameInk {
				a, b := root(i), root(j)
				group[max(a, b)] = min(a, b)
			}
		}
	}
	var out []Step
	for i := range pieces {
		if root(i) != i {
			continue
		}
		var rings []shape.Ring
		var sum colour.Linear
		var area float64
		for j, p := range pieces {
			if root(j) == i {
				rings = append(rings, p.Region.Rings()...)
				a := p.Region.Area()
				area += a
				for c := range sum {
					sum[c] += p.Colour[c] * a
				}
			}
		}
		if area < leastPiece {
			continue // a speck of dust
		}
		for c := range sum {
			sum[c] /= area
		}
		out = append(out, Step{shape.Raw(rings...), sum})
	}
	readingOrder(out, func(s Step) shape.Box { return s.Region.Bounds() })
	return out
}

func boxGap(a, b shape.Box) float64 {
	dx := math.Max(0, math.Max(a.Min.X-b.Max.X, b.Min.X-a.Max.X))
	dy := math.Max(0, math.Max(a.Min.Y-b.Max.Y, b.Min.Y-a.Max.Y))
	return math.Hypot(dx, dy)
}

// readingOrder sorts things row by row: one whose middle lies above the next
// row's tops comes first.
func readingOrder[T any](items []T, box func(T) shape.Box) {
	slices.SortStableFunc(items, func(a, b T) int {
		p, q := box(a), box(b)
		switch {
		case p.Centre().Y < q.Min.Y:
			return -1
		case q.Centre().Y < p.Min.Y:
			return 1
		}
		return cmp.Compare(p.Centre().X, q.Centre().X)
	})
}

// Openings takes the holes of the largest piece, a stencil's plate, as regions
// of their own, from the top left in rows.
func Openings(pieces []Piece) ([]shape.Region, error) {
	var out []shape.Region
	if len(pieces) > 0 {
		out = pieces[0].Region.Holes()
	}
	if len(out) == 0 {
		return nil, &picture.Problem{What: "No openings can be seen in a stencil.", Mend: "Lay the whole stencil, with a margin round it, on white or black paper that shows through its openings."}
	}
	readingOrder(out, shape.Region.Bounds)
	return out, nil
}

// Split cuts a region along the straight line from a to b: a hair's breadth is
// taken out, and what falls apart becomes pieces, largest first.
func Split(g shape.Region, a, b shape.Point) ([]shape.Region, error) {
	const hair = 0.04 // mm
	for _, v := range [4]float64{a.X, a.Y, b.X, b.Y} {
		if !(math.Abs(v) <= shape.MaxReach) {
			return nil, &picture.Problem{What: "The cut leads far off the sheet.", Mend: "Draw it right across the place where the pieces touch."}
		}
	}
	d := b.Sub(a)
	if d.Len() < 0.5 {
		return nil, &picture.Problem{What: "The cut is too short.", Mend: "Draw it right across the place where the pieces touch."}
	}
	n := shape.Point{X: -d.Y, Y: d.X}.Scale(hair / 2 / d.Len())
	knife := shape.New(true, shape.Ring{a.Add(n), b.Add(n), b.Sub(n), a.Sub(n)})
	rest, err := g.Minus(knife)
	if err != nil {
		return nil, err
	}
	// A cut along an edge leaves slivers narrower than itself of what stands over it.
	out := slices.DeleteFunc(rest.Pieces(), func(p shape.Region) bool { return 2*p.Area() < hair*p.Length() })
	if len(out) < 2 {
		return nil, &picture.Problem{What: "The cut does not part the piece.", Mend: "Draw it right across, from outside to outside."}
	}
	return out, nil
}
