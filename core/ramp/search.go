package ramp

import (
	"cmp"
	"context"
	"math"
	"slices"

	"ochrestone/core/colour"
)

// search walks the slots one after another and gives each every option that
// can still lead to a better score, in three passes: the greatest smallest
// difference that can be had at all, then the least unevenness at that
// difference, then the least hue distance at both.
type search struct {
	ctx   context.Context
	p     *Problem
	order []int // slots in the order they are coloured
	at    []int // position in order of each slot
	fixed []bool

	// Per slot, for slots whose colour does not hang on another slot's choice.
	lab [][]colour.Lab // by position in Options
	lin [][]colour.Linear
	hue [][][2]float64

	pal   []int // palette of each static slot: slots with equal colours share one
	diffs map[[2]int][]float64

	touch  [][]int // earlier slots, in order, that each slot touches
	prev   []int   // ordered slot before this one in rank, or -1
	group  []int   // rank group of each slot, -1 for accents
	groups [][]int
	flat   []int
	step   bool // the walk runs through the ranks in order, so steps can be judged on the way
	rest   []restBound

	byDepth [][]int     // options of static slots by depth
	depths  [][]float64 // and their depths

	// The walk.
	goal     goal
	pick     []int
	cur      []colour.Lab
	curLin   []colour.Linear
	bestPick []int
	found    bool
	bestHue  int
	prior    [][]colour.Lab
	far      [][][]float64 // per prior, per slot, per option: difference; nil for slots not static
	farMax   [][]float64
	weights  []float64
	weight   float64
	nodes    int
	limit    int   // of nodes for one answer; 0 for none
	window   []int // options of the slot being coloured that are worth a look

	known map[boundsKey][]restBound // bounds worked out before
}

// stopped reports whether the search is to end, done or not.
func (s *search) stopped() bool {
	return s.ctx.Err() != nil || s.limit > 0 && s.nodes > s.limit
}

// goal is what the walk is after.
type goal struct {
	diff   int     // touching pairs must differ by this many quanta
	uneven float64 // steps may differ by less than this
	hue    bool    // minimise hue distance; otherwise stop at the first answer

	// The window of lightness steps under search: every step of the answers
	// sought lies in it, which tightens the bounds a great deal.
	least, most float64
}

// restBound is, per option of a slot, the least hue distance still to come
// and whether the ranks after it can be reached at all.
type restBound []float64

func newSearch(ctx context.Context, p *Problem) (*search, error) {
	order, err := p.carrierOrder()
	if err != nil {
		return nil, err
	}
	n := len(p.Slots)
	s := &search{ctx: ctx, p: p, diffs: map[[2]int][]float64{}, at: make([]int, n), fixed: make([]bool, n),
		lab: make([][]colour.Lab, n), lin: make([][]colour.Linear, n), hue: make([][][2]float64, n),
		pal: make([]int, n), touch: make([][]int, n), prev: make([]int, n), group: make([]int, n),
		pick: make([]int, n), cur: make([]colour.Lab, n), curLin: make([]colour.Linear, n)}
	s.groups = p.groups()
	s.flat = flatten(s.groups)
	for i := range s.group {
		s.group[i], s.prev[i] = -1, -1
	}
	for g, slots := range s.groups {
		for _, i := range slots {
			s.group[i] = g
		}
	}
	for k := 1; k < len(s.flat); k++ {
		s.prev[s.flat[k]] = s.flat[k-1]
	}
	s.order = s.walkOrder(order)
	for k, i := range s.order {
		s.at[i] = k
	}
	s.step = s.inRankOrder()
	for _, t := range p.Touch {
		a, b := t.A, t.B
		if s.at[a] > s.at[b] {
			a, b = b, a
		}
		s.touch[b] = append(s.touch[b], a)
	}
	for _, i := range order {
		s.colourSlot(i)
	}
	s.sortByDepth()
	s.weights = make([]float64, n)
	for i, sl := range p.Slots {
		s.weights[i] = max(sl.Weight, 1e-6)
		s.weight += s.weights[i]
	}
	return s, nil
}

// walkOrder puts single-option slots first where they can go, then rank order,
// each slot after its carrier.
func (s *search) walkOrder(carriers []int) []int {
	key := func(i int) int {
		switch {
		case len(s.p.Slots[i].Options) == 1 && s.group[i] < 0:
			return -1
		case s.group[i] < 0:
			return 1 << 20
		}
		return slices.Index(s.flat, i)
	}
	var out []int
	done := make([]bool, len(carriers))
	for len(out) < len(carriers) {
		best := -1
		for _, i := range carriers {
			on := s.p.Slots[i].On
			if done[i] || on >= 0 && !done[on] {
				continue
			}
			if best < 0 || key(i) < key(best) {
				best = i
			}
		}
		done[best] = true
		out = append(out, best)
	}
	return out
}

func (s *search) inRankOrder() bool {
	last := -1
	for _, i := range s.order {
		if s.group[i] < 0 {
			continue
		}
		k := slices.Index(s.flat, i)
		if k < last {
			return false
		}
		last = k
	}
	return true
}

// colourSlot precomputes the colours of a slot that does not depend on the
// choice made for another.
func (s *search) colourSlot(i int) {
	sl := s.p.Slots[i]
	under := sl.Under
	s.pal[i] = -1
	if sl.On >= 0 {
		if len(s.lin[sl.On]) != 1 {
			return
		}
		under = s.lin[sl.On][0]
	}
	paper := s.p.bare(i, func(j int) int { return s.p.Slots[j].Options[0] }) // what carries it has but one
	for j, q := range s.p.Slots {
		if j != i && len(s.lab[j]) > 0 && s.pal[j] >= 0 && q.On < 0 && sl.On < 0 && q.Under == under && q.Paper == sl.Paper && slices.Equal(q.Options, sl.Options) {
			s.pal[i], s.lab[i], s.lin[i], s.hue[i] = s.pal[j], s.lab[j], s.lin[j], s.hue[j]
			return
		}
	}
	s.pal[i] = i
	s.lab[i] = make([]colour.Lab, len(sl.Options))
	s.lin[i] = make([]colour.Linear, len(sl.Options))
	s.hue[i] = make([][2]float64, len(sl.Options))
	for k, o := range sl.Options {
		opt := s.p.Options[o]
		s.lin[i][k] = opt.On(under, paper)
		s.lab[i][k] = s.lin[i][k].Lab()
		s.hue[i][k] = s.lab[i][k].HueVector()
	}
}

// depth is the lightness of a colour counted in the wanted direction: it grows
// from rank to rank.
func (s *search) depth(c colour.Lab) float64 {
	if s.p.Order == DarkFirst {
		return c.L
	}
	return -c.L
}

// sortByDepth lists the options of every static slot by depth.
func (s *search) sortByDepth() {
	s.byDepth = make([][]int, len(s.p.Slots))
	s.depths = make([][]float64, len(s.p.Slots))
	for i, labs := range s.lab {
		if labs == nil {
			continue
		}
		idx := make([]int, len(labs))
		for x := range idx {
			idx[x] = x
		}
		slices.SortStableFunc(idx, func(x, y int) int { return cmp.Compare(s.depth(labs[x]), s.depth(labs[y])) })
		s.byDepth[i] = idx
		s.depths[i] = make([]float64, len(idx))
		for k, x := range idx {
			s.depths[i][k] = s.depth(labs[x])
		}
	}
}

// between lists the options of a static slot whose depth lies in [lo, hi].
func (s *search) between(i int, lo, hi float64) []int {
	a, _ := slices.BinarySearch(s.depths[i], lo-1e-9)
	b, _ := slices.BinarySearch(s.depths[i], hi+1e-9)
	if b < a {
		return nil
	}
	return s.byDepth[i][a:b]
}

// bounds works backwards through the ranks: for each option the least hue
// distance of any continuation that keeps the goal between neighbours in
// rank, infinite when there is none. Slots whose colour is not known
// beforehand cut the chain. What is worked out for a goal is kept: the answers
// had before do not change it.
func (s *search) bounds() {
	key := boundsKey{s.goal.diff, s.goal.least, s.goal.most}
	if have, ok := s.known[key]; ok {
		s.rest = have
		return
	}
	s.rest = make([]restBound, len(s.p.Slots))
	for k := len(s.flat) - 1; k >= 0; k-- {
		i := s.flat[k]
		if s.lab[i] == nil {
			continue
		}
		s.rest[i] = make(restBound, len(s.lab[i]))
		if k+1 < len(s.flat) && s.lab[s.flat[k+1]] != nil {
			s.boundsOf(i, s.flat[k+1])
		}
	}
	if s.known == nil {
		s.known = map[boundsKey][]restBound{}
	}
	if len(s.known) < mostKnown {
		s.known[key] = s.rest
	}
}

// boundsKey is all of a goal that bounds depend on.
type boundsKey struct {
	diff        int
	least, most float64
}

// mostKnown bounds how many goals are remembered.
const mostKnown = 2000

// boundsOf fills the bounds of slot i from those of j, the next in rank.
func (s *search) boundsOf(i, j int) {
	b := s.rest[i]
	ordered := s.p.Order != Unordered && s.group[i] != s.group[j]
	single := len(s.groups[s.group[i]]) == 1 && len(s.groups[s.group[j]]) == 1
	touching := slices.Contains(s.touch[j], i) || slices.Contains(s.touch[i], j)
	rest := s.rest[j]
	for x := range b {
		b[x] = math.Inf(1)
		next := s.byDepth[j]
		if ordered {
			d, hi := s.depth(s.lab[i][x]), math.Inf(1)
			if single {
				hi = d + s.goal.most
			}
			next = s.between(j, d+s.goal.least, hi)
		}
		u := s.hue[i][x]
		for _, y := range next {
			if rest[y] >= b[x] {
				continue
			}
			v := s.hue[j][y]
			dx, dy := u[0]-v[0], u[1]-v[1]
			c := math.Sqrt(dx*dx+dy*dy) + rest[y]
			if c >= b[x] || touching && s.p.quanta(s.diff(i, x, j, y)) < s.goal.diff {
				continue
			}
			b[x] = c
		}
	}
}

// best finds the best assignment that differs visibly from the answers had.
func (s *search) best(had []Answer) ([]int, bool) {
	s.setPrior(had)
	p := s.p
	top := p.quanta(p.Enough)
	run := func(d int, uneven float64, hue bool) bool {
		s.found, s.bestHue = false, math.MaxInt
		s.through(goal{diff: d, uneven: uneven, hue: hue})
		return s.found
	}
	// The greatest difference that can be had: try the top, then halve.
	lo, hi := -1, top // lo is known to do (once ≥ 0), hi+1 is known not to
	if run(top, math.Inf(1), false) {
		lo = top
	} else {
		hi = top - 1
		for lo < hi {
			mid := (lo + hi + 1) / 2
			if run(mid, math.Inf(1), false) {
				lo = mid
			} else {
				hi = mid - 1
			}
		}
	}
	if lo < 0 {
		return nil, false
	}
	uneven := math.Inf(1)
	if p.Order != Unordered && len(s.groups) > 2 {
		e := 1
		for !run(lo, float64(e)*p.EvenBy, false) {
			e++
			if float64(e)*p.EvenBy > 100 || s.stopped() {
				break
			}
		}
		uneven = float64(e) * p.EvenBy
	}
	run(lo, uneven, true)
	if !s.found {
		return nil, false
	}
	return slices.Clone(s.bestPick), true
}

// windowWidth is the width, in L*, of the windows the steps are sought in.
const windowWidth = 1.0

// through walks for a goal, window after window of lightness steps where the
// steps have to be even.
func (s *search) through(g goal) {
	g.least, g.most = s.p.Step, math.Inf(1)
	if math.IsInf(g.uneven, 1) || !s.step || s.p.Order == Unordered {
		s.goal = g
		s.bounds()
		s.walk(0, math.Inf(1), math.Inf(-1), 0)
		return
	}
	for w := s.p.Step; w <= 100/float64(max(1, len(s.groups)-1)); w += windowWidth {
		if s.stopped() || s.found && (!g.hue || s.bestHue == 0) {
			return
		}
		g.least, g.most = w, w+windowWidth+g.uneven
		s.goal = g
		s.bounds()
		s.walk(0, math.Inf(1), math.Inf(-1), 0)
	}
}

func (s *search) setPrior(had []Answer) {
	s.prior, s.far, s.farMax = nil, nil, nil
	for _, a := range had {
		s.prior = append(s.prior, a.Colours)
		far := make([][]float64, len(s.p.Slots))
		most := make([]float64, len(s.p.Slots)+1)
		top := make([]float64, len(s.p.Slots))
		for i := range s.p.Slots {
			top[i] = 120 // no two colours differ more
			if s.lab[i] == nil {
				continue
			}
			far[i] = make([]float64, len(s.lab[i]))
			top[i] = 0
			for x, c := range s.lab[i] {
				d := colour.Difference(c, a.Colours[i])
				far[i][x] = d
				top[i] = math.Max(top[i], d)
			}
		}
		for k := len(s.order) - 1; k >= 0; k-- {
			most[k] = most[k+1] + top[s.order[k]]*s.weights[s.order[k]]
		}
		s.far, s.farMax = append(s.far, far), append(s.farMax, most)
	}
}

// diff is the difference between option x of slot i and option y of slot j,
// both static, remembered.
func (s *search) diff(i, x, j, y int) float64 {
	a, b := s.pal[i], s.pal[j]
	if a > b || a == b && x > y {
		a, b, x, y, i, j = b, a, y, x, j, i
	}
	m := s.diffs[[2]int{a, b}]
	if m == nil {
		m = make([]float64, len(s.lab[i])*len(s.lab[j]))
		for k := range m {
			m[k] = -1
		}
		s.diffs[[2]int{a, b}] = m
	}
	k := x*len(s.lab[j]) + y
	if m[k] < 0 {
		m[k] = colour.Difference(s.lab[i][x], s.lab[j][y])
	}
	return m[k]
}
