package trace

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/vision/picture"
)

// Points left out of a circle come back onto it; those of a corner stay on the
// chord.
func TestBridgeFollowsACurve(t *testing.T) {
	const r = 60.0
	var l []xy
	for i := range 377 {
		a := float64(i) / r
		l = append(l, xy{r * math.Cos(a), r * math.Sin(a)})
	}
	var unsure []int
	for i := 100; i < 109; i++ {
		unsure = append(unsure, i)
		l[i] = xy{}
	}
	// A gap over the seam of the line as well.
	for _, i := range []int{375, 376, 0, 1} {
		unsure = append(unsure, i)
		l[i] = xy{}
	}
	for i, p := range bridge(l, unsure) {
		assert.InDelta(t, r, math.Hypot(p.x, p.y), 0.02, "point %d; the chord would be 0.17 px off", i)
	}
	corner := []xy{{-8, 0}, {-6, 0}, {-4, 0}, {-2, 0}, {9, 9}, {0, 2}, {0, 4}, {0, 6}, {0, 8}, {-20, 8}, {-20, 4}, {-20, 0}, {-14, 0}}
	got := bridge(corner, []int{4})[4]
	assert.InDelta(t, -1, got.x, 1e-9)
	assert.InDelta(t, 1, got.y, 1e-9)
}

// The grey of a neutral colour is the colour; luma weighs by ITU-T T.871.
func TestGreyOfColours(t *testing.T) {
	for _, v := range []float64{0, 0.02, 0.3, 1} {
		assert.InDelta(t, v, grey([3]float64{v, v, v}), 1e-9)
	}
	assert.InDelta(t, 0.587, picture.FromLinear(grey([3]float64{0, 1, 0})), 1e-6)
}

func TestCrossesPattern(t *testing.T) {
	sides := make([]flank, 40)
	for i := range sides {
		v := 0.2
		if i >= 20 {
			v = 0.6
		}
		sides[i] = flank{in: [3]float64{v, v, v}, has: true}
	}
	assert.True(t, crossesPattern(sides, 19))
	assert.False(t, crossesPattern(sides, 10))
	assert.True(t, crossesPattern(sides, 0), "the line is closed")
}
