package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"syscall"

	"modernc.org/sqlite"
	lib "modernc.org/sqlite/lib"
)

// Trouble is something about the data file or its disk that keeps the program
// from reading or writing, in plain words with what to do.
type Trouble struct {
	What, Mend string
	Disk       bool // the disk or the right to write is at fault, not what was asked
	err        error
}

func (t *Trouble) Error() string { return t.What + " " + t.Mend }

// Unwrap gives the error of the system beneath.
func (t *Trouble) Unwrap() error { return t.err }

// plain puts an error of the database or the disk in plain words; others stay as
// they are.
func plain(err error) error {
	var known *Trouble
	if err == nil || errors.As(err, &known) {
		return err
	}
	say := func(what, mend string) error { return &Trouble{what, mend, true, err} }
	var e *sqlite.Error
	if errors.As(err, &e) {
		switch e.Code() & 0xff {
		case lib.SQLITE_FULL:
			return say("The disk is full, so nothing was saved.", "Make room on it, then do it again.")
		case lib.SQLITE_READONLY, lib.SQLITE_PERM:
			return say("The data file may not be written to, so nothing was saved.", "Give yourself the right to write to it and to its folder, or choose another with --data.")
		case lib.SQLITE_CANTOPEN:
			return say("The data file cannot be opened.", "See that its folder is there and that you may write to it.")
		case lib.SQLITE_CORRUPT:
			return &Trouble{"The data file is damaged.", "Copy it aside, then go back to your latest backup: ochrestone restore BACKUP.", false, err}
		case lib.SQLITE_NOTADB:
			return &Trouble{"This is not a data file of Ochrestone, or its beginning is damaged.", "Choose another, or go back to your latest backup: ochrestone restore BACKUP.", false, errors.Join(ErrForeign, err)}
		case lib.SQLITE_IOERR:
			return say("The disk could not be read or written.", "See that it is still there and has room, then do it again.")
		case lib.SQLITE_BUSY, lib.SQLITE_LOCKED:
			return say("Another program holds the data file.", "Close it, then do it again.")
		}
		return err
	}
	switch {
	case errors.Is(err, syscall.ENOSPC):
		return say("The disk is full, so nothing was saved.", "Make room on it, then do it again.")
	case errors.Is(err, syscall.EROFS), errors.Is(err, fs.ErrPermission):
		return say("The file or its folder may not be written to.", "Give yourself the right to, or choose another place.")
	}
	return err
}

// Full says in plain words that a disk is full where that is why something failed; nil where
// it is not.
func Full(err error) error {
	if errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT) {
		return plain(syscall.ENOSPC)
	}
	return nil
}

// Apart is a stored thing that cannot be read. It is set apart: the rest works,
// and it can be looked at, taken out and removed.
type Apart struct {
	Kind string `json:"kind" doc:"cards, a kind of kit item, or rows"`
	ID   string `json:"id"`
	Name string `json:"name" doc:"as far as it can be told"`
	Why  string `json:"why"`
}

// KindCard is the kind of cards among what is set apart.
const KindCard = "cards"

// SetApart lists what cannot be read.
func (s *Store) SetApart(ctx context.Context) ([]Apart, error) {
	if _, err := s.Kit(ctx); err != nil {
		return nil, err
	}
	_, cards, err := s.readCards(ctx)
	if err != nil {
		return nil, err
	}
	rows, err := rowsApart(ctx, s.db)
	if err != nil {
		return nil, err
	}
	s.memo.mu.Lock()
	defer s.memo.mu.Unlock()
	return append(append(append([]Apart{}, s.memo.apart...), cards...), rows...), nil
}

// Document is a stored thing as it stands in the file, readable or not.
func (s *Store) Document(ctx context.Context, kind, id string) ([]byte, error) {
	query := `SELECT doc FROM items WHERE kind = ?1 AND id = ?2`
	if kind == KindCard {
		query = `SELECT r.doc FROM cards c JOIN revisions r ON r.card = c.id AND r.number = c.head WHERE ?1 = 'cards' AND c.id = ?2`
	}
	if kind == KindRow {
		query = `SELECT doc FROM apart WHERE ?1 = 'rows' AND id = ?2`
	}
	var doc []byte
	if err := s.read.QueryRowContext(ctx, query, kind, id).Scan(&doc); err != nil {
		return nil, fmt.Errorf("read %s %q as it stands: %w", kind, id, missing(err))
	}
	return doc, nil
}

// Remove takes out a thing that is set apart, or any other.
func (s *Store) Remove(ctx context.Context, kind, id string) error {
	if kind == KindCard {
		return s.Delete(ctx, id)
	}
	if kind == KindRow {
		r, err := s.db.ExecContext(ctx, `DELETE FROM apart WHERE id = ?`, id)
		if err != nil {
			return fmt.Errorf("remove what is set apart: %w", plain(err))
		}
		if n, _ := r.RowsAffected(); n == 0 {
			return fmt.Errorf("remove what is set apart: %w", ErrNotFound)
		}
		return nil
	}
	return s.Take(ctx, kind, id)
}
