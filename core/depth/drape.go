package depth

import (
	"math"

	"ochrestone/core/bend"
	"ochrestone/core/build"
	"ochrestone/core/shape"
)

// grams is the weight of card that is taken where nobody weighed it, N/mm²: 300 g/m².
const grams = 3e-6

// Below is the height of its underside at a point, mm.
func (s Stood) Below(q shape.Point) float64 {
	if s.Bent.Flat() {
		return s.Under.Over(q)
	}
	return s.Bent.At(q)
}

// about is the plane nearest to how it lies over an outline, by least squares.
func (s Stood) about(g shape.Region) Plane {
	if s.Bent.Flat() {
		return s.Under
	}
	p := Plane{At: g.Centroid()}
	var xx, xy, yy, xz, yz float64
	on := shape.Along(g, spread)
	for _, q := range on {
		p.Z += s.Below(q) / float64(len(on))
	}
	for _, q := range on {
		x, y, z := q.X-p.At.X, q.Y-p.At.Y, s.Below(q)-p.Z
		xx, xy, yy, xz, yz = xx+x*x, xy+x*y, yy+y*y, xz+x*z, yz+y*z
	}
	if det := xx*yy - xy*xy; det > 1e-9 {
		p.SX, p.SY = (xz*yy-yz*xy)/det, (yz*xx-xz*xy)/det
	}
	return p
}

// bent lays a glued leaf over things of several heights as card lies: pressed down on them by a hand,
// bent where they end, and held where its glue took. What comes back has no trouble told yet.
func (s *stand) bent(out Stood, i int, below []int, glue []Support, ground func(shape.Point) float64) (bend.Lying, borne) {
	l := bend.Leaf{Outline: out.Outline, Stiff: bend.Stiff(out.Thick), Weight: grams}
	cell := bend.Size(out.Outline)
	on := borne{held: make([][]Bearing, len(glue)), idle: make([]bool, len(glue))}
	areas, holds := make([]*shape.Bands, len(glue)), make([]float64, len(glue))
	for n, g := range glue {
		areas[n], holds[n] = shape.Banded(g.Area), pulls(out.Holds, g.Hold)
	}
	var bears []bend.Bearing
	add := func(q shape.Point, z, area float64) {
		b := bend.Bearing{At: q, Z: z + out.Lift, Area: area}
		for n, a := range areas {
			if a.Contains(q) {
				b.Holds = max(b.Holds, holds[n])
				on.held[n] = append(on.held[n], Bearing{q, z})
			}
		}
		on.bare = append(on.bare, Bearing{q, z})
		bears = append(bears, b)
	}
	box := s.boxes[i]
	for y := box.Min.Y + cell/2; y < box.Max.Y; y += cell {
		for _, c := range out.Outline.Cross(y) {
			n := math.Max(1, math.Ceil((c[1]-c[0])/cell-0.2))
			for k := range int(n) {
				q := shape.Point{X: c[0] + (c[1]-c[0])*(float64(k)+0.5)/n, Y: y}
				add(q, ground(q), cell*(c[1]-c[0])/n)
			}
		}
	}
	for _, q := range shape.Along(out.Outline, 2*cell) {
		add(q, ground(q), cell)
	}
	// What is beneath may be finer than it is looked at: its edges count wherever they are.
	own := shape.Banded(out.Outline)
	type spot struct{ i, j int }
	most := map[spot]Bearing{} // the highest edge of each cell
	for _, j := range below {
		if s.tops[j] <= s.floor {
			break
		}
		for _, q := range shape.Along(s.out[j].Outline, cell) {
			if !in(box, q) {
				continue
			}
			at, z := spot{int((q.X - box.Min.X) / cell), int((q.Y - box.Min.Y) / cell)}, s.out[j].Over(q)
			if was, ok := most[at]; (!ok || z > was.Z) && own.Contains(q) {
				most[at] = Bearing{q, z}
			}
		}
	}
	for j := range int(box.H()/cell) + 1 {
		for i := range int(box.W()/cell) + 1 {
			if e, ok := most[spot{i, j}]; ok {
				if z := ground(e.At); z <= e.Z+touches { // else it lies hidden beneath something
					add(e.At, max(z, e.Z), cell)
				}
			}
		}
	}
	return bend.Press(l, bears, bend.Hand), on
}

// pulls is how hard a hold may be pulled at, N/mm².
func pulls(holds []build.Hold, n int) float64 {
	if n < len(holds) && holds[n].Glue != nil {
		return holds[n].Glue.Bears()
	}
	return bend.Glued
}

// offShare is how much of a part's glue may take nowhere before half of the part is said to be in the
// air, our own default.
const offShare = 0.4

// off is how far a glued leaf is above what is beneath it where its glue did not take, at its widest,
// mm, and where; 0 where most of it took.
func off(out Stood, got bend.Lying, on borne) (gap float64, at shape.Point) {
	glue, loose := 0, 0
	for n, c := range on.bare {
		if !got.Stuck[n] && !got.Off[n] {
			continue
		}
		if glue++; got.Off[n] {
			loose++
			if g := got.At(c.At) - c.Z - out.Lift; g > gap {
				gap, at = g, c.At
			}
		}
	}
	if float64(loose) < offShare*float64(glue) {
		return 0, shape.Point{}
	}
	return gap, at
}

// lain says how a bent leaf lies.
func lain(out Stood, got bend.Lying, on borne) (l lying) {
	l.bent = got.Field
	u := Uneven{Over: -1}
	hi, lo := math.Inf(-1), math.Inf(1)
	look := func(q shape.Point) {
		z := got.At(q)
		if z > hi {
			hi, u.High = z, q
		}
		if z < lo {
			lo, u.Low = z, q
		}
	}
	for _, c := range on.bare {
		look(c.At)
	}
	if u.Rise = max(0, hi-lo); u.Rise <= touches {
		l.bent, l.under = bend.Field{}, Level(hi)
		if u.Gap, u.GapAt = off(out, got, on); u.Gap > 0 {
			u.Rise = 0
			l.uneven = &u
		}
		return l
	}
	// Highest in its middle it bows: what falls away on the far side is no lean.
	away := u.Low.Sub(u.High)
	for _, c := range on.bare {
		if d := c.At.Sub(u.High); d.X*away.X+d.Y*away.Y < 0 {
			u.Bow = max(u.Bow, hi-got.At(c.At))
		}
	}
	u.Lean = u.Rise - u.Bow
	var stuck []shape.Point
	var touching []Bearing
	for n, c := range on.bare {
		if got.Stuck[n] {
			stuck = append(stuck, c.At)
		}
		if got.At(c.At)-c.Z-out.Lift < touches {
			touching = append(touching, c)
		}
	}
	near, far := within(stuck), Hang
	for _, c := range on.bare {
		if len(stuck) == 0 || near(c.At, math.Nextafter(far, math.Inf(1))) {
			continue
		}
		d := math.Inf(1)
		for _, q := range stuck {
			d = min(d, q.Distance(c.At))
		}
		if d > far {
			far, u.Gap, u.GapAt = d, got.At(c.At)-c.Z-out.Lift, c.At
		}
	}
	if u.Gap == 0 && u.Bow < u.Rise/2 { // else it is held at both ends of its hump
		u.Gap, u.GapAt = off(out, got, on)
	}
	u.Rocks = len(touching) > 0 && u.Gap > 0 && thin(touching)
	out.Bent = got.Field
	l.under, l.uneven = out.about(out.Outline), &u
	return l
}
