package sheet

import (
	"fmt"
	"io"
	"math"

	"github.com/tdewolff/canvas/renderers/pdf"

	"ochrestone/core/measure"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// Jig is a turning jig: what carries the paper is turned by one step after every
// strike, while the stamp stays where it is.
type Jig struct {
	Turns int     // 3 to 16
	Round bool    // a disc turned by its marks in a holder, else a plate with Turns sides
	Width float64 // of one image, mm
	Gap   float64 // between neighbours, mm
	Panel float64 // side of the square panel it carries, mm; 0 draws none
	Inner float64 // width of the images of a second ring between those of the first, mm; 0 draws none
}

// Second is the radius of the second ring, mm; ok is false when its images do not
// fit between those of the first.
func (j Jig) Second() (radius float64, ok bool) {
	return register.Interleave(j.Turns, j.Radius(), j.Width, j.Inner, j.Gap)
}

// Radius is where the middle of every image lies, mm from the centre, so that
// neighbours keep the gap.
func (j Jig) Radius() float64 { return register.TouchRadius(j.Turns, j.Width+j.Gap) }

// Reach is the distance from the centre to a corner of the plate or to the rim of
// the disc, mm: room for the ring of images, or for the panel's corners.
func (j Jig) Reach() float64 {
	const margin = 6
	inside := math.Max(j.Radius()+j.Width/2, j.Panel/math.Sqrt2) + margin
	if j.Round {
		return inside
	}
	return inside / math.Cos(math.Pi/float64(j.Turns)) // its sides clear it, too
}

// corners of the plate, clockwise, the first side lying flat at the foot.
func (j Jig) corners() shape.Ring {
	out := make(shape.Ring, j.Turns)
	for i := range out {
		out[i] = shape.Polar(j.Reach(), 90+(float64(i)-0.5)*register.Step(j.Turns))
	}
	return out
}

// ErrJig says why a jig cannot be drawn.
type ErrJig struct{ What, Mend string }

func (e *ErrJig) Error() string { return e.What + " " + e.Mend }

// JigRoom is how far a jig may reach from its centre on a page, mm.
func JigRoom(page measure.Size) float64 { return math.Min(page.W/2-margin, (page.H-70)/2) }

// WriteJig writes a turning jig as a PDF at true size with a check bar.
func WriteJig(w io.Writer, j Jig, opts ...Option) error {
	g := &guide{size: measure.A4, write: measure.Metric}
	for _, o := range opts {
		o(g)
	}
	if j.Turns < 3 || j.Turns > 16 || !(j.Width > 0) || j.Gap < 0 || j.Panel < 0 || j.Inner < 0 {
		return &ErrJig{"A jig has 3 to 16 turns, an image with a width, and a gap of nothing or more.", "Change the numbers."}
	}
	if _, ok := j.Second(); j.Inner > 0 && !ok {
		return &ErrJig{"The images of the second ring do not fit between those of the first.", "Make them smaller, or take more room between."}
	}
	half := JigRoom(g.size)
	if j.Reach() > half {
		return &ErrJig{fmt.Sprintf("The jig reaches %s from its centre; the page has room for %s.", g.write.Length(j.Reach()), g.write.Length(half)), "Take fewer turns, a smaller image or a smaller gap."}
	}
	p, err := newPaper(g.size.W, g.size.H)
	if err != nil {
		return err
	}
	g.p = p
	g.jig(j)
	r := pdf.New(w, p.w, p.h, &pdf.Options{Compress: true})
	p.c.RenderTo(r)
	if err := r.Close(); err != nil {
		return fmt.Errorf("write the jig: %w", err)
	}
	return nil
}

// secondWords says how to print the second ring.
func (j Jig) secondWords(format func(float64) string) string {
	r, ok := j.Second()
	if j.Inner == 0 || !ok {
		return ""
	}
	return fmt.Sprintf(" The second ring stands %s from the centre: when the first is round, turn by half a step (%.4g°) and set the stamp anew.", format(r), register.Step(j.Turns)/2)
}

func (g *guide) jig(j Jig) {
	p := g.p
	g.checkBar()
	kind := "plate"
	if j.Round {
		kind = "disc"
	}
	p.text(p.f.head, 5, margin, 18, -1, inkText, fmt.Sprintf("Turning jig, %d turns of %.4g°", j.Turns, register.Step(j.Turns)))
	y := 24.0
	for _, line := range p.wrap(p.f.text, 3, g.size.W-2*margin, fmt.Sprintf(
		"Measure the check bar first. Paste the sheet on heavy card and cut the %s out along the line; mind the blade, cut away from your hand. Fix the panel on it, centre on centre. Strike at 1, turn to 2, and so on round. Images of %s stand %s from the centre with %s between them.",
		kind, g.write.Length(j.Width), g.write.Length(j.Radius()), g.write.Length(j.Gap))+j.secondWords(g.write.Length)) {
		p.text(p.f.text, 3, margin, y, -1, inkText, line)
		y += 4.2
	}
	c := shape.Point{X: g.size.W / 2, Y: y + 6 + j.Reach()}
	at := place{c.X, c.Y, 1}
	if j.Round {
		p.region(shape.Disc(shape.Point{}, j.Reach()), at, none, inkText, 0.25)
	} else {
		p.region(shape.Raw(j.corners()), at, none, inkText, 0.25)
	}
	if j.Panel > 0 {
		p.region(shape.Rect(-j.Panel/2, -j.Panel/2, j.Panel, j.Panel), at, none, rule, 0.2)
	}
	p.region(shape.Disc(shape.Point{}, j.Radius()), at, none, rule, 0.2)
	p.line(c.X-6, c.Y, c.X+6, c.Y, 0.2, inkText)
	p.line(c.X, c.Y-6, c.X, c.Y+6, 0.2, inkText)
	for i := range j.Turns {
		deg := 90 + float64(i)*register.Step(j.Turns)
		// The image stands over its number; the mark for a start is a filled wedge.
		rim := j.Reach()
		if !j.Round {
			rim *= math.Cos(math.Pi / float64(j.Turns))
		}
		a, b := c.Add(shape.Polar(rim, deg)), c.Add(shape.Polar(rim-2.5, deg))
		p.line(a.X, a.Y, b.X, b.Y, 0.25, inkText)
		n := c.Add(shape.Polar(rim-5, deg))
		p.text(p.f.bold, 3.2, n.X, n.Y+1.2, 0, inkText, fmt.Sprint(i+1))
		if i == 0 {
			wedge := shape.Raw(shape.Ring{shape.Polar(rim, deg), shape.Polar(rim-2.5, deg-3), shape.Polar(rim-2.5, deg+3)})
			p.region(wedge, at, inkText, none, 0)
		}
		if r, ok := j.Second(); j.Inner > 0 && ok {
			n := c.Add(shape.Polar(r, deg+register.Step(j.Turns)/2))
			p.region(shape.Disc(shape.Point{}, j.Inner/2), place{n.X, n.Y, 1}, none, rule, 0.15)
		}
		m := c.Add(shape.Polar(j.Radius(), deg))
		p.region(shape.Disc(shape.Point{}, j.Width/2), place{m.X, m.Y, 1}, none, rule, 0.15)
	}
}
