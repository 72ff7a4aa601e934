package work

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"gonum.org/v1/gonum/graph/simple"
	"gonum.org/v1/gonum/graph/topo"

	"ochrestone/core/card"
	"ochrestone/core/colour"
)

// ErrCircle is returned when acts wait for each other.
var ErrCircle = errors.New("these steps wait for each other")

// Breach is an act that stands before one it needs.
type Breach struct {
	Act, Needs int // indices in the order
	Rule, Why  string
}

// Option changes how Order goes about it.
type Option func(*ordering)

type ordering struct {
	without map[string]bool
	sooner  func(a, b *Act) int
}

// Without leaves rules out, by their ids.
func Without(rules ...string) Option {
	return func(o *ordering) {
		for _, r := range rules {
			o.without[r] = true
		}
	}
}

// Preferring chooses among acts that are free to be done: the one that compares least.
// Without it phases and what is in hand decide.
func Preferring(compare func(a, b *Act) int) Option { return func(o *ordering) { o.sooner = compare } }

// Order puts acts in an order that keeps every rule, each with what it needs. Among
// those free to be done it takes the earliest phase, then stays with the stamp and the
// ink in hand, a stamp going through its inks with the fewest washes, from light to dark,
// then the first thought of; so drying goes on while other things are done. Where acts wait for each
// other they come back as they were, with ErrCircle and their titles.
func Order(acts []Act, opts ...Option) ([]Act, error) {
	o := ordering{without: map[string]bool{}}
	for _, f := range opts {
		f(&o)
	}
	n := len(acts)
	acts = slices.Clone(acts)
	needs := make([][]int, n)
	t := newTable(acts)
	rules := slices.DeleteFunc(Rules(), func(r Rule) bool { return o.without[r.ID] })
	slices.SortStableFunc(rules, func(a, b Rule) int { return yielding(a) - yielding(b) })
	for _, r := range rules {
		r.pairs(t, func(first, then int) {
			if first == then || slices.Contains(needs[then], first) || r.Yields && waits(needs, first, then) {
				return
			}
			needs[then] = append(needs[then], first)
			acts[then].After = append(acts[then].After, Need{acts[first].Key, r.ID, r.Why})
		})
	}
	turns(acts)
	left, next := make([]int, n), make([][]int, n)
	for i, ns := range needs {
		left[i] = len(ns)
		for _, j := range ns {
			next[j] = append(next[j], i)
		}
	}
	out := make([]Act, 0, n)
	hand := hand{}
	done := make([]bool, n)
	var free []int
	for i := range n {
		if left[i] == 0 {
			free = append(free, i)
		}
	}
	for len(free) > 0 {
		best := 0
		for k := range free {
			if k > 0 && hand.sooner(&o, acts, free[k], free[best]) {
				best = k
			}
		}
		i := free[best]
		free = slices.Delete(free, best, best+1)
		done[i] = true
		for _, j := range next[i] {
			if left[j]--; left[j] == 0 {
				free = append(free, j)
			}
		}
		hand.take(&acts[i])
		acts[i].Number = len(out) + 1
		out = append(out, acts[i])
	}
	if len(out) < n {
		return acts, circle(acts, needs)
	}
	return out, nil
}

// turns gives the acts of every stamp their turn by its ink.
func turns(acts []Act) {
	inks := map[string][]string{}
	tones := map[string][]colour.Lab{}
	for i := range acts {
		if a := &acts[i]; a.stamp != "" && !slices.Contains(inks[a.stamp], a.Ink) {
			inks[a.stamp], tones[a.stamp] = append(inks[a.stamp], a.Ink), append(tones[a.stamp], a.tone)
		}
	}
	turn := map[[2]string]int{}
	for stamp, all := range inks {
		order, _ := Washes(tones[stamp])
		for t, i := range order {
			turn[[2]string{stamp, all[i]}] = t
		}
	}
	for i := range acts {
		acts[i].turn = turn[[2]string{acts[i].stamp, acts[i].Ink}]
	}
}

func yielding(r Rule) int {
	if r.Yields {
		return 1
	}
	return 0
}

// waits reports whether an act waits for another, directly or through others.
func waits(needs [][]int, act, other int) bool {
	seen := make([]bool, len(needs))
	todo := []int{act}
	for len(todo) > 0 {
		i := todo[len(todo)-1]
		todo = todo[:len(todo)-1]
		if i == other {
			return true
		}
		for _, j := range needs[i] {
			if !seen[j] {
				seen[j] = true
				todo = append(todo, j)
			}
		}
	}
	return false
}

// circle names acts that wait for each other.
func circle(acts []Act, needs [][]int) error {
	g := simple.NewDirectedGraph()
	for i := range acts {
		g.AddNode(simple.Node(i))
	}
	for i, ns := range needs {
		for _, j := range ns {
			g.SetEdge(simple.Edge{F: simple.Node(j), T: simple.Node(i)})
		}
	}
	var names []string
	var u topo.Unorderable
	if _, err := topo.Sort(g); errors.As(err, &u) {
		for _, c := range u[0] {
			names = append(names, acts[c.ID()].Title)
		}
	}
	slices.Sort(names)
	return fmt.Errorf("%w: %s", ErrCircle, strings.Join(names, "; "))
}

// hand is what is at hand after an act.
type hand struct {
	stamp, ink string
}

func (h *hand) take(a *Act) {
	if a.Ink != "" {
		h.stamp, h.ink = a.stamp, a.Ink
	}
}

// sooner reports whether one act should be done before another, both being free.
func (h *hand) sooner(o *ordering, acts []Act, i, j int) bool {
	a, b := &acts[i], &acts[j]
	if o.sooner != nil {
		if c := o.sooner(a, b); c != 0 {
			return c < 0
		}
		return i < j
	}
	if a.phase != b.phase {
		return a.phase < b.phase
	}
	if same, other := h.stamp != "" && a.stamp == h.stamp, h.stamp != "" && b.stamp == h.stamp; same != other {
		return same
	}
	if a.stamp != "" && a.stamp == b.stamp && a.turn != b.turn {
		return a.turn < b.turn
	}
	if same, other := h.ink != "" && a.Ink == h.ink, h.ink != "" && b.Ink == h.ink; same != other {
		return same
	}
	return i < j
}

// Rearrange puts acts in the person's own order, as far as it names them; the others keep
// their place. It reports every act that now stands before one it needs.
func Rearrange(acts []Act, order []card.Step) ([]Act, []Breach) {
	pos := map[card.Step]int{}
	for i, id := range order {
		pos[id] = i
	}
	named := slices.DeleteFunc(slices.Clone(acts), func(a Act) bool { _, ok := pos[a.ID]; return !ok })
	slices.SortStableFunc(named, func(a, b Act) int { return pos[a.ID] - pos[b.ID] })
	out := make([]Act, 0, len(acts))
	k := 0
	for _, a := range acts {
		if _, ok := pos[a.ID]; ok {
			a = named[k]
			k++
		}
		out = append(out, a)
	}
	at := map[string]int{}
	for i := range out {
		out[i].Number = i + 1
		at[out[i].Key] = i
	}
	var bad []Breach
	for i, a := range out {
		for _, n := range a.After {
			if j := at[n.Key]; j > i {
				bad = append(bad, Breach{i, j, n.Rule, n.Why})
			}
		}
	}
	return out, bad
}
