package sheet

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/measure"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
)

// The printed mat, rendered by poppler at 200 dpi as a flatbed would see it,
// is read back as an untilted picture at that very scale.
func TestPrintedMatReadsTrue(t *testing.T) {
	for _, c := range []struct {
		page measure.Size
		dark bool
	}{{measure.A4, false}, {measure.Letter, true}} {
		var b bytes.Buffer
		require.NoError(t, Mat(&b, c.page, c.dark))
		dir := t.TempDir()
		require.NoError(t, os.WriteFile(filepath.Join(dir, "mat.pdf"), b.Bytes(), 0o600))
		out, err := exec.Command("pdftoppm", "-r", "200", "-png", filepath.Join(dir, "mat.pdf"), filepath.Join(dir, "mat")).CombinedOutput()
		require.NoError(t, err, string(out))
		raw, err := os.ReadFile(filepath.Join(dir, "mat-1.png"))
		require.NoError(t, err)
		p, err := picture.Decode(raw)
		require.NoError(t, err)
		r, err := mat.Read(p)
		require.NoError(t, err)
		assert.Equal(t, c.page, r.Layout.Page)
		assert.InDelta(t, 200/25.4, r.PerMM, 0.004, "true size to 0.05 %")
		assert.Less(t, r.Tilt, 1.5)
		assert.Equal(t, r.Of, r.Marks)
		assert.Less(t, r.Off, 0.03)
	}
}

func TestLettersHaveIslands(t *testing.T) {
	words, islands, err := Letters("Boo", 12)
	require.NoError(t, err)
	assert.Len(t, islands.Rings(), 4, "two in the B, one in each o")
	assert.InDelta(t, 12, words.Bounds().H(), 1.2, "a capital is as high as asked")
	for _, r := range islands.Rings() {
		assert.Positive(t, r.Area())
	}
	plain, none, err := Letters("Tiny", 10)
	require.NoError(t, err)
	assert.True(t, none.Empty())
	assert.Greater(t, plain.Area(), 20.0)
}
