package axes_test

import (
	"context"
	"image"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/axes"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
)

// card is the outline of ISO/IEC 7810 ID-1: 85.60 by 53.98 mm, corners of 3.18 mm radius.
func card(turn float64, at shape.Point) shape.Region {
	const w, h, r = 85.60, 53.98, 3.18
	var ring shape.Ring
	for k, c := range []shape.Point{{X: w - r, Y: r}, {X: w - r, Y: h - r}, {X: r, Y: h - r}, {X: r, Y: r}} {
		for i := range 25 {
			a := math.Pi/2*(float64(k)-1) + math.Pi/2*float64(i)/24
			ring = append(ring, shape.Point{X: c.X + r*math.Cos(a), Y: c.Y + r*math.Sin(a)})
		}
	}
	return shape.Raw(ring).Turn(turn, shape.Point{X: w / 2, Y: h / 2}).Move(at)
}

// seen is a true outline as a scanner with such axes shows it.
func seen(g shape.Region, a axes.Axes) shape.Region {
	sin, cos := math.Sincos(a.Skew)
	var rings []shape.Ring
	for _, r := range g.Rings() {
		var out shape.Ring
		for _, p := range r {
			y := p.Y / cos
			out = append(out, shape.Point{X: (p.X + y*sin) / a.X, Y: y / a.Y})
		}
		rings = append(rings, out)
	}
	return shape.Raw(rings...)
}

func decoded(t *testing.T, img image.Image, dpi float64) *picture.Picture {
	raw, err := sim.PNG(img, dpi)
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	return p
}

// A scanner that is off by known shares, read off a bank card lying at any turn; what is then
// measured with it is true.
func TestABankCardTellsTheAxes(t *testing.T) {
	for i, c := range []struct {
		axes axes.Axes
		turn float64
		dark bool
	}{
		{axes.Axes{X: 1, Y: 1}, 0, true}, {axes.Axes{X: 1.001, Y: 0.996}, 3, true}, {axes.Axes{X: 0.998, Y: 1.004, Skew: 0.004}, 33, true}, {axes.Axes{X: 1.002, Y: 1.003, Skew: -0.003}, 88, false},
	} {
		sheet, plastic := sim.Black, [3]float64{0.55, 0.6, 0.7}
		if !c.dark {
			sheet, plastic = sim.White, [3]float64{0.05, 0.1, 0.3}
		}
		b := sim.Bench{W: 140, H: 130, Sheet: sheet, Items: []sim.Item{{Outline: seen(card(c.turn, shape.Point{X: 28, Y: 34}), c.axes), Colour: plastic}}}
		got, err := axes.Card(context.Background(), decoded(t, b.Scan(300, sim.Plain(), uint64(i+1)), 300), 300)
		require.NoError(t, err)
		assert.InDelta(t, c.axes.X, got.X, 0.0005)
		assert.InDelta(t, c.axes.Y, got.Y, 0.0005)
		assert.InDelta(t, c.axes.Skew, got.Skew, 0.0006)
		assert.InDelta(t, 0.0015, got.Sure, 1e-9, "the standard's own tolerance")
		// A square of 100 mm, as that scanner shows it, comes out as one.
		px := func(x, y float64) shape.Point {
			return got.Region(seen(shape.Rect(x, y, 1, 1), c.axes)).Rings()[0][0]
		}
		o, e, d := px(10, 10), px(110, 10), px(10, 110)
		assert.InDelta(t, 100, o.Distance(e), 0.06)
		assert.InDelta(t, 100, o.Distance(d), 0.06)
		assert.InDelta(t, math.Hypot(100, 100), e.Distance(d), 0.09)
	}
}

// The printed mat, a line of which was measured by ruler: a printer that shrinks is undone.
func TestTheMatTellsTheAxes(t *testing.T) {
	l := mat.For(measure.A4, false)
	was := axes.Axes{X: 1.001, Y: 0.997}
	const shrunk = 0.98
	b := sim.Bench{W: 212, H: 300, Sheet: [3]float64{0.84, 0.84, 0.83}}
	for _, g := range l.Ink() {
		b.Items = append(b.Items, sim.Item{Outline: seen(g.ScaleBy(shrunk), was), Colour: [3]float64{0.025, 0.025, 0.027}, Print: true})
	}
	p := decoded(t, b.Scan(200, sim.Plain(), 3), 200)
	line := l.Marks[1].At.X - l.Marks[0].At.X
	got, err := axes.Mat(p, 200, line*shrunk)
	require.NoError(t, err)
	assert.InDelta(t, was.X, got.X, 0.001)
	assert.InDelta(t, was.Y, got.Y, 0.001)
	assert.Less(t, math.Abs(got.Skew), 0.001)
	_, err = axes.Mat(p, 200, 150)
	assert.ErrorContains(t, err, "another line")
}

func TestPagesThatTellNothing(t *testing.T) {
	read := func(dpi float64, g shape.Region) error {
		b := sim.Bench{W: 140, H: 130, Sheet: sim.Black, Items: []sim.Item{{Outline: g, Colour: [3]float64{0.55, 0.6, 0.7}}}}
		_, err := axes.Card(context.Background(), decoded(t, b.Scan(200, sim.Plain(), 1), 200), dpi)
		return err
	}
	good := card(5, shape.Point{X: 28, Y: 34})
	require.NoError(t, read(200, good))
	assert.ErrorContains(t, read(200, shape.Disc(shape.Point{X: 70, Y: 60}, 40)), "No card with four straight sides")
	assert.ErrorContains(t, read(200, shape.Rect(20, 20, 90, 90)), "no bank card")
	assert.ErrorContains(t, read(240, good), "it would be right at 200")
	assert.Error(t, read(200, card(5, shape.Point{X: -20, Y: 34})), "cut by the rim")
	// Bent: its long sides bow by 0.6 mm.
	bent := good.Turn(-5, shape.Point{X: 70, Y: 60}).Rings()[0]
	box := shape.Raw(bent).Bounds()
	var bowed shape.Ring
	for i, p := range bent {
		q := bent[(i+1)%len(bent)]
		n := max(1, int(p.Distance(q)/0.5))
		for k := range n {
			r := p.Add(q.Sub(p).Scale(float64(k) / float64(n)))
			u := (r.X - box.Min.X) / box.W()
			r.Y += 0.6 * 4 * u * (1 - u)
			bowed = append(bowed, r)
		}
	}
	assert.ErrorContains(t, read(200, shape.Raw(bowed)), "bowed")
}
