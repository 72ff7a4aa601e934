package plan_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/work"
)

// at is the number of the first step with a verb, of an element where one is named; 0 for none.
func at(p plan.Plan, verb, element string) int {
	for _, a := range p.Steps {
		if a.ID.Verb == verb && (element == "" || a.ID.Element == element) {
			return a.Number
		}
	}
	return 0
}

// What is to be kept clear of its ground is printed first, dry, masked, and the ground inked then;
// what is not is printed over it. Common practice, no source.
func TestAMaskedPrintComesBeforeItsGround(t *testing.T) {
	t.Parallel()
	made := two(40, 70, func(c *card.Card, _ *kit.Kit) {
		for i := range c.Motifs[0].Layers {
			c.Motifs[0].Layers[i].Make = card.Printed
		}
		c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "one"}, "b": {Ink: "two"}}
		c.Elements[0].Sheet.Treatments = []card.Treatment{
			{Fade: &card.Fade{From: card.FromAll, Inks: []string{"mere-soft"}, Reach: 40}},
			{Bands: &card.Bands{Start: 0, Bands: []card.Band{{Ink: "mere-soft", W: 3}}}}}
	})
	c, k := made.c, made.k
	e := c.Elements[1].ID
	plain := warm.Of(c, k)
	assert.Zero(t, at(plain, work.Mask, ""), "nothing is masked where nobody wants it")
	c, err := c.Apply(k, card.Edit{Masked: &card.SetMasked{Element: e, Masked: true}})
	require.NoError(t, err)
	p := warm.Of(c, k)
	require.NotZero(t, at(p, work.Mask, e))
	assert.Less(t, at(p, work.Print, e), at(p, work.Mask, e))
	assert.Less(t, at(p, work.Mask, e), at(p, work.Blend, c.Elements[0].ID))
	masks, err := p.Build.Masks(0.4)
	require.NoError(t, err)
	require.Len(t, masks, 1)
	assert.Equal(t, []string{"the blend"}, masks[0].Over, "the bands run clear of it")
	c.Elements[0].Sheet.Treatments = c.Elements[0].Sheet.Treatments[1:]
	assert.Zero(t, at(warm.Of(c, k), work.Mask, ""), "and with nothing behind it there is no mask")
}

// Bare spots of a print stay covered by its mask: nobody cuts a dot out of one. A window of it is cut.
// Common practice, no source.
func TestAMaskHasNoSmallHoles(t *testing.T) {
	t.Parallel()
	holes := func(d float64) int {
		made := two(40, 70, func(c *card.Card, k *kit.Kit) {
			c.Motifs[0].Layers = c.Motifs[0].Layers[:1]
			c.Motifs[0].Layers[0].Make = card.Printed
			for i := range k.Sets {
				g, err := k.Sets[i].Parts[0].Outline.Minus(shape.Disc(k.Sets[i].Parts[0].Outline.Centroid(), d/2))
				require.NoError(t, err)
				k.Sets[i].Parts[0].Outline = g
			}
			c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "one"}}
			c.Elements[0].Sheet.Treatments = []card.Treatment{{Fade: &card.Fade{From: card.FromAll, Inks: []string{"mere-soft"}, Reach: 40}}}
			c.Elements[1].Image.Masked = true
		})
		p := warm.Of(made.c, made.k)
		masks, err := p.Build.Masks(0.4)
		require.NoError(t, err)
		require.Len(t, masks, 1)
		return len(masks[0].Region.Holes())
	}
	assert.Zero(t, holes(4))
	assert.Equal(t, 1, holes(12))
}

// A pencil over a print is an act of its own, once the print is dry, with its own words; dye that is
// dabbed on the stamp goes on with the stamp. Common practice, no source.
func TestAPencilOverAPrintIsNoStamp(t *testing.T) {
	t.Parallel()
	made := two(40, 70, func(*card.Card, *kit.Kit) {})
	c, k := made.c, made.k
	pencil, black := grey("pencil", 60), grey("black", 15)
	pencil.Kind, black.Kind = kit.Pencil, kit.Pigment
	k.Inks = append(k.Inks, pencil, black)
	for i := range c.Motifs[0].Layers {
		c.Motifs[0].Layers[i].Make = card.Printed
	}
	c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "one"}, "b": {Ink: "black", Blends: []card.Blend{{Ink: "pencil", Zone: card.AllOver}, {Ink: "one", Zone: card.Foot}}}}
	p := warm.Of(c, k)
	var print, over *work.Act
	for i := range p.Steps {
		a := &p.Steps[i]
		switch {
		case a.ID.Verb == work.Print && a.ID.Part == "b":
			print = a
		case a.ID.Verb == work.Blend:
			over = a
		}
	}
	require.NotNil(t, print)
	require.NotNil(t, over)
	assert.NotContains(t, print.Detail, "pencil")
	assert.Contains(t, print.Detail, "dabbed on the foot of the stamp")
	assert.Equal(t, work.InkAct, over.Kind)
	assert.Less(t, print.Number, over.Number)
	assert.Contains(t, strings.Join(over.Mind, " "), "draw them again")
	said := 0
	for _, f := range p.Findings {
		if f.Rule == "dulls" {
			said++
		}
	}
	assert.Equal(t, 1, said, "of its own black; once")
}

// A line print holds regions: each is found once, coloured by hand within its line with no stamp and
// no setting, and told where it has no colour, unless it is left bare on purpose.
func TestWhatLinesHoldIsColouredByHand(t *testing.T) {
	t.Parallel()
	made := two(40, 70, func(*card.Card, *kit.Kit) {})
	c, k := made.c, made.k
	body, err := shape.RingDisc(shape.Point{X: 20, Y: 20}, 18, 17.4).Union(shape.Rect(2.2, 19.8, 35.6, 0.5))
	require.NoError(t, err)
	lines, err := body.Union(shape.RingDisc(shape.Point{X: 20, Y: 10}, 4, 3.5))
	require.NoError(t, err)
	k.Sets[len(k.Sets)-1].Parts[0].Outline = lines
	m := c.Motifs[0].ID
	for i := range c.Motifs[0].Layers {
		c.Motifs[0].Layers[i].Make = card.Printed
	}
	c.Motifs[0].Layers = c.Motifs[0].Layers[:1]
	c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "one"}}
	c, err = c.Apply(k, card.Edit{Again: &card.Again{Motif: m, Layer: "a", Within: true}})
	require.NoError(t, err)
	held := c.Motifs[0].Layers[1:]
	require.Len(t, held, 3, "the halves and the disc in one of them")
	p := warm.Of(c, k)
	sum := 0.0
	for _, l := range p.Motifs[0].Layers[1:] {
		sum += l.Area
	}
	// Within a circle of 17.4 mm less the bar and the ring of 4 mm, in closed form.
	assert.InDelta(t, math.Pi*17.4*17.4-0.5*2*17.4-math.Pi*(16-3.5*3.5), sum, 1.5)
	_, err = c.Apply(k, card.Edit{Again: &card.Again{Motif: m, Layer: "a", Within: true}})
	require.Error(t, err, "they are layers already")
	open := func(c card.Card) (n int) {
		for _, f := range warm.Of(c, k).Findings {
			if f.Rule == "uncoloured" {
				n += int(f.Numbers["prints"])
			}
		}
		return n
	}
	assert.Equal(t, 3, open(c))
	c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "one"}, held[0].ID: {Ink: "two"}, held[1].ID: {Bare: true}}
	assert.Equal(t, 1, open(c), "one is coloured and one left bare on purpose")
	for _, a := range warm.Of(c, k).Steps {
		if a.ID.Part == held[0].ID {
			assert.Equal(t, work.InkAct, a.Kind)
			assert.Contains(t, a.Detail, "by hand")
			return
		}
	}
	t.Fatal("the region that has a colour is never coloured")
}

// A stencil over a line image colours between its lines: an opening there has a print beneath, and one
// beside it has none. Common practice, no source.
func TestAStencilOverLinesColoursBetweenThem(t *testing.T) {
	t.Parallel()
	made := two(40, 70, func(*card.Card, *kit.Kit) {})
	c, k := made.c, made.k
	k.Sets[len(k.Sets)-1].Parts[0].Outline = shape.RingDisc(shape.Point{X: 20, Y: 20}, 18, 17.4)
	opening, err := shape.Disc(shape.Point{X: 10}, 5).Union(shape.Disc(shape.Point{X: 50}, 5))
	require.NoError(t, err)
	k.Sets = append(k.Sets, kit.Set{ID: "dots", Name: "Dots", Kind: kit.StencilSet, Parts: []kit.Part{{ID: "two", Label: "Two", Outline: opening, Rank: 1, Order: 1, Copies: 1, Fit: kit.FitFree}}})
	c.Motifs[0].Layers = c.Motifs[0].Layers[:1]
	c.Motifs[0].Layers[0].Make = card.Printed
	c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "one"}}
	panel, image := c.Elements[0], c.Elements[1]
	whole := warm.Of(c, k).Build
	leaf := whole.Panel()
	at := card.Spot{X: image.Place.X - leaf.X - leaf.Size.W/2 + 20, Y: image.Place.Y - leaf.Y - leaf.Size.H/2}
	for x, misses := range map[float64]int{0: 1, -40: 1, 200: 0} {
		s := at
		s.X += x
		panel.Sheet.Treatments = []card.Treatment{{Stencil: &card.Stencil{Set: "dots", Part: "two", Ink: "one", Over: true, Spot: s}}}
		b := warm.Of(c, k).Build
		assert.Len(t, thingOf(t, b, panel.ID).Treated[0].Misses, misses, "laid %g mm along", x)
	}
}
