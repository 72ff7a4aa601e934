package card

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// Rename gives the card another name.
type Rename struct {
	Title string `json:"title" minLength:"1" maxLength:"120"`
}

func (e *Rename) apply(c *Card, _ kit.Kit) error {
	c.Title = strings.TrimSpace(e.Title)
	return nil
}

// SetCopies sets how many of the card are made in one sitting.
type SetCopies struct {
	N int `json:"n" doc:"1 to 200"`
}

func (e *SetCopies) apply(c *Card, _ kit.Kit) error {
	if e.N < 1 || e.N > MaxCopies {
		return kit.Problem{Path: "copies.n", What: tooMany(e.N)}
	}
	if len(c.Lots) > 0 && e.N != c.Run() {
		return kit.Problem{Path: "copies.n", What: "the cards of this sitting differ: say how many there are of each"}
	}
	c.Copies = e.N
	return nil
}

// SetFormat makes the card one of the known sizes, laid as that size mostly is.
type SetFormat struct {
	Format string `json:"format" doc:"id of a format"`
}

func (e *SetFormat) apply(c *Card, _ kit.Kit) error {
	for _, f := range measure.Formats() {
		if f.ID == e.Format {
			c.Base.Format, c.Base.W, c.Base.H = f.ID, f.Size.W, f.Size.H
			if onItsSide(f) {
				c.Base.W, c.Base.H = f.Size.H, f.Size.W
			}
			return nil
		}
	}
	return kit.Problem{Path: "format", What: fmt.Sprintf("there is no card size %q; choose one of those offered", e.Format)}
}

// SetBase changes the base; what is not given stays.
type SetBase struct {
	Fold     *measure.Fold `json:"fold,omitempty" enum:"side,top"`
	Paper    *string       `json:"paper,omitempty" doc:"cardstock id"`
	Envelope *string       `json:"envelope,omitempty" doc:"envelope id; empty for none"`
	Turned   bool          `json:"turned,omitempty" doc:"turn the card: its width becomes its height"`
	Make     *BaseMake     `json:"make,omitempty" enum:"folded,flat,holder"`
	Leaf     *Outline      `json:"leaf,omitempty" doc:"outline of the front leaf; a rectangle for the plain one"`
	Short    *float64      `json:"short,omitempty" doc:"by how much the front leaf is shorter, mm"`
	Pocket   *float64      `json:"pocket,omitempty" doc:"of a holder, mm"`
	Flap     *float64      `json:"flap,omitempty" doc:"of a holder, mm"`
}

func (e *SetBase) apply(c *Card, _ kit.Kit) error {
	if e.Fold != nil {
		c.Base.Fold = *e.Fold
	}
	if e.Paper != nil {
		c.Base.Paper = *e.Paper
	}
	if e.Envelope != nil {
		c.Base.Envelope = *e.Envelope
	}
	if e.Make != nil {
		c.Base.Make = *e.Make
	}
	if e.Leaf != nil {
		c.Base.Leaf = nil
		if l := *e.Leaf; l.Kind != Rectangle || l.Pitch > 0 {
			c.Base.Leaf = &l
		}
	}
	for _, v := range []struct{ from, to *float64 }{{e.Short, &c.Base.Short}, {e.Pocket, &c.Base.Pocket}, {e.Flap, &c.Base.Flap}} {
		if v.from != nil {
			*v.to = *v.from
		}
	}
	if e.Turned {
		c.Base.W, c.Base.H = c.Base.H, c.Base.W
	}
	return nil
}

func (a *Aside) apply(c *Card, _ kit.Kit) error {
	c.SetAside = append(slices.DeleteFunc(c.SetAside, func(o Aside) bool { return o.Finding == a.Finding }), *a)
	if a.Reason = strings.TrimSpace(a.Reason); a.Reason == "" {
		c.SetAside[len(c.SetAside)-1].Reason = "meant so"
	}
	return nil
}

// Recall brings a note back that was set aside.
type Recall struct {
	Finding string `json:"finding" doc:"id of the finding"`
}

func (e *Recall) apply(c *Card, _ kit.Kit) error {
	c.SetAside = slices.DeleteFunc(c.SetAside, func(a Aside) bool { return a.Finding == e.Finding })
	return nil
}

// Reorder sets the person's own order of work; none takes the one proposed.
type Reorder struct {
	Steps []Step `json:"steps" nullable:"false" doc:"in the order wanted; none: as proposed"`
}

func (e *Reorder) apply(c *Card, _ kit.Kit) error {
	c.Order = slices.Clone(e.Steps)
	return nil
}
