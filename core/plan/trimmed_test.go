package plan_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
	"ochrestone/demo"
)

// overTheEdge is a card with a stamped image that hangs over the edge and is trimmed flush,
// with a stencil laid over it on the sheet beneath.
func overTheEdge(t *testing.T) card.Card {
	t.Helper()
	c := trial.Card("row")
	k := trial.Kit()
	panel, _ := c.Panel()
	way := c.Motifs[0].Colourways[0].ID
	c.Elements = append(c.Elements, card.Element{ID: "over", Face: card.Front, On: panel, Place: card.Place{X: 6, Y: 60}, Image: &card.Image{Motif: c.Motifs[0].ID, Colourway: way}})
	c, err := c.Apply(k,
		card.Edit{Treat: &card.Treat{Element: panel, Add: card.DidStencil}},
		card.Edit{Flush: &card.Flush{Elements: []string{"over"}, On: true}})
	require.NoError(t, err)
	p, _ := c.Element(panel)
	last := len(p.Sheet.Treatments) - 1
	s := *p.Sheet.Treatments[last].Stencil
	s.Set, s.Part, s.Ink, s.Over = "cloud", "bank", "dusk-soft", true
	s.X, s.Y = 6-c.Base.W/2, 60-c.Base.H/2
	c, err = c.Apply(k, card.Edit{Treat: &card.Treat{Element: panel, At: last, Treatment: &card.Treatment{Stencil: &s}}})
	require.NoError(t, err)
	return c
}

// What a stencil leaves on a trimmed image is a piece of it: with the stencil gone the image
// is trimmed by the pieces it has now, not by those remembered.
func TestATrimmedImageIsRememberedByItsPieces(t *testing.T) {
	c, k := overTheEdge(t), trial.Kit()
	m := plan.NewPlanner()
	with := m.Of(c, k, plan.Typeface(trial.Blocks{}))
	require.Empty(t, with.Failed)
	panel, _ := c.Panel()
	p, _ := c.Element(panel)
	off, err := c.Apply(k, card.Edit{Treat: &card.Treat{Element: panel, At: len(p.Sheet.Treatments) - 1, Drop: true}})
	require.NoError(t, err)
	warm := m.Of(off, k, plan.Typeface(trial.Blocks{}))
	cold := plan.Of(off, k, plan.Typeface(trial.Blocks{}))
	require.Empty(t, warm.Failed)
	assert.Less(t, len(warm.Build.Pieces), len(with.Build.Pieces), "the stencil left something on the image")
	require.Len(t, warm.Build.Pieces, len(cold.Build.Pieces))
	for i := range cold.Build.Pieces {
		assert.Equal(t, cold.Build.Pieces[i].Outline, warm.Build.Pieces[i].Outline)
	}
	assert.Equal(t, cold.Findings, warm.Findings)
}

// shaky is a typeface that falls over one word.
type shaky struct{ trial.Blocks }

func (s shaky) Line(text string, capital float64) ([]layout.SetLetter, float64) {
	if text == "fall" {
		panic("the letters fell over")
	}
	return s.Blocks.Line(text, capital)
}

// A card that cannot be worked out has a plan all the same, which says so, and takes no other
// card with it; what it said stays true when it is planned by a planner that knows it.
func TestACardThatCannotBeWorkedOut(t *testing.T) {
	c, k := trial.Card("row"), trial.Kit()
	panel, _ := c.Panel()
	bad, err := c.Apply(k, card.Edit{Treat: &card.Treat{Element: panel, Add: card.DidWords}})
	require.NoError(t, err)
	e, _ := bad.Element(panel)
	at := len(e.Sheet.Treatments) - 1
	w := *e.Sheet.Treatments[at].Words
	w.Text = "fall"
	bad, err = bad.Apply(k, card.Edit{Treat: &card.Treat{Element: panel, At: at, Treatment: &card.Treatment{Words: &w}}})
	require.NoError(t, err)
	m := plan.NewPlanner()
	for range 2 {
		p := m.Of(bad, k, plan.Typeface(shaky{}))
		require.NotEmpty(t, p.Failed)
		require.Len(t, p.Findings, 1)
		assert.Equal(t, "unplanned", p.Findings[0].Rule)
		assert.Contains(t, p.Trace, "the letters fell over")
		assert.NotNil(t, p.Steps)
		good := m.Of(c, k, plan.Typeface(shaky{}))
		assert.Empty(t, good.Failed)
		assert.Equal(t, plan.Of(c, k, plan.Typeface(trial.Blocks{})).Findings, good.Findings)
		sat := m.Sitting([]plan.Job{{Card: c}, {ID: "bad", Card: bad}}, k, plan.Did{}, plan.Typeface(shaky{}))
		assert.NotEmpty(t, sat.Steps, "the sitting of the others goes on")
	}
}

// What is trimmed or snipped off a part is off when its pads go on: they stand behind what is left.
func TestPadsStandBehindWhatIsLeft(t *testing.T) {
	t.Parallel()
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[5]
	held := map[string]bool{}
	for i := range c.Elements {
		if e := &c.Elements[i]; e.Flush && e.Image != nil {
			e.Bonds = []card.Bond{{Spacer: k.Spacers[0].ID}}
		}
	}
	i := slices.IndexFunc(c.Elements, func(e card.Element) bool { return e.Flush && e.Image != nil })
	c.Elements[i].Flush, c.Elements[i].Place.X, c.Elements[i].Place.Y = false, c.Base.W/2, c.Base.H/2
	c.Elements[i].Bonds = []card.Bond{{Spacer: k.Spacers[0].ID}}
	c.Elements[i].Snips = []card.Snip{{Off: shape.Rect(0, -60, 60, 120)}}
	p := plan.Of(c, k)
	require.Empty(t, p.Failed)
	for _, s := range p.Stood {
		for _, u := range s.Supports {
			if !u.Raised || s.Outline.Empty() {
				continue
			}
			held[s.ID.Element] = true
			off, err := u.Area.Minus(s.Outline)
			require.NoError(t, err)
			assert.Less(t, off.Area(), 0.01, "%v: a pad at %.1f, %.1f stands out", s.ID, u.Area.Centroid().X, u.Area.Centroid().Y)
		}
	}
	trimmed := 0
	for _, th := range p.Build.Things {
		if th.Overhang > 0 && held[th.Element.ID] {
			trimmed++
		}
	}
	assert.Positive(t, trimmed)
	assert.True(t, held[c.Elements[i].ID])
}
