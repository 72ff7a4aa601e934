package register

import (
	"fmt"
	"math"
	"sort"

	"ochrestone/core/shape"
	"ochrestone/core/together"
)

// TurnedReach is where a layer that is turned so far may still be shifted to: a
// place, and how far from there in each of jointDirections directions.
type TurnedReach struct {
	Turn  float64   `json:"turn" doc:"clockwise, degrees"`
	X     float64   `json:"x" doc:"a shift at which it lies well inside, mm to the right"`
	Y     float64   `json:"y" doc:"mm down"`
	Reach []float64 `json:"reach" nullable:"false" doc:"from there in each of 36 directions from the right, clockwise, mm"`
}

// Numbers of the joint region.
const (
	jointDirections = 36
	jointSteps      = 5  // levels up to the turn allowed in place
	jointMost       = 14 // levels at most
	freely          = 90 // degrees; a layer that may turn so far is free to turn
	// handMost is further than a hand errs, mm: what lies beyond tells nothing of
	// where the middle of its errors should be.
	handMost = 3.0
)

// Within is a piece and the line it must stay inside.
type Within struct{ Piece, Bound shape.Region }

// WithTurns adds the joint region of shift and turn: for turns a step apart, where
// the layer may be shifted to, exact in every direction for the flattened
// outlines. A layer too far off in one alone may be well in both together: turned
// past what it can stand in its place, it may still lie inside when it is shifted.
// Of several pieces placed one by one the tightest counts.
func (p Play) WithTurns(pieces ...Within) (Play, error) {
	if !p.Judged || p.Outside > 0 || len(p.Reach) == 0 || p.Clock >= freely || p.Anti >= freely || p.Clock <= 0 || p.Anti <= 0 {
		return p, nil
	}
	zero := TurnedReach{Reach: make([]float64, jointDirections)}
	for i := range zero.Reach {
		zero.Reach[i] = p.at(float64(i) * 2 * math.Pi / jointDirections)
	}
	sides := [2][]TurnedReach{}
	errs := [2]error{}
	limits := [2]float64{p.Clock, -p.Anti}
	together.By(2, func(k int) { sides[k], errs[k] = levels(zero, limits[k]/(jointSteps+0.5), pieces) })
	for _, err := range errs {
		if err != nil {
			return p, fmt.Errorf("work out shift and turn together: %w", err)
		}
	}
	p.Joint = append([]TurnedReach{zero}, append(sides[0], sides[1]...)...)
	sort.Slice(p.Joint, func(i, j int) bool { return p.Joint[i].Turn < p.Joint[j].Turn })
	return p, nil
}

// levels turns the pieces step by step until they no longer lie inside: about their
// place as long as they do there, then each level about the middle of the one before.
// No level falls on the very turn allowed in place, where they touch and no course
// is free.
func levels(last TurnedReach, step float64, pieces []Within) ([]TurnedReach, error) {
	var out []TurnedReach
	for k := 1; k <= jointMost; k++ {
		turn := step * float64(k)
		c := shape.Point{X: last.X, Y: last.Y}
		if k > jointSteps {
			c = last.middle() // in its place it no longer lies inside
		}
		next := TurnedReach{Turn: turn, X: c.X, Y: c.Y, Reach: make([]float64, jointDirections)}
		for i := range next.Reach {
			next.Reach[i] = math.Inf(1)
		}
		for _, w := range pieces {
			g := w.Piece.Turn(turn, w.Piece.Centroid()).Move(c)
			in, err := liesIn(g, w.Bound)
			if err != nil || !in {
				return out, err
			}
			course := shape.NewCourse(g, w.Bound)
			for i := range next.Reach {
				next.Reach[i] = math.Min(next.Reach[i], math.Min(course.Travel(float64(i)*360/jointDirections), far(g)))
			}
		}
		out = append(out, next)
		last = next
	}
	return out, nil
}

// liesIn reports whether a region lies in another, but for a hair.
func liesIn(g, h shape.Region) (bool, error) {
	if h.Covers(g) {
		return true, nil
	}
	over, err := g.Minus(h)
	if err != nil {
		return false, err
	}
	for _, r := range over.Rings() {
		for _, q := range r {
			if !h.Contains(q) && h.EdgeDistance(q) > seated {
				return false, nil
			}
		}
	}
	return true, nil
}

// middle is the centroid of a level's region, as a shift.
func (t TurnedReach) middle() shape.Point {
	ring := make(shape.Ring, len(t.Reach))
	for i, r := range t.Reach {
		ring[i] = shape.Point{X: t.X, Y: t.Y}.Add(shape.Polar(math.Min(r, handMost), float64(i)*360/float64(len(t.Reach))))
	}
	g := shape.Raw(ring)
	if g.Area() < 1e-9 {
		return shape.Point{X: t.X, Y: t.Y}
	}
	return g.Centroid()
}

// holdsJoint looks a shift and turn up in the joint region, between its levels.
func (p Play) holdsJoint(shift shape.Point, turn float64) bool {
	n := len(p.Joint)
	k := sort.Search(n, func(i int) bool { return p.Joint[i].Turn >= turn })
	if k == n || k == 0 && p.Joint[0].Turn > turn {
		return false
	}
	if k == 0 {
		k = 1
	}
	a, b := p.Joint[k-1], p.Joint[k]
	t := (turn - a.Turn) / (b.Turn - a.Turn)
	d := shift.Sub(shape.Point{X: a.X*(1-t) + b.X*t, Y: a.Y*(1-t) + b.Y*t})
	rad := math.Atan2(d.Y, d.X)
	return d.Len() <= around(a.Reach, rad)*(1-t)+around(b.Reach, rad)*t
}

// around is a distance given all round, between two of its directions.
func around(reach []float64, rad float64) float64 {
	n := len(reach)
	k := math.Mod(rad/(2*math.Pi)*float64(n)+float64(2*n), float64(n))
	i := int(k)
	t := k - float64(i)
	return reach[i%n]*(1-t) + reach[(i+1)%n]*t
}
