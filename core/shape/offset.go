package shape

import (
	"fmt"
	"math"

	"github.com/tdewolff/canvas"
)

// Offset grows the region by d mm all round, or shrinks it when d is
// negative; corners are rounded when growing.
//
// Every side is swept by d along its outward normal and every corner by the
// arc between the normals of its sides; the swept rings together wind round
// exactly the points of the answer a positive number of times.
func (g Region) Offset(d float64) (Region, error) {
	if d == 0 || g.Empty() {
		return g, nil
	}
	for i, by := range []float64{d, d * (1 + 1e-4), d * (1 - 1e-4)} {
		if out, ok := g.sweep(by); ok {
			return out, nil
		} else if i == 0 && math.Abs(d) < Grid {
			return g, nil // less than the lattice holds
		}
	}
	return Region{}, fmt.Errorf("offset by %.2f mm: %w", d, ErrBoolean)
}

// sweep is the offset in one piece, and whether it can be trusted.
func (g Region) sweep(d float64) (out Region, ok bool) {
	defer func() {
		if recover() != nil { // as in try
			out, ok = Region{}, false
		}
	}()
	rings := make([]Ring, len(g.rings))
	for i, r := range g.rings {
		rings[i] = r.swept(d)
	}
	out = fromPath(toPath(rings).Settle(canvas.Positive)).Simplify(Tolerance / 8)
	return out, g.offsetHolds(out, d)
}

// swept is the ring with its sides moved outward by d. Where two moved sides
// part, an arc joins them; where they cross, the ring goes by way of the
// corner, which keeps the winding of the sweep right.
func (r Ring) swept(d float64) Ring {
	var out Ring
	step := 2 * math.Acos(1-math.Min(0.5, Tolerance/4/math.Abs(d)))
	normal, long := make([]Point, len(r)), make([]float64, len(r))
	for i, p := range r {
		t := r[(i+1)%len(r)].Sub(p)
		long[i] = t.Len()
		normal[i] = Point{t.Y, -t.X}.Scale(1 / math.Max(t.Len(), 1e-12))
	}
	for i, p := range r {
		a, b := normal[(i+len(r)-1)%len(r)], normal[i]
		out = append(out, p.Add(a.Scale(d)))
		turn := math.Atan2(a.Cross(b), a.Dot(b))
		if turn*d > 0 {
			n := int(math.Ceil(math.Abs(turn) / step))
			for k := 1; k < n; k++ {
				s, c := math.Sincos(turn * float64(k) / float64(n))
				out = append(out, p.Add(Point{a.X*c - a.Y*s, a.X*s + a.Y*c}.Scale(d)))
			}
		} else if mid, ok := crossing(a, b, turn, d, long[(i+len(r)-1)%len(r)], long[i]); ok {
			out[len(out)-1] = p.Add(mid)
			continue
		} else {
			out = append(out, p)
		}
		out = append(out, p.Add(b.Scale(d)))
	}
	return out
}

// crossing is where two sides of a ring, moved by d along their normals a and b, cross, as seen from
// the corner between them; false where one of them, so long, mm, does not reach it well.
func crossing(a, b Point, turn, d, la, lb float64) (Point, bool) {
	off := math.Abs(d * math.Tan(turn/2))
	if off > 0.45*math.Min(la, lb) {
		return Point{}, false
	}
	return a.Add(b).Scale(d / (1 + a.Dot(b))), true
}

// offsetHolds checks an offset: every corner of it stands d from the edges of
// the region, and its area lies within what the edges can sweep.
func (g Region) offsetHolds(out Region, d float64) bool {
	area, was, tol := out.Area(), g.Area(), slack(g, out)
	most := math.Abs(d)*g.Length() + 2*math.Pi*d*d*float64(len(g.rings))
	if d > 0 && (area < was-tol || area > was+most+tol) || d < 0 && (area > was+tol || area < was-2*most-tol) {
		return false
	}
	b := g.Bounds()
	pad := Point{math.Abs(d), math.Abs(d)}
	near := newEdgeGrid(g.edges(), Box{b.Min.Sub(pad), b.Max.Add(pad)})
	slip := 2*Tolerance + 1e-3*math.Abs(d)
	for _, r := range out.rings {
		for _, p := range r {
			if near.within(p, math.Abs(d)-slip) || !near.within(p, math.Abs(d)+slip) {
				return false
			}
		}
	}
	return true
}
