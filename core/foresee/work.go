package foresee

import (
	"fmt"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/motif"
	"ochrestone/core/work"
)

func workRules() []Rule {
	return []Rule{
		{ID: "steps", Station: Work, Severity: Spoils, Title: "Steps that wait for each other", Explain: "Each has to come before the other, so neither can be done.", Source: "geometry", check: circle},
		{ID: "step", Station: Work, Severity: Spoils, Title: "Steps put before what they need", Explain: "Every rule of the order of work has its reason; each says its own.", Source: practice, check: outOfOrder},
		{ID: "hot", Station: Work, Severity: Spoils, Title: "Heat on vellum, acetate and foam", Explain: "A hot air tool warps them.", Source: practice, check: inked(hot)},
	}
}

func circle(v *View, add func(Hit)) {
	if v.Circle != nil {
		add(Hit{What: "The steps wait for each other", Why: v.Circle.Error() + ".", Do: "Change which layer sits on which.", Facts: []string{v.Circle.Error()}})
	}
}

func outOfOrder(v *View, add func(Hit)) {
	for _, br := range v.Breaches {
		s, n := v.Acts[br.Act], v.Acts[br.Needs]
		what := fmt.Sprintf("“%s” stands before “%s”", s.Title, n.Title)
		if n.Kind == work.HeatAct && br.Rule == "heat before foam" {
			what = fmt.Sprintf("“%s” would come after foam", n.Title)
		}
		add(Hit{Key: []string{s.Key, n.Key}, At: At{Step: n.Key}, What: what,
			Why:   fmt.Sprintf("Step %d needs step %d first: %s.", s.Number, n.Number, br.Why),
			Do:    fmt.Sprintf("Move “%s” up, or put the steps back in the proposed order.", n.Title),
			Facts: []string{br.Rule}, Mend: &Mend{"Proposed order", []card.Edit{{Order: &card.Reorder{Steps: []card.Step{}}}}}})
	}
}

// hot warns of ink that needs heat on vellum, acetate or foam.
func hot(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Colourways[wi]
	for i, view := range m.Shapes.Views {
		l := build.Leaf(m.Shapes, i)
		ink, ok := v.Stock.Ink(w.Layers[view.Layer.ID].Ink)
		if !ok || !ink.Heat() || l == motif.Ground {
			continue
		}
		if p, ok := v.Stock.Paper(w.Layers[m.Shapes.Views[l].Layer.ID].Paper); ok && p.HeatShy() {
			add(Hit{Key: []string{m.ID, w.ID, view.Layer.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: view.Layer.ID},
				What: fmt.Sprintf("%s would be heated on %s", view.Layer.Label, p.Kind), Why: fmt.Sprintf("%s needs heat, and %s warps under it.", ink.Name, p.Name),
				Do: "Take an ink that dries by itself, or print it on card.", Facts: []string{ink.ID, p.ID}})
		}
	}
}
