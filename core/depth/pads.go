package depth

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Our own defaults.
const (
	Hang      = 15.0 // nothing hangs further than this from a pad, mm
	padInset  = 2.0  // pads stand back from the edge so that they hide, mm
	glueInset = 1.0  // glue is kept back from the edge, mm
	pocket    = 20.0 // how deep an open side stays free, mm
	clearOf   = 1.0  // pads keep so far from what slips in beside them, mm
	leastPad  = 2.0  // smaller than this no pad is cut, mm
	reach     = 14.0 // pads are proposed so near that nothing hangs further than this, mm: they go in by hand
	smallPart = 7.0  // one pad in the middle holds a part that goes on no further than this, mm
)

// apart is how far pads stand from each other at least, mm.
const apart = 0.5

// Room is where on the back of a part its pads may stand.
type Room struct {
	Avoid  []shape.Region // not here, in the part's own frame
	Opaque shape.Region   // for bonds that hide behind what is opaque: only here
}

// Propose lays pads of a bond on the back of a part: whole ones first, cut ones where no
// whole one goes in, back from the edge, clear of what is to be avoided, until nothing
// that is to be held is further than Hang from one. It gives none where none goes in, and
// none for what is cut to the part's own shape (see Held). g is the part in its own frame.
func Propose(g shape.Region, h build.Hold, room Room) []card.Pad {
	sizes := padSizes(h)
	if len(sizes) == 0 || g.Empty() {
		return nil
	}
	box := g.Bounds()
	rough := max(0.8, max(box.W(), box.H())/48)
	insets := []float64{padInset, padInset / 2} // half of it where a part is narrow
	if h.Bond.Inset > 0 {
		insets = []float64{h.Bond.Inset}
	}
	// Where none goes in it is looked at by what it is across: behind a long stem one would else be missed.
	fine := max(0.4, max(box.W(), box.H())/160, g.Area()/max(g.Length(), 1e-9)/3)
	for _, step := range []float64{rough, fine} {
		for _, inset := range insets {
			if pads := propose(g, h, room, sizes, inset, step); len(pads) > 0 || step == rough && rough <= fine && inset == insets[len(insets)-1] {
				return pads
			}
		}
	}
	return nil
}

func propose(g shape.Region, h build.Hold, room Room, sizes [][2]float64, inset, step float64) []card.Pad {
	p := proposal{g: g, box: g.Bounds(), inset: inset, zone: h.Bond.Zone, room: room}
	p.room.Avoid = append(slices.Clone(room.Avoid), open(h.Bond, p.box)...)
	p.field = shape.NewField(g, step)
	free := open(h.Bond, p.box)
	p.hold = slices.DeleteFunc(p.toHold(), func(q shape.Point) bool {
		return slices.ContainsFunc(free, func(g shape.Region) bool { return g.Contains(q) })
	})
	turn := axis(g)
	for n, s := range sizes {
		if n > 0 && p.far() <= reach {
			break
		}
		p.candidates(s, turn)
		if len(p.at) == 0 {
			continue
		}
		if len(p.pads) == 0 && p.one() {
			break
		}
		for len(p.pads) < card.MaxPads && (p.far() > reach || len(p.pads) < 2) && p.farthest() {
		}
	}
	return p.pads
}

// padSizes are the sizes a spacer is used in, the largest first: whole, then cut.
func padSizes(h build.Hold) (out [][2]float64) {
	add := func(w, d float64) {
		if min(w, d) >= leastPad && !slices.Contains(out, [2]float64{w, d}) {
			out = append(out, [2]float64{w, d})
		}
	}
	switch h.Kind {
	case "square", "mini":
		add(h.W, h.H)
		add(h.W, h.H/2)
		add(h.W/2, h.H/2)
		add(h.W, h.H/3)
		add(h.W/2, h.H/3)
		add(h.W/3, h.H/3)
		add(h.W, h.H/4)
		add(h.W/4, h.H/4)
		add(h.W, h.H/6)
		add(h.W/6, h.H/6)
	case "tape":
		for _, long := range []float64{40, 20, h.W} {
			add(long, h.W)
		}
		add(12, h.W/2)
		add(h.W/2, h.W/2)
		add(h.W/3, h.W/3)
		add(12, h.W/4) // slivers: tape is cut as narrow as it is wanted
		add(h.W/4, h.W/4)
		add(12, leastPad)
	}
	return out
}

// open is what the open sides of a bond keep free, in the part's own frame.
func open(b card.Bond, box shape.Box) (out []shape.Region) {
	deep := pocket
	if b.Pocket > 0 {
		deep = b.Pocket
	}
	for _, s := range b.Open {
		switch s {
		case card.LeftSide:
			out = append(out, shape.Rect(box.Min.X-1, box.Min.Y-1, deep+1, box.H()+2))
		case card.RightSide:
			out = append(out, shape.Rect(box.Max.X-deep, box.Min.Y-1, deep+1, box.H()+2))
		case card.TopSide:
			out = append(out, shape.Rect(box.Min.X-1, box.Min.Y-1, box.W()+2, deep+1))
		case card.BottomSide:
			out = append(out, shape.Rect(box.Min.X-1, box.Max.Y-deep, box.W()+2, deep+1))
		}
	}
	return out
}

// PadArea is the footprint of a pad in the frame of its part.
func PadArea(p card.Pad) shape.Region {
	return shape.Rect(p.X-p.W/2, p.Y-p.H/2, p.W, p.H).Turn(p.Turn, shape.Point{X: p.X, Y: p.Y})
}

// axis is the direction, in degrees from 0 to 180, in which a region is longest.
func axis(g shape.Region) float64 {
	c := g.Centroid()
	var xx, yy, xy float64
	for _, q := range shape.Along(g, 2) {
		d := q.Sub(c)
		xx, yy, xy = xx+d.X*d.X, yy+d.Y*d.Y, xy+d.X*d.Y
	}
	deg := math.Atan2(2*xy, xx-yy) / 2 * 180 / math.Pi
	return math.Mod(deg+180, 180)
}

// proposal lays pads on a part.
type proposal struct {
	g     shape.Region
	box   shape.Box
	inset float64
	zone  card.BondZone
	room  Room
	field *shape.Field
	hold  []shape.Point // what is to be held
	pads  []card.Pad
	at    []card.Pad // where one more could stand
}

// toHold spreads points over what is to be held: the whole part, or its zone.
func (p *proposal) toHold() []shape.Point {
	step := max(2, math.Sqrt(p.box.W()*p.box.H())/20)
	out := slices.DeleteFunc(shape.Along(p.g, max(2, p.g.Length()/250)), func(q shape.Point) bool { return !inZone(p.zone, q, p.box) })
	for y := p.box.Min.Y + step/2; y < p.box.Max.Y; y += step {
		for _, s := range p.g.Cross(y) {
			for x := s[0] + step/2; x < s[1]; x += step {
				if q := (shape.Point{X: x, Y: y}); inZone(p.zone, q, p.box) {
					out = append(out, q)
				}
			}
		}
	}
	return out
}

// inZone reports whether a point of a part of that box lies in a zone of its back.
func inZone(z card.BondZone, q shape.Point, box shape.Box) bool {
	u, v := (q.X-box.Min.X)/max(box.W(), 1e-9), (q.Y-box.Min.Y)/max(box.H(), 1e-9)
	switch z {
	case card.BondFoot:
		return v > 1-zoneShare
	case card.BondHead:
		return v < zoneShare
	case card.BondLeft:
		return u < zoneShare
	case card.BondRight:
		return u > 1-zoneShare
	case card.BondMiddle:
		return math.Abs(u-0.5) < zoneShare/2 && math.Abs(v-0.5) < zoneShare/2
	}
	return true
}

// zoneShare is how much of a part its foot, head or a side is; our own default.
const zoneShare = 0.4

// candidates finds where pads of a size can stand.
func (p *proposal) candidates(size [2]float64, turn float64) {
	p.at = p.at[:0]
	turns := []float64{0}
	if size[0] != size[1] {
		turns = append(turns, 90)
	}
	if a := math.Mod(turn, 90); a > 4 && a < 86 {
		turns = append(turns, turn)
	}
	step := max(1.2, max(p.box.W(), p.box.H())/40)
	rim := p.inset + max(size[0], size[1])
	// However slender it is, its middle is among them.
	n := func(long float64) float64 { return long / math.Ceil(max(long, 1e-9)/min(step, max(long/4, 0.6))) }
	for y := p.box.Min.Y + n(p.box.H()); y < p.box.Max.Y-1e-9; y += n(p.box.H()) {
		for x := p.box.Min.X + n(p.box.W()); x < p.box.Max.X-1e-9; x += n(p.box.W()) {
			q := shape.Point{X: x, Y: y}
			in := p.field.Inside(q)
			if in < p.inset+min(size[0], size[1])/2-0.5 || !inZone(p.zone, q, p.box) || p.zone == card.BondEdge && in > rim {
				continue
			}
			for _, t := range turns {
				if pad := (card.Pad{X: x, Y: y, W: size[0], H: size[1], Turn: t}); p.fits(pad) {
					p.at = append(p.at, pad)
				}
			}
		}
	}
}

// fits reports whether a pad may stand where it does.
func (p *proposal) fits(pad card.Pad) bool {
	area := PadArea(pad)
	for _, q := range shape.Along(area, 1.5) {
		if p.field.Inside(q) < p.inset-0.05 {
			return false
		}
	}
	box := area.Bounds()
	for _, a := range p.room.Avoid {
		if b := a.Bounds(); (shape.Box{Min: b.Min.Sub(shape.Point{X: clearOf, Y: clearOf}), Max: b.Max.Add(shape.Point{X: clearOf, Y: clearOf})}).Meets(box) {
			if a.Nearer(area, clearOf) || a.Overlaps(area) {
				return false
			}
		}
	}
	if p.zone == card.BondOpaque && !p.room.Opaque.Covers(area) {
		return false
	}
	return true
}

// from is how far a point lies from a pad, mm; 0 on it.
func from(pad card.Pad, q shape.Point) float64 {
	d := q.Sub(shape.Point{X: pad.X, Y: pad.Y})
	s, c := 0.0, 1.0
	if pad.Turn != 0 {
		s, c = math.Sincos(-pad.Turn * math.Pi / 180)
	}
	x, y := max(0, math.Abs(c*d.X-s*d.Y)-pad.W/2), max(0, math.Abs(s*d.X+c*d.Y)-pad.H/2)
	return math.Sqrt(x*x + y*y)
}

// clear reports whether a pad stands clear of those that stand already, corners and all.
func (p *proposal) clear(a card.Pad) bool {
	for _, b := range p.pads {
		if padGap(a, b) < apart {
			return false
		}
	}
	return true
}

// padGap is how far two pads are apart at least, mm; 0 where they overlap.
func padGap(a, b card.Pad) float64 {
	if d := math.Hypot(a.X-b.X, a.Y-b.Y) - math.Hypot(a.W, a.H)/2 - math.Hypot(b.W, b.H)/2; d > apart {
		return d // at least
	}
	gap := math.Inf(1)
	for _, q := range padCorners(a) {
		gap = min(gap, from(b, q))
	}
	for _, q := range padCorners(b) {
		gap = min(gap, from(a, q))
	}
	if gap > 0 && PadArea(a).Overlaps(PadArea(b)) {
		return 0 // crosswise, with no corner of one in the other
	}
	return gap
}

func padCorners(p card.Pad) (out [4]shape.Point) {
	s, c := math.Sincos(p.Turn * math.Pi / 180)
	for i, q := range [4][2]float64{{-1, -1}, {1, -1}, {1, 1}, {-1, 1}} {
		x, y := q[0]*p.W/2, q[1]*p.H/2
		out[i] = shape.Point{X: p.X + c*x - s*y, Y: p.Y + s*x + c*y}
	}
	return out
}

// far is how far the furthest point to be held lies from a pad, mm.
func (p *proposal) far() float64 {
	far := 0.0
	for _, q := range p.hold {
		far = max(far, nearestPad(p.pads, q))
	}
	return far
}

func nearestPad(pads []card.Pad, q shape.Point) float64 {
	near := math.Inf(1)
	for _, pad := range pads {
		near = min(near, from(pad, q))
	}
	return near
}

// one puts a single pad in the middle where that holds the whole part.
func (p *proposal) one() bool {
	c := p.g.Centroid()
	best := slices.MinFunc(p.at, func(a, b card.Pad) int {
		return cmp.Compare(math.Hypot(a.X-c.X, a.Y-c.Y), math.Hypot(b.X-c.X, b.Y-c.Y))
	})
	if math.Hypot(best.X-c.X, best.Y-c.Y) > best.W/2 {
		return false
	}
	for _, q := range p.hold {
		if from(best, q) > smallPart {
			return false
		}
	}
	p.pads = append(p.pads, best)
	return true
}

// farthest puts one more pad: the first as far out as one goes, each further one where it
// is furthest from those that stand. It does nothing where no room is left.
func (p *proposal) farthest() bool {
	c := p.g.Centroid()
	var bare []shape.Point // what no pad holds yet
	for _, q := range p.hold {
		if len(p.pads) > 1 && nearestPad(p.pads, q) > reach {
			bare = append(bare, q)
		}
	}
	// The furthest first: the first of them that holds anything new is the one.
	type place struct {
		at int
		d  float64
	}
	var far []place
	for i, a := range p.at {
		at := shape.Point{X: a.X, Y: a.Y}
		var d float64
		if len(p.pads) > 0 {
			d = nearestPad(p.pads, at) - max(a.W, a.H)/2
		} else {
			d = at.Distance(c)
		}
		if d > apart {
			far = append(far, place{i, d})
		}
	}
	further := func(a, b place) int { return cmp.Or(cmp.Compare(b.d, a.d), cmp.Compare(a.at, b.at)) }
	holds := func(x place) bool {
		return (len(p.pads) < 2 || slices.ContainsFunc(bare, func(q shape.Point) bool { return from(p.at[x.at], q) <= reach })) && p.clear(p.at[x.at])
	}
	if len(far) == 0 {
		return false
	}
	// Mostly the furthest does, and the rest need not be sorted.
	best := slices.MinFunc(far, further)
	if !holds(best) {
		slices.SortFunc(far, further)
		n := slices.IndexFunc(far, holds)
		if n < 0 {
			return false
		}
		best = far[n]
	}
	p.pads = append(p.pads, p.at[best.at])
	return true
}
