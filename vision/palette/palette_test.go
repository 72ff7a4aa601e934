package palette_test

import (
	"image"
	"image/color"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/demo/sim"
	"ochrestone/vision/palette"
	"ochrestone/vision/picture"
)

// A picture of four known colours in known shares, with noise.
func known(t *testing.T, noise float64) *picture.Picture {
	img := image.NewRGBA(image.Rect(0, 0, 200, 100))
	rnd := rand.New(rand.NewPCG(1, 1))
	cols := []color.RGBA{{240, 232, 210, 255}, {90, 140, 80, 255}, {190, 60, 50, 255}, {30, 34, 60, 255}}
	for y := range 100 {
		for x := range 200 {
			k := 0
			switch {
			case x >= 180:
				k = 3
			case x >= 140:
				k = 2
			case x >= 100:
				k = 1
			}
			c := cols[k]
			v := func(u uint8) uint8 { return uint8(min(255, max(0, float64(u)+noise*rnd.NormFloat64()))) }
			img.Set(x, y, color.RGBA{v(c.R), v(c.G), v(c.B), 255})
		}
	}
	raw, err := sim.PNG(img, 72)
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	return p
}

func TestMainColoursAndTheirShares(t *testing.T) {
	for _, noise := range []float64{0, 4} {
		got := palette.Of(known(t, noise), 6)
		require.Len(t, got, 4, "noise %g", noise)
		for i, want := range []struct {
			hex   string
			share float64
		}{{"#f0e8d2", 0.5}, {"#5a8c50", 0.2}, {"#be3c32", 0.2}, {"#1e223c", 0.1}} {
			c, err := colour.ParseHex(want.hex)
			require.NoError(t, err)
			assert.Less(t, colour.Difference(c.Lab(), got[i].Colour.Lab()), 2.5, want.hex)
			assert.InDelta(t, want.share, got[i].Share, 0.01)
		}
		for i := 1; i < len(got); i++ {
			assert.GreaterOrEqual(t, got[i-1].Colour.Lab().L, got[i].Colour.Lab().L, "lightest first")
		}
	}
}

func TestNoMoreColoursThanAsked(t *testing.T) {
	assert.Len(t, palette.Of(known(t, 3), 2), 2)
	assert.Len(t, palette.Of(known(t, 0), 1), 1)
	flat := image.NewGray(image.Rect(0, 0, 30, 30))
	raw, err := sim.PNG(flat, 72)
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	got := palette.Of(p, 5)
	require.Len(t, got, 1, "one colour is one colour")
	assert.InDelta(t, 1, got[0].Share, 1e-9)
}

func TestSamePictureSameColours(t *testing.T) {
	p := known(t, 5)
	assert.Equal(t, palette.Of(p, 5), palette.Of(p, 5))
}
