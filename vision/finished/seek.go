package finished

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// place is where a piece may lie, turned about its middle and moved from there.
type place struct {
	motion register.Motion // of the piece about its own middle
	edge   float64         // share of its edge that an edge of the picture follows
}

// How places are sought; our own defaults.
const (
	mostTurn    = 5.0 // degrees
	leastTurn   = 1.5
	seekFar     = 2.0 // mm that the furthest point of a piece moves from turn to turn
	seekBy      = 3   // pixels
	seekN       = 48
	mostTried   = 40
	mostGuesses = 6000
	mostKept    = 14
	settleN     = 200
	follows     = 0.3 // mm
	hangOver    = 0.1 // of its edge that may lie past the image's
)

// seek finds the places where edges of the picture run as those of a piece do, best first,
// no two alike.
func seek(e *edges, g shape.Region, within *shape.Field, box shape.Box) []place {
	c := g.Filled().Centroid()
	all := spots(g, seekN)
	if len(all) == 0 {
		return nil
	}
	order := make([]spot, len(all))
	step := 11
	for gcd(step, len(all)) != 1 {
		step++
	}
	for i := range all {
		order[i] = all[i*step%len(all)] // far apart ones first: what does not fit shows soon
	}
	type guess struct {
		turn, s float64
		at      shape.Point
	}
	// By whole pixels, so that a place is one number and a point of the edge another.
	offs, bins := make([]int, len(order)), make([]int, len(order))
	n := len(order)
	past := make([]uint8, e.w*e.h) // outside the image
	for y := range e.h {
		for x := range e.w {
			if within.Nearest(e.corner.X+float64(x)*Step, e.corner.Y+float64(y)*Step) < -0.5 {
				past[y*e.w+x] = 1
			}
		}
	}
	by := seekTurn(all, c)
	least := 87 * n
	mostOut := int(hangOver*float64(n) + 1)
	var guesses []guess
	for deg := 0.0; deg < 360; deg += by {
		m := register.Motion{Turn: deg}
		x0, y0, x1, y1 := math.MaxInt, math.MaxInt, math.MinInt, math.MinInt
		for i, p := range order {
			q, o := m.Point(p.at.Sub(c)), m.Point(p.out)
			x, y := int(math.Round(q.X/Step)), int(math.Round(q.Y/Step))
			offs[i], bins[i] = y*e.w+x, bin(math.Mod(math.Atan2(o.Y, o.X)+2*math.Pi, math.Pi))
			x0, y0, x1, y1 = min(x0, x), min(y0, y), max(x1, x), max(y1, y)
		}
		left, top := int((box.Min.X-e.corner.X)/Step), int((box.Min.Y-e.corner.Y)/Step)
		right, foot := int((box.Max.X-e.corner.X)/Step), int((box.Max.Y-e.corner.Y)/Step)
		for y := max(0, top) - y0; y <= min(e.h-1, foot)-y1; y += seekBy {
			for x := max(0, left) - x0; x <= min(e.w-1, right)-x1; x += seekBy {
				at, sum, out := y*e.w+x, 0, 0
				for i, by := range offs {
					sum += int(e.by[bins[i]][at+by])
					out += int(past[at+by])
					if i == n/4 && sum < 51*i || i == n/2 && sum < 71*i || out > mostOut {
						sum = 0
						break
					}
				}
				if sum > least {
					if len(guesses) == mostGuesses { // texture all over: only the better half is looked at further
						slices.SortFunc(guesses, func(a, b guess) int { return cmp.Compare(b.s, a.s) })
						guesses = guesses[:mostGuesses/2]
						least = int(guesses[len(guesses)-1].s * 255 * float64(n))
					}
					guesses = append(guesses, guess{deg, float64(sum) / 255 / float64(n), e.corner.Add(shape.Point{X: float64(x) * Step, Y: float64(y) * Step})})
				}
			}
		}
	}
	slices.SortStableFunc(guesses, func(a, b guess) int { return cmp.Compare(b.s, a.s) })
	fine := spots(g, settleN)
	var tried []guess
	var out []place
	for _, s := range guesses {
		if len(tried) == mostTried {
			break
		}
		if slices.ContainsFunc(tried, func(q guess) bool {
			return q.at.Distance(s.at) < 1.6 && math.Abs(math.Remainder(q.turn-s.turn, 360)) < 1.8*by
		}) {
			continue
		}
		tried = append(tried, s)
		p := settle(e, fine, c, register.Motion{Turn: s.turn, Move: s.at}, nil)
		if !slices.ContainsFunc(out, func(q place) bool { return samePlace(g, p, q) }) {
			out = append(out, p)
		}
	}
	slices.SortStableFunc(out, func(a, b place) int { return cmp.Compare(b.edge, a.edge) })
	return out[:min(len(out), mostKept)]
}

// seekTurn is the step between turns that are tried, degrees: no more than lets no point go by
// the edge it would follow.
func seekTurn(pts []spot, c shape.Point) float64 {
	far := 0.0
	for _, p := range pts {
		far = math.Max(far, p.at.Distance(c))
	}
	return math.Min(mostTurn, math.Max(leastTurn, seekFar/far*180/math.Pi))
}

// about are the best places of a piece with its middle about a point.
func (e *edges) about(g shape.Region, at shape.Point) (out []place) {
	c := g.Filled().Centroid()
	pts := spots(g, seekN)
	type guess struct {
		deg float64
		sum int
	}
	var guesses []guess
	for deg, by := 0.0, seekTurn(pts, c); deg < 360; deg += by {
		turn, sum := register.Motion{Turn: deg}, 0
		for _, p := range pts {
			q, o := at.Add(turn.Point(p.at.Sub(c))), turn.Point(p.out)
			x, y := int((q.X-e.corner.X)/Step+0.5), int((q.Y-e.corner.Y)/Step+0.5)
			if q.X < e.corner.X || q.Y < e.corner.Y || x >= e.w || y >= e.h {
				continue
			}
			sum += int(e.by[bin(math.Mod(math.Atan2(o.Y, o.X)+2*math.Pi, math.Pi))][y*e.w+x])
		}
		guesses = append(guesses, guess{deg, sum})
	}
	slices.SortStableFunc(guesses, func(a, b guess) int { return cmp.Compare(b.sum, a.sum) })
	for _, t := range guesses[:2] {
		out = append(out, settle(e, spots(g, settleN), c, register.Motion{Turn: t.deg, Move: at}, nil))
	}
	return out
}

func gcd(a, b int) int {
	for b > 0 {
		a, b = b, a%b
	}
	return a
}

// samePlace reports whether two places put a piece onto itself.
func samePlace(g shape.Region, p, q place) bool {
	if p.motion.Move.Distance(q.motion.Move) > 0.8 {
		return false
	}
	if math.Abs(math.Remainder(p.motion.Turn-q.motion.Turn, 360)) < 3 {
		return true
	}
	c := g.Filled().Centroid()
	to := register.Motion{Move: c.Scale(-1)}
	ds := p.motion.After(to).Of(g).Strays(q.motion.After(to).Of(g), math.Max(0.5, g.Length()/60))
	var s float64
	for _, d := range ds {
		s += d / float64(len(ds))
	}
	return s < 0.4
}

// settle draws a place to the edges nearest along the outward directions of the piece,
// ever nearer ones counting (Gauss and Newton, points weighed by Tukey's biweight). inView
// says which points count; nil for all.
func settle(e *edges, pts []spot, c shape.Point, m register.Motion, inView []bool) place {
	best := place{motion: m}
	for _, reach := range [7]float64{1.2, 1.0, 0.8, 0.6, 0.5, 0.4, 0.4} {
		ata, atb := mat.NewSymDense(3, nil), mat.NewVecDense(3, nil)
		n, close := 0.0, 0.0
		turn := register.Motion{Turn: m.Turn}
		for i, p := range pts {
			if inView != nil && !inView[i] {
				continue
			}
			n++
			arm, out := turn.Point(p.at.Sub(c)), turn.Point(p.out)
			t, ok := e.crest(m.Move.Add(arm), out, reach)
			if !ok {
				continue
			}
			if math.Abs(t) < follows {
				close++
			}
			u := t / (1.2 * reach)
			w := (1 - u*u) * (1 - u*u)
			row := [3]float64{out.X, out.Y, out.Y*arm.X - out.X*arm.Y}
			for a := range row {
				atb.SetVec(a, atb.AtVec(a)+w*row[a]*t)
				for b := a; b < 3; b++ {
					ata.SetSym(a, b, ata.At(a, b)+w*row[a]*row[b])
				}
			}
		}
		if n == 0 {
			return best
		}
		if s := close / n; s >= best.edge {
			best = place{m, s}
		}
		for k, v := range [3]float64{1e-3, 1e-3, 1e-1} {
			ata.SetSym(k, k, ata.At(k, k)+v*n)
		}
		var x mat.VecDense
		if x.SolveVec(ata, atb) != nil {
			return best
		}
		m = register.Motion{Turn: m.Turn + x.AtVec(2)*180/math.Pi, Move: m.Move.Add(shape.Point{X: x.AtVec(0), Y: x.AtVec(1)})}
	}
	return best
}
