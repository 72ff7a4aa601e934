package trace_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// A picture turned by a quarter gives the same pieces, turned.
func TestQuarterTurnOfThePicture(t *testing.T) {
	laid, err := sim.Lay(basics(), 130, 130, 20, 12)
	require.NoError(t, err)
	p := scan(t, sim.Bench{W: 130, H: 130, Sheet: sim.White, Items: sim.Pieces(laid, false)}, 12)
	q := &picture.Picture{W: p.H, H: p.W, Pix: make([]uint8, len(p.Pix)), DPI: p.DPI}
	for y := range p.H {
		for x := range p.W {
			copy(q.Pix[3*(x*q.W+(q.W-1-y)):][:3], p.Pix[3*(y*p.W+x):])
		}
	}
	a, err := trace.Find(context.Background(), p, trace.DPI(300))
	require.NoError(t, err)
	b, err := trace.Find(context.Background(), q, trace.DPI(300))
	require.NoError(t, err)
	require.Equal(t, len(a.Pieces), len(b.Pieces))
	side := float64(p.H) * 25.4 / 300
	for i := range a.Pieces {
		g := a.Pieces[i].Region.Turn(90, shape.Point{}).Move(shape.Point{X: side})
		assert.InDelta(t, g.Area(), b.Pieces[i].Region.Area(), 0.004*g.Area()+0.02)
		assert.Less(t, g.Centroid().Distance(b.Pieces[i].Region.Centroid()), 0.01)
	}
}

// Twice the resolution, the same millimetres.
func TestResolutionDoesNotChangeTheSize(t *testing.T) {
	g := shape.Disc(shape.Point{X: 20, Y: 20}, 9)
	for _, dpi := range []float64{150, 300, 600} {
		img := sim.Bench{W: 40, H: 40, Sheet: sim.Black, Items: []sim.Item{{Outline: g, Colour: sim.Papers[0]}}}.Scan(dpi, sim.Plain(), 2)
		raw, err := sim.PNG(img, dpi)
		require.NoError(t, err)
		p, err := picture.Decode(raw)
		require.NoError(t, err)
		res, err := trace.Find(context.Background(), p, trace.DPI(p.DPI))
		require.NoError(t, err)
		require.Equal(t, 1, len(res.Pieces), "%g dpi", dpi)
		assert.InDelta(t, g.Area(), res.Pieces[0].Region.Area(), 0.005*g.Area(), "%g dpi", dpi)
	}
}

// Colour on grey of the same lightness is still a piece.
func TestPiecesThatOnlyHueParts(t *testing.T) {
	b := sim.Bench{W: 40, H: 40, Sheet: [3]float64{0.30, 0.30, 0.30}, Items: []sim.Item{{Outline: shape.Rect(10, 10, 20, 20), Colour: [3]float64{0.62, 0.20, 0.26}}}}
	res, err := trace.Find(context.Background(), scan(t, b, 3), trace.DPI(300))
	require.NoError(t, err)
	require.Equal(t, 1, len(res.Pieces))
	assert.InDelta(t, 400, res.Pieces[0].Region.Area(), 3)
}

func FuzzDecode(f *testing.F) {
	img := sim.Bench{W: 5, H: 5, Sheet: sim.White}.Scan(100, sim.Plain(), 1)
	raw, _ := sim.PNG(img, 100)
	f.Add(raw)
	raw, _ = sim.JPEG(img, 100, 80)
	f.Add(raw)
	f.Fuzz(func(t *testing.T, b []byte) {
		p, err := picture.Decode(b)
		if err == nil && len(p.Pix) != 3*p.W*p.H {
			t.Fatal("a picture of another size than it says")
		}
	})
}
