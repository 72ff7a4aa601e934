package card

import (
	"fmt"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// Shaker is a window, or letters cut out, with a film behind, a wall of foam round it, and
// something loose within, closed by a backing.
type Shaker struct {
	Paper    string    `json:"paper" doc:"cardstock id of its front"`
	W        float64   `json:"w" minimum:"5" maximum:"400" doc:"of its front, mm"`
	H        float64   `json:"h" minimum:"5" maximum:"400" doc:"mm"`
	Shape    *Outline  `json:"shape,omitempty" doc:"outline of its front; none: a rectangle"`
	Openings []Opening `json:"openings" nullable:"false" minItems:"1" maxItems:"20" doc:"its windows: shapes, or letters"`
	Film     string    `json:"film,omitempty" doc:"cardstock id of what is behind the window; empty: none yet"`
	Pouch    bool      `json:"pouch,omitempty" doc:"the filling is in a closed pouch of its own: the wall need not be closed"`
	Wall     string    `json:"wall" doc:"spacer id"`
	Level    int       `json:"level,omitempty" minimum:"0" maximum:"6" doc:"how many spacers high the wall is; 0 counts as 1"`
	Wide     float64   `json:"wide,omitempty" minimum:"0" maximum:"40" doc:"how wide the wall is, mm; 0 takes a usual width"`
	Baffles  bool      `json:"baffles,omitempty" doc:"bars of foam across tall windows"`
	Filling  []Filling `json:"filling" nullable:"false" maxItems:"12"`
	Backing  string    `json:"backing" doc:"cardstock id"`
	Back     float64   `json:"back,omitempty" minimum:"-20" maximum:"30" doc:"how much smaller the backing is all round, below 0 larger, mm; 0 takes a usual measure"`

	extra extra
}

// Filling is something loose in a shaker.
type Filling struct {
	Name   string  `json:"name" maxLength:"60"`
	High   float64 `json:"high" minimum:"0.1" maximum:"30" doc:"how high one lies, mm"`
	Colour string  `json:"colour" doc:"#rrggbb"`
	N      int     `json:"n" minimum:"1" maximum:"500" doc:"about how many"`
}

// UnmarshalJSON keeps the fields it does not know.
func (s *Shaker) UnmarshalJSON(doc []byte) (err error) {
	type plain Shaker
	s.extra, err = read(doc, (*plain)(s))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (s Shaker) MarshalJSON() ([]byte, error) {
	type plain Shaker
	return write(plain(s), s.extra)
}

// Front is the sheet in front; of letters the islands are kept, on the film.
func (s Shaker) Front() Sheet {
	openings := slices.Clone(s.Openings)
	for i := range openings {
		openings[i].Islands = openings[i].Text != ""
	}
	return Sheet{Paper: s.Paper, W: s.W, H: s.H, Shape: s.Shape, Openings: openings}
}

// Levels is how many spacers high its wall is.
func (s Shaker) Levels() int { return max(1, s.Level) }

func (s *Shaker) check(k *checker, c Card, e Element, at string) {
	front := s.Front()
	at += ".shaker"
	k.bad(e.Inset != nil, at, "a shaker is laid by its place, not by borders")
	k.bad(!sane(s.W, 5, 400) || !sane(s.H, 5, 400), at+".w", "the front of a shaker is 5 to 400 mm each way")
	k.bad(len(s.Openings) == 0, at+".openings", "a shaker has a window, or letters cut out")
	if s.Shape != nil {
		k.outline(at+".shape", *s.Shape)
	}
	k.openings(at, front.Openings)
	k.bad(s.Level < 0 || s.Level > MaxLevel, at+".level", fmt.Sprintf("a wall is 1 to %d spacers high", MaxLevel))
	k.bad(!sane(s.Wide, 0, 40), at+".wide", "a wall is up to 40 mm wide")
	k.bad(!sane(s.Back, -20, 30), at+".back", "the backing is up to 30 mm smaller all round, or 20 mm larger")
	for i, f := range s.Filling {
		in := fmt.Sprintf("%s.filling[%d]", at, i)
		k.bad(!sane(f.High, 0.1, 30), in+".high", "a filling lies 0.1 to 30 mm high")
		k.bad(f.N < 1 || f.N > 500, in+".n", "take 1 to 500 of them")
	}
}

// How a shaker starts; our own defaults: a round window in a square front.
const (
	shakerSide   = 2.5 * measure.Inch
	shakerWindow = 1.75 * measure.Inch
)

// AddShaker lays a shaker in the middle of the panel.
type AddShaker struct{}

func (e *AddShaker) apply(c *Card, k kit.Kit) error {
	on, paper := c.Panel()
	s := &Shaker{Paper: firstCard(k, paper), W: shakerSide, H: shakerSide, Openings: []Opening{{Outline: Outline{Kind: Oval}, W: shakerWindow, H: shakerWindow}},
		Backing: firstCard(k, ""), Filling: []Filling{{Name: "Sequins", High: 0.5, Colour: "#e0a040", N: 30}, {Name: "Beads", High: 1.5, Colour: "#7aa0c8", N: 20}}}
	for _, p := range k.Papers {
		if p.Kind == kit.PaperAcetate {
			s.Film = p.ID
			break
		}
	}
	for _, sp := range k.Spacers {
		if sp.Kind == "tape" || s.Wall == "" && sp.Foam() {
			s.Wall = sp.ID
		}
	}
	c.Elements = append(c.Elements, Element{ID: c.fresh("k"), Name: "Shaker", Face: Front, On: on, Place: Place{X: c.Base.W / 2, Y: c.Base.H / 2}, Bonds: Glue(firstGlue(k)), Shaker: s})
	return nil
}

// SetShaker changes a shaker.
type SetShaker struct {
	Element string `json:"element"`
	Shaker  Shaker `json:"shaker" doc:"the whole of it"`
}

func (e *SetShaker) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Shaker == nil {
		return kit.Problem{Path: "shaker.element", What: fmt.Sprintf("%q is no shaker", e.Element)}
	}
	s := e.Shaker
	s.extra = el.Shaker.extra
	el.Shaker = &s
	return nil
}
