// Package card holds the document a person makes: a card with its base, its images
// and colourways, and everything that lies on it; the changes that can be made to it,
// and the checks that keep it readable.
package card

import "cmp"

// Version is the document version this program writes.
const Version = 2

// Card is the whole document.
type Card struct {
	Version  int       `json:"version" doc:"document version" minimum:"1"`
	Title    string    `json:"title" minLength:"1" maxLength:"120"`
	Base     Base      `json:"base"`
	Motifs   []Motif   `json:"motifs" nullable:"false" doc:"the images made for this card"`
	Elements []Element `json:"elements" nullable:"false" doc:"everything on it, lowest first"`
	Lamp     string    `json:"lamp,omitempty" doc:"the element light comes from on the front, such as a lamp; empty: the side says"`
	Light    Side      `json:"light,omitempty" enum:"left,right" doc:"the side light falls from on the front; none: nobody minds"`
	Copies   int       `json:"copies,omitempty" minimum:"0" maximum:"200" doc:"how many of it are made in one sitting; 0 counts as one"`
	Lots     []Lot     `json:"lots,omitempty" maxItems:"24" doc:"how the cards of a sitting differ; none: they are all alike"`
	Locks    []Lock    `json:"locks,omitempty" maxItems:"500" doc:"pieces laid on their sheets by hand"`
	Order    []Step    `json:"order,omitempty" doc:"the person's own order of work, where it differs"`
	SetAside []Aside   `json:"setAside" nullable:"false" doc:"margin notes the person has set aside"`

	extra extra
}

// MaxCopies is how many of a card are made in one sitting at most.
const MaxCopies = 200

// Step names something to do at the bench: what is done, and to what of the card.
type Step struct {
	Verb      string `json:"verb" doc:"what is done"`
	Element   string `json:"element,omitempty" doc:"to this element"`
	Motif     string `json:"motif,omitempty" doc:"or to this image"`
	Colourway string `json:"colourway,omitempty"`
	Part      string `json:"part,omitempty" doc:"layer of the image"`
	N         int    `json:"n,omitempty" doc:"which of several, from 1"`
	// Of a sitting of several designs, or of cards that differ.
	Card string `json:"card,omitempty" doc:"of this other card"`
	Lot  string `json:"lot,omitempty" doc:"for this lot, and others alike in it"`
}

// Compare orders steps by their fields, so that they can be sorted and searched.
func (s Step) Compare(o Step) int {
	return cmp.Or(cmp.Compare(s.Verb, o.Verb), cmp.Compare(s.Element, o.Element), cmp.Compare(s.Motif, o.Motif),
		cmp.Compare(s.Colourway, o.Colourway), cmp.Compare(s.Part, o.Part), cmp.Compare(s.N, o.N),
		cmp.Compare(s.Card, o.Card), cmp.Compare(s.Lot, o.Lot))
}

// Aside is a margin note set aside with a reason.
type Aside struct {
	Finding string `json:"finding" doc:"id of the finding"`
	Cause   string `json:"cause" doc:"what caused it then; another cause brings it back"`
	Reason  string `json:"reason" maxLength:"200"`

	extra extra
}

// Motif finds a motif by its id.
func (c Card) Motif(id string) (Motif, bool) {
	for _, m := range c.Motifs {
		if m.ID == id {
			return m, true
		}
	}
	return Motif{}, false
}

// Element finds an element by its id.
func (c Card) Element(id string) (Element, bool) {
	for _, e := range c.Elements {
		if e.ID == id {
			return e, true
		}
	}
	return Element{}, false
}

// Ground is the paper that an element lies on.
func (c Card) Ground(e Element) string {
	if on, ok := c.Element(e.On); ok && on.Sheet != nil {
		return on.Sheet.Paper
	}
	return c.Base.Paper
}
