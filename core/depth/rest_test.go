package depth

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"ochrestone/core/bend"
	"ochrestone/core/shape"
)

func bearing(x, y, z float64) Bearing { return Bearing{shape.Point{X: x, Y: y}, z} }

// Worked examples of statics (a rigid plate on unilateral point supports; common to any
// textbook, e.g. a three-legged and a four-legged table on an uneven floor).
func TestAPlateOnThreeAndFourSupports(t *testing.T) {
	// Three supports round the middle: the plane through their tops.
	three := []Bearing{bearing(0, 0, 1), bearing(30, 0, 1), bearing(15, 30, 4)}
	p := Rest(shape.Point{X: 15, Y: 10}, three)
	assert.InDelta(t, 2, p.Z, 1e-5, "a third of the way up")
	assert.InDelta(t, 0, p.SX, 1e-5)
	assert.InDelta(t, 0.1, p.SY, 1e-5)

	// A table of four legs on a floor with one dip: it stands on three of them, and which
	// three is told by the side of the diagonal on which its weight is.
	four := []Bearing{bearing(0, 0, 0), bearing(40, 0, 0), bearing(0, 40, 0), bearing(40, 40, -2)}
	p = Rest(shape.Point{X: 18, Y: 18}, four)
	assert.InDelta(t, 0, p.Z, 1e-5)
	assert.InDelta(t, 2, p.Over(shape.Point{X: 40, Y: 40})+2, 1e-4, "the fourth hangs by the depth of the dip")
	// With the weight past the diagonal it tips onto the leg in the dip, and its opposite lifts off.
	p = Rest(shape.Point{X: 22, Y: 22}, four)
	assert.InDelta(t, -2, p.Over(shape.Point{X: 40, Y: 40}), 1e-4)
	assert.InDelta(t, 2, p.Over(shape.Point{}), 1e-4, "the opposite leg lifts as far as the other sinks: the diagonal is the axis")

	// A plank over a step: level on the upper, or leaning on its edge and the lower's end.
	step := []Bearing{bearing(0, 0, 2), bearing(0, 10, 2), bearing(10, 0, 2), bearing(10, 10, 2), bearing(40, 0, 0), bearing(40, 10, 0)}
	p = Rest(shape.Point{X: 20, Y: 5}, step)
	assert.InDelta(t, 2-2.0/30*10, p.Z, 1e-5)
	assert.InDelta(t, -2.0/30, p.SX, 1e-5)
	p = Rest(shape.Point{X: 8, Y: 5}, step)
	assert.InDelta(t, 2, p.Z, 1e-9, "with its weight over the step it stays level")
	assert.Zero(t, p.Slope())
}

// Against trying every three of the bearings: the plane is the lowest in the middle that
// none of them pokes through.
func TestNoPlaneIsLower(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(3, 14).Draw(t, "n")
		on := make([]Bearing, n)
		for i := range on {
			on[i] = bearing(rapid.Float64Range(-40, 40).Draw(t, "x"), rapid.Float64Range(-40, 40).Draw(t, "y"), rapid.Float64Range(0, 5).Draw(t, "z"))
		}
		// The middle of the weight is over the bearings, well inside.
		var g shape.Point
		for _, b := range on {
			g = g.Add(b.At.Scale(1 / float64(n)))
		}
		best, slope := math.Inf(1), 0.0
		for i := range on {
			for j := range i {
				for k := range j {
					a, b, c := on[i], on[j], on[k]
					u, v := b.At.Sub(a.At), c.At.Sub(a.At)
					det := u.Cross(v)
					if math.Abs(det) < 1e-6 {
						continue
					}
					sx := ((b.Z-a.Z)*v.Y - (c.Z-a.Z)*u.Y) / det
					sy := ((c.Z-a.Z)*u.X - (b.Z-a.Z)*v.X) / det
					p := Plane{g, a.Z + sx*(g.X-a.At.X) + sy*(g.Y-a.At.Y), sx, sy}
					free := true
					for _, q := range on {
						free = free && p.Over(q.At) > q.Z-1e-9
					}
					if free && p.Z < best {
						best, slope = p.Z, max(math.Abs(sx), math.Abs(sy))
					}
				}
			}
		}
		if math.IsInf(best, 1) || slope > 0.45 {
			t.Skip("steeper than a part may lie")
		}
		if p := Rest(g, on); math.Abs(p.Z-best) > 1e-4 {
			t.Fatalf("rests at %v, could at %v", p.Z, best)
		}
	})
}

// Bends is the beam formula turned round: the step that a clamped strip of that length gives
// under the pull is the step it was asked for.
func TestBendsByTheBeamFormula(t *testing.T) {
	for _, thick := range []float64{0.25, 0.3, 0.6} {
		for _, step := range []float64{0.3, 1, 2} {
			l := Bends(step, thick)
			i := thick * thick * thick / 12 // mm⁴ a mm
			assert.InDelta(t, step, tackPull*l*l*l/(3*boardModulus*i), 1e-9)
		}
	}
	assert.InDelta(t, 2, Bends(1, 0.6)/Bends(1, 0.3), 1e-9, "twice as thick follows over twice the length")
}

// The limit of a leaf that does not bend: on the same bearings, well apart, a plate as stiff as a slab
// lies as the rigid plate does.
func TestAStiffLeafLiesAsARigidPlate(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	g, seen := shape.Rect(0, 0, 42, 30), 0
	for range 60 {
		var on []Bearing
		var bears []bend.Bearing
		for _, n := range r.Perm(9)[:3+r.IntN(6)] {
			b := bearing(4+float64(n%3)*14+6*r.Float64(), 3+float64(n/3)*10+4*r.Float64(), 3*r.Float64())
			on, bears = append(on, b), append(bears, bend.Bearing{At: b.At, Z: b.Z, Area: 10, Gives: 100})
		}
		want := Rest(g.Centroid(), on)
		var at []shape.Point
		for _, b := range on {
			at = append(at, b.At)
		}
		if hull := shape.Raw(shape.Hull(at)); want.Slope() > 0.3 || !hull.Contains(g.Centroid()) || hull.EdgeDistance(g.Centroid()) < 2 {
			continue // it falls over
		}
		seen++
		got := bend.Press(bend.Leaf{Outline: g, Stiff: 1e3, Weight: 3e-6}, bears, 0)
		for _, q := range []shape.Point{{X: 21, Y: 15}, {X: 1, Y: 1}, {X: 41, Y: 29}} {
			assert.InDelta(t, want.Over(q), got.At(q), 0.01, "%v on %v", q, on)
		}
	}
	assert.Greater(t, seen, 15)
}
