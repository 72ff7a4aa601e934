// Package basic draws the plain nested dies everybody owns: circles,
// rectangles, banners, tags, rings and stitched frames, from their measures.
package basic

import (
	"fmt"
	"math"
	"strings"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Kind is the sort of die.
type Kind string

// Kinds of basic dies.
const (
	Circle   Kind = "circle"
	Oblong   Kind = "rectangle"
	Scallop  Kind = "scalloped"
	Stitched Kind = "stitched"
	Fishtail Kind = "fishtail banner"
	Notched  Kind = "notched banner"
	RingDie  Kind = "ring"
	Tag      Kind = "tag"
)

// Measures are what a basic die is drawn from; lengths in mm.
type Measures struct {
	Kind   Kind    `json:"kind" enum:"circle,rectangle,scalloped,stitched,fishtail banner,notched banner,ring,tag"`
	W      float64 `json:"w" minimum:"3" maximum:"400" doc:"width of the largest, or diameter, mm"`
	H      float64 `json:"h,omitempty" minimum:"0" maximum:"400" doc:"height, mm; 0 takes the width"`
	Corner float64 `json:"corner,omitempty" minimum:"0" maximum:"100" doc:"radius of corners or scallops, depth of a notch, width of a ring or frame, mm"`
	Count  int     `json:"count,omitempty" minimum:"0" maximum:"12" doc:"how many nested sizes; 0 counts as 1"`
	Step   float64 `json:"step,omitempty" minimum:"0" maximum:"50" doc:"by how much each is smaller on every side, mm"`
}

// Parts draws the nested sizes, largest first. A size that would be too small
// to cut ends the nest with an error that says so.
func Parts(m Measures) ([]kit.Part, error) {
	if m.H == 0 || m.Kind == Circle || m.Kind == RingDie {
		m.H = m.W
	}
	var out []kit.Part
	for i := range max(1, m.Count) {
		by := 2 * m.Step * float64(i)
		w, h := m.W-by, m.H-by
		if w < 3 || h < 3 {
			return nil, kit.Problem{Path: "count", What: fmt.Sprintf("size %d would be %.1f × %.1f mm, too small to cut; take fewer sizes or a smaller step", i+1, w, h)}
		}
		g, lines, err := one(m.Kind, w, h, m.Corner)
		if err != nil {
			return nil, err
		}
		p := kit.Part{ID: fmt.Sprintf("p%d", i+1), Label: fmt.Sprintf("Size %d", i+1), Outline: g, Lines: lines, Order: i + 1, Rank: i + 1, Copies: 1, Fit: kit.FitEvenRim}
		if i == 0 {
			p.Fit = kit.FitFree
		} else {
			p.Host = out[i-1].ID
		}
		out = append(out, p)
	}
	return out, nil
}

func one(k Kind, w, h, c float64) (g shape.Region, lines string, err error) {
	short := math.Min(w, h)
	tooBig := func(most float64, what string) error {
		if c > most {
			return kit.Problem{Path: "corner", What: fmt.Sprintf("%s may be at most %.1f mm here", what, most)}
		}
		return nil
	}
	switch k {
	case Circle:
		return shape.Disc(shape.Point{}, w/2), "", nil
	case RingDie:
		if c <= 0 {
			c = w / 8
		}
		if err := tooBig(w/2-0.5, "the width of the ring"); err != nil {
			return g, "", err
		}
		return shape.RingDisc(shape.Point{}, w/2, w/2-c), "", nil
	case Oblong:
		if err := tooBig(short/2, "the corner"); err != nil {
			return g, "", err
		}
		return rounded(w, h, c), "", nil
	case Stitched:
		if err := tooBig(short/2, "the corner"); err != nil {
			return g, "", err
		}
		return rounded(w, h, c), stitches(rounded(w-3, h-3, math.Max(0, c-1.5))), nil
	case Scallop:
		if c > 0 && c < leastScallop {
			return g, "", kit.Problem{Path: "corner", What: fmt.Sprintf("scallops of %.4g mm cannot be cut; a die has them from %.1f mm", c, leastScallop)}
		}
		g, err = scalloped(w, h, c)
		return g, "", err
	case Fishtail, Notched:
		if c <= 0 {
			c = h / 3
		}
		if err := tooBig(w/3, "the depth of the notch"); err != nil {
			return g, "", err
		}
		x := w / 2
		ring := shape.Ring{{X: -x, Y: -h / 2}, {X: x, Y: -h / 2}, {X: x - c, Y: 0}, {X: x, Y: h / 2}, {X: -x, Y: h / 2}}
		if k == Fishtail {
			ring = append(ring, shape.Point{X: -x + c, Y: 0})
		}
		return shape.New(true, ring), "", nil
	case Tag:
		if c <= 0 {
			c = short / 4
		}
		if err := tooBig(short/2, "the corner"); err != nil {
			return g, "", err
		}
		body := shape.New(true, shape.Ring{{X: -w/2 + c, Y: -h / 2}, {X: w/2 - c, Y: -h / 2}, {X: w / 2, Y: -h/2 + c}, {X: w / 2, Y: h / 2}, {X: -w / 2, Y: h / 2}, {X: -w / 2, Y: -h/2 + c}})
		g, err := body.Minus(shape.Disc(shape.Point{Y: -h/2 + math.Max(4, c)}, math.Min(2, short/8)))
		return g, "", err
	}
	return g, "", kit.Problem{Path: "kind", What: fmt.Sprintf("%q is not a basic die", k)}
}

// leastScallop is the radius of the smallest scallop, mm; our own default.
const leastScallop = 1.0

// rounded is a rectangle about the origin with corners of radius r.
func rounded(w, h, r float64) shape.Region {
	if r <= 0 {
		return shape.Rect(-w/2, -h/2, w, h)
	}
	n := max(4, int(math.Ceil(math.Pi/2/math.Acos(1-math.Min(0.5, shape.Tolerance/2/r))/2)))
	var ring shape.Ring
	for q, c := range []shape.Point{{X: w/2 - r, Y: h/2 - r}, {X: -w/2 + r, Y: h/2 - r}, {X: -w/2 + r, Y: -h/2 + r}, {X: w/2 - r, Y: -h/2 + r}} {
		for i := range n + 1 {
			a := math.Pi/2*float64(q) + math.Pi/2*float64(i)/float64(n)
			ring = append(ring, shape.Point{X: c.X + r*math.Cos(a), Y: c.Y + r*math.Sin(a)})
		}
	}
	return shape.New(true, ring)
}

// scalloped is a rectangle with half discs along its sides, as many as come
// nearest to the radius asked for.
func scalloped(w, h, r float64) (shape.Region, error) {
	if r <= 0 {
		r = math.Min(w, h) / 12
	}
	nx, ny := math.Round(w/(2*r))-1, math.Round(h/(2*r))-1
	if nx < 2 || ny < 2 {
		return shape.Region{}, kit.Problem{Path: "corner", What: fmt.Sprintf("scallops may be at most %.1f mm in radius here", math.Min(w, h)/6)}
	}
	// The discs stand on an inner rectangle, so that the whole is w by h.
	rx, ry := w/(2*nx+2), h/(2*ny+2)
	k := math.Min(rx, ry)
	iw, ih := w-2*k, h-2*k
	// Discs of one side touch or stand apart, so that the edge is made of half circles
	// with straight bits between, and three quarters of one at each corner.
	var ring shape.Ring
	arc := func(x, y, from, to float64) {
		for a := 0; a <= arcSteps; a++ {
			at := (from + (to-from)*float64(a)/arcSteps) * math.Pi / 180
			ring = append(ring, shape.Point{X: x + k*math.Cos(at), Y: y + k*math.Sin(at)})
		}
	}
	side := func(n float64, at func(t float64) (x, y float64), from float64) {
		x, y := at(0)
		arc(x, y, from-90, from+180)
		for i := 1; i < int(n); i++ {
			x, y = at(float64(i) / n)
			arc(x, y, from, from+180)
		}
	}
	side(nx, func(t float64) (x, y float64) { return -iw/2 + iw*t, -ih / 2 }, 180)
	side(ny, func(t float64) (x, y float64) { return iw / 2, -ih/2 + ih*t }, 270)
	side(nx, func(t float64) (x, y float64) { return iw/2 - iw*t, ih / 2 }, 0)
	side(ny, func(t float64) (x, y float64) { return -iw / 2, ih/2 - ih*t }, 90)
	return shape.New(true, ring), nil
}

// arcSteps is in how many straight bits a scallop is drawn.
const arcSteps = 24

// stitches are dashes of 1.6 mm with gaps of 1 mm along an outline.
func stitches(g shape.Region) string {
	const dash, gap = 1.6, 1.0
	ring := g.Rings()[0]
	n := math.Max(4, math.Round(ring.Length()/(dash+gap)))
	period := ring.Length() / n
	var b strings.Builder
	at := func(d float64) shape.Point {
		for i, p := range ring {
			q := ring[(i+1)%len(ring)]
			l := p.Distance(q)
			if d <= l {
				return p.Add(q.Sub(p).Scale(d / l))
			}
			d -= l
		}
		return ring[0]
	}
	for i := range int(n) {
		p, q := at(float64(i)*period), at(float64(i)*period+dash)
		fmt.Fprintf(&b, "M%.2f %.2fL%.2f %.2f", p.X, p.Y, q.X, q.Y)
	}
	return b.String()
}
