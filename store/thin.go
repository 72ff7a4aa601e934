package store

import (
	"context"
	"database/sql"
)

// How revisions of a card are thinned: the newest are all there to be undone; of those before
// them the first is kept, one in so many, and each that a run was made from.
const (
	allKept  = 200
	oneIn    = 10
	thinned  = 50 // it is done once in so many changes
	theFirst = 1
)

// thin takes out revisions of a card by that rule. What came after one that is taken out comes
// after the one before it then, so that undo goes on past it; a version that showed it shows
// that one.
func thin(ctx context.Context, tx *sql.Tx, id string, head int64) error {
	parent, newest := map[int64]int64{}, int64(0)
	err := each(ctx, tx, `SELECT number, parent FROM revisions WHERE card = ?`, func(rows *sql.Rows) error {
		var n, p int64
		if err := rows.Scan(&n, &p); err != nil {
			return err
		}
		parent[n], newest = p, max(newest, n)
		return nil
	}, id)
	if err != nil {
		return err
	}
	made := map[int64]bool{}
	err = each(ctx, tx, `SELECT revision FROM made WHERE card = ?`, func(rows *sql.Rows) error {
		var n int64
		if err := rows.Scan(&n); err != nil {
			return err
		}
		made[n] = true
		return nil
	}, id)
	if err != nil {
		return err
	}
	stays := func(n int64) bool {
		return n > newest-allKept || n == head || n == theFirst || n%oneIn == 0 || made[n]
	}
	// before is the nearest that stays, at it or before it; 0 where there is none.
	before := func(n int64) int64 {
		for range len(parent) + 1 {
			p, there := parent[n]
			if !there || stays(n) {
				return n
			}
			n = p
		}
		return 0
	}
	for n, p := range parent {
		if to := before(p); stays(n) && to != p {
			if _, err := tx.ExecContext(ctx, `UPDATE revisions SET parent = ? WHERE card = ? AND number = ?`, to, id, n); err != nil {
				return err
			}
		}
	}
	for n := range parent {
		if stays(n) {
			continue
		}
		query, args := `UPDATE shown SET number = ? WHERE card = ? AND number = ?`, []any{before(n), id, n}
		if before(n) == 0 { // nothing is left that it could show
			query, args = `DELETE FROM shown WHERE card = ? AND number = ?`, args[1:]
		}
		if _, err := tx.ExecContext(ctx, query, args...); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM revisions WHERE card = ? AND number = ?`, id, n); err != nil {
			return err
		}
	}
	return nil
}
