package placing

import (
	"ochrestone/core/card"
	"ochrestone/core/motif"
	"ochrestone/core/register"
)

// Blanks is how many of a cut layer to begin so that as many as wanted come out at
// register.Certainty, each print on it placed by the way proposed for it. Of a layer without
// prints that have to meet anything it is as many as wanted, and so where no number helps.
func (t Study) Blanks(colourway, leaf string, want int, seed uint64) (int, error) {
	w, at, err := t.layerOf(colourway, leaf)
	if err != nil {
		return want, err
	}
	dried := t.dried(w)
	all := 1.0
	views := t.Image.Shapes.Views
	for i := range views {
		if views[i].Layer.Make == card.Cut || carried(t.Image.Shapes, i) != at {
			continue
		}
		p, lim, _, err := t.eased(dried, i)
		if err != nil {
			return want, err
		}
		if !p.Judged || p.Outside > 0 {
			continue
		}
		if ways, pick, _ := register.ProspectsBy(t.chances(i, lim, p, seed), PieceOf(t.Image.Shapes, i), want, t.Hand.Ways); pick >= 0 {
			all *= ways[pick].Chance
		}
	}
	if n := register.Blanks(want, all, register.Certainty); n > 0 {
		return n, nil
	}
	return want, nil
}

// carried is the cut layer a print lies on in the end; motif.Ground for none.
func carried(img motif.Image, i int) int {
	for i != motif.Ground && img.Views[i].Layer.Make != card.Cut {
		i = img.Views[i].Host
	}
	return i
}
