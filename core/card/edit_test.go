package card

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

func stores() kit.Kit {
	return kit.Kit{
		Papers:    []kit.Cardstock{{ID: "v", Kind: kit.PaperVellum}, {ID: "p", Kind: kit.PaperCard, GSM: 216}, {ID: "h", Kind: kit.PaperCard, GSM: 300}},
		Inks:      []kit.Ink{{ID: "pale", Kind: kit.Dye, Dry: "#dddddd"}, {ID: "gone", Kind: kit.Dye, Dry: "#000000", Gone: true}, {ID: "deep", Kind: kit.Dye, Dry: "#222222"}},
		Adhesives: []kit.Adhesive{{ID: "liquid"}},
		Sets:      []kit.Set{{ID: "stamp", Name: "Stamp", Kind: kit.StampSet, Parts: []kit.Part{{ID: "x", Label: "X", Outline: shape.Rect(0, 0, 30, 20), Rank: 1, Copies: 1}}}},
	}
}

// edited makes edits that have to succeed.
func edited(t *testing.T, c Card, edits ...Edit) Card {
	t.Helper()
	out, err := c.Apply(stores(), edits...)
	require.NoError(t, err)
	return out
}

// Laid again and again from the same one, no two lie on the same spot.
func TestEachRepeatIsSeen(t *testing.T) {
	c := sound()
	got := edited(t, c, Edit{Repeat: &Repeat{"e1"}}, Edit{Repeat: &Repeat{"e1"}}, Edit{Repeat: &Repeat{"e1"}})
	at := map[[2]float64]int{}
	for _, e := range got.Elements {
		if _, before := c.Element(e.ID); !before {
			at[[2]float64{e.Place.X, e.Place.Y}]++
		}
	}
	assert.Len(t, at, 3)
}

func TestEditsChangeWhatTheySay(t *testing.T) {
	c := sound()
	before, _ := json.Marshal(c)
	five := 5.0
	foot := measure.FoldTop
	none := ""
	got := edited(t, c,
		Edit{Rename: &Rename{"  Another "}},
		Edit{Base: &SetBase{Fold: &foot, Envelope: &none}},
		Edit{Move: &Move{Element: "e1", DX: 2, DY: -3, Turn: 350}},
		Edit{Put: &Put{Element: "e2", X: &five}},
		Edit{Hold: &Hold{Element: "e2", Bonds: Foam("foam", 2)}},
		Edit{Hold: &Hold{Motif: "m1", Layer: "b", Bonds: nil}},
		Edit{School: &SetSchool{Motif: "m1", School: LocalColour}},
		Edit{Finish: &SetFinish{"m1", "w1", map[string]Finish{"b": {Paper: "p", Ink: "deep"}}}},
		Edit{CopyColourway: &CopyColourway{"m1", "w1"}},
		Edit{Recolour: &Recolour{map[string]string{"e1": "w2"}}},
		Edit{Repeat: &Repeat{"e1"}},
		Edit{SetAside: &Aside{Finding: "f", Cause: "c", Reason: " "}},
		Edit{Order: &Reorder{[]Step{{Verb: "cut", Element: "panel"}}}},
	)
	after, _ := json.Marshal(c)
	assert.JSONEq(t, string(before), string(after), "the card itself is left as it was")
	assert.Equal(t, "Another", got.Title)
	assert.Equal(t, measure.FoldTop, got.Base.Fold)
	assert.Empty(t, got.Base.Envelope)
	assert.Equal(t, "h", got.Base.Paper, "what is not named stays")
	e1, _ := got.Element("e1")
	assert.InDelta(t, c.Base.W/2+2, e1.Place.X, 1e-9)
	assert.InDelta(t, c.Base.H/2-3, e1.Place.Y, 1e-9)
	assert.InDelta(t, -10, e1.Place.Turn, 1e-9)
	e2, _ := got.Element("e2")
	assert.Equal(t, Place{X: 5, Y: c.Base.H / 2}, e2.Place)
	assert.Equal(t, Foam("foam", 2), e2.Bonds)
	m := got.Motifs[0]
	assert.Empty(t, m.Layers[1].Bonds, "laid loose")
	assert.Equal(t, Glue(""), c.Motifs[0].Layers[1].Bonds)
	assert.Equal(t, LocalColour, m.School)
	assert.Equal(t, "deep", m.Colourways[1].Layers["b"].Ink, "copied with what was changed before")
	assert.Equal(t, "First, again", m.Colourways[1].Name)
	assert.Equal(t, "w2", e1.Image.Colourway)
	e3, ok := got.Element("e3")
	require.True(t, ok)
	assert.InDelta(t, e1.Place.X+8, e3.Place.X, 1e-9)
	assert.Equal(t, []Aside{{Finding: "f", Cause: "c", Reason: "meant so"}}, got.SetAside)
	assert.Empty(t, edited(t, got, Edit{Recall: &Recall{"f"}}, Edit{Order: &Reorder{}}).SetAside)
}

func TestThingsStartAsTheyMostlyDo(t *testing.T) {
	c := edited(t, sound(), Edit{AddStrip: &AddStrip{}}, Edit{AddMat: &AddMat{}}, Edit{AddImage: &AddImage{"stamp"}}, Edit{AddTurned: &AddTurned{"m3"}})
	assert.Equal(t, []string{"mat1", "panel", "e1", "e2", "s1", "e3", "t1"}, names(c))
	mats := c.Mats()
	require.Len(t, mats, 2)
	assert.Equal(t, "h", mats[0].Sheet.Paper, "not the panel's")
	assert.Equal(t, "mat1", mats[1].On)
	s, _ := c.Element("s1")
	assert.Equal(t, "deep", s.Sheet.Words().Ink, "the darkest that is not empty")
	assert.Equal(t, "p", s.Sheet.Paper, "no words on vellum to begin with")
	assert.InDelta(t, 2*measure.Inch, s.Sheet.W, 1e-9)
	assert.Equal(t, "panel", s.On)
	q, _ := c.Element("t1")
	assert.Equal(t, Beside, q.Face)
	assert.InDelta(t, 69, q.Sheet.W, 1e-9, "2.3 times the larger side of the image")
	assert.Equal(t, []string{"w1"}, q.Sheet.Turned().Colourways)
	_, err := c.Apply(stores(), Edit{AddTurned: &AddTurned{"m1"}})
	assert.ErrorContains(t, err, "stamped", "dies print nothing")
	assert.InDelta(t, 3.5*measure.Inch, edited(t, c, Edit{Format: &SetFormat{"slimline"}}).Base.H, 1e-9, "3 1/2 x 8 1/2, on its side")
}

func names(c Card) (out []string) {
	for _, e := range c.Elements {
		out = append(out, e.ID)
	}
	return out
}

func TestPilesAndStacksAreShifted(t *testing.T) {
	c := sound()
	assert.Equal(t, []string{"panel", "e2", "e1"}, names(edited(t, c, Edit{Shift: &Shift{"e1", 1}})))
	assert.Equal(t, names(c), names(edited(t, c, Edit{Shift: &Shift{"e1", -1}})), "not beneath what carries it")
	assert.Equal(t, names(c), names(edited(t, c, Edit{Shift: &Shift{"e2", 1}})), "it is the top")
	c.Motifs[0].Layers[1].On = "a"
	got := edited(t, c, Edit{ShiftLayer: &ShiftLayer{"m1", "b", -1}})
	assert.Equal(t, "b", got.Motifs[0].Layers[0].ID)
	assert.Empty(t, got.Motifs[0].Layers[0].On, "it cannot sit on what is above it")
	gone := edited(t, c, Edit{Remove: &Remove{"panel"}})
	assert.Empty(t, gone.Elements[0].On, "laid on what carried the panel")
}

func TestEditsThatCannotBeMade(t *testing.T) {
	c := sound()
	for _, e := range []Edit{
		{Move: &Move{Element: "none"}}, {Remove: &Remove{"none"}}, {Shift: &Shift{"none", 1}}, {Finish: &SetFinish{Motif: "none"}},
		{Finish: &SetFinish{"m1", "none", nil}}, {Finish: &SetFinish{"m1", "w1", map[string]Finish{"none": {}}}}, {AddImage: &AddImage{"none"}},
		{Layer: &SetLayer{"m1", Layer{ID: "none"}}}, {ShiftLayer: &ShiftLayer{"m1", "none", 1}}, {Recolour: &Recolour{map[string]string{"none": "w1"}}},
		{Again: &Again{Motif: "m1", Layer: "none"}}, {Again: &Again{Motif: "none"}}, {ShadeOther: &ShadeOther{"none"}},
	} {
		_, err := c.Apply(stores(), Edit{Rename: &Rename{"x"}}, e)
		assert.ErrorIs(t, err, ErrGone, "%+v", e)
		assert.ErrorContains(t, err, "edit 2 of 2")
	}
	for _, e := range []Edit{{}, {Rename: &Rename{"x"}, Remove: &Remove{"e1"}}} {
		_, err := c.Apply(stores(), e)
		assert.ErrorIs(t, err, ErrNoEdit)
	}
	far := 1e9
	got, err := c.Apply(stores(), Edit{Put: &Put{Element: "e1", X: &far}})
	assert.ErrorContains(t, err, "elements[1].place.x")
	assert.Equal(t, c, got, "nothing is changed")
	_, err = c.Apply(stores(), Edit{Sheet: &SetSheet{Element: "e1"}})
	assert.ErrorContains(t, err, "no sheet")
}

// A key held down is one change.
func TestMovesAreJoined(t *testing.T) {
	e := Edit{Move: &Move{Element: "e1", DX: 1}}
	for range 9 {
		require.True(t, e.Absorb(Edit{Move: &Move{Element: "e1", DX: 1, Turn: 2}}))
	}
	assert.Equal(t, &Move{Element: "e1", DX: 10, Turn: 18}, e.Move)
	assert.False(t, e.Absorb(Edit{Move: &Move{Element: "e2"}}))
	assert.False(t, e.Absorb(Edit{Rename: &Rename{"x"}}))
}

func TestWhatChangedIsSaidInWords(t *testing.T) {
	c := sound()
	call := func(_ Card, e Element) string { return "element " + e.ID }
	assert.Empty(t, Changes(c, c, call))
	got := edited(t, c, Edit{Rename: &Rename{"Another"}}, Edit{Move: &Move{Element: "e1", DX: 1}}, Edit{Remove: &Remove{"e2"}}, Edit{AddStrip: &AddStrip{}},
		Edit{Finish: &SetFinish{"m1", "w1", map[string]Finish{"b": {Ink: "deep"}}}}, Edit{School: &SetSchool{Motif: "m2", School: EveryPiece}})
	assert.Equal(t, []string{"its title", "element e1", "element s1 was added", "element e2 was taken off", "Set, First", "the layers of Set"}, Changes(c, got, call))
	assert.Equal(t, []string{"the order of the pile"}, Changes(c, edited(t, c, Edit{Shift: &Shift{"e1", 1}}), call))
}

// Two things or colourways that are told apart by nothing but a name never share one.
func TestNamesTellApart(t *testing.T) {
	c := sound()
	got := edited(t, c, Edit{AddSheet: &AddSheet{As: AsPlain}}, Edit{AddSheet: &AddSheet{As: AsPlain}}, Edit{AddSheet: &AddSheet{As: AsBand}},
		Edit{CopyColourway: &CopyColourway{"m1", "w1"}}, Edit{CopyColourway: &CopyColourway{"m1", "w1"}})
	n := len(got.Elements)
	assert.Equal(t, []string{"Plain sheet", "Plain sheet 2", "Band"}, []string{got.Elements[n-3].Name, got.Elements[n-2].Name, got.Elements[n-1].Name})
	ways := got.Motifs[0].Colourways
	assert.Equal(t, []string{"First", "First, again", "First, again 2"}, []string{ways[0].Name, ways[1].Name, ways[2].Name})

	got = edited(t, got, Edit{NameColourway: &NameColourway{"m1", ways[2].ID, " Dusk "}})
	assert.Equal(t, "Dusk", got.Motifs[0].Colourways[2].Name)
	got = edited(t, got, Edit{NameColourway: &NameColourway{"m1", ways[2].ID, "Dusk"}})
	assert.Equal(t, "Dusk", got.Motifs[0].Colourways[2].Name, "its own name is no other's")
	for name, is := range map[string]string{"First": "First 2", "  ": "Dusk"} {
		named := edited(t, got, Edit{NameColourway: &NameColourway{"m1", ways[2].ID, name}})
		assert.Equal(t, is, named.Motifs[0].Colourways[2].Name)
	}
	_, err := got.Apply(stores(), Edit{NameColourway: &NameColourway{"m1", "w9", "Dawn"}})
	assert.ErrorIs(t, err, ErrGone)
}
