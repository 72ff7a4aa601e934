package advise

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/shape"
)

// Closed forms: a disc in a disc has the difference of their radii to spare, one in a
// square half the difference of side and diameter, a square in a disc the radius less half
// its diagonal.
func TestSpareOfAFitInClosedForm(t *testing.T) {
	seat := func(g shape.Region, what shape.Region) (float64, shape.Point) {
		return seated(what, g, shape.NewField(g, 0.5))
	}
	o := shape.Point{X: 60, Y: 45}
	disc := func(r float64) shape.Region { return shape.Disc(shape.Point{}, r) }
	square := func(a float64) shape.Region { return shape.Rect(-a/2, -a/2, a, a) }
	for _, c := range []struct {
		name       string
		seat, what shape.Region
		want       float64
	}{
		{"a disc in a disc", disc(18).Move(o), disc(15), 3},
		{"one too large", disc(14).Move(o), disc(15), -1},
		{"a disc in a square", square(30).Move(o), disc(12), 3},
		{"a square in a disc", disc(20).Move(o), square(24), 20 - 12*math.Sqrt2},
		{"a square in a square", square(25).Move(o), square(24), 0.5},
	} {
		spare, at := seat(c.seat, c.what)
		assert.InDelta(t, c.want, spare, 0.06, c.name)
		if c.want > 0 {
			assert.InDelta(t, 0, at.Distance(o), 0.6, c.name)
		}
	}
}

// No place of a fine grid is better than the one found, in seats that are not convex.
func TestNoPlaceIsBetter(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 1))
	for range 12 {
		// An L: the best place is in its foot or in its leg, whichever is wider.
		w, h := 12+8*r.Float64(), 12+8*r.Float64()
		leg, err := shape.Rect(0, 0, w, 50).Union(shape.Rect(0, 50-h, 50, h))
		if err != nil {
			continue
		}
		what := shape.Rect(-5, -4, 10, 8)
		spare, _ := seated(what, leg, shape.NewField(leg, 0.5))
		best := math.Inf(-1)
		for x := 4.0; x < 48; x += 0.8 {
			for y := 4.0; y < 48; y += 0.8 {
				least := math.Inf(1)
				for _, q := range shape.Along(what.Move(shape.Point{X: x, Y: y}), 1) {
					d := leg.EdgeDistance(q)
					if !leg.Contains(q) {
						d = -d
					}
					least = min(least, d)
				}
				best = max(best, least)
			}
		}
		assert.Greater(t, spare, best-0.15)
	}
}
