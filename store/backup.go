package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"ochrestone/core/words"
)

// Backup writes the whole data file, as it stands at this moment, to a new file
// at path, while the program goes on. It appears there whole or not at all; a file
// that is there already is left as it is, with an error.
func (s *Store) Backup(ctx context.Context, path string) error {
	if s.path == "" {
		return backup(ctx, s.db, path)
	}
	db, err := readOnly(s.path) // a reader of its own: nobody waits for it
	if err != nil {
		return fmt.Errorf("back up to %s: %w", path, plain(err))
	}
	defer db.Close()
	return backup(ctx, db, path)
}

// BackupFile is Backup of a data file that is not open here, such as one that
// another program has open.
func BackupFile(ctx context.Context, from, to string) error {
	if err := Look(ctx, from); err != nil {
		return fmt.Errorf("back up %s: %w", from, err)
	}
	if _, err := os.Stat(from); err != nil {
		return fmt.Errorf("back up %s: %w", from, plain(err))
	}
	db, err := readOnly(from)
	if err != nil {
		return fmt.Errorf("back up %s: %w", from, err)
	}
	defer db.Close()
	return backup(ctx, db, to)
}

func backup(ctx context.Context, db *sql.DB, path string) error {
	if _, err := os.Stat(path); err == nil {
		return fmt.Errorf("back up to %s: there is a file of that name already; choose another", path)
	}
	part, err := os.CreateTemp(filepath.Dir(path), ".backup-*")
	if err != nil {
		return fmt.Errorf("back up to %s: %w", path, plain(err))
	}
	tmp := part.Name()
	defer os.Remove(tmp)
	if err := errors.Join(part.Close(), os.Remove(tmp)); err != nil { // SQLite makes the file itself
		return fmt.Errorf("back up to %s: %w", path, plain(err))
	}
	if _, err := db.ExecContext(ctx, `VACUUM INTO ?`, tmp); err != nil {
		return fmt.Errorf("back up to %s: %w", path, plain(err))
	}
	f, err := os.OpenFile(tmp, os.O_RDWR, 0)
	if err == nil {
		err = errors.Join(f.Sync(), f.Close())
	}
	if err == nil {
		err = os.Rename(tmp, path)
	}
	if err != nil {
		return fmt.Errorf("back up to %s: %w", path, plain(err))
	}
	return nil
}

// tables hold what a person made, in an order in which they can be filled.
var tables = []string{"cards", "revisions", "shown", "items", "settings", "placements", "company", "runs", "made", "done", "used", "counted", "timers", "taken", "photographs", "tags", "apart"}

// Restore puts what a backup holds in the place of everything in the open data
// file, in one transaction. What was there before is backed up first, to the file
// whose name comes back. The backup itself is not changed; one of an older program
// is brought up to date on a copy.
func (s *Store) Restore(ctx context.Context, path string) (before string, err error) {
	found, err := CheckFile(ctx, path)
	if t := (*Trouble)(nil); errors.As(err, &t) && !t.Disk {
		err = &Trouble{What: "The backup is damaged.", Mend: "Take another; nothing was changed.", err: err}
	}
	if err != nil {
		return "", fmt.Errorf("restore %s: %w", path, err)
	}
	if found.Torn() {
		return "", fmt.Errorf("restore %s: %w", path, &Trouble{What: "The backup is damaged: " + found.Problems[0] + ".", Mend: "Take another; nothing was changed."})
	}
	dir, err := os.MkdirTemp("", "ochrestone-restore-*")
	if err != nil {
		return "", fmt.Errorf("restore %s: %w", path, plain(err))
	}
	defer os.RemoveAll(dir)
	copied := filepath.Join(dir, "copy.db")
	if err := BackupFile(ctx, path, copied); err != nil {
		return "", fmt.Errorf("restore %s: %w", path, err)
	}
	c, err := unlocked(ctx, copied)
	if err != nil {
		return "", fmt.Errorf("restore %s: %w", path, err)
	}
	if _, err = c.db.ExecContext(ctx, `PRAGMA journal_mode(DELETE)`); err != nil {
		return "", errors.Join(fmt.Errorf("restore %s: %w", path, plain(err)), c.Close())
	}
	if err := c.Close(); err != nil {
		return "", fmt.Errorf("restore %s: %w", path, plain(err))
	}
	stem := strings.TrimSuffix(s.path, filepath.Ext(s.path))
	before = fmt.Sprintf("%s-before-restore-%s.db", stem, s.now().Format("2006-01-02-150405.000"))
	if err := s.Backup(ctx, before); err != nil {
		return "", err
	}
	taken := before // the name comes back empty with an error
	// Where it could not be done nothing was changed: the copy of what was there is not needed.
	// Either way the room that the writing took is given back to the disk.
	defer func() {
		if err != nil {
			_ = os.Remove(taken)
		}
		_, _ = s.db.ExecContext(context.WithoutCancel(ctx), `PRAGMA wal_checkpoint(TRUNCATE)`)
	}()
	defer s.memo.forget()
	conn, err := s.db.Conn(ctx)
	if err != nil {
		return "", fmt.Errorf("restore %s: %w", path, plain(err))
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, `ATTACH ? AS other`, copied); err != nil {
		return "", fmt.Errorf("restore %s: %w", path, plain(err))
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), `DETACH other`)
	tx, err := conn.BeginTx(ctx, nil)
	if err != nil {
		return "", fmt.Errorf("restore %s: %w", path, plain(err))
	}
	for i := range tables {
		if _, err = tx.ExecContext(ctx, `DELETE FROM main.`+tables[len(tables)-1-i]); err != nil {
			return "", errors.Join(fmt.Errorf("restore %s: %w", path, plain(err)), tx.Rollback())
		}
	}
	for _, t := range tables {
		if _, err = tx.ExecContext(ctx, `INSERT INTO main.`+t+` SELECT * FROM other.`+t); err != nil {
			return "", errors.Join(fmt.Errorf("restore %s: %w", path, plain(err)), tx.Rollback())
		}
	}
	// What lists showed was of what was there before.
	if _, err = tx.ExecContext(ctx, `DELETE FROM main.briefs`); err != nil {
		return "", errors.Join(fmt.Errorf("restore %s: %w", path, plain(err)), tx.Rollback())
	}
	if err := tx.Commit(); err != nil {
		return "", fmt.Errorf("restore %s: %w", path, plain(err))
	}
	s.sweepBefores()
	return before, nil
}

// Report is what Check found.
type Report struct {
	Cards     int      `json:"cards"`
	Revisions int      `json:"revisions"`
	Items     int      `json:"items" doc:"things in the stores"`
	Logged    int      `json:"logged" doc:"placements in the log"`
	Problems  []string `json:"problems" nullable:"false" doc:"what is wrong with the file as a whole"`
	Apart     []Apart  `json:"apart" nullable:"false" doc:"what cannot be read"`
}

// Torn reports whether the file as a whole is damaged.
func (r Report) Torn() bool { return len(r.Problems) > 0 }

// Check reads the whole file: its pages, what points at what, and every document
// in it, revisions no longer shown included.
func (s *Store) Check(ctx context.Context) (Report, error) { return check(ctx, s.db) }

// CheckFile is Check of a data file that is not open here.
func CheckFile(ctx context.Context, path string) (Report, error) {
	if _, err := os.Stat(path); err != nil {
		return Report{}, fmt.Errorf("check %s: %w", path, plain(err))
	}
	if err := Look(ctx, path); err != nil {
		return Report{}, fmt.Errorf("check %s: %w", path, err)
	}
	db, err := readOnly(path)
	if err != nil {
		return Report{}, fmt.Errorf("check %s: %w", path, err)
	}
	defer db.Close()
	var ours int
	if err := db.QueryRowContext(ctx, `SELECT count(*) FROM sqlite_master WHERE name = 'cards'`).Scan(&ours); err != nil {
		return Report{}, fmt.Errorf("check %s: %w", path, plain(err))
	}
	if ours == 0 { // empty, or begun and never finished
		return Report{}, fmt.Errorf("check %s: there is nothing in it: %w", path, ErrForeign)
	}
	return check(ctx, db)
}

func check(ctx context.Context, db *sql.DB) (Report, error) {
	r := Report{Problems: []string{}, Apart: []Apart{}}
	lines, err := strs(ctx, db, `PRAGMA integrity_check(20)`)
	if err != nil {
		r.Problems = append(r.Problems, plain(err).Error())
		return r, nil
	}
	for _, l := range lines {
		if l != "ok" {
			r.Problems = append(r.Problems, l)
		}
	}
	if r.Apart, err = oddRows(ctx, db); err != nil {
		return r, fmt.Errorf("check the rows: %w", err)
	}
	if err := db.QueryRowContext(ctx, `SELECT (SELECT count(*) FROM cards), (SELECT count(*) FROM revisions), (SELECT count(*) FROM items)`).Scan(&r.Cards, &r.Revisions, &r.Items); err != nil {
		return r, fmt.Errorf("count what is there: %w", plain(err))
	}
	_ = db.QueryRowContext(ctx, `SELECT count(*) FROM placements`).Scan(&r.Logged) // files of the first edition have none
	docs, err := db.QueryContext(ctx, `SELECT kind, id, doc FROM items UNION ALL SELECT 'cards', card || ', revision ' || number, doc FROM revisions`)
	if err != nil {
		return r, fmt.Errorf("read every document: %w", plain(err))
	}
	defer docs.Close()
	for docs.Next() {
		var kind, id string
		var doc []byte
		if err := docs.Scan(&kind, &id, &doc); err != nil {
			return r, fmt.Errorf("read every document: %w", plain(err))
		}
		if why := unreadable(kind, id, doc); why != nil {
			r.Apart = append(r.Apart, Apart{kind, id, nameIn(doc), why.Error()})
		}
	}
	return r, docs.Err()
}

// unreadable tries a document as what it should be.
func unreadable(kind, id string, doc []byte) error {
	if kind == KindCard {
		_, err := readCard(doc)
		return err
	}
	return take(kind, id, doc, emptyKit())
}

// nameIn is the name or title a document gives, whatever else is wrong with it.
func nameIn(doc []byte) string {
	var v struct{ Name, Title string }
	_ = json.Unmarshal(doc, &v)
	return start(v.Name + v.Title)
}

// start is as much of a name as is told of what cannot be read.
func start(s string) string {
	if r := []rune(s); len(r) > 80 {
		return string(r[:80]) + "…"
	}
	return s
}

func strs(ctx context.Context, db *sql.DB, query string) ([]string, error) {
	rows, err := db.QueryContext(ctx, query)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []string
	for rows.Next() {
		var v string
		if err := rows.Scan(&v); err != nil {
			return nil, err
		}
		out = append(out, v)
	}
	return out, rows.Err()
}

// Say is the report in a sentence or two.
func (r Report) Say() string {
	n := func(v int, one, many string) string {
		if v == 1 {
			return "1 " + one
		}
		return fmt.Sprintf("%d %s", v, many)
	}
	head := fmt.Sprintf("%s with %s, %s in the stores and %s in the log.", n(r.Cards, "card", "cards"), n(r.Revisions, "revision", "revisions"), n(r.Items, "thing", "things"), n(r.Logged, "placement", "placements"))
	switch {
	case r.Torn():
		return "The file is damaged: " + r.Problems[0] + ". Copy it aside, then go back to your latest backup."
	case len(r.Apart) > 0:
		return head + fmt.Sprintf(" The file is whole, but %s in it cannot be read and %s set apart.", n(len(r.Apart), "thing", "things"), words.Of(len(r.Apart), "is", "are"))
	}
	return head + " The file is whole, and everything in it can be read."
}

// Size is how many bytes of the data file are in use; room that is free in it is used again.
func (s *Store) Size(ctx context.Context) (n int64, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT (p.page_count - f.freelist_count) * s.page_size FROM pragma_page_count p, pragma_freelist_count f, pragma_page_size s`).Scan(&n)
	if err != nil {
		return 0, fmt.Errorf("measure the data file: %w", plain(err))
	}
	return n, nil
}
