// Package sim is the simulated scanner and phone camera: it turns pieces laid
// on a sheet into the picture a device would take of them, with noise, uneven
// light, shadow, dust and blur, the same for the same seed. It needs no device
// and knows nothing of how pictures are read back.
package sim

import (
	"image"
	"maps"
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"sync"

	"golang.org/x/image/vector"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// Item is a piece, or a print, in its place on the bench.
type Item struct {
	Outline shape.Region // mm
	Colour  colour.Linear
	Stripe  *colour.Linear // second colour of a striped paper
	Print   bool           // ink on the sheet: no thickness, no shadow, blotchy
	Even    bool           // printed by a machine: not blotchy
	Rim     *Rim           // the core of the card that shows at its edge
	Lift    float64        // how far its edge stands off the glass, mm: card that curls
	Film    *colour.Film   // ink one sees through: what is beneath tells; Colour is not used
	Strikes int            // impressions of the film
	Bare    float64        // share of the print that took no ink, in grains and in whole places
}

// Rim is the core of the card where it shows beside what is printed on it: all round, or
// only on the side the lamp shines on.
type Rim struct {
	W      float64 // mm
	Colour colour.Linear
	Sided  bool
	Side   float64 // degrees clockwise from the right, of the side on which it is widest
}

// Cast is the shadow a piece throws on its sheet.
type Cast struct {
	Far  float64 // how far it falls, mm
	Soft float64 // standard deviation of its edge, mm
	Side float64 // degrees clockwise from the right
}

// Bench is what lies under the lid or the lens.
type Bench struct {
	W, H    float64 // mm
	Sheet   colour.Linear
	Texture float64 // of the sheet: standard deviation of its light, share
	Stacked bool    // the items lie on one another, each throwing its shadow on what is beneath
	Items   []Item
}

// Grade is how well the device sees.
type Grade struct {
	Noise   float64 // standard deviation, share of the sRGB range
	Uneven  float64 // fall of the light towards one side, share
	Shadow  float64 // depth of the soft shadow beside a piece, share
	Cast    *Cast   // where it falls; nil: 0.6 mm down to the right, very soft
	Dust    int     // specks per 1000 mm²; a tenth of it is enough to see
	Blur    float64 // standard deviation of the lens, pixels
	Tone    float64 // exponent of a tone curve nobody knows; 1 is none
	Sharpen float64 // strength of the device's own sharpening
	Blotch  float64 // how patchy a solid print is, share
	Mottle  float64 // how unevenly ink lies, both ways: standard deviation, share of its density
}

// Plain is an ordinary device, Hard one with a tone curve and sharpening of
// its own.
func Plain() Grade {
	return Grade{Noise: 3.0 / 255, Uneven: 0.08, Shadow: 0.25, Dust: 2, Blur: 0.65, Tone: 1, Blotch: 0.25}
}

// Hard is Plain with an unknown tone curve and the device's own sharpening.
func Hard() Grade {
	g := Plain()
	g.Tone, g.Sharpen = 1.15, 0.7
	return g
}

// plane is one channel in linear light.
type plane struct {
	w, h int
	v    []float32
}

func newPlane(w, h int) plane { return plane{w, h, make([]float32, w*h)} }

// shortEdge is the longest edge drawn at once, pixels.
const shortEdge = 12.0

// cover is how much of every pixel a region covers, exact for polygons.
func cover(g shape.Region, w, h int, perMM float64) *image.Alpha {
	b := g.Bounds()
	x0, y0 := max(0, int(b.Min.X*perMM)-1), max(0, int(b.Min.Y*perMM)-1)
	x1, y1 := min(w, int(b.Max.X*perMM)+2), min(h, int(b.Max.Y*perMM)+2)
	if x1 <= x0 || y1 <= y0 {
		return image.NewAlpha(image.Rect(0, 0, 0, 0))
	}
	z := vector.NewRasterizer(x1-x0, y1-y0)
	for _, r := range g.Rings() {
		for i, p := range r {
			if i == 0 {
				z.MoveTo(float32(p.X*perMM-float64(x0)), float32(p.Y*perMM-float64(y0)))
			}
			// The rasterizer keeps slopes to a thousandth: along a long edge that adds
			// up to a third of a pixel, so edges go to it in short pieces.
			q := r[(i+1)%len(r)]
			n := max(1, int(math.Ceil(p.Distance(q)*perMM/shortEdge)))
			for k := 1; k <= n; k++ {
				at := p.Add(q.Sub(p).Scale(float64(k) / float64(n)))
				z.LineTo(float32(at.X*perMM-float64(x0)), float32(at.Y*perMM-float64(y0)))
			}
		}
		z.ClosePath()
	}
	a := image.NewAlpha(image.Rect(0, 0, x1-x0, y1-y0))
	z.Draw(a, a.Bounds(), image.Opaque, image.Point{})
	a.Rect = image.Rect(x0, y0, x1, y1)
	return a
}

// Scan is the bench as a flatbed scanner sees it.
func (b Bench) Scan(dpi float64, g Grade, seed uint64) *image.RGBA {
	perMM := dpi / 25.4
	rnd := rand.New(rand.NewPCG(seed, 0x5ca11))
	planes := b.paint(perMM, g, rnd)
	return develop(planes, g, rnd)
}

// paint renders the bench in linear light.
func (b Bench) paint(perMM float64, g Grade, rnd *rand.Rand) [3]plane {
	w, h := int(math.Round(b.W*perMM)), int(math.Round(b.H*perMM))
	var out [3]plane
	for c := range out {
		out[c] = newPlane(w, h)
		for i := range out[c].v {
			out[c].v[i] = float32(b.Sheet[c])
		}
	}
	if b.Texture > 0 {
		grain := newPlane(w, h)
		for i := range grain.v {
			grain.v[i] = float32(rnd.NormFloat64())
		}
		spread := 0.15 * perMM
		grain.blur(spread)
		k := b.Texture * 2 * math.Sqrt(math.Pi) * spread // what the blur took of its strength
		for c := range out {
			for i, v := range grain.v {
				out[c].v[i] *= 1 + float32(k)*v
			}
		}
	}
	covers := make([]*image.Alpha, len(b.Items))
	for i, it := range b.Items {
		covers[i] = cover(it.Outline, w, h, perMM)
	}
	shadow := func(b Bench, covers []*image.Alpha) {
		shade := b.shade(covers, g, w, h, perMM)
		for c := range out {
			for i, s := range shade.v {
				out[c].v[i] *= 1 - float32(g.Shadow)*s
			}
		}
	}
	if !b.Stacked {
		shadow(b, covers)
	}
	for i, it := range b.Items {
		if b.Stacked {
			shadow(Bench{Items: b.Items[i : i+1]}, covers[i:i+1])
		}
		patches := newBlotches(rnd, g.Blotch)
		var took *plane
		if it.Bare > 0 {
			took = grains(w, h, perMM, it.Bare, patches, rnd)
		}
		var top *image.Alpha // what is printed on it, within its rim
		if it.Rim != nil {
			top = cover(it.printed(), w, h, perMM)
		}
		each(covers[i], func(x, y int, a float32) {
			col := it.Colour
			if it.Rim != nil {
				t := float64(min(float32(top.AlphaAt(x, y).A)/255, a) / a)
				for c := range col {
					col[c] = it.Rim.Colour[c] + t*(col[c]-it.Rim.Colour[c])
				}
			} else if it.Stripe != nil && int(float64(x+y)/perMM/1.8)%2 == 0 {
				col = *it.Stripe
			}
			k := a
			if it.Print && !it.Even {
				k *= float32(patches.at(float64(x)/perMM, float64(y)/perMM))
			}
			if took != nil {
				k *= took.v[y*w+x]
			}
			if it.Print && !it.Even && g.Mottle > 0 {
				deep := 1 + g.Mottle*patches.wave(float64(x)/perMM, float64(y)/perMM)
				for c := range col {
					col[c] = math.Pow(max(1e-3, col[c]), deep)
				}
			}
			if it.Film != nil {
				at := y*w + x
				col = it.Film.Over(colour.Linear{float64(out[0].v[at]), float64(out[1].v[at]), float64(out[2].v[at])}, max(1, it.Strikes))
			}
			for c := range out {
				v := &out[c].v[y*w+x]
				*v += k * (float32(col[c]) - *v)
			}
		})
	}
	for range int(float64(g.Dust) * b.W * b.H / 1000 / 10) {
		x, y, r := rnd.Float64()*b.W, rnd.Float64()*b.H, 0.08+0.22*rnd.Float64()
		tone := float32(0.25 + 0.5*rnd.Float64())
		each(cover(shape.Disc(shape.Point{X: x, Y: y}, r), w, h, perMM), func(x, y int, a float32) {
			for c := range out {
				v := &out[c].v[y*w+x]
				*v += a * (tone - *v)
			}
		})
	}
	sin, cos := math.Sincos(rnd.Float64() * 2 * math.Pi) // where the lamp stands
	for c := range out {
		rows(h, func(y int) {
			v := float64(y)/float64(h) - 0.5
			for x := range w {
				u := float64(x)/float64(w) - 0.5
				out[c].v[y*w+x] *= float32(1 - g.Uneven*(0.5+u*cos+v*sin-0.3*(u*u+v*v)))
			}
		})
		out[c].blur(g.Blur)
	}
	return out
}

// printed is what of a piece is printed, within the rim of its core.
func (it Item) printed() shape.Region {
	in, err := it.Outline.Offset(-it.Rim.W)
	if err != nil {
		return it.Outline
	}
	if !it.Rim.Sided {
		return in
	}
	// Half as wide all round, moved: as wide as said on one side, none on the other.
	half, err := it.Outline.Offset(-it.Rim.W / 2)
	if err != nil {
		return in
	}
	sin, cos := math.Sincos(it.Rim.Side * math.Pi / 180)
	return half.Move(shape.Point{X: -cos * it.Rim.W / 2, Y: -sin * it.Rim.W / 2})
}

// shade is how deep the shadow of the pieces is, 0 to 1: pieces whose edge stands off the
// glass throw theirs further and softer.
func (b Bench) shade(covers []*image.Alpha, g Grade, w, h int, perMM float64) plane {
	cast := Cast{Far: math.Hypot(0.35, 0.5), Soft: 0.6, Side: math.Atan2(0.5, 0.35) * 180 / math.Pi}
	if g.Cast != nil {
		cast = *g.Cast
	}
	sin, cos := math.Sincos(cast.Side * math.Pi / 180)
	byLift := map[float64][]int{}
	for i, it := range b.Items {
		if !it.Print {
			byLift[it.Lift] = append(byLift[it.Lift], i)
		}
	}
	out := newPlane(w, h)
	for _, lift := range slices.Sorted(maps.Keys(byLift)) {
		one := newPlane(w, h)
		far := cast.Far + 0.6*lift
		dx, dy := int(far*cos*perMM+1e-9), int(far*sin*perMM+1e-9)
		for _, i := range byLift[lift] {
			each(covers[i], func(x, y int, a float32) {
				if x, y = x+dx, y+dy; x >= 0 && y >= 0 && x < w && y < h {
					one.v[y*w+x] = max(one.v[y*w+x], a)
				}
			})
		}
		one.blur((cast.Soft + 0.25*lift) * perMM)
		for i, v := range one.v {
			out.v[i] = max(out.v[i], v)
		}
	}
	return out
}

// each visits the pixels a cover touches.
func each(a *image.Alpha, f func(x, y int, a float32)) {
	r := a.Rect
	for y := r.Min.Y; y < r.Max.Y; y++ {
		row := a.Pix[(y-r.Min.Y)*a.Stride:]
		for x := r.Min.X; x < r.Max.X; x++ {
			if v := row[x-r.Min.X]; v > 0 {
				f(x, y, float32(v)/255)
			}
		}
	}
}

// blur spreads the plane by a Gaussian of the given standard deviation.
func (p plane) blur(sigma float64) {
	if sigma <= 0 {
		return
	}
	// What is to be very soft is blurred small: nobody sees the difference, and it takes a
	// hundredth of the time.
	if by := int(sigma / 3); by > 1 {
		small := p.shrunk(by)
		small.blur(sigma / float64(by))
		p.grow(small, by)
		return
	}
	r := int(math.Ceil(3.5 * sigma))
	k := make([]float32, r+1)
	var sum float64
	for i := range k {
		v := math.Exp(-float64(i*i) / (2 * sigma * sigma))
		k[i] = float32(v)
		sum += v
		if i > 0 {
			sum += v
		}
	}
	for i := range k {
		k[i] /= float32(sum)
	}
	rows(p.h, func(y int) {
		line := make([]float32, p.w+2*r)
		row := p.v[y*p.w : (y+1)*p.w]
		for i := range line {
			line[i] = row[min(p.w-1, max(0, i-r))]
		}
		for i := range row {
			s := k[0] * line[i+r]
			for j := 1; j <= r; j++ {
				s += k[j] * (line[i+r-j] + line[i+r+j])
			}
			row[i] = s
		}
	})
	from := append([]float32{}, p.v...)
	rows(p.h, func(y int) {
		out := p.v[y*p.w : (y+1)*p.w]
		mid := from[y*p.w:][:p.w]
		for i := range out {
			out[i] = k[0] * mid[i]
		}
		for j := 1; j <= r; j++ {
			up, down := from[max(0, y-j)*p.w:][:p.w], from[min(p.h-1, y+j)*p.w:][:p.w]
			for i := range out {
				out[i] += k[j] * (up[i] + down[i])
			}
		}
	})
}

// shrunk is the plane with squares of so many pixels made one.
func (p plane) shrunk(by int) plane {
	out := newPlane((p.w+by-1)/by, (p.h+by-1)/by)
	rows(out.h, func(y int) {
		for x := range out.w {
			sum, n := float32(0), 0
			for j := y * by; j < min(p.h, (y+1)*by); j++ {
				for _, v := range p.v[j*p.w+x*by : j*p.w+min(p.w, (x+1)*by)] {
					sum += v
					n++
				}
			}
			out.v[y*out.w+x] = sum / float32(n)
		}
	})
	return out
}

// grow fills the plane from a shrunk one, evenly between the middles of its squares.
func (p plane) grow(small plane, by int) {
	at := func(i, n int) (int, int, float32) {
		f := (float32(i)+0.5)/float32(by) - 0.5
		k := int(math.Floor(float64(f)))
		return max(0, min(n-1, k)), max(0, min(n-1, k+1)), f - float32(k)
	}
	rows(p.h, func(y int) {
		a, b, fy := at(y, small.h)
		up, down := small.v[a*small.w:], small.v[b*small.w:]
		for x := range p.w {
			l, r, fx := at(x, small.w)
			p.v[y*p.w+x] = (up[l]*(1-fx)+up[r]*fx)*(1-fy) + (down[l]*(1-fx)+down[r]*fx)*fy
		}
	})
}

// rows calls f for every row, on all processors.
func rows(h int, f func(y int)) {
	var wg sync.WaitGroup
	n := runtime.GOMAXPROCS(0)
	for k := range n {
		wg.Go(func() {
			for y := k * h / n; y < (k+1)*h/n; y++ {
				f(y)
			}
		})
	}
	wg.Wait()
}

// gamma holds FromLinear in fine steps.
var gamma = func() (t [1<<14 + 1]float32) {
	for i := range t {
		t[i] = float32(picture.FromLinear(float64(i) / (1 << 14)))
	}
	return t
}()

// curve is what the device makes of linear light, in fine steps.
type curve [1<<14 + 1]float32

func (t *curve) at(v float32) float32 {
	f := min(1, max(0, v)) * (1 << 14)
	i := min(1<<14-1, int(f))
	return t[i] + (f-float32(i))*(t[i+1]-t[i])
}

// toned is the sRGB curve with a tone curve upon it.
func toned(tone float64) *curve {
	t := curve(gamma)
	if tone != 1 && tone != 0 {
		for i, v := range t {
			t[i] = float32(math.Pow(float64(v), tone))
		}
	}
	return &t
}

// develop turns linear light into the device's 8-bit picture.
func develop(in [3]plane, g Grade, rnd *rand.Rand) *image.RGBA {
	w, h := in[0].w, in[0].h
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	seed, tone := rnd.Uint64(), toned(g.Tone)
	for c := range in {
		p := in[c]
		rows(h, func(y int) {
			for i := y * w; i < (y+1)*w; i++ {
				p.v[i] = tone.at(p.v[i])
			}
		})
		if g.Sharpen > 0 {
			soft := plane{w, h, append([]float32{}, p.v...)}
			soft.blur(1.2)
			for i := range p.v {
				p.v[i] += float32(g.Sharpen) * (p.v[i] - soft.v[i])
			}
		}
		rows(h, func(y int) {
			grain := rand.New(rand.NewPCG(seed+uint64(c), uint64(y)))
			for i := y * w; i < (y+1)*w; i++ {
				s := float64(p.v[i]) + g.Noise*grain.NormFloat64()
				out.Pix[4*i+c] = uint8(min(255, max(0, s*255+0.5)))
				out.Pix[4*i+3] = 255
			}
		})
	}
	return out
}
