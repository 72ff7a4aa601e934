package store

import (
	"context"
	"database/sql"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

var ctx = context.Background()

func open(t *testing.T, path string) *Store {
	s, err := Open(ctx, path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func titled(s string) card.Card {
	return card.Card{Version: card.Version, Title: s, Motifs: []card.Motif{}, Elements: []card.Element{}, SetAside: []card.Aside{}}
}

func TestUndoAndRedoReadBack(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	v, err := s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	assert.False(t, v.CanUndo)
	for _, n := range []string{"two", "three"} {
		v, err = s.Save(ctx, "c", v.Version, "", titled(n))
		require.NoError(t, err)
	}
	v, err = s.Undo(ctx, "c", v.Version)
	require.NoError(t, err)
	assert.Equal(t, "two", v.Card.Title)
	assert.True(t, v.CanRedo)
	v, err = s.Undo(ctx, "c", v.Version)
	require.NoError(t, err)
	assert.Equal(t, "one", v.Card.Title)
	_, err = s.Undo(ctx, "c", v.Version)
	assert.ErrorIs(t, err, ErrNothing)
	v, err = s.Redo(ctx, "c", v.Version)
	require.NoError(t, err)
	assert.Equal(t, "two", v.Card.Title)
	v, err = s.Save(ctx, "c", v.Version, "", titled("four"))
	require.NoError(t, err)
	assert.False(t, v.CanRedo, "a change begins a new branch")
	assert.EqualValues(t, 7, v.Version, "every change counts, undo included")
	var n int
	require.NoError(t, s.db.QueryRow(`SELECT count(*) FROM revisions`).Scan(&n))
	assert.Equal(t, 4, n, "nothing is thrown away, the branch left behind included")
}

func TestLaterSaveOnAnOldVersionIsRefused(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	v, err := s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	_, err = s.Save(ctx, "c", v.Version, "", titled("first tab"))
	require.NoError(t, err)
	_, err = s.Save(ctx, "c", v.Version, "", titled("second tab"))
	assert.ErrorIs(t, err, ErrChanged)
	v, err = s.Card(ctx, "c")
	require.NoError(t, err)
	assert.Equal(t, "first tab", v.Card.Title)
	_, err = s.Save(ctx, "none", 1, "", titled("x"))
	assert.ErrorIs(t, err, ErrNotFound)
	assert.ErrorIs(t, s.Delete(ctx, "none"), ErrNotFound)
	require.NoError(t, s.Delete(ctx, "c"))
	_, err = s.Card(ctx, "c")
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestKitAndSettingsComeBack(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s := open(t, path)
	require.NoError(t, s.Put(ctx, KindInk, "i", kit.Ink{ID: "i", Name: "Plum"}))
	require.NoError(t, s.Put(ctx, KindPaper, "p", kit.Cardstock{ID: "p", Name: "Snow"}))
	require.NoError(t, s.Put(ctx, KindInk, "i", kit.Ink{ID: "i", Name: "Plum, deep"}))
	require.NoError(t, s.Set(ctx, "unit", "mm"))
	require.NoError(t, s.Close())
	s = open(t, path)
	k, err := s.Kit(ctx)
	require.NoError(t, err)
	require.Len(t, k.Inks, 1)
	assert.Equal(t, "Plum, deep", k.Inks[0].Name)
	u, err := s.Setting(ctx, "unit", "in")
	require.NoError(t, err)
	assert.Equal(t, "mm", u)
	require.NoError(t, s.Take(ctx, KindInk, "i"))
	assert.ErrorIs(t, s.Take(ctx, KindInk, "i"), ErrNotFound)
}

func TestNewerFileIsRefusedAndLeftUntouched(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s, err := Open(ctx, path)
	require.NoError(t, err)
	_, err = s.db.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`)
	require.NoError(t, err)
	_, err = s.db.Exec(`PRAGMA wal_checkpoint(TRUNCATE)`)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	before, err := os.ReadFile(path)
	require.NoError(t, err)
	_, err = Open(ctx, path)
	assert.ErrorIs(t, err, ErrNewer)
	after, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, before, after)
}

func TestNotADataFile(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	require.NoError(t, os.WriteFile(path, []byte("this is a shopping list, not a data file, and long enough to look at"), 0o600))
	_, err := Open(ctx, path)
	assert.Error(t, err)
}

func TestFileIsDurable(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	var mode string
	var sync int
	require.NoError(t, s.db.QueryRow(`PRAGMA journal_mode`).Scan(&mode))
	require.NoError(t, s.db.QueryRow(`PRAGMA synchronous`).Scan(&sync))
	assert.Equal(t, "wal", mode)
	assert.Equal(t, 2, sync, "FULL")
	assert.IsType(t, &sql.DB{}, s.db)
}
