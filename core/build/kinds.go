package build

import (
	"fmt"

	"ochrestone/core/card"
)

// kind is how a sort of thing is put together.
type kind struct {
	is    func(e card.Element) bool
	name  func(c card.Card, e card.Element) string
	build func(b *Build, i int, images []Image)
}

// kinds lists the sorts of things on a card, one a file.
var kinds = []kind{sheets, images, gems, letters, ribbons, shakers}

// kindOf is the sort of thing an element is; nil for one this version does not know.
func kindOf(e card.Element) *kind {
	for i := range kinds {
		if kinds[i].is(e) {
			return &kinds[i]
		}
	}
	return nil
}

// Name is what a person calls an element: the name given to it, or what it is.
func Name(c card.Card, e card.Element) string {
	if e.Name != "" {
		return e.Name
	}
	if k := kindOf(e); k != nil {
		return k.name(c, e)
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

// PartName is what a person calls a part of an element: a layer of an image, a letter.
func (b *Build) PartName(e card.Element, part string) string {
	switch {
	case part == CutoutPart:
		return "Its card"
	case e.Image != nil:
		if m, ok := b.Card.Motif(e.Image.Motif); ok {
			for _, l := range m.Layers {
				if l.ID == part && l.Label != "" {
					return l.Label
				}
			}
		}
	case e.Letters != nil:
		if t := b.thing(e.ID); t != nil && t.Line != nil {
			for i, l := range t.Line.Letters {
				if part == fmt.Sprint(i+1) {
					return fmt.Sprintf("Letter %d, %s", i+1, l.Letter)
				}
			}
		}
	}
	return "Part " + part
}

// thing finds what is built of an element.
func (b *Build) thing(element string) *Thing {
	for i := range b.Things {
		if b.Things[i].Element.ID == element {
			return &b.Things[i]
		}
	}
	return nil
}
