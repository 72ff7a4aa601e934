package sheet

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
)

// How wide words come out is what another library reads from the typeface's own tables:
// opentype.js 1.3.4 (npm), see tools/fontwidths.mjs.
func TestWordsAreAsWideAsTheFontSays(t *testing.T) {
	raw, err := os.ReadFile("testdata/widths.json")
	require.NoError(t, err)
	var want struct{ Widths map[string]float64 }
	require.NoError(t, json.Unmarshal(raw, &want))
	require.Greater(t, len(want.Widths), 8)
	for text, w := range want.Widths {
		for _, capital := range []float64{1, 3.4, 20} {
			letters, wide := Face{}.Line(text, capital)
			assert.InDelta(t, w*capital, wide, 2e-5*capital, text)
			// The letters stand where the width says: none starts before the line or ends past it
			// by more than its own side bearing.
			all := make([]shape.Region, len(letters))
			for i, l := range letters {
				all[i] = l.Region
			}
			u, err := shape.UnionAll(all...)
			require.NoError(t, err)
			b := u.Bounds()
			assert.GreaterOrEqual(t, b.Min.X, -0.15*capital, text)
			assert.LessOrEqual(t, b.Max.X, wide+0.15*capital, text)
		}
	}
	// A capital is as high as it says; an o has one loose middle, an i two pieces.
	h, _ := Face{}.Line("H", 12)
	assert.InDelta(t, 12, h[0].Region.Bounds().H(), 0.05)
	o, _ := Face{}.Line("o", 12)
	assert.Len(t, o[0].Region.Holes(), 1)
	i, _ := Face{}.Line("i", 12)
	assert.Len(t, i[0].Region.Pieces(), 2)
}
