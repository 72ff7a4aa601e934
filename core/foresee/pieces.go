package foresee

import (
	"fmt"

	"ochrestone/core/card"
)

func pieceRules() []Rule {
	return []Rule{
		{ID: "image", Station: Pieces, Severity: Spoils, Source: "geometry", check: broken},
		{ID: "hidden", Station: Pieces, Severity: Wastes, Source: practice, check: images(hidden)},
		{ID: "bitten", Station: Cut, Severity: Spoils, Source: "geometry", check: images(bitten)},
		{ID: "span", Station: Front, Severity: Shows, Source: "the step is ours", Limits: []Limit{{"a tone within a blend", fadeStep, "L*", ""}}, check: spans},
		{ID: "tones", Station: Inks, Severity: Shows, Source: practice,
			Limits: []Limit{{"a tone is told from the next by", toneStep, "L*", ""}}, check: inked(tones)},
		{ID: "kind", Station: Pieces, Severity: Shows, Source: "the document", check: unknown},
	}
}

func broken(v *View, add func(Hit)) {
	for i, m := range v.Images {
		if m.Problem != "" {
			mo := v.Card.Motifs[i]
			add(Hit{Key: []string{mo.ID}, At: At{Motif: mo.ID}, What: mo.Name + " cannot be worked out", Why: m.Problem, Do: "Mend the set or take the image off the card.", Facts: []string{m.Problem}})
		}
	}
}

func hidden(v *View, m *Image, add func(Hit)) {
	for _, w := range m.Shapes.Views {
		if w.Hidden() {
			add(Hit{Key: []string{m.ID, w.Layer.ID}, At: At{Motif: m.ID, Layer: w.Layer.ID},
				What: w.Layer.Label + " has nothing to show",
				Why:  fmt.Sprintf("All but %s of its %s lies under other layers.", v.Write.Area(w.Visible), v.Write.Area(w.Area)),
				Do:   "Cut it from any scrap and leave it plain, or move it up the stack.", Numbers: map[string]float64{"visible": w.Visible, "area": w.Area}})
		}
	}
}

func unknown(v *View, add func(Hit)) {
	for _, e := range v.Card.Elements {
		if !e.Known() {
			add(Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: "A thing on this card is not known here",
				Why:  "A newer version of this program put it there. It is kept, but it is not counted, drawn or planned.",
				Do:   "Bring this program up to date, or take the thing off.",
				Mend: &Mend{"Take it off", []card.Edit{{Remove: &card.Remove{Element: e.ID}}}}})
		}
	}
}
