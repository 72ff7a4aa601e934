package store

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
)

func TestARunIsNoPartOfTheDocument(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	v, err := s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	r, err := s.Run(ctx, "c")
	require.NoError(t, err)
	assert.Zero(t, r.ID, "nothing was done yet")
	fold, ink := card.Step{Verb: "fold"}, card.Step{Verb: "ink", Motif: "m", Colourway: "w", Part: "a"}
	_, err = s.Tick(ctx, "c", true, Marks(fold, ink)...)
	require.NoError(t, err)
	r, err = s.Use(ctx, "c", ink, "blue")
	require.NoError(t, err)
	assert.ElementsMatch(t, []card.Step{fold, ink}, r.Done)
	assert.Equal(t, []UsedInk{{ink, "blue"}}, r.Used)

	v, err = s.Save(ctx, "c", v.Version, "", titled("two"))
	require.NoError(t, err)
	_, err = s.Undo(ctx, "c", v.Version)
	require.NoError(t, err)
	r, err = s.Run(ctx, "c")
	require.NoError(t, err)
	assert.Len(t, r.Done, 2, "undo never unticks")

	r, err = s.Tick(ctx, "c", false, Marks(fold)...)
	require.NoError(t, err)
	assert.Equal(t, []card.Step{ink}, r.Done)
	r, err = s.Use(ctx, "c", ink, "")
	require.NoError(t, err)
	assert.Empty(t, r.Used)
	_, err = s.Tick(ctx, "none", true, Marks(fold)...)
	assert.ErrorIs(t, err, ErrNotFound)
	require.NoError(t, s.Delete(ctx, "c"))
	var left int
	require.NoError(t, s.db.QueryRow(`SELECT (SELECT count(*) FROM runs) + (SELECT count(*) FROM done)`).Scan(&left))
	assert.Zero(t, left, "a run goes with its card")
}

// A data file of the last edition: its cards are of version 1, and what was ticked stands
// in them.
func TestWhatWasTickedInOldCardsIsKept(t *testing.T) {
	path := filepath.Join(t.TempDir(), "old.db")
	s := open(t, path)
	old, err := os.ReadFile(filepath.Join("..", "core", "card", "testdata", "v1", "odd.json"))
	require.NoError(t, err)
	_, err = s.Add(ctx, "c", titled("x"))
	require.NoError(t, err)
	_, err = s.db.Exec(`UPDATE revisions SET doc = ?`, old)
	require.NoError(t, err)
	require.NoError(t, s.adopt(ctx))
	r, err := s.Run(ctx, "c")
	require.NoError(t, err)
	assert.Len(t, r.Done, 2)
	assert.Equal(t, "blue", r.Used[0].Ink)
	_, err = s.Tick(ctx, "c", false, Marks(r.Done...)...)
	require.NoError(t, err)
	require.NoError(t, s.adopt(ctx))
	r, err = s.Run(ctx, "c")
	require.NoError(t, err)
	assert.Empty(t, r.Done, "taken over once, not again and again")
	v, err := s.Card(ctx, "c")
	require.NoError(t, err)
	assert.Equal(t, card.Version, v.Card.Version, "brought up as it is read")
}

// A key held down makes many changes and one step to undo.
func TestAGestureIsOneChange(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	v, err := s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	first := v.Version
	for _, n := range []string{"two", "three", "four"} {
		v, err = s.Save(ctx, "c", v.Version, "held", titled(n))
		require.NoError(t, err)
	}
	assert.EqualValues(t, first+3, v.Version, "every one is counted, so that another tab is told")
	was, err := s.At(ctx, "c", first)
	require.NoError(t, err)
	assert.Equal(t, "one", was.Title)
	v, err = s.Undo(ctx, "c", v.Version)
	require.NoError(t, err)
	assert.Equal(t, "one", v.Card.Title)
	v, err = s.Redo(ctx, "c", v.Version)
	require.NoError(t, err)
	assert.Equal(t, "four", v.Card.Title)
	v, err = s.Undo(ctx, "c", v.Version)
	require.NoError(t, err)
	v, err = s.Redo(ctx, "c", v.Version)
	require.NoError(t, err)
	v, err = s.Save(ctx, "c", v.Version, "another", titled("five"))
	require.NoError(t, err)
	v, err = s.Undo(ctx, "c", v.Version)
	require.NoError(t, err)
	assert.Equal(t, "four", v.Card.Title, "another gesture is a change of its own")
}

func TestADamagedRevisionIsPassedOverAndNamed(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	v, err := s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	for _, n := range []string{"two", "three"} {
		v, err = s.Save(ctx, "c", v.Version, "", titled(n))
		require.NoError(t, err)
	}
	_, err = s.db.Exec(`UPDATE revisions SET doc = '{"title":' WHERE number = 2`)
	require.NoError(t, err)
	v, err = s.Undo(ctx, "c", v.Version)
	require.NoError(t, err)
	assert.Equal(t, "one", v.Card.Title)
	assert.Equal(t, []int64{2}, v.Passed)
	v, err = s.Redo(ctx, "c", v.Version)
	require.NoError(t, err)
	assert.Equal(t, "three", v.Card.Title)
	_, err = s.db.Exec(`UPDATE revisions SET doc = '{"title":' WHERE number < 3`)
	require.NoError(t, err)
	_, err = s.Undo(ctx, "c", v.Version)
	assert.ErrorIs(t, err, ErrTorn)
	assert.ErrorContains(t, err, "revision 2")
}

// A step is counted card by card until it is done; waits stand with their end, the soonest
// first; another run begins with nothing done, and what was done stays with the one before.
func TestCountsAndWaitsOfARun(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	at := time.Date(2026, 11, 27, 10, 0, 0, 0, time.UTC)
	s.now = func() time.Time { return at }
	_, err := s.Add(ctx, "c", titled("one"))
	require.NoError(t, err)
	ink, glue := card.Step{Verb: "ink", Part: "a"}, card.Step{Verb: "glue", Part: "a"}
	r, err := s.Count(ctx, "c", Mark{ink, "ink", 3}, 2, 3)
	require.NoError(t, err)
	assert.Equal(t, []Counted{{ink, 2}}, r.Counts)
	assert.Empty(t, r.Done)
	r, err = s.Count(ctx, "c", Mark{ink, "ink", 3}, 3, 3)
	require.NoError(t, err)
	assert.Empty(t, r.Counts)
	assert.Equal(t, []card.Step{ink}, r.Done)
	r, err = s.Count(ctx, "c", Mark{ink, "ink", 3}, 1, 3)
	require.NoError(t, err)
	assert.Empty(t, r.Done, "not done after all")
	r, err = s.Count(ctx, "c", Mark{ink, "ink", 3}, 0, 3)
	require.NoError(t, err)
	assert.Empty(t, r.Counts)

	_, err = s.Wait(ctx, "c", ink, 30)
	require.NoError(t, err)
	r, err = s.Wait(ctx, "c", glue, 10)
	require.NoError(t, err)
	assert.Equal(t, []Timer{{glue, "2026-11-27T10:10:00Z"}, {ink, "2026-11-27T10:30:00Z"}}, r.Timers)
	r, err = s.Wait(ctx, "c", glue, 0)
	require.NoError(t, err)
	assert.Len(t, r.Timers, 1)

	first := r.ID
	_, err = s.Tick(ctx, "c", true, Marks(glue)...)
	require.NoError(t, err)
	r, err = s.Another(ctx, "c")
	require.NoError(t, err)
	assert.Zero(t, r.ID)
	r, err = s.Tick(ctx, "c", true, Marks(ink)...)
	require.NoError(t, err)
	assert.Greater(t, r.ID, first)
	assert.Equal(t, []card.Step{ink}, r.Done)
	var kept int
	require.NoError(t, s.db.QueryRow(`SELECT count(*) FROM done WHERE run = ?`, first).Scan(&kept))
	assert.Equal(t, 1, kept)
	r, err = s.Leave(ctx, "c", glue)
	require.NoError(t, err)
	assert.ElementsMatch(t, []card.Step{ink, glue}, r.Done)
	assert.Equal(t, []card.Step{glue}, r.Left)
	r, err = s.Tick(ctx, "c", false, Marks(glue)...)
	require.NoError(t, err)
	assert.Empty(t, r.Left, "not left out after all")
	_, err = s.Count(ctx, "none", Mark{ink, "ink", 3}, 1, 2)
	assert.ErrorIs(t, err, ErrNotFound)
}
