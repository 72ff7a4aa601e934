package store

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// A run keeps to the revisions that were shown when it began, of its card and of those made
// with it, until it is renewed; another run begins from what is shown then.
func TestARunKeepsItsRevisions(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	v, err := s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	_, err = s.Add(ctx, "d", titled("beside it"))
	require.NoError(t, err)
	assert.ErrorIs(t, s.SetCompany(ctx, "c", []string{"none"}), ErrNotFound)
	require.NoError(t, s.SetCompany(ctx, "c", []string{"d", "c"}))
	with, err := s.Company(ctx, "c")
	require.NoError(t, err)
	assert.Equal(t, []string{"d"}, with, "a card is not made with itself")
	titles := func(run int64) (out []string) {
		all, err := s.Making(ctx, "c", run)
		require.NoError(t, err)
		for _, k := range all {
			out = append(out, k.Card.Title)
		}
		return out
	}
	assert.Equal(t, []string{"one", "beside it"}, titles(0))
	r, err := s.Tick(ctx, "c", true, Mark{card.Step{Verb: "fold"}, "cut", 3})
	require.NoError(t, err)
	_, err = s.Save(ctx, "c", v.Version, "", titled("two"))
	require.NoError(t, err)
	require.NoError(t, s.SetCompany(ctx, "c", nil))
	assert.Equal(t, []string{"one", "beside it"}, titles(r.ID), "the run keeps to what it began with")
	assert.Equal(t, []string{"two"}, titles(0))
	_, err = s.Renew(ctx, "c")
	require.NoError(t, err)
	assert.Equal(t, []string{"two"}, titles(r.ID))
	_, err = s.Making(ctx, "none", 0)
	assert.ErrorIs(t, err, ErrNotFound)
	past, err := s.Past(ctx, "c")
	require.NoError(t, err)
	require.Len(t, past, 1)
	assert.Equal(t, 1, past[0].Done)
	assert.Empty(t, past[0].Ended)
}

// Sheets are taken out once for a run; another run may take again.
func TestSheetsAreTakenOutOnce(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	_, err := s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	p := kit.Cardstock{ID: "p", Name: "Ochre", Kind: "smooth", W: 200, H: 300, Sheets: 5, Colour: "#ffffff"}
	require.NoError(t, s.Put(ctx, KindPaper, p.ID, p))
	p.Sheets = 3
	require.NoError(t, s.TakeOut(ctx, "c", "p", p, map[string]int{"needs": 2}))
	p.Sheets = 1
	assert.ErrorIs(t, s.TakeOut(ctx, "c", "p", p, nil), ErrTaken)
	k, err := s.Kit(ctx)
	require.NoError(t, err)
	got, _ := k.Paper("p")
	assert.Equal(t, 3, got.Sheets)
	r, err := s.Run(ctx, "c")
	require.NoError(t, err)
	taken, err := s.TakenIn(ctx, r.ID)
	require.NoError(t, err)
	require.Len(t, taken, 1)
	assert.JSONEq(t, `{"needs":2}`, string(taken[0].Doc))
	_, err = s.Another(ctx, "c")
	require.NoError(t, err)
	assert.NoError(t, s.TakeOut(ctx, "c", "p", p, nil))
}

// What was ticked comes back in the order it was done, with when.
func TestTicksInTheOrderTheyWereDone(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	_, err := s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	at := time.Date(2026, 3, 1, 10, 0, 0, 0, time.UTC)
	s.now = func() time.Time { at = at.Add(3 * time.Minute); return at }
	z, a := card.Step{Verb: "z"}, card.Step{Verb: "a"}
	for _, st := range []card.Step{z, a} {
		_, err = s.Tick(ctx, "c", true, Mark{st, "print", 4})
		require.NoError(t, err)
	}
	_, err = s.Leave(ctx, "c", card.Step{Verb: "l"})
	require.NoError(t, err)
	r, err := s.Run(ctx, "c")
	require.NoError(t, err)
	assert.Equal(t, []card.Step{z, a, {Verb: "l"}}, r.Done)
	got, err := s.Ticks(ctx)
	require.NoError(t, err)
	require.Len(t, got, 2, "what was left out took no time")
	assert.Equal(t, 3*time.Minute, got[1].At.Sub(got[0].At))
	assert.Equal(t, 4, got[1].Cards)
}

// Nothing a person made is left out of a backup that is put back: every table there is.
func TestRestoreBringsEveryTableBack(t *testing.T) {
	dir := t.TempDir()
	s := open(t, filepath.Join(dir, "a.db"))
	rows, err := s.db.Query(`SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE 'goose_%'`)
	require.NoError(t, err)
	defer rows.Close()
	for rows.Next() {
		var name string
		require.NoError(t, rows.Scan(&name))
		assert.Contains(t, append(workedOut, tables...), name)
	}
	require.NoError(t, rows.Err())
	_, err = s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	step := card.Step{Verb: "ink"}
	_, err = s.Tick(ctx, "c", true, Mark{step, "ink", 2})
	require.NoError(t, err)
	_, err = s.Use(ctx, "c", step, "blue")
	require.NoError(t, err)
	was, err := s.Wait(ctx, "c", step, 600)
	require.NoError(t, err)
	to := filepath.Join(dir, "b.db")
	require.NoError(t, s.Backup(ctx, to))
	_, err = s.Another(ctx, "c")
	require.NoError(t, err)
	_, err = s.Restore(ctx, to)
	require.NoError(t, err)
	now, err := s.Run(ctx, "c")
	require.NoError(t, err)
	assert.Equal(t, was, now)
}
