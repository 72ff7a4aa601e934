package ramp

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
)

var white, _ = colour.ParseHex("#f6f5f1")

// drawer makes n inks spread over hue and lightness.
func drawer(r *rand.Rand, n int) []Option {
	out := make([]Option, n)
	for i := range out {
		h := r.Float64() * 2 * math.Pi
		c := r.Float64() * 45
		lab := colour.Lab{L: 12 + 80*r.Float64(), A: c * math.Cos(h), B: c * math.Sin(h)}
		out[i] = Option{Film: colour.FilmFrom(lab.Linear(), white, r.Float64()*0.4), Impressions: 1}
	}
	return out
}

func randomProblem(r *rand.Rand, slots, inks int) Problem {
	p := Problem{Options: drawer(r, inks), Order: Direction(r.IntN(3))}.Defaults()
	all := make([]int, inks)
	for i := range all {
		all[i] = i
	}
	for i := range slots {
		s := Slot{Rank: 1 + r.IntN(slots), On: -1, Under: white, Options: all, Weight: r.Float64() + 0.1, Accent: r.IntN(5) == 0}
		if r.IntN(3) == 0 && i > 0 {
			s.On = r.IntN(i)
		}
		if r.IntN(5) == 0 {
			s.Options = []int{r.IntN(inks)}
		} else if r.IntN(3) == 0 {
			s.Options = r.Perm(inks)[:1+r.IntN(inks)]
		}
		p.Slots = append(p.Slots, s)
	}
	for i := range slots {
		for j := range i {
			if r.IntN(2) == 0 {
				p.Touch = append(p.Touch, Pair{j, i})
			}
		}
	}
	if r.IntN(4) == 0 {
		p.Enough = 30 // let the first criterion decide alone
	}
	return p
}

// brute tries every assignment.
func brute(p *Problem, had []Answer) (Score, bool) {
	pick := make([]int, len(p.Slots))
	var best Score
	found := false
	var rec func(i int)
	rec = func(i int) {
		if i < len(pick) {
			for _, o := range p.Slots[i].Options {
				pick[i] = o
				rec(i + 1)
			}
			return
		}
		lab, _ := p.Colours(pick)
		sc, ok := p.Judge(lab)
		if !ok || found && !sc.Better(best) {
			return
		}
		for _, a := range had {
			if p.Apart(lab, a.Colours) < p.Visible {
				return
			}
		}
		best, found = sc, true
	}
	rec(0)
	return best, found
}

// The search against exhaustive search on random small cases: fixed picks,
// accents, equal ranks, prints on prints, all three orders, and the second and
// third answer as well as the first.
func TestSolveEqualsExhaustiveSearch(t *testing.T) {
	none := 0
	for seed := range uint64(600) {
		r := rand.New(rand.NewPCG(seed, 7))
		p := randomProblem(r, 2+r.IntN(3), 3+r.IntN(5))
		got, err := Solve(context.Background(), p, 3)
		want, ok := brute(&p, nil)
		if !ok {
			none++
			assert.ErrorIs(t, err, ErrNoAnswer, "seed %d", seed)
			continue
		}
		require.NoError(t, err, "seed %d", seed)
		for k := range got {
			require.True(t, ok, "seed %d answer %d", seed, k)
			require.Equal(t, want, got[k].Score, "seed %d answer %d of %+v", seed, k, p.Order)
			want, ok = brute(&p, got[:k+1])
		}
		if len(got) < 3 {
			assert.False(t, ok, "seed %d: one more was to be had", seed)
		}
	}
	assert.Less(t, none, 400, "most cases have an answer")
	assert.Greater(t, none, 5, "and some have none")
}

func TestLadderOfOneFamilyWins(t *testing.T) {
	opts := []Option{}
	for _, h := range []string{"#e8c7c0", "#cf8f86", "#a5564f", "#6d2f2e", "#d9cf3a", "#3a8a3f", "#3b55b0", "#7d2f93"} {
		c, _ := colour.ParseHex(h)
		opts = append(opts, Option{Film: colour.FilmFrom(c, white, 0.1), Impressions: 1})
	}
	all := []int{0, 1, 2, 3, 4, 5, 6, 7}
	p := Problem{Options: opts, Order: LightFirst, Touch: []Pair{{0, 1}, {1, 2}, {2, 3}}}
	for i := range 4 {
		p.Slots = append(p.Slots, Slot{Rank: i + 1, On: -1, Under: white, Options: all, Weight: 1})
	}
	got, err := Solve(context.Background(), p, 1)
	require.NoError(t, err)
	assert.Equal(t, []int{0, 1, 2, 3}, got[0].Pick)
	p.Order = DarkFirst
	got, err = Solve(context.Background(), p, 1)
	require.NoError(t, err)
	assert.Equal(t, []int{3, 2, 1, 0}, got[0].Pick)
}

func TestSolveSaysWhyNot(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	p := Problem{Options: drawer(r, 3), Order: LightFirst}
	for i := range 4 {
		p.Slots = append(p.Slots, Slot{Rank: i + 1, On: -1, Under: white, Options: []int{0, 1, 2}})
	}
	_, err := Solve(context.Background(), p, 1)
	assert.ErrorIs(t, err, ErrNoAnswer, "three inks cannot be four lightnesses")
	p.Slots[2].Options = nil
	_, err = Solve(context.Background(), p, 1)
	assert.ErrorIs(t, err, ErrNoOptions)
	p = Problem{Options: drawer(r, 2), Slots: []Slot{{On: 1, Options: []int{0}}, {On: 0, Options: []int{1}}}}
	_, err = Solve(context.Background(), p, 1)
	assert.ErrorIs(t, err, ErrCycle)
}

func TestSolveStopsWhenAsked(t *testing.T) {
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	p := randomProblem(rand.New(rand.NewPCG(3, 3)), 4, 40)
	_, err := Solve(ctx, p, 2)
	assert.ErrorIs(t, err, context.Canceled)
}

func stack(seed uint64, layers, inks, papers int) Problem {
	r := rand.New(rand.NewPCG(seed, 11))
	p := Problem{Options: drawer(r, inks), Order: LightFirst}
	all := make([]int, inks)
	for i := range all {
		all[i] = i
	}
	for i := range layers {
		under := white
		if papers > 1 {
			under[2] -= 0.02 * float64(i%papers)
		}
		p.Slots = append(p.Slots, Slot{Rank: i + 1, On: -1, Under: under, Options: all, Weight: 1})
		for j := max(0, i-2); j < i; j++ {
			p.Touch = append(p.Touch, Pair{j, i})
		}
	}
	return p
}

func BenchmarkRamp7x300(b *testing.B) {
	for _, c := range []struct{ papers, k int }{{1, 1}, {1, 5}, {3, 5}} {
		b.Run(fmt.Sprintf("papers=%d/best=%d", c.papers, c.k), func(b *testing.B) {
			p := stack(1, 7, 300, c.papers)
			for b.Loop() {
				if _, err := Solve(context.Background(), p, c.k); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

func BenchmarkRamp8x600(b *testing.B) {
	p := stack(2, 8, 600, 1)
	for b.Loop() {
		if _, err := Solve(context.Background(), p, 5); err != nil {
			b.Fatal(err)
		}
	}
}

// Four stamped steps, each printed on the one before, from 48 inks.
func BenchmarkRampFourPrints(b *testing.B) {
	p := stack(1, 4, 48, 1)
	for i := 1; i < 4; i++ {
		p.Slots[i].On = i - 1
	}
	for b.Loop() {
		if _, err := Solve(context.Background(), p, 5); err != nil {
			b.Fatal(err)
		}
	}
}
