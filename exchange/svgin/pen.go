package svgin

import (
	"strings"

	"github.com/tdewolff/canvas"
)

// pen is how a line is drawn.
type pen struct {
	wide      float64 // user units
	given     bool    // the drawing says how wide
	cap, join string
	miter     float64
	dashes    []float64 // user units; none for a line without gaps
	from      float64   // how far into the dashes the line begins
}

// plainPen is the line of an element that says nothing of it (SVG 1.1, 11.4).
var plainPen = pen{wide: 1, miter: 4}

// Widths of a line, mm.
const (
	// wideLine is the width from which a line is an area on a die too; a narrower one is
	// the path of the blade.
	wideLine = 0.8
	// hairline is the width below which a closed line is an outline whatever it is for, as
	// programs write outlines they do not mean to be seen.
	hairline = 0.1
)

// asArea reports whether a line of this width, mm, is an area of its own. On a die only
// one whose width somebody chose is.
func (r *reader) asArea(s state, wide float64) bool {
	return wide >= wideLine && s.given || r.inked && wide >= hairline
}

// dashes reads a list of dashes and gaps; none where the line has no gaps.
func dashes(v string) []float64 {
	var out []float64
	sum := 0.0
	for _, f := range strings.FieldsFunc(v, blank) {
		d, err := amount(f, 0)
		if err != nil || d < 0 {
			return nil
		}
		out, sum = append(out, d), sum+d
	}
	if sum == 0 {
		return nil
	}
	return out
}

// stroke is the area a line covers, in the path's own units and true to tolerance. Open
// lines count as well as closed ones.
func (p pen) stroke(path *canvas.Path, tolerance float64) *canvas.Path {
	var end canvas.Capper = canvas.ButtCap
	switch p.cap {
	case "round":
		end = canvas.RoundCap
	case "square":
		end = canvas.SquareCap
	}
	var corner canvas.Joiner = canvas.MiterJoiner{GapJoiner: canvas.BevelJoin, Limit: p.miter}
	switch p.join {
	case "round":
		corner = canvas.RoundJoin
	case "bevel":
		corner = canvas.BevelJoin
	}
	if len(p.dashes) > 0 {
		path = path.Dash(p.from, p.dashes...)
	}
	return path.Stroke(p.wide, end, corner, tolerance)
}
