package work

import (
	"errors"
	"slices"
	"strings"

	"gonum.org/v1/gonum/graph/simple"
	"gonum.org/v1/gonum/graph/topo"

	"ochrestone/core/card"
	"ochrestone/core/colour"
)

// Lot is what there is to do for so many cards of a sitting that are alike.
type Lot struct {
	Card   string // id of the card, where it is not the one the sitting is about
	ID     string // of the lot, where the cards of this design differ
	Title  string // of the card
	Name   string // what a person calls these cards
	Copies int
	Acts   []Act // in an order that keeps the rules, as Order gives it
}

// share is a lot an act is done for, and on how many cards.
type share struct{ lot, cards int }

// Did is what was done of a sitting, and how.
type Did struct {
	Done []card.Step // in the order it was done; what was left out too
	Used []Used      // inks used instead of those planned
}

// Used is an ink used instead of the one planned.
type Used struct {
	Step    card.Step
	Ink     string
	Tone    colour.Lab // dried
	Minutes float64    // to dry
}

// Sitting puts the acts of all lots into one order: what is the same for several lots of a
// design is done on all of them at once, all that one stamp and one ink do together, and
// every lot keeps the rules of its own order. What was done comes first, as it was done,
// and the rest goes on from what is in hand; an ink that was used instead of another counts
// for the washes and waits that come after it. A person's own order goes before the proposed
// one, as far as it names steps. Where what is done at once would
// make steps wait for each other they are done lot by lot. It returns ErrCircle where the
// acts of one lot already wait for each other.
func Sitting(lots []Lot, own []card.Step, did Did, c Clock) ([]Act, error) {
	apart := map[string]bool{} // plain keys of acts that are not done for several lots at once
	for {
		acts, needs := merged(lots, apart)
		planned := (&ordering{clock: c}).best(acts, needs, nil)
		did.inked(acts)
		var done []int
		for _, s := range did.Done {
			if i := slices.IndexFunc(acts, func(a Act) bool { return a.ID == s }); i >= 0 && !slices.Contains(done, i) {
				done = append(done, i)
			}
		}
		// What another ink is taken up for is in hand: it comes next.
		for _, u := range did.Used {
			i := slices.IndexFunc(acts, func(a Act) bool { return a.ID == u.Step })
			if i >= 0 && !slices.Contains(done, i) && !slices.ContainsFunc(needs[i], func(j int) bool { return !slices.Contains(done, j) }) {
				done = append(done, i)
			}
		}
		if len(planned) < len(acts) {
			if !part(acts, needs, apart) {
				return acts, circle(acts, needs)
			}
			continue
		}
		if len(own) > 0 {
			planned, _ = Rearrange(planned, own)
		}
		// Steps keep the numbers of the plan, as they stand on a printed sheet.
		number := map[string]int{}
		for i, a := range planned {
			number[a.Key] = i + 1
		}
		out := planned
		switch {
		case len(own) > 0:
			did.inked(out)
			slices.SortStableFunc(out, func(a, b Act) int { return before(did.Done, a) - before(did.Done, b) })
		case len(did.Done)+len(did.Used) > 0:
			out = (&ordering{clock: c}).best(acts, needs, done)
		}
		for i := range out {
			out[i].Number = number[out[i].Key]
		}
		return out, nil
	}
}

// inked gives acts the inks that were used for them.
func (d Did) inked(acts []Act) {
	for _, u := range d.Used {
		for i := range acts {
			if acts[i].ID == u.Step {
				acts[i].Ink, acts[i].tone, acts[i].Minutes = u.Ink, u.Tone, u.Minutes
			}
		}
	}
}

// before is the turn of an act among those done; what is not done comes after them all.
func before(done []card.Step, a Act) int {
	if i := slices.Index(done, a.ID); i >= 0 {
		return i
	}
	return len(done)
}

// part notes what is not done for several lots at once, so that nothing waits for itself;
// false where nothing is left to part.
func part(acts []Act, needs [][]int, apart map[string]bool) bool {
	g := simple.NewDirectedGraph()
	for i := range acts {
		g.AddNode(simple.Node(i))
	}
	for i, ns := range needs {
		for _, j := range ns {
			if i != j {
				g.SetEdge(simple.Edge{F: simple.Node(j), T: simple.Node(i)})
			}
		}
	}
	var u topo.Unorderable
	if _, err := topo.Sort(g); !errors.As(err, &u) {
		return false
	}
	any := false
	for _, ring := range u {
		for _, n := range ring {
			if a := &acts[n.ID()]; len(a.lots) > 1 {
				id := a.ID
				id.Lot = ""
				apart[key(id)], any = true, true
			}
		}
	}
	return any
}

// merged are the acts of all lots, those that are the same for several once, and what each
// needs, by its index.
func merged(lots []Lot, apart map[string]bool) (acts []Act, needs [][]int) {
	designs := map[string]int{} // lots of each design
	for _, l := range lots {
		designs[l.Card]++
	}
	where := make([]map[string]int, len(lots))
	same := map[string][]int{} // acts so far, by their plain key
	for n, l := range lots {
		where[n] = map[string]int{}
		for _, a := range l.Acts {
			id := a.ID
			id.Card = l.Card
			plain := key(id)
			at := -1
			for _, i := range same[plain] {
				if b := &acts[i]; !apart[plain] && b.Title == a.Title && b.Detail == a.Detail && b.Ink == a.Ink && b.Minutes == a.Minutes && b.Kind == a.Kind {
					at = i
					break
				}
			}
			if at < 0 {
				at = len(acts)
				same[plain] = append(same[plain], at)
				b := a
				b.ID, b.Cards, b.lots, b.leaf = id, 0, nil, a.leaf
				acts = append(acts, b)
			}
			acts[at].Cards += max(1, l.Copies)
			acts[at].lots = append(acts[at].lots, share{n, max(1, l.Copies)})
			where[n][a.Key] = at
		}
	}
	for i := range acts {
		a := &acts[i]
		if len(a.lots) < designs[a.ID.Card] {
			a.ID.Lot = lots[a.lots[0].lot].ID
		}
		if len(a.lots) < len(lots) && len(a.lots) == designs[a.ID.Card] {
			a.For = lots[a.lots[0].lot].Title
		} else if len(a.lots) < len(lots) {
			var names []string
			for _, s := range a.lots {
				names = append(names, lots[s.lot].Name)
			}
			a.For = strings.Join(names, "; ")
		}
		a.Key = key(a.ID)
	}
	needs = make([][]int, len(acts))
	for n, l := range lots {
		for _, a := range l.Acts {
			i := where[n][a.Key]
			for _, need := range a.After {
				if j, ok := where[n][need.Key]; ok && !slices.Contains(needs[i], j) {
					needs[i] = append(needs[i], j)
				}
			}
		}
	}
	for i := range acts {
		a := &acts[i]
		a.After = []Need{}
		for _, s := range a.lots {
			n := s.lot
			l := lots[n]
			k := slices.IndexFunc(l.Acts, func(b Act) bool { return where[n][b.Key] == i })
			for _, need := range l.Acts[k].After {
				j, ok := where[n][need.Key]
				if ok && !slices.ContainsFunc(a.After, func(o Need) bool { return o.Key == acts[j].Key }) {
					a.After = append(a.After, Need{acts[j].Key, need.Rule, need.Why})
				}
			}
		}
	}
	return acts, needs
}

// Doubt is a step that is done though one that it needs is not.
type Doubt struct {
	Step  int    `json:"step" doc:"number of the step that is done"`
	Needs int    `json:"needs" doc:"number of the one that is not"`
	Why   string `json:"why"`
}

// Doubts lists the steps that are done though one that they need is not: what was ticked
// too soon, or taken back after what followed.
func Doubts(acts []Act, done map[card.Step]bool) []Doubt {
	out := []Doubt{}
	at := map[string]int{}
	for i := range acts {
		at[acts[i].Key] = i
	}
	for _, a := range acts {
		if !done[a.ID] {
			continue
		}
		for _, n := range a.After {
			if j, ok := at[n.Key]; ok && !done[acts[j].ID] {
				out = append(out, Doubt{a.Number, acts[j].Number, n.Why})
			}
		}
	}
	return out
}

// Differs is how the work on a card differs from what it was.
type Differs struct {
	New       []string `json:"new" nullable:"false" doc:"titles of steps there were not"`
	Gone      []string `json:"gone" nullable:"false" doc:"titles of steps there are no longer"`
	Otherwise []string `json:"otherwise" nullable:"false" doc:"titles of steps that are done otherwise"`
}

// Any reports whether anything is different.
func (c Differs) Any() bool { return len(c.New)+len(c.Gone)+len(c.Otherwise) > 0 }

// Compare says how acts differ from what they were.
func Compare(was, now []Act) Differs {
	out := Differs{[]string{}, []string{}, []string{}}
	before := map[card.Step]*Act{}
	for i := range was {
		before[was[i].ID] = &was[i]
	}
	for i := range now {
		a := &now[i]
		b, ok := before[a.ID]
		delete(before, a.ID)
		switch {
		case !ok:
			out.New = append(out.New, a.Title)
		case a.Title != b.Title || a.Detail != b.Detail || a.Ink != b.Ink || a.Cards != b.Cards || a.Minutes != b.Minutes:
			out.Otherwise = append(out.Otherwise, a.Title)
		}
	}
	for i := range was {
		if before[was[i].ID] != nil {
			out.Gone = append(out.Gone, was[i].Title)
		}
	}
	return out
}
