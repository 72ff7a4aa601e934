package layout

import (
	"math"
	"math/rand/v2"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Frame lays pieces of w by h mm along the edges of a box, their middles so far inside it
// (below 0 outside), with about gap mm between neighbours along the line; below 0 they
// overlap. Each is turned to look outwards. Corners hold a piece each, and every side is
// shared out evenly, so that the frame closes. It returns ErrFew where the line is shorter
// than four pieces.
func Frame(w, gap, inside float64, in shape.Box) ([]card.Place, error) {
	l, t := in.Min.X+inside, in.Min.Y+inside
	r, b := in.Max.X-inside, in.Max.Y-inside
	step := w + gap
	if step <= 0 || r-l < step || b-t < step {
		return nil, ErrFew
	}
	corner := []shape.Point{{X: l, Y: t}, {X: r, Y: t}, {X: r, Y: b}, {X: l, Y: b}}
	var out []card.Place
	for i, from := range corner {
		to := corner[(i+1)%4]
		n := max(1, int(math.Round(from.Distance(to)/step)))
		for k := range n {
			p := from.Add(to.Sub(from).Scale(float64(k) / float64(n)))
			turn := float64(i) * 90
			if k == 0 {
				turn -= 45
			}
			out = append(out, card.Place{X: p.X, Y: p.Y, Turn: math.Remainder(turn, 360)})
		}
	}
	return out, nil
}

// tries is how many places are looked at for each piece that is scattered: the one that
// lies furthest from all others is taken (Mitchell 1991, best candidate).
const tries = 24

// Scatter lays n pieces of a size across, mm, over a box as if thrown, each turned at
// random, no two much nearer than they have to be; the same seed gives the same throw.
func Scatter(n int, size float64, in shape.Box, seed uint64) ([]card.Place, error) {
	if n < 1 {
		return nil, ErrFew
	}
	r := rand.New(rand.NewPCG(seed, 7))
	m := min(size/2, in.W()/2, in.H()/2)
	at := func() shape.Point {
		return shape.Point{X: in.Min.X + m + r.Float64()*(in.W()-2*m), Y: in.Min.Y + m + r.Float64()*(in.H()-2*m)}
	}
	var out []card.Place
	for range n {
		var best shape.Point
		far := -1.0
		for range tries {
			p := at()
			near := math.Inf(1)
			for _, o := range out {
				near = min(near, math.Hypot(o.X-p.X, o.Y-p.Y))
			}
			if near > far {
				best, far = p, near
			}
		}
		out = append(out, card.Place{X: best.X, Y: best.Y, Turn: math.Round(360*r.Float64() - 180)})
	}
	return out, nil
}

// Sized is a sort of piece a field is filled with.
type Sized struct {
	Radius float64 // of a disc as large as it, mm
}

// Filled is a field that was filled.
type Filled struct {
	Places []card.Place
	Of     []int         // which sort each is
	Gaps   []shape.Point // middles of what stays bare
	Widest float64       // of the gaps, across, mm
	Cover  float64       // share of the field that is covered, by discs as large as the pieces
}

// fieldStep is how finely a field is looked at, mm.
const fieldStep = 1.0

// Field fills a box with pieces of several sorts, the largest first: each next one goes
// where it covers most of what is still bare, lying over its neighbours by a share of its
// size at the most, from 0 to 0.9. Middles lie inside the box, so that pieces run over its
// edge. Nothing is laid where keep says so. It stops when no gap is left that a piece of
// the smallest sort would fill to half, or at most pieces.
func Field(sorts []Sized, overlap float64, most int, in shape.Box, keep func(shape.Point) bool) Filled {
	out := Filled{}
	order := make([]int, len(sorts))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		if sorts[a].Radius > sorts[b].Radius {
			return -1
		}
		return 1
	})
	nx, ny := max(1, int(in.W()/fieldStep)), max(1, int(in.H()/fieldStep))
	dx, dy := in.W()/float64(nx), in.H()/float64(ny)
	type cell struct {
		p    shape.Point
		near float64 // to the nearest piece's edge, below 0 within one
		kept bool
	}
	cells := make([]cell, 0, nx*ny)
	for j := range ny {
		for i := range nx {
			p := shape.Point{X: in.Min.X + (float64(i)+0.5)*dx, Y: in.Min.Y + (float64(j)+0.5)*dy}
			// The edge counts as far away: pieces may run over it.
			cells = append(cells, cell{p: p, near: math.Inf(1), kept: keep != nil && keep(p)})
		}
	}
	lay := func(sort int, p shape.Point) {
		r := sorts[sort].Radius
		for i := range cells {
			cells[i].near = min(cells[i].near, cells[i].p.Distance(p)-r)
		}
		n := len(out.Places)
		out.Places = append(out.Places, card.Place{X: p.X, Y: p.Y, Turn: math.Remainder(float64(n)*goldenAngle, 360)})
		out.Of = append(out.Of, sort)
	}
	for _, s := range order {
		r := sorts[s].Radius
		// A piece may lie over others by so much of its radius, and has to fill a gap that is
		// worth one.
		least := max(r*(1-2*overlap), r*fillsHalf)
		for len(out.Places) < most {
			best, far := -1, math.Inf(-1)
			for i, c := range cells {
				if c.kept {
					continue
				}
				near := c.near
				if math.IsInf(near, 1) {
					// The first goes a radius from the corner, the next along.
					near = 1e3 - c.p.X - c.p.Y
				}
				if near > far {
					best, far = i, near
				}
			}
			if best < 0 || far < least {
				break
			}
			lay(s, cells[best].p)
		}
	}
	bare, open := 0, 0
	for _, c := range cells {
		if c.kept {
			continue
		}
		open++
		if c.near > 0 {
			bare++
		}
	}
	if open > 0 {
		out.Cover = 1 - float64(bare)/float64(open)
	}
	// Gaps, widest first, each counted once.
	for len(out.Gaps) < mostGaps {
		best, far := -1, leastGap
		for i, c := range cells {
			if !c.kept && c.near > far && !slices.ContainsFunc(out.Gaps, func(g shape.Point) bool { return g.Distance(c.p) < 2*c.near+2 }) {
				best, far = i, c.near
			}
		}
		if best < 0 {
			break
		}
		out.Gaps = append(out.Gaps, cells[best].p)
		out.Widest = max(out.Widest, 2*far)
	}
	return out
}

// Our own defaults.
const (
	goldenAngle = 137.50776405 // degrees: no two neighbours look the same way
	fillsHalf   = 0.25         // of the radius that a gap reaches from the next piece's edge at least
	mostGaps    = 40
	leastGap    = 1.0 // mm, radius of a gap worth a trimming
)
