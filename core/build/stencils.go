package build

import (
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/words"
)

// Through is one inking through a stencil.
type Through struct {
	Thing int      // what it is done to, of Build.Things; -1: the front leaf of the base
	N     int      // of its treatments
	Ink   string   // id
	Over  []string // names of the images that it colours; none where it is laid on the ground
}

// Throughs lists what goes through one part of a stencil set, sheet by sheet in the card's order, the
// front leaf of the base first.
func (b *Build) Throughs(set, part string) (out []Through) {
	for i := -1; i < len(b.Things); i++ {
		t := b.on(i)
		if t.Element.Sheet == nil {
			continue
		}
		for n, tr := range t.Element.Sheet.Treatments {
			if s := tr.Stencil; s != nil && s.Set == set && s.Part == part && n < len(t.Treated) {
				out = append(out, Through{i, n, s.Ink, b.colours(t, *s, n)})
			}
		}
	}
	return out
}

// on is a thing by its number; -1 is the front leaf of the base.
func (b *Build) on(i int) *Thing {
	if i < 0 {
		return &b.Base
	}
	return &b.Things[i]
}

// colours names the images whose prints a stencil goes over, each once.
func (b *Build) colours(under *Thing, s card.Stencil, n int) (out []string) {
	if !s.Over {
		return nil
	}
	for _, t := range b.Things {
		if !t.Printed || t.Element.On != under.Element.ID || t.Element.Face != under.Element.Face || slices.Contains(out, t.Name) {
			continue
		}
		for _, g := range under.Treated[n].Regions {
			if t.Prints.Overlaps(under.Place(g)) {
				out = append(out, t.Name)
				break
			}
		}
	}
	return out
}

// Table says image by ink what goes through a stencil, an ink an entry in the order they are met; none
// where it is one ink on one thing.
func (b *Build) Table(all []Through) (out []string) {
	var inks []string
	on := map[string][]string{}
	for _, a := range all {
		if !slices.Contains(inks, a.Ink) {
			inks = append(inks, a.Ink)
		}
		names := a.Over
		if len(names) == 0 {
			names = []string{words.Small(b.on(a.Thing).Name)}
		}
		for _, n := range names {
			if !slices.Contains(on[a.Ink], n) {
				on[a.Ink] = append(on[a.Ink], n)
			}
		}
	}
	if len(inks) == 0 || len(inks) == 1 && len(on[inks[0]]) < 2 {
		return nil
	}
	for _, ink := range inks {
		out = append(out, b.Stock.InkName(ink)+" on "+words.Listed(on[ink]))
	}
	return out
}
