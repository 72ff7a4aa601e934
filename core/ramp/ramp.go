// Package ramp chooses an owned ink for every layer of an image so that each
// layer reads, in the order of lightness the school asks for.
//
// The answer is exact: no assignment that keeps the rules has a better Score.
// A score compares first the smallest CIEDE2000 difference over touching
// pairs (in steps of Quantum, and no better than Enough, past which more only
// jars), then the evenness of the lightness steps, then closeness in hue.
package ramp

import (
	"context"
	"errors"
	"fmt"
	"math"

	"ochrestone/core/colour"
)

// Direction is the order of lightness over the tone ranks.
type Direction int

// Directions of lightness.
const (
	Unordered Direction = iota
	LightFirst
	DarkFirst
)

// Option is one way to colour a slot: an ink struck so many times, or nothing.
type Option struct {
	Film        colour.Film
	Impressions int // 0 leaves what is beneath
	// Seen is the dried colour as measured on bare papers, by the paper's id; it
	// goes before what the film foretells.
	Seen map[string]colour.Linear
	Bare string // paper it shows bare, for a card that is cut plain
	Over bool   // leaves a paper that is no longer bare though Impressions is 0
}

// Slot is one layer to be coloured.
type Slot struct {
	Rank    int           // tone rank; equal ranks are not ordered among themselves
	Accent  bool          // left out of the order
	Under   colour.Linear // what it is inked on, when On is negative
	Paper   string        // id of the bare paper that is, when On is negative
	On      int           // slot whose dried colour it is inked on, or -1
	Options []int         // indices of Problem.Options it may take; one for a fixed pick
	Weight  float64       // shown area, for judging which answers differ visibly
}

// Pair is two touching slots.
type Pair struct{ A, B int }

// Problem is a whole image to be coloured.
type Problem struct {
	Slots   []Slot
	Options []Option
	Touch   []Pair
	Order   Direction

	Step    float64 // least drop of L* from one rank to the next
	Enough  float64 // difference past which more is no better, CIEDE2000
	Quantum float64 // differences closer than this count as equal
	EvenBy  float64 // unevenness closer than this, in L*, counts as equal
	HueBy   float64 // hue distance closer than this counts as equal
	Visible float64 // weighted mean CIEDE2000 by which answers must differ
	Spare   int     // answers past those asked for, taken as far as they come easily
}

// Defaults fills the numbers a person has not set: our own defaults.
func (p Problem) Defaults() Problem {
	set := func(v *float64, d float64) {
		if *v == 0 {
			*v = d
		}
	}
	set(&p.Step, 4)
	set(&p.Enough, 12)
	set(&p.Quantum, 0.5)
	set(&p.EvenBy, 4)
	set(&p.HueBy, 2)
	set(&p.Visible, 11)
	return p
}

// Score ranks assignments: greater Diff, then smaller Uneven, then smaller
// Hue, all in whole steps.
type Score struct {
	Diff   int // smallest touching difference in quanta, at most Enough
	Uneven int // greatest less smallest lightness step, in EvenBy
	Hue    int // mean hue distance of neighbours in rank, in HueBy
}

// Better reports whether s beats t.
func (s Score) Better(t Score) bool {
	if s.Diff != t.Diff {
		return s.Diff > t.Diff
	}
	if s.Uneven != t.Uneven {
		return s.Uneven < t.Uneven
	}
	return s.Hue < t.Hue
}

// Answer is one colouring.
type Answer struct {
	Pick    []int // option index per slot
	Colours []colour.Lab
	Score   Score
	Weakest int     // index into Touch, or -1 without touching pairs
	Diff    float64 // CIEDE2000 of the weakest pair
}

// Errors that say why there is no answer.
var (
	ErrNoOptions = errors.New("no ink may be used for a layer")
	ErrNoAnswer  = errors.New("no choice of these inks keeps the order of lightness")
	ErrCycle     = errors.New("layers are inked on each other in a circle")
)

// Colours returns the dried colour of every slot under an assignment.
func (p *Problem) Colours(pick []int) ([]colour.Lab, error) {
	order, err := p.carrierOrder()
	if err != nil {
		return nil, err
	}
	pickOf := func(s int) int { return pick[s] }
	lin := make([]colour.Linear, len(p.Slots))
	lab := make([]colour.Lab, len(p.Slots))
	for _, s := range order {
		under := p.Slots[s].Under
		if on := p.Slots[s].On; on >= 0 {
			under = lin[on]
		}
		lin[s] = p.Options[pick[s]].On(under, p.bare(s, pickOf))
		lab[s] = lin[s].Lab()
	}
	return lab, nil
}

// On is the dried colour of the option on what is beneath; paper is the id of the
// card when that is bare, else empty.
func (o Option) On(under colour.Linear, paper string) colour.Linear {
	if c, ok := o.Seen[paper]; ok && paper != "" {
		return c
	}
	return o.Film.Over(under, o.Impressions)
}

// bare is the id of the bare paper a slot is inked on, or empty: that of the slot
// itself, or what the slots that carry it leave bare under the options picked.
func (p *Problem) bare(slot int, pick func(int) int) string {
	for p.Slots[slot].On >= 0 {
		slot = p.Slots[slot].On
		o := p.Options[pick(slot)]
		if o.Bare != "" || o.Impressions > 0 || o.Over {
			return o.Bare
		}
	}
	return p.Slots[slot].Paper
}

// Judge scores an assignment and reports whether it keeps the order.
func (p *Problem) Judge(lab []colour.Lab) (Score, bool) {
	d, _ := p.weakest(lab)
	s := Score{Diff: p.quanta(d)}
	groups := p.groups()
	gaps := make([]float64, 0, len(groups))
	for g := 0; g+1 < len(groups); g++ {
		gap := math.Inf(1)
		for _, a := range groups[g] {
			for _, b := range groups[g+1] {
				gap = math.Min(gap, p.drop(lab[a], lab[b]))
			}
		}
		if p.Order != Unordered && gap < p.Step {
			return Score{}, false
		}
		gaps = append(gaps, gap)
	}
	if p.Order != Unordered {
		s.Uneven = p.unevenness(gaps)
	}
	var hue float64
	n := 0
	flat := flatten(groups)
	for i := 0; i+1 < len(flat); i++ {
		hue += hueDistance(lab[flat[i]], lab[flat[i+1]])
		n++
	}
	s.Hue = p.hueSteps(hue, n)
	return s, true
}

func (p *Problem) hueSteps(sum float64, n int) int {
	if n == 0 {
		return 0
	}
	return int(sum/float64(n)/p.HueBy + 1e-9)
}

func (p *Problem) unevenness(gaps []float64) int {
	if len(gaps) < 2 {
		return 0
	}
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, g := range gaps {
		lo, hi = math.Min(lo, g), math.Max(hi, g)
	}
	return int((hi - lo) / p.EvenBy)
}

// drop is how far b lies past a in the wanted direction of lightness.
func (p *Problem) drop(a, b colour.Lab) float64 {
	if p.Order == DarkFirst {
		return b.L - a.L
	}
	return a.L - b.L
}

func (p *Problem) quanta(d float64) int {
	return int(math.Min(d, p.Enough)/p.Quantum + 1e-9)
}

// weakest is the smallest difference over touching pairs and its index.
func (p *Problem) weakest(lab []colour.Lab) (float64, int) {
	best, at := math.Inf(1), -1
	for i, t := range p.Touch {
		if d := colour.Difference(lab[t.A], lab[t.B]); d < best {
			best, at = d, i
		}
	}
	return best, at
}

func hueDistance(a, b colour.Lab) float64 {
	u, v := a.HueVector(), b.HueVector()
	return math.Hypot(u[0]-v[0], u[1]-v[1])
}

// groups lists the ordered slots by rising rank.
func (p *Problem) groups() [][]int {
	byRank := map[int][]int{}
	lo, hi := math.MaxInt, math.MinInt
	for i, s := range p.Slots {
		if !s.Accent {
			byRank[s.Rank] = append(byRank[s.Rank], i)
			lo, hi = min(lo, s.Rank), max(hi, s.Rank)
		}
	}
	var out [][]int
	for r := lo; r <= hi; r++ {
		if g := byRank[r]; len(g) > 0 {
			out = append(out, g)
		}
	}
	return out
}

func flatten(gs [][]int) []int {
	var out []int
	for _, g := range gs {
		out = append(out, g...)
	}
	return out
}

// carrierOrder lists the slots so that each follows the one it is inked on.
func (p *Problem) carrierOrder() ([]int, error) {
	out := make([]int, 0, len(p.Slots))
	state := make([]int, len(p.Slots))
	var visit func(i int) error
	visit = func(i int) error {
		switch state[i] {
		case 1:
			return ErrCycle
		case 2:
			return nil
		}
		state[i] = 1
		if on := p.Slots[i].On; on >= 0 {
			if err := visit(on); err != nil {
				return err
			}
		}
		state[i] = 2
		out = append(out, i)
		return nil
	}
	for i := range p.Slots {
		if err := visit(i); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// spareNodes bounds the search for each answer past those asked for.
const spareNodes = 4000

// Solve returns the best answers, best first, at most k, each differing
// visibly from those before it, and up to Spare more. It stops early with the context's error.
func Solve(ctx context.Context, p Problem, k int) ([]Answer, error) {
	p = p.Defaults()
	if len(p.Slots) == 0 || k < 1 {
		return nil, nil
	}
	for i, s := range p.Slots {
		if len(s.Options) == 0 {
			return nil, fmt.Errorf("layer %d: %w", i+1, ErrNoOptions)
		}
	}
	s, err := newSearch(ctx, &p)
	if err != nil {
		return nil, fmt.Errorf("set up the search: %w", err)
	}
	var out []Answer
	for len(out) < k+p.Spare {
		if len(out) >= k {
			s.nodes, s.limit = 0, spareNodes
		}
		pick, ok := s.best(out)
		if s.limit > 0 && s.nodes > s.limit {
			break
		}
		if err := ctx.Err(); err != nil {
			return out, fmt.Errorf("search for inks: %w", err)
		}
		if !ok {
			break
		}
		lab, err := p.Colours(pick)
		if err != nil {
			return nil, err
		}
		a := Answer{Pick: pick, Colours: lab}
		a.Score, _ = p.Judge(lab)
		a.Diff, a.Weakest = p.weakest(lab)
		out = append(out, a)
	}
	if len(out) == 0 {
		return nil, ErrNoAnswer
	}
	return out, nil
}

// Apart is the weighted mean difference between two colourings.
func (p *Problem) Apart(a, b []colour.Lab) float64 {
	var sum, w float64
	for i, s := range p.Slots {
		k := max(s.Weight, 1e-6)
		sum, w = sum+k*colour.Difference(a[i], b[i]), w+k
	}
	return sum / w
}
