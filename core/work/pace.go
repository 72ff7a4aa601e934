package work

import (
	"cmp"
	"slices"

	"ochrestone/core/card"
)

// usual is how long an act takes on one card once all is at hand, minutes: our own defaults.
var usual = map[Kind]float64{CutAct: 1.5, InkAct: 2, PrintAct: 0.7, MaskAct: 1.5, HeatAct: 0.8, PopAct: 1, GlueAct: 1, FoamAct: 1.5, CheckAct: 2}

// Pace is how long a person takes for acts, minutes a card, by their kind; kinds that are
// not in it take the usual time.
type Pace map[Kind]float64

func (p Pace) each(k Kind) float64 {
	if m, ok := p[k]; ok {
		return m
	}
	return usual[k]
}

// Ticked is an act that was ticked at a time, minutes from any beginning.
type Ticked struct {
	Step  card.Step
	Kind  Kind
	Cards int // on how many it was done
	At    float64
}

// What is taken for a pause and not for work, and from how many acts a time of one's own
// is taken: our own defaults.
const (
	pauseOver   = 6.0 // times the usual time
	rush        = 0.1 // of the usual time: ticked afterwards, several at once
	fewestPaced = 5
)

// Learn gathers how long a person takes from the times at which acts were ticked, each list
// of one run: the median, by the kind of act, of the minutes between two ticks a card. What
// took far longer was a pause, what took next to nothing was ticked afterwards; neither
// counts. Kinds of which too few are known are left out. It also gives how many acts it is
// taken from.
func Learn(runs ...[]Ticked) (own Pace, from int) {
	took := map[Kind][]float64{}
	for _, run := range runs {
		for _, p := range paced(run) {
			took[p.kind] = append(took[p.kind], p.minutes)
		}
	}
	own = Pace{}
	for k, all := range took {
		if len(all) < fewestPaced {
			continue
		}
		own[k] = middle(all)
		from += len(all)
	}
	return own, from
}

// timed is how long an act took on one card.
type timed struct {
	kind    Kind
	minutes float64
}

// paced are the acts of a run whose time is known: neither paused in nor ticked afterwards.
func paced(run []Ticked) (out []timed) {
	run = slices.Clone(run)
	slices.SortStableFunc(run, func(a, b Ticked) int { return cmp.Compare(a.At, b.At) })
	for i := 1; i < len(run); i++ {
		t := run[i]
		m := (t.At - run[i-1].At) / float64(max(1, t.Cards))
		if u := usual[t.Kind]; u > 0 && m >= rush*u && m <= pauseOver*u {
			out = append(out, timed{t.Kind, m})
		}
	}
	return out
}

// middle is the median of some numbers.
func middle(all []float64) float64 {
	slices.Sort(all)
	return (all[(len(all)-1)/2] + all[len(all)/2]) / 2
}
