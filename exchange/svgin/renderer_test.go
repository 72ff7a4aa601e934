package svgin

import (
	"bytes"
	"image"
	_ "image/png"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
)

// perMM is how many pixels of the rendered picture there are to the millimetre.
const perMM = 10.0

// rendered is a drawing as librsvg draws it.
func rendered(t *testing.T, file string) image.Image {
	t.Helper()
	tool, err := exec.LookPath("rsvg-convert")
	if err != nil {
		t.Skip("librsvg2-bin is not installed: drawings are not compared with a renderer")
	}
	var out bytes.Buffer
	cmd := exec.Command(tool, "-d", "96", "-p", "96", "-z", "2.6458333333", file)
	cmd.Stdout = &out
	require.NoError(t, cmd.Run())
	img, _, err := image.Decode(&out)
	require.NoError(t, err)
	return img
}

// seen is the box and area, mm, of what a picture shows in a colour.
func seen(img image.Image, hex string) (box shape.Box, area float64) {
	var want [3]uint32
	for i := range want {
		want[i] = uint32(strings.IndexByte("0123456789abcdef", hex[2*i])*16 + strings.IndexByte("0123456789abcdef", hex[2*i+1]))
	}
	box = shape.Box{Min: shape.Point{X: math.Inf(1), Y: math.Inf(1)}, Max: shape.Point{X: math.Inf(-1), Y: math.Inf(-1)}}
	b := img.Bounds()
	for y := b.Min.Y; y < b.Max.Y; y++ {
		for x := b.Min.X; x < b.Max.X; x++ {
			r, g, bl, a := img.At(x, y).RGBA()
			if a < 0x8000 || r*255/a != want[0] || g*255/a != want[1] || bl*255/a != want[2] {
				continue
			}
			area += 1 / (perMM * perMM)
			px, py := float64(x)/perMM, float64(y)/perMM
			box.Min.X, box.Min.Y = math.Min(box.Min.X, px), math.Min(box.Min.Y, py)
			box.Max.X, box.Max.Y = math.Max(box.Max.X, px+1/perMM), math.Max(box.Max.Y, py+1/perMM)
		}
	}
	return box, area
}

// Every layer of drawings as common editors write them comes in with the box and
// the area that another renderer, librsvg, gives it.
func TestDrawingsComeInAsARendererDrawsThem(t *testing.T) {
	files, err := filepath.Glob("testdata/*.svg")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 30)
	for _, file := range files {
		t.Run(strings.TrimSuffix(filepath.Base(file), ".svg"), func(t *testing.T) {
			raw, err := os.ReadFile(file)
			require.NoError(t, err)
			d, err := Read(raw)
			require.NoError(t, err)
			img := rendered(t, file)
			assert.InDelta(t, d.W, float64(img.Bounds().Dx())/perMM, 0.3, "width of the page")
			assert.InDelta(t, d.H, float64(img.Bounds().Dy())/perMM, 0.3, "height of the page")
			colours := map[string]bool{}
			for _, p := range d.Parts {
				require.True(t, strings.HasPrefix(p.Label, "c "), "%s is no layer of this drawing; %v", p.Label, d.Notes)
				hex := p.Label[2:8]
				colours[hex] = true
				box, area := seen(img, hex)
				got := p.Outline.Bounds()
				assert.InDelta(t, area, p.Outline.Area(), 0.004*area+0.12*p.Outline.Length(), "area of %s", hex)
				for _, side := range [][2]float64{{box.Min.X, got.Min.X}, {box.Min.Y, got.Min.Y}, {box.Max.X, got.Max.X}, {box.Max.Y, got.Max.Y}} {
					assert.InDelta(t, side[0], side[1], 0.16, "side of %s", hex)
				}
			}
			for _, hex := range []string{"ff0000", "0000ff", "00aa00"} {
				if _, area := seen(img, hex); area > 0.5 {
					assert.True(t, colours[hex], "layer %s is drawn but did not come in; %v", hex, d.Notes)
				}
			}
		})
	}
}
