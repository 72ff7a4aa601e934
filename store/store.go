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
	"time"

	"github.com/gofrs/flock"
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
	ErrTorn     = errors.New("cannot be read as it is stored")
)

// Store is an open data file.
type Store struct {
	db   *sql.DB
	now  func() time.Time
	memo kitMemo
	lock *flock.Flock
	path string
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

// Saved is a card with the counters that go with it.
type Saved struct {
	ID      string
	Card    card.Card
	Version int64 // counts every change
	CanUndo bool
	CanRedo bool
}

// Cards lists all cards that can be read, in their order; SetApart has the
// others.
func (s *Store) Cards(ctx context.Context) ([]Saved, error) {
	out, _, err := s.readCards(ctx)
	return out, err
}

func (s *Store) readCards(ctx context.Context) ([]Saved, []Apart, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT c.id, c.title, c.version, r.doc FROM cards c JOIN revisions r ON r.card = c.id AND r.number = c.head ORDER BY c.position, c.id`)
	if err != nil {
		return nil, nil, fmt.Errorf("list cards: %w", plain(err))
	}
	defer rows.Close()
	out, apart := []Saved{}, []Apart{}
	for rows.Next() {
		var v Saved
		var title string
		var doc []byte
		if err := rows.Scan(&v.ID, &title, &v.Version, &doc); err != nil {
			return nil, nil, fmt.Errorf("list cards: %w", plain(err))
		}
		if err := json.Unmarshal(doc, &v.Card); err != nil {
			apart = append(apart, Apart{KindCard, v.ID, title, err.Error()})
			continue
		}
		out = append(out, v)
	}
	return out, apart, plain(rows.Err())
}

// Card reads one card.
func (s *Store) Card(ctx context.Context, id string) (Saved, error) {
	v := Saved{ID: id}
	var doc []byte
	var head, parent, next int64
	err := s.db.QueryRowContext(ctx, `SELECT c.version, c.head, r.parent, r.doc, (SELECT count(*) FROM revisions n WHERE n.card = c.id AND n.parent = c.head)
		FROM cards c JOIN revisions r ON r.card = c.id AND r.number = c.head WHERE c.id = ?`, id).Scan(&v.Version, &head, &parent, &doc, &next)
	if err != nil {
		return v, fmt.Errorf("read card %q: %w", id, missing(err))
	}
	v.CanUndo, v.CanRedo = parent > 0, next > 0
	if err := json.Unmarshal(doc, &v.Card); err != nil {
		return v, fmt.Errorf("read card %q: %w: %w", id, ErrTorn, err)
	}
	return v, nil
}

// missing turns the absence of a row into ErrNotFound, and others into plain words.
func missing(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	return plain(err)
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
		return fmt.Errorf("delete card %q: %w", id, plain(err))
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return fmt.Errorf("delete card %q: %w", id, ErrNotFound)
	}
	return nil
}

func (s *Store) tx(ctx context.Context, f func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return plain(err)
	}
	if err := f(tx); err != nil {
		err = plain(err)
		if undo := tx.Rollback(); undo != nil && !errors.Is(undo, sql.ErrTxDone) {
			err = errors.Join(err, undo)
		}
		return err
	}
	return plain(tx.Commit())
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
		return or, fmt.Errorf("read setting %q: %w", name, plain(err))
	}
	return v, nil
}

// Set stores a setting.
func (s *Store) Set(ctx context.Context, name, value string) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO settings (name, value) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET value = excluded.value`, name, value); err != nil {
		return fmt.Errorf("store setting %q: %w", name, plain(err))
	}
	return nil
}

// AddNumbered stores settings under prefix and the numbers that come next, all in
// one: however many ask at a time, each gets a number of its own. value is asked
// for what to store under a number, so often until it has no more.
func (s *Store) AddNumbered(ctx context.Context, prefix string, value func(number int) (string, bool)) error {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		var last int
		if err := tx.QueryRowContext(ctx, `SELECT coalesce(max(CAST(substr(name, ?1) AS INTEGER)), 0) FROM settings WHERE substr(name, 1, ?1 - 1) = ?2`, len(prefix)+1, prefix).Scan(&last); err != nil {
			return err
		}
		for n := last + 1; ; n++ {
			v, more := value(n)
			if !more {
				return nil
			}
			if _, err := tx.ExecContext(ctx, `INSERT INTO settings (name, value) VALUES (?, ?)`, fmt.Sprint(prefix, n), v); err != nil {
				return err
			}
		}
	})
	if err != nil {
		return fmt.Errorf("store the next %s: %w", prefix, err)
	}
	return nil
}

// Settings lists all settings.
func (s *Store) Settings(ctx context.Context) (map[string]string, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT name, value FROM settings`)
	if err != nil {
		return nil, fmt.Errorf("read the settings: %w", plain(err))
	}
	defer rows.Close()
	out := map[string]string{}
	for rows.Next() {
		var n, v string
		if err := rows.Scan(&n, &v); err != nil {
			return nil, fmt.Errorf("read the settings: %w", plain(err))
		}
		out[n] = v
	}
	return out, plain(rows.Err())
}

// Path is where the data file lies.
func (s *Store) Path() string { return s.path }
