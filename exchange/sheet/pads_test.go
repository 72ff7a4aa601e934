package sheet

import (
	"bytes"
	"encoding/xml"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/demo"
)

// A tag on one pad of 6 by 6 whose middle is 8 right of and 3 below the tag's: in the plan
// it is there, seen from the back as far from the other edge; the levels say how high.
func TestThePadPlanIsTrueToSize(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	k.Spacers = []kit.Spacer{{ID: "sq", Name: "Squares", Kind: "square", Thickness: 2, W: 6, H: 6}}
	c := card.New("Tag", measure.Formats()[0], measure.FoldSide, k)
	on, _ := c.Panel()
	c.Elements = append(c.Elements, card.Element{ID: "s", Name: "Tag", Face: card.Front, On: on, Place: card.Place{X: 40, Y: 50}, Sheet: &card.Sheet{Paper: "oat", W: 30, H: 20},
		Bonds: []card.Bond{{Spacer: "sq", Pads: []card.Pad{{X: 8, Y: 3, W: 6, H: 6}}}}})
	m := plan.NewPlanner()
	pl := m.Of(c, k)
	st := m.Standing(pl)
	pad := func(mirrored bool) shape.Box {
		var b bytes.Buffer
		require.NoError(t, PadLines(&b, pl, st, mirrored))
		var doc struct {
			Groups []struct {
				Transform string `xml:"transform,attr"`
				Paths     []struct {
					Class string `xml:"class,attr"`
					D     string `xml:"d,attr"`
				} `xml:"path"`
				Inner []struct {
					Paths []struct {
						Class string `xml:"class,attr"`
						D     string `xml:"d,attr"`
					} `xml:"path"`
				} `xml:"g"`
			} `xml:"g"`
		}
		require.NoError(t, xml.Unmarshal(b.Bytes(), &doc))
		paths := doc.Groups[0].Paths
		if mirrored {
			assert.Contains(t, doc.Groups[0].Transform, "scale(-1 1)")
			paths = doc.Groups[0].Inner[0].Paths
		}
		for _, p := range paths {
			if p.Class == "pad" {
				var g shape.Region
				require.NoError(t, g.UnmarshalText([]byte(p.D)))
				return g.Bounds()
			}
		}
		t.Fatal("no pad is drawn")
		return shape.Box{}
	}
	box := pad(false)
	assert.InDelta(t, 48, box.Centre().X, 1e-3)
	assert.InDelta(t, 53, box.Centre().Y, 1e-3)
	assert.InDelta(t, 6, box.W(), 1e-3)
	assert.Equal(t, box, pad(true), "it is the drawing that is turned over")

	var b bytes.Buffer
	in := Writing(measure.Writing{Unit: measure.Millimetres})
	require.NoError(t, WritePads(&b, pl, st, false, in, Page(measure.Letter)))
	text := shownWords(t, b.Bytes())
	assert.Contains(t, text, "1 Tag: top at")
	assert.Contains(t, text, "on squares, 2.00 mm; 1 pad")
	b.Reset()
	require.NoError(t, WritePads(&b, pl, st, true, in, Page(measure.Letter)))
	assert.Contains(t, shownWords(t, b.Bytes()), "left and right exchanged")

	c.Elements[len(c.Elements)-1].Bonds = card.Glue("")
	flat := m.Of(c, k)
	var jig *ErrJig
	assert.ErrorAs(t, WritePads(&b, flat, m.Standing(flat), false), &jig)
	assert.ErrorAs(t, PadLines(&b, flat, m.Standing(flat), false), &jig)
	assert.NotContains(t, strings.ToLower(jig.Error()), "nil")
}
