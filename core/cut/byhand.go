package cut

import (
	"maps"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/measure"
)

// snapTo is how near an edge has to be dropped to another to lie on it, mm: our own default.
const snapTo = 4.0

// handSheet is a sheet with rectangles that the person put where they lie.
type handSheet struct {
	number int          // which of the fresh sheets, from 0
	laid   map[int]Spot // by rectangle
	cuts   []Slice      // that part them from each other and from the rest
	free   []Area       // what is left to cut others from
}

// rectsByHand are the rectangles that lie where the person put them, on which sheets. One
// dropped near an edge of its sheet, or of one laid before it, lies on that edge. Those that
// leave their sheet, lie over another, or cannot be parted from it by cuts from edge to edge
// are noted as not laid, and come back as fixed too: they are not laid elsewhere unasked.
func (s *laying) rectsByHand(rects []Rect, whose []int, size measure.Size) (fixed map[int]bool, sheets []handSheet) {
	fixed = map[int]bool{}
	for _, l := range s.locks {
		if l.Stock != s.Stock.Stock || l.Sheet >= len(rects) {
			continue
		}
		for k, i := range whose {
			w := s.Wants[i]
			if fixed[k] || w.By != string(build.Trimmer) || w.Card != "" || w.Element != l.Element || w.Motif != l.Motif || w.Way != l.Way || w.Part != l.Part || copyOf(whose, k) != l.Copy {
				continue
			}
			at := slices.IndexFunc(sheets, func(h handSheet) bool { return h.number == l.Sheet })
			if at < 0 {
				at = len(sheets)
				sheets = append(sheets, handSheet{number: l.Sheet, laid: map[int]Spot{}})
			}
			fixed[k] = true
			h := &sheets[at]
			r := rects[k]
			spot := Spot{Turned: r.Turn && math.Mod(math.Abs(l.Turn), 180) == 90 != (math.Abs(r.W-w.W) > 1e-6)}
			box := boxOf(r, spot)
			spot.X, spot.Y = l.X-box.W/2, l.Y-box.H/2
			spot = h.snapped(spot, box, rects, size)
			h.laid[k] = spot
			if cuts, free, ok := h.part(rects, size); ok {
				h.cuts, h.free = cuts, free
				break
			}
			delete(h.laid, k)
			s.Lacks = append(s.Lacks, Lack{i, 1, "It was laid by hand off its sheet, over another, or where no cut from edge to edge parts it from the others.", "Drag it clear, or let it lie as it comes."})
			break
		}
	}
	for i := range sheets {
		if len(sheets[i].laid) == 0 {
			sheets[i].free = []Area{{W: size.W, H: size.H}}
		}
	}
	return fixed, sheets
}

// boxOf is a rectangle as it lies.
func boxOf(r Rect, s Spot) Area {
	if s.Turned {
		return Area{X: s.X, Y: s.Y, W: r.H, H: r.W}
	}
	return Area{X: s.X, Y: s.Y, W: r.W, H: r.H}
}

// snapped draws a spot to the nearest edges of its sheet and of what lies there.
func (h *handSheet) snapped(s Spot, box Area, rects []Rect, size measure.Size) Spot {
	xs, ys := []float64{0, size.W - box.W}, []float64{0, size.H - box.H}
	for _, k := range slices.Sorted(maps.Keys(h.laid)) {
		b := boxOf(rects[k], h.laid[k])
		xs = append(xs, b.X, b.X+b.W, b.X-box.W, b.X+b.W-box.W)
		ys = append(ys, b.Y, b.Y+b.H, b.Y-box.H, b.Y+b.H-box.H)
	}
	// The nearest edge, of two as near the one further up or left: what lies there already and
	// in what order it is looked at decides nothing.
	near := func(x float64, to []float64) float64 {
		best, by := x, math.Inf(1)
		for _, t := range to {
			if d := math.Abs(t - x); d <= snapTo && (d < by-eps || d < by+eps && t < best) {
				best, by = t, d
			}
		}
		return best
	}
	s.X, s.Y = near(s.X, xs), near(s.Y, ys)
	return s
}

// part finds cuts from edge to edge that part the rectangles that lie on a sheet from each
// other, and what they leave whole; false where there are none.
func (h *handSheet) part(rects []Rect, size measure.Size) (cuts []Slice, free []Area, ok bool) {
	var all []Area
	for _, k := range slices.Sorted(maps.Keys(h.laid)) {
		b := boxOf(rects[k], h.laid[k])
		if b.X < -eps || b.Y < -eps || b.X+b.W > size.W+eps || b.Y+b.H > size.H+eps {
			return nil, nil, false
		}
		all = append(all, b)
	}
	return parted(Area{W: size.W, H: size.H}, all)
}

// parted slices a piece so that each of the rectangles in it comes out whole; of the cuts
// there are it takes the one that leaves most whole on one side.
func parted(of Area, in []Area) (cuts []Slice, free []Area, ok bool) {
	if len(in) == 0 {
		if min(of.W, of.H) > eps {
			free = []Area{of}
		}
		return nil, free, true
	}
	if len(in) == 1 && coincide(in[0], of) {
		return nil, nil, true
	}
	type cut struct {
		down bool
		at   float64
		gain float64
	}
	var best *cut
	try := func(down bool, at float64) {
		lo, long, across := of.X, of.W, of.H
		if !down {
			lo, long, across = of.Y, of.H, of.W
		}
		if at < lo+eps || at > lo+long-eps {
			return
		}
		before, after := 0, 0
		for _, r := range in {
			a, b := r.X, r.X+r.W
			if !down {
				a, b = r.Y, r.Y+r.H
			}
			switch {
			case b <= at+eps:
				before++
			case a >= at-eps:
				after++
			default:
				return // it would go through one
			}
		}
		c := cut{down, at, 0}
		if before == 0 {
			c.gain = (at - lo) * across
		}
		if after == 0 {
			c.gain = (lo + long - at) * across
		}
		if best == nil || c.gain > best.gain {
			best = &c
		}
	}
	for _, r := range in {
		try(true, r.X)
		try(true, r.X+r.W)
		try(false, r.Y)
		try(false, r.Y+r.H)
	}
	if best == nil {
		return nil, nil, false
	}
	one, two := of, of
	if best.down {
		one.W = best.at - of.X
		two.X, two.W = best.at, of.X+of.W-best.at
	} else {
		one.H = best.at - of.Y
		two.Y, two.H = best.at, of.Y+of.H-best.at
	}
	s := Slice{X: of.X, Y: of.Y, W: of.W, H: of.H, Down: best.down, At: best.at - of.X}
	if !best.down {
		s.At = best.at - of.Y
	}
	cuts = append(cuts, s)
	for _, side := range []Area{one, two} {
		var mine []Area
		for _, r := range in {
			if r.X >= side.X-eps && r.X+r.W <= side.X+side.W+eps && r.Y >= side.Y-eps && r.Y+r.H <= side.Y+side.H+eps {
				mine = append(mine, r)
			}
		}
		c, f, ok := parted(side, mine)
		if !ok {
			return nil, nil, false
		}
		cuts, free = append(cuts, c...), append(free, f...)
	}
	return cuts, free, true
}

func coincide(a, b Area) bool {
	return math.Abs(a.X-b.X) < 1e-3 && math.Abs(a.Y-b.Y) < 1e-3 && math.Abs(a.W-b.W) < 1e-3 && math.Abs(a.H-b.H) < 1e-3
}
