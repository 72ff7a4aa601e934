package finished

import "math"

// nearest holds for every pixel of a grid the nearest one that is set, and how far it is.
type nearest struct {
	w, h int
	at   []int32 // index of it; -1 when none is set
	far  []float32
}

// newNearest measures by the lower envelope of parabolas, once along rows and once along
// columns, which is exact (Felzenszwalb and Huttenlocher, Distance transforms of sampled
// functions, 2012).
func newNearest(w, h int, set func(i int) bool) nearest {
	n := nearest{w, h, make([]int32, w*h), make([]float32, w*h)}
	const none = 1e12
	sq := make([]float64, w*h)
	for x := range w {
		// Down each column the nearest set one is above or below.
		last := -1
		for y := range h {
			if set(y*w + x) {
				last = y
			}
			n.at[y*w+x] = -1
			sq[y*w+x] = none
			if last >= 0 {
				n.at[y*w+x], sq[y*w+x] = int32(last*w+x), float64((y-last)*(y-last))
			}
		}
		last = -1
		for y := h - 1; y >= 0; y-- {
			if set(y*w + x) {
				last = y
			}
			if d := float64((last - y) * (last - y)); last >= 0 && d < sq[y*w+x] {
				n.at[y*w+x], sq[y*w+x] = int32(last*w+x), d
			}
		}
	}
	v, z := make([]int, w), make([]float64, w+1)
	row := make([]int32, w)
	for y := range h {
		f, at := sq[y*w:(y+1)*w], n.at[y*w:(y+1)*w]
		copy(row, at)
		k := 0
		v[0], z[0], z[1] = 0, math.Inf(-1), math.Inf(1)
		for q := 1; q < w; q++ {
			cross := func() float64 {
				return (f[q] + float64(q*q) - f[v[k]] - float64(v[k]*v[k])) / float64(2*(q-v[k]))
			}
			s := cross()
			for s <= z[k] {
				k--
				s = cross()
			}
			k++
			v[k], z[k], z[k+1] = q, s, math.Inf(1)
		}
		k = 0
		for q := range w {
			for z[k+1] < float64(q) {
				k++
			}
			d := f[v[k]] + float64((q-v[k])*(q-v[k]))
			at[q] = row[v[k]]
			n.far[y*w+q] = float32(math.Sqrt(math.Min(d, none)))
		}
	}
	return n
}
