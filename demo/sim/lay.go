package sim

import (
	"errors"
	"math"
	"math/rand/v2"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Laid is one piece as it was laid down: the truth a reading is held against.
type Laid struct {
	Part    string       // id of the part
	Outline shape.Region // where it lies, mm
	Turn    float64      // clockwise, degrees
	Move    shape.Point  // from the part's own frame after turning about its origin, mm
}

// ErrRoom is returned when the pieces do not fit on the sheet.
var ErrRoom = errors.New("the pieces do not fit on one sheet; scan them in two parts")

// gap is the room left round a piece, mm.
const gap = 5.0

// Lay cuts every part of a set once, parts the loose pieces and lays them in
// rows on a sheet of w by h mm, each turned by up to turn degrees.
func Lay(set kit.Set, w, h, turn float64, seed uint64) ([]Laid, error) {
	rnd := rand.New(rand.NewPCG(seed, 0x1a1d))
	margin := math.Min(12, w*0.06)
	x, y, tall := margin, margin, 0.0
	var out []Laid
	for _, part := range set.Parts {
		for _, g := range part.Outline.Pieces() {
			deg := (2*rnd.Float64() - 1) * turn
			g = g.Turn(deg, shape.Point{})
			b := g.Bounds()
			if x+b.W() > w-margin {
				x, y, tall = margin, y+tall+gap, 0
			}
			if x+b.W() > w-margin || y+b.H() > h-margin {
				return nil, ErrRoom
			}
			d := shape.Point{X: x - b.Min.X + rnd.Float64()*0.7, Y: y - b.Min.Y + rnd.Float64()*0.7}
			out = append(out, Laid{part.ID, g.Move(d), deg, d})
			x += b.W() + gap
			tall = math.Max(tall, b.H())
		}
	}
	return out, nil
}

// Sheets of paper in plain colours, linear.
var (
	Black = colour.Linear{0.012, 0.012, 0.014}
	White = colour.Linear{0.88, 0.87, 0.83}
)

// Papers are colours pieces may be cut from, pale to full.
var Papers = []colour.Linear{
	{0.86, 0.85, 0.80}, {0.72, 0.50, 0.30}, {0.30, 0.52, 0.36}, {0.62, 0.22, 0.18}, {0.40, 0.48, 0.62}, {0.80, 0.68, 0.24},
}

// Pieces makes items of laid pieces: light ones in turn from Papers on a dark
// sheet, dark ones on a light sheet.
func Pieces(laid []Laid, onDark bool) []Item {
	out := make([]Item, len(laid))
	for i, l := range laid {
		out[i] = Item{Outline: l.Outline, Colour: Papers[i%len(Papers)]}
		if !onDark {
			c := out[i].Colour
			out[i].Colour = colour.Linear{c[0] * 0.22, c[1] * 0.22, c[2] * 0.22}
		} else if i%5 == 3 {
			s := colour.Linear{0.25, 0.12, 0.10}
			out[i].Stripe = &s
		}
	}
	return out
}

// BankCard is a card of ISO/IEC 7810, ID-1, lying askew on a dark sheet: 85.60 by 53.98 mm
// with corners of 3.18 mm radius.
func BankCard() Bench {
	const w, h, r = 85.60, 53.98, 3.18
	var ring shape.Ring
	for k, c := range []shape.Point{{X: w - r, Y: r}, {X: w - r, Y: h - r}, {X: r, Y: h - r}, {X: r, Y: r}} {
		for i := range 25 {
			sin, cos := math.Sincos(math.Pi/2*(float64(k)-1) + math.Pi/2*float64(i)/24)
			ring = append(ring, c.Add(shape.Point{X: r * cos, Y: r * sin}))
		}
	}
	g := shape.Raw(ring).Turn(4, shape.Point{X: w / 2, Y: h / 2}).Move(shape.Point{X: 40, Y: 45})
	return Bench{W: 170, H: 150, Sheet: Black, Items: []Item{{Outline: g, Colour: colour.Linear{0.45, 0.52, 0.66}}}}
}
