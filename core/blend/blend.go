// Package blend says how far an ink that is worked into a zone of a piece
// reaches, and parts the zone into bands of falling cover.
package blend

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// How far blends reach; our own defaults, as a hand with a small brush or a
// dauber works.
const (
	rimReach  = 0.7  // of a piece's area over its edge length
	sideReach = 0.62 // of its height or width
	shorter   = 0.68 // each further ink in one zone stops so much sooner
)

// Reach is how far a blend goes before it has faded out, mm: inward from the
// edge for the rim, from the outermost point for a side. The nth ink worked into
// a zone, counted from 0, stops sooner than the one before, which leaves each a
// band of its own.
func Reach(g shape.Region, z card.Zone, nth int) float64 {
	b := g.Bounds()
	var r float64
	switch z {
	case card.Rim:
		if l := g.Length(); l > 0 {
			r = rimReach * g.Area() / l
		}
	case card.Foot, card.Tip:
		r = sideReach * b.H()
	case card.Left, card.Right:
		r = sideReach * b.W()
	}
	for range nth {
		r *= shorter
	}
	return r
}

// Band is a part of a piece and the share of it that the ink covers.
type Band struct {
	Region shape.Region
	Cover  float64 // 0 to 1
}

// Bands parts a piece into n bands of falling cover, fullest first, for ink that
// fades out evenly over reach mm; all over it is one band. Bands that hold
// nothing are left out.
func Bands(g shape.Region, z card.Zone, reach float64, n int) ([]Band, error) {
	if z == card.AllOver {
		return []Band{{g, 1}}, nil
	}
	b := g.Bounds()
	var out []Band
	outer := g
	for k := range n {
		var part shape.Region
		var err error
		near, far := reach*float64(k)/float64(n), reach*float64(k+1)/float64(n)
		switch z {
		case card.Rim:
			var inner shape.Region
			if inner, err = g.Offset(-far); err == nil {
				part, err = outer.Minus(inner)
			}
			outer = inner
		case card.Foot:
			part, err = g.Intersect(shape.Rect(b.Min.X-1, b.Max.Y-far, b.W()+2, far-near))
		case card.Tip:
			part, err = g.Intersect(shape.Rect(b.Min.X-1, b.Min.Y+near, b.W()+2, far-near))
		case card.Left:
			part, err = g.Intersect(shape.Rect(b.Min.X+near, b.Min.Y-1, far-near, b.H()+2))
		case card.Right:
			part, err = g.Intersect(shape.Rect(b.Max.X-far, b.Min.Y-1, far-near, b.H()+2))
		default:
			return nil, fmt.Errorf("blend: %q is not a zone", z)
		}
		if err != nil {
			return nil, fmt.Errorf("blend the %s: %w", z, err)
		}
		if !part.Empty() {
			out = append(out, Band{part, 1 - (float64(k)+0.5)/float64(n)})
		}
		if z == card.Rim && outer.Empty() {
			break
		}
	}
	return out, nil
}

// Steps of lightness, L*, within a blend; our own defaults.
const (
	LeastRung = 5.0  // less is not seen as a blend
	MostRung  = 34.0 // more leaves a line that will not soften
)
