// Package work puts the steps of a card in an order that physics allows: ink
// before popping out, dry before glue, heat before foam, base last.
package work

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"gonum.org/v1/gonum/graph/simple"
	"gonum.org/v1/gonum/graph/topo"
)

// Kind is the sort of a step.
type Kind string

// Kinds of steps.
const (
	CutStep   Kind = "cut"
	InkStep   Kind = "ink"
	PrintStep Kind = "print"
	DryStep   Kind = "dry"
	HeatStep  Kind = "heat"
	PopStep   Kind = "pop out"
	GlueStep  Kind = "glue"
	FoamStep  Kind = "foam"
	FoldStep  Kind = "fold"
	CheckStep Kind = "check"
)

// Step is one thing to do at the bench.
type Step struct {
	ID       string   `json:"id"`
	Number   int      `json:"number"`
	Kind     Kind     `json:"kind"`
	Title    string   `json:"title"`
	Detail   string   `json:"detail"`
	Cautions []string `json:"cautions" nullable:"false"`
	Minutes  float64  `json:"minutes" doc:"waiting time that starts with this step, minutes"`
	Ink      string   `json:"ink,omitempty" doc:"ink id"`
	Motif    string   `json:"motif,omitempty"`
	Layer    string   `json:"layer,omitempty"`
	Element  string   `json:"element,omitempty"`
	Done     bool     `json:"done"`
	After    []Need   `json:"after" nullable:"false" doc:"steps that must come before"`

	phase int
}

// Need is a step that must come first, and why.
type Need struct {
	Step string `json:"step"`
	Why  string `json:"why"`
}

// Breach is a step that stands before one it needs.
type Breach struct {
	Step, Needs int // indices in the order
	Why         string
}

// ErrCircle is returned when steps wait for each other.
var ErrCircle = errors.New("these steps wait for each other")

// List collects steps and what must come before what.
type List struct {
	steps []Step
	at    map[string]int
}

// Add appends a step; phase groups steps that like to be done together.
func (l *List) Add(phase int, s Step, after ...Need) {
	if l.at == nil {
		l.at = map[string]int{}
	}
	s.phase = phase
	s.Cautions = append(cautions(s.Kind), s.Cautions...)
	s.After = []Need{}
	for _, n := range after {
		if n.Step != "" {
			s.After = append(s.After, n)
		}
	}
	l.at[s.ID] = len(l.steps)
	l.steps = append(l.steps, s)
}

// Needs adds a precedence between two steps already added; an unknown one is
// passed over.
func (l *List) Needs(step, before, why string) {
	i, ok := l.at[step]
	if _, known := l.at[before]; ok && known && step != before {
		l.steps[i].After = append(l.steps[i].After, Need{before, why})
	}
}

// Steps gives the steps collected so far, in the order they were added.
func (l *List) Steps() []Step { return l.steps }

// Order returns the steps in a valid order. Among steps that are free to be
// done it stays with the ink in hand, then takes the earliest phase, then the
// first added, so that drying goes on while other things are done.
func (l *List) Order() ([]Step, error) {
	n := len(l.steps)
	left := make([]int, n)
	next := make([][]int, n)
	g := simple.NewDirectedGraph()
	for i := range n {
		g.AddNode(simple.Node(i))
	}
	for i, s := range l.steps {
		for _, a := range s.After {
			j, ok := l.at[a.Step]
			if !ok {
				return nil, fmt.Errorf("step %q needs %q, which is not on the list", s.Title, a.Step)
			}
			left[i]++
			next[j] = append(next[j], i)
			if i != j {
				g.SetEdge(simple.Edge{F: simple.Node(j), T: simple.Node(i)})
			}
		}
	}
	if _, err := topo.Sort(g); err != nil {
		var u topo.Unorderable
		var names []string
		if errors.As(err, &u) {
			for _, c := range u[0] {
				names = append(names, l.steps[c.ID()].Title)
			}
		}
		slices.Sort(names)
		return nil, fmt.Errorf("%w: %s", ErrCircle, strings.Join(names, "; "))
	}
	done := make([]bool, n)
	out := make([]Step, 0, n)
	ink := ""
	for len(out) < n {
		best := -1
		for i := range n {
			if done[i] || left[i] > 0 {
				continue
			}
			if best < 0 || l.sooner(i, best, ink) {
				best = i
			}
		}
		done[best] = true
		for _, j := range next[best] {
			left[j]--
		}
		s := l.steps[best]
		if s.Ink != "" {
			ink = s.Ink
		}
		s.Number = len(out) + 1
		out = append(out, s)
	}
	return out, nil
}

func (l *List) sooner(i, j int, ink string) bool {
	a, b := l.steps[i], l.steps[j]
	if a.phase != b.phase {
		return a.phase < b.phase
	}
	if same, other := a.Ink == ink && ink != "", b.Ink == ink && ink != ""; same != other {
		return same
	}
	return i < j
}

// Rearrange puts the steps in the person's own order, as far as it names them;
// the others keep their place after the step they followed. It reports every
// step that now stands before one it needs.
func Rearrange(steps []Step, order []string) ([]Step, []Breach) {
	pos := map[string]int{}
	for i, id := range order {
		pos[id] = i
	}
	named := slices.DeleteFunc(slices.Clone(steps), func(s Step) bool { _, ok := pos[s.ID]; return !ok })
	slices.SortStableFunc(named, func(a, b Step) int { return pos[a.ID] - pos[b.ID] })
	out := make([]Step, 0, len(steps))
	k := 0
	for _, s := range steps {
		if _, ok := pos[s.ID]; ok {
			s = named[k]
			k++
		}
		out = append(out, s)
	}
	at := map[string]int{}
	for i := range out {
		out[i].Number = i + 1
		at[out[i].ID] = i
	}
	var bad []Breach
	for i, s := range out {
		for _, n := range s.After {
			if j := at[n.Step]; j > i {
				bad = append(bad, Breach{i, j, n.Why})
			}
		}
	}
	return out, bad
}

// cautions are the usual ones for a kind of step; the product's label and
// local rules go first.
func cautions(k Kind) []string {
	switch k {
	case HeatStep:
		return []string{"A hot air tool burns skin and warps plastic: keep hands, foam and acetate away. The tool's own label goes first."}
	case CutStep:
		return []string{"Keep fingers clear of blades and of the die machine's rollers; cut away from your hands."}
	case PopStep:
		return []string{"Picks are sharp: push away from your hands. Small die-cut bits are not for children under three."}
	}
	return []string{}
}
