package work

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"
)

func TestOrderKeepsEveryPrecedence(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 25).Draw(t, "n")
		var l List
		perm := rapid.Permutation(seq(n)).Draw(t, "perm")
		for i := range n {
			l.Add(rapid.IntRange(0, 4).Draw(t, "phase"), Step{ID: fmt.Sprint(i), Title: fmt.Sprint(i), Ink: rapid.SampledFrom([]string{"", "a", "b"}).Draw(t, "ink")})
		}
		for range rapid.IntRange(0, 40).Draw(t, "edges") {
			a, b := rapid.IntRange(0, n-1).Draw(t, "a"), rapid.IntRange(0, n-1).Draw(t, "b")
			if slices.Index(perm, a) < slices.Index(perm, b) {
				l.Needs(fmt.Sprint(b), fmt.Sprint(a), "so")
			}
		}
		out, err := l.Order()
		require.NoError(t, err)
		require.Len(t, out, n)
		at := map[string]int{}
		for i, s := range out {
			at[s.ID] = i
			assert.Equal(t, i+1, s.Number)
		}
		for _, s := range out {
			for _, a := range s.After {
				assert.Less(t, at[a.Step], at[s.ID])
			}
		}
		same, bad := Rearrange(out, nil)
		assert.Equal(t, out, same)
		assert.Empty(t, bad)
	})
}

func seq(n int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = i
	}
	return out
}

func TestSameInkIsKeptInHand(t *testing.T) {
	var l List
	for _, s := range []Step{{ID: "1", Ink: "plum"}, {ID: "2", Ink: "wheat"}, {ID: "3", Ink: "plum"}, {ID: "4", Ink: "wheat"}} {
		l.Add(1, s)
	}
	out, err := l.Order()
	require.NoError(t, err)
	assert.Equal(t, []string{"1", "3", "2", "4"}, []string{out[0].ID, out[1].ID, out[2].ID, out[3].ID}, "one change of ink, not three")
}

func TestCirclesAndStrangersAreNamed(t *testing.T) {
	var l List
	l.Add(0, Step{ID: "a", Title: "Tail over frame"}, Need{"b", "x"})
	l.Add(0, Step{ID: "b", Title: "Frame over tail"}, Need{"a", "x"})
	_, err := l.Order()
	assert.ErrorIs(t, err, ErrCircle)
	assert.ErrorContains(t, err, "Frame over tail")
	var m List
	m.Add(0, Step{ID: "a", Title: "Glue"}, Need{"gone", "x"})
	_, err = m.Order()
	assert.ErrorContains(t, err, "gone")
}

func TestRearrangeReportsWhatBreaks(t *testing.T) {
	var l List
	l.Add(0, Step{ID: "heat", Title: "Heat", Kind: HeatStep})
	l.Add(1, Step{ID: "foam", Title: "Foam", Kind: FoamStep}, Need{"heat", "foam warps"})
	l.Add(2, Step{ID: "end", Title: "End"}, Need{"foam", "last"})
	steps, err := l.Order()
	require.NoError(t, err)
	out, bad := Rearrange(steps, []string{"foam", "heat"})
	require.Len(t, bad, 1)
	assert.Equal(t, "foam", out[bad[0].Step].ID)
	assert.Equal(t, "heat", out[bad[0].Needs].ID)
	assert.Equal(t, "foam warps", bad[0].Why)
	assert.Equal(t, "end", out[2].ID, "what the person did not move stays")
	assert.NotEmpty(t, out[1].Cautions, "heat carries its caution")
}
