package work

import (
	"ochrestone/core/colour"
	"slices"
)

// Usual times at the bench, minutes: our own defaults, until the person's own are known.
const (
	setUp    = 2.0 // put a stamp, stencil or machine in place
	washUp   = 1.5 // wash a stamp between two inks
	inkUp    = 0.4 // take up another ink
	settleIn = 1.0 // clear the table for another sort of work
)

// each is how long an act takes for one card once all is at hand, minutes.
var each = map[Kind]float64{CutAct: 1.5, InkAct: 2, PrintAct: 0.7, MaskAct: 1.5, HeatAct: 0.8, PopAct: 1, GlueAct: 1, FoamAct: 1.5, CheckAct: 2}

// Times is what an order of acts comes to for so many cards.
type Times struct {
	Copies int     `json:"copies"`
	Hand   float64 `json:"hand" doc:"minutes of work"`
	Wall   float64 `json:"wall" doc:"minutes from the first act to the last, waiting with it"`
	Idle   float64 `json:"idle" doc:"minutes with nothing to do but wait"`
	Setups int     `json:"setups" doc:"times a stamp or stencil is put in place"`
	Inks   int     `json:"inks" doc:"times another ink is taken up"`
	Washes int     `json:"washes" doc:"stamps washed between two inks"`
}

// Slot is when an act is done, minutes from the beginning.
type Slot struct {
	From float64 `json:"from"`
	To   float64 `json:"to"`
	Wash bool    `json:"wash,omitempty" doc:"its stamp is washed before"`
	Dry  []int   `json:"dry" nullable:"false" doc:"numbers of the steps whose ink, glaze or glue is not dry yet when it begins"`
	On   string  `json:"on,omitempty" doc:"ink that is on its stamp from before"`
	Set  bool    `json:"set,omitempty" doc:"its stamp or stencil is put in place for it"`
}

// Timetable says when each act of an order is done, one after the other, each for all
// copies before the next: what is wet or setting is waited for, by the copy, where an act
// that needs it comes too soon.
func Timetable(acts []Act, copies int) ([]Slot, Times) {
	n := float64(max(1, copies))
	out := make([]Slot, len(acts))
	t := Times{Copies: max(1, copies)}
	at := map[string]int{}
	for i := range acts {
		at[acts[i].Key] = i
	}
	now, group := 0.0, Group("")
	stamp, ink := "", ""
	on := map[string]*Act{} // what each stamp was last inked for
	ready := make([]float64, len(acts))
	for i := range acts {
		a := &acts[i]
		before := 0.0
		if g := groupOf(a.phase); g != group {
			if group != "" {
				before += settleIn
			}
			group = g
		}
		if a.stamp != "" {
			was := on[a.stamp]
			if was != nil && was.Ink != a.Ink {
				out[i].On = was.Ink
			}
			if was != nil && was.Ink != a.Ink && !Clean(was.tone, a.tone) {
				out[i].Wash = true
				t.Washes++
				before += washUp
			}
			if a.stamp != stamp {
				out[i].Set = true
				t.Setups++
				before += setUp
			}
			stamp, on[a.stamp] = a.stamp, a
		}
		if a.Ink != "" && a.Ink != ink {
			t.Inks++
			before += inkUp
			ink = a.Ink
		}
		one := each[a.Kind]
		start := now
		for _, need := range a.After {
			j, ok := at[need.Key]
			if !ok || !waited(&acts[j], need.Rule) {
				continue
			}
			// Copy by copy: the first and the last of them decide.
			theirs := each[acts[j].Kind]
			first := ready[j] + theirs + acts[j].Minutes - before
			last := ready[j] + n*theirs + acts[j].Minutes - before - (n-1)*one
			start = max(start, first, last)
		}
		t.Idle += start - now
		ready[i] = start + before
		now = ready[i] + n*one
		t.Hand += before + n*one
		out[i].From, out[i].To, out[i].Dry = start, now, []int{}
		for j := range i {
			if acts[j].Minutes > 0 && out[j].To+acts[j].Minutes > start+before {
				out[i].Dry = append(out[i].Dry, acts[j].Number)
			}
		}
	}
	t.Wall = now
	return out, t
}

// waited reports whether what an act leaves wet is waited for by one that needs it by a
// rule: nobody waits for glue to set but the blade that goes along it, nor between the
// strikes of one stamp.
func waited(a *Act, rule string) bool {
	if a.Minutes <= 0 {
		return false
	}
	switch a.Kind {
	case InkAct, PrintAct:
		return rule != "in turn" && rule != "light first" && rule != "set"
	case GlueAct, FoamAct:
		return rule == "trimmed"
	}
	return true
}

// Least is a bound that no order of the acts comes below, minutes of work and from the first
// act to the last: every act once, every stamp put in place once and washed as seldom as its inks
// allow, every ink taken up once,
// every sort of work begun once; and of the second the longest chain of acts that wait for
// each other, where that is longer.
func Least(acts []Act, copies int) (hand, wall float64) {
	n := float64(max(1, copies))
	stamps, inks, groups := map[string][]colour.Lab{}, map[string]bool{}, map[Group]bool{}
	at := map[string]int{}
	for i, a := range acts {
		at[a.Key] = i
		hand += n * each[a.Kind]
		if a.stamp != "" {
			if !slices.Contains(stamps[a.stamp], a.tone) {
				stamps[a.stamp] = append(stamps[a.stamp], a.tone)
			}
		}
		if a.Ink != "" {
			inks[a.Ink] = true
		}
		groups[groupOf(a.phase)] = true
	}
	for _, tones := range stamps {
		_, washes := Washes(tones)
		hand += washUp * float64(washes)
	}
	hand += setUp*float64(len(stamps)) + inkUp*float64(len(inks)) + settleIn*float64(max(0, len(groups)-1))
	// The acts stand in an order that keeps their needs, so a chain is summed in one go. Of
	// one copy: the rest of them may go on meanwhile.
	end := make([]float64, len(acts))
	for i, a := range acts {
		start := 0.0
		for _, need := range a.After {
			if j, ok := at[need.Key]; ok && j < i {
				w := 0.0
				if waited(&acts[j], need.Rule) {
					w = acts[j].Minutes
				}
				start = max(start, end[j]+w)
			}
		}
		end[i] = start + each[a.Kind]
		wall = max(wall, end[i])
	}
	return hand, max(hand, wall)
}
