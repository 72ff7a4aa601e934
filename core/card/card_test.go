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

// sheeted makes the first image a sheet of 50 by 40 mm.
func sheeted(s Sheet) func(*Card) {
	return func(c *Card) {
		s.W, s.H = 50, 40
		c.Elements[1].Image, c.Elements[1].Sheet = nil, &s
	}
}

func sound() Card {
	k := kit.Kit{Papers: []kit.Cardstock{{ID: "p", Kind: kit.PaperCard, GSM: 216}, {ID: "h", Kind: kit.PaperCard, GSM: 300}}, Envelopes: []kit.Envelope{{ID: "small", W: 50, H: 50}, {ID: "e", W: 112, H: 147}}}
	set := kit.Set{ID: "s", Name: "Set", Kind: kit.DieSet, Parts: []kit.Part{{ID: "a", Label: "A", Outline: shape.Rect(0, 0, 9, 9), Rank: 1, Copies: 1}, {ID: "b", Label: "B", Outline: shape.Rect(1, 1, 3, 3), Rank: 2, Copies: 1, Host: "a"}}}
	return New("Test", measure.Formats()[0], measure.FoldSide, k).AddSet(set, k).AddSet(set, k)
}

func TestNewCardIsSound(t *testing.T) {
	c := sound()
	require.NoError(t, c.Validate())
	assert.Equal(t, "h", c.Base.Paper, "the heavy card for the base")
	id, paper := c.Panel()
	assert.Equal(t, "panel", id)
	assert.Equal(t, "p", paper)
	assert.Equal(t, "e", c.Base.Envelope, "the first it fits")
	assert.Equal(t, []string{"m1", "m2"}, []string{c.Motifs[0].ID, c.Motifs[1].ID})
	assert.Equal(t, DarkGround, c.Motifs[0].School)
	leaves, err := c.Nest()
	require.NoError(t, err)
	assert.InDelta(t, 4*measure.Inch, leaves[0].Size.W, 1e-9, "1/8 in border: 4 x 5 1/4, common practice, no source")
	slim := New("S", measure.Formats()[1], measure.FoldTop, kit.Kit{})
	assert.Greater(t, slim.Base.W, slim.Base.H, "laid on its side")
}

// A nest balanced round an odd offcut (common practice, no source): 5 3/8 x 4 1/8 on the
// base, then 4 15/16 x 3 11/16, then 4 7/16 x 3 3/16.
func TestNestsOfMats(t *testing.T) {
	c := sound()
	c.Base.W, c.Base.H = 5.5*measure.Inch, 4.25*measure.Inch
	c.Elements = nil
	on := ""
	for i, b := range []float64{1.0 / 16, 7.0 / 32, 1.0 / 4} {
		id := string(rune('a' + i))
		c.Elements = append(c.Elements, Element{ID: id, Face: Front, On: on, Inset: Even(b * measure.Inch), Sheet: &Sheet{}})
		on = id
	}
	leaves, err := c.Nest()
	require.NoError(t, err)
	for i, want := range []measure.Size{{W: 5 + 3.0/8, H: 4 + 1.0/8}, {W: 4 + 15.0/16, H: 3 + 11.0/16}, {W: 4 + 7.0/16, H: 3 + 3.0/16}} {
		assert.InDelta(t, want.W*measure.Inch, leaves[i].Size.W, 1e-9)
		assert.InDelta(t, want.H*measure.Inch, leaves[i].Size.H, 1e-9)
	}
	// Off centre: what is beneath shows as said on each side.
	c.Elements[2].Inset = &Margins{Left: 1, Right: 2, Top: 3, Bottom: 4}
	leaves, err = c.Nest()
	require.NoError(t, err)
	assert.InDelta(t, leaves[1].X+1, leaves[2].X, 1e-9)
	assert.InDelta(t, leaves[1].Size.H-7, leaves[2].Size.H, 1e-9)
	c.Elements[1].Inset = Even(60)
	_, err = c.Nest()
	var mat *MatError
	require.ErrorAs(t, err, &mat)
	assert.Equal(t, "b", mat.ID)
	assert.Equal(t, "mat 2", mat.Name())
}

func TestEveryFaultIsNamedWithItsPlace(t *testing.T) {
	for want, spoil := range map[string]func(*Card){
		"version":                       func(c *Card) { c.Version = Version + 1 },
		"title":                         func(c *Card) { c.Title = "" },
		"base.w":                        func(c *Card) { c.Base.W = math.NaN() },
		"elements[0].inset: the border": func(c *Card) { c.Elements[0].Inset = Even(100) },
		"elements[0].inset":             func(c *Card) { c.Elements[0].Inset = Even(-1) },
		"elements[0].id":                func(c *Card) { c.Elements[0].ID = "" },
		"elements[1].inset":             func(c *Card) { c.Elements[1].Inset = Even(1) },
		"elements[1].on":                func(c *Card) { c.Elements[1].On = "e2" },
		"elements[1].face":              func(c *Card) { c.Elements[1].Face = "edge" },
		"elements[1].image.motif":       func(c *Card) { c.Elements[1].Image.Motif = "gone" },
		"elements[1].image.colourway":   func(c *Card) { c.Elements[1].Image.Colourway = "gone" },
		"elements[2].id":                func(c *Card) { c.Elements[2].ID = c.Elements[1].ID },
		"elements[1].place.x":           func(c *Card) { c.Elements[1].Place.X = math.Inf(1) },
		"elements[1].place.turn":        func(c *Card) { c.Elements[1].Place.Turn = 1e9 },
		"elements[1].sheet":             func(c *Card) { c.Elements[1].Image = nil },
		"elements[1]: is two kinds":     func(c *Card) { c.Elements[1].Sheet = &Sheet{W: 9, H: 9} },
		"elements[1].sheet.w":           func(c *Card) { c.Elements[1].Image, c.Elements[1].Sheet = nil, &Sheet{W: math.NaN(), H: 9} },
		"elements[1].sheet.trim":        func(c *Card) { c.Elements[1].Image, c.Elements[1].Sheet = nil, &Sheet{W: 9, H: 9, Trim: 4.5} },
		"elements[1].sheet.treatments[0].words.letter": func(c *Card) {
			c.Elements[1].Image, c.Elements[1].Sheet = nil, &Sheet{W: 9, H: 9, Treatments: []Treatment{{Words: &Words{}}}}
		},
		"elements[1].sheet.treatments[0].turned.turns": func(c *Card) {
			c.Elements[1].Image, c.Elements[1].Sheet = nil, &Sheet{W: 50, H: 50, Treatments: []Treatment{{Turned: &Turned{Motif: "m1", Colourways: []string{"w1"}, Start: 1}}}}
		},
		"elements[1].sheet.shape.kind":                       sheeted(Sheet{Shape: &Outline{Kind: "heptagon"}}),
		"elements[1].sheet.shape.part":                       sheeted(Sheet{Shape: &Outline{Kind: DiePart}}),
		"elements[1].sheet.shape.sides":                      sheeted(Sheet{Shape: &Outline{Kind: Wavy, Sides: []Side{"north"}}}),
		"elements[1].sheet.openings[0].w":                    sheeted(Sheet{Openings: []Opening{{Outline: Outline{Kind: Oval}, W: -3, H: 4}}}),
		"elements[1].sheet.openings[0].x":                    sheeted(Sheet{Openings: []Opening{{Outline: Outline{Kind: Oval}, W: 3, H: 4, X: 1e6}}}),
		"elements[1].sheet.flap.depth":                       sheeted(Sheet{Flap: &Flap{Side: TopSide}}),
		"elements[1].sheet.treatments[0]: is two treatments": sheeted(Sheet{Treatments: []Treatment{{Edged: &Edged{W: 1}, Words: &Words{Letter: 3}}}}),
		"elements[1].sheet.treatments[0].fade.from":          sheeted(Sheet{Treatments: []Treatment{{Fade: &Fade{From: "somewhere", Inks: []string{"i"}, Reach: 5}}}}),
		"elements[1].sheet.treatments[0].fade.inks":          sheeted(Sheet{Treatments: []Treatment{{Fade: &Fade{From: FromFoot, Reach: 5}}}}),
		"elements[1].sheet.treatments[0].print.motif":        sheeted(Sheet{Treatments: []Treatment{{Print: &Print{Motif: "gone", Colourways: []string{"w1"}}}}}),
		"elements[1].sheet.treatments[0].bands.bands[1].w":   sheeted(Sheet{Treatments: []Treatment{{Bands: &Bands{Bands: []Band{{W: 5}, {W: math.NaN()}}}}}}),
		"elements[1].sheet.treatments[0].stencil.part":       sheeted(Sheet{Treatments: []Treatment{{Stencil: &Stencil{Set: "s"}}}}),
		"elements[1].sheet.treatments[0].splash.drops":       sheeted(Sheet{Treatments: []Treatment{{Splash: &Splash{Size: 1}}}}),
		"elements[1].sheet.treatments[0].stroke.points":      sheeted(Sheet{Treatments: []Treatment{{Stroke: &Stroke{W: 1, Points: []Offset{{}}}}}}),
		"elements[1].sheet.treatments[0].pressed.pitch":      sheeted(Sheet{Treatments: []Treatment{{Pressed: &Pressed{Relief: Ribs, Pitch: 0.2}}}}),
		"elements[1].sheet.treatments[0].edged.w":            sheeted(Sheet{Treatments: []Treatment{{Edged: &Edged{}}}}),
		"elements[1].sheet.treatments[0].glaze.kind":         sheeted(Sheet{Treatments: []Treatment{{Glaze: &Glaze{}}}}),
		"elements[1].letters.text":                           func(c *Card) { c.Elements[1].Image, c.Elements[1].Letters = nil, &Letters{Size: 10} },
		"elements[1].letters.plies": func(c *Card) {
			c.Elements[1].Image, c.Elements[1].Letters = nil, &Letters{Text: "a", Size: 10, Plies: 9}
		},
		"elements[1].letters.size":   func(c *Card) { c.Elements[1].Image, c.Elements[1].Letters = nil, &Letters{Text: "a", Size: -1} },
		"elements[1].tucks[0].with":  func(c *Card) { c.Elements[1].Tucks = []Tuck{{Part: "a", With: "nobody"}} },
		"base.leaf.kind":             func(c *Card) { c.Base.Leaf = &Outline{Kind: "heptagon"} },
		"base.short":                 func(c *Card) { c.Base.Short = 500 },
		"base.pocket":                func(c *Card) { c.Base.Make, c.Base.Pocket = Holder, 500 },
		"motifs[0].layers[1].id":     func(c *Card) { c.Motifs[0].Layers[1].ID = c.Motifs[0].Layers[0].ID },
		"motifs[0].colourways[0].id": func(c *Card) { c.Motifs[0].Colourways[0].ID = "" },
		"motifs[1].id":               func(c *Card) { c.Motifs[1].ID = "" },
		"elements: at most":          func(c *Card) { c.Elements = make([]Element, MaxElements+1) },
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
