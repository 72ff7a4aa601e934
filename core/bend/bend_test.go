package bend

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/shape"
)

const (
	firm  = 1e5   // a support that hardly gives, N/mm² a mm
	table = 200.0 // one that only pushes
	glued = 0.3   // N/mm² that a joint of wet glue bears
)

// laid gives bearings over a rectangle, one each step.
func laid(x0, y0, x1, y1, step float64, b func(q shape.Point) Bearing) (out []Bearing) {
	for x := x0 + step/2; x < x1; x += step {
		for y := y0 + step/2; y < y1; y += step {
			q := shape.Point{X: x, Y: y}
			o := b(q)
			o.At, o.Area = q, step*step
			out = append(out, o)
		}
	}
	return out
}

func clamp(shape.Point) Bearing { return Bearing{Gives: firm, Holds: 1e9} }

// held is how a leaf lies that is held from the first wherever a joint can hold it.
func held(l Leaf, on []Bearing) Field {
	p := newPlate(l, on)
	bound := make([]bool, len(on))
	for i, b := range on {
		bound[i], p.push[i] = b.Holds > 0, true
	}
	p.settle(l.Weight, bound)
	return p.field()
}

// within3 holds a figure within 3 % of what a formula gives, and prints both.
func within3(t *testing.T, what string, got, want float64) {
	t.Helper()
	t.Logf("%s: %.4f, %.4f by the formula, %+.2f %%", what, got, want, 100*(got/want-1))
	assert.InEpsilon(t, want, got, 0.03, what)
}

// Closed forms of beams and plates: Timoshenko, Strength of Materials, and Timoshenko and
// Woinowsky-Krieger, Theory of Plates and Shells (table of the clamped square plate: 0.00126 q a⁴ / D,
// of the one on simple supports: 0.00406); all from memory.
func TestBeamsAndPlatesOfTheTables(t *testing.T) {
	const thick, q = 0.28, 4e-6
	d := Stiff(thick)
	strip := d * (1 - poisson*poisson) // of a narrow strip, for each mm of its width

	// A cantilever beneath its own weight.
	l := Leaf{Outline: shape.Rect(-8, 0, 58, 6), Stiff: d, Weight: q, Cell: 0.5}
	got := held(l, laid(-8, 0, 0, 6, 0.25, clamp))
	within3(t, "cantilever, end", -got.At(shape.Point{X: 50, Y: 3}), q*math.Pow(50, 4)/(8*strip))

	// A beam on two supports.
	l = Leaf{Outline: shape.Rect(0, 0, 60, 6), Stiff: d, Weight: q, Cell: 1}
	var on []Bearing
	for y := 0.25; y < 6; y += 0.5 {
		on = append(on, Bearing{At: shape.Point{X: 0, Y: y}, Area: 1, Gives: firm}, Bearing{At: shape.Point{X: 60, Y: y}, Area: 1, Gives: firm})
	}
	got = held(l, on)
	within3(t, "two supports, middle", -got.At(shape.Point{X: 30, Y: 3}), 5*q*math.Pow(60, 4)/(384*strip))

	// A square plate, clamped all round, and on simple supports.
	l = Leaf{Outline: shape.Rect(-1.25, -1.25, 22.5, 22.5), Stiff: d, Weight: q, Cell: 0.5}
	rim := laid(-1.5, -1.5, 21.5, 21.5, 0.5, clamp)
	on = nil
	for _, b := range rim {
		if p := b.At; p.X < 0.3 || p.Y < 0.3 || p.X > 19.7 || p.Y > 19.7 {
			on = append(on, b)
		}
	}
	got = held(l, on)
	// The clamped edge is halfway between the last two nodes that are held.
	within3(t, "clamped plate, middle", -got.At(shape.Point{X: 10, Y: 10}), 0.00126*q*math.Pow(20, 4)/d)
	l = Leaf{Outline: shape.Rect(0, 0, 40, 40), Stiff: d, Weight: q, Cell: 1}
	on = nil
	for v := 0.0; v <= 40; v += 0.5 {
		for _, p := range []shape.Point{{X: v, Y: 0}, {X: v, Y: 40}, {X: 0, Y: v}, {X: 40, Y: v}} {
			on = append(on, Bearing{At: p, Area: 1, Gives: firm, Holds: 1e9})
		}
	}
	got = held(l, on)
	within3(t, "simply supported plate, middle", -got.At(shape.Point{X: 20, Y: 20}), 0.00406*q*math.Pow(40, 4)/d)

	// Held level at both ends of a step, and nothing between: s (3 x² / L² - 2 x³ / L³).
	const s = 0.6
	l = Leaf{Outline: shape.Rect(-6.25, 0, 42.5, 6), Stiff: d, Cell: 0.5}
	on = append(laid(-6.5, -0.25, 0.5, 6.25, 0.5, func(shape.Point) Bearing { return Bearing{Z: s, Gives: firm, Holds: 1e9} }),
		laid(29.5, -0.25, 36.5, 6.25, 0.5, clamp)...)
	got = held(l, on)
	for _, x := range []float64{7.5, 15, 22.5} {
		u := x / 30
		within3(t, "held over a step", got.At(shape.Point{X: x, Y: 3}), s*(1-3*u*u+2*u*u*u))
	}

	// Pressed down over a step: it reaches the ground at (72 E I s / p)^(1/4), and its slope there is none.
	const hand = 0.02
	l = Leaf{Outline: shape.Rect(-6.25, 0, 46.5, 1), Stiff: d, Cell: 0.5}
	on = append(laid(-6.5, -0.25, 0.5, 1.25, 0.5, func(shape.Point) Bearing { return Bearing{Z: s, Gives: firm, Holds: 1e9} }),
		laid(0.5, -0.25, 40.5, 1.25, 0.5, func(shape.Point) Bearing { return Bearing{Gives: table} })...)
	p := newPlate(l, on)
	bound := make([]bool, len(on))
	for i := range bound {
		bound[i] = on[i].Holds > 0
	}
	p.settle(hand, bound)
	reach, lifted := math.Pow(72*strip*s/hand, 0.25), 0.0
	for x := 1.0; x < 39; x += 0.05 {
		if p.field().At(shape.Point{X: x, Y: 0.5}) > 1e-4*s {
			lifted = x
		}
	}
	assert.InDelta(t, reach, lifted, 1.2, "where it comes down: two cells, for it comes down tangent")
	for _, u := range []float64{0.25, 0.5} {
		y := (1 - u) * reach
		within3(t, "pressed over a step", p.field().At(shape.Point{X: u * reach, Y: 0.5}), hand/strip*(reach*y*y*y/18-y*y*y*y/24))
	}

	// A loose sheet that hangs over the edge of a table: it lifts off the table as far as √2 times
	// what hangs over, and its end hangs down by q a⁴ / E I (√2 / 12 + 1 / 8).
	const a = 30.0
	l = Leaf{Outline: shape.Rect(-90, 0, 90+a, 4), Stiff: d, Weight: q, Cell: 1}
	got = held(l, laid(-90.5, -0.5, 0.5, 4.5, 1, func(shape.Point) Bearing { return Bearing{Gives: table} }))
	within3(t, "hangs over an edge", -got.At(shape.Point{X: a, Y: 2}), q*math.Pow(a, 4)/strip*(math.Sqrt2/12+0.125))
}

// The limits: what gives hardly at all lies on its highest bearings as a stiff plate would; what has
// no stiffness lies on everything.
func TestStiffAndSoft(t *testing.T) {
	g := shape.Rect(0, 0, 40, 20)
	three := []Bearing{{At: shape.Point{X: 2, Y: 2}, Z: 1}, {At: shape.Point{X: 38, Y: 3}, Z: 2}, {At: shape.Point{X: 20, Y: 18}, Z: 0.5}, {At: shape.Point{X: 20, Y: 8}, Z: 0.2}}
	for i := range three {
		three[i].Area = 1
	}
	got := Press(Leaf{Outline: g, Stiff: 1e5, Weight: 3e-6}, three, 0)
	// By hand: the plane through the first three, 36 sx + sy = 1 and 18 sx + 16 sy = -0.5.
	sx, sy := 33.0/1116, -72.0/1116
	for _, q := range []shape.Point{{}, {X: 40, Y: 20}, {X: 20, Y: 10}} {
		assert.InDelta(t, 1+sx*(q.X-2)+sy*(q.Y-2), got.At(q), 0.005)
	}

	step := func(q shape.Point) Bearing {
		if q.X < 20 {
			return Bearing{Z: 1, Gives: table, Holds: glued}
		}
		return Bearing{Gives: table, Holds: glued}
	}
	got = Press(Leaf{Outline: g, Stiff: 1e-7, Weight: 3e-6, Cell: 1}, laid(0, 0, 40, 20, 0.5, step), Hand)
	for _, x := range []float64{2, 10, 18, 22, 30, 38} {
		assert.InDelta(t, step(shape.Point{X: x}).Z, got.At(shape.Point{X: x, Y: 10}), 0.002)
	}
}

// What lies higher holds, and what is lower is let go as far as the card needs to come down: thin
// card comes down over a few mm, board not at all.
func TestJointsTakeAndLetGo(t *testing.T) {
	over := func(thick, holds float64) Lying {
		return Press(Leaf{Outline: shape.Rect(0, 0, 30, 10), Stiff: Stiff(thick), Weight: 3e-6}, laid(0, 0, 30, 10, 1, func(q shape.Point) Bearing {
			if q.X < 6 {
				return Bearing{Z: 0.6, Holds: holds}
			}
			return Bearing{Holds: holds}
		}), Hand)
	}
	far := func(l Lying) float64 {
		x := 6.0
		for l.At(shape.Point{X: x, Y: 5}) > 0.03 && x < 30 {
			x += 0.1
		}
		return x - 6
	}
	thin, weak, board := over(0.25, glued), over(0.25, 0.01), over(2, glued)
	for x := 1.0; x < 6; x++ {
		assert.InDelta(t, 0.6, thin.At(shape.Point{X: x, Y: 5}), 0.05, "it holds on the step")
	}
	assert.InDelta(t, 0, thin.At(shape.Point{X: 29, Y: 5}), 0.01)
	assert.LessOrEqual(t, thin.Most, Hand)
	// Pulled at by no more than so much a mm of its front the strip would need (12 E I s / p)^(1/3).
	assert.InDelta(t, math.Cbrt(12*Stiff(0.25)*0.6/(Hand*Size(shape.Rect(0, 0, 30, 10)))), far(thin), 3)
	assert.Greater(t, far(weak), far(thin)+2, "what holds less comes down farther off")
	assert.Contains(t, weak.Off, true)
	assert.InDelta(t, 0.6, board.At(shape.Point{X: 29, Y: 5}), 0.05, "board stays up")
	// What is held flat on one level lies flat, whatever it is made of.
	flat := Press(Leaf{Outline: shape.Disc(shape.Point{}, 12), Stiff: Stiff(0.3), Weight: 3e-6}, laid(-12, -12, 12, 12, 2, func(shape.Point) Bearing { return Bearing{Z: 0.5, Holds: 0.1} }), Hand)
	for x := -11.0; x <= 11; x += 2 {
		assert.InDelta(t, 0.5, flat.At(shape.Point{X: x, Y: 1}), 1e-3)
	}
	assert.True(t, Press(Leaf{Outline: shape.Rect(0, 0, 9, 9), Stiff: 1}, nil, Hand).Flat(), "nothing bears it")
}

// A scallop of 24 mm of which a fifth lies on its neighbour.
func BenchmarkScallop(b *testing.B) {
	g, beside := shape.Disc(shape.Point{X: 12, Y: 12}, 12), shape.Point{X: -7.2, Y: 12}
	var on []Bearing
	for _, c := range laid(0, 0, 24, 24, 2.5, func(q shape.Point) Bearing {
		if q.Distance(beside) < 12 {
			return Bearing{Z: 0.3, Holds: 0.3}
		}
		return Bearing{Holds: 0.3}
	}) {
		if g.Contains(c.At) {
			on = append(on, c)
		}
	}
	l := Leaf{Outline: g, Stiff: Stiff(0.28), Weight: 3e-6}
	for b.Loop() {
		Press(l, on, Hand)
	}
}
