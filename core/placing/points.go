package placing

import (
	"fmt"
	"math"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// PointedAt is what a person pointed at for one layer: corners of its design, mm, and
// where they are seen in the picture, pixels.
type PointedAt struct {
	Layer        string
	Design, Seen []shape.Point
}

// Pointed is what points set by hand tell of a print.
type Pointed struct {
	Layers []Verdict // the first layer is what the others are measured against, and not among them
	Notes  []string
	Sure   string // how well the points on the first fit
}

// Our own defaults.
const (
	clickPixels = 1.5 // how near a hand sets a point in a picture, pixels
	mostResidue = 0.6 // what points on one layer may miss one another by, mm, before one is doubted
	fewestDots  = 2.0 // pixels to the mm, under which the points lie too close together
)

// Points measures layers from points set by hand: each layer's motion from the design
// into the picture, seen from that of the first layer, which has to be the lowest print.
// With dpi 0 the size is taken from it. Points that cannot be used are a kit.Problem.
func Points(prints []Print, dpi float64, at []PointedAt, w measure.Writing) (Pointed, error) {
	out := Pointed{Layers: []Verdict{}, Notes: []string{}}
	if len(prints) < 2 || len(at) == 0 || at[0].Layer != prints[0].Layer {
		return out, kit.Problem{Path: "layers", What: "point at the lowest printed layer first: the others are measured against it"}
	}
	perMM := dpi / 25.4
	fit := func(l PointedAt) (register.Pointed, error) {
		seen := make([]shape.Point, len(l.Seen))
		for i, p := range l.Seen {
			seen[i] = p.Scale(1 / perMM)
		}
		p, err := register.Points(l.Design, seen, clickPixels/perMM)
		if err != nil {
			return p, kit.Problem{Path: "layers", What: l.Layer + " needs two corners pointed at, some way apart"}
		}
		return p, nil
	}
	against := at[0]
	if perMM == 0 {
		perMM = 1
		p, err := fit(against)
		if err != nil {
			return out, err
		}
		perMM = p.Scale
		if perMM < fewestDots {
			return out, kit.Problem{Path: "layers", What: "the points lie too close together in the picture: take a larger one, and check that they are on the right corners"}
		}
		out.Notes = append(out.Notes, fmt.Sprintf("The size is taken from %s: %.1f pixels to the mm (±%.1f).", prints[0].Label, perMM, 2*p.SureScale))
	}
	first, err := fit(against)
	if err != nil {
		return out, err
	}
	if off := first.Scale - 1; dpi > 0 && math.Abs(off) > math.Max(0.005, 3*first.SureScale) {
		out.Notes = append(out.Notes, fmt.Sprintf("By these points the print is %.1f %% %s than designed (±%.1f): check the dots to the inch, or whether the paper grew.", 100*math.Abs(off), map[bool]string{true: "larger", false: "smaller"}[off > 0], 200*first.SureScale))
	}
	out.Sure = fmt.Sprintf("The points on %s fit to %s.", prints[0].Label, w.Thin(first.Residue))
	for _, l := range at[1:] {
		p, err := fit(l)
		if err != nil {
			return out, err
		}
		for _, print := range prints[1:] {
			if print.Layer != l.Layer {
				continue
			}
			rel := first.Motion.Inverse().After(p.Motion)
			mid := print.Region.Centroid()
			// The reference's turn, off by its error, carries the layer round.
			sure := math.Hypot(math.Hypot(p.SureShift, first.SureShift), first.SureTurn*math.Pi/180*mid.Distance(middle(against.Design)))
			turn := math.Hypot(p.SureTurn, first.SureTurn)
			if p.Residue > mostResidue {
				out.Notes = append(out.Notes, fmt.Sprintf("The points on %s miss one another by %s: one of them may sit on the wrong corner.", print.Label, w.Thin(p.Residue)))
			}
			out.Layers = append(out.Layers, Judge(print, rel.Point(mid).Sub(mid), rel.Turn, sure, turn, w))
		}
	}
	return out, nil
}

func middle(ps []shape.Point) (m shape.Point) {
	for _, p := range ps {
		m = m.Add(p.Scale(1 / float64(len(ps))))
	}
	return m
}
