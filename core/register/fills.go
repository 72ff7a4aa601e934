package register

import (
	"fmt"
	"math"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// blankFor is the hole of a host that a layer fills: the one it shares most
// area with. A host without one gives an empty region.
func blankFor(layer, host shape.Region) shape.Region {
	var best shape.Region
	most := 0.0
	for _, h := range host.Holes() {
		in, err := layer.Intersect(h)
		if err != nil {
			continue
		}
		if a := in.Area(); a > most {
			best, most = h, a
		}
	}
	return best
}

// fills is the play of a layer in a blank left for it: it may overlap the edge
// of the blank by so much, and leave a gap of so much. Both hold at once: the
// layer stays inside the blank grown by the overlap, and the blank shrunk by the
// gap stays inside the layer.
func (p *Play) fills(layer, blank shape.Region, lim Limits) error {
	overlap := lim.less(lim.Overlap)
	outer, err := blank.Offset(overlap)
	if err != nil {
		return fmt.Errorf("draw the limit of overlap: %w", err)
	}
	inner, err := blank.Offset(-lim.less(lim.Gap))
	if err != nil {
		return fmt.Errorf("draw the limit of the gap: %w", err)
	}
	p.Judged, p.Bound, p.BoundGap = true, outer.Path(), overlap
	over, err := past(layer, outer)
	if err != nil {
		return err
	}
	bare, err := past(inner, layer)
	if err != nil {
		return err
	}
	if out := over + bare; out > seated*layer.Length() {
		p.Outside = out
		p.Reach = make([]float64, Directions)
		return nil
	}
	c := shape.Point{X: p.CentreX, Y: p.CentreY}
	p.measure(layer, outer, c)
	if inner.Empty() {
		return nil
	}
	// The gap: the shrunk blank moves the other way inside the layer.
	back := &Play{}
	back.measure(inner, layer, c)
	p.Loose = 0
	for i := range p.Reach {
		p.Reach[i] = math.Min(p.Reach[i], back.Reach[(i+Directions/2)%Directions])
		p.Loose = math.Max(p.Loose, p.Reach[i])
	}
	if back.Tight < p.Tight {
		p.Tight, p.TightAt = back.Tight, math.Mod(back.TightAt+180, 360)
	}
	p.Clock, p.Anti = math.Min(p.Clock, back.Anti), math.Min(p.Anti, back.Clock)
	return nil
}

// TurnLeft is how far a layer may still turn, in degrees, clockwise and
// anticlockwise, about a pivot, once it has been shifted; both are 0 when the
// shift alone uses up the play. The pivot is in the frame of the layer as
// designed and moves with it. bound is where it must stay inside.
func TurnLeft(layer, bound shape.Region, shift, pivot shape.Point) (clock, anti float64, err error) {
	moved := layer.Move(shift)
	out, err := past(moved, bound)
	if err != nil {
		return 0, 0, fmt.Errorf("compare the shifted layer with its limit: %w", err)
	}
	if out > seated*layer.Length() {
		return 0, 0, nil
	}
	clock, anti = moved.Swing(bound, pivot.Add(shift))
	return clock, anti, nil
}

// Eased widens or narrows the limits by how plainly an error would show: a gap
// or spill between colours far apart is seen sooner than one between near ones.
// contrast is the CIEDE2000 difference of the dried colours that meet; at
// plainContrast the limits are as set, and they go from a half to twice. Our own
// default.
func (l Limits) Eased(contrast float64) Limits {
	k := 2.0
	if contrast > 0 {
		k = math.Min(2, math.Max(0.5, plainContrast/contrast))
	}
	l.Spill, l.Gap, l.Overlap = l.Spill*k, l.Gap*k, l.Overlap*k
	l.RimShare = math.Min(0.9, math.Max(0.2, 1-(1-l.RimShare)*k))
	return l
}

// plainContrast is the difference at which the limits hold as set.
const plainContrast = 30.0

// BoundOf is the line a layer must stay inside for a fit that has one.
func BoundOf(layer, host shape.Region, fit kit.Fit, lim Limits, rim float64) (shape.Region, error) {
	by := lim.Spill
	switch fit {
	case kit.FitEvenRim:
		by = -rim * lim.RimShare
	case kit.FitFills:
		host, by = blankFor(layer, host), lim.Overlap
	}
	g, err := host.Offset(by)
	if err != nil {
		return g, fmt.Errorf("draw the limit: %w", err)
	}
	return g, nil
}
