package register

import (
	"fmt"
	"math"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Round is the play of a die laid round a print to cut it out: how far the die
// may drift, and turn about the print's middle, before the cut shows it.
//
// A print with a white rim inside the cut line must keep the share of the rim
// that is forgiven; one that only just fills the die may spill past the cut line
// as far as is forgiven. One that runs past the cut line as designed must leave
// no more white inside it than the gap that is forgiven.
func Round(print, die shape.Region, lim Limits) (Play, error) {
	die = die.Filled()
	c := print.Centroid()
	p := Play{Fit: kit.FitEvenRim, Reach: []float64{}, CentreX: c.X, CentreY: c.Y}
	if print.Empty() || die.Empty() {
		return p, nil
	}
	over, err := past(print, die)
	if err != nil {
		return p, fmt.Errorf("compare the print with the cut line: %w", err)
	}
	if over > seated*print.Length() {
		// The print runs past the cut line: the die stays inside the print.
		inner := print.Filled()
		q, err := Of(die, inner, kit.FitWithin, Limits{Spill: lim.Gap})
		if err != nil {
			return p, fmt.Errorf("play of the die in the print: %w", err)
		}
		q.CentreX, q.CentreY, q.Rim = c.X, c.Y, 0
		return q, nil
	}
	fit := kit.FitEvenRim
	if rim, _, _ := print.Gap(die); rim < flushRim {
		fit = kit.FitWithin
	}
	q, err := Of(print, die, fit, lim)
	if err != nil {
		return p, fmt.Errorf("play of the die round the print: %w", err)
	}
	return q.Turned(), nil
}

// RoundSighting says where to look when a die is laid round a print: at its rim,
// opposite the way it may drift least.
func RoundSighting(p Play, w measure.Writing) Sighting {
	s := Sighting{Points: []Feature{}, Say: "There is no print to lay it round."}
	if !p.Judged || len(p.Reach) == 0 {
		return s
	}
	way := []string{"right", "lower right", "foot", "lower left", "left", "upper left", "top", "upper right"}
	toward := way[int(math.Round(p.TightAt/45))%8]
	if p.Rim > 0 {
		s.Say = fmt.Sprintf("Look through the die: the white rim must be alike all round, %s at its narrowest. Look last at the %s: that way it may drift least.", w.Thin(p.Rim), toward)
		return s
	}
	s.Say = "Look through the die: no white may show inside its cutting edge. Look last at the " + toward + ": that way it may drift least."
	return s
}

// flushRim is the rim, mm, under which a print fills its die rather than having a
// white rim.
const flushRim = 0.3

// Turned is the play of the other of two that meet: where one may move one way
// over the other, the other may move the opposite way under it.
func (p Play) Turned() Play {
	n := len(p.Reach)
	r := make([]float64, n)
	for i := range r {
		r[i] = p.Reach[(i+n/2)%n]
	}
	p.Reach = r
	p.TightAt = math.Mod(p.TightAt+180, 360)
	p.Clock, p.Anti = p.Anti, p.Clock
	joint := make([]TurnedReach, len(p.Joint))
	for i, t := range p.Joint {
		h := len(t.Reach) / 2
		back := TurnedReach{Turn: -t.Turn, X: -t.X, Y: -t.Y, Reach: append(append([]float64{}, t.Reach[h:]...), t.Reach[:h]...)}
		joint[len(joint)-1-i] = back
	}
	p.Joint = joint
	return p
}

// Harm is what a layer off its place does: what the eye would see.
type Harm struct {
	Spill     float64 `json:"spill" doc:"furthest the layer runs over its host, mm"`
	SpillArea float64 `json:"spillArea" doc:"mm²"`
	RimLeast  float64 `json:"rimLeast" doc:"narrowest rim left, mm; 0 when it runs over"`
	Bare      float64 `json:"bare" doc:"area of the blank left bare, mm², for one that fills a blank"`
	Lies      float64 `json:"lies" doc:"area that lies over the edge of the blank, mm²"`
	White     float64 `json:"white" doc:"widest white left inside the cut line, mm, for a die in a print that runs past it"`
	Shows     bool    `json:"shows" doc:"past what is forgiven"`
}

// HarmRound is the harm of a die that is moved so over the print it is laid round,
// turned about the print's middle first. As in Round, a print with a rim must keep
// it, and one that runs past the cut line must leave no white inside.
func HarmRound(print, die shape.Region, lim Limits, shift shape.Point, turn float64) (Harm, error) {
	die = die.Filled()
	mid := print.Centroid()
	over, err := past(print, die)
	if err != nil {
		return Harm{}, fmt.Errorf("compare the print with the cut line: %w", err)
	}
	if over > seated*print.Length() {
		moved := die.Turn(turn, mid).Move(shift)
		h, err := HarmOf(moved, print.Filled(), kit.FitWithin, Limits{Spill: lim.Gap}, 0, shape.Point{}, 0)
		return Harm{White: h.Spill, Bare: h.SpillArea, Shows: h.Shows}, err
	}
	fit := kit.FitEvenRim
	rim, _, _ := print.Gap(die)
	if rim < flushRim {
		fit = kit.FitWithin
	}
	// Seen from the die the print goes the other way.
	m := Motion{Turn: turn}
	m.Move = mid.Sub(m.Point(mid)).Add(shift)
	back := m.Inverse()
	return HarmOf(print, die, fit, lim, rim, back.Point(mid).Sub(mid), back.Turn)
}

// HarmOf is the harm of a layer on its host for a fit when it is moved so. The
// motion turns about the layer's own middle first.
func HarmOf(layer, host shape.Region, fit kit.Fit, lim Limits, rim float64, shift shape.Point, turn float64) (Harm, error) {
	moved := layer.Turn(turn, layer.Centroid()).Move(shift)
	var h Harm
	if fit == kit.FitFills {
		blank := blankFor(layer, host)
		if blank.Empty() {
			return h, nil
		}
		over, err := moved.Minus(blank)
		if err != nil {
			return h, fmt.Errorf("measure what lies over: %w", err)
		}
		bare, err := blank.Minus(moved)
		if err != nil {
			return h, fmt.Errorf("measure what is bare: %w", err)
		}
		h.Lies, h.Bare = over.Area(), bare.Area()
	}
	over, err := moved.Minus(host)
	if err != nil {
		return h, fmt.Errorf("measure the spill: %w", err)
	}
	if fit != kit.FitFills && over.Area() > seated*seated {
		h.SpillArea = over.Area()
		for _, r := range over.Rings() {
			for _, q := range r {
				if !host.Contains(q) {
					h.Spill = math.Max(h.Spill, host.EdgeDistance(q))
				}
			}
		}
	} else if fit != kit.FitFills {
		h.RimLeast, _, _ = moved.Gap(host)
	}
	if fit == kit.FitWithin || fit == kit.FitEvenRim || fit == kit.FitFills {
		bound, err := BoundOf(layer, host, fit, lim, rim)
		if err != nil {
			return h, err
		}
		out, err := past(moved, bound)
		if err != nil {
			return h, fmt.Errorf("compare with the limit: %w", err)
		}
		h.Shows = out > seated*seated
		if fit == kit.FitFills && !h.Shows {
			inner, err := blankFor(layer, host).Offset(-lim.Gap)
			if err != nil {
				return h, fmt.Errorf("draw the limit of the gap: %w", err)
			}
			bare, err := past(inner, moved)
			if err != nil {
				return h, fmt.Errorf("compare with the limit of the gap: %w", err)
			}
			h.Shows = bare > seated*seated
		}
	}
	return h, nil
}
