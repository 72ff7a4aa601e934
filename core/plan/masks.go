package plan

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Mask is a mask over an image printed on the panel.
type Mask struct {
	Element string
	Label   string
	Region  shape.Region // in place on the front, mm
	Over    []string     // images printed while it is masked
}

// Masks lists the masks for images printed straight on the panel that overlap, in
// the order they are printed: what stands in front first, its mask over it while
// those behind are printed. Every mask is the image's outline inset by so many mm,
// so that no white line is left beside it.
func (m *Planner) Masks(c card.Card, k kit.Kit, inset float64, opts ...Option) ([]Mask, error) {
	b := m.builder(c, k, opts)
	b.motifs()
	b.colours()
	b.layOut()
	var out []Mask
	for i := len(c.Elements) - 1; i >= 0; i-- {
		if !b.isPrint(c.Elements[i]) {
			continue
		}
		var over []string
		for j := i - 1; j >= 0; j-- {
			if b.isPrint(c.Elements[j]) && b.outlines[i].Overlaps(b.outlines[j]) {
				over = append(over, b.label(c.Elements[j]))
			}
		}
		if len(over) == 0 {
			continue
		}
		g, err := b.outlines[i].Offset(-inset)
		if err != nil {
			return nil, fmt.Errorf("draw the mask of %s: %w", b.label(c.Elements[i]), err)
		}
		out = append(out, Mask{c.Elements[i].ID, b.label(c.Elements[i]), g, over})
	}
	return out, nil
}

// isPrint reports whether an element is an image printed straight on the panel.
func (b *builder) isPrint(e card.Element) bool {
	m, ok := b.card.Motif(e.Motif)
	return e.Kind == card.MotifElement && ok && len(m.Layers) > 0 && m.Layers[0].Make != card.Cut
}
