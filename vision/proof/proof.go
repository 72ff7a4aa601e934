// Package proof measures prints of several layers from a scan, or a photograph on
// the measuring mat: where each layer lies against the first, and how sure that
// is. The layers are told apart by their inks, which the drawer knows, overprints
// included, and by their outlines where the inks are too alike.
package proof

import (
	"context"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/measure"
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
	// SureShift is the standard error of the shift along each axis, mm, and SureTurn
	// that of the turn, degrees: what stretches of its edges say against each other,
	// the turn of the first layer, and another place that fits nearly as well counted
	// in. Twice as much covers 95 of 100.
	SureShift, SureTurn float64
	Lost                bool // it could not be made out: missing, under others, or like another
}

// Result is one print measured.
type Result struct {
	Sheet  register.Motion // where the first layer lies in the picture, mm
	Layers []Off           // the first is the reference and has none
	Scale  float64         // of the print against the design, 1 when as designed
	// SureScale is the standard error of the scale.
	SureScale float64
	Miss      float64 // what the picture differs from the print as understood, root mean square of linear light
	Notes     []string
	Err       error // why this print could not be measured
}

// Sheet is what was found in a picture: its prints as one reads, by rows from
// the left.
type Sheet struct {
	Prints []Result
	Notes  []string // on the whole sheet
}

// Most layers that are told apart at once.
const Most = 6

// Option changes how a sheet is measured.
type Option func(*settings)

type settings struct {
	tell    func(share float64, what string)
	unknown bool
	write   measure.Writing
}

// UnknownInks says that nobody knows what the layers are printed in: their films
// are learned from the print itself, from what lies well inside every outline.
func UnknownInks() Option { return func(s *settings) { s.unknown = true } }

// Writing sets how measures are written in notes; millimetres unless told.
func Writing(w measure.Writing) Option { return func(s *settings) { s.write = w } }

// Progress has f called as the work goes on, share from 0 to 1.
func Progress(f func(share float64, what string)) Option { return func(s *settings) { s.tell = f } }

// Limits; our own defaults.
const (
	leastScale = 0.003
	leastApart = 6.0  // CIEDE2000 between what two layers do to the paper
	mostMiss   = 0.07 // root mean square, linear light; a good scan leaves 0.02 to 0.05, grainy ink up to 0.2
	mustHold   = 0.85 // of a layer's edges must say that it lies there; a right one has 0.94 and more
	halfHolds  = 0.5  // less, and something is wrong with the whole
	leastLight = 0.4  // of the paper's own light in the darkest corner
	mostDoubt  = 0.12 // mm; a layer surer than that has been found
	mostOff    = 4.0  // mm; no hand is off by more
	leastInked = 0.004
	sketchily  = 1.5  // pixels to the mm to find the whole print
	coarsely   = 3.0  // and to find every layer
	round      = 6.0  // mm of paper kept round a print
	mostStray  = 0.02 // of the print's area, of ink where it has none
	sameAs     = 0.9  // two layers changed about leave so much of what is missed: they cannot be told apart
)

var errMargins = &picture.Problem{What: "The margins of the picture are not the paper this image is printed on.", Mend: "Scan the whole print with bare paper all round it, lid down, on the card this image has."}

// Measure finds every print of the layers in a picture on paper of the given
// colour, and where the layers of each lie. It returns a picture.Problem when
// none can be measured.
func Measure(ctx context.Context, p *Plane, paper colour.Linear, layers []Layer, opts ...Option) (Sheet, error) {
	o := settings{tell: func(float64, string) {}, write: measure.Metric}
	for _, f := range opts {
		f(&o)
	}
	if len(layers) < 2 || len(layers) > Most {
		return Sheet{}, &picture.Problem{What: fmt.Sprintf("A proof of %d printed layers cannot be measured.", len(layers)), Mend: fmt.Sprintf("Choose an image with 2 to %d printed layers that have an ink.", Most)}
	}
	o.tell(0.01, "Looking for prints")
	if o.unknown {
		layers = slices.Clone(layers)
		for i := range layers {
			layers[i].Film, layers[i].Strikes = anyInk, 1
		}
	}
	m := newModel(paper, layers)
	m.unknown, m.write = o.unknown, o.write
	var out Sheet
	gap, area := spread(layers)
	s := seek(p, paper, gap, area)
	out.Notes = s.say()
	if ownMirror(layers) {
		out.Notes = append(out.Notes, "This image is its own mirror image: a mirrored picture of it would not be noticed, and would say left for right.")
	}
	parts := make([]*Plane, len(s.prints))
	for i, f := range s.prints {
		parts[i] = s.part(p, f, paper, round)
	}
	if len(parts) == 0 {
		notes := s.say()
		if s.dim < leastLight {
			return out, errMargins
		}
		if s.merged > 0 || s.cut > 0 {
			return out, &picture.Problem{What: notes[0], Mend: "Check that it is this image and that the dots to the inch are right, and scan whole prints with bare paper all round each, 10 mm apart or more."}
		}
		whole := p.crop(shape.Box{Max: shape.Point{X: float64(p.w) / p.perMM, Y: float64(p.h) / p.perMM}})
		whole.even(paper)
		if whole.light < leastLight {
			return out, errMargins
		}
		if _, share := whole.reduce(coarsely).inkedShare(paper); share < leastInked {
			return out, &picture.Problem{What: "Hardly any ink is to be seen in the picture.", Mend: "Scan the print itself, at 300 dpi, lid down."}
		}
		parts = append(parts, whole)
	}
	for i, part := range parts {
		tell := func(share float64) {
			what := "Looking for every layer by its ink"
			if len(parts) > 1 {
				what = fmt.Sprintf("Measuring print %d of %d", i+1, len(parts))
			}
			o.tell((float64(i)+share)/float64(len(parts)), what)
		}
		r, err := m.fresh().measure(ctx, part, tell)
		if err != nil && ctx.Err() != nil {
			return out, err
		}
		r.Err = err
		r.Sheet.Move = r.Sheet.Move.Add(part.corner)
		out.Prints = append(out.Prints, r)
	}
	if !slices.ContainsFunc(out.Prints, func(r Result) bool { return r.Err == nil }) {
		return out, out.Prints[0].Err
	}
	return out, nil
}

// ownMirror reports whether every layer is its own mirror image about one upright
// axis, but for a fiftieth of its area.
func ownMirror(layers []Layer) bool {
	b := layers[0].Region.Bounds()
	axis := (b.Min.X + b.Max.X) / 2
	for _, l := range layers {
		// Its sides may be drawn a hair apart.
		wide, err := l.Region.Mirror(axis).Offset(0.15)
		if err != nil {
			return false
		}
		out, err := l.Region.Minus(wide)
		if err != nil || out.Area() > 0.02*l.Region.Area() {
			return false
		}
	}
	return true
}

func (s *sheet) say() (notes []string) {
	say := func(n int, one, more string) {
		if n == 1 {
			notes = append(notes, one)
		} else if n > 1 {
			notes = append(notes, fmt.Sprintf(more, n))
		}
	}
	say(s.merged, "Two prints or more run into one another on the sheet, or it is another image; they are left out.", "In %d places prints run into one another, or they are other images; they are left out.")
	say(s.cut, "A print is cut off by the edge of the picture; it is left out.", "%d prints are cut off by the edge of the picture; they are left out.")
	say(s.other, "Something else is printed on the sheet, too small for this image; it is left out.", "%d other things are printed on the sheet, too small for this image; they are left out.")
	return notes
}

// measure finds every layer of one print.
func (m *model) measure(ctx context.Context, fine *Plane, tell func(float64)) (Result, error) {
	tell(0.05)
	coarse := fine.reduce(coarsely)
	if err := m.findSheet(ctx, fine.reduce(sketchily)); err != nil {
		return Result{}, err
	}
	tell(0.25)
	if m.unknown {
		if err := m.guess(coarse, wellInside...); err != nil {
			return Result{}, err
		}
	}
	if err := m.settle(ctx, coarse, 0); err != nil {
		return Result{}, err
	}
	if m.unknown {
		// Once more, now that every layer is nearly where it is.
		if err := m.guess(coarse, 0.5, 0.4); err != nil {
			return Result{}, err
		}
		if err := m.settle(ctx, coarse, 1); err != nil {
			return Result{}, err
		}
	}
	like, err := m.changeAbout(ctx, coarse)
	if err != nil {
		return Result{}, err
	}
	tell(0.5)
	m.sharpen()
	m.relight(fine)
	m.learn(fine)
	m.askew = m.layers[0].pose.turn
	sure, err := m.polish(ctx, fine)
	if err != nil {
		return Result{}, err
	}
	miss := math.Sqrt(m.missNear(fine))
	tell(0.95)
	n := len(m.layers)
	out := Result{Sheet: m.motion(0), Layers: make([]Off, n), Miss: miss, Scale: m.scale, SureScale: math.Min(sure.scale(m), mostScale)}
	if off := m.scale - 1; math.Abs(off) > math.Max(leastScale, 3*out.SureScale) {
		out.Notes = append(out.Notes, fmt.Sprintf("The print is %.1f %% %s than designed (±%.1f): no placing mends that. Check the dots to the inch, or whether the paper grew or a copy shrank.",
			100*math.Abs(off), map[bool]string{true: "larger", false: "smaller"}[off > 0], 200*out.SureScale))
	}
	for _, l := range like {
		a, b := m.layers[l.a].Label, m.layers[l.b].Label
		if !l.same {
			out.Notes = append(out.Notes, fmt.Sprintf("%s and %s are in inks too alike: they were told apart by their outlines alone.", a, b))
			continue
		}
		out.Layers[l.a].Lost, out.Layers[l.b].Lost = true, true
		out.Notes = append(out.Notes, fmt.Sprintf("%s and %s cannot be told apart, alike in ink and outline. Print one of them in another ink for the proof.", a, b))
	}
	if stray := m.stray(coarse); stray > mostStray {
		out.Notes = append(out.Notes, fmt.Sprintf("Ink lies where this image has none, over %.0f %% of its area: was it struck twice, or is something else printed beside it?", 100*stray))
	}
	holds := make([]float64, n)
	for i := range holds {
		holds[i] = m.holds(fine, i)
	}
	if holds[0] < mustHold || miss > mostMiss && slices.Min(holds) < halfHolds {
		return out, &picture.Problem{What: fmt.Sprintf("The picture does not look like a print of this image (%.0f %% off).", 100*miss), Mend: "Check that it is this image in this colourway, the right way up and not mirrored, and that the dots to the inch are right."}
	}
	if miss > mostMiss {
		out.Notes = append(out.Notes, fmt.Sprintf("The ink covers unevenly (%.0f %% off what even ink would show): edges are less sure for it, and the ± says by how much.", 100*miss))
	}
	m.place(&out, coarse, sure, holds)
	return out, nil
}

// place says where every layer lies against the first, how sure that is, and what stands
// against it.
func (m *model) place(out *Result, coarse *Plane, sure surety, holds []float64) {
	back := m.motion(0).Inverse()
	if sure.isHeld(0) {
		out.Notes = append(out.Notes, fmt.Sprintf("%s, against which the others are measured, is as good as round: its turn is taken as theirs, and every ± counts what that may be off by.", m.layers[0].Label))
	}
	for i := 1; i < len(m.layers); i++ {
		o := &out.Layers[i]
		rel := back.After(m.motion(i))
		c := m.layers[i].mid
		o.Motion, o.Shift, o.Turn = rel, rel.Point(c).Sub(c), rel.Turn
		var own float64
		o.SureShift, o.SureTurn, own = sure.against(m, i)
		o.SureShift, o.SureTurn = math.Min(o.SureShift, mostOff), math.Min(o.SureTurn, 180)
		if !o.Lost && (own > mostDoubt || o.Shift.Len() > mostOff || holds[i] < mustHold) {
			o.Lost = true
			out.Notes = append(out.Notes, fmt.Sprintf("%s could not be made out; what is said of the others leaves it out.", m.layers[i].Label))
		}
		if o.Lost {
			continue
		}
		if sure.isHeld(i) {
			out.Notes = append(out.Notes, fmt.Sprintf("%s is as good as round: the picture cannot tell its turn, which is said as that of the other layers (±%.1f°).", m.layers[i].Label, 2*o.SureTurn))
		}
		if at, doubtful := m.elsewhere(coarse, i); doubtful {
			was := m.layers[i].pose
			d := back.Point(shape.Point{X: at.x, Y: at.y}).Sub(back.Point(shape.Point{X: was.x, Y: was.y}))
			turn := (at.turn - was.turn) * 180 / math.Pi
			out.Notes = append(out.Notes, fmt.Sprintf("%s may also lie %s %s, %s %s and %.1f° %s of where it is said to: the picture fits nearly as well there. Its ± takes that in; print it in another ink for the proof to be sure.",
				m.layers[i].Label, m.write.Thin(math.Abs(d.X)), side(d.X, "to the right", "to the left"), m.write.Thin(math.Abs(d.Y)), side(d.Y, "lower", "higher"), math.Abs(turn), side(turn, "clockwise", "anticlockwise")))
			o.SureShift = math.Max(o.SureShift, math.Max(math.Abs(d.X), math.Abs(d.Y))/2)
			o.SureTurn = math.Max(o.SureTurn, math.Abs(turn)/2)
		}
	}
}

func side(v float64, more, less string) string {
	if v > 0 {
		return more
	}
	return less
}

// likeness is a pair of layers in inks too alike, and whether their outlines are
// too.
type likeness struct {
	a, b int
	same bool
}

// changeAbout tries every pair of layers in like inks the other way round, and
// keeps what fits better. When neither fits clearly better, they cannot be told
// apart.
func (m *model) changeAbout(ctx context.Context, p *Plane) (out []likeness, err error) {
	for _, pair := range m.alike() {
		a, b := &m.layers[pair[0]], &m.layers[pair[1]]
		was, pa, pb := m.miss(p, 1), a.pose, b.pose
		a.pose.x, a.pose.y, b.pose.x, b.pose.y = pb.x, pb.y, pa.x, pa.y
		if err := m.settle(ctx, p, 1, pair[0], pair[1]); err != nil {
			return nil, err
		}
		now := m.miss(p, 1)
		out = append(out, likeness{pair[0], pair[1], math.Min(was, now) > sameAs*math.Max(was, now)})
		if now >= was {
			a.pose, b.pose = pa, pb
		}
	}
	return out, nil
}

// stray is how much ink lies clearly outside every layer, as a share of the area
// the print covers.
func (m *model) stray(p *Plane) float64 {
	const clear = 0.8
	sc := m.turns()
	in, out := 0, 0
	for y := range p.h {
		for x := range p.w {
			near := -shape.Around
			for i := range m.layers {
				near = math.Max(near, m.layers[i].inside((float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM, sc[i][0], sc[i][1], m.scale))
			}
			switch {
			case near > 0:
				in++
			case near < -clear && inked(p.at(x, y), m.paper):
				out++
			}
		}
	}
	return float64(out) / float64(max(1, in))
}
