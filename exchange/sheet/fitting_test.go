package sheet

import (
	"bytes"
	"image"
	_ "image/png"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/demo"
)

// inked is the box, mm, of all that a page rendered by poppler shows that is not
// white.
func inked(t *testing.T, pdf []byte, page string) (x0, y0, x1, y1 float64) {
	t.Helper()
	tool, err := exec.LookPath("pdftoppm")
	if err != nil {
		t.Skip("poppler-utils is not installed: the page is not rendered")
	}
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "g.pdf"), pdf, 0o600))
	require.NoError(t, exec.Command(tool, "-r", "100", "-png", "-singlefile", "-f", page, "-l", page, filepath.Join(dir, "g.pdf"), filepath.Join(dir, "p")).Run())
	f, err := os.Open(filepath.Join(dir, "p.png"))
	require.NoError(t, err)
	defer f.Close()
	img, _, err := image.Decode(f)
	require.NoError(t, err)
	b := img.Bounds()
	x0, y0 = 1e9, 1e9
	for y := b.Min.Y; y < b.Max.Y; y++ {
		for x := b.Min.X; x < b.Max.X; x++ {
			if r, g, bl, _ := img.At(x, y).RGBA(); min(r, g, bl) < 0xf000 {
				x0, x1, y0, y1 = min(x0, float64(x)), max(x1, float64(x+1)), min(y0, float64(y)), max(y1, float64(y+1))
			}
		}
	}
	k := 25.4 / 100
	return x0 * k, y0 * k, x1 * k, y1 * k
}

// A slimline card is 8 1/2 in wide, wider than A4: on A4 its front is turned, and
// nothing of any page comes nearer to the edge than a printer reaches (5 mm,
// common practice, no source).
func TestAWideFrontIsTurnedOnA4(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[1]
	require.Greater(t, c.Base.W, measure.A4.W)
	var b bytes.Buffer
	require.NoError(t, Guide(&b, c, k, plan.Of(c, k), Page(measure.A4)))
	x0, y0, x1, y1 := inked(t, b.Bytes(), "1")
	assert.Greater(t, x0, 5.0)
	assert.Less(t, x1, measure.A4.W-5)
	assert.Greater(t, y0, 5.0)
	assert.Less(t, y1, measure.A4.H-5)
}

// A front larger than the page each way comes in parts that add up to all of it.
func TestAFrontLargerThanThePageIsFolded(t *testing.T) {
	c, k, _ := moth(t)
	c.Base.W, c.Base.H = 300, 380
	var b bytes.Buffer
	require.NoError(t, Guide(&b, c, k, plan.Of(c, k), Page(measure.A4)))
	for _, page := range []string{"1", "2", "3", "4"} {
		x0, _, x1, y1 := inked(t, b.Bytes(), page)
		assert.Greater(t, x0, 5.0, "page %s", page)
		assert.Less(t, x1, measure.A4.W-5, "page %s", page)
		assert.Less(t, y1, measure.A4.H-5)
	}
}
