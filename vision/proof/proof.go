// Package proof measures a print of several layers from its scan: where each
// layer lies against the first, and how sure that is. The layers are told apart
// by their inks, which the drawer knows, overprints included.
package proof

import (
	"context"
	"fmt"
	"math"

	"ochrestone/core/colour"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// Layer is a printed layer as designed.
type Layer struct {
	Label   string
	Region  shape.Region // mm, in the frame of the design
	Film    colour.Film
	Strikes int
}

// Off is how far a layer lies from its place.
type Off struct {
	Motion register.Motion // from where it belongs, in the frame of the design
	Shift  shape.Point     // of its middle, mm
	Turn   float64         // clockwise, degrees
	// Sure is the standard error of the shift along each axis, mm, and of the
	// turn, degrees.
	SureShift, SureTurn float64
	Lost                bool // it could not be made out: missing, or under others
}

// Result is a proof measured.
type Result struct {
	Sheet  register.Motion // where the first layer lies in the picture, mm
	Layers []Off           // the first is the reference and has none
	Scale  float64         // of the print against the design, 1 when as designed
	// SureScale is the standard error of the scale.
	SureScale float64
	Miss      float64 // what the picture differs from the print as understood, root mean square of linear light
	Notes     []string
}

// Most layers that are told apart at once.
const Most = 6

// Measure finds every layer in a scan of dpi dots to the inch on paper of the
// given colour. It returns a picture.Problem when it cannot.
func Measure(ctx context.Context, pic *picture.Picture, dpi float64, paper colour.Linear, layers []Layer) (Result, error) {
	if len(layers) < 2 || len(layers) > Most {
		return Result{}, &picture.Problem{What: fmt.Sprintf("A proof of %d printed layers cannot be measured.", len(layers)), Mend: fmt.Sprintf("Choose an image with 2 to %d printed layers that have an ink.", Most)}
	}
	m := newModel(paper, layers)
	if a, b, d := m.tooAlike(); d < leastApart {
		return Result{}, &picture.Problem{What: fmt.Sprintf("%s and %s print too nearly alike to be told apart (%.1f).", layers[a].Label, layers[b].Label, d), Mend: "Print one of them in another ink for the proof."}
	}
	coarse := shrink(pic, dpi, 3, paper)
	if coarse.light < leastLight {
		return Result{}, &picture.Problem{What: "The margins of the picture are not the paper this image is printed on.", Mend: "Scan the whole print with bare paper all round it, lid down, on the card this image has."}
	}
	if coarse.inked < 0.004 {
		return Result{}, &picture.Problem{What: "Hardly any ink is to be seen in the picture.", Mend: "Scan the print itself, at 300 dpi, lid down."}
	}
	if err := m.findSheet(ctx, coarse); err != nil {
		return Result{}, err
	}
	if err := m.settle(ctx, coarse); err != nil {
		return Result{}, err
	}
	fine := shrink(pic, dpi, dpi/25.4, paper)
	m.learn(fine)
	miss, sure, err := m.polish(ctx, fine)
	if err != nil {
		return Result{}, err
	}
	out := Result{Sheet: m.motion(0), Layers: make([]Off, len(layers)), Miss: miss, Scale: m.scale, SureScale: sure[len(layers)][0]}
	if off := m.scale - 1; math.Abs(off) > math.Max(leastScale, 3*out.SureScale) {
		out.Notes = append(out.Notes, fmt.Sprintf("The print is %.1f %% %s than designed (±%.1f): no placing mends that. Check the dots to the inch, or whether the paper grew or a copy shrank.",
			100*math.Abs(off), map[bool]string{true: "larger", false: "smaller"}[off > 0], 200*out.SureScale))
	}
	back := m.motion(0).Inverse()
	for i := 1; i < len(layers); i++ {
		rel := back.After(m.motion(i))
		c := m.layers[i].mid
		out.Layers[i] = Off{Motion: rel, Shift: rel.Point(c).Sub(c), Turn: rel.Turn,
			SureShift: math.Hypot(sure[i][0], sure[0][0]), SureTurn: math.Hypot(sure[i][1], sure[0][1])}
		if o := &out.Layers[i]; o.SureShift > mostDoubt || o.Shift.Len() > mostOff || m.unseen(i, fine) {
			o.Lost = true
			out.Notes = append(out.Notes, fmt.Sprintf("%s could not be made out; what is said of the others leaves it out.", layers[i].Label))
		}
	}
	if miss > mostMiss {
		return out, &picture.Problem{What: fmt.Sprintf("The picture does not look like a print of this image (%.0f %% off).", 100*miss), Mend: "Check that it is this image in this colourway, the right way up and not mirrored, and that the dots to the inch are right."}
	}
	return out, nil
}

// Limits; our own defaults.
const (
	leastScale = 0.003
	leastApart = 6.0  // CIEDE2000 between what two layers do to the paper
	mostMiss   = 0.07 // root mean square, linear light; a good scan leaves 0.02 to 0.05
	leastLight = 0.4  // of the paper's own light in the darkest corner
	mostDoubt  = 0.12 // mm; a layer surer than that has been found
	mostOff    = 4.0  // mm; no hand is off by more
)
