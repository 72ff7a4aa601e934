// Package svgin reads an SVG drawing of a set: each group or path that stands
// for a layer becomes a part with its outline in millimetres.
//
// Understood as a renderer draws it: width, height, viewBox and
// preserveAspectRatio of the drawing, of drawings within it and of symbols; units
// mm, cm, in, pt, pc, px (at 96 to the inch) and percentages; transforms as
// attributes and as properties, with their origin; path, rect, circle, ellipse,
// polygon, polyline; fill rules; clip paths; style sheets with classes; use of
// other elements; cut lines without fill. Refused, with the element and line
// named: scripts, entities, links to elsewhere. Passed over with a note: what is
// hidden or draws nothing, text, pictures, masks, open lines, outlines drawn twice.
package svgin

import (
	"bytes"
	"context"
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
	maxReach    = 5000.0 // mm from the page's corner
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
	Stated bool      // the drawing says its size in a unit of length
	Odd    []Rescale // other scales that would make sense of it
}

// Extent is the width and height of all parts together, mm.
func (d Drawing) Extent() (w, h float64) {
	var all []shape.Region
	for _, p := range d.Parts {
		all = append(all, p.Outline)
	}
	return extent(all)
}

// reader walks the elements.
type reader struct {
	ctx      context.Context
	dec      *xml.Decoder
	notes    []string
	layers   []*layer
	segments int
	elements int
	folders  int // groups nested no deeper than this hold layers
	names    map[string]int
	w, h     float64
	scaled   string
	stated   bool // the drawing says its size in a unit of length
	index    *index
	uses     int   // nested so deep
	base     int64 // where the decoder's bytes begin in the file
	lines    int   // lines before the decoder's first
	thick    bool  // a wide line was noted
}

// layer collects the outlines of one group or path that becomes a part.
type layer struct {
	name   string
	line   int
	pieces []piece
	path   shape.Region
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

// state is what an element inherits.
type state struct {
	m          canvas.Matrix
	port       [4]float64 // nearest viewport in user units: left, top, width, height
	evenOdd    bool
	clipOdd    bool
	noFill     bool
	thinFill   bool
	stroked    bool
	thinStroke bool
	wide       float64 // of a stroke, user units
	invisible  bool
	unseen     string    // why the element itself is not seen
	size       [2]string // width and height a use gives what it uses
	clipped    *clipping
	collect    *clipping // outlines go here, within a clip path
	into       *layer
	depth      int
}

// Read reads a drawing and proposes an order, hosts and tone ranks.
func Read(data []byte) (Drawing, error) { return ReadContext(context.Background(), data) }

// ReadContext is Read that stops, with the context's error, when the context
// ends.
func ReadContext(ctx context.Context, data []byte) (d Drawing, err error) {
	defer func() {
		// The path library panics on a few degenerate outlines.
		if v := recover(); v != nil {
			d, err = Drawing{}, &Problem{What: "The drawing has an outline that cannot be worked out.", Mend: "Simplify it in the drawing program and save it again."}
		}
	}()
	if len(data) > MaxBytes {
		return Drawing{}, &Problem{What: fmt.Sprintf("The file is %d MB; at most %d MB are read.", len(data)>>20, MaxBytes>>20), Mend: "Simplify the drawing."}
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	var r *reader
	known := newIndex(data)
	// A single group round everything is the page, not a layer: look inside it.
	for folders := range 4 {
		next := &reader{ctx: ctx, dec: xml.NewDecoder(bytes.NewReader(data)), names: map[string]int{}, folders: folders, index: known}
		if err := next.run(); err != nil {
			return Drawing{}, err
		}
		next.layers = slices.DeleteFunc(next.layers, func(l *layer) bool {
			if len(l.pieces) == 0 {
				next.note(l.line, l.name, "has no closed outline and was left out")
			}
			return len(l.pieces) == 0
		})
		if r == nil || len(next.layers) > 1 && len(next.layers) <= maxParts {
			r = next
		}
		if len(r.layers) != 1 {
			break
		}
	}
	if len(r.layers) > maxParts {
		return Drawing{}, &Problem{What: fmt.Sprintf("The drawing has %d layers; at most %d are read.", len(r.layers), maxParts), Mend: "Put the shapes of one layer into one group."}
	}
	if n := known.css.passed; n > 0 {
		r.notes = append(r.notes, fmt.Sprintf("%d rules of its style sheet look at more than the element itself and were not followed.", n))
	}
	if known.css.n >= mostRules {
		r.notes = append(r.notes, fmt.Sprintf("Its style sheet has more than %d rules; the rest was not read.", mostRules))
	}
	parts, err := r.parts()
	if err != nil {
		return Drawing{}, err
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
	return Drawing{Parts: motif.Propose(parts), Notes: notes, W: r.w, H: r.h, Scaled: r.scaled, Stated: r.stated, Odd: odd}, nil
}

// parts settles the outlines of every layer.
func (r *reader) parts() ([]kit.Part, error) {
	var parts []kit.Part
	for _, l := range r.layers {
		if err := r.ctx.Err(); err != nil {
			return nil, fmt.Errorf("read the drawing: %w", err)
		}
		if err := l.settle(r.ctx); err != nil {
			return nil, err
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
			return nil, &Problem{l.name, l.line, fmt.Sprintf("The part is %.0f × %.0f mm.", b.W(), b.H()), "No die is larger than two metres: set the drawing's width and height in mm or inches."}
		case max(b.W(), b.H()) < minSize:
			r.note(l.line, l.name, fmt.Sprintf("is only %.2f mm across and was left out", max(b.W(), b.H())))
			continue
		}
		if err := l.path.Storable(); err != nil {
			return nil, &Problem{l.name, l.line, capital(err.Error()) + ".", "Simplify it in the drawing program."}
		}
		parts = append(parts, kit.Part{ID: fmt.Sprintf("p%d", len(parts)+1), Label: l.name, Outline: l.path, Copies: 1, Rank: 1})
	}
	if len(parts) == 0 {
		return nil, &Problem{What: "There is no closed outline in the drawing.", Mend: "Draw each layer as a closed shape or a group of closed shapes."}
	}
	return parts, nil
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

func extent(gs []shape.Region) (w, h float64) {
	lo, hi := shape.Point{X: math.Inf(1), Y: math.Inf(1)}, shape.Point{X: math.Inf(-1), Y: math.Inf(-1)}
	for _, g := range gs {
		b := g.Bounds()
		lo = shape.Point{X: math.Min(lo.X, b.Min.X), Y: math.Min(lo.Y, b.Min.Y)}
		hi = shape.Point{X: math.Max(hi.X, b.Max.X), Y: math.Max(hi.Y, b.Max.Y)}
	}
	return hi.X - lo.X, hi.Y - lo.Y
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
	css := r.index.css.styles(t)
	says := func(name string) string {
		if v := attr(t, name); v != "" {
			return v
		}
		return css[name]
	}
	w, wu, err1 := length(says("width"))
	h, hu, err2 := length(says("height"))
	if err := errors.Join(err1, err2); err != nil {
		return &Problem{"<svg>", line, "The width or height cannot be read: " + err.Error() + ".", "Write them like 100mm or 4in."}
	}
	if w < 0 || h < 0 || w > 1e5 || h > 1e5 {
		return &Problem{"<svg>", line, fmt.Sprintf("The sheet is %g × %g mm.", w, h), "Give it a real size in mm or inches."}
	}
	px := mmPer["px"]
	m := canvas.Identity.Scale(px, px)
	r.scaled = "96 units to the inch"
	r.stated = wu != "" && wu != "%" && wu != "px" || hu != "" && hu != "%" && hu != "px"
	port := [4]float64{0, 0, w / px, h / px}
	if box, ok, err := viewBox(t); err != nil {
		return &Problem{"<svg>", line, "The viewBox cannot be read.", "It has four numbers: left, top, width, height."}
	} else if ok {
		// A size that is not given follows from the other; with neither, the units
		// are taken for pixels.
		switch {
		case w <= 0 && h <= 0:
			w, h = box[2]*px, box[3]*px
		case h <= 0:
			h = w * box[3] / box[2]
		case w <= 0:
			w = h * box[2] / box[3]
		}
		m, port = viewport(0, 0, w, h, box, attr(t, "preserveAspectRatio")), box
		k := math.Sqrt(math.Abs(m.Det()))
		r.scaled = fmt.Sprintf("%.4g mm to the drawing unit", k)
		if math.Abs(k-px) < 1e-6 {
			r.scaled = "96 units to the inch"
		}
	}
	r.w, r.h = w, h
	st, err := r.inherit(t, state{m: m, port: port, wide: 1}, line)
	if err != nil {
		return err
	}
	if st.unseen != "" {
		return &Problem{"<svg>", line, "The whole drawing is " + st.unseen + ".", "Show it in the drawing program and save it again."}
	}
	return r.children(st)
}

// viewBox reads the view box of an element, if it has one.
func viewBox(t xml.StartElement) (box [4]float64, ok bool, err error) {
	f := strings.FieldsFunc(attr(t, "viewBox"), blank)
	if len(f) == 0 {
		return box, false, nil
	}
	v, err := floats(f)
	if err != nil || len(v) != 4 || v[2] <= 0 || v[3] <= 0 || v[2] > 1e9 || v[3] > 1e9 {
		return box, false, errors.New("not a view box")
	}
	return [4]float64(v), true, nil
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
	if r.elements++; r.elements > mostElements {
		return &Problem{"<" + name + ">", line, fmt.Sprintf("With all its copies the drawing has more than %d elements.", mostElements), "Unlink or delete copies in the drawing program."}
	}
	if r.elements%256 == 0 {
		if err := r.ctx.Err(); err != nil {
			return fmt.Errorf("read the drawing: %w", err)
		}
	}
	switch name {
	case "script":
		return &Problem{"<script>", line, "The drawing holds a script.", "Save it again as plain SVG."}
	case "iframe":
		return &Problem{"<" + name + ">", line, "The drawing holds something that is not a drawing.", "Save it again as plain SVG."}
	case "foreignObject":
		r.note(line, "<foreignObject>", "is not a drawing and was left out")
		return r.skip()
	case "text":
		r.note(line, "<text>", "is text; turn it into outlines to use it")
		return r.skip()
	case "image":
		r.note(line, "<image>", "is a picture and was left out")
		return r.skip()
	case "use":
		return r.use(t, s, line)
	case "symbol":
		if r.uses == 0 || s.size == [2]string{} && r.base == 0 {
			return r.skip() // drawn only where it is used
		}
	case "clipPath", "mask", "pattern", "marker", "defs", "style", "metadata", "title", "desc", "namedview", "linearGradient", "radialGradient", "filter", "animate", "animateTransform", "set":
		return r.skip()
	}
	size := s.size
	s.size = [2]string{}
	st, err := r.inherit(t, s, line)
	if err != nil {
		return err
	}
	if st.unseen != "" {
		r.note(line, "<"+name+label(t, "")+">", "is "+st.unseen+" and was left out")
		return r.skip()
	}
	switch name {
	case "svg", "symbol":
		if st, err = r.within(t, st, size, line); err != nil {
			return err
		}
		if st.unseen != "" {
			return r.skip()
		}
		return r.group(t, st, line)
	case "g", "a", "switch":
		return r.group(t, st, line)
	}
	p, err := outline(t, st)
	if err != nil {
		return &Problem{"<" + name + label(t, "") + ">", line, "The outline cannot be read: " + err.Error() + ".", "Draw it again or leave it out."}
	}
	if p == nil {
		r.note(line, "<"+name+">", "is not an outline and was left out")
		return r.skip()
	}
	if !st.draws() && st.collect == nil {
		r.note(line, "<"+name+label(t, "")+">", "has neither fill nor line, so it draws nothing, and was left out")
		return r.skip()
	}
	if err := r.add(t, st, p, line); err != nil {
		return err
	}
	return r.skip()
}

// within sets up the viewport of a drawing or symbol within the drawing. size is
// what a use gives it.
func (r *reader) within(t xml.StartElement, s state, size [2]string, line int) (state, error) {
	for i, name := range []string{"width", "height"} {
		if size[i] == "" {
			if size[i] = attr(t, name); size[i] == "" || size[i] == "auto" {
				size[i] = "100%"
			}
		}
	}
	w, err1 := amount(size[0], s.port[2])
	h, err2 := amount(size[1], s.port[3])
	x, err3 := s.user(t, "x", 0)
	y, err4 := s.user(t, "y", 0)
	box, has, err5 := viewBox(t)
	if err := errors.Join(err1, err2, err3, err4, err5); err != nil {
		return s, &Problem{"<" + t.Name.Local + label(t, "") + ">", line, "The size or viewBox of a drawing within the drawing cannot be read.", "Ungroup it in the drawing program."}
	}
	if w <= 0 || h <= 0 {
		if w < 0 || h < 0 || size[0] != "100%" {
			s.unseen = "without size"
			return s, nil
		}
		w, h, has = 0, 0, false // nothing is known of the page
	}
	if over := r.index.css.styles(t)["overflow"]; w > 0 && h > 0 && over != "visible" && over != "auto" {
		s = s.cutTo(x, y, w, h, line)
	}
	if !has {
		s.m, s.port = s.m.Translate(x, y), [4]float64{0, 0, w, h}
		return s, nil
	}
	s.m, s.port = s.m.Mul(viewport(x, y, w, h, box, attr(t, "preserveAspectRatio"))), box
	return s, nil
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
	at := "<" + t.Name.Local + label(t, "") + ">"
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
	closed := &canvas.Path{}
	for _, sub := range p.Split() {
		if !sub.Closed() {
			c := sub.Coords()
			gap := c[0].Sub(c[len(c)-1]).Length() * k
			if s.collect == nil && (len(c) < 3 || noFill && gap > 0.2) {
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
	if s.collect != nil {
		s.collect.pieces = append(s.collect.pieces, piece{path: out, evenOdd: s.clipOdd, line: line, element: at})
		return nil
	}
	if wide := s.wide * k; s.stroked && !s.thinStroke && wide > wideLine && !r.thick {
		r.thick = true
		r.note(line, at, fmt.Sprintf("is drawn with a line %.1f mm wide; outlines are taken without the width of their line", wide))
	}
	into := s.into
	if into == nil {
		into = &layer{name: r.name(label(t, "Layer")), line: line}
		r.layers = append(r.layers, into)
	}
	into.pieces = append(into.pieces, piece{out, s.evenOdd, noFill, s.clipped, line, at})
	return nil
}

// wideLine is the width of a line, mm, that is worth a word.
const wideLine = 0.8
