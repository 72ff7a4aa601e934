package card

import (
	"fmt"
	"slices"

	"ochrestone/core/kit"
)

// Tied is how a ribbon ends.
type Tied string

// Ways to end a ribbon.
const (
	Untied Tied = "plain"
	Knot   Tied = "knot"
	Bow    Tied = "bow"
)

// Ribbon is a band or cord along a line, wrapped round what carries it or not.
type Ribbon struct {
	W       float64  `json:"w" minimum:"0.3" maximum:"60" doc:"mm"`
	Thick   float64  `json:"thick" minimum:"0.05" maximum:"5" doc:"mm"`
	Colour  string   `json:"colour" doc:"#rrggbb"`
	Points  []Offset `json:"points" nullable:"false" minItems:"2" maxItems:"60" doc:"its line, from the middle of the element"`
	Wrapped bool     `json:"wrapped,omitempty" doc:"round what carries it, its ends on the back"`
	Tied    Tied     `json:"tied,omitempty" enum:"plain,knot,bow"`
	At      float64  `json:"at,omitempty" minimum:"0" maximum:"1" doc:"where along its line it is tied, as a share"`

	extra extra
}

// UnmarshalJSON keeps the fields it does not know.
func (r *Ribbon) UnmarshalJSON(doc []byte) (err error) {
	type plain Ribbon
	r.extra, err = read(doc, (*plain)(r))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (r Ribbon) MarshalJSON() ([]byte, error) {
	type plain Ribbon
	return write(plain(r), r.extra)
}

func (r *Ribbon) check(k *checker, _ Card, _ Element, at string) {
	at += ".ribbon"
	k.bad(!sane(r.W, 0.3, 60) || !sane(r.Thick, 0.05, 5), at+".w", "a ribbon is 0.3 to 60 mm wide and 0.05 to 5 mm thick")
	k.bad(len(r.Points) < 2 || len(r.Points) > 60, at+".points", "its line goes through 2 to 60 points")
	k.bad(!sane(r.At, 0, 1), at+".at", "it is tied at a share of its line, 0 to 1")
	k.bad(r.Tied != "" && !slices.Contains([]Tied{Untied, Knot, Bow}, r.Tied), at+".tied", fmt.Sprintf("%q is no way to tie it", r.Tied))
	for i, p := range r.Points {
		k.bad(!sane(p.X, -400, 400) || !sane(p.Y, -400, 400), fmt.Sprintf("%s.points[%d]", at, i), outOfReach+"card")
	}
}

// How a ribbon starts: a cord across the panel at two thirds of its height, with a knot;
// our own defaults, mm.
const (
	cordWide, cordThick = 1.6, 1.0
	cordAt              = 0.68
)

// AddRibbon lays a cord across the panel, wrapped round it.
type AddRibbon struct{}

func (e *AddRibbon) apply(c *Card, k kit.Kit) error {
	leaves, err := c.Nest()
	if err != nil {
		return fmt.Errorf("lay a cord: %w", err)
	}
	p := leaves[len(leaves)-1]
	on, _ := c.Panel()
	c.Elements = append(c.Elements, Element{ID: c.fresh("r"), Face: Front, On: on, Place: Place{X: p.X + p.Size.W/2, Y: p.Y + p.Size.H*cordAt}, Bonds: Glue(firstGlue(k)),
		Ribbon: &Ribbon{W: cordWide, Thick: cordThick, Colour: "#c8b48c", Wrapped: true, Tied: Knot, At: 0.5, Points: []Offset{{X: -p.Size.W / 2}, {X: p.Size.W / 2}}}})
	return nil
}

// SetRibbon changes a ribbon.
type SetRibbon struct {
	Element string `json:"element"`
	Ribbon  Ribbon `json:"ribbon" doc:"the whole of it"`
}

func (e *SetRibbon) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Ribbon == nil {
		return kit.Problem{Path: "ribbon.element", What: fmt.Sprintf("%q is no ribbon", e.Element)}
	}
	r := e.Ribbon
	r.extra = el.Ribbon.extra
	el.Ribbon = &r
	return nil
}
