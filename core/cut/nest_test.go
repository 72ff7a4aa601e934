package cut

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/shape"
)

// blob is an outline with bays.
func blob(rng *rand.Rand, size float64) shape.Region {
	n := 14
	ring := make(shape.Ring, n)
	for i := range ring {
		r := size / 2 * (0.45 + 0.55*rng.Float64())
		s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		ring[i] = shape.Point{X: r * c, Y: r * s}
	}
	g := shape.Raw(ring)
	m := g.Bounds().Centre()
	return g.Move(shape.Point{X: -m.X, Y: -m.Y})
}

// Looked at by the outlines themselves, not by cells: no part overlaps another, none leaves
// its sheet, and the gap is kept.
func TestNestedPartsKeepClear(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rng := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 1))
		parts := make([]Part, rapid.IntRange(2, 14).Draw(t, "parts"))
		gap := rapid.SampledFrom([]float64{0, 1.5, 3}).Draw(t, "gap")
		for i := range parts {
			parts[i] = Part{Outline: blob(rng, 10+40*rng.Float64()), Turns: []float64{0, 90, 37}, Gap: gap}
		}
		bins := []Bin{{60, 90, 1}, {120, 120, 1}}
		got, _ := Nest(context.Background(), parts, bins, nil, 3, 1, nil)
		for i, l := range got {
			if l.Bin < 0 {
				continue
			}
			g := laidDown(parts[i], l)
			b := g.Bounds()
			if b.Min.X < -1e-6 || b.Min.Y < -1e-6 || b.Max.X > bins[l.Bin].W+1e-6 || b.Max.Y > bins[l.Bin].H+1e-6 {
				t.Fatalf("part %d leaves its sheet: %+v", i, b)
			}
			for j, o := range got[:i] {
				if o.Bin != l.Bin {
					continue
				}
				h := laidDown(parts[j], o)
				if g.Overlaps(h) {
					t.Fatalf("parts %d and %d overlap", j, i)
				}
				if d, _, _ := g.Gap(h); d < gap-1e-6 {
					t.Fatalf("parts %d and %d are %.2f mm apart, not %.1f", j, i, d, gap)
				}
			}
		}
	})
}

// Squares of 20 mm fill a sheet of 200 by 100 to the last: 50, with a bit for the cells.
func TestNestFillsASheet(t *testing.T) {
	parts := make([]Part, 50)
	for i := range parts {
		parts[i] = Part{Outline: shape.Rect(-10, -10, 20, 20)}
	}
	got, _ := Nest(context.Background(), parts, []Bin{{10*20.25 + 0.1, 5*20.25 + 0.1, 1}}, nil, 0, 1, nil)
	for i, l := range got {
		require.Equal(t, 0, l.Bin, "square %d", i)
	}
}

// Right triangles in pairs make squares, so half as many more go on a sheet turned than as
// they lie; the bound is their area.
func TestTurnsSavePaper(t *testing.T) {
	tri := shape.Raw(shape.Ring{{X: -15, Y: -15}, {X: 15, Y: 15}, {X: -15, Y: 15}})
	count := func(turns []float64) (n int) {
		parts := make([]Part, 60)
		for i := range parts {
			parts[i] = Part{Outline: tri, Turns: turns}
		}
		got, _ := Nest(context.Background(), parts, []Bin{{160, 160, 1}}, nil, 0, 1, nil)
		for _, l := range got {
			if l.Bin >= 0 {
				n++
			}
		}
		return n
	}
	as, turned := count(nil), count([]float64{0, 180})
	assert.Greater(t, turned, as+as/3)
	assert.LessOrEqual(t, float64(turned)*450, 160.0*160)
}

// 200 pieces of a dozen outlines onto sheets of letter size.
func BenchmarkNest200(b *testing.B) {
	rng := rand.New(rand.NewPCG(3, 3))
	var kinds []shape.Region
	for range 12 {
		kinds = append(kinds, blob(rng, 12+45*rng.Float64()))
	}
	parts := make([]Part, 200)
	for i := range parts {
		parts[i] = Part{Outline: kinds[i%12], Turns: []float64{0, 90, 180, 270}, Gap: 1.5}
	}
	bins := make([]Bin, 20)
	for i := range bins {
		bins[i] = Bin{216, 279, 1}
	}
	area := 0.0
	for _, p := range parts {
		area += p.Outline.Area()
	}
	for b.Loop() {
		got, _ := Nest(context.Background(), parts, bins, nil, 0, 1, nil)
		used := 0
		for _, l := range got {
			used = max(used, l.Bin+1)
		}
		b.ReportMetric(float64(used), "sheets")
		b.ReportMetric(area/(216*279), "sheets-by-area")
	}
}

// What was laid by hand stays where it was put, the others keep clear of it; one laid over
// another, or off its sheet, is not laid.
func TestPartsAreLaidRoundThoseLaidByHand(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rng := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 2))
		parts := make([]Part, rapid.IntRange(3, 9).Draw(t, "parts"))
		for i := range parts {
			parts[i] = Part{Outline: blob(rng, 14+16*rng.Float64()), Turns: []float64{0, 90}, Gap: 2}
		}
		bins := []Bin{{120, 120, 1}, {120, 120, 1}}
		fixed := map[int]Laid{
			0: {Bin: 0, X: rapid.Float64Range(0, 120).Draw(t, "x"), Y: rapid.Float64Range(0, 120).Draw(t, "y"), Turn: rapid.Float64Range(0, 360).Draw(t, "turn")},
			1: {Bin: 0, X: 60, Y: 60, Turn: 33},
		}
		got, _ := Nest(context.Background(), parts, bins, fixed, 2, 1, nil)
		for i, f := range fixed {
			if got[i].Bin >= 0 && got[i] != f {
				t.Fatalf("part %d was moved from %+v to %+v", i, f, got[i])
			}
		}
		first := laidDown(parts[0], fixed[0])
		b := first.Bounds()
		off := b.Min.X < 0 || b.Min.Y < 0 || b.Max.X > 120 || b.Max.Y > 120
		if off && got[0].Bin >= 0 {
			t.Fatal("it leaves its sheet")
		}
		for i, l := range got {
			for j, o := range got[:i] {
				if l.Bin >= 0 && l.Bin == o.Bin && laidDown(parts[i], l).Overlaps(laidDown(parts[j], o)) {
					t.Fatalf("parts %d and %d overlap", j, i)
				}
			}
		}
		for i := 2; i < len(got); i++ {
			if got[i].Bin < 0 {
				t.Fatalf("there is room for part %d", i)
			}
		}
	})
}
