package card

import (
	"fmt"
	"reflect"
	"slices"
)

// Changes says in words what differs between two states of a card, a few words a
// thing; none when they are alike. name is what a person calls an element.
func Changes(before, after Card, name func(Card, Element) string) []string {
	var out []string
	say := func(differs bool, what string) {
		if differs && !slices.Contains(out, what) {
			out = append(out, what)
		}
	}
	say(before.Title != after.Title, "its title")
	say(!reflect.DeepEqual(before.Base, after.Base), "its base")
	for _, e := range after.Elements {
		was, had := before.Element(e.ID)
		say(!had, name(after, e)+" was added")
		say(had && !reflect.DeepEqual(was, e), name(after, e))
	}
	for _, e := range before.Elements {
		_, has := after.Element(e.ID)
		say(!has, name(before, e)+" was taken off")
	}
	for _, m := range after.Motifs {
		was, had := before.Motif(m.ID)
		if !had {
			continue // it came with an element
		}
		say(!reflect.DeepEqual(was.Layers, m.Layers) || was.School != m.School, "the layers of "+m.Name)
		for _, w := range m.Colourways {
			old, had := was.Colourway(w.ID)
			say(!had || !reflect.DeepEqual(old, w), fmt.Sprintf("%s, %s", m.Name, w.Name))
		}
	}
	order := func(c Card) (ids []string) {
		for _, e := range c.Elements {
			ids = append(ids, e.ID)
		}
		return ids
	}
	say(len(out) == 0 && !slices.Equal(order(before), order(after)), "the order of the pile")
	say(!slices.Equal(before.Order, after.Order), "the order of work")
	say(!reflect.DeepEqual(before.SetAside, after.SetAside), "the notes set aside")
	return out
}
