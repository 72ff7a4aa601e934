package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
)

// Row is a card as lists read it: what stands in its own row, and where its brief was worked out
// from. The brief itself is read by Briefs.
type Row struct {
	ID      string
	Title   string
	Version int64
	Head    int64 // number of the revision that is shown
	Touched int64 // counts what happened to its runs
	Lying   Lying
	Of      string // digest of everything its brief was worked out from; empty: there is none
}

// Briefs are kept beside the cards: what lists show of a card, so that it is not worked out for
// every look. They are nothing a person made; where they are missing they are worked out anew, so
// they are in no backup's way and no restore brings them.
const briefs = `CREATE TABLE IF NOT EXISTS briefs (
  card    TEXT PRIMARY KEY REFERENCES cards (id) ON DELETE CASCADE,
  touched INTEGER NOT NULL DEFAULT 0,
  digest  TEXT NOT NULL DEFAULT '',
  doc     BLOB NOT NULL DEFAULT '',
  front   BLOB NOT NULL DEFAULT '', -- SVG, gzipped
  strata  BLOB NOT NULL DEFAULT ''
)`

// turns count the changes of what everything is planned by.
const turns = `CREATE TABLE IF NOT EXISTS turns (
  name TEXT PRIMARY KEY,
  n    INTEGER NOT NULL DEFAULT 0
)`

// lists are kept like briefs: what is shown of many cards together.
const lists = `CREATE TABLE IF NOT EXISTS lists (
  name TEXT PRIMARY KEY,
  doc  BLOB NOT NULL
)`

// workedOut are the tables that hold nothing a person made.
var workedOut = []string{"briefs", "lists", "turns"}

// turning are the tables whose changes are counted.
var turning = []string{"settings", "placements", "done", "cards", "tags", "briefs"}

// watched are the tables of what happens to runs, and how a row of them names its card.
var watched = map[string]string{
	"runs": "%s.card", "company": "%s.card",
	"made": "(SELECT card FROM runs WHERE id = %s.run)", "done": "(SELECT card FROM runs WHERE id = %s.run)", "used": "(SELECT card FROM runs WHERE id = %s.run)", "counted": "(SELECT card FROM runs WHERE id = %s.run)",
	"timers": "(SELECT card FROM runs WHERE id = %s.run)", "taken": "(SELECT card FROM runs WHERE id = %s.run)", "photographs": "(SELECT card FROM runs WHERE id = %s.run)",
}

// watch makes the tables of briefs and turns, anew where they are not as they should be, and lets
// the data file itself count what happens to runs and to what plans go by, whichever way it is
// written.
func (s *Store) watch(ctx context.Context) error {
	return s.tx(ctx, func(tx *sql.Tx) error { return watch(ctx, tx) })
}

func watch(ctx context.Context, tx *sql.Tx) error {
	for name, ddl := range map[string]string{"briefs": briefs, "turns": turns, "lists": lists} {
		var have string
		_ = tx.QueryRowContext(ctx, `SELECT sql FROM sqlite_master WHERE name = ?`, name).Scan(&have) // none: it is made
		if squeezed(have) == squeezed(strings.Replace(ddl, "IF NOT EXISTS ", "", 1)) {
			continue
		}
		for _, kind := range []string{"TABLE", "VIEW"} {
			_, _ = tx.ExecContext(ctx, `DROP `+kind+` IF EXISTS `+name) // of the other kind it fails
		}
		if _, err := tx.ExecContext(ctx, ddl); err != nil {
			return err
		}
	}
	on := func(name, table string, does func(row string) string) error {
		for what, row := range map[string]string{"INSERT": "NEW", "UPDATE": "NEW", "DELETE": "OLD"} {
			if _, err := tx.ExecContext(ctx, fmt.Sprintf("CREATE TRIGGER IF NOT EXISTS %s_%s_%s AFTER %s ON %s BEGIN\n  %s;\nEND", name, table, strings.ToLower(what), what, table, does(row))); err != nil {
				return err
			}
		}
		return nil
	}
	for table, card := range watched {
		// A row of a card that goes with the card has none any more.
		err := on("brief", table, func(row string) string {
			return `INSERT INTO briefs (card, touched) SELECT id, 1 FROM cards WHERE id = ` + fmt.Sprintf(card, row) + ` ON CONFLICT (card) DO UPDATE SET touched = touched + 1`
		})
		if err != nil {
			return err
		}
	}
	for _, table := range turning {
		err := on("turn", table, func(string) string {
			return `INSERT INTO turns (name, n) VALUES ('` + table + `', 1) ON CONFLICT (name) DO UPDATE SET n = n + 1`
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// Turns tell states of what plans go by apart: the settings, the placements in the log, and what
// is ticked; and of what lists show.
type Turns struct{ Settings, Placements, Done, Lists int64 }

// Turned reads them.
func (s *Store) Turned(ctx context.Context) (t Turns, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT CAST(coalesce(sum(n) FILTER (WHERE name = 'settings'), 0) AS INTEGER), CAST(coalesce(sum(n) FILTER (WHERE name = 'placements'), 0) AS INTEGER), CAST(coalesce(sum(n) FILTER (WHERE name = 'done'), 0) AS INTEGER), CAST(coalesce(sum(n) FILTER (WHERE name IN ('cards', 'tags', 'briefs')), 0) AS INTEGER) FROM turns`).Scan(&t.Settings, &t.Placements, &t.Done, &t.Lists)
	if err != nil {
		return t, fmt.Errorf("look for changes of the settings: %w", plain(err))
	}
	return t, nil
}

// squeezed is a statement without what does not matter.
func squeezed(sql string) string { return strings.Join(strings.Fields(sql), " ") }

// Rows lists all cards in their order as lists read them, those that cannot be read too.
func (s *Store) Rows(ctx context.Context) ([]Row, error) {
	out := []Row{}
	err := each(ctx, s.read, `SELECT c.id, CAST(c.title AS TEXT), CAST(c.version AS INTEGER), CAST(c.head AS INTEGER), CAST(coalesce(b.touched, 0) AS INTEGER), c.away, c.model, CAST(coalesce(b.digest, '') AS TEXT)
		FROM cards c LEFT JOIN briefs b ON b.card = c.id ORDER BY c.position, c.id`, func(rows *sql.Rows) error {
		r := Row{Lying: Lying{Tags: []string{}}}
		if err := rows.Scan(&r.ID, &r.Title, &r.Version, &r.Head, &r.Touched, &r.Lying.Away, &r.Lying.Model, &r.Of); err != nil {
			return err
		}
		out = append(out, r)
		return nil
	})
	if err != nil {
		return nil, fmt.Errorf("list cards: %w", err)
	}
	at := make(map[string]int, len(out))
	for i := range out {
		at[out[i].ID] = i
	}
	err = each(ctx, s.read, `SELECT card, tag FROM tags ORDER BY card, tag`, func(rows *sql.Rows) error {
		var id, tag string
		if err := rows.Scan(&id, &tag); err != nil {
			return err
		}
		if i, ok := at[id]; ok {
			out[i].Lying.Tags = append(out[i].Lying.Tags, tag)
		}
		return nil
	})
	if err != nil {
		return nil, fmt.Errorf("list cards: %w", err)
	}
	return out, nil
}

// Briefs reads the briefs of all cards that have one, by their ids; only those whose digest have
// says is not known yet.
func (s *Store) Briefs(ctx context.Context, known func(card, of string) bool) (map[string][]byte, error) {
	out := map[string][]byte{}
	var want []string
	err := each(ctx, s.read, `SELECT card, digest FROM briefs WHERE digest <> ''`, func(rows *sql.Rows) error {
		var id, of string
		if err := rows.Scan(&id, &of); err != nil {
			return err
		}
		if !known(id, of) {
			want = append(want, id)
		}
		return nil
	})
	if err != nil {
		return nil, fmt.Errorf("read what lists show: %w", err)
	}
	for len(want) > 0 {
		some := want[:min(len(want), 400)]
		want = want[len(some):]
		args := make([]any, len(some))
		for i, id := range some {
			args[i] = id
		}
		rows, err := s.read.QueryContext(ctx, `SELECT card, doc FROM briefs WHERE card IN (?`+strings.Repeat(", ?", len(some)-1)+`)`, args...)
		if err != nil {
			return nil, fmt.Errorf("read what lists show: %w", plain(err))
		}
		for rows.Next() {
			var id string
			var doc []byte
			if err := rows.Scan(&id, &doc); err != nil {
				rows.Close()
				return nil, fmt.Errorf("read what lists show: %w", plain(err))
			}
			out[id] = doc
		}
		if err := rows.Close(); err != nil {
			return nil, fmt.Errorf("read what lists show: %w", plain(err))
		}
	}
	return out, nil
}

// Brief is what lists show of a card, as it is kept.
type Brief struct {
	Of            string // digest of everything it was worked out from
	Doc           []byte
	Front, Strata []byte // pictures
}

// PutBrief keeps the brief of a card. Of a card that is gone meanwhile nothing is kept.
func (s *Store) PutBrief(ctx context.Context, card string, b Brief) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO briefs (card, digest, doc, front, strata) SELECT id, ?2, ?3, ?4, ?5 FROM cards WHERE id = ?1
		ON CONFLICT (card) DO UPDATE SET digest = excluded.digest, doc = excluded.doc, front = excluded.front, strata = excluded.strata`, card, b.Of, b.Doc, b.Front, b.Strata)
	if err != nil {
		return fmt.Errorf("keep what lists show of card %q: %w", card, plain(err))
	}
	return nil
}

// Picture reads a picture of a card as it was kept with its brief, "front" or "strata", and of
// what that was worked out. It returns ErrNotFound where none is kept.
func (s *Store) Picture(ctx context.Context, card, which string) (doc []byte, of string, err error) {
	column := map[string]string{"front": "front", "strata": "strata"}[which]
	if column == "" {
		return nil, "", fmt.Errorf("read a picture of card %q: %w", card, ErrNotFound)
	}
	err = s.read.QueryRowContext(ctx, `SELECT `+column+`, digest FROM briefs WHERE card = ? AND length(`+column+`) > 0`, card).Scan(&doc, &of)
	if err != nil {
		return nil, "", fmt.Errorf("read a picture of card %q: %w", card, missing(err))
	}
	return doc, of, nil
}

// List reads what was kept of many cards together under a name; nothing where nothing was.
func (s *Store) List(ctx context.Context, name string) (doc []byte, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT doc FROM lists WHERE name = ?`, name).Scan(&doc)
	if err != nil && !errors.Is(err, sql.ErrNoRows) {
		return nil, fmt.Errorf("read what was kept as %q: %w", name, plain(err))
	}
	return doc, nil
}

// KeepList keeps something of many cards together under a name.
func (s *Store) KeepList(ctx context.Context, name string, doc []byte) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO lists (name, doc) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET doc = excluded.doc`, name, doc); err != nil {
		return fmt.Errorf("keep %q: %w", name, plain(err))
	}
	return nil
}

// ForgetBriefs forgets everything that was worked out for lists, so that it is worked out anew.
func (s *Store) ForgetBriefs(ctx context.Context) error {
	for _, q := range []string{`UPDATE briefs SET digest = '', doc = '', front = '', strata = ''`, `DELETE FROM lists`} {
		if _, err := s.db.ExecContext(ctx, q); err != nil {
			return fmt.Errorf("forget what lists show: %w", plain(err))
		}
	}
	return nil
}
