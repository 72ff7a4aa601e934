// Package mat is the measuring mat: a page printed at true size whose marks
// tell a photograph's scale, tilt and lens bending, so that what lies on it
// can be measured.
package mat

import (
	"ochrestone/core/colour"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Mark is a ring of the mat, in mm from the top left of the page.
type Mark struct {
	At    shape.Point
	Outer float64 // radius of the dark ring's outer edge
	Inner float64 // radius of its inner edge
	Dot   float64 // radius of the dot in its middle; 0 for a plain ring
}

// Patch is a field of the colour strip.
type Patch struct {
	Box    shape.Box
	Colour colour.Linear
}

// Layout is the geometry of a mat. The four corner marks have a dot; so has
// the second mark of the top side, which tells which way up it lies.
type Layout struct {
	Page    measure.Size
	Dark    bool      // the field is printed dark, for light pieces
	Marks   []Mark    // the corners first: top left, top right, bottom right, bottom left; then the mark that tells the top
	Field   shape.Box // where pieces go
	Patches []Patch
}

// Distances on the mat, mm.
const (
	edge       = 13.0 // centres of the marks from the edge of the page
	fieldInset = 22.0
	spacing    = 24.0 // of the marks along a side, about
)

// For lays out the mat on a page.
func For(page measure.Size, dark bool) Layout {
	l := Layout{Page: page, Dark: dark}
	w, h := page.W, page.H
	bull := func(x, y float64) { l.Marks = append(l.Marks, Mark{shape.Point{X: x, Y: y}, 5, 3.4, 1.7}) }
	ring := func(x, y float64) { l.Marks = append(l.Marks, Mark{shape.Point{X: x, Y: y}, 3.2, 1.7, 0}) }
	bull(edge, edge)
	bull(w-edge, edge)
	bull(w-edge, h-edge)
	bull(edge, h-edge)
	nx, ny := int((w-2*edge)/spacing+0.5), int((h-2*edge)/spacing+0.5)
	dx, dy := (w-2*edge)/float64(nx), (h-2*edge)/float64(ny)
	bull(edge+dx, edge)
	for i := 1; i < nx; i++ {
		if i > 1 {
			ring(edge+float64(i)*dx, edge)
		}
		ring(edge+float64(i)*dx, h-edge)
	}
	for j := 1; j < ny; j++ {
		ring(edge, edge+float64(j)*dy)
		ring(w-edge, edge+float64(j)*dy)
	}
	l.Field = shape.Box{Min: shape.Point{X: fieldInset, Y: fieldInset}, Max: shape.Point{X: w - fieldInset, Y: h - fieldInset}}
	// Grey steps, then six hues at two depths: our own strip.
	tones := []colour.Linear{{0.85, 0.85, 0.85}, {0.58, 0.58, 0.58}, {0.36, 0.36, 0.36}, {0.19, 0.19, 0.19}, {0.08, 0.08, 0.08}, {0.02, 0.02, 0.02},
		{0.55, 0.10, 0.10}, {0.60, 0.42, 0.05}, {0.14, 0.40, 0.12}, {0.08, 0.34, 0.42}, {0.12, 0.13, 0.45}, {0.42, 0.12, 0.36}}
	const pw, ph = 9.0, 3.2
	x := (w - pw*float64(len(tones))) / 2
	for i, t := range tones {
		b := shape.Box{Min: shape.Point{X: x + pw*float64(i), Y: h - fieldInset + 1}}
		b.Max = b.Min.Add(shape.Point{X: pw, Y: ph})
		l.Patches = append(l.Patches, Patch{b, t})
	}
	return l
}

// Ink is everything of the mat that is printed in black: its rings and dots,
// and the field when it is dark.
func (l Layout) Ink() []shape.Region {
	var out []shape.Region
	for _, m := range l.Marks {
		out = append(out, shape.RingDisc(m.At, m.Outer, m.Inner))
		if m.Dot > 0 {
			out = append(out, shape.Disc(m.At, m.Dot))
		}
	}
	if l.Dark {
		out = append(out, shape.Rect(l.Field.Min.X, l.Field.Min.Y, l.Field.W(), l.Field.H()))
	}
	return out
}
