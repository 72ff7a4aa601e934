package placing

import (
	"fmt"
	"math"
	"ochrestone/core/measure"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/core/words"
	"strings"
)

// Verdict is one layer of a proof, and what to do about it.
type Verdict struct {
	Layer     string  `json:"layer"`
	Label     string  `json:"label"`
	X         float64 `json:"x" doc:"off to the right, mm"`
	Y         float64 `json:"y" doc:"off downwards, mm"`
	Turn      float64 `json:"turn" doc:"off clockwise, degrees"`
	SureShift float64 `json:"sureShift" doc:"standard error of x and of y, mm"`
	SureTurn  float64 `json:"sureTurn" doc:"standard error of the turn, degrees"`
	Judged    bool    `json:"judged" doc:"something has to meet"`
	Good      bool    `json:"good" doc:"inside its play"`
	Lost      bool    `json:"lost" doc:"it could not be made out; the numbers mean nothing"`
	MoveX     float64 `json:"moveX" doc:"what is said, as hands can do it: the paper to the right, mm"`
	MoveY     float64 `json:"moveY" doc:"the paper down, mm"`
	TurnBy    float64 `json:"turnBy" doc:"the paper clockwise, degrees"`
	Say       string  `json:"say" doc:"what to do at the positioner"`
}

// What hands can do at a positioner; our own defaults.
const (
	handShift = 0.1 // mm
	handTurn  = 0.2 // degrees
)

// Judge says of a measured layer whether it lies inside its play, and how to
// bring the next print into place. The stamp stays on the lid, so the paper goes
// the way the print went wrong: a print too far to the right comes home when the
// paper is moved to the right, and one turned clockwise when the paper is.
func Judge(p Print, shift shape.Point, turn, sureShift, sureTurn float64, w measure.Writing) Verdict {
	v := Verdict{Layer: p.Layer, Label: p.Label, X: shift.X, Y: shift.Y, Turn: turn, SureShift: sureShift, SureTurn: sureTurn, Judged: p.Play.Judged}
	v.Good = !p.Play.Judged || p.Play.Holds(shift, turn)
	round := func(x, to float64) float64 { return math.Round(x/to) * to }
	v.MoveX, v.MoveY = round(shift.X, handShift), round(shift.Y, handShift)
	// A turn nobody can tell, as of a round layer, is nothing to put right.
	if math.Abs(turn) > 2*sureTurn {
		v.TurnBy = round(turn, handTurn)
	}
	var parts []string
	if x := v.MoveX; x != 0 {
		parts = append(parts, fmt.Sprintf("%s %s", w.Thin(math.Abs(x)), map[bool]string{true: "right", false: "left"}[x > 0]))
	}
	if y := v.MoveY; y != 0 {
		parts = append(parts, fmt.Sprintf("%s %s", w.Thin(math.Abs(y)), map[bool]string{true: "down", false: "up"}[y > 0]))
	}
	say := ""
	if len(parts) > 0 {
		say = "move the paper " + strings.Join(parts, " and ")
	}
	if t := v.TurnBy; t != 0 {
		if say != "" {
			say += ", "
		}
		say += fmt.Sprintf("turn it %.1f° %s", math.Abs(t), map[bool]string{true: "clockwise", false: "anticlockwise"}[t > 0])
	}
	switch {
	case say == "":
		v.Say = "Leave it: nearer than a hand can move it."
	case v.Good:
		v.Say = "It does not show. For a truer one, " + say + " for this strike."
	default:
		v.Say = words.Capital(say) + " for this strike."
	}
	return v
}

// RunVerdict is one layer over several prints of a run.
type RunVerdict struct {
	Layer  string  `json:"layer"`
	Label  string  `json:"label"`
	N      int     `json:"n" doc:"prints it was measured on"`
	Good   int     `json:"good" doc:"of them inside the play"`
	MeanX  float64 `json:"meanX" doc:"off to the right on the mean, mm"`
	MeanY  float64 `json:"meanY" doc:"down, mm"`
	MeanT  float64 `json:"meanTurn" doc:"clockwise, degrees"`
	Spread float64 `json:"spread" doc:"about the mean, along each axis, mm"`
	DriftX float64 `json:"driftX" doc:"from each print to the next, mm; 0 when it is no more than chance"`
	DriftY float64 `json:"driftY" doc:"mm"`
	DriftT float64 `json:"driftTurn" doc:"degrees"`
	Say    string  `json:"say" doc:"what the run tells, in words"`
}

// JudgeRun says what several prints of a run tell of each layer, the prints in
// the order they were made: how far off on the mean, how steady, and whether it
// drifts from print to print by more than chance.
func JudgeRun(prints [][]Verdict, w measure.Writing) []RunVerdict {
	out := []RunVerdict{}
	at := map[string]int{}
	seen := map[string][]Verdict{}
	for _, p := range prints {
		for _, v := range p {
			if _, ok := at[v.Layer]; !ok {
				at[v.Layer] = len(out)
				out = append(out, RunVerdict{Layer: v.Layer, Label: v.Label})
			}
			if !v.Lost {
				seen[v.Layer] = append(seen[v.Layer], v)
			}
		}
	}
	for i := range out {
		out[i].judge(seen[out[i].Layer], w)
	}
	return out
}

func (r *RunVerdict) judge(vs []Verdict, w measure.Writing) {
	r.N = len(vs)
	if r.N == 0 {
		r.Say = "It was made out on none of the prints."
		return
	}
	var xs, ys, ts []float64
	var ps []register.Placed
	for _, v := range vs {
		xs, ys = append(xs, v.X), append(ys, v.Y)
		if !register.PlacedAs(v.X, v.Y, v.Turn, v.SureTurn).TurnUntold {
			ts = append(ts, v.Turn)
		}
		if v.Good {
			r.Good++
		}
	}
	h := register.Learn(placedOf(vs))
	r.MeanX, r.MeanY, r.MeanT = h.LeanX, h.LeanY, h.LeanT
	for _, v := range vs {
		ps = append(ps, register.Placed{X: v.X - r.MeanX, Y: v.Y - r.MeanY, Turn: v.Turn - r.MeanT})
	}
	if n := float64(r.N); r.N > 1 {
		r.Spread = register.Learn(ps).Spread.Shift * math.Sqrt(n/(n-1))
	}
	steady := func(v []float64) float64 {
		if s, se := register.Drift(v); register.Drifts(s, se, len(v)) {
			return s
		}
		return 0
	}
	r.DriftX, r.DriftY, r.DriftT = steady(xs), steady(ys), steady(ts)
	way := func(v float64, plus, minus string) string { return map[bool]string{true: plus, false: minus}[v > 0] }
	var drift []string
	if r.DriftX != 0 {
		drift = append(drift, fmt.Sprintf("%s %s", w.Thin(math.Abs(r.DriftX)), way(r.DriftX, "right", "left")))
	}
	if r.DriftY != 0 {
		drift = append(drift, fmt.Sprintf("%s %s", w.Thin(math.Abs(r.DriftY)), way(r.DriftY, "down", "up")))
	}
	if r.DriftT != 0 {
		drift = append(drift, fmt.Sprintf("%.2f° %s", math.Abs(r.DriftT), way(r.DriftT, "clockwise", "anticlockwise")))
	}
	r.Say = fmt.Sprintf("%d of %d inside the play.", r.Good, r.N)
	switch {
	case len(drift) > 0:
		r.Say += " It drifts " + strings.Join(drift, ", ") + " from each print to the next: something gives. Look at magnets, tape and the corner before going on."
	case h.Leans:
		r.Say += fmt.Sprintf(" It is steady to ±%s, yet off by %s the same way each time: move the paper once, for all.", w.Thin(r.Spread), w.Thin(math.Hypot(r.MeanX, r.MeanY)))
	case r.N >= 4:
		r.Say += fmt.Sprintf(" No drift; it scatters by ±%s.", w.Thin(r.Spread))
	default:
		r.Say += " Too few prints to tell a drift."
	}
}

func placedOf(vs []Verdict) []register.Placed {
	out := make([]register.Placed, len(vs))
	for i, v := range vs {
		out[i] = register.PlacedAs(v.X, v.Y, v.Turn, v.SureTurn)
	}
	return out
}
