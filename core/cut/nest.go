package cut

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"math"
	"math/bits"
	"math/rand/v2"
	"slices"

	"ochrestone/core/shape"
)

// Part is a piece of any outline that is to be laid on a sheet.
type Part struct {
	Outline shape.Region // about its middle, mm
	Turns   []float64    // how it may be turned, degrees clockwise; none: as it is
	Gap     float64      // kept free round it, mm
}

// Laid is where a part lies.
type Laid struct {
	Bin  int // -1: it found no place
	X, Y float64
	Turn float64 // degrees clockwise
}

// cell is how fine sheets are looked at, mm: what a part needs is rounded up to whole cells.
const cell = 0.75

// Nest lays parts on bins, none over another, each with its gap free: the largest first,
// each as far up as it goes, turned as lets it lie highest; then in other orders, until ctx
// ends or after so many tries, and the cheapest bins win. Parts and bins are looked at in
// cells of 0.75 mm, each of which is taken whole where a part or its gap touches it, so no
// two parts ever overlap. progress, where there is one, is told the share of tries made.
// The same seed gives the same answer where ctx does not end.
//
// fixed are parts that lie already, by their index, where the others are laid round them; one
// that leaves its bin or lies over one fixed before it comes back with no bin.
func Nest(ctx context.Context, parts []Part, bins []Bin, fixed map[int]Laid, tries int, seed uint64, progress func(share float64)) ([]Laid, float64) {
	n := nesting{bins: bins, cut: map[int][]*stencil{}, parts: parts, fixed: fixed}
	kinds := map[string]int{}
	kind := make([]int, len(parts))
	for i, p := range parts {
		// Alike is what has the same outline, gap and turns.
		k := fmt.Sprint(p.Outline.Path(), p.Gap, p.Turns)
		if _, ok := kinds[k]; !ok {
			kinds[k] = len(kinds)
			n.cut[kinds[k]] = stencils(p)
		}
		kind[i] = kinds[k]
	}
	order := make([]int, len(parts))
	for i := range order {
		order[i] = i
	}
	size := func(i int) float64 { return parts[i].Outline.Bounds().W() * parts[i].Outline.Bounds().H() }
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Or(cmp.Compare(size(b), size(a)), cmp.Compare(kind[a], kind[b])) })
	best, cost := n.lay(ctx, order, kind, true)
	rng := rand.New(rand.NewPCG(seed, 0x6e657374))
	bestOrder := order
	for t := 0; t < tries && len(parts) > 1 && ctx.Err() == nil; t++ {
		o := slices.Clone(bestOrder)
		for range 1 + rng.IntN(3) {
			i, j := rng.IntN(len(o)), rng.IntN(len(o))
			o[i], o[j] = o[j], o[i]
		}
		got, c := n.lay(ctx, o, kind, false)
		if got != nil && c < cost-1e-9 {
			best, cost, bestOrder = got, c, o
		}
		if progress != nil {
			progress(float64(t+1) / float64(tries))
		}
	}
	return best, cost
}

// stencil is a part in one turn, in cells: rows of bits, each as wide as needed.
type stencil struct {
	turn   float64
	w, h   int
	words  int
	rows   []uint64
	mid    shape.Point // of the part, from the stencil's upper left corner, mm
	shifts [64][]uint64
}

// stencils are a part in all its turns.
func stencils(p Part) (out []*stencil) {
	turns := p.Turns
	if len(turns) == 0 {
		turns = []float64{0}
	}
	g := p.Outline.Filled()
	if p.Gap > 0 {
		if grown, err := g.Offset(p.Gap / 2); err == nil {
			g = grown
		}
	}
	for _, t := range turns {
		out = append(out, newStencil(g.Turn(t, shape.Point{}), t))
	}
	return out
}

func newStencil(g shape.Region, turn float64) *stencil {
	return newStencilFrom(g, g.Bounds().Min, turn)
}

// newStencilFrom is a region in cells that are counted from a corner.
func newStencilFrom(g shape.Region, corner shape.Point, turn float64) *stencil {
	box := shape.Box{Min: corner, Max: g.Bounds().Max}
	s := &stencil{turn: turn, w: int(math.Ceil(box.W()/cell - 1e-9)), h: int(math.Ceil(box.H()/cell - 1e-9)), mid: shape.Point{X: -box.Min.X, Y: -box.Min.Y}}
	s.w, s.h = max(s.w, 1), max(s.h, 1)
	s.words = (s.w + 63) / 64
	s.rows = make([]uint64, s.words*s.h)
	set := func(y int, x0, x1 float64) {
		a, b := int(math.Floor(x0/cell+1e-9)), int(math.Ceil(x1/cell-1e-9))
		for x := max(0, a); x < min(s.w, max(b, a+1)); x++ {
			s.rows[y*s.words+x/64] |= 1 << (x % 64)
		}
	}
	// Every cell the edge passes through, and every one within.
	for _, r := range g.Rings() {
		for i, p := range r {
			q := r[(i+1)%len(r)]
			s.edge(p.Sub(box.Min), q.Sub(box.Min), set)
		}
	}
	for y := range s.h {
		for _, x := range g.Cross(box.Min.Y + (float64(y)+0.5)*cell) {
			set(y, x[0]-box.Min.X, x[1]-box.Min.X)
		}
	}
	return s
}

// edge takes the cells that a side passes through, row by row.
func (s *stencil) edge(p, q shape.Point, set func(y int, x0, x1 float64)) {
	if p.Y > q.Y {
		p, q = q, p
	}
	for y := int(p.Y / cell); y <= int(q.Y/cell) && y < s.h; y++ {
		lo, hi := max(p.Y, float64(y)*cell), min(q.Y, float64(y+1)*cell)
		x0, x1 := p.X, q.X
		if q.Y-p.Y > 1e-12 {
			at := func(v float64) float64 { return p.X + (q.X-p.X)*(v-p.Y)/(q.Y-p.Y) }
			x0, x1 = at(lo), at(hi)
		}
		set(max(0, y), min(x0, x1), max(x0, x1))
	}
}

// shifted is the stencil moved right by so many cells of a word.
func (s *stencil) shifted(by int) []uint64 {
	if by == 0 {
		return s.rows
	}
	if s.shifts[by] == nil {
		w := s.words + 1
		out := make([]uint64, w*s.h)
		for y := range s.h {
			for i := range s.words {
				v := s.rows[y*s.words+i]
				out[y*w+i] |= v << by
				out[y*w+i+1] |= v >> (64 - by)
			}
		}
		s.shifts[by] = out
	}
	return s.shifts[by]
}

// board is a bin in cells, taken ones set.
type board struct {
	w, h, words int
	rows        []uint64
}

func newBoard(b Bin) *board {
	w, h := int(math.Floor(b.W/cell+1e-9)), int(math.Floor(b.H/cell+1e-9))
	return &board{w: w, h: h, words: (w+63)/64 + 1, rows: make([]uint64, ((w+63)/64+1)*max(h, 0))}
}

// blocked is how far right of a cell to look on where a stencil cannot lie there; 0 where it
// can. Where a cell of it meets one that is taken, so do all cells left of it in its row,
// one after the other, as it moves right.
func (b *board) blocked(s *stencil, x, y int) int {
	m, at, w := s.shifted(x%64), x/64, s.words
	if x%64 != 0 {
		w++
	}
	for r := range s.h {
		row := b.rows[(y+r)*b.words:]
		for i := w - 1; i >= 0; i-- {
			if at+i >= b.words {
				continue
			}
			if hit := row[at+i] & m[r*w+i]; hit != 0 {
				c, skip := (at+i)*64+63-bits.LeadingZeros64(hit)-x, 0
				for ; c >= 0 && s.rows[r*s.words+c/64]>>(c%64)&1 == 1; c-- {
					skip++
				}
				return skip
			}
		}
	}
	return 0
}

func (b *board) put(s *stencil, x, y int) {
	m, at, w := s.shifted(x%64), x/64, s.words
	if x%64 != 0 {
		w++
	}
	for r := range s.h {
		for i := range w {
			if k := at + i; k < b.words {
				b.rows[(y+r)*b.words+k] |= m[r*w+i]
			}
		}
	}
}

// nesting is what stays the same from try to try.
type nesting struct {
	bins  []Bin
	cut   map[int][]*stencil // by kind of part
	parts []Part
	fixed map[int]Laid
}

type cursor struct {
	kind, turn, bin int
}

// lay lays parts in an order. whole lays them all though ctx ends.
func (n *nesting) lay(ctx context.Context, order, kind []int, whole bool) ([]Laid, float64) {
	out := make([]Laid, len(order))
	boards := make([]*board, 0, 4)
	low := make([]int, len(n.bins)) // how far down each is used, cells
	from := map[cursor][2]int{}
	cost := 0.0
	for _, i := range slices.Sorted(maps.Keys(n.fixed)) {
		for len(boards) <= n.fixed[i].Bin {
			boards = append(boards, newBoard(n.bins[len(boards)]))
		}
		out[i] = n.fix(boards, i, low)
	}
	for count, i := range order {
		if _, ok := n.fixed[i]; ok {
			continue
		}
		if count%8 == 7 && !whole && ctx.Err() != nil {
			return nil, 0
		}
		best, bestAt, bestOf := -1, [2]int{}, (*stencil)(nil)
		for b := 0; b < len(n.bins) && best < 0; b++ {
			if b == len(boards) {
				boards = append(boards, newBoard(n.bins[b]))
			}
			bottom := math.MaxInt
			for t, s := range n.cut[kind[i]] {
				key := cursor{kind[i], t, b}
				x, y, ok := boards[b].find(s, from[key], bottom)
				if !ok {
					if bottom == math.MaxInt {
						from[key] = [2]int{0, boards[b].h}
					}
					continue
				}
				from[key] = [2]int{x, y}
				if y+s.h < bottom || x < bestAt[0] {
					best, bestAt, bestOf, bottom = b, [2]int{x, y}, s, y+s.h
				}
			}
		}
		if best < 0 {
			out[i].Bin = -1
			cost += 1e6
			continue
		}
		boards[best].put(bestOf, bestAt[0], bestAt[1])
		out[i] = Laid{best, float64(bestAt[0])*cell + bestOf.mid.X, float64(bestAt[1])*cell + bestOf.mid.Y, bestOf.turn}
		low[best] = max(low[best], bestAt[1]+bestOf.h)
	}
	for b, l := range low {
		if l > 0 {
			// Of a bin in use the more is left below the better.
			cost += n.bins[b].Cost * (1 + 0.01*float64(l)*cell/n.bins[b].H)
		}
	}
	return out, cost
}

// fix lays a part where the person put it.
func (n *nesting) fix(boards []*board, i int, low []int) Laid {
	l, p := n.fixed[i], n.parts[i]
	b := n.bins[l.Bin]
	in := laidDown(p, l).Bounds()
	if in.Min.X < -eps || in.Min.Y < -eps || in.Max.X > b.W+eps || in.Max.Y > b.H+eps {
		return Laid{Bin: -1}
	}
	g := p.Outline.Filled()
	if p.Gap > 0 {
		if grown, err := g.Offset(p.Gap / 2); err == nil {
			g = grown
		}
	}
	// In the cells of its bin as it lies, cut off at the edge: its gap may leave the sheet.
	at := laidDown(Part{Outline: g}, l)
	if cropped, err := at.Intersect(shape.Rect(0, 0, float64(boards[l.Bin].w)*cell, float64(boards[l.Bin].h)*cell)); err == nil && !cropped.Empty() {
		at = cropped
	}
	box := at.Bounds()
	x, y := int(math.Floor(box.Min.X/cell+1e-9)), int(math.Floor(box.Min.Y/cell+1e-9))
	s := newStencilFrom(at, shape.Point{X: float64(x) * cell, Y: float64(y) * cell}, l.Turn)
	if x+s.w > boards[l.Bin].w || y+s.h > boards[l.Bin].h || boards[l.Bin].blocked(s, x, y) != 0 {
		return Laid{Bin: -1}
	}
	boards[l.Bin].put(s, x, y)
	low[l.Bin] = max(low[l.Bin], y+s.h)
	return l
}

// find is the first place from a cell on, row by row, whose part would not end below bottom.
func (b *board) find(s *stencil, from [2]int, bottom int) (x, y int, ok bool) {
	x, y = from[0], from[1]
	for ; y+s.h <= min(b.h, bottom); y++ {
		for x+s.w <= b.w {
			skip := b.blocked(s, x, y)
			if skip == 0 {
				return x, y, true
			}
			x += skip
		}
		x = 0
	}
	return 0, 0, false
}
