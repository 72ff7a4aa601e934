package shape

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A star of n points drawn in one stroke, each corner to the k-th next, crosses
// itself n(k-1) times (the density of star polygons; Coxeter, Regular Polytopes).
func TestCrossingsOfStars(t *testing.T) {
	for _, c := range []struct{ n, k int }{{5, 2}, {7, 3}, {9, 4}, {12, 5}} {
		var r Ring
		for i := range c.n {
			a := 2 * math.Pi * float64(i*c.k) / float64(c.n)
			r = append(r, Point{10 * math.Cos(a), 10 * math.Sin(a)})
		}
		assert.Equal(t, c.n*(c.k-1), Crossings(1000, r), "%d/%d", c.n, c.k)
	}
	assert.Zero(t, Crossings(10, Rect(0, 0, 3, 4).Rings()...))
}

// A tangle of thousands of corners is refused at once instead of settled for
// minutes.
func TestTanglesAreRefused(t *testing.T) {
	rnd := rand.New(rand.NewPCG(1, 2))
	var r Ring
	for range 3000 {
		r = append(r, Point{100 * rnd.Float64(), 100 * rnd.Float64()})
	}
	_, err := Settle(true, r)
	require.ErrorIs(t, err, ErrTangled)
	g, err := Settle(false, Ring{{0, 0}, {10, 10}, {10, 0}, {0, 10}})
	require.NoError(t, err)
	assert.InDelta(t, 50, g.Area(), 1e-6, "a bow")
}

// Many discs at once: apart their areas add up; in a row, each half over the
// next, the union has the area of the closed form.
func TestUnionOfMany(t *testing.T) {
	var apart, row []Region
	for i := range 800 {
		apart = append(apart, Disc(Point{float64(i%40) * 3, float64(i/40) * 3}, 1))
	}
	for i := range 60 {
		row = append(row, Rect(float64(i)*5, 0, 10, 10))
	}
	g, err := UnionAll(apart...)
	require.NoError(t, err)
	assert.InDelta(t, 800*Disc(Point{}, 1).Area(), g.Area(), 1e-6)
	assert.Len(t, g.Pieces(), 800)
	g, err = UnionAll(row...)
	require.NoError(t, err)
	assert.InDelta(t, (59*5+10)*10, g.Area(), 1e-6)
}
