package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
)

// Trace ends with code 1 where a person must look, with 0 where nobody must, and
// refuses a scale that cannot be.
func TestTraceSaysWhenToLook(t *testing.T) {
	cream, err := colour.ParseHex("#f1ead9")
	require.NoError(t, err)
	disc := func(x float64) sim.Item {
		return sim.Item{Outline: shape.Disc(shape.Point{X: x, Y: 30}, 10), Colour: cream}
	}
	write := func(name string, dpi float64, items ...sim.Item) string {
		raw, err := sim.PNG(sim.Bench{W: 70, H: 60, Sheet: sim.Black, Items: items}.Scan(300, sim.Plain(), 3), dpi)
		require.NoError(t, err)
		file := filepath.Join(t.TempDir(), name+".png")
		require.NoError(t, os.WriteFile(file, raw, 0o600))
		return file
	}
	assert.NoError(t, run([]string{"trace", write("apart", 300, disc(20), disc(48))}))
	assert.ErrorIs(t, run([]string{"trace", write("touching", 300, disc(20), disc(39.5))}), errSpoils)
	assert.NoError(t, run([]string{"trace", "--dpi", "300", write("mislabelled", 50, disc(20))}))
	whole := sim.Bench{W: 215.9, H: 279.4, Sheet: sim.Black, Items: []sim.Item{disc(50)}}.Scan(75, sim.Plain(), 3)
	labelled := func(dpi float64) string {
		raw, err := sim.PNG(whole, dpi)
		require.NoError(t, err)
		file := filepath.Join(t.TempDir(), "page.png")
		require.NoError(t, os.WriteFile(file, raw, 0o600))
		return file
	}
	assert.ErrorIs(t, run([]string{"trace", labelled(150)}), errSpoils, "half a page: was it 75?")
	large := sim.Bench{W: 215.9, H: 279.4, Sheet: sim.Black, Items: []sim.Item{disc(50)}}.Scan(150, sim.Plain(), 3)
	raw, err := sim.PNG(large, 72)
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "large.png")
	require.NoError(t, os.WriteFile(file, raw, 0o600))
	assert.ErrorContains(t, run([]string{"trace", file}), "no scanner has such a glass")
}
