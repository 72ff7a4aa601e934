package depth

import (
	"math"

	"ochrestone/core/bend"
	"ochrestone/core/build"
	"ochrestone/core/kit"
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
// bent where they end, and held where its glue took; on are the bearings that how it lies goes by.
func (s *stand) bent(out Stood, i int, below []int, glue []Support, ground func(shape.Point) float64) (got bend.Lying, on []bend.Bearing) {
	cell := bend.Size(out.Outline)
	areas := make([]*shape.Bands, len(glue))
	for n, g := range glue {
		areas[n] = shape.Banded(g.Area)
	}
	add := func(q shape.Point, z, area float64) {
		b := bend.Bearing{At: q, Z: z + out.Lift, Area: area}
		for n, a := range areas {
			if a.Contains(q) {
				b.Holds = max(b.Holds, bears(out.Holds[glue[n].Hold]))
			}
		}
		on = append(on, b)
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
	return bend.Press(bend.Leaf{Outline: out.Outline, Stiff: bend.Stiff(out.Thick), Weight: grams}, on, bend.Hand), on
}

// bears is how hard a hold by glue may be pulled at, N/mm²; of glue that is not in the stores as wet
// glue may.
func bears(h build.Hold) float64 {
	if h.Glue != nil {
		return h.Glue.Bears()
	}
	return kit.Adhesive{}.Bears()
}

// offShare is how much of a part's glue may take nowhere before half of the part is said to be in the
// air, our own default.
const offShare = 0.4

// off is how far a glued leaf is above what is beneath it where its glue did not take, at its widest,
// mm, and where; 0 where most of it took.
func off(got bend.Lying, on []bend.Bearing) (gap float64, at shape.Point) {
	glue, loose := 0.0, 0.0 // mm²
	for n, b := range on {
		if b.Holds > 0 {
			glue += b.Area
		}
		if !got.Off[n] {
			continue
		}
		loose += b.Area
		if g := got.At(b.At) - b.Z; g > gap {
			gap, at = g, b.At
		}
	}
	if loose < offShare*glue {
		return 0, shape.Point{}
	}
	return gap, at
}

// held is where the glue of a leaf holds it.
func held(got bend.Lying, on []bend.Bearing) (at []shape.Point) {
	for n, c := range on {
		if got.Stuck[n] {
			at = append(at, c.At)
		}
	}
	return at
}

// onward is how much air, mm, is beneath the end of a leaf that goes on furthest from where it is held,
// and where that is; 0 where none goes on further than Hang.
func onward(got bend.Lying, on []bend.Bearing, held []shape.Point) (air float64, at shape.Point) {
	near, far := within(held), Hang
	for _, c := range on {
		// Only one that is farther than the farthest so far is looked at closely.
		if len(held) == 0 || near(c.At, math.Nextafter(far, math.Inf(1))) {
			continue
		}
		d := math.Inf(1)
		for _, q := range held {
			d = min(d, q.Distance(c.At))
		}
		if d > far {
			far, air, at = d, got.At(c.At)-c.Z, c.At
		}
	}
	return air, at
}

// lain says how a bent leaf lies.
func lain(out Stood, got bend.Lying, on []bend.Bearing) (l lying) {
	u := Uneven{Over: -1}
	hi, lo := math.Inf(-1), math.Inf(1)
	for _, c := range on {
		z := got.At(c.At)
		if z > hi {
			hi, u.High = z, c.At
		}
		if z < lo {
			lo, u.Low = z, c.At
		}
	}
	// Between what bears it a leaf may stand higher than over any of it.
	own := shape.Banded(out.Outline)
	for k, z := range got.Field.Z {
		if z > hi {
			if q := got.Field.Node(k); own.Contains(q) {
				hi, u.High = z, q
			}
		}
	}
	if u.Rise = max(0, hi-lo); u.Rise <= touches {
		l.under = Level(hi)
		if u.Gap, u.GapAt = off(got, on); u.Gap == 0 && !inOneZone(out.Holds) {
			u.Gap, u.GapAt = onward(got, on, held(got, on))
		}
		if u.Rise = 0; u.Gap > 0 {
			l.uneven = &u
		}
		return l
	}
	// Highest in its middle it bows: what falls away on the far side is no lean.
	away := u.Low.Sub(u.High)
	for _, c := range on {
		if d := c.At.Sub(u.High); d.X*away.X+d.Y*away.Y < 0 {
			u.Bow = max(u.Bow, hi-got.At(c.At))
		}
	}
	u.Lean = u.Rise - u.Bow
	stuck := held(got, on)
	var touching []Bearing
	for _, c := range on {
		if got.At(c.At)-c.Z < touches {
			touching = append(touching, Bearing{c.At, c.Z})
		}
	}
	// Next to a step glue bears nothing, and need not: what counts is how far an end goes on from
	// where it holds.
	u.Gap, u.GapAt = onward(got, on, stuck)
	if u.Gap == 0 && u.Bow < u.Rise/2 { // else it is held at both ends of its hump
		u.Gap, u.GapAt = off(got, on)
	}
	u.Rocks = len(touching) > 0 && u.Gap > 0 && thin(touching)
	l.bent, out.Bent = got.Field, got.Field
	l.under, l.uneven = out.about(out.Outline), &u
	return l
}
