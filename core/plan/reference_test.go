package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/look"
	"ochrestone/core/plan"
	"ochrestone/core/ramp"
	"ochrestone/demo"
)

func refs(t *testing.T, hexes ...string) (out []advise.Reference) {
	for i, h := range hexes {
		c, err := colour.ParseHex(h)
		require.NoError(t, err)
		out = append(out, advise.Reference{Colour: c, Share: 1 / float64(i+2)})
	}
	return out
}

// An image coloured after greens and creams comes out in the inks nearest to
// them, its order kept.
func TestColouredAfterAPicture(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	ask := advise.Ask{Motif: c.Motifs[0].ID, Colourway: c.Motifs[0].Colourways[0].ID, School: card.DarkGround}
	rs := refs(t, "#f1ead9", "#d7e0c0", "#a9bd83", "#71894a", "#42552b", "#26282b")
	s, err := coloured(plan.NewPlanner(), c, k, ask).AfterPicture(ask, rs)
	require.NoError(t, err)
	lichen := 0
	for _, f := range s.Finishes {
		if i, ok := k.Ink(f.Ink); ok && (i.Family == "Lichen" || i.Family == "Fleece" || i.Family == "Soot") {
			lichen++
		}
	}
	assert.GreaterOrEqual(t, lichen, len(s.Finishes)-2, "%v", s.Finishes)
	c.Motifs[0].Colourways[0].Layers = s.Finishes
	c.Motifs[0].School = card.DarkGround
	assert.Nil(t, finding(warm.Of(c, k), "order:"), "the order of the school is kept")
}

func TestLocalColourGivesTheLargestLayerTheLargestShare(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	ask := advise.Ask{Motif: c.Motifs[0].ID, Colourway: c.Motifs[0].Colourways[0].ID, School: card.LocalColour}
	rs := refs(t, "#815b92", "#e9c957", "#3f8668")
	s, err := coloured(plan.NewPlanner(), c, k, ask).AfterPicture(ask, rs)
	require.NoError(t, err)
	p := warm.Of(c, k)
	largest, most := "", 0.0
	for _, l := range p.Motifs[0].Layers {
		if l.Visible > most {
			largest, most = l.ID, l.Visible
		}
	}
	i, ok := k.Ink(s.Finishes[largest].Ink)
	require.True(t, ok)
	assert.Equal(t, "Heather", i.Family)
}

// Steps stamped one on the other are judged on the paper they end up on, not
// on black: a chain of prints is coloured as prints side by side on it are.
func TestPrintsOnPrintsAreJudgedOnThePaperBelow(t *testing.T) {
	t.Parallel()
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[1]
	m := &c.Motifs[0]
	ask := advise.Ask{Motif: m.ID, Colourway: m.Colourways[0].ID, School: card.LightGround}
	rs := refs(t, "#f3e6b0", "#e9c957", "#b8922f", "#6f5417")
	flat, err := coloured(plan.NewPlanner(), c, k, ask).AfterPicture(ask, rs)
	require.NoError(t, err)
	for i := 1; i < len(m.Layers); i++ {
		require.Equal(t, card.Printed, m.Layers[i].Make)
		m.Layers[i].On = m.Layers[i-1].ID
	}
	chain, err := coloured(plan.NewPlanner(), c, k, ask).AfterPicture(ask, rs)
	require.NoError(t, err)
	assert.Equal(t, flat.Finishes, chain.Finishes)
}

func TestPictureNeedsInksAndColours(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	ask := advise.Ask{Motif: c.Motifs[0].ID, Colourway: c.Motifs[0].Colourways[0].ID, School: card.DarkGround}
	_, err := coloured(plan.NewPlanner(), c, k, ask).AfterPicture(ask, nil)
	assert.ErrorIs(t, err, ramp.ErrNoOptions)
	k.Inks = nil
	_, err = coloured(plan.NewPlanner(), c, k, ask).AfterPicture(ask, refs(t, "#815b92"))
	assert.ErrorIs(t, err, ramp.ErrNoOptions)
	_, err = plan.NewPlanner().Advise(c, k, "none")
	assert.ErrorContains(t, err, "no image")
	assert.ErrorIs(t, err, look.ErrUnknown)
}
