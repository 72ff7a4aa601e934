package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"

	"ochrestone/core/card"
)

// madeTable is a table as this program makes it.
type madeTable struct {
	name, ddl string
	columns   []column
}

type column struct{ name, kind string }

// pristine are the tables of a data file that was made just now, by what they are called. They
// are the same as long as the program runs.
var pristine = sync.OnceValues(func() (map[string]madeTable, error) {
	ctx := context.Background()
	db, err := sql.Open("sqlite", "file::memory:?_pragma=foreign_keys(1)")
	if err != nil {
		return nil, err
	}
	defer db.Close()
	db.SetMaxOpenConns(1)
	if _, err := migrate(ctx, db); err != nil {
		return nil, err
	}
	out := map[string]madeTable{}
	for _, t := range tables {
		m := madeTable{name: t}
		if err := db.QueryRowContext(ctx, `SELECT sql FROM sqlite_master WHERE type = 'table' AND name = ?`, t).Scan(&m.ddl); err != nil {
			return nil, fmt.Errorf("make table %s: %w", t, err)
		}
		if m.columns, _, err = columnsOf(ctx, db, t); err != nil {
			return nil, err
		}
		out[t] = m
	}
	return out, nil
})

// asker asks a data file, within a transaction or not.
type asker interface {
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
	QueryRowContext(ctx context.Context, query string, args ...any) *sql.Row
}

// columnsOf are the columns of a table, and whether each is stored and not reckoned.
func columnsOf(ctx context.Context, db asker, table string) (out []column, stored bool, err error) {
	rows, err := db.QueryContext(ctx, `SELECT name, upper(type), hidden FROM pragma_table_xinfo(?)`, table)
	if err != nil {
		return nil, false, plain(err)
	}
	defer rows.Close()
	stored = true
	for rows.Next() {
		var c column
		var hidden int
		if err := rows.Scan(&c.name, &c.kind, &hidden); err != nil {
			return nil, false, plain(err)
		}
		if hidden != 0 {
			stored = false
			continue
		}
		out = append(out, c)
	}
	return out, stored, plain(rows.Err())
}

// fault is a row that cannot be used.
type fault struct {
	table string
	rowid int64
	name  string // what it is, in words
	why   string
	mend  string // an UPDATE that makes it usable, given the row's number; empty: it is taken out
}

// called are what the rows of tables are called.
var called = map[string]string{"cards": "how a card lies", "revisions": "a card as it once was", "shown": "which change of a card was shown", "items": "a thing in the stores", "settings": "a setting", "placements": "a placement in the log",
	"company": "what is made together", "runs": "a run", "made": "what a run makes", "done": "a step that is done", "used": "an ink really used", "counted": "a count of a step", "timers": "a wait", "taken": "sheets cut for a run", "photographs": "a photograph", "tags": "a word of a card"}

// mostText is how many letters what stands in a row by itself may have, notes among them.
const mostText = 20_000

// Ranges of numbers beyond which nothing can be meant: far wider than what the page takes, so that
// nothing a person ever wrote is among what is put right.
var ranges = map[string]string{
	"cards.version": "BETWEEN 1 AND 1000000000000", "cards.model": "IN (0, 1)", "revisions.number": "BETWEEN 1 AND 1000000000000", "revisions.parent": ">= 0", "shown.version": ">= 1", "shown.number": ">= 1",
	"made.revision": "BETWEEN 1 AND 1000000000000", "runs.copies": "BETWEEN 1 AND 1000000", "runs.well": "BETWEEN -1 AND 1000000", "counted.n": "BETWEEN 0 AND 1000000", "done.cards": "BETWEEN 1 AND 1000000", "placements.good": "IN (0, 1)", "photographs.w": "BETWEEN 0 AND 100000", "photographs.h": "BETWEEN 0 AND 100000",
	"placements.x": "BETWEEN -100000 AND 100000", "placements.y": "BETWEEN -100000 AND 100000", "placements.turn": "BETWEEN -100000 AND 100000", "placements.sure_shift": "BETWEEN 0 AND 100000", "placements.sure_turn": "BETWEEN 0 AND 100000",
}

// times are the columns that hold a time; those that may be empty are true.
var times = map[string]bool{"revisions.at": false, "placements.at": false, "runs.begun": false, "runs.ended": true, "runs.levels": true, "done.at": false, "timers.until": false, "taken.at": false, "photographs.at": false, "cards.away": true}

// mends make a row usable again that others hang on, so that these are not lost with it.
var mends = map[string]string{
	"cards.title":       `UPDATE cards SET title = coalesce((SELECT substr(json_extract(CAST(r.doc AS TEXT), '$.title'), 1, 200) FROM revisions r WHERE r.card = cards.id AND json_valid(CAST(r.doc AS TEXT)) ORDER BY r.number DESC LIMIT 1), 'Untitled') WHERE rowid = ?`,
	"cards.head":        `UPDATE cards SET head = coalesce((SELECT max(number) FROM revisions r WHERE r.card = cards.id), 0) WHERE rowid = ?`,
	"cards.version":     `UPDATE cards SET version = coalesce((SELECT max(version) FROM shown s WHERE s.card = cards.id AND typeof(s.version) = 'integer'), 1) WHERE rowid = ?`,
	"cards.position":    `UPDATE cards SET position = (SELECT coalesce(max(position), 0) + 1 FROM cards WHERE typeof(position) = 'integer') WHERE rowid = ?`,
	"cards.away":        `UPDATE cards SET away = '' WHERE rowid = ?`,
	"cards.model":       `UPDATE cards SET model = 0 WHERE rowid = ?`,
	"runs.copies":       `UPDATE runs SET copies = 1 WHERE rowid = ?`,
	"runs.begun":        `UPDATE runs SET begun = '1970-01-01T00:00:00Z' WHERE rowid = ?`,
	"runs.ended":        `UPDATE runs SET ended = begun WHERE rowid = ?`,
	"runs.well":         `UPDATE runs SET well = -1 WHERE rowid = ?`,
	"runs.note":         `UPDATE runs SET note = '' WHERE rowid = ?`,
	"runs.levels":       `UPDATE runs SET levels = '' WHERE rowid = ?`,
	"items.position":    `UPDATE items SET position = (SELECT coalesce(max(position), 0) + 1 FROM items WHERE typeof(position) = 'integer') WHERE rowid = ?`,
	"revisions.at":      `UPDATE revisions SET at = '1970-01-01T00:00:00Z' WHERE rowid = ?`,
	"revisions.gesture": `UPDATE revisions SET gesture = '' WHERE rowid = ?`,
	"revisions.parent":  `UPDATE revisions SET parent = coalesce((SELECT max(o.number) FROM revisions o WHERE o.card = revisions.card AND typeof(o.number) = 'integer' AND o.number < revisions.number), 0) WHERE rowid = ?`,
}

// faults are the rows that cannot be used: of another sort than their column, beyond what can
// be meant, of no readable time or step, and those that belong to nobody. Documents of cards
// and of the stores are not among them: what cannot be read of those is set apart where it is.
func faults(ctx context.Context, db asker, as map[string]madeTable) ([]fault, error) {
	var out []fault
	for _, t := range tables {
		if t == "apart" {
			continue
		}
		if have, stored, err := columnsOf(ctx, db, t); err != nil || !stored || len(have) == 0 {
			continue // it is put right first
		}
		for _, c := range as[t].columns {
			at := t + "." + c.name
			sort := map[string]string{"INTEGER": "= 'integer'", "REAL": "IN ('real', 'integer')", "TEXT": "= 'text'", "BLOB": "IN ('blob', 'text')"}[c.kind]
			if t == "photographs" && c.kind == "BLOB" {
				sort = "= 'blob'"
			}
			bad := fmt.Sprintf("typeof(%s) NOT %s", c.name, sort)
			if c.kind == "TEXT" && at != "settings.value" {
				bad += fmt.Sprintf(" OR length(%s) > %d", c.name, mostText)
			}
			if r, ok := ranges[at]; ok {
				bad += fmt.Sprintf(" OR %s NOT %s", c.name, r)
			}
			bad = strings.ReplaceAll(strings.ReplaceAll(bad, "NOT =", "<>"), "NOT >=", "<")
			if err := rowsWhere(ctx, db, t, c.name, bad, func(id int64, v any) {
				out = append(out, fault{t, id, called[t], fmt.Sprintf("under %q stands %s", c.name, shortly(v)), mends[at]})
			}); err != nil {
				return nil, err
			}
			if empty, ok := times[at]; ok {
				if err := rowsWhere(ctx, db, t, c.name, fmt.Sprintf("typeof(%[1]s) = 'text' AND strftime('%%s', %[1]s) IS NULL AND NOT (%[2]v AND %[1]s = '')", c.name, map[bool]int{true: 1}[empty]), func(id int64, v any) {
					if s, _ := v.(string); !readable(s) {
						out = append(out, fault{t, id, called[t], fmt.Sprintf("under %q stands %s, which is no time", c.name, shortly(v)), mends[at]})
					}
				}); err != nil {
					return nil, err
				}
			}
			switch {
			case c.name == "step":
				if err := rowsWhere(ctx, db, t, c.name, "typeof(step) = 'text'", func(id int64, v any) {
					var s card.Step
					if text, _ := v.(string); json.Unmarshal([]byte(text), &s) != nil || !strings.HasPrefix(strings.TrimSpace(text), "{") {
						out = append(out, fault{t, id, called[t], "it stands for " + shortly(v) + ", which is no step", ""})
					}
				}); err != nil {
					return nil, err
				}
			case at == "settings.value":
				if err := rowsWhere(ctx, db, t, c.name, "typeof(value) = 'text' AND (name IN ('fit', 'scanners') OR name LIKE 'swatch-sheet:%') AND CASE WHEN json_valid(value) THEN json_type(value) = 'null' ELSE 1 END", func(id int64, v any) {
					out = append(out, fault{t, id, called[t], "it is " + shortly(v) + ", which cannot be read", ""})
				}); err != nil {
					return nil, err
				}
			case at == "taken.doc":
				if err := rowsWhere(ctx, db, t, c.name, "CASE WHEN json_valid(CAST(doc AS TEXT)) THEN json_type(CAST(doc AS TEXT)) <> 'object' ELSE 1 END", func(id int64, v any) {
					out = append(out, fault{t, id, called[t], "its layout cannot be read", ""})
				}); err != nil {
					return nil, err
				}
			}
		}
	}
	heads := `SELECT c.rowid, NOT EXISTS (SELECT 1 FROM revisions r WHERE r.card = c.id AND typeof(r.number) = 'integer') FROM cards c WHERE typeof(c.head) = 'integer' AND NOT EXISTS (SELECT 1 FROM revisions r WHERE r.card = c.id AND r.number = c.head)`
	err := each(ctx, db, heads, func(rows *sql.Rows) error {
		var id int64
		var none bool
		if err := rows.Scan(&id, &none); err != nil {
			return err
		}
		f := fault{"cards", id, called["cards"], "it shows a change that is not there; the last there is, is shown", mends["cards.head"]}
		if none {
			f.why, f.mend = "nothing is left of the card itself", ""
		}
		out = append(out, f)
		return nil
	})
	if err != nil {
		return nil, err
	}
	err = each(ctx, db, `SELECT "table", rowid, parent FROM pragma_foreign_key_check WHERE rowid IS NOT NULL`, func(rows *sql.Rows) error {
		var t, parent string
		var id int64
		if err := rows.Scan(&t, &id, &parent); err != nil {
			return err
		}
		if slices.Contains(tables, t) {
			out = append(out, fault{t, id, called[t], "it belongs to nobody: what it was kept with is gone", ""})
		}
		return nil
	})
	return out, err
}

func rowsWhere(ctx context.Context, db asker, table, column, where string, tell func(id int64, v any)) error {
	return each(ctx, db, fmt.Sprintf(`SELECT rowid, %s FROM %s WHERE %s`, column, table, where), func(rows *sql.Rows) error {
		var id int64
		var v any
		if err := rows.Scan(&id, &v); err != nil {
			return err
		}
		if b, ok := v.([]byte); ok {
			v = string(b)
		}
		tell(id, v)
		return nil
	})
}

func each(ctx context.Context, db asker, query string, one func(*sql.Rows) error, args ...any) error {
	rows, err := db.QueryContext(ctx, query, args...)
	if err != nil {
		return fmt.Errorf("look the rows over: %w", plain(err))
	}
	defer rows.Close()
	for rows.Next() {
		if err := one(rows); err != nil {
			return fmt.Errorf("look the rows over: %w", plain(err))
		}
	}
	return plain(rows.Err())
}

func readable(at string) bool {
	_, err := time.Parse(time.RFC3339, at)
	return err == nil
}

// shortly is a value as it is told.
func shortly(v any) string {
	if v == nil {
		return "not there"
	}
	s := strings.ToValidUTF8(fmt.Sprint(v), "�")
	if r := []rune(s); len(r) > 30 {
		s = string(r[:30]) + "…"
	}
	return fmt.Sprintf("%q", s)
}

// settle puts a data file right that was opened: tables that are not what they should be are
// made anew with what can be taken over, and rows that cannot be used are mended where others
// hang on them, else taken out. Everything that was touched is set apart as it was before.
func (s *Store) settle(ctx context.Context) error {
	as, err := pristine()
	if err != nil {
		return err
	}
	conn, err := s.db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	// Only a file that needs it is written to.
	wrong, err := wrongTables(ctx, conn, as)
	if err != nil {
		return err
	}
	bad, err := faults(ctx, conn, as)
	if len(wrong) == 0 && (err != nil || len(bad) == 0) {
		return err
	}
	for _, p := range []string{`PRAGMA foreign_keys(0)`, `PRAGMA legacy_alter_table(1)`} {
		if _, err := conn.ExecContext(ctx, p); err != nil {
			return err
		}
	}
	defer func() {
		for _, p := range []string{`PRAGMA legacy_alter_table(0)`, `PRAGMA foreign_keys(1)`} {
			_, _ = conn.ExecContext(context.WithoutCancel(ctx), p)
		}
	}()
	tx, err := conn.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	err = s.putRight(ctx, tx, as, wrong)
	if err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

func (s *Store) putRight(ctx context.Context, tx *sql.Tx, as map[string]madeTable, wrong []string) error {
	if i := slices.Index(wrong, "apart"); i > 0 { // where the others are noted
		wrong[0], wrong[i] = wrong[i], wrong[0]
	}
	for _, t := range wrong {
		if err := s.again(ctx, tx, as[t]); err != nil {
			return fmt.Errorf("make table %s anew: %w", t, err)
		}
	}
	for range len(tables) { // what hangs on a row that is taken out belongs to nobody then
		bad, err := faults(ctx, tx, as)
		if err != nil || len(bad) == 0 {
			return err
		}
		gone := map[string]bool{}
		for _, f := range bad {
			at := fmt.Sprint(f.table, " ", f.rowid)
			if gone[at] {
				continue
			}
			if err := s.setApart(ctx, tx, f, as[f.table]); err != nil {
				return err
			}
			query := f.mend
			if query == "" {
				query, gone[at] = fmt.Sprintf(`DELETE FROM %s WHERE rowid = ?`, f.table), true
			}
			if _, err := tx.ExecContext(ctx, query, f.rowid); err != nil {
				return fmt.Errorf("put %s right: %w", f.name, err)
			}
		}
	}
	return nil
}

// setApart keeps a row as it is before it is put right.
func (s *Store) setApart(ctx context.Context, tx *sql.Tx, f fault, as madeTable) error {
	var pairs []string
	for _, c := range as.columns {
		v := c.name
		if c.kind == "BLOB" {
			v = fmt.Sprintf("CASE WHEN json_valid(CAST(%[1]s AS TEXT)) THEN CAST(%[1]s AS TEXT) ELSE hex(%[1]s) END", c.name)
		} else {
			v = fmt.Sprintf("CASE typeof(%[1]s) WHEN 'blob' THEN hex(%[1]s) ELSE %[1]s END", c.name)
		}
		pairs = append(pairs, fmt.Sprintf("'%s', %s", c.name, v))
	}
	_, err := tx.ExecContext(ctx, fmt.Sprintf(`INSERT INTO apart (tab, name, why, doc, at) SELECT ?, ?, ?, json_object(%s), ? FROM %s WHERE rowid = ?`, strings.Join(pairs, ", "), f.table),
		f.table, f.name, f.why, s.now().UTC().Format(time.RFC3339), f.rowid)
	if err != nil {
		return fmt.Errorf("set %s apart: %w", f.name, err)
	}
	return nil
}

// wrongTables are the tables that are not there, or not as this program makes them.
func wrongTables(ctx context.Context, db asker, as map[string]madeTable) (out []string, err error) {
	for _, t := range tables {
		var kind string
		if err := db.QueryRowContext(ctx, `SELECT coalesce((SELECT type FROM sqlite_master WHERE name = ? AND type IN ('table', 'view')), '')`, t).Scan(&kind); err != nil {
			return nil, plain(err)
		}
		have, stored, err := columnsOf(ctx, db, t)
		if err != nil {
			return nil, err
		}
		if kind != "table" || !stored || !slices.Equal(have, as[t].columns) {
			out = append(out, t)
		}
	}
	return out, nil
}

// again makes a table anew and takes over what it can of the one that stands in its place.
func (s *Store) again(ctx context.Context, tx *sql.Tx, as madeTable) error {
	var kind, ddl string
	err := tx.QueryRowContext(ctx, `SELECT type, coalesce(sql, '') FROM sqlite_master WHERE name = ? AND type IN ('table', 'view')`, as.name).Scan(&kind, &ddl)
	if err != nil && !errors.Is(err, sql.ErrNoRows) {
		return err
	}
	why := "it was not there; an empty one was made"
	aside := "odd_" + as.name
	var take []string
	if kind == "view" {
		why = "it was a view and no table; an empty one was made"
		if _, err := tx.ExecContext(ctx, `DROP VIEW `+as.name); err != nil {
			return err
		}
	} else if kind == "table" {
		why = "its columns were not those this program makes; what could be read was taken over"
		have, _, err := columnsOf(ctx, tx, as.name)
		if err != nil {
			return err
		}
		for _, c := range as.columns {
			if slices.ContainsFunc(have, func(h column) bool { return h.name == c.name }) {
				take = append(take, c.name)
			}
		}
		if _, err := tx.ExecContext(ctx, `ALTER TABLE `+as.name+` RENAME TO `+aside); err != nil {
			return err
		}
	}
	if _, err := tx.ExecContext(ctx, as.ddl); err != nil {
		return err
	}
	if len(take) > 0 {
		cols := strings.Join(take, ", ")
		if _, err := tx.ExecContext(ctx, fmt.Sprintf(`INSERT OR IGNORE INTO %s (%s) SELECT %s FROM %s`, as.name, cols, cols, aside)); err != nil {
			why = "its columns were not those this program makes, and nothing of it could be taken over"
		}
		if _, err := tx.ExecContext(ctx, `DROP TABLE `+aside); err != nil {
			return err
		}
	}
	doc, err := json.Marshal(map[string]string{"table": as.name, "was": ddl})
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO apart (tab, name, why, doc, at) VALUES (?, ?, ?, ?, ?)`, as.name, "the table "+as.name, why, string(doc), s.now().UTC().Format(time.RFC3339))
	return err
}

// KindRow is the kind of rows among what is set apart.
const KindRow = "rows"

// rowsApart lists the rows that were set apart when the file was opened.
func rowsApart(ctx context.Context, db asker) ([]Apart, error) {
	out := []Apart{}
	err := each(ctx, db, `SELECT id, name, why FROM apart ORDER BY id LIMIT 500`, func(rows *sql.Rows) error {
		a := Apart{Kind: KindRow}
		if err := rows.Scan(&a.ID, &a.Name, &a.Why); err != nil {
			return err
		}
		out = append(out, a)
		return nil
	})
	return out, err
}

// oddRows lists what of a data file is not as it should be, to be told: what is set apart
// already, tables and rows that will be when the program opens it. Files of older programs are
// looked over when they are brought up to date.
func oddRows(ctx context.Context, db *sql.DB) ([]Apart, error) {
	out := []Apart{}
	as, err := pristine()
	if err != nil {
		return nil, err
	}
	var known int
	if err := db.QueryRowContext(ctx, `SELECT count(*) FROM sqlite_master WHERE name = 'apart'`).Scan(&known); err != nil {
		return nil, plain(err)
	}
	if known == 0 {
		return out, nil
	}
	wrong, err := wrongTables(ctx, db, as)
	if err != nil {
		return nil, err
	}
	for _, t := range wrong {
		out = append(out, Apart{KindRow, t, "the table " + t, "it is not there, or not as this program makes it"})
	}
	if len(wrong) > 0 {
		return out, nil
	}
	if out, err = rowsApart(ctx, db); err != nil {
		return nil, err
	}
	bad, err := faults(ctx, db, as)
	for _, f := range bad {
		out = append(out, Apart{KindRow, fmt.Sprintf("%s %d", f.table, f.rowid), f.name, f.why})
	}
	return out, err
}
