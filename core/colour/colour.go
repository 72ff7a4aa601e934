// Package colour judges the colours of dried ink on paper.
//
// A colour is a reflectance per channel in linear sRGB under D65 (Linear);
// differences are judged in CIE L*a*b* (Lab, D65 white, 2° observer) by
// CIEDE2000. Three channels stand in for a spectrum: good to a few units for
// ink over white or pale paper, less for strong ink over strong paper.
package colour

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"

	colorful "github.com/lucasb-eyer/go-colorful"
)

// Linear is a reflectance in linear sRGB (D65), each channel 0 to 1.
type Linear [3]float64

// Lab is CIE L*a*b* against the D65 white, L from 0 to 100.
type Lab struct {
	L float64 `json:"l"`
	A float64 `json:"a"`
	B float64 `json:"b"`
}

// ErrHex is returned for a colour that is not written #rrggbb.
var ErrHex = errors.New("a colour is written #rrggbb")

// ParseHex reads an sRGB colour written "#rrggbb" (the # may be missing).
func ParseHex(s string) (Linear, error) {
	t := strings.TrimPrefix(strings.TrimSpace(s), "#")
	v, err := strconv.ParseUint(t, 16, 32)
	if len(t) != 6 || err != nil {
		return Linear{}, fmt.Errorf("read colour %q: %w", s, ErrHex)
	}
	r, g, b := colorful.Color{R: float64(v>>16) / 255, G: float64(v>>8&255) / 255, B: float64(v&255) / 255}.LinearRgb()
	return Linear{r, g, b}, nil
}

// Hex writes the nearest sRGB colour as "#rrggbb".
func (c Linear) Hex() string {
	return colorful.LinearRgb(clamp(c[0]), clamp(c[1]), clamp(c[2])).Hex()
}

// Lab converts the reflectance to CIE L*a*b* (IEC 61966-2-1 primaries, D65).
func (c Linear) Lab() Lab {
	x, y, z := colorful.LinearRgbToXyz(c[0], c[1], c[2])
	l, a, b := colorful.XyzToLab(x, y, z)
	return Lab{100 * l, 100 * a, 100 * b}
}

// Linear converts back, clamping to what sRGB can show.
func (c Lab) Linear() Linear {
	x, y, z := colorful.LabToXyz(c.L/100, c.A/100, c.B/100)
	r, g, b := colorful.XyzToLinearRgb(x, y, z)
	return Linear{clamp(r), clamp(g), clamp(b)}
}

// Chroma is the distance from the grey axis.
func (c Lab) Chroma() float64 { return math.Hypot(c.A, c.B) }

func clamp(v float64) float64 { return min(1, max(0, v)) }

const pow25to7 = 6103515625 // 25⁷

// halfTurn is π with room for rounding: hues exactly opposite, as in pair 10 of
// the test data, count as not more than half a turn apart.
const halfTurn = math.Pi + 1e-12

// Difference is CIEDE2000 with all weights one, after Sharma, Wu and Dalal,
// "The CIEDE2000 Color-Difference Formula: Implementation Notes,
// Supplementary Test Data, and Mathematical Observations", Color Research and
// Application 30 (2005).
func Difference(p, q Lab) float64 {
	c1, c2 := math.Hypot(p.A, p.B), math.Hypot(q.A, q.B)
	cm := (c1 + c2) / 2
	g := 0.5 * (1 - math.Sqrt(pow7(cm)/(pow7(cm)+pow25to7)))
	a1, a2 := p.A*(1+g), q.A*(1+g)
	k1, k2 := math.Hypot(a1, p.B), math.Hypot(a2, q.B)
	h1, h2 := hue(a1, p.B), hue(a2, q.B)

	dl, dk, dh, hm := q.L-p.L, k2-k1, 0.0, h1+h2
	if k1*k2 != 0 {
		switch d := h2 - h1; {
		case d > halfTurn:
			dh = d - 2*math.Pi
		case d < -halfTurn:
			dh = d + 2*math.Pi
		default:
			dh = d
		}
		switch {
		case math.Abs(h1-h2) <= halfTurn:
			hm /= 2
		case hm < 2*math.Pi:
			hm = hm/2 + math.Pi
		default:
			hm = hm/2 - math.Pi
		}
	}
	dH := 2 * math.Sqrt(k1*k2) * math.Sin(dh/2)
	lm, km := (p.L+q.L)/2, (k1+k2)/2
	t := 1 - 0.17*math.Cos(hm-math.Pi/6) + 0.24*math.Cos(2*hm) +
		0.32*math.Cos(3*hm+math.Pi/30) - 0.20*math.Cos(4*hm-63*math.Pi/180)
	w := (hm*180/math.Pi - 275) / 25
	theta := math.Pi / 6 * math.Exp(-w*w)
	rc := 2 * math.Sqrt(pow7(km)/(pow7(km)+pow25to7))
	e := (lm - 50) * (lm - 50)
	sl := 1 + 0.015*e/math.Sqrt(20+e)
	sc, sh := 1+0.045*km, 1+0.015*km*t
	x, y, z := dl/sl, dk/sc, dH/sh
	return math.Sqrt(x*x + y*y + z*z - math.Sin(2*theta)*rc*y*z)
}

func pow7(v float64) float64 { s := v * v * v; return s * s * v }

func hue(a, b float64) float64 {
	if a == 0 && b == 0 {
		return 0
	}
	if h := math.Atan2(b, a); h >= 0 {
		return h
	}
	return math.Atan2(b, a) + 2*math.Pi
}

// HueVector is a point of the a*b* plane that keeps the hue and lets the
// chroma count only up to 25, so that distances between two of them compare
// hue rather than strength and a grey is near every hue alike.
func (c Lab) HueVector() [2]float64 {
	k := c.Chroma()
	if k <= 25 {
		return [2]float64{c.A, c.B}
	}
	return [2]float64{c.A * 25 / k, c.B * 25 / k}
}

// Contrast is the contrast ratio of two colours, 1 to 21, from their relative luminances:
// WCAG 2.2, "contrast ratio".
func Contrast(p, q Linear) float64 {
	y := func(c Linear) float64 { return 0.2126*c[0] + 0.7152*c[1] + 0.0722*c[2] }
	a, b := y(p), y(q)
	return (max(a, b) + 0.05) / (min(a, b) + 0.05)
}
