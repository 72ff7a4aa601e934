package bend

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"

	"ochrestone/core/shape"
)

// element is a plate worked out in another way: conforming rectangular elements with heights, slopes
// and twists at their corners (Bogner, Fox, Schmit 1965, from memory), by Gauss's integration, dense.
type element struct {
	nx, ny int // elements
	a, b   float64
	k      *mat.SymDense
	f      []float64 // of a load of 1 N/mm² downwards
}

// hermite gives the four cubic shapes of a line of a length at u from 0 to 1 (height and slope at
// either end), or a derivative of them by length.
func hermite(u, l float64, derivative int) [4]float64 {
	switch derivative {
	case 1:
		return [4]float64{(6*u*u - 6*u) / l, 3*u*u - 4*u + 1, (6*u - 6*u*u) / l, 3*u*u - 2*u}
	case 2:
		return [4]float64{(12*u - 6) / (l * l), (6*u - 4) / l, (6 - 12*u) / (l * l), (6*u - 2) / l}
	}
	return [4]float64{1 - 3*u*u + 2*u*u*u, l * (u - 2*u*u + u*u*u), 3*u*u - 2*u*u*u, l * (u*u*u - u*u)}
}

// at gives the factors of all unknowns at a place within an element, and the unknowns' numbers.
func (e *element) at(i, j int, u, v float64, dx, dy int) (by [16]float64, of [16]int) {
	hx, hy := hermite(u, e.a, dx), hermite(v, e.b, dy)
	n := 0
	for q := range 4 {
		for p := range 4 {
			node := (j+q/2)*(e.nx+1) + i + p/2
			by[n], of[n] = hx[p]*hy[q], 4*node+2*(q%2)+p%2
			n++
		}
	}
	return by, of
}

func newElement(w, h float64, nx, ny int, stiff float64) *element {
	e := &element{nx: nx, ny: ny, a: w / float64(nx), b: h / float64(ny)}
	n := 4 * (nx + 1) * (ny + 1)
	e.k, e.f = mat.NewSymDense(n, nil), make([]float64, n)
	gauss := [4]float64{0.0694318442029737, 0.3300094782075719, 0.6699905217924281, 0.9305681557970263}
	weigh := [4]float64{0.1739274225687269, 0.3260725774312731, 0.3260725774312731, 0.1739274225687269}
	for j := range ny {
		for i := range nx {
			for p, u := range gauss {
				for q, v := range gauss {
					c := weigh[p] * weigh[q] * e.a * e.b
					xx, of := e.at(i, j, u, v, 2, 0)
					yy, _ := e.at(i, j, u, v, 0, 2)
					xy, _ := e.at(i, j, u, v, 1, 1)
					z, _ := e.at(i, j, u, v, 0, 0)
					for s := range of {
						e.f[of[s]] -= c * z[s]
						for t := range of {
							if of[s] <= of[t] {
								e.k.SetSym(of[s], of[t], e.k.At(of[s], of[t])+c*stiff*(xx[s]*xx[t]+yy[s]*yy[t]+poisson*(xx[s]*yy[t]+yy[s]*xx[t])+2*(1-poisson)*xy[s]*xy[t]))
							}
						}
					}
				}
			}
		}
	}
	return e
}

// point is the factors at a point of the plate, its first corner at the origin.
func (e *element) point(q shape.Point) []float64 {
	i, j := min(int(q.X/e.a), e.nx-1), min(int(q.Y/e.b), e.ny-1)
	by, of := e.at(i, j, q.X/e.a-float64(i), q.Y/e.b-float64(j), 0, 0)
	out := make([]float64, len(e.f))
	for n, k := range of {
		out[k] += by[n]
	}
	return out
}

// rest solves the obstacle problem by its dual: what each bearing pushes.
func (e *element) rest(t *testing.T, on []Bearing, load float64) func(q shape.Point) float64 {
	n := len(e.f)
	k := mat.NewSymDense(n, nil)
	k.CopySym(e.k)
	f := make([]float64, n)
	for i := range f {
		f[i] = load * e.f[i]
	}
	var loose []Bearing
	for _, b := range on {
		if b.Holds == 0 {
			loose = append(loose, b)
			continue
		}
		p := e.point(b.At)
		k.SymRankOne(k, b.Gives*b.Area, mat.NewVecDense(n, p))
		for i := range f {
			f[i] += b.Gives * b.Area * b.Z * p[i]
		}
	}
	var chol mat.Cholesky
	require.True(t, chol.Factorize(k))
	at := mat.NewDense(n, len(loose), nil)
	for i, b := range loose {
		at.SetCol(i, e.point(b.At))
	}
	var gives, free mat.Dense
	require.NoError(t, chol.SolveTo(&gives, at))
	require.NoError(t, chol.SolveTo(&free, mat.NewDense(n, 1, f)))
	var c, w mat.Dense
	c.Mul(at.T(), &gives)
	w.Mul(at.T(), &free)
	push := pushes(t, &c, &w, loose)
	var bent mat.Dense
	bent.Mul(&gives, mat.NewDense(len(push), 1, push))
	bent.Add(&bent, &free)
	return func(q shape.Point) float64 { return mat.Dot(mat.NewVecDense(n, e.point(q)), bent.ColView(0)) }
}

// pushes finds what each bearing pushes, c being how far the plate rises at one for a push at another
// and w where it would lie without: none pulls, and none is gone into but as it gives.
func pushes(t *testing.T, c, w *mat.Dense, on []Bearing) []float64 {
	some := make([]bool, len(on))
	push := make([]float64, len(on))
	for i := range some {
		some[i] = true
	}
	for range 200 {
		var of []int
		for i, s := range some {
			if push[i] = 0; s {
				of = append(of, i)
			}
		}
		m, d := mat.NewDense(len(of), len(of), nil), mat.NewVecDense(len(of), nil)
		for a, i := range of {
			d.SetVec(a, on[i].Z-w.At(i, 0))
			for b, j := range of {
				m.Set(a, b, c.At(i, j))
			}
			m.Set(a, a, m.At(a, a)+1/(on[i].Gives*on[i].Area))
		}
		var x mat.VecDense
		require.NoError(t, x.SolveVec(m, d))
		for a, i := range of {
			push[i] = x.AtVec(a)
		}
		good := true
		for i, b := range on {
			z := w.At(i, 0)
			for _, j := range of {
				z += c.At(i, j) * push[j]
			}
			now := push[i] > 0 || push[i] == 0 && z < b.Z
			good, some[i] = good && now == some[i], now
		}
		if good {
			return push
		}
	}
	require.Fail(t, "no pushes were found")
	return nil
}

// Thirty random leaves, glued at one end on something higher and pressed down on steps at random:
// against elements of another kind, solved in another way.
func TestAgainstAnotherPlate(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 2026))
	worst := 0.0
	for n := range 30 {
		w, h := 14+12*r.Float64(), 8+8*r.Float64()
		high, part, step, hand := 0.3+r.Float64(), 0.15+0.2*r.Float64(), 0.5*r.Float64(), Hand*(0.3+r.Float64())
		edge, turn := (0.4+0.5*r.Float64())*w, r.Float64()-0.5
		l := Leaf{Outline: shape.Rect(0, 0, w, h), Stiff: Stiff(0.2 + 0.2*r.Float64()), Weight: hand, Cell: 0.5}
		on := laid(0, 0, w, h, 1, func(q shape.Point) Bearing {
			switch {
			case q.X < part*w:
				return Bearing{Z: high, Gives: hard, Holds: 1}
			case q.X > edge+turn*(q.Y-h/2):
				return Bearing{Z: step, Gives: hard}
			}
			return Bearing{Gives: hard}
		})
		got := held(l, on)
		want := newElement(w, h, 10, 6, l.Stiff).rest(t, on, hand)
		for x := 0.05; x < 1; x += 0.1 {
			for y := 0.1; y < 1; y += 0.2 {
				q := shape.Point{X: x * w, Y: y * h}
				off := math.Abs(got.At(q)-want(q)) / high
				worst = max(worst, off)
				assert.Less(t, off, 0.03, "leaf %d at %v: %.4f, %.4f by the elements", n, q, got.At(q), want(q))
			}
		}
	}
	t.Logf("30 random leaves: %.2f %% of the height of the step off at most", 100*worst)
}
