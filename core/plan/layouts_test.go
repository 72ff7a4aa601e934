package plan_test

import (
	"slices"
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
	out, err := c.Apply(k, ring.Edits...)
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
	// With two colourways that cannot be helped, and it is said; with more the last takes
	// another.
	two := c
	two.Motifs = slices.Clone(c.Motifs)
	two.Motifs[0].Colourways = c.Motifs[0].Colourways[:2]
	two.Elements = slices.DeleteFunc(slices.Clone(c.Elements), func(e card.Element) bool { return e.Image != nil && e.ID != c.Elements[i].ID })
	q := plan.Of(two, k)
	odd, err := advise.LayMany(&q.Build, c.Elements[i].ID, advise.Many{Kind: "ring", N: 9, Radius: 30, Alternate: true}, measure.Metric)
	require.NoError(t, err)
	assert.Contains(t, odd.Notes[len(odd.Notes)-1], "side by side")
	for _, n := range []int{ways + 1, 2*ways + 1, 7} {
		closed, err := advise.LayMany(&p.Build, c.Elements[i].ID, advise.Many{Kind: "ring", N: n, Radius: 40, Alternate: true}, measure.Metric)
		require.NoError(t, err)
		taken := closed.Edits[0].Lay.Colourways
		for at := range n {
			assert.NotEqual(t, taken[at%len(taken)], taken[(at+1)%n%len(taken)], "%d of %d stand beside themselves", at, n)
		}
	}
	even, err := advise.LayMany(&p.Build, c.Elements[i].ID, advise.Many{Kind: "ring", N: ways, Radius: 30, Alternate: true}, measure.Metric)
	require.NoError(t, err)
	for _, n := range even.Notes {
		assert.NotContains(t, n, "side by side")
	}
	out, err := c.Apply(k, even.Edits...)
	require.NoError(t, err)
	seen := map[string]bool{}
	for _, e := range out.Elements[len(c.Elements):] {
		seen[e.Image.Colourway] = true
	}
	assert.Len(t, seen, ways-1, "each takes its turn")
}

// What is trimmed flush is remembered by where it lies: moved, and back again, it is what a
// planner that remembers nothing makes of it.
func TestFlushThingsAreTrimmedWhereTheyLie(t *testing.T) {
	t.Parallel()
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[5]
	warm := plan.NewPlanner()
	for _, dx := range []float64{0, 3, -6, 3} {
		if c, err = c.Apply(k, card.Edit{Move: &card.Move{Element: "s1", DX: dx}}); err != nil {
			t.Fatal(err)
		}
		a, b := warm.Of(c, k), plan.Of(c, k)
		panel := layout.Region(b.Build.Panel())
		over := 0
		for i, th := range b.Build.Things {
			assert.Equal(t, th.Outline.Path(), a.Build.Things[i].Outline.Path(), th.Name)
			assert.InDelta(t, th.Overhang, a.Build.Things[i].Overhang, 1e-9)
			for _, p := range b.Build.Pieces[th.From:th.To] {
				if th.Element.Flush {
					off, err := p.Outline.Minus(panel)
					require.NoError(t, err)
					assert.Less(t, off.Area(), 0.05, "%s, %s stands over", th.Name, p.ID.Part)
				}
			}
			if th.Overhang > 0 {
				over++
			}
		}
		assert.Positive(t, over)
	}
}
