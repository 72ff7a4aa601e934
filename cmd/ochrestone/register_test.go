package main

import (
	"bytes"
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/demo"
	"ochrestone/demo/sim"
	"ochrestone/exchange/setsvg"
)

// A proof scanned by the simulated scanner, measured from the command line
// against the set written as SVG.
func TestRegisterMeasuresAProof(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	var set kit.Set
	for _, s := range k.Sets {
		if s.Kind == kit.StampSet {
			set = s
		}
	}
	require.NotEmpty(t, set.Parts)
	white, err := colour.ParseHex(kit.PlainWhite)
	require.NoError(t, err)
	var layers []sim.Layer
	inks := []string{"#eec4bd", "#d8867b", "#a8403c", "#26282b"}
	for i, hex := range inks {
		c, err := colour.ParseHex(hex)
		require.NoError(t, err)
		layers = append(layers, sim.Layer{Region: set.Parts[i].Outline, Film: colour.FilmFrom(c, white, 0.04)})
	}
	dir := t.TempDir()
	var b bytes.Buffer
	require.NoError(t, setsvg.Write(&b, set))
	svg, print := filepath.Join(dir, "set.svg"), filepath.Join(dir, "proof.png")
	require.NoError(t, os.WriteFile(svg, b.Bytes(), 0o600))
	bench, off := sim.Proof(layers, white, 1, 1, 2, 3)
	raw, err := sim.PNG(bench.Scan(300, sim.Plain(), 3), 300)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(print, raw, 0o600))

	// With the inks named, and with the inks learned from the print itself.
	for _, args := range [][]string{{"--colours", strings.Join(inks, ","), "--json"}, {"--json"}} {
		said := output(t, append([]string{"register", "--set", svg, "--print", print, "--dpi", "300"}, args...))
		var r proofReport
		require.NoError(t, json.Unmarshal([]byte(said), &r), said)
		require.Len(t, r.Prints, 1)
		require.Len(t, r.Prints[0].Layers, 3)
		for i, l := range r.Prints[0].Layers {
			c := set.Parts[i+1].Outline.Centroid()
			want := off[i+1].Point(c).Sub(c)
			assert.True(t, l.Found)
			assert.InDelta(t, want.X, l.Right, 0.03, l.Label)
			assert.InDelta(t, want.Y, l.Down, 0.03, l.Label)
			assert.InDelta(t, off[i+1].Turn, l.Turn, 0.1, l.Label)
		}
	}
	words := output(t, []string{"register", "--set", svg, "--print", print, "--dpi", "300"})
	assert.Equal(t, 3, strings.Count(words, "mm right"), words)

	assert.ErrorContains(t, run([]string{"register", "--set", svg}), "name a set and a print")
	assert.ErrorContains(t, run([]string{"register", "--set", svg, "--print", print, "--paper", "white"}), "--paper")
	assert.ErrorContains(t, run([]string{"register", "--set", print, "--print", print}), "read the set")
	assert.ErrorContains(t, run([]string{"register", "--set", svg, "--print", print, "--colours", inks[0]}), "the set has 4 layers, --colours gives 1")
}

// output is what a run writes to standard output.
func output(t *testing.T, args []string) string {
	t.Helper()
	f, err := os.CreateTemp(t.TempDir(), "out")
	require.NoError(t, err)
	was := os.Stdout
	os.Stdout = f
	err = run(args)
	os.Stdout = was
	require.NoError(t, err)
	require.NoError(t, f.Close())
	raw, err := os.ReadFile(f.Name())
	require.NoError(t, err)
	return string(raw)
}
