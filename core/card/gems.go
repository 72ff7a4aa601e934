package card

import (
	"fmt"

	"ochrestone/core/kit"
)

// Gems are pearls, rhinestones, sequins or cut dots stuck on last: so many of one size,
// each at its place from the middle of the element, before it is turned.
type Gems struct {
	Size   float64  `json:"size" minimum:"0.5" maximum:"30" doc:"across, mm"`
	Height float64  `json:"height" minimum:"0.1" maximum:"15" doc:"mm"`
	Colour string   `json:"colour" doc:"#rrggbb"`
	Gem    string   `json:"gem,omitempty" doc:"which of the stores they are, by its id; empty: of none there"`
	Places []Offset `json:"places" nullable:"false" minItems:"1" maxItems:"200" doc:"one for each"`

	extra extra
}

// Offset is a place from the middle of an element, mm.
type Offset struct {
	X float64 `json:"x" doc:"to the right, mm"`
	Y float64 `json:"y" doc:"down, mm"`
}

// UnmarshalJSON keeps the fields it does not know.
func (g *Gems) UnmarshalJSON(doc []byte) (err error) {
	type plain Gems
	g.extra, err = read(doc, (*plain)(g))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (g Gems) MarshalJSON() ([]byte, error) {
	type plain Gems
	return write(plain(g), g.extra)
}

// mostGems is how many gems one element may have.
const mostGems = 200

func (g *Gems) check(k *checker, _ Card, _ Element, at string) {
	k.bad(!sane(g.Size, 0.5, 30) || !sane(g.Height, 0.1, 15), at+".gems.size", "a gem is 0.5 to 30 mm across and 0.1 to 15 mm high")
	k.bad(len(g.Places) == 0 || len(g.Places) > mostGems, at+".gems.places", fmt.Sprintf("1 to %d gems", mostGems))
	for i, p := range g.Places {
		k.bad(!sane(p.X, -400, 400) || !sane(p.Y, -400, 400), fmt.Sprintf("%s.gems.places[%d]", at, i), outOfReach+"card")
	}
}

// How gems start: three in a row, 4 mm across and 1.5 mm high; our own defaults.
const (
	gemSize, gemHeight = 4.0, 1.5
	gemsFirst          = 3
)

// AddGems lays a row of gems on the panel.
type AddGems struct{}

func (e *AddGems) apply(c *Card, _ kit.Kit) error {
	on, _ := c.Panel()
	g := &Gems{Size: gemSize, Height: gemHeight, Colour: "#e8e2d4"}
	g.row(gemsFirst)
	c.Elements = append(c.Elements, Element{ID: c.fresh("g"), Face: Front, On: on, Place: Place{X: c.Base.W / 2, Y: c.Base.H / 2}, Bonds: Glue(""), Gems: g})
	return nil
}

// row places so many gems in a row, as far apart as they are wide.
func (g *Gems) row(n int) {
	g.Places = make([]Offset, n)
	for i := range g.Places {
		g.Places[i].X = 2 * g.Size * (float64(i) - float64(n-1)/2)
	}
}

// SetGems changes gems; another count lays them in a row anew.
type SetGems struct {
	Element string   `json:"element"`
	Count   *int     `json:"count,omitempty" minimum:"1" maximum:"200"`
	Size    *float64 `json:"size,omitempty" doc:"across, mm"`
	Height  *float64 `json:"height,omitempty" doc:"mm"`
	Colour  *string  `json:"colour,omitempty" doc:"#rrggbb"`
	Gem     *string  `json:"gem,omitempty" doc:"of the stores, as large, as high and in its colour; empty: of none there"`
}

func (e *SetGems) apply(c *Card, k kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Gems == nil {
		return kit.Problem{Path: "gems.element", What: fmt.Sprintf("%q is no gems", e.Element)}
	}
	g := *el.Gems
	if e.Gem != nil {
		g.Gem = *e.Gem
		if of, ok := k.Gem(g.Gem); ok {
			g.Size, g.Height, g.Colour = of.Size, of.Height, of.Colour
		} else if g.Gem != "" {
			return kit.Problem{Path: "gems.gem", What: fmt.Sprintf("%q is not in the stores: choose one you own", g.Gem)}
		}
	}
	if e.Size != nil {
		g.Size = *e.Size
	}
	if e.Height != nil {
		g.Height = *e.Height
	}
	if e.Colour != nil {
		g.Colour = *e.Colour
	}
	if e.Count != nil && *e.Count >= 1 && *e.Count <= mostGems {
		g.row(*e.Count)
	}
	el.Gems = &g
	return nil
}

// Gems is how many of each sort of gem of the stores one card takes, by its id: on every face, not of what
// lies beside it.
func (c Card) Gems() map[string]int {
	out := map[string]int{}
	for _, e := range c.Elements {
		if e.Gems != nil && e.Gems.Gem != "" && e.Face != Beside {
			out[e.Gems.Gem] += len(e.Gems.Places)
		}
	}
	return out
}
