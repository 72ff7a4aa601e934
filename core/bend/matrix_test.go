package bend

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
)

// Against gonum's Cholesky on whole matrices, of all sizes and widths.
func TestSolvesAsWholeMatrices(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for n := 1; n < 40; n++ {
		for _, wide := range []int{0, 1, 2, 3, 6, 7, n - 1} {
			if wide >= n || wide < 0 {
				continue
			}
			m, whole := newMatrix(n, wide), mat.NewSymDense(n, nil)
			for i := range n {
				for j := max(0, i-wide); j <= i; j++ {
					v := r.Float64() - 0.5
					if i == j {
						v += float64(wide) + 1
					}
					*m.at(i, j) = v
					whole.SetSym(i, j, v)
				}
			}
			x := make([]float64, n)
			for i := range x {
				x[i] = r.Float64()
			}
			var want, times mat.VecDense
			times.MulVec(whole, mat.NewVecDense(n, x))
			for i, v := range m.times(x) {
				assert.InDelta(t, times.AtVec(i), v, 1e-12)
			}
			var chol mat.Cholesky
			require.True(t, chol.Factorize(whole))
			require.NoError(t, chol.SolveVecTo(&want, mat.NewVecDense(n, x)))
			m.solve(x)
			for i, v := range x {
				if math.Abs(want.AtVec(i)-v) > 1e-10 {
					t.Fatalf("%d of %d, %d wide: %g, not %g", i, n, wide, v, want.AtVec(i))
				}
			}
		}
	}
}
