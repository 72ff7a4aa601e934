package store

import (
	"context"
	"database/sql"
	"fmt"
	"time"
)

// Sources of logged placements.
const (
	FromPrint    = "print"    // measured from a picture of a print
	FromPoints   = "points"   // from points set by hand
	FromPractice = "practice" // on the screen
)

// Placement is a placement in the log: which layer, which way, and how far off it
// came out.
type Placement struct {
	ID        int64   `json:"id"`
	Batch     string  `json:"batch" doc:"what was logged together"`
	At        string  `json:"at" doc:"when, RFC 3339"`
	Card      string  `json:"card"`
	Motif     string  `json:"motif"`
	Layer     string  `json:"layer"`
	Label     string  `json:"label"`
	Way       string  `json:"way" doc:"way of placing"`
	Source    string  `json:"source" enum:"print,points,practice"`
	X         float64 `json:"x" doc:"off to the right, mm"`
	Y         float64 `json:"y" doc:"off downwards, mm"`
	Turn      float64 `json:"turn" doc:"off clockwise, degrees"`
	SureShift float64 `json:"sureShift" doc:"standard error, mm"`
	SureTurn  float64 `json:"sureTurn" doc:"standard error, degrees"`
	Good      bool    `json:"good" doc:"inside its play"`
}

// Log adds placements, all of them or none. Their batch and time are set here.
func (s *Store) Log(ctx context.Context, ps []Placement) (batch string, err error) {
	now := s.now().UTC()
	batch = now.Format("20060102T150405.000000000")
	err = s.tx(ctx, func(tx *sql.Tx) error {
		for _, p := range ps {
			if _, err := tx.ExecContext(ctx, `INSERT INTO placements (batch, at, card, motif, layer, label, way, source, x, y, turn, sure_shift, sure_turn, good)
				VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
				batch, now.Format(time.RFC3339), p.Card, p.Motif, p.Layer, p.Label, p.Way, p.Source, p.X, p.Y, p.Turn, p.SureShift, p.SureTurn, p.Good); err != nil {
				return fmt.Errorf("log %s: %w", p.Label, err)
			}
		}
		return nil
	})
	return batch, err
}

// Logged lists the placements in the log, newest first.
func (s *Store) Logged(ctx context.Context) ([]Placement, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT id, batch, at, card, motif, layer, label, way, source, x, y, turn, sure_shift, sure_turn, good FROM placements ORDER BY id DESC LIMIT 5000`)
	if err != nil {
		return nil, fmt.Errorf("read the log: %w", err)
	}
	defer rows.Close()
	out := []Placement{}
	for rows.Next() {
		var p Placement
		if err := rows.Scan(&p.ID, &p.Batch, &p.At, &p.Card, &p.Motif, &p.Layer, &p.Label, &p.Way, &p.Source, &p.X, &p.Y, &p.Turn, &p.SureShift, &p.SureTurn, &p.Good); err != nil {
			return nil, fmt.Errorf("read the log: %w", err)
		}
		out = append(out, p)
	}
	return out, rows.Err()
}

// Unlog takes back what was logged together.
func (s *Store) Unlog(ctx context.Context, batch string) error {
	r, err := s.db.ExecContext(ctx, `DELETE FROM placements WHERE batch = ?`, batch)
	if err != nil {
		return fmt.Errorf("take back from the log: %w", err)
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return fmt.Errorf("take back from the log: %w", ErrNotFound)
	}
	return nil
}
