package shape

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/tdewolff/canvas"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"
)

func polygon(n int, r float64, c Point) Region {
	out := make(Ring, n)
	for i := range out {
		a := 2 * math.Pi * float64(i) / float64(n)
		out[i] = Point{c.X + r*math.Cos(a), c.Y + r*math.Sin(a)}
	}
	return Raw(out)
}

// blob draws a star-shaped outline, always simple.
func blob(t *rapid.T, name string) Region {
	n := rapid.IntRange(5, 40).Draw(t, name+" corners")
	c := Point{rapid.Float64Range(-20, 20).Draw(t, name+" x"), rapid.Float64Range(-20, 20).Draw(t, name+" y")}
	out := make(Ring, n)
	for i := range out {
		a := 2 * math.Pi * float64(i) / float64(n)
		r := rapid.Float64Range(4, 20).Draw(t, name+" r")
		out[i] = Point{c.X + r*math.Cos(a), c.Y + r*math.Sin(a)}
	}
	return New(true, out)
}

// Closed forms: pi r², n/2 r² sin(2 pi/n), and their perimeters.
func TestAreasAgainstClosedForms(t *testing.T) {
	for _, r := range []float64{0.5, 3, 40, 150} {
		d := Disc(Point{7, -3}, r)
		assert.InEpsilon(t, math.Pi*r*r, d.Area(), 1e-6)
		assert.InEpsilon(t, 2*math.Pi*r, d.Length(), 4e-3)
		assert.InDelta(t, 7, d.Centroid().X, 1e-9)
	}
	assert.InEpsilon(t, math.Pi*(100-36), RingDisc(Point{}, 10, 6).Area(), 1e-6)
	for n := 3; n < 12; n++ {
		want := float64(n) / 2 * 64 * math.Sin(2*math.Pi/float64(n))
		assert.InEpsilon(t, want, polygon(n, 8, Point{1, 2}).Area(), 1e-9)
	}
	curve := FromPath(canvas.Circle(12).Translate(30, 30), true)
	assert.InEpsilon(t, math.Pi*144, curve.Area(), 2e-3, "flattened to 0.02 mm")
}

// Steiner's formula for a convex body: A(d) = A + L d + pi d². Growing a
// circle or shrinking a ring have the same closed forms.
func TestOffsetAgainstSteiner(t *testing.T) {
	for _, d := range []float64{0.1, 0.25, 1, 4} {
		for n := 3; n < 9; n++ {
			g := polygon(n, 15, Point{3, 4})
			grown, err := g.Offset(d)
			require.NoError(t, err)
			assert.InEpsilon(t, g.Area()+g.Length()*d+math.Pi*d*d, grown.Area(), 5e-4, "n %d d %g", n, d)
			// Shrunk regular polygons keep their shape; the inradius falls by d.
			in := 15 * math.Cos(math.Pi/float64(n))
			shrunk, err := g.Offset(-d)
			require.NoError(t, err)
			assert.InEpsilon(t, g.Area()*math.Pow((in-d)/in, 2), shrunk.Area(), 5e-4, "n %d d %g", n, d)
		}
		ring, err := RingDisc(Point{}, 30, 10).Offset(d)
		require.NoError(t, err)
		assert.InEpsilon(t, math.Pi*(math.Pow(30+d, 2)-math.Pow(10-d, 2)), ring.Area(), 1e-3)
	}
	gone, err := polygon(6, 2, Point{}).Offset(-3)
	require.NoError(t, err)
	assert.True(t, gone.Empty())
}

func TestBooleansOfSquares(t *testing.T) {
	a, b := Rect(0, 0, 10, 10), Rect(5, 5, 10, 10)
	or, err := a.Union(b)
	require.NoError(t, err)
	and, err := a.Intersect(b)
	require.NoError(t, err)
	not, err := a.Minus(b)
	require.NoError(t, err)
	assert.InDelta(t, 175, or.Area(), 1e-6)
	assert.InDelta(t, 25, and.Area(), 1e-6)
	assert.InDelta(t, 75, not.Area(), 1e-6)
	self, err := a.Minus(a)
	require.NoError(t, err)
	assert.InDelta(t, 0, self.Area(), 0.2, "same outline: at most the jog is left")
	far, err := a.Union(Rect(50, 50, 1, 1))
	require.NoError(t, err)
	assert.Len(t, far.Pieces(), 2)
}

func TestBooleanIdentitiesHold(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b := blob(t, "a"), blob(t, "b")
		or, err1 := a.Union(b)
		and, err2 := a.Intersect(b)
		not, err3 := a.Minus(b)
		if err1 != nil || err2 != nil || err3 != nil {
			t.Fatal(err1, err2, err3)
		}
		tol := 0.05 + 2*jog*(a.Length()+b.Length())
		if d := math.Abs(a.Area() + b.Area() - or.Area() - and.Area()); d > tol {
			t.Fatalf("|A|+|B| and |A∪B|+|A∩B| differ by %g mm²", d)
		}
		if d := math.Abs(a.Area() - and.Area() - not.Area()); d > tol {
			t.Fatalf("|A| and |A∩B|+|A\\B| differ by %g mm²", d)
		}
		for range 20 {
			p := Point{rapid.Float64Range(-40, 40).Draw(t, "px"), rapid.Float64Range(-40, 40).Draw(t, "py")}
			near := math.Inf(1)
			for _, e := range append(a.edges(), b.edges()...) {
				near = math.Min(near, p.Distance(nearest(p, e)))
			}
			if near < 0.05 {
				continue
			}
			if and.Contains(p) != (a.Contains(p) && b.Contains(p)) || or.Contains(p) != (a.Contains(p) || b.Contains(p)) {
				t.Fatalf("point %v is misjudged", p)
			}
		}
	})
}

// Degenerate pairs: shared edges, shared corners, one in the other, the same
// outline turned by right angles.
func TestDegenerateBooleansAddUp(t *testing.T) {
	base := []Region{Rect(0, 0, 10, 10), Rect(10, 0, 10, 10), Rect(0, 0, 5, 10), Rect(2, 2, 6, 6), Rect(-5, 5, 10, 5), polygon(8, 5, Point{5, 5}), polygon(4, 5, Point{5, 5}), RingDisc(Point{5, 5}, 5, 3), Disc(Point{5, 5}, 3), Disc(Point{5, 5}, 5)}
	for i, a := range base {
		for j, b := range base {
			or, err := a.Union(b)
			require.NoError(t, err, "%d %d", i, j)
			and, err := a.Intersect(b)
			require.NoError(t, err, "%d %d", i, j)
			assert.InDelta(t, a.Area()+b.Area(), or.Area()+and.Area(), 0.4, "%d %d", i, j)
		}
	}
}

func TestHolesStayHoles(t *testing.T) {
	outer, hole := Ring{{0, 0}, {20, 0}, {20, 20}, {0, 20}}, Ring{{5, 5}, {15, 5}, {15, 15}, {5, 15}}
	g := New(false, outer, hole)
	assert.InDelta(t, 300, g.Area(), 1e-6)
	assert.False(t, g.Contains(Point{10, 10}))
	assert.True(t, g.Contains(Point{2, 2}))
	assert.InDelta(t, 400, New(true, outer, hole).Area(), 1e-6, "same direction, non-zero: no hole")
	text, err := g.MarshalText()
	require.NoError(t, err)
	var back Region
	require.NoError(t, back.UnmarshalText(text))
	assert.Equal(t, g.Rings(), back.Rings())
	assert.ErrorContains(t, back.UnmarshalText([]byte("M0 0L1 xL2 2Z")), "ring 1")
	assert.Error(t, back.UnmarshalText([]byte("M0 0L1 1Z")))
	assert.Error(t, back.UnmarshalText([]byte("M0 0LNaN 1L2 2Z")))
	assert.Equal(t, "M0 0L20 0L20 20L0 20Z", Rect(0, 0, 20, 20).Path())
}

// Closed forms: a disc of r in a concentric disc of R can go R - r in every
// direction; a square of side a in one of side b goes (b-a)/2 straight and
// (b-a)/√2 along the diagonal, and turns until its corners meet the sides.
func TestTravelAndSwingAgainstClosedForms(t *testing.T) {
	for deg := 0.0; deg < 360; deg += 7.5 {
		assert.InDelta(t, 4, Disc(Point{}, 6).Travel(Disc(Point{}, 10), deg), 0.02)
	}
	sq := func(a float64) Region { return Rect(-a/2, -a/2, a, a) }
	assert.InDelta(t, 2, sq(6).Travel(sq(10), 0), 1e-9)
	assert.InDelta(t, 2, sq(6).Travel(sq(10), 90), 1e-9)
	assert.InDelta(t, 2*math.Sqrt2, sq(6).Travel(sq(10), 45), 1e-9)
	assert.InDelta(t, 2/math.Cos(math.Pi/6), sq(6).Travel(sq(10), 30), 1e-9)
	// Half diagonal 8√2/2 against half side 5: the corner at 45° meets the side
	// when cos(45° - a) = 5/(4√2).
	want := 45 - math.Acos(5/(4*math.Sqrt2))*180/math.Pi
	cw, acw := sq(8).Swing(sq(10), Point{})
	assert.InDelta(t, want, cw, 1e-6)
	assert.InDelta(t, want, acw, 1e-6)
	cw, _ = sq(6).Swing(sq(10), Point{})
	assert.Equal(t, 180.0, cw, "a small square turns freely")
	assert.True(t, math.IsInf(Rect(0, 0, 1, 1).Travel(Rect(5, 5, 1, 1), 0), 1), "passes by")
	assert.InDelta(t, 4, Rect(0, 0, 1, 1).Travel(Rect(5, 0.5, 1, 1), 0), 1e-9)
}

func TestTravelBringsBoundariesTogether(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b := blob(t, "a").ScaleBy(0.3), blob(t, "b")
		deg := rapid.Float64Range(0, 360).Draw(t, "deg")
		far := a.Travel(b, deg)
		if math.IsInf(far, 1) {
			return
		}
		s, c := math.Sincos(deg * math.Pi / 180)
		gap, _, _ := a.Move(Point{c * far, s * far}).Gap(b)
		if gap > 1e-6 {
			t.Fatalf("after %g mm the gap is still %g mm", far, gap)
		}
	})
}

func TestSharedEdgeAndCross(t *testing.T) {
	assert.InDelta(t, 10, Rect(0, 0, 10, 10).Shared(Rect(10, 0, 5, 20), 0.05), 0.3)
	assert.Zero(t, Rect(0, 0, 10, 10).Shared(Rect(11, 0, 5, 20), 0.05))
	assert.Equal(t, [][2]float64{{-10, -6}, {6, 10}}, func() [][2]float64 {
		var out [][2]float64
		for _, c := range RingDisc(Point{}, 10, 6).Cross(1e-9) {
			out = append(out, [2]float64{math.Round(c[0]), math.Round(c[1])})
		}
		return out
	}())
	gap, p, q := Rect(0, 0, 1, 1).Gap(Rect(3, 0, 1, 1))
	assert.Equal(t, 2.0, gap)
	assert.Equal(t, 2.0, p.Distance(q))
	assert.InDelta(t, 100, Rect(0, 0, 10, 10).Turn(33, Point{3, 9}).Area(), 1e-9)
}

func BenchmarkIntersect256(b *testing.B) {
	p, q := polygon(256, 20, Point{}), polygon(256, 20, Point{9, 3})
	for b.Loop() {
		if _, err := p.Intersect(q); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkTravel300(b *testing.B) {
	p, q := polygon(300, 15, Point{}), polygon(300, 20, Point{})
	for b.Loop() {
		course := NewCourse(p, q)
		for i := range 64 {
			course.Travel(float64(i) * 360 / 64)
		}
		p.Swing(q, Point{1, 1})
	}
}
