package remember_test

import (
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/remember"
	"ochrestone/demo"
)

// What was changed of a card is said, each thing once, and nothing of what was not; and
// whatever happens to a card, the way there and the way back say as much.
func TestWhatWasChangedSince(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	maker := plan.NewPlanner()
	since := func(a, b card.Card) []string {
		return remember.Since(a, b, maker.Of(a, k), maker.Of(b, k), k, measure.Metric)
	}
	for _, c := range demo.Cards(k) {
		assert.Empty(t, since(c, c), "%s is as it was", c.Title)
	}
	was := demo.Cards(k)[0]
	is := was
	is.Title, is.Copies = "Another", 5
	is.Elements = slices.Clone(was.Elements)
	at := slices.IndexFunc(is.Elements, func(e card.Element) bool { return e.Image != nil })
	require.GreaterOrEqual(t, at, 0)
	is.Elements[at].Place.X += 3
	is.Elements[at].Place.Y += 4
	is.Motifs = slices.Clone(was.Motifs)
	m := &is.Motifs[0]
	m.Colourways = slices.Clone(m.Colourways)
	w := &m.Colourways[0]
	w.Layers = maps.Clone(w.Layers)
	layer := slices.Sorted(maps.Keys(w.Layers))[0]
	f := w.Layers[layer]
	old, _ := k.Ink(f.Ink)
	other := k.Inks[slices.IndexFunc(k.Inks, func(i kit.Ink) bool { return i.ID != f.Ink })]
	f.Ink = other.ID
	w.Layers[layer] = f
	got := since(was, is)
	assert.Contains(t, got, "It was called "+was.Title+".")
	assert.Contains(t, got, "1 were made in a sitting, now 5.")
	name := func(ink string) string {
		if ink == "" {
			return "left plain"
		}
		return ink
	}
	said := strings.Join(got, "\n")
	assert.Contains(t, said, " was moved by 5 mm.", "three to the right and four down is five, by Pythagoras")
	assert.Contains(t, said, " was "+name(old.Name)+", is "+other.Name+".")
	assert.Len(t, since(is, was), len(got), "as much is said of the way back")

	bare := was
	bare.Elements = nil
	for _, e := range since(was, bare) {
		assert.NotContains(t, e, "New:")
	}
	for _, e := range since(bare, was) {
		assert.NotContains(t, e, "Gone:")
	}
}
