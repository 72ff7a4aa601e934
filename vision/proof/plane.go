package proof

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
)

// Plane is a scan or a photograph of proofs in linear light and at true size.
type Plane struct {
	w, h   int
	perMM  float64
	v      []float32
	corner shape.Point // of a part, in the whole, mm
	light  float64     // of the darkest corner against the paper; near 1 when the margins are paper
}

// Numbers of planes.
const (
	finest  = 12.0 // pixels to the mm that are kept; more only takes longer
	onMat   = 9.0  // pixels to the mm a photograph is brought to
	leastIn = 100  // dots to the inch
)

// Scan is the plane of a scanned picture of dpi dots to the inch. It returns a
// picture.Problem when they are too few to measure by.
func Scan(pic *picture.Picture, dpi float64) (*Plane, error) {
	if dpi < leastIn {
		return nil, &picture.Problem{What: fmt.Sprintf("At %.4g dots to the inch a proof cannot be measured.", dpi), Mend: "Scan at 200 dpi or more; 300 is plenty."}
	}
	full := dpi / 25.4
	perMM := math.Min(full, finest)
	k := full / perMM
	w, h := max(1, int(float64(pic.W)/k)), max(1, int(float64(pic.H)/k))
	p := &Plane{w: w, h: h, perMM: perMM, v: make([]float32, 3*w*h)}
	strip(func(part int) {
		for y := part; y < h; y += strips {
			y0 := int(float64(y) * k)
			y1 := max(y0+1, min(pic.H, int(float64(y+1)*k)))
			for x := range w {
				x0 := int(float64(x) * k)
				x1 := max(x0+1, min(pic.W, int(float64(x+1)*k)))
				var s [3]float32
				for j := y0; j < y1; j++ {
					for i := x0; i < x1; i++ {
						at := 3 * (j*pic.W + i)
						for c := range s {
							s[c] += picture.Linear(pic.Pix[at+c])
						}
					}
				}
				n := float32((y1 - y0) * (x1 - x0))
				for c := range s {
					p.v[3*(y*w+x)+c] = s[c] / n
				}
			}
		}
	})
	return p, nil
}

// OnMat is the plane of a photograph of the measuring mat: its field, seen from
// straight above. It returns a picture.Problem when the mat cannot be read.
func OnMat(pic *picture.Picture) (*Plane, error) {
	r, err := mat.Read(pic)
	if err != nil {
		return nil, err
	}
	f := r.Layout.Field
	p := &Plane{w: int(f.W() * onMat), h: int(f.H() * onMat), perMM: onMat}
	p.v = make([]float32, 3*p.w*p.h)
	strip(func(part int) {
		for y := part; y < p.h; y += strips {
			for x := range p.w {
				q := r.Pixel(shape.Point{X: (float64(x) + 0.5) / onMat, Y: (float64(y) + 0.5) / onMat})
				fx, fy := q.X-0.5, q.Y-0.5
				i, j := int(math.Floor(fx)), int(math.Floor(fy))
				if i < 0 || j < 0 || i >= pic.W-1 || j >= pic.H-1 {
					continue
				}
				u, t := float32(fx-float64(i)), float32(fy-float64(j))
				a, b := 3*(j*pic.W+i), 3*((j+1)*pic.W+i)
				for c := range 3 {
					up := picture.Linear(pic.Pix[a+c])*(1-u) + picture.Linear(pic.Pix[a+3+c])*u
					down := picture.Linear(pic.Pix[b+c])*(1-u) + picture.Linear(pic.Pix[b+3+c])*u
					p.v[3*(y*p.w+x)+c] = up*(1-t) + down*t
				}
			}
		}
	})
	return p, nil
}

// Size is the width and height of what is seen, mm.
func (p *Plane) Size() (w, h float64) { return float64(p.w) / p.perMM, float64(p.h) / p.perMM }

func (p *Plane) at(x, y int) colour.Linear {
	k := 3 * (y*p.w + x)
	return colour.Linear{float64(p.v[k]), float64(p.v[k+1]), float64(p.v[k+2])}
}

func (p *Plane) put(x, y int, c colour.Linear) {
	k := 3 * (y*p.w + x)
	p.v[k], p.v[k+1], p.v[k+2] = float32(c[0]), float32(c[1]), float32(c[2])
}

// notPaper is the difference of linear light past which a pixel is inked.
const notPaper = 0.07

func inked(q, paper colour.Linear) bool {
	for c := range q {
		if math.Abs(q[c]-paper[c]) > notPaper {
			return true
		}
	}
	return false
}

// crop copies a part, given in mm.
func (p *Plane) crop(b shape.Box) *Plane {
	x0, y0 := max(0, int(b.Min.X*p.perMM)), max(0, int(b.Min.Y*p.perMM))
	x1, y1 := min(p.w, int(math.Ceil(b.Max.X*p.perMM))), min(p.h, int(math.Ceil(b.Max.Y*p.perMM)))
	out := &Plane{w: max(1, x1-x0), h: max(1, y1-y0), perMM: p.perMM, corner: shape.Point{X: float64(x0) / p.perMM, Y: float64(y0) / p.perMM}}
	out.v = make([]float32, 3*out.w*out.h)
	for y := range min(out.h, p.h-y0) {
		copy(out.v[3*y*out.w:3*(y+1)*out.w], p.v[3*((y0+y)*p.w+x0):])
	}
	return out
}

// reduce averages to about so many pixels to the mm.
func (p *Plane) reduce(perMM float64) *Plane {
	k := max(1, int(math.Round(p.perMM/perMM)))
	out := &Plane{w: max(1, p.w/k), h: max(1, p.h/k), perMM: p.perMM / float64(k), corner: p.corner, light: p.light}
	out.v = make([]float32, 3*out.w*out.h)
	for y := range out.h {
		for x := range out.w {
			var s [3]float32
			n := float32(0)
			for j := y * k; j < min(p.h, (y+1)*k); j++ {
				for i := x * k; i < min(p.w, (x+1)*k); i++ {
					for c := range s {
						s[c] += p.v[3*(j*p.w+i)+c]
					}
					n++
				}
			}
			for c := range s {
				out.v[3*(y*out.w+x)+c] = s[c] / n
			}
		}
	}
	return out
}

// inkedShare is the middle of what is inked, mm, and its share of the whole.
func (p *Plane) inkedShare(paper colour.Linear) (centre shape.Point, share float64) {
	var sx, sy float64
	n := 0
	for y := range p.h {
		for x := range p.w {
			if inked(p.at(x, y), paper) {
				sx, sy, n = sx+float64(x)+0.5, sy+float64(y)+0.5, n+1
			}
		}
	}
	if n > 0 {
		centre = shape.Point{X: sx / float64(n) / p.perMM, Y: sy / float64(n) / p.perMM}
	}
	return centre, float64(n) / float64(p.w*p.h)
}

// even divides by a plane of light fitted to the corners, where the paper is
// bare.
func (p *Plane) even(paper colour.Linear) {
	edge := max(1, int(3*p.perMM))
	var corner [4][3]float64
	light := math.Inf(1)
	for k, at := range [4][2]int{{0, 0}, {p.w - edge, 0}, {0, p.h - edge}, {p.w - edge, p.h - edge}} {
		for c := range 3 {
			var vs []float64
			for y := max(0, at[1]); y < min(p.h, at[1]+edge); y++ {
				for x := max(0, at[0]); x < min(p.w, at[0]+edge); x++ {
					vs = append(vs, float64(p.v[3*(y*p.w+x)+c]))
				}
			}
			slices.Sort(vs)
			corner[k][c] = math.Max(0.02, vs[len(vs)/2])
			light = math.Min(light, vs[len(vs)/2]/math.Max(0.02, paper[c]))
		}
	}
	p.light = light
	for y := range p.h {
		t := (float64(y) + 0.5) / float64(p.h)
		for x := range p.w {
			u := (float64(x) + 0.5) / float64(p.w)
			for c := range 3 {
				l := (corner[0][c]*(1-u)+corner[1][c]*u)*(1-t) + (corner[2][c]*(1-u)+corner[3][c]*u)*t
				p.v[3*(y*p.w+x)+c] *= float32(paper[c] / l)
			}
		}
	}
}
