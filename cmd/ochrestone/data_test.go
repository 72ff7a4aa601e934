package main

import (
	"context"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/store"
)

func ownFile(t *testing.T) string {
	path := filepath.Join(t.TempDir(), "own.db")
	st, err := store.Open(context.Background(), path)
	require.NoError(t, err)
	require.NoError(t, st.Put(context.Background(), store.KindInk, "i", kit.Ink{ID: "i", Name: "Plum", Kind: kit.Dye, Dry: "#663355"}))
	require.NoError(t, st.Close())
	return path
}

// The demo and its reset touch only a demo's own file.
func TestTheDemoTouchesOnlyItsOwnFile(t *testing.T) {
	path := ownFile(t)
	before, err := os.ReadFile(path)
	require.NoError(t, err)
	for _, args := range [][]string{{"demo", "--data", path}, {"demo", "--reset", "--data", path}} {
		assert.ErrorContains(t, run(args), "your own cards")
	}
	after, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, before, after)
	assert.ErrorContains(t, run([]string{"serve", "--reset", "--data", path}), "belongs to the demo")
}

// Stray words and a port that is none are errors.
func TestTheCommandLineSaysWhatItDoesNotUnderstand(t *testing.T) {
	assert.ErrorContains(t, run([]string{"serve", "now"}), `"now" is not understood`)
	assert.ErrorContains(t, run([]string{"serve", "--data", ""}), "no name")
	assert.ErrorContains(t, run([]string{"serve", "--port", "99999"}), "65535")
	t.Setenv("PORT", "eighty")
	assert.ErrorContains(t, run([]string{"serve"}), `PORT is "eighty"`)
	assert.ErrorContains(t, run([]string{"dance"}), "not a command")
	assert.ErrorContains(t, run([]string{"backup"}), "backup FILE")
}

// Check, backup, restore and the zip from the command line.
func TestDataCommands(t *testing.T) {
	path, dir := ownFile(t), t.TempDir()
	require.NoError(t, run([]string{"check", "--data", path}))
	backup := filepath.Join(dir, "backup.db")
	require.NoError(t, run([]string{"backup", backup, "--data", path}))
	assert.ErrorContains(t, run([]string{"backup", backup, "--data", path}), "already")
	zip := filepath.Join(dir, "all.zip")
	require.NoError(t, run([]string{"export", "--data", path, zip}))
	st, err := os.Stat(zip)
	require.NoError(t, err)
	assert.Positive(t, st.Size())

	raw, err := os.ReadFile(path)
	require.NoError(t, err)
	for i := 100; i < len(raw); i++ {
		raw[i] = byte(i)
	}
	require.NoError(t, os.WriteFile(path, raw, 0o600))
	assert.Error(t, run([]string{"check", "--data", path}))
	require.NoError(t, run([]string{"restore", backup, "--data", path}))
	require.NoError(t, run([]string{"check", "--data", path}))
	s, err := store.Open(context.Background(), path)
	require.NoError(t, err)
	k, err := s.Kit(context.Background())
	require.NoError(t, err)
	assert.Len(t, k.Inks, 1)
	require.NoError(t, s.Close())
	assert.ErrorContains(t, run([]string{"restore", zip, "--data", path}), "not a data file")
}
