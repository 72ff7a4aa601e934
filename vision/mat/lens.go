package mat

import (
	"errors"
	"fmt"
	"math"

	"gonum.org/v1/gonum/mat"

	"ochrestone/core/shape"
)

// Homography is a perspective map of the plane, its last entry 1:
// X = (h0 x + h1 y + h2)/(h6 x + h7 y + 1), Y likewise with h3 to h5.
type Homography [8]float64

// ErrDegenerate is returned for points that do not settle a map: three of
// them on one line, say.
var ErrDegenerate = errors.New("the points do not settle a perspective")

// Fit finds the map that takes each from to its to, by least squares of the
// linear equations (exact for four points).
func Fit(from, to []shape.Point) (Homography, error) {
	n := len(from)
	if n < 4 || n != len(to) {
		return Homography{}, ErrDegenerate
	}
	a, b := mat.NewDense(2*n, 8, nil), mat.NewVecDense(2*n, nil)
	for i, p := range from {
		q := to[i]
		a.SetRow(2*i, []float64{p.X, p.Y, 1, 0, 0, 0, -p.X * q.X, -p.Y * q.X})
		a.SetRow(2*i+1, []float64{0, 0, 0, p.X, p.Y, 1, -p.X * q.Y, -p.Y * q.Y})
		b.SetVec(2*i, q.X)
		b.SetVec(2*i+1, q.Y)
	}
	var x mat.VecDense
	if err := x.SolveVec(a, b); err != nil {
		return Homography{}, fmt.Errorf("%w: %w", ErrDegenerate, err)
	}
	var h Homography
	copy(h[:], x.RawVector().Data)
	for i, p := range from {
		if d := h.At(p).Distance(to[i]); n == 4 && !(d < 1e-3*(1+to[i].Len())) {
			return Homography{}, ErrDegenerate
		}
	}
	return h, nil
}

// At maps a point.
func (h Homography) At(p shape.Point) shape.Point {
	d := h[6]*p.X + h[7]*p.Y + 1
	return shape.Point{X: (h[0]*p.X + h[1]*p.Y + h[2]) / d, Y: (h[3]*p.X + h[4]*p.Y + h[5]) / d}
}

// Inverse is the map back.
func (h Homography) Inverse() (Homography, error) {
	m := mat.NewDense(3, 3, []float64{h[0], h[1], h[2], h[3], h[4], h[5], h[6], h[7], 1})
	var inv mat.Dense
	if err := inv.Inverse(m); err != nil {
		return Homography{}, fmt.Errorf("%w: %w", ErrDegenerate, err)
	}
	k := inv.At(2, 2)
	if math.Abs(k) < 1e-12 {
		return Homography{}, ErrDegenerate
	}
	var out Homography
	for i := range out {
		out[i] = inv.At(i/3, i%3) / k
	}
	return out, nil
}

// view is how a camera saw the mat: lens bending about the middle of the
// picture, then a perspective onto the mat. Pixels are scaled by half the
// diagonal so that all numbers are of a size.
type view struct {
	cx, cy, half float64
	bend         [2]float64 // straight = bent·(1 + b0 r² + b1 r⁴)
	plane        Homography // straight, scaled pixels to mm
	gain         float64    // how far, mm, dark edges stand out by ink or level
}

// straighten undoes the lens, in scaled pixels.
func (v view) straighten(p shape.Point) shape.Point {
	q := shape.Point{X: (p.X - v.cx) / v.half, Y: (p.Y - v.cy) / v.half}
	r2 := q.Dot(q)
	return q.Scale(1 + v.bend[0]*r2 + v.bend[1]*r2*r2)
}

// mm is where a pixel lies on the mat.
func (v view) mm(p shape.Point) shape.Point { return v.plane.At(v.straighten(p)) }

// pixels maps places on the mat to where they are seen.
func (v view) pixels() (func(shape.Point) shape.Point, error) {
	inv, err := v.plane.Inverse()
	if err != nil {
		return nil, err
	}
	return func(at shape.Point) shape.Point {
		s := inv.At(at)
		q := s
		for range 30 { // the bending is slight: repeated substitution settles fast
			r2 := q.Dot(q)
			q = s.Scale(1 / (1 + v.bend[0]*r2 + v.bend[1]*r2*r2))
		}
		return shape.Point{X: v.cx + q.X*v.half, Y: v.cy + q.Y*v.half}
	}, nil
}

// params and with turn a view into numbers and back.
func (v view) params() []float64 {
	return append(append([]float64{}, v.plane[:]...), v.bend[0], v.bend[1], v.gain)
}

func (v view) with(x []float64) view {
	copy(v.plane[:], x)
	v.bend, v.gain = [2]float64{x[8], x[9]}, x[10]
	return v
}

// sighting is one point of a ring's edge: it should lie r from the middle of
// its mark.
type sighting struct {
	px   shape.Point
	mark int
	at   shape.Point
	r    float64
	sign float64 // +1 where dark lies inside the edge, -1 outside
}

func (v view) miss(s sighting) float64 {
	return v.mm(s.px).Distance(s.at) - s.r - s.sign*v.gain
}

// settle fits the view to all sightings by Gauss and Newton's method with
// Levenberg's damping and Huber's weights.
func (v view) settle(ss []sighting) (view, error) {
	x := v.params()
	n := len(x)
	const huber = 0.06 // mm
	cost := func(v view) float64 {
		var c float64
		for _, s := range ss {
			if m := math.Abs(v.miss(s)); m < huber {
				c += m * m
			} else {
				c += huber * (2*m - huber)
			}
		}
		return c
	}
	damp, was := 1e-4, cost(v)
	for range 40 {
		ata, atb := mat.NewSymDense(n, nil), mat.NewVecDense(n, nil)
		row := make([]float64, n)
		step := make([]float64, n)
		for k := range step {
			step[k] = 1e-6 * math.Max(1e-2, math.Abs(x[k]))
		}
		moved := make([]view, n)
		for k := range moved {
			y := append([]float64{}, x...)
			y[k] += step[k]
			moved[k] = v.with(y)
		}
		for _, s := range ss {
			m := v.miss(s)
			w := 1.0
			if math.Abs(m) > huber {
				w = huber / math.Abs(m)
			}
			for k := range row {
				row[k] = (moved[k].miss(s) - m) / step[k]
			}
			for i := range row {
				atb.SetVec(i, atb.AtVec(i)-w*row[i]*m)
				for j := i; j < n; j++ {
					ata.SetSym(i, j, ata.At(i, j)+w*row[i]*row[j])
				}
			}
		}
		better := false
		for range 8 {
			a := mat.NewSymDense(n, nil)
			a.CopySym(ata)
			for i := range n {
				a.SetSym(i, i, a.At(i, i)*(1+damp)+1e-12)
			}
			var d mat.VecDense
			if err := d.SolveVec(a, atb); err != nil {
				return v, fmt.Errorf("fit the camera: %w", err)
			}
			y := append([]float64{}, x...)
			for k := range y {
				y[k] += d.AtVec(k)
			}
			if next := v.with(y); cost(next) < was {
				gain := was - cost(next)
				x, v, was, damp, better = y, next, cost(next), damp/5, gain > 1e-9*was
				break
			}
			damp *= 6
		}
		if !better {
			break
		}
	}
	return v, nil
}
