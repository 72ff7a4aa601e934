package placing

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/shape"
)

// What is looked at by discs along the edge is what drawing in and letting out finds: of outlines
// of every sort, wavy, sharp, with holes and bridges, none that loses something is passed over.
func TestNothingThinIsPassedOver(t *testing.T) {
	skipped := 0
	rapid.Check(t, func(t *rapid.T) {
		n, waves := rapid.IntRange(5, 90).Draw(t, "corners"), rapid.IntRange(0, 9).Draw(t, "waves")
		size, deep := rapid.Float64Range(2, 25).Draw(t, "size"), rapid.Float64Range(0, 0.9).Draw(t, "deep")
		ring := func(size float64) (r shape.Ring) {
			for i := range n {
				a := 2 * math.Pi * float64(i) / float64(n)
				r = append(r, shape.Polar(size*(1+deep*math.Sin(float64(waves)*a))/(1+deep), a*180/math.Pi))
			}
			return r
		}
		rings := []shape.Ring{ring(size)}
		if rapid.Bool().Draw(t, "frame") {
			rings = append(rings, ring(size*rapid.Float64Range(0.3, 0.97).Draw(t, "hole")))
		}
		g := shape.New(false, rings...)
		if rapid.Bool().Draw(t, "bar") {
			w := rapid.Float64Range(0.3, 2).Draw(t, "wide")
			if both, err := g.Union(shape.Rect(-1.5*size, -w/2, 3*size, w).Turn(rapid.Float64Range(0, 180).Draw(t, "turn"), shape.Point{})); err == nil {
				g = both
			}
		}
		g = g.Simplify(0.1)
		if g.Empty() {
			return
		}
		var all Detail
		if all.bridges(g) != nil || all.gaps(g) != nil {
			return
		}
		got, err := DetailOf(g)
		require.NoError(t, err)
		if got == (Detail{}) {
			skipped++
		}
		assert.InDelta(t, all.Thin, got.Thin, 1e-9, "thin")
		assert.InDelta(t, all.Narrow, got.Narrow, 1e-9, "narrow")
	})
	assert.Positive(t, skipped)
}

// A bar of 0.8 mm between two discs is thin along its length, one of 1.2 is not; a slit of
// 0.4 mm is narrow, one of 0.7 is not.
func TestBridgesAndSlits(t *testing.T) {
	two := func(bar float64) shape.Region {
		g, err := shape.UnionAll(shape.Disc(shape.Point{X: -8}, 5), shape.Disc(shape.Point{X: 8}, 5), shape.Rect(-8, -bar/2, 16, bar))
		require.NoError(t, err)
		return g
	}
	d, err := DetailOf(two(0.8))
	require.NoError(t, err)
	assert.InDelta(t, 0.8*6, d.Thin, 0.8, "the six millimetres between the discs, and a little where it joins them")
	assert.InDelta(t, 0, d.ThinX, 0.2)
	d, err = DetailOf(two(1.2))
	require.NoError(t, err)
	assert.Zero(t, d)
	slit := func(wide float64) shape.Region {
		g, err := shape.Rect(-10, -10, 20, 20).Minus(shape.Rect(-wide/2, -12, wide, 17))
		require.NoError(t, err)
		return g
	}
	d, err = DetailOf(slit(0.4))
	require.NoError(t, err)
	assert.InDelta(t, 0.4*15, d.Narrow, 0.6)
	d, err = DetailOf(slit(0.7))
	require.NoError(t, err)
	assert.Zero(t, d.Narrow)
}
