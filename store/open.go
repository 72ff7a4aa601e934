package store

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/gofrs/flock"
)

// Errors of opening a data file.
var (
	ErrNewer   = errors.New("the data file was written by a newer Ochrestone; open it with that one, nothing was changed")
	ErrForeign = errors.New("this is not a data file of Ochrestone; choose another name with --data, nothing was changed")
	ErrInUse   = errors.New("another Ochrestone has this data file open; close that one first, or give this one a file of its own with --data")
	ErrNoName  = errors.New("the data file has no name; give one with --data FILE")
)

// sqliteHead begins every SQLite 3 file (the SQLite file format, section 1.3).
var sqliteHead = []byte("SQLite format 3\x00")

// address is the URI of a file for the driver. Whatever stands in the path is
// part of its name.
func address(path string, query url.Values) (string, error) {
	full, err := filepath.Abs(path)
	if err != nil {
		return "", fmt.Errorf("find %s: %w", path, err)
	}
	full = filepath.ToSlash(full)
	if !strings.HasPrefix(full, "/") {
		full = "/" + full // a drive letter
	}
	return "file:" + (&url.URL{Path: full}).EscapedPath() + "?" + query.Encode(), nil
}

// Open opens or makes the data file at path and brings its tables up to date.
// The path is a path, whatever characters it has. A file that is open in another
// program is refused with ErrInUse, one from a newer program with ErrNewer, one
// that is no data file of ours with ErrForeign; those are left untouched.
func Open(ctx context.Context, path string, opts ...Option) (*Store, error) {
	if strings.TrimSpace(path) == "" {
		return nil, fmt.Errorf("open the data file: %w", ErrNoName)
	}
	if err := Look(ctx, path); err != nil {
		return nil, fmt.Errorf("open data file %s: %w", path, err)
	}
	lock := flock.New(path + ".lock")
	switch got, err := lock.TryLock(); {
	case err != nil:
		return nil, fmt.Errorf("open data file %s: %w", path, plain(err))
	case !got:
		return nil, fmt.Errorf("open data file %s: %w", path, ErrInUse)
	}
	s, err := unlocked(ctx, path)
	if err != nil {
		return nil, errors.Join(err, lock.Unlock())
	}
	s.lock, s.path = lock, path
	for _, o := range opts {
		o(s)
	}
	return s, nil
}

// Option is something about how a store works.
type Option func(*Store)

// Clock lets a store go by another clock than the machine's.
func Clock(now func() time.Time) Option { return func(s *Store) { s.now = now } }

func unlocked(ctx context.Context, path string) (*Store, error) {
	dsn, err := address(path, url.Values{"_pragma": {"journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(1)", "busy_timeout(5000)"}, "_txlock": {"immediate"}})
	if err != nil {
		return nil, err
	}
	db, err := sql.Open("sqlite", dsn)
	if err != nil {
		return nil, fmt.Errorf("open data file %s: %w", path, plain(err))
	}
	db.SetMaxOpenConns(1) // one writer
	s := &Store{db: db, read: db, now: time.Now}
	changed, err := migrate(ctx, db)
	if err == nil {
		err = s.settle(ctx)
	}
	if err == nil && changed {
		err = s.adopt(ctx)
	}
	if err == nil {
		err = s.watch(ctx)
	}
	if err != nil {
		return nil, errors.Join(fmt.Errorf("bring data file %s up to date: %w", path, plain(err)), db.Close())
	}
	// A write is waited for until it is on the disk; whoever only looks does not wait with it, and
	// sees all that was written before.
	if dsn, err = address(path, url.Values{"_pragma": {"query_only(1)", "busy_timeout(5000)"}}); err == nil {
		s.read, err = sql.Open("sqlite", dsn)
	}
	if err != nil {
		return nil, errors.Join(fmt.Errorf("open data file %s for reading: %w", path, plain(err)), db.Close())
	}
	s.read.SetMaxOpenConns(mostReaders)
	s.read.SetMaxIdleConns(mostReaders)
	return s, nil
}

// mostReaders is how many look at a data file at once.
const mostReaders = 4

// Look looks at a file without writing to it. A file that is not there, or is
// empty, is fine: Open makes it.
func Look(ctx context.Context, path string) error {
	f, err := os.Open(path)
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	if err != nil {
		return plain(err)
	}
	head := make([]byte, len(sqliteHead))
	n, err := io.ReadFull(f, head)
	f.Close()
	if n == 0 && errors.Is(err, io.EOF) {
		return nil
	}
	if !bytes.Equal(head[:n], sqliteHead) {
		return ErrForeign
	}
	db, err := readOnly(path)
	if err != nil {
		return err
	}
	defer db.Close()
	var tables, ours int
	if err := db.QueryRowContext(ctx, `SELECT count(*), coalesce(sum(name IN ('goose_db_version', 'cards', 'revisions', 'items', 'settings')), 0) FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'`).Scan(&tables, &ours); err != nil {
		return plain(err)
	}
	if tables == 0 {
		return nil
	}
	if ours < 3 && !(ours == 1 && tables == 1) { // a file whose making was cut off has the first table only
		return ErrForeign
	}
	var have sql.NullInt64
	if err := db.QueryRowContext(ctx, "SELECT max(version_id) FROM goose_db_version WHERE is_applied").Scan(&have); err != nil {
		return plain(err)
	}
	p, err := provider(db)
	if err != nil {
		return err
	}
	var most int64
	for _, s := range p.ListSources() {
		most = max(most, s.Version)
	}
	if have.Int64 > most {
		return ErrNewer
	}
	return nil
}

// readOnly opens a file for reading. One that has no log of changes beside it is
// opened as it lies, so that not even a lock is written.
func readOnly(path string) (*sql.DB, error) {
	q := url.Values{"mode": {"ro"}}
	if st, err := os.Stat(path + "-wal"); err != nil || st.Size() == 0 {
		q.Set("immutable", "1")
	}
	dsn, err := address(path, q)
	if err != nil {
		return nil, err
	}
	db, err := sql.Open("sqlite", dsn)
	if err != nil {
		return nil, plain(err)
	}
	return db, nil
}

// Close closes the file.
func (s *Store) Close() error {
	var err error
	if s.read != s.db {
		err = s.read.Close()
	}
	err = errors.Join(err, s.db.Close())
	if s.lock != nil {
		err = errors.Join(err, s.lock.Unlock())
	}
	return err
}
