package depth

import (
	"math"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// How a way in is looked for; our own defaults.
const (
	wayDirections = 16
	wayStep       = 0.8 // mm along a way
	waySpread     = 0.7 // mm along the edge of what slips in
)

// WaysIn lists the directions, degrees clockwise from the right, from which a piece can
// still be slipped beneath another that is stuck down already, straight and without
// turning: none of it meets what holds the cover on its way. It is empty where there is no
// such way, and all of them where the two do not lie over each other.
func (m *Memory) WaysIn(b *build.Build, stood []Stood, cover, tucked int) (out []float64) {
	c := stood[cover]
	under, err := stood[tucked].Outline.Intersect(c.Outline)
	free := err != nil || under.Area() < 1
	held := m.HeldBy(b, stood, cover)
	from := shape.Along(under, waySpread)
	box := c.Outline.Bounds()
	far := math.Hypot(box.W(), box.H())
	for k := range wayDirections {
		deg := 360 * float64(k) / wayDirections
		if free || clearWay(from, shape.Polar(1, deg), far, c.Outline, held) {
			out = append(out, deg)
		}
	}
	return out
}

// clearWay reports whether points beneath a cover come out along a direction without
// meeting what holds it. What is past the cover's edge is out, and stays out.
func clearWay(from []shape.Point, d shape.Point, far float64, cover shape.Region, held []Support) bool {
	boxes := make([]shape.Box, len(held))
	for i, h := range held {
		boxes[i] = h.Area.Bounds()
	}
	for _, q := range from {
		for t := 0.0; t <= far; t += wayStep {
			p := q.Add(d.Scale(t))
			if t > wayStep && !cover.Contains(p) {
				break
			}
			for i, h := range held {
				if in(boxes[i], p) && h.Area.Contains(p) {
					return false
				}
			}
		}
	}
	return true
}

// SideOf is the side of the card a direction lies on.
func SideOf(deg float64) card.Side {
	switch d := math.Mod(deg+405, 360); {
	case d < 90:
		return card.RightSide
	case d < 180:
		return card.BottomSide
	case d < 270:
		return card.LeftSide
	}
	return card.TopSide
}
