package trace

import (
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// pad is the room, in pixels, kept round a blob: more than any blur.
const pad = 10

// patch is a blob with its surroundings.
type patch struct {
	field
	*finder
	mask   []bool       // pixels that may belong to the blob
	body   [3]float32   // its colour, linear
	first  float32      // level of the signal at which a first line is drawn
	steady int          // how many points of an outline, each way, share the colours beside them
	near   [][3]float32 // the sheet in linear light, one per cell of the patch
}

// outline draws the pieces of one blob.
func (t *finder) outline(b blob) []draft {
	if t.grainy(b) {
		t.busy.Add(mostPoints + 1)
		return nil
	}
	p := &patch{finder: t}
	p.x0, p.y0 = b.x0-pad, b.y0-pad
	p.w, p.h = b.x1-b.x0+2*pad, b.y1-b.y0+2*pad
	p.mask = make([]bool, p.w*p.h)
	const grow = 3
	for _, r := range b.runs {
		for y := r.y - grow; y <= r.y+grow; y++ {
			row := p.mask[(y-p.y0)*p.w:][:p.w]
			for x := r.x0 - grow; x < r.x1+grow; x++ {
				row[x-p.x0] = true
			}
		}
	}
	cut := b.x0 <= 1 || b.y0 <= 1 || b.x1 >= t.pic.W-1 || b.y1 >= t.pic.H-1
	return p.pieces(cut, 0)
}

// A blob of at least grainLeast pixels whose neighbours differ by grainStep levels
// on the mean is noise: paper, however it is printed, has runs of one tone.
const (
	grainLeast = 100_000
	grainStep  = 40
)

func (t *finder) grainy(b blob) bool {
	if b.n < grainLeast {
		return false
	}
	sum, n := 0, 0
	for i := 0; i < len(b.runs); i += 1 + len(b.runs)/4000 {
		r := b.runs[i]
		row := t.pic.Pix[3*(r.y*t.pic.W+r.x0) : 3*(r.y*t.pic.W+r.x1)]
		for k := 1; k+3 < len(row); k += 3 {
			sum += int(absDiff(row[k], row[k+3]))
			n++
		}
	}
	return n > 0 && sum > grainStep*n
}

// How many points of outlines are followed in a picture, and into how many pieces a
// blob may fall. A4 at 600 dots to the inch full of detailed pieces has a tenth.
const (
	mostPoints = 4_000_000
	mostApart  = 400
)

// pieces draws the pieces inside the mask.
func (p *patch) pieces(cut bool, depth int) []draft {
	if !p.signal() {
		return nil
	}
	least, hole := p.area(leastPiece), p.area(leastHole)
	if p.prints {
		least, hole = p.area(leastPrint), p.area(leastBlotch)
	}
	var outer, holes [][]xy
	lines := p.contours(p.first)
	points := 0
	for _, l := range lines {
		points += len(l)
	}
	if p.busy.Add(int64(points)) > mostPoints {
		return nil // noise or print without end: Find says so
	}
	for _, l := range lines {
		switch a := areaOf(l); {
		case a >= least:
			outer = append(outer, l)
		case a <= -hole:
			holes = append(holes, l)
		}
	}
	if len(outer) > mostApart {
		p.busy.Add(mostPoints)
		return nil
	}
	if len(outer) > 1 && depth < 2 {
		// Blobs that only shadow or blur had joined: each has a level of its own.
		var out []draft
		for _, l := range outer {
			out = append(out, p.inside(l).pieces(cut, depth+1)...)
		}
		return out
	}
	var out []draft
	for _, l := range outer {
		own := [][]xy{l}
		for _, h := range holes {
			if holds(l, h[0]) {
				own = append(own, h)
			}
		}
		for i, l := range own {
			own[i] = p.sharpen(l)
		}
		out = append(out, draft{p, own, cut})
	}
	return out
}

// inside is the patch with only what lies in a line or just round it.
func (p *patch) inside(l []xy) *patch {
	lo, hi := l[0], l[0]
	for _, q := range l {
		lo = xy{math.Min(lo.x, q.x), math.Min(lo.y, q.y)}
		hi = xy{math.Max(hi.x, q.x), math.Max(hi.y, q.y)}
	}
	q := &patch{finder: p.finder}
	q.x0, q.y0 = int(lo.x)-pad, int(lo.y)-pad
	q.w, q.h = int(hi.x)+pad+1-q.x0, int(hi.y)+pad+1-q.y0
	q.mask = make([]bool, q.w*q.h)
	for y := range q.h {
		var xs []float64
		cy := float64(q.y0+y) + 0.5
		for i, a := range l {
			if b := l[(i+1)%len(l)]; (a.y > cy) != (b.y > cy) {
				xs = append(xs, a.x+(cy-a.y)/(b.y-a.y)*(b.x-a.x))
			}
		}
		slices.Sort(xs)
		for i := 0; i+1 < len(xs); i += 2 {
			for x := int(xs[i]) - 3; x <= int(xs[i+1])+3; x++ {
				for d := -3; d <= 3; d++ {
					if yy, xx := y+d, x-q.x0; yy >= 0 && yy < q.h && xx >= 0 && xx < q.w {
						q.mask[yy*q.w+xx] = true
					}
				}
			}
		}
	}
	return q
}

// in reports whether a pixel of the patch lies in the picture.
func (p *patch) in(x, y int) bool {
	x, y = x+p.x0, y+p.y0
	return x >= 0 && y >= 0 && x < p.pic.W && y < p.pic.H
}

func (p *patch) diffAt(x, y int) uint8 { return p.diff[(y+p.y0)*p.pic.W+x+p.x0] }

func (p *patch) rgb(x, y int) (r, g, b float32) {
	i := 3 * ((y+p.y0)*p.pic.W + x + p.x0)
	return picture.Linear(p.pic.Pix[i]), picture.Linear(p.pic.Pix[i+1]), picture.Linear(p.pic.Pix[i+2])
}

// signal fills s: 0 on the sheet, 1 on the piece, along the line between their
// colours in linear light. It reports whether there is a piece at all.
func (p *patch) signal() bool {
	p.s = make([]float32, p.w*p.h)
	// How far the piece stands off the sheet: most of it is a little over this.
	var hist [256]int
	n := 0
	for y := range p.h {
		for x := range p.w {
			if p.mask[y*p.w+x] && p.in(x, y) {
				if d := p.diffAt(x, y); d >= p.level {
					hist[d]++
					n++
				}
			}
		}
	}
	if n == 0 {
		return false
	}
	most, sum := 255, 0
	for ; most > 0 && sum*10 < n; most-- {
		sum += hist[most]
	}
	strong := make([]bool, p.w*p.h)
	for y := range p.h {
		for x := range p.w {
			if p.mask[y*p.w+x] && p.in(x, y) {
				strong[y*p.w+x] = int(p.diffAt(x, y)) >= max(int(p.level), 3*most/10)
			}
		}
	}
	deep := shrink(strong, p.w, p.h, 3)
	if p.prints && p.bodyColour(deep, most*9/10) {
		// A print is patchy; its ink shows where it covers.
	} else if !p.bodyColour(deep, most/2) && !p.bodyColour(strong, most*8/10) {
		return false
	}
	p.sheet()
	local := p.localBody(deep)
	p.steady, p.first = steady, 0.5
	if local != nil {
		p.steady, p.first = steadyPattern, 0.3
	}
	for y := range p.h {
		for x := range p.w {
			i := y*p.w + x
			if !p.mask[i] || !p.in(x, y) {
				continue
			}
			g := p.sheetAt(x, y)
			body := p.body
			if local != nil && local[i] != [3]float32{} {
				body = local[i]
			}
			d := [3]float32{body[0] - g[0], body[1] - g[1], body[2] - g[2]}
			r, gr, b := p.rgb(x, y)
			p.s[i] = ((r-g[0])*d[0] + (gr-g[1])*d[1] + (b-g[2])*d[2]) / (d[0]*d[0] + d[1]*d[1] + d[2]*d[2] + 1e-9)
			if deep[i] && local != nil {
				// Well inside a patterned piece nothing is sheet.
				p.s[i] = max(p.s[i], 0.8)
			}
		}
	}
	return true
}

// bodyColour takes the mean colour of the pixels in a mask that stand off the
// sheet by a least difference.
func (p *patch) bodyColour(mask []bool, least int) bool {
	var sum [3]float64
	n := 0.0
	for y := range p.h {
		for x := range p.w {
			if mask[y*p.w+x] && int(p.diffAt(x, y)) >= least {
				r, g, b := p.rgb(x, y)
				sum[0], sum[1], sum[2] = sum[0]+float64(r), sum[1]+float64(g), sum[2]+float64(b)
				n++
			}
		}
	}
	if n < 12 {
		return false
	}
	for c := range sum {
		p.body[c] = float32(sum[c] / n)
	}
	return true
}

// patterned is how much, against its whole contrast, a piece's colour varies
// when it has a pattern, and localReach the distance in pixels over which its
// colour then counts as one.
const (
	patterned  = 0.15
	localReach = 6
	mostLocal  = 16 << 20 // pixels
)

// localBody is the colour of a patterned piece round every pixel; nil for a
// plain piece.
func (p *patch) localBody(deep []bool) [][3]float32 {
	var n, sum, square float64
	g := p.sheetAt(p.w/2, p.h/2)
	d := [3]float32{p.body[0] - g[0], p.body[1] - g[1], p.body[2] - g[2]}
	dd := d[0]*d[0] + d[1]*d[1] + d[2]*d[2]
	for i := range deep {
		if deep[i] {
			r, gr, b := p.rgb(i%p.w, i/p.w)
			s := float64(((r-g[0])*d[0] + (gr-g[1])*d[1] + (b-g[2])*d[2]) / dd)
			n, sum, square = n+1, sum+s, square+s*s
		}
	}
	if n == 0 || p.prints || len(deep) > mostLocal || math.Sqrt(math.Max(0, square/n-sum*sum/n/n)) < patterned {
		return nil
	}
	// Means over squares, from sums over the rectangles left of and above each pixel.
	type sums struct{ n, r, g, b float32 }
	w := p.w + 1
	table := make([]sums, w*(p.h+1))
	for y := range p.h {
		var row sums
		for x := range p.w {
			if i := y*p.w + x; deep[i] {
				r, gr, b := p.rgb(x, y)
				row = sums{row.n + 1, row.r + r, row.g + gr, row.b + b}
			}
			up := table[y*w+x+1]
			table[(y+1)*w+x+1] = sums{up.n + row.n, up.r + row.r, up.g + row.g, up.b + row.b}
		}
	}
	out := make([][3]float32, len(deep))
	for y := range p.h {
		for x := range p.w {
			if !p.mask[y*p.w+x] {
				continue
			}
			x0, x1 := max(0, x-localReach), min(p.w, x+localReach+1)
			y0, y1 := max(0, y-localReach), min(p.h, y+localReach+1)
			a, b, c, e := table[y1*w+x1], table[y0*w+x1], table[y1*w+x0], table[y0*w+x0]
			if k := a.n - b.n - c.n + e.n; k >= 4 {
				out[y*p.w+x] = [3]float32{(a.r - b.r - c.r + e.r) / k, (a.g - b.g - c.g + e.g) / k, (a.b - b.b - c.b + e.b) / k}
			}
		}
	}
	return out
}

// sheet fills near with the sheet's colour per cell.
func (p *patch) sheet() {
	nx, ny := (p.w+cell-1)/cell, (p.h+cell-1)/cell
	p.near = make([][3]float32, nx*ny)
	for j := range ny {
		for i := range nx {
			p.near[j*nx+i] = p.ground.linear(float64(p.x0+i*cell)+cell/2, float64(p.y0+j*cell)+cell/2)
		}
	}
}

func (p *patch) sheetAt(x, y int) [3]float32 {
	return p.near[y/cell*((p.w+cell-1)/cell)+x/cell]
}

// piece turns the lines of one piece into its outline.
func (p *patch) piece(lines [][]xy) (Piece, bool) {
	var rings []shape.Ring
	for i, l := range lines {
		l = smooth(l)
		ring := make(shape.Ring, len(l))
		for k, q := range l {
			ring[k] = p.scale.Place(q.x, q.y)
		}
		if a := ring.Area(); len(ring) < 3 || i > 0 && a >= 0 || i == 0 && a <= 0 {
			if i == 0 {
				return Piece{}, false
			}
			continue
		}
		rings = append(rings, ring)
	}
	g := shape.Raw(rings...).Simplify(simplifyBy)
	box := g.Bounds()
	if !p.prints && (g.Area() < leastPiece || math.Hypot(box.W(), box.H()) < leastExtent) {
		return Piece{}, false
	}
	return Piece{Region: g, Colour: colour.Linear{float64(p.body[0]), float64(p.body[1]), float64(p.body[2])}, Touches: !p.prints && !p.plate && (p.neck(lines) || twoShapes(g) || p.twoColoured(p.deep()))}, true
}

// simplifyBy is how far, mm, a corner may stand off the line it is dropped
// from.
const simplifyBy = 0.006

// Two parts joined by a neck narrower than neckWidth, mm, each of at least
// neckShare of the whole and neckArea mm², may be pieces that touch.
const (
	neckWidth = 4.2
	neckShare = 0.12
	neckArea  = 12.0
)

// neck reports whether the piece falls into two large parts when its edge is
// taken off all round.
func (p *patch) neck(lines [][]xy) bool {
	on := make([]bool, p.w*p.h)
	whole := 0
	for i, s := range p.s {
		if on[i] = s >= p.first; on[i] {
			whole++
		}
	}
	deep := shrink(on, p.w, p.h, max(1, int(p.px(neckWidth/2))))
	parts := 0
	stack := []int{}
	for i := range deep {
		if !deep[i] {
			continue
		}
		n := 0
		stack = append(stack[:0], i)
		deep[i] = false
		for len(stack) > 0 {
			k := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			n++
			for _, d := range [4]int{-1, 1, -p.w, p.w} {
				if j := k + d; j >= 0 && j < len(deep) && deep[j] {
					deep[j] = false
					stack = append(stack, j)
				}
			}
		}
		if float64(n) >= math.Max(neckShare*float64(whole), p.area(neckArea)) {
			parts++
		}
	}
	return parts > 1
}
