package svgin

import (
	"context"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/tdewolff/canvas"
)

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
	inked    bool  // what is read is printed or painted, so that a line is an area of its own
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
	pen
	invisible bool
	unseen    string    // why the element itself is not seen
	size      [2]string // width and height a use gives what it uses
	clipped   *clipping
	collect   *clipping // outlines go here, within a clip path
	into      *layer
	depth     int
	choose    *bool // within a switch: one of its children was drawn
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
	if s.choose != nil && name != "title" && name != "desc" {
		if *s.choose || !meant(t) {
			return r.skip() // of a switch the first that is meant for its reader is drawn
		}
		*s.choose = true
	}
	s.choose = nil
	if !meant(t) {
		r.note(line, element(t), "is for another language or program and was left out")
		return r.skip()
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
		r.note(line, element(t), "is "+st.unseen+" and was left out")
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
	case "switch":
		st.choose = new(bool)
		return r.group(t, st, line)
	case "g", "a":
		return r.group(t, st, line)
	}
	p, err := outline(t, st)
	if err != nil {
		return &Problem{element(t), line, "The outline cannot be read: " + err.Error() + ".", "Draw it again or leave it out."}
	}
	if p == nil {
		r.note(line, "<"+name+">", "is not an outline and was left out")
		return r.skip()
	}
	if !st.draws() && st.collect == nil {
		r.note(line, element(t), "has neither fill nor line, so it draws nothing, and was left out")
		return r.skip()
	}
	if err := r.add(t, st, p, line); err != nil {
		return err
	}
	return r.skip()
}

// meant reports whether an element is drawn for a reader of English that knows no extensions (SVG 2,
// 5.9, conditional processing).
func meant(t xml.StartElement) bool {
	for _, a := range t.Attr {
		switch a.Name.Local {
		case "requiredExtensions":
			return false
		case "systemLanguage":
			if !slices.ContainsFunc(strings.Split(a.Value, ","), func(l string) bool {
				l = strings.ToLower(strings.TrimSpace(l))
				return l == "en" || strings.HasPrefix(l, "en-")
			}) {
				return false
			}
		}
	}
	return true
}

// group reads a group: at the top, or just inside the page, it is a layer.
func (r *reader) group(t xml.StartElement, s state, line int) error {
	if s.into == nil && s.depth > r.folders {
		s.into = &layer{name: r.name(label(t, "Layer")), line: line, named: named(t), page: page(t)}
		r.layers = append(r.layers, s.into)
	}
	return r.children(s)
}
