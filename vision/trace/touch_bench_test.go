package trace_test

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// BenchmarkTouching lays pairs of pieces of all demo and simulated sets so that they
// touch or overlap, of like and unlike card, on black and on white, and counts the
// pairs that came back as one piece without a word; and single pieces that were
// asked about though nothing is wrong with them.
func BenchmarkTouching(b *testing.B) {
	var all []shape.Region
	sets, err := sim.Sets()
	require.NoError(b, err)
	for _, s := range sets {
		for _, p := range s.Parts {
			for _, g := range p.Outline.Pieces() {
				if box := g.Bounds(); g.Area() > 60 && box.W() < 60 && box.H() < 60 {
					all = append(all, g.Move(shape.Point{X: -box.Centre().X, Y: -box.Centre().Y}))
				}
			}
		}
	}
	look := func(items []sim.Item, dark bool, seed uint64) trace.Result {
		sheet := sim.Black
		if !dark {
			sheet = sim.White
		}
		raw, err := sim.PNG(sim.Bench{W: 130, H: 110, Sheet: sheet, Items: items}.Scan(200, sim.Plain(), seed), 200)
		require.NoError(b, err)
		p, err := picture.Decode(raw)
		require.NoError(b, err)
		r, err := trace.Find(context.Background(), p, trace.DPI(200))
		require.NoError(b, err)
		return r
	}
	const pairs, seed = 160, 11
	for b.Loop() {
		rnd := rand.New(rand.NewPCG(seed, seed))
		silent, of, asked, single := map[string]int{}, map[string]int{}, 0, 0
		for k := range pairs {
			g := all[rnd.IntN(len(all))].Turn(360*rnd.Float64(), shape.Point{})
			h := all[rnd.IntN(len(all))].Turn(360*rnd.Float64(), shape.Point{})
			dir := 2 * math.Pi * rnd.Float64()
			far := h.Move(shape.Polar(120, dir*180/math.Pi))
			t := far.Travel(g, math.Mod(dir*180/math.Pi+180, 360))
			if math.IsInf(t, 1) {
				continue
			}
			deep := 0.0
			if k%2 == 1 {
				deep = 1 + 0.25*math.Min(g.Bounds().W(), h.Bounds().W())*rnd.Float64()
			}
			h = far.Move(shape.Polar(t+0.02+deep, dir*180/math.Pi+180))
			mid := shape.Point{X: 65, Y: 55}
			both := []sim.Item{{Outline: g.Move(mid), Colour: sim.Papers[k%3]}, {Outline: h.Move(mid), Colour: sim.Papers[k%3]}}
			like := k%4 < 2
			if !like {
				both[1].Colour = sim.Papers[(k+1)%3]
			}
			dark := rnd.IntN(2) == 0
			if !dark {
				for i := range both {
					for c := range both[i].Colour {
						both[i].Colour[c] *= 0.4
					}
				}
			}
			name := fmt.Sprintf("%s, %s card", map[bool]string{true: "touching", false: "overlapping"}[deep == 0], map[bool]string{true: "like", false: "unlike"}[like])
			r := look(both, dark, seed+uint64(k))
			of[name]++
			if len(r.Pieces) < 2 && len(r.Notes) == 0 {
				silent[name]++
			}
			if k%2 == 0 {
				r = look(both[:1], dark, seed+uint64(k))
				single++
				if len(r.Notes) > 0 {
					asked++
				}
			}
		}
		fmt.Printf("\n%-32s %6s %6s   (seed %d)\n", "pairs", "of", "silent", seed)
		for _, n := range []string{"touching, like card", "touching, unlike card", "overlapping, like card", "overlapping, unlike card"} {
			fmt.Printf("%-32s %6d %6d\n", n, of[n], silent[n])
		}
		fmt.Printf("%-32s %6d %6d asked about\n", "single pieces", single, asked)
	}
}
