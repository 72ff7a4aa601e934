package register

import (
	"math"

	"gonum.org/v1/gonum/stat/distuv"

	"ochrestone/core/shape"
)

// Placed is one placement as it came out: how far off it was.
type Placed struct {
	X    float64 `json:"x" doc:"to the right, mm"`
	Y    float64 `json:"y" doc:"down, mm"`
	Turn float64 `json:"turn" doc:"clockwise, degrees"`

	// TurnUntold is true where the turn is nobody's knowledge, as of a round layer:
	// nothing is learned from it.
	TurnUntold bool `json:"-"`
}

// turnTold is the standard error, degrees, up to which a turn says something of the hand
// that made it; hands are off by a degree or so. Our own default.
const turnTold = 0.6

// PlacedAs is a placement whose turn is as sure as that, standard error in degrees.
func PlacedAs(x, y, turn, sureTurn float64) Placed {
	return Placed{X: x, Y: y, Turn: turn, TurnUntold: sureTurn > turnTold}
}

// Logged is a placement to keep: which layer, how far off, how sure, and whether
// it lay inside its play.
type Logged struct {
	Placed
	Layer     string  `json:"layer"`
	SureShift float64 `json:"sureShift" doc:"standard error, mm"`
	SureTurn  float64 `json:"sureTurn" doc:"standard error, degrees"`
	Good      bool    `json:"good" doc:"inside its play"`
}

// Habit is what a person's own placements tell.
type Habit struct {
	N      int     `json:"n" doc:"placements it is learned from"`
	Turns  int     `json:"turns" doc:"of which the turn is told; a round layer has none"`
	Spread Spread  `json:"spread" doc:"about the right place, so that a steady lean counts too"`
	Low    float64 `json:"low" doc:"the shift is spread by at least so much, 9 in 10 sure, mm"`
	High   float64 `json:"high" doc:"and by at most so much, mm"`
	LeanX  float64 `json:"leanX" doc:"mean error to the right, mm"`
	LeanY  float64 `json:"leanY" doc:"mean error down, mm"`
	LeanT  float64 `json:"leanTurn" doc:"mean error clockwise, degrees"`
	Leans  bool    `json:"leans" doc:"the mean shift is off by more than chance"`
}

// Least placements from which a spread is taken for the person's own; our own
// default.
const FewestOwn = 5

// Learn gives the spread of placements: the root mean square of the shift along
// one axis, pooled over both, and of the turn where that is told, about the right place. Low and
// High are the bounds of a 90 % interval for a standard deviation by chi-square
// with two degrees of freedom a placement (NIST/SEMATECH e-Handbook of
// Statistical Methods, 7.2.3.1). A lean is called one when the mean lies past
// what chance brings in 1 of 20, by chi-square with two degrees of freedom.
func Learn(ps []Placed) Habit {
	h := Habit{N: len(ps)}
	if len(ps) == 0 {
		return h
	}
	n := float64(len(ps))
	var sum, turn, within float64
	for _, p := range ps {
		h.LeanX, h.LeanY = h.LeanX+p.X/n, h.LeanY+p.Y/n
		sum += p.X*p.X + p.Y*p.Y
		if !p.TurnUntold {
			h.Turns++
			h.LeanT += p.Turn
			turn += p.Turn * p.Turn
		}
	}
	h.Spread.Shift = math.Sqrt(sum / (2 * n))
	if h.Turns > 0 {
		h.LeanT /= float64(h.Turns)
		h.Spread.Turn = math.Sqrt(turn / float64(h.Turns))
	}
	chi := distuv.ChiSquared{K: 2 * n}
	h.Low, h.High = math.Sqrt(sum/chi.Quantile(0.95)), math.Sqrt(sum/chi.Quantile(0.05))
	for _, p := range ps {
		within += (p.X-h.LeanX)*(p.X-h.LeanX) + (p.Y-h.LeanY)*(p.Y-h.LeanY)
	}
	if len(ps) >= FewestOwn {
		each := within / (2*n - 2) // variance along one axis
		lean := h.LeanX*h.LeanX + h.LeanY*h.LeanY
		h.Leans = lean > each/n*distuv.ChiSquared{K: 2}.Quantile(0.95)
	}
	return h
}

// Own replaces the default spreads of ways by the person's own, where there are
// placements enough, by the id of the way.
func Own(ways []Way, placed map[string][]Placed) []Way {
	out := make([]Way, len(ways))
	for i, w := range ways {
		if h := Learn(placed[w.ID]); h.N >= FewestOwn {
			w.Spread.Shift, w.Own, w.From = max(0.01, h.Spread.Shift), true, h.N
			if h.Turns >= FewestOwn {
				w.Spread.Turn = h.Spread.Turn
			}
		}
		out[i] = w
	}
	return out
}

// Drift is how values taken one after the other change from each to the next: the
// slope of the least squares line and its standard error, from the scatter about
// the line. Of fewer than three nothing can be said, and both are 0.
func Drift(values []float64) (slope, se float64) {
	n := float64(len(values))
	if n < 3 {
		return 0, 0
	}
	mid := (n - 1) / 2
	var mean, xx, xy float64
	for _, v := range values {
		mean += v / n
	}
	for i, v := range values {
		d := float64(i) - mid
		xx, xy = xx+d*d, xy+d*(v-mean)
	}
	slope = xy / xx
	left := 0.0
	for i, v := range values {
		d := v - mean - slope*(float64(i)-mid)
		left += d * d
	}
	return slope, math.Sqrt(left / (n - 2) / xx)
}

// Drifts reports whether a slope from n values is more than chance brings in 1 of
// 20, by Student's t.
func Drifts(slope, se float64, n int) bool {
	if n < 4 {
		return false
	}
	return math.Abs(slope) > se*distuv.StudentsT{Mu: 0, Sigma: 1, Nu: float64(n - 2)}.Quantile(0.975)
}

// Pointed is a motion found from points set by hand, and how sure it is.
type Pointed struct {
	Motion    Motion
	Residue   float64 // root mean square distance left, mm
	Scale     float64 // of what was pointed at against the design
	SureShift float64 // standard error of the middle of the points along each axis, mm
	SureTurn  float64 // degrees
	SureScale float64
}

// Points fits a motion to points of the design and where they were set by hand.
// The error of one setting along an axis is taken from the residues, 2n-4 of them
// free with a scale, but never for less than click, the error with which a point
// is set, mm: two points fit without a residue and are no surer for it.
func Points(from, to []shape.Point, click float64) (Pointed, error) {
	m, residue, scale, err := Rigid(from, to)
	if err != nil {
		return Pointed{}, err
	}
	n := float64(len(from))
	p := Pointed{Motion: m, Residue: residue, Scale: scale}
	var mid shape.Point
	for _, q := range from {
		mid = mid.Add(q.Scale(1 / n))
	}
	var reach, left float64
	for i, q := range from {
		d := q.Sub(mid)
		reach += d.Dot(d)
		at := m.Point(mid).Add(m.Point(q).Sub(m.Point(mid)).Scale(scale))
		left += at.Distance(to[i]) * at.Distance(to[i])
	}
	e := click
	if free := 2*n - 4; free > 0 {
		e = math.Max(click, math.Sqrt(left/free))
	}
	p.SureShift = e / math.Sqrt(n)
	p.SureTurn = e / math.Sqrt(reach) * 180 / math.Pi
	p.SureScale = e / math.Sqrt(reach)
	return p, nil
}
