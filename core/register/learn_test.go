package register_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// Placements drawn with a known spread give it back, the interval covers it in
// about nine of ten, and a lean is called in about one of twenty that have none.
func TestASpreadIsLearned(t *testing.T) {
	rnd := rand.New(rand.NewPCG(1, 2))
	covered, called := 0, 0
	const runs, n = 2000, 12
	for range runs {
		ps := make([]register.Placed, n)
		for i := range ps {
			ps[i] = register.Placed{X: 0.3 * rnd.NormFloat64(), Y: 0.3 * rnd.NormFloat64(), Turn: 0.5 * rnd.NormFloat64()}
		}
		h := register.Learn(ps)
		if h.Low <= 0.3 && 0.3 <= h.High {
			covered++
		}
		if h.Leans {
			called++
		}
	}
	assert.InDelta(t, 0.90, float64(covered)/runs, 0.02)
	assert.InDelta(t, 0.06, float64(called)/runs, 0.025, "1 in 20, a little more for the spread being estimated")
	// Chi-square with 20 degrees of freedom: 10.851 and 31.410 at 5 % and 95 %
	// (NIST/SEMATECH e-Handbook, table 1.3.6.7.4).
	ten := make([]register.Placed, 10)
	for i := range ten {
		ten[i] = register.Placed{X: 1, Y: -1}
	}
	h := register.Learn(ten)
	assert.InDelta(t, 1, h.Spread.Shift, 1e-12)
	assert.InDelta(t, math.Sqrt(20/31.410), h.Low, 1e-4)
	assert.InDelta(t, math.Sqrt(20/10.851), h.High, 1e-4)
	assert.True(t, h.Leans)
	assert.InDelta(t, 1, h.LeanX, 1e-12)
	assert.Zero(t, register.Learn(nil))
}

func TestOwnSpreadsStandInForDefaults(t *testing.T) {
	four := []register.Placed{{X: 1}, {X: -1}, {Y: 1}, {Y: -1}}
	ways := register.Own(register.Ways(), map[string][]register.Placed{"eye": four, "corner": append(four, register.Placed{Turn: 1})})
	for _, w := range ways {
		assert.Equal(t, w.ID == "corner", w.Own, w.ID)
		if w.Own {
			assert.Equal(t, 5, w.From)
			assert.InDelta(t, math.Sqrt(0.4), w.Spread.Shift, 1e-12)
		}
	}
	assert.False(t, register.Ways()[0].Own, "the defaults stay")
}

// The slope and its error against gonum's regression and the textbook formula.
func TestDrift(t *testing.T) {
	v := []float64{0.1, 0.14, 0.11, 0.22, 0.25, 0.23, 0.31}
	x := []float64{0, 1, 2, 3, 4, 5, 6}
	_, beta := stat.LinearRegression(x, v, nil, false)
	slope, se := register.Drift(v)
	assert.InDelta(t, beta, slope, 1e-12)
	// Standard error by R²: β·√((1/R²-1)/(n-2)).
	r := stat.Correlation(x, v, nil)
	assert.InDelta(t, beta*math.Sqrt((1/(r*r)-1)/5), se, 1e-12)
	assert.True(t, register.Drifts(slope, se, len(v)))
	flat, fse := register.Drift([]float64{0.1, -0.1, 0.12, -0.09, 0.1, -0.11})
	assert.False(t, register.Drifts(flat, fse, 6))
	// Student's t with 5 degrees of freedom is 2.571 at 97.5 % (NIST/SEMATECH
	// e-Handbook, table 1.3.6.7.2).
	assert.True(t, register.Drifts(2.572, 1, 7))
	assert.False(t, register.Drifts(2.570, 1, 7))
	_, none := register.Drift(v[:2])
	assert.Zero(t, none)
}

// Points set by hand: the motion is found, and the stated errors are those of
// repeated settings.
func TestPointsSetByHand(t *testing.T) {
	from := []shape.Point{{X: 0, Y: 0}, {X: 40, Y: 3}, {X: 22, Y: 30}, {X: 5, Y: 26}}
	truth := register.Motion{Turn: 1.5, Move: shape.Point{X: 0.6, Y: -0.3}}
	rnd := rand.New(rand.NewPCG(3, 4))
	var turns, xs []float64
	var mid shape.Point
	for _, p := range from {
		mid = mid.Add(p.Scale(0.25))
	}
	var sureShift, sureTurn float64
	const runs = 3000
	for range runs {
		to := make([]shape.Point, len(from))
		for i, p := range from {
			to[i] = truth.Point(p).Add(shape.Point{X: 0.1 * rnd.NormFloat64(), Y: 0.1 * rnd.NormFloat64()})
		}
		p, err := register.Points(from, to, 0.001)
		require.NoError(t, err)
		turns, xs = append(turns, p.Motion.Turn), append(xs, p.Motion.Point(mid).X)
		sureShift, sureTurn = sureShift+p.SureShift/runs, sureTurn+p.SureTurn/runs
	}
	assert.InDelta(t, 1.5, stat.Mean(turns, nil), 0.01)
	assert.InEpsilon(t, stat.StdDev(turns, nil), sureTurn, 0.08)
	assert.InEpsilon(t, stat.StdDev(xs, nil), sureShift, 0.08)

	two, err := register.Points(from[:2], []shape.Point{{X: 0, Y: 0}, {X: 40.4, Y: 3.03}}, 0.1)
	require.NoError(t, err)
	assert.InDelta(t, 1.01, two.Scale, 1e-3, "a scale is told apart, not taken for a turn")
	assert.InDelta(t, 0.1/math.Sqrt2, two.SureShift, 1e-12, "no surer than the hand that set them")
	_, err = register.Points(from[:1], from[:1], 0.1)
	require.ErrorIs(t, err, register.ErrFew)
}

// A round layer's turn is said as that of the others: were it learned from, a hand would seem
// to turn nothing askew.
func TestARoundLayersTurnIsNotLearnedFrom(t *testing.T) {
	var ps []register.Placed
	for i := range 10 {
		off := float64(1 - 2*(i%2))
		ps = append(ps, register.PlacedAs(0.3*off, 0, 1.5*off, 0.05), register.PlacedAs(0.3*off, 0, 0.05*off, 1.7))
	}
	h := register.Learn(ps)
	assert.Equal(t, 20, h.N)
	assert.Equal(t, 10, h.Turns)
	assert.InDelta(t, 1.5, h.Spread.Turn, 1e-9)
	var round []register.Placed
	for range 8 {
		round = append(round, register.PlacedAs(0.4, 0, 0, 1.7))
	}
	own := register.Own([]register.Way{{ID: "eye", Spread: register.Spread{Shift: 1, Turn: 1.2}}}, map[string][]register.Placed{"eye": round})
	assert.True(t, own[0].Own)
	assert.InDelta(t, 1.2, own[0].Spread.Turn, 1e-9, "as before: nothing is known of it")
}

// A typed spread goes before what was learned; that of a die round a print is its own; what cannot be is
// passed over.
func TestAHandIsTyped(t *testing.T) {
	ways := register.Typed(register.Ways(), map[string]register.Spread{"eye": {Shift: 0.35}, register.RoundKey("eye"): {Shift: 0.5}, "corner": {Shift: -1}, "nobody": {Shift: 1}})
	assert.Len(t, ways, len(register.Ways()))
	reach := make([]float64, 72)
	for i := range reach {
		reach[i] = 0.5
	}
	p := register.Play{Judged: true, Reach: reach, Tight: 0.5, Clock: 180, Anti: 180}
	for piece, sd := range map[register.Piece]float64{register.Stamping: 0.35, register.DieRound: 0.5} {
		all, _, _ := register.Prospects(p, piece, 4, ways, 1)
		for _, w := range all {
			switch w.ID {
			case "eye":
				assert.True(t, w.Own && w.Typed)
				assert.Equal(t, sd, w.Spread.Shift)
				// With a play of r all round and no turn, 1 - exp(-r²/2σ²) come out (Rayleigh's law).
				assert.InDelta(t, 1-math.Exp(-0.25/(2*sd*sd)), w.Chance, 0.02)
			case "corner":
				assert.False(t, w.Typed, "no spread is less than nothing")
			}
		}
	}
}
