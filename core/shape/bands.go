package shape

import "math"

// Bands is a region made ready to be asked often which points it contains: its edges by
// horizontal bands, so that only those at the height of a point are looked at.
type Bands struct {
	box  Box
	high float64 // of a band
	rows [][][2]Point
}

// Banded makes a region ready.
func Banded(g Region) *Bands {
	b := &Bands{box: g.Bounds()}
	n := 0
	for _, r := range g.rings {
		n += len(r)
	}
	rows := max(1, min(n/2, 512))
	b.high = b.box.H() / float64(rows)
	if !(b.high > 0) {
		rows, b.high = 1, math.Inf(1)
	}
	b.rows = make([][][2]Point, rows)
	for _, r := range g.rings {
		for i, p := range r {
			q := r[(i+1)%len(r)]
			if p.Y == q.Y {
				continue // crosses no height
			}
			from, to := b.row(min(p.Y, q.Y)), b.row(max(p.Y, q.Y))
			for k := from; k <= to; k++ {
				b.rows[k] = append(b.rows[k], [2]Point{p, q})
			}
		}
	}
	return b
}

func (b *Bands) row(y float64) int {
	return max(0, min(len(b.rows)-1, int((y-b.box.Min.Y)/b.high)))
}

// Contains reports whether p lies inside, for the region as Region.Contains does.
func (b *Bands) Contains(p Point) bool {
	if !(p.Y >= b.box.Min.Y && p.Y <= b.box.Max.Y && p.X <= b.box.Max.X && p.X >= b.box.Min.X) {
		return false
	}
	in := false
	for _, e := range b.rows[b.row(p.Y)] {
		a, c := e[0], e[1]
		if (a.Y > p.Y) != (c.Y > p.Y) && p.X < a.X+(p.Y-a.Y)/(c.Y-a.Y)*(c.X-a.X) {
			in = !in
		}
	}
	return in
}
