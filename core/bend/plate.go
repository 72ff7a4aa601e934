package bend

import (
	"math"

	"ochrestone/core/shape"
)

// plate is a leaf on its grid, with what bears it.
type plate struct {
	from   shape.Point
	cell   float64
	nx, ny int
	node   []int     // by place on the grid, row by row: its number, -1 outside
	place  []int     // by number
	area   []float64 // by number: of the leaf about the node, mm²
	bends  matrix    // of bending alone
	on     []spring
	w      []float64 // heights by number, mm
	push   []bool    // by bearing: it bore something the last time
	began  bool
	slack  float64 // by how much what touches may be off, mm

	full matrix // with what touches; kept for its room
}

// spring is a bearing on the grid.
type spring struct {
	node   [4]int
	share  [4]float64
	z      float64
	stiff  float64 // N a mm
	pushes float64 // stiffness by area, N/mm² a mm
}

func newPlate(l Leaf, on []Bearing) *plate {
	p := &plate{cell: l.Cell}
	if p.cell <= 0 {
		p.cell = Size(l.Outline)
	}
	box := l.Outline.Bounds()
	// The grid stands even about the leaf.
	cx, cy := max(1, int(math.Ceil(box.W()/p.cell-1e-9))), max(1, int(math.Ceil(box.H()/p.cell-1e-9)))
	p.from = shape.Point{X: box.Centre().X - float64(cx)*p.cell/2, Y: box.Centre().Y - float64(cy)*p.cell/2}
	p.nx, p.ny = cx+1, cy+1
	filled := p.filled(l.Outline, cx, cy)
	for _, b := range on {
		// What bears it is beneath it, however fine it is there.
		i, j, _, _ := p.inCell(b.At)
		filled[j*cx+i] = max(filled[j*cx+i], sliver)
	}
	p.number(filled, cx, cy)
	p.bends = p.bending(filled, cx, cy, l.Stiff)
	p.full = p.bends.like()
	for _, b := range on {
		i, j, u, v := p.inCell(b.At)
		k := j*p.nx + i
		gives := b.Gives
		if gives <= 0 {
			gives = hard
		}
		p.on = append(p.on, spring{
			node:  [4]int{p.node[k], p.node[k+1], p.node[k+p.nx], p.node[k+p.nx+1]},
			share: [4]float64{(1 - u) * (1 - v), u * (1 - v), (1 - u) * v, u * v},
			z:     b.Z, stiff: gives * b.Area, pushes: gives,
		})
	}
	p.w = make([]float64, len(p.place))
	p.push = make([]bool, len(on))
	return p
}

// sliver is the least share of a cell that counts, so that what is fine hangs together.
const sliver = 0.05

// inCell is the cell in which a point lies, and how far along it both ways.
func (p *plate) inCell(q shape.Point) (i, j int, u, v float64) {
	x, y := (q.X-p.from.X)/p.cell, (q.Y-p.from.Y)/p.cell
	x, y = min(max(x, 0), float64(p.nx-1)), min(max(y, 0), float64(p.ny-1))
	i, j = min(int(x), p.nx-2), min(int(y), p.ny-2)
	return i, j, x - float64(i), y - float64(j)
}

// filled is how much of each cell the leaf fills, looked at along lines through it.
func (p *plate) filled(g shape.Region, cx, cy int) []float64 {
	const lines = 4
	out := make([]float64, cx*cy)
	for j := range cy {
		row := out[j*cx : (j+1)*cx]
		for n := range lines {
			y := p.from.Y + (float64(j)+(float64(n)+0.5)/lines)*p.cell
			for _, c := range g.Cross(y) {
				a, b := (c[0]-p.from.X)/p.cell, (c[1]-p.from.X)/p.cell
				for i := max(0, int(a)); i < min(cx, int(math.Ceil(b))); i++ {
					row[i] += max(0, min(b, float64(i+1))-max(a, float64(i))) / lines
				}
			}
		}
		for i := range row {
			if row[i] > 0 {
				row[i] = max(row[i], sliver)
			}
		}
	}
	return out
}

// number numbers the nodes along the grid's shorter way, which keeps the matrices narrow.
func (p *plate) number(filled []float64, cx, cy int) {
	about := make([]float64, p.nx*p.ny)
	for j := range cy {
		for i := range cx {
			f := filled[j*cx+i] / 4
			if f == 0 {
				continue
			}
			k := j*p.nx + i
			for _, n := range [4]int{k, k + 1, k + p.nx, k + p.nx + 1} {
				about[n] += f
			}
		}
	}
	p.node = make([]int, p.nx*p.ny)
	give := func(k int) {
		p.node[k] = -1
		if about[k] > 0 {
			p.node[k] = len(p.place)
			p.place, p.area = append(p.place, k), append(p.area, about[k]*p.cell*p.cell)
		}
	}
	if p.nx <= p.ny {
		for k := range p.node {
			give(k)
		}
		return
	}
	for i := range p.nx {
		for j := range p.ny {
			give(j*p.nx + i)
		}
	}
}

// bending is the matrix of the energy of bending: at each node the curvatures along both ways,
// in each cell the twist. At a free edge, where no curvature across can be taken, the leaf bends
// there as it likes.
func (p *plate) bending(filled []float64, cx, cy int, stiff float64) matrix {
	h2 := p.cell * p.cell
	at := func(k, by int, inside bool) int {
		if !inside {
			return -1
		}
		return p.node[k+by]
	}
	wide := 0
	var terms []term
	add := func(t term) {
		for _, i := range t.node[:t.n] {
			for _, j := range t.node[:t.n] {
				wide = max(wide, i-j)
			}
		}
		terms = append(terms, t)
	}
	for n, k := range p.place {
		i, j := k%p.nx, k/p.nx
		l, r := at(k, -1, i > 0), at(k, 1, i+1 < p.nx)
		u, d := at(k, -p.nx, j > 0), at(k, p.nx, j+1 < p.ny)
		c := p.area[n] * stiff / (h2 * h2)
		alongX, alongY := l >= 0 && r >= 0, u >= 0 && d >= 0
		x := term{node: [5]int{l, n, r}, by: [5]float64{1, -2, 1}, n: 3}
		y := term{node: [5]int{u, n, d}, by: [5]float64{1, -2, 1}, n: 3}
		switch {
		case alongX && alongY:
			// x² + y² + 2ν x y = (1 - ν) (x² + y²) + ν (x + y)²
			x.c, y.c = c*(1-poisson), c*(1-poisson)
			add(x)
			add(y)
			add(term{node: [5]int{l, r, n, u, d}, by: [5]float64{1, 1, -4, 1, 1}, n: 5, c: c * poisson})
		case alongX:
			x.c = c * (1 - poisson*poisson)
			add(x)
		case alongY:
			y.c = c * (1 - poisson*poisson)
			add(y)
		}
	}
	for j := range cy {
		for i := range cx {
			f := filled[j*cx+i]
			if f == 0 {
				continue
			}
			k := j*p.nx + i
			add(term{node: [5]int{p.node[k], p.node[k+1], p.node[k+p.nx], p.node[k+p.nx+1]}, by: [5]float64{1, -1, -1, 1}, n: 4, c: 2 * (1 - poisson) * f * stiff / h2})
		}
	}
	out := newMatrix(len(p.place), wide)
	for _, t := range terms {
		out.add(t)
	}
	for n := range p.place {
		*out.at(n, n) += loose
	}
	return out
}

// at is how high the underside is at a bearing, mm; over how far above it.
func (p *plate) at(i int) float64 {
	s := &p.on[i]
	z := 0.0
	for k, n := range s.node {
		z += s.share[k] * p.w[n]
	}
	return z
}

func (p *plate) over(i int) float64 { return p.at(i) - p.on[i].z }

// pull is the pull on a bearing, N/mm².
func (p *plate) pull(i int) float64 { return max(0, p.over(i)) * p.on[i].pushes }

// keep lets go from the first what lies so near beneath something higher that card would have to be
// pulled down harder than a hand can: within the length over which a strip held level at both ends of
// the step gives by it (f = F L³ / 12 E I). What nothing holds is to be borne by all that bears it, to
// begin with.
func (p *plate) keep(stiff, hand float64, on []Bearing, stuck []bool) {
	const surely = 0.8 // the rest is found by looking
	some := false
	for i, b := range on {
		if !stuck[i] {
			continue
		}
		most := min(hand, b.Holds)
		reach := b.Z + lower + most/p.on[i].pushes // foam gives as far as it holds
		for _, o := range on {
			if o.Z <= reach {
				continue
			}
			cube := surely * surely * surely * 12 * stiff * (o.Z - b.Z) / (most * p.cell)
			dx, dy := o.At.X-b.At.X, o.At.Y-b.At.Y
			if d := dx*dx + dy*dy; d*d*d < cube*cube {
				stuck[i] = false
				break
			}
		}
		some = some || stuck[i]
	}
	if some {
		p.slack = slack // next to what joints pull at it is nothing
		return
	}
	for i := range p.push {
		p.push[i] = true
	}
}

// gives lists the joints that come off where one is pulled at too hard. What lies higher was stuck
// first, and one does not press its neighbour down so near that it comes up again: there it is the
// nearest of what is lower that is let go. Where something higher is nearer, or nothing is lower, it
// comes off itself.
func (p *plate) gives(on []Bearing, stuck []bool, at int) []int {
	low, high := math.Inf(1), math.Inf(1)
	for i, b := range on {
		d := b.At.Distance(on[at].At)
		if stuck[i] && b.Z < on[at].Z-lower {
			low = min(low, d)
		}
		if b.Z > on[at].Z+lower {
			high = min(high, d)
		}
	}
	if high < low || math.IsInf(low, 1) {
		return []int{at}
	}
	var out []int
	for i, b := range on {
		if stuck[i] && b.Z < on[at].Z-lower && b.At.Distance(on[at].At) <= low+p.cell/2 {
			out = append(out, i)
		}
	}
	return out
}

// lower is by how much a place is lower than another, mm.
const lower = 0.05

// settle finds how the plate lies beneath a load of so many N/mm², downwards: the least of its
// energy of bending, of the load's, and of the springs, those that are not bound only where they
// are pressed.
func (p *plate) settle(load float64, bound []bool) {
	touches, n := p.push, len(p.w)
	for i := range touches {
		touches[i] = touches[i] || bound[i]
	}
	top := math.Inf(-1)
	for _, s := range p.on {
		top = max(top, s.z)
	}
	target, step := make([]float64, n), make([]float64, n)
	for range rounds {
		copy(p.full.v, p.bends.v)
		for i := range target {
			target[i] = loose*top - load*p.area[i]
		}
		for i := range p.on {
			if !touches[i] {
				continue
			}
			s := &p.on[i]
			p.full.add(term{node: [5]int{s.node[0], s.node[1], s.node[2], s.node[3]}, by: [5]float64{s.share[0], s.share[1], s.share[2], s.share[3]}, n: 4, c: s.stiff})
			for k, m := range s.node {
				target[m] += s.stiff * s.z * s.share[k]
			}
		}
		p.full.solve(target)
		for i := range step {
			step[i] = target[i] - p.w[i]
		}
		copy(p.w, target)
		if !p.touched(bound) {
			break // all of the step, and nothing else touches: it is there
		}
		if p.began {
			for i, s := range step {
				p.w[i] -= s
			}
			p.along(step, load, top, bound)
			p.touched(bound)
		}
		p.began = true
	}
	p.began = true
}

// touched looks anew at which bearings bear, and whether any does that did not, or the other way.
func (p *plate) touched(bound []bool) (changed bool) {
	for i, was := range p.push {
		slack := p.slack
		if !was {
			slack = -slack
		}
		if now := bound[i] || p.over(i) < slack; now != was {
			p.push[i], changed = now, true
		}
	}
	return changed
}

// along goes along a step as far as the energy falls, at most to its end.
func (p *plate) along(step []float64, load, top float64, bound []bool) {
	// The energy along the step is quadratic but for the springs: its slope is a line and what
	// each spring adds.
	ks := p.bends.times(step)
	a, b := 0.0, 0.0
	for i, s := range step {
		a += p.w[i]*ks[i] - s*(loose*top-load*p.area[i])
		b += s * ks[i]
	}
	type moved struct{ z, by, stiff float64 }
	var on []moved
	for i := range p.on {
		s := &p.on[i]
		by := 0.0
		for k, n := range s.node {
			by += s.share[k] * step[n]
		}
		if by == 0 {
			continue
		}
		if bound[i] {
			a += s.stiff * p.over(i) * by
			b += s.stiff * by * by
			continue
		}
		on = append(on, moved{p.over(i), by, s.stiff})
	}
	slope := func(t float64) float64 {
		d := a + t*b
		for _, m := range on {
			if z := m.z + t*m.by; z < 0 {
				d += m.stiff * z * m.by
			}
		}
		return d
	}
	t := 1.0
	if slope(1) > 1e-9*math.Abs(slope(0)) {
		lo, hi := 0.0, 1.0
		for range 40 {
			if t = (lo + hi) / 2; slope(t) > 0 {
				hi = t
			} else {
				lo = t
			}
		}
	}
	for i, s := range step {
		p.w[i] += t * s
	}
}

// field is the heights over the whole grid.
func (p *plate) field() Field {
	out := Field{From: p.from, Cell: p.cell, NX: p.nx, NY: p.ny, Z: make([]float64, p.nx*p.ny)}
	known := make([]bool, len(out.Z))
	for n, k := range p.place {
		out.Z[k], known[k] = p.w[n], true
	}
	// Nodes the leaf does not reach take the height of the nearest, ring by ring.
	for left := len(out.Z) - len(p.place); left > 0; {
		var next []int
		for k := range out.Z {
			if known[k] {
				continue
			}
			i, j := k%p.nx, k/p.nx
			sum, n := 0.0, 0
			for _, o := range [4][3]int{{-1, 0, -1}, {1, 0, 1}, {0, -1, -p.nx}, {0, 1, p.nx}} {
				if x, y := i+o[0], j+o[1]; x >= 0 && x < p.nx && y >= 0 && y < p.ny && known[k+o[2]] {
					sum, n = sum+out.Z[k+o[2]], n+1
				}
			}
			if n > 0 {
				out.Z[k] = sum / float64(n)
				next = append(next, k)
			}
		}
		if len(next) == 0 {
			break
		}
		for _, k := range next {
			known[k] = true
		}
		left -= len(next)
	}
	return out
}
