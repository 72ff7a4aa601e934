package plan_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
)

// lies tells which of two pieces lies lower.
func lies(b *build.Build, lower, upper build.ID) bool {
	at := func(id build.ID) int {
		return slices.IndexFunc(b.Upward(), func(i int) bool { return b.Pieces[i].ID == id })
	}
	return at(lower) < at(upper)
}

// One tuck that cannot be is left out; those that can, before and after it, are kept.
func TestATuckThatCannotBeHindersNoOther(t *testing.T) {
	c := trial.Woven()
	var img card.Element
	for _, e := range c.Elements {
		if e.Image != nil && img.ID == "" {
			img = e
		}
	}
	m, _ := c.Motif(img.Image.Motif)
	top := m.Layers[len(m.Layers)-1].ID
	strip := func(id string, dy float64) card.Element {
		return card.Element{ID: id, Name: id, Face: card.Front, On: img.On, Place: card.Place{X: img.Place.X, Y: img.Place.Y + dy}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "oat", W: 80, H: 8}}
	}
	// Two more strips that cross each other; the second cannot lie both over the first, and under
	// the part that lies under the first.
	c.Elements = append(c.Elements, strip("low", 2), strip("high", -2))
	for i := range c.Elements {
		if c.Elements[i].ID == img.ID {
			c.Elements[i].Tucks = []card.Tuck{{Part: top, With: "high"}, {Part: top, With: "low"}, {Part: top, With: "across"}}
		}
	}
	k := trial.Kit()
	all := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
	require.Empty(t, all.Build.Woven)
	// Without the tuck at "low" the part lies under low, low under high, high under the part.
	for i := range c.Elements {
		if c.Elements[i].ID == img.ID {
			c.Elements[i].Tucks = []card.Tuck{{Part: top, With: "high"}, {Part: top, With: "across"}}
		}
	}
	p := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
	require.Equal(t, []build.Weave{{Element: img.ID, Part: top, With: "high"}}, p.Build.Woven, "only that one goes in a circle")
	assert.False(t, lies(&p.Build, build.ID{Element: img.ID, Part: top}, build.ID{Element: "across"}), "the other is kept")
}

// With a stencil laid over an image the part that is tucked is the part that was named.
func TestATuckOnAStencilledImage(t *testing.T) {
	c, k := trial.Card("piece-on-print"), trial.Kit()
	panel, _ := c.Panel()
	at := slices.IndexFunc(c.Elements, func(e card.Element) bool { return e.Image != nil })
	e := c.Elements[at]
	m, _ := c.Motif(e.Image.Motif)
	piece := m.Layers[slices.IndexFunc(m.Layers, func(l card.Layer) bool { return l.Make == card.Cut })].ID
	for i := range c.Elements {
		if c.Elements[i].ID == panel {
			c.Elements[i].Sheet.Treatments = append(c.Elements[i].Sheet.Treatments, card.Treatment{Stencil: &card.Stencil{Set: "cloud", Part: "bank", Ink: "dusk-soft", Over: true, Spot: card.Spot{X: e.Place.X - c.Base.W/2, Y: e.Place.Y - c.Base.H/2}}})
		}
	}
	c.Elements = append(c.Elements, card.Element{ID: "over", Name: "Over", Face: card.Front, On: panel, Place: card.Place{X: e.Place.X + 12.6, Y: e.Place.Y}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "oat", W: 24, H: 60}})
	c.Elements[at].Tucks = []card.Tuck{{Part: piece, With: "over"}}
	p := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
	require.Empty(t, p.Failed)
	require.True(t, slices.ContainsFunc(p.Build.Pieces, func(q build.Piece) bool {
		return q.ID == build.ID{Element: e.ID, Part: build.StencilledPart}
	}), "the stencil leaves something on it")
	over := build.ID{Element: "over"}
	assert.True(t, lies(&p.Build, over, build.ID{Element: e.ID, Part: piece}), "the part that was named")
	for _, q := range p.Build.Pieces {
		if q.ID.Element == e.ID && q.Print() && q.Outline.Overlaps(p.Build.Pieces[len(p.Build.Pieces)-1].Outline) {
			assert.True(t, lies(&p.Build, q.ID, over), "%s stays beneath", q.ID.Part)
		}
	}
}

// A ribbon laid left for right and wrapped round the panel ends at the panel's edges.
func TestAMirroredRibbonEndsAtTheEdges(t *testing.T) {
	c, k := trial.Card("mats"), trial.Kit()
	panel, _ := c.Panel()
	c.Elements = append(c.Elements, card.Element{ID: "cord", Face: card.Front, On: panel, Place: card.Place{X: c.Base.W/2 - 20, Y: 40, Mirror: true}, Bonds: card.Glue(""),
		Ribbon: &card.Ribbon{W: 3, Thick: 0.5, Colour: "#c8b48c", Wrapped: true, Points: []card.Offset{{X: -120}, {X: 120, Y: 8}}}})
	p := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
	leaf := p.Build.Panel()
	on := shape.Rect(leaf.X, leaf.Y, leaf.Size.W, leaf.Size.H).Bounds()
	for _, q := range p.Build.Pieces {
		if q.ID.Element == "cord" {
			b := q.Outline.Bounds()
			assert.InDelta(t, on.Min.X, b.Min.X, 0.01)
			assert.InDelta(t, on.Max.X, b.Max.X, 0.01)
		}
	}
}

// Gems inside are drawn, and weigh on no front.
func TestGemsInsideAreDrawn(t *testing.T) {
	c, k := trial.Card("gems"), trial.Kit()
	n := 0
	for i := range c.Elements {
		if c.Elements[i].Gems != nil {
			c.Elements[i].Face, c.Elements[i].On = card.InsideRight, ""
			n = len(c.Elements[i].Gems.Places)
		}
	}
	require.Positive(t, n)
	p := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
	at := slices.IndexFunc(p.Front.Others, func(o plan.Other) bool { return len(o.Drawn) == n })
	require.GreaterOrEqual(t, at, 0, "%d of them", n)
	for _, d := range p.Front.Others[at].Drawn {
		assert.NotEmpty(t, d.Path)
	}
}
