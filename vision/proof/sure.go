package proof

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"

	"ochrestone/core/shape"
)

// Numbers of how sure a place is.
const (
	// turnOff is how far a layer is usually turned against the others, radians,
	// standard deviation: all that is known of a layer that is round.
	turnOff = 1.2 * math.Pi / 180
	// kin is by how much neighbouring pixels, blurred together, overstate how much
	// they tell, at the least.
	kin = 3.0
	// least is the standard error of a place that every picture leaves, mm: pixels
	// are square and so is the grid the distances are kept on.
	least = 0.004
	// roundness is how far the edges of something round run askew, radians: a circle
	// drawn with sixty corners has 0.03.
	roundness = 0.05
	// unequal is by how much squares that tell unequally much understate it beyond what
	// their number says (Bell and McCaffrey 2002 on clusters; the factor is our own).
	unequal = 1.25
	// fewestBlocks are too few to tell a spread by.
	fewestBlocks = 5.0
)

// blocks are the sizes, mm, of the squares of a print that are held to miss
// independently of each other: blots, patches and an unknown tone push whole stretches of
// an edge the same way, some short and some long.
var blocks = [...]float64{2, 4, 8, 12}

// surety is how sure the unknowns of a model are: their covariance as every size of
// square has it. There is none when nothing can be said.
type surety struct {
	covs []*mat.SymDense
	held []float64 // share of every layer's turn that is taken from the others'
}

// scale is the standard error of the scale of the print.
func (s surety) scale(m *model) float64 {
	return s.most(func(row []float64) { row[m.atScale()] = 1 })
}

// most is the largest standard error, by any size of square, of what changes by row as
// the unknowns do; infinite when nothing can be said.
func (s surety) most(fill func(row []float64)) float64 {
	if len(s.covs) == 0 {
		return math.Inf(1)
	}
	n := s.covs[0].SymmetricDim()
	row := make([]float64, n)
	fill(row)
	v := mat.NewVecDense(n, row)
	out := 0.0
	for _, c := range s.covs {
		out = math.Max(out, mat.Inner(v, c, v))
	}
	return math.Sqrt(out)
}

// against is the standard error of where layer i lies against the first, mm along either
// axis, of its turn, degrees, and of its place alone, as the sheet has it.
func (s surety) against(m *model, i int) (shift, turn, own float64) {
	sin, cos := math.Sincos(-m.layers[0].pose.turn)
	d := shape.Point{X: m.layers[i].pose.x - m.layers[0].pose.x, Y: m.layers[i].pose.y - m.layers[0].pose.y}
	for _, axis := range [2]shape.Point{{X: cos, Y: -sin}, {X: sin, Y: cos}} {
		v := s.most(func(row []float64) {
			row[per*i], row[per*i+1] = axis.X, axis.Y
			row[0], row[1] = -axis.X, -axis.Y
			// As the first turns, the frame turns under the layer.
			row[2] = axis.X*d.Y - axis.Y*d.X
		})
		shift = math.Max(shift, v)
		own = math.Max(own, s.most(func(row []float64) { row[per*i], row[per*i+1] = axis.X, axis.Y }))
	}
	turn = s.most(func(row []float64) { row[per*i+2], row[2] = 1, -1 })
	// A turn that is held may be off by what hands are off by, and with that of the first
	// the frame.
	frame := 0.0
	if len(s.held) > 0 {
		frame = 1.3 * s.held[0] * turnOff
		turn = math.Hypot(turn, math.Hypot(1.3*s.held[i]*turnOff, frame))
	}
	shift = math.Hypot(math.Hypot(shift, frame*d.Len()), least)
	turn = math.Hypot(turn, math.Hypot(least/math.Max(1, m.layers[i].reach), least/math.Max(1, m.layers[0].reach)))
	return shift, turn * 180 / math.Pi, own
}

// keepTurns adds to the equations that layers are turned alike, but for what a hand may
// be off by: a round one has no other turn, and the corners of the polygon it is drawn
// with must not tell one.
func (m *model) keepTurns(e *equations, rms float64) {
	for i, l := range m.layers {
		k := m.turnWeight(rms) + e.ridge(i)
		off := l.pose.turn - m.askew
		t, s := per*i+2, m.atTurn()
		for _, a := range [2][]float64{e.a, e.bow} {
			a[t*e.n+t] += k
			a[s*e.n+s] += k
			a[t*e.n+s] -= k
		}
		e.b[t] -= k * off
		e.b[s] += k * off
	}
}

// ridge is by how much the turn of layer i is held: hardly at all where its edges lie
// across its turn, wholly where they run along it but for a few degrees.
func (e *equations) ridge(i int) float64 {
	tells := e.a[(per*i+2)*e.n+per*i+2]
	if tells == 0 {
		return 0
	}
	return tells * math.Pow(roundness*roundness*e.turns[i]/tells, 3)
}

// turnWeight is how much light squared a radian squared of turn is worth.
func (m *model) turnWeight(rms float64) float64 { return rms * rms * kin * kin / (turnOff * turnOff) }

// doubt is how sure the unknowns are, from what is missed where. What a stretch of edge
// misses goes the same way all along it, so that pixels do not count one by one: the print
// is cut into squares, and how much the squares pull against each other tells how far
// the whole may be pulled (the sandwich estimator of clustered errors, Liang and Zeger
// 1986). Squares of several sizes are tried and the widest answer kept, with Student's
// factor for how few there are.
func (m *model) doubt(p *Plane, rms float64) surety {
	n := m.unknowns()
	sc := m.turns()
	type square struct{ x, y int }
	parts := make([]map[square]*equations, strips)
	strip(func(k int) {
		parts[k] = map[square]*equations{}
		m.visit(p, sc, k, 1, func(x, y float64, row []float64, r, w float64, levers []float64) {
			at := square{int(x / blocks[0]), int(y / blocks[0])}
			e := parts[k][at]
			if e == nil {
				fresh := newEquations(n)
				e = &fresh
				parts[k][at] = e
			}
			e.count(row, r, w, levers)
		})
	})
	all := newEquations(n)
	small := map[square]*equations{}
	for _, part := range parts {
		for at, e := range part {
			if small[at] == nil {
				small[at] = e
			} else {
				small[at].add(*e)
			}
		}
	}
	var keys []square
	for at := range small {
		keys = append(keys, at)
	}
	// In a fixed order, so that sums come out the same on every run.
	slices.SortFunc(keys, func(a, b square) int { return cmp.Or(cmp.Compare(a.y, b.y), cmp.Compare(a.x, b.x)) })
	for _, at := range keys {
		all.add(*small[at])
	}
	held := make([]float64, len(m.layers))
	for i := range held {
		tells := all.a[(per*i+2)*n+per*i+2]
		k := all.ridge(i)
		held[i] = k / math.Max(1e-12, k+tells)
	}
	m.keepTurns(&all, rms)
	inv, ok := inverse(n, all.bow)
	if !ok {
		if inv, ok = inverse(n, all.a); !ok {
			return surety{}
		}
	}
	// At the least what independent noise would leave.
	noise := mat.NewSymDense(n, nil)
	noise.ScaleSym(rms*rms*kin*kin, inv)
	out := surety{held: held, covs: []*mat.SymDense{noise}}
	for _, size := range blocks {
		times := int(size / blocks[0])
		sums := map[square]*equations{}
		var order []square
		for _, at := range keys {
			big := square{at.x / times, at.y / times}
			if sums[big] == nil {
				fresh := newEquations(n)
				sums[big] = &fresh
				order = append(order, big)
			}
			sums[big].add(*small[at])
		}
		pull := mat.NewSymDense(n, nil)
		inform, square2 := make([]float64, n), make([]float64, n)
		for _, at := range order {
			e := sums[at]
			for i := range n {
				v := e.a[i*n+i]
				inform[i] += v
				square2[i] += v * v
				for j := i; j < n; j++ {
					pull.SetSym(i, j, pull.At(i, j)+e.b[i]*e.b[j])
				}
			}
		}
		k := m.turnWeight(rms) * rms * rms * kin * kin
		for i := range m.layers {
			t, s := per*i+2, m.atTurn()
			pull.SetSym(t, t, pull.At(t, t)+k)
			pull.SetSym(s, s, pull.At(s, s)+k)
			pull.SetSym(t, s, pull.At(t, s)-k)
		}
		var half, cov mat.Dense
		half.Mul(inv, pull)
		cov.Mul(&half, inv)
		out.covs = append(out.covs, widened(&cov, inform, square2))
	}
	return out
}

// widened is a covariance told by few squares, by how many there are for every unknown.
func widened(cov *mat.Dense, inform, squares []float64) *mat.SymDense {
	n := len(inform)
	by := make([]float64, n)
	for i := range by {
		by[i] = 1
		if squares[i] == 0 {
			continue
		}
		// So many squares of equal weight tell as much.
		free := inform[i]*inform[i]/squares[i] - per
		if free < fewestBlocks-per {
			// Too few to tell by: the smaller squares must.
			by[i] = 0
			continue
		}
		q := distuv.StudentsT{Mu: 0, Sigma: 1, Nu: free}.Quantile(0.975) / distuv.UnitNormal.Quantile(0.975)
		by[i] = unequal * q * math.Sqrt((free+per)/free)
	}
	out := mat.NewSymDense(n, nil)
	for i := range n {
		for j := i; j < n; j++ {
			out.SetSym(i, j, by[i]*by[j]*(cov.At(i, j)+cov.At(j, i))/2)
		}
	}
	return out
}

// isHeld reports whether the turn of layer i is mostly taken from the others'.
func (s surety) isHeld(i int) bool { return len(s.held) > i && s.held[i] > 0.5 }

// inverse of a symmetric matrix of n rows whose upper half is filled; false when it has
// none.
func inverse(n int, a []float64) (*mat.SymDense, bool) {
	s := mat.NewSymDense(n, slices.Clone(a))
	for i := range n {
		s.SetSym(i, i, s.At(i, i)*1.0001+1e-9)
	}
	var chol mat.Cholesky
	if !chol.Factorize(s) {
		return nil, false
	}
	var inv mat.SymDense
	if err := chol.InverseTo(&inv); err != nil {
		return nil, false
	}
	return &inv, true
}
