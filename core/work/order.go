package work

import (
	"errors"
	"fmt"
	"math"
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
	patient bool // a stamp is taken up when nothing else has to come between its prints
	filling bool // what need not be waited for goes before what has to be
	tailed  bool // of that, what most of the rest hangs on goes first
	clock   Clock
}

// By sets how time passes while the order is worked out: without it by the usual times, for
// one card.
func By(c Clock) Option { return func(o *ordering) { o.clock = c } }

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
	out := o.best(acts, needs, nil)
	if len(out) < n {
		return acts, circle(acts, needs)
	}
	for i := range out {
		out[i].Number = i + 1
	}
	return out, nil
}

// best is the quickest of the ways to go about it: staying with what is in hand, taking up a
// stamp only when it need not be put aside again, filling waits with other work, and of that
// doing first what most of the rest hangs on (Schrage's rule). Of ways that are about as
// quick the plainest.
func (o *ordering) best(acts []Act, needs [][]int, done []int) []Act {
	var best []Act
	least, bound := math.Inf(1), 0.0
	for _, way := range []ordering{{}, {patient: true}, {filling: true}, {patient: true, filling: true}, {filling: true, tailed: true}} {
		if o.sooner != nil && (way.patient || way.filling) {
			break // the person says which is sooner
		}
		way.sooner, way.clock = o.sooner, o.clock
		out := way.sequence(acts, needs, done)
		if len(out) < len(acts) {
			return out
		}
		if best == nil {
			_, bound = Least(out, o.clock)
		}
		_, t := timetable(out, o.clock)
		if cost := t.Wall + restless*float64(changes(out)); cost < least-quicker {
			best, least = out, cost
		}
		if t.Wall < bound+quicker {
			break // none is quicker by as much
		}
	}
	return best
}

// A less plain way must be quicker by so much, minutes, and for every time more that another
// sort of work is begun by so much again: people like to cut all, ink all, then build.
const (
	quicker  = 2.0
	restless = 2.0
)

// changes is how often another sort of work is begun.
func changes(acts []Act) (n int) {
	for i := 1; i < len(acts); i++ {
		if groupOf(acts[i].phase) != groupOf(acts[i-1].phase) {
			n++
		}
	}
	return n
}

// sequence puts acts in order by what they need, by their indices: those done first, as
// they were done, then the rest, going on with what is in hand. It leaves out what waits
// for itself.
func (o *ordering) sequence(acts []Act, needs [][]int, done []int) []Act {
	n := len(acts)
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
	was := make([]bool, n)
	var free []int
	later := o.returns(acts, needs, was)
	var clock *watch
	if o.filling {
		clock = newWatch(acts, needs, o.clock)
	}
	take := func(i int) {
		was[i] = true
		for _, j := range next[i] {
			if left[j]--; left[j] == 0 && !was[j] {
				free = append(free, j)
			}
		}
		hand.take(&acts[i])
		if clock != nil {
			clock.take(i)
		}
		out = append(out, acts[i])
	}
	for _, i := range done {
		take(i)
	}
	free = free[:0]
	for i := range n {
		if left[i] == 0 && !was[i] {
			free = append(free, i)
		}
	}
	for len(free) > 0 {
		best := 0
		for k := range free {
			if k == 0 {
				continue
			}
			if o.filling {
				if a, b := clock.waits(free[k]), clock.waits(free[best]); a != b {
					if a < b {
						best = k
					}
					continue
				}
			}
			if p := acts[free[k]].phase; o.tailed && p == acts[free[best]].phase && groupOf(p) == InkGroup {
				if a, b := clock.tails[free[k]], clock.tails[free[best]]; a != b {
					if a > b {
						best = k
					}
					continue
				}
			}
			if o.patient && acts[free[k]].phase == acts[free[best]].phase {
				if a, b := later(free[k], hand.stamp), later(free[best], hand.stamp); a != b {
					if b {
						best = k
					}
					continue
				}
			}
			if hand.sooner(o, acts, free[k], free[best]) {
				best = k
			}
		}
		i := free[best]
		free = slices.Delete(free, best, best+1)
		take(i)
	}
	return out
}

// returns reports whether a stamp that is not in hand, taken up for an act, would have to be
// put aside and taken up again, because what else it prints waits for other work.
func (o *ordering) returns(acts []Act, needs [][]int, was []bool) func(i int, hand string) bool {
	of := map[string][]int{}
	for i := range acts {
		if s := acts[i].stamp; s != "" {
			of[s] = append(of[s], i)
		}
	}
	return func(i int, hand string) bool {
		s := acts[i].stamp
		if s == "" || s == hand {
			return false
		}
		for _, j := range of[s] {
			if was[j] {
				continue
			}
			for _, k := range needs[j] {
				if !was[k] && acts[k].stamp != s {
					return true
				}
			}
		}
		return false
	}
}

// watch tells how long an act would have to wait, minutes, about as Timetable does.
type watch struct {
	acts  []Act
	clock Clock
	now   float64
	dry   []dried
	tails []float64 // what at least comes after each, minutes: the longest chain that hangs on it
	next  [][]held
}

// dried is by when what an act waits for is dry: for its first card, and for its last.
type dried struct{ first, last float64 }

// held is an act that needs another, and whether it waits for that to dry.
type held struct {
	act    int
	waited bool
}

func newWatch(acts []Act, needs [][]int, c Clock) *watch {
	n := len(acts)
	w := &watch{acts: acts, clock: c, dry: make([]dried, n), tails: make([]float64, n), next: make([][]held, n)}
	left := make([]int, n)
	for i, ns := range needs {
		rules := make(map[string]string, len(acts[i].After))
		for _, need := range acts[i].After {
			rules[need.Key] = need.Rule
		}
		for _, j := range ns {
			rule, ok := rules[acts[j].Key]
			w.next[j] = append(w.next[j], held{i, ok && waited(&acts[j], &acts[i], rule)})
			left[j]++
		}
	}
	// From the last acts back, each when all that hangs on it is known.
	var ready []int
	for i := range left {
		if left[i] == 0 {
			ready = append(ready, i)
		}
	}
	for len(ready) > 0 {
		i := ready[len(ready)-1]
		ready = ready[:len(ready)-1]
		for _, h := range w.next[i] {
			wait := 0.0
			if h.waited {
				wait = acts[i].Minutes
			}
			w.tails[i] = max(w.tails[i], wait+w.long(h.act)+w.tails[h.act])
		}
		for _, j := range needs[i] {
			if left[j]--; left[j] == 0 {
				ready = append(ready, j)
			}
		}
	}
	return w
}

// long is how long an act takes on all its cards.
func (w *watch) long(i int) float64 {
	return float64(w.clock.of(&w.acts[i])) * w.clock.Pace.each(w.acts[i].Kind)
}

// waits is how long an act would have to wait if it came next: nothing where that is short.
func (w *watch) waits(i int) float64 {
	if m := w.start(i) - w.now; m > shortWait {
		return m
	}
	return 0
}

// shortWait is not worth beginning something else for, minutes.
const shortWait = 1.0

func (w *watch) start(i int) float64 {
	d := w.dry[i]
	return max(w.now, d.first, d.last-w.long(i)+w.clock.Pace.each(w.acts[i].Kind))
}

// take does an act: what waits for it knows by when it is dry.
func (w *watch) take(i int) {
	a := &w.acts[i]
	from := w.start(i)
	w.now = from + w.long(i)
	for _, h := range w.next[i] {
		if h.waited {
			d := &w.dry[h.act]
			d.first, d.last = max(d.first, from+w.clock.Pace.each(a.Kind)+a.Minutes), max(d.last, w.now+a.Minutes)
		}
	}
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
	exact, plain := map[card.Step]int{}, map[card.Step]int{}
	for i, id := range order {
		exact[id] = i
		// A step that was for one lot goes for all, where the card is made alone.
		id.Lot = ""
		if _, ok := plain[id]; !ok {
			plain[id] = i
		}
	}
	pos := func(a Act) (int, bool) {
		if i, ok := exact[a.ID]; ok {
			return i, true
		}
		id := a.ID
		id.Lot = ""
		i, ok := plain[id]
		return i, ok
	}
	named := slices.DeleteFunc(slices.Clone(acts), func(a Act) bool { _, ok := pos(a); return !ok })
	slices.SortStableFunc(named, func(a, b Act) int {
		i, _ := pos(a)
		j, _ := pos(b)
		return i - j
	})
	out := make([]Act, 0, len(acts))
	k := 0
	for _, a := range acts {
		if _, ok := pos(a); ok {
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
