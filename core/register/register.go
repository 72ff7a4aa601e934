// Package register computes how exactly a layer must be placed: its play, the
// drift in every direction and the turn it can stand before the eye sees harm.
package register

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
	"ochrestone/core/together"
)

// Limits is what the eye forgives. The numbers are our own defaults, all mm
// except RimShare; the person can change them.
type Limits struct {
	Spill    float64 `json:"spill" minimum:"0" maximum:"5" doc:"how far a layer may run over its host, mm"`
	RimShare float64 `json:"rimShare" minimum:"0.05" maximum:"1" doc:"share of the nominal rim that must be left at the narrowest place"`
	Gap      float64 `json:"gap" minimum:"0" maximum:"5" doc:"bare gap allowed round a layer that fills a blank, mm"`
	Overlap  float64 `json:"overlap" minimum:"0" maximum:"5" doc:"overlap allowed where a layer fills a blank, mm"`
	Unsure   float64 `json:"-"` // how far the two outlines may be off together, mm: it is taken off what is forgiven
}

// Defaults returns the limits used until the person sets their own.
func Defaults() Limits { return Limits{Spill: 0.25, RimShare: 0.5, Gap: 0.2, Overlap: 0.6} }

// mostTaken is the share of what is forgiven that unsure outlines take at most: past that, it
// is not the layer that is in doubt but its measure.
const mostTaken = 0.8

// Doubted are the limits with outlines that may be off by so much, mm, each.
func (l Limits) Doubted(layer, host float64) Limits {
	l.Unsure = math.Hypot(layer, host)
	return l
}

// less is what is left of a distance that is forgiven, after the doubt about the outlines.
func (l Limits) less(mm float64) float64 { return max((1-mostTaken)*mm, mm-l.Unsure) }

// Directions is how many directions a play is given in: every five degrees.
const Directions = 72

// seated is the least overlap of edges, mm, that counts as lying on the edge
// rather than over it.
const seated = 0.02

// Play is how far a layer may be off before it shows.
type Play struct {
	Fit     kit.Fit   `json:"fit"`
	Judged  bool      `json:"judged" doc:"false when the fit asks for nothing that can be judged"`
	Reach   []float64 `json:"reach" nullable:"false" doc:"drift allowed in each of 72 directions from the right, clockwise, mm"`
	Tight   float64   `json:"tight" doc:"least drift, mm"`
	TightAt float64   `json:"tightAt" doc:"direction of the least drift, degrees clockwise from the right"`
	Loose   float64   `json:"loose" doc:"greatest drift, mm"`
	Clock   float64   `json:"clock" doc:"turn allowed clockwise about its centre, degrees"`
	Anti    float64   `json:"anti" doc:"turn allowed anticlockwise, degrees"`
	Rim     float64   `json:"rim" doc:"narrowest rim as designed, mm; 0 where the layer reaches its host's edge"`
	RimWide float64   `json:"rimWide" doc:"rim that 4 of 5 places of its edge that have one do not pass, mm; 0 where none is meant"`
	Outside float64   `json:"outside" doc:"area that already lies past the limit as designed, mm²"`
	CentreX float64   `json:"centreX" doc:"mm, in the image's frame"`
	CentreY float64   `json:"centreY" doc:"mm, in the image's frame"`
	// Joint is where the layer may lie when it is shifted and turned together, by
	// turn; empty where only WithTurns would tell, or where it may turn freely.
	Joint    []TurnedReach `json:"joint,omitempty"`
	Unsure   float64       `json:"unsure,omitempty" doc:"how far the two outlines may be off together, mm; what is forgiven is less by that"`
	Bound    string        `json:"bound" doc:"the line the layer must stay inside, path data in mm"`
	BoundGap float64       `json:"boundGap" doc:"distance of that line outside the host (negative inside), mm"`
}

// Of returns the play of layer on host for a fit.
//
// For within, the layer must stay inside its host grown by the allowed spill;
// for an even rim, inside its host shrunk by the share of the nominal rim that
// must be left; one that fills a blank, a hole of its host, neither over its edge
// nor short of it by more than is forgiven. All are exact for the flattened outlines: a corner of one
// meets a side of the other.
func Of(layer, host shape.Region, fit kit.Fit, lim Limits) (Play, error) {
	c := layer.Centroid()
	p := Play{Fit: fit, Reach: []float64{}, CentreX: c.X, CentreY: c.Y, Unsure: lim.Unsure}
	if fit == kit.FitFills && !layer.Empty() {
		if blank := blankFor(layer, host); !blank.Empty() {
			err := p.fills(layer, blank, lim)
			return p, err
		}
	}
	if fit == kit.FitOffset {
		p.offset(layer, host)
		return p, nil
	}
	if fit != kit.FitWithin && fit != kit.FitEvenRim || host.Empty() || layer.Empty() {
		return p, nil
	}
	p.Judged = true
	over, err := past(layer, host)
	if err != nil {
		return Play{}, fmt.Errorf("compare the layer with its host: %w", err)
	}
	if over <= seated*layer.Length() {
		p.Rim, _, _ = layer.Gap(host)
	}
	p.BoundGap = lim.less(lim.Spill)
	if fit == kit.FitEvenRim {
		p.BoundGap = -p.Rim + lim.less(p.Rim*(1-lim.RimShare))
		p.RimWide = rimWide(layer, host)
	}
	bound, err := host.Offset(p.BoundGap)
	if err != nil {
		return Play{}, fmt.Errorf("draw the limit: %w", err)
	}
	p.Bound = bound.Path()
	a, err := past(layer, bound)
	if err != nil {
		return Play{}, fmt.Errorf("compare the layer with its limit: %w", err)
	}
	if a > seated*layer.Length() {
		p.Outside = a
		p.Reach = make([]float64, Directions)
		return p, nil
	}
	p.measure(layer, bound, c)
	return p, nil
}

// offset is the play of a pair that is offset on purpose: the look holds while
// the offset is neither less than half nor more than one and a half times what it
// was meant to be, whatever the turn. Our own default. Middles that lie together
// within the play of a hand are no offset, and nothing is judged.
func (p *Play) offset(layer, host shape.Region) {
	if layer.Empty() || host.Empty() {
		return
	}
	d := layer.Centroid().Distance(host.Centroid())
	if d < leastOffset {
		return
	}
	p.Judged, p.Tight, p.Loose, p.Clock, p.Anti = true, d/2, d/2, 180, 180
	p.Reach = make([]float64, Directions)
	for i := range p.Reach {
		p.Reach[i] = d / 2
	}
}

// leastOffset is the offset, mm, under which a pair does not look offset.
const leastOffset = 0.4

// past is the area of g outside h, mm².
func past(g, h shape.Region) (float64, error) {
	if h.Covers(g) {
		return 0, nil
	}
	out, err := g.Minus(h)
	return out.Area(), err
}

func (p *Play) measure(layer, bound shape.Region, c shape.Point) {
	p.Tight = math.Inf(1)
	p.Reach = make([]float64, Directions)
	// Half the directions each side by side (a course looks into one at a time), and
	// beside them the turns and the shortest way from edge to edge.
	var gap float64
	var on, to shape.Point
	together.By(3, func(k int) {
		if k == 2 {
			gap, on, to = layer.Gap(bound)
			p.Clock, p.Anti = layer.Swing(bound, c)
			return
		}
		course := shape.NewCourse(layer, bound)
		for i := k * Directions / 2; i < (k+1)*Directions/2; i++ {
			// A part that surrounds or misses its bound could drift for ever; past
			// its own size the number says nothing.
			p.Reach[i] = math.Min(course.Travel(float64(i)*360/Directions), far(layer))
		}
	})
	for i, r := range p.Reach {
		if r < p.Tight {
			p.Tight, p.TightAt = r, float64(i)*360/Directions
		}
		p.Loose = math.Max(p.Loose, r)
	}
	// Between two of the directions the play can be a little tighter still: the
	// tightest of all leads along the shortest way from one edge to the other.
	if gap < p.Tight {
		p.Tight = gap
		if gap > shape.Grid {
			p.TightAt = math.Mod(math.Atan2(to.Y-on.Y, to.X-on.X)*180/math.Pi+360, 360)
		}
	}
}

// rimMost is the widest that is taken for a rim, mm: a wing's inner side lies far
// from the edge of the body it is on, and that is no rim.
const rimMost = 5.0

// rimWide is the rim that four of five places along the edge of a layer that have
// one do not pass.
func rimWide(layer, host shape.Region) float64 {
	var rims []float64
	for _, q := range shape.Along(layer, 1) {
		if d := host.EdgeDistance(q); d <= rimMost {
			rims = append(rims, d)
		}
	}
	if len(rims) == 0 {
		return 0
	}
	slices.Sort(rims)
	return rims[len(rims)*4/5]
}

func far(g shape.Region) float64 { b := g.Bounds(); return math.Max(b.W(), b.H()) }

// Join returns the play of several pieces placed apart as one layer: in every
// direction the least.
func Join(ps []Play) Play {
	out := ps[0]
	out.Reach = append([]float64{}, out.Reach...)
	for _, p := range ps[1:] {
		for i := range out.Reach {
			if i < len(p.Reach) {
				out.Reach[i] = math.Min(out.Reach[i], p.Reach[i])
			}
		}
		if p.Tight < out.Tight {
			out.Tight, out.TightAt = p.Tight, p.TightAt
		}
		out.Clock, out.Anti = math.Min(out.Clock, p.Clock), math.Min(out.Anti, p.Anti)
		out.Rim, out.RimWide = math.Min(out.Rim, p.Rim), math.Max(out.RimWide, p.RimWide)
		out.Outside += p.Outside
	}
	out.Loose = 0
	for _, r := range out.Reach {
		out.Loose = math.Max(out.Loose, r)
	}
	return out
}
