package look

import (
	"fmt"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"slices"
)

// Line is an outline over a coloured layer, printed before or after it.
type Line struct {
	First     string  `json:"first" doc:"dried colour of the line when it is printed first, #rrggbb"`
	FirstDiff float64 `json:"firstDiff" doc:"CIEDE2000 between that and the colour round it"`
	LastDiff  float64 `json:"lastDiff" doc:"the same when the line is printed last, as the layers stand"`
	Soft      bool    `json:"soft,omitempty" doc:"what it lies over is shaded softly, or in several tones without a line"`
	Say       string  `json:"say" doc:"which is better, and why"`
}

// lineWidth is the mean width, mm, up to which a print is an outline; our own
// default.
const lineWidth = 1.2

// hides is the hiding power past which an ink dulls what is beneath it; our own
// default.
const hides = 0.1

// IsLine reports whether a layer is a print of lines rather than areas.
func IsLine(v motif.View) bool {
	w := MeanWidth(v)
	return v.Layer.Make != card.Cut && w > 0 && w <= lineWidth
}

// MeanWidth is the mean width of a layer's strokes, mm: twice its area over the length of
// its outline.
func MeanWidth(v motif.View) float64 {
	l := v.Outline.Length()
	if l <= 0 {
		return 0
	}
	return 2 * v.Outline.Area() / l
}

// soft reports whether what a line lies over is shaded softly: it has inks blended into zones of it, or
// further tones that lie on it without a line of their own.
func soft(m Image, w card.Colourway, line int) bool {
	v := m.Shapes.Views[line]
	if slices.ContainsFunc(w.Layers[m.Shapes.Views[v.Host].Layer.ID].Blends, func(b card.Blend) bool { return b.Zone != card.AllOver }) {
		return true
	}
	for i, o := range m.Shapes.Views {
		if i != line && o.Host == v.Host && o.Layer.Make != card.Cut && !IsLine(o) && w.Layers[o.Layer.ID].First() != "" && o.Outline.Overlaps(v.Outline) {
			return true
		}
	}
	return false
}

// line compares an outline printed last, as the layers stand, with the same
// printed first and coloured over. Nil where there is no colour to go under.
func (s Stock) line(m Image, w card.Colourway, i int, last colour.Linear, on colour.Linear) *Line {
	v := m.Shapes.Views[i]
	if v.Host < 0 || !IsLine(v) {
		return nil
	}
	mine, ok1 := s.ink[w.Layers[v.Layer.ID].Ink]
	host := m.Shapes.Views[v.Host]
	hf := w.Layers[host.Layer.ID]
	over, ok2 := s.ink[hf.Ink]
	if !ok1 || !ok2 {
		return nil
	}
	pen, _, err1 := s.Film(mine)
	wash, _, err2 := s.Film(over)
	if err1 != nil || err2 != nil {
		return nil
	}
	bare := s.PaperColour(m.Ground)
	if host.Layer.Make == card.Cut {
		bare = s.PaperColour(hf.Paper)
	}
	first := wash.Over(pen.Over(bare, w.Layers[v.Layer.ID].Strikes()), hf.Strikes())
	out := &Line{First: first.Hex(), FirstDiff: colour.Difference(first.Lab(), on.Lab()), LastDiff: colour.Difference(last.Lab(), on.Lab()), Soft: soft(m, w, i)}
	switch {
	case mine.Kind != kit.Waterproof && mine.Kind != kit.Pigment && (over.Water || over.Kind == kit.Watercolor || over.Kind == kit.Alcohol):
		out.Say = fmt.Sprintf("Print it last: %s may run under %s. Or take a waterproof ink and let it dry.", mine.Name, over.Name)
	case out.Soft && out.LastDiff > out.FirstDiff+3:
		out.Say = fmt.Sprintf("Printed last it stands out more, but it covers the soft shading of %s and cannot be taken off again; printed first, the shading lies over it. Look at both, then decide.", host.Layer.Label)
	case out.LastDiff > out.FirstDiff+3 && wash.Hide > hides:
		out.Say = fmt.Sprintf("Print it last: %s hides some of a line beneath it.", over.Name)
	case out.LastDiff > out.FirstDiff+3:
		out.Say = "Print it last: the line stands out more on top of the colour."
	case out.FirstDiff > out.LastDiff+3:
		out.Say = "Print it first: the line stands out more under the colour."
	default:
		out.Say = "Either way it reads alike; first guides the colouring, last hides its edge."
	}
	return out
}
