package shape

import (
	"math"
	"sync"
)

// known is what is worked out of a region once it is asked for: regions do not change, and are
// asked the same many times.
type known struct {
	boxed, looked sync.Once
	box           Box
	inside        []Point // of each ring, a point just inside it

	mu     sync.Mutex
	simple Region // simplified last, to within tol
	tol    float64
}

// of is the region of settled rings.
func of(rings []Ring) Region {
	if len(rings) == 0 {
		return Region{}
	}
	return Region{rings, &known{}}
}

// Simplify drops corners that lie within tol of the line between their
// neighbours kept (Ramer, Douglas and Peucker). Rings keep at least three
// corners.
func (g Region) Simplify(tol float64) Region {
	if g.known == nil {
		return g.simplify(tol)
	}
	g.known.mu.Lock()
	defer g.known.mu.Unlock()
	if g.known.tol != tol || tol == 0 {
		g.known.simple, g.known.tol = g.simplify(tol), tol
	}
	return g.known.simple
}

func (g Region) simplify(tol float64) Region {
	out := make([]Ring, len(g.rings))
	for i, r := range g.rings {
		out[i] = r.simplify(tol)
	}
	return of(out)
}

func (r Ring) simplify(tol float64) Ring {
	if len(r) < 8 {
		return r
	}
	// The two corners furthest apart in the order of a scan split the ring.
	far := 0
	for i, p := range r {
		if p.Distance(r[0]) > r[far].Distance(r[0]) {
			far = i
		}
	}
	keep := make([]bool, len(r)+1)
	keep[0], keep[far], keep[len(r)] = true, true, true
	at := func(i int) Point { return r[i%len(r)] }
	var split func(a, b int)
	split = func(a, b int) {
		worst, d := -1, tol
		for i := a + 1; i < b; i++ {
			if q := at(i).Distance(nearest(at(i), edge{at(a), at(b)})); q > d {
				worst, d = i, q
			}
		}
		if worst >= 0 {
			keep[worst] = true
			split(a, worst)
			split(worst, b)
		}
	}
	split(0, far)
	split(far, len(r))
	out := make(Ring, 0, len(r))
	for i, p := range r {
		if keep[i] {
			out = append(out, p)
		}
	}
	if len(out) < 3 {
		return r
	}
	return out
}

func boxOf(rings []Ring) Box {
	b := Box{Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}}
	for _, r := range rings {
		for _, p := range r {
			b.Min = Point{min(b.Min.X, p.X), min(b.Min.Y, p.Y)}
			b.Max = Point{max(b.Max.X, p.X), max(b.Max.Y, p.Y)}
		}
	}
	return b
}

// insides gives a point just inside each ring.
func (g Region) insides() []Point {
	look := func() (out []Point) {
		for _, r := range g.rings {
			out = append(out, r.inner())
		}
		return out
	}
	if g.known == nil {
		return look()
	}
	g.known.looked.Do(func() { g.known.inside = look() })
	return g.known.inside
}

// inner is a point just inside the ring, beside the middle of its longest
// side.
func (r Ring) inner() Point {
	var a, b Point
	long := 0.0
	for i, p := range r {
		q := r[(i+1)%len(r)]
		if d := q.Sub(p); d.Dot(d) > long {
			a, b, long = p, q, d.Dot(d)
		}
	}
	l := a.Distance(b)
	if l == 0 {
		return a
	}
	n := Point{-(b.Y - a.Y) / l, (b.X - a.X) / l}.Scale(min(Grid/2, l/8))
	if r.Area() < 0 {
		n = n.Scale(-1)
	}
	return a.Add(b).Scale(0.5).Add(n)
}
