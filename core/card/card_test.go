package card

import (
	"errors"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

func sound() Card {
	k := kit.Kit{Papers: []kit.Cardstock{{ID: "p", Kind: kit.PaperCard, GSM: 216}, {ID: "h", Kind: kit.PaperCard, GSM: 300}}, Envelopes: []kit.Envelope{{ID: "small", W: 50, H: 50}, {ID: "e", W: 112, H: 147}}}
	set := kit.Set{ID: "s", Name: "Set", Kind: kit.DieSet, Parts: []kit.Part{{ID: "a", Label: "A", Outline: shape.Rect(0, 0, 9, 9), Rank: 1, Copies: 1}, {ID: "b", Label: "B", Outline: shape.Rect(1, 1, 3, 3), Rank: 2, Copies: 1, Host: "a"}}}
	return New("Test", measure.Formats()[0], measure.FoldSide, k).AddSet(set, k).AddSet(set, k)
}

func TestNewCardIsSound(t *testing.T) {
	c := sound()
	require.NoError(t, c.Validate())
	assert.Equal(t, "h", c.Base.Paper, "the heavy card for the base")
	assert.Equal(t, "p", c.Sheets[0].Paper)
	assert.Equal(t, "e", c.Base.Envelope, "the first it fits")
	assert.Equal(t, []string{"m1", "m2"}, []string{c.Motifs[0].ID, c.Motifs[1].ID})
	assert.Equal(t, DarkGround, c.Motifs[0].School)
	panel, _, err := c.Panel()
	require.NoError(t, err)
	assert.InDelta(t, 4*measure.Inch, panel.W, 1e-9, "1/8 in border: 4 x 5 1/4, common practice, no source")
	slim := New("S", measure.Formats()[1], measure.FoldTop, kit.Kit{})
	assert.Greater(t, slim.Base.W, slim.Base.H, "laid on its side")
}

func TestEveryFaultIsNamedWithItsPlace(t *testing.T) {
	for want, spoil := range map[string]func(*Card){
		"version":                      func(c *Card) { c.Version = Version + 1 },
		"title":                        func(c *Card) { c.Title = "" },
		"base.w":                       func(c *Card) { c.Base.W = math.NaN() },
		"sheets[0].border: the border": func(c *Card) { c.Sheets[0].Border = 100 },
		"sheets[0].border":             func(c *Card) { c.Sheets[0].Border = -1 },
		"elements[0].motif":            func(c *Card) { c.Elements[0].Motif = "gone" },
		"elements[0].colourway":        func(c *Card) { c.Elements[0].Colourway = "gone" },
		"elements[1].id":               func(c *Card) { c.Elements[1].ID = c.Elements[0].ID },
		"elements[0].x":                func(c *Card) { c.Elements[0].X = math.Inf(1) },
		"elements[0].turn":             func(c *Card) { c.Elements[0].Turn = 1e9 },
		"elements[0].kind":             func(c *Card) { c.Elements[0].Kind = "ribbon" },
		"elements[0].strip":            func(c *Card) { c.Elements[0].Kind = StripElement },
		"motifs[0].layers[1].id":       func(c *Card) { c.Motifs[0].Layers[1].ID = c.Motifs[0].Layers[0].ID },
		"motifs[0].colourways[0].id":   func(c *Card) { c.Motifs[0].Colourways[0].ID = "" },
		"motifs[1].id":                 func(c *Card) { c.Motifs[1].ID = "" },
		"elements":                     func(c *Card) { c.Elements = make([]Element, MaxElements+1) },
	} {
		c := sound()
		spoil(&c)
		err := c.Validate()
		var p kit.Problem
		require.True(t, errors.As(err, &p), want)
		assert.True(t, strings.HasPrefix(err.Error(), want) || strings.Contains(err.Error(), "\n"+want), "%s: %v", want, err)
	}
}

func TestKitItemsNameTheirFaults(t *testing.T) {
	bad := 2.0
	for want, err := range map[string]error{
		"name":             kit.Ink{Kind: kit.Dye, Dry: "#112233"}.Validate(),
		"dry":              kit.Ink{Name: "x", Kind: kit.Dye}.Validate(),
		"wet":              kit.Ink{Name: "x", Kind: kit.Dye, Wet: "blue"}.Validate(),
		"kind":             kit.Ink{Name: "x", Kind: "tar", Dry: "#112233"}.Validate(),
		"hide":             kit.Ink{Name: "x", Kind: kit.Dye, Dry: "#112233", Hide: &bad}.Validate(),
		"colour":           kit.Cardstock{Name: "x", GSM: 200, Caliper: 0.3}.Validate(),
		"caliper":          kit.Cardstock{Name: "x", Colour: "#ffffff", GSM: 200}.Validate(),
		"gsm":              kit.Cardstock{Name: "x", Colour: "#ffffff", Caliper: 0.3}.Validate(),
		"thickness":        kit.Spacer{Name: "x"}.Validate(),
		"w":                kit.Envelope{Name: "x"}.Validate(),
		"parts":            kit.Set{Name: "x"}.Validate(),
		"parts[0].outline": kit.Set{Name: "x", Parts: []kit.Part{{ID: "a", Rank: 1, Copies: 1}}}.Validate(),
		"parts[0].host":    kit.Set{Name: "x", Parts: []kit.Part{{ID: "a", Rank: 1, Copies: 1, Outline: shape.Rect(0, 0, 1, 1), Host: "a"}}}.Validate(),
		"parts[0].copies":  kit.Set{Name: "x", Parts: []kit.Part{{ID: "a", Rank: 1, Outline: shape.Rect(0, 0, 1, 1)}}}.Validate(),
	} {
		require.Error(t, err, want)
		assert.True(t, strings.HasPrefix(err.Error(), want+": "), "%s: %v", want, err)
	}
	assert.NoError(t, kit.Adhesive{Name: "Glue", Thickness: 0.02}.Validate())
	assert.True(t, kit.Ink{Kind: kit.Pigment}.Heat())
	assert.False(t, kit.Cardstock{Kind: kit.PaperVellum}.Opaque())
}
