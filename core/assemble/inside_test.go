package assemble

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"

	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// How far inside a disc or a rectangle a point lies has a closed form.
func TestReachAgainstClosedForms(t *testing.T) {
	disc := shape.NewField(shape.Disc(shape.Point{X: 5, Y: -3}, 20), 0.2)
	rect := shape.NewField(shape.Rect(0, 0, 40, 24), 0.2)
	rapid.Check(t, func(t *rapid.T) {
		p := shape.Point{X: rapid.Float64Range(-12, 22).Draw(t, "x"), Y: rapid.Float64Range(-20, 14).Draw(t, "y")}
		want := 20 - p.Distance(shape.Point{X: 5, Y: -3})
		if want > -3 && want < 18 {
			if d := disc.Inside(p); math.Abs(d-want) > 0.08 {
				t.Fatalf("disc %v: %g, want %g", p, d, want)
			}
		}
		q := shape.Point{X: rapid.Float64Range(1, 39).Draw(t, "u"), Y: rapid.Float64Range(1, 23).Draw(t, "v")}
		want = math.Min(math.Min(q.X, 40-q.X), math.Min(q.Y, 24-q.Y))
		if d := rect.Inside(q); math.Abs(d-want) > 0.12 {
			t.Fatalf("rectangle %v: %g, want %g", q, d, want)
		}
	})
	assert.Equal(t, -shape.Around, disc.Inside(shape.Point{X: 500}), "far outside")
	assert.Equal(t, -shape.Around, disc.Nearest(500, 0))
	hole, err := shape.Rect(0, 0, 30, 30).Minus(shape.Disc(shape.Point{X: 15, Y: 15}, 6))
	require.NoError(t, err)
	assert.InDelta(t, -3, shape.NewField(hole, 0.2).Inside(shape.Point{X: 15, Y: 18}), 0.1, "inside a hole is outside")
}

func TestPointsAreSpreadEvenly(t *testing.T) {
	g := shape.Rect(0, 0, 30, 10)
	ps := even(g, 80)
	require.Len(t, ps, 80)
	for i := 1; i < len(ps); i++ {
		assert.InDelta(t, 1, ps[i].Distance(ps[i-1]), 0.42, "a corner cuts the way short")
	}
	two := shape.Raw(g.Rings()[0], g.Move(shape.Point{X: 50}).Rings()[0])
	left, right := 0, 0
	for _, p := range even(two, 60) {
		if p.X < 40 {
			left++
		} else {
			right++
		}
	}
	assert.InDelta(t, 30, left, 1)
	assert.InDelta(t, 30, right, 1)
	assert.Len(t, shape.Along(g, 0.5), 160)
}

// A smaller rectangle laid a little off is drawn to where its rim is even.
func TestDrawMakesTheRimEven(t *testing.T) {
	host := shape.NewField(shape.Rect(0, 0, 60, 40), 0.2)
	piece := shape.Rect(-28, -18, 56, 36)
	pts := even(piece, fineN)
	p := draw(pts, host, register.Motion{Turn: 1.6, Move: shape.Point{X: 30.7, Y: 19.6}}, 5, 0)
	assert.InDelta(t, 30, p.motion.Move.X, 0.05)
	assert.InDelta(t, 20, p.motion.Move.Y, 0.05)
	assert.InDelta(t, 0, p.motion.Turn, 0.1)
	assert.InDelta(t, 2, p.rim, 0.03)
	assert.Greater(t, p.share, 0.95)
	assert.Zero(t, p.out)
}

func TestSeekFindsThePlaceFromNothing(t *testing.T) {
	// A host without symmetry has one best place.
	outline := shape.New(true, shape.Ring{{X: 0, Y: 0}, {X: 50, Y: 0}, {X: 50, Y: 18}, {X: 22, Y: 18}, {X: 14, Y: 44}, {X: 0, Y: 38}})
	piece, err := outline.Offset(-1.5)
	require.NoError(t, err)
	c := piece.Centroid()
	turned := piece.Turn(130, c)
	ps := seek(turned, shape.NewField(outline, 0.5), outline.Bounds(), 0)
	require.NotEmpty(t, ps)
	assert.InDelta(t, -130, math.Remainder(ps[0].motion.Turn, 360), 0.6)
	assert.Less(t, ps[0].motion.Move.Distance(c), 0.25)
	assert.InDelta(t, 1.5, ps[0].rim, 0.1)
}

func TestMeasureCountsWhatHangsOver(t *testing.T) {
	host := shape.NewField(shape.Rect(0, 0, 40, 40), 0.2)
	pts := even(shape.Rect(-10, -10, 20, 20), fineN)
	in := judge(pts, host, register.Motion{Move: shape.Point{X: 20, Y: 20}}, 5, 0)
	assert.Zero(t, in.out)
	over := judge(pts, host, register.Motion{Move: shape.Point{X: 35, Y: 20}}, 5, 0)
	assert.InDelta(t, (20+2*5)/80.0, over.out, 0.03, "one side and two quarters of sides hang over")
	assert.Less(t, over.score(), 0.0)
	askew := judge(pts, host, register.Motion{Turn: 90, Move: shape.Point{X: 20, Y: 20}}, 5, 0)
	assert.InDelta(t, 0.5, askew.askew, 1e-9)
}

func TestRimsStayInProportion(t *testing.T) {
	assert.InDelta(t, 0.8+0.36*2, rimFor(shape.Rect(0, 0, 2, 2)), 1e-9)
	assert.Equal(t, 5.0, rimFor(shape.Rect(0, 0, 90, 60)))
}

func TestFlipTurnsOver(t *testing.T) {
	g := shape.New(true, shape.Ring{{X: 0, Y: 0}, {X: 10, Y: 0}, {X: 10, Y: 4}})
	f := g.Mirror(0)
	assert.InDelta(t, g.Area(), f.Area(), 1e-9, "and stays the right way round")
	assert.InDelta(t, -g.Centroid().X, f.Centroid().X, 1e-9)
}

// Of two mirror twins the second goes across the axis from the first, once, and is no surer
// than it.
func TestATwinGoesAcrossTheAxis(t *testing.T) {
	base := shape.Rect(-30, -40, 60, 80)
	wing := shape.Raw(shape.Ring{{X: -22, Y: -10}, {X: -6, Y: -14}, {X: -8, Y: 6}, {X: -14, Y: 2}, {X: -20, Y: 9}})
	other := wing.Mirror(0).Turn(37, shape.Point{}).Move(shape.Point{X: 200, Y: 90})
	a := &assembler{pieces: []shape.Region{base, wing, other, other}, upright: true}
	a.out = []Placed{{Piece: 0, Outline: base, Host: -1, Sure: 1}, {Piece: 1, Outline: wing, Host: 0, Sure: 0.8}}
	require.True(t, a.mirrored(2, 0.3))
	got := a.out[2]
	assert.Less(t, apart(got.Outline, wing.Mirror(0)), 0.15)
	assert.Equal(t, 0, got.Host)
	assert.Less(t, got.Sure, 0.8)
	assert.Contains(t, got.Why, "across the axis")
	assert.False(t, a.mirrored(3, 0.3), "one lies there already")
	a.upright = false
	a.out = a.out[:2]
	assert.False(t, a.mirrored(2, 0), "without an axis there is no across")
}
