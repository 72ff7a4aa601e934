package work

import (
	"slices"
	"strings"
)

// BenchState is how the bench stands when a step begins.
type BenchState struct {
	Step   int    `json:"step" doc:"number of the step; 0 when all is done"`
	Tools  []Tool `json:"tools" nullable:"false" doc:"stamps, stencils and brushes that were used, the one in place first"`
	Lying  []Wet  `json:"lying" nullable:"false" doc:"what lies drying or setting"`
	Places int    `json:"places" doc:"places taken by it"`
	Room   int    `json:"room" doc:"places there are; 0: as many as it takes"`
}

// Tool is a stamp, a stencil or a brush, and what is on it.
type Tool struct {
	Kind  string `json:"kind" enum:"stamp,stencil,brush"`
	Name  string `json:"name"`
	Ink   string `json:"ink" doc:"ink that is on it"`
	Set   bool   `json:"set,omitempty" doc:"it is in place: leave it there"`
	Again int    `json:"again" doc:"number of the next step it is used in; 0: it can be cleaned and put away"`
	Wash  bool   `json:"wash,omitempty" doc:"it is washed before that, because the ink on it would show"`
}

// Wet is what a step left wet.
type Wet struct {
	Step    int     `json:"step" doc:"number of the step"`
	Title   string  `json:"title"`
	Minutes float64 `json:"minutes" doc:"until the last of it is dry, minutes"`
}

// StateAt is how the bench stands when the act at an index begins, all before it being
// done; past the last, how it stands at the end. slots are those of Timetable for the same
// acts.
func StateAt(acts []Act, slots []Slot, at int, c Clock) BenchState {
	out := BenchState{Tools: []Tool{}, Lying: []Wet{}, Room: c.Room}
	now := 0.0
	if at < len(acts) {
		out.Step, now, out.Places = acts[at].Number, slots[at].From, slots[at].Drying
	} else if len(slots) > 0 {
		now = slots[len(slots)-1].To
	}
	// From the last back, so that each tool stands as it was used last.
	seen := map[[2]string]bool{}
	for i := min(at, len(acts)) - 1; i >= 0; i-- {
		a := &acts[i]
		if a.Minutes > 0 && slots[i].To+a.Minutes > now {
			out.Lying = append(out.Lying, Wet{a.Number, a.Title, slots[i].To + a.Minutes - now})
		}
		t, id, ok := a.uses()
		if !ok || seen[id] {
			continue
		}
		first := len(seen) == 0 || !slices.ContainsFunc(out.Tools, func(o Tool) bool { return o.Kind != "brush" })
		seen[id] = true
		t.Set = t.Kind != "brush" && first
		for j := at; j < len(acts); j++ {
			if _, o, ok := acts[j].uses(); ok && o == id {
				t.Again, t.Wash = acts[j].Number, t.Kind != "brush" && acts[j].Ink != a.Ink && !Clean(a.tone, acts[j].tone)
				break
			}
		}
		t.Set = t.Set && t.Again > 0
		out.Tools = append(out.Tools, t)
	}
	slices.SortStableFunc(out.Tools, func(a, b Tool) int {
		if a.Set != b.Set {
			if a.Set {
				return -1
			}
			return 1
		}
		return strings.Compare(b.Kind, a.Kind)
	})
	return out
}

// uses is the tool an act takes ink up with, and which it is.
func (a *Act) uses() (t Tool, id [2]string, ok bool) {
	switch {
	case a.stamp != "":
		t = Tool{Kind: "stamp", Name: a.called, Ink: a.Ink}
		if a.stencil {
			t.Kind = "stencil"
		}
		return t, [2]string{"stamp", a.stamp}, true
	case a.Kind == InkAct && a.Ink != "":
		return Tool{Kind: "brush", Ink: a.Ink}, [2]string{"brush", a.Ink}, true
	}
	return t, id, false
}
