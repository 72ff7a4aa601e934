package shape

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// Banded says of every point what the region itself says, also of those on its corners and at
// the heights of its edges; and of a disc what its equation says.
func TestBandsContainWhatTheRegionDoes(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	rapid.Check(t, func(t *rapid.T) {
		var g Region
		for range rapid.IntRange(0, 3).Draw(t, "rings") {
			n := rapid.IntRange(3, 40).Draw(t, "corners")
			var r []Point
			for range n {
				r = append(r, Point{math.Round(rng.Float64()*20) / 2, math.Round(rng.Float64()*20) / 2})
			}
			g.rings = append(g.rings, r)
		}
		b := Banded(g)
		ask := []Point{{}, {-1, 5}, {5, 11}}
		for _, r := range g.rings {
			ask = append(ask, r...)
		}
		for range 60 {
			ask = append(ask, Point{12*rng.Float64() - 1, 12*rng.Float64() - 1}, Point{math.Round(rng.Float64()*20) / 2, math.Round(rng.Float64()*20) / 2})
		}
		for _, p := range ask {
			if g.Contains(p) != b.Contains(p) {
				t.Fatalf("%v of %v: %v", p, g.rings, g.Contains(p))
			}
		}
	})
	disc := Disc(Point{3, 4}, 5)
	b := Banded(disc)
	for range 2000 {
		p := Point{3 + 14*(rng.Float64()-0.5), 4 + 14*(rng.Float64()-0.5)}
		if d := math.Hypot(p.X-3, p.Y-4); math.Abs(d-5) > 0.05 {
			assert.Equal(t, d < 5, b.Contains(p), "%v", p)
		}
	}
	assert.False(t, Banded(Region{}).Contains(Point{}))
}
