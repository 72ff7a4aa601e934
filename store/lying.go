package store

import (
	"context"
	"database/sql"
	"fmt"
	"strings"
	"time"
)

// Lying is how a card lies on the bench, beside what it is.
type Lying struct {
	Away  string   `json:"away,omitempty" doc:"since when it is put away, RFC 3339"`
	Model bool     `json:"model,omitempty" doc:"others are begun from it"`
	Tags  []string `json:"tags" nullable:"false" doc:"words by which cards are kept together, in their order"`
}

// Lying reads how all cards lie, by their ids.
func (s *Store) Lying(ctx context.Context) (map[string]Lying, error) {
	rows, err := s.read.QueryContext(ctx, `SELECT c.id, c.away, c.model, coalesce(t.tag, '') FROM cards c LEFT JOIN tags t ON t.card = c.id ORDER BY c.id, t.tag`)
	if err != nil {
		return nil, fmt.Errorf("read how the cards lie: %w", plain(err))
	}
	defer rows.Close()
	out := map[string]Lying{}
	for rows.Next() {
		var id, tag string
		l := Lying{Tags: []string{}}
		if err := rows.Scan(&id, &l.Away, &l.Model, &tag); err != nil {
			return nil, fmt.Errorf("read how the cards lie: %w", plain(err))
		}
		if had, ok := out[id]; ok {
			l = had
		}
		if tag != "" {
			l.Tags = append(l.Tags, tag)
		}
		out[id] = l
	}
	return out, plain(rows.Err())
}

// Lay puts a card away or onto the bench again, and says by which words it is kept and whether
// others are begun from it. Of a card that stays away the time is kept.
func (s *Store) Lay(ctx context.Context, id string, away, model bool, tags []string) error {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `UPDATE cards SET model = ?2, away = CASE WHEN NOT ?3 THEN '' WHEN away = '' THEN ?4 ELSE away END WHERE id = ?1`, id, model, away, s.now().UTC().Format(time.RFC3339))
		if err != nil {
			return err
		}
		if n, _ := r.RowsAffected(); n == 0 {
			return ErrNotFound
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM tags WHERE card = ?`, id); err != nil {
			return err
		}
		for _, t := range tags {
			if t = strings.Join(strings.Fields(t), " "); t == "" {
				continue
			}
			if _, err := tx.ExecContext(ctx, `INSERT INTO tags (card, tag) VALUES (?, ?) ON CONFLICT DO NOTHING`, id, t); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return fmt.Errorf("lay card %q: %w", id, err)
	}
	return nil
}
