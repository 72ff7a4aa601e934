package trace

import (
	"math"

	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// Etched lines are thin, long and a little lighter or darker than the plate.
const (
	etchedWidth  = 1.0 // mm at most
	etchedLength = 4.0 // mm at least
	etchedAround = 1.6 // mm over which the plate counts as one tone
	etchedClear  = 0.9 // mm kept clear of openings and edges
	etchedSigma  = 4.0 // noise a line must stand off by
	etchedLeast  = 3.5 // sRGB levels, too
)

// Etched finds the lines etched into a stencil's plate: guide lines to lay over
// what is there, as lines in mm. The plate is the piece they lie in; noise is
// that of the picture in sRGB levels, as found on its sheet.
func Etched(p *picture.Picture, dpi float64, plate shape.Region, noise float64) [][]shape.Point {
	k := dpi / 25.4
	b := plate.Bounds()
	x0, y0 := max(0, int(b.Min.X*k)), max(0, int(b.Min.Y*k))
	w, h := min(p.W, int(b.Max.X*k)+1)-x0, min(p.H, int(b.Max.Y*k)+1)-y0
	if w < 8 || h < 8 {
		return nil
	}
	in := make([]bool, w*h)
	for y := range h {
		for _, s := range plate.Cross((float64(y+y0) + 0.5) / k) {
			for x := max(0, int(s[0]*k)-x0+1); x < min(w, int(s[1]*k)-x0); x++ {
				in[y*w+x] = true
			}
		}
	}
	in = shrink(in, w, h, int(etchedClear*k))
	off := standsOff(p, x0, y0, w, h, in, max(1, int(etchedAround*k/2)))
	least := math.Max(etchedLeast, etchedSigma*noise/3)
	// Beside a light line the plate looks dark against its surroundings: of the
	// two only the stronger is a line.
	type stroke struct {
		on   []bool
		mean float64
	}
	var all []stroke
	strongest := 0.0
	for _, sign := range []float64{1, -1} {
		on := make([]bool, len(off))
		for i, v := range off {
			on[i] = sign*float64(v) > least
		}
		for _, blob := range strokes(on, w, h) {
			var sum, n float64
			for i := range blob {
				if blob[i] {
					sum, n = sum+sign*float64(off[i]), n+1
				}
			}
			all = append(all, stroke{blob, sum / n})
			strongest = math.Max(strongest, sum/n)
		}
	}
	var out [][]shape.Point
	for _, st := range all {
		if st.mean < 0.6*strongest {
			continue
		}
		blob := st.on
		thin := thinned(blob, w, h)
		area, length := 0, 0
		for i := range blob {
			if blob[i] {
				area++
			}
			if thin[i] {
				length++
			}
		}
		if float64(length)/k < etchedLength || float64(area)/math.Max(1, float64(length))/k > etchedWidth {
			continue
		}
		for _, l := range walks(thin, w, h) {
			if float64(len(l))/k < etchedLength/2 {
				continue
			}
			line := make([]shape.Point, len(l))
			for i, q := range l {
				line[i] = shape.Point{X: (q.x + float64(x0) + 0.5) / k, Y: (q.y + float64(y0) + 0.5) / k}
			}
			out = append(out, thinOut(line, 0.14))
		}
	}
	return out
}

// standsOff is by how much the mean of three by three pixels stands off the
// mean of a wide square of the plate, in sRGB levels; 0 off the plate.
func standsOff(p *picture.Picture, x0, y0, w, h int, in []bool, r int) []float32 {
	type cellSum struct{ n, v int32 }
	sum := make([]cellSum, (w+1)*(h+1))
	luma := make([]int32, w*h)
	for y := range h {
		var row cellSum
		for x := range w {
			a, g, b := p.At(x0+x, y0+y)
			luma[y*w+x] = (2*int32(a) + 5*int32(g) + int32(b)) / 8
			if in[y*w+x] {
				row.n, row.v = row.n+1, row.v+luma[y*w+x]
			}
			up := sum[y*(w+1)+x+1]
			sum[(y+1)*(w+1)+x+1] = cellSum{up.n + row.n, up.v + row.v}
		}
	}
	over := func(xa, ya, xb, yb int) (n, v float64) {
		a, b, c, d := sum[yb*(w+1)+xb], sum[ya*(w+1)+xb], sum[yb*(w+1)+xa], sum[ya*(w+1)+xa]
		return float64(a.n - b.n - c.n + d.n), float64(a.v - b.v - c.v + d.v)
	}
	out := make([]float32, w*h)
	for y := 1; y < h-1; y++ {
		for x := 1; x < w-1; x++ {
			if !in[y*w+x] {
				continue
			}
			n, v := over(x-1, y-1, x+2, y+2)
			m, u := over(max(0, x-r), max(0, y-r), min(w, x+r+1), min(h, y+r+1))
			if m > 9 && n > 3 {
				out[y*w+x] = float32(v/n - u/m)
			}
		}
	}
	return out
}

// strokes parts marked pixels into connected ones, those too small left out.
func strokes(on []bool, w, h int) [][]bool {
	var out [][]bool
	Connected(on, w, h, func(all []int) {
		if len(all) < 24 || len(out) >= 200 {
			return
		}
		blob := make([]bool, len(on))
		for _, j := range all {
			blob[j] = true
		}
		out = append(out, blob)
	})
	return out
}

// Connected calls f with the indices of every set of marked pixels that touch,
// corners included; f is not to keep them.
func Connected(on []bool, w, h int, f func(all []int)) {
	done := make([]bool, len(on))
	var all []int
	for i := range on {
		if !on[i] || done[i] {
			continue
		}
		done[i] = true
		all = append(all[:0], i)
		for k := 0; k < len(all); k++ {
			for _, d := range ring8 {
				if x, y := all[k]%w+d[0], all[k]/w+d[1]; x >= 0 && y >= 0 && x < w && y < h {
					if q := y*w + x; on[q] && !done[q] {
						done[q] = true
						all = append(all, q)
					}
				}
			}
		}
		f(all)
	}
}

// ring8 are the neighbours of a pixel, clockwise from the one above.
var ring8 = [8][2]int{{0, -1}, {1, -1}, {1, 0}, {1, 1}, {0, 1}, {-1, 1}, {-1, 0}, {-1, -1}}

// thinned wears a stroke down to a line one pixel wide (T. Y. Zhang and C. Y.
// Suen, Communications of the ACM 27, 1984).
func thinned(on []bool, w, h int) []bool {
	out := append([]bool{}, on...)
	at := func(x, y int) bool { return x >= 0 && y >= 0 && x < w && y < h && out[y*w+x] }
	for changed := true; changed; {
		changed = false
		for pass := range 2 {
			var drop []int
			for i, v := range out {
				if !v {
					continue
				}
				x, y := i%w, i/w
				var n [8]bool
				count, turns := 0, 0
				for k, d := range ring8 {
					if n[k] = at(x+d[0], y+d[1]); n[k] {
						count++
					}
				}
				for k := range n {
					if !n[k] && n[(k+1)%8] {
						turns++
					}
				}
				if count < 2 || count > 6 || turns != 1 {
					continue
				}
				a, b := n[0] && n[2] && n[4], n[2] && n[4] && n[6]
				if pass == 1 {
					a, b = n[0] && n[2] && n[6], n[0] && n[4] && n[6]
				}
				if !a && !b {
					drop = append(drop, i)
				}
			}
			for _, i := range drop {
				out[i] = false
			}
			changed = changed || len(drop) > 0
		}
	}
	return out
}

// walks follows a thinned line from its ends; what has none is a loop.
func walks(on []bool, w, h int) [][]xy {
	left := append([]bool{}, on...)
	next := func(i int) (to, n int) {
		to = -1
		for _, d := range ring8 {
			if x, y := i%w+d[0], i/w+d[1]; x >= 0 && y >= 0 && x < w && y < h && left[y*w+x] {
				// Straight neighbours go before slanting ones.
				if n++; to < 0 || d[0]*d[1] == 0 {
					to = y*w + x
				}
			}
		}
		return to, n
	}
	follow := func(i int) (l []xy) {
		for i >= 0 {
			left[i] = false
			l = append(l, xy{float64(i % w), float64(i / w)})
			i, _ = next(i)
		}
		return l
	}
	var out [][]xy
	for _, loops := range []bool{false, true} {
		for i := range left {
			if !left[i] {
				continue
			}
			if _, n := next(i); loops || n == 1 {
				out = append(out, follow(i))
			}
		}
	}
	return out
}

// thinOut drops the points of an open line that lie within tol of the line
// between those kept (Ramer, Douglas and Peucker).
func thinOut(l []shape.Point, tol float64) []shape.Point {
	if len(l) < 3 {
		return l
	}
	a, b := l[0], l[len(l)-1]
	worst, at := tol, -1
	for i := 1; i < len(l)-1; i++ {
		d := b.Sub(a)
		t := math.Max(0, math.Min(1, l[i].Sub(a).Dot(d)/math.Max(d.Dot(d), 1e-12)))
		if e := l[i].Distance(a.Add(d.Scale(t))); e > worst {
			worst, at = e, i
		}
	}
	if at < 0 {
		return []shape.Point{a, b}
	}
	return append(thinOut(l[:at+1], tol), thinOut(l[at:], tol)[1:]...)
}
