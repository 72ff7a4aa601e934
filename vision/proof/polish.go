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
	fewClear = 40
)

// learn replaces the foretold colour of every set of layers by what the scan
// shows of it, where it shows enough: a tone curve, a heavy hand or a spread of
// ink then does no harm.
func (m *model) learn(p *plane) {
	sums := make([]colour.Linear, len(m.classes))
	counts := make([]int, len(m.classes))
	sc := m.turns()
	for y := range p.h {
	next:
		for x := range p.w {
			mask := 0
			for i := range m.layers {
				d := m.layers[i].inside((float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM, sc[i][0], sc[i][1], m.scale)
				if math.Abs(d) < clearOf {
					continue next
				}
				if d > 0 {
					mask |= 1 << i
				}
			}
			q := p.at(x, y)
			for c := range q {
				sums[mask][c] += q[c]
			}
			counts[mask]++
		}
	}
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
	// mostScale is by how much a print may be larger or smaller than designed.
	mostScale = 0.03
)

// polish brings all layers to where the scan differs least from the model, by
// Gauss and Newton's method with a little damping, over the pixels near an edge.
// One scale for all is found along with them, so that paper that grew or a copier
// that shrank is not taken for layers out of place. It returns what is left over,
// and per layer the standard error of shift and turn, with that of the scale in
// the place after the last.
func (m *model) polish(ctx context.Context, p *plane) (float64, [][2]float64, error) {
	m.soft = softFine
	n := 3*len(m.layers) + 1
	var ata *mat.SymDense
	var rms float64
	sure := make([][2]float64, len(m.layers)+1)
	for round := range rounds {
		if err := ctx.Err(); err != nil {
			return 0, nil, err
		}
		if round == rounds/2 {
			m.learn(p)
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
			dx, dy, dt := limit(x.AtVec(3*i), 0.2), limit(x.AtVec(3*i+1), 0.2), limit(x.AtVec(3*i+2), 0.02)
			q.x, q.y, q.turn = q.x+dx, q.y+dy, q.turn+dt
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
				s := math.Sqrt(math.Max(inv.At(3*i, 3*i), inv.At(3*i+1, 3*i+1))) * rms * kin
				t := math.Sqrt(inv.At(3*i+2, 3*i+2)) * rms * kin
				sure[i] = [2]float64{math.Hypot(s, 0.002), t * 180 / math.Pi}
			}
			sure[len(m.layers)][0] = math.Sqrt(inv.At(n-1, n-1)) * rms * kin
		}
	}
	return math.Sqrt(m.missNear(p)), sure, nil
}

// normal sets up the normal equations over the pixels near an edge, in every
// thin-th row; rms is the
// root mean square left there.
func (m *model) normal(p *plane, thin int) (*mat.SymDense, *mat.VecDense, float64) {
	n := 3*len(m.layers) + 1
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

func (m *model) normalOf(p *plane, sc [][2]float64, part, thin int) sums {
	n := 3*len(m.layers) + 1
	a := make([]float64, n*n)
	b := make([]float64, n)
	c := make([]float64, len(m.layers))
	diff := make([]colour.Linear, len(m.layers))
	row := make([]float64, n)
	var sum, weight float64
	for y := part * thin; y < p.h; y += strips * thin {
		py := (float64(y) + 0.5) / p.perMM
		for x := range p.w {
			px := (float64(x) + 0.5) / p.perMM
			m.covers(c, sc, px, py)
			near := false
			for _, k := range c {
				near = near || k > 0 && k < 1
			}
			if !near {
				continue
			}
			v := m.blend(c, diff)
			q := p.at(x, y)
			var grad [Most][4]float64
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
				grad[i] = [4]float64{-gx / m.soft, -gy / m.soft, (gx*ry - gy*rx) / m.soft, -(gx*rx + gy*ry) / m.scale / m.soft}
			}
			for ch := range v {
				r := q[ch] - v[ch]
				w := 1 / (1 + r*r/(outlier*outlier))
				row[n-1] = 0
				for i := range m.layers {
					for j := range 3 {
						row[3*i+j] = diff[i][ch] * grad[i][j]
					}
					row[n-1] += diff[i][ch] * grad[i][3]
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
	}
	return sums{a, b, sum, weight}
}

// unseen reports whether the scan looks no different where a layer should have
// changed what is beneath it: the sets of layers with it are coloured like those
// without it.
func (m *model) unseen(i int, p *plane) bool {
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
func (m *model) missNear(p *plane) float64 {
	c := make([]float64, len(m.layers))
	sc := m.turns()
	var sum float64
	n := 0
	for y := 0; y < p.h; y += 3 {
		for x := 0; x < p.w; x += 3 {
			m.covers(c, sc, (float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM)
			v, q := m.blend(c, nil), p.at(x, y)
			inked := false
			for ch := range q {
				inked = inked || math.Abs(q[ch]-m.paper[ch]) > notPaper
			}
			for _, k := range c {
				inked = inked || k > 0
			}
			if !inked {
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
