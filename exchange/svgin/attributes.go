package svgin

import (
	"encoding/xml"
	"fmt"
	"math"
	"strconv"
	"strings"

	"github.com/tdewolff/canvas"
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

// inherit applies the transform, the style sheets and the style of an element.
func (r *reader) inherit(t xml.StartElement, s state, line int) (state, error) {
	css := r.index.css.styles(t)
	at := element(t)
	move := css["transform"]
	if move == "" {
		move = attr(t, "transform")
	}
	if move == "none" {
		move = ""
	}
	move = strings.TrimSpace(moved(css) + " " + move)
	if move != "" {
		box := [4]float64{s.port[0], s.port[1], s.port[2], s.port[3]}
		if css["transform-box"] == "fill-box" || css["transform-box"] == "content-box" {
			if b, ok := boxOf(t, s); ok {
				box = b
			} else {
				r.note(line, at, "turns or scales about its own box, which is taken as the page's")
			}
		}
		m, err := transform(move, box[2], box[3])
		if err != nil {
			return s, &Problem{at, line, "The transform cannot be read: " + err.Error() + ".", "Apply the transform in the drawing program."}
		}
		from := css["transform-origin"]
		if from == "" {
			from = attr(t, "transform-origin")
		}
		if from != "" || css["transform-box"] == "fill-box" {
			if from == "" {
				from = "center"
			}
			x, y, err := origin(from, box)
			if err != nil {
				return s, &Problem{at, line, "The transform-origin cannot be read: " + err.Error() + ".", "Apply the transform in the drawing program."}
			}
			m = canvas.Identity.Translate(x, y).Mul(m).Translate(-x, -y)
		}
		s.m = s.m.Mul(m)
	}
	s.unseen = ""
	for k, v := range css {
		if v == "inherit" {
			continue
		}
		switch k {
		case "fill":
			s.noFill = clear(v)
		case "fill-opacity":
			s.thinFill = share(v) == 0
		case "stroke":
			s.stroked = !clear(v)
		case "stroke-dasharray":
			s.dashes = dashes(v)
		case "stroke-dashoffset":
			if d, err := amount(v, 0); err == nil {
				s.from = d
			}
		case "stroke-linecap":
			s.cap = v
		case "stroke-linejoin":
			s.join = v
		case "stroke-miterlimit":
			if l, err := strconv.ParseFloat(v, 64); err == nil && l >= 1 {
				s.miter = l
			}
		case "stroke-opacity":
			s.thinStroke = share(v) == 0
		case "stroke-width":
			if w, err := amount(v, 0); err == nil {
				s.wide, s.given = w, true
			}
		case "fill-rule":
			s.evenOdd = v == "evenodd"
		case "clip-rule":
			s.clipOdd = v == "evenodd"
		case "visibility":
			s.invisible = v == "hidden" || v == "collapse"
		}
	}
	switch {
	case css["display"] == "none" || s.invisible && t.Name.Local != "g":
		s.unseen = "hidden"
	case css["opacity"] != "" && share(css["opacity"]) == 0:
		s.unseen = "wholly transparent"
	}
	if m := css["mask"]; m != "" && m != "none" {
		r.note(line, at, "is masked; it was taken whole")
	}
	if c := css["clip-path"]; c != "" && c != "none" {
		if err := r.clip(t, &s, c, line); err != nil {
			return s, err
		}
	}
	return s, nil
}

// draws reports whether a shape leaves anything on the paper.
func (s state) draws() bool {
	return !s.noFill && !s.thinFill || s.stroked && !s.thinStroke && s.wide != 0
}

// clear tells a colour that leaves nothing.
func clear(v string) bool {
	v = strings.ToLower(strings.Join(strings.Fields(v), ""))
	if v == "none" || v == "transparent" {
		return true
	}
	if strings.HasPrefix(v, "rgba(") || strings.HasPrefix(v, "hsla(") || strings.HasPrefix(v, "rgb(") && strings.Contains(v, "/") {
		i := strings.LastIndexAny(v, ",/")
		return share(strings.TrimSuffix(v[i+1:], ")")) == 0
	}
	return len(v) == 9 && v[0] == '#' && v[7:] == "00" || len(v) == 5 && v[0] == '#' && v[4] == '0'
}

// share reads a share, 0.5 or 50%; what cannot be read is all.
func share(v string) float64 {
	k := 1.0
	if w := strings.TrimSuffix(v, "%"); w != v {
		v, k = w, 0.01
	}
	f, err := strconv.ParseFloat(strings.TrimSpace(v), 64)
	if err != nil {
		return 1
	}
	return f * k
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
