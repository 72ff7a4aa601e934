package sim

import (
	"math/rand/v2"

	"ochrestone/core/colour"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
)

// Layer is a printed layer of a design and its ink.
type Layer struct {
	Region shape.Region
	Film   colour.Film
}

// Proof prints the layers of a design on a sheet, each off its place by up to
// shift mm along both axes and turn degrees about its own middle but for the
// first, and lays the sheet down turned by up to askew degrees. It returns how
// far off each layer is in the frame of the design. Corrections, one for each
// layer, are made to the same errors before anything is printed.
func Proof(layers []Layer, paper colour.Linear, shift, turn, askew float64, seed uint64, corrections ...register.Motion) (Bench, []register.Motion) {
	rnd := rand.New(rand.NewPCG(seed, 0x9f00))
	off := make([]register.Motion, len(layers))
	var box shape.Box
	for i, l := range layers {
		if b := l.Region.Bounds(); i == 0 {
			box = b
		} else {
			box.Min = shape.Point{X: min(box.Min.X, b.Min.X), Y: min(box.Min.Y, b.Min.Y)}
			box.Max = shape.Point{X: max(box.Max.X, b.Max.X), Y: max(box.Max.Y, b.Max.Y)}
		}
		if i == 0 {
			continue
		}
		m := register.Motion{Turn: (2*rnd.Float64() - 1) * turn}
		c := l.Region.Centroid()
		m.Move = c.Sub(m.Point(c)).Add(shape.Point{X: (2*rnd.Float64() - 1) * shift, Y: (2*rnd.Float64() - 1) * shift})
		off[i] = m
		if i < len(corrections) {
			off[i] = corrections[i].After(m)
		}
	}
	const margin = 14.0
	b := Bench{W: box.W() + 2*margin, H: box.H() + 2*margin, Sheet: paper}
	mid := shape.Point{X: (box.Min.X + box.Max.X) / 2, Y: (box.Min.Y + box.Max.Y) / 2}
	sheet := register.Motion{Turn: (2*rnd.Float64() - 1) * askew}
	sheet.Move = shape.Point{X: b.W/2 + 4*rnd.Float64() - 2, Y: b.H/2 + 4*rnd.Float64() - 2}.Sub(sheet.Point(mid))
	for i, l := range layers {
		film := l.Film
		b.Items = append(b.Items, Item{Outline: sheet.After(off[i]).Of(l.Region), Print: true, Film: &film, Strikes: 1})
	}
	return b, off
}

// Together lays several sheets side by side, so many to a row, as one is scanned.
func Together(sheets []Bench, across int) Bench {
	out := Bench{Sheet: sheets[0].Sheet}
	x, y, tall := 0.0, 0.0, 0.0
	for i, b := range sheets {
		if i > 0 && i%across == 0 {
			x, y, tall = 0, y+tall, 0
		}
		for _, it := range b.Items {
			it.Outline = it.Outline.Move(shape.Point{X: x, Y: y})
			out.Items = append(out.Items, it)
		}
		x, tall = x+b.W, max(tall, b.H)
		out.W, out.H = max(out.W, x), max(out.H, y+tall)
	}
	return out
}

// Framed is a printed sheet on a bed of another colour, turned by so many degrees.
func Framed(b Bench, bed colour.Linear, round, turn float64) Bench {
	out := Bench{W: b.W + 2*round, H: b.H + 2*round, Sheet: bed}
	out.Items = onBed(b, shape.Point{X: round, Y: round}, turn)
	return out
}

// ProofOnMat lays a printed sheet in the middle of the field of the measuring
// mat, turned by so many degrees.
func ProofOnMat(l mat.Layout, b Bench, turn float64) Bench {
	out, _ := OnMat(l, nil, nil)
	f := l.Field
	out.Items = append(out.Items, onBed(b, f.Min.Add(shape.Point{X: (f.W() - b.W) / 2, Y: (f.H() - b.H) / 2}), turn)...)
	return out
}

// onBed is a sheet and its prints as items.
func onBed(b Bench, to shape.Point, turn float64) []Item {
	mid := shape.Point{X: b.W / 2, Y: b.H / 2}
	out := []Item{{Outline: shape.Rect(0, 0, b.W, b.H).Turn(turn, mid).Move(to), Colour: b.Sheet}}
	for _, it := range b.Items {
		it.Outline = it.Outline.Turn(turn, mid).Move(to)
		out = append(out, it)
	}
	return out
}
