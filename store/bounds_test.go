package store_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/bounds"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/demo"
)

// What people make is within bounds; what nobody makes is told by its place.
func TestBounds(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	require.NoError(t, bounds.Check(k))
	for _, c := range demo.Cards(k) {
		require.NoError(t, bounds.Check(c), c.Title)
	}
	long := strings.Repeat("n", bounds.MostLetters)
	assert.NoError(t, bounds.Check(kit.Ink{ID: "a", Name: long}))
	for at, v := range map[string]any{
		"name":           kit.Ink{ID: "a", Name: long + "n"},
		"title":          card.Card{Title: strings.Repeat("t", 10_000_000)},
		"id":             kit.Spacer{ID: "a/b"},
		"order":          card.Card{Order: make([]card.Step, 400_000)},
		"motifs[0].name": card.Card{Motifs: []card.Motif{{Name: long + "é"}}},
		"parts[1].label": kit.Set{Parts: []kit.Part{{}, {Label: long + "é"}}},
		"swatches":       kit.Kit{Swatches: make([]kit.Swatch, 100_000)},
	} {
		var e *bounds.Excess
		require.ErrorAs(t, bounds.Check(v), &e, at)
		assert.Equal(t, at, e.Path)
		assert.Less(t, len(e.Error()), 200)
	}
	assert.Error(t, bounds.Check(kit.Ink{ID: "a\x00"}))
	assert.NoError(t, bounds.Check(kit.Ink{ID: "a", Name: strings.Repeat("é", bounds.MostLetters)}), "letters are counted, not bytes")
}
