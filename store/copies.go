package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// Copies kept of a data file.
const (
	keptDays  = 7
	keptWeeks = 4
	dayForm   = "2006-01-02"
)

// Copy is a copy made of the data file by itself, one a day.
type Copy struct {
	Day  string `json:"day" doc:"year, month and day it was made"`
	Size int64  `json:"size" doc:"bytes"`
}

// CopiesDir is the folder of the copies made of a data file, beside it.
func (s *Store) CopiesDir() string {
	return strings.TrimSuffix(s.path, filepath.Ext(s.path)) + "-copies"
}

// Daily makes the day's copy if it is not there yet, in CopiesDir, and takes away those no
// longer kept: of the last seven days each, and of the four weeks before the last of each
// week. Files there of other names are left alone. It reports whether it made one.
func (s *Store) Daily(ctx context.Context, now time.Time) (made bool, err error) {
	dir := s.CopiesDir()
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return false, fmt.Errorf("keep today's copy: %w", plain(err))
	}
	today := filepath.Join(dir, now.Format(dayForm)+".db")
	if _, err := os.Stat(today); errors.Is(err, fs.ErrNotExist) {
		if err := s.Backup(ctx, today); err != nil {
			return false, fmt.Errorf("keep today's copy: %w", err)
		}
		made = true
	}
	all, err := s.Copies()
	if err != nil {
		return made, err
	}
	var days []time.Time
	for _, c := range all {
		if d, err := time.Parse(dayForm, c.Day); err == nil {
			days = append(days, d)
		}
	}
	kept := keep(days, now)
	for _, d := range days {
		if !slices.ContainsFunc(kept, d.Equal) {
			if err := os.Remove(filepath.Join(dir, d.Format(dayForm)+".db")); err != nil {
				return made, fmt.Errorf("take an old copy away: %w", plain(err))
			}
		}
	}
	return made, nil
}

// keep are the days whose copies are kept: the last seven there are, and of each of the four
// weeks (ISO 8601) before the last of those with a copy the latest. Days to come, as a clock
// set wrong leaves them, are kept.
func keep(days []time.Time, now time.Time) (out []time.Time) {
	days = slices.Clone(days)
	slices.SortFunc(days, func(a, b time.Time) int { return b.Compare(a) })
	type week struct{ year, number int }
	weeks := map[week]bool{}
	recent := 0
	for _, d := range days {
		y, n := d.ISOWeek()
		w := week{y, n}
		switch {
		case d.After(now):
			out = append(out, d)
		case recent < keptDays:
			recent++
			out = append(out, d)
		case !weeks[w] && len(weeks) < keptWeeks:
			weeks[w] = true
			out = append(out, d)
		}
	}
	return out
}

// Copies lists the copies there are, the latest first.
func (s *Store) Copies() ([]Copy, error) {
	out := []Copy{}
	es, err := os.ReadDir(s.CopiesDir())
	if errors.Is(err, fs.ErrNotExist) {
		return out, nil
	}
	if err != nil {
		return nil, fmt.Errorf("list the copies: %w", plain(err))
	}
	for _, e := range es {
		day, is := strings.CutSuffix(e.Name(), ".db")
		if _, err := time.Parse(dayForm, day); !is || err != nil {
			continue
		}
		if st, err := e.Info(); err == nil {
			out = append(out, Copy{day, st.Size()})
		}
	}
	slices.Reverse(out)
	return out, nil
}

// CopyFile is where the copy of a day lies; ErrNotFound when there is none.
func (s *Store) CopyFile(day string) (string, error) {
	if _, err := time.Parse(dayForm, day); err != nil {
		return "", fmt.Errorf("the copy of %q: %w", day, ErrNotFound)
	}
	path := filepath.Join(s.CopiesDir(), day+".db")
	if _, err := os.Stat(path); err != nil {
		return "", fmt.Errorf("the copy of %s: %w", day, ErrNotFound)
	}
	return path, nil
}

// TitlesIn are the titles of the cards in a data file that is not open here, by id.
func TitlesIn(ctx context.Context, path string) (map[string]string, error) {
	if err := Look(ctx, path); err != nil {
		return nil, fmt.Errorf("look into %s: %w", path, err)
	}
	db, err := readOnly(path)
	if err != nil {
		return nil, fmt.Errorf("look into %s: %w", path, err)
	}
	defer db.Close()
	rows, err := db.QueryContext(ctx, `SELECT c.id, r.doc FROM cards c JOIN revisions r ON r.card = c.id AND r.number = c.head`)
	if err != nil {
		return nil, fmt.Errorf("look into %s: %w", path, plain(err))
	}
	defer rows.Close()
	out := map[string]string{}
	for rows.Next() {
		var id string
		var doc []byte
		if err := rows.Scan(&id, &doc); err != nil {
			return nil, fmt.Errorf("look into %s: %w", path, plain(err))
		}
		out[id] = nameIn(doc)
	}
	return out, rows.Err()
}

// Before is a file with everything as it was before a backup was brought back.
type Before struct {
	Name string `json:"name" doc:"of the file, beside the data file"`
	At   string `json:"at" doc:"when, RFC 3339"`
	Size int64  `json:"size" doc:"bytes"`
}

// keptBefores is how many files of before a restore are kept.
const keptBefores = 3

// Befores lists the files that Restore made of what was there before, the latest first.
func (s *Store) Befores() []Before {
	out := []Before{}
	stem := strings.TrimSuffix(filepath.Base(s.path), filepath.Ext(s.path)) + "-before-restore-"
	es, err := os.ReadDir(filepath.Dir(s.path))
	if err != nil {
		return out
	}
	for _, e := range es {
		if !strings.HasPrefix(e.Name(), stem) || filepath.Ext(e.Name()) != ".db" {
			continue
		}
		if st, err := e.Info(); err == nil {
			out = append(out, Before{e.Name(), st.ModTime().UTC().Format(time.RFC3339), st.Size()})
		}
	}
	slices.SortFunc(out, func(a, b Before) int { return strings.Compare(b.Name, a.Name) })
	return out
}

// sweepBefores takes away all but the latest files of before a restore.
func (s *Store) sweepBefores() {
	for i, b := range s.Befores() {
		if i >= keptBefores {
			_ = os.Remove(filepath.Join(filepath.Dir(s.path), b.Name)) // tried again after the next
		}
	}
}

// Sweep takes away backups that were cut off, in the folder of the data file and of its copies,
// a day after they were begun.
func (s *Store) Sweep(now time.Time) {
	for _, dir := range []string{filepath.Dir(s.path), s.CopiesDir()} {
		all, err := filepath.Glob(filepath.Join(dir, ".backup-*"))
		if err != nil {
			continue
		}
		for _, path := range all {
			if st, err := os.Stat(path); err == nil && now.Sub(st.ModTime()) > 24*time.Hour {
				_ = os.Remove(path)
			}
		}
	}
}
