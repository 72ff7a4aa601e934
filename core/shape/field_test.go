package shape

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A disc's distance field is R - r, in closed form; between grid points it is off
// by less than a hundredth of a mm, and far outside it says Around.
func TestFieldOfADisc(t *testing.T) {
	c := Point{3, -7}
	f := NewField(Disc(c, 12), 0.2)
	for _, r := range []float64{0.7, 4, 9.3, 11.9, 12.4, 14} {
		for deg := 0.0; deg < 360; deg += 37 {
			p := c.Add(Polar(r, deg))
			assert.InDelta(t, 12-r, f.Inside(p), 0.03, "%g mm out at %g°", r, deg)
			assert.InDelta(t, 12-r, f.Nearest(p.X, p.Y), 0.18, "at the nearest grid point")
		}
	}
	assert.Equal(t, -Around, f.Inside(Point{500, 500}))
	assert.Equal(t, -Around, f.Nearest(-500, 0))
}

// A hole counts as outside, and its edge as an edge.
func TestFieldOfARing(t *testing.T) {
	f := NewField(RingDisc(Point{}, 10, 4), 0.1)
	assert.InDelta(t, -2, f.Inside(Point{2, 0}), 0.02)
	assert.InDelta(t, 1, f.Inside(Point{0, 5}), 0.02)
	assert.InDelta(t, 3, f.Inside(Point{-7, 0}), 0.02)
}

// Worked by hand: a square of 4 from its corner.
func TestEdgeDistance(t *testing.T) {
	sq := Rect(0, 0, 4, 4)
	assert.InDelta(t, 1, sq.EdgeDistance(Point{1, 2}), 1e-12, "inside")
	assert.InDelta(t, 5, sq.EdgeDistance(Point{7, 8}), 1e-12, "3, 4, 5 off a corner")
	assert.InDelta(t, 2, sq.EdgeDistance(Point{-2, 3}), 1e-12)
	assert.Zero(t, sq.EdgeDistance(Point{4, 1}))
	assert.True(t, math.IsInf(Region{}.EdgeDistance(Point{}), 1))
}

// Clockwise on screen, where y points down.
func TestPolar(t *testing.T) {
	for _, c := range []struct{ deg, x, y float64 }{{0, 2, 0}, {90, 0, 2}, {180, -2, 0}, {270, 0, -2}, {45, math.Sqrt2, math.Sqrt2}} {
		p := Polar(2, c.deg)
		assert.InDelta(t, c.x, p.X, 1e-12)
		assert.InDelta(t, c.y, p.Y, 1e-12)
	}
}

// Points along an edge stand no further apart than asked, and cover all of it.
func TestAlong(t *testing.T) {
	ps := Along(Rect(0, 0, 10, 5), 0.75)
	assert.GreaterOrEqual(t, len(ps), 40)
	for i, p := range ps {
		assert.LessOrEqual(t, p.Distance(ps[(i+1)%len(ps)]), 0.75+1e-9)
		assert.InDelta(t, 0, Rect(0, 0, 10, 5).EdgeDistance(p), 1e-12)
	}
}

// What a soft edge takes of a point is what its distance says, wherever the point lies.
func TestTheShareOfASoftEdge(t *testing.T) {
	f := NewField(Disc(Point{}, 7), 0.2)
	rng := rand.New(rand.NewPCG(1, 1))
	for range 20_000 {
		p := Point{30 * (rng.Float64() - 0.5), 30 * (rng.Float64() - 0.5)}
		grow, soft := 0.4*(rng.Float64()-0.5), 0.05+2*rng.Float64()
		assert.InDelta(t, max(0, min(1, 0.5+(f.Inside(p)+grow)/soft)), f.Share(p, grow, soft), 1e-9, "%v %v %v", p, grow, soft)
	}
}
