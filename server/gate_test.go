package server

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"net/http/httptest"
	"runtime"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/exchange/bundle"
)

// endless is a body of so many bytes that tells how many were read.
type endless struct {
	left int64
	read *atomic.Int64
}

func (e *endless) Read(b []byte) (int, error) {
	if e.left <= 0 {
		return 0, io.EOF
	}
	n := min(int64(len(b)), e.left)
	e.left -= n
	e.read.Add(n)
	return int(n), nil
}

// However many large bodies come at once, no more are read than there is memory for; the others
// wait unread and have their turn, whatever they are for.
func TestLargeBodiesWaitTheirTurn(t *testing.T) {
	const each = 60 << 20
	for _, at := range []string{"/api/cards/moth/entries/1/photographs", "/api/bundles", "/api/scanners", "/api/shelf/papers", "/api/import/set"} {
		var held, most, served atomic.Int64
		h := newGate().let(http.HandlerFunc(func(_ http.ResponseWriter, r *http.Request) {
			n := held.Add(each)
			for m := most.Load(); n > m && !most.CompareAndSwap(m, n); m = most.Load() {
			}
			for range 200 {
				runtime.Gosched() // the others have every chance to come in too
			}
			held.Add(-each)
			served.Add(1)
		}))
		var all sync.WaitGroup
		for range 40 {
			all.Go(func() {
				r := httptest.NewRequest(http.MethodPost, at, &endless{each, &atomic.Int64{}})
				r.ContentLength = each
				h.ServeHTTP(httptest.NewRecorder(), r)
			})
		}
		all.Wait()
		assert.EqualValues(t, 40, served.Load(), at)
		assert.LessOrEqual(t, most.Load(), int64(mostHeld)/2, "%s: a buffer may be twice what it holds", at)
	}
}

// Past those that may wait a request is refused in words, and so is what is larger than it may be,
// although its body is still coming; what goes to the disk is not counted.
func TestWhatIsRefusedWhileItComesIsToldInWords(t *testing.T) {
	srv := httptest.NewServer(testServer(t))
	defer srv.Close()
	for at, size := range map[string]int64{"/api/cards": maxWords + 1, "/api/import/set?name=a&kind=die": maxUpload + 1, "/api/settings": 100 << 20} {
		var read atomic.Int64
		r, err := http.NewRequest(http.MethodPost, srv.URL+at, &endless{size, &read})
		require.NoError(t, err)
		r.ContentLength = size
		w, err := http.DefaultClient.Do(r)
		require.NoError(t, err, "%s: the answer is heard", at)
		body, err := io.ReadAll(w.Body)
		require.NoError(t, err)
		_ = w.Body.Close()
		assert.Equal(t, http.StatusRequestEntityTooLarge, w.StatusCode, at)
		assert.Contains(t, string(body), "at most", at)
	}
	var read atomic.Int64
	r, err := http.NewRequest(http.MethodPost, srv.URL+"/api/data/look", &endless{200 << 20, &read})
	require.NoError(t, err)
	w, err := http.DefaultClient.Do(r)
	require.NoError(t, err)
	body, _ := io.ReadAll(w.Body)
	_ = w.Body.Close()
	assert.Equal(t, 422, w.StatusCode, "200 MB are looked into: that it is no backup is said after reading it")
	assert.Contains(t, string(body), "not a backup")
}

// A body that comes in by drips is given up in the end.
func TestADrippingBodyIsGivenUp(t *testing.T) {
	p := &patient{ReadCloser: io.NopCloser(strings.NewReader("abc")), give: http.NewResponseController(httptest.NewRecorder()), began: time.Now().Add(-2 * time.Minute)}
	_, err := p.Read(make([]byte, 1))
	assert.ErrorContains(t, err, "too slowly")
	p = &patient{ReadCloser: io.NopCloser(strings.NewReader("abc")), give: http.NewResponseController(httptest.NewRecorder()), began: time.Now().Add(-2 * time.Minute), n: 20 << 20}
	_, err = p.Read(make([]byte, 1))
	assert.NoError(t, err, "what is large and comes in well may take its time")
}

// What the page may not put in comes in no other way: with a card from elsewhere or in a table.
func TestABundleBringsInNothingThePageRefuses(t *testing.T) {
	s := testServer(t)
	k, err := s.store.Kit(t.Context())
	require.NoError(t, err)
	v, err := s.store.Card(t.Context(), "moth")
	require.NoError(t, err)
	b, err := bundle.Of(v.Card, k)
	require.NoError(t, err)
	var good bytes.Buffer
	require.NoError(t, bundle.Write(&good, b, nil, time.Now()))
	with := func(name string, change func(doc map[string]any)) string {
		z, err := zip.NewReader(bytes.NewReader(good.Bytes()), int64(good.Len()))
		require.NoError(t, err)
		var out bytes.Buffer
		w := zip.NewWriter(&out)
		done := false
		for _, f := range z.File {
			r, err := f.Open()
			require.NoError(t, err)
			raw, err := io.ReadAll(r)
			require.NoError(t, err)
			if strings.HasPrefix(f.Name, name) && !done {
				doc := map[string]any{}
				require.NoError(t, json.Unmarshal(raw, &doc))
				change(doc)
				raw, err = json.Marshal(doc)
				require.NoError(t, err)
				done = true
			}
			to, err := w.Create(f.Name)
			require.NoError(t, err)
			_, err = to.Write(raw)
			require.NoError(t, err)
		}
		require.True(t, done, name)
		require.NoError(t, w.Close())
		return out.String()
	}
	before := call(s, http.MethodGet, "/api/state", "").Body.String()
	for say, doc := range map[string]string{
		"a name of 10 MB":           with("stores/inks/", func(d map[string]any) { d["name"] = strings.Repeat("n", 10<<20); d["id"] = "newly" }),
		"an id with a slash":        with("stores/inks/", func(d map[string]any) { d["id"] = "a/b" }),
		"a title of 10 MB":          with("card.json", func(d map[string]any) { d["title"] = strings.Repeat("t", 10<<20) }),
		"an order of 400,000 steps": with("card.json", func(d map[string]any) { d["order"] = make([]map[string]any, 400_000) }),
	} {
		w := call(s, http.MethodPost, "/api/bundles", doc, "Content-Type", "application/octet-stream")
		if w.Code == 200 && say == "an id with a slash" {
			// It may be renamed on the way in; what is stored has none.
			k, err := s.store.Kit(t.Context())
			require.NoError(t, err)
			for _, i := range k.Inks {
				assert.NotContains(t, i.ID, "/")
			}
			continue
		}
		assert.Equal(t, 422, w.Code, "%s: %.200s", say, w.Body.String())
		assert.Less(t, w.Body.Len(), 2000, say)
		assert.Equal(t, before, call(s, http.MethodGet, "/api/state", "").Body.String(), "%s: nothing of it came in", say)
	}
	assert.Error(t, s.store.Put(t.Context(), "inks", "x", kit.Ink{ID: "x", Name: strings.Repeat("n", 300)}))
	csv := "name;w;h\n" + strings.Repeat("n", 1000) + ";200;100\n"
	w := call(s, http.MethodPost, "/api/shelf/envelopes", csv, "Content-Type", "text/plain")
	assert.NotEqual(t, 200, w.Code, w.Body.String())
}
