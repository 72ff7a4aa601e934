package proof

import (
	"cmp"
	"context"
	"math"
	"slices"
)

// tried is how many places a layer is looked at closely in, and apart how far they lie
// from each other at least, mm.
const (
	tried = 3
	apart = 0.8
)

// minimum is where a layer may lie, and what is missed there.
type minimum struct {
	pose pose
	miss float64
}

// settle looks for layers apart, all or those named, in the whole box of shifts
// and turns a hand may be off by; twice, since each search leans on where the
// others lie. From round 1 on it only looks near where they are.
func (m *model) settle(ctx context.Context, p *Plane, from int, only ...int) error {
	m.soft = 0.5
	for round := from; round < 2; round++ {
		for i := range m.layers {
			if len(only) > 0 && !slices.Contains(only, i) {
				continue
			}
			if err := ctx.Err(); err != nil {
				return err
			}
			l := &m.layers[i]
			known := m.stakes(p, l.around(3), i)
			from := []minimum{{l.pose, m.missOf(known, p, i, 3)}}
			if round == 0 {
				from = m.minima(known, p, i, tried)
			}
			best, at := math.Inf(1), l.pose
			for _, f := range from {
				if q := m.refine(known, p, i, f.pose); q.miss < best {
					best, at = q.miss, q.pose
				}
			}
			l.pose = at
		}
	}
	return nil
}

// minima are the n best places of a layer within what a hand may be off by, from where it
// is taken to lie, the best first, each some way from all better ones.
func (m *model) minima(o *stakes, p *Plane, but, n int) []minimum {
	l := &m.layers[but]
	start := l.pose
	defer func() { l.pose = start }()
	all := []minimum{{start, m.missOf(o, p, but, 3)}}
	for _, turn := range [5]float64{-0.04, -0.02, 0, 0.02, 0.04} {
		for dy := -2.0; dy <= 2; dy += 0.5 {
			for dx := -2.0; dx <= 2; dx += 0.5 {
				l.pose = pose{start.x + dx, start.y + dy, start.turn + turn}
				all = append(all, minimum{l.pose, m.missOf(o, p, but, 3)})
			}
		}
	}
	slices.SortStableFunc(all, func(a, b minimum) int { return cmp.Compare(a.miss, b.miss) })
	var out []minimum
	for _, q := range all {
		if len(out) < n && !slices.ContainsFunc(out, func(b minimum) bool { return l.between(q.pose, b.pose) < apart }) {
			out = append(out, q)
		}
	}
	return out
}

// between is how far apart two poses put a layer's points at most, mm.
func (l *layer) between(a, b pose) float64 {
	return math.Hypot(a.x-b.x, a.y-b.y) + math.Abs(a.turn-b.turn)*l.reach
}

// refine goes downhill from a pose, in ever smaller steps.
func (m *model) refine(o *stakes, p *Plane, but int, from pose) minimum {
	l := &m.layers[but]
	was := l.pose
	defer func() { l.pose = was }()
	l.pose = from
	best, at := m.missOf(o, p, but, 1), from
	try := func(q pose) {
		l.pose = q
		if v := m.missOf(o, p, but, 1); v < best {
			best, at = v, q
		}
	}
	for _, r := range [4]float64{0.3, 0.15, 0.08, 0.04} {
		for range 2 {
			q := at
			for _, d := range [2]float64{-1, 1} {
				try(pose{q.x + d*r, q.y, q.turn})
				try(pose{q.x, q.y + d*r, q.turn})
				try(pose{q.x, q.y, q.turn + d*r/math.Max(5, l.reach)})
			}
		}
	}
	return minimum{at, best}
}
