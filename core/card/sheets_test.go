package card

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// fullStores is a kit with something of every sort.
func fullStores() kit.Kit {
	return kit.Kit{
		Papers: []kit.Cardstock{{ID: "p", Kind: kit.PaperCard, Colour: "#ffffff"}, {ID: "q", Kind: kit.PaperCard, Colour: "#202020"}, {ID: "v", Kind: kit.PaperVellum, Colour: "#eeeeee"}},
		Inks:   []kit.Ink{{ID: "pale", Family: "Sky", Kind: kit.Dye, Dry: "#b4d8f4"}, {ID: "deep", Family: "Sky", Kind: kit.Dye, Dry: "#203040"}},
		Sets:   []kit.Set{{ID: "st", Kind: kit.StencilSet, Parts: []kit.Part{{ID: "a"}}}}, Adhesives: []kit.Adhesive{{ID: "glue"}}}
}

// Every sheet a person can ask for by its name starts sound, on the panel and within it, but
// for the leaf, which is as large as the front.
func TestSheetsStartByTheirNames(t *testing.T) {
	for _, as := range Ases {
		c, err := sound().Apply(fullStores(), Edit{AddSheet: &AddSheet{As: as}})
		require.NoError(t, err, as)
		e := c.Elements[len(c.Elements)-1]
		require.NotNil(t, e.Sheet, as)
		assert.NotEmpty(t, e.Name)
		leaves, err := c.Nest()
		require.NoError(t, err)
		panel := leaves[len(leaves)-1]
		if as == AsLeaf {
			assert.Equal(t, "v", e.Sheet.Paper)
			// Common practice, no source: 4 1/4 wide and a bit over 6 tall, scored at 5 1/2.
			flat := e.Sheet.Flat(e.Sheet.Size())
			assert.InDelta(t, 4.25*measure.Inch, flat.W, 1e-9)
			assert.Equal(t, 6*measure.Inch, flat.H)
			continue
		}
		assert.LessOrEqual(t, e.Sheet.W, panel.Size.W+1e-9, as)
		assert.LessOrEqual(t, e.Sheet.H, panel.Size.H+1e-9, as)
	}
	_, err := sound().Apply(fullStores(), Edit{AddSheet: &AddSheet{As: "kite"}})
	assert.ErrorContains(t, err, `"kite" is no sheet`)
	_, err = sound().Apply(kit.Kit{}, Edit{AddSheet: &AddSheet{As: AsLeaf}})
	assert.ErrorContains(t, err, "no vellum or acetate")
}

// Treatments are added as they usually start, changed, moved and left out; the others stay.
func TestTreatmentsComeAndGo(t *testing.T) {
	k := fullStores()
	c := sound()
	var kinds []Did
	for _, did := range []Did{DidWords, DidFade, DidBands, DidStencil, DidSplash, DidStroke, DidPressed, DidEdged, DidGlaze} {
		var err error
		c, err = c.Apply(k, Edit{Treat: &Treat{Element: "panel", Add: did}})
		require.NoError(t, err, did)
		kinds = append(kinds, did)
	}
	panel, _ := c.Element("panel")
	require.Len(t, panel.Sheet.Treatments, len(kinds))
	assert.Equal(t, "pale", panel.Sheet.Treatments[1].Fade.Inks[0], "a soft ink to begin with")
	bands := panel.Sheet.Treatments[2].Bands
	assert.InDelta(t, 5.25*measure.Inch, bands.Sum(), 1e-9, "they fill the panel")
	assert.Equal(t, []string{"pale", "deep", "deep"}, panel.Sheet.Treatments[2].Inks(), "down the family")
	_, err := c.Apply(k, Edit{Treat: &Treat{Element: "panel", Add: DidPrint}})
	assert.ErrorContains(t, err, "no image on this card is stamped")
	c.Motifs[0].Layers[0].Make = Printed
	c, err = c.Apply(k, Edit{Treat: &Treat{Element: "panel", Add: DidPrint}}, Edit{Treat: &Treat{Element: "panel", Add: DidTurned}})
	require.NoError(t, err)
	c, err = c.Apply(k, Edit{Treat: &Treat{Element: "panel", At: 0, By: 1}}, Edit{Treat: &Treat{Element: "panel", At: 3, Drop: true}},
		Edit{Treat: &Treat{Element: "panel", At: 0, Treatment: &Treatment{Fade: &Fade{From: FromEdge, Inks: []string{"deep"}, Reach: 7}}}})
	require.NoError(t, err)
	panel, _ = c.Element("panel")
	assert.Len(t, panel.Sheet.Treatments, 10)
	assert.Equal(t, FromEdge, panel.Sheet.Treatments[0].Fade.From)
	assert.NotNil(t, panel.Sheet.Treatments[1].Words, "it went up by one")
	_, err = c.Apply(k, Edit{Treat: &Treat{Element: "panel", At: 40, Drop: true}})
	assert.ErrorIs(t, err, ErrGone)
}

// Parts cross another element, groups are made and taken apart, a thing goes to another
// face and back, what is taken off is crossed no more.
func TestCrossingsGroupsAndFaces(t *testing.T) {
	k := fullStores()
	c, err := sound().Apply(k, Edit{AddSheet: &AddSheet{As: AsFrame}}, Edit{AddLetters: &AddLetters{Text: "hello"}}, Edit{AddRibbon: &AddRibbon{}})
	require.NoError(t, err)
	frame, word, cord := c.Elements[len(c.Elements)-3], c.Elements[len(c.Elements)-2], c.Elements[len(c.Elements)-1]
	assert.Equal(t, "q", word.Letters.Paper, "the darkest card owned")
	require.NotNil(t, cord.Ribbon)
	c, err = c.Apply(k, Edit{Tucks: &SetTucks{Element: "e1", With: frame.ID, Parts: []string{"a", "b"}}}, Edit{Tucks: &SetTucks{Element: "e1", With: word.ID, Parts: []string{"a"}}},
		Edit{Tucks: &SetTucks{Element: "e1", With: frame.ID, Parts: []string{"b"}}}, Edit{Together: &Together{Elements: []string{frame.ID, word.ID}}},
		Edit{Face: &SetFace{Element: cord.ID, Face: InsideRight}}, Edit{Flush: &Flush{Elements: []string{"e1"}, On: true}})
	require.NoError(t, err)
	e1, _ := c.Element("e1")
	assert.Equal(t, []Tuck{{"a", word.ID}, {"b", frame.ID}}, e1.Tucks)
	assert.True(t, e1.Flush)
	f, _ := c.Element(frame.ID)
	w, _ := c.Element(word.ID)
	assert.Equal(t, f.Group, w.Group)
	assert.NotEmpty(t, f.Group)
	r, _ := c.Element(cord.ID)
	assert.Equal(t, InsideRight, r.Face)
	assert.Empty(t, r.On)
	c, err = c.Apply(k, Edit{Remove: &Remove{Element: frame.ID}}, Edit{Together: &Together{Elements: []string{word.ID}, Apart: true}}, Edit{Face: &SetFace{Element: cord.ID, Face: Front}})
	require.NoError(t, err)
	e1, _ = c.Element("e1")
	assert.Equal(t, []Tuck{{"a", word.ID}}, e1.Tucks)
	w, _ = c.Element(word.ID)
	assert.Empty(t, w.Group)
	r, _ = c.Element(cord.ID)
	assert.Equal(t, "panel", r.On)
	_, err = c.Apply(k, Edit{Tucks: &SetTucks{Element: "e1", With: "gone", Parts: []string{"a"}}})
	assert.ErrorContains(t, err, "crosses something that is not on this card")
}

// A base round a panel of 4 by 5 1/4 in with an eighth of an inch showing is the usual card
// of 4 1/4 by 5 1/2 (common practice, no source).
func TestABaseRoundAPanel(t *testing.T) {
	c, err := sound().Apply(kit.Kit{}, Edit{Around: &Around{W: 4 * measure.Inch, H: 5.25 * measure.Inch, Border: measure.Inch / 8}})
	require.NoError(t, err)
	assert.InDelta(t, 4.25*measure.Inch, c.Base.W, 1e-9)
	assert.InDelta(t, 5.5*measure.Inch, c.Base.H, 1e-9)
	assert.Equal(t, "a2", c.Base.Format)
	odd, err := sound().Apply(kit.Kit{}, Edit{Around: &Around{W: 77, H: 99, Border: 4}})
	require.NoError(t, err)
	leaves, err := odd.Nest()
	require.NoError(t, err)
	assert.InDelta(t, 77, leaves[0].Size.W, 1e-9)
	assert.Equal(t, "custom", odd.Base.Format)
	_, err = sound().Apply(kit.Kit{}, Edit{Around: &Around{W: -3, H: 99}})
	assert.ErrorContains(t, err, "10 to 390")
}

// Moves that follow each other at once are one; what the first set and the next does not
// stays set.
func TestPutsAbsorbEachOther(t *testing.T) {
	x, y, yes := 3.0, 4.0, true
	e := Edit{Put: &Put{Element: "e1", X: &x, Mirror: &yes}}
	require.True(t, e.Absorb(Edit{Put: &Put{Element: "e1", Y: &y}}))
	b, err := json.Marshal(e)
	require.NoError(t, err)
	assert.JSONEq(t, `{"put":{"element":"e1","x":3,"y":4,"mirror":true}}`, string(b))
}
