package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"time"

	"ochrestone/core/card"
)

// Entry is a run as the log keeps it.
type Entry struct {
	Past
	Card        string       `json:"card"`
	Title       string       `json:"title" doc:"of the card, as it is called now"`
	Version     int64        `json:"version" doc:"change of the card at which it was as this run makes it; 0 where nobody knows"`
	Well        int          `json:"well" doc:"how many cards came out well; -1: nobody said"`
	Note        string       `json:"note"`
	Levels      string       `json:"levels,omitempty" doc:"when the pads and envelopes it took were taken out of the stores, RFC 3339"`
	Photographs []Photograph `json:"photographs" nullable:"false" doc:"the first taken first"`
}

// Photograph is a picture of a finished card.
type Photograph struct {
	ID    int64  `json:"id"`
	At    string `json:"at" doc:"when it was kept, RFC 3339"`
	Words string `json:"words" doc:"what is seen on it"`
	W     int    `json:"w" doc:"pixels"`
	H     int    `json:"h" doc:"pixels"`
}

// Entries lists the runs of a card in which anything was done or said, or with no card those
// of all cards, the latest first.
func (s *Store) Entries(ctx context.Context, id string) ([]Entry, error) {
	out, at, err := s.entries(ctx, id)
	if err != nil {
		return nil, fmt.Errorf("read the log: %w", err)
	}
	rows, err := s.read.QueryContext(ctx, `SELECT p.run, p.id, p.at, p.words, p.w, p.h FROM photographs p JOIN runs r ON r.id = p.run WHERE ?1 = '' OR r.card = ?1 ORDER BY p.id`, id)
	if err != nil {
		return nil, fmt.Errorf("read the log: %w", plain(err))
	}
	defer rows.Close()
	for rows.Next() {
		var run int64
		var p Photograph
		if err := rows.Scan(&run, &p.ID, &p.At, &p.Words, &p.W, &p.H); err != nil {
			return nil, fmt.Errorf("read the log: %w", plain(err))
		}
		if i, ok := at[run]; ok {
			out[i].Photographs = append(out[i].Photographs, p)
		}
	}
	return out, plain(rows.Err())
}

// entries lists runs without their photographs, and where each stands in the list.
func (s *Store) entries(ctx context.Context, id string) ([]Entry, map[int64]int, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT r.id, r.begun, r.ended, r.card, c.title, r.well, r.note, r.levels, count(d.step), coalesce(sum(d.how <> ''), 0), coalesce(min(d.at), ''), coalesce(max(d.at), ''),
		(SELECT count(*) FROM used u WHERE u.run = r.id), coalesce((SELECT min(w.version) FROM made m JOIN shown w ON w.card = m.card AND w.number = m.revision WHERE m.run = r.id AND m.card = r.card), 0)
		FROM runs r JOIN cards c ON c.id = r.card LEFT JOIN done d ON d.run = r.id WHERE ?1 = '' OR r.card = ?1 GROUP BY r.id
		HAVING count(d.step) > 0 OR r.note <> '' OR r.well >= 0 OR EXISTS (SELECT 1 FROM photographs p WHERE p.run = r.id) ORDER BY r.id DESC`, id)
	if err != nil {
		return nil, nil, plain(err)
	}
	defer rows.Close()
	out, at := []Entry{}, map[int64]int{}
	for rows.Next() {
		e := Entry{Photographs: []Photograph{}}
		if err := rows.Scan(&e.ID, &e.Begun, &e.Ended, &e.Card, &e.Title, &e.Well, &e.Note, &e.Levels, &e.Done, &e.Left, &e.First, &e.Last, &e.Other, &e.Version); err != nil {
			return nil, nil, plain(err)
		}
		e.Done -= e.Left
		at[e.ID] = len(out)
		out = append(out, e)
	}
	return out, at, plain(rows.Err())
}

// RunOf reads a run of a card by its number, under way or ended. It returns ErrNotFound where
// the card has none of that number.
func (s *Store) RunOf(ctx context.Context, id string, run int64) (Run, error) {
	r := Run{ID: run, Done: []card.Step{}, Used: []UsedInk{}, Left: []card.Step{}, Counts: []Counted{}, Timers: []Timer{}}
	if err := s.read.QueryRowContext(ctx, `SELECT copies, begun FROM runs WHERE id = ? AND card = ?`, run, id).Scan(&r.Copies, &r.Begun); err != nil {
		return r, fmt.Errorf("read run %d of card %q: %w", run, id, missing(err))
	}
	err := s.fill(ctx, id, &r)
	return r, err
}

// TicksOf lists when the steps of a run were ticked, in that order, those left out not with
// them.
func (s *Store) TicksOf(ctx context.Context, run int64) (out []Ticked, err error) {
	rows, err := s.read.QueryContext(ctx, `SELECT step, kind, cards, at FROM done WHERE run = ? AND how = '' ORDER BY at, rowid`, run)
	if err != nil {
		return nil, fmt.Errorf("read when steps were done: %w", plain(err))
	}
	defer rows.Close()
	for rows.Next() {
		t := Ticked{Run: run}
		var doc, at string
		if err := rows.Scan(&doc, &t.Kind, &t.Cards, &at); err != nil {
			return nil, fmt.Errorf("read when steps were done: %w", plain(err))
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

// Remember notes how many cards of a run came out well, -1 where nobody says, and what is to be
// remembered. It returns ErrNotFound where the card has no run of that number.
func (s *Store) Remember(ctx context.Context, id string, run int64, well int, note string) error {
	return s.ofRun(ctx, "note what became of", id, run, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `UPDATE runs SET well = ?, note = ? WHERE id = ?`, well, note, run)
		return err
	})
}

// TakeLevels puts things of the stores as they are after a run took of them, once for a run; a
// second time is ErrTaken.
func (s *Store) TakeLevels(ctx context.Context, id string, run int64, after ...Item) error {
	defer s.memo.forget()
	return s.ofRun(ctx, "take out of the stores what was used in", id, run, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `UPDATE runs SET levels = ? WHERE id = ? AND levels = ''`, s.now().UTC().Format(time.RFC3339), run)
		if err != nil {
			return err
		}
		if n, _ := r.RowsAffected(); n == 0 {
			return ErrTaken
		}
		for _, i := range after {
			doc, err := json.Marshal(i.Value)
			if err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `UPDATE items SET doc = ? WHERE kind = ? AND id = ?`, doc, i.Kind, i.ID); err != nil {
				return err
			}
		}
		return nil
	})
}

// Note notes that a card was made though its steps were not ticked: a run that is ended, of the
// card as it is now. Where a run is under way, it is that one that is ended.
func (s *Store) Note(ctx context.Context, id string, well int) error {
	err := s.inRun(ctx, id, func(tx *sql.Tx, run int64) error {
		_, err := tx.ExecContext(ctx, `UPDATE runs SET well = ?, ended = ? WHERE id = ?`, well, s.now().UTC().Format(time.RFC3339), run)
		return err
	})
	if err != nil {
		return fmt.Errorf("note that card %q was made: %w", id, err)
	}
	return nil
}

// KeepPhotograph keeps a picture of a finished card of a run, in two sizes, both JPEG. Its
// number and time are set here.
func (s *Store) KeepPhotograph(ctx context.Context, id string, run int64, p Photograph, large, small []byte) (Photograph, error) {
	p.At = s.now().UTC().Format(time.RFC3339)
	err := s.ofRun(ctx, "keep a photograph of", id, run, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `INSERT INTO photographs (run, at, words, w, h, large, small) VALUES (?, ?, ?, ?, ?, ?, ?)`, run, p.At, p.Words, p.W, p.H, large, small)
		if err == nil {
			p.ID, err = r.LastInsertId()
		}
		return err
	})
	return p, err
}

// DropPhotograph takes a photograph of a run away.
func (s *Store) DropPhotograph(ctx context.Context, id string, run, photograph int64) error {
	return s.ofRun(ctx, "take a photograph away from", id, run, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `DELETE FROM photographs WHERE id = ? AND run = ?`, photograph, run)
		if err != nil {
			return err
		}
		if n, _ := r.RowsAffected(); n == 0 {
			return ErrNotFound
		}
		return nil
	})
}

// PhotographOf reads a photograph, as large as it is kept or small: JPEG.
func (s *Store) PhotographOf(ctx context.Context, photograph int64, small bool) (jpeg []byte, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT CASE WHEN ?2 THEN small ELSE large END FROM photographs WHERE id = ?1`, photograph, small).Scan(&jpeg)
	if err != nil {
		return nil, fmt.Errorf("read photograph %d: %w", photograph, missing(err))
	}
	return jpeg, nil
}

// Again begins a run that makes what an earlier run of the card made, of the same revisions,
// while the cards may have changed since. A run under way is ended; one in which nothing was
// done is dropped.
func (s *Store) Again(ctx context.Context, id string, run int64) (Run, error) {
	err := s.ofRun(ctx, "make again", id, run, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM runs WHERE card = ?1 AND ended = '' AND id <> ?2 AND well < 0 AND note = '' AND NOT EXISTS (SELECT 1 FROM done d WHERE d.run = runs.id) AND NOT EXISTS (SELECT 1 FROM photographs p WHERE p.run = runs.id)`, id, run); err != nil {
			return err
		}
		now := s.now().UTC().Format(time.RFC3339)
		if _, err := tx.ExecContext(ctx, `UPDATE runs SET ended = ? WHERE card = ? AND ended = ''`, now, id); err != nil {
			return err
		}
		r, err := tx.ExecContext(ctx, `INSERT INTO runs (card, copies, begun) SELECT card, copies, ? FROM runs WHERE id = ?`, now, run)
		if err != nil {
			return err
		}
		next, err := r.LastInsertId()
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO made (run, card, revision, position) SELECT ?, card, revision, position FROM made WHERE run = ?`, next, run)
		return err
	})
	if err != nil {
		return Run{}, err
	}
	return s.Run(ctx, id)
}

// ofRun does something with a run of a card, and says what where it fails.
func (s *Store) ofRun(ctx context.Context, what, id string, run int64, f func(*sql.Tx) error) error {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		var there int
		if err := tx.QueryRowContext(ctx, `SELECT 1 FROM runs WHERE id = ? AND card = ?`, run, id).Scan(&there); err != nil {
			return missing(err)
		}
		return f(tx)
	})
	if err != nil {
		return fmt.Errorf("%s run %d of card %q: %w", what, run, id, err)
	}
	return nil
}
