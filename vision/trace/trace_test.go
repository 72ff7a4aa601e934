package trace_test

import (
	"context"
	"image"
	"image/color"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// drawn renders a picture by asking a function for every sample of a pixel,
// eight by eight of them: nothing of it is shared with the tracer or with the
// simulated scanner.
func drawn(t *testing.T, w, h int, inside func(x, y float64) bool) *picture.Picture {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	const dark, light = 0.012, 0.8 // linear
	for y := range h {
		for x := range w {
			n := 0
			for j := range 8 {
				for i := range 8 {
					if inside(float64(x)+(float64(i)+0.5)/8, float64(y)+(float64(j)+0.5)/8) {
						n++
					}
				}
			}
			v := picture.FromLinear(dark + (light-dark)*float64(n)/64)
			g := uint8(v*255 + 0.5)
			img.Set(x, y, color.RGBA{g, g, g, 255})
		}
	}
	raw, err := sim.PNG(img, 300)
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	return p
}

// Printed circles of known size: diameter and place to a hundredth of a mm.
func TestCirclesOfKnownSize(t *testing.T) {
	for _, r := range []float64{12.3, 40.7, 120.25} { // pixels
		n := int(2*r) + 160
		cx, cy := float64(n)/2+0.37, float64(n)/2-0.21
		p := drawn(t, n, n, func(x, y float64) bool { return math.Hypot(x-cx, y-cy) < r })
		res, err := trace.Find(context.Background(), p, trace.DPI(p.DPI))
		require.NoError(t, err)
		require.Equal(t, 1, len(res.Pieces))
		g := res.Pieces[0].Region
		k := 25.4 / 300
		assert.InDelta(t, r*k, math.Sqrt(g.Area()/math.Pi), 0.01, "radius")
		assert.InDelta(t, cx*k, g.Centroid().X, 0.005, "pixel centres stand at +0.5")
		assert.InDelta(t, cy*k, g.Centroid().Y, 0.005)
	}
}

// A printed square keeps its corners, and a ring its hole.
func TestSquaresAndRingsOfKnownSize(t *testing.T) {
	s, c := math.Sincos(0.3)
	p := drawn(t, 400, 400, func(x, y float64) bool {
		u, v := (x-200)*c+(y-200)*s, -(x-200)*s+(y-200)*c
		return math.Abs(u) < 100 && math.Abs(v) < 100 && math.Hypot(u-30, v) > 20
	})
	res, err := trace.Find(context.Background(), p, trace.DPI(300))
	require.NoError(t, err)
	require.Equal(t, 1, len(res.Pieces))
	g := res.Pieces[0].Region
	k := 25.4 / 300
	require.Len(t, g.Rings(), 2, "the hole is kept")
	assert.InDelta(t, (200*200-math.Pi*400)*k*k, g.Area(), 0.3)
	// The four corners stand where they are, not rounded off.
	far := 0.0
	for _, q := range g.Rings()[0] {
		far = math.Max(far, q.Distance(shape.Point{X: 200 * k, Y: 200 * k}))
	}
	assert.InDelta(t, 100*math.Sqrt2*k, far, 0.03)
	assert.LessOrEqual(t, len(g.Rings()[0]), 16, "straight sides need few points")
}

func TestScansMeetTheirAccuracy(t *testing.T) {
	for _, s := range []scene{
		{"plain", basics(), true, 300, sim.Plain(), false, 3, 130, 130},
		{"plain, light, JPEG", basics(), false, 300, sim.Plain(), true, 4, 130, 130},
		{"hard", basics(), true, 300, sim.Hard(), false, 5, 130, 130},
		{"150 dpi", basics(), false, 150, sim.Plain(), false, 6, 130, 130},
	} {
		r, _ := s.run(t)
		assert.Zero(t, r.missed, s.name)
		assert.Zero(t, r.false_, s.name)
		assert.Zero(t, r.holes, s.name)
		assert.Less(t, r.mean, 0.02, s.name)
		assert.Less(t, r.p95, 0.04, s.name)
		assert.Less(t, r.area, map[bool]float64{true: 0.012, false: 0.025}[s.dpi == 300], s.name)
	}
}

func scan(t testing.TB, b sim.Bench, seed uint64) *picture.Picture {
	return scanned(t, b, sim.Plain(), seed)
}

// scanned is what a device makes of a bench at 300 dpi, as a PNG that was read back.
func scanned(t testing.TB, b sim.Bench, g sim.Grade, seed uint64) *picture.Picture {
	raw, err := sim.PNG(b.Scan(300, g, seed), 300)
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	return p
}

func TestTheSamePictureGivesTheSameOutlines(t *testing.T) {
	laid, err := sim.Lay(basics(), 130, 130, 20, 9)
	require.NoError(t, err)
	b := sim.Bench{W: 130, H: 130, Sheet: sim.Black, Items: sim.Pieces(laid, true)}
	p, q := scan(t, b, 9), scan(t, b, 9)
	assert.Equal(t, p.Pix, q.Pix, "a seed gives one picture")
	a, err := trace.Find(context.Background(), p, trace.DPI(300))
	require.NoError(t, err)
	c, err := trace.Find(context.Background(), q, trace.DPI(300))
	require.NoError(t, err)
	require.Equal(t, len(a.Pieces), len(c.Pieces))
	for i := range a.Pieces {
		assert.Equal(t, a.Pieces[i].Region.Path(), c.Pieces[i].Region.Path())
	}
}

// A cut along an edge that is not quite straight gives the two pieces and no slivers.
func TestACutAlongAnEdgeLeavesNoSlivers(t *testing.T) {
	g := shape.Raw(shape.Ring{{X: 0, Y: 0}, {X: 19.97, Y: 0}, {X: 20, Y: 5}, {X: 30, Y: 5}, {X: 30, Y: 15}, {X: 20, Y: 15}, {X: 20.03, Y: 20}, {X: 0, Y: 20}})
	parts, err := trace.Split(g, shape.Point{X: 20, Y: -5}, shape.Point{X: 20, Y: 25})
	require.NoError(t, err)
	require.Len(t, parts, 2)
	assert.InDelta(t, 400, parts[0].Area(), 1)
	assert.InDelta(t, 100, parts[1].Area(), 1)
}

func TestTouchingPiecesAreNoticedAndCut(t *testing.T) {
	a, b := shape.Rect(15, 15, 20, 20), shape.Disc(shape.Point{X: 44.9, Y: 25}, 10)
	p := scan(t, sim.Bench{W: 70, H: 50, Sheet: sim.Black, Items: []sim.Item{{Outline: a, Colour: sim.Papers[0]}, {Outline: b, Colour: sim.Papers[0]}}}, 1)
	res, err := trace.Find(context.Background(), p, trace.DPI(300))
	require.NoError(t, err)
	require.Equal(t, 1, len(res.Pieces))
	assert.True(t, res.Pieces[0].Touches)
	assert.Contains(t, res.Notes[0], "two that touch")
	parts, err := trace.Split(res.Pieces[0].Region, shape.Point{X: 35, Y: 10}, shape.Point{X: 35, Y: 40})
	require.NoError(t, err)
	require.Len(t, parts, 2)
	assert.InDelta(t, 400, parts[0].Area(), 4)
	assert.InDelta(t, math.Pi*100, parts[1].Area(), 4)
	_, err = trace.Split(res.Pieces[0].Region, shape.Point{X: 20, Y: 18}, shape.Point{X: 30, Y: 18})
	assert.ErrorContains(t, err, "does not part the piece")
	_, err = trace.Split(res.Pieces[0].Region, shape.Point{X: 20, Y: 18}, shape.Point{X: 20.1, Y: 18})
	assert.ErrorContains(t, err, "too short")
}

func TestBadSheetsAreRefusedInWords(t *testing.T) {
	blank := scan(t, sim.Bench{W: 60, H: 60, Sheet: sim.Black}, 1)
	_, err := trace.Find(context.Background(), blank, trace.DPI(300))
	assert.ErrorContains(t, err, "No pieces can be told from the sheet")
	one := scan(t, sim.Bench{W: 60, H: 60, Sheet: sim.Black, Items: []sim.Item{{Outline: shape.Rect(20, 20, 20, 20), Colour: sim.Papers[0]}}}, 1)
	_, err = trace.Find(context.Background(), one, trace.DPI(300), trace.On(trace.LightGround))
	assert.ErrorContains(t, err, "The sheet is dark")
	over := scan(t, sim.Bench{W: 60, H: 60, Sheet: sim.Black, Items: []sim.Item{{Outline: shape.Rect(-5, 20, 20, 20), Colour: sim.Papers[0]}}}, 1)
	res, err := trace.Find(context.Background(), over, trace.DPI(300))
	require.NoError(t, err)
	assert.True(t, res.Pieces[0].Cut)
	assert.Contains(t, res.Notes[0], "edge of the picture")
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err = trace.Find(ctx, one, trace.DPI(300))
	assert.ErrorIs(t, err, context.Canceled)
}

func TestProgressRisesToOne(t *testing.T) {
	one := scan(t, sim.Bench{W: 60, H: 60, Sheet: sim.White, Items: []sim.Item{{Outline: shape.Rect(20, 20, 20, 20), Colour: colour.Linear{0.05, 0.1, 0.05}}}}, 1)
	last := 0.0
	_, err := trace.Find(context.Background(), one, trace.DPI(300), trace.On(trace.LightGround), trace.Progress(func(share float64, what string) {
		assert.GreaterOrEqual(t, share, last)
		assert.NotEmpty(t, what)
		last = share
	}))
	require.NoError(t, err)
	assert.Equal(t, 1.0, last)
}

var inks = []colour.Linear{{0.66, 0.44, 0.42}, {0.42, 0.14, 0.12}, {0.10, 0.26, 0.40}, {0.02, 0.02, 0.025}}

func beetle(t *testing.T) kit.Set { return demoSets(t)[1] }

func TestStampedStepsComeApartByInk(t *testing.T) {
	b, laid, err := sim.Stamped(beetle(t), inks, 210, 150, 6, 4)
	require.NoError(t, err)
	res, err := trace.Find(context.Background(), scan(t, b, 4), trace.DPI(300), trace.Prints())
	require.NoError(t, err)
	steps := trace.Steps(res.Pieces)
	require.Equal(t, 4, len(steps))
	for i, l := range laid {
		assert.InDelta(t, 1, steps[i].Region.Area()/l.Outline.Area(), 0.03, "step %d: blotches are closed, thin lines kept", i+1)
		var mean float64
		ds := steps[i].Region.Strays(l.Outline, 0.5)
		for _, d := range ds {
			mean += d / float64(len(ds))
		}
		assert.Less(t, mean, 0.06, "step %d", i+1)
		assert.Less(t, colour.Difference(steps[i].Colour.Lab(), inks[i].Lab()), 9.0, "step %d keeps its ink, patchy as it is", i+1)
	}
}

func TestStencilOpeningsAndItsEtchedGuide(t *testing.T) {
	set := kit.Set{Parts: []kit.Part{{ID: "a", Outline: shape.Disc(shape.Point{X: 10, Y: 10}, 7)}, {ID: "b", Outline: shape.Rect(25, 4, 12, 12)}}}
	b := sim.Stencil(set, 8)
	p := scan(t, b, 2)
	res, err := trace.Find(context.Background(), p, trace.DPI(300), trace.Plate())
	require.NoError(t, err)
	open, err := trace.Openings(res.Pieces)
	require.NoError(t, err)
	require.Len(t, open, 2)
	assert.InDelta(t, math.Pi*49, open[0].Area(), 0.8)
	assert.InDelta(t, 144, open[1].Area(), 0.8)
	_, err = trace.Openings(nil)
	assert.ErrorContains(t, err, "No openings")

	// The guide runs round the image: every point of what was found lies on it,
	// and most of its length was found.
	guide := b.Items[1].Outline
	var length float64
	for _, l := range trace.Etched(p, 300, res.Pieces[0].Region, res.Noise) {
		for i, q := range l {
			off := math.Inf(1)
			for _, s := range shape.Disc(q, 0.01).Strays(guide, 0.1) {
				off = math.Min(off, s)
			}
			assert.Less(t, off, 0.45, "%v", q)
			if i > 0 {
				length += q.Distance(l[i-1])
			}
		}
	}
	assert.InDelta(t, guide.Length()/2, length, 0.12*guide.Length()/2)
	plain := b
	plain.Items = b.Items[:1]
	p = scan(t, plain, 2)
	res, err = trace.Find(context.Background(), p, trace.DPI(300), trace.Plate())
	require.NoError(t, err)
	assert.Empty(t, trace.Etched(p, 300, res.Pieces[0].Region, res.Noise), "noise and shading are no lines")
}
