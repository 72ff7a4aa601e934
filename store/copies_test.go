package store

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func day(t *testing.T, s string) time.Time {
	d, err := time.Parse(dayForm, s)
	require.NoError(t, err)
	return d
}

// A year of days, each opening the program: never more than seven days and four weeks are
// kept, each of the last seven days is, and the oldest is some five weeks old.
func TestCopiesOfSevenDaysAndFourWeeksAreKept(t *testing.T) {
	var have []time.Time
	for d := day(t, "2026-01-01"); d.Before(day(t, "2027-01-10")); d = d.AddDate(0, 0, 1) {
		have = keep(append(have, d), d)
		assert.LessOrEqual(t, len(have), keptDays+keptWeeks)
		for n := range min(keptDays, int(d.Sub(day(t, "2026-01-01")).Hours()/24)+1) {
			assert.Contains(t, have, d.AddDate(0, 0, -n))
		}
	}
	last := day(t, "2027-01-09")
	var weeks []string
	for _, d := range have[keptDays:] {
		weeks = append(weeks, d.Format(dayForm))
	}
	assert.Equal(t, []string{"2027-01-02", "2026-12-27", "2026-12-20", "2026-12-13"}, weeks, "the Saturday of the week that ends among the seven, then Sundays, by a calendar, before %s", last.Format(dayForm))
	// Someone who works on Saturdays alone keeps eleven Saturdays.
	have = nil
	for n := range 30 {
		d := day(t, "2026-01-03").AddDate(0, 0, 7*n)
		have = keep(append(have, d), d)
	}
	assert.Len(t, have, keptDays+keptWeeks)
	ahead := day(t, "2030-01-01")
	assert.Contains(t, keep([]time.Time{ahead}, day(t, "2026-01-01")), ahead, "a clock set wrong takes nothing away")
}

func TestTheDaysCopyIsMadeOnceAndCanBeBroughtBack(t *testing.T) {
	st, err := Open(ctx, filepath.Join(t.TempDir(), "mine.db"))
	require.NoError(t, err)
	defer st.Close()
	none, err := st.Copies()
	require.NoError(t, err)
	assert.Empty(t, none)
	_, err = st.Add(ctx, "kept", titled("Kept"))
	require.NoError(t, err)
	now := day(t, "2026-11-27").Add(9 * time.Hour)
	made, err := st.Daily(ctx, now)
	require.NoError(t, err)
	assert.True(t, made)
	stranger := filepath.Join(st.CopiesDir(), "my own copy.db")
	require.NoError(t, os.WriteFile(stranger, []byte("mine"), 0o600))
	made, err = st.Daily(ctx, now.Add(8*time.Hour))
	require.NoError(t, err)
	assert.False(t, made, "once a day")
	path, err := st.CopyFile("2026-11-27")
	require.NoError(t, err)
	rep, err := CheckFile(ctx, path)
	require.NoError(t, err)
	assert.False(t, rep.Torn())
	titles, err := TitlesIn(ctx, path)
	require.NoError(t, err)
	assert.Equal(t, map[string]string{"kept": "Kept"}, titles)
	require.NoError(t, st.Delete(ctx, "kept"))
	for n := 1; n < 20; n++ {
		_, err = st.Daily(ctx, now.AddDate(0, 0, n))
		require.NoError(t, err)
	}
	all, err := st.Copies()
	require.NoError(t, err)
	assert.Equal(t, "2026-12-16", all[0].Day)
	assert.FileExists(t, stranger, "what it did not make it leaves alone")
	for _, bad := range []string{"2020-01-01", "../mine", "today"} {
		_, err = st.CopyFile(bad)
		require.ErrorIs(t, err, ErrNotFound)
	}
}
