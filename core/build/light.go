package build

import (
	"math"

	"ochrestone/core/card"
	"ochrestone/core/colour"
)

// shadeBy is by how much darker than its layer, CIE L*, an ink worked into a side counts as
// shade; our own default.
const shadeBy = 3.0

// toSide is how squarely shade has to lie on a side, as the cosine of the angle between.
const toSide = 0.75

// towards is where a side of a thing lies as the card lies, as a direction.
var towards = map[card.Side][2]float64{card.LeftSide: {-1, 0}, card.RightSide: {1, 0}, card.TopSide: {0, -1}, card.BottomSide: {0, 1}}

// zoneSide is the side that a zone of an image is, as it stands upright and unmirrored.
var zoneSide = map[card.Zone]card.Side{card.Left: card.LeftSide, card.Right: card.RightSide, card.Tip: card.TopSide, card.Foot: card.BottomSide}

// SideOf is the side of the card that a zone of a thing looks to as it is laid, mirrored
// and turned; empty where it looks to a corner, or is no side at all.
func SideOf(at card.Place, z card.Zone) card.Side {
	d, ok := towards[zoneSide[z]]
	if !ok {
		return ""
	}
	if at.Mirror {
		d[0] = -d[0]
	}
	s, c := math.Sincos(at.Turn * math.Pi / 180)
	x, y := d[0]*c-d[1]*s, d[0]*s+d[1]*c
	for _, side := range card.Sides {
		if t := towards[side]; x*t[0]+y*t[1] > toSide {
			return side
		}
	}
	return ""
}

// Shaded is the side of the card on which most layers of an image are shaded: have an ink
// worked in that is darker than the rest of them; empty where none is, or as many one way
// as the other.
func (b *Build) Shaded(t Thing) card.Side {
	if t.Made < 0 {
		return ""
	}
	count := map[card.Side]int{}
	for _, l := range b.Made[t.Made].Look.Layers {
		base, ok := lightness(l.Dry)
		for _, bl := range l.Blends {
			if ok && !bl.Missing && base-bl.L > shadeBy {
				count[SideOf(t.Element.Place, bl.Zone)]++
			}
		}
	}
	best, n, tie := card.Side(""), 0, false
	for _, side := range []card.Side{card.LeftSide, card.RightSide} {
		switch {
		case count[side] > n:
			best, n, tie = side, count[side], false
		case count[side] == n && n > 0:
			tie = true
		}
	}
	if tie {
		return ""
	}
	return best
}

func lightness(hex string) (float64, bool) {
	c, err := colour.ParseHex(hex)
	if err != nil {
		return 0, false
	}
	return c.Lab().L, true
}
