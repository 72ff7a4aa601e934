package mat

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	gonum "gonum.org/v1/gonum/mat"

	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// known is a camera with a tilt and a bent lens.
func known() view {
	v := view{cx: 1500, cy: 2000, half: 2500, bend: [2]float64{-0.028, 0.002}}
	v.plane = Homography{250, 12, 105, -9, 255, 148, 0.04, -0.06}
	return v
}

func TestPixelsAndPlacesUndoEachOther(t *testing.T) {
	v := known()
	back, err := v.pixels()
	require.NoError(t, err)
	for _, p := range []shape.Point{{X: 30, Y: 40}, {X: 1500, Y: 2000}, {X: 2900, Y: 3900}, {X: 200, Y: 3700}} {
		assert.Less(t, back(v.mm(p)).Distance(p), 1e-4)
	}
}

// Edge points of rings made with a known camera, no picture between: the
// camera is found again, noise and all, and so is how far ink has spread.
func TestSettleFindsTheCamera(t *testing.T) {
	truth := known()
	back, err := truth.pixels()
	require.NoError(t, err)
	rnd := rand.New(rand.NewPCG(7, 8))
	l := For(measure.A4, false)
	const spread = 0.05 // mm of ink gain
	var ss []sighting
	for i, m := range l.Marks {
		for k, r := range []float64{m.Outer, m.Inner, m.Dot} {
			if r == 0 {
				continue
			}
			sign := []float64{1, -1, 1}[k]
			for j := range 40 {
				a := 2 * math.Pi * float64(j) / 40
				at := m.At.Add(shape.Point{X: math.Cos(a), Y: math.Sin(a)}.Scale(r + sign*spread))
				px := back(at)
				px.X += 0.1 * rnd.NormFloat64()
				px.Y += 0.1 * rnd.NormFloat64()
				ss = append(ss, sighting{px, i, m.At, r, sign})
			}
		}
	}
	start := truth
	start.bend, start.gain = [2]float64{}, 0
	for i := range start.plane {
		start.plane[i] *= 1 + 0.01*rnd.NormFloat64()
	}
	got, err := start.settle(ss)
	require.NoError(t, err)
	assert.InDelta(t, spread, got.gain, 0.005)
	worst := 0.0
	for x := 20.0; x < 200; x += 20 {
		for y := 20.0; y < 280; y += 20 {
			px := back(shape.Point{X: x, Y: y})
			worst = math.Max(worst, got.mm(px).Distance(shape.Point{X: x, Y: y}))
		}
	}
	assert.Less(t, worst, 0.012, "everywhere on the page, mm")
	var r Reading
	r.Layout = l
	r.certainty(got, ss)
	assert.Less(t, r.Off, 0.02)
	assert.Less(t, r.Certain, 1e-4)
}

// A few sightings gone wrong, such as glare on a ring, do not bend the page.
func TestSettleLetsGoOfGlare(t *testing.T) {
	truth := known()
	back, err := truth.pixels()
	require.NoError(t, err)
	l := For(measure.A4, false)
	var ss []sighting
	for i, m := range l.Marks {
		for j := range 30 {
			a := 2 * math.Pi * float64(j) / 30
			px := back(m.At.Add(shape.Point{X: math.Cos(a), Y: math.Sin(a)}.Scale(m.Outer)))
			if i == 7 && j < 12 {
				px.X += 9
			}
			ss = append(ss, sighting{px, i, m.At, m.Outer, 1})
		}
	}
	got, err := truth.settle(ss)
	require.NoError(t, err)
	px := back(shape.Point{X: 100, Y: 150})
	assert.Less(t, got.mm(px).Distance(shape.Point{X: 100, Y: 150}), 0.03)
}

// The closed form of two singular values against gonum's decomposition.
func TestSingularValuesAgainstGonum(t *testing.T) {
	rnd := rand.New(rand.NewPCG(9, 1))
	for range 100 {
		m := []float64{rnd.NormFloat64(), rnd.NormFloat64(), rnd.NormFloat64(), rnd.NormFloat64()}
		var s svd2
		s.of(m[0], m[1], m[2], m[3])
		var svd gonum.SVD
		require.True(t, svd.Factorize(gonum.NewDense(2, 2, m), gonum.SVDNone))
		want := svd.Values(nil)
		assert.InDelta(t, want[0], s.big, 1e-9)
		assert.InDelta(t, want[1], s.small, 1e-9)
	}
}

func TestReadingsAreChecked(t *testing.T) {
	good := Reading{Tilt: 10, PerMM: 11, Blur: 0.05, Off: 0.02}
	assert.NoError(t, good.check())
	for says, change := range map[string]func(*Reading){
		"straight above": func(r *Reading) { r.Tilt = 50 },
		"small in the":   func(r *Reading) { r.PerMM = 3 },
		"is blurred":     func(r *Reading) { r.Blur = 0.4 },
		"off where they": func(r *Reading) { r.Off = 0.9 },
	} {
		r := good
		change(&r)
		assert.ErrorContains(t, r.check(), says)
	}
}

func TestEveryChoiceOfFourComesOnce(t *testing.T) {
	seen := map[[4]int]bool{}
	choose4(5, func(k [4]int) {
		assert.False(t, seen[k])
		seen[k] = true
	})
	assert.Len(t, seen, 5*4*3*2)
}

func TestShareOfAHistogram(t *testing.T) {
	h := make([]int, 256)
	h[50], h[200] = 30, 70
	assert.InDelta(t, 50.5/255, share(h, 0.2), 1e-9)
	assert.InDelta(t, 200.5/255, share(h, 0.5), 1e-9)
}
