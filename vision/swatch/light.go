package swatch

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
)

// fitLight lays a surface of the second degree through the paper's light
// beside the cells, letting go of those that a shadow or ink darkens.
func fitLight(g Grid, white []colour.Linear) func(shape.Point) colour.Linear {
	n := len(white)
	w, h := float64(g.Across)*g.StepX, float64(g.Down)*g.StepY
	terms := func(p shape.Point) [6]float64 {
		u, v := 2*p.X/w-1, 2*p.Y/h-1
		return [6]float64{1, u, v, u * u, u * v, v * v}
	}
	weights := make([]float64, n)
	for i := range weights {
		weights[i] = 1
	}
	var x mat.Dense
	for range 6 {
		ata, aty := mat.NewDense(6, 6, nil), mat.NewDense(6, 3, nil)
		for i, c := range white {
			b := g.Box(i)
			q := terms(b.Min.Add(b.Max).Scale(0.5))
			for j := range q {
				for k := range q {
					ata.Set(j, k, ata.At(j, k)+weights[i]*q[j]*q[k])
				}
				for k := range c {
					aty.Set(j, k, aty.At(j, k)+weights[i]*q[j]*c[k])
				}
			}
		}
		for j := 1; j < 6; j++ {
			ata.Set(j, j, ata.At(j, j)+1e-2*float64(n))
		}
		if err := x.Solve(ata, aty); err != nil {
			m := mean(white)
			return func(shape.Point) colour.Linear { return m }
		}
		for i, c := range white {
			b := g.Box(i)
			q := terms(b.Min.Add(b.Max).Scale(0.5))
			var at float64
			for j := range q {
				at += q[j] * x.At(j, 1)
			}
			// Only what is darker than the surface is suspect.
			u := math.Max(0, at-c[1]) / (0.04 * math.Max(at, 0.05))
			weights[i] = 1 / (1 + u*u*u*u)
		}
	}
	return func(p shape.Point) (c colour.Linear) {
		q := terms(p)
		for k := range c {
			for j := range q {
				c[k] += q[j] * x.At(j, k)
			}
		}
		return c
	}
}

// darkest is the light of the darkest card on which the printed marks, which are black, are
// found in pictures of every device tried; L* 52.
const darkest = 0.2

// Readable reports whether a sheet printed on card of a colour can be read once it is
// filled: on darker card its marks do not show.
func Readable(card colour.Linear) bool { return luma(card) >= darkest }
