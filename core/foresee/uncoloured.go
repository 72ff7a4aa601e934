package foresee

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/words"
)

// uncolouredRule lists every print that has no ink yet, where others of its image have.
func uncolouredRule() Rule {
	return Rule{ID: "uncoloured", Station: Inks, Severity: Shows, Source: practice, check: inked(uncoloured)}
}

func uncoloured(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Colourways[wi]
	var none []string
	some := false
	first := ""
	for _, l := range m.Layers {
		f := w.Layers[l.ID]
		if f.Ink != "" || len(f.Blends) > 0 {
			some = true
			continue
		}
		if l.Make != card.Cut && !f.Bare && !l.Spares() {
			none = append(none, l.Label)
			if first == "" {
				first = l.ID
			}
		}
	}
	if !some || len(none) == 0 {
		return
	}
	add(Hit{Key: []string{m.ID, w.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: first}, What: fmt.Sprintf("%s of %s %s no ink yet", words.Capital(words.Listed(none)), m.Name, words.Of(len(none), "has", "have")),
		Why: "Without one it is not printed, and not seen.", Do: words.Of(len(none), "Choose an ink for it, or leave it out on purpose.", "Choose an ink for each, or leave them out on purpose."), Numbers: map[string]float64{"prints": float64(len(none))}, Facts: none})
}
