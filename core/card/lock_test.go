package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// A piece laid by hand is laid anew where it is moved, and let go again, alone or with all
// of its cardstock; one off its sheet is refused with what to do.
func TestPiecesLaidByHand(t *testing.T) {
	c := card.Card{Version: card.Version, Title: "x", Base: card.Base{W: 100, H: 140}}
	lay := func(c card.Card, e card.LayByHand) card.Card {
		got, err := c.Apply(kit.Kit{}, card.Edit{LayByHand: &e})
		require.NoError(t, err)
		return got
	}
	wing := card.Lock{Stock: "oat", Motif: "m", Way: "w", Part: "p", X: 40, Y: 50}
	c = lay(c, card.LayByHand{Piece: wing})
	wing.X, wing.Sheet = 60, 1
	c = lay(c, card.LayByHand{Piece: wing})
	assert.Equal(t, []card.Lock{wing}, c.Locks)
	second := wing
	second.Copy = 1
	c = lay(c, card.LayByHand{Piece: second})
	require.Len(t, c.Locks, 2)
	assert.Equal(t, []card.Lock{wing}, lay(c, card.LayByHand{Piece: second, Free: true}).Locks)
	assert.Empty(t, lay(c, card.LayByHand{Piece: card.Lock{Stock: "oat"}, Free: true, All: true}).Locks)
	wing.X = -5
	_, err := c.Apply(kit.Kit{}, card.Edit{LayByHand: &card.LayByHand{Piece: wing}})
	assert.ErrorContains(t, err, "drag it back on")
}
