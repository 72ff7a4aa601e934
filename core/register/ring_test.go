package register_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/register"
)

// Two rings between one another: every middle keeps its distance from all others.
func TestRingsBetweenOneAnother(t *testing.T) {
	for _, n := range []int{4, 6, 8, 12} {
		const w, inner, gap = 20.0, 8.0, 1.5
		r := register.TouchRadius(n, w+gap)
		r2, ok := register.Interleave(n, r, w, inner, gap)
		if !ok {
			assert.LessOrEqual(t, n, 6, "only small rings have too little room within")
			continue
		}
		half := math.Pi / float64(n)
		d := math.Hypot(r-r2*math.Cos(half), r2*math.Sin(half))
		assert.GreaterOrEqual(t, d, (w+inner)/2+gap-1e-9)
		assert.GreaterOrEqual(t, register.Chord(n, r2), inner+gap-1e-9)
	}
	// On a wide circle a small image stands on the circle itself.
	r2, ok := register.Interleave(8, 60, 10, 5, 1)
	assert.True(t, ok)
	assert.InDelta(t, 60, r2, 1e-9)
}

// The largest image of a ring fills it: neighbours at the gap, the rim reached.
func TestTheLargestImageOfARing(t *testing.T) {
	for _, n := range []int{3, 4, 8, 16} {
		w := register.LargestInRing(n, 50, 2)
		r := 50 - w/2
		assert.InDelta(t, w+2, register.Chord(n, r), 1e-9, n)
	}
	assert.Zero(t, register.LargestInRing(8, 1, 30))
	// Eight turns at 45 degrees, four at 90 (common practice, no source).
	assert.InDelta(t, 45, register.Step(8), 1e-12)
	assert.InDelta(t, 90, register.Step(4), 1e-12)
}
