package main

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What was said once stays said: reached.json holds how much of every line is told, by its twin
// untold. Where a line is told better than it says there, `make trials` writes that down.
func TestWhatIsToldStaysTold(t *testing.T) {
	b, err := os.ReadFile("reached.json")
	require.NoError(t, err)
	held := map[string]reached{}
	require.NoError(t, json.Unmarshal(b, &held))
	all := judge()
	require.Len(t, all, 88)
	require.Len(t, held, 88)
	for _, j := range all {
		was, ok := held[j.id]
		require.True(t, ok, j.id)
		assert.GreaterOrEqual(t, int(j.is), was.rank(), "%s, %s: was %s", j.id, j.what, was.Told)
		if was.Twin != "told" {
			assert.NotEqual(t, "told", j.twin, "%s, %s: is told on its twin too", j.id, j.what)
		}
		if was.Mend == "works" {
			assert.Equal(t, "works", j.mend, "%s, %s: its mend", j.id, j.what)
		}
	}
}

// Every line is one of the eighty-eight, each once, each of a card that is there.
func TestTheLines(t *testing.T) {
	seen := map[string]bool{}
	for _, l := range append(append([]line{}, linesAD...), linesEK...) {
		assert.False(t, seen[l.id], l.id)
		seen[l.id] = true
		assert.NotNil(t, stranger(l.card), l.id)
	}
	for card, n := range map[string]int{"A": 12, "B": 6, "C": 6, "D": 7, "E": 10, "F": 7, "G": 6, "H": 16, "I": 8, "J": 5, "K": 5} {
		for i := 1; i <= n; i++ {
			assert.True(t, seen[card+"."+itoa(i)], "%s.%d", card, i)
		}
	}
	assert.Len(t, seen, 88)
}
