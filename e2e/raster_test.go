package e2e

import (
	"bytes"
	"context"
	"fmt"
	pic "image"
	"image/color"
	"image/png"
	"math"
	"math/rand/v2"
	"net/url"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// TestAnotherRasteriserAgrees: shapes whose measures are known, drawn by the browser's own
// rasteriser (Skia) at sixteen samples to a pixel of 300 dots to the inch and seen through a
// lens that is none of the simulator's, are traced to what closed forms say, on both grounds.
func TestAnotherRasteriserAgrees(t *testing.T) {
	t.Parallel()
	ctx := browser(t, 1600, 1200)
	const fine, dpi = 4, 300.0
	k := fine * dpi / 25.4 // of the page's pixels to the mm
	disc, square := shape.Disc(shape.Point{X: 9, Y: 12}, 6), shape.Rect(-4, -4, 8, 8).Turn(17, shape.Point{}).Move(shape.Point{X: 25, Y: 12})
	for _, ground := range []struct{ sheet, card string }{{"#101012", "#d8d4c4"}, {"#f2f1ec", "#5a4a78"}} {
		svg := fmt.Sprintf(`<body style="margin:0;background:%s"><svg width="1600" height="1200" style="display:block"><g fill="%s" transform="scale(%g)"><circle cx="9" cy="12" r="6"/><rect x="-4" y="-4" width="8" height="8" transform="translate(25 12) rotate(17)"/></g></svg>`, ground.sheet, ground.card, k)
		do(t, ctx, "draw", chromedp.Navigate("data:text/html,"+url.PathEscape(svg)))
		raw, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		drawn, err := png.Decode(bytes.NewReader(raw))
		require.NoError(t, err)
		data, err := sim.PNG(through(drawn, fine, 0.65, 2.5), dpi)
		require.NoError(t, err)
		p, err := picture.Decode(data)
		require.NoError(t, err)
		got, err := trace.Find(context.Background(), p, trace.DPI(dpi))
		require.NoError(t, err)
		require.Len(t, got.Pieces, 2, ground.sheet)
		assert.InDelta(t, math.Pi*36, got.Pieces[0].Region.Area(), 0.004*math.Pi*36, "the disc on %s", ground.sheet)
		assert.InDelta(t, 64, got.Pieces[1].Region.Area(), 0.004*64, "the square on %s", ground.sheet)
		for i, truth := range []shape.Region{disc, square} {
			mean, most := 0.0, 0.0
			ds := got.Pieces[i].Region.Strays(truth, 0.2)
			for _, d := range ds {
				mean, most = mean+d/float64(len(ds)), math.Max(most, d)
			}
			assert.Less(t, mean, 0.01, "on the mean, mm")
			assert.Less(t, most, 0.06, "at most, mm: corners are rounded by the lens")
			assert.Less(t, mean, got.Pieces[i].Sure, "it is as sure as it says")
		}
	}
}

// through sees a fine picture through a lens: means of fine by fine in linear light, the blur
// and noise of a scanner, pixels and levels of 255.
func through(fine pic.Image, by int, blur, noise float64) pic.Image {
	w, h := fine.Bounds().Dx()/by, fine.Bounds().Dy()/by
	light := make([][3]float64, w*h)
	for y := range h * by {
		for x := range w * by {
			r, g, b, _ := fine.At(x, y).RGBA()
			for c, v := range [3]uint32{r, g, b} {
				light[y/by*w+x/by][c] += picture.ToLinear(float64(v)/65535) / float64(by*by)
			}
		}
	}
	const reach = 3
	var kernel [2*reach + 1]float64
	var sum float64
	for i := range kernel {
		d := float64(i - reach)
		kernel[i] = math.Exp(-d * d / (2 * blur * blur))
		sum += kernel[i]
	}
	for _, step := range [2]int{1, w} {
		out := make([][3]float64, w*h)
		for y := range h {
			for x := range w {
				for i, k := range kernel {
					at := y*w + min(w-1, max(0, x+i-reach))
					if step == w {
						at = min(h-1, max(0, y+i-reach))*w + x
					}
					for c := range 3 {
						out[y*w+x][c] += k / sum * light[at][c]
					}
				}
			}
		}
		light = out
	}
	rnd := rand.New(rand.NewPCG(1, 2))
	img := pic.NewRGBA(pic.Rect(0, 0, w, h))
	for i, l := range light {
		var v [3]uint8
		for c := range v {
			v[c] = uint8(math.Min(255, math.Max(0, 255*picture.FromLinear(l[c])+noise*rnd.NormFloat64()+0.5)))
		}
		img.Set(i%w, i/w, color.RGBA{v[0], v[1], v[2], 255})
	}
	return img
}
