package register

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// A long triangle is pinned by its far ends; the words say where they are.
func TestSightsOnFarTips(t *testing.T) {
	in := shape.Raw(shape.Ring{{X: 0, Y: 0}, {X: 60, Y: 8}, {X: 0, Y: 16}})
	host, err := in.Offset(2)
	require.NoError(t, err)
	p, err := Of(in, host, kit.FitEvenRim, Defaults())
	require.NoError(t, err)
	s := Sight(in, host, in, p)
	require.Len(t, s.Points, 3)
	d := math.Hypot(s.Points[0].X-s.Points[1].X, s.Points[0].Y-s.Points[1].Y)
	assert.Greater(t, d, 55.0, "the two furthest apart pin the turn")
	for _, f := range s.Points {
		assert.True(t, f.Tip)
		assert.Less(t, f.Angle, 90.0)
	}
	assert.Contains(t, s.Say, "tip")
	assert.Greater(t, s.Eye, 0.05)
	assert.Less(t, s.Eye, 2.0)
	// A pair of twice the length turns half as much: e√2/d.
	big := Sight(in.ScaleBy(2), host.ScaleBy(2), in.ScaleBy(2), p)
	assert.Less(t, big.Turn, s.Turn)
}

func TestRoundInRoundHasNothingToSightOn(t *testing.T) {
	s := Sight(shape.Disc(shape.Point{}, 10), shape.Disc(shape.Point{}, 12), shape.Disc(shape.Point{}, 10), Play{})
	assert.Empty(t, s.Points)
	assert.Contains(t, s.Say, "jig")
	for _, r := range []float64{0.8, 1.6, 4} {
		dot := shape.Disc(shape.Point{X: 3}, r)
		assert.Empty(t, Sight(dot, shape.Rect(-20, -20, 40, 40), dot, Play{}).Points, "a dot of %g mm", r)
	}
}

// Corners that other layers cover are not sighted on.
func TestHiddenCornersDoNotCount(t *testing.T) {
	sq := shape.Rect(0, 0, 30, 20)
	host := shape.Rect(-2, -2, 34, 24)
	left := shape.Rect(0, 0, 12, 20)
	s := Sight(sq, host, left, Play{})
	require.NotEmpty(t, s.Points)
	for _, f := range s.Points {
		assert.Less(t, f.X, 13.0)
		assert.True(t, strings.HasPrefix(f.Where, "upper left") || strings.HasPrefix(f.Where, "lower left"), f.Where)
	}
}

// Eight turns of 45 degrees and four of 90 (common practice, no source); the
// chord of a hexagon is its radius.
func TestRings(t *testing.T) {
	assert.Equal(t, 45.0, Step(8))
	assert.Equal(t, 90.0, Step(4))
	assert.InDelta(t, 30, Chord(6, 30), 1e-12)
	assert.InDelta(t, 20, Chord(6, TouchRadius(6, 20)), 1e-12)
}

func TestProspectsPreferTheSimplestThatDoes(t *testing.T) {
	wide, err := Of(shape.Disc(shape.Point{}, 10), shape.Disc(shape.Point{}, 14), kit.FitWithin, Defaults())
	require.NoError(t, err)
	all, pick, why := Prospects(wide, Stamping, 12, Ways(), 1)
	require.NotEmpty(t, all)
	assert.Equal(t, "eye", all[pick].ID)
	assert.Contains(t, why, "enough")

	tight, err := Of(shape.Disc(shape.Point{}, 10), shape.Disc(shape.Point{}, 10.1), kit.FitWithin, Defaults())
	require.NoError(t, err)
	all, pick, _ = Prospects(tight, Stamping, 12, Ways(), 1)
	assert.Equal(t, "corner", all[pick].ID)
	for _, q := range all {
		assert.LessOrEqual(t, q.Chance, 1.0)
		assert.GreaterOrEqual(t, q.Blanks, 12)
	}
	all, _, _ = Prospects(tight, CutPiece, 12, Ways(), 1)
	for _, q := range all {
		assert.NotEqual(t, "corner", q.ID, "a cut piece does not go in the positioner")
	}
}

func BenchmarkChance(b *testing.B) {
	p, _ := Of(shape.Rect(1, 1, 8, 8), shape.Rect(0, 0, 10, 10), kit.FitWithin, Limits{})
	for b.Loop() {
		Chance(p, Spread{0.3, 0.5}, 1)
	}
}

// Corners to point at are sharp, apart from one another, and no more than asked.
func TestMarksAreSpreadApart(t *testing.T) {
	square := shape.Rect(0, 0, 30, 20)
	ms := Marks(square, square, 4)
	require.Len(t, ms, 4)
	corners := map[[2]int]bool{}
	for _, m := range ms {
		corners[[2]int{int(m.X + 0.5), int(m.Y + 0.5)}] = true
		assert.True(t, m.Tip)
	}
	assert.Len(t, corners, 4, "each corner once")
	two := Marks(square, square, 2)
	require.Len(t, two, 2)
	assert.InDelta(t, math.Hypot(30, 20), math.Hypot(two[0].X-two[1].X, two[0].Y-two[1].Y), 0.1, "the second lies furthest from the first")
	assert.Empty(t, Marks(shape.Disc(shape.Point{}, 10), shape.Disc(shape.Point{}, 10), 4), "a disc has none")
	half := shape.Rect(0, 0, 30, 6)
	for _, m := range Marks(square, half, 4) {
		assert.Less(t, m.Y, 7.0, "what is covered cannot be pointed at")
	}
}

// What lies beneath is named once it is known.
func TestSightingsAreNamed(t *testing.T) {
	s := Sight(shape.Rect(2, 2, 26, 16), shape.Rect(0, 0, 30, 20), shape.Rect(2, 2, 26, 16), Play{})
	require.NotEmpty(t, s.Points)
	assert.Contains(t, s.Say, "beneath it")
	n := s.Named("Step 1, wash")
	assert.NotContains(t, n.Say, "beneath it")
	assert.Contains(t, n.Say, "of Step 1, wash")
	assert.Contains(t, n.Points[0].Ref, "of Step 1, wash")
	assert.Contains(t, s.Points[0].Ref, "beneath it", "the sighting itself is left as it was")
}

// A layer that may go R every way and turn as it likes comes out where a spread of two dimensions
// stays within R: by Rayleigh's distribution, 1 - exp(-R²/2σ²). The placements tried find it to a
// quarter of a per cent, whatever the seed.
func TestChanceToAQuarterPerCent(t *testing.T) {
	for _, r := range []float64{0.1, 0.3, 0.5, 0.8, 1.2, 2} {
		p := Play{Judged: true, Clock: 180, Anti: 180}
		for range 72 {
			p.Reach = append(p.Reach, r)
		}
		for seed := range uint64(20) {
			assert.InDelta(t, 1-math.Exp(-r*r/(2*0.4*0.4)), Chance(p, Spread{Shift: 0.4, Turn: 1}, seed), 0.0025, "%v mm, seed %d", r, seed)
		}
	}
}

// So it does of a rectangle, where the share is a product of error functions.
func TestChanceOfARectangle(t *testing.T) {
	for _, c := range [][2]float64{{0.3, 0.9}, {0.1, 2}, {0.5, 0.5}, {1, 0.7}} {
		p := Play{Judged: true, Clock: 180, Anti: 180}
		for i := range 720 {
			s, k := math.Sincos(2 * math.Pi * float64(i) / 720)
			p.Reach = append(p.Reach, math.Min(c[0]/math.Max(1e-9, math.Abs(k)), c[1]/math.Max(1e-9, math.Abs(s))))
		}
		want := math.Erf(c[0]/0.4/math.Sqrt2) * math.Erf(c[1]/0.4/math.Sqrt2)
		for seed := range uint64(20) {
			assert.InDelta(t, want, Chance(p, Spread{Shift: 0.4, Turn: 1}, seed), 0.003, "%v, seed %d", c, seed)
		}
	}
}
