package trace

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// One pixel of 1 in a field of 0: at half level its line is the diamond of
// half a pixel round its centre, of area 1/2 (worked by hand).
func TestContourOfOnePixelByHand(t *testing.T) {
	f := &field{x0: 10, y0: 20, w: 5, h: 5, s: make([]float32, 25)}
	f.s[2*5+2] = 1
	lines := f.contours(0.5)
	require.Len(t, lines, 1)
	require.Len(t, lines[0], 4)
	assert.InDelta(t, 0.5, areaOf(lines[0]), 1e-9, "positive round what is above")
	for _, p := range lines[0] {
		assert.InDelta(t, 0.5, math.Hypot(p.x-12.5, p.y-22.5), 1e-9, "the centre stands at +0.5")
	}
}

func TestContourLevelsMoveByInterpolation(t *testing.T) {
	f := &field{w: 6, h: 6, s: make([]float32, 36)}
	for y := 1; y < 5; y++ {
		for x := 1; x < 5; x++ {
			f.s[y*6+x] = 1
		}
	}
	// A block of four by four centres, 3 wide, grows by 1-level on each side,
	// its corners cut.
	for level, side := range map[float32]float64{0.25: 3 + 2*0.75, 0.5: 4, 0.75: 3 + 2*0.25} {
		lines := f.contours(level)
		require.Len(t, lines, 1)
		cut := 2 * (1 - float64(level)) * (1 - float64(level))
		assert.InDelta(t, side*side-cut, areaOf(lines[0]), 1e-6, "level %g", level)
	}
}

func TestContoursOfHolesRunTheOtherWay(t *testing.T) {
	f := &field{w: 9, h: 9, s: make([]float32, 81)}
	for y := 1; y < 8; y++ {
		for x := 1; x < 8; x++ {
			if x != 4 || y != 4 {
				f.s[y*9+x] = 1
			}
		}
	}
	var plus, minus int
	for _, l := range f.contours(0.5) {
		if areaOf(l) > 0 {
			plus++
		} else {
			minus++
			assert.InDelta(t, -0.5, areaOf(l), 1e-9)
		}
	}
	assert.Equal(t, 1, plus)
	assert.Equal(t, 1, minus)
}

// Two pixels that meet at a corner: joined where their mean with the others
// reaches the level, apart where it does not.
func TestSaddlesFollowTheirMean(t *testing.T) {
	for v, n := range map[float32]int{0.9: 2, 1.2: 1} {
		f := &field{w: 6, h: 6, s: make([]float32, 36)}
		f.s[2*6+2], f.s[3*6+3] = v, v
		assert.Len(t, f.contours(0.5), n, "value %g", v)
	}
}

func TestShrinkTakesARimOff(t *testing.T) {
	w, h := 20, 12
	mask := make([]bool, w*h)
	for y := 2; y < 10; y++ {
		for x := 3; x < 17; x++ {
			mask[y*w+x] = true
		}
	}
	for r := range 4 {
		n := 0
		for _, on := range shrink(mask, w, h, r) {
			if on {
				n++
			}
		}
		assert.Equal(t, (14-2*r)*(8-2*r), n, "a rim of %d", r)
	}
}

// A parabola is kept to the letter, noise is not: Savitzky and Golay's filter
// of the second degree.
func TestSmoothingKeepsParabolasAndCalmsNoise(t *testing.T) {
	var l []xy
	for i := range 400 { // a big circle: nearly a parabola within any window
		a := 2 * math.Pi * float64(i) / 400
		l = append(l, xy{200 * math.Cos(a), 200 * math.Sin(a)})
	}
	for i, p := range parabola(l, nil) {
		assert.InDelta(t, 200, math.Hypot(p.x, p.y), 1e-3, i)
	}
	rnd := rand.New(rand.NewPCG(1, 2))
	noisy := make([]xy, len(l))
	for i, p := range l {
		noisy[i] = xy{p.x + 0.1*rnd.NormFloat64(), p.y + 0.1*rnd.NormFloat64()}
	}
	var before, after float64
	for i, p := range parabola(noisy, nil) {
		after += math.Pow(math.Hypot(p.x, p.y)-200, 2)
		before += math.Pow(math.Hypot(noisy[i].x, noisy[i].y)-200, 2)
	}
	// The variance left by a window of 11 is 9·(3·11²-7)/(4·11·(11²-4)) = 0.207…
	assert.InDelta(t, 0.2075, after/before, 0.05)
}

func square(side float64) (l []xy) {
	for i := range int(side) {
		l = append(l, xy{float64(i), 0})
	}
	for i := range int(side) {
		l = append(l, xy{side, float64(i)})
	}
	for i := range int(side) {
		l = append(l, xy{side - float64(i), side})
	}
	for i := range int(side) {
		l = append(l, xy{0, side - float64(i)})
	}
	return l
}

func TestCornersOfASquareAreFoundAndKept(t *testing.T) {
	cs := corners(resample(square(60), 1))
	require.Len(t, cs, 4)
	out := smooth(square(60))
	assert.InDelta(t, 3600, areaOf(out), 2)
	for _, want := range []xy{{0, 0}, {60, 0}, {60, 60}, {0, 60}} {
		best := math.Inf(1)
		for _, p := range out {
			best = math.Min(best, math.Hypot(p.x-want.x, p.y-want.y))
		}
		assert.Less(t, best, 0.05, "corner %v", want)
	}
}

func TestRoundThingsHaveNoCorners(t *testing.T) {
	for _, r := range []float64{9, 14, 40, 150} { // pixels
		var l []xy
		n := int(2 * math.Pi * r)
		for i := range n {
			a := 2 * math.Pi * float64(i) / float64(n)
			l = append(l, xy{r * math.Cos(a), r * math.Sin(a)})
		}
		assert.Empty(t, corners(resample(l, 1)), "radius %g", r)
	}
}

func TestResampleIsEvenAndKeepsLength(t *testing.T) {
	l := resample([]xy{{0, 0}, {7, 0}, {7, 5}, {0, 5}}, 1)
	assert.Len(t, l, 24)
	assert.InDelta(t, 35, areaOf(l), 1e-9)
	for i, p := range l {
		q := l[(i+1)%len(l)]
		assert.LessOrEqual(t, math.Hypot(q.x-p.x, q.y-p.y), 1+1e-9)
	}
}

func TestCrossingIsTheOneNearest(t *testing.T) {
	at, ok := crossing(func(k float64) float64 { return 0.3 - k })
	assert.True(t, ok)
	assert.InDelta(t, 0.3, at, 1e-9)
	_, ok = crossing(func(float64) float64 { return 1 })
	assert.False(t, ok, "no edge within reach")
	_, ok = crossing(func(k float64) float64 { return k })
	assert.False(t, ok, "an edge the wrong way round is not this piece's")
	at, ok = crossing(func(k float64) float64 { return math.Cos(3 * (k - 0.1)) })
	assert.True(t, ok)
	assert.InDelta(t, 0.1+math.Pi/6, at, 0.02)
}

func TestStraightSidesMeet(t *testing.T) {
	pts := []xy{{0, 0}, {1, 0.1}, {2, 0.2}, {3, 0.3}}
	s := side(func(i int) xy { return pts[i] }, 0, 3)
	assert.InDelta(t, 0.1, s.d.y/s.d.x, 1e-9)
	p, ok := meet(straight{xy{0, 0}, xy{1, 0}}, straight{xy{5, 5}, xy{0, 1}})
	assert.True(t, ok)
	assert.Equal(t, xy{5, 0}, p)
	_, ok = meet(straight{xy{0, 0}, xy{1, 0}}, straight{xy{0, 1}, xy{1, 0.01}})
	assert.False(t, ok, "nearly parallel sides meet nowhere that counts")
	assert.InDelta(t, -math.Pi/2, bend(math.Pi, math.Pi/2), 1e-12)
	assert.InDelta(t, 0.2, bend(math.Pi-0.1, -math.Pi+0.1), 1e-12, "across the turn")
}

func TestMedians(t *testing.T) {
	assert.Equal(t, 3.0, median([]float64{5, 1, 3, 2, 4}))
	assert.Equal(t, 0.0, median(nil))
	hist := make([]int, 256)
	hist[10], hist[20] = 5, 5
	assert.InDelta(t, 10.5, medianOf(hist, 10), 1e-9)
}

// A sheet whose light falls off by a known surface is found under pieces that
// cover a third of it.
func TestSheetIsFoundUnderPieces(t *testing.T) {
	const w, h = 420, 300
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	sheet := func(x, y float64) float64 { return 200 - 18*(x/w) - 10*(y/h)*(y/h) }
	rnd := rand.New(rand.NewPCG(5, 6))
	for y := range h {
		for x := range w {
			v := sheet(float64(x), float64(y)) + 3*rnd.NormFloat64()
			if x > 120 && x < 300 && y > 60 && y < 240 {
				v = 60
			}
			g := uint8(v + 0.5)
			img.Set(x, y, color.RGBA{g, g, g, 255})
		}
	}
	p := &picture.Picture{W: w, H: h, Pix: make([]uint8, 3*w*h)}
	for i := range w * h {
		copy(p.Pix[3*i:], img.Pix[4*i:4*i+3])
	}
	f := &finder{pic: p, scale: DPI(150), tell: func(float64, string) {}}
	require.NoError(t, f.findGround())
	assert.InDelta(t, 3, f.ground.sigma, 0.8, "the noise is measured too")
	for _, q := range []xy{{10, 10}, {210, 150}, {400, 290}, {30, 280}} {
		assert.InDelta(t, sheet(q.x, q.y), f.ground.at(q.x, q.y)[1], 2.5)
	}
}

func TestReadingOrder(t *testing.T) {
	type box struct{ x, y, w, h float64 }
	boxes := []box{{60, 2, 10, 10}, {0, 30, 10, 10}, {0, 0, 10, 14}, {30, 4, 10, 8}, {40, 33, 10, 10}}
	got := append([]box{}, boxes...)
	readingOrder(got, func(b box) (out shape.Box) {
		out.Min.X, out.Min.Y, out.Max.X, out.Max.Y = b.x, b.y, b.x+b.w, b.y+b.h
		return out
	})
	assert.Equal(t, []box{boxes[2], boxes[3], boxes[0], boxes[1], boxes[4]}, got)
}
