package layout

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Closed form: neighbours at radius r in n turns are 2 r sin(180°/n) apart; in a hexagon
// the side is the radius, in a square it is r times the root of 2.
func TestRingsCloseAsTheirChordsSay(t *testing.T) {
	assert.InDelta(t, 30, Chord(6, 30), 1e-12)
	assert.InDelta(t, 30*math.Sqrt2, Chord(4, 30), 1e-12)
	assert.Equal(t, 6, RingCount(30, 30, 0), "six that touch, like six coins round one")
	assert.Equal(t, 6, RingCount(20, 18, 2))
	assert.Equal(t, 0, RingCount(10, 30, 0), "wider than the ring")
	rapid.Check(t, func(t *rapid.T) {
		n, r := rapid.IntRange(3, 40).Draw(t, "n"), rapid.Float64Range(5, 100).Draw(t, "r")
		c := shape.Point{X: rapid.Float64Range(-50, 50).Draw(t, "x"), Y: rapid.Float64Range(-50, 50).Draw(t, "y")}
		ps, err := Ring(n, c, r)
		if err != nil || len(ps) != n {
			t.Fatal(err, len(ps))
		}
		for i, p := range ps {
			q := ps[(i+1)%n]
			if d := math.Hypot(p.X-q.X, p.Y-q.Y); math.Abs(d-Chord(n, r)) > 1e-9 {
				t.Fatalf("neighbours %d: %g apart, chord %g", i, d, Chord(n, r))
			}
			if d := math.Hypot(p.X-c.X, p.Y-c.Y); math.Abs(d-r) > 1e-9 {
				t.Fatalf("%d lies %g from the centre", i, d)
			}
			// Its foot looks to the centre: a step down in its own frame goes inwards.
			s, cs := math.Sincos(p.Turn * math.Pi / 180)
			foot := shape.Point{X: p.X - s, Y: p.Y + cs}
			if d := math.Hypot(foot.X-c.X, foot.Y-c.Y); math.Abs(d-(r-1)) > 1e-9 {
				t.Fatalf("%d looks elsewhere", i)
			}
		}
	})
	_, err := Ring(2, shape.Point{}, 10)
	require.ErrorIs(t, err, ErrFew)
	_, err = Ring(8, shape.Point{}, 0)
	require.ErrorIs(t, err, ErrRadius)
}

// By hand: three pieces of 1 in on a panel 4 in wide leave four gaps of 1/4 in (common
// practice, no source: the margins count as gaps).
func TestRowsAndGridsHaveEvenGaps(t *testing.T) {
	in := shape.Rect(0, 0, 4*measure.Inch, 5.25*measure.Inch).Bounds()
	ps, across, down, err := Grid(3, 1, measure.Inch, measure.Inch, in)
	require.NoError(t, err)
	assert.InDelta(t, measure.Inch/4, across, 1e-9)
	assert.InDelta(t, 2.125*measure.Inch, down, 1e-9)
	assert.InDelta(t, 2*measure.Inch, ps[1].X, 1e-9, "the middle one in the middle")
	ps, across, down, err = Grid(3, 3, 30, 45, shape.Rect(10, 20, 100, 130).Bounds())
	require.NoError(t, err)
	assert.InDelta(t, 2.5, across, 1e-9)
	assert.InDelta(t, -1.25, down, 1e-9, "they overlap, and it is said so")
	assert.Len(t, ps, 9)
	assert.InDelta(t, 60, ps[4].X, 1e-9)
	assert.InDelta(t, 85, ps[4].Y, 1e-9)
	_, _, _, err = Grid(0, 2, 1, 1, in)
	require.ErrorIs(t, err, ErrFew)
}
