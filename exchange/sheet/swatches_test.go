package sheet

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/swatch"
)

// The printed sheet, rendered by poppler: every cell's frame stands where the
// reader looks for it, nothing stands in a cell, and unfilled it is refused.
func TestPrintedSwatchSheetMatchesItsReader(t *testing.T) {
	labels := make([]string, 96)
	for i := range labels {
		labels[i] = fmt.Sprintf("Heather, soft × %d, a long name", i%3+1)
	}
	var b bytes.Buffer
	require.NoError(t, Swatches(&b, measure.Letter, 7, "Swatch sheet 7, on Chalk, 80 lb", labels))
	dir := t.TempDir()
	file := filepath.Join(dir, "s.pdf")
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	out, err := exec.Command("pdftoppm", "-r", "200", "-png", file, filepath.Join(dir, "s")).CombinedOutput()
	require.NoError(t, err, string(out))
	words, err := exec.Command("pdftotext", file, "-").Output()
	require.NoError(t, err)
	assert.Contains(t, string(words), "Swatch sheet 7, on Chalk, 80 lb")
	raw, err := os.ReadFile(filepath.Join(dir, "s-1.png"))
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	m, err := mat.Read(p)
	require.NoError(t, err)
	g := swatch.For(m.Layout)
	light := func(q shape.Point) uint8 {
		px := m.Pixel(q)
		least := uint8(255)
		for dy := -1; dy <= 1; dy++ {
			for dx := -1; dx <= 1; dx++ {
				_, v, _ := p.At(int(px.X)+dx, int(px.Y)+dy)
				least = min(least, v)
			}
		}
		return least
	}
	for _, i := range []int{0, 7, 40, 88, 95} {
		box := g.Box(i)
		mid := box.Min.Add(box.Max).Scale(0.5)
		assert.Less(t, light(shape.Point{X: box.Min.X, Y: mid.Y}), uint8(200), "left side of cell %d", i)
		assert.Less(t, light(shape.Point{X: mid.X, Y: box.Max.Y}), uint8(200), "foot of cell %d", i)
		assert.Greater(t, light(mid), uint8(250), "the middle of cell %d is bare", i)
		assert.Greater(t, light(shape.Point{X: mid.X, Y: box.Min.Y - 1}), uint8(250), "so is the paper over it")
	}
	white := colour.Linear{0.9, 0.9, 0.88}
	_, err = swatch.Read(p, m, 96, white, nil)
	assert.ErrorContains(t, err, "No cell of the sheet is filled")
}
