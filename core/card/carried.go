package card

import (
	"fmt"
	"slices"

	"ochrestone/core/kit"
)

// SetCarried says which of the sheets beneath it carries an element, or leaves it to what bears most
// of it.
type SetCarried struct {
	Element string  `json:"element"`
	By      *string `json:"by,omitempty" doc:"a sheet beneath it, empty for the card front; none: what bears most of it"`
}

func (e *SetCarried) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if e.By != nil && *e.By != "" {
		at := slices.IndexFunc(c.Elements, func(o Element) bool { return o.ID == e.Element })
		if !slices.ContainsFunc(c.Elements[:at], func(o Element) bool { return o.ID == *e.By && o.Sheet != nil }) {
			return kit.Problem{Path: "carry.by", What: fmt.Sprintf("%q is no sheet beneath it: lay the sheet further down first", *e.By)}
		}
	}
	el.Carried = e.By
	return nil
}
