// Package build puts together the card as it will physically be: every leaf of paper
// and every print once, with its outline, its stock, and what holds it off the thing
// beneath. It is the one place that knows the kinds of things on a card, one kind a
// file.
package build

import (
	"errors"
	"fmt"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// ID names a physical thing: the element of the card it belongs to, the part of it (a
// layer of an image; empty for a sheet). The base of the card has neither.
type ID struct{ Element, Part string }

// Piece is a leaf of paper, or a print on one.
type Piece struct {
	ID      ID
	On      ID           // the leaf it is put on; of a print, the leaf that bears its ink
	Outline shape.Region // in the frame of the front, mm
	Stock   string       // cardstock id; empty for a print
	Thick   float64      // mm; 0 for a print
	Lift    float64      // foam or glue beneath it, mm
	Foam    bool         // the lift is foam
	Plies   int          // leaves glued into one
	Body    string       // colour of the card, #rrggbb
	Top     string       // dried ink on its top, #rrggbb
}

// Print reports whether the piece is ink and no leaf of its own.
func (p Piece) Print() bool { return p.Thick == 0 }

// Thing is an element of the card, put together.
type Thing struct {
	Element  card.Element
	Name     string       // what a person calls it
	Outline  shape.Region // in place on the front; empty where it lies elsewhere or cannot be worked out
	Rough    shape.Region // the same, simplified by no more than a hair: for telling what lies over what
	From, To int          // its pieces
	Leaf     *card.Leaf   // of a mat or the panel: where it lies
	Made     int          // of an image: which of Build.Made; -1 for others and for images that cannot be worked out
	Printed  bool         // its lowest layers are printed straight on what carries it
	Leaves   int          // pieces of it that are leaves of their own
}

// Made is an image in a colourway as it has to be made, and for which elements.
type Made struct {
	Image     look.Image
	Colourway card.Colourway
	Look      look.Colourway
	Things    []int // of Build.Things

	rough shape.Region // its silhouette, simplified
}

// Hair is how far, mm, two things may lie over each other without it counting.
const Hair = 0.1

// Image is a motif of the card, worked out.
type Image struct {
	look.Image
	Problem string           // why it cannot be worked out; then there is nothing else
	Looks   []look.Colourway // by the motif's colourways
}

// Build is the whole card, put together.
type Build struct {
	Card   card.Card
	Stock  look.Stock
	Thick  float64        // of the two leaves of the base, mm
	Leaves []card.Leaf    // mats in place, lowest first; the last is what images lie on
	Mats   *card.MatError // they do not fit, and all is built as if there were none
	Things []Thing        // by the card's elements
	Pieces []Piece        // on the front, lowest first
	Made   []Made         // in the order they are met
}

// Expand puts a card together from its images, which go by the card's motifs.
func Expand(c card.Card, s look.Stock, images []Image) Build {
	b := Build{Card: c, Stock: s, Thick: 2 * s.Caliper(c.Base.Paper), Things: make([]Thing, len(c.Elements))}
	leaves, err := c.Nest()
	if errors.As(err, &b.Mats) {
		leaves = []card.Leaf{{Size: c.Base.Size()}}
	}
	b.Leaves = leaves
	for i, e := range c.Elements {
		b.Things[i] = Thing{Element: e, Name: Name(c, e), From: len(b.Pieces), Made: -1}
		if k := kindOf(e); k != nil {
			k.build(&b, i, images)
		}
		b.Things[i].To = len(b.Pieces)
	}
	return b
}

// Panel is the leaf that images lie on.
func (b *Build) Panel() card.Leaf { return b.Leaves[len(b.Leaves)-1] }

// Carrier is the leaf an element lies on.
func (b *Build) Carrier(e card.Element) ID {
	if on, ok := b.Card.Element(e.On); ok && on.Sheet != nil && (b.Mats == nil || on.Inset == nil) {
		return ID{Element: on.ID}
	}
	return ID{}
}

// Weight is that of the whole card without its envelope, g.
func (b *Build) Weight() float64 {
	grams := 2 * b.Card.Base.W * b.Card.Base.H * b.Stock.GSM(b.Card.Base.Paper) / 1e6
	for _, p := range b.Pieces {
		grams += p.Outline.Area() * float64(p.Plies) * b.Stock.GSM(p.Stock) / 1e6
	}
	return grams
}

// glueFilm is what a thin line of glue adds when the adhesive is not known, mm.
const glueFilm = 0.02

// Lift is how high bonds hold a part off what is beneath, mm, and whether it is foam
// that a heat tool would warp. None at all leave it loose, on what is beneath.
func Lift(s look.Stock, bonds []card.Bond) (height float64, foam bool) {
	if len(bonds) == 0 {
		return 0, false
	}
	held := bonds[0]
	if sp, ok := s.Spacer(held.Spacer); ok && held.Raised() {
		return sp.Thickness * float64(max(1, held.Level)), sp.Foam()
	}
	if a, ok := s.Adhesive(held.Adhesive); ok && a.Thickness > 0 {
		return a.Thickness, false
	}
	return glueFilm, false
}

// Held says how bonds hold a part, in a few words.
func Held(s look.Stock, bonds []card.Bond, w measure.Writing) string {
	if len(bonds) == 0 {
		return "laid loose"
	}
	b := bonds[0]
	if b.Raised() {
		sp, ok := s.Spacer(b.Spacer)
		if !ok {
			return "on foam: none chosen"
		}
		mm, _ := Lift(s, bonds)
		return fmt.Sprintf("on %s, %s", strings.ToLower(sp.Name), w.Thin(mm))
	}
	if a, ok := s.Adhesive(b.Adhesive); ok {
		return a.Name
	}
	return "glued"
}
