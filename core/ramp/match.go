package ramp

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/colour"
)

// Wish is a slot with the colour it should come near.
type Wish struct {
	Rank    int
	Accent  bool         // left out of the order
	Colours []colour.Lab // dried colours it may take, the same choices for all
	Target  colour.Lab

	byL []choice
}

// Match picks for every wish the choice nearest to its target, keeping the
// order of lightness by at least step from rank to rank, so that the sum of
// differences is least: exact, by dynamic programming over where one rank's
// lightness ends and the next begins. False when no pick keeps the order.
func Match(ws []Wish, order Direction, step float64) ([]int, bool) {
	ws = slices.Clone(ws)
	pick := make([]int, len(ws))
	var ranks []int
	for i, w := range ws {
		if w.Accent || order == Unordered {
			pick[i] = w.nearest(math.Inf(-1), math.Inf(1))
		} else if !slices.Contains(ranks, w.Rank) {
			ranks = append(ranks, w.Rank)
		}
	}
	slices.Sort(ranks)
	if len(ranks) == 0 {
		return pick, true
	}
	if order == LightFirst {
		slices.Reverse(ranks) // work from dark to light
	}
	// The ends a rank's lightness may have: those of the colours themselves.
	var ends []float64
	for _, w := range ws {
		for _, c := range w.Colours {
			ends = append(ends, c.L)
		}
	}
	slices.Sort(ends)
	ends = slices.Compact(ends)
	n := len(ends)
	// cost[e] is the least for all ranks so far with none lighter than ends[e];
	// from remembers where the rank before ended.
	cost := make([]float64, n)
	from := make([][]int, len(ranks))
	for r, rank := range ranks {
		next := make([]float64, n)
		from[r] = make([]int, n)
		for e := range next {
			next[e] = math.Inf(1)
		}
		starts := n
		if r == 0 {
			starts = 1
		}
		for f := range starts {
			lo, had := math.Inf(-1), 0.0
			if r > 0 {
				lo, had = ends[f]+step, cost[f]
			}
			if math.IsInf(had, 1) {
				continue
			}
			for e, c := range rankCosts(ws, rank, lo, ends) {
				if had+c < next[e] {
					next[e], from[r][e] = had+c, f
				}
			}
		}
		cost = next
	}
	end := 0
	for e, c := range cost {
		if c < cost[end] {
			end = e
		}
	}
	if math.IsInf(cost[end], 1) {
		return nil, false
	}
	for r := len(ranks) - 1; r >= 0; r-- {
		lo := math.Inf(-1)
		if r > 0 {
			lo = ends[from[r][end]] + step
		}
		for i, w := range ws {
			if !w.Accent && w.Rank == ranks[r] {
				pick[i] = w.nearest(lo, ends[end])
			}
		}
		end = from[r][end]
	}
	return pick, true
}

// rankCosts is, for every end, the least cost of the wishes of a rank whose
// lightness lies between lo and that end.
func rankCosts(ws []Wish, rank int, lo float64, ends []float64) []float64 {
	out := make([]float64, len(ends))
	for i := range ws {
		w := &ws[i]
		if w.Accent || w.Rank != rank {
			continue
		}
		w.prepare()
		best, x := math.Inf(1), 0
		for ; x < len(w.byL) && w.byL[x].l < lo; x++ {
		}
		for e, end := range ends {
			for ; x < len(w.byL) && w.byL[x].l <= end; x++ {
				best = math.Min(best, w.byL[x].diff)
			}
			out[e] += best
		}
	}
	return out
}

// choice is a colour a wish may take: its lightness and how far off it is.
type choice struct{ l, diff float64 }

// prepare sorts the choices of a wish by lightness, once.
func (w *Wish) prepare() {
	if w.byL != nil {
		return
	}
	for _, c := range w.Colours {
		w.byL = append(w.byL, choice{c.L, colour.Difference(c, w.Target)})
	}
	slices.SortFunc(w.byL, func(a, b choice) int { return cmp.Compare(a.l, b.l) })
}

// nearest is the choice nearest to the target whose lightness lies in the
// range, or -1.
func (w Wish) nearest(lo, hi float64) int {
	best, at := math.Inf(1), -1
	for x, c := range w.Colours {
		if c.L < lo || c.L > hi {
			continue
		}
		if d := colour.Difference(c, w.Target); d < best {
			best, at = d, x
		}
	}
	return at
}
