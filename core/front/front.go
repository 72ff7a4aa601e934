// Package front lays out the face of a card: the mats and the panel, the
// placed outlines of what lies on it, and their distances to the edges.
package front

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Panel is a sheet of the front in place.
type Panel struct {
	ID   string
	Size measure.Size
	X, Y float64 // top left, mm from the front's top left corner
}

// Region is the sheet's outline.
func (p Panel) Region() shape.Region { return shape.Rect(p.X, p.Y, p.Size.W, p.Size.H) }

// Sheets places the mats and the panel centred on the front, lowest first. A
// card without any has its front as the panel.
func Sheets(c card.Card) ([]Panel, error) {
	_, sizes, err := c.Panel()
	if err != nil {
		return nil, fmt.Errorf("place the sheets: %w", err)
	}
	out := make([]Panel, len(sizes))
	for i, s := range sizes {
		out[i] = Panel{c.Sheets[i].ID, s, (c.Base.W - s.W) / 2, (c.Base.H - s.H) / 2}
	}
	if len(out) == 0 {
		out = append(out, Panel{"front", c.Base.Size(), 0, 0})
	}
	return out, nil
}

// Place puts a region drawn in its own frame on the front: its centre of box
// (of the whole image, given as box) comes to x, y, turned by turn degrees
// clockwise.
func Place(g shape.Region, box shape.Box, e card.Element) shape.Region {
	c := box.Centre()
	return g.Turn(e.Turn, c).Move(shape.Point{X: e.X - c.X, Y: e.Y - c.Y})
}

// Margins are the distances, mm, from an outline's box to the edges of a
// panel; negative where it hangs over.
type Margins struct {
	Left   float64 `json:"left" doc:"mm; negative hangs over"`
	Right  float64 `json:"right" doc:"mm; negative hangs over"`
	Top    float64 `json:"top" doc:"mm; negative hangs over"`
	Bottom float64 `json:"bottom" doc:"mm; negative hangs over"`
}

// MarginsOf measures a placed outline against a panel.
func MarginsOf(g shape.Region, p Panel) Margins {
	b := g.Bounds()
	return Margins{b.Min.X - p.X, p.X + p.Size.W - b.Max.X, b.Min.Y - p.Y, p.Y + p.Size.H - b.Max.Y}
}

// Least is the smallest margin and the side it is on.
func (m Margins) Least() (float64, string) {
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

// Mend is the least move, mm, that brings an outline with these margins back
// onto the panel, and whether it fits at all.
func (m Margins) Mend() (dx, dy float64, fits bool) {
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
