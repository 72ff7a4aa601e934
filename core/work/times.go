package work

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/colour"
)

// Usual times at the bench, minutes: our own defaults, until the person's own are known.
const (
	setUp    = 2.0 // put a stamp, stencil or machine in place
	washUp   = 1.5 // wash a stamp between two inks
	inkUp    = 0.4 // take up another ink
	settleIn = 1.0 // clear the table for another sort of work
	moveOn   = 0.8 // set a stamp to the next of its places on a sheet
)

// Times is what an order of acts comes to for so many cards.
type Times struct {
	Copies int     `json:"copies"`
	Hand   float64 `json:"hand" doc:"minutes of work"`
	Wall   float64 `json:"wall" doc:"minutes from the first act to the last, waiting with it"`
	Idle   float64 `json:"idle" doc:"minutes with nothing to do but wait"`
	Setups int     `json:"setups" doc:"times a stamp or stencil is put in place, each of its places on a sheet counted"`
	Inks   int     `json:"inks" doc:"times another ink is taken up"`
	Washes int     `json:"washes" doc:"stamps washed between two inks"`
	Places int     `json:"places" doc:"how many pieces lie drying at once at most"`
}

// and adds times, so often.
func (t Times) and(o Times, often int) Times {
	f := float64(often)
	return Times{t.Copies + o.Copies*often, t.Hand + o.Hand*f, t.Wall + o.Wall*f, t.Idle + o.Idle*f, t.Setups + o.Setups*often, t.Inks + o.Inks*often, t.Washes + o.Washes*often, max(t.Places, o.Places)}
}

// Alone is what it comes to when the cards of all lots are made one after the other, each to
// its end before the next: with the stamps, and what is on them, as the card before left
// them.
func Alone(lots []Lot, c Clock) Times {
	c.Copies = 1
	var all []Act
	rest := Times{}
	for _, l := range lots {
		once, twice := after(nil, l.Acts), after(after(nil, l.Acts), l.Acts)
		all = after(all, l.Acts)
		_, one := Timetable(once, c)
		_, two := Timetable(twice, c)
		rest = rest.and(two.and(one, -1), max(1, l.Copies)-1)
	}
	_, t := Timetable(all, c)
	n := 0
	for _, l := range lots {
		n += max(1, l.Copies)
	}
	t = t.and(rest, 1)
	t.Copies = n
	return t
}

// after puts the acts of one more card behind others.
func after(all, more []Act) []Act {
	n := len(all)
	for _, a := range more {
		a.Key = fmt.Sprint(n, " ", a.Key)
		a.Cards = 1
		a.lots = []share{{n, 1}}
		needs := make([]Need, len(a.After))
		for i, need := range a.After {
			need.Key = fmt.Sprint(n, " ", need.Key)
			needs[i] = need
		}
		a.After = needs
		all = append(all, a)
	}
	return all
}

// Slot is when an act is done, minutes from the beginning.
type Slot struct {
	From   float64 `json:"from"`
	To     float64 `json:"to"`
	Wash   bool    `json:"wash,omitempty" doc:"its stamp is washed before"`
	Dry    []int   `json:"dry" nullable:"false" doc:"numbers of the steps whose ink, glaze or glue, on what is handled in it, is not dry yet when it begins"`
	On     string  `json:"on,omitempty" doc:"ink that is on its stamp from before"`
	Set    bool    `json:"set,omitempty" doc:"its stamp or stencil is put in place for it"`
	Batch  int     `json:"batch,omitempty" doc:"so many at a time, because there is no room for more to dry; 0: all at once"`
	Drying int     `json:"drying,omitempty" doc:"pieces that lie drying when it begins"`

	begun float64 // when all is at hand
}

// Clock is how time passes at a bench.
type Clock struct {
	Copies int  // cards of which an act is done on all; at least one
	Room   int  // how many pieces may lie drying at once; 0: as many as it takes
	Pace   Pace // how long acts take
}

// of is on how many cards an act is done.
func (c Clock) of(a *Act) int {
	if a.Cards > 0 {
		return a.Cards
	}
	return max(1, c.Copies)
}

// moves is how often its stamp is set to another place on the same sheet.
func (a *Act) moves() int { return max(0, a.spots-1) }

// place is where a piece of one card lies to dry.
type place struct {
	leaf Thing
	lot  int
	card int
}

// Timetable says when each act of an order is done, one after the other, each for all its
// cards before the next: what is wet or setting is waited for, card by card, where an act
// that needs it comes too soon, and so is a free place to lay a wet piece down.
func Timetable(acts []Act, c Clock) ([]Slot, Times) {
	out, t := timetable(acts, c)
	for i := range out {
		out[i].Dry = []int{}
		var wet []int
		for j := range i {
			if acts[j].Minutes > 0 && out[j].To+acts[j].Minutes > out[i].begun {
				wet = append(wet, j)
			}
		}
		if len(wet) == 0 {
			continue
		}
		held := inHand(acts[:i], &acts[i])
		for _, j := range wet {
			if held(acts[j].leaf) || acts[j].onto != (Thing{}) && held(acts[j].onto) {
				out[i].Dry = append(out[i].Dry, acts[j].Number)
			}
		}
	}
	return out, t
}

// inHand tells what is taken up for an act: its leaf with all that was put on it before; for the last
// look the whole card.
func inHand(before []Act, a *Act) func(Thing) bool {
	if a.ID.Verb == Finish {
		return func(Thing) bool { return true }
	}
	things := []Thing{a.leaf}
	for _, id := range a.film {
		things = append(things, Thing{Element: id})
	}
	held := func(t Thing) bool {
		return slices.ContainsFunc(things, func(o Thing) bool { return ofOne(o, t) })
	}
	for k := len(before) - 1; k >= 0; k-- {
		if b := &before[k]; b.onto != (Thing{}) && held(b.onto) {
			things = append(things, b.leaf)
		}
	}
	return held
}

// ofOne reports whether two things are of one element, or of one image before it is put down.
func ofOne(a, b Thing) bool {
	if a.Element != "" && b.Element != "" {
		return a.Element == b.Element
	}
	return a.Motif != "" && a.Motif == b.Motif && a.Colourway == b.Colourway || a.Element != "" && a.Element == b.Element
}

// timetable is Timetable without what is not dry yet.
func timetable(acts []Act, c Clock) ([]Slot, Times) {
	out := make([]Slot, len(acts))
	t := Times{Copies: max(1, c.Copies)}
	at := map[string]int{}
	for i := range acts {
		at[acts[i].Key] = i
	}
	now, group := 0.0, Group("")
	stamp, ink := "", ""
	on := map[string]*Act{} // what each stamp was last inked for
	ready := make([]float64, len(acts))
	lying := map[place]float64{} // until when
	for i := range acts {
		a := &acts[i]
		n := c.of(a)
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
			t.Setups += a.moves()
			before += moveOn * float64(a.moves())
		}
		if a.Ink != "" && a.Ink != ink {
			t.Inks++
			before += inkUp
			ink = a.Ink
		}
		one := c.Pace.each(a.Kind)
		start := now
		for _, need := range a.After {
			j, ok := at[need.Key]
			if !ok || !waited(&acts[j], &acts[i], need.Rule) {
				continue
			}
			// Card by card: the first and the last of them decide.
			theirs := c.Pace.each(acts[j].Kind)
			first := ready[j] + theirs + acts[j].Minutes - before
			last := out[j].To + acts[j].Minutes - before - float64(n-1)*one
			start = max(start, first, last)
		}
		t.Idle += start - now
		ready[i] = start + before
		free(lying, ready[i])
		out[i].Drying = len(lying)
		now = ready[i]
		if a.Minutes > 0 {
			waits := 0.0
			now, waits, out[i].Batch = c.layDown(a, n, now, one, lying)
			t.Idle += waits
			t.Hand -= waits
		} else {
			now += float64(n) * one
		}
		t.Places = max(t.Places, len(lying))
		t.Hand += now - start
		out[i].From, out[i].To, out[i].begun = start, now, start+before
	}
	t.Wall = now
	return out, t
}

// layDown does an act that leaves pieces wet on n cards, one after the other, and lays them
// down to dry: when it is over, minutes waited for room, and how many go at a time where
// there is too little of it.
func (c Clock) layDown(a *Act, n int, now, one float64, lying map[place]float64) (over, waits float64, batch int) {
	for k := range n {
		at := a.lies(k)
		_, there := lying[at]
		if c.Room > 0 && !there && len(lying) >= c.Room {
			free(lying, now)
		}
		if c.Room > 0 && !there && len(lying) >= c.Room {
			soonest := math.Inf(1)
			for _, until := range lying {
				soonest = min(soonest, until)
			}
			if batch == 0 {
				batch = max(1, k)
			}
			waits += soonest - now
			now = soonest
			free(lying, now)
		}
		now += one
		lying[at] = now + a.Minutes
	}
	return now, waits, batch
}

// lies is where the piece of a card lies, counted over those an act is done on.
func (a *Act) lies(k int) place {
	for _, s := range a.lots {
		if k < s.cards {
			return place{a.leaf, s.lot, k}
		}
		k -= s.cards
	}
	return place{a.leaf, 0, k}
}

// free takes up what is dry.
func free(lying map[place]float64, now float64) {
	for at, until := range lying {
		if until <= now {
			delete(lying, at)
		}
	}
}

// waited reports whether what an act leaves wet is waited for by one that needs it by a
// rule: nobody waits for glue to set but the blade that goes along it, nor between the
// strikes of one stamp or the passes of one brush. Whatever else goes on wet ink waits for it.
func waited(a, then *Act, rule string) bool {
	if a.Minutes <= 0 {
		return false
	}
	switch a.Kind {
	case InkAct, PrintAct:
		return rule != "light first" && rule != "set" && (rule != "in turn" || !wetInWet(a, then))
	case GlueAct, FoamAct:
		return rule == "trimmed"
	}
	return true
}

// wetInWet reports whether an act goes on with what the one before it left wet: strikes of one
// stamp, each beside the last, and the passes of a brush that work one ink into another.
func wetInWet(a, then *Act) bool {
	if a.stamp != "" || then.stamp != "" {
		return a.stamp == then.stamp
	}
	brush := func(a *Act) bool {
		return a.Kind == InkAct && (a.ID.Verb == Ink || a.ID.Verb == Blend || a.ID.Verb == Return || a.ID.Verb == Edge)
	}
	return brush(a) && brush(then)
}

// Least is a bound that no order of the acts comes below, minutes of work and from the first
// act to the last: every act once, every stamp put in place once and washed as seldom as its inks
// allow, every ink taken up once,
// every sort of work begun once; and of the second the longest chain of acts that wait for
// each other, where that is longer.
func Least(acts []Act, c Clock) (hand, wall float64) {
	stamps, inks, groups := map[string][]colour.Lab{}, map[string]bool{}, map[Group]bool{}
	at := map[string]int{}
	for i := range acts {
		a := &acts[i]
		at[a.Key] = i
		hand += float64(c.of(a)) * c.Pace.each(a.Kind)
		if a.stamp != "" {
			hand += moveOn * float64(a.moves())
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
	// one card: the rest of them may go on meanwhile.
	end := make([]float64, len(acts))
	for i, a := range acts {
		start := 0.0
		for _, need := range a.After {
			if j, ok := at[need.Key]; ok && j < i {
				w := 0.0
				if waited(&acts[j], &acts[i], need.Rule) {
					w = acts[j].Minutes
				}
				start = max(start, end[j]+w)
			}
		}
		end[i] = start + c.Pace.each(a.Kind)
		wall = max(wall, end[i])
	}
	return hand, max(hand, wall)
}
