package register_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

func disc(x, r float64) shape.Region { return shape.Disc(shape.Point{X: x}, r) }

// A die round a print, discs in closed form: what the print may drift one way the
// die may drift the other.
func TestTheDieRoundAPrint(t *testing.T) {
	lim := register.Defaults()
	p, err := register.Round(disc(0.5, 10), disc(0, 12), lim)
	require.NoError(t, err)
	require.True(t, p.Judged)
	assert.InDelta(t, 1.5, p.Rim, 0.03)
	assert.InDelta(t, 1.75, p.Reach[0], 0.04, "the die may go right by what the print may go left")
	assert.InDelta(t, 0.75, p.Reach[register.Directions/2], 0.04)
	assert.InDelta(t, 180, p.TightAt, 6)

	bleed, err := register.Round(disc(0, 12), disc(0, 10), lim)
	require.NoError(t, err)
	assert.InDelta(t, 2+lim.Gap, bleed.Tight, 0.04, "no more white inside the cut line than is forgiven")
	assert.Zero(t, bleed.Rim)

	flush, err := register.Round(disc(0, 10), disc(0, 10.1), lim)
	require.NoError(t, err)
	assert.InDelta(t, 0.1+lim.Spill, flush.Tight, 0.04, "no further past the cut line than is forgiven")

	none, err := register.Round(shape.Region{}, disc(0, 3), lim)
	require.NoError(t, err)
	assert.False(t, none.Judged)
}

// The harm of a disc moved over a disc: spill, rim and lens area in closed form.
func TestHarmOfALayerOffItsPlace(t *testing.T) {
	lim := register.Defaults()
	at := func(d float64) register.Harm {
		h, err := register.HarmOf(disc(0, 6), disc(0, 8), kit.FitWithin, lim, 2, shape.Point{X: d}, 0)
		require.NoError(t, err)
		return h
	}
	h := at(1.2)
	assert.InDelta(t, 0.8, h.RimLeast, 0.03)
	assert.False(t, h.Shows)
	h = at(3)
	assert.InDelta(t, 1, h.Spill, 0.03)
	assert.Zero(t, h.RimLeast)
	assert.True(t, h.Shows)
	// Area of the smaller disc outside the larger: πr² less the lens of two discs.
	const r, R, d = 6.0, 8.0, 3.0
	lens := r*r*math.Acos((d*d+r*r-R*R)/(2*d*r)) + R*R*math.Acos((d*d+R*R-r*r)/(2*d*R)) -
		0.5*math.Sqrt((-d+r+R)*(d+r-R)*(d-r+R)*(d+r+R))
	assert.InEpsilon(t, math.Pi*r*r-lens, h.SpillArea, 0.02)
	assert.False(t, at(2.2).Shows, "the spill forgiven is forgiven")

	blank := shape.RingDisc(shape.Point{}, 12, 5)
	f, err := register.HarmOf(disc(0, 5.2), blank, kit.FitFills, lim, 0, shape.Point{X: 0.3}, 0)
	require.NoError(t, err)
	assert.Greater(t, f.Lies, 0.0)
	assert.InDelta(t, math.Pi*(5.2*5.2-25)+f.Bare, f.Lies, 0.5, "what lies over less what is bare is the difference of the areas")
	assert.False(t, f.Shows)
	f, err = register.HarmOf(disc(0, 5.2), blank, kit.FitFills, lim, 0, shape.Point{X: 0.8}, 0)
	require.NoError(t, err)
	assert.True(t, f.Shows)
}

// A pair offset on purpose holds while half of its offset is left, however it is
// turned (common practice, no source, for turning freely; the half is ours).
func TestOffsetOnPurpose(t *testing.T) {
	p, err := register.Of(disc(1.6, 9), disc(0, 9), kit.FitOffset, register.Defaults())
	require.NoError(t, err)
	require.True(t, p.Judged)
	for _, r := range p.Reach {
		assert.InDelta(t, 0.8, r, 1e-6)
	}
	assert.True(t, p.Holds(shape.Point{X: 0.7}, 0))
	assert.True(t, p.Holds(shape.Point{}, 120))
	assert.False(t, p.Holds(shape.Point{X: 0.9}, 0))
	p, err = register.Of(disc(0.1, 9), disc(0, 9), kit.FitOffset, register.Defaults())
	require.NoError(t, err)
	assert.False(t, p.Judged, "no offset to keep")
}

// Each kind of thing placed has its own ways, and each way its preparation.
func TestWaysServeWhatIsPlaced(t *testing.T) {
	p, err := register.Of(disc(0, 6), disc(0, 7), kit.FitWithin, register.Defaults())
	require.NoError(t, err)
	names := func(k register.Piece) (out []string) {
		all, pick, why := register.Prospects(p, k, 5, register.Ways(), 1)
		require.GreaterOrEqual(t, pick, 0)
		assert.NotEmpty(t, why)
		for _, w := range all {
			assert.NotEmpty(t, w.Prepare)
			out = append(out, w.ID)
		}
		return out
	}
	assert.Contains(t, names(register.Stencil), "etched")
	assert.NotContains(t, names(register.Stamping), "etched")
	assert.Contains(t, names(register.DieRound), "lines")
	assert.NotContains(t, names(register.CutPiece), "corner")
	assert.Equal(t, "corner", register.Steadiest(register.Stamping, register.Ways()).ID)
}

// The widest rim of a disc off the middle of its host, and that an even one is as
// wide as narrow.
func TestTheRimIsUneven(t *testing.T) {
	p, err := register.Of(disc(0.8, 8), disc(0, 10), kit.FitEvenRim, register.Defaults())
	require.NoError(t, err)
	assert.InDelta(t, 1.2, p.Rim, 0.03)
	assert.InDelta(t, 2+0.8*math.Cos(math.Pi/5), p.RimWide, 0.06, "4 of 5 places: at an angle of 36° from the widest")
	p, err = register.Of(disc(0, 8), disc(0, 10), kit.FitEvenRim, register.Defaults())
	require.NoError(t, err)
	assert.InDelta(t, p.Rim, p.RimWide, 0.05)
}

// What a drifting die does to a print with a rim, and to one that runs past the
// cut line, discs in closed form.
func TestHarmOfADieRoundAPrint(t *testing.T) {
	lim := register.Defaults()
	h, err := register.HarmRound(disc(0, 10), disc(0, 12), lim, shape.Point{X: 0.6}, 30)
	require.NoError(t, err)
	assert.InDelta(t, 1.4, h.RimLeast, 0.03)
	assert.Zero(t, h.White)
	assert.False(t, h.Shows)
	h, err = register.HarmRound(disc(0, 10), disc(0, 12), lim, shape.Point{X: 2.5}, 0)
	require.NoError(t, err)
	assert.InDelta(t, 0.5, h.Spill, 0.03)
	assert.True(t, h.Shows)

	h, err = register.HarmRound(disc(0, 12), disc(0, 10), lim, shape.Point{X: 1.5}, 0)
	require.NoError(t, err)
	assert.Zero(t, h.White, "the print reaches past the cut line all round")
	assert.Zero(t, h.Spill, "and that is meant")
	assert.False(t, h.Shows)
	h, err = register.HarmRound(disc(0, 12), disc(0, 10), lim, shape.Point{Y: 2.7}, 0)
	require.NoError(t, err)
	assert.InDelta(t, 0.7, h.White, 0.03)
	assert.True(t, h.Shows)
}

// BenchmarkPlay300 is the whole play of a layer of 300 points in a host of 300.
func BenchmarkPlay300(b *testing.B) {
	ring := func(r float64) shape.Region {
		out := make(shape.Ring, 300)
		for i := range out {
			a := float64(i) * 2 * math.Pi / 300
			out[i] = shape.Polar(r*(1+0.12*math.Cos(5*a)), a*180/math.Pi)
		}
		return shape.Raw(out)
	}
	layer, host := ring(18), ring(20)
	for b.Loop() {
		if _, err := register.Of(layer, host, kit.FitWithin, register.Defaults()); err != nil {
			b.Fatal(err)
		}
	}
}
