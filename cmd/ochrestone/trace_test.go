package main

import (
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/exchange/svgin"
)

func scanned(t *testing.T, items ...sim.Item) string {
	raw, err := sim.PNG(sim.Bench{W: 80, H: 60, Sheet: sim.Black, Items: items}.Scan(300, sim.Plain(), 3), 300)
	require.NoError(t, err)
	name := filepath.Join(t.TempDir(), "lid.png")
	require.NoError(t, os.WriteFile(name, raw, 0o600))
	return name
}

func TestTraceWritesOutlinesAndReport(t *testing.T) {
	pic := scanned(t, sim.Item{Outline: shape.Rect(10, 10, 30, 20), Colour: sim.Papers[0]}, sim.Item{Outline: shape.Disc(shape.Point{X: 60, Y: 30}, 8), Colour: sim.Papers[2]})
	dir := t.TempDir()
	svg, js := filepath.Join(dir, "set.svg"), filepath.Join(dir, "r.json")
	require.NoError(t, run([]string{"trace", pic, "--dpi", "300", "--light-on-dark", "-o", svg, "--json", js}))
	raw, err := os.ReadFile(svg)
	require.NoError(t, err)
	d, err := svgin.Read(raw)
	require.NoError(t, err)
	require.Len(t, d.Parts, 2)
	assert.InDelta(t, 600, d.Parts[0].Outline.Area(), 1.5)
	var r report
	raw, err = os.ReadFile(js)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(raw, &r))
	assert.Equal(t, 300.0, r.DPI)
	assert.InDelta(t, 201, r.Pieces[1].Area, 1)
	assert.InDelta(t, 30, r.Pieces[0].W, 0.03)
}

func TestTraceStacksFromTheCommandLine(t *testing.T) {
	pic := scanned(t, sim.Item{Outline: shape.Rect(5, 10, 30, 20), Colour: sim.Papers[0]}, sim.Item{Outline: shape.Rect(45, 10, 27, 17), Colour: sim.Papers[2]})
	svg := filepath.Join(t.TempDir(), "set.svg")
	require.NoError(t, run([]string{"trace", "--stack", "-o", svg, pic}))
	raw, err := os.ReadFile(svg)
	require.NoError(t, err)
	d, err := svgin.Read(raw)
	require.NoError(t, err)
	require.Len(t, d.Parts, 2)
	a, b := d.Parts[0].Outline.Centroid(), d.Parts[1].Outline.Centroid()
	assert.Less(t, a.Distance(b), 0.3, "one lies evenly on the other")
}

func TestTraceRefusesInWords(t *testing.T) {
	assert.ErrorContains(t, run([]string{"trace"}), "name one picture")
	assert.Error(t, run([]string{"trace", "nowhere.png"}))
	bad := filepath.Join(t.TempDir(), "bad.png")
	require.NoError(t, os.WriteFile(bad, []byte("no"), 0o600))
	assert.ErrorContains(t, run([]string{"trace", bad}), "not a picture")
	pic := scanned(t, sim.Item{Outline: shape.Rect(10, 10, 30, 20), Colour: sim.Papers[0]})
	assert.ErrorContains(t, run([]string{"trace", pic, "--mat"}), "mat cannot be found")
	assert.ErrorContains(t, run([]string{"trace", pic, "--dark-on-light"}), "The sheet is dark")
	over := scanned(t, sim.Item{Outline: shape.Rect(-4, 10, 30, 20), Colour: sim.Papers[0]})
	assert.ErrorIs(t, run([]string{"trace", over}), errSpoils, "a piece that is cut off would spoil the set")
	assert.ErrorContains(t, run([]string{"dance"}), "not a command")
}
