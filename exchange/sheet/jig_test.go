package sheet

import (
	"bytes"
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/measure"
	"ochrestone/core/register"
	"ochrestone/vision/picture"
)

// Eight images of 20 mm with 2 mm between them: their middles lie on a circle of
// 22 / (2 sin 22.5°) mm, and neighbours stand 22 mm apart.
func TestJigOfEight(t *testing.T) {
	j := Jig{Turns: 8, Width: 20, Gap: 2, Panel: 60}
	assert.InDelta(t, 28.744, j.Radius(), 0.001)
	assert.InDelta(t, 22, register.Chord(8, j.Radius()), 1e-9)
	c := j.corners()
	require.Len(t, c, 8)
	assert.InDelta(t, c[0].Y, c[1].Y, 1e-9, "a side lies flat at the foot")
	assert.Greater(t, c[0].Y, 0.0)
	for i := range c {
		assert.InDelta(t, 2*j.Reach()*math.Sin(math.Pi/8), c[i].Distance(c[(i+1)%8]), 1e-9)
	}
	var b bytes.Buffer
	require.NoError(t, WriteJig(&b, j, Page(measure.Letter)))
	assert.True(t, bytes.HasPrefix(b.Bytes(), []byte("%PDF")))
}

// The drawing measures true: the plate of four turns, rendered by poppler apart
// from the program that drew it, is as wide as it should be.
func TestJigMeasuresTrue(t *testing.T) {
	j := Jig{Turns: 4, Width: 30, Gap: 0}
	var b bytes.Buffer
	require.NoError(t, WriteJig(&b, j))
	const perMM = 10
	img := rendered(t, b.Bytes(), perMM)
	side := 2 * j.Reach() / math.Sqrt2
	// Along the row through the middle the outermost dark pixels are the sides.
	dark := func(x, y int) bool { _, _, v := img.At(x, y); return v < 0x60 }
	row, most := 0, 0
	for y := 400; y < 2200; y++ { // the row of the centre cross
		n := 0
		for x := img.W/2 - 60; x < img.W/2+60; x++ {
			if dark(x, y) {
				n++
			}
		}
		if n > most {
			row, most = y, n
		}
	}
	lo, hi := img.W, 0
	for x := range img.W {
		if dark(x, row) {
			lo, hi = min(lo, x), x
		}
	}
	assert.InDelta(t, side, float64(hi-lo)/perMM, 0.35, "to the width of a line")
}

// rendered is the first page as poppler draws it, apart from the program that
// wrote it.
func rendered(t *testing.T, raw []byte, perMM float64) *picture.Picture {
	t.Helper()
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "page.pdf"), raw, 0o600))
	out, err := exec.Command("pdftoppm", "-r", fmt.Sprint(25.4*perMM), "-singlefile", "-png", filepath.Join(dir, "page.pdf"), filepath.Join(dir, "page")).CombinedOutput()
	require.NoError(t, err, string(out))
	raw, err = os.ReadFile(filepath.Join(dir, "page.png"))
	require.NoError(t, err)
	img, err := picture.Decode(raw)
	require.NoError(t, err)
	return img
}

func TestJigsThatCannotBe(t *testing.T) {
	for _, j := range []Jig{{Turns: 2, Width: 10}, {Turns: 17, Width: 10}, {Turns: 6}, {Turns: 6, Width: 10, Gap: -1}, {Turns: 16, Width: 80}, {Turns: 4, Width: 20, Inner: 30}} {
		err := WriteJig(&bytes.Buffer{}, j)
		var bad *ErrJig
		require.ErrorAs(t, err, &bad)
		assert.NotEmpty(t, bad.Mend)
	}
}
