package layout

import (
	"fmt"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// LineOf is a band of a width along a line through points, its ends and corners round, mm.
func LineOf(points []card.Offset, w float64) (shape.Region, error) {
	var bits []shape.Region
	for i, p := range points {
		a := shape.Point(p)
		bits = append(bits, shape.Disc(a, w/2))
		if i == 0 {
			continue
		}
		q := shape.Point(points[i-1])
		d := a.Sub(q)
		if d.Len() < 1e-6 {
			continue
		}
		n := shape.Point{X: -d.Y, Y: d.X}.Scale(w / 2 / d.Len())
		bits = append(bits, shape.New(true, shape.Ring{q.Add(n), a.Add(n), a.Sub(n), q.Sub(n)}))
	}
	g, err := shape.UnionAll(bits...)
	if err != nil {
		return g, fmt.Errorf("draw a line: %w", err)
	}
	return g, nil
}

// Along is the point at a share of a line, from 0 to 1, and the turn of the line there,
// degrees.
func Along(points []card.Offset, share float64) (shape.Point, float64) {
	whole := 0.0
	for i := 1; i < len(points); i++ {
		whole += shape.Point(points[i]).Distance(shape.Point(points[i-1]))
	}
	rest := whole * share
	for i := 1; i < len(points); i++ {
		a, b := shape.Point(points[i-1]), shape.Point(points[i])
		l := a.Distance(b)
		if rest <= l || i == len(points)-1 {
			d := b.Sub(a)
			if l > 0 {
				a = a.Add(d.Scale(math.Min(1, rest/l)))
			}
			return a, math.Atan2(d.Y, d.X) * 180 / math.Pi
		}
		rest -= l
	}
	return shape.Point(points[0]), 0
}

// Measures of knots and bows: so many widths of their ribbon, and so much more, mm, as fingers
// need it however narrow the ribbon is; our own, as they are tied by hand.
const (
	knotWide          = 1.6
	loopLong, loopMin = 2.4, 7.0
	loopHigh, highMin = 1.5, 4.0
	tailLong, tailMin = 2.6, 9.0
	tailApart         = 30.0 // degrees from upright
)

// Tied is the outline of a knot or a bow of a ribbon so wide, about the origin: the knot by
// itself, and the loops and tails beneath it, empty where there are none.
func Tied(how card.Tied, w float64) (knot, loops shape.Region, err error) {
	if how != card.Knot && how != card.Bow {
		return knot, loops, nil
	}
	knot = oval(knotWide*w, knotWide*w)
	tail := func(deg float64) (shape.Region, error) {
		p := shape.Polar(tailLong*w+tailMin, 90+deg)
		return LineOf([]card.Offset{{}, card.Offset(p.Scale(0.5).Add(shape.Point{X: w * 0.5})), card.Offset(p)}, w)
	}
	a, err := tail(tailApart)
	if err != nil {
		return knot, loops, err
	}
	b, err := tail(-tailApart)
	if err != nil {
		return knot, loops, err
	}
	all := []shape.Region{a, b}
	if how == card.Bow {
		// A loop is seen from above, the ribbon on edge where it turns: its middle is open.
		long, high := loopLong*w+loopMin, loopHigh*w+highMin
		ring, err := oval(long, high).Minus(oval(long-1.2*w, high-1.2*w))
		if err != nil {
			return knot, loops, fmt.Errorf("draw a bow: %w", err)
		}
		left := ring.Move(shape.Point{X: -long / 2}).Turn(14, shape.Point{})
		all = append(all, left, left.Mirror(0))
	}
	if loops, err = shape.UnionAll(all...); err != nil {
		return knot, loops, fmt.Errorf("draw a bow: %w", err)
	}
	return knot, loops, nil
}
