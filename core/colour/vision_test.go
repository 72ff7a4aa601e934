package colour

import (
	"encoding/json"
	"os"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// testdata/vision.json is made by web/scripts/vision-fixture.mjs with culori
// 4.0.2 (npm), which applies the matrices to the encoded channels; so does this
// check of their numbers.
func TestOtherEyesAgainstCulori(t *testing.T) {
	raw, err := os.ReadFile("testdata/vision.json")
	require.NoError(t, err)
	var rows []map[string]string
	require.NoError(t, json.Unmarshal(raw, &rows))
	require.Greater(t, len(rows), 300)
	channels := func(hex string) (c [3]float64) {
		v, err := strconv.ParseUint(hex[1:], 16, 32)
		require.NoError(t, err)
		return [3]float64{float64(v>>16) / 255, float64(v>>8&255) / 255, float64(v&255) / 255}
	}
	for _, r := range rows {
		for _, e := range []Eyes{Protan, Deutan, Tritan} {
			want, got := channels(r[string(e)]), through(e, channels(r["hex"]))
			for i := range got {
				assert.InDelta(t, want[i], got[i], 0.6/255, "%s as %s sees it", r["hex"], e)
			}
		}
	}
}

// Greys are greys to all eyes; a red and a green of one lightness part only
// for ordinary ones (common practice, no source).
func TestWhatOtherEyesTellApart(t *testing.T) {
	grey := lin("#808080")
	for _, e := range []Eyes{Protan, Deutan, Tritan, Grey} {
		assert.Less(t, Difference(grey.Lab(), grey.Seen(e).Lab()), 1.5, e)
	}
	red, green := Lab{55, 45, 20}.Linear(), Lab{55, -38, 30}.Linear()
	assert.Greater(t, Difference(red.Lab(), green.Lab()), 40.0)
	assert.Less(t, Difference(red.Seen(Grey).Lab(), green.Seen(Grey).Lab()), 1.0)
	assert.Less(t, Difference(red.Seen(Deutan).Lab(), green.Seen(Deutan).Lab()), 30.0)
	assert.Equal(t, red, red.Seen("ordinary"))
}
