// Package svgin reads an SVG drawing of a set: each group or path that stands
// for a layer becomes a part with its outline in millimetres.
//
// Understood: width, height and viewBox with units mm, cm, in, pt, pc, px (at
// 96 to the inch); nested transforms; path, rect, circle, ellipse, polygon,
// polyline; fill rules; style sheets with classes; use of other elements; cut
// lines without fill. Refused, with the element and line named: scripts,
// entities, links to elsewhere. Passed over with a note: text, pictures, clip
// paths, open lines, outlines drawn twice.
package svgin

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strings"

	"github.com/tdewolff/canvas"

	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
)

// Limits of a drawing.
const (
	MaxBytes    = 10 << 20
	MaxSegments = 200_000
	maxDepth    = 64
	maxParts    = 200
	maxSize     = 2000.0 // mm
	minSize     = 0.2    // mm; smaller parts are dust
)

// Problem says what is wrong with a drawing, and where.
type Problem struct {
	Element string
	Line    int
	What    string
	Mend    string
}

func (p *Problem) Error() string {
	at := ""
	if p.Line > 0 {
		at = fmt.Sprintf("line %d", p.Line)
		if p.Element != "" {
			at += ", " + p.Element
		}
		at += ": "
	}
	return at + p.What + " " + p.Mend
}

// Drawing is what was read.
type Drawing struct {
	Parts  []kit.Part
	Notes  []string  // what was passed over
	W, H   float64   // size of the sheet, mm
	Scaled string    // how lengths were turned into mm
	Odd    []Rescale // other scales that would make sense of it
}

// reader walks the elements.
type reader struct {
	dec      *xml.Decoder
	unit     float64 // mm per user unit
	notes    []string
	layers   []*layer
	segments int
	folders  int // groups nested no deeper than this hold layers
	names    map[string]int
	w, h     float64
	scaled   string
	stated   bool // the drawing says its size in a unit of length
	index    *index
	uses     int   // nested so deep
	base     int64 // where the decoder's bytes begin in the file
	lines    int   // lines before the decoder's first
}

// layer collects the regions of one group or path that becomes a part.
type layer struct {
	name string
	line int
	path shape.Region
	cuts []shape.Region // outlines without fill, as cutters want them
}

// state is what an element inherits.
type state struct {
	m       canvas.Matrix
	evenOdd bool
	noFill  bool
	hidden  bool
	into    *layer
	depth   int
}

// Read reads a drawing and proposes an order, hosts and tone ranks.
func Read(data []byte) (Drawing, error) {
	if len(data) > MaxBytes {
		return Drawing{}, &Problem{What: fmt.Sprintf("The file is %d MB; at most %d MB are read.", len(data)>>20, MaxBytes>>20), Mend: "Simplify the drawing."}
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	var r *reader
	known := newIndex(data)
	// A single group round everything is the page, not a layer: look inside it.
	for folders := range 4 {
		next := &reader{dec: xml.NewDecoder(bytes.NewReader(data)), unit: 25.4 / 96, names: map[string]int{}, folders: folders, index: known}
		if err := next.run(); err != nil {
			return Drawing{}, err
		}
		if r == nil || len(next.layers) > 1 {
			r = next
		}
		if len(r.layers) != 1 {
			break
		}
	}
	var parts []kit.Part
	for _, l := range r.layers {
		if err := l.settleCuts(); err != nil {
			return Drawing{}, &Problem{l.name, l.line, "The cut lines of this layer cross in a way that cannot be resolved.", "Unite them in the drawing program."}
		}
		b := l.path.Bounds()
		twin := slices.IndexFunc(parts, func(p kit.Part) bool { return drawnTwice(l.path, p.Outline) })
		switch {
		case !l.path.Empty() && twin >= 0:
			r.note(l.line, l.name, fmt.Sprintf("is %s drawn once more and was left out", parts[twin].Label))
			continue
		case l.path.Empty():
			r.note(l.line, l.name, "has no closed outline and was left out")
			continue
		case b.W() > maxSize || b.H() > maxSize:
			return Drawing{}, &Problem{l.name, l.line, fmt.Sprintf("The part is %.0f × %.0f mm.", b.W(), b.H()), "No die is larger than two metres: set the drawing's width and height in mm or inches."}
		case max(b.W(), b.H()) < minSize:
			r.note(l.line, l.name, fmt.Sprintf("is only %.2f mm across and was left out", max(b.W(), b.H())))
			continue
		}
		parts = append(parts, kit.Part{ID: fmt.Sprintf("p%d", len(parts)+1), Label: l.name, Outline: l.path, Copies: 1, Rank: 1})
	}
	if len(parts) == 0 {
		return Drawing{}, &Problem{What: "There is no closed outline in the drawing.", Mend: "Draw each layer as a closed shape or a group of closed shapes."}
	}
	if len(parts) > maxParts {
		return Drawing{}, &Problem{What: fmt.Sprintf("The drawing has %d layers; at most %d are read.", len(parts), maxParts), Mend: "Put the shapes of one layer into one group."}
	}
	var all []shape.Region
	for _, p := range parts {
		all = append(all, p.Outline)
	}
	w, h := extent(all)
	odd := rescales(w, h, r.stated)
	notes := r.notes
	for _, o := range odd {
		if w > oddLarge || h > oddLarge || max(w, h) < oddSmall {
			notes = append(notes, fmt.Sprintf("The set is %.1f × %.1f mm. If %s, it is %.1f × %.1f mm: open the set and type its true width.", w, h, o.Why, w*o.Factor, h*o.Factor))
		}
	}
	return Drawing{Parts: motif.Propose(parts), Notes: notes, W: r.w, H: r.h, Scaled: r.scaled, Odd: odd}, nil
}

func extent(gs []shape.Region) (w, h float64) {
	lo, hi := shape.Point{X: math.Inf(1), Y: math.Inf(1)}, shape.Point{X: math.Inf(-1), Y: math.Inf(-1)}
	for _, g := range gs {
		b := g.Bounds()
		lo = shape.Point{X: math.Min(lo.X, b.Min.X), Y: math.Min(lo.Y, b.Min.Y)}
		hi = shape.Point{X: math.Max(hi.X, b.Max.X), Y: math.Max(hi.Y, b.Max.Y)}
	}
	return hi.X - lo.X, hi.Y - lo.Y
}

// settleCuts turns a layer's cut lines into its outline: a line within a line
// bounds a hole.
func (l *layer) settleCuts() error {
	var rings []shape.Ring
	for _, g := range l.cuts {
		rings = append(rings, g.Rings()...)
	}
	if len(rings) == 0 {
		return nil
	}
	var err error
	l.path, err = l.path.Union(shape.New(false, rings...))
	return err
}

func (r *reader) line() int { l, _ := r.dec.InputPos(); return l + r.lines }

func (r *reader) note(line int, element, what string) {
	if len(r.notes) < 40 {
		r.notes = append(r.notes, fmt.Sprintf("Line %d, %s %s.", line, element, what))
	}
}

func (r *reader) run() error {
	root := false
	for {
		tok, err := r.dec.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return r.xmlProblem(err)
		}
		switch t := tok.(type) {
		case xml.Directive:
			if s := strings.ToUpper(string(t)); strings.Contains(s, "ENTITY") {
				return &Problem{"!DOCTYPE", r.line(), "The drawing defines entities.", "Save it again as plain SVG without a document type."}
			}
		case xml.StartElement:
			if root || t.Name.Local != "svg" {
				return &Problem{"<" + t.Name.Local + ">", r.line(), "This is not an SVG drawing.", "Choose a file that begins with <svg>."}
			}
			root = true
			if err := r.root(t); err != nil {
				return err
			}
		}
	}
	if !root {
		return &Problem{What: "The file is empty or not a drawing.", Mend: "Choose an SVG file."}
	}
	return nil
}

func (r *reader) xmlProblem(err error) error {
	var se *xml.SyntaxError
	line := r.line()
	what := err.Error()
	if errors.As(err, &se) {
		line, what = se.Line, se.Msg
	}
	if strings.Contains(what, "invalid character entity") {
		return &Problem{"", line, "The drawing uses an entity that is not part of SVG.", "Save it again as plain SVG."}
	}
	return &Problem{"", line, "The file is not well formed: " + what + ".", "Save it again from the drawing program."}
}

func attr(t xml.StartElement, name string) string {
	for _, a := range t.Attr {
		if a.Name.Local == name && (a.Name.Space == "" || name == "label") {
			return strings.TrimSpace(a.Value)
		}
	}
	return ""
}

// root reads the size of the sheet and sets millimetres per user unit.
func (r *reader) root(t xml.StartElement) error {
	line := r.line()
	w, wu, err1 := length(attr(t, "width"))
	h, hu, err2 := length(attr(t, "height"))
	if err := errors.Join(err1, err2); err != nil {
		return &Problem{"<svg>", line, "The width or height cannot be read: " + err.Error() + ".", "Write them like 100mm or 4in."}
	}
	if w < 0 || h < 0 || w > 1e5 || h > 1e5 {
		return &Problem{"<svg>", line, fmt.Sprintf("The sheet is %g × %g mm.", w, h), "Give it a real size in mm or inches."}
	}
	m := canvas.Identity.Scale(r.unit, r.unit)
	r.scaled = "96 px to the inch"
	r.stated = wu != "" && wu != "%" && wu != "px" || hu != "" && hu != "%" && hu != "px"
	if vb := strings.FieldsFunc(attr(t, "viewBox"), func(c rune) bool { return c == ' ' || c == ',' || c == '\n' || c == '\t' }); len(vb) > 0 {
		v, err := floats(vb)
		if err != nil || len(v) != 4 || v[2] <= 0 || v[3] <= 0 {
			return &Problem{"<svg>", line, "The viewBox cannot be read.", "It has four numbers: left, top, width, height."}
		}
		kx, ky := r.unit, r.unit
		if w > 0 && wu != "%" {
			kx = w / v[2]
			ky = kx
		}
		if h > 0 && hu != "%" {
			ky = h / v[3]
			if w <= 0 || wu == "%" {
				kx = ky
			}
		}
		// The drawing keeps its shape: the smaller scale counts.
		k := math.Min(kx, ky)
		m = canvas.Identity.Scale(k, k).Translate(-v[0], -v[1])
		r.scaled = fmt.Sprintf("%.4g mm to the drawing unit", k)
		r.w, r.h = v[2]*k, v[3]*k
	} else {
		r.w, r.h = w, h
	}
	return r.children(state{m: m})
}

// skip reads past the element just opened.
func (r *reader) skip() error {
	if err := r.dec.Skip(); err != nil {
		return r.xmlProblem(err)
	}
	return nil
}

// children reads up to the end of the open element.
func (r *reader) children(s state) error {
	if s.depth++; s.depth > maxDepth {
		return &Problem{"<g>", r.line(), "Groups are nested more than 64 deep.", "Ungroup the drawing."}
	}
	for {
		tok, err := r.dec.Token()
		if err != nil {
			if errors.Is(err, io.EOF) {
				err = io.ErrUnexpectedEOF
			}
			return r.xmlProblem(err)
		}
		switch t := tok.(type) {
		case xml.EndElement:
			return nil
		case xml.StartElement:
			if err := r.element(t, s); err != nil {
				return err
			}
		}
	}
}

func (r *reader) element(t xml.StartElement, s state) error {
	line, name := r.line(), t.Name.Local
	if err := refuse(t, line); err != nil {
		return err
	}
	switch name {
	case "script":
		return &Problem{"<script>", line, "The drawing holds a script.", "Save it again as plain SVG."}
	case "foreignObject", "iframe":
		return &Problem{"<" + name + ">", line, "The drawing holds something that is not a drawing.", "Save it again as plain SVG."}
	case "text":
		r.note(line, "<text>", "is text; turn it into outlines to use it")
		return r.skip()
	case "image":
		r.note(line, "<image>", "is a picture and was left out")
		return r.skip()
	case "clipPath", "mask", "pattern", "marker":
		r.note(line, "<"+name+">", "was left out")
		return r.skip()
	case "use":
		return r.use(t, s, line)
	case "symbol", "defs", "style", "metadata", "title", "desc", "namedview", "linearGradient", "radialGradient", "filter":
		return r.skip()
	}
	st, err := r.inherit(t, s, line)
	if err != nil {
		return err
	}
	if st.hidden {
		r.note(line, "<"+name+">", "is hidden and was left out")
		return r.skip()
	}
	if name == "g" || name == "a" || name == "svg" || name == "switch" {
		return r.group(t, st, line)
	}
	p, err := outline(t)
	if err != nil {
		return &Problem{"<" + name + label(t, "") + ">", line, "The outline cannot be read: " + err.Error() + ".", "Draw it again or leave it out."}
	}
	if p == nil {
		r.note(line, "<"+name+">", "is not an outline and was left out")
		return r.skip()
	}
	if err := r.add(t, st, p, line); err != nil {
		return err
	}
	return r.skip()
}

// group reads a group: at the top, or just inside the page, it is a layer.
func (r *reader) group(t xml.StartElement, s state, line int) error {
	if s.into == nil && s.depth > r.folders {
		s.into = &layer{name: r.name(label(t, "Layer")), line: line}
		r.layers = append(r.layers, s.into)
	}
	return r.children(s)
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
	if r.segments += p.Len(); r.segments > MaxSegments {
		return &Problem{"<" + t.Name.Local + ">", line, fmt.Sprintf("The drawing has more than %d segments.", MaxSegments), "Simplify the outlines."}
	}
	for _, v := range p.Data() {
		if math.IsNaN(v) || math.Abs(v) > 1e7 {
			return &Problem{"<" + t.Name.Local + ">", line, "The outline has a number that is out of range.", "Draw it again or leave it out."}
		}
	}
	closed := &canvas.Path{}
	for _, sub := range p.Split() {
		if !sub.Closed() {
			c := sub.Coords()
			gap := c[0].Sub(c[len(c)-1]).Length() * math.Abs(s.m[0][0])
			if len(c) < 3 || s.noFill && gap > 0.2 {
				r.note(line, "<"+t.Name.Local+label(t, "")+">", "has an open line, which was left out; close it to use it")
				continue
			}
			sub.Close() // SVG fills open paths as if closed
		}
		closed = closed.Append(sub)
	}
	g, err := settle(closed.Transform(s.m), !s.evenOdd)
	if err != nil {
		return &Problem{"<" + t.Name.Local + label(t, "") + ">", line, "The outline crosses itself in a way that cannot be resolved.", "Simplify it or unite its shapes."}
	}
	into := s.into
	if into == nil {
		into = &layer{name: r.name(label(t, "Layer")), line: line}
		r.layers = append(r.layers, into)
	}
	if s.noFill {
		into.cuts = append(into.cuts, g)
		return nil
	}
	if into.path, err = into.path.Union(g); err != nil {
		return &Problem{into.name, line, "The shapes of this layer cannot be united.", "Unite them in the drawing program."}
	}
	return nil
}

func settle(p *canvas.Path, nonzero bool) (g shape.Region, err error) {
	defer func() {
		if x := recover(); x != nil {
			err = shape.ErrBoolean
		}
	}()
	return shape.FromPath(p, nonzero), nil
}
