package trace

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"ochrestone/vision/picture"
)

// Distances from an edge, in pixels, at which the colours on its two sides are
// taken: past the blur and the halo of a scanner's own sharpening.
var beside = [3]float64{3.6, 4.6, 5.6}

// besidePattern is the same inside a patterned piece, where the colour a little
// further in may be the next stripe's.
var besidePattern = [3]float64{1.8, 2.2, 2.6}

// steady is how many points of an outline, each way, share the colours beside
// them; those of a patterned piece share less.
const (
	steady        = 14
	steadyPattern = 3
)

// reach is how far, in pixels, the true edge is looked for.
const reach = 2.5

// shadowShare is how much of the fall of a shadow goes on up to the edge: it
// lies a little off the piece, and is deepest before the edge is reached.
const shadowShare = 0.7

// flank is the colour on the two sides of one point.
type flank struct {
	in, out   [3]float64
	close     [2][3]float64 // outside, as near the edge as its blur lets the sheet be seen
	core      [3][3]float64 // inside, where the core of the card would show
	has, free bool          // in and out were seen
}

// sharpen moves every point of a line to where the picture is half way between
// the colours just inside and just outside of it.
func (p *patch) sharpen(l []xy) []xy {
	l = resample(l, 1)
	if len(l) < 8 {
		return l
	}
	n := len(l)
	normal := make([]xy, n)
	sides := make([]flank, n)
	for i := range l {
		normal[i] = normalAt(l, i, 3)
		sides[i] = p.flankAt(l[i], normal[i])
	}
	out := make([]xy, n)
	var unsure []int
	for i := range l {
		if p.steady == steadyPattern && crossesPattern(sides, i) {
			unsure = append(unsure, i)
			continue
		}
		in, off := p.levels(l[i], sides, i)
		d := [3]float64{in[0] - off[0], in[1] - off[1], in[2] - off[2]}
		dd := d[0]*d[0] + d[1]*d[1] + d[2]*d[2]
		out[i] = l[i]
		if dd < 1e-5 {
			continue
		}
		value := func(k float64) float64 {
			c := p.sample(l[i].x+k*normal[i].x, l[i].y+k*normal[i].y)
			var s float64
			for j := range c {
				s += (c[j] - (in[j]+off[j])/2) * d[j]
			}
			return s
		}
		g := p.ground.linear(l[i].x, l[i].y)
		sheet := [3]float64{float64(g[0]), float64(g[1]), float64(g[2])}
		if u, ok := unshaded(in, sheet); ok && !p.pic.Soft && !p.prints && grey(off) < shadowLess*grey(sheet) {
			value = func(k float64) float64 {
				c := p.sample(l[i].x+k*normal[i].x, l[i].y+k*normal[i].y)
				var s float64
				for j := range c {
					s += (c[j] - in[j]/2) * u[j] // the sheet has nothing of it, in a shadow or not
				}
				return s
			}
		} else if a, b := grey(in), grey(off); p.pic.Soft && math.Abs(a-b) > leastGrey {
			// Colour is smeared over two pixels and more: go by lightness alone.
			sign := math.Copysign(1, a-b)
			value = func(k float64) float64 {
				return sign * (p.sampleGrey(l[i].x+k*normal[i].x, l[i].y+k*normal[i].y) - (a+b)/2)
			}
		}
		if k, ok := crossing(value); ok {
			out[i] = xy{l[i].x + k*normal[i].x, l[i].y + k*normal[i].y}
		}
	}
	if len(unsure) > n*2/3 {
		return l // nearly all of it crosses: no better than the first line
	}
	return bridge(out, unsure)
}

// crossesPattern reports whether the colour inside changes along the line at
// point i: half of a mixture of two stripes is half of neither, and the darker
// one would draw the edge inward. Such points are bridged.
func crossesPattern(sides []flank, i int) bool {
	const span, most = 3, 1.15
	lo, hi := math.Inf(1), 0.0
	n := len(sides)
	for k := -span; k <= span; k++ {
		if f := sides[((i+k)%n+n)%n]; f.has {
			v := grey(f.in)
			lo, hi = math.Min(lo, v), math.Max(hi, v)
		}
	}
	return hi > most*lo && hi > 0
}

// bridge lays the unsure points of a closed line on the parabola, in the frame
// of the chord over their gap, that the sure ones to both sides suggest.
func bridge(l []xy, unsure []int) []xy {
	const each = 6 // sure points to each side
	n := len(l)
	doubt := make([]bool, n)
	for _, i := range unsure {
		doubt[i] = true
	}
	for _, first := range unsure {
		if doubt[((first-1)%n+n)%n] {
			continue // not the first of its gap
		}
		gap := 0
		for doubt[(first+gap)%n] {
			gap++
		}
		var known []xy
		from, to := l[((first-1)%n+n)%n], l[(first+gap)%n]
		chord := math.Hypot(to.x-from.x, to.y-from.y)
		if chord == 0 {
			continue
		}
		ux, uy := (to.x-from.x)/chord, (to.y-from.y)/chord
		for k := 1; k <= each; k++ {
			for _, i := range [2]int{first - k, first + gap - 1 + k} {
				if i = (i%n + n) % n; !doubt[i] {
					dx, dy := l[i].x-from.x, l[i].y-from.y
					known = append(known, xy{dx*ux + dy*uy, dy*ux - dx*uy})
				}
			}
		}
		curve := arch(known)
		for k := range gap {
			t := chord * float64(k+1) / float64(gap+1)
			h := curve(t)
			l[(first+k)%n] = xy{from.x + t*ux - h*uy, from.y + t*uy + h*ux}
		}
	}
	return l
}

// arch fits y as a parabola of x by least squares; where points are too few
// or do not lie on one, as at a corner, it is zero everywhere.
func arch(pts []xy) func(x float64) float64 {
	flat := func(float64) float64 { return 0 }
	if len(pts) < 6 {
		return flat
	}
	a, y := mat.NewDense(len(pts), 3, nil), mat.NewVecDense(len(pts), nil)
	for i, p := range pts {
		a.SetRow(i, []float64{1, p.x, p.x * p.x})
		y.SetVec(i, p.y)
	}
	var c mat.VecDense
	if err := c.SolveVec(a, y); err != nil {
		return flat
	}
	f := func(x float64) float64 { return c.AtVec(0) + x*(c.AtVec(1)+x*c.AtVec(2)) }
	for _, p := range pts {
		if math.Abs(f(p.x)-p.y) > 0.8 {
			return flat
		}
	}
	return f
}

// crossing finds where a profile that falls outward passes zero, nearest to 0.
func crossing(f func(float64) float64) (float64, bool) {
	const step = 0.5
	best, found := 0.0, false
	a := f(-reach)
	for k := -reach; k < reach; k += step {
		b := f(k + step)
		if a >= 0 && b < 0 {
			at := k + step*a/(a-b)
			if !found || math.Abs(at) < math.Abs(best) {
				best, found = at, true
			}
		}
		a = b
	}
	return best, found
}

// normalAt is the direction out of the piece at a point of its line.
func normalAt(l []xy, i, span int) xy {
	n := len(l)
	a, b := l[((i-span)%n+n)%n], l[(i+span)%n]
	dx, dy := b.x-a.x, b.y-a.y
	k := math.Hypot(dx, dy)
	if k == 0 {
		return xy{0, 0}
	}
	return xy{dy / k, -dx / k}
}

// flankAt looks at the colours on both sides of a point, if they belong to the
// piece and to the sheet all the way.
func (p *patch) flankAt(at, n xy) (f flank) {
	look := func(sign float64, beside [3]float64, belongs func(float64) bool) (c [3]float64, ok bool) {
		for k := 1.6; k <= beside[2]; k++ {
			if !belongs(p.value(at.x+sign*k*n.x, at.y+sign*k*n.y)) {
				return c, false
			}
		}
		for _, k := range beside {
			v := p.sample(at.x+sign*k*n.x, at.y+sign*k*n.y)
			for j := range c {
				c[j] += v[j] / float64(len(beside))
			}
		}
		return c, true
	}
	inside := beside
	if p.steady == steadyPattern {
		inside = besidePattern
	}
	for k, d := range coreBy {
		f.core[k] = p.sample(at.x-d*n.x, at.y-d*n.y)
	}
	f.in, f.has = look(-1, inside, func(s float64) bool { return s > 0.55 })
	f.out, f.free = look(1, beside, func(s float64) bool { return s < 0.4 })
	if f.free {
		for k, d := range closeBy {
			f.close[k] = p.sample(at.x+d*n.x, at.y+d*n.y)
		}
		// Outside, a shadow deepens towards the edge: follow it there.
		var slope [3]float64
		near, far := beside[0], beside[2]+2
		a, b := p.sample(at.x+near*n.x, at.y+near*n.y), p.sample(at.x+far*n.x, at.y+far*n.y)
		for j := range slope {
			slope[j] = (b[j] - a[j]) / (far - near)
			f.out[j] = max(0, f.out[j]-shadowShare*slope[j]*beside[1])
		}
	}
	return f
}

// levels are the colours inside and outside at point i: the mean of what its
// neighbours along the line have seen, or else those of the whole piece.
func (p *patch) levels(at xy, sides []flank, i int) (in, out [3]float64) {
	var a, b float64
	var near [2][3]float64
	var core [3][3]float64
	n := len(sides)
	for k := -min(p.steady, n/2); k <= min(p.steady, n/2); k++ {
		f := sides[((i+k)%n+n)%n]
		w := 1 - math.Abs(float64(k))/float64(p.steady+1)
		if f.has {
			a += w
			for j := range in {
				in[j] += w * f.in[j]
				for k := range core {
					core[k][j] += w * f.core[k][j]
				}
			}
		}
		if f.free {
			b += w
			for j := range out {
				out[j] += w * f.out[j]
				near[0][j] += w * f.close[0][j]
				near[1][j] += w * f.close[1][j]
			}
		}
	}
	g := p.ground.linear(at.x, at.y)
	for j := range in {
		if a > 0 {
			in[j] /= a
		} else {
			in[j] = float64(p.body[j])
		}
		if b > 0 {
			out[j] /= b
		} else {
			out[j] = float64(g[j])
		}
	}
	if a > 0 && !p.prints && p.steady == steady && p.scale.PerMM > fineEnough && grey([3]float64{float64(g[0]), float64(g[1]), float64(g[2])}) < paleSheet {
		was := in
		for k := range core {
			for j := range core[k] {
				core[k][j] /= a
			}
			if grey(core[k]) > grey(in) && grey(core[k]) > coreBright*grey(was) && saturation(was) > corePlain && saturation(core[k]) < corePale*saturation(was) {
				in = core[k]
			}
		}
	}
	if b > 0 && !p.prints {
		for k := range near {
			for j := range near[k] {
				near[k][j] /= b
			}
		}
		sheet := grey([3]float64{float64(g[0]), float64(g[1]), float64(g[2])})
		one, two := grey(near[0]), grey(near[1])
		if sheet > paleSheet && one < shadowLess*sheet && one <= two {
			// A shadow that ends close by: as deep as it is where the edge begins.
			deep := max(0.25*sheet, one-(two-one)*(closeBy[0]-0.5)/(closeBy[1]-closeBy[0]))
			if k := deep / sheet; k*sheet < grey(out) {
				for j := range out {
					out[j] = k * float64(g[j])
				}
			}
		}
	}
	return in, out
}

// around gives the four pixels round a place, as indices into the picture, and
// the share each has in what is seen there.
func (p *patch) around(x, y float64) (at [4]int, share [4]float64) {
	x, y = x-0.5, y-0.5
	x0, y0 := math.Floor(x), math.Floor(y)
	fx, fy := x-x0, y-y0
	i, j := int(x0), int(y0)
	for n := range at {
		dx, dy := n&1, n>>1
		share[n] = (1 - fx + float64(dx)*(2*fx-1)) * (1 - fy + float64(dy)*(2*fy-1))
		at[n] = 3 * (min(max(j+dy, 0), p.pic.H-1)*p.pic.W + min(max(i+dx, 0), p.pic.W-1))
	}
	return at, share
}

// sample is the picture in linear light between pixel centres.
func (p *patch) sample(x, y float64) (c [3]float64) {
	at, share := p.around(x, y)
	for n, k := range at {
		for ch := range c {
			c[ch] += share[n] * float64(picture.Linear(p.pic.Pix[k+ch]))
		}
	}
	return c
}

// leastGrey is the least difference of lightness, in linear light, by which an
// edge can be found without colour.
const leastGrey = 0.015

// grey is the linear light of the grey that has the luma of a linear colour.
// JPEG keeps luma, a sum of coded values, at full sharpness (ITU-T T.871).
func grey(c [3]float64) float64 {
	return picture.ToLinear(0.299*picture.FromLinear(c[0]) + 0.587*picture.FromLinear(c[1]) + 0.114*picture.FromLinear(c[2]))
}

// sampleGrey is the grey of the picture between pixel centres, in linear light.
func (p *patch) sampleGrey(x, y float64) (c float64) {
	at, share := p.around(x, y)
	for n, k := range at {
		q := p.pic.Pix[k : k+3]
		c += share[n] * picture.ToLinear((0.299*float64(q[0])+0.587*float64(q[1])+0.114*float64(q[2]))/255)
	}
	return c
}

// value is the signal of the patch at the pixel that holds a place.
func (p *patch) value(x, y float64) float64 {
	i, j := int(math.Floor(x))-p.x0, int(math.Floor(y))-p.y0
	if i < 0 || j < 0 || i >= p.w || j >= p.h {
		return 0
	}
	if !p.mask[j*p.w+i] && p.in(i, j) && p.diffAt(i, j) > p.level {
		return 1 // another piece
	}
	return float64(p.s[j*p.w+i])
}

// resample spaces the points of a closed line evenly.
func resample(l []xy, step float64) []xy {
	var total float64
	for i, p := range l {
		q := l[(i+1)%len(l)]
		total += math.Hypot(q.x-p.x, q.y-p.y)
	}
	n := max(4, int(math.Round(total/step)))
	step = total / float64(n)
	out := make([]xy, 0, n)
	next, gone := 0.0, 0.0
	for i, p := range l {
		q := l[(i+1)%len(l)]
		d := math.Hypot(q.x-p.x, q.y-p.y)
		for d > 0 && next < gone+d && len(out) < n {
			k := (next - gone) / d
			out = append(out, xy{p.x + k*(q.x-p.x), p.y + k*(q.y-p.y)})
			next += step
		}
		gone += d
	}
	return out
}
