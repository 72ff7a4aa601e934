package cut

import (
	"cmp"
	"context"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/kit"
	"ochrestone/core/look"
)

// Our own defaults, mm.
const (
	plateGap  = 4.0  // between dies on a plate: their rims do not touch
	smallDie  = 12.0 // a die smaller than this each way is held with tape and lifted with tweezers
	usualCard = 0.6  // what a machine cuts in one run where nobody knows
)

// Pass is one sort of run through the machine: dies that lie on its plate together, each on
// its own card.
type Pass struct {
	Dies  []string `json:"dies" nullable:"false"`
	Times int      `json:"times" doc:"how often it is run"`
	Back  bool     `json:"back,omitempty" doc:"there and back: the card is thicker than it cuts in one run"`
	Small []string `json:"small" nullable:"false" doc:"dies so small that they are taped down and lifted with tweezers"`
	Over  bool     `json:"over,omitempty" doc:"the die is larger than the plate"`
}

// die is a die with how often it cuts.
type die struct {
	want Want
	n    int
	card float64
}

// Passes lists the runs through a machine that a plan's die-cut pieces take: each die is
// there once, so a piece cut n times takes n runs; dies that go on the plate together run
// together, those that run equally often with each other. The least there can be is as often
// as the die that cuts most. It gives nothing where nothing is cut by a die.
func Passes(ctx context.Context, p Plan, s look.Stock, m kit.Machine) []Pass {
	var dies []die
	for _, st := range p.Stocks {
		for _, w := range st.Wants {
			if w.By == string(build.Die) {
				dies = append(dies, die{w, w.N, s.Caliper(st.Stock)})
			}
		}
	}
	slices.SortStableFunc(dies, func(a, b die) int { return cmp.Compare(b.n, a.n) })
	most := m.Most
	if most <= 0 {
		most = usualCard
	}
	out := []Pass{}
	var parts []Part
	var on []int
	for i, d := range dies {
		fits := func(w, h float64) bool { return d.want.W+plateGap <= w && d.want.H+plateGap <= h }
		if !fits(m.W, m.H) && !fits(m.H, m.W) {
			out = append(out, Pass{Dies: []string{d.want.Name}, Times: d.n, Back: d.card > most, Small: []string{}, Over: true})
			continue
		}
		parts, on = append(parts, Part{Outline: d.want.cut.Outline, Turns: []float64{0, 90, 180, 270}, Gap: plateGap}), append(on, i)
	}
	bins := make([]Bin, len(parts))
	for i := range bins {
		bins[i] = Bin{m.W, m.H, 1}
	}
	plates := make([]Pass, len(parts))
	// As often as they cut, so that dies of one plate run equally often.
	for k, bin := range inOrder(ctx, parts, bins) {
		if bin < 0 {
			continue
		}
		d, pl := dies[on[k]], &plates[bin]
		pl.Dies = append(pl.Dies, d.want.Name)
		pl.Times = max(pl.Times, d.n)
		pl.Back = pl.Back || d.card > most
		if max(d.want.W, d.want.H) < smallDie {
			pl.Small = append(pl.Small, d.want.Name)
		}
	}
	for _, pl := range plates {
		if pl.Times > 0 {
			if pl.Small == nil {
				pl.Small = []string{}
			}
			out = append(out, pl)
		}
	}
	return out
}

// inOrder lays parts one after the other as given and tells the bin of each.
func inOrder(ctx context.Context, parts []Part, bins []Bin) []int {
	n := nesting{bins: bins, cut: map[int][]*stencil{}}
	order, kind := make([]int, len(parts)), make([]int, len(parts))
	for i, p := range parts {
		n.cut[i], order[i], kind[i] = stencils(p), i, i
	}
	laid, _ := n.lay(ctx, order, kind, true)
	out := make([]int, len(parts))
	for i, l := range laid {
		out[i] = l.Bin
	}
	return out
}

// Runs is how often all passes are run in all, there and back as two.
func Runs(ps []Pass) (n int) {
	for _, p := range ps {
		k := p.Times
		if p.Back {
			k *= 2
		}
		n += k
	}
	return n
}
