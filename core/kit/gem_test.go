package kit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/kit"
)

// A sort of gem has a name, a size and a colour, and is found by its id; what is no longer there is kept
// apart and never offered.
func TestGems(t *testing.T) {
	few := -1
	pearl := kit.Gem{ID: "pearl", Name: "Pearls", Size: 4, Height: 2, Colour: "#f0e8d8"}
	assert.NoError(t, pearl.Validate())
	for field, g := range map[string]kit.Gem{
		"name": {Size: 4, Height: 2, Colour: "#f0e8d8"}, "size": {Name: "x", Size: 31, Height: 2, Colour: "#f0e8d8"}, "height": {Name: "x", Size: 4, Colour: "#f0e8d8"},
		"colour": {Name: "x", Size: 4, Height: 2, Colour: "cream"}, "left": {Name: "x", Size: 4, Height: 2, Colour: "#f0e8d8", Left: &few},
	} {
		assert.ErrorContains(t, g.Validate(), field)
	}
	gone := pearl
	gone.ID, gone.Away = "gone", true
	k := kit.Kit{Gems: []kit.Gem{pearl, gone}}
	_, ok := k.Gem("pearl")
	assert.True(t, ok)
	assert.Len(t, k.Owned().Gems, 1)
	assert.Equal(t, "gone", k.NoLonger().Gems[0].ID)
	name, away, ok := k.Item(kit.KindGem, "gone")
	assert.True(t, ok && away)
	assert.Equal(t, "Pearls", name)
}
