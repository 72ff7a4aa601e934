package foresee

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/words"
)

// sparedRule notes every region that is to stay as its piece is without ink, where nothing is planned
// for that yet.
func sparedRule() Rule {
	return Rule{ID: "spared", Station: Pieces, Severity: Spoils, Source: practice, check: inked(spared)}
}

func spared(v *View, m *Image, wi int, add func(Hit)) {
	w, views := m.Colourways[wi], m.Shapes.Views
	for i, s := range views {
		if !s.Layer.Spares() || s.Layer.Region.By != card.Kept || s.Problem != "" || s.Host < 0 {
			continue
		}
		of := views[s.Host]
		ink := w.Layers[of.Layer.ID].First()
		if ink == "" || m.laidOver(i) {
			continue
		}
		region := ""
		if s.Layer.Label != card.KeptLabel(of.Layer) {
			region = " (" + s.Layer.Label + ")"
		}
		box := s.Outline.Bounds()
		hit := Hit{Key: []string{m.ID, w.ID, s.Layer.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: s.Layer.ID},
			What:    words.Capital(fmt.Sprintf("%s is inked all over, and a region of it%s is to stay as it is", of.Layer.Label, region)),
			Why:     fmt.Sprintf("It is one piece, and its ink goes over all of it: %s. The region is %s × %s.", v.Stock.InkName(ink), v.Format(box.W()), v.Format(box.H())),
			Do:      "Cover the region with a mask while it is printed.",
			Numbers: map[string]float64{"cuts": 1, "area": s.Outline.Area()}, Facts: []string{ink, of.Layer.ID}}
		if of.Layer.Make == card.Cut {
			hit.Do = fmt.Sprintf("Cover it with a mask while %s is inked: one cut. Or cut %s a second time from %s, fussy cut the region and glue it over: two cuts.", of.Layer.Label, of.Layer.Label, v.Stock.PaperName(w.Layers[of.Layer.ID].Paper))
			hit.Numbers["cuts"] = 2
		}
		covered, r := s.Layer, *s.Layer.Region
		r.By = card.Covered
		covered.Region = &r
		hit.Mend = &Mend{"Cover it with a mask", []card.Edit{{Layer: &card.SetLayer{Motif: m.ID, Layer: covered}}}}
		add(hit)
	}
}

// laidOver reports whether pieces of card that lie above a layer hide it all but for a rim: it is seen in
// their colour then, whatever lies beneath.
func (m *Image) laidOver(layer int) bool {
	left := m.Shapes.Views[layer].Outline
	all := left.Area()
	for _, o := range m.Shapes.Views[layer+1:] {
		if o.Layer.Make != card.Cut || !o.Outline.Overlaps(left) {
			continue
		}
		rest, err := left.Minus(o.Outline)
		if err != nil {
			return false
		}
		if left = rest; left.Area() < rimLeft*all {
			return true
		}
	}
	return false
}

// rimLeft is how much of a region may still be seen round what is laid over it, a share of it; our own
// default.
const rimLeft = 0.05
