package finished

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
)

// mask is the largest thing that stands out from the ground, its holes filled.
type mask struct {
	w, h   int
	edge   nearest
	rim    []int32 // pixels of its edge
	area   float64 // pixels
	middle shape.Point
	in     []bool // which pixels it has
	isRim  []bool
	within []float32 // how far each pixel lies within it, less than 0 without, pixels
	cut    bool      // by the rim of the picture
}

// largest finds it; nil when nothing stands out so far.
func largest(diff []float32, w, h int, limit float32) *mask {
	label := make([]int32, w*h)
	var stack, best []int32
	flood := func(from int32, mark int32, in func(i int32) bool) (got []int32) {
		stack = append(stack[:0], from)
		label[from] = mark
		for len(stack) > 0 {
			i := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			got = append(got, i)
			x, y := int(i)%w, int(i)/w
			for _, d := range [4][2]int{{1, 0}, {-1, 0}, {0, 1}, {0, -1}} {
				if x+d[0] < 0 || y+d[1] < 0 || x+d[0] >= w || y+d[1] >= h {
					continue
				}
				if j := i + int32(d[1]*w+d[0]); label[j] == 0 && in(j) {
					label[j] = mark
					stack = append(stack, j)
				}
			}
		}
		return got
	}
	for i := range int32(w * h) {
		if label[i] == 0 && diff[i] > limit {
			if got := flood(i, 1, func(j int32) bool { return diff[j] > limit }); len(got) > len(best) {
				best = got
			}
		}
	}
	if len(best) < w*h/250 {
		return nil
	}
	clear(label)
	for _, i := range best {
		label[i] = 1
	}
	// What the ground reaches from the rim is outside; all else is the image.
	for i := range int32(w * h) {
		x, y := int(i)%w, int(i)/w
		if (x == 0 || y == 0 || x == w-1 || y == h-1) && label[i] == 0 {
			flood(i, 2, func(j int32) bool { return true })
		}
	}
	m := &mask{w: w, h: h, in: make([]bool, w*h)}
	onRim := 0
	rim := make([]bool, w*h)
	for i := range w * h {
		x, y := i%w, i/w
		if label[i] == 2 {
			// The edge runs between those just within and those just without.
			if x > 0 && y > 0 && x < w-1 && y < h-1 && (label[i-1] != 2 || label[i+1] != 2 || label[i-w] != 2 || label[i+w] != 2) {
				rim[i] = true
				m.rim = append(m.rim, int32(i))
			}
			continue
		}
		m.area++
		m.in[i] = true
		m.middle = m.middle.Add(shape.Point{X: float64(x) + 0.5, Y: float64(y) + 0.5})
		if x == 0 || y == 0 || x == w-1 || y == h-1 {
			onRim++
			continue
		}
		if label[i-1] == 2 || label[i+1] == 2 || label[i-w] == 2 || label[i+w] == 2 {
			rim[i] = true
			m.rim = append(m.rim, int32(i))
		}
	}
	if len(m.rim) < 40 {
		return nil
	}
	m.cut = onRim > (w+h)/8
	m.middle = m.middle.Scale(1 / m.area)
	m.isRim = rim
	return m
}

// same reports whether another is this one.
func (m *mask) same(q *mask) bool {
	return math.Abs(m.area-q.area) < 0.004*m.area && m.middle.Distance(q.middle) < 0.5
}

// measure readies it for pieces to be laid on.
func (m *mask) measure() {
	m.edge = newNearest(m.w, m.h, func(i int) bool { return m.isRim[i] })
	m.within = newNearest(m.w, m.h, func(i int) bool { return !m.in[i] }).far
	for i, d := range newNearest(m.w, m.h, func(i int) bool { return m.in[i] }).far {
		m.within[i] -= d
	}
}

// unlikely reports whether a mask is much rounder, or less round, than a piece: nothing
// then makes them one.
func unlikely(m *mask, own shape.Region) bool {
	l := float64(len(m.rim)) / 2 // a pixel within and one without
	is, should := m.area/(l*l), own.Area()/(own.Length()*own.Length())
	return is > 3*should || is < should/3
}

// lies are the ways in which a piece may lie to have the mask for its outline.
func (m *mask) lies(own shape.Region) (out []lie) {
	if m.within == nil {
		m.measure()
	}
	pts := evenly(own, outlineN)
	c := own.Centroid()
	k := math.Sqrt(m.area / own.Area())
	type turned struct{ deg, off, k float64 }
	var turns []turned
	for deg := 0.0; deg < 360; deg += 4 {
		best := turned{deg, math.Inf(1), k}
		for _, less := range [3]float64{1, 0.94, 0.88} { // smaller where others show past it
			if off := m.off(pts, similar(k*less, deg, c, m.middle)); off < best.off {
				best.off, best.k = off, k*less
			}
		}
		turns = append(turns, best)
	}
	slices.SortStableFunc(turns, func(a, b turned) int { return cmp.Compare(a.off, b.off) })
	var tried []float64
	for _, t := range turns {
		if len(tried) == 4 || t.off > 2*turns[0].off+1 {
			break
		}
		if slices.ContainsFunc(tried, func(d float64) bool { return math.Abs(math.Remainder(d-t.deg, 360)) < 13 }) {
			continue
		}
		tried = append(tried, t.deg)
		if l, ok := m.settle(own, pts, similar(t.k, t.deg, c, m.middle), k); ok {
			out = append(out, l)
		}
	}
	return out
}

// similar is the map that scales, turns about c and brings that to a place.
func similar(k, deg float64, c, to shape.Point) mat.Homography {
	s, co := math.Sincos(deg * math.Pi / 180)
	s, co = s*k, co*k
	return mat.Homography{co, -s, to.X - co*c.X + s*c.Y, s, co, to.Y - s*c.X - co*c.Y, 0, 0}
}

// off is the mean distance of points from the edge of the mask, pixels, the worst two fifths, where others may show past, left out.
func (m *mask) off(pts []shape.Point, to mat.Homography) float64 {
	ds := make([]float64, len(pts))
	for i, p := range pts {
		ds[i] = math.Abs(m.inside(to.At(p)))
	}
	slices.Sort(ds)
	n := len(ds) * 3 / 5
	var sum float64
	for _, d := range ds[:n] {
		sum += d
	}
	return sum / float64(n)
}

// inside is how far a point lies within the mask, pixels; less than 0 without it.
func (m *mask) inside(q shape.Point) float64 {
	x, y := q.X-0.5, q.Y-0.5
	i, j := int(x), int(y)
	if x < 0 || y < 0 || i >= m.w-1 || j >= m.h-1 {
		return -float64(m.w)
	}
	fx, fy := x-float64(i), y-float64(j)
	v := func(k int) float64 { return float64(m.within[k]) }
	k := j*m.w + i
	return (v(k)*(1-fx)+v(k+1)*fx)*(1-fy) + (v(k+m.w)*(1-fx)+v(k+m.w+1)*fx)*fy
}

func (m *mask) far(q shape.Point) float64 {
	x, y := int(q.X), int(q.Y)
	if q.X < 0 || q.Y < 0 || x >= m.w || y >= m.h {
		return float64(m.w)
	}
	return float64(m.edge.far[y*m.w+x])
}

// settle draws a lie to the edge of the mask: first turned and scaled, then stretched and
// at last seen askew, by the nearest points of both.
func (m *mask) settle(own shape.Region, pts []shape.Point, to mat.Homography, k float64) (lie, bool) {
	for n := range 24 {
		var from, at []shape.Point
		var ds []float64
		for _, p := range pts {
			ds = append(ds, m.far(to.At(p)))
		}
		slices.Sort(ds)
		limit := math.Max(1.5, 2.5*ds[len(ds)/2])
		for _, p := range pts {
			q := to.At(p)
			if d := m.far(q); d > limit || d >= float64(m.w) {
				continue
			}
			i := m.edge.at[int(q.Y)*m.w+int(q.X)]
			from, at = append(from, p), append(at, shape.Point{X: float64(int(i)%m.w) + 0.5, Y: float64(int(i)/m.w) + 0.5})
		}
		if len(from) < len(pts)/3 {
			return lie{}, false
		}
		var next mat.Homography
		var err error
		if n < 14 {
			next, err = similarly(from, at)
		} else {
			next, err = mat.Fit(from, at)
		}
		if err != nil {
			return lie{}, false
		}
		to = next
	}
	l := lie{to: to, off: m.off(pts, to)}
	c := own.Centroid()
	l.scale = (to.At(c).Distance(to.At(c.Add(shape.Point{X: 1}))) + to.At(c).Distance(to.At(c.Add(shape.Point{Y: 1})))) / 2
	if l.scale < 0.3*k || l.scale > 3*k || math.IsNaN(l.scale) {
		return lie{}, false
	}
	l.off /= l.scale
	near := 0.0
	for _, p := range pts {
		if m.far(to.At(p)) < closeBy*l.scale+1 {
			near++
		}
	}
	back, err := to.Inverse()
	if err != nil || near < leastClose*float64(len(pts)) {
		return lie{}, false
	}
	// And most of the mask's edge is the piece's.
	f := shape.NewField(own, 0.5)
	near = 0
	for _, i := range m.rim {
		p := back.At(shape.Point{X: float64(int(i)%m.w) + 0.5, Y: float64(int(i)/m.w) + 0.5})
		if math.Abs(f.Inside(p)) < closeBy+1/l.scale {
			near++
		}
	}
	return l, near > leastClose*float64(len(m.rim))
}

// similarly is the best turn, scale and shift between points.
func similarly(from, to []shape.Point) (mat.Homography, error) {
	m, _, k, err := register.Rigid(from, to)
	if err != nil {
		return mat.Homography{}, err
	}
	var a, b shape.Point
	for i := range from {
		a, b = a.Add(from[i]), b.Add(to[i])
	}
	return similar(k, m.Turn, a.Scale(1/float64(len(from))), b.Scale(1/float64(len(to)))), nil
}

// spot is a point of an edge and which way is outward there.
type spot struct{ at, out shape.Point }

// spots are about n of them, evenly along the edges of a region.
func spots(g shape.Region, n int) (out []spot) {
	step := g.Length() / float64(n)
	next, gone := step/2, 0.0
	for _, ring := range g.Rings() {
		for i, a := range ring {
			b := ring[(i+1)%len(ring)]
			d := a.Distance(b)
			for d > 0 && next <= gone+d {
				u := b.Sub(a).Scale(1 / d)
				out = append(out, spot{a.Add(u.Scale(next - gone)), shape.Point{X: u.Y, Y: -u.X}})
				next += step
			}
			gone += d
		}
	}
	return out
}

func evenly(g shape.Region, n int) (out []shape.Point) {
	for _, s := range spots(g, n) {
		out = append(out, s.at)
	}
	return out
}
