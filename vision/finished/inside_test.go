package finished

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"

	"ochrestone/core/shape"
	"ochrestone/vision/mat"
)

// The nearest of some pixels, against looking at all of them.
func TestNearestAgainstLookingAtAll(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w, h := rapid.IntRange(1, 14).Draw(t, "w"), rapid.IntRange(1, 14).Draw(t, "h")
		set := rapid.SliceOfN(rapid.Bool(), w*h, w*h).Draw(t, "set")
		n := newNearest(w, h, func(i int) bool { return set[i] })
		for i := range w * h {
			want := math.Inf(1)
			for j, on := range set {
				if on {
					want = math.Min(want, math.Hypot(float64(i%w-j%w), float64(i/w-j/w)))
				}
			}
			if math.IsInf(want, 1) {
				if n.far[i] < 1e5 {
					t.Fatalf("nothing is set, yet %g away", n.far[i])
				}
				continue
			}
			if math.Abs(float64(n.far[i])-want) > 1e-4 {
				t.Fatalf("pixel %d: %g, want %g", i, n.far[i], want)
			}
			k := int(n.at[i])
			if !set[k] || math.Abs(math.Hypot(float64(i%w-k%w), float64(i/w-k/w))-want) > 1e-4 {
				t.Fatalf("pixel %d: %d is not the nearest", i, k)
			}
		}
	})
}

// A perspective after another does both in turn.
func TestAfterDoesBoth(t *testing.T) {
	g := mat.Homography{1.1, 0.2, 3, -0.1, 0.9, 5, 0.001, -0.0005}
	h := mat.Homography{0.8, -0.3, 1, 0.2, 1.2, -4, -0.0007, 0.002}
	for _, p := range []shape.Point{{}, {X: 10, Y: -3}, {X: -20, Y: 41}} {
		want := h.At(g.At(p))
		got := after(h, g).At(p)
		assert.InDelta(t, want.X, got.X, 1e-9)
		assert.InDelta(t, want.Y, got.Y, 1e-9)
	}
}

// Where light meets dark along a slanting line, the crest lies on the line, and none is
// found along it.
func TestCrestsLieOnALine(t *testing.T) {
	f := &Flat{W: 200, H: 160}
	const deg = 25.0
	s, c := math.Sincos(deg * math.Pi / 180)
	for k := range f.lab {
		f.lab[k] = make([]float32, f.W*f.H)
	}
	for i := range f.W * f.H {
		x, y := float64(i%f.W)*Step, float64(i/f.W)*Step
		// A soft step of 40 in lightness across the line through (20, 16).
		d := (x-20)*c + (y-16)*s
		f.lab[0][i] = float32(50 + 20*math.Erf(d/0.25))
	}
	e := newEdges(f, shape.Point{})
	for _, off := range []float64{-0.6, -0.2, 0, 0.35, 0.7} {
		p := shape.Point{X: 20 + off*c + 3*s, Y: 16 + off*s - 3*c}
		at, ok := e.crest(p, shape.Point{X: c, Y: s}, 1)
		require.True(t, ok)
		assert.InDelta(t, -off, at, 0.03)
		_, ok = e.crest(p, shape.Point{X: -s, Y: c}, 1)
		assert.False(t, ok, "none runs across that way")
	}
}
