package store

import (
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
)

// Whatever stands in a path is part of the name of the file.
func TestAPathIsAPath(t *testing.T) {
	dir := t.TempDir()
	for _, name := range []string{"b%20c#d.db", "who?mode=memory.db", "plain name.db", "mö ß.db"} {
		path := filepath.Join(dir, name)
		s, err := Open(ctx, path)
		require.NoError(t, err, name)
		require.NoError(t, s.Set(ctx, "unit", "mm"))
		require.NoError(t, s.Close())
		st, err := os.Stat(path)
		require.NoError(t, err, name)
		assert.Positive(t, st.Size())
		s = open(t, path)
		v, err := s.Setting(ctx, "unit", "in")
		require.NoError(t, err)
		assert.Equal(t, "mm", v, name)
	}
	files, err := os.ReadDir(dir)
	require.NoError(t, err)
	for _, f := range files {
		assert.NotEqual(t, "b c", f.Name())
	}
	_, err = Open(ctx, "")
	assert.ErrorIs(t, err, ErrNoName)
}

// A database of somebody else's is refused, and not a byte of it changes.
func TestAForeignFileIsRefusedUntouched(t *testing.T) {
	path := filepath.Join(t.TempDir(), "theirs.db")
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	_, err = db.Exec(`CREATE TABLE recipes (id INTEGER PRIMARY KEY, name TEXT); INSERT INTO recipes (name) VALUES ('bread')`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	before, err := os.ReadFile(path)
	require.NoError(t, err)
	_, err = Open(ctx, path)
	require.ErrorIs(t, err, ErrForeign)
	after, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, before, after)
	files, err := filepath.Glob(path + "*")
	require.NoError(t, err)
	assert.Equal(t, []string{path}, files, "and nothing is laid beside it")
}

// The second program on a file is told so; when the first has closed it, it may.
func TestTwoProgramsOnOneFile(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s, err := Open(ctx, path)
	require.NoError(t, err)
	_, err = Open(ctx, path)
	require.ErrorIs(t, err, ErrInUse)
	require.NoError(t, s.Close())
	again, err := Open(ctx, path)
	require.NoError(t, err)
	require.NoError(t, again.Close())
}

// A torn file is said to be one.
func TestATornFile(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s, err := Open(ctx, path)
	require.NoError(t, err)
	for i := range 40 {
		_, err := s.Add(ctx, fmt.Sprint("c", i), titled("a card"))
		require.NoError(t, err)
	}
	require.NoError(t, s.Close())
	raw, err := os.ReadFile(path)
	require.NoError(t, err)
	for i := 4096; i < len(raw); i++ {
		raw[i] = byte(i * 7)
	}
	require.NoError(t, os.WriteFile(path, raw, 0o600))
	var trouble *Trouble
	s, err = Open(ctx, path)
	if err == nil {
		_, err = s.Cards(ctx)
		require.NoError(t, s.Close())
	}
	require.ErrorAs(t, err, &trouble)
	assert.Contains(t, trouble.Error(), "damaged")
	assert.Contains(t, trouble.Error(), "restore")
	r, err := CheckFile(ctx, path)
	if err == nil {
		assert.True(t, r.Torn())
	}
}

// A folder that is not there is an error, and is not made.
func TestAFolderThatIsNotThere(t *testing.T) {
	_, err := Open(ctx, filepath.Join(t.TempDir(), "no", "such", "folder", "a.db"))
	require.Error(t, err)
}

// A full disk is said in plain words: SQLite's own limit on pages stands in for it.
func TestAFullDisk(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	_, err := s.db.Exec(`PRAGMA max_page_count = 30`)
	require.NoError(t, err)
	for i := range 4000 {
		if err = s.Put(ctx, KindInk, fmt.Sprint(i), kit.Ink{ID: fmt.Sprint(i), Name: string(make([]byte, 190))}); err != nil {
			break
		}
	}
	var trouble *Trouble
	require.ErrorAs(t, err, &trouble)
	assert.Contains(t, trouble.Error(), "disk is full")
	_, err = s.Kit(ctx)
	assert.NoError(t, err, "what was there can still be read")
}

// A restore for which the disk has no room leaves what was there, and the disk as it was.
func TestARestoreOnAFullDisk(t *testing.T) {
	dir := t.TempDir()
	large := open(t, filepath.Join(dir, "large.db"))
	for i := range 400 {
		require.NoError(t, large.Put(ctx, KindInk, fmt.Sprint(i), kit.Ink{ID: fmt.Sprint(i), Name: strings.Repeat("Plum ", 30)}))
	}
	backup := filepath.Join(dir, "backup.db")
	require.NoError(t, large.Backup(ctx, backup))
	s := open(t, filepath.Join(dir, "a.db"))
	_, err := s.Add(ctx, "good", titled("Good"))
	require.NoError(t, err)
	_, err = s.db.Exec(`PRAGMA wal_checkpoint(TRUNCATE)`)
	require.NoError(t, err)
	_, err = s.db.Exec(`PRAGMA max_page_count = 45`)
	require.NoError(t, err)

	_, err = s.Restore(ctx, backup)
	var trouble *Trouble
	require.ErrorAs(t, err, &trouble)
	assert.Contains(t, trouble.Error(), "disk is full")
	cards, err := s.Cards(ctx)
	require.NoError(t, err)
	require.Len(t, cards, 1)
	assert.Empty(t, s.Befores(), "nothing was changed: there is nothing to go back to")
	wal, err := os.Stat(filepath.Join(dir, "a.db-wal"))
	require.NoError(t, err)
	assert.Zero(t, wal.Size())
}

// A file that may be read only is said to be one: SQLite's own switch stands in for
// the rights, which root has not to mind.
func TestAReadOnlyFile(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	_, err := s.db.Exec(`PRAGMA query_only = 1`)
	require.NoError(t, err)
	err = s.Put(ctx, KindInk, "i", kit.Ink{ID: "i", Name: "Plum"})
	var trouble *Trouble
	require.ErrorAs(t, err, &trouble)
	assert.Contains(t, trouble.Error(), "may not be written to")
	assert.True(t, trouble.Disk)
}

// What is stored but cannot be read is set apart, and the rest works.
func TestWhatCannotBeReadIsSetApart(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	_, err := s.Add(ctx, "good", titled("Good"))
	require.NoError(t, err)
	_, err = s.Add(ctx, "bad", titled("Bad"))
	require.NoError(t, err)
	require.NoError(t, s.Put(ctx, KindInk, "i", kit.Ink{ID: "i", Name: "Plum"}))
	_, err = s.db.Exec(`UPDATE revisions SET doc = '{"title": 5' WHERE card = 'bad'`)
	require.NoError(t, err)
	_, err = s.db.Exec(`INSERT INTO items (kind, id, doc, position) VALUES ('sets', 'far', '{"id":"far","name":"Far off","parts":[{"id":"p","outline":"M99999 0L1 1L2 2Z"}]}', 1)`)
	require.NoError(t, err)
	s.memo.forget()
	k, err := s.Kit(ctx)
	require.NoError(t, err)
	assert.Len(t, k.Inks, 1)
	assert.Empty(t, k.Sets)
	cards, err := s.Cards(ctx)
	require.NoError(t, err)
	require.Len(t, cards, 1)
	assert.Equal(t, "good", cards[0].ID)
	_, err = s.Card(ctx, "bad")
	require.ErrorIs(t, err, ErrTorn)
	apart, err := s.SetApart(ctx)
	require.NoError(t, err)
	require.Len(t, apart, 2)
	assert.Equal(t, "Far off", apart[0].Name)
	assert.Contains(t, apart[0].Why, "corner 1")
	doc, err := s.Document(ctx, KindSet, "far")
	require.NoError(t, err)
	assert.Contains(t, string(doc), "M99999")
	r, err := s.Check(ctx)
	require.NoError(t, err)
	assert.False(t, r.Torn())
	assert.Len(t, r.Apart, 2)
	require.NoError(t, s.Remove(ctx, KindSet, "far"))
	require.NoError(t, s.Remove(ctx, KindCard, "bad"))
	apart, err = s.SetApart(ctx)
	require.NoError(t, err)
	assert.Empty(t, apart)
}

// A backup while the program writes is whole, and restoring brings it all back,
// with what was there before kept beside.
func TestBackupAndRestore(t *testing.T) {
	dir := t.TempDir()
	s := open(t, filepath.Join(dir, "a.db"))
	v, err := s.Add(ctx, "c", titled("First"))
	require.NoError(t, err)
	require.NoError(t, s.Put(ctx, KindInk, "i", kit.Ink{ID: "i", Name: "Plum"}))
	require.NoError(t, s.Set(ctx, "unit", "mm"))
	_, err = s.Log(ctx, []Placement{{Card: "c", Label: "x", X: 0.1}})
	require.NoError(t, err)
	to := filepath.Join(dir, "backup.db")
	require.NoError(t, s.Backup(ctx, to))
	assert.ErrorContains(t, s.Backup(ctx, to), "already")
	also := filepath.Join(dir, "also.db")
	require.NoError(t, BackupFile(ctx, filepath.Join(dir, "a.db"), also), "while it is open here")

	_, err = s.Save(ctx, "c", v.Version, "", titled("Second"))
	require.NoError(t, err)
	require.NoError(t, s.Take(ctx, KindInk, "i"))
	before, err := s.Restore(ctx, to)
	require.NoError(t, err)
	v, err = s.Card(ctx, "c")
	require.NoError(t, err)
	assert.Equal(t, "First", v.Card.Title)
	k, err := s.Kit(ctx)
	require.NoError(t, err)
	assert.Len(t, k.Inks, 1)
	ps, err := s.Logged(ctx)
	require.NoError(t, err)
	assert.Len(t, ps, 1)
	r, err := CheckFile(ctx, before)
	require.NoError(t, err)
	assert.Equal(t, 2, r.Revisions, "what was there is kept")
	_, err = s.Restore(ctx, before)
	require.NoError(t, err)
	v, err = s.Card(ctx, "c")
	require.NoError(t, err)
	assert.Equal(t, "Second", v.Card.Title)

	bad := filepath.Join(dir, "bad.db")
	require.NoError(t, os.WriteFile(bad, []byte("no backup at all, but a note of some length"), 0o600))
	_, err = s.Restore(ctx, bad)
	require.ErrorIs(t, err, ErrForeign)
	_, err = s.Card(ctx, "c")
	require.NoError(t, err)
}

// However many ask at a time, every one gets a number of its own.
func TestNumbersAreGivenOnce(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	var wg sync.WaitGroup
	for i := range 40 {
		wg.Go(func() {
			left := 2
			assert.NoError(t, s.AddNumbered(ctx, "sheet:", func(n int) (string, bool) {
				left--
				return fmt.Sprint(i, n), left >= 0
			}))
		})
	}
	wg.Wait()
	var n, last int
	require.NoError(t, s.db.QueryRow(`SELECT count(*), max(CAST(substr(name, 7) AS INTEGER)) FROM settings WHERE name LIKE 'sheet:%'`).Scan(&n, &last))
	assert.Equal(t, 80, n)
	assert.Equal(t, 80, last)
}
