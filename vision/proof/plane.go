package proof

import (
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// plane is a scan in linear light, its paper brought to the colour it has.
type plane struct {
	w, h   int
	perMM  float64
	v      []float32
	inked  float64     // share of it that is not paper
	centre shape.Point // of what is inked, mm
	light  float64     // of the darkest corner against the paper; near 1 when the margins are paper
}

func (p *plane) at(x, y int) colour.Linear {
	k := 3 * (y*p.w + x)
	return colour.Linear{float64(p.v[k]), float64(p.v[k+1]), float64(p.v[k+2])}
}

// notPaper is the difference of linear light past which a pixel is inked.
const notPaper = 0.07

// shrink averages a picture to so many pixels to the mm, and evens its light by
// the paper round the print.
func shrink(pic *picture.Picture, dpi, perMM float64, paper colour.Linear) *plane {
	full := dpi / 25.4
	w, h := max(1, int(float64(pic.W)/full*perMM)), max(1, int(float64(pic.H)/full*perMM))
	p := &plane{w: w, h: h, perMM: perMM, v: make([]float32, 3*w*h)}
	k := full / perMM
	for y := range h {
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
	p.even(paper)
	var sx, sy float64
	n := 0
	for y := range h {
		for x := range w {
			q := p.at(x, y)
			d := 0.0
			for c := range q {
				d = math.Max(d, math.Abs(q[c]-paper[c]))
			}
			if d > notPaper {
				sx, sy, n = sx+float64(x)+0.5, sy+float64(y)+0.5, n+1
			}
		}
	}
	p.inked = float64(n) / float64(w*h)
	if n > 0 {
		p.centre = shape.Point{X: sx / float64(n) / perMM, Y: sy / float64(n) / perMM}
	}
	return p
}

// even divides by a plane of light fitted to the margins, where the paper is
// bare.
func (p *plane) even(paper colour.Linear) {
	edge := max(1, int(4*p.perMM))
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
