package foresee

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/words"
)

// fadeStep is how far two tones within a blend lie apart at least to be told as two, L*: more than beside
// each other, as what lies between them runs from one to the other; our own default.
const fadeStep = 10.0

// spans notes blends over sheets whose inks lie too near each other for the tones wanted of them.
func spans(v *View, add func(Hit)) {
	see := func(t *build.Thing) {
		if t.Element.Sheet == nil {
			return
		}
		for n, tr := range t.Element.Sheet.Treatments {
			if f := tr.Fade; f != nil && f.Tones > 1 {
				v.span(t, n, *f, add)
			}
		}
	}
	see(&v.Build.Base)
	for i := range v.Build.Things {
		see(&v.Build.Things[i])
	}
}

func (v *View) span(t *build.Thing, n int, f card.Fade, add func(Hit)) {
	paper := t.Element.Sheet.Paper
	pale, deep := math.Inf(-1), math.Inf(1)
	for _, id := range f.Inks {
		d, ok := v.Stock.Dried(card.Finish{Ink: id, Impressions: f.Passes()}, v.Stock.PaperColour(paper), paper)
		if !ok {
			return
		}
		l := d.Dry.Lab().L
		pale, deep = max(pale, l), min(deep, l)
	}
	has := 1 + int((pale-deep)/fadeStep)
	if has >= f.Tones || math.IsInf(pale, 0) {
		return
	}
	h := Hit{Key: []string{t.Element.ID, fmt.Sprint(n)}, At: At{Element: t.Element.ID},
		What:    fmt.Sprintf("The blend on %s has room for %s, where %d are wanted", words.Small(t.Name), words.Count(has, "tone"), f.Tones),
		Why:     fmt.Sprintf("Its inks dry %.0f L* apart, and a tone within a blend takes about %.0f.", pale-deep, fadeStep),
		Do:      "Add a deeper ink of the family, or a paler one.",
		Numbers: map[string]float64{"span": pale - deep, "tones": float64(has), "wanted": float64(f.Tones)}, Facts: f.Inks}
	if deeper := v.deeper(card.Finish{Ink: f.Inks[len(f.Inks)-1]}); deeper != "" && t.Element.ID != "" && len(f.Inks) < 8 {
		h.Do = fmt.Sprintf("Add %s at its deep end.", v.Stock.InkName(deeper))
		f.Inks = append(slices.Clone(f.Inks), deeper)
		h.Mend = &Mend{"Add " + v.Stock.InkName(deeper), []card.Edit{{Treat: &card.Treat{Element: t.Element.ID, At: n, Treatment: &card.Treatment{Fade: &f}}}}}
	}
	add(h)
}
