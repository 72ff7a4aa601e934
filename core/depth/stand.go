package depth

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/shape"
)

// Our own defaults of what counts.
const (
	evenBy   = 0.6  // glued card goes over steps of so much without a trace, mm
	foamGive = 0.3  // foam gives so much where it is pressed, mm
	touches  = 0.05 // what is nearer than this touches, mm
)

// Again stands one piece up as it would be with other bonds, the rest as it stands.
func (m *Memory) Again(b *build.Build, stood []Stood, i int, holds []build.Hold) Stood {
	s := m.stand(b)
	copy(s.out, stood)
	for i := range s.out {
		s.tops[i] = s.out[i].Highest()
	}
	s.pieces = slices.Clone(s.pieces)
	s.pieces[i].Holds = holds
	s.pieces[i].Lift, s.pieces[i].Foam = build.LiftOf(holds)
	return s.piece(stood[i].Turn, i)
}

// Stand stands everything on the front up, on the base: every piece rests on its pads, its
// glue and whatever else is higher beneath it (Rest). Where what is beneath is of one
// height, or of steps that glue and card follow without a trace, it lies level on the
// highest. What comes back goes by the pieces.
func (m *Memory) Stand(b *build.Build) []Stood {
	s := m.stand(b)
	for turn, i := range s.up {
		s.out[i] = s.piece(turn, i)
		s.tops[i] = s.out[i].Highest()
	}
	return s.out
}

func (m *Memory) stand(b *build.Build) *stand {
	n := len(b.Pieces)
	s := &stand{Memory: m, pieces: b.Pieces, up: b.Upward(), out: make([]Stood, n), tops: make([]float64, n), boxes: make([]shape.Box, n), floor: b.Thick, leaf: map[build.ID]int{}, under: b.Beneath(), marks: make([]mark, n)}
	for i, p := range s.pieces {
		s.boxes[i], s.leaf[p.ID] = p.Outline.Bounds(), i
	}
	return s
}

// stand is the pieces as far as they stand.
type stand struct {
	*Memory
	pieces []build.Piece
	up     []int
	out    []Stood
	tops   []float64 // by piece: the highest that any of it is, mm
	boxes  []shape.Box
	floor  float64
	leaf   map[build.ID]int     // pieces by id
	under  map[int][]int        // by piece: what is tucked beneath it
	marks  []mark               // of outlines, made when they are asked for
	bands  map[int]*shape.Bands // of outlines of what is stood up, made when they are asked for
}

// within is the outline of a piece that stands, ready to be asked often.
func (s *stand) within(j int) *shape.Bands {
	b, ok := s.bands[j]
	if !ok {
		b = shape.Banded(s.out[j].Outline)
		if s.bands == nil {
			s.bands = map[int]*shape.Bands{}
		}
		s.bands[j] = b
	}
	return b
}

// piece stands one piece up.
func (s *stand) piece(turn, i int) Stood {
	p := &s.pieces[i]
	out := Stood{Piece: *p, Turn: turn}
	raised := slices.ContainsFunc(p.Holds, func(h build.Hold) bool { return h.Raised })
	if !raised && !p.Print() && p.On.Element == p.ID.Element {
		if k, ok := s.rides(turn, i); ok {
			return riding(out, s.out[k])
		}
	}
	highest, over := s.floor, -1
	var looked []shape.Point
	for k := turn - 1; k >= 0; k-- {
		j := s.up[k]
		if z := s.tops[j]; z > highest && s.boxes[j].Meets(s.boxes[i]) && s.out[j].Outline.Overlaps(p.Outline) {
			if !s.out[j].Bent.Flat() {
				if looked == nil {
					looked = scattered(p.Outline, spread)
				}
				if z = s.highestIn(j, looked); z <= highest {
					continue
				}
			}
			highest, over = z, j
		}
	}
	on := s.floor
	if j, ok := s.leaf[p.On]; ok {
		on = s.out[j].Z1
		if j == over && s.out[j].Uneven == nil {
			on = highest
		}
	}
	if j, ok := s.leaf[p.On]; ok && p.Print() && s.out[j].Uneven != nil {
		// Ink leans as its leaf does.
		out.Under, out.Uneven, out.Bent = s.out[j].Under, s.out[j].Uneven, s.out[j].Bent.Up(s.out[j].Thick)
		out.Under.Z += s.out[j].Thick
		out.Z0 = out.Below(p.Outline.Centroid())
		out.Z1 = out.Z0
		return out
	}
	step := evenBy
	switch {
	case raised:
		step = foamGive
	case p.On.Element != p.ID.Element && (over < 0 || s.out[over].Uneven != nil || !s.out[over].Outline.Covers(p.Outline)):
		step = touches
	}
	if p.Print() || p.Outline.Empty() || len(p.Holds) == 0 || highest-on <= step && len(p.Holds) < 2 && (raised || !s.standsOut(i)) {
		return s.flat(out, i, highest+p.Lift, raised)
	}
	return s.uneven(out, i, turn, over)
}

// standsOut reports whether a part goes on further than Hang past the leaf that carries it, where that
// stands high enough for air beneath it to be seen.
func (s *stand) standsOut(i int) bool {
	j, ok := s.leaf[s.pieces[i].On]
	if !ok || s.out[j].Z1-s.floor <= apartBy || s.out[j].Uneven != nil {
		return false
	}
	on, its := s.out[j].Outline, s.boxes[j]
	return slices.ContainsFunc(shape.Along(s.pieces[i].Outline, spread), func(q shape.Point) bool {
		far := max(its.Min.X-q.X, q.X-its.Max.X, its.Min.Y-q.Y, q.Y-its.Max.Y)
		return far > Hang || !on.Contains(q) && on.EdgeDistance(q) > Hang
	})
}

// highestIn is how high a bent leaf is at the highest of some points that lie over it, mm.
func (s *stand) highestIn(j int, points []shape.Point) float64 {
	z := math.Inf(-1)
	for _, q := range points {
		if in(s.boxes[j], q) && s.within(j).Contains(q) {
			z = max(z, s.out[j].Over(q))
		}
	}
	if math.IsInf(z, -1) {
		return s.tops[j] // what lies over it is finer than it is looked at
	}
	return z
}

// rides finds the highest layer of its own thing beneath a piece, where that does not lie level and
// nothing of another thing stands up between.
func (s *stand) rides(turn, i int) (int, bool) {
	best := -1
	var others []int
	for k := turn - 1; k >= 0; k-- {
		j := s.up[k]
		if s.pieces[j].Print() || !s.boxes[j].Meets(s.boxes[i]) || !s.out[j].Outline.Overlaps(s.pieces[i].Outline) {
			continue
		}
		if s.pieces[j].ID.Element != s.pieces[i].ID.Element {
			others = append(others, k)
		} else if best < 0 || s.out[j].Z1 > s.out[best].Z1 {
			best = j
		}
	}
	if best < 0 || s.out[best].Uneven == nil {
		return -1, false
	}
	return best, !slices.ContainsFunc(others, func(k int) bool { return k > s.out[best].Turn })
}

// riding lays a layer as what it is glued to in its own image lies: what is wrong there is told there.
func riding(out, on Stood) Stood {
	up := on.Thick + out.Lift
	out.Bent, out.Under = on.Bent.Up(up), on.Under
	out.Under.Z += up
	out.Uneven = &Uneven{Rise: on.Uneven.Rise, High: on.Uneven.High, Low: on.Uneven.Low, Over: -1}
	out.Z0 = out.Below(out.Outline.Centroid())
	out.Z1 = out.Z0 + out.Thick
	return out
}

// HeldBy lists what holds a piece as it stands: its pads, or its glue.
func (m *Memory) HeldBy(b *build.Build, stood []Stood, i int) []Support {
	if s := stood[i]; len(s.Supports) > 0 || len(s.Holds) == 0 {
		return s.Supports
	}
	return m.Supports(stood[i].Piece, nil, m.stand(b).opaque(i))
}

// Seen is how much, mm², of what one of its bonds puts behind a see-through piece lies
// behind nothing opaque, and where; 0 for pieces that hide what is behind them.
func (m *Memory) Seen(b *build.Build, stood []Stood, i, hold int) (area float64, at shape.Point) {
	if !stood[i].Clear {
		return 0, at
	}
	opaque := m.stand(b).opaque(i)
	most := 0.0
	for _, s := range m.HeldBy(b, stood, i) {
		if s.Hold != hold {
			continue
		}
		rest, err := s.Area.Minus(opaque)
		if err != nil {
			continue
		}
		a := rest.Area()
		if area += a; a > most {
			most, at = a, rest.Bounds().Centre()
		}
	}
	return area, at
}

// flat lays a piece level.
func (s *stand) flat(out Stood, i int, z float64, raised bool) Stood {
	out.Z0, out.Z1, out.Under = z, z+out.Thick, Level(z)
	if raised {
		out.Supports = s.Supports(out.Piece, s.avoid(i, nil), s.opaque(i))
		out.Off, out.OffAt = hangs(out.Outline, out.Holds, out.Supports, nil)
	}
	return out
}

// avoid is what the pads of a piece keep clear of: what is tucked beneath it, and more.
func (s *stand) avoid(i int, more []int) (out []shape.Region) {
	for _, j := range slices.Concat(s.under[i], more) {
		out = append(out, s.pieces[j].Outline)
	}
	return out
}

// opaque is what hides a bond of a leaf that is seen through: what lies on it and is not
// see-through itself.
func (s *stand) opaque(i int) shape.Region {
	if !s.pieces[i].Clear {
		return s.pieces[i].Outline
	}
	var over []shape.Region
	later := slices.Index(s.up, i)
	for _, j := range s.up[later+1:] {
		if p := s.pieces[j]; !p.Clear && s.boxes[j].Meets(s.boxes[i]) {
			over = append(over, p.Outline)
		}
	}
	out, err := shape.UnionAll(over...)
	if err != nil {
		return shape.Region{}
	}
	return out
}

// outline is the mark of a piece's outline.
func (s *stand) outline(i int) mark {
	if s.marks[i] == (mark{}) {
		m := newMark()
		m.region(s.pieces[i].Outline)
		s.marks[i] = m
	}
	return s.marks[i]
}

// uneven lays a piece on things of several heights.
func (s *stand) uneven(out Stood, i, turn, over int) Stood {
	var below []int
	for k := turn - 1; k >= 0; k-- {
		if j := s.up[k]; !s.pieces[j].Print() && s.boxes[j].Meets(s.boxes[i]) && s.out[j].Outline.Overlaps(out.Outline) {
			below = append(below, j)
		}
	}
	slices.SortStableFunc(below, func(a, b int) int { return cmp.Compare(s.tops[b], s.tops[a]) })
	carrier, onLeaf := s.leaf[out.On]
	opaque := s.opaque(i)

	key := newMark()
	key.mark(s.outline(i))
	key.number(out.Thick, s.floor)
	can := key.holds(out.Holds)
	for _, j := range below {
		key.mark(s.outline(j))
		u := s.out[j].Under
		key.number(u.Z, u.SX, u.SY, u.At.X, u.At.Y, s.out[j].Thick)
		b := s.out[j].Bent
		key.number(b.From.X, b.From.Y, b.Cell)
		key.number(b.Z...)
		key.bits(uint64(j) + 1) // which of them stands highest is told by its place
		if onLeaf && j == carrier {
			key.bits(7)
		}
	}
	for _, j := range s.under[i] {
		key.mark(s.outline(j))
	}
	if out.Clear {
		key.region(opaque)
	}
	work := func() (lying, error) { return s.lie(out, i, carrier, onLeaf, over, below, opaque), nil }
	var l lying
	if can {
		l, _ = s.lies.Get(key, work) // it has no error
	} else {
		l, _ = work()
	}
	out.Under, out.Bent, out.Supports, out.Uneven, out.Off, out.OffAt = l.under, l.bent, l.supports, l.uneven, l.off, l.offAt
	out.Z0 = out.Below(out.Outline.Centroid())
	out.Z1 = out.Z0 + out.Thick
	return out
}

// lie works out how a piece comes to lie on what is below it, the highest first.
func (s *stand) lie(out Stood, i, carrier int, onLeaf bool, over int, below []int, opaque shape.Region) (l lying) {
	ground := func(q shape.Point) float64 {
		z := s.floor
		for _, j := range below {
			if s.tops[j] <= z {
				break
			}
			if in(s.boxes[j], q) && s.within(j).Contains(q) {
				z = max(z, s.out[j].Over(q))
			}
		}
		return z
	}
	raised := slices.ContainsFunc(out.Holds, func(h build.Hold) bool { return h.Raised })
	var up []int
	if onLeaf && raised {
		up = s.stoodClear(out, carrier, below)
	}
	l.supports = s.Supports(out.Piece, s.avoid(i, up), opaque)
	if len(up) > 0 && !slices.ContainsFunc(l.supports, func(p Support) bool { return p.Raised }) {
		l.supports = s.Supports(out.Piece, s.avoid(i, nil), opaque) // there is no room beside it
	}
	whole := onLeaf && s.out[carrier].Outline.Covers(out.Outline)
	if onLeaf && !whole && !raised {
		l.supports = s.touching(l.supports, carrier, below)
	}
	if !raised {
		got, on := s.bent(out, i, below, l.supports, ground)
		glue := l.supports
		l = lain(out, got, on)
		if l.supports = glue; l.uneven != nil {
			l.uneven.Over = over
		}
		return l
	}
	// What stands on pads is set down and not pressed: its card stays straight.
	// What is beneath may be finer than it is looked at: its edges count wherever they are.
	var edges []shape.Point
	own := shape.Banded(out.Outline)
	for _, j := range below {
		if s.tops[j] <= s.floor || j == carrier && whole {
			continue
		}
		for _, q := range shape.Along(s.out[j].Outline, 2*spread) {
			if in(s.boxes[i], q) && own.Contains(q) {
				edges = append(edges, q)
			}
		}
	}
	on := bearings(out.Outline, l.supports, edges, ground)
	all := on.all()
	if z, ok := on.onPads(l.supports); ok {
		l.under = Level(z)
	} else {
		l.under = drooped(Rest(out.Outline.Centroid(), all), out.Outline, all)
	}
	out.Under, out.Supports = l.under, l.supports
	u := on.judge(out)
	u.Lean = u.Rise
	if onLeaf && out.On.Element == out.ID.Element {
		own, its := out.Under, s.out[carrier].about(out.Outline)
		own.SX, own.SY = own.SX-its.SX, own.SY-its.SY
		lean, _, _ := own.Rise(out.Outline)
		u.Lean = min(u.Lean, lean)
	}
	if u.Over = over; u.Rise > touches || u.Gap > 0 || u.Bump > 0 || u.Bow > 0 {
		l.uneven = &u
	}
	var bears []Support
	for n, p := range l.supports {
		if !on.idle[n] {
			bears = append(bears, p)
		}
	}
	var borne []shape.Point // it lies on what stands up beneath it, too
	for _, c := range on.bare {
		if l.under.Over(c.At)-c.Z <= foamGive {
			borne = append(borne, c.At)
		}
	}
	l.off, l.offAt = hangs(out.Outline, out.Holds, bears, borne)
	return l
}

// touching is glue as far as it meets something: what carries the part, or what else stands about as
// high. Over air there is none.
func (s *stand) touching(glue []Support, carrier int, below []int) (out []Support) {
	gs := []shape.Region{s.out[carrier].Outline}
	for _, k := range below {
		if k != carrier && s.tops[k] > s.out[carrier].Z1-foamGive {
			gs = append(gs, s.out[k].Outline)
		}
	}
	meets, err := shape.UnionAll(gs...)
	if err != nil {
		return glue
	}
	for _, g := range glue {
		if in, err := g.Area.Intersect(meets); err == nil && !in.Empty() {
			g.Area = in
			out = append(out, g)
		}
	}
	if len(out) == 0 {
		return glue
	}
	return out
}

// Shares of a part beneath which what lies there is stood clear of; our own defaults.
const (
	lowShare  = 0.5  // of what its pads are higher than, or far lower
	tallShare = 0.15 // of all that is about as high as they are, together
	towers    = 2.0  // times as high as its pads
)

// stoodClear lists what the pads of a part keep clear of: they stand on what carries it, not on
// what sticks up out of that. What lies beneath most of the part is stood on, and so is what sticks
// up as far as the pads are high beneath much of it, for it cannot be stood over.
func (s *stand) stoodClear(out Stood, carrier int, below []int) (up []int) {
	high := 0.0
	for _, h := range out.Holds {
		if h.Raised {
			high = max(high, h.Height)
		}
	}
	share := func(gs ...shape.Region) float64 {
		all, err := shape.UnionAll(gs...)
		if err != nil {
			return 1
		}
		both, err := all.Intersect(out.Outline)
		if err != nil {
			return 1
		}
		return both.Area() / max(out.Outline.Area(), 1e-9)
	}
	// atMost is no less than the share of a piece, and found without cutting outlines.
	box := out.Outline.Bounds()
	atMost := func(k int) float64 {
		b := s.boxes[k]
		w := min(b.Max.X, box.Max.X) - max(b.Min.X, box.Min.X)
		h := min(b.Max.Y, box.Max.Y) - max(b.Min.Y, box.Min.Y)
		return min(max(0, w)*max(0, h), s.out[k].Outline.Area()) / max(out.Outline.Area(), 1e-9)
	}
	var tall []int
	var talls []shape.Region
	tallMost := 0.0
	for _, k := range below {
		rises := s.tops[k] - s.out[carrier].Z1
		switch {
		case k == carrier || rises <= foamGive:
		case rises >= high && rises < towers*high:
			tall, talls, tallMost = append(tall, k), append(talls, s.out[k].Outline), tallMost+atMost(k)
		case atMost(k) < lowShare || share(s.out[k].Outline) < lowShare:
			up = append(up, k)
		}
	}
	if len(tall) > 0 && (tallMost < tallShare || share(talls...) < tallShare) {
		up = append(up, tall...)
	}
	return up
}

func in(b shape.Box, q shape.Point) bool {
	return q.X >= b.Min.X && q.X <= b.Max.X && q.Y >= b.Min.Y && q.Y <= b.Max.Y
}
