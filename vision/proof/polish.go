package proof

import (
	"context"
	"math"

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
	softFine = 0.2  // mm; about what a scanner's lens makes of an edge
	outlier  = 0.10 // of linear light: specks and patches count less past it
	// kin is by how much neighbouring pixels, blurred and blotched together,
	// overstate how much they tell.
	kin = 5.0
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
// that shrank is not taken for layers out of place. It returns what is left over,
// and per layer the standard error of shift and turn, with that of the scale in
// the place after the last.
func (m *model) polish(ctx context.Context, p *Plane) (float64, [][2]float64, error) {
	m.soft = softFine
	m.markEdges(p)
	n := per*len(m.layers) + 1
	var ata *mat.SymDense
	var rms float64
	sure := make([][2]float64, len(m.layers)+1)
	for round := range rounds {
		if err := ctx.Err(); err != nil {
			return 0, nil, err
		}
		if round == rounds/2 {
			m.learn(p)
			m.patchUp(p)
		}
		var atb *mat.VecDense
		// The first rounds only draw near: every third row will do.
		thin := 3
		if round >= rounds/2 {
			thin = 1
		}
		ata, atb, rms = m.normal(p, thin)
		for i := range n {
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
		m.scale += math.Max(-0.004, math.Min(0.004, x.AtVec(n-1)))
		m.scale = math.Max(1-mostScale, math.Min(1+mostScale, m.scale))
		if round > rounds/2 && largest < 2e-4 {
			break
		}
	}
	var inv mat.SymDense
	var chol mat.Cholesky
	if ata != nil && chol.Factorize(ata) {
		if err := chol.InverseTo(&inv); err == nil {
			for i := range m.layers {
				s := math.Sqrt(math.Max(inv.At(per*i, per*i), inv.At(per*i+1, per*i+1))) * rms * kin
				t := math.Sqrt(inv.At(per*i+2, per*i+2)) * rms * kin
				sure[i] = [2]float64{math.Hypot(s, 0.002), t * 180 / math.Pi}
			}
			sure[len(m.layers)][0] = math.Sqrt(inv.At(n-1, n-1)) * rms * kin
		}
	}
	return math.Sqrt(m.missNear(p)), sure, nil
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

// normal sets up the normal equations over the pixels near an edge, in every
// thin-th row; rms is the
// root mean square left there.
func (m *model) normal(p *Plane, thin int) (*mat.SymDense, *mat.VecDense, float64) {
	n := per*len(m.layers) + 1
	sc := m.turns()
	parts := make([]sums, strips)
	strip(func(k int) { parts[k] = m.normalOf(p, sc, k, thin) })
	ata, atb := mat.NewSymDense(n, nil), mat.NewVecDense(n, nil)
	var sum, weight float64
	for _, s := range parts {
		for i := range n {
			atb.SetVec(i, atb.AtVec(i)+s.b[i])
			for j := i; j < n; j++ {
				ata.SetSym(i, j, ata.At(i, j)+s.a[i*n+j])
			}
		}
		sum, weight = sum+s.sum, weight+s.weight
	}
	return ata, atb, math.Sqrt(sum / math.Max(1, weight))
}

// sums are the normal equations of one part of the rows.
type sums struct {
	a, b        []float64
	sum, weight float64
}

func (m *model) normalOf(p *Plane, sc [][2]float64, part, thin int) sums {
	n := per*len(m.layers) + 1
	a := make([]float64, n*n)
	b := make([]float64, n)
	c := make([]float64, len(m.layers))
	diff := make([]colour.Linear, len(m.layers))
	row := make([]float64, n)
	var sum, weight float64
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
			w := 1 / (1 + r*r/(outlier*outlier))
			row[n-1] = 0
			for i := range m.layers {
				for j := range per {
					row[per*i+j] = diff[i][ch] * grad[i][j]
				}
				row[n-1] += diff[i][ch] * grad[i][per]
			}
			for i := range row {
				if row[i] == 0 {
					continue
				}
				b[i] += w * row[i] * r
				for j := i; j < n; j++ {
					a[i*n+j] += w * row[i] * row[j]
				}
			}
			sum += w * r * r
			weight += w
		}
	}
	return sums{a, b, sum, weight}
}

// Grid of the patches of a print.
const (
	patch     = 1.0  // mm
	patchHold = 25.0 // pixels' worth of the mean colour mixed in: few pixels tell little
)

// patches are the colours of every set of layers place by place: solids print
// patchy, and an edge is told from what lies beside it, not from the mean.
type patches struct {
	nx, ny, classes int
	v               []colour.Linear
}

// patchUp learns the patches from the places clear of edges, each smoothed with
// those round it.
func (m *model) patchUp(p *Plane) {
	k := len(m.classes)
	q := &patches{nx: int(float64(p.w)/p.perMM/patch) + 1, ny: int(float64(p.h)/p.perMM/patch) + 1, classes: k}
	sum := make([]colour.Linear, q.nx*q.ny*k)
	count := make([]float64, len(sum))
	m.clear(p, 1, func(x, y, mask int) {
		at := (int((float64(y)+0.5)/p.perMM/patch)*q.nx+int((float64(x)+0.5)/p.perMM/patch))*k + mask
		v := p.at(x, y)
		for c := range v {
			sum[at][c] += v[c] - m.classes[mask][c]
		}
		count[at]++
	})
	q.v = make([]colour.Linear, len(sum))
	for y := range q.ny {
		for x := range q.nx {
			for mask := range k {
				var s colour.Linear
				n := patchHold
				for dy := max(0, y-1); dy <= min(q.ny-1, y+1); dy++ {
					for dx := max(0, x-1); dx <= min(q.nx-1, x+1); dx++ {
						at := (dy*q.nx+dx)*k + mask
						w := 1.0
						if dx != x {
							w /= 2
						}
						if dy != y {
							w /= 2
						}
						n += w * count[at]
						for c := range s {
							s[c] += w * sum[at][c]
						}
					}
				}
				at := (y*q.nx+x)*k + mask
				for c := range s {
					q.v[at][c] = m.classes[mask][c] + s[c]/n
				}
			}
		}
	}
	m.patches = q
}

// coloursAt are the colours of every set of layers at a place.
func (m *model) coloursAt(x, y float64) []colour.Linear {
	q := m.patches
	if q == nil {
		return m.classes
	}
	at := (min(q.ny-1, int(y/patch))*q.nx + min(q.nx-1, int(x/patch))) * q.classes
	return q.v[at : at+q.classes]
}

// unseen reports whether the scan looks no different where a layer should have
// changed what is beneath it: the sets of layers with it are coloured like those
// without it.
func (m *model) unseen(i int, p *Plane) bool {
	var with, without float64
	sc := m.turns()
	c := make([]float64, len(m.layers))
	for y := 0; y < p.h; y += 2 {
		for x := 0; x < p.w; x += 2 {
			m.covers(c, sc, (float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM)
			if c[i] < 1 {
				continue
			}
			q := p.at(x, y)
			d := make(map[bool]float64, 2)
			for _, on := range [2]bool{true, false} {
				c[i] = 0
				if on {
					c[i] = 1
				}
				v := m.foretold(c)
				for ch := range v {
					d[on] += (v[ch] - q[ch]) * (v[ch] - q[ch])
				}
			}
			with, without = with+d[true], without+d[false]
		}
	}
	return with >= without
}

// foretold is the colour of the layers that cover, as their inks have it, not as
// the scan was learned to show it.
func (m *model) foretold(c []float64) colour.Linear {
	v := m.paper
	for i, l := range m.layers {
		if c[i] >= 1 {
			v = l.Film.Over(v, max(1, l.Strikes))
		}
	}
	return v
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
