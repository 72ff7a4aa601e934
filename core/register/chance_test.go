package register

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// The play of a disc in a disc is a circle of R - r: the chance that a normal
// shift falls into it is Rayleigh's 1 - exp(-R²/2σ²) (NIST/SEMATECH e-Handbook
// of Statistical Methods 1.3.6.6 for the distributions; from memory).
func TestChanceAgainstRayleigh(t *testing.T) {
	for _, c := range []struct{ gap, sigma float64 }{{0.5, 0.5}, {1, 0.5}, {1.5, 0.5}, {0.3, 0.12}} {
		p, err := Of(shape.Disc(shape.Point{}, 10), shape.Disc(shape.Point{}, 10+c.gap), kit.FitWithin, Limits{})
		require.NoError(t, err)
		want := 1 - math.Exp(-p.Tight*p.Tight/(2*c.sigma*c.sigma))
		assert.InDelta(t, want, Chance(p, Spread{Shift: c.sigma}, 3), 0.006, "a gap of %g at %g", c.gap, c.sigma)
		// The same by the chi-square distribution of two degrees of freedom.
		chi := distuv.ChiSquared{K: 2}
		assert.InDelta(t, want, chi.CDF(p.Tight*p.Tight/(c.sigma*c.sigma)), 1e-9)
	}
}

// A square in a square, no turn: the chance is that of both axes, by the error
// function.
func TestChanceOfASquare(t *testing.T) {
	p, err := Of(shape.Rect(1, 1, 8, 8), shape.Rect(0, 0, 10, 10), kit.FitWithin, Limits{})
	require.NoError(t, err)
	one := math.Erf(1 / (0.6 * math.Sqrt2))
	assert.InDelta(t, one*one, Chance(p, Spread{Shift: 0.6}, 5), 0.012, "72 directions round its corners off a little")
	assert.Equal(t, Chance(p, Spread{Shift: 0.6, Turn: 1}, 5), Chance(p, Spread{Shift: 0.6, Turn: 1}, 5), "repeatable from its seed")
	assert.Less(t, Chance(p, Spread{Shift: 0.6, Turn: 3}, 5), Chance(p, Spread{Shift: 0.6}, 5))
	assert.Equal(t, 1.0, Chance(Play{}, Spread{Shift: 9}, 1), "nothing has to meet")
	assert.Zero(t, Chance(Play{Judged: true, Outside: 3}, Spread{Shift: 0.1}, 1))
}

// Against the binomial distribution summed term by term, and a value of common
// tables: of 10 with chance 0.9 each, 8 or more come out with 0.9298.
func TestBlanksAgainstTheBinomial(t *testing.T) {
	atLeast := func(n, k int, p float64) float64 {
		b := distuv.Binomial{N: float64(n), P: p}
		s := 0.0
		for i := k; i <= n; i++ {
			s += b.Prob(float64(i))
		}
		return s
	}
	assert.InDelta(t, 0.9298, atLeast(10, 8, 0.9), 5e-5)
	for want := 1; want <= 24; want += 3 {
		for _, p := range []float64{0.3, 0.6, 0.85, 0.97} {
			n := Blanks(want, p, 0.95)
			assert.GreaterOrEqual(t, atLeast(n, want, p), 0.95)
			if n > want {
				assert.Less(t, atLeast(n-1, want, p), 0.95)
			}
		}
	}
	assert.Equal(t, 12, Blanks(12, 1, 0.95))
	assert.Zero(t, Blanks(12, 0.001, 0.95))
	assert.Zero(t, Blanks(0, 0.5, 0.95))
}

// A disc of 5.9 mm in a blank of 6 mm: a gap of 0.1 mm all round as designed, so
// 0.1 mm more may be left on the one side, which is less than the overlap allows.
func TestFillsABlank(t *testing.T) {
	host := shape.RingDisc(shape.Point{}, 20, 6)
	p, err := Of(shape.Disc(shape.Point{}, 5.9), host, kit.FitFills, Defaults())
	require.NoError(t, err)
	require.True(t, p.Judged)
	assert.InDelta(t, 0.1, p.Tight, 0.03)
	assert.InDelta(t, 0.1, p.Loose, 0.04)
	// Larger than its blank by 0.4 mm: gap 0.6 allowed one way, overlap 0.2 left.
	p, err = Of(shape.Disc(shape.Point{}, 6.4), host, kit.FitFills, Defaults())
	require.NoError(t, err)
	assert.InDelta(t, 0.2, p.Tight, 0.04)
	// Much too small: it shows as designed.
	p, err = Of(shape.Disc(shape.Point{}, 5), host, kit.FitFills, Defaults())
	require.NoError(t, err)
	assert.Greater(t, p.Outside, 1.0)
	// No blank to fill: nothing to judge.
	p, err = Of(shape.Disc(shape.Point{}, 5), shape.Disc(shape.Point{}, 20), kit.FitFills, Defaults())
	require.NoError(t, err)
	assert.False(t, p.Judged)
}

// Shifted half its way, a square has less turn left, and none at the edge; about
// a corner it can turn less than about its middle.
func TestTurnLeft(t *testing.T) {
	in, out := shape.Rect(1, 1, 8, 8), shape.Rect(0, 0, 10, 10)
	c := shape.Point{X: 5, Y: 5}
	free, _, err := TurnLeft(in, out, shape.Point{}, c)
	require.NoError(t, err)
	half, _, err := TurnLeft(in, out, shape.Point{X: 0.5}, c)
	require.NoError(t, err)
	none, _, err := TurnLeft(in, out, shape.Point{X: 1.2}, c)
	require.NoError(t, err)
	assert.Greater(t, free, half)
	assert.Greater(t, half, 0.1)
	assert.Zero(t, none)
	// Closed form: a corner at distance √32 turns until its x reaches 4.5 + ... the
	// nearer side at 4.5 mm from the shifted middle.
	want := 45 - math.Acos(4.5/math.Sqrt(32))*180/math.Pi
	assert.InDelta(t, want, half, 1e-3)
	pivot, anti, err := TurnLeft(in, out, shape.Point{}, shape.Point{X: 1, Y: 1})
	require.NoError(t, err)
	assert.Less(t, math.Min(pivot, anti), free+1e-9)
}

func TestLimitsEaseWithContrast(t *testing.T) {
	d := Defaults()
	assert.Equal(t, d, d.Eased(30))
	assert.InDelta(t, 0.125, d.Eased(90).Spill, 1e-9, "black beside white: half")
	assert.InDelta(t, 0.5, d.Eased(6).Spill, 1e-9, "near colours: twice")
	assert.Greater(t, d.Eased(90).RimShare, d.RimShare)
	assert.Equal(t, 0.5, d.Eased(0).Spill)
}
