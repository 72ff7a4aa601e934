package register_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// A square of side 2a in one of side 2b: turned by t it spans a(cos t + sin t) from
// its middle, so it may be shifted by b less that along each axis, until that is
// nothing: the joint region in closed form.
func TestShiftAndTurnOfASquareInASquare(t *testing.T) {
	const a, b = 10.0, 11.0
	layer, host := shape.Rect(-a, -a, 2*a, 2*a), shape.Rect(-b, -b, 2*b, 2*b)
	lim := register.Limits{}
	p, err := register.Of(layer, host, kit.FitWithin, lim)
	require.NoError(t, err)
	p, err = p.WithTurns(register.Within{Piece: layer, Bound: host})
	require.NoError(t, err)
	require.Greater(t, len(p.Joint), 6)
	room := func(deg float64) float64 {
		s, c := math.Sincos(math.Abs(deg) * math.Pi / 180)
		return b - a*(c+s)
	}
	for _, deg := range []float64{-4, -2.5, -1, 0, 0.7, 1.9, 3.3, 4.5} {
		for _, way := range []shape.Point{{X: 1}, {Y: -1}, {X: -1}} {
			r := room(deg)
			assert.True(t, p.Holds(way.Scale(0.95*r), deg), "%v %v", way, deg)
			assert.False(t, p.Holds(way.Scale(1.05*r+0.01), deg), "%v %v", way, deg)
		}
	}
	// sin t + cos t = b/a at the turn it can stand in its place.
	most := math.Asin(b/a/math.Sqrt2)*180/math.Pi - 45
	assert.InDelta(t, most, p.Clock, 0.02)
	assert.False(t, p.Holds(shape.Point{}, most+0.2))

	// The chance against the closed form, tried with other random numbers.
	s := register.Spread{Shift: 0.4, Turn: 2}
	r := rand.New(rand.NewPCG(8, 9))
	good := 0
	const n = 400000
	for range n {
		x, y, turn := r.NormFloat64()*s.Shift, r.NormFloat64()*s.Shift, r.NormFloat64()*s.Turn
		if m := room(turn); math.Abs(x) <= m && math.Abs(y) <= m {
			good++
		}
	}
	assert.InDelta(t, float64(good)/n, register.Chance(p, s, 3), 0.01)
}

// A long bar that starts at one end of its host may be turned further once it has
// been shifted to the middle: the region goes on past the turn in its place.
func TestTurnedFurtherOnceShifted(t *testing.T) {
	layer, host := shape.Rect(-10, -1, 20, 2), shape.Rect(-12, -1.2, 30, 5)
	p, err := register.Of(layer, host, kit.FitWithin, register.Limits{})
	require.NoError(t, err)
	p, err = p.WithTurns(register.Within{Piece: layer, Bound: host})
	require.NoError(t, err)
	turn := p.Clock * 1.5
	assert.False(t, p.Holds(shape.Point{}, turn))
	assert.True(t, p.Holds(shape.Point{X: 1, Y: 1.2}, turn))
	moved := layer.Turn(turn, layer.Centroid()).Move(shape.Point{X: 1, Y: 1.2})
	assert.True(t, host.Covers(moved), "and so it is")

	ring, err := register.Of(disc(0, 5), disc(0, 6), kit.FitWithin, register.Limits{})
	require.NoError(t, err)
	free, err := ring.WithTurns(register.Within{Piece: disc(0, 5), Bound: disc(0, 6)})
	require.NoError(t, err)
	assert.True(t, free.Holds(shape.Point{X: 0.9}, 150), "round in round turns freely")
}
