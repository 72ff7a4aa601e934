package card

import (
	"fmt"

	"ochrestone/core/measure"
)

// Leaf is a sheet of the front in place.
type Leaf struct {
	ID   string // of its element; empty for the front itself
	Size measure.Size
	X, Y float64 // top left, mm from the front's top left corner
}

// Mats are the sheets laid by their margins on the front, from the base up: mats, and
// the panel as the last of them.
func (c Card) Mats() []Element {
	var out []Element
	on := ""
	for _, e := range c.Elements {
		if e.Face == Front && e.Sheet != nil && e.Inset != nil && e.On == on {
			out, on = append(out, e), e.ID
		}
	}
	return out
}

// Panel is the sheet that images lie on: the last of the mats, or the front itself
// where there are none, which has no id and the paper of the base.
func (c Card) Panel() (id, paper string) {
	if m := c.Mats(); len(m) > 0 {
		return m[len(m)-1].ID, m[len(m)-1].Sheet.Paper
	}
	return "", c.Base.Paper
}

// Nest lays the mats and the panel on the front by their margins, lowest first. A card
// without any has its front as the only leaf. Where a margin leaves nothing of a sheet
// the error is a *MatError.
func (c Card) Nest() ([]Leaf, error) {
	under := Leaf{Size: c.Base.Size()}
	mats := c.Mats()
	out := make([]Leaf, 0, len(mats)+1)
	for i, e := range mats {
		m := *e.Inset
		l := Leaf{e.ID, measure.Size{W: under.Size.W - m.Left - m.Right, H: under.Size.H - m.Top - m.Bottom}, under.X + m.Left, under.Y + m.Top}
		if !(m.Least() >= 0 && l.Size.W > 0 && l.Size.H > 0) {
			return nil, fmt.Errorf("lay out the mats: %w", &MatError{At: i, Of: len(mats), ID: e.ID, Margins: m})
		}
		out, under = append(out, l), l
	}
	if len(out) == 0 {
		out = append(out, under)
	}
	return out, nil
}

// MatError tells which mat, counted from 0 from the base up, leaves nothing of
// itself: its margins are wider than what it lies on.
type MatError struct {
	At, Of  int
	ID      string
	Margins Margins
}

func (e *MatError) Error() string {
	return fmt.Sprintf("the border round %s is too wide: nothing is left of it; make it narrower", e.Name())
}

// Name is what a person calls the sheet.
func (e *MatError) Name() string { return MatName(e.At, e.Of) }

// MatName is what a person calls mat i of n, counted from 0 from the base up; the last
// is the panel.
func MatName(i, n int) string {
	switch {
	case i == n-1:
		return "the panel"
	case n == 2:
		return "the mat"
	}
	return fmt.Sprintf("mat %d", i+1)
}
