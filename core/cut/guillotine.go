package cut

import (
	"cmp"
	"context"
	"math"
	"math/rand/v2"
	"slices"
)

// Rect is a rectangle that is to be cut.
type Rect struct {
	W, H float64 // mm
	Turn bool    // it may be cut a quarter turned
}

// Bin is a sheet or an offcut that rectangles are cut from.
type Bin struct {
	W, H float64 // mm
	Cost float64 // what using it costs; fewer and cheaper bins are better
}

// Spot is where a rectangle is cut: in which bin, its upper left corner, whether it is
// turned.
type Spot struct {
	Bin    int // -1: it found no place
	X, Y   float64
	Turned bool
}

// Slice is a straight cut of the trimmer from edge to edge of a piece.
type Slice struct {
	Bin  int     `json:"-"`
	X    float64 `json:"x" doc:"of the piece that is cut, in its sheet, mm"`
	Y    float64 `json:"y" doc:"mm"`
	W    float64 `json:"w" doc:"mm"`
	H    float64 `json:"h" doc:"mm"`
	Down bool    `json:"down" doc:"the cut runs down; else across"`
	At   float64 `json:"at" doc:"from the piece's left edge, of one that runs across from its top, mm"`
}

// Area is a rectangle in a bin.
type Area struct {
	Bin int     `json:"-"`
	X   float64 `json:"x" doc:"mm"`
	Y   float64 `json:"y" doc:"mm"`
	W   float64 `json:"w" doc:"mm"`
	H   float64 `json:"h" doc:"mm"`
}

// Sliced is how rectangles are cut from bins.
type Sliced struct {
	Spots []Spot  // by rectangle
	Cuts  []Slice // in an order in which a trimmer makes them
	Left  []Area  // what is left whole
	Cost  float64 // of the bins used
	Lacks int     // rectangles that found no place
}

// Guillotine cuts rectangles from bins by straight cuts from edge to edge, kerf mm lost at
// each: as few and cheap bins as it finds before ctx ends, at most tries orders. Each try
// puts one rectangle after the other into the corner of what is left where it fits most
// closely, and slices off what lies beside it; the orders begin with the usual ones (by
// area, longest side, width, height) and go on by exchange of the best. The same seed gives
// the same answer where ctx does not end.
func Guillotine(ctx context.Context, rects []Rect, bins []Bin, kerf float64, tries int, seed uint64) Sliced {
	rng := rand.New(rand.NewPCG(seed, 0x6f636872))
	order := make([]int, len(rects))
	for i := range order {
		order[i] = i
	}
	var best Sliced
	var bestOrder []int
	bestTurns := make([]turning, len(rects))
	found := false
	keep := func(o []int, turns []turning, rule splitRule) {
		got := slice(rects, bins, o, turns, kerf, rule)
		if found && !better(got, best) {
			return
		}
		best, bestOrder, bestTurns, found = got, slices.Clone(o), slices.Clone(turns), true
	}
	for _, t := range []turning{asFits, upright, quarter} {
		turns := make([]turning, len(rects))
		for i, r := range rects {
			if r.Turn {
				turns[i] = t
			}
		}
		for _, by := range orders {
			slices.SortStableFunc(order, func(a, b int) int { return -cmp.Compare(by(rects[a]), by(rects[b])) })
			for rule := range splitRules {
				keep(order, turns, rule)
			}
		}
	}
	for n := 0; n < tries && len(rects) > 1; n++ {
		if n%16 == 0 && ctx.Err() != nil {
			break
		}
		o, turns := slices.Clone(bestOrder), slices.Clone(bestTurns)
		for range 1 + rng.IntN(3) {
			if k := rng.IntN(len(o)); rects[k].Turn && rng.IntN(2) == 0 {
				turns[k] = turning(rng.IntN(3))
			}
			i, j := rng.IntN(len(o)), rng.IntN(len(o))
			if rng.IntN(2) == 0 {
				o[i], o[j] = o[j], o[i]
			} else {
				x := o[i]
				o = slices.Insert(slices.Delete(o, i, i+1), j, x)
			}
		}
		keep(o, turns, splitRule(rng.IntN(int(splitRules))))
	}
	return best
}

// orders are what rectangles are sorted by, the largest first.
var orders = []func(Rect) float64{
	func(r Rect) float64 { return r.W * r.H },
	func(r Rect) float64 { return max(r.W, r.H) },
	func(r Rect) float64 { return r.W },
	func(r Rect) float64 { return r.H },
	func(r Rect) float64 { return min(r.W, r.H) },
}

// better reports whether one way is better than another: more is cut, from cheaper bins,
// with a larger piece left whole.
func better(a, b Sliced) bool {
	if a.Lacks != b.Lacks {
		return a.Lacks < b.Lacks
	}
	if math.Abs(a.Cost-b.Cost) > 1e-9 {
		return a.Cost < b.Cost
	}
	return largest(a.Left) > largest(b.Left)+1e-9
}

func largest(left []Area) (most float64) {
	for _, a := range left {
		most = max(most, a.W*a.H)
	}
	return most
}

// turning is how a rectangle that may be turned is laid.
type turning uint8

const (
	asFits  turning = iota // as it leaves less beside it
	upright                // as it lies, where it fits so
	quarter                // turned, where it fits so
)

// splitRule is which way what is left beside a rectangle is sliced first.
type splitRule int

const (
	splitShort splitRule = iota // so that the shorter leftover is short
	splitLong
	splitAcross
	splitDown
	splitRules
)

// node is a piece of a bin: cut in two, taken by a rectangle, or left.
type node struct {
	Area
	taken int // rectangle, or -1
	down  bool
	at    float64
	kids  []*node
}

const eps = 1e-6

// slice puts rectangles into bins in an order.
func slice(rects []Rect, bins []Bin, order []int, turns []turning, kerf float64, rule splitRule) Sliced {
	out := Sliced{Spots: make([]Spot, len(rects))}
	roots := make([]*node, 0, 4)
	opened := 0
	var free []*node
	for _, i := range order {
		r := rects[i]
		at, turned := closest(free, r, turns[i])
		for at < 0 && opened < len(bins) {
			// The next bin that takes it; smaller ones before it stay unused.
			n := &node{Area: Area{opened, 0, 0, bins[opened].W, bins[opened].H}, taken: -1}
			if _, ok := fit(n, r, asFits); !ok {
				if !later(bins[opened+1:], r) {
					break
				}
				roots = append(roots, n)
				free = append(free, n)
				opened++
				continue
			}
			opened++
			roots, free = append(roots, n), append(free, n)
			at, turned = closest(free, r, turns[i])
		}
		if at < 0 {
			out.Spots[i].Bin = -1
			out.Lacks++
			continue
		}
		n := free[at]
		free = slices.Delete(free, at, at+1)
		w, h := r.W, r.H
		if turned {
			w, h = h, w
		}
		out.Spots[i] = Spot{n.Bin, n.X, n.Y, turned}
		free = append(free, n.take(i, w, h, kerf, rule)...)
	}
	for _, n := range roots {
		if used(n) {
			out.Cost += bins[n.Bin].Cost
			n.tell(&out)
		}
	}
	return out
}

func later(bins []Bin, r Rect) bool {
	return slices.ContainsFunc(bins, func(b Bin) bool {
		_, ok := fit(&node{Area: Area{W: b.W, H: b.H}}, r, asFits)
		return ok
	})
}

func used(n *node) bool {
	return n.taken >= 0 || slices.ContainsFunc(n.kids, used)
}

// fit reports whether a rectangle fits into a piece, and whether turned.
func fit(n *node, r Rect, t turning) (turned, ok bool) {
	up := r.W <= n.W+eps && r.H <= n.H+eps
	turn := r.Turn && r.H <= n.W+eps && r.W <= n.H+eps
	switch {
	case up && turn && t != asFits:
		return t == quarter, true
	case up && turn:
		return min(n.W-r.H, n.H-r.W) < min(n.W-r.W, n.H-r.H)-eps, true
	case up:
		return false, true
	}
	return true, turn
}

// closest is the free piece in which a rectangle leaves the least beside it; -1 where it
// fits in none.
func closest(free []*node, r Rect, how turning) (best int, turned bool) {
	best = -1
	least := math.Inf(1)
	for i, n := range free {
		t, ok := fit(n, r, how)
		if !ok {
			continue
		}
		w, h := r.W, r.H
		if t {
			w, h = h, w
		}
		if d := min(n.W-w, n.H-h); d < least-eps {
			least, best, turned = d, i, t
		}
	}
	return best, turned
}

// take puts a rectangle into the corner of a piece and slices off what lies beside it; it
// gives the pieces that are left.
func (n *node) take(rect int, w, h, kerf float64, rule splitRule) (left []*node) {
	right, below := n.W-w, n.H-h
	across := rule == splitAcross || rule == splitShort && right <= below || rule == splitLong && right > below
	cut := func(of *node, down bool, at float64) (keep, off *node) {
		of.down, of.at = down, at
		keep, off = &node{Area: of.Area, taken: -1}, &node{Area: of.Area, taken: -1}
		if down {
			keep.W, off.X, off.W = at, of.X+at+kerf, of.W-at-kerf
		} else {
			keep.H, off.Y, off.H = at, of.Y+at+kerf, of.H-at-kerf
		}
		of.kids = []*node{keep, off}
		if off.W > eps && off.H > eps {
			left = append(left, off)
		} else {
			of.kids = of.kids[:1]
		}
		return keep, off
	}
	it := n
	first, second := right, below
	if across {
		first, second = below, right
	}
	if first > eps {
		size := w
		if across {
			size = h
		}
		it, _ = cut(it, !across, size)
	}
	if second > eps {
		size := h
		if across {
			size = w
		}
		it, _ = cut(it, across, size)
	}
	it.taken = rect
	return left
}

// tell lists the cuts of a piece from the outside in, and what is left of it.
func (n *node) tell(out *Sliced) {
	if len(n.kids) > 0 {
		out.Cuts = append(out.Cuts, Slice{n.Bin, n.X, n.Y, n.W, n.H, n.down, n.at})
		for _, k := range n.kids {
			k.tell(out)
		}
		return
	}
	if n.taken < 0 {
		out.Left = append(out.Left, n.Area)
	}
}
