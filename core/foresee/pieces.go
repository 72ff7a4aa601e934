package foresee

import (
	"fmt"

	"ochrestone/core/card"
)

func pieceRules() []Rule {
	return []Rule{
		{ID: "image", Station: Pieces, Severity: Spoils, Title: "Images that cannot be worked out", Explain: "Its set is not in the stores, or an outline of it cannot be cut.", Source: "geometry", check: broken},
		{ID: "hidden", Station: Pieces, Severity: Wastes, Title: "Layers with nothing to show", Explain: "Ink and good card are wasted on what lies under others.", Source: practice, check: images(hidden)},
		{ID: "bitten", Station: Cut, Severity: Spoils, Title: "Prints too near each other for their die", Explain: "Printed closer than the die is wide, every die cuts a bite out of the print beside it.", Source: "geometry", check: images(bitten)},
		{ID: "span", Station: Front, Severity: Shows, Title: "Blends that span fewer tones than are wanted", Explain: "Between the palest and the deepest ink of a blend there is room for so many tones and no more.", Source: "the step is ours", Limits: []Limit{{"a tone within a blend", fadeStep, "L*", ""}}, check: spans},
		{ID: "tones", Station: Inks, Severity: Shows, Title: "Fewer tones than are wanted", Explain: "Two tones want a second layer, or an edge inked deeper; three want inks that are far enough apart.", Source: practice,
			Limits: []Limit{{"a tone is told from the next by", toneStep, "L*", ""}}, check: inked(tones)},
		{ID: "kind", Station: Pieces, Severity: Shows, Title: "Things this version does not know", Explain: "A later version put them on the card. They are kept as they are, but nothing of them is planned.", Source: "the document", check: unknown},
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
