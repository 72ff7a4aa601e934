package mat

import (
	"math"

	"ochrestone/core/shape"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// seen is a ring found in a picture, in pixels.
type seen struct {
	at     shape.Point
	outer  float64          // mean radius
	edges  [3][]shape.Point // outer edge, inner edge, dot
	dot    bool
	spread float64 // standard deviation of the blur at its edges
}

// rings finds dark rings on a lighter page: first coarsely, then each with its
// edges between pixels.
func rings(p *picture.Picture) []seen {
	k := max(1, int(math.Sqrt(float64(p.W*p.H)/3e6)+0.5)) // coarse picture of about three million pixels
	w, h := p.W/k, p.H/k
	luma := make([]uint8, w*h)
	for y := range h {
		for x := range w {
			i := 3 * (y*k*p.W + x*k + (k/2)*(p.W+1))
			luma[y*w+x] = uint8((2*int(p.Pix[i]) + 5*int(p.Pix[i+1]) + int(p.Pix[i+2])) / 8)
		}
	}
	dark := darker(luma, w, h)
	var out []seen
	for _, b := range darkBlobs(dark, w, h) {
		bw, bh := b.x1-b.x0, b.y1-b.y0
		if bw < 10 || bh < 10 || bw > w/6 || bh > h/6 || bw > 2*bh || bh > 2*bw {
			continue
		}
		// A ring is open in its middle and fills a known share of its box.
		fill := float64(b.n) / float64(bw*bh)
		if fill < 0.22 || fill > 0.72 || math.Abs(b.cx-float64(b.x0+b.x1-1)/2) > 0.12*float64(bw) || math.Abs(b.cy-float64(b.y0+b.y1-1)/2) > 0.12*float64(bh) {
			continue
		}
		if s, ok := refine(p, b.x0*k, b.y0*k, b.x1*k, b.y1*k); ok {
			out = append(out, s)
		}
	}
	return out
}

// darker marks pixels well below the mean of their wide surroundings.
func darker(luma []uint8, w, h int) []bool {
	r := max(12, w/28)
	sum := make([]int64, (w+1)*(h+1))
	for y := range h {
		var row int64
		for x := range w {
			row += int64(luma[y*w+x])
			sum[(y+1)*(w+1)+x+1] = sum[y*(w+1)+x+1] + row
		}
	}
	out := make([]bool, w*h)
	for y := range h {
		y0, y1 := max(0, y-r), min(h, y+r+1)
		for x := range w {
			x0, x1 := max(0, x-r), min(w, x+r+1)
			mean := float64(sum[y1*(w+1)+x1]-sum[y0*(w+1)+x1]-sum[y1*(w+1)+x0]+sum[y0*(w+1)+x0]) / float64((x1-x0)*(y1-y0))
			out[y*w+x] = float64(luma[y*w+x]) < 0.78*mean && mean > 30
		}
	}
	return out
}

type darkBlob struct {
	x0, y0, x1, y1, n int
	cx, cy            float64
}

func darkBlobs(on []bool, w, h int) []darkBlob {
	var out []darkBlob
	trace.Connected(on, w, h, func(all []int) {
		b := darkBlob{x0: w, y0: h, n: len(all)}
		for _, i := range all {
			x, y := i%w, i/w
			b.cx, b.cy = b.cx+float64(x)/float64(b.n), b.cy+float64(y)/float64(b.n)
			b.x0, b.x1, b.y0, b.y1 = min(b.x0, x), max(b.x1, x+1), min(b.y0, y), max(b.y1, y+1)
		}
		out = append(out, b)
	})
	return out
}

// refine measures the edges of a ring in a box of the picture.
func refine(p *picture.Picture, x0, y0, x1, y1 int) (seen, bool) {
	pad := max(4, (x1-x0)/6)
	x0, y0, x1, y1 = max(0, x0-pad), max(0, y0-pad), min(p.W, x1+pad), min(p.H, y1+pad)
	w, h := x1-x0, y1-y0
	v := make([]float32, w*h)
	var hist [256]int
	for y := range h {
		for x := range w {
			r, g, b := p.At(x0+x, y0+y)
			l := 0.21*picture.Linear(r) + 0.72*picture.Linear(g) + 0.07*picture.Linear(b)
			v[y*w+x] = 1 - l
			hist[min(255, int(l*255))]++
		}
	}
	// The page is the brightest quarter, the ring the darkest tenth.
	lo, hi := share(hist[:], 0.08), share(hist[:], 0.85)
	if hi-lo < 0.12 {
		return seen{}, false
	}
	var outer, inner, dot []shape.Point
	lines := trace.Lines(x0, y0, w, h, v, float32(1-(lo+hi)/2))
	for _, l := range lines {
		if a := area(l); a > area(outer) {
			outer = l
		}
	}
	if len(outer) < 24 {
		return seen{}, false
	}
	c := centre(outer)
	for _, l := range lines {
		d := centre(l).Distance(c)
		switch a := area(l); {
		case a < 0 && -a > 0.1*area(outer) && d < 0.15*radius(outer) && (inner == nil || a < area(inner)):
			inner = l
		case a > 0 && a < 0.3*area(outer) && a > 0.03*area(outer) && d < 0.15*radius(outer):
			dot = l
		}
	}
	if inner == nil {
		return seen{}, false
	}
	s := seen{at: c, outer: radius(outer), edges: [3][]shape.Point{outer, inner, dot}, dot: dot != nil}
	// The inner edge of a ring with a dot lies further out than that of one without.
	if ratio := math.Sqrt(-area(inner) / area(outer)); ratio < 0.35 || ratio > 0.85 || s.dot && ratio < 0.5 {
		return seen{}, false
	}
	s.spread = spread(v, x0, y0, w, h, outer, hi-lo)
	return s, true
}

// share is the value, 0 to 1, under which a share of a histogram lies.
func share(hist []int, k float64) float64 {
	n := 0
	for _, c := range hist {
		n += c
	}
	sum := 0
	for i, c := range hist {
		if sum += c; float64(sum) >= k*float64(n) {
			return (float64(i) + 0.5) / 255
		}
	}
	return 1
}

func area(l []shape.Point) float64 { return shape.Ring(l).Area() }

func centre(l []shape.Point) shape.Point { return shape.Raw(shape.Ring(l)).Centroid() }

func radius(l []shape.Point) float64 { return math.Sqrt(math.Abs(area(l)) / math.Pi) }

// spread is the standard deviation, in pixels, of the blur across an edge: the
// greatest slope of a blurred step of height d is d/(σ√2π).
func spread(v []float32, x0, y0, w, h int, line []shape.Point, d float64) float64 {
	var sum float64
	n := 0.0
	for _, p := range line {
		x, y := int(p.X)-x0, int(p.Y)-y0
		if x < 1 || y < 1 || x >= w-1 || y >= h-1 {
			continue
		}
		gx := float64(v[y*w+x+1]-v[y*w+x-1]) / 2
		gy := float64(v[(y+1)*w+x]-v[(y-1)*w+x]) / 2
		sum += math.Hypot(gx, gy)
		n++
	}
	if n == 0 || sum == 0 {
		return math.Inf(1)
	}
	return d / (sum / n * math.Sqrt(2*math.Pi))
}
