package plan_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
)

// Where pads of a narrow cover find no pocket beside what slips in, the part is cut along
// the pad: afterwards they do not meet, its step says so, and it can be made whole again.
func TestAPartIsCutAlongAPad(t *testing.T) {
	o := two(40, 70, func(c *card.Card, k *kit.Kit) {
		c.Elements = c.Elements[:1]
		k.Spacers = []kit.Spacer{{ID: "thick", Name: "Thick pads", Kind: "square", Thickness: 2, W: 3, H: 3}}
		on, _ := c.Panel()
		laid(c, "cover", 0, 0, card.Sheet{Paper: "chalk", W: 9, H: 6}).Bonds = []card.Bond{{Spacer: "thick", Pads: []card.Pad{{W: 3, H: 3}}}}
		c.Elements = append(c.Elements, card.Element{ID: "word", Face: card.Front, On: on, Place: card.Place{X: c.Base.W/2 + 1, Y: c.Base.H / 2}, Bonds: card.Glue(hidden),
			Letters: &card.Letters{Text: "I", Size: 60, Paper: "oat"}, Tucks: []card.Tuck{{Part: "1", With: "cover"}}})
	})
	face := plan.Typeface(trial.Blocks{})
	p := warm.Of(o.c, o.k, face)
	f := finding(p, "in the way")
	require.NotNil(t, f)
	require.NotNil(t, f.Mend)
	require.NotNil(t, f.Mend.Edits[0].SnipOff, "cut along the pad: %v", f.Mend.Label)

	area := func(p plan.Plan) (a float64) {
		for _, s := range p.Stood {
			if s.ID.Element == "word" && !s.Print() {
				a += s.Outline.Area()
			}
		}
		return a
	}
	c, err := o.c.Apply(o.k, f.Mend.Edits...)
	require.NoError(t, err)
	require.NoError(t, c.Validate())
	q := warm.Of(c, o.k, face)
	assert.Nil(t, finding(q, "in the way"))
	grown := 0.55 // mm, round a pad of 3 by 3: Steiner's formula
	assert.InDelta(t, 9+12*grown+math.Pi*grown*grown, area(p)-area(q), 0.05)
	said := false
	for _, s := range q.Steps {
		said = said || s.ID.Element == "word" && strings.Contains(s.Detail, "First cut off")
	}
	assert.True(t, said, "the step says so")

	c, err = c.Apply(o.k, card.Edit{SnipOff: &card.SnipOff{Element: "word", Part: f.Mend.Edits[0].SnipOff.Part}})
	require.NoError(t, err)
	assert.InDelta(t, area(p), area(warm.Of(c, o.k, face)), 1e-9, "whole again")
}
