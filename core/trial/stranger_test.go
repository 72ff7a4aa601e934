package trial

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Shapes come out as large as their words say.
func TestOutlines(t *testing.T) {
	for words, area := range map[string]float64{"rect 60x8": 480, "circ 20": 314, "ell 38x32": 955, "poly -20,0 20,0 14,12 -14,12": 408, "circ 92 - circ 68": 3015.9, "comb 28x36 pitch 2": 14*36 + 14*4, "rect 10x10 @5,5 + rect 10x10 @25,5": 200} {
		assert.InDelta(t, area, outline(words).Area(), 3, words)
	}
	assert.InDelta(t, 330, outline("arc 0,8 12,14 4,12").Area(), 20, "the scallop's solid, as the trial says")
}

// Every stranger's card is entered by edits alone, is sound, and its kit too.
func TestStrangersAreSound(t *testing.T) {
	all := Strangers()
	require.Len(t, all, 17)
	for _, s := range all {
		assert.NoError(t, s.Card.Validate(), s.ID)
		for _, set := range s.Kit.Sets {
			assert.NoError(t, set.Validate(), "%s: %s", s.ID, set.ID)
		}
		for _, i := range s.Kit.Inks {
			assert.NoError(t, i.Validate(), "%s: %s", s.ID, i.ID)
		}
		for _, p := range s.Kit.Papers {
			assert.NoError(t, p.Validate(), "%s: %s", s.ID, p.ID)
		}
	}
}
