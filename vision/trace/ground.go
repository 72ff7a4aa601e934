package trace

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"ochrestone/core/colour"
	"ochrestone/vision/picture"
)

// ground is the colour of the sheet over the picture: a smooth surface of the
// second degree per channel, since lamps fall off smoothly.
type ground struct {
	w, h  float64
	coef  [3][6]float64 // sRGB levels
	sigma float64       // noise, sRGB levels
}

// terms are the powers of a place, -1 to 1 across and down.
func (g *ground) terms(x, y float64) [6]float64 {
	u, v := 2*x/g.w-1, 2*y/g.h-1
	return [6]float64{1, u, v, u * u, u * v, v * v}
}

// at is the sheet at a pixel, in sRGB levels.
func (g *ground) at(x, y float64) (c [3]float64) {
	q := g.terms(x, y)
	for i := range c {
		for k, v := range q {
			c[i] += g.coef[i][k] * v
		}
		c[i] = min(255, max(0, c[i]))
	}
	return c
}

// linear is the sheet at a pixel in linear light.
func (g *ground) linear(x, y float64) (c [3]float32) {
	for i, v := range g.at(x, y) {
		c[i] = float32(picture.ToLinear(v / 255))
	}
	return c
}

func (g *ground) colour() colour.Linear {
	c := g.linear(g.w/2, g.h/2)
	return colour.Linear{float64(c[0]), float64(c[1]), float64(c[2])}
}

// block is one cell of the picture: its middle colour and its noise.
type block struct {
	x, y   float64
	middle [3]float64
	noise  float64
	rim    bool
}

// sheetReach is how far, in sRGB levels, lamps and shadows may take the sheet
// from the colour it has at its rim.
const sheetReach = 40.0

// findGround measures the sheet from the cells of the picture that look like
// its rim.
func (t *finder) findGround() error {
	size := max(8, int(t.px(5)))
	var blocks []block
	nx, ny := max(1, t.pic.W/size), max(1, t.pic.H/size)
	for j := range ny {
		for i := range nx {
			x0, y0 := i*t.pic.W/nx, j*t.pic.H/ny
			x1, y1 := (i+1)*t.pic.W/nx, (j+1)*t.pic.H/ny
			a, b := t.span(float64(y0+y1) / 2)
			if float64(x0) < a || float64(x1) > b {
				continue
			}
			bl := t.measure(x0, y0, x1, y1)
			bl.rim = i == 0 || j == 0 || i == nx-1 || j == ny-1
			if len(t.scale.Field) > 0 {
				bl.rim = float64(x0)-a < 2*float64(size) || b-float64(x1) < 2*float64(size)
			}
			blocks = append(blocks, bl)
		}
	}
	rim := middle(blocks, func(b block) bool { return b.rim })
	var sheet []block
	for _, b := range blocks {
		if far(b.middle, rim) < sheetReach {
			sheet = append(sheet, b)
		}
	}
	if len(sheet) < 6 || len(sheet)*10 < len(blocks) {
		return &picture.Problem{What: "The sheet beneath the pieces cannot be told from them.", Mend: "Leave a plain margin of the sheet on all sides."}
	}
	g := &ground{w: float64(t.pic.W), h: float64(t.pic.H)}
	if err := g.fit(sheet); err != nil {
		return err
	}
	noise := make([]float64, len(sheet))
	for i, b := range sheet {
		noise[i] = b.noise
	}
	g.sigma = median(noise)
	t.ground = g
	light := g.colour().Lab().L
	switch {
	case t.want == DarkGround && light > 60:
		return &picture.Problem{What: fmt.Sprintf("The sheet is light (lightness %.0f), not dark.", light), Mend: "Say that the pieces lie on a light sheet, or lay them on a dark one."}
	case t.want == LightGround && light < 40:
		return &picture.Problem{What: fmt.Sprintf("The sheet is dark (lightness %.0f), not light.", light), Mend: "Say that the pieces lie on a dark sheet, or lay them on a light one."}
	}
	return nil
}

// measure takes the median colour and the noise of a cell.
func (t *finder) measure(x0, y0, x1, y1 int) block {
	b := block{x: float64(x0+x1) / 2, y: float64(y0+y1) / 2}
	var hist [3][256]int
	var steps [256]int
	n, m := 0, 0
	for y := y0; y < y1; y += 2 {
		row := t.pic.Pix[3*(y*t.pic.W+x0) : 3*(y*t.pic.W+x1)]
		for i := 0; i+9 <= len(row); i += 9 {
			for c := range 3 {
				hist[c][row[i+c]]++
			}
			// Neighbours in one channel differ by noise alone where nothing lies.
			steps[absDiff(row[i+1], row[i+4])]++
			m++
			n++
		}
	}
	for c := range 3 {
		b.middle[c] = medianOf(hist[c][:], n)
	}
	// The median of |a-b| of two normal values is 0.954 sigma.
	b.noise = medianOf(steps[:], m) / 0.954
	return b
}

func absDiff(a, b uint8) uint8 {
	if a > b {
		return a - b
	}
	return b - a
}

// medianOf is the median of a histogram of n values, between its bars.
func medianOf(hist []int, n int) float64 {
	sum := 0
	for v, k := range hist {
		if 2*(sum+k) >= n && k > 0 {
			return float64(v) - 0.5 + (float64(n)/2-float64(sum))/float64(k)
		}
		sum += k
	}
	return 0
}

func median(v []float64) float64 {
	if len(v) == 0 {
		return 0
	}
	return slices.Sorted(slices.Values(v))[len(v)/2]
}

// middle is the median colour of some cells.
func middle(bs []block, use func(block) bool) (c [3]float64) {
	for i := range c {
		var v []float64
		for _, b := range bs {
			if use(b) {
				v = append(v, b.middle[i])
			}
		}
		c[i] = median(v)
	}
	return c
}

func far(a, b [3]float64) float64 {
	return max(math.Abs(a[0]-b[0]), math.Abs(a[1]-b[1]), math.Abs(a[2]-b[2]))
}

// fit lays the surface through the cells by least squares, letting go of
// those that stand off it (Tukey's biweight, six rounds).
func (g *ground) fit(bs []block) error {
	weights := make([]float64, len(bs))
	for i := range weights {
		weights[i] = 1
	}
	for range 6 {
		a := mat.NewDense(len(bs), 6, nil)
		y := mat.NewDense(len(bs), 3, nil)
		for i, b := range bs {
			q := g.terms(b.x, b.y)
			for k := range q {
				a.Set(i, k, q[k]*weights[i])
			}
			for c := range 3 {
				y.Set(i, c, b.middle[c]*weights[i])
			}
		}
		// A little ridge keeps the surface flat where cells are few.
		var ata, aty, x mat.Dense
		ata.Mul(a.T(), a)
		aty.Mul(a.T(), y)
		for k := 1; k < 6; k++ {
			ata.Set(k, k, ata.At(k, k)+1e-3*float64(len(bs)))
		}
		if err := x.Solve(&ata, &aty); err != nil {
			return fmt.Errorf("fit the sheet: %w", err)
		}
		off := make([]float64, len(bs))
		for c := range 3 {
			for k := range 6 {
				g.coef[c][k] = x.At(k, c)
			}
		}
		for i, b := range bs {
			off[i] = far(g.at(b.x, b.y), b.middle)
		}
		reach := max(4.685*1.4826*median(off), 3)
		for i := range bs {
			if u := off[i] / reach; u < 1 {
				weights[i] = (1 - u*u) * (1 - u*u)
			} else {
				weights[i] = 0
			}
		}
	}
	return nil
}

// span is the part of a row that belongs to the field looked at, in pixels.
func (t *finder) span(y float64) (a, b float64) {
	if len(t.scale.Field) == 0 {
		return 0, float64(t.pic.W)
	}
	a, b = math.Inf(1), math.Inf(-1)
	for i, p := range t.scale.Field {
		q := t.scale.Field[(i+1)%len(t.scale.Field)]
		if (p.Y > y) == (q.Y > y) {
			continue
		}
		x := p.X + (y-p.Y)/(q.Y-p.Y)*(q.X-p.X)
		a, b = min(a, x), max(b, x)
	}
	return max(0, a), min(float64(t.pic.W), b)
}
