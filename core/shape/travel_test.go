package shape

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// slow asks every corner against every side, without sorting or pruning.
func slow(g, h Region, deg float64) float64 {
	s, c := math.Sincos(deg * math.Pi / 180)
	best := math.Inf(1)
	ray := func(p, d Point, e edge) {
		v := e.b.Sub(e.a)
		det := d.Cross(v)
		if math.Abs(det) < 1e-12 {
			return
		}
		w := e.a.Sub(p)
		t, u := w.Cross(v)/det, w.Cross(d)/det
		if off := graze / max(math.Abs(det), graze); t >= 0 && u >= -off && u <= 1+off {
			best = math.Min(best, t)
		}
	}
	for _, p := range g.corners() {
		for _, e := range h.edges() {
			ray(p, Point{c, s}, e)
		}
	}
	for _, p := range h.corners() {
		for _, e := range g.edges() {
			ray(p, Point{-c, -s}, e)
		}
	}
	return best
}

// A prepared course gives what a plain search of all corners and sides gives,
// whatever directions it was asked before.
func TestCourseAgainstPlainSearch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g, h := blob(t, "g"), blob(t, "h").ScaleBy(3)
		c := NewCourse(g, h)
		for range 6 {
			deg := rapid.Float64Range(0, 360).Draw(t, "deg")
			a, b := c.Travel(deg), slow(g, h, deg)
			if math.Abs(a-b) > 1e-6 && !(math.IsInf(a, 1) && math.IsInf(b, 1)) {
				t.Fatalf("at %g: %g, plainly %g", deg, a, b)
			}
		}
	})
}

// The tightest of all directions is the shortest way between the two edges.
func TestTightestTravelIsTheGap(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h := blob(t, "h").ScaleBy(4)
		g := blob(t, "g")
		if !h.Covers(g) {
			return
		}
		gap, on, to := g.Gap(h)
		if gap < 0.05 {
			return
		}
		deg := math.Atan2(to.Y-on.Y, to.X-on.X) * 180 / math.Pi
		if d := g.Travel(h, deg); math.Abs(d-gap) > 1e-6 {
			t.Fatalf("gap %g, travel along it %g", gap, d)
		}
		for a := 0.0; a < 360; a += 15 {
			if d := g.Travel(h, a); d < gap-1e-9 {
				t.Fatalf("travel %g at %g is shorter than the gap %g", d, a, gap)
			}
		}
	})
}

// Two corners that stand on opposite sides of the line between them still meet,
// and do not fly past each other by the last digit of a sine.
func TestCornersMeetCorners(t *testing.T) {
	for deg := 0.5; deg < 360; deg += 7.3 {
		up := Raw(Ring{{0, 0}, {1, 3}, {2, 3}}).Turn(deg, Point{})
		down := Raw(Ring{{0, -2}, {-1, -5}, {-2, -5}}).Turn(deg, Point{})
		assert.InDelta(t, 2, up.Travel(down, deg-90), 1e-6, "turned by %g°", deg)
	}
}

// Every point of an offset's edge stands as far from the region as was asked,
// and growing then shrinking a convex region gives it back.
func TestOffsetsStandWhereAsked(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g := blob(t, "g")
		d := rapid.Float64Range(-2, 4).Draw(t, "d")
		if math.Abs(d) < 0.05 {
			return
		}
		out, err := g.Offset(d)
		if err != nil {
			t.Fatal(err)
		}
		for _, e := range out.Strays(g, 0.5) {
			if math.Abs(e-math.Abs(d)) > 2*Tolerance+0.01 {
				t.Fatalf("offset by %g stands %g off", d, e)
			}
		}
	})
	hexagon := polygon(6, 10, Point{3, 4})
	grown, err := hexagon.Offset(2.5)
	require.NoError(t, err)
	back, err := grown.Offset(-2.5)
	require.NoError(t, err)
	assert.InDelta(t, hexagon.Area(), back.Area(), 0.3)
}

func TestOffsetClosesHolesAndPartsNecks(t *testing.T) {
	ring := RingDisc(Point{}, 10, 2)
	closed, err := ring.Offset(2.5)
	require.NoError(t, err)
	assert.Len(t, closed.Rings(), 1, "a hole of 2 mm radius is gone")
	bell, err := UnionAll(Disc(Point{-10, 0}, 6), Disc(Point{10, 0}, 6), Rect(-10, -1, 20, 2))
	require.NoError(t, err)
	parted, err := bell.Offset(-1.2)
	require.NoError(t, err)
	assert.Len(t, parted.Pieces(), 2, "a neck of 2 mm parts")
	same, err := ring.Offset(0)
	require.NoError(t, err)
	assert.Equal(t, ring, same)
}

// What shows under a cover and the two united, checked against the plain
// booleans.
func TestUnderAgainstBooleans(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g, h := blob(t, "g"), blob(t, "h").Move(Point{rapid.Float64Range(-12, 12).Draw(t, "dx"), 1})
		shown, both, err := g.Under(h)
		if err != nil {
			t.Fatal(err)
		}
		minus, err := g.Minus(h)
		if err != nil {
			t.Fatal(err)
		}
		or, err := g.Union(h)
		if err != nil {
			t.Fatal(err)
		}
		if math.Abs(shown.Area()-minus.Area()) > 0.05 || math.Abs(both.Area()-or.Area()) > 0.05 {
			t.Fatalf("shown %g against %g, both %g against %g", shown.Area(), minus.Area(), both.Area(), or.Area())
		}
	})
	a, b, err := Rect(0, 0, 4, 4).Under(Region{})
	require.NoError(t, err)
	assert.Equal(t, 16.0, a.Area())
	assert.Equal(t, 16.0, b.Area())
}

// Strays of a disc inside a larger one: the difference of radii all round.
func TestStraysOfDiscs(t *testing.T) {
	for _, d := range Disc(Point{}, 6).Strays(Disc(Point{}, 9), 0.5) {
		assert.InDelta(t, 3, d, 0.02)
	}
	off := Disc(Point{1, 0}, 6).Strays(Disc(Point{}, 9), 0.2)
	lo, hi := math.Inf(1), 0.0
	for _, d := range off {
		lo, hi = math.Min(lo, d), math.Max(hi, d)
	}
	assert.InDelta(t, 2, lo, 0.03, "the near side")
	assert.InDelta(t, 4, hi, 0.03, "Hausdorff's distance: the far side")
}

// Nearer says of any distance what Gap measures.
func TestNearerIsTheGap(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		at := func(name string) float64 { return rapid.Float64Range(-30, 30).Draw(t, name) }
		g := Rect(at("x"), at("y"), 1+math.Abs(at("w")), 1+math.Abs(at("h")))
		h := Rect(at("x2"), at("y2"), 1+math.Abs(at("w2")), 1+math.Abs(at("h2"))).Turn(at("turn"), Point{})
		gap, _, _ := g.Gap(h)
		if math.Abs(gap-4) > 1e-9 && g.Nearer(h, 4) != (gap < 4) {
			t.Fatalf("%g apart, nearer than 4: %v", gap, g.Nearer(h, 4))
		}
		if gap > 1e-6 && (g.Nearer(h, gap*0.999) || !g.Nearer(h, gap*1.001)) {
			t.Fatalf("%g apart, and it says otherwise", gap)
		}
	})
}

// What was let out can be let in again by as much, rings and discs that lie apart or cross: it holds what
// it held, and no more than a disc of that size can reach.
func TestLetOutAndInAgain(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 1))
	for n := range 150 {
		var parts []Region
		for range 1 + rng.IntN(4) {
			r := 4 + 20*rng.Float64()
			at := Point{X: 25 + 30*rng.Float64(), Y: 25 + 30*rng.Float64()}
			parts = append(parts, Disc(at, r))
			if rng.IntN(2) == 0 {
				parts[len(parts)-1] = RingDisc(at, r, r-0.8)
			}
		}
		g, err := UnionAll(parts...)
		require.NoError(t, err)
		for _, by := range []float64{1, 2, 4, 8} {
			out, err := g.Offset(by)
			require.NoError(t, err, "%d out by %v", n, by)
			back, err := out.Filled().Offset(-by)
			if !assert.NoError(t, err, "%d back by %v", n, by) {
				continue
			}
			lost, err := g.Minus(back)
			require.NoError(t, err)
			assert.Less(t, lost.Area(), 0.01*g.Length(), "%d by %v", n, by)
		}
	}
}

// Two discs joined by a bar hang together by as much as it is wide; a disc and a wide bar by nothing.
func TestANeck(t *testing.T) {
	for _, w := range []float64{0.8, 1.3, 2.5} {
		g, err := UnionAll(Disc(Point{X: 0, Y: 0}, 8), Disc(Point{X: 24, Y: 0}, 6), Rect(0, -w/2, 24, w))
		require.NoError(t, err)
		got, at, ok := g.Neck(4)
		require.True(t, ok, "%v", w)
		assert.InDelta(t, w, got, 0.1)
		assert.InDelta(t, 0, at.Y, 0.5)
		assert.True(t, at.X > 7 && at.X < 19, "%v", at)
	}
	_, _, ok := Disc(Point{}, 8).Neck(4)
	assert.False(t, ok)
	wide, err := UnionAll(Disc(Point{}, 8), Disc(Point{X: 24}, 6), Rect(0, -3, 24, 6))
	require.NoError(t, err)
	_, _, ok = wide.Neck(4)
	assert.False(t, ok)
}
