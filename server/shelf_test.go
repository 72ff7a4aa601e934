package server

import (
	"context"
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/store"
)

// A table goes out and comes in again: what is there already is left as it is.
func TestAShelfOutAndIn(t *testing.T) {
	s := testServer(t)
	out := call(s, http.MethodGet, "/api/shelf/envelopes.csv", "")
	require.Equal(t, http.StatusOK, out.Code)
	assert.Contains(t, out.Header().Get("Content-Disposition"), "envelopes.csv")
	got := read[ShelfRead](t, call(s, http.MethodPost, "/api/shelf/envelopes", out.Body.String()+"Mine,100,150,0.1,,,,,\n", "Content-Type", "text/plain"))
	assert.Equal(t, 1, got.Added)
	k, err := s.store.Kit(context.Background())
	require.NoError(t, err)
	assert.Len(t, got.Notes, len(k.Envelopes)-1)
	assert.Contains(t, got.Notes[0], "is there already")
	ids := map[string]bool{}
	for _, e := range k.Envelopes {
		assert.NotEmpty(t, e.ID)
		assert.False(t, ids[e.ID])
		ids[e.ID] = true
	}
	w := call(s, http.MethodPost, "/api/shelf/envelopes", "colour\nred\n", "Content-Type", "text/plain")
	assert.Equal(t, http.StatusUnprocessableEntity, w.Code)
	assert.Contains(t, w.Body.String(), "no column called name")
	for _, at := range []string{"/api/shelf/inks.csv", "/api/shelf/papers", "/api/shelf/nothing.csv"} {
		assert.NotEqual(t, http.StatusOK, call(s, http.MethodGet, at, "").Code, at)
	}
}

// What a run took of pads is taken out of the stores, once, and never below none.
func TestLevelsAfterARun(t *testing.T) {
	s := testServer(t)
	ctx := context.Background()
	require.Equal(t, http.StatusOK, call(s, http.MethodPost, "/api/cards/moth/entries", "").Code)
	e := read[[]store.Entry](t, call(s, http.MethodGet, "/api/cards/moth/entries", ""))[0]
	at := fmt.Sprintf("/api/cards/moth/entries/%d", e.ID)
	took := read[Account](t, call(s, http.MethodGet, at, "")).Takes
	require.NotEmpty(t, took)
	k, err := s.store.Kit(ctx)
	require.NoError(t, err)
	var pads kit.Spacer
	n := 0
	for _, x := range took {
		if sp, ok := k.Spacer(x.ID); ok && x.Kind == "spacers" {
			pads, n = sp, x.N
		}
	}
	require.Positive(t, n)
	left := n + 5
	pads.Left = &left
	require.NoError(t, s.store.Put(ctx, store.KindSpacer, pads.ID, pads))
	require.Equal(t, http.StatusNoContent, call(s, http.MethodPost, at+"/levels", "").Code)
	k, _ = s.store.Kit(ctx)
	pads, _ = k.Spacer(pads.ID)
	assert.Equal(t, 5, *pads.Left)
	assert.NotEmpty(t, read[Account](t, call(s, http.MethodGet, at, "")).Entry.Levels)
	assert.NotEqual(t, http.StatusNoContent, call(s, http.MethodPost, at+"/levels", "").Code, "once for a run")
	k, _ = s.store.Kit(ctx)
	pads, _ = k.Spacer(pads.ID)
	assert.Equal(t, 5, *pads.Left)

	few := 1
	pads.Left = &few
	require.NoError(t, s.store.Put(ctx, store.KindSpacer, pads.ID, pads))
	list := read[ShopList](t, call(s, http.MethodGet, "/api/shopping", ""))
	assert.Len(t, list.Cards, 1, "the moth is made")
	require.Equal(t, http.StatusOK, call(s, http.MethodPost, "/api/cards/moth/entries", "").Code)
	next := read[[]store.Entry](t, call(s, http.MethodGet, "/api/cards/moth/entries", ""))[0]
	require.NotEqual(t, e.ID, next.ID)
	require.Equal(t, http.StatusNoContent, call(s, http.MethodPost, fmt.Sprintf("/api/cards/moth/entries/%d/levels", next.ID), "").Code)
	k, _ = s.store.Kit(ctx)
	pads, _ = k.Spacer(pads.ID)
	assert.Zero(t, *pads.Left, "never below none")
}
