package proof

import (
	"context"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"ochrestone/core/colour"
)

// clear is how far from every edge a pixel must lie to tell the colour of a set
// of layers, mm, and fewClear how many it takes.
const (
	clearOf  = 0.3
	fewClear = 12
)

// relight evens what light the corners alone could not tell: a smooth surface of
// second order over the whole print, from every place clear of edges, held against
// the mean colour of the layers that cover it.
func (m *model) relight(p *Plane) {
	m.learn(p)
	const terms, thin = 6, 3
	basis := func(x, y int) [terms]float64 {
		u, v := 2*float64(x)/float64(p.w)-1, 2*float64(y)/float64(p.h)-1
		return [terms]float64{1, u, v, u * u, u * v, v * v}
	}
	a, b := mat.NewSymDense(terms, nil), mat.NewDense(terms, 3, nil)
	m.clear(p, thin, func(x, y, mask int) {
		row, q := basis(x, y), p.at(x, y)
		want := m.classes[mask]
		for i := range row {
			for j := i; j < terms; j++ {
				a.SetSym(i, j, a.At(i, j)+row[i]*row[j])
			}
			for c := range q {
				r := q[c] / math.Max(0.02, want[c])
				b.Set(i, c, b.At(i, c)+row[i]*math.Max(0.8, math.Min(1.2, r)))
			}
		}
	})
	var s mat.Dense
	if err := s.Solve(a, b); err != nil {
		return
	}
	for y := range p.h {
		for x := range p.w {
			row := basis(x, y)
			k := 3 * (y*p.w + x)
			for c := range 3 {
				l := 0.0
				for i := range row {
					l += row[i] * s.At(i, c)
				}
				p.v[k+c] /= float32(math.Max(0.5, l))
			}
		}
	}
}

// clear visits every thin-th pixel that lies clear of all edges, with the set of
// layers that cover it.
func (m *model) clear(p *Plane, thin int, f func(x, y, mask int)) {
	m.clearBy(p, thin, clearOf, f)
}

// clearBy is clear with another distance from all edges, mm.
func (m *model) clearBy(p *Plane, thin int, by float64, f func(x, y, mask int)) {
	sc := m.turns()
	for y := 0; y < p.h; y += thin {
	next:
		for x := 0; x < p.w; x += thin {
			mask := 0
			for i := range m.layers {
				d := m.layers[i].inside((float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM, sc[i][0], sc[i][1], m.scale)
				if math.Abs(d) < by {
					continue next
				}
				if d > 0 {
					mask |= 1 << i
				}
			}
			f(x, y, mask)
		}
	}
}

// learn replaces the foretold colour of every set of layers by what the scan
// shows of it, where it shows enough: a tone curve, a heavy hand or a spread of
// ink then does no harm.
func (m *model) learn(p *Plane) {
	sums := make([]colour.Linear, len(m.classes))
	counts := make([]int, len(m.classes))
	m.clear(p, 2, func(x, y, mask int) {
		q := p.at(x, y)
		for c := range q {
			sums[mask][c] += q[c]
		}
		counts[mask]++
	})
	for k, n := range counts {
		if n >= fewClear {
			for c := range sums[k] {
				m.classes[k][c] = sums[k][c] / float64(n)
			}
		}
	}
}

// Numbers of the last, fine search.
const (
	rounds   = 14
	softFine = 0.2 // mm; about what a scanner's lens makes of an edge
	// Specks count less where they are off by more than outlier of linear light, or by more
	// than so many times what is off anyhow, but not more than mostOutlier: where whole
	// stretches of an edge are off, they are no specks.
	outlier, outlierBy, mostOutlier = 0.10, 4.0, 0.3
	// per is how many unknowns a layer has: shift, turn, and how far its ink ran
	// past the stamp, at most mostGrow mm.
	per      = 4
	mostGrow = 0.4
	// mostScale is by how much a print may be larger or smaller than designed.
	mostScale = 0.03
)

// polish brings all layers to where the scan differs least from the model, by
// Gauss and Newton's method with a little damping, over the pixels near an edge.
// One scale for all is found along with them, so that paper that grew or a copier
// that shrank is not taken for layers out of place, and one turn of the sheet, which
// layers that are round keep to. It returns how sure all that is.
func (m *model) polish(ctx context.Context, p *Plane) (surety, error) {
	m.soft = softFine
	m.markEdges(p)
	m.outlier = outlier
	rms := 0.03
	for round := range rounds {
		if err := ctx.Err(); err != nil {
			return surety{}, err
		}
		if round == rounds/2 {
			m.learn(p)
			m.patchUp(p)
		}
		// The first rounds only draw near: every third row will do.
		thin := 3
		if round >= rounds/2 {
			thin = 1
		}
		e := m.normal(p, thin)
		rms = e.rms()
		m.outlier = math.Max(outlier, math.Min(mostOutlier, outlierBy*rms))
		m.keepTurns(&e, rms)
		ata, atb := e.matrices()
		for i := range m.unknowns() {
			ata.SetSym(i, i, ata.At(i, i)*1.001+1e-9)
		}
		var chol mat.Cholesky
		if !chol.Factorize(ata) {
			break
		}
		var x mat.VecDense
		if err := chol.SolveVecTo(&x, atb); err != nil {
			break
		}
		largest := 0.0
		for i := range m.layers {
			q := &m.layers[i].pose
			limit := func(v, most float64) float64 { return math.Max(-most, math.Min(most, v)) }
			dx, dy, dt := limit(x.AtVec(per*i), 0.2), limit(x.AtVec(per*i+1), 0.2), limit(x.AtVec(per*i+2), 0.02)
			q.x, q.y, q.turn = q.x+dx, q.y+dy, q.turn+dt
			m.layers[i].grow = limit(m.layers[i].grow+limit(x.AtVec(per*i+3), 0.05), mostGrow)
			largest = math.Max(largest, math.Max(math.Hypot(dx, dy), math.Abs(dt)*m.layers[i].reach))
		}
		m.scale += math.Max(-0.004, math.Min(0.004, x.AtVec(m.atScale())))
		m.scale = math.Max(1-mostScale, math.Min(1+mostScale, m.scale))
		m.askew += math.Max(-0.02, math.Min(0.02, x.AtVec(m.atTurn())))
		if round > rounds/2 && largest < 2e-4 {
			break
		}
	}
	return m.doubt(p, rms), nil
}

// edgeBand is how far from an edge, mm, pixels are looked at in the fine search:
// the coarse one leaves layers nearer than that.
const edgeBand = 0.6

// markEdges lists the pixels near the edge of any layer, by the part of the rows
// they are in.
func (m *model) markEdges(p *Plane) {
	m.near = make([][]int32, strips)
	sc := m.turns()
	strip(func(k int) {
		for y := k; y < p.h; y += strips {
			for x := range p.w {
				for i := range m.layers {
					if d := m.layers[i].inside((float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM, sc[i][0], sc[i][1], m.scale); math.Abs(d) < edgeBand {
						m.near[k] = append(m.near[k], int32(y*p.w+x))
						break
					}
				}
			}
		}
	})
}

// The unknowns are those of every layer in turn, then the scale of the print and the
// turn of the sheet.
func (m *model) unknowns() int { return per*len(m.layers) + 2 }
func (m *model) atScale() int  { return per * len(m.layers) }
func (m *model) atTurn() int   { return per*len(m.layers) + 1 }

// equations are normal equations of the unknowns: a is their matrix, row by row, its
// upper half filled, b the right side.
type equations struct {
	n           int
	a, b        []float64
	bow         []float64 // like a, as the sum bends where misses past the outlier's count less
	sum, weight float64   // of squares, and of pixels
	turns       []float64 // for every layer, how much there is to tell its turn by if its edge lay all across
}

func newEquations(n int) equations {
	return equations{n: n, a: make([]float64, n*n), bow: make([]float64, n*n), b: make([]float64, n), turns: make([]float64, (n-2)/per)}
}

func (e *equations) add(o equations) {
	for i := range e.a {
		e.a[i] += o.a[i]
		e.bow[i] += o.bow[i]
	}
	for i := range e.turns {
		e.turns[i] += o.turns[i]
	}
	for i := range e.b {
		e.b[i] += o.b[i]
	}
	e.sum, e.weight = e.sum+o.sum, e.weight+o.weight
}

// rms is the root mean square left.
func (e *equations) rms() float64 { return math.Sqrt(e.sum / math.Max(1, e.weight)) }

func (e *equations) matrices() (*mat.SymDense, *mat.VecDense) {
	return mat.NewSymDense(e.n, slices.Clone(e.a)), mat.NewVecDense(e.n, slices.Clone(e.b))
}

// normal sets up the normal equations over the pixels near an edge, in every
// thin-th row.
func (m *model) normal(p *Plane, thin int) equations {
	sc := m.turns()
	parts := make([]equations, strips)
	strip(func(k int) {
		parts[k] = newEquations(m.unknowns())
		m.visit(p, sc, k, thin, func(_, _ float64, row []float64, r, w float64, levers []float64) {
			parts[k].count(row, r, w, levers)
		})
	})
	out := newEquations(m.unknowns())
	for _, e := range parts {
		out.add(e)
	}
	return out
}

// count adds one channel of one pixel: how it changes with every unknown, what is
// missed, and how much it counts.
func (e *equations) count(row []float64, r, w float64, levers []float64) {
	bow := w * math.Max(0, 2*w-1)
	for i, l := range levers {
		e.turns[i] += w * l
	}
	for i := range row {
		if row[i] == 0 {
			continue
		}
		e.b[i] += w * row[i] * r
		for j := i; j < e.n; j++ {
			e.a[i*e.n+j] += w * row[i] * row[j]
			e.bow[i*e.n+j] += bow * row[i] * row[j]
		}
	}
	e.sum += w * r * r
	e.weight += w
}

// visit goes through the pixels near an edge in one part of the rows, every thin-th of
// them: where each lies, mm, how each of its channels changes with every unknown, what is
// missed there, how much it counts, and for every layer the square of how much it would
// change if the edge there lay across its turn.
func (m *model) visit(p *Plane, sc [][2]float64, part, thin int, f func(x, y float64, row []float64, r, w float64, levers []float64)) {
	c := make([]float64, len(m.layers))
	diff := make([]colour.Linear, len(m.layers))
	row, levers := make([]float64, m.unknowns()), make([]float64, len(m.layers))
	for _, at := range m.near[part] {
		y, x := int(at)/p.w, int(at)%p.w
		if y/strips%thin != 0 {
			continue
		}
		px, py := (float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM
		m.covers(c, sc, px, py)
		near := false
		for _, k := range c {
			near = near || k > 0 && k < 1
		}
		if !near {
			continue
		}
		v := m.blend(m.coloursAt(px, py), c, diff)
		q := p.at(x, y)
		var grad [Most][per + 1]float64
		for i := range m.layers {
			if c[i] <= 0 || c[i] >= 1 {
				continue
			}
			const h = 0.06
			l := &m.layers[i]
			gx := (l.inside(px+h, py, sc[i][0], sc[i][1], m.scale) - l.inside(px-h, py, sc[i][0], sc[i][1], m.scale)) / (2 * h)
			gy := (l.inside(px, py+h, sc[i][0], sc[i][1], m.scale) - l.inside(px, py-h, sc[i][0], sc[i][1], m.scale)) / (2 * h)
			// As the layer moves right, a place moves left in it; as it turns
			// clockwise, the place turns back.
			rx, ry := px-l.pose.x, py-l.pose.y
			grad[i] = [per + 1]float64{-gx / m.soft, -gy / m.soft, (gx*ry - gy*rx) / m.soft, 1 / m.soft, -(gx*rx + gy*ry) / m.scale / m.soft}
		}
		for ch := range v {
			r := q[ch] - v[ch]
			w := 1 / (1 + r*r/(m.outlier*m.outlier))
			row[m.atScale()] = 0
			for i := range m.layers {
				for j := range per {
					row[per*i+j] = diff[i][ch] * grad[i][j]
				}
				row[m.atScale()] += diff[i][ch] * grad[i][per]
				levers[i] = 0
				if grad[i][3] > 0 {
					rx, ry := px-m.layers[i].pose.x, py-m.layers[i].pose.y
					levers[i] = diff[i][ch] * diff[i][ch] * (rx*rx + ry*ry) / (m.soft * m.soft)
				}
			}
			f(px, py, row, r, w, levers)
		}
	}
}

// missNear is the mean square difference over what the print covers.
func (m *model) missNear(p *Plane) float64 {
	c := make([]float64, len(m.layers))
	sc := m.turns()
	var sum float64
	n := 0
	for y := 0; y < p.h; y += 3 {
		for x := 0; x < p.w; x += 3 {
			m.covers(c, sc, (float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM)
			v, q := m.blend(m.classes, c, nil), p.at(x, y)
			covered := inked(q, m.paper)
			for _, k := range c {
				covered = covered || k > 0
			}
			if !covered {
				continue
			}
			for ch := range v {
				d := v[ch] - q[ch]
				sum += d * d
			}
			n++
		}
	}
	return sum / float64(3*max(1, n))
}
