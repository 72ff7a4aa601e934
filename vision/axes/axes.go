// Package axes finds what a flatbed scanner makes of a millimetre: it rarely scans as long as
// it says, and not alike across and down. A thing of known size, scanned once, tells.
package axes

import (
	"context"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/shape"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// Axes is how a scanner's picture maps to millimetres.
type Axes struct {
	X    float64 `json:"x" doc:"true mm across for every mm that the dots to the inch say"`
	Y    float64 `json:"y" doc:"the same down"`
	Skew float64 `json:"skew" doc:"how far down lies from square to across, radians, clockwise"`
	Sure float64 `json:"sure" doc:"share by which both are sure, 95 of 100"`
	DPI  float64 `json:"dpi" doc:"dots to the inch of the page they were found on"`
}

// Nominal are those of a scanner nobody has measured: sizes are trusted to Untold.
func Nominal(dpi float64) Axes { return Axes{X: 1, Y: 1, Sure: Untold, DPI: dpi} }

// Untold is how far off, as a share, an unmeasured scanner may scan: drives slip and stretch,
// and four in a thousand are found in the trade (common practice, no source).
const Untold = 0.004

// Point is where a place really lies that a scan shows at so many mm by its dots to the inch.
func (a Axes) Point(p shape.Point) shape.Point {
	sin, cos := math.Sincos(a.Skew)
	x, y := p.X*a.X, p.Y*a.Y
	return shape.Point{X: x - y*sin, Y: y * cos}
}

// Line is a line as it really lies.
func (a Axes) Line(l []shape.Point) []shape.Point {
	out := make([]shape.Point, len(l))
	for i, p := range l {
		out[i] = a.Point(p)
	}
	return out
}

// Region is an outline as it really is.
func (a Axes) Region(g shape.Region) shape.Region {
	rings := make([]shape.Ring, len(g.Rings()))
	for i, r := range g.Rings() {
		rings[i] = a.Line(r)
	}
	return shape.Raw(rings...)
}

// The card of ISO/IEC 7810, ID-1: a bank card. Its sides are 85.60 by 53.98 mm; those of cards
// in use lie within 0.13 and 0.06 mm of that (the standard's limits, from memory).
const (
	cardLong   = 85.60
	cardShort  = 53.98
	cardSure   = 0.0015
	cardRound  = 3.18 // radius of its corners
	mostStray  = 0.035
	mostBow    = 0.12 // mm, of a side that counts as straight
	otherSizes = 0.30 // up to which share a size is told as another resolution
)

// Card reads the axes off a bank card that lies alone on the glass.
func Card(ctx context.Context, p *picture.Picture, dpi float64) (Axes, error) {
	res, err := trace.Find(ctx, p, trace.DPI(dpi))
	if err != nil {
		return Axes{}, fmt.Errorf("look for the card: %w", err)
	}
	best, off := -1, math.Inf(1)
	var u, v shape.Point
	var bow float64
	for i, q := range res.Pieces {
		a, b, w, ok := sides(q.Region)
		if !ok {
			continue
		}
		if d := math.Abs(math.Log(a.Len()*b.Len()/(cardLong*cardShort)))/2 + math.Abs(math.Log(a.Len()/b.Len()*cardShort/cardLong)); d < off {
			best, off, u, v, bow = i, d, a, b, w
		}
	}
	if best < 0 {
		return Axes{}, &picture.Problem{What: "No card with four straight sides can be seen on this page.", Mend: "Lay a bank card flat on the glass by itself, a thumb's breadth from the rim, under a dark sheet if it is light, and scan it as you scan pieces. A card is not kept: cover its numbers if you like."}
	}
	if res.Pieces[best].Cut {
		return Axes{}, &picture.Problem{What: "The card runs over the edge of the picture.", Mend: "Move it inward, all of it on the glass, and scan again."}
	}
	long := math.Sqrt(u.Len() * v.Len() / (cardLong * cardShort))
	shape := u.Len() / v.Len() * cardShort / cardLong
	switch {
	case math.Abs(shape-1) > mostStray:
		return Axes{}, &picture.Problem{What: fmt.Sprintf("What lies there is %.1f × %.1f mm by the dots to the inch, no bank card (85.6 × 54.0 mm).", u.Len(), v.Len()), Mend: "Take a bank card, an identity card or a membership card of that size."}
	case math.Abs(long-1) > mostStray && math.Abs(long-1) < otherSizes || long < 1-otherSizes || long > 1+otherSizes:
		return Axes{}, &picture.Problem{What: fmt.Sprintf("By %.4g dots to the inch the card is %.1f × %.1f mm; it would be right at %.0f.", dpi, u.Len(), v.Len(), dpi*long), Mend: "Say at how many dots to the inch the page was scanned, and do not let the program that scans shrink it."}
	case bow > mostBow:
		return Axes{}, &picture.Problem{What: fmt.Sprintf("A side of the card is bowed by %.2f mm.", bow), Mend: "Take a card that is not bent, and weigh the lid down a little."}
	}
	return solve(u, v, cardLong, cardShort, cardSure, dpi)
}

// Mat reads the axes off a scan of the printed mat, a line of which a person has measured: the
// distance between the middles of the two upper corner marks, mm, with a ruler.
func Mat(p *picture.Picture, dpi, measured float64) (Axes, error) {
	r, err := mat.Read(p)
	if err != nil {
		return Axes{}, fmt.Errorf("look for the mat: %w", err)
	}
	printed := r.Layout.Marks[1].At.X - r.Layout.Marks[0].At.X
	by := measured / printed
	if by < 0.9 || by > 1.1 {
		return Axes{}, &picture.Problem{What: fmt.Sprintf("Between the middles of the two upper corner marks lie %.0f mm when the mat is printed at 100 %%; %.1f mm is another line.", printed, measured), Mend: "Measure from the middle of one dot to the middle of the other, and print the mat without fitting it to the page."}
	}
	const straight = 10.0 // degrees of tilt that unlike axes never pass for: their ratio is its cosine
	if r.Tilt > straight {
		return Axes{}, &picture.Problem{What: "The page does not lie flat in this picture, or it is a photograph.", Mend: "Scan the mat on the scanner's glass with the lid down."}
	}
	k := 25.4 / dpi
	c := shape.Point{X: float64(p.W) / 2, Y: float64(p.H) / 2}
	const step = 400.0
	at := func(x, y float64) shape.Point { return r.Scale.Place(c.X+x, c.Y+y).Scale(by) }
	u := at(step, 0).Sub(at(-step, 0)).Scale(1 / (2 * step * k))
	v := at(0, step).Sub(at(0, -step)).Scale(1 / (2 * step * k))
	a := Axes{X: u.Len(), Y: v.Len(), DPI: dpi}
	a.Skew = math.Asin(min(1, max(-1, -u.Dot(v)/(u.Len()*v.Len()))))
	const ruler = 0.25 // mm, to which a line is read off a ruler
	a.Sure = math.Hypot(ruler/measured, 2*r.Certain)
	return a, a.check()
}

// sides are the two pairs of sides of a piece as vectors between their middles, the longer
// first, and how far the worst side is bowed, mm.
func sides(g shape.Region) (u, v shape.Point, bow float64, ok bool) {
	ring := g.Filled().Rings()[0]
	// It lies the way of the least box round it.
	dense := resampled(ring, 0.25)
	least, way := math.Inf(1), 0.0
	area := func(angle float64) float64 {
		b := turnedBox(dense, angle)
		return b.W() * b.H()
	}
	for deg := 0.0; deg < 90; deg++ {
		if a := area(deg * math.Pi / 180); a < least {
			least, way = a, deg*math.Pi/180
		}
	}
	for step := 0.5 * math.Pi / 180; step > 1e-4; step /= 2 {
		for _, by := range [2]float64{-step, step} {
			if a := area(way + by); a < least {
				least, way = a, way+by
			}
		}
	}
	if math.Sqrt(least) < 20 {
		return u, v, 0, false
	}
	a, b, w, good := boxed(dense, way)
	if !good {
		return u, v, 0, false
	}
	if a.Len() < b.Len() {
		a, b = b, a
	}
	return a, b, w, true
}

// turnedBox is the box round points after they are turned by less an angle.
func turnedBox(ps []shape.Point, angle float64) shape.Box {
	sin, cos := math.Sincos(angle)
	box := shape.Box{Min: shape.Point{X: math.Inf(1), Y: math.Inf(1)}, Max: shape.Point{X: math.Inf(-1), Y: math.Inf(-1)}}
	for _, p := range ps {
		x, y := p.X*cos+p.Y*sin, p.Y*cos-p.X*sin
		box.Min.X, box.Min.Y = min(box.Min.X, x), min(box.Min.Y, y)
		box.Max.X, box.Max.Y = max(box.Max.X, x), max(box.Max.Y, y)
	}
	return box
}

// boxed fits lines to the four sides of a ring that lies at about an angle.
func boxed(dense []shape.Point, angle float64) (u, v shape.Point, bow float64, ok bool) {
	sin, cos := math.Sincos(angle)
	box := turnedBox(dense, angle)
	turned := make([]shape.Point, len(dense))
	for i, p := range dense {
		turned[i] = shape.Point{X: p.X*cos + p.Y*sin, Y: p.Y*cos - p.X*sin}
	}
	const near = 2.5
	corner := cardRound + 1.5
	var lines [4]line
	for k := range lines {
		var on []shape.Point
		for _, p := range turned {
			from := [4]float64{p.Y - box.Min.Y, box.Max.X - p.X, box.Max.Y - p.Y, p.X - box.Min.X}[k]
			ends := [2]float64{min(p.X-box.Min.X, box.Max.X-p.X), min(p.Y-box.Min.Y, box.Max.Y-p.Y)}[k%2]
			if from < near && ends > corner {
				on = append(on, p)
			}
		}
		need := [2]float64{box.W(), box.H()}[k%2] - 2*corner
		if need <= 0 || float64(len(on))*0.25 < 0.9*need {
			return u, v, 0, false
		}
		lines[k] = fitted(on, k%2 == 1)
		bow = max(bow, lines[k].bow)
	}
	// Sides that face each other run alike; what is between them, along the other pair.
	var at [4]shape.Point
	for k := range at {
		if at[k], ok = lines[k].meets(lines[(k+1)%4]); !ok {
			return u, v, 0, false
		}
	}
	// The corners in turn: right top, right bottom, left bottom, left top.
	u = at[0].Sub(at[3]).Add(at[1].Sub(at[2])).Scale(0.5)
	v = at[1].Sub(at[0]).Add(at[2].Sub(at[3])).Scale(0.5)
	back := func(p shape.Point) shape.Point { return shape.Point{X: p.X*cos - p.Y*sin, Y: p.X*sin + p.Y*cos} }
	return back(u), back(v), bow, true
}

// solve finds the axes under which two sides have their true lengths and stand square: with
// the scanner's picture sheared and stretched by A, the lengths are those of AᵀA.
func solve(u, v shape.Point, long, short, sure, dpi float64) (Axes, error) {
	// Rows: u'Mu = long², v'Mv = short², u'Mv = 0, for the three entries of M.
	m := [3][4]float64{
		{u.X * u.X, 2 * u.X * u.Y, u.Y * u.Y, long * long},
		{v.X * v.X, 2 * v.X * v.Y, v.Y * v.Y, short * short},
		{u.X * v.X, u.X*v.Y + u.Y*v.X, u.Y * v.Y, 0},
	}
	for i := range m {
		k := i
		for j := i + 1; j < 3; j++ {
			if math.Abs(m[j][i]) > math.Abs(m[k][i]) {
				k = j
			}
		}
		m[i], m[k] = m[k], m[i]
		if math.Abs(m[i][i]) < 1e-9 {
			return Axes{}, &picture.Problem{What: "The card's sides do not tell across from down.", Mend: "Lay it square to the glass."}
		}
		for j := range m {
			if j == i {
				continue
			}
			f := m[j][i] / m[i][i]
			for c := i; c < 4; c++ {
				m[j][c] -= f * m[i][c]
			}
		}
	}
	xx, xy, yy := m[0][3]/m[0][0], m[1][3]/m[1][1], m[2][3]/m[2][2]
	a := Axes{X: math.Sqrt(xx), Y: math.Sqrt(yy), Sure: sure, DPI: dpi}
	a.Skew = math.Asin(min(1, max(-1, -xy/math.Sqrt(xx*yy))))
	return a, a.check()
}

// What a scanner can be: past that it is no scan, or not of what it was said to be.
const (
	mostOff  = 0.03
	mostSkew = 0.02 // radians
)

func (a Axes) check() error {
	if math.Abs(a.X-1) > mostOff || math.Abs(a.Y-1) > mostOff || math.Abs(a.Skew) > mostSkew || math.IsNaN(a.X+a.Y+a.Skew) {
		return &picture.Problem{What: fmt.Sprintf("By this page the scanner is off by %+.1f %% across and %+.1f %% down: no scanner is.", 100*(a.X-1), 100*(a.Y-1)), Mend: "Look whether the dots to the inch are right, and whether the scanning program fits the page to a size."}
	}
	return nil
}

// line is x = a + b y, or y = a + b x where it lies across.
type line struct {
	a, b float64
	down bool
	bow  float64
}

// fitted lays a line through points, by the middle of their distances so that dust does not
// count; how far its middle lies off its ends is its bow.
func fitted(ps []shape.Point, down bool) line {
	l := line{down: down}
	get := func(p shape.Point) (s, d float64) {
		if down {
			return p.Y, p.X
		}
		return p.X, p.Y
	}
	keep := slices.Clone(ps)
	for range 3 {
		var n, s1, d1, ss, sd float64
		for _, p := range keep {
			s, d := get(p)
			n, s1, d1, ss, sd = n+1, s1+s, d1+d, ss+s*s, sd+s*d
		}
		l.b = (n*sd - s1*d1) / (n*ss - s1*s1)
		l.a = (d1 - l.b*s1) / n
		var off []float64
		for _, p := range ps {
			s, d := get(p)
			off = append(off, math.Abs(d-l.a-l.b*s))
		}
		sorted := slices.Sorted(slices.Values(off))
		limit := max(0.05, 3*sorted[len(sorted)/2])
		keep = keep[:0]
		for i, p := range ps {
			if off[i] <= limit {
				keep = append(keep, p)
			}
		}
	}
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, p := range ps {
		s, _ := get(p)
		lo, hi = min(lo, s), max(hi, s)
	}
	var mid, ends, nm, ne float64
	for _, p := range ps {
		s, d := get(p)
		t := (s - lo) / (hi - lo)
		switch r := d - l.a - l.b*s; {
		case t > 0.4 && t < 0.6:
			mid, nm = mid+r, nm+1
		case t < 0.1 || t > 0.9:
			ends, ne = ends+r, ne+1
		}
	}
	if nm > 0 && ne > 0 {
		l.bow = math.Abs(mid/nm - ends/ne)
	}
	return l
}

// meets is where a line across and a line down cross.
func (l line) meets(o line) (shape.Point, bool) {
	if l.down == o.down {
		return shape.Point{}, false
	}
	if l.down {
		l, o = o, l
	}
	// y = l.a + l.b x, x = o.a + o.b y
	y := (l.a + l.b*o.a) / (1 - l.b*o.b)
	return shape.Point{X: o.a + o.b*y, Y: y}, true
}

// resampled spaces the points of a ring evenly, mm apart.
func resampled(r shape.Ring, step float64) []shape.Point {
	var out []shape.Point
	for i, p := range r {
		q := r[(i+1)%len(r)]
		n := max(1, int(math.Ceil(p.Distance(q)/step)))
		for k := range n {
			out = append(out, p.Add(q.Sub(p).Scale(float64(k)/float64(n))))
		}
	}
	return out
}
