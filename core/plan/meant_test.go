package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/trial"
)

// A twin knows its print: moved off it by 0.8 mm the note says so, and its mend puts it back.
func TestATwinKnowsItsPrint(t *testing.T) {
	c, k := trial.Card("row"), trial.Kit()
	var of string
	for _, e := range c.Elements {
		if e.Image != nil {
			of = e.ID
		}
	}
	c, err := c.Apply(k, card.Edit{Twin: &card.Twin{Element: of}})
	require.NoError(t, err)
	twin := c.Elements[len(c.Elements)-1]
	_, had := on{c, k}.foretold()["meant"]
	assert.False(t, had, "it lies right over it")
	off, err := c.Apply(k, card.Edit{Move: &card.Move{Element: twin.ID, DX: 0.8}})
	require.NoError(t, err)
	f, has := on{off, k}.foretold()["meant"]
	require.True(t, has)
	assert.InDelta(t, 0.8, f.Numbers["is"], 1e-6)
	require.NotNil(t, f.Mend)
	back, err := off.Apply(k, f.Mend.Edits...)
	require.NoError(t, err)
	e, _ := back.Element(twin.ID)
	assert.InDelta(t, twin.Place.X, e.Place.X, 1e-6)
	again, err := c.Apply(k, card.Edit{Repeat: &card.Repeat{Element: twin.ID}})
	require.NoError(t, err)
	assert.Empty(t, again.Elements[len(again.Elements)-1].Meant, "another of it is no copy of that print")
	without, err := c.Apply(k, card.Edit{Remove: &card.Remove{Element: of}})
	require.NoError(t, err)
	e, _ = without.Element(twin.ID)
	assert.Empty(t, e.Meant, "its print is gone")
}

// What is done on purpose draws no other note.
func TestOnPurposeIsNotNoted(t *testing.T) {
	for _, c := range []struct {
		rule string
		m    card.Meant
		lay  func(c *card.Card) *card.Element
	}{
		{"edge", card.Meant{Do: card.RunsOver}, func(c *card.Card) *card.Element {
			return laid(c, "label", c.Base.W/2, 0, card.Sheet{Paper: "oat", W: 30, H: 20})
		}},
		{"buried", card.Meant{Do: card.IsHidden}, func(c *card.Card) *card.Element {
			laid(c, "low", 0, 0, card.Sheet{Paper: "oat", W: 20, H: 20})
			laid(c, "over", 0, 0, card.Sheet{Paper: "chalk", W: 40, H: 40})
			return &c.Elements[len(c.Elements)-2]
		}},
		{"short", card.Meant{Do: card.KeepsOff, With: "bloom"}, func(c *card.Card) *card.Element {
			laid(c, "bloom", 0, -20, card.Sheet{Paper: "oat", W: 40, H: 20})
			return laid(c, "stalk", 0, 7, card.Sheet{Paper: "oat", W: 2, H: 30})
		}},
	} {
		_, told := bare(func(x *card.Card, _ *kit.Kit) { c.lay(x) }).foretold()[c.rule]
		assert.True(t, told, c.rule)
		_, told = bare(func(x *card.Card, _ *kit.Kit) { c.lay(x).Meant = []card.Meant{c.m} }).foretold()[c.rule]
		assert.False(t, told, c.rule)
	}
}
