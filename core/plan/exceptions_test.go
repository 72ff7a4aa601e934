package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Each exception within a rule: what the rule looks for is there but for one thing, and it is silent;
// without that thing it is not. Common practice, no source.
func TestExceptionsWithinTheRules(t *testing.T) {
	t.Parallel()
	alike := func(second shape.Region) func(*card.Card, *kit.Kit) {
		return func(c *card.Card, k *kit.Kit) {
			s := &k.Sets[len(k.Sets)-1]
			s.Parts[0].Outline, s.Parts[1].Outline, s.Parts[1].Host = shape.Rect(0, 0, 14, 30), second, ""
			c.Motifs[0].Colourways[0].Layers["b"] = c.Motifs[0].Colourways[0].Layers["a"]
		}
	}
	bare := func(paper string) func(*card.Card, *kit.Kit) {
		return func(c *card.Card, _ *kit.Kit) {
			c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Paper: paper}, "b": {Paper: paper}}
		}
	}
	onGrey := func(c *card.Card, k *kit.Kit) {
		n := len(k.Inks)
		k.Inks[n-2].Dry, k.Inks[n-1].Dry = colour.Lab{L: 50, A: 45, B: 10}.Linear().Hex(), colour.Lab{L: 50, A: -30, B: 10}.Linear().Hex()
	}
	unlike := func(bonds ...[]card.Bond) on { return two(40, 70, fourOf(bonds...)) }
	foam, glue := card.Foam("foam", 1), card.Glue("liquid")
	// A frame on a leaf of a paper that is held by tape.
	frame := func(paper kit.PaperKind, gsm float64, with []card.Bond) on {
		return two(40, 70, func(c *card.Card, k *kit.Kit) {
			c.Elements = c.Elements[:1]
			k.Papers = append(k.Papers, kit.Cardstock{ID: "leaf", Name: "Leaf", Kind: paper, Colour: "#eeeeee", GSM: gsm, Caliper: 0.1, Sheets: 9, W: 215.9, H: 279.4})
			k.Adhesives = []kit.Adhesive{{ID: "wet", Name: "Wet", Kind: "liquid", Thickness: 0.02}, {ID: "dry", Name: "Dry", Kind: "tape runner"}}
			laid(c, "leaf", 0, 0, card.Sheet{Paper: "leaf", W: 80, H: 80}).Bonds = card.Glue("dry")
			e := laid(c, "frame", 0, 0, card.Sheet{Paper: "oat", W: 60, H: 60})
			e.Bonds, e.On = with, "leaf"
		})
	}
	for _, c := range []struct {
		what, rule string
		card       on
		found      bool
	}{
		{"two halves of one shape in one ink are meant as one", "one", two(40, 70, alike(shape.Rect(14, 0, 14, 30))), false},
		{"two of different shapes are not", "one", two(40, 70, alike(shape.Rect(14, 0, 20, 30))), true},
		{"coloured card is a colour", "noink", two(40, 70, bare("rosehip")), false},
		{"white card is none yet", "noink", two(40, 70, bare("chalk")), true},
		{"a pair lost on a grey copy alone is lost to nobody", "hue", two(40, 70, onGrey), false},
		{"one raised among glued ones is meant", "unlike", unlike(glue, glue, glue, foam), false},
		{"what is glued wet on vellum ripples it", "ripples", frame(kit.PaperVellum, 110, card.Glue("wet")), true},
		{"taped on it does not", "ripples", frame(kit.PaperVellum, 110, card.Glue("dry")), false},
		{"thin paper that is taped down bears it", "ripples", frame(kit.PaperPatterned, 100, card.Glue("wet")), false},
		{"raised ones at two heights are meant", "unlike", unlike(foam, foam, card.Foam("foam", 2), glue), false},
	} {
		_, found := c.card.foretold()[c.rule]
		assert.Equal(t, c.found, found, "%s: %s", c.rule, c.what)
	}
}

// A cord that lies across a stalk's end hides nothing of it, and what is trimmed at an edge stands where
// the edge is.
func TestNoEndIsHiddenByACordAndNoTrimmingIsOffTheMiddle(t *testing.T) {
	cord := func(sheet bool) on {
		return bare(func(c *card.Card, _ *kit.Kit) {
			laid(c, "stalk", 0, -8, card.Sheet{Paper: "oat", W: 2, H: 40})
			if sheet {
				laid(c, "vase", 0, 8, card.Sheet{Paper: "oat", W: 30, H: 5})
				return
			}
			c.Elements = append(c.Elements, card.Element{ID: "cord", Face: card.Front, On: "panel", Place: card.Place{X: c.Base.W / 2, Y: c.Base.H/2 + 8}, Bonds: card.Glue("liquid"),
				Ribbon: &card.Ribbon{W: 5, Thick: 0.4, Colour: "#804040", Points: []card.Offset{{X: -20}, {X: 20}}}})
		})
	}
	_, told := cord(true).foretold()["past"]
	assert.True(t, told, "behind a sheet")
	_, told = cord(false).foretold()["past"]
	assert.False(t, told, "behind a cord")
	hill := func(flush bool) on {
		return bare(func(c *card.Card, _ *kit.Kit) {
			e := laid(c, "hill", 1, c.Base.H/2, card.Sheet{Paper: "oat", W: 40, H: 30})
			e.Flush = flush
		})
	}
	_, told = hill(false).foretold()["nearly"]
	assert.True(t, told)
	_, told = hill(true).foretold()["nearly"]
	assert.False(t, told)
}

// What hangs so far over that the panel no longer carries it is moved in onto the panel with one mend: not
// onto the card front, where it would hang over the panel's edge.
func TestWhatHangsFarOverIsMovedInAtOnce(t *testing.T) {
	t.Parallel()
	for name, past := range map[string]float64{"a little": -15, "half": 0, "on the border of the card": 13} {
		at := two(40, 70, func(c *card.Card, k *kit.Kit) {
			matted, err := c.Apply(*k, card.Edit{AddMat: &card.AddMat{}})
			require.NoError(t, err)
			*c = matted
			c.Elements[len(c.Elements)-1].Place.X = c.Base.W + past
		})
		over := ruled(warm.Of(at.c, at.k), "edge")
		require.NotNil(t, over, name)
		require.NotNil(t, over.Mend, name)
		c, err := at.c.Apply(at.k, over.Mend.Edits...)
		require.NoError(t, err, name)
		assert.Nil(t, ruled(warm.Of(c, at.k), "edge"), name)
	}
}
