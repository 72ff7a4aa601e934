package work

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/colour"
)

// act is an act that is known by a word, and what it needs.
func act(name string, kind Kind, phase int, after ...string) Act {
	a := Act{ID: card.Step{Verb: name}, Kind: kind, Title: name}
	a.phase = phase
	a.Key = key(a.ID)
	for _, n := range after {
		a.After = append(a.After, Need{key(card.Step{Verb: n}), "rule", "why"})
	}
	return a
}

// By hand: six prints that dry ten minutes, and room for three. The fourth waits for the
// first to be dry, the fifth and sixth then find a place each time they are done.
func TestRoomToDryByHand(t *testing.T) {
	a := act("print", PrintAct, phaseInk)
	a.Minutes, a.Ink, a.tool = 10, "sky", tool{stamp: "s"}
	slots, got := Timetable([]Act{a}, Clock{Copies: 6, Room: 3})
	at := setUp + inkUp
	assert.InDelta(t, at+0.7+10+0.7+0.7+0.7, slots[0].To, 1e-9)
	assert.Equal(t, 3, slots[0].Batch)
	assert.InDelta(t, 0.7+10-2.1, got.Idle, 1e-9)
	assert.InDelta(t, at+6*0.7, got.Hand, 1e-9)
	assert.Equal(t, 3, got.Places)
	slots, got = Timetable([]Act{a}, Clock{Copies: 6})
	assert.Zero(t, slots[0].Batch)
	assert.Equal(t, 6, got.Places)
	assert.InDelta(t, at+6*0.7, got.Wall, 1e-9)
}

// By hand: two strikes of one stamp on five places of a sheet are two settings and eight
// moves from place to place.
func TestPlacesOnASheetAreSettings(t *testing.T) {
	a, b := act("first", PrintAct, phaseInk), act("second", PrintAct, phaseInk, "first")
	for _, x := range []*Act{&a, &b} {
		x.Ink, x.tool, x.spots = "sky", tool{stamp: x.Title}, 5
	}
	_, got := Timetable([]Act{a, b}, Clock{Copies: 1})
	assert.Equal(t, 10, got.Setups)
	assert.InDelta(t, 2*setUp+inkUp+8*moveOn+2*0.7, got.Hand, 1e-9)
	hand, _ := Least([]Act{a, b}, Clock{Copies: 1})
	assert.InDelta(t, got.Hand, hand, 1e-9)
}

// A person's times: the median of what steps took a card; a pause and what was ticked
// afterwards count for nothing, and too few tell nothing.
func TestOwnTimesAreLearned(t *testing.T) {
	run := []Ticked{{Kind: CutAct, Cards: 1, At: 0}}
	at := 0.0
	for _, m := range []float64{1.0, 1.2, 1.1, 0.9, 1.0, 45, 0.01, 1.3} { // minutes a card
		at += 4 * m
		run = append(run, Ticked{Kind: PrintAct, Cards: 4, At: at})
	}
	run = append(run, Ticked{Kind: HeatAct, Cards: 1, At: at + 1})
	own, from := Learn(run)
	assert.InDelta(t, 1.05, own[PrintAct], 1e-9)
	assert.Equal(t, 6, from)
	assert.NotContains(t, own, HeatAct, "once is not enough")
	assert.InDelta(t, usual[HeatAct], own.each(HeatAct), 1e-9)
	own, from = Learn()
	assert.Empty(t, own)
	assert.Zero(t, from)
}

// Where two lots want the same two things in other orders, they are done lot by lot; what
// they agree on is done once for both.
func TestWhatCannotBeDoneAtOnceIsDoneLotByLot(t *testing.T) {
	one := []Act{act("cut", CutAct, phaseCut), act("x", PrintAct, phaseInk, "cut"), act("y", PrintAct, phaseInk, "x")}
	two := []Act{act("cut", CutAct, phaseCut), act("y", PrintAct, phaseInk, "cut"), act("x", PrintAct, phaseInk, "y")}
	got, err := Sitting([]Lot{{ID: "a", Name: "A", Copies: 2, Acts: one}, {ID: "b", Name: "B", Copies: 3, Acts: two}}, nil, Did{}, Clock{})
	require.NoError(t, err)
	require.Len(t, got, 5)
	assert.Equal(t, 5, got[0].Cards)
	at := map[string]int{}
	for i, a := range got {
		at[a.Title+a.For] = i
	}
	assert.Less(t, at["xA"], at["yA"])
	assert.Less(t, at["yB"], at["xB"])

	ring := []Act{act("x", PrintAct, phaseInk, "y"), act("y", PrintAct, phaseInk, "x")}
	_, err = Sitting([]Lot{{Copies: 1, Acts: ring}}, nil, Did{}, Clock{})
	assert.ErrorIs(t, err, ErrCircle)
}

// By hand: a stamp in place that is used again, one that needs a wash before, a brush that
// is done with, and what is still wet.
func TestTheBenchByHand(t *testing.T) {
	sky, sea := colour.Lab{L: 80, B: -30}, colour.Lab{L: 40, B: -40}
	print := func(name, stamp, ink string, tone colour.Lab) Act {
		a := act(name, PrintAct, phaseInk)
		a.tool, a.Ink, a.tone, a.Minutes = tool{stamp: stamp, called: stamp}, ink, tone, 3
		return a
	}
	brush := act("brush", InkAct, phaseInk)
	brush.Ink, brush.tone = "rose", sky
	acts := []Act{brush, print("1", "wing", "sea", sea), print("2", "body", "sea", sea), print("3", "body", "sea", sea), print("4", "wing", "sky", sky)}
	for i := range acts {
		acts[i].Number = i + 1
	}
	slots, _ := Timetable(acts, Clock{Copies: 1})
	s := StateAt(acts, slots, 3, Clock{Copies: 1})
	assert.Equal(t, 4, s.Step)
	require.Len(t, s.Tools, 3)
	assert.Equal(t, Tool{Kind: "stamp", Name: "body", Ink: "sea", Set: true, Again: 4}, s.Tools[0])
	assert.Contains(t, s.Tools, Tool{Kind: "stamp", Name: "wing", Ink: "sea", Again: 5, Wash: true})
	assert.Contains(t, s.Tools, Tool{Kind: "brush", Ink: "rose"}, "done with")
	assert.True(t, slices.ContainsFunc(s.Lying, func(w Wet) bool { return w.Step == 3 }))
	end := StateAt(acts, slots, len(acts), Clock{Copies: 1})
	assert.Zero(t, end.Step)
	for _, x := range end.Tools {
		assert.Zero(t, x.Again, "everything can be put away")
	}
}

func TestHowWorkDiffers(t *testing.T) {
	was := []Act{act("cut", CutAct, phaseCut), act("x", PrintAct, phaseInk), act("y", PrintAct, phaseInk)}
	now := []Act{was[0], act("z", PrintAct, phaseInk), was[1]}
	now[2].Ink = "other"
	got := Compare(was, now)
	assert.Equal(t, Differs{[]string{"z"}, []string{"y"}, []string{"x"}}, got)
	assert.True(t, got.Any())
	assert.False(t, Compare(was, was).Any())
}
