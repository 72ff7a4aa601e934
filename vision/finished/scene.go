package finished

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

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
