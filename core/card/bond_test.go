package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
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

// What is to be level with itself, or with nothing on the card, is refused; the wish is
// made and taken back by an edit.
func TestLevelWith(t *testing.T) {
	c := card.Card{Version: card.Version, Title: "x", Base: card.Base{W: 100, H: 140}, Elements: []card.Element{
		{ID: "a", Face: card.Front, Sheet: &card.Sheet{W: 20, H: 20}}, {ID: "b", Face: card.Front, Sheet: &card.Sheet{W: 20, H: 20}}}}
	wish := func(with string) (card.Card, error) {
		return c.Apply(kit.Kit{}, card.Edit{LevelWith: &card.LevelWith{Element: "a", With: with}})
	}
	got, err := wish("b")
	require.NoError(t, err)
	assert.Equal(t, "b", got.Elements[0].Level)
	got, err = wish("")
	require.NoError(t, err)
	assert.Empty(t, got.Elements[0].Level)
	got, err = wish("b")
	require.NoError(t, err)
	got, err = got.Apply(kit.Kit{}, card.Edit{Remove: &card.Remove{Element: "b"}})
	require.NoError(t, err, "what others are to be level with can be taken off")
	assert.Empty(t, got.Elements[0].Level)
	for _, with := range []string{"a", "gone"} {
		got, err := wish(with)
		if err == nil {
			err = got.Validate()
		}
		assert.ErrorContains(t, err, "level")
	}
}
