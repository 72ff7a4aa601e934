package server

import (
	"encoding/json"
	"net/http"
	"net/url"
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// wordsIn are the words of a PDF as poppler reads them.
func wordsInPDF(t *testing.T, raw string) string {
	t.Helper()
	cmd := exec.Command("pdftotext", "-layout", "-", "-")
	cmd.Stdin = strings.NewReader(raw)
	out, err := cmd.Output()
	require.NoError(t, err)
	return string(out)
}

// Sheets to print come as PDF in the person's unit; what cannot be drawn says why
// and what to do.
func TestTemplatesOverTheAPI(t *testing.T) {
	s := testServer(t)
	m, _, _ := firstOf(t, s, "beetles")
	moth, _, _ := firstOf(t, s, "moth")
	pdf := func(path string, q url.Values) string {
		r := call(s, http.MethodGet, path+"?"+q.Encode(), "")
		require.Equal(t, 200, r.Code, r.Body.String())
		require.Equal(t, "application/pdf", r.Header().Get("Content-Type"))
		return wordsInPDF(t, r.Body.String())
	}
	refused := func(path string, q url.Values) string {
		r := call(s, http.MethodGet, path+"?"+q.Encode(), "")
		require.Equal(t, 422, r.Code, r.Body.String())
		return r.Body.String()
	}
	corner := "/api/cards/beetles/corner.pdf"
	assert.Contains(t, pdf(corner, url.Values{"motif": {m}, "w": {"100"}, "h": {"120"}}), "Corner jig")
	assert.Contains(t, refused(corner, url.Values{"motif": {m}, "w": {"100"}, "h": {"120"}, "x": {"2"}}), "over the edge")
	assert.Contains(t, refused(corner, url.Values{"motif": {m}, "w": {"wide"}}), "give a number")
	assert.Contains(t, refused(corner, url.Values{"motif": {"gone"}}), "not on this card")

	assert.Contains(t, pdf("/api/cards/moth/die-guide.pdf", url.Values{"motif": {moth}}), "Die as a guide")
	assert.Contains(t, refused("/api/cards/beetles/die-guide.pdf", url.Values{"motif": {m}}), "no die to lay round")

	said := pdf("/api/words.pdf", url.Values{"text": {"hello"}, "height": {"18"}, "bounce": {"3"}})
	assert.Contains(t, said, "it takes 2 passes (l comes most often)")
	assert.Contains(t, refused("/api/words.pdf", url.Values{"text": {" "}}), "no die for any of these letters")
	assert.Contains(t, refused("/api/words.pdf", url.Values{"text": {strings.Repeat("a", 41)}}), "at most 40")
	assert.Contains(t, refused("/api/words.pdf", url.Values{"text": {"hi"}, "height": {"900"}}), "4 to 120 mm")
	assert.Contains(t, refused("/api/words.pdf", url.Values{"text": {"hi"}, "set": {"none"}}), "not in the stores")
	assert.Contains(t, refused("/api/words.pdf", url.Values{"text": {"a very long line of words"}, "height": {"60"}}), "the page has room")

	assert.Contains(t, refused("/api/cards/beetles/masks.pdf", url.Values{}), "No printed images overlap")
	assert.Contains(t, refused("/api/cards/beetles/masks.pdf", url.Values{"inset": {"9"}}), "0 to 5 mm")
	v := read[View](t, call(s, http.MethodGet, "/api/cards/beetles", ""))
	for i := range v.Card.Elements {
		if v.Card.Elements[i].Image != nil {
			v.Card.Elements[i].Place.X, v.Card.Elements[i].Place.Y = 60+8*float64(i), 50
		}
	}
	doc, err := json.Marshal(v.Card)
	require.NoError(t, err)
	require.Equal(t, 200, call(s, http.MethodPut, "/api/cards/beetles", string(doc), "If-Match", `"1"`).Code)
	assert.Contains(t, pdf("/api/cards/beetles/masks.pdf", url.Values{}), "then print:")
}

// A letter set of the person's own gives the letters; one it lacks is named.
func TestWordsFromOwnLetterDies(t *testing.T) {
	s := testServer(t)
	svg := `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="30mm" viewBox="0 0 60 30"><g id="a"><rect x="2" y="2" width="12" height="20"/></g><g id="b"><rect x="30" y="2" width="10" height="20"/></g></svg>`
	imported := call(s, http.MethodPost, "/api/import/set?name=Letters", svg, "Content-Type", "application/octet-stream")
	require.Equal(t, 200, imported.Code, imported.Body.String())
	state := read[State](t, call(s, http.MethodGet, "/api/state", ""))
	id := state.Kit.Sets[len(state.Kit.Sets)-1].ID
	r := call(s, http.MethodGet, "/api/words.pdf?"+url.Values{"text": {"ab ba"}, "set": {id}, "gap": {"2"}}.Encode(), "")
	require.Equal(t, 200, r.Code, r.Body.String())
	assert.Contains(t, wordsInPDF(t, r.Body.String()), "it takes 2 passes")
	r = call(s, http.MethodGet, "/api/words.pdf?"+url.Values{"text": {"abc"}, "set": {id}}.Encode(), "")
	assert.Equal(t, 422, r.Code)
	assert.Contains(t, r.Body.String(), "There is no die for c.")
}
