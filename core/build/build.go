// Package build puts together the card as it will physically be: every leaf of paper
// and every print once, with its outline, its stock, and what holds it off the thing
// beneath. It is the one place that knows the kinds of things on a card.
package build

import (
	"ochrestone/core/card"
	"ochrestone/core/look"
	"ochrestone/core/shape"
)

// ID names a physical thing: the element of the card it belongs to, the part of it
// (a layer of an image; empty for a sheet), and which copy, from 0.
type ID struct {
	Element, Part string
	Copy          int
}

// Piece is a leaf of paper, or a print on one.
type Piece struct {
	ID      ID
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

// glueFilm is what a thin line of glue adds when the adhesive is not known, mm.
const glueFilm = 0.02

// Lift is how high a joint holds a part off what is beneath, mm, and whether it is
// foam that a heat tool would warp.
func Lift(s look.Stock, j card.Joint) (height float64, foam bool) {
	if sp, ok := s.Spacer(j.Spacer); ok && j.Kind == card.Foamed {
		return sp.Thickness * float64(max(1, j.Levels)), sp.Foam()
	}
	if j.Kind == card.Loose {
		return 0, false
	}
	if a, ok := s.Adhesive(j.Glue); ok && a.Thickness > 0 {
		return a.Thickness, false
	}
	return glueFilm, false
}

// Image lists the pieces and prints of an image in a colourway, lowest first, each
// put in place. The first is as if laid on the ground: what holds it is the element's
// to say.
func Image(s look.Stock, m look.Image, w card.Colourway, as look.Colourway, element string, place func(shape.Region) shape.Region) []Piece {
	out := make([]Piece, 0, len(m.Shapes.Views))
	for i, v := range m.Shapes.Views {
		l := as.Layers[i]
		p := Piece{ID: ID{Element: element, Part: v.Layer.ID}, Outline: place(v.Outline), Body: l.Paper, Top: l.Dry}
		if l.Edge != "" {
			p.Body = l.Edge
		}
		if v.Layer.Make == card.Cut {
			p.Stock, p.Plies = w.Layers[v.Layer.ID].Paper, max(1, v.Layer.Copies)
			p.Thick = s.Caliper(p.Stock) * float64(p.Plies)
			if i > 0 {
				p.Lift, p.Foam = Lift(s, v.Layer.Joint)
			}
		}
		out = append(out, p)
	}
	return out
}
