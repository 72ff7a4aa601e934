package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

// Letters cut with a sheet of foam: the sheet stays back from the card's edge, its liner comes off
// letter by letter, and what falls out of closed letters goes in last. Letters without one are glued as
// other parts are. Common practice, no source.
func TestLettersOnASheetOfFoam(t *testing.T) {
	t.Parallel()
	steps := func(backing string) (cut, place string) {
		made := two(40, 70, func(c *card.Card, k *kit.Kit) {
			k.Spacers = append(k.Spacers, kit.Spacer{ID: "foamed", Name: "Foam sheet", Kind: "sheet", Thickness: 2, W: 200, H: 150})
			k.Adhesives = append(k.Adhesives, kit.Adhesive{ID: "stuck", Name: "Sheet", Kind: "double-sided"})
			panel, _ := c.Panel()
			c.Elements = append(c.Elements, card.Element{ID: "word", Face: card.Front, On: panel, Place: card.Place{X: c.Base.W / 2, Y: 20}, Bonds: card.Glue(hidden),
				Letters: &card.Letters{Text: "OIL", Size: 14, Paper: "oat", Backing: backing}})
		})
		p := warm.Of(made.c, made.k, plan.Typeface(trial.Blocks{}))
		for _, a := range p.Steps {
			switch {
			case a.ID.Element == "word" && a.ID.Verb == work.Cut:
				cut = a.Detail
			case a.ID.Element == "word" && a.ID.Verb == work.Place:
				place = a.Detail
			}
		}
		require.NotEmpty(t, cut)
		require.NotEmpty(t, place)
		return cut, place
	}
	cut, place := steps("foamed")
	assert.Contains(t, cut, "smaller than the card all round")
	assert.Contains(t, place, "liner comes off letter by letter")
	_, place = steps("stuck")
	assert.True(t, strings.HasPrefix(place, "Sheet: its liner comes off"), "no glue beside an adhesive sheet: %s", place)
	cut, place = steps("")
	assert.NotContains(t, cut, "smaller than the card")
	assert.NotContains(t, place, "liner")
}
