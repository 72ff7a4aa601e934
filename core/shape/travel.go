package shape

import (
	"cmp"
	"math"
	"slices"
)

// Course asks how far one region can move before its boundary meets that of
// another, for many directions in turn. It is not safe for use by several
// goroutines at once.
type Course struct{ moving, standing flight }

// NewCourse prepares the movement of g towards the boundary of h.
func NewCourse(g, h Region) *Course {
	return &Course{moving: newFlight(g, h), standing: newFlight(h, g)}
}

// Travel returns how far g can move in the direction of angle deg (0 is to the
// right, 90 down, clockwise on screen) before its boundary meets the boundary
// of h, in mm: exact for polygons, since the first meeting is of a corner of
// one with a side of the other. Positive infinity when they never meet.
func (c *Course) Travel(deg float64) float64 {
	s, k := math.Sincos(deg * math.Pi / 180)
	d := Point{k, s}
	best := c.moving.firstHit(d, math.Inf(1))
	return c.standing.firstHit(Point{-k, -s}, best)
}

// Travel returns how far g can move in the direction of angle deg before its
// boundary meets that of h, like Course.Travel for one direction alone.
func (g Region) Travel(h Region, deg float64) float64 { return NewCourse(g, h).Travel(deg) }

// flight is a set of points flying towards edges.
type flight struct {
	points []Point
	edges  []edge
	at     []across // the points seen along the last direction, sorted across
	last   Point
}

// across is a point seen along a direction: u across it, v along it.
type across struct {
	u, v  float64
	point int
}

func newFlight(g, h Region) flight {
	f := flight{points: g.corners(), edges: h.edges()}
	f.at = make([]across, len(f.points))
	for i := range f.at {
		f.at[i].point = i
	}
	return f
}

// near is the cosine between two directions so close that the order of the
// points across hardly changes, and sorting by insertion is quickest.
const near = 0.98

// firstHit is the least t ≥ 0 under best at which some p + t·d lies on some
// edge, or best.
func (f *flight) firstHit(d Point, best float64) float64 {
	n := Point{-d.Y, d.X}
	for i := range f.at {
		p := f.points[f.at[i].point]
		f.at[i].u, f.at[i].v = p.Dot(n), p.Dot(d)
	}
	// Across the direction every edge spans an interval, and only points inside
	// it can meet the edge: keep the points sorted across.
	if f.last.Dot(d) > near {
		for i := 1; i < len(f.at); i++ {
			a, j := f.at[i], i
			for ; j > 0 && f.at[j-1].u > a.u; j-- {
				f.at[j] = f.at[j-1]
			}
			f.at[j] = a
		}
	} else {
		slices.SortFunc(f.at, func(a, b across) int { return cmp.Compare(a.u, b.u) })
	}
	f.last = d
	for _, e := range f.edges {
		u0, u1 := e.a.Dot(n), e.b.Dot(n)
		v0, v1 := e.a.Dot(d), e.b.Dot(d)
		best = f.hitEdge(u0, u1, v0, v1, best)
	}
	return best
}

// graze is how far beside the end of an edge a point still meets it, in mm:
// without it two corners that meet tip to tip would fly past each other by
// rounding alone.
const graze = 1e-9

// hitEdge is the least t ≥ 0 under best at which a point reaches the edge from
// (u0, v0) to (u1, v1), or best.
func (f *flight) hitEdge(u0, u1, v0, v1, best float64) float64 {
	lo, hi := min(u0, u1)-graze, max(u0, u1)+graze
	first, last := min(v0, v1), max(v0, v1)
	i, j := 0, len(f.at)
	for i < j {
		if m := int(uint(i+j) >> 1); f.at[m].u < lo {
			i = m + 1
		} else {
			j = m
		}
	}
	for ; i < len(f.at) && f.at[i].u <= hi; i++ {
		p := f.at[i]
		if p.v > last || first-p.v > best {
			continue
		}
		v := first
		switch {
		case math.Abs(u1-u0) > graze:
			v = min(max(v0+(p.u-u0)/(u1-u0)*(v1-v0), first), last)
		case first < p.v:
			v = p.v // the point already lies on a side parallel to the direction
		}
		if t := v - p.v; t >= 0 && t < best {
			best = t
		}
	}
	return best
}
