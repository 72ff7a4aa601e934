package kit

import "slices"

// Kind is what an item of the stores is of, by the name of its shelf.
type Kind string

// Kinds of items.
const (
	KindSet      Kind = "sets"
	KindInk      Kind = "inks"
	KindPaper    Kind = "papers"
	KindSpacer   Kind = "spacers"
	KindAdhesive Kind = "adhesives"
	KindEnvelope Kind = "envelopes"
	KindGem      Kind = "gems"
	KindMachine  Kind = "machines"
)

// Owned is the kit without what is no longer in the stores and is only kept for the cards that
// use it: what may be offered. Swatches stay, they are of what they are of.
func (k Kit) Owned() Kit {
	k.Sets = slices.DeleteFunc(slices.Clone(k.Sets), func(v Set) bool { return v.Away })
	k.Inks = slices.DeleteFunc(slices.Clone(k.Inks), func(v Ink) bool { return v.Away })
	k.Papers = slices.DeleteFunc(slices.Clone(k.Papers), func(v Cardstock) bool { return v.Away })
	k.Spacers = slices.DeleteFunc(slices.Clone(k.Spacers), func(v Spacer) bool { return v.Away })
	k.Adhesives = slices.DeleteFunc(slices.Clone(k.Adhesives), func(v Adhesive) bool { return v.Away })
	k.Envelopes = slices.DeleteFunc(slices.Clone(k.Envelopes), func(v Envelope) bool { return v.Away })
	k.Gems = slices.DeleteFunc(slices.Clone(k.Gems), func(v Gem) bool { return v.Away })
	k.Machines = slices.DeleteFunc(slices.Clone(k.Machines), func(v Machine) bool { return v.Away })
	return k
}

// NoLonger is what is no longer in the stores and is kept for the cards that use it.
func (k Kit) NoLonger() Kit {
	k.Sets = slices.DeleteFunc(slices.Clone(k.Sets), func(v Set) bool { return !v.Away })
	k.Inks = slices.DeleteFunc(slices.Clone(k.Inks), func(v Ink) bool { return !v.Away })
	k.Papers = slices.DeleteFunc(slices.Clone(k.Papers), func(v Cardstock) bool { return !v.Away })
	k.Spacers = slices.DeleteFunc(slices.Clone(k.Spacers), func(v Spacer) bool { return !v.Away })
	k.Adhesives = slices.DeleteFunc(slices.Clone(k.Adhesives), func(v Adhesive) bool { return !v.Away })
	k.Envelopes = slices.DeleteFunc(slices.Clone(k.Envelopes), func(v Envelope) bool { return !v.Away })
	k.Gems = slices.DeleteFunc(slices.Clone(k.Gems), func(v Gem) bool { return !v.Away })
	k.Machines = slices.DeleteFunc(slices.Clone(k.Machines), func(v Machine) bool { return !v.Away })
	k.Swatches = []Swatch{}
	return k
}

// Item finds an item by its kind and id: its name, and whether it is no longer in the stores. ok is
// false where there is none.
func (k Kit) Item(kind Kind, id string) (name string, away, ok bool) {
	switch kind {
	case KindSet:
		v, ok := k.Set(id)
		return v.Name, v.Away, ok
	case KindInk:
		v, ok := k.Ink(id)
		return v.Name, v.Away, ok
	case KindPaper:
		v, ok := k.Paper(id)
		return v.Name, v.Away, ok
	case KindSpacer:
		v, ok := k.Spacer(id)
		return v.Name, v.Away, ok
	case KindAdhesive:
		v, ok := k.Adhesive(id)
		return v.Name, v.Away, ok
	case KindEnvelope:
		v, ok := k.Envelope(id)
		return v.Name, v.Away, ok
	case KindGem:
		v, ok := k.Gem(id)
		return v.Name, v.Away, ok
	case KindMachine:
		for _, m := range k.Machines {
			if m.ID == id {
				return m.Name, m.Away, true
			}
		}
	}
	return "", false, false
}
