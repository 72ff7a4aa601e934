package work

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"ochrestone/core/card"
)

func named(title string, k Kind) Act {
	return Act{ID: card.Step{Verb: title}, Title: title, Kind: k}
}

// An evening with a pause, by hand: five steps of two minutes; the third is done first of the
// last three, tea is had for an hour, and the last two are ticked together afterwards.
func TestARunBesideItsPlanByHand(t *testing.T) {
	acts := []Act{named("cut", CutAct), named("ink", InkAct), named("print", PrintAct), named("glue", GlueAct), named("check", CheckAct)}
	minutes := []float64{2, 2, 2, 2, 2}
	at := func(i int, m float64) Ticked { return Ticked{Step: acts[i].ID, Kind: acts[i].Kind, Cards: 1, At: m} }
	w := Account(acts, minutes, []Ticked{at(0, 10), at(3, 13), at(1, 14), at(2, 74), at(4, 74.05), {Step: card.Step{Verb: "elsewhere"}, At: 75}})
	assert.InDelta(t, 65, w.Took, 1e-9, "from the first tick to the last")
	assert.Equal(t, []TookFor{{InkAct, 1, 2, 1}, {GlueAct, 1, 2, 3}}, w.Kinds, "the first has no beginning, tea is a pause, the check was ticked afterwards")
	assert.Equal(t, 2, w.Known)
	assert.InDelta(t, 4, w.Hand, 1e-9)
	assert.InDelta(t, 4, w.Planned, 1e-9)
	assert.Equal(t, []OutOfTurn{{"glue", "cut", "print"}}, w.Moved, "one step moved explains it, not two")

	none := Account(acts, minutes, nil)
	assert.Equal(t, Went{Kinds: []TookFor{}, Moved: []OutOfTurn{}}, none)
	assert.Empty(t, Account(acts, minutes, []Ticked{at(0, 0), at(1, 2), at(2, 4), at(3, 6), at(4, 8)}).Moved, "as planned")
}

// The longest rising run against every choice of numbers, and of a sequence often printed with
// its answer: the first sixteen of van der Corput's, whose longest is six long (from memory).
func TestTheFewestStepsMoved(t *testing.T) {
	kept := rising([]int{0, 8, 4, 12, 2, 10, 6, 14, 1, 9, 5, 13, 3, 11, 7, 15})
	n := 0
	for _, k := range kept {
		if k {
			n++
		}
	}
	assert.Equal(t, 6, n)
	rapid.Check(t, func(t *rapid.T) {
		turns := rapid.Permutation([]int{0, 1, 2, 3, 4, 5, 6, 7, 8}[:rapid.IntRange(0, 9).Draw(t, "n")]).Draw(t, "turns")
		var run []int
		for i, k := range rising(turns) {
			if k {
				run = append(run, turns[i])
			}
		}
		assert.True(t, slices.IsSorted(run), "what is kept rises: %v of %v", run, turns)
		best := 0
		for mask := range 1 << len(turns) {
			var some []int
			for i, v := range turns {
				if mask>>i&1 == 1 {
					some = append(some, v)
				}
			}
			if slices.IsSorted(some) {
				best = max(best, len(some))
			}
		}
		assert.Len(t, run, best)
	})
}

// How long a hand takes against usual times, by hand: prints take 0.7 minutes usually.
func TestAHandAgainstUsualTimes(t *testing.T) {
	print := func(at float64, cards int) Ticked { return Ticked{Kind: PrintAct, Cards: cards, At: at} }
	f, n := Against([]Ticked{print(0, 1), print(1.4, 1), print(2.8, 1), print(100, 1), print(100.01, 1), print(105.6, 4)})
	assert.Equal(t, 3, n, "the pause and the one ticked afterwards do not count")
	assert.InDelta(t, 2, f, 0.01)
	f, n = Against(nil)
	assert.Zero(t, f)
	assert.Zero(t, n)
}
