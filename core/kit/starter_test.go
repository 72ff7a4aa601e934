package kit_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
)

// Everything of the shelf to begin with is usable and says that it was not measured. Weights
// against the basis size of cover, 20 x 26 in, 500 sheets (ISO 536 for g/m²): 1 lb of cover is
// 2.704 g/m². Paper for cards is 1.2 to 1.4 times as thick in µm as it weighs in g/m² (common
// practice, no source).
func TestTheStarterShelfIsUsableAndMarked(t *testing.T) {
	k := kit.Starter()
	require.NotEmpty(t, k.Papers)
	for _, p := range k.Papers {
		require.NoError(t, p.Validate(), p.Name)
		assert.Contains(t, p.Name, "measure yours")
		if name, lb, is := strings.Cut(p.Name, ", "); is && strings.HasSuffix(name, "card") {
			for pounds, gsm := range map[string]float64{"80 lb": 80 * 2.704, "110 lb": 110 * 2.704} {
				if strings.HasPrefix(lb, pounds) {
					assert.InDelta(t, gsm, p.GSM, 1, p.Name)
					assert.InDelta(t, 1.3, 1000*p.Caliper/p.GSM, 0.1, p.Name)
				}
			}
		}
	}
	for _, s := range k.Spacers {
		require.NoError(t, s.Validate(), s.Name)
		assert.Contains(t, s.Name, "measure yours")
	}
	for _, a := range k.Adhesives {
		require.NoError(t, a.Validate(), a.Name)
		assert.Contains(t, a.Name, "measure yours")
	}
	a2 := false
	for _, e := range k.Envelopes {
		require.NoError(t, e.Validate(), e.Name)
		assert.Contains(t, e.Name, "measure yours")
		// The A2 envelope of the trade takes a card of 4 1/4 by 5 1/2 in: it is 4 3/8 by 5 3/4.
		short, long := min(e.W, e.H), max(e.W, e.H)
		a2 = a2 || short > 4.25*25.4 && short < 4.5*25.4 && long > 5.5*25.4 && long < 5.9*25.4
	}
	assert.True(t, a2)
}
