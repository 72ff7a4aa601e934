// Package layout lays things out on the face of a card: outlines in their place, the
// room between them and the edges, and words from letters.
package layout

import (
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Region is the outline of a leaf.
func Region(l card.Leaf) shape.Region { return shape.Rect(l.X, l.Y, l.Size.W, l.Size.H) }

// Place puts a region drawn in its own frame on the front: its centre of box
// (of the whole image, given as box) comes to x, y, mirrored left for right where the
// place says so, then turned by turn degrees clockwise.
func Place(g shape.Region, box shape.Box, p card.Place) shape.Region {
	c := box.Centre()
	if p.Mirror {
		g = g.Mirror(c.X)
	}
	return g.Turn(p.Turn, c).Move(shape.Point{X: p.X - c.X, Y: p.Y - c.Y})
}

// Room is the distances, mm, from an outline's box to the edges of a leaf; negative
// where it hangs over.
type Room struct {
	Left   float64 `json:"left" doc:"mm; negative hangs over"`
	Right  float64 `json:"right" doc:"mm; negative hangs over"`
	Top    float64 `json:"top" doc:"mm; negative hangs over"`
	Bottom float64 `json:"bottom" doc:"mm; negative hangs over"`
}

// RoomOf measures a placed outline against a leaf.
func RoomOf(g shape.Region, p card.Leaf) Room {
	b := g.Bounds()
	return Room{b.Min.X - p.X, p.X + p.Size.W - b.Max.X, b.Min.Y - p.Y, p.Y + p.Size.H - b.Max.Y}
}

// Least is the smallest of them and the side it is on.
func (m Room) Least() (float64, string) {
	best, side := m.Left, "left"
	for _, o := range []struct {
		v float64
		s string
	}{{m.Right, "right"}, {m.Top, "top"}, {m.Bottom, "bottom"}} {
		if o.v < best {
			best, side = o.v, o.s
		}
	}
	return best, side
}

// Mend is the least move, mm, that brings an outline with this room back
// onto the leaf, and whether it fits at all.
func (m Room) Mend() (dx, dy float64, fits bool) {
	fits = m.Left+m.Right >= 0 && m.Top+m.Bottom >= 0
	return shift(m.Left, m.Right), shift(m.Top, m.Bottom), fits
}

func shift(before, after float64) float64 {
	switch {
	case before+after < 0:
		return (after - before) / 2
	case before < 0:
		return -before
	case after < 0:
		return after
	}
	return 0
}
