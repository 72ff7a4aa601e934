package svgin

import (
	"encoding/xml"
	"errors"
	"fmt"
	"math"
	"strings"

	"github.com/tdewolff/canvas"
)

// mmPer is the length of a unit in mm; px are 96 to the inch (CSS).
var mmPer = map[string]float64{"mm": 1, "cm": 10, "in": 25.4, "pt": 25.4 / 72, "pc": 25.4 / 6, "px": 25.4 / 96, "": 25.4 / 96, "q": 0.25}

// length reads "100mm" into mm; "" and percentages give zero.
func length(s string) (mm float64, unit string, err error) {
	if s == "" || s == "auto" {
		return 0, "%", nil
	}
	i := strings.LastIndexAny(s, "0123456789.")
	unit = strings.ToLower(strings.TrimSpace(s[i+1:]))
	v, err := floats([]string{strings.TrimSpace(s[:i+1])})
	if err != nil {
		return 0, unit, err
	}
	if unit == "%" {
		return 0, unit, nil
	}
	k, ok := mmPer[unit]
	if !ok {
		return 0, unit, fmt.Errorf("%q is not a unit", unit)
	}
	return v[0] * k, unit, nil
}

// user reads a coordinate or size of a shape in user units; a percentage counts of
// the width, the height, or the mean of both of the nearest viewport (SVG 1.1,
// 7.10).
func (s state) user(t xml.StartElement, name string, or float64) (float64, error) {
	v := attr(t, name)
	if v == "" || v == "auto" {
		return or, nil
	}
	of := s.port[2]
	switch name {
	case "y", "height", "cy", "ry", "y1", "y2":
		of = s.port[3]
	case "r":
		of = math.Hypot(s.port[2], s.port[3]) / math.Sqrt2
	}
	out, err := amount(v, of)
	if err != nil {
		return 0, fmt.Errorf("%s is %q", name, v)
	}
	return out, nil
}

// boxOf is the box of a shape in its own user units, before its transform.
func boxOf(t xml.StartElement, s state) (box [4]float64, ok bool) {
	p, err := outline(t, s)
	if err != nil || p == nil || p.Empty() {
		return box, false
	}
	b := p.Bounds()
	return [4]float64{b.X0, b.Y0, b.X1 - b.X0, b.Y1 - b.Y0}, true
}

// outline returns the path of a shape element, nil for elements that are none.
func outline(t xml.StartElement, s state) (*canvas.Path, error) {
	get := func(names ...string) ([]float64, error) {
		out := make([]float64, len(names))
		for i, n := range names {
			v, err := s.user(t, n, 0)
			if err != nil {
				return nil, err
			}
			out[i] = v
		}
		return out, nil
	}
	switch t.Name.Local {
	case "path":
		return pathData(attr(t, "d"))
	case "rect":
		v, err := get("x", "y", "width", "height", "rx", "ry")
		if err != nil {
			return nil, err
		}
		if v[2] <= 0 || v[3] <= 0 {
			return nil, fmt.Errorf("the rectangle is %g × %g", v[2], v[3])
		}
		return rect(v[0], v[1], v[2], v[3], v[4], v[5], attr(t, "rx") != "", attr(t, "ry") != ""), nil
	case "circle":
		v, err := get("cx", "cy", "r")
		if err != nil {
			return nil, err
		}
		if v[2] <= 0 {
			return nil, fmt.Errorf("the radius is %g", v[2])
		}
		return canvas.Circle(v[2]).Translate(v[0], v[1]), nil
	case "ellipse":
		v, err := get("cx", "cy", "rx", "ry")
		if err != nil {
			return nil, err
		}
		if v[2] <= 0 || v[3] <= 0 {
			return nil, fmt.Errorf("the radii are %g and %g", v[2], v[3])
		}
		return canvas.Ellipse(v[2], v[3]).Translate(v[0], v[1]), nil
	case "line":
		v, err := get("x1", "y1", "x2", "y2")
		if err != nil {
			return nil, err
		}
		p := &canvas.Path{}
		p.MoveTo(v[0], v[1])
		p.LineTo(v[2], v[3])
		return p, nil
	case "polygon", "polyline":
		v, err := floats(strings.FieldsFunc(attr(t, "points"), blank))
		if err != nil {
			return nil, err
		}
		if len(v) < 4 || len(v)%2 != 0 {
			return nil, fmt.Errorf("%d numbers do not make corners", len(v))
		}
		p := &canvas.Path{}
		for i := 0; i < len(v); i += 2 {
			if i == 0 {
				p.MoveTo(v[0], v[1])
			} else {
				p.LineTo(v[i], v[i+1])
			}
		}
		if t.Name.Local == "polygon" {
			p.Close()
		}
		return p, nil
	}
	return nil, nil
}

func pathData(d string) (p *canvas.Path, err error) {
	defer func() {
		if r := recover(); r != nil {
			p, err = nil, errors.New("the path data is broken")
		}
	}()
	if strings.TrimSpace(d) == "" {
		return &canvas.Path{}, nil
	}
	if c := strings.TrimSpace(d)[0]; c != 'M' && c != 'm' {
		return nil, errors.New("path data begins with M")
	}
	if p, err = canvas.ParseSVGPath(d); err != nil {
		return nil, fmt.Errorf("path data: %w", err)
	}
	return p, nil
}

func rect(x, y, w, h, rx, ry float64, hasX, hasY bool) *canvas.Path {
	if !hasX {
		rx = ry
	}
	if !hasY {
		ry = rx
	}
	rx, ry = math.Min(math.Max(rx, 0), w/2), math.Min(math.Max(ry, 0), h/2)
	p := &canvas.Path{}
	if rx == 0 || ry == 0 {
		p.MoveTo(x, y)
		p.LineTo(x+w, y)
		p.LineTo(x+w, y+h)
		p.LineTo(x, y+h)
		p.Close()
		return p
	}
	p.MoveTo(x+rx, y)
	p.LineTo(x+w-rx, y)
	p.ArcTo(rx, ry, 0, false, true, x+w, y+ry)
	p.LineTo(x+w, y+h-ry)
	p.ArcTo(rx, ry, 0, false, true, x+w-rx, y+h)
	p.LineTo(x+rx, y+h)
	p.ArcTo(rx, ry, 0, false, true, x, y+h-ry)
	p.LineTo(x, y+ry)
	p.ArcTo(rx, ry, 0, false, true, x+rx, y)
	p.Close()
	return p
}
