package card

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
)

// differing is a card with an image in three colourways, two of them on it, with words and a
// pattern.
func differing() Card {
	inked := func(id, name string) Colourway {
		return Colourway{ID: id, Name: name, Layers: map[string]Finish{"x": {Ink: "ink"}}}
	}
	m := Motif{ID: "m", Name: "Beetle", Layers: []Layer{{ID: "x", Make: Printed}}, Colourways: []Colourway{inked("a", "Ash"), inked("b", "Bay"), inked("c", "Chalk")}}
	return Card{Version: Version, Title: "T", Copies: 8, Motifs: []Motif{m}, Elements: []Element{
		{ID: "p", Sheet: &Sheet{Treatments: []Treatment{{Words: &Words{Text: "for you"}}, {Turned: &Turned{Motif: "m", Colourways: []string{"a", "b"}}}, {Print: &Print{Motif: "m", Colourways: []string{"b"}}}}}},
		{ID: "i", Image: &Image{Motif: "m", Colourway: "a"}}, {ID: "l", Letters: &Letters{Text: "hi"}}}}
}

func TestALotIsTheCardOtherwise(t *testing.T) {
	c := differing()
	l := Lot{ID: "x", Name: "for Ada", Copies: 3, Swaps: []Swap{{"m", "a", "c"}, {"m", "b", "gone"}}, Words: []Wording{{"p", "for you", "for Ada"}, {"l", "hi", "ho"}, {"i", "hi", "no"}}}
	got := c.Of(l)
	assert.Equal(t, 3, got.Run())
	assert.Empty(t, got.Lots)
	assert.Equal(t, "c", got.Elements[1].Image.Colourway)
	assert.Equal(t, []string{"c", "b"}, got.Elements[0].Sheet.Treatments[1].Turned.Colourways, "what is gone changes nothing")
	assert.Equal(t, "for Ada", got.Elements[0].Sheet.Treatments[0].Words.Text)
	assert.Equal(t, "ho", got.Elements[2].Letters.Text)
	assert.Equal(t, differing(), c, "the card itself is as it was")
}

func TestLotsAreSetOrRefused(t *testing.T) {
	c := differing()
	set := func(lots ...Lot) error { return (&SetLots{Lots: lots}).apply(&c, kit.Kit{}) }
	require.NoError(t, set(Lot{Name: " Ash ", Copies: 5}, Lot{ID: "lot1", Copies: 7, Swaps: []Swap{{"m", "a", "b"}}}))
	assert.Equal(t, 12, c.Run())
	assert.Equal(t, "Ash", c.Lots[0].Name)
	assert.NotEqual(t, c.Lots[0].ID, c.Lots[1].ID)
	assert.NoError(t, c.lotsSound())
	assert.ErrorContains(t, (&SetCopies{N: 4}).apply(&c, kit.Kit{}), "how many there are of each")
	assert.ErrorContains(t, set(Lot{Copies: 0}), "at least one of each")
	assert.ErrorContains(t, set(Lot{Copies: 300}), "the rest in another")
	assert.ErrorContains(t, set(Lot{Copies: 1, Swaps: []Swap{{"m", "a", "z"}}}), "no such colourway")
	assert.Equal(t, 12, c.Run(), "what is refused changes nothing")
	require.NoError(t, set())
	assert.Equal(t, 12, c.Run(), "all alike again, as many as there were")
	assert.Empty(t, c.Lots)
}

// lotsSound checks the lots alone.
func (c Card) lotsSound() error {
	k := checker{ids: map[string]string{}}
	k.lots(c.Lots)
	if len(k.errs) > 0 {
		return k.errs[0]
	}
	return nil
}

// Changes of one lot leave the others alone, so that two made at once do not undo each other.
func TestOneLotIsChangedByItself(t *testing.T) {
	c := differing()
	require.NoError(t, (&SetLots{Each: "m"}).apply(&c, kit.Kit{}))
	n, name := 9, "for Ada"
	edit := func(e EditLot) error { return e.apply(&c, kit.Kit{}) }
	require.NoError(t, edit(EditLot{ID: c.Lots[0].ID, Copies: &n}))
	require.NoError(t, edit(EditLot{ID: c.Lots[1].ID, Name: &name, Swap: &Swap{"m", "a", "a"}, Words: &Wording{"l", "hi", "ho"}}))
	assert.Equal(t, []int{9, 3, 2}, []int{c.Lots[0].Copies, c.Lots[1].Copies, c.Lots[2].Copies})
	assert.Equal(t, "for Ada", c.Lots[1].Name)
	assert.Equal(t, "a", c.Of(c.Lots[1]).Elements[1].Image.Colourway, "as on the card again")
	assert.Equal(t, "ho", c.Of(c.Lots[1]).Elements[2].Letters.Text)
	require.NoError(t, edit(EditLot{}))
	assert.Equal(t, 1, c.Lots[3].Copies)
	require.NoError(t, edit(EditLot{ID: c.Lots[0].ID, Away: true}))
	assert.Equal(t, 6, c.Run())
	assert.ErrorIs(t, edit(EditLot{ID: "none"}), ErrGone)
}

func TestALotForEachColourway(t *testing.T) {
	c := differing()
	assert.Equal(t, []string{"a", "b"}, c.Ways("m"))
	require.NoError(t, (&SetLots{Each: "m"}).apply(&c, kit.Kit{}))
	require.Len(t, c.Lots, 3)
	assert.Equal(t, []int{3, 3, 2}, []int{c.Lots[0].Copies, c.Lots[1].Copies, c.Lots[2].Copies})
	for i, w := range []string{"a", "b", "c"} {
		assert.Equal(t, []string{w}, c.Of(c.Lots[i]).Ways("m"))
	}
	assert.Error(t, (&SetLots{Each: "none"}).apply(&c, kit.Kit{}))
}

// The words of a card are those of its base, of its sheets and of letters cut for it.
func TestWhatACardSays(t *testing.T) {
	said := func(s string) []Treatment { return []Treatment{{Words: &Words{Text: s}}} }
	c := Card{Base: Base{Treatments: said("inside the fold")}, Elements: []Element{{Sheet: &Sheet{Treatments: append(said("thank you"), Treatment{})}}, {Letters: &Letters{Text: "night"}}, {Image: &Image{}}}}
	if got := c.Says(); !slices.Equal(got, []string{"inside the fold", "thank you", "night"}) {
		t.Errorf("says %q", got)
	}
	if got := (Card{}).Says(); len(got) != 0 {
		t.Errorf("a bare card says %q", got)
	}
}

// Nobody makes blank cards: a colourway in which nothing was chosen is no sort of its own.
func TestNoLotIsBlank(t *testing.T) {
	c := differing()
	c.Motifs[0].Colourways = append(c.Motifs[0].Colourways, Colourway{ID: "d", Name: "Empty", Layers: map[string]Finish{}},
		Colourway{ID: "e", Name: "A blend alone", Layers: map[string]Finish{"x": {Blends: []Blend{{Ink: "i", Zone: Foot}}}}})
	require.NoError(t, (&SetLots{Each: "m"}).apply(&c, kit.Kit{}))
	var names []string
	for _, l := range c.Lots {
		names = append(names, l.Name)
	}
	assert.Equal(t, []string{"Ash", "Bay", "Chalk", "A blend alone"}, names)
	c.Motifs[0].Colourways = []Colourway{{ID: "a", Layers: map[string]Finish{}}}
	assert.ErrorContains(t, (&SetLots{Each: "m"}).apply(&c, kit.Kit{}), "colour them in Inks first")
	two := Motif{Layers: []Layer{{ID: "x", Make: Cut}, {ID: "y", Make: Cut}}}
	assert.True(t, two.Blank(Colourway{Layers: map[string]Finish{"x": {Paper: "p"}, "y": {Paper: "p"}}}))
	assert.False(t, two.Blank(Colourway{Layers: map[string]Finish{"x": {Paper: "p"}, "y": {Paper: "q"}}}), "two cards are a choice")
}
