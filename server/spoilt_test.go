package server

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"image"
	"image/jpeg"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/demo"
	"ochrestone/store"
)

// lived is a data file in which something stands in every table.
func lived(t *testing.T) string {
	t.Helper()
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "lived.db")
	st, err := store.Open(ctx, path)
	require.NoError(t, err)
	k, err := demo.Kit()
	require.NoError(t, err)
	k.Sets = k.Sets[:2]
	require.NoError(t, st.Fill(ctx, k, []string{"moth", "beetles"}, demo.Cards(k)[:2]))
	step := card.Step{Verb: "print", Motif: "m", N: 2}
	require.NoError(t, st.SetCompany(ctx, "moth", []string{"beetles"}))
	r, err := st.Tick(ctx, "moth", true, store.Mark{Step: step, Kind: "print", Cards: 2})
	require.NoError(t, err)
	_, err = st.Use(ctx, "moth", step, "soot-deep")
	require.NoError(t, err)
	_, err = st.Count(ctx, "moth", store.Mark{Step: card.Step{Verb: "glue"}, Kind: "glue", Cards: 1}, 2, 4)
	require.NoError(t, err)
	_, err = st.Wait(ctx, "moth", step, 12)
	require.NoError(t, err)
	require.NoError(t, st.TakeOut(ctx, "moth", "kraft", map[string]any{"id": "kraft", "name": "Kraft"}, map[string]any{"needs": 3}))
	require.NoError(t, st.Remember(ctx, "moth", r.ID, 2, "a note"))
	_, err = st.Log(ctx, []store.Placement{{Card: "moth", Motif: "m", Layer: "l", Label: "Wing", Way: "free", Source: store.FromPrint, X: 1, Y: 1, Turn: 1, SureShift: 1, SureTurn: 1, Good: true}})
	require.NoError(t, err)
	var pic bytes.Buffer
	require.NoError(t, jpeg.Encode(&pic, image.NewGray(image.Rect(0, 0, 8, 8)), nil))
	_, err = st.KeepPhotograph(ctx, "moth", r.ID, store.Photograph{Words: "w", W: 8, H: 8}, pic.Bytes(), pic.Bytes())
	require.NoError(t, err)
	require.NoError(t, st.Lay(ctx, "beetles", false, true, []string{"winter"}))
	require.NoError(t, st.Set(ctx, "unit", "mm"))
	require.NoError(t, st.Set(ctx, "scanners", "[]"))
	require.NoError(t, st.Set(ctx, "fit", `{}`))
	require.NoError(t, st.Close())
	return path
}

// spoiling does something to a copy of a data file, without asking whether it is allowed.
func spoiling(t *testing.T, path string, statements ...string) string {
	t.Helper()
	raw, err := os.ReadFile(path)
	require.NoError(t, err)
	to := filepath.Join(t.TempDir(), "spoilt.db")
	require.NoError(t, os.WriteFile(to, raw, 0o600))
	db, err := sql.Open("sqlite", "file:"+to+"?_pragma=foreign_keys(0)&_pragma=ignore_check_constraints(1)")
	require.NoError(t, err)
	db.SetMaxOpenConns(1)
	for _, s := range statements {
		_, err := db.Exec(s)
		require.NoError(t, err, s)
	}
	require.NoError(t, db.Close())
	return to
}

// works asks for everything that does not hang on the spoilt row itself, and gives what is told of it.
func works(t *testing.T, path string, say string, other *Server, whole bool) []store.Apart {
	t.Helper()
	rep, err := store.CheckFile(context.Background(), path)
	if assert.NoError(t, err, "%s: check", say) {
		assert.NotEmpty(t, rep.Apart, "%s: the check of the file as it lies says so", say)
	}
	st, err := store.Open(context.Background(), path)
	require.NoError(t, err, say)
	defer st.Close()
	s := New(st)
	s.planner = other.planner // what was worked out once is remembered
	for _, at := range []string{"/api/state", "/api/cards", "/api/data", "/api/data/check", "/api/cards/beetles", "/api/cards/beetles/sitting", "/api/log", "/api/entries", "/api/learned", "/api/scanners", "/api/shopping", "/api/cards/beetles/now", "/api/data/everything.zip"} {
		if !whole && (strings.HasSuffix(at, ".zip") || at == "/api/shopping") {
			continue
		}
		w := call(s, http.MethodGet, at, "")
		if !assert.Equal(t, 200, w.Code, "%s: %s %s", say, at, strings.TrimSpace(w.Body.String())) {
			return nil
		}
	}
	assert.Contains(t, []int{200, 404, 422}, call(s, http.MethodGet, "/api/cards/moth", "").Code, "%s: the card itself", say)
	var d Data
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/data", "").Body.Bytes(), &d))
	for _, a := range d.Apart {
		assert.NotEmpty(t, a.Why, say)
		w := call(s, http.MethodGet, "/api/data/apart/"+a.Kind+"/"+a.ID, "")
		assert.Equal(t, 200, w.Code, "%s: looked at, %s", say, w.Body)
	}
	for _, a := range d.Apart {
		w := call(s, http.MethodDelete, "/api/data/apart?"+url.Values{"kind": {a.Kind}, "id": {a.ID}}.Encode(), "")
		assert.Equal(t, 204, w.Code, "%s: removed, %s", say, w.Body)
	}
	assert.Contains(t, call(s, http.MethodGet, "/api/data", "").Body.String(), `"apart":[]`, "%s: a list and never null", say)
	var left Data
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/data", "").Body.Bytes(), &left))
	assert.Empty(t, left.Apart, say)
	// Restored on another machine it says so as well.
	if !whole {
		return d.Apart
	}
	raw, err := os.ReadFile(path)
	require.NoError(t, err)
	w := call(other, http.MethodPost, "/api/data/restore", string(raw))
	assert.Equal(t, 200, w.Code, "%s: restored, %s", say, w.Body)
	return d.Apart
}

// One column of one row of each table spoilt in turn, by what it cannot be: the bench, the data
// page and its check, the other card, the log, the zip and a backup answer, and what was spoilt
// is told, can be looked at, and removed.
func TestASpoiltRowIsSetApart(t *testing.T) {
	path := lived(t)
	db, err := sql.Open("sqlite", "file:"+path+"?mode=ro&immutable=1")
	require.NoError(t, err)
	defer db.Close()
	type at struct{ table, column, kind string }
	var all []at
	rows, err := db.Query(`SELECT m.name, x.name, upper(x.type) FROM sqlite_master m, pragma_table_xinfo(m.name) x WHERE m.type = 'table' AND m.name NOT LIKE 'sqlite_%' AND m.name NOT IN ('goose_db_version', 'apart', 'briefs', 'lists', 'turns') ORDER BY 1, x.cid`)
	require.NoError(t, err)
	for rows.Next() {
		var a at
		require.NoError(t, rows.Scan(&a.table, &a.column, &a.kind))
		all = append(all, a)
	}
	require.NoError(t, rows.Err())
	require.Greater(t, len(all), 70)
	untold := []string{}
	other := testServer(t)
	for _, a := range all {
		for _, with := range []string{`'spoilt'`, `x'00ff'`, `'null'`, `-7`, `1e300`} {
			var n, set int
			require.NoError(t, db.QueryRow(`SELECT count(*) FROM `+a.table).Scan(&n))
			require.Positive(t, n, "%s has a row to spoil", a.table)
			where := fmt.Sprintf(`rowid = (SELECT min(rowid) FROM %s)`, a.table)
			if a.table == "settings" {
				where = `name = 'scanners'`
			}
			// An id stays a number whatever is put there: SQLite refuses.
			if err := db.QueryRow(`SELECT count(*) FROM pragma_table_xinfo('` + a.table + `') WHERE name = '` + a.column + `' AND pk = 1 AND upper(type) = 'INTEGER' AND (SELECT count(*) FROM pragma_table_xinfo('` + a.table + `') WHERE pk > 0) = 1`).Scan(&set); err == nil && set == 1 {
				continue
			}
			// What a column can well be is not spoilt: words are words.
			word := a.kind == "TEXT" && slices.Contains([]string{"title", "note", "label", "words", "tag", "name", "motif", "layer", "way", "source", "batch", "ink", "stock", "gesture", "kind", "how", "card", "id"}, a.column)
			if a.kind == "TEXT" && (with == "-7" || word != (with == "x'00ff'")) || with == "1e300" && a.kind != "REAL" {
				continue
			}
			if a.kind == "INTEGER" && with == "-7" && a.column == "position" || a.kind == "REAL" && with == "-7" && !strings.HasPrefix(a.column, "sure") {
				continue
			}
			if with == "'null'" && a.kind != "BLOB" && a.column != "step" && a.column != "value" || with == "x'00ff'" && a.kind != "TEXT" {
				continue
			}
			say := fmt.Sprintf("%s.%s = %s", a.table, a.column, with)
			got := works(t, spoiling(t, path, fmt.Sprintf(`UPDATE OR REPLACE %s SET %s = %s WHERE %s`, a.table, a.column, with, where)), say, other, with == "'spoilt'")
			if len(got) == 0 {
				untold = append(untold, say)
			}
			if t.Failed() {
				return
			}
		}
	}
	assert.Empty(t, untold)
}

// Tables that are not there, or are something else, are made anew with what can be taken over.
func TestAnOddTableIsMadeAnew(t *testing.T) {
	path := lived(t)
	other := testServer(t)
	for say, do := range map[string][]string{
		"no tags":           {`DROP TABLE tags`},
		"no placements":     {`DROP TABLE placements`},
		"no photographs":    {`DROP TABLE photographs`},
		"a view":            {`DROP TABLE placements`, `CREATE VIEW placements AS SELECT 1 AS id`},
		"a reckoned column": {`ALTER TABLE tags ADD COLUMN loud TEXT GENERATED ALWAYS AS (upper(tag))`},
		"a column more":     {`ALTER TABLE runs ADD COLUMN loud TEXT`},
		"nobody's":          {`INSERT INTO done (run, step, at) VALUES (999, '{"verb":"glue"}', '2026-01-01T00:00:00Z')`},
		"nobody's word":     {`INSERT INTO tags (card, tag) VALUES ('nobody', 'lost')`},
		"nobody's past":     {`INSERT INTO revisions (card, number, parent, doc, at) VALUES ('nobody', 1, 0, '{}', '2026-01-01T00:00:00Z')`},
		"a null card":       {`UPDATE revisions SET doc = 'null' WHERE card = 'moth'`},
		"a null ink":        {`UPDATE items SET doc = 'null' WHERE kind = 'inks' AND rowid = (SELECT min(rowid) FROM items WHERE kind = 'inks')`},
		"no kind":           {`INSERT INTO items (kind, id, doc, position) VALUES ('spoons', 'a/b', '{"id":"a/b"}', 1)`},
	} {
		t.Run(say, func(t *testing.T) {
			assert.NotEmpty(t, works(t, spoiling(t, path, do...), say, other, true))
		})
	}
}

// What is kept only so that it need not be worked out again is worked out again, whatever is
// done to it.
func TestWhatIsKeptForListsMayBeSpoilt(t *testing.T) {
	path := lived(t)
	st, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	want := call(New(st), http.MethodGet, "/api/cards", "").Body.String()
	require.NoError(t, st.Close())
	for _, do := range []string{
		`DROP TABLE briefs`, `DROP TABLE turns`, `DROP TABLE lists`, `DELETE FROM briefs`,
		`DROP TABLE briefs; CREATE VIEW briefs AS SELECT 1 AS card`, `DROP TABLE turns; CREATE TABLE turns (loud TEXT)`,
		`UPDATE briefs SET doc = x'00ff'`, `UPDATE briefs SET doc = 'null'`, `UPDATE briefs SET digest = -7`, `UPDATE briefs SET touched = 'often'`, `UPDATE turns SET n = 1e300`, `UPDATE turns SET n = 'often'`,
		`DROP TRIGGER brief_done_insert`, `UPDATE briefs SET front = 'spoilt', strata = ''`,
	} {
		spoilt := spoiling(t, path, strings.Split(do, "; ")...)
		st, err := store.Open(t.Context(), spoilt)
		require.NoError(t, err, do)
		s := New(st)
		got := call(s, http.MethodGet, "/api/cards", "")
		require.Equal(t, http.StatusOK, got.Code, do)
		assert.JSONEq(t, undated(t, want), undated(t, got.Body.String()), do)
		for _, at := range []string{"/api/bench", "/api/shopping", "/api/state"} {
			assert.Equal(t, http.StatusOK, call(s, http.MethodGet, at, "").Code, "%s after %s", at, do)
		}
		require.NoError(t, st.Close())
	}
}

// undated are tiles without the digest they are kept under.
func undated(t *testing.T, tiles string) string {
	var all []map[string]any
	require.NoError(t, json.Unmarshal([]byte(tiles), &all))
	for _, tile := range all {
		delete(tile, "of")
	}
	doc, err := json.Marshal(all)
	require.NoError(t, err)
	return string(doc)
}
