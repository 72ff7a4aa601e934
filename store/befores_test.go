package store

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Of what was there before a restore the last three are kept and listed, and backups that were
// cut off are swept a day later; files of other names are left alone.
func TestWhatWasBeforeARestoreIsBounded(t *testing.T) {
	dir := t.TempDir()
	s := open(t, filepath.Join(dir, "a.db"))
	file := filepath.Join(t.TempDir(), "b.db")
	require.NoError(t, s.Backup(ctx, file))
	assert.Empty(t, s.Befores())
	now := time.Now()
	var last string
	for i := range 5 {
		s.now = func() time.Time { return now.Add(time.Duration(i) * time.Minute) }
		before, err := s.Restore(ctx, file)
		require.NoError(t, err)
		last = before
	}
	got := s.Befores()
	require.Len(t, got, 3)
	assert.Equal(t, filepath.Base(last), got[0].Name)
	assert.Positive(t, got[0].Size)
	_, err := CheckFile(ctx, last)
	require.NoError(t, err)
	for name, age := range map[string]time.Duration{".backup-1": 30 * time.Hour, ".backup-2": time.Hour, "mine.db": 99 * time.Hour} {
		path := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(path, []byte("x"), 0o600))
		require.NoError(t, os.Chtimes(path, now.Add(-age), now.Add(-age)))
	}
	s.Sweep(now)
	assert.NoFileExists(t, filepath.Join(dir, ".backup-1"))
	assert.FileExists(t, filepath.Join(dir, ".backup-2"))
	assert.FileExists(t, filepath.Join(dir, "mine.db"))
}
