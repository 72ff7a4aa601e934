package work

import (
	"slices"

	"ochrestone/core/shape"
)

// About lists what an act works on: the layers it inks or heats, the leaves it frees or puts down, or
// else the leaf it is done on. Puts reports whether that lies in its place from then on.
func (a Act) About() (on []Thing, puts bool) {
	switch {
	case a.onto != (Thing{}) && a.ID.Verb != TrimEdge, a.ID.Verb == Place, a.ID.Verb == Mount, a.ID.Verb == Glue, a.ID.Verb == Tie, a.ID.Verb == Gems:
		return []Thing{a.leaf}, true
	case len(a.inks) > 0:
		on = a.inks
	case len(a.heats) > 0:
		on = a.heats
	case len(a.pops) > 0:
		on = a.pops
	case a.masks != "":
		return []Thing{{Element: a.masks}}, false
	case a.leaf != (Thing{}):
		on = []Thing{a.leaf}
	}
	return slices.Clone(on), false
}

// Treatment is which treatment of its sheet an act is part of, from 1; 0 for an act of none.
func (a Act) Treatment() int { return a.treats }

// Mark is where on the front an act lays its ink; empty where that is all of what it is done on, or
// nobody knows.
func (a Act) Mark() shape.Region { return a.mark }
