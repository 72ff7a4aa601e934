package register

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

func ellipse(a, b float64) shape.Region {
	var r shape.Ring
	for i := range 720 {
		t := 2 * math.Pi * float64(i) / 720
		r = append(r, shape.Point{X: a * math.Cos(t), Y: b * math.Sin(t)})
	}
	return shape.Raw(r)
}

// A small disc in a square: half the side less the radius along an axis, and
// along a diagonal as far as the nearer side allows.
func TestPlayOfDiscInSquare(t *testing.T) {
	p, err := Of(shape.Disc(shape.Point{}, 5), shape.Rect(-10, -10, 20, 20), kit.FitWithin, Limits{Spill: 0, RimShare: 0.5})
	require.NoError(t, err)
	assert.InDelta(t, 5, p.Tight, 0.02)
	assert.InDelta(t, 5, p.Reach[0], 0.02)
	assert.InDelta(t, 5*math.Sqrt2, p.Reach[Directions/8], 0.05, "45 degrees")
	assert.InDelta(t, 5, p.Rim, 0.02)
}

// A disc in an ellipse, along its axes: half the axis less the radius where the
// ellipse is blunter than the disc.
func TestPlayOfDiscInEllipse(t *testing.T) {
	a, b, r := 20.0, 16.0, 9.0
	p, err := Of(shape.Disc(shape.Point{}, r), ellipse(a, b), kit.FitWithin, Limits{Spill: 0, RimShare: 0.5})
	require.NoError(t, err)
	// The radius of curvature at the end of the long axis, b²/a = 12.8, is over 9.
	assert.InDelta(t, a-r, p.Reach[0], 0.03)
	assert.InDelta(t, b-r, p.Reach[Directions/4], 0.03)
	assert.InDelta(t, b-r, p.Tight, 0.03)
	assert.True(t, math.Abs(p.TightAt-90) < 4 || math.Abs(p.TightAt-270) < 4, "up or down, %g", p.TightAt)
}

// What is forgiven adds to the play: spill outward for within, half the rim
// inward for an even rim.
func TestLimitsAddToThePlay(t *testing.T) {
	host, layer := shape.Disc(shape.Point{}, 20), shape.Disc(shape.Point{}, 17)
	for _, spill := range []float64{0, 0.25, 0.8} {
		p, err := Of(layer, host, kit.FitWithin, Limits{Spill: spill, RimShare: 0.5})
		require.NoError(t, err)
		assert.InDelta(t, 3+spill, p.Tight, 0.04, "spill %g", spill)
	}
	for _, share := range []float64{0.25, 0.5, 0.75} {
		p, err := Of(layer, host, kit.FitEvenRim, Limits{Spill: 0.25, RimShare: share})
		require.NoError(t, err)
		assert.InDelta(t, 3*(1-share), p.Tight, 0.04, "share %g", share)
	}
}

// What is not known of two outlines is taken off what is forgiven: independent doubts add by
// squares (JCGM 100, the law of propagation of uncertainty).
func TestDoubtIsTakenOffThePlay(t *testing.T) {
	host, layer := shape.Disc(shape.Point{}, 20), shape.Disc(shape.Point{}, 17)
	lim := Limits{Spill: 0.8, RimShare: 0.5, Gap: 0.3, Overlap: 0.6}
	doubted := lim.Doubted(0.03, 0.04)
	p, err := Of(layer, host, kit.FitWithin, doubted)
	require.NoError(t, err)
	assert.InDelta(t, 3+0.8-0.05, p.Tight, 0.02)
	assert.InDelta(t, 0.05, p.Unsure, 1e-9)
	p, err = Of(layer, host, kit.FitEvenRim, doubted)
	require.NoError(t, err)
	assert.InDelta(t, 1.5-0.05, p.Tight, 0.02)
	ring := shape.RingDisc(shape.Point{}, 20, 10)
	p, err = Of(shape.Disc(shape.Point{}, 10), ring, kit.FitFills, doubted)
	require.NoError(t, err)
	assert.InDelta(t, 0.3-0.05, p.Tight, 0.02)
	// Outlines that are worth nothing leave the eye something to go by.
	p, err = Of(layer, host, kit.FitWithin, lim.Doubted(5, 5))
	require.NoError(t, err)
	assert.InDelta(t, 3+0.2*0.8, p.Tight, 0.02)
}

// A disc in a ring: it may not fall into the hole, so its play is the smaller
// of what is left to either edge.
func TestPlayInARing(t *testing.T) {
	ring := shape.RingDisc(shape.Point{}, 20, 8)
	p, err := Of(shape.Disc(shape.Point{X: 13.5}, 3), ring, kit.FitWithin, Limits{Spill: 0, RimShare: 0.5})
	require.NoError(t, err)
	assert.InDelta(t, 13.5-8-3, p.Reach[Directions/2], 0.03, "towards the hole")
	assert.InDelta(t, 20-13.5-3, p.Reach[0], 0.03, "towards the edge")
	assert.InDelta(t, 2.5, p.Tight, 0.03)
}

// A square turning in a square: its corners meet the sides when
// r cos(45° - turn) is half the outer side.
func TestTurnPlayOfSquares(t *testing.T) {
	inner, outer := 6.0, 7.5 // half sides
	p, err := Of(shape.Rect(-inner, -inner, 2*inner, 2*inner), shape.Rect(-outer, -outer, 2*outer, 2*outer), kit.FitWithin, Limits{Spill: 0, RimShare: 0.5})
	require.NoError(t, err)
	want := 45 - math.Acos(outer/(inner*math.Sqrt2))*180/math.Pi
	assert.InDelta(t, want, p.Clock, 0.02)
	assert.InDelta(t, want, p.Anti, 0.02)
	round, err := Of(shape.Disc(shape.Point{}, 5), shape.Disc(shape.Point{}, 9), kit.FitWithin, Defaults())
	require.NoError(t, err)
	assert.GreaterOrEqual(t, round.Clock, 170.0, "a disc turns freely")
}

// Neighbours at radius r in n turns stand 2 r sin(180/n) apart (common
// practice, no source): eight turns of 45 degrees, four of 90.
func TestTurnsStandAChordApart(t *testing.T) {
	for _, n := range []int{4, 8, 12} {
		p := shape.Point{X: 31}
		q := Motion{Turn: 360 / float64(n)}.Point(p)
		assert.InDelta(t, 2*31*math.Sin(math.Pi/float64(n)), p.Distance(q), 1e-9)
		back := p
		for range n {
			back = Motion{Turn: 360 / float64(n)}.Point(back)
		}
		assert.Less(t, back.Distance(p), 1e-9, "n turns close")
	}
}
