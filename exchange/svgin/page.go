package svgin

import (
	"encoding/xml"
	"errors"
	"fmt"
	"math"
	"strings"

	"github.com/tdewolff/canvas"
)

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
	st, err := r.inherit(t, state{m: m, port: port, pen: plainPen}, line)
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
		return s, &Problem{element(t), line, "The size or viewBox of a drawing within the drawing cannot be read.", "Ungroup it in the drawing program."}
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
