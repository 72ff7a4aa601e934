package setsvg_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/basic"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
	"ochrestone/demo"
	"ochrestone/exchange/setsvg"
	"ochrestone/exchange/svgin"
)

// What goes out comes back the same: names, order, areas and places.
func TestRoundTripThroughTheReader(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	for _, s := range k.Sets {
		var b bytes.Buffer
		require.NoError(t, setsvg.Write(&b, s))
		d, err := svgin.Read(b.Bytes())
		require.NoError(t, err)
		require.Len(t, d.Parts, len(s.Parts))
		for _, p := range s.Parts {
			found := false
			for _, q := range d.Parts {
				if q.Label != p.Label {
					continue
				}
				found = true
				assert.InDelta(t, p.Outline.Area(), q.Outline.Area(), 1e-3*p.Outline.Area()+0.05)
				a, c := p.Outline.Centroid(), q.Outline.Centroid()
				// The reader's frame begins at the page's corner.
				first, base := s.Parts[0].Outline.Centroid(), labelled(d.Parts, s.Parts[0].Label)
				assert.InDelta(t, a.X-first.X, c.X-base.X, 0.02)
				assert.InDelta(t, a.Y-first.Y, c.Y-base.Y, 0.02)
			}
			assert.True(t, found, p.Label)
		}
	}
}

// labelled is the middle of the part with a label.
func labelled(parts []kit.Part, label string) shape.Point {
	for _, p := range parts {
		if p.Label == label {
			return p.Outline.Centroid()
		}
	}
	return shape.Point{}
}

func TestCutLinesApartAndSingleParts(t *testing.T) {
	ps, err := basic.Parts(basic.Measures{Kind: basic.Stitched, W: 80, H: 60, Count: 3, Step: 5})
	require.NoError(t, err)
	set := kit.Set{Name: `Frames & "windows"`, Parts: ps}
	var b bytes.Buffer
	require.NoError(t, setsvg.Write(&b, set, setsvg.CutLines(), setsvg.Apart()))
	out := b.String()
	assert.Equal(t, 3, strings.Count(out, `stroke-width="0.01"`))
	assert.NotContains(t, out, "evenodd")
	assert.Contains(t, out, "Frames &amp;")
	assert.Contains(t, out, `width="222.000mm"`, "80 + 70 + 60 and the gaps and margins of 3")
	b.Reset()
	require.NoError(t, setsvg.Write(&b, set, setsvg.Only("p2")))
	assert.Equal(t, 1, strings.Count(b.String(), "<g "))
	assert.ErrorIs(t, setsvg.Write(&b, set, setsvg.Only("p9")), setsvg.ErrNoPart)
}
