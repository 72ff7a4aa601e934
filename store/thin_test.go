package store

import (
	"fmt"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
)

// Years of changes are thinned by the rule that stands in FORMATS: the newest 200 are there one
// by one, of the older ones the first, one in ten and what runs were made from; undo goes past
// what is gone, and redo comes back the same way.
func TestOldChangesAreThinned(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	v, err := s.Add(ctx, "c", titled("1"))
	require.NoError(t, err)
	var ran int64
	for i := 2; i <= 600; i++ {
		if v, err = s.Save(ctx, "c", v.Version, "", titled(fmt.Sprint(i))); err != nil {
			require.NoError(t, err)
		}
		if i == 123 {
			_, err := s.Tick(ctx, "c", true, Mark{Step: card.Step{Verb: "cut"}, Kind: "cut", Cards: 1})
			require.NoError(t, err)
			k, err := s.Making(ctx, "c", 1)
			require.NoError(t, err)
			ran = k[0].Revision
		}
	}
	var n int
	require.NoError(t, s.db.QueryRow(`SELECT count(*) FROM revisions WHERE card = 'c'`).Scan(&n))
	assert.Equal(t, 200+40+2, n, "the newest, one in ten of 400 before, the first and that of the run")
	k, err := s.Making(ctx, "c", 1)
	require.NoError(t, err)
	assert.Equal(t, ran, k[0].Revision)
	assert.Equal(t, "123", k[0].Card.Title)

	var titles []string
	for v.CanUndo {
		titles = append(titles, v.Card.Title)
		v, err = s.Undo(ctx, "c", v.Version)
		require.NoError(t, err)
	}
	assert.Equal(t, "1", v.Card.Title, "back to the first")
	require.Len(t, titles, n-1)
	for i := range 200 {
		assert.Equal(t, fmt.Sprint(600-i), titles[i])
	}
	assert.Equal(t, []string{"400", "390"}, titles[200:202])
	assert.Contains(t, titles, "123")
	for i := len(titles) - 1; i >= 0; i-- {
		v, err = s.Redo(ctx, "c", v.Version)
		require.NoError(t, err)
		require.Equal(t, titles[i], v.Card.Title)
	}
	got, err := faultsOf(t, s)
	require.NoError(t, err)
	assert.Empty(t, got, "nothing belongs to nobody")
	old, err := s.At(ctx, "c", 599)
	require.NoError(t, err)
	assert.Equal(t, "599", old.Title)
}

// faultsOf are what is wrong with the rows of an open data file.
func faultsOf(t *testing.T, s *Store) ([]fault, error) {
	as, err := pristine()
	require.NoError(t, err)
	return faults(ctx, s.db, as)
}
