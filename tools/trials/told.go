// Command trials lays the trial cards before the program and prints what of them it tells: a
// table of line, said, partly or no, its twin, its mend, and the notes of each card.
package main

import (
	"context"
	"slices"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/cut"
	"ochrestone/core/foresee"
	"ochrestone/core/placing"
	"ochrestone/core/plan"
	"ochrestone/core/register"
	"ochrestone/core/trial"
	"ochrestone/core/work"
	"ochrestone/exchange/sheet"
)

// verdict is how much of a line is told.
type verdict int

// How much of a line is told.
const (
	no verdict = iota
	partly
	said
)

func (v verdict) String() string { return [...]string{"no", "partly", "said"}[v] }

// told is a stranger's card with all that the program says of it.
type told struct {
	*trial.Stranger
	plan.Plan
	planner *plan.Planner
	cuts    *cut.Plan
	sitting *plan.Sitting
}

var face = plan.Typeface(sheet.Face{})

// hand is how the strangers' hands repeat, typed as they say.
var hand = plan.Hand(register.Typed(register.Ways(), map[string]register.Spread{
	"eye": {Shift: 0.35}, "corner": {Shift: 0.10}, register.RoundKey("eye"): {Shift: 0.50}, "lines": {Shift: 0.40},
}))

// door is that of the strangers' positioner.
var door = plan.HingeAt(placing.Hinge{Side: placing.HingeLeft, Far: 40, DoorW: 152.4, DoorH: 152.4})

// maker plans all of them: most lines are of a card that another line is of too.
var maker = plan.NewPlanner()

// tell plans a card, in the person's own order of work where that is asked for.
func tell(s *trial.Stranger, given bool) *told {
	t := &told{Stranger: s, planner: maker}
	t.Plan = t.planner.Of(s.Card, s.Kit, face)
	if given {
		if steps := t.order(); len(steps) > 0 {
			s.Do(card.Edit{Order: &card.Reorder{Steps: steps}})
			t.Plan = t.planner.Of(s.Card, s.Kit, face)
		}
	}
	return t
}

// order is the person's own order as steps: what it names in its order, all else as proposed.
func (t *told) order() []card.Step {
	var own []card.Step
	for _, g := range t.Given {
		for _, a := range t.Steps {
			if a.ID.Verb == g.Verb && a.ID.Element == t.Find(g.Of) && !slices.Contains(own, a.ID) {
				own = append(own, a.ID)
				break
			}
		}
	}
	if len(own) < 2 {
		return nil
	}
	var out []card.Step
	at := 0
	for _, a := range t.Steps {
		if slices.Contains(own, a.ID) {
			out = append(out, own[at])
			at++
			continue
		}
		out = append(out, a.ID)
	}
	return out
}

// note is the first finding of one of some rules about a thing of the trial's own name; an empty
// name is any thing.
func (t *told) note(of string, rules ...string) *foresee.Finding {
	for i := range t.Findings {
		f := &t.Findings[i]
		if slices.Contains(rules, f.Rule) && (of == "" || t.about(f, of)) {
			return f
		}
	}
	return nil
}

// placing is how a layer of an image is placed by such a hand, for a run of so many; nil where nothing
// has to meet.
func (t *told) placing(image, layer string, run int) *placing.Placing {
	id, _ := t.Made("image " + image)
	study, err := t.planner.Placing(t.Card, t.Kit, id, hand)
	if err != nil {
		return nil
	}
	m, _ := t.Card.Motif(id)
	p, err := study.Of(m.Colourways[0].ID, layer, run, 1)
	if err != nil || p.Plain == nil {
		return nil
	}
	return &p
}

// plainly is how a way would do with nothing forgiven.
func plainly(p *placing.Placing, way string) (chance float64, blanks int) {
	if p == nil {
		return 0, 0
	}
	for _, w := range p.Plain.Ways {
		if w.ID == way {
			return w.Chance, w.Blanks
		}
	}
	return 0, 0
}

// about reports whether a finding is about a thing of the trial: its element, its image, or a
// layer of that name.
func (t *told) about(f *foresee.Finding, of string) bool {
	if f.Layer == of {
		return true
	}
	for _, name := range []string{of, "image " + of} {
		if id, ok := t.Made(name); ok && (f.Element == id || f.Motif == id || slices.Contains(f.Places, id)) {
			return true
		}
	}
	return false
}

// count is how many findings of a rule there are.
func (t *told) count(rule string) (n int) {
	for _, f := range t.Findings {
		if f.Rule == rule {
			n++
		}
	}
	return n
}

// step is the first act with a verb on a thing of the trial; an empty name is any.
func (t *told) step(verb, of, part string) *work.Act {
	if _, ok := t.Made("image " + of); ok {
		part = t.Layer(of, part)
	}
	for i := range t.Steps {
		a := &t.Steps[i]
		if a.ID.Verb != verb || part != "" && a.ID.Part != part && !strings.HasPrefix(a.ID.Part, part+" ") {
			continue
		}
		if of == "" {
			return a
		}
		for _, name := range []string{of, "image " + of} {
			if id, ok := t.Made(name); ok && (a.ID.Element == id || a.ID.Motif == id) {
				return a
			}
		}
	}
	return nil
}

// cutting is the cut list.
func (t *told) cutting() cut.Plan {
	if t.cuts == nil {
		c := t.planner.Cutting(context.Background(), []plan.Job{{Card: t.Card}}, t.Kit, nil, face)
		t.cuts = &c
	}
	return *t.cuts
}

// pieces is how many pieces of a layer, of any image of that name, the cut list takes.
func (t *told) pieces(image, layer string) (n int) {
	id, _ := t.Made("image " + image)
	for _, s := range t.cutting().Stocks {
		for _, w := range s.Wants {
			if (w.Motif == id || id == "" && w.Motif != "") && (layer == "" || w.Part == layer) {
				n += w.N
			}
		}
	}
	return n
}

// within reports whether a number behind a finding lies in a range.
func within(f *foresee.Finding, number string, lo, hi float64) bool {
	if f == nil {
		return false
	}
	v, ok := f.Numbers[number]
	return ok && v >= lo && v <= hi
}

// half is said where all of it holds, partly where the first does, else no.
func half(some, all bool) verdict {
	switch {
	case some && all:
		return said
	case some:
		return partly
	}
	return no
}
