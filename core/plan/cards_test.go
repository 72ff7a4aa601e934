package plan_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/ramp"
)

// fewRanks lets the moth's layers share three tone ranks, so that a stack of
// sixteen papers can do it.
func fewRanks(c *card.Card) {
	for i := range c.Motifs[0].Layers {
		c.Motifs[0].Layers[i].Rank = 1 + i/3
	}
}

// Coloured card cut plain: cut pieces take their colour from a card owned and
// no ink; the suggestion looks on the plan as it was promised.
func TestColouredCardCutPlain(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	fewRanks(&c)
	ask := advise.Ask{Motif: c.Motifs[0].ID, Colourway: c.Motifs[0].Colourways[0].ID, School: card.LocalColour, By: advise.ByCard, Best: 3}
	ways, _, err := coloured(plan.NewPlanner(), c, k, ask).Suggest(context.Background(), ask)
	require.NoError(t, err)
	require.NotEmpty(t, ways)
	for _, w := range ways {
		for i, l := range c.Motifs[0].Layers {
			f := w.Finishes[l.ID]
			if l.Make != card.Cut {
				assert.NotEmpty(t, f.Ink, "a print is still ink")
				continue
			}
			assert.Empty(t, f.Ink, l.Label)
			p, ok := k.Paper(f.Paper)
			require.True(t, ok, l.Label)
			assert.True(t, p.Opaque() && p.Sheets > 0 && p.Kind != kit.PaperPatterned)
			assert.Equal(t, p.Colour, w.Look.Layers[i].Dry)
		}
		assert.Greater(t, w.Look.Weakest, 0.0)
	}
	for i := range k.Papers {
		k.Papers[i].Sheets = 0
	}
	_, _, err = coloured(plan.NewPlanner(), c, k, ask).Suggest(context.Background(), ask)
	assert.ErrorIs(t, err, ramp.ErrNoOptions, "no sheet is left")
}

// Common practice, no source: tone on tone is an ink a step darker than its
// card.
func TestToneOnToneIsAStepDarker(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	ask := advise.Ask{Motif: c.Motifs[0].ID, Colourway: c.Motifs[0].Colourways[0].ID, School: card.LocalColour, By: advise.ByTone, Best: 2}
	ways, _, err := coloured(plan.NewPlanner(), c, k, ask).Suggest(context.Background(), ask)
	require.NoError(t, err)
	for _, w := range ways {
		for i, l := range c.Motifs[0].Layers {
			if l.Make != card.Cut {
				continue
			}
			f := w.Finishes[l.ID]
			require.NotEmpty(t, f.Ink, l.Label)
			p, ok := k.Paper(f.Paper)
			require.True(t, ok)
			paper, err := colour.ParseHex(p.Colour)
			require.NoError(t, err)
			d := paper.Lab().L - w.Look.Layers[i].L
			assert.True(t, d > 5.5 && d < 34.5, "%s: %.1f darker than its card", l.Label, d)
		}
	}
}
