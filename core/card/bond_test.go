package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/card"
)

// Bonds nobody could make are refused, each with the place of its field.
func TestBondsThatCannotBe(t *testing.T) {
	ok := card.Card{Version: card.Version, Title: "x", Base: card.Base{W: 100, H: 140}, Elements: []card.Element{{ID: "e", Face: card.Front, Sheet: &card.Sheet{W: 20, H: 20}}}}
	refused := func(b card.Bond) string {
		c := ok
		c.Elements = []card.Element{ok.Elements[0]}
		c.Elements[0].Bonds = []card.Bond{b}
		if err := c.Validate(); err != nil {
			return err.Error()
		}
		return ""
	}
	assert.Empty(t, refused(card.Bond{Spacer: "foam", Level: 6, Zone: card.BondEdge, Inset: 3, Open: []card.Side{card.TopSide}, Pocket: 10, Shims: []card.Shim{{Paper: "p", N: 2}}}))
	assert.Empty(t, refused(card.Bond{Spacer: "foam", Pads: []card.Pad{{X: 1, Y: 2, W: 6, H: 6, Turn: 30}}}))
	for want, b := range map[string]card.Bond{
		"elements[0].bonds[0].level":      {Spacer: "foam", Level: 99},
		"elements[0].bonds[0].zone":       {Zone: "somewhere"},
		"elements[0].bonds[0].inset":      {Inset: -1},
		"elements[0].bonds[0].open":       {Spacer: "foam", Open: []card.Side{"up"}},
		"elements[0].bonds[0].shims[0].n": {Shims: []card.Shim{{Paper: "p"}}},
		"elements[0].bonds[0].shims[1]":   {Shims: []card.Shim{{Paper: "p", N: 1}, {N: 1}}},
		"elements[0].bonds[0].pads":       {Pads: []card.Pad{{W: 4, H: 4}}},
		"elements[0].bonds[0].pads[0].w":  {Spacer: "foam", Pads: []card.Pad{{W: 0, H: 4}}},
		"elements[0].bonds[0].pads[0].x":  {Spacer: "foam", Pads: []card.Pad{{X: 9000, W: 4, H: 4}}},
	} {
		assert.Contains(t, refused(b), want)
	}
	assert.Contains(t, refused(card.Bond{Level: -1}), "take 1 to 6")
	assert.Contains(t, refused(card.Bond{Spacer: "foam", Open: []card.Side{card.LeftSide}, Pads: []card.Pad{{W: 4, H: 4}}}), "drop its pads, or the open sides")
}
