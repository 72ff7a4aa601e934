package server

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/store"
)

// A card is made in an evening, its steps ticked as planned but for the first two, which change
// places: the log tells the time, the order, the ink that was used, and what was changed since.
func TestALogEntry(t *testing.T) {
	s := testServer(t)
	sat := read[Sitting](t, call(s, http.MethodGet, "/api/cards/moth/sitting", ""))
	require.Greater(t, len(sat.Steps), 4)
	tick := func(i int) {
		step, err := json.Marshal(sat.Steps[i].ID)
		require.NoError(t, err)
		w := call(s, http.MethodPost, "/api/cards/moth/run/done", `{"done":true,"steps":[`+string(step)+`]}`)
		require.Equal(t, http.StatusOK, w.Code, w.Body.String())
	}
	for _, i := range []int{1, 0, 2, 3} {
		tick(i)
	}
	all := read[[]store.Entry](t, call(s, http.MethodGet, "/api/cards/moth/entries", ""))
	require.Len(t, all, 1)
	at := fmt.Sprintf("/api/cards/moth/entries/%d", all[0].ID)
	got := read[Account](t, call(s, http.MethodGet, at, ""))
	assert.Equal(t, len(sat.Steps), got.Steps)
	assert.Equal(t, 4, got.Entry.Done)
	assert.Equal(t, 1, got.Copies)
	require.Len(t, got.Went.Moved, 1)
	assert.NotEmpty(t, got.Inks)
	assert.Empty(t, got.Since)

	assert.Equal(t, http.StatusNoContent, call(s, http.MethodPut, at, `{"well":1,"note":" more light "}`).Code)
	assert.Equal(t, http.StatusUnprocessableEntity, call(s, http.MethodPut, at, `{"well":-2,"note":""}`).Code)
	var photo bytes.Buffer
	img := image.NewGray(image.Rect(0, 0, 2400, 1600))
	img.Set(5, 5, color.White)
	require.NoError(t, png.Encode(&photo, img))
	w := call(s, http.MethodPost, at+"/photographs?words=the+moth", photo.String(), "Content-Type", "application/octet-stream")
	require.Equal(t, http.StatusOK, w.Code, w.Body.String())
	kept := read[store.Photograph](t, w)
	assert.Equal(t, []any{"the moth", 1600, 1067}, []any{kept.Words, kept.W, kept.H})
	w = call(s, http.MethodGet, fmt.Sprintf("/api/photographs/%d.jpg?small=1", kept.ID), "")
	assert.Equal(t, "image/jpeg", w.Header().Get("Content-Type"))
	small, _, err := image.DecodeConfig(bytes.NewReader(w.Body.Bytes()))
	require.NoError(t, err)
	assert.Equal(t, []int{420, 280}, []int{small.Width, small.Height})
	w = call(s, http.MethodPost, at+"/photographs", "a shopping list", "Content-Type", "application/octet-stream")
	assert.Equal(t, http.StatusUnprocessableEntity, w.Code)
	assert.Contains(t, w.Body.String(), "not a picture")
	for _, bad := range []string{"/api/photographs/99.jpg", "/api/photographs/one.jpg", "/api/cards/moth/entries/99", "/api/cards/beetles/entries/1"} {
		assert.Equal(t, http.StatusNotFound, call(s, http.MethodGet, bad, "").Code, bad)
	}

	w = call(s, http.MethodPost, "/api/cards/moth/edits", `{"edits":[{"rename":{"title":"Moth by day"}}]}`, "If-Match", `"1"`)
	require.Equal(t, http.StatusOK, w.Code, w.Body.String())
	got = read[Account](t, call(s, http.MethodGet, at, ""))
	require.Len(t, got.Since, 1)
	assert.Contains(t, got.Since[0], "It was called ")
	assert.False(t, got.Differs.Any(), "another name changes no step")
	assert.Equal(t, "more light", got.Entry.Note)
	require.Len(t, got.Entry.Photographs, 1)

	require.Equal(t, http.StatusOK, call(s, http.MethodPost, at+"/again", "").Code)
	next := read[Sitting](t, call(s, http.MethodGet, "/api/cards/moth/sitting", ""))
	assert.Empty(t, next.Run.Done)
	assert.Equal(t, 1, next.Run.Before)
	for _, tile := range read[[]Tile](t, call(s, http.MethodGet, "/api/cards", "")) {
		if tile.ID == "moth" {
			assert.Equal(t, []any{"finished", 1, kept.ID}, []any{string(tile.Stands), tile.Made, tile.Shown})
		}
	}
}

// How cards stand on the bench: begun, waiting for what, put away; and one begun as another is,
// but for its words.
func TestTheBenchSaysHowCardsStand(t *testing.T) {
	s := testServer(t)
	tile := func(id string) Tile {
		for _, t := range read[[]Tile](t, call(s, http.MethodGet, "/api/cards", "")) {
			if t.ID == id {
				return t
			}
		}
		return Tile{}
	}
	assert.Equal(t, "planned", string(tile("moth").Stands))
	sat := read[Sitting](t, call(s, http.MethodGet, "/api/cards/moth/sitting", ""))
	step, err := json.Marshal(sat.Steps[0].ID)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, call(s, http.MethodPost, "/api/cards/moth/run/done", `{"done":true,"steps":[`+string(step)+`]}`).Code)
	assert.Equal(t, "begun", string(tile("moth").Stands))
	require.Equal(t, http.StatusOK, call(s, http.MethodPost, "/api/cards/moth/run/timers", `{"minutes":10,"step":`+string(step)+`}`).Code)
	got := tile("moth")
	assert.Equal(t, "waiting", string(got.Stands))
	require.Len(t, got.Waits, 1)
	assert.Equal(t, sat.Steps[0].Title, got.Waits[0].For)
	clock := s.now
	s.now = func() time.Time { return clock().Add(11 * time.Minute) }
	assert.Equal(t, "begun", string(tile("moth").Stands), "the wait is over")
	s.now = clock
	assert.Equal(t, http.StatusNoContent, call(s, http.MethodPut, "/api/cards/moth/lying", `{"away":true,"model":true,"tags":["winter"]}`).Code)
	got = tile("moth")
	assert.Equal(t, "put away", string(got.Stands))
	assert.Equal(t, []string{"winter"}, got.Lying.Tags)
	assert.True(t, got.Lying.Model)
	assert.Equal(t, http.StatusNotFound, call(s, http.MethodPut, "/api/cards/nobody/lying", `{"away":true,"model":false,"tags":[]}`).Code)

	v := read[View](t, call(s, http.MethodGet, "/api/cards/moth", ""))
	var element, was string
	for _, e := range v.Card.Elements {
		if e.Sheet == nil {
			continue
		}
		for _, tr := range e.Sheet.Treatments {
			if tr.Words != nil {
				element, was = e.ID, tr.Words.Text
			}
		}
	}
	require.NotEmpty(t, was)
	body, err := json.Marshal(map[string]any{"title": " For Ada ", "words": []map[string]string{{"element": element, "was": was, "is": "happy birthday"}}})
	require.NoError(t, err)
	made := read[View](t, call(s, http.MethodPost, "/api/cards/moth/copy", string(body)))
	assert.Equal(t, "For Ada", made.Card.Title)
	doc, err := json.Marshal(made.Card)
	require.NoError(t, err)
	assert.Contains(t, string(doc), "happy birthday")
	back, err := json.Marshal(v.Card)
	require.NoError(t, err)
	assert.JSONEq(t, strings.Replace(strings.Replace(string(doc), "happy birthday", was, 1), `"title":"For Ada"`, fmt.Sprintf("\"title\":%q", v.Card.Title), 1), string(back), "all the rest is the same")
	assert.Equal(t, http.StatusNotFound, call(s, http.MethodPost, "/api/cards/nobody/copy", string(body)).Code)
	assert.Equal(t, http.StatusNotFound, call(s, http.MethodPost, "/api/cards/moth/copy", `{"title":"x","run":99}`).Code, "there is no such run")
}

// New stamps are new until the first card is made with them, all of its steps done.
func TestStampsAreNewUntilACardIsMade(t *testing.T) {
	s := testServer(t)
	v := read[View](t, call(s, http.MethodGet, "/api/cards/beetles", ""))
	id := v.Card.Motifs[0].Set
	ctx := t.Context()
	k, err := s.store.Kit(ctx)
	require.NoError(t, err)
	set, ok := k.Set(id)
	require.True(t, ok)
	set.Fresh = true
	require.NoError(t, s.store.Put(ctx, "sets", id, set))
	fresh := func() bool {
		k, err := s.store.Kit(ctx)
		require.NoError(t, err)
		now, _ := k.Set(id)
		return now.Fresh
	}
	sat := read[Sitting](t, call(s, http.MethodGet, "/api/cards/beetles/sitting", ""))
	steps := make([]string, len(sat.Steps))
	for i, a := range sat.Steps {
		b, err := json.Marshal(a.ID)
		require.NoError(t, err)
		steps[i] = string(b)
	}
	last := len(steps) - 1
	require.Equal(t, http.StatusOK, call(s, http.MethodPost, "/api/cards/beetles/run/done", `{"done":true,"steps":[`+strings.Join(steps[:last], ",")+`]}`).Code)
	assert.True(t, fresh(), "one step is left")
	require.Equal(t, http.StatusOK, call(s, http.MethodPost, "/api/cards/beetles/run/done", `{"done":true,"steps":[`+steps[last]+`]}`).Code)
	assert.False(t, fresh())
}
