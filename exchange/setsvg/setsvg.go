// Package setsvg writes sets as SVG drawings in millimetres: filled shapes to
// look at and bring back in, or cut lines for an electronic cutter.
package setsvg

import (
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"strings"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Option changes what is written.
type Option func(*writer)

// CutLines writes hairlines without fill, as cutters want them.
func CutLines() Option { return func(w *writer) { w.cut = true } }

// Only writes one part.
func Only(id string) Option { return func(w *writer) { w.only = id } }

// Apart lays the parts side by side instead of stacked, so that a cutter does
// not cut them over each other.
func Apart() Option { return func(w *writer) { w.apart = true } }

type writer struct {
	cut, apart bool
	only       string
}

// margin round the drawing and between parts laid apart, mm.
const margin = 3.0

// Write writes a set. Every part is a group with its label, which this
// program reads back as a layer.
func Write(out io.Writer, set kit.Set, opts ...Option) error {
	w := &writer{}
	for _, o := range opts {
		o(w)
	}
	type placed struct {
		part kit.Part
		by   shape.Point
	}
	var parts []placed
	box := shape.Box{Min: shape.Point{X: math.Inf(1), Y: math.Inf(1)}, Max: shape.Point{X: math.Inf(-1), Y: math.Inf(-1)}}
	x := 0.0
	for _, p := range set.Parts {
		if w.only != "" && p.ID != w.only {
			continue
		}
		b := p.Outline.Bounds()
		var by shape.Point
		if w.apart {
			by = shape.Point{X: x - b.Min.X, Y: -b.Min.Y}
			x += b.W() + margin
		}
		parts = append(parts, placed{p, by})
		lo, hi := b.Min.Add(by), b.Max.Add(by)
		box.Min = shape.Point{X: math.Min(box.Min.X, lo.X), Y: math.Min(box.Min.Y, lo.Y)}
		box.Max = shape.Point{X: math.Max(box.Max.X, hi.X), Y: math.Max(box.Max.Y, hi.Y)}
	}
	if len(parts) == 0 {
		return fmt.Errorf("write set %q: %w", set.Name, ErrNoPart)
	}
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%.3fmm" height="%.3fmm" viewBox="%.3f %.3f %.3f %.3f">`+"\n",
		box.W()+2*margin, box.H()+2*margin, box.Min.X-margin, box.Min.Y-margin, box.W()+2*margin, box.H()+2*margin)
	fmt.Fprintf(&b, "<title>%s</title>\n", escape(set.Name))
	for i, p := range parts {
		style := fmt.Sprintf(`fill="#%02x%02x%02x" fill-rule="evenodd"`, 70+i*160/max(1, len(parts)), 70+i*160/max(1, len(parts)), 70+i*160/max(1, len(parts)))
		if w.cut {
			style = `fill="none" stroke="#000000" stroke-width="0.01"`
		}
		fmt.Fprintf(&b, `<g id="%s" data-name="%s"><path %s d="%s"/>`, escape(p.part.ID), escape(p.part.Label), style, path(p.part.Outline.Move(p.by)))
		if p.part.Lines != "" {
			// Pressed and stitched lines are not cut: they are dashed, and are read so again.
			fmt.Fprintf(&b, `<path fill="none" stroke="#9a2f2b" stroke-width="0.1" stroke-dasharray="1 0.6" transform="translate(%.3f %.3f)" d="%s"/>`, p.by.X, p.by.Y, escape(p.part.Lines))
		}
		b.WriteString("</g>\n")
	}
	b.WriteString("</svg>\n")
	if _, err := io.WriteString(out, b.String()); err != nil {
		return fmt.Errorf("write set %q: %w", set.Name, err)
	}
	return nil
}

// ErrNoPart is returned when there is nothing to write.
var ErrNoPart = fmt.Errorf("there is no such part")

func path(g shape.Region) string {
	t, _ := g.MarshalText() // cannot fail
	return string(t)
}

func escape(s string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(s)) // a Builder takes everything
	return b.String()
}
