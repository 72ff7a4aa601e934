// Package svgin reads an SVG drawing of a set: each group or path that stands
// for a layer becomes a part with its outline in millimetres.
//
// Understood as a renderer draws it: width, height, viewBox and
// preserveAspectRatio of the drawing, of drawings within it and of symbols; units
// mm, cm, in, pt, pc, px (at 96 to the inch) and percentages; transforms as
// attributes and as properties, with their origin; path, rect, circle, ellipse,
// polygon, polyline; fill rules; clip paths; style sheets with classes; use of
// other elements; lines, as the area they cover, with their caps, corners and dashes: all of
// them on stamps and stencils, those from 0.8 mm on dies; narrower closed lines without
// fill on dies, as the blade's path; dashed lines in the group of a die's
// piece, which are pressed into it. Refused, with the element and line
// named: scripts, entities, links to elsewhere. Passed over with a note: what is
// hidden or draws nothing, text, pictures, masks, a blade's path that is open, outlines drawn twice.
package svgin

import (
	"bytes"
	"context"
	"encoding/xml"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
	"ochrestone/core/words"
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

// Read reads a drawing and proposes an order, hosts and tone ranks.
// The order is that of the drawing, what is drawn first the lowest.
func Read(data []byte, opts ...Option) (Drawing, error) {
	return ReadContext(context.Background(), data, opts...)
}

// Option changes how a drawing is read.
type Option func(*reader)

// Inked reads what a stamp prints or a stencil lets through: a line is an area of its
// own, however narrow, and dashes are areas. Without it the drawing is of dies, whose
// narrow lines are the blade's path.
func Inked() Option { return func(r *reader) { r.inked = true } }

// ReadContext is Read that stops, with the context's error, when the context
// ends.
func ReadContext(ctx context.Context, data []byte, opts ...Option) (d Drawing, err error) {
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
		for _, o := range opts {
			o(next)
		}
		if err := next.run(); err != nil {
			return Drawing{}, err
		}
		next.layers = slices.DeleteFunc(next.layers, func(l *layer) bool {
			if len(l.pieces) == 0 {
				next.note(l.line, l.name, "has no closed outline and was left out")
			}
			return len(l.pieces) == 0
		})
		if r != nil && !r.layers[0].page && len(next.layers) > 1 && !slices.ContainsFunc(next.layers, func(l *layer) bool { return !l.alone || l.named }) {
			r.note(r.layers[0].line, r.layers[0].name, fmt.Sprintf("is one group of %d shapes without names, and was read as one part; take them out of the group, or name each, if each is a part of its own", len(next.layers)))
			break
		}
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
	return Drawing{Parts: motif.InOrder(parts), Notes: notes, W: r.w, H: r.h, Scaled: r.scaled, Stated: r.stated, Odd: odd}, nil
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
			return nil, &Problem{l.name, l.line, words.Capital(err.Error()) + ".", "Simplify it in the drawing program."}
		}
		parts = append(parts, kit.Part{ID: fmt.Sprintf("p%d", len(parts)+1), Label: l.name, Outline: l.path, Lines: l.lines.String(), Copies: 1, Rank: 1})
	}
	if len(parts) == 0 {
		return nil, &Problem{What: "There is no closed outline in the drawing.", Mend: "Draw each layer as a closed shape or a group of closed shapes."}
	}
	return parts, nil
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
