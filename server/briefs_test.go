package server

import (
	"compress/gzip"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/demo"
	"ochrestone/store"
)

// benchOf asks for the bench until nothing of it is stale.
func benchOf(t *testing.T, s *Server, query string) Bench {
	t.Helper()
	var b Bench
	require.Eventually(t, func() bool {
		b = read[Bench](t, call(s, http.MethodGet, "/api/bench"+query, ""))
		return b.Stale == 0
	}, time.Minute, 10*time.Millisecond)
	return b
}

// Whatever is done, the list shows what a program that knows nothing yet works out.
func TestListsShowWhatIsSo(t *testing.T) {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "a.db")
	st, err := store.Open(ctx, path)
	require.NoError(t, err)
	defer func() { _ = st.Close() }()
	k, err := demo.Kit()
	require.NoError(t, err)
	require.NoError(t, st.Fill(ctx, k, []string{"moth", "beetles"}, demo.Cards(k)[:2]))
	s := New(st, Demo())
	v, err := st.Card(ctx, "beetles")
	require.NoError(t, err)
	way := v.Card.Motifs[0].Colourways[0]
	var ink, paper string
	for _, l := range v.Card.Motifs[0].Layers {
		ink = way.Layers[l.ID].Ink
	}
	paper = v.Card.Base.Paper
	file := filepath.Join(t.TempDir(), "backup.db")
	require.NoError(t, st.Backup(ctx, file))
	steps := read[View](t, call(s, http.MethodGet, "/api/cards/beetles", "")).Plan.Steps
	first, second := steps[0].ID, steps[1].ID
	at := func(kind, id string, change func(k *kit.Kit)) func() error {
		return func() error {
			k, err := st.Kit(ctx)
			if err != nil {
				return err
			}
			change(&k)
			switch kind {
			case store.KindInk:
				i := slices.IndexFunc(k.Inks, func(i kit.Ink) bool { return i.ID == id })
				return st.Put(ctx, kind, id, k.Inks[i])
			default:
				i := slices.IndexFunc(k.Papers, func(i kit.Cardstock) bool { return i.ID == id })
				return st.Put(ctx, kind, id, k.Papers[i])
			}
		}
	}
	edit := func(e string) func() error {
		return func() error {
			v, err := st.Card(ctx, "beetles")
			if err != nil {
				return err
			}
			w := call(s, http.MethodPost, "/api/cards/beetles/edits", `{"edits":[`+e+`]}`, "If-Match", fmt.Sprintf("%q", fmt.Sprint(v.Version)))
			if w.Code != http.StatusOK {
				return fmt.Errorf("%s", w.Body)
			}
			return nil
		}
	}
	for _, do := range []struct {
		what string
		it   func() error
	}{
		{"nothing", func() error { return nil }},
		{"an edit", edit(`{"rename":{"title":"Otherwise"}}`)},
		{"a mat more", edit(`{"addMat":{}}`)},
		{"an undo", func() error { _, err := st.Undo(ctx, "beetles", 3); return err }},
		{"a tick", func() error {
			_, err := st.Tick(ctx, "beetles", true, store.Mark{Step: first, Kind: "cut", Cards: 1})
			return err
		}},
		{"another tick", func() error {
			_, err := st.Tick(ctx, "beetles", true, store.Mark{Step: second, Kind: "cut", Cards: 1})
			return err
		}},
		{"a tick taken back", func() error { _, err := st.Tick(ctx, "beetles", false, store.Mark{Step: second}); return err }},
		{"a step left out", func() error { _, err := st.Leave(ctx, "beetles", second); return err }},
		{"a wait", func() error { _, err := st.Wait(ctx, "beetles", first, 120); return err }},
		{"company", func() error { return st.SetCompany(ctx, "moth", []string{"beetles"}) }},
		{"an edit of the company", edit(`{"copies":{"n":3}}`)},
		{"an ink darker", at(store.KindInk, ink, func(k *kit.Kit) {
			for i := range k.Inks {
				if k.Inks[i].ID == ink {
					k.Inks[i].Dry, k.Inks[i].Wet = "#101010", "#000000"
				}
			}
		})},
		{"an ink empty", at(store.KindInk, ink, func(k *kit.Kit) {
			for i := range k.Inks {
				if k.Inks[i].ID == ink {
					k.Inks[i].Gone = true
				}
			}
		})},
		{"thicker card", at(store.KindPaper, paper, func(k *kit.Kit) {
			for i := range k.Papers {
				if k.Papers[i].ID == paper {
					k.Papers[i].Caliper = 0.9
				}
			}
		})},
		{"foam gone", func() error { return st.Remove(ctx, store.KindSpacer, k.Spacers[0].ID) }},
		{"millimetres", func() error { return st.Set(ctx, "unit", "mm") }},
		{"room for one", func() error { return st.Set(ctx, "room", "1") }},
		{"a placement", func() error {
			var all []store.Placement
			for i := range 12 {
				all = append(all, store.Placement{Card: "moth", Motif: "m", Layer: "l", Label: "Wing", Way: "eye", Source: store.FromPrint, X: float64(i), Y: 3, Turn: 1, SureShift: 0.1, SureTurn: 0.1})
			}
			_, err := st.Log(ctx, all)
			return err
		}},
		{"put away", func() error { return st.Lay(ctx, "moth", true, false, []string{"winter"}) }},
		{"another run", func() error { _, err := st.Another(ctx, "beetles"); return err }},
		{"a run finished", func() error {
			r, err := st.Tick(ctx, "moth", true, store.Mark{Step: first, Kind: "cut", Cards: 1})
			if err != nil {
				return err
			}
			if _, err := st.KeepPhotograph(ctx, "moth", r.ID, store.Photograph{Words: "both"}, []byte{1}, []byte{1}); err != nil {
				return err
			}
			_, err = st.Another(ctx, "moth")
			return err
		}},
		{"a card removed", func() error { return st.Delete(ctx, "moth") }},
		{"it is asked for all the same, and brought back", func() error {
			s.want([]string{"moth"}) // somebody looked at it just before
			if _, err := st.Restore(ctx, file); err != nil {
				return err
			}
			return nil
		}},
	} {
		require.NoError(t, do.it(), do.what)
		fresh := New(st, Demo())
		fresh.planner = s.planner // how plans are made is not asked here
		b, tiles := benchOf(t, s, "?n=500"), call(s, http.MethodGet, "/api/cards", "").Body.String()
		quick, err := json.Marshal(b.Tiles)
		require.NoError(t, err)
		away := benchOf(t, s, "?n=500&stands=put+away").Tiles
		require.NoError(t, st.ForgetBriefs(ctx))
		want := call(fresh, http.MethodGet, "/api/cards", "").Body.String()
		assert.JSONEq(t, undated(t, want), undated(t, tiles), do.what)
		if len(away) == 0 {
			assert.JSONEq(t, undated(t, want), undated(t, string(quick)), "%s, on the bench", do.what)
		}
	}
}

// What one ink is changes only the cards that are made with it.
func TestAChangedInkMakesOnlyItsCardsStale(t *testing.T) {
	ctx := context.Background()
	s := testServer(t)
	benchOf(t, s, "")
	k, err := s.store.Kit(ctx)
	require.NoError(t, err)
	users := func(id string) (n int) {
		cards, err := s.store.Cards(ctx)
		require.NoError(t, err)
		for _, c := range cards {
			if slices.ContainsFunc(c.Card.Uses(), func(u card.Use) bool { return u.Kind == kit.KindInk && u.ID == id }) {
				n++
			}
		}
		return n
	}
	seen := map[int]bool{}
	for _, i := range k.Inks {
		n := users(i.ID)
		if seen[n] {
			continue
		}
		seen[n] = true
		i.Where = "elsewhere"
		require.NoError(t, s.store.Put(ctx, store.KindInk, i.ID, i))
		_, _, _, stale, err := s.listed(ctx)
		require.NoError(t, err)
		assert.Len(t, stale, n, i.Name)
		benchOf(t, s, "")
	}
	assert.True(t, seen[0] && seen[1], "there are inks of no card and of one")
}

// Cards are found by what stands on them, by what they are kept under and by what they are made
// of; some of them are answered at a time, in an order.
func TestTheBenchIsFoundSortedAndAnsweredInPieces(t *testing.T) {
	ctx := context.Background()
	s := testServer(t)
	all, err := s.store.Cards(ctx)
	require.NoError(t, err)
	for i := range 9 {
		c := all[i%2].Card
		c.Title = fmt.Sprintf("Card %d of nine", 9-i)
		_, err := s.store.Add(ctx, fmt.Sprint("c", i), c)
		require.NoError(t, err)
	}
	require.NoError(t, s.store.Lay(ctx, "c3", true, false, []string{"Winter fair"}))
	require.NoError(t, s.store.Lay(ctx, "c4", false, true, []string{"Winter fair", "for aunts"}))
	b := benchOf(t, s, "?n=4")
	assert.Len(t, b.Tiles, 4)
	assert.Equal(t, 11, b.All)
	assert.Equal(t, 10, b.Found, "what is put away is not on the bench")
	assert.Equal(t, []string{"Winter fair", "for aunts"}, b.Tags)
	assert.Equal(t, []Titled{{"c4", "Card 5 of nine"}}, b.Models)
	titles := func(query string) (out []string) {
		for _, t := range benchOf(t, s, query).Tiles {
			out = append(out, t.Title)
		}
		return out
	}
	assert.Equal(t, titles("?n=20")[4:8], titles("?n=4&from=4"))
	assert.Empty(t, titles("?from=400"))
	assert.Equal(t, []string{"Card 1 of nine", "Card 2 of nine"}, titles("?sort=name&n=2"))
	assert.Equal(t, []string{"Card 1 of nine", "Card 2 of nine"}, titles("?sort=newest&n=2"))
	assert.Equal(t, []string{"Card 6 of nine"}, titles("?find=winter+6"), "what is put away is found")
	assert.Equal(t, []string{"Card 6 of nine"}, titles("?stands=put+away"))
	assert.Equal(t, []string{"Card 5 of nine"}, titles("?tag=for+aunts"))
	k, err := s.store.Kit(ctx)
	require.NoError(t, err)
	for _, i := range k.Inks {
		want := map[string]bool{}
		for _, c := range all {
			if slices.ContainsFunc(c.Card.Uses(), func(u card.Use) bool { return u.Kind == kit.KindInk && u.ID == i.ID }) {
				want[c.ID] = true
			}
		}
		got := map[string]bool{}
		for _, tile := range benchOf(t, s, "?n=500&find="+strings.ReplaceAll(strings.ToUpper(i.Name), " ", "+")).Tiles {
			if tile.ID == "moth" || tile.ID == "beetles" {
				got[tile.ID] = true
			}
		}
		for id := range want {
			assert.True(t, got[id], "%s is found by %s", id, i.Name)
		}
	}
	spoils := benchOf(t, s, "?sort=notes&n=500").Tiles
	assert.True(t, slices.IsSortedFunc(spoils, func(a, b Tile) int { return b.Spoils - a.Spoils }))
}

// Pictures are files that a browser keeps for as long as they are so.
func TestPicturesAreKept(t *testing.T) {
	s := testServer(t)
	tile := benchOf(t, s, "").Tiles[0]
	require.NotEmpty(t, tile.Of)
	for _, which := range []string{"front", "strata"} {
		at := "/api/cards/" + tile.ID + "/kept/" + which + ".svg"
		w := call(s, http.MethodGet, at+"?of="+tile.Of, "", "Accept-Encoding", "gzip")
		require.Equal(t, http.StatusOK, w.Code)
		assert.Contains(t, w.Header().Get("Cache-Control"), "immutable")
		z, err := gzip.NewReader(w.Body)
		require.NoError(t, err)
		svg, err := io.ReadAll(z)
		require.NoError(t, err)
		assert.True(t, strings.HasPrefix(string(svg), "<svg"), which)
		plain := call(s, http.MethodGet, at, "")
		assert.Equal(t, string(svg), plain.Body.String())
		assert.Contains(t, plain.Header().Get("Cache-Control"), "no-cache", "without what it is of it may be another soon")
		assert.Equal(t, http.StatusNotModified, call(s, http.MethodGet, at, "", "If-None-Match", plain.Header().Get("ETag")).Code)
	}
	assert.Equal(t, http.StatusNotFound, call(s, http.MethodGet, "/api/cards/nobody/kept/front.svg", "").Code)
}

// What many cards take is worked out meanwhile, and comes to what it comes to for each; until it
// is known the list says so.
func TestWhatManyCardsTakeIsWorkedOutMeanwhile(t *testing.T) {
	ctx := context.Background()
	s := testServer(t)
	all, err := s.store.Cards(ctx)
	require.NoError(t, err)
	k, err := s.store.Kit(ctx)
	require.NoError(t, err)
	for _, p := range k.Spacers {
		none := 0
		p.Left = &none
		require.NoError(t, s.store.Put(ctx, store.KindSpacer, p.ID, p))
	}
	few := read[ShopList](t, call(s, http.MethodGet, "/api/shopping", ""))
	require.False(t, few.Stale)
	require.NotEmpty(t, few.Buys)
	for i := range 2 * fewMakes {
		_, err := s.store.Add(ctx, fmt.Sprint("c", i), all[i%2].Card)
		require.NoError(t, err)
	}
	assert.True(t, read[ShopList](t, call(s, http.MethodGet, "/api/shopping", "")).Stale, "nothing is known of the new ones yet")
	var many ShopList
	require.Eventually(t, func() bool {
		many = read[ShopList](t, call(s, http.MethodGet, "/api/shopping", ""))
		return !many.Stale
	}, time.Minute, 20*time.Millisecond)
	assert.Len(t, many.Cards, 2+2*fewMakes)
	pads := func(l ShopList) (n int) {
		for _, b := range l.Buys {
			if b.Kind == store.KindSpacer {
				n += b.N
			}
		}
		return n
	}
	assert.Equal(t, (1+fewMakes)*pads(few), pads(many), "thirteen times as many cards of each")
}

// Cards that somebody looks at are worked out before those that wait.
func TestWhatIsLookedAtComesFirst(t *testing.T) {
	s := testServer(t)
	s.bench.running = true // nobody takes any
	s.want(nil, "a", "b", "c", "b")
	s.want([]string{"c", "d"}, "a", "e")
	assert.Equal(t, []string{"c", "d", "a", "b", "e"}, s.bench.wanted)
}
