package sim

import (
	"math"
	"math/rand/v2"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
	"ochrestone/vision/swatch"
)

// Filled is a swatch sheet filled by hand, its cells in the given colours, on
// paper of a colour; a nil colour leaves a cell empty.
func Filled(l mat.Layout, paper colour.Linear, cells []*colour.Linear, seed uint64) Bench {
	rnd := rand.New(rand.NewPCG(seed, 0x5a7c))
	b, _ := OnMat(l, nil, nil)
	b.Sheet = paper
	g := swatch.For(l)
	for i, c := range cells {
		box := g.Box(i)
		at := l.Field.Min
		edge := func(by float64) shape.Region {
			return shape.Rect(at.X+box.Min.X-by, at.Y+box.Min.Y-by, box.W()+2*by, box.H()+2*by)
		}
		frame, err := edge(0.1).Minus(edge(-0.1))
		if err == nil {
			b.Items = append(b.Items, Item{Outline: frame, Colour: colour.Linear{0.3, 0.3, 0.3}, Print: true})
		}
		if c == nil {
			continue
		}
		// A hand does not fill to the line.
		var ring shape.Ring
		mid := box.Min.Add(box.Max).Scale(0.5).Add(at)
		for k := range 40 {
			a := 2 * math.Pi * float64(k) / 40
			x, y := math.Cos(a), math.Sin(a)
			s := 1 / math.Max(math.Abs(x), math.Abs(y))
			in := 0.2 + 0.9*rnd.Float64()
			ring = append(ring, shape.Point{X: mid.X + x*s*(box.W()/2-in), Y: mid.Y + y*s*(box.H()/2-in)})
		}
		b.Items = append(b.Items, Item{Outline: shape.New(true, ring), Colour: *c, Print: true})
	}
	return b
}

// Numbered is a swatch sheet with its number printed on it.
func Numbered(b Bench, l mat.Layout, number int) Bench {
	for _, q := range swatch.For(l).Number(number) {
		g := shape.Rect(l.Field.Min.X+q.Min.X, l.Field.Min.Y+q.Min.Y, q.W(), q.H())
		b.Items = append(b.Items, Item{Outline: g, Colour: Black, Print: true, Even: true})
	}
	return b
}

// Pad is an ink as it is in its pad: a little off what its owner typed, always
// the same for the same ink.
func Pad(f colour.Film, id string) colour.Film {
	var seed uint64 = 14695981039346656037 // FNV-1a
	for _, b := range []byte(id) {
		seed = (seed ^ uint64(b)) * 1099511628211
	}
	rnd := rand.New(rand.NewPCG(seed, 0xbad))
	for c := range f.T {
		f.T[c] = math.Min(1, f.T[c]*math.Exp(0.09*rnd.NormFloat64()))
		f.Body[c] = math.Min(1, f.Body[c]*math.Exp(0.07*rnd.NormFloat64()))
	}
	f.Hide = math.Min(1, math.Max(0, f.Hide+0.08*rnd.NormFloat64()))
	return f
}
