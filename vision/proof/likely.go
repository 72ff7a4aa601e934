package proof

import (
	"math"

	"ochrestone/core/shape"
	"ochrestone/core/together"
)

// Numbers of whether a layer lies where it was found.
const (
	aside      = 0.6 // mm it is moved to see what that costs
	stretches  = 3.0 // mm; the squares its edges are looked at by
	directions = 8
	clearly    = 3.0 // standard errors by which a place must be better than another
)

// holds is how much of a layer's edges say that it lies where it was found, -1 to 1: it is
// moved a little in every direction, and of what the squares along its edges then miss
// more, what they miss less is taken away. In a print of this image all agree, however
// patchy, grainy or oddly toned it is; where a layer only came to rest somewhere, they
// do not.
func (m *model) holds(p *Plane, i int) float64 {
	l := &m.layers[i]
	o := m.stakes(p, l.around(2*aside), i)
	w, h := int(float64(o.w)/p.perMM/stretches)+1, int(float64(o.h)/p.perMM/stretches)+1
	at := l.pose
	sin, cos := math.Sincos(at.turn)
	type place struct {
		q      shape.Point
		k, in  int
		covers float32
	}
	var edge []place // only what lies so near an edge can change
	for y := range o.h {
		for x := range o.w {
			q := shape.Point{X: (float64(x+o.x0) + 0.5) / p.perMM, Y: (float64(y+o.y0) + 0.5) / p.perMM}
			if d := l.inside(q.X, q.Y, sin, cos, m.scale); math.Abs(d) < aside+m.soft {
				edge = append(edge, place{q, y*o.w + x, int(float64(y)/p.perMM/stretches)*w + int(float64(x)/p.perMM/stretches), m.share(d)})
			}
		}
	}
	said, against := make([]float64, directions), make([]float64, directions)
	together.By(directions, func(k int) {
		dy, dx := math.Sincos(2 * math.Pi * float64(k) / directions)
		there := *l
		there.pose.x, there.pose.y = at.x+aside*dx, at.y+aside*dy
		more := make([]float64, w*h)
		for _, e := range edge {
			a, b := e.covers, m.share(there.inside(e.q.X, e.q.Y, sin, cos, m.scale))
			s := o.v[e.k]
			more[e.in] += float64((b-a)*s.lean + (b*b-a*a)*s.bow)
		}
		for _, v := range more {
			said[k] += math.Max(0, v)
			against[k] += math.Max(0, -v)
		}
	})
	yes, no := 0.0, 0.0
	for k := range directions {
		yes, no = yes+said[k], no+against[k]
	}
	return (yes - no) / math.Max(1e-12, yes+no)
}

// elsewhere is the best other place of a layer, while the others stay where they are, and
// whether the picture fits it nearly as well: what the squares of the print miss more there
// does not clearly outweigh what they miss less.
func (m *model) elsewhere(p *Plane, i int) (there pose, doubtful bool) {
	l := &m.layers[i]
	o := m.stakes(p, l.around(3), i)
	found := l.pose
	defer func() { l.pose = found }()
	for _, q := range m.minima(o, p, i, tried) {
		r := m.refine(o, p, i, q.pose)
		// Another turn of the same place is told by how sure the turn is.
		if math.Hypot(r.pose.x-found.x, r.pose.y-found.y) < apart/2 {
			continue
		}
		var sum, square float64
		for _, v := range m.cost(o, p, i, found, r.pose) {
			sum, square = sum+v, square+v*v
		}
		if sum < clearly*math.Sqrt(square) {
			return r.pose, true
		}
	}
	return found, false
}

// cost is what every square misses more when layer i lies there and not here.
func (m *model) cost(o *stakes, p *Plane, i int, here, there pose) []float64 {
	at, to := m.layers[i], m.layers[i]
	at.pose, to.pose = here, there
	w, h := int(float64(o.w)/p.perMM/stretches)+1, int(float64(o.h)/p.perMM/stretches)+1
	out := make([]float64, w*h)
	s0, c0 := math.Sincos(here.turn)
	s1, c1 := math.Sincos(there.turn)
	for y := range o.h {
		for x := range o.w {
			q := shape.Point{X: (float64(x+o.x0) + 0.5) / p.perMM, Y: (float64(y+o.y0) + 0.5) / p.perMM}
			a, b := m.share(at.inside(q.X, q.Y, s0, c0, m.scale)), m.share(to.inside(q.X, q.Y, s1, c1, m.scale))
			if a != b {
				s := o.v[y*o.w+x]
				out[int(float64(y)/p.perMM/stretches)*w+int(float64(x)/p.perMM/stretches)] += float64((b-a)*s.lean + (b*b-a*a)*s.bow)
			}
		}
	}
	return out
}

// share is how much of a place is covered that lies so far inside, mm.
func (m *model) share(inside float64) float32 {
	return float32(math.Max(0, math.Min(1, 0.5+inside/m.soft)))
}
