package assemble

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// fallBack puts a piece with no edge to go by in the middle of the smallest one that can
// hold it, where that has a middle to the eye and so has the piece; else it is laid beside.
func (a *assembler) fallBack(i int) {
	g := a.pieces[i]
	best := -1
	for n, p := range a.out {
		b, own := p.Outline.Bounds(), g.Bounds()
		if p.Host < 0 && n > 0 || b.W() < own.W() || b.H() < own.H() || a.twinOn(i, n) || a.full(n) {
			continue
		}
		if best < 0 || whole(p.Outline) < whole(a.out[best].Outline) {
			best = n
		}
	}
	if best < 0 || a.twinned(i) || !centred(g) || !centred(a.out[best].Outline) {
		a.beside(i)
		return
	}
	host := a.out[best]
	turn := 0.0
	if mine, ok := Axis(g); ok {
		if its, ok := Axis(host.Outline); ok {
			turn = math.Remainder(its.Deg-mine.Deg, 180)
		}
	}
	m := register.Motion{Turn: turn}
	m.Move = host.Outline.Centroid().Sub(m.Point(g.Centroid()))
	a.add(Placed{Piece: i, Motion: m, Host: best, Fit: kit.FitFree, alone: centreSure, Sure: centreSure * host.Sure, share: 1, Why: fmt.Sprintf("in the middle of piece %d, as both look the same from two sides", host.Piece+1)})
}

// covered is the largest share of a region that lies on one piece of those on the base.
func (a *assembler) covered(g shape.Region) (most float64) {
	for n, q := range a.out {
		if n == 0 || q.Host != 0 || q.aside || !g.Bounds().Meets(q.Outline.Bounds()) {
			continue
		}
		if both, err := g.Intersect(q.Outline.Filled()); err == nil {
			most = math.Max(most, both.Area()/g.Area())
		}
	}
	return most
}

func (a *assembler) ownMirror(i int) bool {
	_, ok := Axis(a.pieces[i])
	return ok
}

// twinned reports whether another piece has the same outline, or its mirror image.
func (a *assembler) twinned(i int) bool {
	for j, g := range a.pieces {
		if j != i && Twins(a.pieces[i], g) != NotTwins {
			return true
		}
	}
	return false
}

// centreSure is how sure a piece is that lies in the middle of another for no better reason.
const centreSure = 0.38

// full reports whether something lies in the middle of piece n already.
func (a *assembler) full(n int) bool {
	c := a.out[n].Outline.Centroid()
	return slices.ContainsFunc(a.out, func(q Placed) bool {
		return q.Host == n && q.Outline.Centroid().Distance(c) < 0.5
	})
}

// centred reports whether a piece looks the same turned by half, so that it has a middle.
func centred(g shape.Region) bool {
	own := g.Filled()
	return apart(own, own.Turn(180, own.Centroid())) < math.Max(0.12, 0.006*math.Sqrt(own.Area()))
}

// mirrored puts a piece across the base's axis from its mirror twin, where one lies on one side
// of it and nothing lies there yet, if that is surer than what it would go by itself.
func (a *assembler) mirrored(i int, sure float64) bool {
	if !a.upright {
		return false
	}
	for n, q := range a.out {
		if q.Sure*acrossSure <= sure || q.Host < 0 || Twins(a.pieces[i], a.pieces[q.Piece]) != Mirror {
			continue
		}
		to := q.Outline.Mirror(0)
		c := to.Centroid()
		if math.Abs(c.X) < 1 || a.taken(to, n) {
			continue
		}
		m := turning(a.pieces[i], to)
		a.add(Placed{Piece: i, Motion: m, Host: q.Host, Fit: q.Fit, Rim: q.Rim, alone: acrossSure, twin: n + 1, share: 1, Sure: q.Sure * acrossSure, Why: fmt.Sprintf("across the axis from its mirror twin, piece %d", q.Piece+1)})
		return true
	}
	return false
}

// acrossSure is how sure a place across the axis is, against the twin's own.
const acrossSure = 0.9

// taken reports whether a piece of the same shape lies at a place already.
func (a *assembler) taken(at shape.Region, but int) bool {
	for n, q := range a.out {
		if n != but && q.Outline.Centroid().Distance(at.Centroid()) < 1 && math.Abs(q.Outline.Area()-at.Area()) < 0.1*at.Area() {
			return true
		}
	}
	return false
}

// turning is the motion that lays g on a region of the same outline.
func turning(g, on shape.Region) register.Motion {
	from, to := g.Centroid(), on.Centroid()
	deg := turnOnto(g.Move(from.Scale(-1)), on.Move(to.Scale(-1)))
	m := register.Motion{Turn: deg}
	m.Move = to.Sub(m.Point(from))
	return m
}
