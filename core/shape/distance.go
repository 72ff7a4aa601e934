package shape

import (
	"math"
)

// edge is one straight side.
type edge struct{ a, b Point }

func (g Region) edges() []edge {
	out := make([]edge, 0, g.Points())
	for _, r := range g.rings {
		for i, p := range r {
			out = append(out, edge{p, r[(i+1)%len(r)]})
		}
	}
	return out
}

// edgesIn lists the sides whose box meets another.
func (g Region) edgesIn(b Box) []edge {
	var out []edge
	for _, r := range g.rings {
		for i, p := range r {
			q := r[(i+1)%len(r)]
			if max(p.X, q.X) >= b.Min.X && min(p.X, q.X) <= b.Max.X && max(p.Y, q.Y) >= b.Min.Y && min(p.Y, q.Y) <= b.Max.Y {
				out = append(out, edge{p, q})
			}
		}
	}
	return out
}

// corners lists all corner points.
func (g Region) corners() []Point {
	out := make([]Point, 0, g.Points())
	for _, r := range g.rings {
		out = append(out, r...)
	}
	return out
}

// Swing returns how far g can turn about c, in degrees, clockwise and
// anticlockwise, before its boundary meets that of h: exact for polygons, a
// corner runs on a circle and meets a side. 180 when it never does.
func (g Region) Swing(h Region, c Point) (clockwise, anticlockwise float64) {
	a1, b1 := firstTurn(g.corners(), h.edges(), c)
	b2, a2 := firstTurn(h.corners(), g.edges(), c)
	return math.Min(180, math.Min(a1, a2)), math.Min(180, math.Min(b1, b2))
}

// firstTurn gives the least turns, in degrees, that bring some point onto some
// edge, clockwise and anticlockwise on screen.
func firstTurn(ps []Point, es []edge, c Point) (cw, acw float64) {
	cw, acw = math.Inf(1), math.Inf(1)
	type polar struct{ r, a float64 }
	pol := make([]polar, len(ps))
	for i, p := range ps {
		d := p.Sub(c)
		pol[i] = polar{d.Len(), math.Atan2(d.Y, d.X)}
	}
	for _, e := range es {
		a, b := e.a.Sub(c), e.b.Sub(c)
		d := b.Sub(a)
		l2 := d.Dot(d)
		if l2 == 0 {
			continue
		}
		t0 := math.Max(0, math.Min(1, -a.Dot(d)/l2))
		near := a.Add(d.Scale(t0)).Len()
		far := math.Max(a.Len(), b.Len())
		for _, p := range pol {
			if p.r < near || p.r > far {
				continue
			}
			// |a + t d| = r
			m := a.Dot(d) / l2
			q := m*m - (a.Dot(a)-p.r*p.r)/l2
			if q < 0 {
				q = 0
			}
			w := math.Sqrt(q)
			for _, t := range [2]float64{-m - w, -m + w} {
				if t < 0 || t > 1 {
					continue
				}
				at := a.Add(d.Scale(t))
				turn := (math.Atan2(at.Y, at.X) - p.a) * 180 / math.Pi
				turn = math.Mod(turn+720, 360)
				cw = math.Min(cw, turn)
				acw = math.Min(acw, math.Mod(360-turn, 360))
			}
		}
	}
	return cw, acw
}

// Gap returns the least distance between the boundaries of g and h in mm, and
// the two points where it is found, on g and on h.
func (g Region) Gap(h Region) (gap float64, on, to Point) {
	gap = math.Inf(1)
	scan := func(ps []Point, es []edge, swap bool) {
		for _, p := range ps {
			for _, e := range es {
				// Most sides lie further off than the nearest known, and their box tells.
				if min(e.a.X, e.b.X)-p.X > gap || p.X-max(e.a.X, e.b.X) > gap || min(e.a.Y, e.b.Y)-p.Y > gap || p.Y-max(e.a.Y, e.b.Y) > gap {
					continue
				}
				if q := nearest(p, e); p.Distance(q) < gap {
					gap, on, to = p.Distance(q), p, q
					if swap {
						on, to = q, p
					}
				}
			}
		}
	}
	scan(g.corners(), h.edges(), false)
	scan(h.corners(), g.edges(), true)
	return gap, on, to
}

// Nearer reports whether the boundaries of g and h come nearer to each other than d mm: whether
// Gap is less, without looking for where it is least.
func (g Region) Nearer(h Region, d float64) bool {
	scan := func(ps []Point, es []edge) bool {
		for _, p := range ps {
			for _, e := range es {
				if min(e.a.X, e.b.X)-p.X >= d || p.X-max(e.a.X, e.b.X) >= d || min(e.a.Y, e.b.Y)-p.Y >= d || p.Y-max(e.a.Y, e.b.Y) >= d {
					continue
				}
				if p.Distance(nearest(p, e)) < d {
					return true
				}
			}
		}
		return false
	}
	return scan(h.corners(), g.edges()) || scan(g.corners(), h.edges())
}

func nearest(p Point, e edge) Point {
	d := e.b.Sub(e.a)
	l2 := d.Dot(d)
	if l2 == 0 {
		return e.a
	}
	t := math.Max(0, math.Min(1, p.Sub(e.a).Dot(d)/l2))
	return e.a.Add(d.Scale(t))
}

// Shared returns the length, in mm, of the boundary of g that runs within tol
// of the boundary of h: how much edge two shown regions have in common. Each
// side of g is judged in stretches no longer than a quarter of a millimetre.
func (g Region) Shared(h Region, tol float64) float64 {
	if g.Empty() || h.Empty() {
		return 0
	}
	hb := h.Bounds()
	hb.Min, hb.Max = hb.Min.Sub(Point{tol, tol}), hb.Max.Add(Point{tol, tol})
	es := newEdgeGrid(h.edges(), hb)
	var sum float64
	for _, e := range g.edges() {
		l := e.a.Distance(e.b)
		n := int(math.Ceil(l / 0.25))
		for i := range n {
			m := e.a.Add(e.b.Sub(e.a).Scale((float64(i) + 0.5) / float64(n)))
			if m.X < hb.Min.X || m.X > hb.Max.X || m.Y < hb.Min.Y || m.Y > hb.Max.Y {
				continue
			}
			if es.within(m, tol) {
				sum += l / float64(n)
			}
		}
	}
	return sum
}

// Cross returns where the horizontal line at height y lies inside the region,
// as pairs of x, from left to right.
func (g Region) Cross(y float64) [][2]float64 {
	var xs []float64
	for _, r := range g.rings {
		for i, a := range r {
			if b := r[(i+1)%len(r)]; (a.Y > y) != (b.Y > y) {
				xs = append(xs, a.X+(y-a.Y)/(b.Y-a.Y)*(b.X-a.X))
			}
		}
	}
	for i := 1; i < len(xs); i++ {
		for j := i; j > 0 && xs[j] < xs[j-1]; j-- {
			xs[j], xs[j-1] = xs[j-1], xs[j]
		}
	}
	var out [][2]float64
	for i := 0; i+1 < len(xs); i += 2 {
		out = append(out, [2]float64{xs[i], xs[i+1]})
	}
	return out
}

// edgeGrid buckets sides into square cells so that near ones are found fast.
type edgeGrid struct {
	box  Box
	cell float64
	nx   int
	ny   int
	at   [][]edge
}

func newEdgeGrid(es []edge, b Box) *edgeGrid {
	g := &edgeGrid{box: b}
	g.cell = math.Max(math.Max(b.W(), b.H())/32, 0.05)
	g.nx, g.ny = int(b.W()/g.cell)+1, int(b.H()/g.cell)+1
	g.at = make([][]edge, g.nx*g.ny)
	for _, e := range es {
		x0, x1 := g.col(math.Min(e.a.X, e.b.X)), g.col(math.Max(e.a.X, e.b.X))
		y0, y1 := g.row(math.Min(e.a.Y, e.b.Y)), g.row(math.Max(e.a.Y, e.b.Y))
		for y := y0; y <= y1; y++ {
			for x := x0; x <= x1; x++ {
				g.at[y*g.nx+x] = append(g.at[y*g.nx+x], e)
			}
		}
	}
	return g
}

func (g *edgeGrid) col(x float64) int {
	return min(g.nx-1, max(0, int((x-g.box.Min.X)/g.cell)))
}

func (g *edgeGrid) row(y float64) int {
	return min(g.ny-1, max(0, int((y-g.box.Min.Y)/g.cell)))
}

func (g *edgeGrid) within(p Point, tol float64) bool {
	for y := g.row(p.Y - tol); y <= g.row(p.Y+tol); y++ {
		for x := g.col(p.X - tol); x <= g.col(p.X+tol); x++ {
			for _, e := range g.at[y*g.nx+x] {
				if p.Distance(nearest(p, e)) <= tol {
					return true
				}
			}
		}
	}
	return false
}

// Overlaps reports whether two regions have area in common: an edge of one
// crosses an edge of the other, or one lies in the other. Regions that only
// touch may be reported either way.
func (g Region) Overlaps(h Region) bool {
	if g.Empty() || h.Empty() || !g.Bounds().Meets(h.Bounds()) {
		return false
	}
	if g.Contains(h.insides()[0]) || h.Contains(g.insides()[0]) {
		return true
	}
	hs := h.edgesIn(g.Bounds())
	for _, a := range g.edgesIn(h.Bounds()) {
		for _, b := range hs {
			if crosses(a, b) {
				return true
			}
		}
	}
	for _, p := range append(g.insides()[:len(g.rings):len(g.rings)], h.insides()...) {
		if g.Contains(p) && h.Contains(p) {
			return true
		}
	}
	return false
}

// Covers reports whether h lies wholly inside g: no edge of one crosses the
// other's and every ring of h begins inside. Regions that touch along an edge
// may be reported as not covered.
func (g Region) Covers(h Region) bool {
	gb, hb := g.Bounds(), h.Bounds()
	if hb.Min.X < gb.Min.X || hb.Min.Y < gb.Min.Y || hb.Max.X > gb.Max.X || hb.Max.Y > gb.Max.Y {
		return false
	}
	for _, r := range h.rings {
		if !g.Contains(r[0]) {
			return false
		}
	}
	// A hole of g inside h would show through without any edges crossing.
	for _, r := range g.rings {
		if r.Area() < 0 && h.Contains(r[0]) {
			return false
		}
	}
	hs := h.edges()
	for _, a := range g.edges() {
		if max(a.a.X, a.b.X) < hb.Min.X || min(a.a.X, a.b.X) > hb.Max.X || max(a.a.Y, a.b.Y) < hb.Min.Y || min(a.a.Y, a.b.Y) > hb.Max.Y {
			continue
		}
		for _, b := range hs {
			if apart(a, b) {
				continue
			}
			if crosses(a, b) || nearest(b.a, a).Distance(b.a) < Grid {
				return false
			}
		}
	}
	return true
}

// apart reports whether the boxes of two sides lie apart by more than the grid.
func apart(a, b edge) bool {
	return min(a.a.X, a.b.X) > max(b.a.X, b.b.X)+Grid || max(a.a.X, a.b.X)+Grid < min(b.a.X, b.b.X) ||
		min(a.a.Y, a.b.Y) > max(b.a.Y, b.b.Y)+Grid || max(a.a.Y, a.b.Y)+Grid < min(b.a.Y, b.b.Y)
}

func crosses(a, b edge) bool {
	d, e := a.b.Sub(a.a), b.b.Sub(b.a)
	return d.Cross(b.a.Sub(a.a))*d.Cross(b.b.Sub(a.a)) < 0 && e.Cross(a.a.Sub(b.a))*e.Cross(a.b.Sub(b.a)) < 0
}

// HullLength is the length of a taut line round the points: the perimeter of their
// convex hull.
func HullLength(ps []Point) float64 { return Hull(ps).Length() }

// Strays returns how far points spread along the edges of g, step mm apart,
// lie from the edges of h, in mm: the one-sided distances of which Hausdorff's
// is the greatest.
func (g Region) Strays(h Region, step float64) []float64 {
	hs := h.edges()
	var out []float64
	for _, e := range g.edges() {
		n := max(1, int(math.Ceil(e.a.Distance(e.b)/step)))
		for i := range n {
			p := e.a.Add(e.b.Sub(e.a).Scale((float64(i) + 0.5) / float64(n)))
			d := math.Inf(1)
			for _, f := range hs {
				d = math.Min(d, p.Distance(nearest(p, f)))
			}
			out = append(out, d)
		}
	}
	return out
}

// EdgeDistance is the distance of a point from the nearest edge of g, mm; positive
// infinity for an empty region.
func (g Region) EdgeDistance(p Point) float64 {
	best := math.Inf(1)
	for _, e := range g.edges() {
		d := e.b.Sub(e.a)
		t := 0.0
		if l2 := d.Dot(d); l2 > 0 {
			t = math.Max(0, math.Min(1, p.Sub(e.a).Dot(d)/l2))
		}
		best = math.Min(best, p.Distance(e.a.Add(d.Scale(t))))
	}
	return best
}

// Polar is the point at a distance from the origin in the direction of an angle
// (0 is to the right, 90 down, clockwise on screen).
func Polar(r, deg float64) Point {
	s, c := math.Sincos(deg * math.Pi / 180)
	return Point{r * c, r * s}
}
