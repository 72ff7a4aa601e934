package store

import (
	"bytes"
	"context"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
)

// A card is made, noted, photographed and made again as it was then, though it was changed.
func TestTheLogOfACard(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	now := time.Date(2026, 3, 1, 18, 0, 0, 0, time.UTC)
	s.now = func() time.Time { now = now.Add(time.Minute); return now }
	v, err := s.Add(ctx, "c", titled("Owl"))
	require.NoError(t, err)
	_, err = s.Add(ctx, "d", titled("Fir"))
	require.NoError(t, err)
	none, err := s.Entries(ctx, "")
	require.NoError(t, err)
	assert.Empty(t, none, "nothing was done yet")

	a, b := card.Step{Verb: "cut"}, card.Step{Verb: "print"}
	r, err := s.Tick(ctx, "c", true, Mark{a, "cut", 2}, Mark{b, "print", 2})
	require.NoError(t, err)
	_, err = s.Leave(ctx, "c", card.Step{Verb: "check"})
	require.NoError(t, err)
	_, err = s.Use(ctx, "c", b, "soot")
	require.NoError(t, err)
	require.NoError(t, s.Remember(ctx, "c", r.ID, 3, "less glue"))
	p, err := s.KeepPhotograph(ctx, "c", r.ID, Photograph{Words: "both of them", W: 8, H: 6}, []byte("large"), []byte("small"))
	require.NoError(t, err)
	all, err := s.Entries(ctx, "c")
	require.NoError(t, err)
	require.Len(t, all, 1)
	e := all[0]
	assert.Equal(t, []any{"c", "Owl", int64(1), 3, "less glue", 2, 1, 1, []Photograph{p}}, []any{e.Card, e.Title, e.Version, e.Well, e.Note, e.Done, e.Left, e.Other, e.Photographs})
	ticks, err := s.TicksOf(ctx, r.ID)
	require.NoError(t, err)
	require.Len(t, ticks, 2, "what was left out took no time")
	assert.Equal(t, Ticked{Run: r.ID, Step: a, Kind: "cut", Cards: 2, At: ticks[0].At}, ticks[0])
	for small, want := range map[bool]string{true: "small", false: "large"} {
		got, err := s.PhotographOf(ctx, p.ID, small)
		require.NoError(t, err)
		assert.Equal(t, want, string(got))
	}

	_, err = s.Save(ctx, "c", v.Version, "", titled("Owl by night"))
	require.NoError(t, err)
	again, err := s.Again(ctx, "c", r.ID)
	require.NoError(t, err)
	assert.Empty(t, again.Done)
	kept, err := s.Making(ctx, "c", again.ID)
	require.NoError(t, err)
	assert.Equal(t, "Owl", kept[0].Card.Title, "as it was then")
	_, err = s.Again(ctx, "c", r.ID)
	require.NoError(t, err)
	runs, err := s.Past(ctx, "c")
	require.NoError(t, err)
	assert.Len(t, runs, 2, "the one in which nothing was done is dropped")
	was, err := s.RunOf(ctx, "c", r.ID)
	require.NoError(t, err)
	assert.Equal(t, []card.Step{a, b, {Verb: "check"}}, was.Done)
	assert.Equal(t, []UsedInk{{b, "soot"}}, was.Used)

	require.NoError(t, s.Note(ctx, "d", 1))
	all, err = s.Entries(ctx, "")
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, []any{"d", 1, true}, []any{all[0].Card, all[0].Well, all[0].Ended != ""})

	for _, err := range []error{s.Remember(ctx, "d", r.ID, 1, ""), s.DropPhotograph(ctx, "d", r.ID, p.ID), s.DropPhotograph(ctx, "c", r.ID, 99), s.Note(ctx, "nobody", 1)} {
		assert.ErrorIs(t, err, ErrNotFound)
	}
	_, err = s.RunOf(ctx, "d", r.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	_, err = s.Again(ctx, "d", r.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	require.NoError(t, s.DropPhotograph(ctx, "c", r.ID, p.ID))
	_, err = s.PhotographOf(ctx, p.ID, true)
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestHowCardsLie(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	for _, id := range []string{"c", "d"} {
		_, err := s.Add(ctx, id, titled(id))
		require.NoError(t, err)
	}
	require.NoError(t, s.Lay(ctx, "c", true, false, []string{"winter", " for  Ada ", "", "winter"}))
	all, err := s.Lying(ctx)
	require.NoError(t, err)
	since := all["c"].Away
	assert.NotEmpty(t, since)
	assert.Equal(t, []string{"for Ada", "winter"}, all["c"].Tags)
	assert.Equal(t, Lying{Tags: []string{}}, all["d"])
	s.now = func() time.Time { return time.Now().Add(time.Hour) }
	require.NoError(t, s.Lay(ctx, "c", true, true, nil))
	all, _ = s.Lying(ctx)
	assert.Equal(t, Lying{Away: since, Model: true, Tags: []string{}}, all["c"], "away since it was put away")
	require.NoError(t, s.Lay(ctx, "c", false, false, nil))
	all, _ = s.Lying(ctx)
	assert.Empty(t, all["c"].Away)
	assert.ErrorIs(t, s.Lay(ctx, "nobody", true, false, nil), ErrNotFound)
}

// A backup brings back every row of every table as it was, whatever the table: compared field by
// field with what SQLite itself gives out.
func TestABackupIsWhole(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	_, err := s.Add(ctx, "c", titled("Owl"))
	require.NoError(t, err)
	_, err = s.Add(ctx, "d", titled("Fir"))
	require.NoError(t, err)
	v, err := s.Card(ctx, "c")
	require.NoError(t, err)
	_, err = s.Save(ctx, "c", v.Version, "press", titled("Owl, again"))
	require.NoError(t, err)
	require.NoError(t, s.Put(ctx, KindInk, "plum", map[string]any{"id": "plum", "name": "Plum", "family": "Plum", "depth": "full", "kind": "dye", "dry": "#552244", "wet": "#441133"}))
	require.NoError(t, s.Set(ctx, "unit", "mm"))
	require.NoError(t, s.SetCompany(ctx, "c", []string{"d"}))
	step := card.Step{Verb: "print", Motif: "m", N: 2}
	r, err := s.Tick(ctx, "c", true, Mark{step, "print", 4})
	require.NoError(t, err)
	_, err = s.Use(ctx, "c", step, "plum")
	require.NoError(t, err)
	_, err = s.Count(ctx, "c", Mark{card.Step{Verb: "glue"}, "glue", 1}, 2, 4)
	require.NoError(t, err)
	_, err = s.Wait(ctx, "c", step, 12.5)
	require.NoError(t, err)
	require.NoError(t, s.TakeOut(ctx, "c", "kraft", map[string]any{"id": "kraft"}, map[string]any{"needs": 3}))
	_, err = s.Log(ctx, []Placement{{Card: "c", Motif: "m", Layer: "l", Label: "Wing", Way: "free", Source: FromPrint, X: 0.123456789, Y: -1e-9, Turn: 0.5, SureShift: 0.01, SureTurn: 0.1, Good: true}})
	require.NoError(t, err)
	require.NoError(t, s.Remember(ctx, "c", r.ID, 3, "less glue\nand more light"))
	_, err = s.KeepPhotograph(ctx, "c", r.ID, Photograph{Words: "both"}, bytes.Repeat([]byte{0, 255, 7}, 9000), []byte{1})
	require.NoError(t, err)
	require.NoError(t, s.Lay(ctx, "d", true, true, []string{"winter"}))

	_, err = s.db.ExecContext(ctx, `INSERT INTO apart (tab, name, why, doc, at) VALUES ('tags', 'a word of a card', 'it belongs to nobody', '{}', '2026-01-01T00:00:00Z')`)
	require.NoError(t, err)
	before := everyRow(t, s)
	for _, table := range tables {
		assert.NotEmpty(t, before[table], "the table %s has something to lose", table)
	}
	for table := range before {
		assert.Contains(t, tables, table, "a backup brings back every table")
	}
	file := filepath.Join(t.TempDir(), "b.db")
	require.NoError(t, s.Backup(ctx, file))
	other, err := Open(context.Background(), filepath.Join(t.TempDir(), "other.db"))
	require.NoError(t, err)
	defer other.Close()
	_, err = other.Restore(ctx, file)
	require.NoError(t, err)
	assert.Equal(t, before, everyRow(t, other))
}

// everyRow reads all tables that hold what a person made, row by row, field by field.
func everyRow(t *testing.T, s *Store) map[string][][]any {
	names, err := s.db.Query(`SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE 'goose_%'`)
	require.NoError(t, err)
	var all []string
	for names.Next() {
		var n string
		require.NoError(t, names.Scan(&n))
		all = append(all, n)
	}
	require.NoError(t, names.Close())
	all = slices.DeleteFunc(all, func(n string) bool { return slices.Contains(workedOut, n) })
	out := map[string][][]any{}
	for _, n := range all {
		rows, err := s.db.Query(`SELECT * FROM ` + n + ` ORDER BY rowid`)
		require.NoError(t, err)
		cols, err := rows.Columns()
		require.NoError(t, err)
		out[n] = nil
		for rows.Next() {
			row, to := make([]any, len(cols)), make([]any, len(cols))
			for i := range row {
				to[i] = &row[i]
			}
			require.NoError(t, rows.Scan(to...))
			out[n] = append(out[n], row)
		}
		require.NoError(t, rows.Close())
	}
	return out
}
