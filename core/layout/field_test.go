package layout

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// The greatest least distance of n points in a unit square, best known and for these n
// proven: Croft, Falconer, Guy, Unsolved Problems in Geometry, D1; figures from memory.
var spread = map[int]float64{2: math.Sqrt2, 3: math.Sqrt(6) - math.Sqrt2, 4: 1, 5: math.Sqrt2 / 2, 6: math.Sqrt(13) / 6, 7: 4 - 2*math.Sqrt(3), 8: (math.Sqrt(6) - math.Sqrt2) / 2, 9: 0.5}

// What is scattered lies no further apart than the best packing allows, and not much
// nearer than half of it.
func TestScattersStayBelowTheBestPackings(t *testing.T) {
	for n, best := range spread {
		worst := math.Inf(1)
		for seed := range 20 {
			ps, err := Scatter(n, 0, shape.Rect(0, 0, 100, 100).Bounds(), uint64(seed))
			require.NoError(t, err)
			least := math.Inf(1)
			for i, p := range ps {
				for _, q := range ps[:i] {
					least = min(least, math.Hypot(p.X-q.X, p.Y-q.Y))
				}
			}
			assert.LessOrEqual(t, least, 100*best+1e-9, "%d pieces", n)
			worst = min(worst, least)
		}
		assert.Greater(t, worst, 100*best*0.3, "%d pieces lie in a heap", n)
	}
	again, _ := Scatter(7, 10, shape.Rect(0, 0, 100, 60).Bounds(), 3)
	same, _ := Scatter(7, 10, shape.Rect(0, 0, 100, 60).Bounds(), 3)
	assert.Equal(t, again, same, "the same throw")
	_, err := Scatter(0, 1, shape.Rect(0, 0, 9, 9).Bounds(), 0)
	assert.ErrorIs(t, err, ErrFew)
}

// To cover a plane with equal discs takes at least 2π/√27 = 1.2092 times its area in discs
// (Kershner 1939): a field that covers nearly all of its box lays no fewer, but for the
// edge, and not many times more. By brute force on a grid of points it covers what it says.
func TestFieldsCoverWhatTheySay(t *testing.T) {
	for _, c := range []struct{ r, w, h float64 }{{12, 100, 130}, {9, 80, 60}, {15, 90, 90}} {
		box := shape.Rect(0, 0, c.w, c.h).Bounds()
		got := Field([]Sized{{c.r}, {c.r / 2}, {c.r / 3}}, 0.3, 400, box, nil)
		area := 0.0
		for _, s := range got.Of {
			r := []float64{c.r, c.r / 2, c.r / 3}[s]
			area += math.Pi * r * r
		}
		assert.Greater(t, got.Cover, 0.9)
		assert.Greater(t, area, 1.2092*got.Cover*(c.w-2*c.r)*(c.h-2*c.r)*0.8)
		assert.Less(t, area, 3*(c.w+2*c.r)*(c.h+2*c.r))
		in, all := 0, 0
		for x := 0.25; x < c.w; x += 0.5 {
			for y := 0.25; y < c.h; y += 0.5 {
				all++
				for i, p := range got.Places {
					if math.Hypot(p.X-x, p.Y-y) <= []float64{c.r, c.r / 2, c.r / 3}[got.Of[i]] {
						in++
						break
					}
				}
			}
		}
		assert.InDelta(t, float64(in)/float64(all), got.Cover, 0.01)
		for _, g := range got.Gaps {
			for i, p := range got.Places {
				assert.Greater(t, math.Hypot(p.X-g.X, p.Y-g.Y), []float64{c.r, c.r / 2, c.r / 3}[got.Of[i]], "a gap is bare")
			}
		}
		for i := 1; i < len(got.Of); i++ {
			assert.GreaterOrEqual(t, got.Of[i], got.Of[i-1], "the largest first")
		}
	}
	// Nothing good is laid where it will be hidden.
	hidden := func(p shape.Point) bool { return math.Hypot(p.X-50, p.Y-50) < 25 }
	for _, p := range Field([]Sized{{8}}, 0.2, 120, shape.Rect(0, 0, 100, 100).Bounds(), hidden).Places {
		assert.False(t, hidden(shape.Point{X: p.X, Y: p.Y}))
	}
}

// A field of 120 pieces takes well under a second.
func BenchmarkField120(b *testing.B) {
	box := shape.Rect(0, 0, 102, 133).Bounds()
	for b.Loop() {
		if n := len(Field([]Sized{{7}, {5}, {4}}, 0.2, 120, box, nil).Places); n < 60 {
			b.Fatal(n)
		}
	}
}

// By brute force: no other count from 3 to 400 closes a ring with a gap nearer to the one
// wanted, but for what rounding the count may lose.
func TestRingCountIsTheBestThereIs(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r, w, gap := rapid.Float64Range(15, 60).Draw(t, "r"), rapid.Float64Range(5, 14).Draw(t, "w"), rapid.Float64Range(-2, 4).Draw(t, "gap")
		n := RingCount(r, w, gap)
		miss := func(n int) float64 { return math.Abs(Chord(n, r) - w - gap) }
		best := 3
		for k := 3; k <= 400; k++ {
			if miss(k) < miss(best) {
				best = k
			}
		}
		if d := n - best; d < -1 || d > 1 {
			t.Fatalf("%d pieces, %d would close better", n, best)
		}
	})
}

// A frame closes: the same step along each side, a piece in every corner, all on the line
// asked for; the count is the perimeter over the step, side by side, by hand.
func TestFramesCloseAlongTheEdges(t *testing.T) {
	in := shape.Rect(0, 0, 100, 140).Bounds()
	ps, err := Frame(18, 2, 0, in)
	require.NoError(t, err)
	assert.Len(t, ps, 2*5+2*7, "100/20 and 140/20 on each side")
	corners := 0
	for i, p := range ps {
		on := p.X == 0 || p.X == 100 || p.Y == 0 || p.Y == 140
		assert.True(t, on, "%+v stands on the edge", p)
		if (p.X == 0 || p.X == 100) && (p.Y == 0 || p.Y == 140) {
			corners++
		}
		q := ps[(i+1)%len(ps)]
		assert.InDelta(t, 20, math.Hypot(p.X-q.X, p.Y-q.Y), 1e-9)
	}
	assert.Equal(t, 4, corners)
	_, err = Frame(60, 50, 0, in)
	assert.ErrorIs(t, err, ErrFew)
}

// Rows reach past every edge, keep their steps, and whole ones stay inside.
func TestRowsRunOverTheEdge(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w, h := rapid.Float64Range(4, 30).Draw(t, "w"), rapid.Float64Range(4, 30).Draw(t, "h")
		r := card.Rows{Across: rapid.Float64Range(5, 40).Draw(t, "across"), Down: rapid.Float64Range(5, 40).Draw(t, "down"), Shift: rapid.Float64Range(0, 1).Draw(t, "shift")}
		in := shape.Rect(-50, -40, 100, 80).Bounds()
		at := card.Spot{X: rapid.Float64Range(-20, 20).Draw(t, "x"), Y: rapid.Float64Range(-20, 20).Draw(t, "y")}
		got := Rows(r, at, w, h, in)
		seen := map[[2]int]bool{}
		for _, p := range got {
			seen[[2]int{int(math.Round(p.X * 100)), int(math.Round(p.Y * 100))}] = true
		}
		// By brute force over a wide lattice.
		n := 0
		for j := -40; j <= 40; j++ {
			for i := -60; i <= 60; i++ {
				x, y := at.X+float64(i)*r.Across, at.Y+float64(j)*r.Down
				if j%2 != 0 {
					x += r.Shift * r.Across
				}
				if x+w/2 > in.Min.X && x-w/2 < in.Max.X && y+h/2 > in.Min.Y && y-h/2 < in.Max.Y {
					n++
					if !seen[[2]int{int(math.Round(x * 100)), int(math.Round(y * 100))}] {
						t.Fatalf("%g, %g is left out", x, y)
					}
				}
			}
		}
		if n != len(got) {
			t.Fatalf("%d places, by brute force %d", len(got), n)
		}
		r.Whole = true
		for _, p := range Rows(r, at, w, h, in) {
			if p.X-w/2 < in.Min.X-1e-6 || p.X+w/2 > in.Max.X+1e-6 || p.Y-h/2 < in.Min.Y-1e-6 || p.Y+h/2 > in.Max.Y+1e-6 {
				t.Fatalf("%+v is not whole", p)
			}
		}
	})
}
