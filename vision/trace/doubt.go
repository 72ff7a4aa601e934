package trace

import (
	"fmt"
	"math"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// Two silhouettes in one outline meet in two sharp notches: cut from notch to
// notch, both parts are far nearer to convex than the whole. Our own numbers.
const (
	notchReach  = 1.5   // mm along the edge to either side, over which a notch is sharp
	notchAngle  = 150.0 // degrees open to the outside, at most
	notchDepth  = 0.6   // mm beneath the hull
	partLeast   = 0.03  // share of the whole
	partArea    = 40.0  // mm², of the smaller part
	narrowNeck  = 0.55  // of the root of the smaller part
	defectLeft  = 0.55  // share of what lies between hull and edge that the cut may leave
	defectLeast = 0.012 // share of the hull that lies outside of the piece
	mostNotches = 40
	outlineStep = 0.12 // mm to which the outline is simplified first
)

// twoShapes reports whether an outline falls into two much simpler ones.
func twoShapes(g shape.Region) bool {
	rings := g.Filled().Simplify(outlineStep).Rings()
	if len(rings) != 1 {
		return false
	}
	r := rings[0]
	hull := convex(r)
	whole, around := r.Area(), hull.Area()
	out := around - whole
	if around <= 0 || out < defectLeast*around {
		return false
	}
	at := notches(r, hull)
	for i := range at {
		for j := i + 1; j < len(at); j++ {
			a, b := part(r, at[i], at[j]), part(r, at[j], at[i])
			aa, ba := a.Area(), b.Area()
			small := math.Min(aa, ba)
			if small < partLeast*whole || small < partArea || math.Abs(aa+ba-whole) > 0.01*whole {
				continue
			}
			if !inside(r, at[i], at[j]) {
				continue
			}
			if r[at[i]].Distance(r[at[j]]) < narrowNeck*math.Sqrt(small) {
				return true
			}
			left := convex(a).Area() - aa + convex(b).Area() - ba
			if left <= defectLeft*out {
				return true
			}
		}
	}
	return false
}

// notches are the corners of a ring that are sharp to the outside and lie well
// beneath its hull.
func notches(r, hull shape.Ring) []int {
	n := len(r)
	cum := make([]float64, n+1)
	for i := range r {
		cum[i+1] = cum[i] + r[i].Distance(r[(i+1)%n])
	}
	total := cum[n]
	along := func(s float64) shape.Point {
		s = math.Mod(math.Mod(s, total)+total, total)
		lo, hi := 0, n
		for hi-lo > 1 {
			if m := (lo + hi) / 2; cum[m] <= s {
				lo = m
			} else {
				hi = m
			}
		}
		d := cum[lo+1] - cum[lo]
		if d == 0 {
			return r[lo]
		}
		a, b := r[lo], r[(lo+1)%n]
		return a.Add(b.Sub(a).Scale((s - cum[lo]) / d))
	}
	var out []int
	for i, p := range r {
		u, v := along(cum[i]-notchReach).Sub(p), along(cum[i]+notchReach).Sub(p)
		if u.Len() == 0 || v.Len() == 0 || u.Cross(v) <= 0 { // the ring runs clockwise on screen: a notch turns the other way
			continue
		}
		angle := math.Acos(math.Max(-1, math.Min(1, u.Dot(v)/(u.Len()*v.Len())))) * 180 / math.Pi
		if angle > notchAngle || depthUnder(hull, p) < notchDepth {
			continue
		}
		// Of neighbours along the edge the sharpest stands for all.
		if k := len(out); k > 0 && cum[i]-cum[out[k-1]] < notchReach {
			continue
		}
		if out = append(out, i); len(out) >= mostNotches {
			break
		}
	}
	return out
}

// depthUnder is how far a point lies within a convex ring.
func depthUnder(hull shape.Ring, p shape.Point) float64 {
	d := math.Inf(1)
	for i, a := range hull {
		b := hull[(i+1)%len(hull)]
		if l := b.Sub(a).Len(); l > 0 {
			d = math.Min(d, math.Abs(b.Sub(a).Cross(p.Sub(a)))/l)
		}
	}
	return d
}

// part is the ring from corner i to corner j, closed by the straight line.
func part(r shape.Ring, i, j int) shape.Ring {
	var out shape.Ring
	for k := i; ; k = (k + 1) % len(r) {
		out = append(out, r[k])
		if k == j {
			return out
		}
	}
}

// inside reports whether the line between two corners crosses no side.
func inside(r shape.Ring, i, j int) bool {
	a, b := r[i], r[j]
	for k, c := range r {
		l := (k + 1) % len(r)
		if k == i || k == j || l == i || l == j {
			continue
		}
		d := r[l]
		u, v := b.Sub(a), d.Sub(c)
		if (u.Cross(c.Sub(a)) > 0) != (u.Cross(d.Sub(a)) > 0) && (v.Cross(a.Sub(c)) > 0) != (v.Cross(b.Sub(c)) > 0) {
			return false
		}
	}
	return true
}

// convex is the convex hull (Andrew's monotone chain), turned like a ring of
// positive area.
func convex(r shape.Ring) shape.Ring {
	h := shape.Hull(r)
	if h.Area() < 0 {
		for i, j := 0, len(h)-1; i < j; i, j = i+1, j-1 {
			h[i], h[j] = h[j], h[i]
		}
	}
	return h
}

// Two colours in one outline, when they part it cleanly. Our own numbers.
const (
	colourGrid  = 0.6  // mm between samples
	twoColours  = 10.0 // CIEDE2000
	colourLeast = 0.10 // share of the samples
	cleanEdge   = 4.8  // boundary, in grid steps, over the root of the smaller part
)

// twoColoured reports whether what a patch shows falls into two colours that lie
// apart cleanly, as where two pieces of unlike card touch or overlap.
func (p *patch) twoColoured(deep []bool) bool {
	step := max(1, int(p.px(colourGrid)))
	nx, ny := p.w/step, p.h/step
	labs := make([]colour.Lab, nx*ny)
	on := make([]bool, nx*ny)
	var all []int
	for j := range ny {
		for i := range nx {
			var sum [3]float64
			n := 0.0
			for y := j * step; y < (j+1)*step; y++ {
				for x := i * step; x < (i+1)*step; x++ {
					if deep[y*p.w+x] {
						r, g, b := p.rgb(x, y)
						sum[0], sum[1], sum[2] = sum[0]+float64(r), sum[1]+float64(g), sum[2]+float64(b)
						n++
					}
				}
			}
			if n >= 0.7*float64(step*step) {
				k := j*nx + i
				on[k] = true
				labs[k] = colour.Linear{sum[0] / n, sum[1] / n, sum[2] / n}.Lab()
				all = append(all, k)
			}
		}
	}
	if len(all) < 24 {
		return false
	}
	a, b := ends(labs, all)
	which := make([]bool, len(labs))
	for range 8 {
		var sums [2]colour.Lab
		var n [2]float64
		for _, k := range all {
			c := 0
			if apart(labs[k], b) < apart(labs[k], a) {
				c = 1
			}
			which[k] = c == 1
			sums[c] = colour.Lab{L: sums[c].L + labs[k].L, A: sums[c].A + labs[k].A, B: sums[c].B + labs[k].B}
			n[c]++
		}
		if n[0] == 0 || n[1] == 0 {
			return false
		}
		a = colour.Lab{L: sums[0].L / n[0], A: sums[0].A / n[0], B: sums[0].B / n[0]}
		b = colour.Lab{L: sums[1].L / n[1], A: sums[1].A / n[1], B: sums[1].B / n[1]}
	}
	if colour.Difference(a, b) < twoColours {
		return false
	}
	few, edge, spread := 0, 0, 0.0
	for _, k := range all {
		if which[k] {
			few++
			spread += apart(labs[k], b)
		} else {
			spread += apart(labs[k], a)
		}
		if k%nx+1 < nx && on[k+1] && which[k] != which[k+1] {
			edge++
		}
		if k+nx < len(on) && on[k+nx] && which[k] != which[k+nx] {
			edge++
		}
	}
	few = min(few, len(all)-few)
	// A run of tones, as on one piece that is blended or badly lit, spreads as far
	// within each half as the halves lie apart.
	if math.Sqrt(spread/float64(len(all))) > 0.3*math.Sqrt(apart(a, b)) {
		return false
	}
	return float64(few) >= colourLeast*float64(len(all)) && float64(edge) <= cleanEdge*math.Sqrt(float64(few))
}

func apart(a, b colour.Lab) float64 {
	return (a.L-b.L)*(a.L-b.L) + (a.A-b.A)*(a.A-b.A) + (a.B-b.B)*(a.B-b.B)
}

// ends are two colours far from each other: the one furthest from the first, and
// the one furthest from that.
func ends(labs []colour.Lab, of []int) (a, b colour.Lab) {
	furthest := func(c colour.Lab) colour.Lab {
		best, d := c, -1.0
		for _, k := range of {
			if e := apart(labs[k], c); e > d {
				best, d = labs[k], e
			}
		}
		return best
	}
	a = furthest(labs[of[0]])
	return a, furthest(a)
}

// Shares and lengths past which a piece is no piece but a rim, a shadow, or one
// that hardly stands off its sheet. Our own numbers.
const (
	sliverWide = 0.7 // mm, of its area over half its edge
	faintLevel = 2.2 // times the least difference told from the sheet
)

// doubts are what a person has to look at in what was found.
func (t *finder) doubts(ps []Piece) []string {
	var out []string
	cut, touch, sliver, faint, twice := 0, 0, 0, 0, 0
	for i, p := range ps {
		if p.Cut {
			cut++
		}
		if p.Touches {
			touch++
		}
		if t.prints {
			continue
		}
		if l := p.Region.Length(); l > 0 && 2*p.Region.Area()/l < sliverWide {
			sliver++
		}
		if t.contrast(p.Colour) < faintLevel*float64(t.level) {
			faint++
		}
		for _, q := range ps[:i] {
			b, d := p.Region.Bounds(), q.Region.Bounds()
			if b.Min.Distance(d.Min) < 1 && b.Max.Distance(d.Max) < 1 && math.Abs(p.Region.Area()-q.Region.Area()) < 0.1*p.Region.Area() {
				twice++
				break
			}
		}
	}
	if cut > 0 {
		out = append(out, fmt.Sprintf("%s the edge of the picture and may be cut off: lay it further in and scan again.", count(cut, "piece runs over", "pieces run over")))
	}
	if touch > 0 {
		out = append(out, fmt.Sprintf("%s two that touch or overlap: draw a cut between them, or lay them apart and scan again.", count(touch, "outline may be", "outlines may each be")))
	}
	if sliver > 0 {
		out = append(out, fmt.Sprintf("%s narrower than %.1f mm: an edge or a shadow rather than a piece? Leave it out, or scan again with the lid closed.", count(sliver, "outline is", "outlines are"), sliverWide))
	}
	if faint > 0 {
		out = append(out, fmt.Sprintf("%s its sheet that the outline is doubtful: lay it on a sheet of another lightness and scan again.", count(faint, "piece is so near in colour to", "pieces are each so near in colour to")))
	}
	if twice > 0 {
		out = append(out, fmt.Sprintf("%s found twice in one place: leave one out.", count(twice, "piece was", "pieces were")))
	}
	return out
}

// contrast is the greatest difference, in sRGB levels, of a colour from the sheet
// in the middle of the picture.
func (t *finder) contrast(c colour.Linear) float64 {
	g := t.ground.at(t.ground.w/2, t.ground.h/2)
	d := 0.0
	for i, v := range c {
		d = math.Max(d, math.Abs(255*picture.FromLinear(math.Max(0, v))-g[i]))
	}
	return d
}

// Something may lie on the sheet that is told from it by its mean alone.
const (
	hintCell  = 2.0  // mm
	hintLevel = 0.42 // times the least difference told from the sheet
	hintArea  = 90.0 // mm²
	hintClear = 3.0  // mm from what was found, where shadows fall
	hintRim   = 4.0  // mm from the rim of a sheet within the picture
)

// hints looks for what hardly stands off the sheet and was not read. It says where
// the largest such place is.
func (t *finder) hints(ps []Piece) []string {
	if t.prints || len(t.scale.Field) > 0 {
		return nil
	}
	size := max(4, int(t.px(hintCell)))
	nx, ny := t.pic.W/size, t.pic.H/size
	on := make([]bool, nx*ny)
	limit := hintLevel * float64(t.level)
	mm := float64(size) / t.scale.PerMM
	for j := 1; j < ny-1; j++ {
		for i := 1; i < nx-1; i++ {
			var sum [3]int
			n := 0
			for y := j * size; y < (j+1)*size; y += 2 {
				row := t.pic.Pix[3*(y*t.pic.W+i*size):]
				for x := 0; x < size; x += 2 {
					for c := range sum {
						sum[c] += int(row[3*x+c])
					}
					n++
				}
			}
			g := t.ground.at((float64(i)+0.5)*float64(size), (float64(j)+0.5)*float64(size))
			for c := range sum {
				if math.Abs(float64(sum[c])/float64(n)-g[c]) > limit {
					on[j*nx+i] = true
				}
			}
			if on[j*nx+i] && t.within {
				q := t.scale.Place((float64(i)+0.5)*float64(size), (float64(j)+0.5)*float64(size))
				on[j*nx+i] = t.rim.Contains(q) && t.rim.EdgeDistance(q) > hintRim
			}
		}
	}
	o := t.scale.Place(0, 0)
	for _, p := range ps {
		b := p.Region.Move(shape.Point{X: -o.X, Y: -o.Y}).Bounds()
		for j := max(0, int((b.Min.Y-hintClear)/mm)); j <= min(ny-1, int((b.Max.Y+hintClear)/mm)); j++ {
			for i := max(0, int((b.Min.X-hintClear)/mm)); i <= min(nx-1, int((b.Max.X+hintClear)/mm)); i++ {
				on[j*nx+i] = false
			}
		}
	}
	best, bx, by := 0, 0.0, 0.0
	for k := range on {
		if !on[k] {
			continue
		}
		n, sx, sy := 0, 0.0, 0.0
		stack := []int{k}
		on[k] = false
		for len(stack) > 0 {
			q := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			n, sx, sy = n+1, sx+float64(q%nx)+0.5, sy+float64(q/nx)+0.5
			for _, d := range [4]int{-1, 1, -nx, nx} {
				if k := q + d; k >= 0 && k < len(on) && on[k] && (d != -1 || q%nx > 0) && (d != 1 || q%nx < nx-1) {
					on[k] = false
					stack = append(stack, k)
				}
			}
		}
		if n > best {
			best, bx, by = n, sx/float64(n)*mm, sy/float64(n)*mm
		}
	}
	if float64(best)*mm*mm < hintArea {
		return nil
	}
	return []string{fmt.Sprintf("Something that hardly stands off the sheet lies about %.0f mm from the left and %.0f mm from the top, and was not read: lay it on a sheet of another lightness.", bx+o.X, by+o.Y)}
}

// deepIn is how far from its edge, mm, a piece shows its own colour.
const deepIn = 0.5

// deep are the pixels well within the piece.
func (p *patch) deep() []bool {
	on := make([]bool, p.w*p.h)
	for i, s := range p.s {
		on[i] = s >= p.first
	}
	return shrink(on, p.w, p.h, max(3, int(p.px(deepIn))))
}
