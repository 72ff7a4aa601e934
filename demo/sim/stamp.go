package sim

import (
	"math"
	"math/rand/v2"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Stamped prints every step of a set apart, each in an ink of its own, on a
// sheet of w by h mm, turned by up to turn degrees.
func Stamped(set kit.Set, inks []colour.Linear, w, h, turn float64, seed uint64) (Bench, []Laid, error) {
	rnd := rand.New(rand.NewPCG(seed, 0x57a3))
	b := Bench{W: w, H: h, Sheet: White}
	var laid []Laid
	const room = 18.0
	x, y, tall := 14.0, 14.0, 0.0
	for i, p := range set.Parts {
		deg := (2*rnd.Float64() - 1) * turn
		g := p.Outline.Turn(deg, shape.Point{})
		box := g.Bounds()
		if x+box.W() > w-14 {
			x, y, tall = 14, y+tall+room, 0
		}
		if x+box.W() > w-10 || y+box.H() > h-10 {
			return b, nil, ErrRoom
		}
		d := shape.Point{X: x - box.Min.X, Y: y - box.Min.Y}
		laid = append(laid, Laid{p.ID, g.Move(d), deg, d})
		b.Items = append(b.Items, Item{Outline: g.Move(d), Colour: inks[i%len(inks)], Print: true})
		x, tall = x+box.W()+room, math.Max(tall, box.H())
	}
	return b, laid, nil
}

// Stencil is a plate with the parts of a set as openings and a guide etched
// round them, on white.
func Stencil(set kit.Set, margin float64) Bench {
	var all shape.Box
	for i, p := range set.Parts {
		b := p.Outline.Bounds()
		if i == 0 {
			all = b
		}
		all.Min = shape.Point{X: math.Min(all.Min.X, b.Min.X), Y: math.Min(all.Min.Y, b.Min.Y)}
		all.Max = shape.Point{X: math.Max(all.Max.X, b.Max.X), Y: math.Max(all.Max.Y, b.Max.Y)}
	}
	b := Bench{W: all.W() + 4*margin, H: all.H() + 4*margin, Sheet: White}
	shift := shape.Point{X: 2 * margin, Y: 2 * margin}.Sub(all.Min)
	plate := shape.Rect(margin, margin, all.W()+2*margin, all.H()+2*margin)
	for _, p := range set.Parts {
		if cut, err := plate.Minus(p.Outline.Move(shift)); err == nil {
			plate = cut
		}
	}
	b.Items = []Item{{Outline: plate, Colour: colour.Linear{0.12, 0.06, 0.03}}}
	// A guide is etched round the whole image, half a mm wide, a little lighter.
	guide := shape.Rect(margin*1.5, margin*1.5, all.W()+margin, all.H()+margin)
	if line, err := guide.Minus(shape.Rect(margin*1.5+0.5, margin*1.5+0.5, all.W()+margin-1, all.H()+margin-1)); err == nil {
		b.Items = append(b.Items, Item{Outline: line, Colour: colour.Linear{0.17, 0.095, 0.055}, Print: true})
	}
	return b
}
