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

// Run is the work on a card at the bench: what of it is done, and what was used.
type Run struct {
	ID     int64       `json:"id" doc:"0 before anything was done"`
	Before int         `json:"before" doc:"how many runs of the card were ended"`
	Copies int         `json:"copies"`
	Begun  string      `json:"begun,omitempty" doc:"when, RFC 3339"`
	Done   []card.Step `json:"done" nullable:"false" doc:"in the order they were done"`
	Used   []UsedInk   `json:"used" nullable:"false" doc:"inks used instead of those planned"`
	Left   []card.Step `json:"left" nullable:"false" doc:"of those done: what was left out"`
	Counts []Counted   `json:"counts" nullable:"false" doc:"steps that are done on some of the cards"`
	Timers []Timer     `json:"timers" nullable:"false" doc:"waits under way, the soonest first"`
}

// Counted is a step that is done on so many of the cards of a run.
type Counted struct {
	Step card.Step `json:"step"`
	N    int       `json:"n" minimum:"0" maximum:"200"`
}

// Timer is a wait that a step began.
type Timer struct {
	Step  card.Step `json:"step"`
	Until string    `json:"until" doc:"when it is over, RFC 3339"`
}

// UsedInk is an ink that was used for a step instead of the one planned.
type UsedInk struct {
	Step card.Step `json:"step"`
	Ink  string    `json:"ink" doc:"ink id; empty: as planned"`
}

// Run reads the run under way of a card: empty, with the number 0, where none was begun.
func (s *Store) Run(ctx context.Context, id string) (Run, error) {
	r := Run{Copies: 1, Done: []card.Step{}, Used: []UsedInk{}, Left: []card.Step{}, Counts: []Counted{}, Timers: []Timer{}}
	if err := s.read.QueryRowContext(ctx, `SELECT count(*) FROM runs WHERE card = ? AND ended <> ''`, id).Scan(&r.Before); err != nil {
		return r, fmt.Errorf("read the run of card %q: %w", id, plain(err))
	}
	err := s.read.QueryRowContext(ctx, `SELECT id, copies, begun FROM runs WHERE card = ? AND ended = '' ORDER BY id DESC LIMIT 1`, id).Scan(&r.ID, &r.Copies, &r.Begun)
	if errors.Is(err, sql.ErrNoRows) {
		return r, nil
	}
	if err != nil {
		return r, fmt.Errorf("read the run of card %q: %w", id, plain(err))
	}
	err = s.fill(ctx, id, &r)
	return r, err
}

// fill reads what was done in a run of a card.
func (s *Store) fill(ctx context.Context, id string, r *Run) error {
	rows, err := s.read.QueryContext(ctx, `SELECT * FROM (SELECT step, how, 0 FROM done WHERE run = ?1 ORDER BY rowid) UNION ALL SELECT step, ink, 1 FROM used WHERE run = ?1`, r.ID)
	if err != nil {
		return fmt.Errorf("read the run of card %q: %w", id, plain(err))
	}
	defer rows.Close()
	for rows.Next() {
		var doc []byte
		var u UsedInk
		var used bool
		if err := rows.Scan(&doc, &u.Ink, &used); err != nil {
			return fmt.Errorf("read the run of card %q: %w", id, plain(err))
		}
		if json.Unmarshal(doc, &u.Step) != nil {
			continue // what is no step is set apart when the file is opened next
		}
		if used {
			r.Used = append(r.Used, u)
		} else {
			r.Done = append(r.Done, u.Step)
			if u.Ink == leftOut {
				r.Left = append(r.Left, u.Step)
			}
		}
	}
	if err := rows.Err(); err != nil {
		return plain(err)
	}
	if err := s.more(ctx, r); err != nil {
		return fmt.Errorf("read the run of card %q: %w", id, err)
	}
	return nil
}

// more reads the counts and timers of a run.
func (s *Store) more(ctx context.Context, r *Run) error {
	rows, err := s.read.QueryContext(ctx, `SELECT step, n, '' FROM counted WHERE run = ?1 UNION ALL SELECT * FROM (SELECT step, -1, until FROM timers WHERE run = ?1 ORDER BY until)`, r.ID)
	if err != nil {
		return plain(err)
	}
	defer rows.Close()
	for rows.Next() {
		var doc []byte
		var n int
		var t Timer
		if err := rows.Scan(&doc, &n, &t.Until); err != nil {
			return plain(err)
		}
		if json.Unmarshal(doc, &t.Step) != nil {
			continue
		}
		if n < 0 {
			r.Timers = append(r.Timers, t)
		} else {
			r.Counts = append(r.Counts, Counted{t.Step, n})
		}
	}
	return plain(rows.Err())
}

// leftOut is how a step is done that was not.
const leftOut = "left out"

// Leave notes that a step is left out: it counts as done, and stands as left out beside what
// was planned.
func (s *Store) Leave(ctx context.Context, id string, step card.Step) (Run, error) {
	err := s.inRun(ctx, id, func(tx *sql.Tx, run int64) error {
		doc, err := json.Marshal(step)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO done (run, step, at, how) VALUES (?, ?, ?, ?) ON CONFLICT (run, step) DO UPDATE SET how = excluded.how`, run, string(doc), s.now().UTC().Format(time.RFC3339), leftOut)
		return err
	})
	if err != nil {
		return Run{}, fmt.Errorf("leave out a step of card %q: %w", id, err)
	}
	return s.Run(ctx, id)
}

// Count notes on how many of the cards of a run a step is done; on all of them it is done,
// on none it is not begun.
func (s *Store) Count(ctx context.Context, id string, step Mark, n, of int) (Run, error) {
	err := s.inRun(ctx, id, func(tx *sql.Tx, run int64) error {
		doc, err := json.Marshal(step.Step)
		if err != nil {
			return err
		}
		if err := s.tick(ctx, tx, run, n >= of, []Mark{step}); err != nil {
			return err
		}
		if n <= 0 || n >= of {
			_, err = tx.ExecContext(ctx, `DELETE FROM counted WHERE run = ? AND step = ?`, run, string(doc))
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO counted (run, step, n) VALUES (?, ?, ?) ON CONFLICT (run, step) DO UPDATE SET n = excluded.n`, run, string(doc), n)
		return err
	})
	if err != nil {
		return Run{}, fmt.Errorf("count the cards of a step of %q: %w", id, err)
	}
	return s.Run(ctx, id)
}

// Wait begins the wait of a step, or begins it anew; with no minutes it is stopped.
func (s *Store) Wait(ctx context.Context, id string, step card.Step, minutes float64) (Run, error) {
	err := s.inRun(ctx, id, func(tx *sql.Tx, run int64) error {
		doc, err := json.Marshal(step)
		if err != nil {
			return err
		}
		if minutes <= 0 {
			_, err = tx.ExecContext(ctx, `DELETE FROM timers WHERE run = ? AND step = ?`, run, string(doc))
			return err
		}
		until := s.now().Add(time.Duration(minutes * float64(time.Minute))).UTC().Format(time.RFC3339)
		_, err = tx.ExecContext(ctx, `INSERT INTO timers (run, step, until) VALUES (?, ?, ?) ON CONFLICT (run, step) DO UPDATE SET until = excluded.until`, run, string(doc), until)
		return err
	})
	if err != nil {
		return Run{}, fmt.Errorf("time a wait of card %q: %w", id, err)
	}
	return s.Run(ctx, id)
}

// Another ends the run under way of a card, so that the next tick begins a new one.
func (s *Store) Another(ctx context.Context, id string) (Run, error) {
	err := s.inRun(ctx, id, func(tx *sql.Tx, run int64) error {
		_, err := tx.ExecContext(ctx, `UPDATE runs SET ended = ? WHERE id = ?`, s.now().UTC().Format(time.RFC3339), run)
		return err
	})
	if err != nil {
		return Run{}, fmt.Errorf("end the run of card %q: %w", id, err)
	}
	return s.Run(ctx, id)
}

// Mark is a step that is ticked: which, what sort it is, and on how many cards it is done.
type Mark struct {
	card.Step
	Kind  string
	Cards int
}

// Marks are steps of which nothing more is known.
func Marks(steps ...card.Step) (out []Mark) {
	for _, s := range steps {
		out = append(out, Mark{s, "", 1})
	}
	return out
}

// Tick marks steps of a card as done, or not done after all, in the run under way; one
// is begun where there is none.
func (s *Store) Tick(ctx context.Context, id string, done bool, steps ...Mark) (Run, error) {
	err := s.inRun(ctx, id, func(tx *sql.Tx, run int64) error { return s.tick(ctx, tx, run, done, steps) })
	if err != nil {
		return Run{}, fmt.Errorf("tick a step of card %q: %w", id, err)
	}
	return s.Run(ctx, id)
}

func (s *Store) tick(ctx context.Context, tx *sql.Tx, run int64, done bool, steps []Mark) error {
	for _, st := range steps {
		doc, err := json.Marshal(st.Step)
		if err != nil {
			return err
		}
		if done {
			_, err = tx.ExecContext(ctx, `INSERT INTO done (run, step, at, kind, cards) VALUES (?, ?, ?, ?, ?) ON CONFLICT DO NOTHING`, run, string(doc), s.now().UTC().Format(time.RFC3339), st.Kind, max(1, st.Cards))
		} else {
			_, err = tx.ExecContext(ctx, `DELETE FROM done WHERE run = ? AND step = ?`, run, string(doc))
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// Use notes the ink that was really used for a step; none is the one planned.
func (s *Store) Use(ctx context.Context, id string, step card.Step, ink string) (Run, error) {
	err := s.inRun(ctx, id, func(tx *sql.Tx, run int64) error { return use(ctx, tx, run, step, ink) })
	if err != nil {
		return Run{}, fmt.Errorf("note the ink used on card %q: %w", id, err)
	}
	return s.Run(ctx, id)
}

func use(ctx context.Context, tx *sql.Tx, run int64, step card.Step, ink string) error {
	doc, err := json.Marshal(step)
	if err != nil {
		return err
	}
	if ink == "" {
		_, err = tx.ExecContext(ctx, `DELETE FROM used WHERE run = ? AND step = ?`, run, string(doc))
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO used (run, step, ink) VALUES (?, ?, ?) ON CONFLICT (run, step) DO UPDATE SET ink = excluded.ink`, run, string(doc), ink)
	return err
}

// inRun does something in the run under way of a card, and begins one where there is
// none.
func (s *Store) inRun(ctx context.Context, id string, f func(tx *sql.Tx, run int64) error) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		run, err := s.runOf(ctx, tx, id)
		if err != nil {
			return err
		}
		return f(tx, run)
	})
}

func (s *Store) runOf(ctx context.Context, tx *sql.Tx, id string) (run int64, err error) {
	var there int
	if err := tx.QueryRowContext(ctx, `SELECT 1 FROM cards WHERE id = ?`, id).Scan(&there); err != nil {
		return 0, missing(err)
	}
	err = tx.QueryRowContext(ctx, `SELECT id FROM runs WHERE card = ? AND ended = '' ORDER BY id DESC LIMIT 1`, id).Scan(&run)
	if errors.Is(err, sql.ErrNoRows) {
		var r sql.Result
		if r, err = tx.ExecContext(ctx, `INSERT INTO runs (card, begun) VALUES (?, ?)`, id, s.now().UTC().Format(time.RFC3339)); err == nil {
			run, err = r.LastInsertId()
		}
		if err == nil {
			err = s.keep(ctx, tx, run, id)
		}
	}
	return run, err
}

// adopt moves what cards of version 1 say was done into runs of their own, once: cards
// that have a run are passed over, as are those that cannot be read.
func (s *Store) adopt(ctx context.Context) error {
	rows, err := s.read.QueryContext(ctx, `SELECT c.id, r.doc FROM cards c JOIN revisions r ON r.card = c.id AND r.number = c.head WHERE NOT EXISTS (SELECT 1 FROM runs WHERE card = c.id)`)
	if err != nil {
		return plain(err)
	}
	docs := map[string][]byte{}
	for rows.Next() {
		var id string
		var doc []byte
		if err := rows.Scan(&id, &doc); err != nil {
			return errors.Join(plain(err), rows.Close())
		}
		docs[id] = doc
	}
	if err := errors.Join(plain(rows.Err()), rows.Close()); err != nil {
		return err
	}
	for id, doc := range docs {
		done, used, err := card.Done1(doc)
		if err != nil || len(done)+len(used) == 0 {
			continue
		}
		err = s.inRun(ctx, id, func(tx *sql.Tx, run int64) error {
			if err := s.tick(ctx, tx, run, true, Marks(done...)); err != nil {
				return err
			}
			for step, ink := range used {
				if err := use(ctx, tx, run, step, ink); err != nil {
					return err
				}
			}
			return nil
		})
		if err != nil {
			return fmt.Errorf("take what was done on card %q out of its document: %w", id, err)
		}
	}
	return nil
}
