package svgin

import (
	"context"
	"encoding/xml"
	"errors"
	"fmt"
	"math"
	"regexp"
	"strings"

	"github.com/tdewolff/canvas"

	"ochrestone/core/shape"
)

// layer collects the outlines of one group or path that becomes a part.
type layer struct {
	name   string
	line   int
	named  bool // by the person, not by the drawing program
	alone  bool // a shape outside of any group of its own
	page   bool // what drawing programs call a layer
	pieces []piece
	path   shape.Region
	lines  strings.Builder // pressed into it, path data of M and L in mm
}

// piece is one outline in mm as it was drawn, not settled yet.
type piece struct {
	path    *canvas.Path
	evenOdd bool
	cut     bool // an outline without fill, as cutters want them
	by      *clipping
	line    int
	element string
}

// settle turns what was drawn into the layer's outline. A cut line within a cut
// line bounds a hole.
func (l *layer) settle(ctx context.Context) error {
	var filled []shape.Region
	var cuts []shape.Ring
	for _, p := range l.pieces {
		if err := ctx.Err(); err != nil {
			return fmt.Errorf("read the drawing: %w", err)
		}
		g, err := p.settle()
		if errors.Is(err, shape.ErrTangled) {
			return &Problem{p.element, p.line, "The outline crosses itself too often to be cut.", "Simplify it or unite its shapes in the drawing program."}
		}
		if err == nil && p.by != nil {
			var by shape.Region
			if by, err = p.by.of(); err == nil {
				g, err = g.Intersect(by)
			}
		}
		if err != nil {
			return &Problem{p.element, p.line, "The outline crosses itself in a way that cannot be resolved.", "Simplify it or unite its shapes."}
		}
		if p.cut {
			cuts = append(cuts, g.Rings()...)
		} else {
			filled = append(filled, g)
		}
	}
	if len(cuts) > 0 {
		g, err := shape.Settle(false, cuts...)
		if err != nil {
			return &Problem{l.name, l.line, "The cut lines of this layer cross in a way that cannot be resolved.", "Unite them in the drawing program."}
		}
		filled = append(filled, g)
	}
	if n := shape.CrossingsOf(shape.MostCrossings, filled...); n > shape.MostCrossings {
		return &Problem{l.name, l.line, "The shapes of this layer cross each other too often to be cut.", "Unite them in the drawing program."}
	}
	var err error
	if l.path, err = shape.UnionAll(filled...); err != nil {
		return &Problem{l.name, l.line, "The shapes of this layer cannot be united.", "Unite them in the drawing program."}
	}
	return nil
}

// settle is the region of one outline.
func (p piece) settle() (shape.Region, error) { return shape.SettlePath(p.path, !p.evenOdd) }

// numbered are the ids that drawing programs give by themselves.
var numbered = regexp.MustCompile(`^(?i:(path|rect|circle|ellipse|polygon|polyline|line|use|shape|g|group|svg|object|curve)?[-_]?\d[-_\d]*)?$`)

// layered are the names drawing programs give their layers.
var layered = regexp.MustCompile(`^(?i:(layer|ebene|calque|capa|livello|laag|artboard)[ _-]*\d*)$`)

// named reports whether somebody gave an element a name.
func named(t xml.StartElement) bool {
	return attr(t, "label") != "" || attr(t, "data-name") != "" || !numbered.MatchString(attr(t, "id"))
}

// page reports whether a group is what drawing programs call a layer.
func page(t xml.StartElement) bool {
	return attr(t, "groupmode") == "layer" || layered.MatchString(label(t, ""))
}

// element is an element as notes and errors name it.
func element(t xml.StartElement) string {
	if own := label(t, ""); own != "" {
		return "<" + t.Name.Local + "> “" + own + "”"
	}
	return "<" + t.Name.Local + ">"
}

func label(t xml.StartElement, or string) string {
	for _, k := range []string{"label", "data-name", "id"} {
		if v := attr(t, k); v != "" {
			return strings.ReplaceAll(v, "_", " ")
		}
	}
	return or
}

// name makes a layer's name its own.
func (r *reader) name(s string) string {
	if len([]rune(s)) > 60 {
		s = string([]rune(s)[:60])
	}
	r.names[s]++
	if n := r.names[s]; n > 1 || s == "Layer" {
		return fmt.Sprintf("%s %d", s, n)
	}
	return s
}

func (r *reader) add(t xml.StartElement, s state, p *canvas.Path, line int) error {
	at := element(t)
	if r.segments += p.Len(); r.segments > MaxSegments {
		return &Problem{at, line, fmt.Sprintf("The drawing has more than %d segments.", MaxSegments), "Simplify the outlines."}
	}
	for _, v := range p.Data() {
		if math.IsNaN(v) || math.Abs(v) > 1e7 {
			return &Problem{at, line, "The outline has a number that is out of range.", "Draw it again or leave it out."}
		}
	}
	noFill := s.noFill || s.thinFill
	k := math.Sqrt(math.Abs(s.m.Det()))
	if !(k > 1e-9) || k > 1e9 {
		r.note(line, at, "is squeezed to nothing by a transform and was left out")
		return nil
	}
	wide := 0.0 // of a line that is seen, mm
	if s.stroked && !s.thinStroke {
		wide = s.wide * k
	}
	if len(s.dashes) > 0 && s.stroked && noFill && s.collect == nil && !r.inked {
		// A dashed line in the group of a piece is pressed into it, and not cut; one by itself
		// into the piece before it.
		if s.into == nil && len(r.layers) > 0 {
			s.into = r.layers[len(r.layers)-1]
		}
		if s.into != nil {
			return r.press(s, p, at, line)
		}
	}
	if s.collect == nil && r.asArea(s, wide) {
		if err := r.ink(t, &s, p, wide, noFill, at, line); err != nil || noFill {
			return err
		}
		noFill = false
	}
	closed := &canvas.Path{}
	for _, sub := range p.Split() {
		if !sub.Closed() {
			c := sub.Coords()
			gap := c[0].Sub(c[len(c)-1]).Length() * k
			if s.collect == nil && (len(c) < 3 || noFill && gap > 0.2) {
				if len(c) < 3 && r.asArea(s, wide) {
					continue // its line was read
				}
				r.note(line, at, "has an open line, which was left out; close it to use it")
				continue
			}
			sub.Close() // SVG fills open paths as if closed
		}
		closed = closed.Append(sub)
	}
	if closed.Empty() {
		return nil
	}
	out := closed.Transform(s.m)
	if err := onPage(s, out, at, line); err != nil {
		return err
	}
	if s.collect != nil {
		s.collect.pieces = append(s.collect.pieces, piece{path: out, evenOdd: s.clipOdd, line: line, element: at})
		return nil
	}
	into := r.layerOf(t, &s, line)
	into.pieces = append(into.pieces, piece{out, s.evenOdd, noFill, s.clipped, line, at})
	return nil
}

// ink adds the area that a line covers.
func (r *reader) ink(t xml.StartElement, s *state, p *canvas.Path, wide float64, alone bool, at string, line int) error {
	out := s.pen.stroke(p, 0.01*s.wide/wide).Transform(s.m)
	if err := onPage(*s, out, at, line); err != nil || out.Empty() {
		return err
	}
	if r.segments += out.Len(); r.segments > MaxSegments {
		return &Problem{at, line, fmt.Sprintf("The drawing has more than %d segments.", MaxSegments), "Simplify the outlines."}
	}
	if alone {
		r.note(line, at, fmt.Sprintf("is a line %.1f mm wide, and was read as the band it draws; fill it if the whole shape is meant", wide))
	} else if wide >= wideLine {
		r.note(line, at, fmt.Sprintf("is drawn with a line %.1f mm wide round it, which was read with it; take the line off if it is not part of the shape", wide))
	}
	into := r.layerOf(t, s, line)
	into.pieces = append(into.pieces, piece{path: out, by: s.clipped, line: line, element: at})
	return nil
}

// layerOf is the layer an element draws on: its group's, or one of its own, which its
// further outlines go on too.
func (r *reader) layerOf(t xml.StartElement, s *state, line int) *layer {
	if s.into == nil {
		s.into = &layer{name: r.name(label(t, "Layer")), line: line, named: named(t), alone: true}
		r.layers = append(r.layers, s.into)
	}
	return s.into
}

// onPage refuses what is larger than any die or lies far from the page.
func onPage(s state, out *canvas.Path, at string, line int) error {
	b := out.FastBounds()
	if w, h := b.X1-b.X0, b.Y1-b.Y0; w > maxSize || h > maxSize {
		return &Problem{at, line, fmt.Sprintf("It is %.0f × %.0f mm.", w, h), "No die is larger than two metres: set the drawing's width and height in mm or inches."}
	}
	if far := max(math.Abs(b.X0), math.Abs(b.X1), math.Abs(b.Y0), math.Abs(b.Y1)); !(far <= maxReach) {
		if s.into != nil {
			at += " in " + s.into.name
		}
		return &Problem{at, line, fmt.Sprintf("It lies %.1f m from the corner of the page.", far/1000), "Move it onto the page in the drawing program, or delete it."}
	}
	return nil
}

// press adds lines that are pressed into the piece they stand in the group of.
func (r *reader) press(s state, p *canvas.Path, at string, line int) error {
	out := p.Transform(s.m)
	b := out.FastBounds()
	if far := max(math.Abs(b.X0), math.Abs(b.X1), math.Abs(b.Y0), math.Abs(b.Y1)); !(far <= maxReach) {
		return &Problem{at, line, fmt.Sprintf("It lies %.1f m from the corner of the page.", far/1000), "Move it onto the page in the drawing program, or delete it."}
	}
	d, err := shape.ScaleLines(out.ToSVG(), 1)
	if err != nil {
		r.note(line, at, "is a pressed line that cannot be read, and was left out")
		return nil
	}
	s.into.lines.WriteString(d)
	return nil
}
