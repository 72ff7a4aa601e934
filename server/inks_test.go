package server

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
)

// post sends raw bytes.
func post(s *Server, path, mime string, body []byte) *httptest.ResponseRecorder {
	r := httptest.NewRequest(http.MethodPost, "http://127.0.0.1"+path, strings.NewReader(string(body)))
	r.Header.Set("Content-Type", mime)
	w := httptest.NewRecorder()
	s.ServeHTTP(w, r)
	return w
}

func read[T any](t *testing.T, w *httptest.ResponseRecorder) (v T) {
	t.Helper()
	require.Equal(t, 200, w.Code, w.Body.String())
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &v))
	return v
}

func TestInksGoOutAndComeIn(t *testing.T) {
	s := testServer(t)
	table := call(s, http.MethodGet, "/api/inks.csv", "")
	require.Equal(t, 200, table.Code)
	got := read[InksRead](t, post(s, "/api/inks/import?as=csv", "text/plain", table.Body.Bytes()))
	assert.Zero(t, got.Added, "what is there stays as it is")
	assert.Len(t, got.Notes, 49)
	palette := call(s, http.MethodGet, "/api/inks.gpl", "").Body.String()
	got = read[InksRead](t, post(s, "/api/inks/import?as=gpl", "text/plain", []byte(palette+" 12 200 90\tSpring\n")))
	assert.Equal(t, 1, got.Added)
	w := post(s, "/api/inks/import?as=csv", "text/plain", []byte("ink\nx\n"))
	assert.Equal(t, 422, w.Code)
	kind, detail, _ := problemOf(t, w)
	assert.Equal(t, "/problems/inks", kind)
	assert.Contains(t, detail, "Line 1: There is no column called name")
}

// A sheet filled by the simulated scanner is read, kept, and makes the drawer
// surer of papers it has not seen.
func TestSwatchSheetOverTheAPI(t *testing.T) {
	s := testServer(t)
	assert.Equal(t, 422, call(s, http.MethodPost, "/api/swatches/sheets", `{"paper":"none"}`).Code)
	k0, err := s.store.Kit(t.Context())
	require.NoError(t, err)
	dark := k0.Papers[slices.IndexFunc(k0.Papers, func(p kit.Cardstock) bool {
		c, err := colour.ParseHex(p.Colour)
		return err == nil && c.Lab().L < 30
	})]
	refused := call(s, http.MethodPost, "/api/swatches/sheets", `{"paper":"`+dark.ID+`"}`)
	assert.Equal(t, 422, refused.Code)
	assert.Contains(t, refused.Body.String(), "too dark")
	one := read[[]SwatchSheet](t, call(s, http.MethodPost, "/api/swatches/sheets", `{"paper":"chalk","inks":["madder-full","gorse-soft","mere-deep"],"strikes":2}`))
	require.Len(t, one, 1)
	assert.Equal(t, 1, one[0].Number)
	require.Len(t, one[0].Cells, 6, "two cells an ink")
	assert.Equal(t, 2, one[0].Cells[1].Impressions)
	all := read[[]SwatchSheet](t, call(s, http.MethodPost, "/api/swatches/sheets", `{"paper":"kraft","strikes":3}`))
	assert.Len(t, all, 2, "144 cells want two sheets")
	assert.Len(t, all[0].Cells, 96)
	assert.Len(t, read[[]SwatchSheet](t, call(s, http.MethodGet, "/api/swatches/sheets", "")), 3)
	w := call(s, http.MethodGet, "/api/swatches/sheets/1/sheet.pdf", "")
	assert.True(t, strings.HasPrefix(w.Body.String(), "%PDF-"))
	assert.Equal(t, 404, call(s, http.MethodGet, "/api/swatches/sheets/9/sheet.pdf", "").Code)

	filled := call(s, http.MethodGet, "/api/device-swatches/1", "").Body.Bytes()
	other := post(s, "/api/swatches/sheets/2/read", "application/octet-stream", filled)
	assert.Equal(t, 422, other.Code)
	assert.Contains(t, other.Body.String(), "of sheet 1, not of sheet 2")
	type readOut struct {
		Cells []CellRead
		Sure  string
	}
	got := read[readOut](t, post(s, "/api/swatches/sheets/1/read", "application/octet-stream", filled))
	require.Len(t, got.Cells, 6)
	assert.Contains(t, got.Sure, "marks of the page seen")
	keep := map[string]any{}
	var cells []map[string]any
	for _, c := range got.Cells {
		assert.True(t, c.Usable, "%s: %s", c.Name, c.Trouble)
		cells = append(cells, map[string]any{"ink": c.Ink, "impressions": c.Impressions, "colour": c.Colour})
	}
	assert.Less(t, got.Cells[1].L, got.Cells[0].L, "two impressions dry darker than one")
	keep["cells"] = cells
	body, _ := json.Marshal(keep)
	d := read[look.Knowledge](t, call(s, http.MethodPost, "/api/swatches/sheets/1/keep", string(body)))
	assert.Equal(t, 3, d.Measured)
	assert.Equal(t, 6, d.Swatches)
	k, err := s.store.Kit(t.Context())
	require.NoError(t, err)
	ink, _ := k.Ink("madder-full")
	assert.True(t, ink.Measured)
	assert.Equal(t, got.Cells[0].Colour, ink.Dry)
	assert.Equal(t, "chalk", ink.Paper)

	wet, _ := json.Marshal(map[string]any{"wet": true, "cells": []map[string]any{{"ink": "madder-full", "impressions": 1, "colour": "#aa3030"}}})
	read[look.Knowledge](t, call(s, http.MethodPost, "/api/swatches/sheets/1/keep", string(wet)))
	k, err = s.store.Kit(t.Context())
	require.NoError(t, err)
	ink, _ = k.Ink("madder-full")
	assert.Equal(t, "#aa3030", ink.Wet)
	assert.Equal(t, got.Cells[0].Colour, ink.Dry, "the dried colour is untouched")
	assert.Len(t, k.Swatches, 6)

	bad, _ := json.Marshal(map[string]any{"cells": []map[string]any{{"ink": "madder-full", "impressions": 1, "colour": "#010203"}, {"ink": "nobody", "impressions": 1, "colour": "#aa3030"}}})
	assert.Equal(t, 422, call(s, http.MethodPost, "/api/swatches/sheets/1/keep", string(bad)).Code)
	k, err = s.store.Kit(t.Context())
	require.NoError(t, err)
	ink, _ = k.Ink("madder-full")
	assert.Equal(t, got.Cells[0].Colour, ink.Dry, "one bad cell and none is kept")
	blank, err := sim.PNG(sim.Bench{W: 60, H: 60, Sheet: sim.White}.Scan(150, sim.Plain(), 1), 150)
	require.NoError(t, err)
	w = post(s, "/api/swatches/sheets/1/read", "application/octet-stream", blank)
	assert.Equal(t, 422, w.Code)
	_, detail, _ := problemOf(t, w)
	assert.Contains(t, detail, "measuring mat cannot be found")
	assert.Equal(t, 404, post(s, "/api/swatches/sheets/7/read", "application/octet-stream", blank).Code)
	assert.Equal(t, 404, call(New(s.store), http.MethodGet, "/api/device-swatches/1", "").Code)
}

func TestSuggestionsKeepToAFamilyAndSayWhatIsMissing(t *testing.T) {
	s := testServer(t)
	type out struct {
		Colourways []struct {
			Finishes map[string]struct{ Ink string }
			Look     struct{ Weakest float64 }
		}
		Proven bool
		Advice string
	}
	ask := func(more string) *httptest.ResponseRecorder {
		return call(s, http.MethodPost, "/api/cards/beetles/inks", fmt.Sprintf(`{"motif":"beetle","colourway":"mere","school":"light ground","best":2%s}`, more))
	}
	got := read[out](t, ask(`,"families":["Mere","Soot"]`))
	require.NotEmpty(t, got.Colourways)
	for _, w := range got.Colourways {
		for _, f := range w.Finishes {
			assert.True(t, strings.HasPrefix(f.Ink, "mere-") || strings.HasPrefix(f.Ink, "soot-"), f.Ink)
		}
	}
	assert.Empty(t, read[out](t, ask("")).Advice)

	// With two pale inks no ramp of four ranks can be had.
	k, err := s.store.Kit(t.Context())
	require.NoError(t, err)
	for _, i := range k.Inks {
		i.Gone = i.ID != "mere-pale" && i.ID != "gorse-pale"
		body, _ := json.Marshal(i)
		require.Equal(t, 200, call(s, http.MethodPut, "/api/kit/inks/"+i.ID, string(body)).Code)
	}
	w := ask("")
	assert.Equal(t, 422, w.Code)
	kind, detail, _ := problemOf(t, w)
	assert.Equal(t, "/problems/no-answer", kind)
	assert.NotEmpty(t, detail)
}

func TestMarksOnPartsAreKept(t *testing.T) {
	s := testServer(t)
	k, err := s.store.Kit(t.Context())
	require.NoError(t, err)
	set := k.Sets[1]
	set.Parts[0].Stamp, set.Parts[0].Variant, set.Parts[0].Twice, set.Parts[0].Missing = "body", "day", true, true
	body, _ := json.Marshal(set)
	got := read[kit.Set](t, call(s, http.MethodPut, "/api/kit/sets/"+set.ID, string(body)))
	assert.Equal(t, set.Parts[0].Stamp, got.Parts[0].Stamp)
	k, err = s.store.Kit(t.Context())
	require.NoError(t, err)
	again, _ := k.Set(set.ID)
	assert.True(t, again.Parts[0].Twice && again.Parts[0].Missing)
	assert.Equal(t, "day", again.Parts[0].Variant)
}

func TestAfterAPictureOverTheAPI(t *testing.T) {
	s := testServer(t)
	// A sheet of green and dark red stands for the photograph.
	b := sim.Bench{W: 40, H: 30, Sheet: sim.Papers[2], Items: []sim.Item{{Outline: shape.Rect(0, 0, 12, 30), Colour: sim.Papers[3], Print: true}, {Outline: shape.Rect(30, 0, 10, 30), Colour: sim.Papers[0], Print: true}}}
	raw, err := sim.PNG(b.Scan(150, sim.Grade{Tone: 1}, 1), 150)
	require.NoError(t, err)
	w := post(s, "/api/cards/moth/picture?motif=moth&colourway=bracken&school=local+colour", "application/octet-stream", raw)
	require.Equal(t, 200, w.Code, w.Body.String())
	var out struct {
		Colours   []MainColour
		Colourway struct {
			Finishes map[string]struct{ Ink string }
		}
	}
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &out))
	require.Len(t, out.Colours, 3)
	sum := 0.0
	for _, c := range out.Colours {
		sum += c.Share
	}
	assert.InDelta(t, 1, sum, 0.02)
	assert.Len(t, out.Colourway.Finishes, 9)
	w = post(s, "/api/cards/moth/picture?motif=moth&colourway=bracken&school=local+colour", "application/octet-stream", []byte("no"))
	assert.Equal(t, 422, w.Code)
	_, detail, _ := problemOf(t, w)
	assert.Contains(t, detail, "not a picture")
}
