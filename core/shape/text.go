package shape

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"github.com/tdewolff/canvas"
)

// Path writes the region as SVG path data in mm, to a hundredth.
func (g Region) Path() string {
	var b strings.Builder
	for _, r := range g.rings {
		for i, p := range r {
			b.WriteByte("ML"[min(i, 1)])
			b.WriteString(num(p.X))
			b.WriteByte(' ')
			b.WriteString(num(p.Y))
		}
		b.WriteByte('Z')
	}
	return b.String()
}

func num(v float64) string {
	s := strconv.FormatFloat(v, 'f', 2, 64)
	s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	if s == "-0" {
		return "0"
	}
	return s
}

// MarshalText writes the region as SVG path data with straight sides, exact to
// the grid; UnmarshalText reads it back without settling it again.
func (g Region) MarshalText() ([]byte, error) {
	var b []byte
	for _, r := range g.rings {
		for i, p := range r {
			b = append(b, "ML"[min(i, 1)])
			b = strconv.AppendFloat(b, math.Round(p.X*1e4)/1e4, 'f', -1, 64)
			b = append(b, ' ')
			b = strconv.AppendFloat(b, math.Round(p.Y*1e4)/1e4, 'f', -1, 64)
		}
		b = append(b, 'Z')
	}
	return b, nil
}

// Limits of a region that can be written and read back.
const (
	MaxRings   = 20_000
	MaxCorners = 400_000
	MaxReach   = 1e4 // mm, each way from the origin
)

// Storable returns an error when UnmarshalText would refuse what MarshalText
// writes of the region: it is too large, too far away, or has a corner that is
// nowhere. Check before storing.
func (g Region) Storable() error {
	corners := 0
	for i, r := range g.rings {
		if len(r) < 3 {
			return fmt.Errorf("ring %d of the outline has fewer than three corners", i+1)
		}
		for _, p := range r {
			if !(math.Abs(p.X) <= MaxReach && math.Abs(p.Y) <= MaxReach) {
				return fmt.Errorf("the outline reaches to %.4g, %.4g mm; at most %.0f m from its origin can be kept", p.X, p.Y, MaxReach/1000)
			}
		}
		corners += len(r)
	}
	if len(g.rings) > MaxRings || corners > MaxCorners {
		return fmt.Errorf("the outline has %d pieces and holes with %d corners; at most %d with %d can be kept", len(g.rings), corners, MaxRings, MaxCorners)
	}
	return nil
}

// UnmarshalText reads what MarshalText wrote: rings of M, L and Z with absolute
// coordinates in mm.
func (g *Region) UnmarshalText(t []byte) error {
	var rings []Ring
	corners := 0
	for n, part := range strings.Split(strings.TrimSuffix(strings.TrimSpace(string(t)), "Z"), "Z") {
		if strings.TrimSpace(part) == "" {
			continue
		}
		var r Ring
		for i, f := range strings.Split(strings.TrimPrefix(strings.TrimSpace(part), "M"), "L") {
			xs, ys, ok := strings.Cut(strings.TrimSpace(f), " ")
			x, err1 := strconv.ParseFloat(xs, 64)
			y, err2 := strconv.ParseFloat(ys, 64)
			if !ok || err1 != nil || err2 != nil || !(math.Abs(x) <= MaxReach && math.Abs(y) <= MaxReach) {
				return fmt.Errorf("read outline: ring %d, corner %d (%q) is not two numbers of mm", n+1, i+1, f)
			}
			r = append(r, Point{x, y})
		}
		if corners += len(r); len(r) < 3 {
			return fmt.Errorf("read outline: ring %d has fewer than three corners", n+1)
		}
		if corners > MaxCorners || len(rings) >= MaxRings {
			return fmt.Errorf("read outline: more than %d corners or %d rings", MaxCorners, MaxRings)
		}
		rings = append(rings, r)
	}
	*g = of(rings)
	return nil
}

// Lines reads path data of open or closed lines, as points, mm: a closed one ends where it
// begins.
func Lines(d string) ([][]Point, error) {
	if d == "" {
		return nil, nil
	}
	p, err := canvas.ParseSVGPath(d)
	if err != nil {
		return nil, fmt.Errorf("read lines: %w", err)
	}
	var out [][]Point
	for _, line := range p.Flatten(Tolerance / 2).Split() {
		var ps []Point
		for _, c := range line.Coords() {
			ps = append(ps, Point{c.X, c.Y})
		}
		if len(ps) > 1 {
			out = append(out, ps)
		}
	}
	return out, nil
}

// ScaleLines scales path data of open lines about the origin.
func ScaleLines(d string, k float64) (string, error) {
	p, err := canvas.ParseSVGPath(d)
	if err != nil {
		return "", fmt.Errorf("scale lines: %w", err)
	}
	var b strings.Builder
	for _, line := range p.Scale(k, k).Flatten(Tolerance / 2).Split() {
		for i, c := range line.Coords() {
			b.WriteByte("ML"[min(i, 1)])
			b.WriteString(num(c.X))
			b.WriteByte(' ')
			b.WriteString(num(c.Y))
		}
	}
	return b.String(), nil
}
