package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/work"
)

// kept says of the larger of two discs that a square in its upper half, 8 by 8 mm, stays as its card is.
func kept(by card.Parting, change func(*card.Card, *kit.Kit)) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		square := []card.Offset{{X: 16, Y: 1}, {X: 24, Y: 1}, {X: 24, Y: 9}, {X: 16, Y: 9}, {X: 16, Y: 1}}
		out, err := c.Apply(*k, card.Edit{Again: &card.Again{Motif: c.Motifs[0].ID, Layer: "a", Region: &card.Region{By: by, Line: square}}})
		if err != nil {
			panic(err)
		}
		*c = out
		if change != nil {
			change(c, k)
		}
	}
}

// ownPiece lays a piece with a die of its own, cut from the bare card, over what is kept.
func ownPiece(c *card.Card, k *kit.Kit) {
	s := &k.Sets[len(k.Sets)-1]
	s.Parts = append(s.Parts, kit.Part{ID: "breast", Label: "Breast", Outline: shape.Rect(15.9, 0.9, 8.2, 8.2), Rank: 3, Copies: 1, Host: "a"})
	m := &c.Motifs[0]
	m.Layers = append(m.Layers, card.Layer{ID: "breast", Part: "breast", Label: "Breast", Make: card.Cut, Rank: 3, Fit: kit.FitFree, Copies: 1, Bonds: card.Glue("liquid"), On: "a"})
	m.Colourways[0].Layers["breast"] = card.Finish{Paper: "chalk"}
}

func ruled(p plan.Plan, rule string) *foresee.Finding {
	for i := range p.Findings {
		if p.Findings[i].Rule == rule {
			return &p.Findings[i]
		}
	}
	return nil
}

// What is to stay as it is has the colour of the bare card, whatever the piece is inked with, and so has
// the touch between both. It takes no ink, no step, and is no print that lacks one. Common practice, no
// source.
func TestARegionStaysAsItIs(t *testing.T) {
	t.Parallel()
	on := two(40, 70, kept(card.Kept, nil))
	p := warm.Of(on.c, on.k)
	layer, ok := p.Motifs[0].Colourways[0].Of(on.c.Motifs[0].Layers[1].ID)
	require.True(t, ok)
	paper, _ := on.k.Paper("chalk")
	assert.Equal(t, strings.ToLower(paper.Colour), layer.Dry)
	assert.Zero(t, p.Motifs[0].Colourways[0].Prints, "it is no print")
	for _, pair := range p.Motifs[0].Colourways[0].Pairs {
		if pair.A == "a" && pair.B == layer.ID {
			inked, err := colour.ParseHex(p.Motifs[0].Colourways[0].Layers[0].Dry)
			require.NoError(t, err)
			bare, err := colour.ParseHex(paper.Colour)
			require.NoError(t, err)
			assert.InDelta(t, colour.Difference(inked.Lab(), bare.Lab()), pair.Diff, 0.3)
		}
	}
	f := ruled(p, "spared")
	require.NotNil(t, f)
	assert.InDelta(t, 2, f.Numbers["cuts"], 0)
	assert.InDelta(t, 64, f.Numbers["area"], 0.1, "8 by 8 mm")
	assert.Nil(t, ruled(p, "uncoloured"))
	for _, s := range p.Steps {
		assert.NotEqual(t, layer.ID, s.ID.Part, s.Title)
	}
	bare := two(40, 70, kept(card.Kept, func(c *card.Card, _ *kit.Kit) {
		c.Motifs[0].Colourways[0].Layers["a"] = card.Finish{Paper: "oat"}
	}))
	assert.Nil(t, ruled(warm.Of(bare.c, bare.k), "spared"), "what is not inked stays as it is by itself")
}

// Covered, it has a mask as large as itself, which the step that inks the piece says to lay on and to
// take off; it is cut once. Cut twice, it is in the cut list with the die of the whole.
func TestAKeptRegionIsCoveredOrCutTwice(t *testing.T) {
	t.Parallel()
	on := two(40, 70, kept(card.Kept, nil))
	f := ruled(warm.Of(on.c, on.k), "spared")
	require.NotNil(t, f)
	cuts := func(p plan.Plan) (n int) {
		for _, c := range p.Build.Cuts() {
			if c.Motif != "" {
				n += c.N
			}
		}
		return n
	}
	c, err := on.c.Apply(on.k, f.Mend.Edits...)
	require.NoError(t, err)
	p := warm.Of(c, on.k)
	assert.Nil(t, ruled(p, "spared"))
	assert.Equal(t, 2, cuts(p), "each disc once")
	masks, err := p.Build.Masks(0.4)
	require.NoError(t, err)
	require.Len(t, masks, 1)
	assert.InDelta(t, 64, masks[0].Region.Area(), 0.1)
	assert.Equal(t, []string{"Big"}, masks[0].Over)
	ink := ""
	for _, s := range p.Steps {
		if s.ID.Verb == work.Ink && s.ID.Part == "a" {
			ink = s.Detail
		}
	}
	assert.Contains(t, ink, "First cover Big, kept as it is with its mask")
	assert.Contains(t, ink, "take it off straight up")

	l := c.Motifs[0].Layers[1]
	l.Region = &card.Region{By: card.CutTwice, Line: l.Region.Line}
	twice, err := c.Apply(on.k, card.Edit{Layer: &card.SetLayer{Motif: c.Motifs[0].ID, Layer: l}})
	require.NoError(t, err)
	assert.Equal(t, card.Cut, twice.Motifs[0].Layers[1].Make, "it is a piece of card now")
	assert.Equal(t, "chalk", twice.Motifs[0].Colourways[0].Layers[l.ID].Paper, "of the piece's own card")
	p = warm.Of(twice, on.k)
	assert.Equal(t, 3, cuts(p))
	assert.Nil(t, ruled(p, "spared"))

	l = twice.Motifs[0].Layers[1]
	l.Region = &card.Region{By: card.Covered, Line: l.Region.Line}
	back, err := twice.Apply(on.k, card.Edit{Layer: &card.SetLayer{Motif: c.Motifs[0].ID, Layer: l}})
	require.NoError(t, err)
	assert.Equal(t, c.Motifs[0].Layers[1], back.Motifs[0].Layers[1], "and back again")
	assert.Equal(t, card.Finish{}, back.Motifs[0].Colourways[0].Layers[l.ID])
}

// A stamped layer is covered where it is to stay as the paper is: there is no piece to be cut again.
func TestARegionOfAPrintStaysAsItIs(t *testing.T) {
	t.Parallel()
	on := two(40, 70, func(c *card.Card, k *kit.Kit) {
		for i := range c.Motifs[0].Layers {
			c.Motifs[0].Layers[i].Make = card.Printed
		}
		c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "one"}, "b": {Ink: "two"}}
		kept(card.Kept, nil)(c, k)
	})
	p := warm.Of(on.c, on.k)
	f := ruled(p, "spared")
	require.NotNil(t, f)
	assert.InDelta(t, 1, f.Numbers["cuts"], 0)
	assert.NotContains(t, f.Do, "second time")
	layer, _ := p.Motifs[0].Colourways[0].Of(on.c.Motifs[0].Layers[1].ID)
	paper, _ := on.k.Paper("rosehip")
	assert.Equal(t, strings.ToLower(paper.Colour), layer.Dry, "as the panel beneath it")
	c, err := on.c.Apply(on.k, f.Mend.Edits...)
	require.NoError(t, err)
	for _, s := range warm.Of(c, on.k).Steps {
		if s.ID.Verb == work.Print && s.ID.Part == "a" {
			assert.Contains(t, s.Detail, "First cover")
		}
	}
	l := c.Motifs[0].Layers[1]
	l.Region = &card.Region{By: card.CutTwice, Line: l.Region.Line}
	_, err = c.Apply(on.k, card.Edit{Layer: &card.SetLayer{Motif: c.Motifs[0].ID, Layer: l}})
	assert.Error(t, err, "a print is not cut twice")
}

// Another size of a sheet is another die of its set; one that is not there is told of with the larger one
// that it can be cut from, and one that is no die's is told of with what there is.
func TestASheetIsAsLargeAsItsDie(t *testing.T) {
	t.Parallel()
	on := foreseenSheets(t)["die size"].not
	resize := func(size float64, lost bool) plan.Plan {
		k := on.k
		k.Sets = append([]kit.Set{}, k.Sets...)
		s := &k.Sets[len(k.Sets)-1]
		s.Parts = append([]kit.Part{}, s.Parts...)
		s.Parts[0].Missing = lost
		e, _ := on.c.Element("square")
		sheet := *e.Sheet
		sheet.W, sheet.H = size, size
		c, err := on.c.Apply(k, card.Edit{Sheet: &card.SetSheet{Element: "square", Sheet: &sheet}})
		require.NoError(t, err)
		return warm.Of(c, k)
	}
	p := resize(60, false)
	e, _ := p.Build.Card.Element("square")
	assert.Equal(t, "large", e.Sheet.Shape.Part)
	assert.Nil(t, ruled(p, "die size"))
	assert.InDelta(t, 60, thingOf(t, p.Build, "square").Whole.Bounds().W(), 0.01)

	lost := ruled(resize(60, true), "die lost")
	require.NotNil(t, lost)
	assert.NotContains(t, lost.Do, "trim that down", "none is larger")
	f := ruled(resize(50, false), "die size")
	require.NotNil(t, f)
	assert.Contains(t, f.Do, "large", "the next larger is trimmed down")
	assert.InDelta(t, 50, f.Numbers["w"], 0)
	assert.InDelta(t, 40, f.Numbers["cut w"], 0.01)
}

// What is kept as it is, is meant to stand out: a dark detail on it does not jar. Common practice, no source.
func TestADetailOnWhatIsKeptDoesNotJar(t *testing.T) {
	t.Parallel()
	speck := func(by card.Parting) on {
		return two(20, 60, func(c *card.Card, k *kit.Kit) {
			k.Sets[len(k.Sets)-1].Parts[1].Outline = shape.Rect(18, 3, 4, 4)
			kept(by, nil)(c, k)
			l := c.Motifs[0].Layers
			l[2].On = l[1].ID
			c.Motifs[0].Colourways[0].Layers["b"] = card.Finish{Paper: "chalk", Ink: "one"}
			c.Motifs[0].Colourways[0].Layers["a"] = card.Finish{Paper: "chalk", Ink: "two"}
			if by == card.Masked {
				k.Inks = append(k.Inks, grey("pale", 97))
				c.Motifs[0].Colourways[0].Layers[l[1].ID] = card.Finish{Ink: "pale"}
			}
		})
	}
	meant, inked := speck(card.Covered), speck(card.Masked)
	assert.Nil(t, ruled(warm.Of(meant.c, meant.k), "jars"))
	assert.NotNil(t, ruled(warm.Of(inked.c, inked.k), "jars"), "in an ink nearly as pale it does")
}

// A piece that is only cut is taken out of its sheet at once, with what its openings hold; one that is
// coloured in any way waits in its sheet and is popped out when it is dry. Common practice, no source.
func TestWhatIsOnlyCutIsTakenOutAtOnce(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct {
		finish   card.Finish
		opening  bool
		says     string
		poppedIn bool
	}{
		"only cut":     {card.Finish{Paper: "chalk"}, false, "Take it out of the sheet.", false},
		"an opening":   {card.Finish{Paper: "chalk"}, true, "Take it out of the sheet. Push the waste out from behind.", false},
		"inked":        {card.Finish{Paper: "chalk", Ink: "loam"}, false, "Leave the piece in its sheet", true},
		"its edge":     {card.Finish{Paper: "chalk", Edge: "loam"}, false, "Leave the piece in its sheet", true},
		"its back":     {card.Finish{Paper: "chalk", Back: "loam"}, false, "Leave the piece in its sheet", true},
		"only blended": {card.Finish{Paper: "chalk", Blends: []card.Blend{{Ink: "loam", Zone: card.Rim}}}, true, "Leave the piece in its sheet", true},
	} {
		on := two(40, 70, func(cd *card.Card, k *kit.Kit) {
			m := &cd.Motifs[0]
			m.Colourways[0].Layers["a"] = c.finish
			if c.opening {
				s := &k.Sets[len(k.Sets)-1]
				s.Parts[0].Outline, _ = s.Parts[0].Outline.Minus(shape.Rect(2, 14, 3, 3))
			}
		})
		p := warm.Of(on.c, on.k)
		cut, popped := "", false
		for _, a := range p.Steps {
			if a.ID.Verb == work.Cut && a.ID.Part == "a" {
				cut = a.Detail
			}
			popped = popped || a.Kind == work.PopAct && strings.Contains(a.Title+a.Detail, "Big")
		}
		assert.Contains(t, cut, c.says, name)
		assert.Equal(t, c.poppedIn, popped, name)
	}
}
