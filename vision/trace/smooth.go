package trace

import "math"

// Shape of corners, in pixels along the line: beyond cornerRound the blur of
// the picture no longer rounds the sides, over cornerSide they are looked at.
const (
	cornerRound = 2
	cornerSide  = 8
	cornerTurn  = 28.0 // degrees
	cornerCurve = 0.2  // the share of its turn that a side may itself turn
)

// window is how far, in pixels along the line each way, points are smoothed.
const window = 5

// corner is a real corner of a line.
type corner struct {
	i  int
	at xy
}

// smooth takes the noise out of a line with points a pixel apart: between
// corners every point moves to the parabola through its neighbours, and
// corners are drawn out to where their sides meet.
func smooth(l []xy) []xy {
	l = resample(l, 1)
	n := len(l)
	if n < 3*cornerSide {
		return parabola(l, nil)
	}
	cs := corners(l)
	out := parabola(l, cs)
	if len(cs) == 0 {
		return out
	}
	drop := make([]bool, n)
	for _, c := range cs {
		for k := -cornerRound; k <= cornerRound; k++ {
			drop[(c.i+k+n)%n] = true
		}
	}
	at := map[int]xy{}
	for _, c := range cs {
		at[c.i] = c.at
	}
	kept := out[:0:0]
	for i, p := range out {
		if q, ok := at[i]; ok {
			kept = append(kept, q)
		} else if !drop[i] {
			kept = append(kept, p)
		}
	}
	return kept
}

// corners finds where a line turns sharply between sides that are themselves
// nearly straight.
func corners(l []xy) []corner {
	n := len(l)
	at := func(i int) xy { return l[((i%n)+n)%n] }
	heading := func(i, j int) float64 { a, b := at(i), at(j); return math.Atan2(b.y-a.y, b.x-a.x) }
	turn := make([]float64, n)
	for i := range l {
		turn[i] = bend(heading(i-cornerSide+2, i-cornerRound), heading(i+cornerRound, i+cornerSide-2))
	}
	var out []corner
	limit := cornerTurn * math.Pi / 180
	for i := range l {
		t := math.Abs(turn[i])
		if t < limit {
			continue
		}
		top := true
		for k := -cornerSide + 2; k <= cornerSide-2; k++ {
			if u := math.Abs(turn[(i+k+n)%n]); u > t || u == t && k < 0 {
				top = false
				break
			}
		}
		if !top {
			continue
		}
		half := (cornerSide + cornerRound) / 2
		before := bend(heading(i-cornerSide, i-half), heading(i-half, i-cornerRound))
		after := bend(heading(i+cornerRound, i+half), heading(i+half, i+cornerSide))
		if math.Max(math.Abs(before), math.Abs(after)) > math.Max(cornerCurve*t, 0.08) {
			continue
		}
		if q, ok := meet(side(at, i-cornerSide, i-cornerRound-1), side(at, i+cornerRound+1, i+cornerSide)); ok && math.Hypot(q.x-l[i].x, q.y-l[i].y) < cornerRound+0.5 {
			out = append(out, corner{i, q})
		}
	}
	return out
}

// bend is the turn from one heading to another, radians, -π to π.
func bend(a, b float64) float64 { return math.Remainder(b-a, 2*math.Pi) }

// straight is a line through p along d.
type straight struct{ p, d xy }

// side fits a straight line to points i to j (total least squares).
func side(at func(int) xy, i, j int) straight {
	var m xy
	k := float64(j - i + 1)
	for q := i; q <= j; q++ {
		m.x, m.y = m.x+at(q).x/k, m.y+at(q).y/k
	}
	var xx, xy2, yy float64
	for q := i; q <= j; q++ {
		dx, dy := at(q).x-m.x, at(q).y-m.y
		xx, xy2, yy = xx+dx*dx, xy2+dx*dy, yy+dy*dy
	}
	a := 0.5 * math.Atan2(2*xy2, xx-yy)
	return straight{m, xy{math.Cos(a), math.Sin(a)}}
}

// meet is where two straight lines cross.
func meet(a, b straight) (xy, bool) {
	det := a.d.x*b.d.y - a.d.y*b.d.x
	if math.Abs(det) < 0.15 {
		return xy{}, false
	}
	t := ((b.p.x-a.p.x)*b.d.y - (b.p.y-a.p.y)*b.d.x) / det
	return xy{a.p.x + t*a.d.x, a.p.y + t*a.d.y}, true
}

// parabola moves every point to the least-squares parabola through the points
// round it (Savitzky and Golay, Analytical Chemistry 36, 1964), never looking
// past a corner.
func parabola(l []xy, cs []corner) []xy {
	n := len(l)
	room := make([]int, n)
	for i := range room {
		room[i] = min(window, (n-1)/4)
	}
	for _, c := range cs {
		for k := -window - cornerRound; k <= window+cornerRound; k++ {
			i := (c.i + k + n) % n
			room[i] = min(room[i], max(0, int(math.Abs(float64(k)))-cornerRound))
		}
	}
	out := make([]xy, n)
	for i := range l {
		m := room[i]
		if m < 2 {
			out[i] = l[i]
			continue
		}
		// Weights of the value at the middle of a parabola over 2m+1 points.
		s0, s2, s4 := 0.0, 0.0, 0.0
		for k := -m; k <= m; k++ {
			q := float64(k * k)
			s0, s2, s4 = s0+1, s2+q, s4+q*q
		}
		var p xy
		for k := -m; k <= m; k++ {
			w := (s4 - s2*float64(k*k)) / (s0*s4 - s2*s2)
			q := l[(i+k+n)%n]
			p.x, p.y = p.x+w*q.x, p.y+w*q.y
		}
		out[i] = p
	}
	return out
}
