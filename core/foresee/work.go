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
		{ID: "steps", Station: Work, Severity: Spoils, Source: "geometry", check: circle},
		{ID: "step", Station: Work, Severity: Spoils, Source: practice, check: outOfOrder},
		{ID: "settings", Station: Work, Severity: Wastes, Source: practice, check: restless},
		{ID: "waits", Station: Work, Severity: Tip, Source: practice,
			Limits: []Limit{{"from", longWait, "min", ""}}, check: nothingToDo},
		{ID: "brush", Station: Work, Severity: Tip, Source: practice,
			Limits: []Limit{{"families from", manyFamilies, "", ""}}, check: oneBrush},
		{ID: "hot", Station: Work, Severity: Spoils, Source: practice, check: inked(hot)},
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

// manyFamilies is from how many families of ink on one brush is worth a word: our own default.
const manyFamilies = 4

// oneBrush counts how often a brush has to be cleaned that works in all blends, as the steps go.
func oneBrush(v *View, add func(Hit)) {
	families := map[string]bool{}
	cleaned, last, pale := 0, "", ""
	lightest := 0.0
	for _, a := range v.Acts {
		ink, ok := v.Stock.Ink(a.Ink)
		if !ok || a.Kind != work.InkAct || ink.Kind.ByHand() || a.ID.Verb != work.Blend {
			continue
		}
		family := ink.Family
		if family == "" {
			family = ink.ID
		}
		families[family] = true
		if last != "" && family != last {
			cleaned++
			if tone, known := ink.Shade(); known && tone.L > lightest {
				lightest, pale = tone.L, ink.Name
			}
		}
		last = family
	}
	if len(families) < manyFamilies {
		return
	}
	surely := ""
	if pale != "" {
		surely = fmt.Sprintf(", surely before %s", pale)
	}
	add(Hit{What: fmt.Sprintf("One brush goes through %d families of ink", len(families)), Why: fmt.Sprintf("As the steps go it is cleaned %d times; what is left in it greys the next.", cleaned),
		Do: fmt.Sprintf("Keep a brush for each family, %d of them, or clean it between%s.", len(families), surely), Numbers: map[string]float64{"washes": float64(cleaned), "families": float64(len(families))}})
}

// longWait is how long one stands by with nothing to do before it is worth a word, minutes:
// our own default.
const longWait = 15.0

// restless compares the person's own order with the proposed one.
func restless(v *View, add func(Hit)) {
	if len(v.Card.Order) == 0 || len(v.Proposed) != len(v.Acts) || len(v.Breaches) > 0 {
		return // one that cannot be done is noted for that
	}
	_, own := work.Timetable(v.Acts, work.Clock{Copies: 1})
	_, best := work.Timetable(v.Proposed, work.Clock{Copies: 1})
	sets, washes := own.Setups-best.Setups, own.Washes-best.Washes
	if sets <= 0 && washes <= 0 {
		return
	}
	more := ""
	switch {
	case sets > 0 && washes > 0:
		more = fmt.Sprintf("%s and %s", counted(sets, "setting"), washed(washes))
	case sets > 0:
		more = counted(sets, "setting")
	default:
		more = washed(washes)
	}
	add(Hit{What: fmt.Sprintf("Your own order takes %s more", more), Why: fmt.Sprintf("In it stamps are set %d times and washed %d times; in the proposed order %d and %d.", own.Setups, own.Washes, best.Setups, best.Washes),
		Do: "Do all of one stamp together, from its lightest ink on, or put the steps back in the proposed order.", Numbers: map[string]float64{"settings": float64(sets), "washes": float64(washes)},
		Mend: &Mend{"Proposed order", []card.Edit{{Order: &card.Reorder{Steps: []card.Step{}}}}}})
}

func washed(n int) string {
	if n == 1 {
		return "one wash"
	}
	return fmt.Sprintf("%d washes", n)
}

// nothingToDo notes the longest wait that no other work fills.
func nothingToDo(v *View, add func(Hit)) {
	at, long := -1, longWait
	for i := 1; i < len(v.Slots) && i < len(v.Acts); i++ {
		if gap := v.Slots[i].From - v.Slots[i-1].To; gap > long {
			at, long = i, gap
		}
	}
	if at < 0 {
		return
	}
	a := v.Acts[at]
	add(Hit{Key: []string{a.Key}, At: At{Step: a.Key}, What: fmt.Sprintf("%.0f min with nothing to do before step %d", long, a.Number),
		Why: fmt.Sprintf("“%s” waits for what is not dry, and all that could be done meanwhile is done.", a.Title),
		Do:  "Let the wait run in Work, and write the inside or the envelope; or make another card in the same sitting.", Numbers: map[string]float64{"minutes": long}, Facts: []string{a.Key}})
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
