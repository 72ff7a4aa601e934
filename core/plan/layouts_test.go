package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/demo"
)

// On a square card 5 in wide with an eighth all round, a strip 1 in wide: common practice,
// no source; the figures by hand.
func TestManyOfAStrip(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	var five measure.CardFormat
	for _, f := range measure.Formats() {
		if f.Size.W == 5*measure.Inch && f.Size.H == 5*measure.Inch {
			five = f
		}
	}
	c := card.New("Ring", five, measure.FoldSide, k)
	c, err = c.Apply(k, card.Edit{AddStrip: &card.AddStrip{}})
	require.NoError(t, err)
	id := c.Elements[len(c.Elements)-1].ID
	sheet := *c.Elements[len(c.Elements)-1].Sheet
	sheet.W, sheet.H = measure.Inch, measure.Inch/2
	c, err = c.Apply(k, card.Edit{Sheet: &card.SetSheet{Element: id, Sheet: &sheet}})
	require.NoError(t, err)
	in := measure.Writing{Unit: measure.Inches, Den: 16}
	lay := func(c card.Card, want advise.Many) (advise.Laid, error) {
		p := plan.Of(c, k)
		return advise.LayMany(&p.Build, id, want, in)
	}

	row, err := lay(c, advise.Many{Kind: "row", N: 3})
	require.NoError(t, err)
	// 4 3/4 less 3 leaves 1 3/4 for four gaps: 7/16.
	assert.Equal(t, "3 in a row, 7⁄16 in between them, the same to the edges.", row.Say)

	ring, err := lay(c, advise.Many{Kind: "ring", Radius: 1.5 * measure.Inch})
	require.NoError(t, err)
	// 180 / asin(1 / 3) is 9.2: nine, with 2 · 1.5 · sin 20° less 1, which is 0.026 in, between.
	assert.Equal(t, 9, ring.Count)
	assert.InDelta(t, 0.026*measure.Inch, ring.Gap, 0.01)
	assert.Empty(t, ring.Notes)
	out, err := c.Apply(k, ring.Edit)
	require.NoError(t, err)
	assert.Len(t, out.Elements, len(c.Elements)+8, "the first is the one that was there")
	again, err := lay(out, advise.Many{Kind: "ring", Radius: 1.5 * measure.Inch})
	require.NoError(t, err)
	assert.Equal(t, ring.Gap, again.Gap, "however it lies turned, its own width counts")

	wide, err := lay(c, advise.Many{Kind: "ring", Radius: 2.5 * measure.Inch})
	require.NoError(t, err)
	assert.Contains(t, wide.Notes[0], "runs over the panel by 3⁄8 in")
	_, err = lay(c, advise.Many{Kind: "ring", Radius: 5})
	require.ErrorIs(t, err, layout.ErrRadius)
	p := plan.Of(c, k)
	_, err = advise.LayMany(&p.Build, "gone", advise.Many{Kind: "row", N: 2}, in)
	require.ErrorIs(t, err, card.ErrGone)
}

// An odd count of two alternating colours clashes at the join of a ring (common practice,
// no source).
func TestAlternatingColoursClashWhereTheRingCloses(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[1]
	i := 0
	for c.Elements[i].Image == nil {
		i++
	}
	p := plan.Of(c, k)
	ways := len(c.Motifs[0].Colourways)
	odd, err := advise.LayMany(&p.Build, c.Elements[i].ID, advise.Many{Kind: "ring", N: ways + 1, Radius: 30, Alternate: true}, measure.Metric)
	require.NoError(t, err)
	assert.Contains(t, odd.Notes[len(odd.Notes)-1], "side by side")
	even, err := advise.LayMany(&p.Build, c.Elements[i].ID, advise.Many{Kind: "ring", N: ways, Radius: 30, Alternate: true}, measure.Metric)
	require.NoError(t, err)
	for _, n := range even.Notes {
		assert.NotContains(t, n, "side by side")
	}
	out, err := c.Apply(k, even.Edit)
	require.NoError(t, err)
	seen := map[string]bool{}
	for _, e := range out.Elements[len(c.Elements):] {
		seen[e.Image.Colourway] = true
	}
	assert.Len(t, seen, ways-1, "each takes its turn")
}
