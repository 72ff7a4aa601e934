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

	"ochrestone/core/bounds"
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
	db   *sql.DB // writes, one at a time
	read *sql.DB // reads what is written, and waits for no write
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

// migrate brings the tables up to date, and reports whether they were not.
func migrate(ctx context.Context, db *sql.DB) (changed bool, err error) {
	p, err := provider(db)
	if err != nil {
		return false, err
	}
	done, err := p.Up(ctx)
	return len(done) > 0, err
}

// Saved is a card with the counters that go with it.
type Saved struct {
	ID      string
	Card    card.Card
	Version int64 // counts every change
	CanUndo bool
	CanRedo bool
	Passed  []int64 // revisions that could not be read, passed over on the way here
}

// Cards lists all cards that can be read, in their order; SetApart has the
// others.
func (s *Store) Cards(ctx context.Context) ([]Saved, error) {
	out, _, err := s.readCards(ctx)
	return out, err
}

func (s *Store) readCards(ctx context.Context) ([]Saved, []Apart, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT c.id, CAST(c.title AS TEXT), c.version, coalesce(r.doc, '') FROM cards c LEFT JOIN revisions r ON r.card = c.id AND r.number = c.head ORDER BY c.position, c.id`)
	if err != nil {
		return nil, nil, fmt.Errorf("list cards: %w", plain(err))
	}
	defer rows.Close()
	out, apart := []Saved{}, []Apart{}
	for rows.Next() {
		var v Saved
		var title string
		var doc []byte
		var version any
		if err := rows.Scan(&v.ID, &title, &version, &doc); err != nil {
			return nil, nil, fmt.Errorf("list cards: %w", plain(err))
		}
		if n, ok := version.(int64); ok {
			v.Version = n
		} else {
			apart = append(apart, Apart{KindCard, v.ID, start(title), "its version is " + shortly(version)})
			continue
		}
		if v.Card, err = readCard(doc); err != nil {
			apart = append(apart, Apart{KindCard, v.ID, start(title), err.Error()})
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
	err := s.read.QueryRowContext(ctx, `SELECT c.version, c.head, r.parent, r.doc, (SELECT count(*) FROM revisions n WHERE n.card = c.id AND n.parent = c.head)
		FROM cards c JOIN revisions r ON r.card = c.id AND r.number = c.head WHERE c.id = ?`, id).Scan(&v.Version, &head, &parent, &doc, &next)
	if err != nil {
		return v, fmt.Errorf("read card %q: %w", id, missing(err))
	}
	v.CanUndo, v.CanRedo = parent > 0, next > 0
	if v.Card, err = readCard(doc); err != nil {
		return v, fmt.Errorf("read card %q, revision %d: %w: %w", id, head, ErrTorn, err)
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
	return s.AddWith(ctx, id, c)
}

func (s *Store) add(ctx context.Context, tx *sql.Tx, id string, c card.Card) error {
	if err := bounds.Check(struct {
		ID string `json:"id"`
	}{id}); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO cards (id, title, head, version, position) SELECT ?, ?, 1, 1, coalesce(max(position), 0) + 1 FROM cards`, id, c.Title); err != nil {
		return err
	}
	if err := s.revision(ctx, tx, id, 1, 0, "", c); err != nil {
		return err
	}
	return shown(ctx, tx, id, 1)
}

// document is a card as it is stored, if it is within bounds.
func document(c card.Card) ([]byte, error) {
	if excess := (*bounds.Excess)(nil); errors.As(bounds.Check(c), &excess) {
		return nil, kit.Problem{Path: excess.Path, What: excess.What}
	}
	return json.Marshal(c)
}

// readCard reads a stored card, if it is within bounds.
func readCard(doc []byte) (card.Card, error) {
	c, err := card.Read(doc)
	if err == nil {
		err = bounds.Check(c)
	}
	return c, err
}

func (s *Store) revision(ctx context.Context, tx *sql.Tx, id string, number, parent int64, gesture string, c card.Card) error {
	doc, err := document(c)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO revisions (card, number, parent, gesture, doc, at) VALUES (?, ?, ?, ?, ?, ?)`, id, number, parent, gesture, doc, s.now().UTC().Format(time.RFC3339))
	return err
}

// Save stores a change of the card as a new revision on the one shown. version
// must be the card's; otherwise nothing is written and ErrChanged returned. Changes of
// one gesture, such as a key held down, are one revision: the last of them stands in
// its place, and one undo takes them all back. An empty gesture is one of its own.
func (s *Store) Save(ctx context.Context, id string, version int64, gesture string, c card.Card) (Saved, error) {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		head, err := claim(ctx, tx, id, version)
		if err != nil {
			return err
		}
		var number int64
		var same bool
		if err := tx.QueryRowContext(ctx, `SELECT max(number) + 1 FROM revisions WHERE card = ?`, id).Scan(&number); err != nil {
			return err
		}
		if err := tx.QueryRowContext(ctx, `SELECT ?3 <> '' AND gesture = ?3 AND NOT EXISTS (SELECT 1 FROM revisions n WHERE n.card = ?1 AND n.parent = ?2) FROM revisions WHERE card = ?1 AND number = ?2`, id, head, gesture).Scan(&same); err != nil {
			return err
		}
		if same {
			doc, err := document(c)
			if err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `UPDATE revisions SET doc = ?, at = ? WHERE card = ? AND number = ?`, doc, s.now().UTC().Format(time.RFC3339), id, head); err != nil {
				return err
			}
			return point(ctx, tx, id, head, c.Title)
		}
		if err := s.revision(ctx, tx, id, number, head, gesture, c); err != nil {
			return err
		}
		if number%thinned == 0 {
			if err := thin(ctx, tx, id, head); err != nil {
				return err
			}
		}
		return point(ctx, tx, id, number, c.Title)
	})
	if err != nil {
		return Saved{}, fmt.Errorf("save card %q: %w", c.Title, err)
	}
	return s.Card(ctx, id)
}

// At reads a card as it was shown at a version. Of changes that were one gesture the
// last is left.
func (s *Store) At(ctx context.Context, id string, version int64) (card.Card, error) {
	var doc []byte
	err := s.read.QueryRowContext(ctx, `SELECT r.doc FROM shown s JOIN revisions r ON r.card = s.card AND r.number = s.number WHERE s.card = ? AND s.version = ?`, id, version).Scan(&doc)
	if err != nil {
		return card.Card{}, fmt.Errorf("read card %q at version %d: %w", id, version, missing(err))
	}
	c, err := readCard(doc)
	if err != nil {
		return c, fmt.Errorf("read card %q at version %d: %w: %w", id, version, ErrTorn, err)
	}
	return c, nil
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
	if _, err := tx.ExecContext(ctx, `UPDATE cards SET head = ?, version = version + 1, title = ? WHERE id = ?`, head, title, id); err != nil {
		return err
	}
	return shown(ctx, tx, id, head)
}

// mostShown is how many versions back it is known what was shown.
const mostShown = 500

// shown notes which revision the card's version shows.
func shown(ctx context.Context, tx *sql.Tx, id string, head int64) error {
	if _, err := tx.ExecContext(ctx, `INSERT INTO shown (card, version, number) SELECT id, version, ? FROM cards WHERE id = ?`, head, id); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `DELETE FROM shown WHERE card = ?1 AND version < (SELECT version FROM cards WHERE id = ?1) - ?2`, id, mostShown)
	return err
}

// Undo shows the revision before the one shown; Redo the last one made from
// it. Nothing is thrown away. A revision that cannot be read is passed over, and named
// in Passed.
func (s *Store) Undo(ctx context.Context, id string, version int64) (Saved, error) {
	return s.walk(ctx, id, version, `SELECT r.number, r.doc FROM revisions h JOIN revisions r ON r.card = h.card AND r.number = h.parent WHERE h.card = ? AND h.number = ?`)
}

// Redo shows the revision last made from the one shown.
func (s *Store) Redo(ctx context.Context, id string, version int64) (Saved, error) {
	return s.walk(ctx, id, version, `SELECT number, doc FROM revisions WHERE card = ? AND parent = ? ORDER BY number DESC LIMIT 1`)
}

func (s *Store) walk(ctx context.Context, id string, version int64, query string) (Saved, error) {
	var passed []int64
	err := s.tx(ctx, func(tx *sql.Tx) error {
		number, err := claim(ctx, tx, id, version)
		if err != nil {
			return err
		}
		for {
			var doc []byte
			err = tx.QueryRowContext(ctx, query, id, number).Scan(&number, &doc)
			if errors.Is(err, sql.ErrNoRows) && len(passed) > 0 {
				return fmt.Errorf("revision %d %w", passed[0], ErrTorn)
			}
			if errors.Is(err, sql.ErrNoRows) {
				return ErrNothing
			}
			if err != nil {
				return err
			}
			c, err := readCard(doc)
			if err == nil {
				return point(ctx, tx, id, number, c.Title)
			}
			passed = append(passed, number)
		}
	})
	if err != nil {
		return Saved{}, fmt.Errorf("step through the changes of card %q: %w", id, err)
	}
	v, err := s.Card(ctx, id)
	v.Passed = passed
	return v, err
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
	KindGem      = "gems"
	KindMachine  = "machines"
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
	for _, v := range k.Gems {
		add(KindGem, v.ID, v)
	}
	for _, v := range k.Machines {
		add(KindMachine, v.ID, v)
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
			if err := s.revision(ctx, tx, ids[i], 1, 0, "", c); err != nil {
				return err
			}
			if err := shown(ctx, tx, ids[i], 1); err != nil {
				return err
			}
		}
		return nil
	})
}

// Setting reads a setting, or returns or when it has none.
func (s *Store) Setting(ctx context.Context, name, or string) (string, error) {
	var v string
	err := s.read.QueryRowContext(ctx, `SELECT value FROM settings WHERE name = ?`, name).Scan(&v)
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
	rows, err := s.read.QueryContext(ctx, `SELECT name, value FROM settings`)
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
