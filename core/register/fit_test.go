package register

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"

	"ochrestone/core/shape"
)

// kabsch solves the same problem by a singular value decomposition, as in
// W. Kabsch, Acta Crystallographica A32 (1976), with gonum.
func kabsch(from, to []shape.Point) float64 {
	var a, b shape.Point
	n := float64(len(from))
	for i := range from {
		a, b = a.Add(from[i].Scale(1/n)), b.Add(to[i].Scale(1/n))
	}
	h := mat.NewDense(2, 2, nil)
	for i := range from {
		p, q := from[i].Sub(a), to[i].Sub(b)
		h.Set(0, 0, h.At(0, 0)+p.X*q.X)
		h.Set(0, 1, h.At(0, 1)+p.X*q.Y)
		h.Set(1, 0, h.At(1, 0)+p.Y*q.X)
		h.Set(1, 1, h.At(1, 1)+p.Y*q.Y)
	}
	var svd mat.SVD
	svd.Factorize(h, mat.SVDFull)
	var u, v, r mat.Dense
	svd.UTo(&u)
	svd.VTo(&v)
	r.Mul(&v, u.T())
	if mat.Det(&r) < 0 {
		for i := range 2 {
			v.Set(i, 1, -v.At(i, 1))
		}
		r.Mul(&v, u.T())
	}
	return math.Atan2(r.At(1, 0), r.At(0, 0)) * 180 / math.Pi
}

func TestRigidAgainstSVD(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(3, 12).Draw(t, "n")
		var from, to []shape.Point
		want := Motion{rapid.Float64Range(-170, 170).Draw(t, "turn"), shape.Point{X: rapid.Float64Range(-50, 50).Draw(t, "x"), Y: 3}}
		for range n {
			p := shape.Point{X: rapid.Float64Range(-40, 40).Draw(t, "px"), Y: rapid.Float64Range(-40, 40).Draw(t, "py")}
			from = append(from, p)
			noise := shape.Point{X: rapid.Float64Range(-0.3, 0.3).Draw(t, "nx"), Y: rapid.Float64Range(-0.3, 0.3).Draw(t, "ny")}
			to = append(to, want.Point(p).Add(noise))
		}
		size := 0.0
		for _, p := range from {
			size = math.Max(size, p.Distance(from[0]))
		}
		if size < 5 {
			return
		}
		m, _, _, err := Rigid(from, to)
		if err != nil {
			t.Fatal(err)
		}
		if d := math.Abs(math.Remainder(m.Turn-kabsch(from, to), 360)); d > 1e-6 {
			t.Fatalf("turn %g against %g", m.Turn, kabsch(from, to))
		}
	})
}

func TestRigidFindsWhatWasDone(t *testing.T) {
	from := []shape.Point{{X: 0, Y: 0}, {X: 30, Y: 0}, {X: 30, Y: 20}, {X: 0, Y: 20}}
	want := Motion{37, shape.Point{X: -4, Y: 11}}
	var to []shape.Point
	for _, p := range from {
		to = append(to, want.Point(p))
	}
	m, rms, scale, err := Rigid(from, to)
	require.NoError(t, err)
	assert.InDelta(t, 37, m.Turn, 1e-9)
	assert.InDelta(t, -4, m.Move.X, 1e-9)
	assert.InDelta(t, 11, m.Move.Y, 1e-9)
	assert.InDelta(t, 0, rms, 1e-9)
	assert.InDelta(t, 1, scale, 1e-12)
	// A copier that shrinks by 2 % leaves a residue that is not a motion.
	for i := range to {
		to[i] = to[i].Scale(0.98)
	}
	_, rms, scale, err = Rigid(from, to)
	require.NoError(t, err)
	assert.InDelta(t, 0.98, scale, 1e-9)
	assert.InDelta(t, 0.02*math.Hypot(15, 10), rms, 1e-9)
	_, _, _, err = Rigid(from[:1], to[:1])
	assert.ErrorIs(t, err, ErrFew)
	_, _, _, err = Rigid([]shape.Point{{X: 1}, {X: 1}}, to[:2])
	assert.ErrorIs(t, err, ErrFew)
}

func TestMotionsFollowEachOther(t *testing.T) {
	a, b := Motion{30, shape.Point{X: 5}}, Motion{-75, shape.Point{Y: 2}}
	p := shape.Point{X: 7, Y: -3}
	one, two := a.After(b).Point(p), a.Point(b.Point(p))
	assert.InDelta(t, two.X, one.X, 1e-9)
	assert.InDelta(t, two.Y, one.Y, 1e-9)
	g := shape.Rect(0, 0, 4, 2)
	assert.InDelta(t, 8, a.Of(g).Area(), 1e-9)
}
