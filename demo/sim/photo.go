package sim

import (
	"image"
	"math"
	"math/rand/v2"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
)

// Camera is a phone held over the bench.
type Camera struct {
	W, H  int     // pixels
	Tilt  float64 // from looking straight down, degrees
	Lean  float64 // direction it tilts to, degrees
	Roll  float64 // turn about the line of sight, degrees
	Bend  float64 // k1 of the lens: bent = straight·(1 + k1 r²), r 1 at half the diagonal
	Fill  float64 // share of the picture's height that the bench takes
	Aside float64 // how far, mm, it points past the middle
}

// Phone is a camera of twelve million pixels.
func Phone() Camera { return Camera{W: 3024, H: 4032, Fill: 0.86} }

// OnMat lays pieces in the field of the measuring mat.
func OnMat(l mat.Layout, laid []Laid, pieces []Item) (Bench, []Laid) {
	paper, black := colour.Linear{0.84, 0.84, 0.83}, colour.Linear{0.025, 0.025, 0.027}
	b := Bench{W: l.Page.W, H: l.Page.H, Sheet: paper}
	for _, g := range l.Ink() {
		b.Items = append(b.Items, Item{Outline: g, Colour: black, Print: true, Even: true})
	}
	for _, p := range l.Patches {
		b.Items = append(b.Items, Item{Outline: shape.Rect(p.Box.Min.X, p.Box.Min.Y, p.Box.W(), p.Box.H()), Colour: p.Colour, Print: true, Even: true})
	}
	truth := make([]Laid, len(laid))
	for i, it := range pieces {
		it.Outline = it.Outline.Move(l.Field.Min)
		b.Items = append(b.Items, it)
		truth[i] = laid[i]
	}
	return b, truth
}

// Photo is the bench as a camera sees it.
func (b Bench) Photo(cam Camera, g Grade, seed uint64) *image.RGBA {
	rnd := rand.New(rand.NewPCG(seed, 0xca3e))
	const perMM = 16.0
	sharp := g
	sharp.Blur, sharp.Blotch = 0, 0
	src := b.paint(perMM, sharp, rnd)
	half := math.Hypot(float64(cam.W), float64(cam.H)) / 2
	focal := 0.8 * float64(cam.H)
	far := focal * b.H / (cam.Fill * float64(cam.H)) // distance, mm
	// The camera looks along d, with axes u across and v down.
	t, lean, roll := cam.Tilt*math.Pi/180, cam.Lean*math.Pi/180, cam.Roll*math.Pi/180
	d := [3]float64{math.Sin(t) * math.Cos(lean), math.Sin(t) * math.Sin(lean), math.Cos(t)}
	u := unit(cross([3]float64{0, 1, 0}, d))
	v := cross(d, u)
	u, v = mix(u, v, math.Cos(roll), math.Sin(roll)), mix(v, u, math.Cos(roll), -math.Sin(roll))
	eye := [3]float64{b.W/2 + cam.Aside - far*d[0], b.H/2 - far*d[1], -far * d[2]}
	var out [3]plane
	for c := range out {
		out[c] = newPlane(cam.W, cam.H)
	}
	table := [3]float32{0.22, 0.17, 0.12}
	lens := newLens(cam.Bend)
	rows(cam.H, func(y int) {
		for x := range cam.W {
			var sum [3]float32
			for k := range 4 {
				px := float64(x) + 0.25 + 0.5*float64(k&1) - float64(cam.W)/2
				py := float64(y) + 0.25 + 0.5*float64(k>>1) - float64(cam.H)/2
				s := lens.straight(math.Sqrt(px*px+py*py) / half)
				dir := [3]float64{d[0]*focal + s*(u[0]*px+v[0]*py), d[1]*focal + s*(u[1]*px+v[1]*py), d[2]*focal + s*(u[2]*px+v[2]*py)}
				at := -eye[2] / dir[2]
				mx, my := (eye[0]+at*dir[0])*perMM-0.5, (eye[1]+at*dir[1])*perMM-0.5
				i, j := int(math.Floor(mx)), int(math.Floor(my))
				if dir[2] <= 0 || i < 0 || j < 0 || i >= src[0].w-1 || j >= src[0].h-1 {
					for c := range sum {
						sum[c] += table[c] / 4
					}
					continue
				}
				fx, fy := float32(mx-float64(i)), float32(my-float64(j))
				for c := range sum {
					p := src[c].v[j*src[c].w+i:]
					q := src[c].v[(j+1)*src[c].w+i:]
					sum[c] += ((p[0]*(1-fx)+p[1]*fx)*(1-fy) + (q[0]*(1-fx)+q[1]*fx)*fy) / 4
				}
			}
			for c := range sum {
				out[c].v[y*cam.W+x] = sum[c]
			}
		}
	})
	for c := range out {
		out[c].blur(g.Blur)
	}
	return develop(out, g, rnd)
}

// straight is the factor that undoes the lens at radius r of the bent picture.
func straight(r, k1 float64) float64 {
	if k1 == 0 || r == 0 {
		return 1
	}
	s := r
	for range 12 { // Newton on s(1+k1 s²) = r
		s -= (s*(1+k1*s*s) - r) / (1 + 3*k1*s*s)
	}
	return s / r
}

// lens is straight in fine steps of the radius, up to the corner of the picture.
type lens [1<<12 + 2]float64

func newLens(k1 float64) *lens {
	var l lens
	for i := range l {
		l[i] = straight(float64(i)/(1<<12), k1)
	}
	return &l
}

func (l *lens) straight(r float64) float64 {
	f := r * (1 << 12)
	i := min(1<<12, int(f))
	return l[i] + (f-float64(i))*(l[i+1]-l[i])
}

func cross(a, b [3]float64) [3]float64 {
	return [3]float64{a[1]*b[2] - a[2]*b[1], a[2]*b[0] - a[0]*b[2], a[0]*b[1] - a[1]*b[0]}
}

func unit(a [3]float64) [3]float64 {
	l := math.Sqrt(a[0]*a[0] + a[1]*a[1] + a[2]*a[2])
	return [3]float64{a[0] / l, a[1] / l, a[2] / l}
}

func mix(a, b [3]float64, k, l float64) [3]float64 {
	return [3]float64{k*a[0] + l*b[0], k*a[1] + l*b[1], k*a[2] + l*b[2]}
}
