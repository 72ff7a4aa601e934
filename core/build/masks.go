package build

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Mask is a mask over an image printed on what carries it.
type Mask struct {
	Element string
	Label   string
	Region  shape.Region // in place on the front, mm
	Over    []string     // images printed while it is masked
}

// Masks lists the masks for printed images that overlap, in the order they are printed:
// what stands in front first, its mask over it while those behind are printed. Every
// mask is the image's outline inset by so many mm, so that no white line is left beside
// it.
func (b *Build) Masks(inset float64) ([]Mask, error) {
	var out []Mask
	for i := len(b.Things) - 1; i >= 0; i-- {
		t := b.Things[i]
		if !t.Printed || t.Element.Face != card.Front {
			continue
		}
		var over []string
		for j := i - 1; j >= 0; j-- {
			if o := b.Things[j]; o.Printed && o.Element.Face == card.Front && t.Outline.Overlaps(o.Outline) {
				over = append(over, o.Name)
			}
		}
		if len(over) == 0 {
			continue
		}
		g, err := t.Outline.Offset(-inset)
		if err != nil {
			return nil, fmt.Errorf("draw the mask of %s: %w", t.Name, err)
		}
		out = append(out, Mask{t.Element.ID, t.Name, g, over})
	}
	return out, nil
}
