package remember_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/cut"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/remember"
	"ochrestone/demo"
)

// What cards take and what is to be bought for them, reckoned apart from the program: pads are
// counted on the sheet they come from, envelopes are one a card, and paper by its area.
func TestShoppingForTheBench(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	maker := plan.NewPlanner()
	laid := func(k kit.Kit) cut.Plan {
		var jobs []plan.Job
		for i, c := range demo.Cards(k) {
			j := plan.Job{Card: c}
			if i > 0 {
				j.ID = c.Title
			}
			jobs = append(jobs, j)
		}
		return maker.Cutting(t.Context(), jobs, k, nil)
	}
	var makes []remember.Make
	for _, c := range demo.Cards(k) {
		makes = append(makes, remember.Make{Card: c, Plan: maker.Of(c, k)})
	}
	for i := range k.Inks {
		k.Inks[i].Low, k.Inks[i].Gone = false, false
	}
	for i := range k.Papers {
		k.Papers[i].Sheets = 1000
	}
	for i := range k.Spacers {
		k.Spacers[i].Left = nil
	}
	require.Empty(t, remember.Shopping(k, wanted(k, makes...), laid(k).Stocks), "there is plenty of everything")

	one := remember.Takes(makes[:1], k)
	twelve := makes[0]
	twelve.Card.Copies = 12
	for i, x := range remember.Takes([]remember.Make{twelve}, k) {
		assert.Equal(t, 12*one[i].N, x.N, "twelve cards take twelve times as much of %s", x.Name)
	}
	both := remember.Takes(makes, k)
	for _, x := range both {
		sum := 0
		for _, m := range makes {
			for _, y := range remember.Takes([]remember.Make{m}, k) {
				if x.ID == y.ID {
					sum += y.N
				}
			}
		}
		assert.Equal(t, sum, x.N, x.Name)
	}
	at := slices.IndexFunc(both, func(x remember.Taking) bool { return x.Kind == "spacers" })
	require.GreaterOrEqual(t, at, 0)
	pads := both[at]
	short := pads.N - 1
	sp := slices.IndexFunc(k.Spacers, func(s kit.Spacer) bool { return s.ID == pads.ID })
	k.Spacers[sp].Left, k.Spacers[sp].Where = &short, "the tin"
	base := makes[0].Card.Base.Paper
	pp := slices.IndexFunc(k.Papers, func(p kit.Cardstock) bool { return p.ID == base })
	k.Papers[pp].Sheets, k.Papers[pp].Offcuts = 0, nil
	var used card.Finish
	for _, f := range makes[0].Card.Motifs[0].Colourways[0].Layers {
		if f.Ink != "" {
			used = f
		}
	}
	ik := slices.IndexFunc(k.Inks, func(i kit.Ink) bool { return i.ID == used.Ink })
	k.Inks[ik].Gone = true
	low := (ik + 1) % len(k.Inks)
	k.Inks[low].Low = true
	k.Adhesives[0].Low = true

	got := map[string]remember.ToBuy{}
	for _, b := range remember.Shopping(k, wanted(k, makes...), laid(k).Stocks) {
		got[b.Kind+" "+b.ID] = b
	}
	assert.Len(t, got, 5)
	assert.Equal(t, remember.ToBuy{Kind: "spacers", ID: pads.ID, Name: pads.Name, N: 1, Why: got["spacers "+pads.ID].Why, Where: "the tin"}, got["spacers "+pads.ID])
	assert.True(t, strings.HasPrefix(got["inks "+used.Ink].Why, "empty; for "), got["inks "+used.Ink].Why)
	assert.Contains(t, got["inks "+used.Ink].Why, makes[0].Card.Title)
	assert.True(t, strings.HasPrefix(got["inks "+k.Inks[low].ID].Why, "runs low"))
	assert.True(t, strings.HasPrefix(got["adhesives "+k.Adhesives[0].ID].Why, "runs low"))
	bases := 0.0
	for _, m := range makes {
		if m.Card.Base.Paper == base {
			bases += 2 * m.Card.Base.W * m.Card.Base.H * float64(m.Card.Run())
		}
	}
	sheets := got["papers "+base].N
	assert.GreaterOrEqual(t, sheets, int(math.Ceil(bases/(k.Papers[pp].W*k.Papers[pp].H))), "a folded card takes twice its front at least")

	k.Inks[ik].Gone = true
	for _, b := range remember.Shopping(k, nil, nil) {
		assert.NotEqual(t, used.Ink, b.ID, "what is empty and not wanted is not bought")
	}
}

// Gems are taken as often as they are laid, on every face, for every card of a sitting, and bought where
// there are fewer; what lies beside the card takes none.
func TestGemsAreTakenAndBought(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	left := 20
	k.Gems = []kit.Gem{{ID: "pearl", Name: "Pearls", Size: 4, Height: 2, Colour: "#f0e8d8", Left: &left, Where: "tin"}}
	c := demo.Cards(k)[0]
	places := []card.Offset{{X: -8}, {}, {X: 8}}
	gems := card.Gems{Size: 4, Height: 2, Colour: "#f0e8d8", Gem: "pearl", Places: places}
	for i, face := range []card.Face{card.Front, card.InsideRight, card.Beside} {
		g := gems
		c.Elements = append(c.Elements, card.Element{ID: string(rune('x' + i)), Face: face, Place: card.Place{X: 30, Y: 30}, Bonds: card.Glue(""), Gems: &g})
	}
	c.Copies = 4
	m := remember.Make{Card: c, Plan: plan.NewPlanner().Of(c, k)}
	n := 0
	for _, x := range remember.Takes([]remember.Make{m}, k) {
		if x.Kind == "gems" {
			n = x.N
		}
	}
	assert.Equal(t, 2*3*4, n)
	var bought []remember.ToBuy
	for _, b := range remember.Shopping(k, wanted(k, m), nil) {
		if b.Kind == "gems" {
			bought = append(bought, b)
		}
	}
	require.Len(t, bought, 1)
	assert.Equal(t, 4, bought[0].N)
	assert.Equal(t, "tin", bought[0].Where)
}
