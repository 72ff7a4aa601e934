package svgin

import (
	"encoding/xml"
	"fmt"
	"math"
	"strconv"
	"strings"
)

// refuse turns away links to elsewhere and event handlers.
func refuse(t xml.StartElement, line int) error {
	for _, a := range t.Attr {
		n, v := strings.ToLower(a.Name.Local), strings.TrimSpace(a.Value)
		switch {
		case strings.HasPrefix(n, "on"):
			return &Problem{"<" + t.Name.Local + ">", line, "The drawing holds a script (" + n + ").", "Save it again as plain SVG."}
		case n == "href" && v != "" && !strings.HasPrefix(v, "#") && t.Name.Local != "a":
			if strings.HasPrefix(v, "data:image/") && t.Name.Local == "image" {
				continue
			}
			return &Problem{"<" + t.Name.Local + ">", line, "The drawing links to another file.", "Embed it or take it out."}
		case strings.Contains(strings.ToLower(v), "url(http") || strings.Contains(strings.ToLower(v), "javascript:"):
			return &Problem{"<" + t.Name.Local + ">", line, "The drawing links to another place.", "Take the link out."}
		}
	}
	return nil
}

// inherit applies transform, style and presentation attributes.
func (r *reader) inherit(t xml.StartElement, s state, line int) (state, error) {
	if v := attr(t, "transform"); v != "" {
		m, err := transform(v)
		if err != nil {
			return s, &Problem{"<" + t.Name.Local + label(t, "") + ">", line, "The transform cannot be read: " + err.Error() + ".", "Apply the transform in the drawing program."}
		}
		s.m = s.m.Mul(m)
	}
	set := func(k, v string) {
		switch k {
		case "fill":
			s.noFill = v == "none" || v == "transparent"
		case "fill-rule":
			s.evenOdd = v == "evenodd"
		case "display":
			s.hidden = s.hidden || v == "none"
		case "visibility":
			s.hidden = v == "hidden" || v == "collapse"
		}
	}
	for _, k := range []string{"fill", "fill-rule", "display", "visibility"} {
		if v := attr(t, k); v != "" {
			set(k, v)
		}
	}
	for _, d := range append(r.index.styles(t), declarations(attr(t, "style"))...) {
		set(d[0], d[1])
	}
	return s, nil
}

func floats(f []string) ([]float64, error) {
	out := make([]float64, len(f))
	for i, s := range f {
		v, err := strconv.ParseFloat(s, 64)
		if err != nil || math.IsNaN(v) || math.IsInf(v, 0) {
			return nil, fmt.Errorf("%q is not a number", s)
		}
		out[i] = v
	}
	return out, nil
}
