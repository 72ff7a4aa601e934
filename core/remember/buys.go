package remember

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/cut"
	"ochrestone/core/depth"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
)

// Make is a card that is made, so often as it says of itself, with its plan.
type Make struct {
	Card card.Card
	Plan plan.Plan
}

// Taking is what of a thing that is counted a run takes.
type Taking struct {
	Kind string `json:"kind" enum:"spacers,envelopes,gems"`
	ID   string `json:"id"`
	Name string `json:"name"`
	N    int    `json:"n" doc:"so many"`
	Left *int   `json:"left,omitempty" doc:"so many are there; none: not counted"`
}

// Takes lists the spacers, envelopes and gems that cards take, all of them together; cardstock is
// taken as it is cut. What is no longer in the kit is passed over.
func Takes(makes []Make, k kit.Kit) []Taking {
	n := map[string]int{}
	for _, m := range makes {
		for id, pads := range depth.Used(m.Plan.Build.Stock, m.Plan.Stood) {
			n["spacers/"+id] += pads * m.Card.Run()
		}
		n["envelopes/"+m.Plan.Depth.Post.Envelope] += m.Card.Run()
		for id, each := range m.Card.Gems() {
			n["gems/"+id] += each * m.Card.Run()
		}
	}
	return takings(n, k)
}

// takings are so many of each thing, by kind and id, in the order of the stores.
func takings(n map[string]int, k kit.Kit) []Taking {
	out := []Taking{}
	for _, s := range k.Spacers {
		if n := n["spacers/"+s.ID]; n > 0 {
			out = append(out, Taking{"spacers", s.ID, s.Name, n, s.Left})
		}
	}
	for _, e := range k.Envelopes {
		if n := n["envelopes/"+e.ID]; n > 0 {
			out = append(out, Taking{"envelopes", e.ID, e.Name, n, e.Left})
		}
	}
	for _, g := range k.Gems {
		if n := n["gems/"+g.ID]; n > 0 {
			out = append(out, Taking{"gems", g.ID, g.Name, n, g.Left})
		}
	}
	return out
}

// ToBuy is something to buy.
type ToBuy struct {
	Kind  string `json:"kind" enum:"inks,papers,spacers,adhesives,envelopes,gems"`
	ID    string `json:"id"`
	Name  string `json:"name"`
	N     int    `json:"n,omitempty" doc:"at least so many, sheets of cardstock; 0: one"`
	Why   string `json:"why"`
	Where string `json:"where,omitempty" doc:"where it is kept"`
}

// Wanted is what a card that is made takes, as far as it is bought.
type Wanted struct {
	Title string
	Of    []string // kinds and ids of what it is made of, a slash between
	Takes []Taking // for all copies
}

// WantedFor is what a card takes.
func WantedFor(m Make, k kit.Kit) Wanted {
	w := Wanted{Title: m.Card.Title, Takes: Takes([]Make{m}, k)}
	for _, u := range m.Card.Uses() {
		w.Of = append(w.Of, u.Key())
	}
	for _, a := range m.Plan.Build.PaperAreas() {
		w.Of = append(w.Of, "papers/"+a.Stock)
	}
	for _, t := range w.Takes {
		w.Of = append(w.Of, t.Kind+"/"+t.ID)
	}
	slices.Sort(w.Of)
	w.Of = slices.Compact(w.Of)
	return w
}

// mostTitles is how many cards are named beside a thing to buy.
const mostTitles = 6

// together are all takings of some cards.
func together(all []Wanted, k kit.Kit) []Taking {
	n := map[string]int{}
	for _, w := range all {
		for _, t := range w.Takes {
			n[t.Kind+"/"+t.ID] += t.N
		}
	}
	return takings(n, k)
}

// Shopping lists what to buy for some cards to be made: inks that run low, and those that are
// empty and wanted; cardstock of which the cards, laid out together, take more sheets than are
// there; pads and envelopes of which they take more; adhesives that run low. Each is said with
// the cards it is for. laid are the cardstocks as they are laid out for all of them.
func Shopping(k kit.Kit, all []Wanted, laid []cut.Stock) []ToBuy {
	out := []ToBuy{}
	wants := map[string][]string{} // titles by what they want
	for _, w := range all {
		for _, at := range w.Of {
			if !slices.Contains(wants[at], w.Title) {
				wants[at] = append(wants[at], w.Title)
			}
		}
	}
	why := func(what, kind, id string) string {
		if on := wants[kind+"/"+id]; len(on) > 0 {
			if len(on) > mostTitles {
				on = append(slices.Clip(on[:mostTitles]), "…")
			}
			return what + "; for " + strings.Join(on, ", ")
		}
		return what
	}
	for _, i := range k.Inks {
		switch {
		case i.Gone && len(wants["inks/"+i.ID]) > 0:
			out = append(out, ToBuy{"inks", i.ID, i.Name, 0, why("empty", "inks", i.ID), i.Where})
		case i.Low && !i.Gone:
			out = append(out, ToBuy{"inks", i.ID, i.Name, 0, why("runs low", "inks", i.ID), i.Where})
		}
	}
	for _, p := range k.Papers {
		i := slices.IndexFunc(laid, func(s cut.Stock) bool { return s.Stock == p.ID })
		if i >= 0 && laid[i].Needs > p.Sheets {
			out = append(out, ToBuy{"papers", p.ID, p.Name, laid[i].Needs - p.Sheets, why(fmt.Sprintf("%d there", p.Sheets), "papers", p.ID), p.Where})
		}
	}
	for _, t := range together(all, k) {
		if t.Left == nil || *t.Left >= t.N {
			continue
		}
		b := ToBuy{t.Kind, t.ID, t.Name, t.N - *t.Left, why(fmt.Sprintf("%d there", *t.Left), t.Kind, t.ID), ""}
		if s, ok := k.Spacer(t.ID); ok && t.Kind == "spacers" {
			b.Where = s.Where
		} else if e, ok := k.Envelope(t.ID); ok && t.Kind == "envelopes" {
			b.Where = e.Where
		} else if g, ok := k.Gem(t.ID); ok && t.Kind == "gems" {
			b.Where = g.Where
		}
		out = append(out, b)
	}
	for _, a := range k.Adhesives {
		if a.Low {
			out = append(out, ToBuy{"adhesives", a.ID, a.Name, 0, why("runs low", "adhesives", a.ID), a.Where})
		}
	}
	return out
}
