package finished

import (
	"image"
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/core/together"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
)

// Step is the size of a pixel of a flat picture, mm.
const Step = 0.2

// mostMean is half the side of the square of pixels whose mean one of a flat picture is.
const mostMean = 6.0

// Flat is a picture as seen from straight above.
type Flat struct {
	W, H int
	lab  [3][]float32
}

// Image is the picture for the eye.
func (f *Flat) Image() *image.RGBA {
	out := image.NewRGBA(image.Rect(0, 0, f.W, f.H))
	for i := range f.W * f.H {
		c := colour.Lab{L: float64(f.lab[0][i]), A: float64(f.lab[1][i]), B: float64(f.lab[2][i])}.Linear()
		for k := range 3 {
			out.Pix[4*i+k] = uint8(255*picture.FromLinear(math.Min(1, math.Max(0, c[k]))) + 0.5)
		}
		out.Pix[4*i+3] = 255
	}
	return out
}

// flatten sees a box of the frame, mm, from straight above.
func flatten(p *picture.Picture, to mat.Homography, box shape.Box) *Flat {
	f := &Flat{W: int(box.W()/Step) + 1, H: int(box.H()/Step) + 1}
	for k := range f.lab {
		f.lab[k] = make([]float32, f.W*f.H)
	}
	together.By(f.H, func(y int) {
		for x := range f.W {
			at := box.Min.Add(shape.Point{X: float64(x) * Step, Y: float64(y) * Step})
			q := to.At(at)
			// As many pixels as lie in its own, within reason: a perspective that is wrong runs wild.
			r := to.At(at.Add(shape.Point{X: Step / 2, Y: Step / 2})).Sub(q)
			d := math.Min(mostMean, math.Max(0.5, math.Max(math.Abs(r.X), math.Abs(r.Y))))
			if q.X < 0 || q.Y < 0 || q.X > float64(p.W) || q.Y > float64(p.H) || math.IsNaN(q.X+q.Y+d) {
				d = 0.5
			}
			q.X, q.Y = math.Min(float64(p.W)-1, math.Max(0, q.X)), math.Min(float64(p.H)-1, math.Max(0, q.Y))
			c := mean(p, q.X-d+0.5, q.Y-d+0.5, q.X+d+0.5, q.Y+d+0.5).Lab()
			i := y*f.W + x
			f.lab[0][i], f.lab[1][i], f.lab[2][i] = float32(c.L), float32(c.A), float32(c.B)
		}
	})
	return f
}

// edges are where colours meet in a flat picture.
type edges struct {
	w, h   int
	corner shape.Point
	steep  []float32     // change of colour across a pixel
	across []float32     // the direction of it, radians, 0 to pi
	limit  float32       // from which it is an edge
	by     [ways][]uint8 // how near each pixel is to an edge running that way: 255 on it, 0 from strays on
}

// How edges are found and followed; our own defaults.
const (
	ways      = 8   // directions told apart
	leastEdge = 0.8 // change of colour (CIE76) across a pixel
	overNoise = 4.0 // times the middle change
	strays    = 1.0 // mm from an edge at which a point follows it no more
)

// newEdges finds them: the change of all three coordinates at once (Di Zenzo, A note on
// the gradient of a multi-image, 1986), thinned to its crests.
func newEdges(f *Flat, corner shape.Point) *edges {
	e := &edges{w: f.W, h: f.H, corner: corner, steep: make([]float32, f.W*f.H), across: make([]float32, f.W*f.H)}
	var soft [3][]float32
	for k := range soft {
		soft[k] = smooth(f.lab[k], f.W, f.H)
	}
	for y := 1; y < f.H-1; y++ {
		for x := 1; x < f.W-1; x++ {
			i := y*f.W + x
			var xx, xy, yy float64
			for _, v := range soft {
				gx := float64(v[i+1-f.W]+2*v[i+1]+v[i+1+f.W]-v[i-1-f.W]-2*v[i-1]-v[i-1+f.W]) / 8
				gy := float64(v[i-1+f.W]+2*v[i+f.W]+v[i+1+f.W]-v[i-1-f.W]-2*v[i-f.W]-v[i+1-f.W]) / 8
				xx, xy, yy = xx+gx*gx, xy+gx*gy, yy+gy*gy
			}
			most := (xx+yy)/2 + math.Hypot((xx-yy)/2, xy)
			e.steep[i] = float32(math.Sqrt(most))
			e.across[i] = float32(math.Mod(0.5*math.Atan2(2*xy, xx-yy)+math.Pi, math.Pi))
		}
	}
	all := slices.Clone(e.steep)
	slices.Sort(all)
	e.limit = max(leastEdge, overNoise*all[len(all)/2])
	set := make([]int8, f.W*f.H) // the bin from 1
	for y := 1; y < f.H-1; y++ {
		for x := 1; x < f.W-1; x++ {
			i := y*f.W + x
			if e.steep[i] < e.limit {
				continue
			}
			s, c := math.Sincos(float64(e.across[i]))
			d := int(math.Round(s))*f.W + int(math.Round(c))
			if e.steep[i] >= e.steep[i+d] && e.steep[i] > e.steep[i-d] {
				set[i] = int8(bin(float64(e.across[i]))) + 1
			}
		}
	}
	together.By(ways, func(b int) {
		far := newNearest(f.W, f.H, func(i int) bool {
			k := int(set[i]) - 1
			return k >= 0 && (k == b || k == (b+1)%ways || k == (b+ways-1)%ways)
		}).far
		e.by[b] = make([]uint8, len(far))
		for i, d := range far {
			e.by[b][i] = uint8(255 * max(0, 1-d*Step/strays))
		}
	})
	return e
}

func bin(dir float64) int {
	return int(math.Mod(dir/math.Pi*ways+0.5+ways, ways)) % ways
}

// smooth takes the noise of single pixels away, by the binomial of five.
func smooth(v []float32, w, h int) []float32 {
	k := [5]float32{1. / 16, 4. / 16, 6. / 16, 4. / 16, 1. / 16}
	mid, out := make([]float32, len(v)), make([]float32, len(v))
	for y := range h {
		for x := range w {
			var s float32
			for j, q := range k {
				s += q * v[y*w+min(w-1, max(0, x+j-2))]
			}
			mid[y*w+x] = s
		}
	}
	for y := range h {
		for x := range w {
			var s float32
			for j, q := range k {
				s += q * mid[min(h-1, max(0, y+j-2))*w+x]
			}
			out[y*w+x] = s
		}
	}
	return out
}

// crest finds the edge nearest to a point along a direction, within reach, mm; how far
// along that is; ok is false when there is none that runs across the direction.
func (e *edges) crest(p, along shape.Point, reach float64) (t float64, ok bool) {
	dir := math.Mod(math.Atan2(along.Y, along.X)+2*math.Pi, math.Pi)
	at := func(t float64) float32 {
		q := p.Add(along.Scale(t))
		x, y := (q.X-e.corner.X)/Step, (q.Y-e.corner.Y)/Step
		i, j := int(x), int(y)
		if x < 0 || y < 0 || i >= e.w-1 || j >= e.h-1 {
			return 0
		}
		k := int(y+0.5)*e.w + int(x+0.5)
		if math.Abs(math.Remainder(float64(e.across[k])-dir, math.Pi)) > math.Pi/6 {
			return 0
		}
		fx, fy := float32(x-float64(i)), float32(y-float64(j))
		k = j*e.w + i
		return (e.steep[k]*(1-fx)+e.steep[k+1]*fx)*(1-fy) + (e.steep[k+e.w]*(1-fx)+e.steep[k+e.w+1]*fx)*fy
	}
	const by = Step / 2
	n := int(reach / by)
	v := make([]float32, 2*n+3)
	for i := range v {
		v[i] = at(float64(i-n-1) * by)
	}
	best := math.Inf(1)
	for i := 1; i < len(v)-1; i++ {
		if v[i] < e.limit || v[i] < v[i-1] || v[i] <= v[i+1] {
			continue
		}
		// The crest of the parabola through three.
		off := 0.5 * float64(v[i-1]-v[i+1]) / float64(v[i-1]-2*v[i]+v[i+1])
		if d := (float64(i-n-1) + off) * by; math.Abs(d) < math.Abs(best) {
			best, ok = d, true
		}
	}
	return best, ok
}
