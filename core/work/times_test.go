package work

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/colour"
)

// shades are inks by chance, some of one family.
func shades(rng *rand.Rand, n int) []colour.Lab {
	out := make([]colour.Lab, n)
	for i := range out {
		hue := float64(rng.IntN(3)) * 2
		s, c := math.Sincos(hue + 0.3*rng.Float64())
		chroma := 40 * rng.Float64()
		out[i] = colour.Lab{L: 20 + 70*rng.Float64(), A: chroma * c, B: chroma * s}
	}
	return out
}

// orders calls f with every order of n things.
func orders(n int, f func([]int)) {
	at := make([]int, n)
	for i := range at {
		at[i] = i
	}
	var go_ func(k int)
	go_ = func(k int) {
		if k == n {
			f(at)
			return
		}
		for i := k; i < n; i++ {
			at[k], at[i] = at[i], at[k]
			go_(k + 1)
			at[k], at[i] = at[i], at[k]
		}
	}
	go_(0)
}

// Against every order of up to eight inks: never one wash more than there need be.
func TestWashesAgainstEveryOrder(t *testing.T) {
	rng := rand.New(rand.NewPCG(4, 2))
	count := func(inks []colour.Lab, order []int) (n int) {
		for k := 1; k < len(order); k++ {
			if !Clean(inks[order[k-1]], inks[order[k]]) {
				n++
			}
		}
		return n
	}
	for range 60 {
		inks := shades(rng, 1+rng.IntN(8))
		order, washes := Washes(inks)
		require.Len(t, order, len(inks))
		assert.Equal(t, washes, count(inks, order), "it takes as many as it says")
		least := len(inks)
		orders(len(inks), func(o []int) { least = min(least, count(inks, o)) })
		assert.Equal(t, least, washes, "%v", inks)
	}
}

// Light to dark in one family needs none, back to light needs one, red after green needs one;
// common practice, no source.
func TestWhenAStampIsClean(t *testing.T) {
	sky, sea, rose, soot := colour.Lab{L: 80, A: -8, B: -25}, colour.Lab{L: 40, A: -5, B: -40}, colour.Lab{L: 60, A: 45, B: 5}, colour.Lab{L: 15}
	assert.True(t, Clean(sky, sea))
	assert.False(t, Clean(sea, sky))
	assert.False(t, Clean(sky, rose), "another hue")
	assert.True(t, Clean(rose, soot))
}

// jobs are acts by chance: stamps and inks, some needing others.
func jobs(rng *rand.Rand, n int) []Act {
	inks := shades(rng, 3)
	out := make([]Act, n)
	for i := range out {
		out[i] = Act{ID: card.Step{Verb: "v", N: i + 1}, Kind: []Kind{CutAct, InkAct, PrintAct, GlueAct}[rng.IntN(4)]}
		out[i].phase = []int{phaseCut, phaseInk, phaseInk, phaseStack}[rng.IntN(4)]
		out[i].leaf = Thing{Element: fmt.Sprint(i)}
		if out[i].Kind == InkAct || out[i].Kind == PrintAct {
			k := rng.IntN(3)
			out[i].Ink, out[i].tone, out[i].Minutes = fmt.Sprint("ink", k), inks[k], float64(rng.IntN(6))
			if out[i].Kind == PrintAct {
				out[i].stamp = fmt.Sprint("stamp", rng.IntN(2))
			}
		}
		if rng.IntN(3) == 0 && i > 0 {
			out[i].seq, out[i].series = i, Thing{Element: "series"}
		}
		out[i].Key = key(out[i].ID)
	}
	return out
}

// Against every order the needs allow: nothing comes below the bound, and the order that is
// proposed takes at most a fifth more work than the best, on the whole next to none. One
// that keeps the sorts of work together as people do is compared with all.
func TestTimesAgainstEveryOrder(t *testing.T) {
	rng := rand.New(rand.NewPCG(9, 1))
	sum, best, worst := 0.0, 0.0, 1.0
	for range 200 {
		acts, err := Order(jobs(rng, 4+rng.IntN(4)))
		require.NoError(t, err)
		_, got := Timetable(acts, Clock{Copies: 1})
		hand, wall := Least(acts, Clock{Copies: 1})
		require.LessOrEqual(t, hand, got.Hand+1e-9)
		require.LessOrEqual(t, wall, got.Wall+1e-9)
		least := math.Inf(1)
		at := map[string]int{}
		for i := range acts {
			at[acts[i].Key] = i
		}
		orders(len(acts), func(o []int) {
			pos := make([]int, len(o))
			for p, i := range o {
				pos[i] = p
			}
			try := make([]Act, len(o))
			for p, i := range o {
				for _, n := range acts[i].After {
					if pos[at[n.Key]] > p {
						return
					}
				}
				try[p] = acts[i]
			}
			_, x := Timetable(try, Clock{Copies: 1})
			least = min(least, x.Hand)
		})
		require.LessOrEqual(t, hand, least+1e-9, "the bound holds")
		sum, best, worst = sum+got.Hand, best+least, max(worst, got.Hand/least)
	}
	t.Logf("%.1f %% more work than the best on the whole, at worst %.0f %%", 100*(sum/best-1), 100*(worst-1))
	assert.Less(t, sum/best, 1.04)
	assert.Less(t, worst, 1.35)
}

// By hand: two prints with one stamp in two inks of one family, then in a lighter one; a cut
// between dries them. For three cards the last copy of the first is dry when the second
// begins.
func TestATimetableByHand(t *testing.T) {
	a := Act{Key: "a", Kind: PrintAct, Ink: "sky", Minutes: 5, facts: facts{phase: phaseInk, tool: tool{stamp: "s"}, tone: colour.Lab{L: 80, B: -30}}}
	b := Act{Key: "b", Kind: PrintAct, Ink: "sea", After: []Need{{Key: "a", Rule: "host first"}}, facts: facts{phase: phaseInk, tool: tool{stamp: "s"}, tone: colour.Lab{L: 40, B: -40}}}
	c := Act{Key: "c", Kind: PrintAct, Ink: "sky", facts: facts{phase: phaseInk, tool: tool{stamp: "s"}, tone: colour.Lab{L: 80, B: -30}}}
	slots, got := Timetable([]Act{a, b, c}, Clock{Copies: 1})
	assert.Equal(t, 1, got.Setups)
	assert.Equal(t, 3, got.Inks)
	assert.Equal(t, 1, got.Washes, "back to the lighter")
	first := setUp + inkUp + 0.7
	assert.InDelta(t, first, slots[0].To, 1e-9)
	assert.Equal(t, "sea", slots[2].On)
	assert.InDelta(t, 5-inkUp, got.Idle, 1e-9, "it dries while the next ink is taken up")
	assert.InDelta(t, setUp+3*inkUp+washUp+3*0.7, got.Hand, 1e-9)
	_, three := Timetable([]Act{a, b, c}, Clock{Copies: 3})
	assert.InDelta(t, setUp+3*inkUp+washUp+9*0.7, three.Hand, 1e-9)
	assert.InDelta(t, 5-inkUp-2*0.7, three.Idle, 1e-9, "two copies are printed while the first dries")
}

// What is not dry yet is said where it is taken up: not of what lies by while something else is worked on.
func TestWetIsSaidOfWhatIsInHand(t *testing.T) {
	panel, boat, star := Thing{Element: "panel"}, Thing{Element: "boat"}, Thing{Motif: "star", Colourway: "a", Part: "rim"}
	acts := []Act{
		{Number: 1, Key: "1", Kind: GlueAct, Minutes: 60, facts: facts{leaf: boat, onto: panel}},
		{Number: 2, Key: "2", Kind: InkAct, Minutes: 60, facts: facts{leaf: star}},
		{Number: 3, Key: "3", Kind: PopAct, facts: facts{leaf: Thing{Motif: "star", Colourway: "a"}}},
		{Number: 4, Key: "4", Kind: GlueAct, facts: facts{leaf: panel, onto: Thing{Element: "base"}}},
		{Number: 5, Key: "5", Kind: CheckAct, ID: card.Step{Verb: Finish}},
	}
	slots, _ := Timetable(acts, Clock{Copies: 1})
	var dry [][]int
	for _, s := range slots {
		dry = append(dry, s.Dry)
	}
	assert.Equal(t, [][]int{{}, {}, {2}, {1}, {1, 2}}, dry)
}
