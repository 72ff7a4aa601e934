package card

import (
	"fmt"

	"ochrestone/core/kit"
)

// Cutout is card of its own that an image is printed on and cut out of, with a margin.
type Cutout struct {
	Paper  string  `json:"paper" doc:"cardstock id"`
	Margin float64 `json:"margin,omitempty" minimum:"0" maximum:"20" doc:"of bare card round the print, mm"`
}

// SetMasked prints an image before its ground is inked and masks it meanwhile, or prints it over
// what is there.
type SetMasked struct {
	Element string `json:"element"`
	Masked  bool   `json:"masked"`
}

func (e *SetMasked) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Image == nil {
		return kit.Problem{Path: "masked.element", What: fmt.Sprintf("%q is no image", e.Element)}
	}
	img := *el.Image
	img.Masked = e.Masked
	el.Image = &img
	return nil
}

// SetCutout prints an image on card of its own and cuts it out, or prints it straight on
// what carries it again.
type SetCutout struct {
	Element string  `json:"element"`
	Cutout  *Cutout `json:"cutout,omitempty" doc:"none: printed on what carries it"`
}

func (e *SetCutout) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Image == nil {
		return kit.Problem{Path: "cutout.element", What: fmt.Sprintf("%q is no image", e.Element)}
	}
	img := *el.Image
	img.Cutout = e.Cutout
	el.Image = &img
	return nil
}

// Twin lays a second copy of an image over its printed twin, at the very same place: cut
// out of card of its own without a margin, raised on the first spacer owned.
type Twin struct {
	Element string `json:"element"`
}

func (e *Twin) apply(c *Card, k kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Image == nil {
		return kit.Problem{Path: "twin.element", What: fmt.Sprintf("%q is no image", e.Element)}
	}
	twin := *el
	img := *el.Image
	img.Cutout = &Cutout{Paper: c.Ground(*el)}
	twin.ID, twin.Image, twin.Tucks, twin.Name = c.fresh("e"), &img, nil, ""
	twin.Meant = []Meant{{Do: IsCopy, With: el.ID}}
	twin.Bonds = Glue(firstGlue(k))
	if len(k.Spacers) > 0 {
		twin.Bonds = Foam(k.Spacers[0].ID, 1)
	}
	c.Elements = append(c.Elements, twin)
	return nil
}
