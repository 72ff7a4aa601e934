package card

import (
	"fmt"

	"ochrestone/core/kit"
)

// Lift says that elements are laid out first and lifted together with tacky film: they are glued from
// behind and put down in one go; or that they are not.
type Lift struct {
	Elements []string `json:"elements" nullable:"false" minItems:"1" maxItems:"120"`
	On       bool     `json:"on"`
}

func (e *Lift) apply(c *Card, _ kit.Kit) error {
	for _, id := range e.Elements {
		el, err := c.element(id)
		if err != nil {
			return err
		}
		if el.Inset != nil || el.Ribbon != nil || el.Gems != nil || el.Shaker != nil {
			return kit.Problem{Path: "lift.elements", What: fmt.Sprintf("%q is no piece that film lifts: take images, sheets and words", id)}
		}
		el.Film = e.On
	}
	return nil
}
