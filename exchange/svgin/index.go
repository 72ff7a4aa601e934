package svgin

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"strings"

	"ochrestone/core/shape"
)

// index is what is known of a drawing before its layers are read: where each
// named element stands, and what its style sheets say.
type index struct {
	data []byte
	at   map[string]span // by id
	css  sheet
}

// span is the part of the file an element takes up, and its line.
type span struct {
	from, to int64
	line     int
}

// newIndex reads through the drawing once. What is not well formed is left for
// the reader to report.
func newIndex(data []byte) *index {
	x := &index{data: data, at: map[string]span{}}
	dec := xml.NewDecoder(bytes.NewReader(data))
	type open struct {
		id   string
		from int64
		line int
	}
	var stack []open
	style := false
	for {
		from := dec.InputOffset()
		line, _ := dec.InputPos()
		tok, err := dec.Token()
		if err != nil {
			return x
		}
		switch t := tok.(type) {
		case xml.StartElement:
			o := open{from: from, line: line}
			for _, a := range t.Attr {
				if a.Name.Local == "id" && a.Name.Space == "" {
					o.id = a.Value
				}
			}
			stack = append(stack, o)
			style = t.Name.Local == "style"
		case xml.CharData:
			if style {
				x.css.read(string(t))
			}
		case xml.EndElement:
			style = false
			if n := len(stack); n > 0 {
				if o := stack[n-1]; o.id != "" {
					if _, twice := x.at[o.id]; !twice {
						x.at[o.id] = span{o.from, dec.InputOffset(), o.line}
					}
				}
				stack = stack[:n-1]
			}
		}
	}
}

// How far copies may lead on to copies, and how many elements may be read in all:
// ten levels of ten copies each would never end.
const (
	mostUses     = 12
	mostElements = 60_000
)

// use draws the element another one points at, in its place.
func (r *reader) use(t xml.StartElement, s state, line int) error {
	ref := ""
	for _, a := range t.Attr {
		if a.Name.Local == "href" {
			ref = strings.TrimPrefix(strings.TrimSpace(a.Value), "#")
		}
	}
	at, ok := r.index.at[ref]
	if !ok {
		r.note(line, "<use>", fmt.Sprintf("repeats %q, which is not in the drawing, and was left out", ref))
		return r.skip()
	}
	if r.uses++; r.uses > mostUses || at.from <= r.dec.InputOffset()+r.base && r.dec.InputOffset()+r.base <= at.to {
		return &Problem{"<use>", line, "The drawing repeats itself within itself.", "Unlink the copies in the drawing program."}
	}
	st, err := r.inherit(t, s, line)
	if err != nil {
		return err
	}
	if st.unseen != "" {
		r.uses--
		r.note(line, "<use>", "is "+st.unseen+" and was left out")
		return r.skip()
	}
	x, err1 := st.user(t, "x", 0)
	y, err2 := st.user(t, "y", 0)
	if err1 != nil || err2 != nil {
		return &Problem{"<use>", line, "The place of the copy cannot be read.", "Unlink it in the drawing program."}
	}
	st.m = st.m.Translate(x, y)
	if st.into == nil && st.depth > r.folders {
		st.into = &layer{name: r.name(label(t, ref)), line: line}
		r.layers = append(r.layers, st.into)
	}
	if err := r.skip(); err != nil {
		return err
	}
	// A symbol or a drawing within takes the size of the one that uses it.
	st.size = [2]string{attr(t, "width"), attr(t, "height")}
	defer func() { r.uses-- }()
	return r.at(at, func(e xml.StartElement) error { return r.element(e, st) })
}

// at reads the element that stands elsewhere in the drawing, then comes back.
func (r *reader) at(at span, read func(e xml.StartElement) error) error {
	dec, base, lines := r.dec, r.base, r.lines
	r.dec, r.base, r.lines = xml.NewDecoder(bytes.NewReader(r.index.data[at.from:at.to])), at.from, at.line-1
	defer func() { r.dec, r.base, r.lines = dec, base, lines }()
	for {
		tok, err := r.dec.Token()
		if err != nil {
			return r.xmlProblem(err)
		}
		if e, ok := tok.(xml.StartElement); ok {
			return read(e)
		}
	}
}

// twinSlack is how near, mm, outlines must run to be one drawn twice.
const twinSlack = 0.06

// drawnTwice reports whether two outlines are one and the same.
func drawnTwice(g, h shape.Region) bool {
	a, b := g.Bounds(), h.Bounds()
	if a.Min.Distance(b.Min) > 3*twinSlack || a.Max.Distance(b.Max) > 3*twinSlack || len(g.Rings()) != len(h.Rings()) {
		return false
	}
	for _, d := range g.Strays(h, 1) {
		if d > 2*twinSlack {
			return false
		}
	}
	return true
}

// Oddly small and oddly large sets, mm.
const (
	oddSmall = 12.0
	oddLarge = 350.0
)

// Rescale is a change of scale that would make sense of a drawing.
type Rescale struct {
	Factor float64
	Why    string
}

// rescales offers the mistakes of scale drawings are known for.
func rescales(w, h float64, stated bool) (out []Rescale) {
	size := max(w, h)
	offer := func(f float64, why string) {
		if s := size * f; s >= oddSmall && s <= oddLarge {
			out = append(out, Rescale{f, why})
		}
	}
	switch {
	case size < oddSmall:
		offer(25.4, "its inches were written as millimetres")
		offer(96/25.4, "its pixels were written as millimetres, 96 to the inch")
		offer(10, "its centimetres were written as millimetres")
	case size > oddLarge:
		offer(1/25.4, "its millimetres were written as inches")
		offer(25.4/96, "its pixels were taken for millimetres, 96 to the inch")
		offer(25.4/72, "its points were taken for millimetres, 72 to the inch")
	case !stated:
		offer(96.0/72, "its program counts 72 units to the inch")
		offer(96.0/90, "its program counts 90 units to the inch")
		offer(96/25.4, "its units are millimetres")
	}
	return out
}
