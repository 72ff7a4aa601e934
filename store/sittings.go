package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"ochrestone/core/card"
)

// Kept is a card as a run makes it: the revision that was shown when the run began.
type Kept struct {
	ID       string
	Revision int64
	Version  int64 // of the card at which that revision was shown first; 0 where nobody knows
	Card     card.Card
}

// ErrTaken is returned when the sheets of a cardstock were taken out for a run already.
var ErrTaken = errors.New("was cut and taken out for this run already")

// Company lists the cards that are made in one sitting with a card, by their ids.
func (s *Store) Company(ctx context.Context, id string) ([]string, error) {
	out := []string{}
	rows, err := s.read.QueryContext(ctx, `SELECT other FROM company WHERE card = ? ORDER BY position`, id)
	if err != nil {
		return out, fmt.Errorf("read what is made with card %q: %w", id, plain(err))
	}
	defer rows.Close()
	for rows.Next() {
		var other string
		if err := rows.Scan(&other); err != nil {
			return out, fmt.Errorf("read what is made with card %q: %w", id, plain(err))
		}
		out = append(out, other)
	}
	return out, plain(rows.Err())
}

// SetCompany sets the cards that are made in one sitting with a card; none: it is made alone.
// It returns ErrNotFound where one of them is not there.
func (s *Store) SetCompany(ctx context.Context, id string, others []string) error {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM company WHERE card = ?`, id); err != nil {
			return err
		}
		for i, o := range append([]string{id}, others...) {
			var there int
			if err := tx.QueryRowContext(ctx, `SELECT 1 FROM cards WHERE id = ?`, o).Scan(&there); err != nil {
				return missing(err)
			}
			if i == 0 || o == id {
				continue
			}
			if _, err := tx.ExecContext(ctx, `INSERT INTO company (card, other, position) VALUES (?, ?, ?) ON CONFLICT DO NOTHING`, id, o, i); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return fmt.Errorf("set what is made with card %q: %w", id, err)
	}
	return nil
}

// Making reads the cards that are made in the sitting of a card, the card itself first: while
// a run is under way as they were when it began, else as they are.
func (s *Store) Making(ctx context.Context, id string, run int64) ([]Kept, error) {
	out, err := s.kept(ctx, `SELECT m.card, m.revision, r.doc, coalesce((SELECT min(version) FROM shown w WHERE w.card = m.card AND w.number = m.revision), 0)
		FROM made m JOIN revisions r ON r.card = m.card AND r.number = m.revision WHERE m.run = ? ORDER BY m.position`, run)
	if err == nil && (len(out) == 0 || out[0].ID != id) {
		out, err = s.kept(ctx, `SELECT c.id, c.head, r.doc, c.version FROM (SELECT ?1 AS id, -1 AS at UNION ALL SELECT other, position FROM company WHERE card = ?1 AND other <> ?1) w
			JOIN cards c ON c.id = w.id JOIN revisions r ON r.card = c.id AND r.number = c.head ORDER BY w.at`, id)
	}
	if err != nil {
		return nil, fmt.Errorf("read the sitting of card %q: %w", id, err)
	}
	if len(out) == 0 || out[0].ID != id {
		return nil, fmt.Errorf("read the sitting of card %q: %w", id, ErrNotFound)
	}
	return out, nil
}

func (s *Store) kept(ctx context.Context, query string, args ...any) (out []Kept, err error) {
	rows, err := s.read.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, plain(err)
	}
	defer rows.Close()
	for rows.Next() {
		var k Kept
		var doc []byte
		if err := rows.Scan(&k.ID, &k.Revision, &doc, &k.Version); err != nil {
			return nil, plain(err)
		}
		if k.Card, err = readCard(doc); err != nil {
			return nil, fmt.Errorf("card %q: %w: %w", k.ID, ErrTorn, err)
		}
		out = append(out, k)
	}
	return out, plain(rows.Err())
}

// keep notes which revisions a run makes: those that are shown now.
func (s *Store) keep(ctx context.Context, tx *sql.Tx, run int64, id string) error {
	if _, err := tx.ExecContext(ctx, `DELETE FROM made WHERE run = ?`, run); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `INSERT INTO made (run, card, revision, position) SELECT ?1, c.id, c.head, w.at FROM (SELECT ?2 AS id, 0 AS at UNION ALL SELECT other, position FROM company WHERE card = ?2 AND other <> ?2) w JOIN cards c ON c.id = w.id`, run, id)
	return err
}

// Renew lets the run under way of a card go on with the cards as they are now.
func (s *Store) Renew(ctx context.Context, id string) (Run, error) {
	err := s.inRun(ctx, id, func(tx *sql.Tx, run int64) error { return s.keep(ctx, tx, run, id) })
	if err != nil {
		return Run{}, fmt.Errorf("renew the run of card %q: %w", id, err)
	}
	return s.Run(ctx, id)
}

// Taken is cardstock that was cut for a run, as it was laid out.
type Taken struct {
	Stock string
	At    string // RFC 3339
	Doc   json.RawMessage
}

// TakenIn lists the cardstocks that were cut for a run and taken out of the stores.
func (s *Store) TakenIn(ctx context.Context, run int64) (out []Taken, err error) {
	rows, err := s.read.QueryContext(ctx, `SELECT stock, at, doc FROM taken WHERE run = ?`, run)
	if err != nil {
		return nil, fmt.Errorf("read what was cut: %w", plain(err))
	}
	defer rows.Close()
	for rows.Next() {
		var t Taken
		var doc []byte
		if err := rows.Scan(&t.Stock, &t.At, &doc); err != nil {
			return nil, fmt.Errorf("read what was cut: %w", plain(err))
		}
		t.Doc = doc
		out = append(out, t)
	}
	return out, plain(rows.Err())
}

// TakeOut puts a cardstock into the stores as it is after its sheets were cut for the run of a
// card, and notes how they were laid out; a second time for the same run is ErrTaken.
func (s *Store) TakeOut(ctx context.Context, id, stock string, after any, layout any) error {
	item, err := json.Marshal(after)
	if err != nil {
		return fmt.Errorf("take out %q: %w", stock, err)
	}
	doc, err := json.Marshal(layout)
	if err != nil {
		return fmt.Errorf("take out %q: %w", stock, err)
	}
	defer s.memo.forget()
	err = s.inRun(ctx, id, func(tx *sql.Tx, run int64) error {
		var there int
		if err := tx.QueryRowContext(ctx, `SELECT 1 FROM taken WHERE run = ? AND stock = ?`, run, stock).Scan(&there); err == nil {
			return ErrTaken
		} else if !errors.Is(err, sql.ErrNoRows) {
			return err
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO taken (run, stock, doc, at) VALUES (?, ?, ?, ?)`, run, stock, doc, s.now().UTC().Format(time.RFC3339)); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `UPDATE items SET doc = ? WHERE kind = ? AND id = ?`, item, KindPaper, stock)
		return err
	})
	if err != nil {
		return fmt.Errorf("take out %q: %w", stock, err)
	}
	return nil
}

// Past is a run as it went.
type Past struct {
	ID    int64  `json:"id"`
	Begun string `json:"begun" doc:"RFC 3339"`
	Ended string `json:"ended,omitempty" doc:"RFC 3339; none while it is under way"`
	Done  int    `json:"done" doc:"steps done"`
	Left  int    `json:"left" doc:"steps left out"`
	Other int    `json:"other" doc:"steps done with another ink"`
	First string `json:"first,omitempty" doc:"when the first step was ticked, RFC 3339"`
	Last  string `json:"last,omitempty" doc:"and the last"`
}

// Past lists the runs of a card, the latest first.
func (s *Store) Past(ctx context.Context, id string) ([]Past, error) {
	out := []Past{}
	rows, err := s.read.QueryContext(ctx, `SELECT r.id, r.begun, r.ended, (SELECT count(*) FROM done d WHERE d.run = r.id AND d.how = ''), (SELECT count(*) FROM done d WHERE d.run = r.id AND d.how <> ''),
		(SELECT count(*) FROM used u WHERE u.run = r.id), coalesce((SELECT min(at) FROM done d WHERE d.run = r.id), ''), coalesce((SELECT max(at) FROM done d WHERE d.run = r.id), '') FROM runs r WHERE r.card = ? ORDER BY r.id DESC`, id)
	if err != nil {
		return out, fmt.Errorf("list the runs of card %q: %w", id, plain(err))
	}
	defer rows.Close()
	for rows.Next() {
		var p Past
		if err := rows.Scan(&p.ID, &p.Begun, &p.Ended, &p.Done, &p.Left, &p.Other, &p.First, &p.Last); err != nil {
			return out, fmt.Errorf("list the runs of card %q: %w", id, plain(err))
		}
		out = append(out, p)
	}
	return out, plain(rows.Err())
}

// Ticked is a step that was ticked in some run.
type Ticked struct {
	Run   int64
	Step  card.Step
	Kind  string
	Cards int
	At    time.Time
}

// Ticks lists when steps were ticked, of all runs of all cards, those left out and those of
// which nobody knows what sort they were not with them.
func (s *Store) Ticks(ctx context.Context) (out []Ticked, err error) {
	rows, err := s.read.QueryContext(ctx, `SELECT run, step, kind, cards, at FROM done WHERE how = '' AND kind <> '' ORDER BY run, at, rowid`)
	if err != nil {
		return nil, fmt.Errorf("read how long steps took: %w", plain(err))
	}
	defer rows.Close()
	for rows.Next() {
		var t Ticked
		var doc, at string
		if err := rows.Scan(&t.Run, &doc, &t.Kind, &t.Cards, &at); err != nil {
			return nil, fmt.Errorf("read how long steps took: %w", plain(err))
		}
		if json.Unmarshal([]byte(doc), &t.Step) != nil {
			continue
		}
		if t.At, err = time.Parse(time.RFC3339, at); err != nil {
			continue
		}
		out = append(out, t)
	}
	return out, plain(rows.Err())
}

// Ticking tells states of what is ticked apart: it changes whenever a step is ticked or taken
// back.
func (s *Store) Ticking(ctx context.Context) ([2]int64, error) {
	var n [2]int64
	err := s.read.QueryRowContext(ctx, `SELECT count(*), coalesce(max(rowid), 0) FROM done`).Scan(&n[0], &n[1])
	if err != nil {
		return n, fmt.Errorf("look what is ticked: %w", plain(err))
	}
	return n, nil
}
