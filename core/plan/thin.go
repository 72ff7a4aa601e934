package plan

import (
	"fmt"

	"ochrestone/core/card"
)

// fine reports cut layers with bridges too thin or gaps too narrow.
func (b *builder) fine(pm *Motif) {
	for i, v := range pm.img.Shapes.Views {
		d := pm.Layers[i].Detail
		if v.Layer.Make != card.Cut {
			continue
		}
		if d.Thin > 0 {
			b.add(Finding{ID: "thin:" + pm.ID + ":" + v.Layer.ID, Station: "register", Severity: Tip, Motif: pm.ID, Layer: v.Layer.ID,
				What: fmt.Sprintf("%s has bridges thinner than 1 mm", v.Layer.Label),
				Why:  fmt.Sprintf("%.1f mm² of it hang on them, the most %s from its left and %s from its top. Thin card tears when it is popped out.", d.Thin, b.o.format(d.ThinX-v.Outline.Bounds().Min.X), b.o.format(d.ThinY-v.Outline.Bounds().Min.Y)),
				Do:   "Leave it in its sheet until it is glued, lift it with tape, or cut it from heavier card.", Numbers: map[string]float64{"area": d.Thin}})
		}
		if d.Narrow > 0 {
			b.add(Finding{ID: "narrow:" + pm.ID + ":" + v.Layer.ID, Station: "register", Severity: Tip, Motif: pm.ID, Layer: v.Layer.ID,
				What: fmt.Sprintf("%s has gaps narrower than 0.5 mm", v.Layer.Label),
				Why:  fmt.Sprintf("%.1f mm² of waste sit in them, too narrow for a pick.", d.Narrow),
				Do:   "Run it through twice, and push the waste out from the back; away from your hand.", Numbers: map[string]float64{"area": d.Narrow}})
		}
	}
}
