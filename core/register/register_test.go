package register

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Closed form: a disc of r in a concentric disc of R may drift R - r in every
// direction (plus the spill), and for an even rim half of that; it turns
// freely.
func TestPlayOfDiscInDisc(t *testing.T) {
	in, out := shape.Disc(shape.Point{X: 30, Y: 20}, 12), shape.Disc(shape.Point{X: 30, Y: 20}, 15)
	p, err := Of(in, out, kit.FitWithin, Limits{Spill: 0, RimShare: 0.5})
	require.NoError(t, err)
	require.True(t, p.Judged)
	require.Len(t, p.Reach, Directions)
	for _, r := range p.Reach {
		assert.InDelta(t, 3, r, 0.03)
	}
	assert.InDelta(t, 3, p.Rim, 0.03)
	assert.Greater(t, p.Clock, 170.0, "round in round turns freely")

	p, err = Of(in, out, kit.FitWithin, Defaults())
	require.NoError(t, err)
	assert.InDelta(t, 3.25, p.Tight, 0.03)

	p, err = Of(in, out, kit.FitEvenRim, Defaults())
	require.NoError(t, err)
	for _, r := range p.Reach {
		assert.InDelta(t, 1.5, r, 0.03)
	}
}

// Closed form: a square of side a in one of side b drifts (b-a)/2 straight and
// turns until a corner meets a side.
func TestPlayOfSquareInSquare(t *testing.T) {
	p, err := Of(shape.Rect(1, 1, 8, 8), shape.Rect(0, 0, 10, 10), kit.FitWithin, Limits{Spill: 0, RimShare: 0.5})
	require.NoError(t, err)
	assert.InDelta(t, 1, p.Reach[0], 1e-6)
	assert.InDelta(t, math.Sqrt2, p.Reach[9], 1e-6, "45 degrees")
	assert.InDelta(t, 1, p.Tight, 1e-6)
	want := 45 - math.Acos(5/(4*math.Sqrt2))*180/math.Pi
	assert.InDelta(t, want, p.Clock, 1e-4)
	assert.InDelta(t, want, p.Anti, 1e-4)

	// Off centre it is tight on one side, and the direction is named.
	p, err = Of(shape.Rect(0.4, 1, 8, 8), shape.Rect(0, 0, 10, 10), kit.FitWithin, Limits{Spill: 0, RimShare: 0.5})
	require.NoError(t, err)
	assert.InDelta(t, 0.4, p.Tight, 1e-6)
	assert.InDelta(t, 180, p.TightAt, 1, "tightest to the left")
	assert.InDelta(t, 0.4, p.Rim, 1e-6)
}

func TestPlayWhenTheDesignAlreadySpills(t *testing.T) {
	p, err := Of(shape.Rect(-1, 2, 8, 4), shape.Rect(0, 0, 10, 10), kit.FitWithin, Defaults())
	require.NoError(t, err)
	assert.InDelta(t, 0.75*4, p.Outside, 0.05, "past the 0.25 mm that is forgiven")
	assert.Zero(t, p.Tight)

	p, err = Of(shape.Rect(0, 2, 8, 4), shape.Rect(0, 0, 10, 10), kit.FitEvenRim, Defaults())
	require.NoError(t, err)
	assert.Zero(t, p.Rim)
	assert.InDelta(t, 0, p.Tight, 1e-6, "no rim, no play")
}

func TestLooseFitsAreNotJudged(t *testing.T) {
	p, err := Of(shape.Rect(1, 1, 2, 2), shape.Rect(0, 0, 9, 9), kit.FitFree, Defaults())
	require.NoError(t, err)
	assert.False(t, p.Judged)
}

// The play holds: moved by nearly the reach in any direction the layer stays
// inside its limit, by a little more it does not.
func TestReachIsWhereHarmBegins(t *testing.T) {
	host := shape.New(true, shape.Ring{{X: 0, Y: 0}, {X: 30, Y: 4}, {X: 26, Y: 22}, {X: 12, Y: 18}, {X: -2, Y: 24}})
	layer := shape.New(true, shape.Ring{{X: 6, Y: 5}, {X: 20, Y: 7}, {X: 18, Y: 13}, {X: 5, Y: 12}})
	p, err := Of(layer, host, kit.FitWithin, Limits{Spill: 0, RimShare: 0.5})
	require.NoError(t, err)
	for i, r := range p.Reach {
		s, c := math.Sincos(float64(i) * 2 * math.Pi / Directions)
		out := func(k float64) float64 {
			past, err := layer.Move(shape.Point{X: c * k, Y: s * k}).Minus(host)
			require.NoError(t, err)
			return past.Area()
		}
		assert.Less(t, out(r-0.02), 0.02, "direction %d", i)
		assert.Greater(t, out(r+0.3), 0.002, "direction %d", i)
	}
}

func TestJoinTakesTheLeast(t *testing.T) {
	a, err := Of(shape.Rect(1, 1, 8, 8), shape.Rect(0, 0, 10, 10), kit.FitWithin, Limits{})
	require.NoError(t, err)
	b, err := Of(shape.Rect(20.2, 1, 8, 8), shape.Rect(20, 0, 10, 10), kit.FitWithin, Limits{})
	require.NoError(t, err)
	j := Join([]Play{a, b})
	assert.InDelta(t, 0.2, j.Tight, 1e-6)
	assert.InDelta(t, 1, j.Reach[0], 1e-6)
	assert.InDelta(t, 0.2, j.Reach[36], 1e-6)
}
