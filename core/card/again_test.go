package card

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A part used again is a layer of its own: a back right beneath the layer it is of, a second colour or an offset
// copy right over the layer it is of, each with a finish in every colourway.
func TestAPartIsUsedAgain(t *testing.T) {
	c := sound()
	of := c.Motifs[0].Layers[0]
	was := len(c.Motifs[0].Layers)
	back := edited(t, c, Edit{Again: &Again{Motif: "m1", Layer: of.ID, Traced: 1.5}}).Motifs[0]
	assert.Equal(t, 1.5, back.Layers[0].Traced)
	assert.Equal(t, of.Part, back.Layers[0].Part)
	masked := edited(t, c, Edit{Again: &Again{Motif: "m1", Layer: of.ID, Region: &Region{By: Masked, Line: []Offset{{0, 0}, {10, 0}}}}}).Motifs[0]
	assert.Equal(t, of.ID, masked.Layers[1].On)
	assert.Equal(t, Printed, masked.Layers[1].Make, "ink on the piece, no piece of its own")
	twice := edited(t, c, Edit{Again: &Again{Motif: "m1", Layer: of.ID, Region: &Region{By: CutTwice, Line: []Offset{{0, 0}, {10, 0}}}}}).Motifs[0]
	assert.Equal(t, Cut, twice.Layers[1].Make)
	for _, m := range []Motif{back, masked, twice} {
		require.Len(t, m.Layers, was+1)
		for _, w := range m.Colourways {
			for _, l := range m.Layers {
				assert.Contains(t, w.Layers, l.ID)
			}
		}
	}
	assert.Len(t, c.Motifs[0].Layers, was, "the card itself is as it was")
	for _, bad := range []Again{
		{Traced: 90},
		{Region: &Region{By: "torn", Line: []Offset{{0, 0}, {1, 0}}}},
		{Region: &Region{By: Masked, Line: []Offset{{0, 0}}}},
		{Region: &Region{By: Masked, Line: []Offset{{0, 0}, {1e9, 0}}}},
	} {
		bad.Motif, bad.Layer = "m1", of.ID
		_, err := c.Apply(stores(), Edit{Again: &bad})
		assert.Error(t, err)
	}
}

// The other side is shaded in a colourway of its own, the same one for the next image.
func TestTheOtherSideIsShaded(t *testing.T) {
	c := sound()
	way := c.Motifs[0].Colourways[0]
	layer := c.Motifs[0].Layers[0].ID
	way.Layers[layer] = Finish{Blends: []Blend{{Ink: "x", Zone: Left}, {Ink: "x", Zone: Rim}}}
	was := len(c.Motifs[0].Colourways)
	got := edited(t, c, Edit{ShadeOther: &ShadeOther{"e1"}})
	require.Len(t, got.Motifs[0].Colourways, was+1)
	e, _ := got.Element("e1")
	w, _ := got.Motifs[0].Colourway(e.Image.Colourway)
	assert.Equal(t, []Zone{Right, Rim}, []Zone{w.Layers[layer].Blends[0].Zone, w.Layers[layer].Blends[1].Zone})
	again := edited(t, got, Edit{ShadeOther: &ShadeOther{"e1"}})
	assert.Len(t, again.Motifs[0].Colourways, was+1, "back to the one it had")
	e, _ = again.Element("e1")
	assert.Equal(t, way.ID, e.Image.Colourway)
	assert.Equal(t, LeftSide, edited(t, c, Edit{Light: &SetLight{Side: LeftSide}}).Light)
	_, err := c.Apply(stores(), Edit{Light: &SetLight{Side: TopSide}})
	assert.Error(t, err)
}
