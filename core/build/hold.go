package build

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/layout"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// glueFilm is what a thin line of glue adds when the adhesive is not known, mm.
const glueFilm = 0.02

// Hold is one bond of a piece with what it comes to.
type Hold struct {
	Bond   card.Bond
	Height float64       // it holds the piece off what is beneath, mm
	Foam   bool          // a heat tool would warp it
	Raised bool          // it stands on spacers or shims
	Kind   string        // of its spacer (kit.Spacer.Kind); empty for glue, "board" for plies
	W, H   float64       // size of one pad as it comes, mm; 0: cut to measure
	Glue   *kit.Adhesive // of glue; nil where it is not in the stores
	Flap   *card.Flap    // it is on this flap of a leaf, and nowhere else
}

// frame is where a part's own frame lies: about its middle, unturned.
type frame struct {
	drawn shape.Region // the part as it is drawn; empty: it is drawn about its middle
	box   shape.Box    // of the whole drawing, which At lays
	at    card.Place
}

// Self is the outline of the piece in its own frame: about the middle of its box, as it
// lies unturned, seen from the front.
func (p Piece) Self() shape.Region {
	g := p.frame.drawn
	if g.Empty() {
		g = p.Local
	}
	c := g.Bounds().Centre()
	return g.Move(shape.Point{X: -c.X, Y: -c.Y})
}

// Left is what is left of the piece in its own frame when all that is trimmed and snipped off it is
// off: Self of a whole one. What holds it goes behind this.
func (p Piece) Left() shape.Region {
	if !p.cut {
		return p.Self()
	}
	return p.ToSelf(p.Outline)
}

// FromSelf lays what is drawn in the piece's own frame on the front.
func (p Piece) FromSelf(g shape.Region) shape.Region {
	own := p.frame.drawn
	if own.Empty() {
		own = p.Local
	}
	return layout.Place(g.Move(own.Bounds().Centre()), p.frame.box, p.frame.at)
}

// Frame is where the piece's own frame lies on the front.
func (p Piece) Frame() card.Place {
	own := p.frame.drawn
	if own.Empty() {
		own = p.Local
	}
	at, mid, c := p.frame.at, own.Bounds().Centre(), p.frame.box.Centre()
	d := mid.Sub(c)
	if at.Mirror {
		d.X = -d.X
	}
	s, k := math.Sincos(at.Turn * math.Pi / 180)
	at.X, at.Y = at.X+k*d.X-s*d.Y, at.Y+s*d.X+k*d.Y
	return at
}

// ToSelf brings what lies on the front into the piece's own frame.
func (p Piece) ToSelf(g shape.Region) shape.Region {
	if g.Empty() {
		return g
	}
	own, at := p.frame.drawn, p.frame.at
	if own.Empty() {
		own = p.Local
	}
	c, mid := p.frame.box.Centre(), own.Bounds().Centre()
	g = g.Move(shape.Point{X: c.X - at.X, Y: c.Y - at.Y}).Turn(-at.Turn, c)
	if at.Mirror {
		g = g.Mirror(c.X)
	}
	return g.Move(shape.Point{X: -mid.X, Y: -mid.Y})
}

// HoldsOf works out what bonds come to.
func HoldsOf(s look.Stock, bonds []card.Bond) []Hold {
	if len(bonds) == 0 {
		return nil
	}
	out := make([]Hold, 0, len(bonds))
	for _, bond := range bonds {
		h := Hold{Bond: bond, Raised: bond.Raised()}
		if !h.Raised {
			h.Height = glueFilm
			if a, ok := s.Adhesive(bond.Adhesive); ok {
				if h.Glue = a; a.Thickness > 0 {
					h.Height = a.Thickness
				}
			}
			out = append(out, h)
			continue
		}
		h.Kind = "board"
		if sp, ok := s.Spacer(bond.Spacer); ok {
			h.Height, h.Foam, h.Kind, h.W, h.H = sp.Thickness*float64(bond.Levels()), sp.Foam(), sp.Kind, sp.W, sp.H
		}
		for _, m := range bond.Shims {
			if sp, ok := s.Spacer(m.Spacer); ok {
				h.Height += sp.Thickness * float64(m.N)
				if h.Foam = h.Foam || sp.Foam(); h.W == 0 {
					h.Kind, h.W, h.H = sp.Kind, sp.W, sp.H
				}
			} else if m.Paper != "" {
				h.Height += s.Caliper(m.Paper) * float64(m.N)
			}
		}
		if h.Height == 0 {
			h.Height, h.Raised = glueFilm, false // a spacer that is not in the stores holds like glue
		}
		out = append(out, h)
	}
	return out
}

// Lift is how high bonds hold a part off what is beneath, mm, the highest of them, and
// whether any is foam that a heat tool would warp. None at all leave it loose, on what is
// beneath.
func Lift(s look.Stock, bonds []card.Bond) (height float64, foam bool) {
	return LiftOf(HoldsOf(s, bonds))
}

// LiftOf is Lift of bonds that were worked out.
func LiftOf(holds []Hold) (height float64, foam bool) {
	for _, h := range holds {
		height, foam = max(height, h.Height), foam || h.Foam
	}
	return height, foam
}

// hold says what holds a piece, and where its own frame lies.
func (b *Build) hold(p *Piece, bonds []card.Bond) {
	p.Holds = HoldsOf(b.Stock, bonds)
	p.Lift, p.Foam = LiftOf(p.Holds)
}

// Held says how bonds hold a part, in a few words.
func Held(s look.Stock, bonds []card.Bond, w measure.Writing) string {
	if len(bonds) == 0 {
		return "laid loose"
	}
	var out []string
	for _, b := range bonds {
		said := heldBy(s, b, w)
		if z := ZoneSaid(b.Zone); z != "" {
			said += ", " + z
		}
		if !slices.Contains(out, said) {
			out = append(out, said)
		}
	}
	return strings.Join(out, "; ")
}

// zoneSaid are zones of bonds in a sentence.
var zoneSaid = map[card.BondZone]string{card.BondEdge: "round the edge", card.BondMiddle: "in the middle", card.BondFoot: "at the foot", card.BondHead: "at the head",
	card.BondLeft: "at the left", card.BondRight: "at the right", card.BondSpots: "in spots", card.BondOpaque: "only behind what is opaque"}

// Scraps says how many scraps of a card.
func Scraps(n int, card string) string {
	if n == 1 {
		return "a scrap of " + card
	}
	return fmt.Sprintf("%d scraps of %s", n, card)
}

// ZoneSaid says where on the back of a part a zone lies; empty for all over.
func ZoneSaid(z card.BondZone) string { return zoneSaid[z] }

func heldBy(s look.Stock, b card.Bond, w measure.Writing) string {
	if b.Raised() {
		var on []string
		if sp, ok := s.Spacer(b.Spacer); ok {
			on = append(on, strings.ToLower(sp.Name))
		}
		for _, m := range b.Shims {
			if sp, ok := s.Spacer(m.Spacer); ok {
				on = append(on, strings.ToLower(sp.Name))
			} else if m.Paper != "" {
				on = append(on, Scraps(m.N, s.PaperName(m.Paper)))
			}
		}
		if len(on) == 0 {
			return "on foam: none chosen"
		}
		mm, _ := Lift(s, []card.Bond{b})
		return fmt.Sprintf("on %s, %s", strings.Join(on, " and "), w.Thin(mm))
	}
	if a, ok := s.Adhesive(b.Adhesive); ok {
		return a.Name
	}
	return "glued"
}
