package sim

import (
	"math"
	"math/rand/v2"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// Grounds are what a finished image is laid on for its picture.
var Grounds = []colour.Linear{{0.80, 0.79, 0.75}, {0.05, 0.05, 0.06}, {0.32, 0.22, 0.14}, {0.20, 0.30, 0.34}, {0.55, 0.48, 0.40}}

// Finished is a set put together by hand from laid pieces, up to about 0.2 mm and half a
// degree off, its layers in hues side by side from dark to light or from light to dark. The
// colours are those of the pieces.
func Finished(set kit.Set, laid []Laid, seed uint64) (b Bench, colours []colour.Linear, err error) {
	rnd := rand.New(rand.NewPCG(seed, 0xf1))
	hue := map[string]colour.Linear{}
	full, width := rnd.Float64()*360, 40+140*rnd.Float64()
	for k, p := range set.Parts {
		l := 30 + 58*float64(k)/float64(max(1, len(set.Parts)-1))
		if seed%2 == 0 {
			l = 118 - l
		}
		l += 6 * rnd.NormFloat64()
		sin, cos := math.Sincos((full + width*rnd.Float64()) * math.Pi / 180)
		c := colour.Lab{L: math.Min(94, math.Max(14, l)), A: 28 * cos, B: 28 * sin}.Linear()
		for a := range c {
			c[a] = math.Min(0.95, math.Max(0.004, c[a]))
		}
		hue[p.ID] = c
	}
	b = Bench{W: 150, H: 190, Sheet: Grounds[seed%uint64(len(Grounds))], Texture: 0.02, Stacked: true}
	turn := rnd.Float64()*24 - 12
	var all []shape.Region
	for i, l := range laid {
		colours = append(colours, hue[l.Part])
		g := register.Motion{Turn: -l.Turn}.Of(l.Outline.Move(l.Move.Scale(-1)))
		all = append(all, g)
		if i > 0 {
			g = g.Turn(0.25*rnd.NormFloat64(), g.Centroid()).Move(shape.Point{X: 0.1 * rnd.NormFloat64(), Y: 0.1 * rnd.NormFloat64()})
		}
		b.Items = append(b.Items, Item{Outline: g.Turn(turn, shape.Point{}), Colour: hue[l.Part]})
	}
	whole, err := shape.UnionAll(all...)
	if err != nil {
		return Bench{}, nil, err
	}
	mid := whole.Turn(turn, shape.Point{}).Bounds()
	for i := range b.Items {
		b.Items[i].Outline = b.Items[i].Outline.Move(shape.Point{X: b.W / 2, Y: b.H / 2}.Sub(mid.Centre()))
	}
	return b, colours, nil
}

// Held is a phone held over a finished image, as a hand does, and how well it sees.
func Held(seed uint64) (Camera, Grade) {
	rnd := rand.New(rand.NewPCG(seed, 0x4e1d))
	cam := Phone()
	cam.W, cam.H, cam.Fill = cam.W/2, cam.H/2, 0.9
	cam.Tilt, cam.Lean, cam.Roll = 6*rnd.Float64(), 360*rnd.Float64(), 20*rnd.Float64()-10
	g := Plain()
	g.Dust = 0
	g.Cast = &Cast{Far: 0.5, Soft: 0.35, Side: 360 * rnd.Float64()}
	return cam, g
}
