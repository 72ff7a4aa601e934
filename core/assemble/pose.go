package assemble

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// pose is a place of a piece on a host, and how well it follows its edge.
type pose struct {
	motion register.Motion // of the piece about its own centroid, then moved
	rim    float64         // distance it keeps from the host's edge, mm
	share  float64         // of its edge that keeps it
	out    float64         // share of its edge outside the host
	exact  float64         // of its edge, every point counting by how nearly it keeps it
	held   float64         // share of its edge that holds it along the direction it might slide in
	askew  float64         // turn against how it was laid beside the base, 0 to 1 for half a turn
}

// score ranks poses: what follows the edge, less what hangs over. Among places
// that fit alike the least turned goes first, since people lay pieces as they go,
// and then the narrower rim.
func (p pose) score() float64 {
	return p.exact - 2*math.Max(0, p.out-0.02) - 0.12*p.askew - 0.015*math.Max(0, p.rim)
}

// Grid of the first, coarse search.
const (
	coarseTurn  = 5.0 // degrees
	coarseMove  = 1.5 // mm
	coarseSlack = 1.1 // mm
	coarseN     = 28  // points along the piece
	leastRim    = -0.4
	fineN       = 160
)

// seek finds the best places of a piece on a host: first on a grid, then each
// drawn to the edge it follows. Poses are best first, no two alike.
func seek(piece shape.Region, host *shape.Field, box shape.Box, laid float64) []pose {
	c := piece.Centroid()
	ring := even(piece, coarseN)
	pts := make([]shape.Point, len(ring))
	for i := range ring {
		// Far apart points go first: what hangs over shows soon.
		pts[i] = ring[i*11%len(ring)].Sub(c)
	}
	most := rimFor(piece)
	type guess struct {
		turn float64
		at   shape.Point
		s    float64
	}
	var guesses []guess
	bins := int((most-leastRim)/(coarseSlack/2)) + 1 // of rim, half a slack wide
	turned := make([]shape.Point, len(pts))
	// Whatever the turn, the disc about the centroid that the piece holds must
	// lie on the host, and the one that holds the piece must reach its rim.
	holds, heldBy := math.Inf(1), 0.0
	for _, p := range even(piece, 4*coarseN) {
		d := p.Distance(c)
		holds, heldBy = math.Min(holds, d), math.Max(heldBy, d)
	}
	if !piece.Contains(c) {
		holds = -shape.Around
	}
	for a := 0.0; a < 360; a += coarseTurn {
		s, k := math.Sincos(a * math.Pi / 180)
		for i, p := range pts {
			turned[i] = shape.Point{X: p.X*k - p.Y*s, Y: p.X*s + p.Y*k}
		}
		for y := box.Min.Y; y <= box.Max.Y; y += coarseMove {
			for x := box.Min.X; x <= box.Max.X; x += coarseMove {
				if d := host.Nearest(x, y); d < holds-2*coarseSlack || d > heldBy+most+coarseSlack {
					continue
				}
				var hist [16]int
				out := 0
				for _, p := range turned {
					d := host.Nearest(x+p.X, y+p.Y)
					if d < leastRim-coarseSlack/2 {
						if out++; out*6 > len(turned) {
							break
						}
						continue
					}
					if b := int((d - leastRim + coarseSlack/2) / (coarseSlack / 2)); b < len(hist) {
						hist[b]++
					}
				}
				if out*6 > len(turned) {
					continue
				}
				n := 0
				for b := range bins {
					n = max(n, hist[b]+hist[b+1]+hist[b+2])
				}
				if g := float64(n-2*out) / float64(len(turned)); g > 0.3 {
					guesses = append(guesses, guess{a, shape.Point{X: x, Y: y}, g})
				}
			}
		}
	}
	slices.SortStableFunc(guesses, func(a, b guess) int { return cmp.Compare(b.s, a.s) })
	fine := even(piece, fineN)
	for i := range fine {
		fine[i] = fine[i].Sub(c)
	}
	var out []pose
	tried := guesses[:0:0]
	for _, g := range guesses {
		if len(tried) >= 24 {
			break
		}
		if slices.ContainsFunc(tried, func(h guess) bool {
			return h.at.Distance(g.at) < 2.5 && math.Abs(math.Remainder(h.turn-g.turn, 360)) < 8
		}) {
			continue
		}
		tried = append(tried, g)
		p := draw(fine, host, register.Motion{Turn: g.turn, Move: g.at}, most, laid)
		if !slices.ContainsFunc(out, func(q pose) bool { return alike(p, q) }) {
			out = append(out, p)
		}
	}
	slices.SortStableFunc(out, func(a, b pose) int { return cmp.Compare(b.score(), a.score()) })
	return out
}

func alike(p, q pose) bool {
	return p.motion.Move.Distance(q.motion.Move) < 0.6 && math.Abs(math.Remainder(p.motion.Turn-q.motion.Turn, 360)) < 3
}

// rimFor is the widest rim, mm, that a piece can be said to keep: past its own
// size it is no border to the eye.
func rimFor(piece shape.Region) float64 {
	return math.Min(5, 0.8+0.36*math.Sqrt(piece.Area()))
}

// step is one step of Gauss and Newton over shift, turn and rim; weight says how
// much a point counts that is so far, mm, from the rim. It fails when too few
// points count.
func step(pts []shape.Point, host *shape.Field, m register.Motion, rim float64, weight func(off float64) float64) (register.Motion, float64, bool) {
	ata, atb := mat.NewSymDense(4, nil), mat.NewVecDense(4, nil)
	n := 0.0
	for _, p := range pts {
		q := m.Point(p)
		d := host.Inside(q)
		w := weight(d - rim)
		if w == 0 {
			continue
		}
		row := along(host, q, m.Move)
		for i := range row {
			atb.SetVec(i, atb.AtVec(i)-w*row[i]*(d-rim))
			for j := i; j < 4; j++ {
				ata.SetSym(i, j, ata.At(i, j)+w*row[i]*row[j])
			}
		}
		n += w
	}
	if n < 12 {
		return m, 0, false
	}
	// A little damping holds what the edge leaves free, such as a disc's turn.
	for i, k := range [4]float64{1e-3, 1e-3, 1e-1, 1e-3} {
		ata.SetSym(i, i, ata.At(i, i)+k*n)
	}
	var x mat.VecDense
	if err := x.SolveVec(ata, atb); err != nil {
		return m, 0, false
	}
	return register.Motion{Turn: m.Turn + x.AtVec(2)*180/math.Pi, Move: m.Move.Add(shape.Point{X: x.AtVec(0), Y: x.AtVec(1)})}, x.AtVec(3), true
}

// draw improves a pose: the points that keep about one distance from the edge
// are brought to keep it exactly, by Gauss and Newton's method over shift, turn
// and rim, ever fewer points counting.
func draw(pts []shape.Point, host *shape.Field, m register.Motion, most, laid float64) pose {
	best := judge(pts, host, m, most, laid)
	rim := best.rim
	for n := range 18 {
		slack := math.Max(keeps, coarseSlack*math.Pow(0.8, float64(n)))
		next, by, ok := step(pts, host, m, rim, func(off float64) float64 { return boolTo(math.Abs(off) <= slack) })
		if !ok {
			break
		}
		m, rim = next, rim+by
		if p := judge(pts, host, m, most, laid); p.score() >= best.score() {
			best = p
		}
	}
	return best
}

// polish settles a pose to what its evenest part says: points count the less
// the further they stray from the rim (Tukey's biweight), so that a stretch
// that only nearly follows no longer pulls.
func polish(pts []shape.Point, host *shape.Field, p pose, widest, laid float64) pose {
	m, rim := p.motion, p.rim
	for _, scale := range [8]float64{0.3, 0.25, 0.2, 0.15, 0.12, 0.1, 0.08, 0.08} {
		next, by, ok := step(pts, host, m, rim, func(off float64) float64 {
			if u := off / scale; u < 1 && u > -1 {
				return (1 - u*u) * (1 - u*u)
			}
			return 0
		})
		if !ok {
			return p
		}
		m, rim = next, rim+by
	}
	if q := judge(pts, host, m, widest, laid); q.score() > p.score()-0.03 {
		p = q
	}
	p.held = holds(pts, host, p)
	return p
}

// holds is the share of a piece's edge that holds it along the direction it is least held
// in, turn and rim left free: along straight or evenly bent edges nothing does, nor
// between edges that taper, where another rim would do as well.
func holds(pts []shape.Point, host *shape.Field, p pose) float64 {
	ata := mat.NewSymDense(4, nil)
	for _, v := range pts {
		q := p.motion.Point(v)
		u := (host.Inside(q) - p.rim) / keeps
		if u <= -1 || u >= 1 {
			continue
		}
		row := along(host, q, p.motion.Move)
		w := (1 - u*u) * (1 - u*u)
		for i := range row {
			for j := i; j < 4; j++ {
				ata.SetSym(i, j, ata.At(i, j)+w*row[i]*row[j])
			}
		}
	}
	// Turn and rim are known to some degrees and millimetres beforehand, which settles
	// what is round and what has one edge only.
	for i, k := range [4]float64{1e-3, 1e-3, 0.1, 1e-3} {
		ata.SetSym(i, i, ata.At(i, i)+k)
	}
	var inv mat.SymDense
	var chol mat.Cholesky
	if !chol.Factorize(ata) || chol.InverseTo(&inv) != nil {
		return 0
	}
	a, b, c := inv.At(0, 0), inv.At(0, 1), inv.At(1, 1)
	return 1 / ((a+c)/2 + math.Hypot((a-c)/2, b)) / float64(len(pts))
}

// along is how the distance from the host's edge at q changes as the piece is shifted, and
// turned about its middle, and its rim widened.
func along(host *shape.Field, q, middle shape.Point) [4]float64 {
	const h = 0.2
	gx := (host.Inside(shape.Point{X: q.X + h, Y: q.Y}) - host.Inside(shape.Point{X: q.X - h, Y: q.Y})) / (2 * h)
	gy := (host.Inside(shape.Point{X: q.X, Y: q.Y + h}) - host.Inside(shape.Point{X: q.X, Y: q.Y - h})) / (2 * h)
	arm := q.Sub(middle)
	return [4]float64{gx, gy, gy*arm.X - gx*arm.Y, -1}
}

// keeps is how far, mm, an edge may stray from a rim and still keep it.
const keeps = 0.16

// judge rates a pose: the rim most of its edge keeps.
func judge(pts []shape.Point, host *shape.Field, m register.Motion, widest, laid float64) pose {
	ds := make([]float64, len(pts))
	p := pose{motion: m, askew: math.Abs(math.Remainder(m.Turn-laid, 360)) / 180}
	for i, q := range pts {
		ds[i] = host.Inside(m.Point(q))
		if ds[i] < -0.15 {
			p.out += 1 / float64(len(pts))
		}
	}
	slices.Sort(ds)
	i, most := 0, 0
	at := 0
	for j, d := range ds {
		for d-ds[i] > 2*keeps {
			i++
		}
		if n := j - i + 1; n > most && (d+ds[i])/2 > leastRim && (d+ds[i])/2 < widest {
			most, at = n, i
		}
	}
	if most == 0 {
		return p
	}
	for _, d := range ds[at : at+most] {
		p.rim += d / float64(most)
	}
	for _, d := range ds {
		if u := (d - p.rim) / keeps; u > -1 && u < 1 {
			p.exact += (1 - u*u) / float64(len(ds))
		}
	}
	p.share = float64(most) / float64(len(ds))
	return p
}

// Follows measures how a piece lies on a host as both stand: the share of its
// edge that keeps one distance from the host's edge, or from a hole of it, and
// that distance, mm.
func Follows(piece, on shape.Region) (share, rim float64) {
	own := piece.Filled()
	c := own.Centroid()
	pts := even(own, fineN)
	for i := range pts {
		pts[i] = pts[i].Sub(c)
	}
	for i, h := range append([]shape.Region{on.Filled()}, on.Holes()...) {
		p := judge(pts, shape.NewField(h, 0.2), register.Motion{Move: c}, rimFor(own), 0)
		if p.out < 0.06 && p.share > share && (i > 0 || p.rim >= leastKept) {
			share, rim = p.share, p.rim
		}
	}
	return share, rim
}

// seekBoth searches on the coarse grid and finishes on the fine one.
func seekBoth(g shape.Region, h *host, laid float64) []pose {
	ps := seek(g, h.coarse, h.region.Bounds(), laid)
	if len(ps) > 6 {
		ps = ps[:6]
	}
	c := g.Centroid()
	pts := even(g, fineN)
	for i := range pts {
		pts[i] = pts[i].Sub(c)
	}
	for i := range ps {
		ps[i] = polish(pts, h.fine, draw(pts, h.fine, ps[i].motion, rimFor(g), laid), rimFor(g), laid)
	}
	slices.SortStableFunc(ps, func(a, b pose) int { return cmp.Compare(b.score(), a.score()) })
	return ps
}

// sameBySymmetry reports whether two poses put the piece in one and the same
// place, as all turns of a disc do.
func sameBySymmetry(g shape.Region, p, q pose) bool {
	c := g.Centroid()
	to := register.Motion{Move: c.Scale(-1)}
	a, b := p.motion.After(to), q.motion.After(to)
	return apart(a.Of(g), b.Of(g)) < 0.4
}

// apart is the mean distance between the edges of two regions, mm.
func apart(g, h shape.Region) float64 {
	var s float64
	ds := g.Strays(h, math.Max(0.5, g.Length()/60))
	for _, d := range ds {
		s += d / float64(len(ds))
	}
	return s
}
