package plan_test

import (
	"fmt"
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

// Where a part is put down its step says how far its ends come down, and how its pads are cut that are
// wider than it is; of a level part on whole pads, and of letters that are many, neither.
func TestStepsSayHowAPartLies(t *testing.T) {
	t.Parallel()
	said := func(change func(*card.Card, *kit.Kit)) map[string]string {
		o := two(40, 70, func(c *card.Card, k *kit.Kit) {
			c.Elements = c.Elements[:1]
			k.Spacers = []kit.Spacer{{ID: "tape", Name: "Foam tape", Kind: "tape", Thickness: 1.6, W: 12, H: 4000}}
			k.Adhesives = []kit.Adhesive{{ID: "wet", Name: "Wet", Kind: "liquid", Thickness: 0.02}}
			change(c, k)
		})
		out := map[string]string{}
		for _, a := range warm.Of(o.c, o.k, plan.Typeface(trial.Blocks{})).Steps {
			if a.ID.Verb == work.Place {
				out[a.ID.Element] = a.Detail
			}
		}
		return out
	}
	across := said(func(c *card.Card, _ *kit.Kit) {
		laid(c, "stem", 0, 0, card.Sheet{Paper: "oat", W: 5, H: 76}).Bonds = card.Foam("tape", 1)
		laid(c, "strip", 0, 0, card.Sheet{Paper: "chalk", W: 76, H: 12.7}).Bonds = card.Glue("wet")
		laid(c, "plate", 0, 60, card.Sheet{Paper: "chalk", W: 60, H: 40}).Bonds = card.Foam("tape", 1)
		laid(c, "flat", 0, -60, card.Sheet{Paper: "chalk", W: 60, H: 20}).Bonds = card.Glue("wet")
	})
	require.Len(t, across, 4)
	assert.Contains(t, across["strip"], "come down by")
	assert.Contains(t, across["stem"], "pads cut to")
	assert.NotContains(t, across["stem"], "come down by")
	for _, id := range []string{"plate", "flat"} {
		assert.NotContains(t, across[id], "pads cut to", id)
		assert.NotContains(t, across[id], "come down by", id)
	}
	word := said(func(c *card.Card, _ *kit.Kit) {
		panel, _ := c.Panel()
		c.Elements = append(c.Elements, card.Element{ID: "word", Face: card.Front, On: panel, Place: card.Place{X: c.Base.W / 2, Y: 40}, Bonds: card.Foam("tape", 1), Letters: &card.Letters{Text: "ooh", Size: 20, Gap: 1, Paper: "oat"}})
	})
	require.Contains(t, word, "word")
	assert.NotContains(t, word["word"], "cut to")
}

// What is lifted with film has a step each: whose back is covered by the others gets no glue in it, and
// none of them has anything to dry before the film is pressed down.
func TestInTheFilmNothingDries(t *testing.T) {
	t.Parallel()
	filmed := 0
	for _, s := range trial.Strangers() {
		p := warm.Of(s.Card, s.Kit)
		over := map[string]float64{}
		for _, l := range p.Build.Lifted() {
			over[p.Build.Things[l.Thing].Element.ID] = l.Share
		}
		for _, a := range p.Steps {
			share, ok := over[a.ID.Element]
			if !ok || a.ID.Verb != work.Place {
				continue
			}
			filmed++
			assert.Zero(t, a.Minutes, a.Title)
			assert.Equal(t, share >= 0.95, !strings.HasPrefix(a.Title, "Glue "), fmt.Sprintf("%s: %g", a.Title, share))
		}
	}
	assert.Positive(t, filmed)
}
