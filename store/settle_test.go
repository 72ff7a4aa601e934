package store

import (
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
)

// What a person may write is never among what is put right: the most the page takes of every
// number and note is there as it was when the file is opened again.
func TestWhatWasWrittenIsLeftAsItIs(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s := open(t, path)
	_, err := s.Add(ctx, "c", titled("Owl"))
	require.NoError(t, err)
	step := card.Step{Verb: "print", Motif: "m", N: 2}
	r, err := s.Tick(ctx, "c", true, Mark{step, "print", 20 * card.MaxCopies})
	require.NoError(t, err)
	_, err = s.Count(ctx, "c", Mark{card.Step{Verb: "glue"}, "glue", 1}, 20*card.MaxCopies-1, 20*card.MaxCopies)
	require.NoError(t, err)
	require.NoError(t, s.Remember(ctx, "c", r.ID, 10_000, strings.Repeat("é", 4000)))
	before := everyRow(t, s)
	require.NoError(t, s.Close())
	again, err := Open(ctx, path)
	require.NoError(t, err)
	defer again.Close()
	assert.Equal(t, before, everyRow(t, again))
}

// A title nobody could have typed is put right once, not for ever.
func TestATitleWithoutEndIsPutRightOnce(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s := open(t, path)
	_, err := s.Add(ctx, "c", titled("Owl"))
	require.NoError(t, err)
	_, err = s.db.Exec(`UPDATE cards SET title = ?1; UPDATE revisions SET doc = json_set(CAST(doc AS TEXT), '$.title', ?1)`, strings.Repeat("t", 50_000))
	require.NoError(t, err)
	require.NoError(t, s.Close())
	again, err := Open(ctx, path)
	require.NoError(t, err)
	defer again.Close()
	apart, err := again.SetApart(ctx)
	require.NoError(t, err)
	require.Len(t, apart, 2, "the row as it was, and the card, whose document has the title too")
	for _, a := range apart {
		assert.Less(t, len(a.Name)+len(a.Why), 300)
	}
}
