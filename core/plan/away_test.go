package plan_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
)

// Whatever is taken out of the stores and kept for a card leaves the card as it was, and is said
// once with all its places.
func TestWhatIsTakenOutIsKeptForItsCards(t *testing.T) {
	cards := []card.Card{trial.Everything(), trial.Shaking(), trial.Card("mats"), trial.Card("vellum")}
	for _, c := range cards {
		k := trial.Kit()
		before := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
		seen := map[string]bool{}
		for _, u := range c.Uses() {
			if _, _, ok := k.Item(u.Kind, u.ID); !ok || seen[string(u.Kind)+u.ID] || u.Kind == kit.KindEnvelope {
				continue
			}
			seen[string(u.Kind)+u.ID] = true
			if len(seen) > 7 {
				break
			}
			away := trial.Kit()
			putAway(&away, u.Kind, u.ID)
			after := warm.Of(c, away, plan.Typeface(trial.Blocks{}))
			require.Empty(t, after.Failed)
			assert.InDelta(t, before.Depth.Total, after.Depth.Total, 1e-9, "%s without %s", c.Title, u.ID)
			assert.Equal(t, before.Front.Sheets, after.Front.Sheets, "%s without %s: every mat as it was", c.Title, u.ID)
			assert.Len(t, after.Build.Pieces, len(before.Build.Pieces))
			n := 0
			for _, f := range after.Findings {
				if f.Rule == "away" && slices.Contains(f.IDs(), u.ID) {
					n++
				}
			}
			if ways := c.Ways(u.Motif); u.Motif == "" || slices.Contains(ways, u.Colourway) {
				assert.Equal(t, 1, n, "%s: %s %s is said once", c.Title, u.Kind, u.ID)
			}
		}
		assert.False(t, slices.ContainsFunc(before.Findings, func(f foresee.Finding) bool { return f.Rule == "away" }), "%s: all of it is there", c.Title)
	}
}

func putAway(k *kit.Kit, kind kit.Kind, id string) {
	for i := range k.Papers {
		k.Papers[i].Away = k.Papers[i].Away || kind == kit.KindPaper && k.Papers[i].ID == id
	}
	for i := range k.Inks {
		k.Inks[i].Away = k.Inks[i].Away || kind == kit.KindInk && k.Inks[i].ID == id
	}
	for i := range k.Sets {
		k.Sets[i].Away = k.Sets[i].Away || kind == kit.KindSet && k.Sets[i].ID == id
	}
	for i := range k.Spacers {
		k.Spacers[i].Away = k.Spacers[i].Away || kind == kit.KindSpacer && k.Spacers[i].ID == id
	}
	for i := range k.Adhesives {
		k.Adhesives[i].Away = k.Adhesives[i].Away || kind == kit.KindAdhesive && k.Adhesives[i].ID == id
	}
}

// A leaf whose paper nobody knows any more, as cards made before have, is said wherever it is: of
// the base, of sheets, of cut-outs, of letters and of shakers.
func TestEveryLeafThatLostItsPaperIsSaid(t *testing.T) {
	for _, c := range []card.Card{trial.Everything(), trial.Shaking(), trial.Twins()} {
		for _, u := range c.Uses() {
			if u.Kind != kit.KindPaper || u.Motif != "" {
				continue
			}
			k := trial.Kit()
			k.Papers = slices.DeleteFunc(k.Papers, func(p kit.Cardstock) bool { return p.ID == u.ID })
			p := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
			at := slices.IndexFunc(p.Findings, func(f foresee.Finding) bool { return f.Rule == "away" && slices.Contains(f.IDs(), u.ID) })
			if assert.GreaterOrEqual(t, at, 0, "%s: %s", c.Title, u.ID) {
				assert.Equal(t, foresee.Spoils, p.Findings[at].Severity)
			}
		}
	}
}

// Nothing that was taken out is offered.
func TestWhatIsTakenOutIsOfferedForNothing(t *testing.T) {
	k := trial.Kit()
	for i := range k.Papers {
		k.Papers[i].Away = i > 0
	}
	for i := range k.Inks {
		k.Inks[i].Away = i > 3
	}
	o := k.Owned()
	assert.Len(t, o.Papers, 1)
	assert.Len(t, o.Inks, 4)
	assert.Len(t, k.NoLonger().Papers, len(k.Papers)-1)
	c := trial.Card("row")
	p := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
	for _, f := range p.Findings {
		if f.Mend == nil {
			continue
		}
		after, err := c.Apply(o, f.Mend.Edits...)
		require.NoError(t, err)
		had := map[string]bool{}
		for _, u := range c.Uses() {
			had[string(u.Kind)+u.ID] = true
		}
		for _, u := range after.Uses() {
			if _, away, ok := k.Item(u.Kind, u.ID); ok && away {
				assert.True(t, had[string(u.Kind)+u.ID], "%s offers %s", f.What, u.ID)
			}
		}
	}
}
