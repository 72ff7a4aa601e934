package swatch

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// Tone is the tone curve of a device, one per channel: from coded values as shares of the
// paper's beside the strip to coded values as the light would have them, by a few terms that
// leave the paper where it is.
type Tone struct {
	White [3]float64        // coded value of the paper beside the strip
	Terms [3][bends]float64 // lift of black, bend, double bend, threefold bend
	Left  float64           // root mean square of what the strip's patches leave, CIEDE2000
	Was   float64           // the same without the curve
}

// Known reports whether a curve was found: where it is not, the picture is taken as it is.
func (t Tone) Known() bool { return t.Terms != [3][bends]float64{} }

// terms are those of the curve at a share of the paper's coded value.
func terms(x float64) [bends]float64 {
	b, m := x*(1-x), 1-2*x
	return [bends]float64{1 - x, b, b * m, b * m * m}
}

// bends is how many terms a curve has.
const bends = 4

// linear is the light, as a share of the paper's beside the strip, of a light that the picture
// shows.
func (t Tone) linear(c colour.Linear) (out colour.Linear) {
	for k := range c {
		x := picture.FromLinear(c[k]) / max(0.05, t.White[k])
		y := x
		for j, v := range terms(min(1, x)) {
			y += t.Terms[k][j] * v
		}
		out[k] = picture.ToLinear(min(1.2, max(0, y)))
	}
	return out
}

// What a curve may be, and when it is believed. Our own numbers.
const (
	stripPaper = 0.6    // light of a paper on which the strip is what it was laid out as
	stripPull  = 0.0001 // how strongly each term is held to nothing
	stripLeast = 0.12   // slope of a curve at its flattest
	stripTrust = 2.0    // CIEDE2000 left, up to which a curve is believed
	stripMost  = 6.0    // CIEDE2000 left, over which the strip was not printed as it was laid out
	stripOff   = 0.015  // coded, off the curve of the others, at which a patch counts half
	stripWorth = 1.2    // CIEDE2000 left without a curve, under which it is the printer's as likely
	stripGains = 0.8    // of what is left without the curve
)

// toneOf reads the strip of the mat. Printers differ: greys that lie along one smooth curve
// are the device's doing, and a strip that no smooth curve explains says nothing.
func (e eye) toneOf(paper colour.Linear) Tone {
	l := e.m.Layout
	t := Tone{}
	if luma(paper) < stripPaper {
		return Tone{White: [3]float64{1, 1, 1}} // what is printed on dark paper is nothing to go by
	}
	var patches []patch
	var whites []colour.Linear
	var inside [][]colour.Linear
	for _, p := range l.Patches {
		at := func(x, y float64) colour.Linear {
			return e.at(shape.Point{X: p.Box.Min.X + x*p.Box.W() - l.Field.Min.X, Y: p.Box.Min.Y + y*p.Box.H() - l.Field.Min.Y})
		}
		var in []colour.Linear
		for x := 0.15; x < 0.9; x += 0.05 {
			for y := 0.25; y < 0.8; y += 0.125 {
				in = append(in, at(x, y))
			}
		}
		whites = append(whites, at(0.5, 1.6), at(0.3, 1.7), at(0.7, 1.7))
		inside = append(inside, in)
	}
	white := brightHalf(whites)
	for i, p := range l.Patches {
		patches = append(patches, patch{seen: commonest(inside[i], white, mean(inside[i])), true: p.Colour})
	}
	for k := range white {
		t.White[k] = picture.FromLinear(white[k])
	}
	for k := range 3 {
		trust := make([]float64, len(patches)) // a patch that lies off the curve of the others was printed thin
		for i := range trust {
			trust[i] = 1
			if i >= greys {
				trust[i] = 0.4 // hues are printed less truly than greys
			}
		}
		for range 4 {
			a, y := mat.NewDense(len(patches)+bends, bends, nil), mat.NewVecDense(len(patches)+bends, nil)
			for i, p := range patches {
				x, want := t.pair(p, paper, k)
				for j, v := range terms(x) {
					a.Set(i, j, trust[i]*v)
				}
				y.SetVec(i, trust[i]*(want-x))
			}
			for j := range bends {
				a.Set(len(patches)+j, j, math.Sqrt(stripPull*float64(len(patches))))
			}
			var c mat.VecDense
			if err := c.SolveVec(a, y); err != nil {
				return Tone{White: t.White}
			}
			for j := range bends {
				t.Terms[k][j] = c.AtVec(j)
			}
			for i, p := range patches {
				x, want := t.pair(p, paper, k)
				r := want - x
				for j, v := range terms(x) {
					r -= t.Terms[k][j] * v
				}
				r /= stripOff
				trust[i] = 1 / (1 + r*r)
				if i >= greys {
					trust[i] *= 0.4
				}
			}
		}
		for x := 0.0; x < 1; x += 0.05 {
			slope := 1.0
			lo, hi := terms(x), terms(x+0.05)
			for j := range bends {
				slope += t.Terms[k][j] * (hi[j] - lo[j]) / 0.05
			}
			if slope < stripLeast {
				return Tone{White: t.White} // no device's curve falls
			}
		}
	}
	plain := Tone{White: t.White}
	for _, p := range patches[:greys] {
		truth := over(p.true, paper).Lab()
		a, b := colour.Difference(t.linear(p.seen).Lab(), truth), colour.Difference(plain.linear(p.seen).Lab(), truth)
		t.Left, t.Was = t.Left+a*a/greys, t.Was+b*b/greys
	}
	t.Left, t.Was = math.Sqrt(t.Left), math.Sqrt(t.Was)
	if t.Left > stripTrust || t.Left > stripGains*t.Was || t.Was < stripWorth {
		return Tone{White: t.White, Left: t.Was, Was: t.Was}
	}
	return t
}

// patch is one of the strip, as seen and as laid out.
type patch struct{ seen, true colour.Linear }

// pair is a patch's coded value in a channel and what it should be, shares of the paper's.
func (t Tone) pair(p patch, paper colour.Linear, k int) (x, want float64) {
	return min(1, picture.FromLinear(p.seen[k])/max(0.05, t.White[k])), picture.FromLinear(min(1, p.true[k]/max(0.05, paper[k])))
}

// greys is how many patches of the strip are grey; they come first.
const greys = 6

// over is a light as a share of the paper's.
func over(c, paper colour.Linear) (out colour.Linear) {
	for k := range c {
		out[k] = min(1, c[k]/max(0.02, paper[k]))
	}
	return out
}

// Shares of a cell's paper that are as bright as the picture can show, from which it is
// clipped, and how near to that a value counts.
const (
	clippedFrom = 0.35
	clippedAt   = 254
)

// clipped is the share of the paper round a box that the picture cannot show any brighter.
func (e eye) clipped(b shape.Box) float64 {
	const off = 1.0
	n, full := 0.0, 0.0
	look := func(q shape.Point) {
		px := e.m.Pixel(q)
		x, y := int(px.X), int(px.Y)
		if x < 0 || y < 0 || x >= e.p.W || y >= e.p.H {
			return
		}
		r, g, bl := e.p.At(x, y)
		n++
		if max(r, g, bl) >= clippedAt {
			full++
		}
	}
	for x := b.Min.X; x <= b.Max.X; x += pitch {
		look(shape.Point{X: x, Y: b.Min.Y - off})
	}
	for y := b.Min.Y; y <= b.Max.Y; y += pitch {
		look(shape.Point{X: b.Min.X - off, Y: y})
		look(shape.Point{X: b.Max.X + off, Y: y})
	}
	return full / max(1, n)
}
