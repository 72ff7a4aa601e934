// Package store keeps cards with all their revisions, the kit and the settings
// in one SQLite file. A write that has returned is on disk.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"time"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the database driver

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Errors of the store.
var (
	ErrNotFound = errors.New("not found")
	ErrChanged  = errors.New("changed elsewhere since it was read")
	ErrNothing  = errors.New("nothing to undo or redo")
	ErrNewer    = errors.New("the data file was written by a newer Ochrestone")
)

// Store is an open data file.
type Store struct {
	db   *sql.DB
	now  func() time.Time
	memo kitMemo
}

// Open opens or makes the data file at path and brings its tables up to date.
// A file from a newer program is refused with ErrNewer and left untouched.
func Open(ctx context.Context, path string) (*Store, error) {
	q := url.Values{"_pragma": {"journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(1)", "busy_timeout(5000)"}, "_txlock": {"immediate"}}
	if newer, err := isNewer(ctx, path); err != nil {
		return nil, fmt.Errorf("look at data file %s: %w", path, err)
	} else if newer {
		return nil, fmt.Errorf("open data file %s: %w", path, ErrNewer)
	}
	db, err := sql.Open("sqlite", "file:"+path+"?"+q.Encode())
	if err != nil {
		return nil, fmt.Errorf("open data file %s: %w", path, err)
	}
	db.SetMaxOpenConns(1) // one writer; reads are short
	if err := migrate(ctx, db); err != nil {
		return nil, errors.Join(fmt.Errorf("bring data file %s up to date: %w", path, err), db.Close())
	}
	return &Store{db: db, now: time.Now}, nil
}

func provider(db *sql.DB) (*goose.Provider, error) {
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db, sub)
}

func migrate(ctx context.Context, db *sql.DB) error {
	p, err := provider(db)
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

// isNewer looks at an existing file without writing to it.
func isNewer(ctx context.Context, path string) (bool, error) {
	db, err := sql.Open("sqlite", "file:"+path+"?mode=ro")
	if err != nil {
		return false, err
	}
	defer db.Close()
	var have sql.NullInt64
	if err := db.QueryRowContext(ctx, "SELECT max(version_id) FROM goose_db_version WHERE is_applied").Scan(&have); err != nil {
		return false, nil //nolint:nilerr // no such file or table yet: Open makes it
	}
	p, err := provider(db)
	if err != nil {
		return false, err
	}
	var most int64
	for _, s := range p.ListSources() {
		most = max(most, s.Version)
	}
	return have.Int64 > most, nil
}

// Close closes the file.
func (s *Store) Close() error { return s.db.Close() }

// Saved is a card with the counters that go with it.
type Saved struct {
	ID      string
	Card    card.Card
	Version int64 // counts every change
	CanUndo bool
	CanRedo bool
}

// Cards lists all cards in their order.
func (s *Store) Cards(ctx context.Context) ([]Saved, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT c.id, c.version, r.doc FROM cards c JOIN revisions r ON r.card = c.id AND r.number = c.head ORDER BY c.position, c.id`)
	if err != nil {
		return nil, fmt.Errorf("list cards: %w", err)
	}
	defer rows.Close()
	out := []Saved{}
	for rows.Next() {
		var v Saved
		var doc []byte
		if err := rows.Scan(&v.ID, &v.Version, &doc); err != nil {
			return nil, fmt.Errorf("list cards: %w", err)
		}
		if err := json.Unmarshal(doc, &v.Card); err != nil {
			return nil, fmt.Errorf("read card %s: %w", v.ID, err)
		}
		out = append(out, v)
	}
	return out, rows.Err()
}

// Card reads one card.
func (s *Store) Card(ctx context.Context, id string) (Saved, error) {
	v := Saved{ID: id}
	var doc []byte
	var head, parent, next int64
	err := s.db.QueryRowContext(ctx, `SELECT c.version, c.head, r.parent, r.doc, (SELECT count(*) FROM revisions n WHERE n.card = c.id AND n.parent = c.head)
		FROM cards c JOIN revisions r ON r.card = c.id AND r.number = c.head WHERE c.id = ?`, id).Scan(&v.Version, &head, &parent, &doc, &next)
	if errors.Is(err, sql.ErrNoRows) {
		return v, fmt.Errorf("card %q: %w", id, ErrNotFound)
	}
	if err != nil {
		return v, fmt.Errorf("read card %q: %w", id, err)
	}
	v.CanUndo, v.CanRedo = parent > 0, next > 0
	if err := json.Unmarshal(doc, &v.Card); err != nil {
		return v, fmt.Errorf("read card %q: %w", id, err)
	}
	return v, nil
}

// Add stores a new card.
func (s *Store) Add(ctx context.Context, id string, c card.Card) (Saved, error) {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `INSERT INTO cards (id, title, head, version, position) SELECT ?, ?, 1, 1, coalesce(max(position), 0) + 1 FROM cards`, id, c.Title); err != nil {
			return err
		}
		return s.revision(ctx, tx, id, 1, 0, c)
	})
	if err != nil {
		return Saved{}, fmt.Errorf("add card %q: %w", c.Title, err)
	}
	return s.Card(ctx, id)
}

func (s *Store) revision(ctx context.Context, tx *sql.Tx, id string, number, parent int64, c card.Card) error {
	doc, err := json.Marshal(c)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO revisions (card, number, parent, doc, at) VALUES (?, ?, ?, ?, ?)`, id, number, parent, doc, s.now().UTC().Format(time.RFC3339))
	return err
}

// Save stores a change of the card as a new revision on the one shown. version
// must be the card's; otherwise nothing is written and ErrChanged returned.
func (s *Store) Save(ctx context.Context, id string, version int64, c card.Card) (Saved, error) {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		head, err := claim(ctx, tx, id, version)
		if err != nil {
			return err
		}
		var number int64
		if err := tx.QueryRowContext(ctx, `SELECT max(number) + 1 FROM revisions WHERE card = ?`, id).Scan(&number); err != nil {
			return err
		}
		if err := s.revision(ctx, tx, id, number, head, c); err != nil {
			return err
		}
		return point(ctx, tx, id, number, c.Title)
	})
	if err != nil {
		return Saved{}, fmt.Errorf("save card %q: %w", c.Title, err)
	}
	return s.Card(ctx, id)
}

// claim checks the version and returns the head.
func claim(ctx context.Context, tx *sql.Tx, id string, version int64) (head int64, err error) {
	var have int64
	err = tx.QueryRowContext(ctx, `SELECT head, version FROM cards WHERE id = ?`, id).Scan(&head, &have)
	if errors.Is(err, sql.ErrNoRows) {
		return 0, ErrNotFound
	}
	if err == nil && have != version {
		return 0, ErrChanged
	}
	return head, err
}

func point(ctx context.Context, tx *sql.Tx, id string, head int64, title string) error {
	_, err := tx.ExecContext(ctx, `UPDATE cards SET head = ?, version = version + 1, title = ? WHERE id = ?`, head, title, id)
	return err
}

// Undo shows the revision before the one shown; Redo the last one made from
// it. Nothing is thrown away.
func (s *Store) Undo(ctx context.Context, id string, version int64) (Saved, error) {
	return s.walk(ctx, id, version, `SELECT r.number, r.doc FROM revisions h JOIN revisions r ON r.card = h.card AND r.number = h.parent WHERE h.card = ? AND h.number = ?`)
}

// Redo shows the revision last made from the one shown.
func (s *Store) Redo(ctx context.Context, id string, version int64) (Saved, error) {
	return s.walk(ctx, id, version, `SELECT number, doc FROM revisions WHERE card = ? AND parent = ? ORDER BY number DESC LIMIT 1`)
}

func (s *Store) walk(ctx context.Context, id string, version int64, query string) (Saved, error) {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		head, err := claim(ctx, tx, id, version)
		if err != nil {
			return err
		}
		var number int64
		var doc []byte
		err = tx.QueryRowContext(ctx, query, id, head).Scan(&number, &doc)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNothing
		}
		if err != nil {
			return err
		}
		var c card.Card
		if err := json.Unmarshal(doc, &c); err != nil {
			return err
		}
		return point(ctx, tx, id, number, c.Title)
	})
	if err != nil {
		return Saved{}, fmt.Errorf("step through the changes of card %q: %w", id, err)
	}
	return s.Card(ctx, id)
}

// Delete removes a card and its revisions.
func (s *Store) Delete(ctx context.Context, id string) error {
	r, err := s.db.ExecContext(ctx, `DELETE FROM cards WHERE id = ?`, id)
	if err != nil {
		return fmt.Errorf("delete card %q: %w", id, err)
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return fmt.Errorf("delete card %q: %w", id, ErrNotFound)
	}
	return nil
}

func (s *Store) tx(ctx context.Context, f func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := f(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

// Kinds of kit items, as stored.
const (
	KindSet      = "sets"
	KindInk      = "inks"
	KindPaper    = "papers"
	KindSpacer   = "spacers"
	KindAdhesive = "adhesives"
	KindEnvelope = "envelopes"
	KindSwatch   = "swatches"
)

// Fill stores a whole kit and cards at once, in one transaction; used for the
// demo.
func (s *Store) Fill(ctx context.Context, k kit.Kit, ids []string, cards []card.Card) error {
	items := []struct {
		kind string
		id   string
		v    any
	}{}
	add := func(kind, id string, v any) {
		items = append(items, struct {
			kind, id string
			v        any
		}{kind, id, v})
	}
	for _, v := range k.Sets {
		add(KindSet, v.ID, v)
	}
	for _, v := range k.Inks {
		add(KindInk, v.ID, v)
	}
	for _, v := range k.Papers {
		add(KindPaper, v.ID, v)
	}
	for _, v := range k.Spacers {
		add(KindSpacer, v.ID, v)
	}
	for _, v := range k.Adhesives {
		add(KindAdhesive, v.ID, v)
	}
	for _, v := range k.Envelopes {
		add(KindEnvelope, v.ID, v)
	}
	defer s.memo.forget()
	return s.tx(ctx, func(tx *sql.Tx) error {
		for i, it := range items {
			doc, err := json.Marshal(it.v)
			if err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `INSERT INTO items (kind, id, doc, position) VALUES (?, ?, ?, ?)`, it.kind, it.id, doc, i+1); err != nil {
				return fmt.Errorf("store %s %q: %w", it.kind, it.id, err)
			}
		}
		for i, c := range cards {
			if _, err := tx.ExecContext(ctx, `INSERT INTO cards (id, title, head, version, position) VALUES (?, ?, 1, 1, ?)`, ids[i], c.Title, i+1); err != nil {
				return err
			}
			if err := s.revision(ctx, tx, ids[i], 1, 0, c); err != nil {
				return err
			}
		}
		return nil
	})
}

// Setting reads a setting, or returns or when it has none.
func (s *Store) Setting(ctx context.Context, name, or string) (string, error) {
	var v string
	err := s.db.QueryRowContext(ctx, `SELECT value FROM settings WHERE name = ?`, name).Scan(&v)
	if errors.Is(err, sql.ErrNoRows) {
		return or, nil
	}
	if err != nil {
		return or, fmt.Errorf("read setting %q: %w", name, err)
	}
	return v, nil
}

// Set stores a setting.
func (s *Store) Set(ctx context.Context, name, value string) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO settings (name, value) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET value = excluded.value`, name, value); err != nil {
		return fmt.Errorf("store setting %q: %w", name, err)
	}
	return nil
}
