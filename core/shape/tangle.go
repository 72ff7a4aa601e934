package shape

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"slices"

	"github.com/tdewolff/canvas"
)

// ErrTangled is returned for outlines that cross themselves or each other more
// often than any drawn piece does, and would take minutes to settle.
var ErrTangled = errors.New("the outlines cross too often")

// Limits of what is settled or united at once.
const (
	MostCrossings = 20_000  // crossings of sides
	mostCompared  = 6 << 23 // pairs of sides looked at for crossings
)

// Settle is New for rings nobody has looked at yet: it refuses those that cross
// themselves or each other more than MostCrossings times with ErrTangled.
func Settle(nonzero bool, rings ...Ring) (g Region, err error) {
	if n := Crossings(MostCrossings, rings...); n > MostCrossings {
		return Region{}, fmt.Errorf("settle %d rings: %w", len(rings), ErrTangled)
	}
	defer func() {
		if recover() != nil { // the sweep of the path library panics on a few degenerate inputs
			g, err = Region{}, ErrBoolean
		}
	}()
	return New(nonzero, rings...).Simplify(Tolerance / 4), nil
}

// Crossings counts the places at which sides of the rings cross, up to one more
// than most; sides that only share an end do not count. Where even counting
// would take too long it returns most+1.
func Crossings(most int, rings ...Ring) int {
	type side struct {
		a, b   Point
		lo, hi float64 // in x
	}
	var all []side
	for _, r := range rings {
		for i, p := range r {
			q := r[(i+1)%len(r)]
			if p != q {
				all = append(all, side{p, q, math.Min(p.X, q.X), math.Max(p.X, q.X)})
			}
		}
	}
	slices.SortFunc(all, func(s, t side) int { return cmp.Compare(s.lo, t.lo) })
	var live []side
	n, compared := 0, 0
	for _, s := range all {
		keep := live[:0]
		for _, t := range live {
			if t.hi < s.lo {
				continue
			}
			keep = append(keep, t)
			if compared++; compared > mostCompared {
				return most + 1
			}
			if crosses(edge{s.a, s.b}, edge{t.a, t.b}) {
				if n++; n > most {
					return n
				}
			}
		}
		live = append(keep, s)
	}
	return n
}

// UnionAll returns the union of all regions. Regions whose boxes do not meet are
// put side by side without a boolean, and the others are united two by two, so
// that many small ones take little longer than few.
func UnionAll(gs ...Region) (Region, error) {
	var out []Ring
	for _, c := range clusters(gs) {
		u, err := unite(c)
		if err != nil {
			return Region{}, fmt.Errorf("unite %d regions: %w", len(gs), err)
		}
		out = append(out, u.rings...)
	}
	return of(out), nil
}

func unite(gs []Region) (Region, error) {
	switch len(gs) {
	case 0:
		return Region{}, nil
	case 1:
		return gs[0], nil
	}
	a, err := unite(gs[:len(gs)/2])
	if err != nil {
		return Region{}, err
	}
	b, err := unite(gs[len(gs)/2:])
	if err != nil {
		return Region{}, err
	}
	return a.Union(b)
}

// clusters groups regions so that the boxes of different groups do not meet,
// each group from left to right.
func clusters(gs []Region) [][]Region {
	type boxed struct {
		g   Region
		box Box
	}
	var all []boxed
	for _, g := range gs {
		if !g.Empty() {
			all = append(all, boxed{g, g.Bounds()})
		}
	}
	slices.SortStableFunc(all, func(a, b boxed) int { return cmp.Compare(a.box.Min.X, b.box.Min.X) })
	root := make([]int, len(all))
	find := func(i int) int {
		for root[i] != i {
			root[i] = root[root[i]]
			i = root[i]
		}
		return i
	}
	for i := range all {
		root[i] = i
	}
	var live []int
	for i, b := range all {
		keep := live[:0]
		for _, j := range live {
			if all[j].box.Max.X < b.box.Min.X {
				continue
			}
			keep = append(keep, j)
			if all[j].box.Meets(b.box) {
				root[find(i)] = find(j)
			}
		}
		live = append(keep, i)
	}
	at := map[int]int{}
	var out [][]Region
	for i, b := range all {
		r := find(i)
		k, ok := at[r]
		if !ok {
			k = len(out)
			at[r] = k
			out = append(out, nil)
		}
		out[k] = append(out[k], b.g)
	}
	return out
}

// CrossingsOf is Crossings between and within regions.
func CrossingsOf(most int, gs ...Region) int {
	var rings []Ring
	for _, g := range gs {
		rings = append(rings, g.rings...)
	}
	return Crossings(most, rings...)
}

// SettlePath flattens a path whose y axis points down and settles it like Settle.
func SettlePath(p *canvas.Path, nonzero bool) (g Region, err error) {
	defer func() {
		if recover() != nil {
			g, err = Region{}, ErrBoolean
		}
	}()
	return Settle(nonzero, flatten(p)...)
}

// Hull is the convex hull of points, turned so that its area is positive (A. M.
// Andrew's monotone chain, Information Processing Letters 9, 1979).
func Hull(points []Point) Ring {
	ps := slices.Clone(points)
	slices.SortFunc(ps, func(a, b Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
	ps = slices.Compact(ps)
	if len(ps) < 3 {
		return ps
	}
	chain := func(ps []Point) []Point {
		var h []Point
		for _, p := range ps {
			for len(h) > 1 && h[len(h)-1].Sub(h[len(h)-2]).Cross(p.Sub(h[len(h)-1])) <= 0 {
				h = h[:len(h)-1]
			}
			h = append(h, p)
		}
		return h[:len(h)-1]
	}
	lower := chain(ps)
	slices.Reverse(ps)
	return append(lower, chain(ps)...)
}
