// Package build puts together the card as it will physically be: every leaf of paper
// and every print once, with its outline, its stock, and what holds it off the thing
// beneath. It is the one place that knows the kinds of things on a card, one kind a
// file.
package build

import (
	"errors"

	"ochrestone/core/card"
	"ochrestone/core/layout"
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
	Local   shape.Region // in its thing's own frame: about its middle, unturned; empty for parts of images
	Films   []Film       // ink on it, in that frame; of images the prints are pieces of their own
	Clear   bool         // what lies behind is seen through it
	Stock   string       // cardstock id; empty for a print
	Thick   float64      // mm; 0 for a print
	Lift    float64      // foam or glue beneath it, mm
	Foam    bool         // the lift is foam
	Plies   int          // leaves glued into one
	Holds   []Hold       // what holds it to what is beneath; none: laid loose, or a print
	frame   frame        // its own frame on the front
	cut     bool         // something of it is trimmed or snipped off
	Body    string       // colour of the card, #rrggbb
	Top     string       // dried ink on its top, #rrggbb
	Bare    bool         // a print without an ink: not printed, and not drawn
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
	Prints   shape.Region // of such an image: where it lies on its face, whichever that is, as roughly as Rough
	Leaves   int          // pieces of it that are leaves of their own
	Tints    [][]Film     // of an image printed on what has colours already: by layer, in the image's frame; else those of its look

	// Of all but images:
	At       card.Place     // where its middle lies
	Local    shape.Region   // its outline about its middle, unturned
	Whole    shape.Region   // the same without its openings
	Openings []shape.Region // as they are cut, in that frame
	Seats    []shape.Region // places pressed into it where images go, in that frame
	Died     bool           // of a sheet: a die of the stores cuts its outline
	Islands  int            // loose islands of letters, cut out or kept
	Patches  []Patch        // of a sheet: which colour it has where, in that frame
	Treated  []Treated      // of a sheet: what its treatments come to
	Line     *layout.Line   // of letters: how they are set
	Shaking  *Shaking       // of a shaker: what it comes to
	Overhang float64        // mm² that are trimmed off at the panel's edge
	Offcut   shape.Region   // what that is, in place on the front
	Drawn    []Piece        // its pieces, those beside the card too
	Problem  string         // why it cannot be made as it is described
}

// Place lays a region in the thing's own frame on its face.
func (t Thing) Place(g shape.Region) shape.Region { return layout.Place(g, shape.Box{}, t.At) }

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
	Images []Image        // those of the card, by its motifs
	// Up are the pieces from the lowest up, where parts that cross another thing the other
	// way than the rest change that; nil where it is the order of Pieces.
	Up       []int
	Woven    []Weave   // tucks that cannot be, as they go in a circle
	Patterns []Pattern // turned on sheets

	Leaf    shape.Region // the front leaf of the base where it is not the plain rectangle; else empty
	LeafBad string       // why its outline cannot be cut
	Base    Thing        // the front leaf with what is done to it; without any its Treated is empty

	tucked [][2]int // pieces that cross the other way than the rest, the lower first
	with   With
}

// Expand puts a card together from its images, which go by the card's motifs, with a
// typeface for its words.
func Expand(c card.Card, s look.Stock, images []Image, with With) Build {
	b := Build{Card: c, Stock: s, Thick: float64(c.Base.Leaves()) * s.Caliper(c.Base.Paper), Things: make([]Thing, len(c.Elements)), Patterns: []Pattern{}, Images: images, with: with}
	b.frontLeaf()
	b.treatBase(images)
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
	b.trim()
	b.snip()
	b.weave()
	return b
}

// treatBase does to the front leaf of the base what is done to it.
func (b *Build) treatBase(images []Image) {
	s := b.Card.Base.Sheet()
	b.Base = Thing{Element: card.Element{Face: card.Front, Sheet: &s}, Name: "The card front", Made: -1, At: card.Place{X: s.W / 2, Y: s.H / 2}}
	if len(s.Treatments) == 0 {
		return
	}
	made := b.remembered(b.Base.Element, b.Base.At, s.W, s.H, images)
	b.Base.Local, b.Base.Whole, b.Base.Treated, b.Base.Patches = made.local, made.whole, made.treated, made.patches
	body := b.Stock.PaperColour(s.Paper).Hex()
	b.Base.Drawn = []Piece{{Local: made.local, Films: made.films, Stock: s.Paper, Body: body, Top: body}}
	b.Patterns = append(b.Patterns, made.patterns...)
}

// frontLeaf is the front leaf of the base where it has an outline of its own, or is
// shorter than the back.
func (b *Build) frontLeaf() {
	base := b.Card.Base
	if base.Leaf == nil && base.Short == 0 {
		return
	}
	s := base.Front()
	g, err := layout.Outline(base.Leaf, s.W, s.H, b.part)
	if err != nil {
		b.LeafBad = said(err)
		g = shape.Rect(-s.W/2, -s.H/2, s.W, s.H)
	}
	b.Leaf = g.Move(shape.Point{X: s.W / 2, Y: s.H / 2})
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

// asFront is the share of the front's width, and of its height, from which a sheet is as good as the
// whole of it; our own default.
const asFront = 0.75

// AsFront reports whether a sheet is as good as the whole front: its panel, whatever it is called.
func (b *Build) AsFront(t *Thing) bool {
	box := t.Outline.Bounds()
	return t.Element.Sheet != nil && !t.Outline.Empty() && box.W() >= asFront*b.Card.Base.W && box.H() >= asFront*b.Card.Base.H && t.Whole.Area() >= box.W()*box.H()/2
}

// Edge is the leaf whose edge a thing is to keep within: of what carries it, and what carries that,
// the first that is as good as the whole front, else the front itself, without an id. What stands out
// past a small sheet it lies on is no matter.
func (b *Build) Edge(e card.Element) card.Leaf {
	front := card.Leaf{Size: b.Card.Base.Size()}
	for id := e.On; id != ""; {
		on := b.thing(id)
		if on == nil {
			break
		}
		if on.Leaf != nil {
			return *on.Leaf
		}
		if b.AsFront(on) {
			box := on.Outline.Bounds()
			return card.Leaf{ID: id, Size: measure.Size{W: box.W(), H: box.H()}, X: box.Min.X, Y: box.Min.Y}
		}
		id = on.Element.On
	}
	return front
}

// Weight is that of the whole card without its envelope, g.
func (b *Build) Weight() float64 {
	grams := float64(b.Card.Base.Leaves()) * b.Card.Base.W * b.Card.Base.H * b.Stock.GSM(b.Card.Base.Paper) / 1e6
	for _, p := range b.Pieces {
		grams += p.Outline.Area() * float64(p.Plies) * b.Stock.GSM(p.Stock) / 1e6
	}
	return grams
}

// laid puts the pieces of a thing, drawn in its own frame, in place, the lowest first; what
// does not lie on the front is only drawn.
func (b *Build) laid(t *Thing, ps []Piece) {
	if t.Element.Face != card.Front {
		t.Drawn = ps
		return
	}
	t.Leaves = len(ps)
	for k := range ps {
		ps[k].Outline = t.Place(ps[k].Local)
	}
	t.Outline = t.Place(t.Local)
	t.Rough = t.Outline.Simplify(Hair)
	from := len(b.Pieces)
	b.Pieces = append(b.Pieces, ps...)
	t.Drawn = b.Pieces[from:]
}
