package server

import (
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/demo"
	"ochrestone/store"
)

func testServer(t testing.TB) *Server {
	st, err := store.Open(context.Background(), filepath.Join(t.TempDir(), "a.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	k, err := demo.Kit()
	require.NoError(t, err)
	require.NoError(t, st.Fill(context.Background(), k, []string{"moth", "beetles"}, demo.Cards(k)[:2]))
	return New(st, Demo())
}

func call(s *Server, method, path, body string, header ...string) *httptest.ResponseRecorder {
	r := httptest.NewRequest(method, "http://127.0.0.1"+path, strings.NewReader(body))
	r.Header.Set("Content-Type", "application/json")
	for i := 0; i+1 < len(header); i += 2 {
		r.Header.Set(header[i], header[i+1])
	}
	if h := r.Header.Get("Host"); h != "" {
		r.Host = h
	}
	w := httptest.NewRecorder()
	s.ServeHTTP(w, r)
	return w
}

func problemOf(t *testing.T, w *httptest.ResponseRecorder) (kind, detail string, places int) {
	var p struct {
		Type, Detail string
		Errors       []struct{ Message, Location string }
	}
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &p), w.Body.String())
	return p.Type, p.Detail, len(p.Errors)
}

func TestOpenAPIIsTheOneThePageIsMadeFrom(t *testing.T) {
	have, err := New(nil).OpenAPI()
	require.NoError(t, err)
	kept, err := os.ReadFile("../web/openapi.json")
	require.NoError(t, err)
	assert.Equal(t, string(bytes.TrimSpace(kept)), string(bytes.TrimSpace(have)), "run make types")
	w := call(testServer(t), http.MethodGet, "/api/openapi.json", "")
	assert.Equal(t, 200, w.Code)
	assert.Contains(t, w.Body.String(), `"openapi":"3.1`)
}

func TestSaveNeedsTheVersionRead(t *testing.T) {
	s := testServer(t)
	w := call(s, http.MethodGet, "/api/cards/moth", "")
	require.Equal(t, 200, w.Code)
	assert.Equal(t, `"1"`, w.Header().Get("ETag"))
	var v struct {
		Card map[string]any `json:"card"`
	}
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &v))
	v.Card["title"] = "Another name"
	doc, _ := json.Marshal(v.Card)
	w = call(s, http.MethodPut, "/api/cards/moth", string(doc), "If-Match", `"1"`)
	require.Equal(t, 200, w.Code, w.Body.String())
	w = call(s, http.MethodPut, "/api/cards/moth", string(doc), "If-Match", `"1"`)
	assert.Equal(t, http.StatusPreconditionFailed, w.Code)
	kind, detail, _ := problemOf(t, w)
	assert.Equal(t, "/problems/changed", kind)
	assert.Contains(t, detail, "Nothing was overwritten")
	assert.Equal(t, http.StatusUnprocessableEntity, call(s, http.MethodPut, "/api/cards/moth", string(doc)).Code, "without a version")

	v.Card["base"].(map[string]any)["w"] = 5
	doc, _ = json.Marshal(v.Card)
	w = call(s, http.MethodPut, "/api/cards/moth", string(doc), "If-Match", `"2"`)
	assert.Equal(t, http.StatusUnprocessableEntity, w.Code)
	v.Card["version"] = 9
	v.Card["base"].(map[string]any)["w"] = 100
	doc, _ = json.Marshal(v.Card)
	w = call(s, http.MethodPut, "/api/cards/moth", string(doc), "If-Match", `"2"`)
	_, detail, places := problemOf(t, w)
	assert.Contains(t, detail, "newer Ochrestone")
	assert.Positive(t, places, "the field is named")
	assert.Equal(t, 404, call(s, http.MethodGet, "/api/cards/none", "").Code)
}

func TestLengthsAreReadByTheCore(t *testing.T) {
	s := testServer(t)
	w := call(s, http.MethodGet, "/api/length?text=4+15%2F16", "")
	assert.JSONEq(t, `{"mm":125.4125,"shown":"4 15⁄16 in"}`, w.Body.String())
	require.Equal(t, 200, call(s, http.MethodPut, "/api/settings", `{"unit":"mm","den":32}`).Code)
	w = call(s, http.MethodGet, "/api/length?text=12.5cm", "")
	assert.JSONEq(t, `{"mm":125,"shown":"125 mm"}`, w.Body.String())
	w = call(s, http.MethodGet, "/api/length?text=3+furlongs", "")
	assert.Equal(t, 422, w.Code)
	_, detail, _ := problemOf(t, w)
	assert.Contains(t, detail, "furlongs")
}

func TestKitItemsAreChecked(t *testing.T) {
	s := testServer(t)
	w := call(s, http.MethodPut, "/api/kit/inks/x", `{"id":"x","name":" ","kind":"dye","dry":"plum"}`)
	assert.Equal(t, 422, w.Code)
	kind, _, places := problemOf(t, w)
	assert.Equal(t, "/problems/invalid", kind)
	assert.Equal(t, 2, places, "name and colour: %s", w.Body)
	assert.Equal(t, 422, call(s, http.MethodPut, "/api/kit/inks/y", `{"id":"x","name":"Plum","kind":"dye","dry":"#7f5480"}`).Code)
	assert.Equal(t, 200, call(s, http.MethodPut, "/api/kit/inks/x", `{"id":"x","name":"Plum","kind":"dye","dry":"#7f5480"}`).Code)
	assert.Equal(t, 200, call(s, http.MethodDelete, "/api/kit/inks/x", "").Code)
	assert.Equal(t, 404, call(s, http.MethodDelete, "/api/kit/inks/x", "").Code)
}

func TestImportTellsPlaceAndMend(t *testing.T) {
	s := testServer(t)
	w := call(s, http.MethodPost, "/api/import/set?name=Odd&kind=die", "<svg>\n<script/></svg>", "Content-Type", "image/svg+xml")
	require.Equal(t, 422, w.Code, w.Body.String())
	kind, detail, _ := problemOf(t, w)
	assert.Equal(t, "/problems/drawing", kind)
	assert.Contains(t, detail, "line 2, <script>")
	w = call(s, http.MethodPost, "/api/import/set?name=Good&kind=die", `<svg width="40mm" viewBox="0 0 40 40"><rect width="30" height="30"/></svg>`, "Content-Type", "image/svg+xml")
	require.Equal(t, 200, w.Code, w.Body.String())
	assert.Contains(t, w.Body.String(), `"outline":"M0 0L30 0L30 30L0 30Z"`)
}

func TestOtherSitesAndNamesAreKeptOut(t *testing.T) {
	s := testServer(t)
	r := httptest.NewRequest(http.MethodGet, "http://elsewhere.invalid/api/state", nil)
	w := httptest.NewRecorder()
	s.ServeHTTP(w, r)
	assert.Equal(t, http.StatusMisdirectedRequest, w.Code)
	w = call(s, http.MethodPut, "/api/settings", `{"unit":"mm","den":32}`, "Origin", "http://elsewhere.invalid", "Sec-Fetch-Site", "cross-site")
	assert.Equal(t, http.StatusForbidden, w.Code)
	w = call(s, http.MethodGet, "/api/state", "")
	assert.Contains(t, w.Header().Get("Content-Security-Policy"), "script-src 'self'")
	assert.NotContains(t, w.Header().Get("Content-Security-Policy"), "script-src 'self' 'unsafe")
}

func TestSuggestionsSayWhenTheDrawerCannot(t *testing.T) {
	s := testServer(t)
	w := call(s, http.MethodPost, "/api/cards/beetles/inks", `{"motif":"beetle","colourway":"mere","school":"light ground","best":3}`)
	require.Equal(t, 200, w.Code, w.Body.String())
	assert.Contains(t, w.Body.String(), `"proven":true`)
	var st struct {
		Kit struct{ Inks []struct{ ID string } }
	}
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/state", "").Body.Bytes(), &st))
	for _, i := range st.Kit.Inks[2:] {
		require.Equal(t, 200, call(s, http.MethodDelete, "/api/kit/inks/"+i.ID, "").Code)
	}
	w = call(s, http.MethodPost, "/api/cards/beetles/inks", `{"motif":"beetle","colourway":"mere","school":"light ground"}`)
	assert.Equal(t, 422, w.Code)
	kind, detail, _ := problemOf(t, w)
	assert.Equal(t, "/problems/no-answer", kind)
	assert.Contains(t, detail, "drawer")
}

func TestStandingAndFiles(t *testing.T) {
	s := testServer(t)
	w := call(s, http.MethodGet, "/api/cards/moth/standing", "")
	assert.Contains(t, w.Body.String(), `"name":"Hawk-moth, `)
	assert.Contains(t, w.Body.String(), `"pad":{`)
	assert.Equal(t, 404, call(s, http.MethodGet, "/api/cards/none/standing", "").Code)
	for path, mime := range map[string]string{"sheet.pdf": "application/pdf", "handout.pdf": "application/pdf", "front.svg": "image/svg+xml", "front.png": "image/png"} {
		w := call(s, http.MethodGet, "/api/cards/moth/"+path, "")
		assert.Equal(t, 200, w.Code)
		assert.Equal(t, mime, w.Header().Get("Content-Type"))
		assert.Equal(t, 404, call(s, http.MethodGet, "/api/cards/none/"+path, "").Code)
	}
}

func BenchmarkReadCardAfterADrop(b *testing.B) {
	s := testServer(b)
	call(s, http.MethodGet, "/api/cards/moth", "")
	for b.Loop() {
		if w := call(s, http.MethodGet, "/api/cards/moth", ""); w.Code != 200 {
			b.Fatal(w.Code)
		}
	}
}
