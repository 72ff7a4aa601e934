package sim_test

import (
	"bytes"
	"image"
	"image/jpeg"
	"image/png"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
)

// clean is a device that sees as it is.
var clean = sim.Grade{Tone: 1}

func linearAt(img *image.RGBA, x, y int) float64 { return float64(picture.Linear(img.RGBAAt(x, y).G)) }

// A piece that covers three tenths of a pixel lends it three tenths of its
// light: coverage is exact, in linear light.
func TestCoverageIsLinear(t *testing.T) {
	px := 25.4 / 254.0
	b := sim.Bench{W: 4, H: 4, Sheet: colour.Linear{0, 0, 0}, Items: []sim.Item{{Outline: shape.Rect(1, 1, 1+0.3*px, 2), Colour: colour.Linear{0.5, 0.5, 0.5}}}}
	img := b.Scan(254, clean, 1)
	assert.Equal(t, 40, img.Bounds().Dx())
	assert.InDelta(t, 0.5, linearAt(img, 15, 20), 0.01)
	assert.InDelta(t, 0.15, linearAt(img, 20, 20), 0.01)
	assert.InDelta(t, 0, linearAt(img, 21, 20), 0.005)
	assert.InDelta(t, 0, linearAt(img, 9, 20), 0.005)
}

func TestNoiseAndLightAreAsAsked(t *testing.T) {
	flat := sim.Bench{W: 60, H: 60, Sheet: colour.Linear{0.3, 0.3, 0.3}}
	g := sim.Grade{Tone: 1, Noise: 3.0 / 255}
	img := flat.Scan(100, g, 4)
	var n, sum, square float64
	for y := range img.Bounds().Dy() {
		for x := range img.Bounds().Dx() {
			v := float64(img.RGBAAt(x, y).R)
			n, sum, square = n+1, sum+v, square+v*v
		}
	}
	assert.InDelta(t, 3, math.Sqrt(square/n-sum*sum/n/n), 0.1)
	assert.InDelta(t, 255*picture.FromLinear(0.3), sum/n, 0.3)

	g = sim.Grade{Tone: 1, Uneven: 0.1}
	img = flat.Scan(100, g, 4)
	lo, hi := 1.0, 0.0
	for _, p := range []image.Point{{1, 1}, {234, 1}, {1, 234}, {234, 234}, {118, 118}} {
		v := linearAt(img, p.X, p.Y)
		lo, hi = math.Min(lo, v), math.Max(hi, v)
	}
	assert.Greater(t, hi/lo, 1.05)
	assert.Less(t, hi/lo, 1.2)
}

func TestSameSeedSamePictureOtherSeedAnother(t *testing.T) {
	b := sim.Bench{W: 30, H: 30, Sheet: sim.Black, Items: []sim.Item{{Outline: shape.Disc(shape.Point{X: 15, Y: 15}, 8), Colour: sim.Papers[1]}}}
	one, two, other := b.Scan(150, sim.Hard(), 9), b.Scan(150, sim.Hard(), 9), b.Scan(150, sim.Hard(), 10)
	assert.Equal(t, one.Pix, two.Pix)
	assert.NotEqual(t, one.Pix, other.Pix)
}

func TestShadowFallsBesidePiecesNotPrints(t *testing.T) {
	disc := shape.Disc(shape.Point{X: 15, Y: 15}, 6)
	look := func(print bool) float64 {
		b := sim.Bench{W: 30, H: 30, Sheet: sim.White, Items: []sim.Item{{Outline: disc, Colour: colour.Linear{0.1, 0.1, 0.1}, Print: print}}}
		img := b.Scan(150, sim.Grade{Tone: 1, Shadow: 0.3}, 1)
		k := 150 / 25.4
		return linearAt(img, int(15*k), int(21.6*k))
	}
	assert.Less(t, look(false), 0.82)
	assert.InDelta(t, 0.87, look(true), 0.02)
}

func TestPiecesLieApartInsideTheSheet(t *testing.T) {
	sets, err := sim.Sets()
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(sets), 6)
	for _, s := range sets {
		require.NoError(t, s.Validate(), s.Name)
		laid, err := sim.Lay(s, 210, 230, 25, 3)
		require.NoError(t, err, s.Name)
		for i, l := range laid {
			b := l.Outline.Bounds()
			assert.True(t, b.Min.X > 3 && b.Min.Y > 3 && b.Max.X < 207 && b.Max.Y < 227, "%s %d", s.Name, i)
			for _, m := range laid[:i] {
				assert.False(t, l.Outline.Bounds().Meets(m.Outline.Bounds()), "%s: boxes stand apart", s.Name)
			}
			// What is told of the laying down is true.
			part, ok := s.Part(l.Part)
			require.True(t, ok)
			back := l.Outline.Move(l.Move.Scale(-1)).Turn(-l.Turn, shape.Point{})
			assert.True(t, part.Outline.Bounds().Meets(back.Bounds()))
			gap := math.Inf(1)
			for _, p := range part.Outline.Pieces() {
				gap = math.Min(gap, p.Centroid().Distance(back.Centroid()))
			}
			assert.Less(t, gap, 1e-6)
		}
	}
	_, err = sim.Lay(sets[0], 60, 60, 0, 1)
	assert.ErrorIs(t, err, sim.ErrRoom)
	_, _, err = sim.Stamped(sets[0], []colour.Linear{{}}, 60, 60, 0, 1)
	assert.ErrorIs(t, err, sim.ErrRoom)
}

func TestFilesSayTheirResolution(t *testing.T) {
	img := image.NewRGBA(image.Rect(0, 0, 20, 20))
	raw, err := sim.PNG(img, 600)
	require.NoError(t, err)
	_, err = png.Decode(bytes.NewReader(raw))
	require.NoError(t, err, "still a PNG, checksums and all")
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	assert.InDelta(t, 600, p.DPI, 0.02)
	raw, err = sim.JPEG(img, 240, 80)
	require.NoError(t, err)
	_, err = jpeg.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
}

// Looking straight down with a straight lens, a mark of the mat is seen where
// similar triangles put it.
func TestCameraAgainstSimilarTriangles(t *testing.T) {
	l := mat.For(measure.A4, false)
	b, _ := sim.OnMat(l, nil, nil)
	cam := sim.Camera{W: 900, H: 1200, Fill: 0.9}
	img := b.Photo(cam, clean, 1)
	perMM := 0.9 * 1200 / 297
	at := func(p shape.Point) (int, int) {
		return int(450 + (p.X-105)*perMM), int(600 + (p.Y-148.5)*perMM)
	}
	x, y := at(l.Marks[0].At)
	assert.Less(t, linearAt(img, x, y), 0.1, "the dot of the first corner")
	x, y = at(l.Marks[0].At.Add(shape.Point{X: 2.55}))
	assert.Greater(t, linearAt(img, x, y), 0.6, "white between dot and ring")
	x, y = at(l.Marks[2].At.Add(shape.Point{Y: 4.2}))
	assert.Less(t, linearAt(img, x, y), 0.15, "the ring of the third")
	assert.Less(t, linearAt(img, 5, 5), 0.3, "the table beyond the page")
}

func TestPadsAreOffButAlwaysTheSame(t *testing.T) {
	k := kit.Ink{Kind: kit.Dye, Dry: "#b4524f"}
	white, err := colour.ParseHex(kit.PlainWhite)
	require.NoError(t, err)
	f, _, err := k.Film(white)
	require.NoError(t, err)
	one, two := sim.Pad(f, "madder-full"), sim.Pad(f, "madder-full")
	assert.Equal(t, one, two)
	assert.NotEqual(t, one, sim.Pad(f, "gorse-full"))
	d := colour.Difference(one.Over(white, 1).Lab(), f.Over(white, 1).Lab())
	assert.True(t, d > 0.2 && d < 15, "%.1f", d)
}

func TestStencilHasItsOpenings(t *testing.T) {
	set := kit.Set{Parts: []kit.Part{{ID: "a", Outline: shape.Disc(shape.Point{X: 10, Y: 10}, 7)}}}
	b := sim.Stencil(set, 8)
	require.Len(t, b.Items, 2, "the plate and the guide etched into it")
	assert.Len(t, b.Items[0].Outline.Rings(), 2)
	box := set.Parts[0].Outline.Bounds()
	assert.InDelta(t, (box.W()+16)*(box.H()+16)-math.Pi*49, b.Items[0].Outline.Area(), 0.05, "a plate 8 mm larger all round, less the disc")
}
