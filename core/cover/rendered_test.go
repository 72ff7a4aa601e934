package cover

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"math"
	"math/rand/v2"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
)

// pixel is how large the dots of the rendered front are, mm: a quarter of a cell of the map.
const pixel = 0.1

// rendered is a front of flat shapes as librsvg draws it from their paths: by dot, which lies on top,
// the lowest 1; 0 for the base.
func rendered(t *testing.T, gs []shape.Region) (ids []int, w, h int) {
	t.Helper()
	var svg bytes.Buffer
	fmt.Fprintf(&svg, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 108 140" width="%d" height="%d" shape-rendering="crispEdges"><rect width="108" height="140" fill="#000"/>`, int(108/pixel), int(140/pixel))
	for i, g := range gs {
		fmt.Fprintf(&svg, `<path fill="#%02x0000" fill-rule="evenodd" d="%s"/>`, 20*(i+1), g.Path())
	}
	svg.WriteString("</svg>")
	cmd := exec.Command("rsvg-convert", "-f", "png")
	cmd.Stdin = &svg
	out, err := cmd.Output()
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(out))
	require.NoError(t, err)
	b := img.Bounds()
	ids = make([]int, b.Dx()*b.Dy())
	rgba, ok := img.(*image.RGBA)
	for y := range b.Dy() {
		for x := range b.Dx() {
			var r uint32
			if ok {
				r = uint32(rgba.Pix[rgba.PixOffset(x, y)]) * 257
			} else {
				r, _, _, _ = img.At(x, y).RGBA()
			}
			ids[y*b.Dx()+x] = int(math.Round(float64(r) / 257 / 20))
		}
	}
	return ids, b.Dx(), b.Dy()
}

// The map against fifty random fronts that librsvg rendered from our paths, in dots a quarter as large:
// the area that is seen of every thing, and how long every two of them meet (by Cauchy and Crofton's
// formula over four directions, good to a twentieth).
func TestTheMapAgainstAnotherRenderer(t *testing.T) {
	if _, err := exec.LookPath("rsvg-convert"); err != nil {
		t.Skip("rsvg-convert is not installed; make test installs it")
	}
	t.Parallel()
	rng := rand.New(rand.NewPCG(30, 5))
	edges := 0
	for n := range 50 {
		gs := strewn(rng)
		ids, w, h := rendered(t, gs)
		area := make([]float64, 7)
		meet := map[[2]int]float64{}
		step := func(a, b int, by float64) {
			if a != b {
				meet[[2]int{min(a, b), max(a, b)}] += by * math.Pi / 8 * pixel
			}
		}
		for y := range h {
			for x := range w {
				i := ids[y*w+x]
				area[i] += pixel * pixel
				if x+1 < w {
					step(i, ids[y*w+x+1], 1)
				}
				if y+1 < h {
					step(i, ids[(y+1)*w+x], 1)
				}
				if x+1 < w && y+1 < h {
					step(i, ids[(y+1)*w+x+1], 1/math.Sqrt2)
					step(ids[y*w+x+1], ids[(y+1)*w+x], 1/math.Sqrt2)
				}
			}
		}
		m := Seen(front(gs...))
		for i := range gs {
			assert.InDelta(t, area[i+1], m.Shown[i], 1.5+0.01*area[i+1], "front %d, thing %d", n, i)
		}
		mine := map[[2]int]float64{}
		for _, e := range m.Edges {
			a, b := m.Patches[e.A].Thing+1, m.Patches[e.B].Thing+1
			mine[[2]int{min(a, b), max(a, b)}] += e.Length
		}
		for k, long := range meet {
			if long > 3 {
				edges++
				assert.InDelta(t, long, mine[k], 1.5+0.08*long, "front %d, things %v", n, k)
			}
		}
	}
	assert.Greater(t, edges, 300)
}
