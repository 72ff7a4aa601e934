package svgin

import (
	"fmt"
	"math"
	"strings"

	"github.com/tdewolff/canvas"
)

// blank tells the characters that part numbers in a list.
func blank(r rune) bool {
	return r == ' ' || r == ',' || r == '\n' || r == '\t' || r == '\r' || r == '\f'
}

// transform reads a transform list, as an attribute (SVG 1.1) or as a property
// (CSS Transforms 1: units, percentages of the box, translateX and the like). w
// and h are the size of the reference box in user units.
func transform(s string, w, h float64) (canvas.Matrix, error) {
	m := canvas.Identity
	rest := strings.TrimSpace(s)
	if rest == "none" {
		return m, nil
	}
	for rest != "" {
		open, shut := strings.IndexByte(rest, '('), strings.IndexByte(rest, ')')
		if open < 0 || shut < open {
			return m, fmt.Errorf("%q has no brackets", rest)
		}
		name := strings.TrimFunc(rest[:open], blank)
		fields := strings.FieldsFunc(rest[open+1:shut], blank)
		v := make([]float64, len(fields))
		for i, f := range fields {
			box := w
			if name == "translateY" || name == "translate" && i == 1 {
				box = h
			}
			n, err := amount(f, box)
			if err != nil {
				return m, err
			}
			v[i] = n
		}
		one, err := single(name, v)
		if err != nil {
			return m, err
		}
		m = m.Mul(one)
		rest = strings.TrimFunc(rest[shut+1:], blank)
	}
	return m, nil
}

// moved writes the properties translate, rotate and scale as a transform list, in the order in which
// they act, before the one of transform (CSS Transforms 2, 5 and 9). They are properties only: an
// attribute of such a name moves nothing.
func moved(css map[string]string) string {
	var out []string
	for _, name := range []string{"translate", "rotate", "scale"} {
		fields := strings.FieldsFunc(css[name], blank)
		if len(fields) == 0 || fields[0] == "none" {
			continue
		}
		switch {
		case name == "rotate" && len(fields) == 2 && fields[0] == "z":
			fields = fields[1:]
		case name == "scale":
			for i, f := range fields {
				if strings.HasSuffix(f, "%") {
					fields[i] = strings.TrimSuffix(f, "%") + "e-2"
				}
			}
			fallthrough
		case name == "translate":
			fields = fields[:min(2, len(fields))] // the third is towards the eye
		}
		out = append(out, name+"("+strings.Join(fields, " ")+")")
	}
	return strings.Join(out, " ")
}

// amount reads a number of a transform: a plain number, a length in user units, a
// percentage of the box, or an angle in degrees.
func amount(s string, box float64) (float64, error) {
	i := strings.LastIndexAny(s, "0123456789.")
	unit := strings.ToLower(s[i+1:])
	v, err := floats([]string{s[:i+1]})
	if err != nil {
		return 0, err
	}
	switch unit {
	case "", "deg":
		return v[0], nil
	case "rad":
		return v[0] * 180 / math.Pi, nil
	case "grad":
		return v[0] * 0.9, nil
	case "turn":
		return v[0] * 360, nil
	case "%":
		return v[0] / 100 * box, nil
	}
	k, ok := mmPer[unit]
	if !ok {
		return 0, fmt.Errorf("%q is not a unit", unit)
	}
	return v[0] * k / mmPer["px"], nil
}

func single(name string, v []float64) (canvas.Matrix, error) {
	id := canvas.Identity
	tan := func(deg float64) float64 { return math.Tan(deg * math.Pi / 180) }
	switch n := len(v); {
	case name == "matrix" && n == 6:
		return canvas.Matrix{{v[0], v[2], v[4]}, {v[1], v[3], v[5]}}, nil
	case (name == "translate" || name == "translateX") && n == 1:
		return id.Translate(v[0], 0), nil
	case name == "translateY" && n == 1:
		return id.Translate(0, v[0]), nil
	case name == "translate" && n == 2:
		return id.Translate(v[0], v[1]), nil
	case name == "scale" && n == 1 && v[0] != 0:
		return id.Scale(v[0], v[0]), nil
	case name == "scale" && n == 2 && v[0] != 0 && v[1] != 0:
		return id.Scale(v[0], v[1]), nil
	case name == "scaleX" && n == 1 && v[0] != 0:
		return id.Scale(v[0], 1), nil
	case name == "scaleY" && n == 1 && v[0] != 0:
		return id.Scale(1, v[0]), nil
	case name == "rotate" && n == 1:
		return id.Rotate(v[0]), nil
	case name == "rotate" && n == 3:
		return id.Translate(v[1], v[2]).Rotate(v[0]).Translate(-v[1], -v[2]), nil
	case (name == "skewX" || name == "skew") && n == 1:
		return canvas.Matrix{{1, tan(v[0]), 0}, {0, 1, 0}}, nil
	case name == "skew" && n == 2:
		return canvas.Matrix{{1, tan(v[0]), 0}, {tan(v[1]), 1, 0}}, nil
	case name == "skewY" && n == 1:
		return canvas.Matrix{{1, 0, 0}, {tan(v[0]), 1, 0}}, nil
	}
	return id, fmt.Errorf("%s with %d numbers is not a transform", name, len(v))
}

// origin reads a transform-origin against a box (CSS Transforms 1, 6): keywords,
// lengths and percentages.
func origin(s string, box [4]float64) (x, y float64, err error) {
	at := func(word string, lo, size float64) (float64, error) {
		switch word {
		case "left", "top":
			return lo, nil
		case "right", "bottom":
			return lo + size, nil
		case "center":
			return lo + size/2, nil
		}
		v, err := amount(word, size)
		return lo + v, err
	}
	f := strings.Fields(s)
	switch {
	case len(f) == 0:
		return box[0], box[1], nil
	case len(f) == 1:
		f = append(f, "center")
	}
	if f[0] == "top" || f[0] == "bottom" || f[1] == "left" || f[1] == "right" {
		f[0], f[1] = f[1], f[0]
	}
	if x, err = at(f[0], box[0], box[2]); err != nil {
		return 0, 0, err
	}
	y, err = at(f[1], box[1], box[3])
	return x, y, err
}

// viewport fits a view box into a viewport of w by h at x, y by
// preserveAspectRatio (SVG 1.1, 7.8). It returns the transform and whether what
// sticks out of the viewport is cut off.
func viewport(x, y, w, h float64, box [4]float64, fit string) canvas.Matrix {
	kx, ky := w/box[2], h/box[3]
	align, slice := "xMidYMid", false
	for _, f := range strings.Fields(fit) {
		switch f {
		case "defer", "meet":
		case "slice":
			slice = true
		default:
			align = f
		}
	}
	if align == "none" {
		return canvas.Identity.Translate(x, y).Scale(kx, ky).Translate(-box[0], -box[1])
	}
	k := math.Min(kx, ky)
	if slice {
		k = math.Max(kx, ky)
	}
	share := func(word, min, max string) float64 {
		switch {
		case strings.Contains(word, min):
			return 0
		case strings.Contains(word, max):
			return 1
		}
		return 0.5
	}
	dx := share(align, "xMin", "xMax") * (w - box[2]*k)
	dy := share(align, "YMin", "YMax") * (h - box[3]*k)
	return canvas.Identity.Translate(x+dx, y+dy).Scale(k, k).Translate(-box[0], -box[1])
}
