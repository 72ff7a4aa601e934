package finished

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/assemble"
	"ochrestone/core/colour"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/core/together"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
)

// scene is a picture with one way its largest piece may lie, and what follows from that.
// Its frame is that of the piece that stands out, as it lies.
type scene struct {
	pieces []shape.Region
	middle []shape.Point
	lie    lie
	base   int
	flat   *Flat
	edges  *edges
	corner shape.Point
	round  float64 // mm kept round what stands out
	cells  cells

	order  []int // pieces, lowest first
	places [][]place
	covers [][][]int32 // cells each place covers
	at     []int       // place chosen for each piece; -1 for none
	plain  float64     // energy with nothing but the piece that stands out
	worth  float64     // how well all of it is explained
	seen   []Seen
}

// cells are the picture by squares of half a millimetre.
type cells struct {
	w, h int
	lab  [][3]float32
}

// How all is judged together; our own defaults.
const (
	cell      = 0.5   // mm
	roundIt   = 8.0   // mm kept round what stands out at least
	oddMost   = 400.0 // square of the difference in colour past which a cell is merely odd
	edgeCount = 0.6   // what it counts that all edges are followed, against all cells explained
	sweeps    = 4
	leastView = 0.15 // of a piece's edge that must be in view to be found by it
)

func newScene(p *picture.Picture, pieces []shape.Region, l lie) *scene {
	s := &scene{pieces: pieces, lie: l}
	for i, g := range pieces {
		s.middle = append(s.middle, g.Filled().Centroid())
		if g.Filled().Area() > pieces[s.base].Filled().Area() {
			s.base = i
		}
	}
	box := pieces[l.piece].Bounds()
	s.round = roundIt
	if l.piece != s.base {
		// However the largest is turned, and wherever on it this lies.
		b := pieces[s.base].Bounds()
		s.round = math.Max(roundIt, math.Hypot(b.W(), b.H())-math.Min(box.W(), box.H())+2)
	}
	box.Min, box.Max = box.Min.Sub(shape.Point{X: s.round, Y: s.round}), box.Max.Add(shape.Point{X: s.round, Y: s.round})
	s.corner = box.Min
	for _, reach := range [2]float64{1.6, 0.8} {
		s.flat = flatten(p, s.lie.to, box)
		s.edges = newEdges(s.flat, box.Min)
		s.refine(reach)
	}
	s.flat = flatten(p, s.lie.to, box)
	s.edges = newEdges(s.flat, box.Min)
	s.cells = cells{w: int(box.W() / cell), h: int(box.H() / cell)}
	s.cells.lab = make([][3]float32, s.cells.w*s.cells.h)
	for y := range s.cells.h {
		for x := range s.cells.w {
			// The middle of the cell, which edges of its neighbours blur least.
			i, j := int((float64(x)+0.5)*cell/Step+0.5), int((float64(y)+0.5)*cell/Step+0.5)
			k := min(s.flat.H-1, j)*s.flat.W + min(s.flat.W-1, i)
			s.cells.lab[y*s.cells.w+x] = [3]float32{s.flat.lab[0][k], s.flat.lab[1][k], s.flat.lab[2][k]}
		}
	}
	return s
}

// refine draws what stands out to the edges of the picture within reach, mm: those are
// sharper than where it stands out from its ground.
func (s *scene) refine(reach float64) {
	pts := spots(s.pieces[s.lie.piece].Filled(), outlineN)
	var from, to []shape.Point
	for _, p := range pts {
		if t, ok := s.edges.crest(p.at, p.out, reach); ok {
			from, to = append(from, p.at), append(to, p.at.Add(p.out.Scale(t)))
		}
	}
	if len(from) < len(pts)/2 {
		return
	}
	by, err := mat.Fit(from, to)
	// Once more without what strays from what the rest say.
	for n := 0; n < 2 && err == nil; n++ {
		var f, g []shape.Point
		for i := range from {
			if by.At(from[i]).Distance(to[i]) < reach/3 {
				f, g = append(f, from[i]), append(g, to[i])
			}
		}
		if len(f) < len(pts)/3 {
			return
		}
		by, err = mat.Fit(f, g)
	}
	if err != nil {
		return
	}
	s.lie.to = after(s.lie.to, by)
	c := s.middle[s.lie.piece]
	at := s.lie.to.At(c)
	s.lie.scale = (at.Distance(s.lie.to.At(c.Add(shape.Point{X: 1}))) + at.Distance(s.lie.to.At(c.Add(shape.Point{Y: 1})))) / 2
}

// after is the map that does h after g.
func after(h, g mat.Homography) (out mat.Homography) {
	at := func(m mat.Homography, i int) float64 {
		if i == 8 {
			return 1
		}
		return m[i]
	}
	var v [9]float64
	for i := range 3 {
		for j := range 3 {
			for k := range 3 {
				v[3*i+j] += at(h, 3*i+k) * at(g, 3*k+j)
			}
		}
	}
	for i := range out {
		out[i] = v[i] / v[8]
	}
	return out
}

// read seeks every piece and judges all together.
func (s *scene) read(ctx context.Context, tell func(float64)) error {
	n := len(s.pieces)
	s.order = make([]int, n)
	for i := range s.order {
		s.order[i] = i
	}
	size := func(i int) float64 { return s.pieces[i].Filled().Area() }
	slices.SortStableFunc(s.order, func(i, j int) int { return cmp.Compare(size(j), size(i)) })
	s.places, s.covers, s.at = make([][]place, n), make([][][]int32, n), make([]int, n)
	within := shape.NewField(s.pieces[s.lie.piece].Filled(), 0.4)
	box := s.pieces[s.lie.piece].Bounds()
	if s.lie.piece != s.base {
		// The one that stands out is not the largest: that lies round it.
		by := shape.Point{X: s.round - 1, Y: s.round - 1}
		box.Min, box.Max = box.Min.Sub(by), box.Max.Add(by)
		within = shape.NewField(shape.Rect(box.Min.X, box.Min.Y, box.W(), box.H()), 0.8)
	}
	for k := 0; k < n; k += 2 {
		if err := ctx.Err(); err != nil {
			return fmt.Errorf("read the picture of the finished image: %w", err)
		}
		tell(0.9 * float64(k) / float64(n))
		together.By(min(2, n-k), func(j int) {
			i := s.order[k+j]
			if i == s.lie.piece {
				s.places[i] = []place{{register.Motion{Move: s.middle[i]}, 1}}
			} else {
				s.places[i] = seek(s.edges, s.pieces[i], within, box)
			}
		})
	}
	s.lend()
	for i := range s.at {
		s.at[i] = -1
	}
	s.at[s.lie.piece] = 0
	s.plain = s.energy(s.labels())
	s.sweep()
	s.inOrder()
	s.look()
	s.sweep()
	s.say()
	tell(1)
	return ctx.Err()
}

// lend has pieces of about one size try each other's best places: which of two lies in
// which is told only where both are tried in both.
func (s *scene) lend() {
	size := func(i int) float64 { return s.pieces[i].Filled().Area() }
	own := make([][]place, len(s.places))
	for i := range s.places {
		own[i] = s.places[i][:min(len(s.places[i]), lent)]
	}
	together.By(len(s.pieces), func(i int) {
		if i == s.lie.piece {
			return
		}
		var more []place
		for j := range s.pieces {
			if j == i || size(j) > 1.35*size(i) || size(i) > 1.35*size(j) {
				continue
			}
			for _, p := range own[j] {
				more = append(more, s.edges.about(s.pieces[i], p.motion.Move)...)
			}
		}
		for _, p := range more {
			if !slices.ContainsFunc(s.places[i], func(q place) bool { return samePlace(s.pieces[i], p, q) }) {
				s.places[i] = append(s.places[i], p)
			}
		}
	})
	for i := range s.pieces {
		s.cover(i)
	}
}

// lent is how many of its best places a piece lends others.
const lent = 4

// cover lists the cells that each place of a piece covers.
func (s *scene) cover(i int) {
	s.covers[i] = make([][]int32, len(s.places[i]))
	for k, p := range s.places[i] {
		g := p.motion.After(register.Motion{Move: s.middle[i].Scale(-1)}).Of(s.pieces[i])
		b := g.Bounds()
		for y := max(0, int((b.Min.Y-s.corner.Y)/cell)); y < min(s.cells.h, int((b.Max.Y-s.corner.Y)/cell)+1); y++ {
			for _, span := range g.Cross(s.corner.Y + (float64(y)+0.5)*cell) {
				for x := max(0, int(math.Ceil((span[0]-s.corner.X)/cell-0.5))); x < s.cells.w && s.corner.X+(float64(x)+0.5)*cell <= span[1]; x++ {
					s.covers[i][k] = append(s.covers[i][k], int32(y*s.cells.w+x))
				}
			}
		}
	}
}

// labels says which piece is in view in each cell; 0 for the ground, else one more.
func (s *scene) labels() []uint8 {
	out := make([]uint8, len(s.cells.lab))
	for _, i := range s.order {
		if s.at[i] >= 0 {
			for _, c := range s.covers[i][s.at[i]] {
				out[c] = uint8(i + 1)
			}
		}
	}
	return out
}

// energy is how unevenly coloured what is in view of the pieces is: the squares of what
// cells differ from the mean of their piece, those merely odd counted no more than so far.
func (s *scene) energy(labels []uint8) (sum float64) {
	n := len(s.pieces) + 1
	mean, count := make([][3]float64, n), make([]float64, n)
	for i, l := range labels {
		c := s.cells.lab[i]
		mean[l][0], mean[l][1], mean[l][2] = mean[l][0]+float64(c[0]), mean[l][1]+float64(c[1]), mean[l][2]+float64(c[2])
		count[l]++
	}
	for l := range mean {
		for k := range 3 {
			mean[l][k] /= math.Max(1, count[l])
		}
	}
	for i, l := range labels {
		c := s.cells.lab[i]
		a, b, d := float64(c[0])-mean[l][0], float64(c[1])-mean[l][1], float64(c[2])-mean[l][2]
		sum += math.Min(oddMost, a*a+b*b+d*d)
	}
	return sum
}

// value is how well the places chosen explain the picture: cells explained and edges followed.
func (s *scene) value() float64 {
	v := 1 - s.energy(s.labels())/math.Max(1, s.plain)
	var all, followed float64
	for i, g := range s.pieces {
		l := g.Length()
		all += l
		if s.at[i] >= 0 {
			followed += l * s.places[i][s.at[i]].edge
		}
	}
	return v + edgeCount*followed/all
}

// clash is the piece of about the same size that lies where a place is; -1 for none.
func (s *scene) clash(i, k int) int {
	mine := s.covers[i][k]
	for j := range s.pieces {
		if j == i || s.at[j] < 0 {
			continue
		}
		its := s.covers[j][s.at[j]]
		if float64(len(its)) > 1.15*float64(len(mine)) || float64(len(mine)) > 1.15*float64(len(its)) {
			continue
		}
		both := 0
		for a, b := 0, 0; a < len(mine) && b < len(its); {
			switch {
			case mine[a] == its[b]:
				both, a, b = both+1, a+1, b+1
			case mine[a] < its[b]:
				a++
			default:
				b++
			}
		}
		if float64(both) > 0.7*float64(len(mine)) {
			return j
		}
	}
	return -1
}

// with is the value of all with a piece in a place, and where another then lies best whose
// place that was: j is -1 when it was nobody's.
func (s *scene) with(i, k int) (v float64, j, its int) {
	was := s.at[i]
	defer func() { s.at[i] = was }()
	if k < 0 {
		s.at[i] = k
		return s.value(), -1, 0
	}
	j = s.clash(i, k)
	s.at[i] = k
	if j < 0 {
		return s.value(), -1, 0
	}
	if j == s.lie.piece {
		return math.Inf(-1), -1, 0
	}
	had := s.at[j]
	defer func() { s.at[j] = had }()
	s.at[j] = -1
	v, its = s.value(), -1
	for n := range s.places[j] {
		if n == had || s.clash(j, n) >= 0 {
			continue
		}
		s.at[j] = n
		if u := s.value(); u > v {
			v, its = u, n
		}
	}
	return v, j, its
}

// sweep gives every piece in turn the place that explains most, until none changes.
func (s *scene) sweep() {
	s.worth = s.value()
	for range sweeps {
		changed := false
		for _, i := range s.order {
			if i == s.lie.piece {
				continue
			}
			was := s.at[i]
			best, most, other, its := was, s.worth, -1, 0
			for k := range s.places[i] {
				if k == was {
					continue
				}
				if v, j, n := s.with(i, k); v > most+1e-9 {
					best, most, other, its = k, v, j, n
				}
			}
			s.at[i], s.worth = best, most
			if other >= 0 {
				s.at[other] = its
			}
			changed = changed || best != was
		}
		if !changed {
			return
		}
	}
}

// inOrder lets a smaller piece slip under larger ones where the picture says so: under those
// it meets where it is, or, where its edge is not followed well there, in another of its places.
func (s *scene) inOrder() {
	for n := 1; n < len(s.order); n++ {
		j := s.order[n]
		if s.at[j] < 0 || j == s.lie.piece {
			continue
		}
		was, best, most := s.at[j], s.at[j], s.worth+slipWorth
		to := n
		for k := range s.places[j] {
			if k != was && (s.places[j][was].edge >= wellFollowed || s.clash(j, k) >= 0) {
				continue
			}
			s.at[j] = k
			for m := n; m > 1; m-- {
				i := s.order[m-1]
				if i == s.base || i == s.lie.piece {
					break
				}
				if s.at[i] < 0 || !s.meet(i, j) {
					continue
				}
				if v := s.under(n, m-1, s.value); v > most {
					best, most, to = k, v, m-1
				}
			}
		}
		s.at[j] = best
		if to != n {
			s.worth = most
			s.order = moved(s.order, n, to)
		}
	}
}

// under is a value with a piece of the order put further down in it.
func (s *scene) under(from, to int, value func() float64) float64 {
	was := s.order
	s.order = moved(was, from, to)
	defer func() { s.order = was }()
	return value()
}

func moved(order []int, from, to int) []int {
	out := slices.Clone(order)
	i := out[from]
	return slices.Insert(slices.Delete(out, from, from+1), to, i)
}

// wellFollowed is the share of its edge from which a piece is not sought beneath others elsewhere.
const wellFollowed = 0.9

// slipWorth is how much better all must be explained for a larger piece to lie over a smaller.
const slipWorth = 0.004

func (s *scene) meet(i, j int) bool {
	mine := map[int32]bool{}
	for _, c := range s.covers[i][s.at[i]] {
		mine[c] = true
	}
	return slices.ContainsFunc(s.covers[j][s.at[j]], func(c int32) bool { return mine[c] })
}

// look settles every place anew by what of the piece is in view.
func (s *scene) look() {
	labels := s.labels()
	for _, i := range s.order {
		if s.at[i] < 0 || i == s.lie.piece {
			continue
		}
		p := s.places[i][s.at[i]]
		pts := spots(s.pieces[i], settleN)
		view, n := s.inView(i, pts, p.motion, labels)
		if float64(n) < leastView*float64(len(pts)) {
			continue
		}
		best := settle(s.edges, pts, s.middle[i], p.motion, view)
		// Where it might have slid along its longer edges, its ends still tell.
		for deg := 0.0; deg < 360; deg += 45 {
			for _, by := range [2]float64{1.2, 2.4} {
				m := p.motion
				m.Move = m.Move.Add(shape.Polar(by, deg))
				if q := settle(s.edges, pts, s.middle[i], m, view); q.edge > best.edge+0.02 {
					best = q
				}
			}
		}
		if best.motion.Move.Distance(p.motion.Move) < 3 {
			s.places[i][s.at[i]] = best
		}
	}
	for i := range s.pieces {
		s.cover(i)
	}
	s.worth = s.value()
}

// inView says which points of a piece's edge are in view: just within them lies the piece,
// and just without something beneath it. Where that lies over it, the edge is not its own.
func (s *scene) inView(i int, pts []spot, m register.Motion, labels []uint8) (view []bool, n int) {
	view = make([]bool, len(pts))
	beneath := make([]bool, len(s.pieces)+1)
	beneath[0] = true
	for _, j := range s.order {
		if j == i {
			break
		}
		beneath[j+1] = true
	}
	turn := register.Motion{Turn: m.Turn}
	for k, p := range pts {
		at := m.Point(p.at.Sub(s.middle[i]))
		out := turn.Point(p.out)
		if s.label(labels, at.Sub(out.Scale(0.6))) == i+1 && beneath[s.label(labels, at.Add(out.Scale(0.6)))] {
			view[k] = true
			n++
		}
	}
	return view, n
}

func (s *scene) label(labels []uint8, p shape.Point) int {
	x, y := int((p.X-s.corner.X)/cell), int((p.Y-s.corner.Y)/cell)
	if p.X < s.corner.X || p.Y < s.corner.Y || x >= s.cells.w || y >= s.cells.h {
		return 0
	}
	return int(labels[y*s.cells.w+x])
}

// say writes down what is seen of each piece, and how sure that is.
func (s *scene) say() {
	labels := s.labels()
	s.seen = nil
	for _, i := range s.order {
		v := Seen{Piece: i}
		if s.at[i] < 0 {
			s.seen = append(s.seen, v)
			continue
		}
		p := s.places[i][s.at[i]]
		v.At = p.motion.After(register.Motion{Move: s.middle[i].Scale(-1)})
		pts := spots(s.pieces[i], settleN)
		view, n := s.inView(i, pts, p.motion, labels)
		held := 0.0
		v.Edge, held = s.followed(pts, i, p.motion, view)
		v.Colour, v.Shown = s.colour(labels, i)
		if i == s.lie.piece {
			v.Sure = 1
		} else if float64(n) >= leastView*float64(len(pts)) {
			v.Sure = math.Min(1, v.Edge*math.Min(1, 0.4+s.lead(i)/clearLead*0.6)) * math.Min(1, held/heldBy)
		} else {
			v.Sure = 0.2 * v.Edge
		}
		s.seen = append(s.seen, v)
	}
}

// clearLead is by how much, in proportion to what a piece could tell, its place must beat the next.
const clearLead = 0.2

// lead is by how much the picture is explained better than with the piece elsewhere or
// nowhere, against all that the piece could explain.
func (s *scene) lead(i int) float64 {
	was := s.at[i]
	next := math.Inf(-1)
	for k := -1; k < len(s.places[i]); k++ {
		if k == was || k >= 0 && samePlace(s.pieces[i], s.places[i][k], s.places[i][was]) {
			continue
		}
		v, j, its := s.with(i, k)
		// Twins that change places leave all as it was.
		if j >= 0 && its >= 0 && s.twins(i, j) {
			continue
		}
		next = math.Max(next, v)
	}
	var all float64
	for _, g := range s.pieces {
		all += g.Length()
	}
	return (s.worth - next) / (edgeCount * s.pieces[i].Length() / all)
}

func (s *scene) twins(i, j int) bool {
	return assemble.Twins(s.pieces[i], s.pieces[j]) == assemble.Same
}

// heldBy is the share of a piece's edge that must hold it along the direction in which it
// is least held.
const heldBy = 0.05

// followed is the share of a piece's edge in view that an edge of the picture follows, and
// the share of all its edge that holds it along the direction it might slide in.
func (s *scene) followed(pts []spot, i int, m register.Motion, view []bool) (share, held float64) {
	turn := register.Motion{Turn: m.Turn}
	n, near := 0.0, 0.0
	var in [3][3]float64
	for k, p := range pts {
		if !view[k] {
			continue
		}
		n++
		arm, out := turn.Point(p.at.Sub(s.middle[i])), turn.Point(p.out)
		t, ok := s.edges.crest(m.Move.Add(arm), out, 0.5)
		if !ok || math.Abs(t) >= follows {
			continue
		}
		near++
		row := [3]float64{out.X, out.Y, out.Y*arm.X - out.X*arm.Y}
		for a := range row {
			for b := range row {
				in[a][b] += row[a] * row[b]
			}
		}
	}
	// With the turn left free.
	z := in[2][2] + 0.1*float64(len(pts))
	a, b, c := in[0][0]-in[0][2]*in[0][2]/z, in[0][1]-in[0][2]*in[1][2]/z, in[1][1]-in[1][2]*in[1][2]/z
	least := (a+c)/2 - math.Hypot((a-c)/2, b)
	return near / math.Max(1, n), least / float64(len(pts))
}

// colour is the middle colour of what is in view of a piece, away from its edges.
func (s *scene) colour(labels []uint8, i int) (c colour.Linear, shown float64) {
	var v [3][]float64
	for pass := range 2 {
		for k, l := range labels {
			if int(l) != i+1 {
				continue
			}
			if pass == 0 {
				shown += cell * cell
			}
			x, y := k%s.cells.w, k/s.cells.w
			if pass == 0 && (x == 0 || y == 0 || x == s.cells.w-1 || y == s.cells.h-1 ||
				labels[k-1] != l || labels[k+1] != l || labels[k-s.cells.w] != l || labels[k+s.cells.w] != l) {
				continue
			}
			for a := range v {
				v[a] = append(v[a], float64(s.cells.lab[k][a]))
			}
		}
		if len(v[0]) > 0 {
			break
		}
	}
	if len(v[0]) == 0 {
		return colour.Linear{}, shown
	}
	var m [3]float64
	for a := range v {
		slices.Sort(v[a])
		m[a] = v[a][len(v[a])/2]
	}
	c = colour.Lab{L: m[0], A: m[1], B: m[2]}.Linear()
	for a := range c {
		c[a] = math.Min(1, math.Max(0, c[a]))
	}
	return c, shown
}

// result is what was read, in the frame of the largest piece as that lies; or why it is not
// to be believed.
func (s *scene) result() (Result, error) {
	out := Result{Scale: s.lie.scale, Fit: s.lie.off, Flat: s.flat, Corner: s.corner}
	found := 0
	var base *Seen
	for i := range s.seen {
		if s.seen[i].Sure >= 0.4 {
			found++
		}
		if s.seen[i].Piece == s.base {
			base = &s.seen[i]
		}
	}
	tells := 1 - s.energy(s.labels())/math.Max(1, s.plain)
	if least := max(1, int(leastShown*float64(len(s.pieces)-1))); found-1 < least || tells < leastTells {
		return Result{}, unlike(fmt.Sprintf("an outline fits, but only %d of the %d other pieces are seen in it", max(0, found-1), len(s.pieces)-1))
	}
	if base.Sure == 0 {
		return Result{}, unlike("the largest piece is not seen beneath the others")
	}
	back := base.At.Inverse()
	out.Frame = back
	// How the frame's own right points in the picture.
	c := s.middle[s.lie.piece]
	right := s.lie.to.At(c.Add(shape.Point{X: 10})).Sub(s.lie.to.At(c))
	out.Turn = math.Remainder(math.Atan2(right.Y, right.X)*180/math.Pi+base.At.Turn, 360)
	for _, v := range s.seen {
		if v.Sure > 0 {
			v.At = back.After(v.At)
			v.Sure *= math.Min(1, base.Sure/0.9) // nothing lies surer in its frame than it does itself
		}
		out.Seen = append(out.Seen, v)
	}
	return out, nil
}
