package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/demo"
)

func TestPrintsOfAnImage(t *testing.T) {
	t.Parallel()
	k, err := demo.Kit()
	require.NoError(t, err)
	beetles := demo.Cards(k)[1]
	m := beetles.Motifs[0]
	mk := plan.NewPlanner()
	ps, paper, err := place(mk, beetles, k, m.ID).Prints(m.Colourways[0].ID)
	require.NoError(t, err)
	require.Len(t, ps, 4)
	panel, ok := k.Paper(beetles.Mats()[0].Sheet.Paper)
	require.True(t, ok)
	assert.Equal(t, panel.Colour, paper.Hex())
	for i, p := range ps {
		assert.Equal(t, m.Layers[i].ID, p.Layer)
		assert.Equal(t, 1, p.Strikes)
	}
	// A step left plain is not part of the proof.
	f := m.Colourways[0].Layers[m.Layers[2].ID]
	f.Ink = ""
	m.Colourways[0].Layers[m.Layers[2].ID] = f
	ps, _, err = place(mk, beetles, k, m.ID).Prints(m.Colourways[0].ID)
	require.NoError(t, err)
	assert.Len(t, ps, 3)

	c, _ := moth(t)
	for i := range c.Motifs[0].Layers {
		c.Motifs[0].Layers[i].Make = card.Cut
	}
	ps, _, err = place(mk, c, k, c.Motifs[0].ID).Prints(c.Motifs[0].Colourways[0].ID)
	require.NoError(t, err)
	assert.Empty(t, ps, "cut pieces are no prints")
}

// An outline in black, first or last: under a hiding ink it fades, so last is
// better; under watercolour a dye would run.
func TestLineFirstOrLast(t *testing.T) {
	t.Parallel()
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[1]
	m := &c.Motifs[0]
	m.Colourways = m.Colourways[:1]
	for i := range c.Elements {
		if e := c.Elements[i].Image; e != nil && e.Motif == m.ID {
			e.Colourway = m.Colourways[0].ID
		}
	}
	wash, lines := m.Layers[0].ID, m.Layers[len(m.Layers)-1].ID
	look := func() *look.Line {
		p := warm.Of(c, k)
		ls := p.Motifs[0].Colourways[0].Layers
		return ls[len(ls)-1].Line
	}
	w := m.Colourways[0]
	black := w.Layers[lines]
	set := func(hide float64, kind kit.InkKind) {
		h := hide
		for i := range k.Inks {
			if k.Inks[i].ID == w.Layers[wash].Ink {
				k.Inks[i].Hide, k.Inks[i].Kind = &h, kind
			}
		}
	}
	require.NotEmpty(t, black.Ink)
	// A fine ring on the wash, half a mm wide, in place of the last step.
	for i := range k.Sets {
		if k.Sets[i].ID == m.Set {
			ps := k.Sets[i].Parts
			ps[len(ps)-1].Outline = shape.RingDisc(ps[0].Outline.Centroid(), 5, 4.5)
		}
	}
	m.Layers[len(m.Layers)-1].On = wash
	for _, l := range m.Layers[1 : len(m.Layers)-1] {
		w.Layers[l.ID] = card.Finish{} // no further tones
	}
	set(0.8, kit.Pigment)
	l := look()
	require.NotNil(t, l)
	assert.Greater(t, l.LastDiff, l.FirstDiff)
	assert.Contains(t, l.Say, "Print it last")
	assert.False(t, l.Soft)
	// Over soft shading that would be lost for good: both are shown, and the step says so.
	shaded := w.Layers[wash]
	shaded.Blends = []card.Blend{{Ink: w.Layers[wash].Ink, Zone: card.Foot}}
	w.Layers[wash] = shaded
	l = look()
	assert.True(t, l.Soft)
	assert.NotContains(t, l.Say, "Print it last")
	warned := func() (n int) {
		for _, a := range warm.Of(c, k).Steps {
			n += strings.Count(strings.Join(a.Mind, " "), "before it is printed")
		}
		return n
	}
	both := warned()
	shaded.Blends = nil
	w.Layers[wash] = shaded
	assert.Equal(t, both-1, warned())
	for i := range k.Inks {
		if k.Inks[i].ID == black.Ink {
			k.Inks[i].Kind = kit.Dye
		}
	}
	set(0.02, kit.Watercolor)
	assert.Contains(t, look().Say, "may run")
}
