package server

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a killed program left behind goes after a day; what is under way, and what is somebody
// else's, stays.
func TestLeftCopiesAreSwept(t *testing.T) {
	dir := t.TempDir()
	make := func(name string, old time.Duration) string {
		p := filepath.Join(dir, name)
		require.NoError(t, os.Mkdir(p, 0o700))
		require.NoError(t, os.WriteFile(filepath.Join(p, "copy.db"), []byte("x"), 0o600))
		at := time.Now().Add(-old)
		require.NoError(t, os.Chtimes(p, at, at))
		return p
	}
	left, now, other := make("ochrestone-restore-1", 30*time.Hour), make("ochrestone-restore-2", time.Hour), make("somebody-else", 300*time.Hour)
	backup := make("ochrestone-backup-1", 30*time.Hour)
	sweep(dir, time.Now())
	assert.NoDirExists(t, left)
	assert.NoDirExists(t, backup)
	assert.DirExists(t, now)
	assert.DirExists(t, other)
}
