package svgin

import (
	"encoding/xml"
	"fmt"
	"strings"

	"github.com/tdewolff/canvas"

	"ochrestone/core/shape"
)

// clipping is a region outside of which nothing of an element shows; clippings
// nest. It is worked out when the first outline is cut by it.
type clipping struct {
	outer  *clipping
	pieces []piece // in mm; united
	line   int
	done   bool
	region shape.Region
	err    error
}

// of is the region, cut by those around it.
func (c *clipping) of() (shape.Region, error) {
	if c.done {
		return c.region, c.err
	}
	c.done = true
	var gs []shape.Region
	for _, p := range c.pieces {
		g, err := p.settle()
		if err != nil {
			c.err = err
			return c.region, err
		}
		gs = append(gs, g)
	}
	if c.region, c.err = shape.UnionAll(gs...); c.err != nil || c.outer == nil {
		return c.region, c.err
	}
	out, err := c.outer.of()
	if err != nil {
		c.err = err
		return c.region, err
	}
	c.region, c.err = c.region.Intersect(out)
	return c.region, c.err
}

// clip reads the clip path an element names: what lies outside of it is not drawn.
func (r *reader) clip(t xml.StartElement, s *state, named string, line int) error {
	at := element(t)
	ref := strings.TrimSpace(named)
	if i := strings.Index(ref, "url("); i >= 0 {
		ref = strings.Trim(strings.TrimSuffix(strings.TrimSpace(ref[i+4:]), ")"), ` "'`)
	}
	where, ok := r.index.at[strings.TrimPrefix(ref, "#")]
	if !ok || !strings.HasPrefix(ref, "#") {
		r.note(line, at, fmt.Sprintf("is cut by %q, which cannot be followed; it was taken whole", named))
		return nil
	}
	if r.uses++; r.uses > mostUses {
		return &Problem{at, line, "The drawing cuts itself by itself.", "Apply the clip path in the drawing program."}
	}
	defer func() { r.uses-- }()
	c := &clipping{outer: s.clipped, line: line}
	err := r.at(where, func(e xml.StartElement) error {
		if e.Name.Local != "clipPath" {
			r.note(line, at, fmt.Sprintf("is cut by %q, which is no clip path; it was taken whole", named))
			c = nil
			return nil
		}
		st := state{m: s.m, port: s.port, collect: c, pen: plainPen}
		if attr(e, "clipPathUnits") == "objectBoundingBox" {
			b, ok := boxOf(t, *s)
			if !ok {
				r.note(line, at, "is cut by a clip path of its own box, which is not followed; it was taken whole")
				c = nil
				return nil
			}
			st.m = st.m.Translate(b[0], b[1]).Scale(b[2], b[3])
		}
		st, err := r.inherit(e, st, line)
		if err != nil {
			return err
		}
		if st.clipped != nil && c.outer == nil {
			c.outer = st.clipped
		} else if st.clipped != nil {
			c.outer = &clipping{outer: c.outer, pieces: st.clipped.pieces, line: line}
		}
		st.clipped = nil
		return r.children(st)
	})
	if err != nil {
		return err
	}
	if c != nil {
		s.clipped = c
	}
	return nil
}

// cutTo is the state within a viewport that hides what sticks out of it.
func (s state) cutTo(x, y, w, h float64, line int) state {
	p := (&canvas.Path{}).Append(rect(x, y, w, h, 0, 0, false, false)).Transform(s.m)
	s.clipped = &clipping{outer: s.clipped, pieces: []piece{{path: p}}, line: line}
	return s
}
