package plan_test

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
)

// What was changed of a card is said, each thing once, and nothing of what was not; and
// whatever happens to a card, the way there and the way back say as much.
func TestWhatWasChangedSince(t *testing.T) {
	_, k := moth(t)
	maker := plan.NewPlanner()
	mm := plan.Writing(measure.Metric)
	since := func(a, b card.Card) []string {
		return plan.Since(a, b, maker.Of(a, k, mm), maker.Of(b, k, mm), k, mm)
	}
	for _, c := range demoCards(t) {
		assert.Empty(t, since(c, c), "%s is as it was", c.Title)
	}
	was := demoCards(t)[0]
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
