package store

import (
	"os"
	"path/filepath"
	"testing"

	"ochrestone/core/kit"
)

// Whatever a file holds, it is opened or refused, and a file that is refused is not
// changed.
func FuzzOpen(f *testing.F) {
	path := filepath.Join(f.TempDir(), "seed.db")
	s, err := Open(ctx, path)
	if err != nil {
		f.Fatal(err)
	}
	_ = s.Put(ctx, KindInk, "i", kit.Ink{ID: "i", Name: "Plum"})
	_, _ = s.Add(ctx, "c", titled("A card"))
	_, _ = s.db.Exec(`PRAGMA wal_checkpoint(TRUNCATE)`)
	_ = s.Close()
	raw, err := os.ReadFile(path)
	if err != nil {
		f.Fatal(err)
	}
	f.Add(raw)
	f.Add([]byte("SQLite format 3\x00"))
	f.Add([]byte("notes"))
	f.Fuzz(func(t *testing.T, b []byte) {
		file := filepath.Join(t.TempDir(), "x.db")
		if os.WriteFile(file, b, 0o600) != nil {
			t.Skip()
		}
		if _, err := CheckFile(ctx, file); err != nil {
			after, rerr := os.ReadFile(file)
			if rerr != nil || string(after) != string(b) {
				t.Fatal("looking changed the file")
			}
		}
		s, err := Open(ctx, file)
		if err != nil {
			return
		}
		_, _ = s.Cards(ctx)
		_, _ = s.Kit(ctx)
		_, _ = s.SetApart(ctx)
		if err := s.Close(); err != nil {
			t.Log(err)
		}
	})
}
