package work

import (
	"cmp"
	"slices"
)

// Went is a run as it went, beside what was planned.
type Went struct {
	Took    float64     `json:"took" doc:"minutes from the first step ticked to the last"`
	Known   int         `json:"known" doc:"steps whose time is known"`
	Hand    float64     `json:"hand" doc:"minutes that those took"`
	Planned float64     `json:"planned" doc:"minutes planned for them"`
	Kinds   []TookFor   `json:"kinds" nullable:"false" doc:"by what sort of step it was, in the order of the plan"`
	Moved   []OutOfTurn `json:"moved" nullable:"false" doc:"steps done at another turn than planned: the fewest that explain the order"`
}

// TookFor is the time that steps of one sort took.
type TookFor struct {
	Kind    Kind    `json:"kind" enum:"cut,ink,print,mask,heat,pop out,glue,foam,check"`
	Steps   int     `json:"steps" doc:"of which the time is known"`
	Planned float64 `json:"planned" doc:"minutes"`
	Took    float64 `json:"took" doc:"minutes"`
}

// OutOfTurn is a step that was done at another turn than planned.
type OutOfTurn struct {
	Step  string `json:"step" doc:"its title"`
	After string `json:"after,omitempty" doc:"title of the step that was done just before it; none where it was the first"`
	Was   string `json:"was,omitempty" doc:"title of the step it was planned to follow; none where it was to be the first"`
}

// Account puts the ticks of a run beside the acts that were planned, each planned to take so
// many minutes of work. A step takes the time since the tick before it; what is longer than
// a step can take (as in Learn) had a pause in it, and what is ticked together with others has
// no time of its own: of those nobody knows how long they took. Ticks of steps that are not in
// the plan are passed over.
func Account(acts []Act, minutes []float64, done []Ticked) Went {
	out := Went{Kinds: []TookFor{}, Moved: []OutOfTurn{}}
	done = slices.Clone(done)
	slices.SortStableFunc(done, func(a, b Ticked) int { return cmp.Compare(a.At, b.At) })
	var turns []int
	for i, t := range done {
		at := slices.IndexFunc(acts, func(a Act) bool { return a.ID == t.Step })
		if at < 0 {
			continue
		}
		turns = append(turns, at)
		if i == 0 {
			continue
		}
		gap := t.At - done[i-1].At
		least, most := minutes[at]*rush, minutes[at]*pauseOver
		if gap < least || gap > most || most == 0 {
			continue
		}
		k := acts[at].Kind
		j := slices.IndexFunc(out.Kinds, func(x TookFor) bool { return x.Kind == k })
		if j < 0 {
			j = len(out.Kinds)
			out.Kinds = append(out.Kinds, TookFor{Kind: k})
		}
		out.Kinds[j].Steps++
		out.Kinds[j].Planned += minutes[at]
		out.Kinds[j].Took += gap
		out.Hand += gap
		out.Planned += minutes[at]
		out.Known++
	}
	if len(done) > 0 {
		out.Took = done[len(done)-1].At - done[0].At
	}
	first := func(k Kind) int { return slices.IndexFunc(acts, func(a Act) bool { return a.Kind == k }) }
	slices.SortFunc(out.Kinds, func(a, b TookFor) int { return first(a.Kind) - first(b.Kind) })
	kept := rising(turns)
	planned := slices.Sorted(slices.Values(turns))
	for i, at := range turns {
		if kept[i] {
			continue
		}
		s := OutOfTurn{Step: acts[at].Title}
		if i > 0 {
			s.After = acts[turns[i-1]].Title
		}
		if p, _ := slices.BinarySearch(planned, at); p > 0 {
			s.Was = acts[planned[p-1]].Title
		}
		out.Moved = append(out.Moved, s)
	}
	return out
}

// rising marks the longest run of numbers that rise, by patience sorting (Fredman, 1975): the
// others are the fewest that have to be moved for all to rise.
func rising(turns []int) []bool {
	before := make([]int, len(turns))
	var tops []int // by length: where the run of that length ends lowest
	for i, t := range turns {
		n, _ := slices.BinarySearchFunc(tops, t, func(at, t int) int { return cmp.Compare(turns[at], t) })
		before[i] = -1
		if n > 0 {
			before[i] = tops[n-1]
		}
		if n == len(tops) {
			tops = append(tops, i)
		} else {
			tops[n] = i
		}
	}
	out := make([]bool, len(turns))
	if len(tops) > 0 {
		for i := tops[len(tops)-1]; i >= 0; i = before[i] {
			out[i] = true
		}
	}
	return out
}

// Against is how long the steps of a run took against usual times: 1 as usual, 2 twice as long;
// the median of its steps, so that one with a short pause in it does not tell. It gives from how
// many steps that is known; 0 with none. What counts is as in Learn.
func Against(run []Ticked) (factor float64, from int) {
	var all []float64
	for _, p := range paced(run) {
		all = append(all, p.minutes/usual[p.kind])
	}
	if len(all) == 0 {
		return 0, 0
	}
	return middle(all), len(all)
}
