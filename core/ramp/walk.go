package ramp

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/colour"
)

type candidate struct {
	x    int
	hue  float64
	lab  colour.Lab
	lin  colour.Linear
	cost float64
}

// walk colours the k-th slot of the order. gapLo and gapHi are the smallest
// and greatest lightness steps so far, hue the hue distance so far.
func (s *search) walk(k int, gapLo, gapHi, hue float64) {
	if s.nodes++; s.nodes&1023 == 0 && s.stopped() {
		return
	}
	if k == len(s.order) {
		s.leaf(hue)
		return
	}
	i := s.order[k]
	for _, c := range s.candidates(i, gapLo, gapHi, hue) {
		if !s.goal.hue && s.found {
			return
		}
		if s.goal.hue && s.found && s.p.hueSteps(hue+c.cost, len(s.flat)-1) >= s.bestHue {
			continue
		}
		lo, hi, ok := s.gaps(i, c.lab, gapLo, gapHi)
		if !ok || !s.apart(i, k, c) {
			continue
		}
		s.pick[i], s.cur[i], s.curLin[i] = c.x, c.lab, c.lin
		s.walk(k+1, lo, hi, hue+c.hue)
		if s.nodes&1023 == 0 && s.stopped() {
			return
		}
	}
}

// candidates lists what slot i may take now, likeliest first.
func (s *search) candidates(i int, gapLo, gapHi, hue float64) []candidate {
	sl := s.p.Slots[i]
	out := make([]candidate, 0, 32)
	prev := s.prev[i]
	hasPrev := prev >= 0 && s.at[prev] < s.at[i]
	for n := range s.reachable(i, gapLo, gapHi) {
		c := candidate{x: n}
		if s.lab[i] != nil {
			c.x = s.window[n]
			c.lab, c.lin = s.lab[i][c.x], s.lin[i][c.x]
		} else {
			opt := s.p.Options[sl.Options[n]]
			c.lin = opt.On(s.curLin[sl.On], s.p.bare(i, func(j int) int { return s.p.Slots[j].Options[s.pick[j]] }))
			c.lab = c.lin.Lab()
		}
		if s.group[i] >= 0 {
			if _, _, ok := s.gaps(i, c.lab, gapLo, gapHi); !ok {
				continue
			}
			if hasPrev {
				c.hue = hueDistance(s.cur[prev], c.lab)
			}
			c.cost = c.hue
			// What is still to come may only be counted when the next ranks are
			// coloured after this one and nothing between is already spent.
			if s.step && s.rest[i] != nil {
				if c.cost += s.rest[i][c.x]; math.IsInf(c.cost, 1) {
					continue
				}
			}
			if s.goal.hue && s.found && s.p.hueSteps(hue+c.cost, len(s.flat)-1) >= s.bestHue {
				continue
			}
		}
		out = append(out, c)
	}
	slices.SortStableFunc(out, func(a, b candidate) int { return cmp.Compare(a.cost, b.cost) })
	return out
}

// reachable counts the options of slot i worth a look and, for a static slot,
// leaves them in s.window: those whose depth keeps every step to the rank
// before inside the window of the goal.
func (s *search) reachable(i int, gapLo, gapHi float64) int {
	if s.lab[i] == nil {
		return len(s.p.Slots[i].Options)
	}
	s.window = s.byDepth[i]
	g := s.group[i]
	if g <= 0 || !s.step || s.p.Order == Unordered {
		return len(s.window)
	}
	lo, hi := math.Inf(-1), math.Inf(1)
	for _, j := range s.groups[g-1] {
		lo = math.Max(lo, s.depth(s.cur[j]))
	}
	if len(s.groups[g-1]) == 1 && len(s.groups[g]) == 1 {
		hi = lo + math.Min(s.goal.most, gapLo+s.goal.uneven)
	}
	s.window = s.between(i, lo+math.Max(s.goal.least, gapHi-s.goal.uneven), hi)
	return len(s.window)
}

// gaps updates the range of lightness steps with a colour for slot i and
// reports whether order and evenness can still hold.
func (s *search) gaps(i int, c colour.Lab, lo, hi float64) (float64, float64, bool) {
	g := s.group[i]
	if g < 0 || s.p.Order == Unordered {
		return lo, hi, true
	}
	k := s.at[i]
	if g > 0 {
		gap := math.Inf(1)
		all := true
		for _, j := range s.groups[g-1] {
			if s.at[j] > k {
				all = false
				continue
			}
			for _, m := range s.groups[g] {
				if m != i && s.at[m] > k {
					all = false
					continue
				}
				b := s.cur[m]
				if m == i {
					b = c
				}
				gap = math.Min(gap, s.p.drop(s.cur[j], b))
			}
		}
		if gap < s.p.Step {
			return lo, hi, false
		}
		if all && !math.IsInf(gap, 1) {
			lo, hi = math.Min(lo, gap), math.Max(hi, gap)
		}
	}
	if g+1 < len(s.groups) {
		for _, j := range s.groups[g+1] {
			if s.at[j] < k && s.p.drop(c, s.cur[j]) < s.p.Step {
				return lo, hi, false
			}
		}
		if !s.step {
			return lo, hi, true
		}
	}
	return lo, hi, !(hi-lo >= s.goal.uneven)
}

// apart reports whether the colour stands off every touching slot already
// coloured, and whether the whole can still differ visibly from the answers
// had.
func (s *search) apart(i, k int, c candidate) bool {
	for _, j := range s.touch[i] {
		var d float64
		if s.lab[i] != nil && s.lab[j] != nil {
			d = s.diff(i, c.x, j, s.pick[j])
		} else {
			d = colour.Difference(c.lab, s.cur[j])
		}
		if s.p.quanta(d) < s.goal.diff {
			return false
		}
	}
	for n := range s.prior {
		sum := s.farMax[n][k+1]
		for m := 0; m <= k; m++ {
			j := s.order[m]
			x, lab := s.pick[j], s.cur[j]
			if j == i {
				x, lab = c.x, c.lab
			}
			if f := s.far[n][j]; f != nil {
				sum += f[x] * s.weights[j]
			} else {
				sum += colour.Difference(lab, s.prior[n][j]) * s.weights[j]
			}
		}
		if sum/s.weight < s.p.Visible {
			return false
		}
	}
	return true
}

func (s *search) leaf(hue float64) {
	pick := make([]int, len(s.pick))
	for i, x := range s.pick {
		pick[i] = s.p.Slots[i].Options[x]
	}
	if !s.step {
		// Steps and hue were not known on the way: judge the whole.
		sc, ok := s.p.Judge(s.cur)
		if !ok || float64(sc.Uneven) >= s.goal.uneven/s.p.EvenBy || s.goal.hue && s.found && sc.Hue >= s.bestHue {
			return
		}
		s.found, s.bestHue, s.bestPick = true, sc.Hue, pick
		return
	}
	h := s.p.hueSteps(hue, len(s.flat)-1)
	if s.found && h >= s.bestHue {
		return
	}
	s.found, s.bestHue, s.bestPick = true, h, pick
}
