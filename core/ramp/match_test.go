package ramp

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
)

// bruteMatch tries every pick.
func bruteMatch(ws []Wish, order Direction, step float64) (float64, bool) {
	best := math.Inf(1)
	pick := make([]int, len(ws))
	var walk func(i int, cost float64)
	walk = func(i int, cost float64) {
		if i == len(ws) {
			for a := range ws {
				for b := range ws {
					if ws[a].Accent || ws[b].Accent || ws[a].Rank >= ws[b].Rank || order == Unordered {
						continue
					}
					d := ws[a].Colours[pick[a]].L - ws[b].Colours[pick[b]].L
					if order == DarkFirst {
						d = -d
					}
					if d < step-1e-9 {
						return
					}
				}
			}
			best = math.Min(best, cost)
			return
		}
		for x, c := range ws[i].Colours {
			pick[i] = x
			walk(i+1, cost+colour.Difference(c, ws[i].Target))
		}
	}
	walk(0, 0)
	return best, !math.IsInf(best, 1)
}

func costOf(ws []Wish, pick []int) (sum float64) {
	for i, w := range ws {
		sum += colour.Difference(w.Colours[pick[i]], w.Target)
	}
	return sum
}

func TestMatchAgainstExhaustiveSearch(t *testing.T) {
	rnd := rand.New(rand.NewPCG(11, 12))
	any := func() colour.Lab {
		return colour.Lab{L: 10 + 85*rnd.Float64(), A: 60*rnd.Float64() - 30, B: 60*rnd.Float64() - 30}
	}
	none := 0
	for n := range 500 {
		colours := make([]colour.Lab, 2+rnd.IntN(6))
		for i := range colours {
			colours[i] = any()
		}
		ws := make([]Wish, 1+rnd.IntN(4))
		for i := range ws {
			ws[i] = Wish{Rank: 1 + rnd.IntN(3), Accent: rnd.IntN(5) == 0, Colours: colours, Target: any()}
		}
		order := Direction(rnd.IntN(3))
		want, can := bruteMatch(ws, order, 6)
		pick, ok := Match(ws, order, 6)
		require.Equal(t, can, ok, "case %d", n)
		if !ok {
			none++
			continue
		}
		assert.InDelta(t, want, costOf(ws, pick), 1e-9, "case %d", n)
	}
	assert.Greater(t, none, 5, "some drawers cannot")
}

func BenchmarkMatch8x300(b *testing.B) {
	rnd := rand.New(rand.NewPCG(1, 2))
	colours := make([]colour.Lab, 300)
	for i := range colours {
		colours[i] = colour.Lab{L: 8 + 88*rnd.Float64(), A: 50*rnd.Float64() - 25, B: 50*rnd.Float64() - 25}
	}
	ws := make([]Wish, 8)
	for i := range ws {
		ws[i] = Wish{Rank: i + 1, Colours: colours, Target: colour.Lab{L: 90 - 10*float64(i)}}
	}
	for b.Loop() {
		if _, ok := Match(ws, LightFirst, 4); !ok {
			b.Fatal("no answer")
		}
	}
}
