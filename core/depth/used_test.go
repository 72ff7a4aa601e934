package depth

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/shape"
)

// Counted by hand: three pads two high are six; two halves are one; a sheet cut to shape is
// one; what is glued is none.
func TestSpacersAreCounted(t *testing.T) {
	s := look.NewStock(kit.Kit{Spacers: []kit.Spacer{{ID: "sq", Kind: "square", Thickness: 1, W: 6, H: 6}, {ID: "foam", Kind: "sheet", Thickness: 2, W: 200, H: 200}}})
	raised := func(hold int, w float64) Support {
		return Support{Hold: hold, Raised: true, Area: shape.Rect(0, 0, w, 6), Pad: card.Pad{W: w, H: 6}}
	}
	piece := func(b card.Bond, sups ...Support) Stood {
		return Stood{Piece: build.Piece{Holds: build.HoldsOf(s, []card.Bond{b})}, Supports: sups}
	}
	used := func(of ...Stood) map[string]int { return Used(s, of) }
	three := piece(card.Bond{Spacer: "sq", Level: 2}, raised(0, 6), raised(0, 6), raised(0, 6))
	assert.Equal(t, map[string]int{"sq": 6}, used(three))
	assert.Equal(t, map[string]int{"sq": 1}, used(piece(card.Bond{Spacer: "sq"}, raised(0, 3), raised(0, 3))))
	assert.Equal(t, map[string]int{"sq": 2}, used(piece(card.Bond{Spacer: "sq"}, raised(0, 3)), piece(card.Bond{Spacer: "sq"}, raised(0, 4))), "7 of 6 mm: two")
	assert.Equal(t, map[string]int{"sq": 6, "foam": 1}, used(three, piece(card.Bond{Spacer: "foam", Level: 1}, raised(0, 50))))
	assert.Empty(t, used(piece(card.Bond{}, Support{})))
}
