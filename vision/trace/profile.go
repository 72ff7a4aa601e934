package trace

import (
	"math"
	"slices"

	"ochrestone/vision/picture"
)

// Reach of a profile across an edge, in pixels: inward as far as the end of a deep shadow may
// have been taken for the edge, outward past a rim and into the sheet.
const (
	profileIn  = 30.0
	profileOut = 10.0
	profileBin = 0.5
	profileLen = int((profileIn + profileOut) / profileBin)
)

// Stretches of an edge that are looked at together, in pixels along it: each way, and from
// one to the next.
const (
	stretchHalf = 18
	stretchStep = 16
)

// profile is the picture across one stretch of an edge, finer than its pixels because the
// edge crosses them at every phase (ISO 12233, the slanted edge): the mean of what the pixels
// at each distance from the line show, outward positive.
type profile struct {
	at    [profileLen]float64    // mean distance of the pixels of a bin, pixels
	n     [profileLen]float64    // how many there are
	code  [profileLen][3]float64 // mean coded value, 0 to 1; only the first where colour is smeared
	rough float64                // standard deviation of the pixels well inside, coded: paper that is striped or flecked
	chans int
	sheet [3]float64 // of the same channels, linear
}

// drawn marks the pixels that lines run through.
type drawn struct {
	p  *patch
	on []bool
}

func (p *patch) draw(lines [][]xy) drawn {
	d := drawn{p, make([]bool, p.w*p.h)}
	for _, l := range lines {
		for _, q := range l {
			x, y := int(q.x)-p.x0, int(q.y)-p.y0
			if x >= 0 && y >= 0 && x < p.w && y < p.h {
				d.on[y*p.w+x] = true
			}
		}
	}
	return d
}

// near reports whether a line runs through a pixel or beside it.
func (d drawn) near(x, y float64) bool {
	i, j := int(math.Floor(x))-d.p.x0, int(math.Floor(y))-d.p.y0
	for dy := -1; dy <= 1; dy++ {
		for dx := -1; dx <= 1; dx++ {
			if u, v := i+dx, j+dy; u >= 0 && v >= 0 && u < d.p.w && v < d.p.h && d.on[v*d.p.w+u] {
				return true
			}
		}
	}
	return false
}

// profileAt reads the stretch of a line round one of its points; its normals point outward.
func (p *patch) profileAt(l, normal []xy, mid, half int, lines drawn) (profile, bool) {
	pr := profile{chans: 3}
	if p.pic.Soft {
		pr.chans = 1
	}
	n := len(l)
	var inside spread
	used := 0
	for k := -half; k <= half; k++ {
		i := ((mid+k)%n + n) % n
		if turned(normal, i) {
			continue // round a corner the sides are not one edge
		}
		used++
		p.ray(&pr, l[i], normal[i], lines, &inside)
	}
	if used < half {
		return pr, false
	}
	for b := range pr.at {
		if k := pr.n[b]; k > 0 {
			pr.at[b] /= k
			for c := range pr.code[b] {
				pr.code[b][c] /= k
			}
		}
	}
	pr.rough = inside.deviation()
	g := p.ground.linear(l[mid].x, l[mid].y)
	pr.sheet = [3]float64{float64(g[0]), float64(g[1]), float64(g[2])}
	if pr.chans == 1 {
		pr.sheet[0] = grey(pr.sheet)
	}
	return pr, true
}

// Between how far inside, in pixels, a paper's own pattern is measured.
const (
	roughFrom = 2.5
	roughTo   = 8.0
)

// spread is a sum for a standard deviation.
type spread struct{ n, sum, square float64 }

func (s *spread) add(v float64) { s.n, s.sum, s.square = s.n+1, s.sum+v, s.square+v*v }

func (s *spread) deviation() float64 {
	if s.n < 2 {
		return 0
	}
	return math.Sqrt(max(0, s.square/s.n-s.sum*s.sum/s.n/s.n))
}

// turned reports whether a line turns by more than a curve does about a point.
func turned(normal []xy, i int) bool {
	const span, most = 5, 0.80 // cosine of 37 degrees
	n := len(normal)
	a, b := normal[((i-span)%n+n)%n], normal[(i+span)%n]
	return a.x*b.x+a.y*b.y < most
}

// ray adds the pixels a normal runs through, until another line or another piece is met.
func (p *patch) ray(pr *profile, at, n xy, lines drawn, inside *spread) {
	for _, way := range [2]float64{-1, 1} {
		far := profileIn
		if way > 0 {
			far = profileOut
		}
		for k := (1 - way) / 2 * 0.5; k < far; k++ {
			x, y := at.x+way*k*n.x, at.y+way*k*n.y
			i, j := int(math.Floor(x)), int(math.Floor(y))
			if i < 0 || j < 0 || i >= p.pic.W || j >= p.pic.H {
				break
			}
			if k > 3 && lines.near(x, y) {
				// The last pixels had already begun to see it.
				break
			}
			if way > 0 && k > 2 && p.other(i, j) {
				break
			}
			d := (float64(i)+0.5-at.x)*n.x + (float64(j)+0.5-at.y)*n.y
			b := int((d + profileIn) / profileBin)
			if b < 0 || b >= profileLen {
				continue
			}
			q := p.pic.Pix[3*(j*p.pic.W+i):][:3]
			pr.n[b]++
			pr.at[b] += d
			if d > -roughTo && d < -roughFrom {
				inside.add(float64(q[1]) / 255)
			}
			if pr.chans == 1 {
				pr.code[b][0] += (0.299*float64(q[0]) + 0.587*float64(q[1]) + 0.114*float64(q[2])) / 255
				continue
			}
			for c := range q {
				pr.code[b][c] += float64(q[c]) / 255
			}
		}
	}
}

// other reports whether a pixel of the picture belongs to another piece.
func (p *patch) other(x, y int) bool {
	i, j := x-p.x0, y-p.y0
	if i >= 0 && j >= 0 && i < p.w && j < p.h && p.mask[j*p.w+i] {
		return false
	}
	return p.diff[y*p.pic.W+x] > p.level
}

// device is what is known of how the picture was taken: the blur of an edge, the strength of
// the sharpening the device did of its own, and the exponent of its tone curve.
type device struct {
	blur    float64 // standard deviation, pixels
	sharpen float64
	tone    float64
	misfit  float64 // mean squares that edges leave under it, at least 1
}

// halo is the standard deviation, pixels, of the blur a device sharpens by.
const halo = 1.2

// even is a profile in linear light as the card gave it: the device's sharpening and tone
// undone. Bins without pixels have no weight.
type even struct {
	at     [profileLen]float64
	v      [profileLen][3]float64
	weight [profileLen][3]float64
	slope  [profileLen][3]float64 // linear light per coded step, there
	chans  int
	sheet  [3]float64
	lo, hi int // first and past the last bin without a gap round the line
}

// leastMisfit is how near, in coded values, a profile can be expected to follow any model.
const leastMisfit = 0.002

// softMisfit is the same where the picture was pressed into less room than it needs (JPEG).
const softMisfit = 0.008

func (pr *profile) misfit() float64 {
	if pr.chans == 1 {
		return softMisfit
	}
	return leastMisfit
}

// workedOver is how near, as a share of an edge's contrast, where the device sharpens or has
// a tone curve of its own.
const workedOver = 0.008

// A paper is patterned from so many times the noise of the picture on, and its pattern runs
// on for so many pixels.
const (
	rougher    = 1.8
	patternRun = 8.0
)

func (pr *profile) even(dev device, noise float64) *even {
	e := &even{chans: pr.chans, sheet: pr.sheet, at: pr.at}
	mid := int(profileIn / profileBin)
	e.lo, e.hi = mid, mid
	for e.lo > 0 && (pr.n[e.lo-1] > 0 || e.lo > 1 && pr.n[e.lo-2] > 0) {
		e.lo--
	}
	for e.hi < profileLen && (pr.n[e.hi] > 0 || e.hi+1 < profileLen && pr.n[e.hi+1] > 0) {
		e.hi++
	}
	for c := range pr.chans {
		code := pr.filled(c, e.lo, e.hi)
		plain := unsharp(code, dev.sharpen)
		misfit := pr.misfit()
		if dev.sharpen > 0 || dev.tone != 1 {
			// A device that works over its pictures does so in ways of its own.
			misfit = max(misfit, workedOver*(slices.Max(code)-slices.Min(code)))
		}
		for b := e.lo; b < e.hi; b++ {
			q := min(1, max(0.002, plain[b-e.lo]))
			lin := func(q float64) float64 { return picture.ToLinear(math.Pow(q, 1/dev.tone)) }
			e.v[b][c] = lin(q)
			e.slope[b][c] = max(0.05, (lin(q+0.01)-lin(q-0.002))/0.012)
			if pr.n[b] > 0 {
				s := e.slope[b][c]
				v := noise*noise/pr.n[b] + misfit*misfit
				if e.at[b] < 0.5 && pr.rough > rougher*noise {
					// What a pattern gives the mean of a few pixels is not noise that averages out.
					v += pr.rough * pr.rough / max(1, pr.n[b]/patternRun)
				}
				e.weight[b][c] = 1 / (s * s * v)
			}
		}
	}
	return e
}

// filled is one channel over some bins, those without pixels taken from their neighbours.
func (pr *profile) filled(c, lo, hi int) []float64 {
	out := make([]float64, hi-lo)
	for b := lo; b < hi; b++ {
		switch {
		case pr.n[b] > 0:
			out[b-lo] = pr.code[b][c]
		case b > lo && b+1 < hi && pr.n[b+1] > 0 && pr.n[b-1] > 0:
			out[b-lo] = (pr.code[b-1][c] + pr.code[b+1][c]) / 2
		case b > lo:
			out[b-lo] = out[b-lo-1]
		default:
			out[b-lo] = pr.code[min(b+1, profileLen-1)][c]
		}
	}
	return out
}

// haloKernel is the blur of a device's sharpening over bins.
var haloKernel = func() []float64 {
	s := halo / profileBin
	r := int(3 * s)
	k := make([]float64, 2*r+1)
	sum := 0.0
	for i := range k {
		k[i] = math.Exp(-float64((i-r)*(i-r)) / (2 * s * s))
		sum += k[i]
	}
	for i := range k {
		k[i] /= sum
	}
	return k
}()

func haloed(v []float64) []float64 {
	out := make([]float64, len(v))
	r := len(haloKernel) / 2
	for i := range v {
		for j, k := range haloKernel {
			out[i] += k * v[min(len(v)-1, max(0, i+j-r))]
		}
	}
	return out
}

// unsharp undoes v + a (v - blurred v): the solution is approached from v, each round taking
// a/(1+a) off what is left.
func unsharp(v []float64, a float64) []float64 {
	if a == 0 {
		return v
	}
	u := append([]float64{}, v...)
	for range 6 {
		soft := haloed(u)
		for i := range u {
			u[i] = (v[i] + a*soft[i]) / (1 + a)
		}
	}
	return u
}
