package finished

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/assemble"
	"ochrestone/core/colour"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

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
