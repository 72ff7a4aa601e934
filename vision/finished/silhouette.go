package finished

import (
	"cmp"
	"math"
	"slices"

	mt "gonum.org/v1/gonum/mat"

	"ochrestone/core/colour"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
)

// lie is how a piece lies in a picture.
type lie struct {
	piece int
	to    mat.Homography // from the frame in which the piece lies, mm, to pixels
	scale float64        // pixels to the mm
	off   float64        // mean distance of its edge from that of the mask, mm
}

// How the image is told from its ground; our own defaults.
const (
	small       = 640  // pixels along the longer side while it is sought
	large       = 0.35 // of the largest piece's area that one must have to be what stands out
	closeBy     = 0.7  // mm
	leastClose  = 0.72 // of the edge that must lie so close
	nearlyGood  = 1.5  // times the least distance that another lie may have to be tried
	mostLies    = 4
	ofOne       = 2 // of them of one piece
	outlineN    = 240
	mostGrounds = 8
)

// silhouettes finds what stands out from the ground, and how a large piece must lie to
// look so; the likeliest first.
func silhouettes(p *picture.Picture, pieces []shape.Region) ([]lie, error) {
	lab, w, h, by := shrink(p, small)
	base := 0
	for i, g := range pieces {
		if g.Filled().Area() > pieces[base].Filled().Area() {
			base = i
		}
	}
	most := pieces[base].Filled().Area()
	var all []lie
	stood := false
	// What stands out may be the card the image lies on, or the paper under that: then what
	// stands out from it is looked for in turn.
	grounds := [][]bool{nil}
	var seen []*mask
	for n := 0; n < len(grounds) && n < mostGrounds; n++ {
		diff := fromGround(lab, w, h, grounds[n])
		last := 0.0
		for _, limit := range []float32{5, 8, 13, 20, 32} {
			m := largest(diff, w, h, limit)
			if m == nil || last > 0 && math.Abs(m.area-last) < 0.004*last {
				continue
			}
			fresh := last == 0 || m.area < 0.8*last
			last = m.area
			if fresh {
				grounds = append(grounds, m.in)
			}
			if m.cut || slices.ContainsFunc(seen, m.same) {
				continue
			}
			stood = true
			seen = append(seen, m)
			for i, g := range pieces {
				if own := g.Filled(); own.Area() >= large*most && !unlikely(m, own) {
					for _, l := range m.lies(own) {
						l.piece = i
						for k := range 6 {
							l.to[k] *= by
						}
						l.scale *= by
						all = append(all, l)
					}
				}
			}
		}
	}
	if len(all) == 0 {
		if !stood {
			return nil, unlike("nothing in it stands out from its ground")
		}
		return nil, unlike("nothing in it has the outline of the largest piece")
	}
	slices.SortStableFunc(all, func(a, b lie) int { return cmp.Compare(a.off, b.off) })
	var out []lie
	for _, l := range all {
		if l.off > nearlyGood*all[0].off+0.05 || len(out) == mostLies {
			break
		}
		same := 0
		for _, q := range out {
			if q.piece == l.piece {
				same++
			}
		}
		if same < ofOne && !slices.ContainsFunc(out, func(q lie) bool { return sameLie(pieces[l.piece], l, q) }) {
			out = append(out, l)
		}
	}
	return out, nil
}

// sameLie reports whether two lies of one piece put it in the same place.
func sameLie(g shape.Region, l, q lie) bool {
	if l.piece != q.piece {
		return false
	}
	for _, p := range shape.Along(g.Filled(), g.Length()/12) {
		if l.to.At(p).Distance(q.to.At(p)) > 1.0*l.scale {
			return false
		}
	}
	return true
}

// shrink gives a picture's colours at no more than most pixels along a side, and how many
// pixels of the picture one of them is.
func shrink(p *picture.Picture, most int) (lab []colour.Lab, w, h int, by float64) {
	by = math.Max(1, float64(max(p.W, p.H))/float64(most))
	w, h = int(float64(p.W)/by), int(float64(p.H)/by)
	lab = make([]colour.Lab, w*h)
	for y := range h {
		for x := range w {
			lab[y*w+x] = mean(p, float64(x)*by, float64(y)*by, float64(x+1)*by, float64(y+1)*by).Lab()
		}
	}
	return lab, w, h, by
}

// mean is the mean light of the pixels of a box.
func mean(p *picture.Picture, x0, y0, x1, y1 float64) (c colour.Linear) {
	n := 0.0
	for y := max(0, int(y0)); y < min(p.H, max(int(y0)+1, int(y1))); y++ {
		for x := max(0, int(x0)); x < min(p.W, max(int(x0)+1, int(x1))); x++ {
			r, g, b := p.At(x, y)
			c[0], c[1], c[2] = c[0]+float64(picture.Linear(r)), c[1]+float64(picture.Linear(g)), c[2]+float64(picture.Linear(b))
			n++
		}
	}
	for i := range c {
		c[i] /= math.Max(1, n)
	}
	return c
}

// fromGround is how far each pixel of a part of the picture, nil for all of it, is in colour
// from the ground, which is what the rim of that part shows: a plane through its colours, by
// what most of them agree on. Outside the part and on its very rim that is 0.
func fromGround(lab []colour.Lab, w, h int, in []bool) []float32 {
	band := max(3, min(w, h)/50)
	depth := newNearest(w+2, h+2, func(i int) bool {
		x, y := i%(w+2)-1, i/(w+2)-1
		return x < 0 || y < 0 || x >= w || y >= h || in != nil && !in[y*w+x]
	})
	far := func(x, y int) float32 { return depth.far[(y+1)*(w+2)+x+1] }
	type at struct{ v [3]float64 } // a place of the rim: 1, across, down
	var from []at
	var to [3][]float64
	for y := range h {
		for x := range w {
			// The edge of what the part stands out from blurs into it.
			if d := far(x, y); d >= 2.5 && d <= 2.5+float32(band) || in == nil && d > 0 && d <= float32(band) {
				q := lab[y*w+x]
				from = append(from, at{[3]float64{1, float64(x)/float64(w) - 0.5, float64(y)/float64(h) - 0.5}})
				to[0], to[1], to[2] = append(to[0], q.L), append(to[1], q.A), append(to[2], q.B)
			}
		}
	}
	out := make([]float32, w*h)
	if len(from) < 50 {
		return out
	}
	var plane [3][3]float64
	for k := range 3 {
		v := slices.Clone(to[k])
		slices.Sort(v)
		plane[k][0] = v[len(v)/2]
	}
	at3 := func(v [3]float64) (c [3]float64) {
		for k := range 3 {
			c[k] = plane[k][0]*v[0] + plane[k][1]*v[1] + plane[k][2]*v[2]
		}
		return c
	}
	for range 4 {
		ata := mt.NewSymDense(3, nil)
		var atb [3]*mt.VecDense
		for k := range atb {
			atb[k] = mt.NewVecDense(3, nil)
		}
		for i, f := range from {
			g := at3(f.v)
			d := math.Sqrt((to[0][i]-g[0])*(to[0][i]-g[0]) + (to[1][i]-g[1])*(to[1][i]-g[1]) + (to[2][i]-g[2])*(to[2][i]-g[2]))
			if d > 12 {
				continue
			}
			u := d / 12
			wt := (1 - u*u) * (1 - u*u)
			for a := range 3 {
				for k := range 3 {
					atb[k].SetVec(a, atb[k].AtVec(a)+wt*f.v[a]*to[k][i])
				}
				for b := a; b < 3; b++ {
					ata.SetSym(a, b, ata.At(a, b)+wt*f.v[a]*f.v[b])
				}
			}
		}
		for a := range 3 {
			ata.SetSym(a, a, ata.At(a, a)+0.01)
		}
		for k := range 3 {
			var x mt.VecDense
			if x.SolveVec(ata, atb[k]) == nil {
				plane[k] = [3]float64{x.AtVec(0), x.AtVec(1), x.AtVec(2)}
			}
		}
	}
	for y := range h {
		for x := range w {
			if d := far(x, y); in != nil && d < 3 || d == 0 {
				continue
			}
			g := at3([3]float64{1, float64(x)/float64(w) - 0.5, float64(y)/float64(h) - 0.5})
			q := lab[y*w+x]
			l := q.L - g[0]
			if l < 0 {
				l *= 0.7 // what is only darker may be a shadow
			}
			out[y*w+x] = float32(math.Sqrt(l*l + (q.A-g[1])*(q.A-g[1]) + (q.B-g[2])*(q.B-g[2])))
		}
	}
	return out
}

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
