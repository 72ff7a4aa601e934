package server

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/store"
)

// The zip of everything loses nothing of what is there now: from its files alone come the cards,
// the stores with all their sets, the settings, and what was made and measured, equal field by
// field to what the data file gives.
func TestTheZipLosesNothing(t *testing.T) {
	s := testServer(t)
	ctx := context.Background()
	left := 12
	require.NoError(t, s.store.Put(ctx, store.KindSpacer, "odd", kit.Spacer{ID: "odd", Name: "Odd pads", Kind: "square", Thickness: 1.2345678901234567, W: 5, H: 5, Left: &left}))
	require.NoError(t, s.store.Put(ctx, store.KindSwatch, "x", kit.Swatch{Ink: "madder-full", Paper: "oat", Impressions: 2, Dry: "#a0b0c0", On: "2026-03-01"}))
	step := card.Step{Verb: "print", Motif: "m", N: 2}
	r, err := s.store.Tick(ctx, "moth", true, store.Mark{Step: step, Kind: "print", Cards: 2})
	require.NoError(t, err)
	_, err = s.store.Use(ctx, "moth", step, "soot-deep")
	require.NoError(t, err)
	require.NoError(t, s.store.Remember(ctx, "moth", r.ID, 2, "less glue"))
	_, err = s.store.KeepPhotograph(ctx, "moth", r.ID, store.Photograph{Words: "the moth", W: 1, H: 1}, []byte("jpeg, as it is kept"), []byte("small"))
	require.NoError(t, err)
	_, err = s.store.Log(ctx, []store.Placement{{Card: "moth", Motif: "m", Layer: "l", Label: "Wing", Way: "eye", Source: store.FromPrint, X: 0.1234567890123, Turn: -0.5, Good: true}})
	require.NoError(t, err)
	require.NoError(t, s.store.Lay(ctx, "beetles", true, true, []string{"winter"}))
	require.NoError(t, s.store.SetCompany(ctx, "moth", []string{"beetles"}))

	w := call(s, http.MethodGet, "/api/data/everything.zip", "")
	require.Equal(t, http.StatusOK, w.Code)
	z, err := zip.NewReader(bytes.NewReader(w.Body.Bytes()), int64(w.Body.Len()))
	require.NoError(t, err)
	file := map[string][]byte{}
	for _, f := range z.File {
		rc, err := f.Open()
		require.NoError(t, err)
		file[f.Name], err = io.ReadAll(rc)
		require.NoError(t, err)
	}
	into := func(name string, v any) {
		require.Contains(t, file, name)
		d := json.NewDecoder(bytes.NewReader(file[name]))
		d.DisallowUnknownFields()
		require.NoError(t, d.Decode(v), name)
	}

	k, err := s.store.Kit(ctx)
	require.NoError(t, err)
	var got kit.Kit
	into("stores/stores.json", &got)
	for name := range file {
		if strings.HasPrefix(name, "sets/") && strings.HasSuffix(name, ".json") {
			var set kit.Set
			into(name, &set)
			got.Sets = append(got.Sets, set)
		}
	}
	require.Len(t, got.Sets, len(k.Sets))
	for _, set := range got.Sets {
		was, ok := k.Set(set.ID)
		require.True(t, ok)
		one, err := json.Marshal(was)
		require.NoError(t, err)
		two, err := json.Marshal(set)
		require.NoError(t, err)
		assert.JSONEq(t, string(one), string(two))
	}
	got.Sets = k.Sets
	assert.Equal(t, k, got)

	cards, err := s.store.Cards(ctx)
	require.NoError(t, err)
	for _, c := range cards {
		at := ""
		for name := range file {
			if strings.HasPrefix(name, "cards/") && strings.HasSuffix(name, ".json") && bytes.Contains(file[name], []byte(fmt.Sprintf("%q: %q", "title", c.Card.Title))) {
				at = name
			}
		}
		doc, err := card.Read(file[at])
		require.NoError(t, err)
		assert.Equal(t, c.Card, doc)
	}
	settings, err := s.store.Settings(ctx)
	require.NoError(t, err)
	var set map[string]string
	into("settings.json", &set)
	assert.Equal(t, settings, set)
	var runs []MadeOf
	into("log/runs.json", &runs)
	entries, err := s.store.Entries(ctx, "")
	require.NoError(t, err)
	run, err := s.store.RunOf(ctx, "moth", r.ID)
	require.NoError(t, err)
	assert.Equal(t, []MadeOf{{entries[0], run}}, runs)
	var ps []store.Placement
	into("log/placements.json", &ps)
	logged, err := s.store.Logged(ctx)
	require.NoError(t, err)
	assert.Equal(t, logged, ps)
	var lies []CardLies
	into("log/bench.json", &lies)
	all, err := s.store.Lying(ctx)
	require.NoError(t, err)
	require.Len(t, lies, len(cards))
	for _, l := range lies {
		assert.Equal(t, all[l.ID], l.Lying)
		company, err := s.store.Company(ctx, l.ID)
		require.NoError(t, err)
		assert.Equal(t, company, l.Company)
	}
	photo, err := s.store.PhotographOf(ctx, entries[0].Photographs[0].ID, false)
	require.NoError(t, err)
	found := 0
	for name, data := range file {
		if strings.HasPrefix(name, "log/photographs/") {
			assert.Equal(t, photo, data)
			found++
		}
	}
	assert.Equal(t, 1, found)
}
