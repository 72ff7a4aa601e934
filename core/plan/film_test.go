package plan_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

// An arrangement that is lifted with film: laid out, glued from behind, put down in one go, peeled when the
// glue holds, and then the joints that were covered; what lies over it comes after.
func TestAnArrangementIsLiftedWithFilm(t *testing.T) {
	c, k := trial.Lifted(), trial.Kit()
	p := warm.Of(c, k)
	lifted := p.Build.Lifted()
	require.Len(t, lifted, 3)
	// Sheets of 30 by 24 mm, the sail's middle 12 mm to the right of the boat's and 8 above it.
	assert.InDelta(t, 18.0*16/(30*24), lifted[1].Share, 0.01)
	assert.Empty(t, lifted[0].Over)
	assert.Empty(t, lifted[2].Over, "the flag lies clear of them")
	at := func(verb, element string) int {
		return slices.IndexFunc(p.Steps, func(a work.Act) bool { return a.ID.Verb == verb && a.ID.Element == element })
	}
	for _, e := range []string{"boat", "sail", "flag"} {
		assert.Less(t, at(work.LiftFilm, ""), at(work.Place, e), e)
		assert.Less(t, at(work.Place, e), at(work.PeelFilm, ""), e)
	}
	assert.Less(t, at(work.PeelFilm, ""), at(work.GlueAgain, ""))
	assert.Less(t, at(work.PeelFilm, ""), at(work.Place, "label"))
	assert.Less(t, at(work.PeelFilm, ""), at(work.Tie, "cord"))
	again := p.Steps[at(work.GlueAgain, "")]
	assert.Contains(t, again.Detail, "Sail on boat")
	assert.NotContains(t, again.Detail, "flag")
	assert.GreaterOrEqual(t, p.Steps[at(work.PeelFilm, "")].Minutes, 10.0)

	// One piece alone is no arrangement, and pieces that lie clear of each other leave no joint.
	one, err := c.Apply(k, card.Edit{Lift: &card.Lift{Elements: []string{"sail", "flag"}}})
	require.NoError(t, err)
	assert.Empty(t, stepsBy(warm.Of(one, k), work.LiftFilm))
	clear, err := c.Apply(k, card.Edit{Lift: &card.Lift{Elements: []string{"sail"}}})
	require.NoError(t, err)
	assert.Len(t, stepsBy(warm.Of(clear, k), work.PeelFilm), 1)
	assert.Empty(t, stepsBy(warm.Of(clear, k), work.GlueAgain))
	_, err = c.Apply(k, card.Edit{Lift: &card.Lift{Elements: []string{"cord"}, On: true}})
	assert.ErrorContains(t, err, "no piece that film lifts")
}

// A part held at its foot only, with another put down over its free end, is told of at that step; held all
// over, or clear of it, it is not.
func TestFreeEndsBeneathAreMinded(t *testing.T) {
	minded := func(bonds []card.Bond, x float64) bool {
		card1 := bare(func(c *card.Card, _ *kit.Kit) {
			laid(c, "stalk", 0, 0, card.Sheet{Paper: "oat", W: 12, H: 40}).Bonds = bonds
			laid(c, "over", x, -14, card.Sheet{Paper: "chalk", W: 40, H: 20})
		})
		for _, a := range warm.Of(card1.c, card1.k).Steps {
			if a.ID.Verb == work.Place && a.ID.Element == "over" {
				return slices.ContainsFunc(a.Mind, func(m string) bool { return strings.Contains(m, "held in part only") })
			}
		}
		return false
	}
	foot := []card.Bond{{Adhesive: "liquid", Zone: card.BondFoot}}
	assert.True(t, minded(foot, 0))
	assert.False(t, minded(card.Glue("liquid"), 0), "glued all over")
	assert.False(t, minded(foot, 40), "clear of it")
}
