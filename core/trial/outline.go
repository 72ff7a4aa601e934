package trial

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"ochrestone/core/shape"
)

// outline draws an outline from a few words, mm about the image's own middle: "rect 60x8 r2",
// "ell 38x32", "circ 20", "poly x,y x,y ...", "arc x,y rx,ry" for the upper half of an ellipse,
// "comb 28x36 pitch 2", each with "@x,y" where its middle lies elsewhere; "+" joins, "-" cuts out.
// A word it does not know is a fault of the trial and panics.
func outline(words string) (g shape.Region) {
	sign := "+"
	for _, term := range strings.Split(strings.NewReplacer(" + ", "|+", " - ", "|-").Replace(words), "|") {
		if term[0] == '+' || term[0] == '-' {
			sign, term = term[:1], term[1:]
		}
		h := one(term)
		var err error
		switch {
		case g.Empty():
			g = h
		case sign == "-":
			g, err = g.Minus(h)
		default:
			g, err = g.Union(h)
		}
		if err != nil {
			panic(fmt.Sprintf("outline %q: %v", words, err))
		}
	}
	return g
}

// one draws one shape.
func one(words string) shape.Region {
	words = strings.TrimSpace(words)
	at := shape.Point{}
	if i := strings.Index(words, "@"); i >= 0 {
		at = point(words[i+1:])
		words = strings.TrimSpace(words[:i])
	}
	f := strings.Fields(words)
	size := func() (w, h float64) {
		a, b, _ := strings.Cut(f[1], "x")
		return number(a), number(b)
	}
	var g shape.Region
	switch f[0] {
	case "rect":
		w, h := size()
		g = shape.Rect(-w/2, -h/2, w, h)
		if len(f) > 2 {
			r := number(f[2][1:])
			in, err := g.Offset(-r)
			if err == nil {
				in, err = in.Offset(r)
			}
			if err != nil {
				panic(err)
			}
			g = in
		}
	case "ell":
		w, h := size()
		g = ellipse(w/2, h/2)
	case "circ":
		d := number(f[1])
		g = ellipse(d/2, d/2)
	case "poly":
		var ring shape.Ring
		for _, p := range f[1:] {
			ring = append(ring, point(p))
		}
		g = shape.New(true, ring)
	case "arc":
		// The half of an ellipse above a level, with a foot drawn in to both sides.
		mid, r, foot := point(f[1]), point(f[2]), point(f[3])
		var ring shape.Ring
		for i := 0; i <= 40; i++ {
			s, c := math.Sincos(math.Pi + math.Pi*float64(i)/40)
			ring = append(ring, shape.Point{X: mid.X + r.X*c, Y: mid.Y + r.Y*s})
		}
		ring = append(ring, foot, shape.Point{X: -foot.X, Y: foot.Y})
		g = shape.Raw(ring)
	case "comb":
		w, h := size()
		pitch := number(f[3])
		var all []shape.Region
		for x := -w / 2; x < w/2-1e-9; x += pitch {
			all = append(all, shape.Rect(x, -h/2, pitch/2, h))
		}
		all = append(all, shape.Rect(-w/2, -h/2, w, 4))
		u, err := shape.UnionAll(all...)
		if err != nil {
			panic(err)
		}
		g = u
	default:
		panic(fmt.Sprintf("no outline is called %q", words))
	}
	g, err := shape.UnionAll(g)
	if err != nil {
		panic(err)
	}
	return g.Move(at)
}

func ellipse(a, b float64) shape.Region {
	const n = 96
	ring := make(shape.Ring, n)
	for i := range ring {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		ring[i] = shape.Point{X: a * c, Y: b * s}
	}
	return shape.Raw(ring)
}

// grown is an outline let out by so many mm.
func grown(g shape.Region, by float64) shape.Region {
	out, err := g.Offset(by)
	if err != nil {
		panic(err)
	}
	return out
}

// lined is the line of an outline, so wide, half on either side of it.
func lined(g shape.Region, wide float64) shape.Region {
	out, err := grown(g, wide/2).Minus(grown(g, -wide/2))
	if err != nil {
		panic(err)
	}
	return out
}

// joined are several outlines as one.
func joined(gs ...shape.Region) shape.Region {
	out, err := shape.UnionAll(gs...)
	if err != nil {
		panic(err)
	}
	return out
}

func point(s string) shape.Point {
	a, b, _ := strings.Cut(s, ",")
	return shape.Point{X: number(a), Y: number(b)}
}

func number(s string) float64 {
	v, err := strconv.ParseFloat(strings.TrimSpace(s), 64)
	if err != nil {
		panic(fmt.Sprintf("%q is no number: %v", s, err))
	}
	return v
}
