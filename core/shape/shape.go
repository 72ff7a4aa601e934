// Package shape holds plane regions in millimetres: outlines of pieces,
// prints and panels, and safe booleans, offsets and distances on them.
//
// A Region is a set of closed polygons. Curves are flattened when they come
// in, to within Tolerance, and corners are snapped to Grid. The y axis points
// down, as on screen and in SVG, so positive turns are clockwise to the eye.
package shape

import (
	"errors"
	"math"
	"slices"

	"github.com/tdewolff/canvas"
)

// Tolerance is the greatest distance of a flattened curve from the true one,
// in mm; Grid is the lattice corners are snapped to.
const (
	Tolerance = 0.02
	Grid      = 0.001
)

// Point is a place in mm.
type Point struct{ X, Y float64 }

// Add, Sub and Scale are the usual vector operations.
func (p Point) Add(q Point) Point        { return Point{p.X + q.X, p.Y + q.Y} }
func (p Point) Sub(q Point) Point        { return Point{p.X - q.X, p.Y - q.Y} }
func (p Point) Scale(k float64) Point    { return Point{p.X * k, p.Y * k} }
func (p Point) Dot(q Point) float64      { return p.X*q.X + p.Y*q.Y }
func (p Point) Cross(q Point) float64    { return p.X*q.Y - p.Y*q.X }
func (p Point) Len() float64             { return math.Hypot(p.X, p.Y) }
func (p Point) Distance(q Point) float64 { return math.Hypot(p.X-q.X, p.Y-q.Y) }

// Ring is a closed polygon without the closing point repeated.
type Ring []Point

// Area is the signed area in mm²: positive for a ring that bounds from
// outside, negative for a hole, once the region is settled.
func (r Ring) Area() float64 {
	var s float64
	for i, p := range r {
		s += p.Cross(r[(i+1)%len(r)])
	}
	return s / 2
}

// Length is the perimeter in mm.
func (r Ring) Length() float64 {
	var s float64
	for i, p := range r {
		s += p.Distance(r[(i+1)%len(r)])
	}
	return s
}

// Region is a set of rings, settled: outer rings have positive area, holes
// negative, none cross. The zero Region is empty.
type Region struct {
	rings []Ring
	known *known
}

// ErrBoolean is returned when a boolean cannot be trusted: the areas of its
// parts do not add up even after the outlines were moved a hair.
var ErrBoolean = errors.New("the outlines meet in a way that cannot be resolved; move or simplify one of them")

// New settles rings given in any direction, by the non-zero rule when nonzero
// is true and by the even-odd rule otherwise.
func New(nonzero bool, rings ...Ring) Region {
	rule := canvas.EvenOdd
	if nonzero {
		rule = canvas.NonZero
	}
	return fromPath(toPath(rings).Settle(rule))
}

// Raw trusts rings that are settled already, such as those of a stored
// region.
func Raw(rings ...Ring) Region { return of(rings) }

// FromPath flattens a path whose y axis points down and settles it.
func FromPath(p *canvas.Path, nonzero bool) Region {
	return New(nonzero, flatten(p)...).Simplify(Tolerance / 4)
}

// flatten turns a path into rings with straight sides.
func flatten(p *canvas.Path) []Ring {
	var rings []Ring
	flat := p.Flatten(Tolerance / 2)
	for _, sub := range flat.Split() {
		var r Ring
		for _, c := range sub.Coords() {
			r = append(r, Point{c.X, c.Y})
		}
		if r = tidy(r); len(r) >= 3 {
			rings = append(rings, r)
		}
	}
	return rings
}

// Rect returns an axis-parallel rectangle with its corner at x, y.
func Rect(x, y, w, h float64) Region {
	return of([]Ring{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}})
}

// Disc returns a circle as a polygon within Tolerance of it, centred on c. The
// polygon is placed half in, half out, so that its area is the circle's to a
// part in a million.
func Disc(c Point, r float64) Region { return Raw(circle(c, r, +1)) }

// RingDisc returns the region between two circles.
func RingDisc(c Point, outer, inner float64) Region {
	return Raw(circle(c, outer, +1), circle(c, inner, -1))
}

func circle(c Point, r, dir float64) Ring {
	n := max(24, 4*int(math.Ceil(math.Pi/4/math.Acos(1-min(0.5, Tolerance/2/r)))))
	t := math.Pi / float64(n)
	r *= math.Sqrt(2 * t / math.Sin(2*t)) // keeps the area
	out := make(Ring, n)
	for i := range out {
		a := dir * 2 * t * float64(i)
		out[i] = Point{c.X + r*math.Cos(a), c.Y + r*math.Sin(a)}
	}
	return out
}

// Same reports whether two regions have the same rings to a hundredth of a millimetre: whether
// their Path is the same.
func (g Region) Same(h Region) bool {
	return slices.EqualFunc(g.rings, h.rings, func(r, s Ring) bool {
		return slices.EqualFunc(r, s, func(p, q Point) bool { return p == q || num(p.X) == num(q.X) && num(p.Y) == num(q.Y) })
	})
}

// Rings gives the settled rings; they must not be changed.
func (g Region) Rings() []Ring { return g.rings }

// Empty reports whether nothing is left.
func (g Region) Empty() bool { return len(g.rings) == 0 }

// Area is the area in mm².
func (g Region) Area() float64 {
	var s float64
	for _, r := range g.rings {
		s += r.Area()
	}
	return s
}

// Length is the total length of all edges in mm, holes included.
func (g Region) Length() float64 {
	var s float64
	for _, r := range g.rings {
		s += r.Length()
	}
	return s
}

// Points counts the corners.
func (g Region) Points() int {
	n := 0
	for _, r := range g.rings {
		n += len(r)
	}
	return n
}

// Centroid is the centre of area.
func (g Region) Centroid() Point {
	var a, x, y float64
	for _, r := range g.rings {
		for i, p := range r {
			q := r[(i+1)%len(r)]
			c := p.Cross(q)
			a, x, y = a+c, x+(p.X+q.X)*c, y+(p.Y+q.Y)*c
		}
	}
	if a == 0 {
		return g.Bounds().Centre()
	}
	return Point{x / (3 * a), y / (3 * a)}
}

// Box is an axis-parallel box in mm.
type Box struct{ Min, Max Point }

// W, H and Centre describe the box.
func (b Box) W() float64 { return b.Max.X - b.Min.X }
func (b Box) H() float64 { return b.Max.Y - b.Min.Y }

// Sized reports whether the box is w by h mm, within so much.
func (b Box) Sized(w, h, within float64) bool {
	return math.Abs(b.W()-w) <= within && math.Abs(b.H()-h) <= within
}

// Centre is its middle.
func (b Box) Centre() Point { return b.Min.Add(b.Max).Scale(0.5) }

// Meets reports whether two boxes touch or overlap.
func (b Box) Meets(c Box) bool {
	return b.Min.X <= c.Max.X && c.Min.X <= b.Max.X && b.Min.Y <= c.Max.Y && c.Min.Y <= b.Max.Y
}

// Bounds is the smallest box round the region; the zero Box when empty.
func (g Region) Bounds() Box {
	if g.Empty() {
		return Box{}
	}
	if g.known == nil {
		return boxOf(g.rings)
	}
	g.known.boxed.Do(func() { g.known.box = boxOf(g.rings) })
	return g.known.box
}

// Contains reports whether p lies inside, by the non-zero rule.
func (g Region) Contains(p Point) bool { return contains(g.rings, p) }

func contains(rings []Ring, p Point) bool {
	in := false
	for _, r := range rings {
		for i, a := range r {
			b := r[(i+1)%len(r)]
			if (a.Y > p.Y) != (b.Y > p.Y) && p.X < a.X+(p.Y-a.Y)/(b.Y-a.Y)*(b.X-a.X) {
				in = !in
			}
		}
	}
	return in
}

// Move, Turn and ScaleBy return the region displaced, turned clockwise on
// screen by deg about c, and scaled about the origin.
func (g Region) Move(d Point) Region { return g.each(func(p Point) Point { return p.Add(d) }) }

// Turn turns the region clockwise on screen by deg degrees about c.
func (g Region) Turn(deg float64, c Point) Region {
	s, k := math.Sincos(deg * math.Pi / 180)
	return g.each(func(p Point) Point {
		d := p.Sub(c)
		return Point{c.X + d.X*k - d.Y*s, c.Y + d.X*s + d.Y*k}
	})
}

// ScaleBy scales the region about the origin by k > 0.
func (g Region) ScaleBy(k float64) Region { return g.each(func(p Point) Point { return p.Scale(k) }) }

// Stretch scales the region about the origin by x > 0 across and y > 0 down.
func (g Region) Stretch(x, y float64) Region {
	return g.each(func(p Point) Point { return Point{X: p.X * x, Y: p.Y * y} })
}

// Mirror turns the region over, left to right, about the upright line at x.
func (g Region) Mirror(x float64) Region {
	out := g.each(func(p Point) Point { return Point{2*x - p.X, p.Y} })
	for _, r := range out.rings {
		slices.Reverse(r)
	}
	return out
}

// Filled is the region without its holes: with all that they hold, islands in them too.
func (g Region) Filled() Region {
	var out []Ring
	for _, r := range g.rings {
		if r.Area() > 0 {
			out = append(out, r)
		}
	}
	if len(out) == len(g.rings) {
		return of(out) // no holes, and so no islands
	}
	return of(slices.DeleteFunc(slices.Clone(out), func(r Ring) bool {
		return slices.ContainsFunc(out, func(o Ring) bool { return o.Area() > r.Area() && contains([]Ring{o}, r[0]) })
	}))
}

// Closed is the region without its holes of at most so many mm², and without what lies in them.
func (g Region) Closed(most float64) Region {
	var small []Ring
	for _, r := range g.rings {
		if a := r.Area(); a < 0 && -a <= most {
			small = append(small, r)
		}
	}
	if len(small) == 0 {
		return g
	}
	return of(slices.DeleteFunc(slices.Clone(g.rings), func(r Ring) bool {
		return slices.ContainsFunc(small, func(h Ring) bool {
			return &h[0] == &r[0] || -h.Area() > math.Abs(r.Area()) && contains([]Ring{h}, r[0])
		})
	}))
}

// Holes gives what is cut out of the region, each hole a region of its own.
func (g Region) Holes() []Region {
	var out []Region
	for _, r := range g.rings {
		if r.Area() < 0 {
			h := slices.Clone(r)
			slices.Reverse(h)
			out = append(out, of([]Ring{h}))
		}
	}
	return out
}

// Enclosed are the regions that lines hold, each in one piece: what lies within the region's outer
// edges and is not the region itself.
func (g Region) Enclosed() []Region {
	var outer []Region
	for _, r := range g.rings {
		if r.Area() > 0 {
			outer = append(outer, of([]Ring{r}))
		}
	}
	all, err := UnionAll(outer...)
	if err != nil {
		return nil
	}
	in, err := all.Minus(g)
	if err != nil {
		return nil
	}
	return in.Pieces()
}

// Heart is a point well within a region: in the middle of the widest stretch of some rows across it.
// An empty region has none.
func (g Region) Heart() (at Point, ok bool) {
	const rows = 16
	box := g.Bounds()
	widest := 0.0
	for i := range rows {
		y := box.Min.Y + (float64(i)+0.5)/rows*box.H()
		for _, c := range g.Cross(y) {
			if w := c[1] - c[0]; w > widest {
				widest, at, ok = w, Point{(c[0] + c[1]) / 2, y}, true
			}
		}
	}
	return at, ok
}

func (g Region) each(f func(Point) Point) Region {
	out := make([]Ring, len(g.rings))
	for i, r := range g.rings {
		q := make(Ring, len(r))
		for j, p := range r {
			q[j] = f(p)
		}
		out[i] = q
	}
	return of(out)
}

// Pieces parts the region into connected ones, each an outer ring with its
// holes, largest first.
func (g Region) Pieces() []Region {
	type outer struct {
		rings []Ring
		area  float64
	}
	var all []outer
	for _, r := range g.rings {
		if a := r.Area(); a > 0 {
			all = append(all, outer{[]Ring{r}, a})
		}
	}
	for _, h := range g.rings {
		if h.Area() > 0 {
			continue
		}
		best := -1
		for i, o := range all {
			if contains(o.rings[:1], h[0]) && (best < 0 || o.area < all[best].area) {
				best = i
			}
		}
		if best >= 0 {
			all[best].rings = append(all[best].rings, h)
		}
	}
	var out []Region
	for _, o := range all {
		out = append(out, of(o.rings))
	}
	for i := 1; i < len(out); i++ {
		for j := i; j > 0 && out[j].Area() > out[j-1].Area(); j-- {
			out[j], out[j-1] = out[j-1], out[j]
		}
	}
	return out
}

// tidy snaps to the grid and drops repeated corners.
func tidy(r Ring) Ring {
	out := r[:0:0]
	for _, p := range r {
		p = Point{math.Round(p.X/Grid) * Grid, math.Round(p.Y/Grid) * Grid}
		if len(out) == 0 || out[len(out)-1] != p {
			out = append(out, p)
		}
	}
	for len(out) > 1 && out[0] == out[len(out)-1] {
		out = out[:len(out)-1]
	}
	return out
}

func toPath(rings []Ring) *canvas.Path {
	p := &canvas.Path{}
	for _, r := range rings {
		if r = tidy(r); len(r) < 3 {
			continue
		}
		for i, q := range r {
			if i == 0 {
				p.MoveTo(q.X, q.Y)
			} else {
				p.LineTo(q.X, q.Y)
			}
		}
		p.Close()
	}
	return p
}

// minRing is the area, mm², under which a ring left by a boolean is only the
// rounding of the grid: a speck 0.06 mm across.
const minRing = 4e-3

func fromPath(p *canvas.Path) Region {
	var out []Ring
	for _, sub := range p.Split() {
		var r Ring
		for _, c := range sub.Coords() {
			r = append(r, Point{c.X, c.Y})
		}
		if r = tidy(r); len(r) >= 3 && math.Abs(r.Area()) > minRing {
			out = append(out, r)
		}
	}
	orient(out)
	return of(out)
}

// orient gives every ring the direction of its nesting: outermost positive,
// holes negative, islands in holes positive. The path library's union leaves
// some holes turned the wrong way.
func orient(rings []Ring) {
	if len(rings) == 1 {
		if r := rings[0]; r.Area() < 0 {
			slices.Reverse(r)
		}
		return
	}
	box := make([]Box, len(rings))
	for i, r := range rings {
		box[i] = boxOf([]Ring{r})
	}
	for i, r := range rings {
		p := r.inner()
		depth := 0
		for j, o := range rings {
			if i != j && box[j].Meets(Box{p, p}) && contains([]Ring{o}, p) {
				depth++
			}
		}
		if (r.Area() > 0) != (depth%2 == 0) {
			slices.Reverse(r)
		}
	}
}
