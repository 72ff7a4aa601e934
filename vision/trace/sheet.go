package trace

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// A sheet that lies within the picture is a large rectangle with things on it, and
// all that was found lies on it. Our own numbers.
const (
	sheetShare  = 0.04 // of the picture, for a dark sheet
	borderShare = 0.60 // of the picture, for what a frame leaves
	squareLeast = 0.93 // of its box, turned with it
	sheetDark   = 35.0 // lightness
	sheetInset  = 1.2  // mm of its rim left out
	onSheet     = 4.0  // mm², least of what may lie on it
	byFrame     = 0.8  // mm from the rim at which a piece may be cut off
	windowShare = 0.30 // of a frame of card, its one opening at least
	unlike      = 45.0 // sRGB levels by which what lies on it differs from it
	unlikeShare = 0.004
	thingWide   = 1.5 // mm
)

// mayHoldSheet reports whether the largest thing in a picture is as large, and where it is not
// most of the picture as dark, as a sheet laid in it.
func (t *finder) mayHoldSheet(drafts []draft) bool {
	var largest *draft
	most := 0.0
	for i, d := range drafts {
		if a := areaOf(d.lines[0]); a > most {
			most, largest = a, &drafts[i]
		}
	}
	if largest == nil {
		return false
	}
	const near = 0.9 // lines as first drawn are a little off
	share := most / (float64(t.pic.W) * float64(t.pic.H))
	b := largest.p.body
	dark := (colour.Linear{float64(b[0]), float64(b[1]), float64(b[2])}).Lab().L < sheetDark
	return share > near*borderShare || share > near*sheetShare && dark
}

// sheetWithin tells whether the largest piece is a sheet with the pieces on it: a
// dark sheet smaller than the glass, or the paper inside a frame. A frame or a mat
// of card with openings is light, or its openings show what lies around it.
func (t *finder) sheetWithin(ps []Piece) (shape.Region, bool) {
	if t.prints || t.plate || len(t.scale.Field) > 0 || t.within || len(ps) == 0 || t.want == LightGround {
		return shape.Region{}, false
	}
	p := ps[0]
	full := p.Region.Filled()
	page := float64(t.pic.W) * float64(t.pic.H) / (t.scale.PerMM * t.scale.PerMM)
	share := full.Area() / page
	box, area := tightBox(full)
	if full.Area() < squareLeast*area {
		return box, false
	}
	things, shows, window := 0, 0, 0.0
	for _, h := range p.Region.Holes() {
		a := h.Area()
		if a < onSheet {
			continue
		}
		things++
		window = math.Max(window, a/full.Area())
		if t.offGround(h) {
			shows++
		}
	}
	foreign := t.foreign(p, full)
	for _, q := range ps[1:] {
		if q.Region.Area() > 2*onSheet && !full.Contains(q.Region.Centroid()) {
			return box, false // it lies beside others: a piece like them
		}
	}
	dark := p.Colour.Lab().L < sheetDark
	frame := things == 1 && window > windowShare && shows == 0 && foreign < unlikeShare
	switch {
	case frame:
	case share > borderShare && things > 0 && (shows > 0 || foreign > unlikeShare || share > 0.8):
		return box, true
	case share > sheetShare && dark && (things > 0 || foreign > unlikeShare):
		return box, true
	}
	return box, false
}

// foreign is the share of what lies within an outline that is like neither the
// piece nor the ground of the picture.
func (t *finder) foreign(p Piece, full shape.Region) float64 {
	var own [3]float64
	for c, v := range p.Colour {
		own[c] = 255 * picture.FromLinear(math.Max(0, v))
	}
	k := t.scale.PerMM
	b := full.Bounds()
	step := math.Max(0.4, b.W()/400)
	n, off := 0, 0
	for y := b.Min.Y + sheetInset; y < b.Max.Y-sheetInset; y += step {
		for _, s := range full.Cross(y) {
			run := 0 // edges and shadows are no things: only what goes on counts
			for x := s[0] + sheetInset; x < s[1]-sheetInset; x += step {
				px, py := int(x*k), int(y*k)
				if px < 0 || py < 0 || px >= t.pic.W || py >= t.pic.H {
					continue
				}
				n++
				i := 3 * (py*t.pic.W + px)
				q := t.pic.Pix[i : i+3]
				if t.diff[py*t.pic.W+px] > t.level && far([3]float64{float64(q[0]), float64(q[1]), float64(q[2])}, own) > unlike {
					if run++; float64(run)*step > thingWide {
						off++
					}
				} else {
					run = 0
				}
			}
		}
	}
	return float64(off) / float64(max(1, n))
}

// offGround reports whether what shows in a hole is not the ground of the picture.
func (t *finder) offGround(hole shape.Region) bool {
	c := hole.Rings()[0]
	q := hole.Centroid()
	if !hole.Filled().Contains(q) && len(c) > 0 {
		q = c[0]
	}
	x, y := int(q.X*t.scale.PerMM), int(q.Y*t.scale.PerMM)
	n, off := 0, 0
	for d := -4; d <= 4; d += 2 {
		for e := -4; e <= 4; e += 2 {
			if px, py := x+d, y+e; px >= 0 && py >= 0 && px < t.pic.W && py < t.pic.H {
				n++
				if t.diff[py*t.pic.W+px] > t.level {
					off++
				}
			}
		}
	}
	return n > 0 && off*2 > n
}

// tightBox is the smallest rectangle round a region, turned as it is, and its
// area (rotating calipers: one side lies on a side of the hull).
func tightBox(g shape.Region) (shape.Region, float64) {
	var ring shape.Ring
	for _, r := range g.Simplify(0.5).Rings() {
		ring = append(ring, r...)
	}
	hull := convex(ring)
	best := math.Inf(1)
	var out shape.Region
	for i, a := range hull {
		d := hull[(i+1)%len(hull)].Sub(a)
		l := d.Len()
		if l < 1 {
			continue
		}
		u := d.Scale(1 / l)
		v := shape.Point{X: -u.Y, Y: u.X}
		x0, x1, y0, y1 := math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
		for _, p := range hull {
			x, y := p.Dot(u), p.Dot(v)
			x0, x1, y0, y1 = math.Min(x0, x), math.Max(x1, x), math.Min(y0, y), math.Max(y1, y)
		}
		if area := (x1 - x0) * (y1 - y0); area < best {
			best = area
			at := func(x, y float64) shape.Point { return u.Scale(x).Add(v.Scale(y)) }
			out = shape.Raw(shape.Ring{at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1)})
		}
	}
	if len(out.Rings()) > 0 && out.Rings()[0].Area() < 0 {
		r := out.Rings()[0]
		r[1], r[3] = r[3], r[1]
	}
	return out, best
}

// findOn looks again, on the sheet that lies within the picture: what is outside of
// it is painted over with the sheet's own colour.
func (t *finder) findOn(ctx context.Context, sheet shape.Region, opts []Option) (Result, error) {
	in, err := sheet.Offset(-sheetInset)
	if err != nil || in.Empty() {
		return Result{}, &picture.Problem{What: "A sheet lies in the picture, but its edge cannot be followed.", Mend: "Crop the picture to the sheet, or lay a sheet that fills the glass."}
	}
	k := t.scale.PerMM
	b := in.Bounds()
	x0, y0 := max(0, int(b.Min.X*k)-24), max(0, int(b.Min.Y*k)-24)
	x1, y1 := min(t.pic.W, int(b.Max.X*k)+25), min(t.pic.H, int(b.Max.Y*k)+25)
	q := &picture.Picture{W: x1 - x0, H: y1 - y0, Pix: make([]uint8, 3*(x1-x0)*(y1-y0)), DPI: t.pic.DPI, Soft: t.pic.Soft, Reduced: t.pic.Reduced}
	// Colours of the sheet from just inside its rim, to paint with: pieces lie there
	// seldom, and the middle of all is the sheet.
	rim, err := in.Offset(-2)
	if err != nil {
		return Result{}, err
	}
	var samples [][3]uint8
	for y := y0; y < y1; y += 3 {
		spans, inner := in.Cross((float64(y)+0.5)/k), rim.Cross((float64(y)+0.5)/k)
		for _, s := range spans {
			for x := int(s[0] * k); x < int(s[1]*k); x += 3 {
				deep := false
				for _, i := range inner {
					deep = deep || float64(x) > i[0]*k && float64(x) < i[1]*k
				}
				if !deep && x >= 0 && x < t.pic.W {
					i := 3 * (y*t.pic.W + x)
					samples = append(samples, [3]uint8(t.pic.Pix[i:i+3]))
				}
			}
		}
	}
	if len(samples) == 0 {
		return Result{}, &picture.Problem{What: "The sheet in the picture is too small.", Mend: "Lay a sheet that fills the glass."}
	}
	var hist [3][256]int
	for _, s := range samples {
		for c, v := range s {
			hist[c][v]++
		}
	}
	var mid [3]float64
	for c := range mid {
		mid[c] = medianOf(hist[c][:], len(samples))
	}
	var paint [][3]uint8
	for _, s := range samples {
		if far([3]float64{float64(s[0]), float64(s[1]), float64(s[2])}, mid) < 14 {
			paint = append(paint, s)
		}
	}
	rnd := rand.New(rand.NewPCG(1, 2))
	for y := range q.H {
		row := q.Pix[3*y*q.W : 3*(y+1)*q.W]
		copy(row, t.pic.Pix[3*((y+y0)*t.pic.W+x0):])
		at := 0
		cover := func(to int) {
			for ; at < min(to, q.W); at++ {
				s := paint[rnd.IntN(len(paint))]
				copy(row[3*at:], s[:])
			}
		}
		for _, s := range in.Cross((float64(y+y0) + 0.5) / k) {
			cover(int(s[0]*k) - x0)
			at = max(at, int(s[1]*k)-x0)
		}
		cover(q.W)
	}
	scale := t.scale
	scale.Place = func(x, y float64) shape.Point { return t.scale.Place(x+float64(x0), y+float64(y0)) }
	res, err := Find(ctx, q, scale, append(append([]Option{}, opts...), func(f *finder) { f.within = true; f.rim = in })...)
	if err != nil {
		return Result{}, err
	}
	sb, area := tightBox(sheet)
	w := sb.Rings()[0][0].Distance(sb.Rings()[0][1])
	w = math.Max(w, area/w)
	res.Notes = append([]string{fmt.Sprintf("A sheet of %.0f × %.0f mm lies in the picture; the pieces were looked for on it alone.", w, area/w)}, res.Notes...)
	return res, nil
}

// atRim marks pieces that run up to the rim of the sheet they lie on.
func (t *finder) atRim(ps []Piece) {
	if t.rim.Empty() {
		return
	}
	for i := range ps {
		for _, r := range ps[i].Region.Rings() {
			for _, p := range r {
				if t.rim.EdgeDistance(p) < byFrame {
					ps[i].Cut = true
				}
			}
		}
	}
}
