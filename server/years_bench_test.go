package server

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/demo"
	"ochrestone/exchange/sheet"
	"ochrestone/store"
)

// How much three years and more have left in a store.
const (
	yearsCards       = 2000
	yearsSets        = 500
	yearsInks        = 1500
	yearsPapers      = 400
	yearsRuns        = 300
	yearsPhotographs = 1000
	yearsRevisions   = 20_000
)

// more adds what is not there yet.
func more[T any](have, add []T, id func(T) string) []T {
	for _, x := range add {
		if !slices.ContainsFunc(have, func(y T) bool { return id(y) == id(x) }) {
			have = append(have, x)
		}
	}
	return have
}

// years makes a store as a person has it who makes cards for years: cards drawn at random from
// the demo's and the strangers' kinds, in inks and on papers of their own.
func years(b *testing.B, path string) {
	ctx := context.Background()
	r := rand.New(rand.NewPCG(28, 2026))
	st, err := store.Open(ctx, path)
	require.NoError(b, err)
	k, err := demo.Kit()
	require.NoError(b, err)
	kinds := demo.Cards(k)
	for _, s := range trial.Strangers() {
		if slices.ContainsFunc(s.Kit.Sets, func(x kit.Set) bool { return slices.ContainsFunc(k.Sets, func(y kit.Set) bool { return y.ID == x.ID }) }) {
			continue
		}
		k.Sets = append(k.Sets, s.Kit.Sets...)
		k.Inks = more(k.Inks, s.Kit.Inks, func(x kit.Ink) string { return x.ID })
		k.Papers = more(k.Papers, s.Kit.Papers, func(x kit.Cardstock) string { return x.ID })
		k.Spacers = more(k.Spacers, s.Kit.Spacers, func(x kit.Spacer) string { return x.ID })
		k.Adhesives = more(k.Adhesives, s.Kit.Adhesives, func(x kit.Adhesive) string { return x.ID })
		k.Envelopes = more(k.Envelopes, s.Kit.Envelopes, func(x kit.Envelope) string { return x.ID })
		kinds = append(kinds, s.Card)
	}
	k.Machines, k.Swatches = k.Machines[:min(1, len(k.Machines))], nil
	sets, inks, papers := slices.Clone(k.Sets), slices.Clone(k.Inks), slices.Clone(k.Papers)
	for i := len(k.Sets); i < yearsSets; i++ {
		v := sets[r.IntN(len(sets))]
		v.ID, v.Name = fmt.Sprint("set", i), fmt.Sprintf("%s, no. %d", v.Name, i)
		k.Sets = append(k.Sets, v)
	}
	for i := len(k.Inks); i < yearsInks; i++ {
		v := inks[r.IntN(len(inks))]
		v.ID, v.Name, v.Dry = fmt.Sprint("ink", i), fmt.Sprintf("%s, no. %d", v.Name, i), fmt.Sprintf("#%06x", r.IntN(1<<24))
		k.Inks = append(k.Inks, v)
	}
	for i := len(k.Papers); i < yearsPapers; i++ {
		v := papers[r.IntN(len(papers))]
		v.ID, v.Name = fmt.Sprint("paper", i), fmt.Sprintf("%s, no. %d", v.Name, i)
		k.Papers = append(k.Papers, v)
	}
	ids, cards := make([]string, yearsCards), make([]card.Card, yearsCards)
	for i := range cards {
		of := kinds[r.IntN(len(kinds))]
		doc, err := json.Marshal(of)
		require.NoError(b, err)
		c, err := card.Read(doc)
		require.NoError(b, err)
		c.Title = fmt.Sprintf("%s, %d of %d", c.Title, i+1, yearsCards)
		for m := range c.Motifs {
			for w := range c.Motifs[m].Colourways {
				for l, f := range c.Motifs[m].Colourways[w].Layers {
					if f.Ink != "" && r.IntN(3) == 0 {
						f.Ink = k.Inks[r.IntN(len(k.Inks))].ID
						c.Motifs[m].Colourways[w].Layers[l] = f
					}
				}
			}
		}
		ids[i], cards[i] = fmt.Sprint("card", i), c
	}
	require.NoError(b, st.Fill(ctx, k, ids, cards))
	steps := map[string][]card.Step{}
	maker := plan.NewPlanner()
	photo := make([]byte, 60<<10)
	for i := range yearsRuns {
		id := ids[r.IntN(len(ids))]
		c := cards[slices.Index(ids, id)]
		kind := strings.Split(c.Title, ",")[0]
		if steps[kind] == nil {
			for _, a := range maker.Of(c, k, plan.Typeface(sheet.Face{})).Steps {
				steps[kind] = append(steps[kind], a.ID)
			}
		}
		some := steps[kind]
		if i%10 == 0 { // one in ten is still under way
			some = some[:len(some)/2]
		}
		run, err := st.Tick(ctx, id, true, store.Marks(some...)...)
		require.NoError(b, err)
		for range yearsPhotographs / yearsRuns {
			for j := 0; j < len(photo); j += 8 {
				copy(photo[j:], fmt.Sprint(r.Uint64()))
			}
			_, err := st.KeepPhotograph(ctx, id, run.ID, store.Photograph{Words: "finished", W: 800, H: 600}, photo, photo[:6<<10])
			require.NoError(b, err)
		}
		if i%10 != 0 {
			_, err = st.Another(ctx, id)
			require.NoError(b, err)
		}
	}
	require.NoError(b, st.Close())
	db, err := sql.Open("sqlite", "file:"+path)
	require.NoError(b, err)
	tx, err := db.Begin()
	require.NoError(b, err)
	for i := range yearsRevisions - yearsCards { // spread over all cards, older ones beneath what is shown
		id := ids[i%len(ids)]
		_, err := tx.Exec(`INSERT INTO revisions (card, number, parent, doc, at, gesture) SELECT card, (SELECT max(number) FROM revisions m WHERE m.card = ?1) + 1, number, doc, at, '' FROM revisions WHERE card = ?1 AND number = (SELECT head FROM cards WHERE id = ?1)`, id)
		require.NoError(b, err)
		_, err = tx.Exec(`UPDATE cards SET version = version + 1, head = (SELECT max(number) FROM revisions WHERE card = ?1) WHERE id = ?1`, id)
		require.NoError(b, err)
		_, err = tx.Exec(`INSERT INTO shown (card, version, number) SELECT id, version, head FROM cards WHERE id = ?1`, id)
		require.NoError(b, err)
	}
	require.NoError(b, tx.Commit())
	require.NoError(b, db.Close())
}

// BenchmarkYears is the program on a store of years: what it answers at once, what it holds, how
// the data file grows. YEARS names a file in which the store is kept from one time to the next.
func BenchmarkYears(b *testing.B) {
	ctx := context.Background()
	path := os.Getenv("YEARS")
	if path == "" {
		path = filepath.Join(b.TempDir(), "years.db")
	}
	if _, err := os.Stat(path); err != nil {
		years(b, path)
	}
	ms := func(name string, t time.Duration) { b.ReportMetric(float64(t.Microseconds())/1000, name) }
	took := func(f func()) time.Duration { at := time.Now(); f(); return time.Since(at) }
	worst := func(n int, f func(i int)) (most time.Duration) {
		for i := range n {
			most = max(most, took(func() { f(i) }))
		}
		return most
	}
	var st *store.Store
	var s *Server
	open := func() {
		var err error
		st, err = store.Open(ctx, path)
		require.NoError(b, err)
		s = New(st)
		_, err = st.Kit(ctx) // the page asks for it first
		require.NoError(b, err)
	}
	get := func(at string) []byte {
		w := call(s, http.MethodGet, at, "")
		require.Equal(b, http.StatusOK, w.Code, "%s: %.300s", at, w.Body)
		return w.Body.Bytes()
	}
	bench := func(query string) Bench {
		var out Bench
		require.NoError(b, json.Unmarshal(get("/api/bench"+query), &out))
		return out
	}
	for b.Loop() {
		open()
		settle := took(func() {
			for bench("?n=0").Stale > 0 {
				time.Sleep(200 * time.Millisecond)
			}
		})
		b.ReportMetric(settle.Seconds(), "s-all-worked-out")
		buy := took(func() {
			for bytes.Contains(get("/api/shopping"), []byte(`"stale":true`)) {
				time.Sleep(200 * time.Millisecond)
			}
		})
		b.ReportMetric(buy.Seconds(), "s-shopping-worked-out")
		require.NoError(b, st.Close())
		runtime.GC()

		ms("ms-start", took(open))
		ms("ms-bench-first", took(func() { bench("?n=24") }))
		ms("ms-bench", worst(20, func(i int) { bench(fmt.Sprint("?n=24&from=", 24*i)) }))
		ms("ms-find", worst(20, func(i int) { bench(fmt.Sprint("?n=12&find=no.+", 37+i)) }))
		ms("ms-shopping", worst(5, func(int) { get("/api/shopping") }))
		ms("ms-picture", worst(20, func(i int) { get(fmt.Sprintf("/api/cards/card%d/kept/front.svg", i)) }))
		ms("ms-open", worst(40, func(i int) { get(fmt.Sprint("/api/cards/card", i*37)) }))
		ms("ms-uses", worst(5, func(int) { get("/api/sets/uses") }))
		ms("ms-log", worst(5, func(int) { get("/api/entries") }))
		ms("ms-state", worst(5, func(int) { get("/api/state") }))

		// An ink of three hundred cards.
		k, err := st.Kit(ctx)
		require.NoError(b, err)
		_, _, briefs, _, err := s.listed(ctx)
		require.NoError(b, err)
		uses := map[string]int{}
		for _, x := range briefs {
			for _, u := range x.Uses {
				uses[u]++
			}
		}
		most := slices.MaxFunc(k.Inks, func(x, y kit.Ink) int { return uses["inks/"+x.ID] - uses["inks/"+y.ID] })
		b.ReportMetric(float64(uses["inks/"+most.ID]), "cards-of-the-ink")
		most.Where = fmt.Sprint("drawer ", time.Now().UnixNano())
		doc, err := json.Marshal(most)
		require.NoError(b, err)
		ms("ms-ink", took(func() {
			require.Less(b, call(s, http.MethodPut, "/api/kit/inks/"+most.ID, string(doc)).Code, 300)
		}))
		ms("ms-bench-after-ink", took(func() { bench("?n=24") }))
		ms("ms-bench-while-behind", worst(20, func(i int) { bench(fmt.Sprint("?n=24&from=", 24*i)) }))
		for bench("?n=0").Stale > 0 {
			time.Sleep(100 * time.Millisecond)
		}

		// A backup while it runs.
		done := make(chan error)
		go func() {
			done <- st.Backup(ctx, filepath.Join(b.TempDir(), fmt.Sprint("backup", time.Now().UnixNano(), ".db")))
		}()
		var slow time.Duration
		for run := true; run; {
			select {
			case err := <-done:
				require.NoError(b, err)
				run = false
			default:
				slow = max(slow, took(func() { bench("?n=24") }))
			}
		}
		ms("ms-bench-while-backing-up", slow)

		// Two hundred edits, none of them one gesture.
		size := func() float64 {
			n, err := st.Size(ctx)
			require.NoError(b, err)
			return float64(n)
		}
		before := size()
		const edits = 200
		ms("ms-edit", worst(edits, func(i int) {
			id := fmt.Sprint("card", 3*(i%40))
			v, err := st.Card(ctx, id)
			require.NoError(b, err)
			e := v.Card.Elements[len(v.Card.Elements)-1].ID
			w := call(s, http.MethodPost, "/api/cards/"+id+"/edits", fmt.Sprintf(`{"edits":[{"move":{"element":%q,"dx":%g}}]}`, e, 0.5), "If-Match", fmt.Sprintf("%q", fmt.Sprint(v.Version)))
			require.Equal(b, http.StatusOK, w.Code, w.Body.String())
		}))
		b.ReportMetric((size()-before)/edits/1000, "kB-an-edit")
		var m runtime.MemStats
		runtime.ReadMemStats(&m)
		b.ReportMetric(float64(m.Sys)/(1<<20), "MB-held")
		require.NoError(b, st.Close())
		b.ReportMetric(0, "ns/op")
	}
}
