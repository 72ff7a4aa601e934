package build

import (
	"slices"

	"ochrestone/core/card"
)

// Name is what a person calls an element: the name given to it, or what it is.
func Name(c card.Card, e card.Element) string {
	switch {
	case e.Name != "":
		return e.Name
	case e.Image != nil:
		m, ok := c.Motif(e.Image.Motif)
		if !ok {
			return "Image"
		}
		if w, ok := m.Colourway(e.Image.Colourway); ok && len(m.Colourways) > 1 {
			return m.Name + ", " + w.Name
		}
		return m.Name
	case e.Sheet != nil && e.Inset != nil:
		mats := c.Mats()
		if i := slices.IndexFunc(mats, func(o card.Element) bool { return o.ID == e.ID }); i >= 0 {
			return card.MatName(i, len(mats))
		}
		return "Sheet"
	case e.Sheet != nil:
		if w := e.Sheet.Words(); w != nil && w.Text != "" {
			return "Strip “" + w.Text + "”"
		}
		return "Strip"
	}
	return "A thing this version does not know"
}

// PanelName is what a person calls the leaf that images lie on.
func (b *Build) PanelName() string { return b.LeafName(b.Panel().ID) }

// LeafName is what a person calls a leaf of the front, by its element; the card front
// for none.
func (b *Build) LeafName(element string) string {
	if e, ok := b.Card.Element(element); ok {
		return Name(b.Card, e)
	}
	return "the card front"
}
