package server

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/store"
)

// Numbers that are none, or past all bounds, are refused at every door with the
// field, and change nothing.
func TestNumbersThatCannotBeAreRefused(t *testing.T) {
	s := testServer(t)
	m, w, layers := firstOf(t, s, "moth")
	logged := func(x string) string {
		return fmt.Sprintf(`{"card":"moth","motif":%q,"way":"eye","source":"print","placements":[{"layer":%q,"x":%s,"y":0,"turn":0,"sureShift":0.01,"sureTurn":0.1,"good":true}]}`, m, layers[1], x)
	}
	for name, c := range map[string]struct{ method, path, body, field string }{
		"harm NaN":    {http.MethodGet, fmt.Sprintf("/api/cards/moth/harm?motif=%s&colourway=%s&layer=%s&x=nan&y=0&turn=0", m, w, layers[1]), "", "x"},
		"jig NaN":     {http.MethodGet, "/api/jig.pdf?kind=square&turns=4&width=NaN&panel=100", "", ""},
		"log 1e300":   {http.MethodPost, "/api/log", logged("1e300"), "placements[0].x"},
		"log 9000":    {http.MethodPost, "/api/log", logged("9000"), "placements[0].x"},
		"split 1e308": {http.MethodPost, "/api/scan/split", `{"outline":"M0 0L9 0L9 9Z","colour":"#aaaaaa","ax":1e308,"ay":0,"bx":-1e308,"by":4}`, "ax"},
		"split far":   {http.MethodPost, "/api/scan/split", `{"outline":"M0 0L9 0L9 9Z","colour":"#aaaaaa","ax":50000,"ay":0,"bx":1,"by":4}`, "ax"},
		"minutes":     {http.MethodPut, "/api/kit/inks/x", `{"id":"x","name":"X","kind":"dye","dry":"#aabbcc","dryMinutes":1e9}`, "dryMinutes"},
	} {
		r := call(s, c.method, c.path, c.body)
		require.Equal(t, http.StatusUnprocessableEntity, r.Code, "%s: %s", name, r.Body)
		kind, detail, _ := problemOf(t, r)
		assert.Contains(t, strings.ToLower(r.Body.String()), strings.ToLower(c.field), name)
		assert.NotContains(t, detail, "expected", name)
		assert.NotEmpty(t, kind)
	}
	assert.Equal(t, http.StatusOK, call(s, http.MethodGet, "/api/log", "").Code, "and the log can be read")
}

// What a request lacks is said in our own words.
func TestRefusalsAreInOurWords(t *testing.T) {
	s := testServer(t)
	for body, says := range map[string]string{
		`{"title":"x"`: "breaks off",
		`{"title":"","format":"a2","fold":"side"}`:                              "Title has at least 1 letters",
		`{"title":"x","format":"a2","fold":"sideways"}`:                         "choose one of",
		`{"format":"a2","fold":"side"}`:                                         "title is missing",
		`{"title":"x","format":"a2","fold":"side","colour":"green"}`:            "not known here",
		`{"title":7,"format":"a2","fold":"side"}`:                               "give a text",
		fmt.Sprintf(`{"title":%q,"format":"a2"}`, strings.Repeat("long ", 100)): "at most 120",
	} {
		w := call(s, http.MethodPost, "/api/cards", body)
		assert.GreaterOrEqual(t, w.Code, 400)
		assert.Less(t, w.Code, 500, body)
		assert.Contains(t, w.Body.String(), says, body)
		assert.NotContains(t, w.Body.String(), "expected", body)
	}
}

// Swatch sheets asked for at once get numbers of their own, and none is lost.
func TestSwatchSheetsAskedForAtOnce(t *testing.T) {
	s := testServer(t)
	var wg sync.WaitGroup
	for range 40 {
		wg.Go(func() {
			w := call(s, http.MethodPost, "/api/swatches/sheets", `{"paper":"chalk","inks":["madder-pale"]}`)
			assert.Equal(t, http.StatusOK, w.Code)
		})
	}
	wg.Wait()
	var all []SwatchSheet
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/swatches/sheets", "").Body.Bytes(), &all))
	assert.Len(t, all, 40)
}

// Outlines that could not be read again are not stored, whatever door they come
// by, and what was there goes on working.
func TestOutlinesThatCannotBeReadBackAreNotStored(t *testing.T) {
	s := testServer(t)
	before := len(read[State](t, call(s, http.MethodGet, "/api/state", "")).Kit.Sets)
	far := `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100"><g transform="translate(100000 0)"><rect id="wing" width="9" height="9"/></g></svg>`
	w := post(s, "/api/import/set?name=far&kind=die", "image/svg+xml", []byte(far))
	require.Equal(t, http.StatusUnprocessableEntity, w.Code)
	_, detail, _ := problemOf(t, w)
	assert.Contains(t, detail, "wing")
	assert.Contains(t, detail, "line 1")

	var dots strings.Builder
	for i := range 20_100 {
		fmt.Fprintf(&dots, "M%d %dh0.4v0.4h-0.4z", i%150, i/150)
	}
	w = post(s, "/api/import/set?name=dots&kind=die", "image/svg+xml", []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="150mm" height="150mm" viewBox="0 0 150 150"><path d="`+dots.String()+`"/></svg>`))
	require.Equal(t, http.StatusUnprocessableEntity, w.Code, w.Body)

	w = call(s, http.MethodPost, "/api/scan/keep", `{"name":"far","kind":"die","layers":[{"label":"p","copies":1,"fit":"free","host":-1,"pieces":[{"outline":"M0 0L9 0L9 9Z","x":1000000,"y":0,"turn":0}]}]}`)
	assert.GreaterOrEqual(t, w.Code, 400, w.Body)
	assert.Less(t, w.Code, 500, w.Body)
	after := read[State](t, call(s, http.MethodGet, "/api/state", ""))
	assert.Len(t, after.Kit.Sets, before)
}

// Scaling a set with a far-off part is refused, not stored.
func TestScalingTooFarIsRefused(t *testing.T) {
	s := testServer(t)
	require.NoError(t, s.store.Put(context.Background(), store.KindSet, "odd", kit.Set{ID: "odd", Name: "Odd", Kind: kit.DieSet, Parts: []kit.Part{}}))
	w := call(s, http.MethodPost, "/api/sets/odd/scale", `{"width":100}`)
	assert.Equal(t, http.StatusUnprocessableEntity, w.Code)
	set := `{"id":"wide","name":"Wide","kind":"die","parts":[{"id":"a","label":"a","outline":"M0 0L9 0L9 1900Z","order":1,"rank":1,"copies":1,"fit":"free"}]}`
	require.Equal(t, http.StatusOK, call(s, http.MethodPut, "/api/kit/sets/wide", set).Code)
	w = call(s, http.MethodPost, "/api/sets/wide/scale", `{"width":100}`)
	assert.Equal(t, http.StatusUnprocessableEntity, w.Code, w.Body)
	assert.Equal(t, http.StatusOK, call(s, http.MethodGet, "/api/state", "").Code)
}

// Heavy jobs run one after another; who waits is told how many are before.
func TestTheQueueTellsThePlace(t *testing.T) {
	var q queue
	leave, err := q.enter(context.Background(), nil)
	require.NoError(t, err)
	var mu sync.Mutex
	places := map[int][]int{}
	order := []int{}
	var wg sync.WaitGroup
	for i := range 3 {
		in := make(chan struct{})
		wg.Go(func() {
			first := true
			leave, err := q.enter(context.Background(), func(before int) {
				mu.Lock()
				places[i] = append(places[i], before)
				mu.Unlock()
				if first {
					first = false
					close(in)
				}
			})
			if assert.NoError(t, err) {
				mu.Lock()
				order = append(order, i)
				mu.Unlock()
				leave()
			}
		})
		<-in
	}
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err = q.enter(ctx, nil)
	assert.ErrorIs(t, err, context.Canceled)
	leave()
	wg.Wait()
	assert.Equal(t, []int{0, 1, 2}, order)
	assert.Equal(t, 3, places[2][0])
	leave, err = q.enter(context.Background(), nil)
	require.NoError(t, err, "and it is free again")
	leave()
}

// A job that is given up while it waits leaves the queue to the others.
func TestGivingUpInTheQueue(t *testing.T) {
	var q queue
	leave, err := q.enter(context.Background(), nil)
	require.NoError(t, err)
	ctx, stop := context.WithCancel(context.Background())
	waiting, gave := make(chan struct{}), make(chan error)
	go func() {
		_, err := q.enter(ctx, func(int) { close(waiting) })
		gave <- err
	}()
	<-waiting
	stop()
	assert.ErrorIs(t, <-gave, context.Canceled)
	leave()
	leave, err = q.enter(context.Background(), nil)
	require.NoError(t, err)
	leave()
}

// Something that goes wrong beyond words is an answer, and the next request works.
func TestAPanicIsAnAnswer(t *testing.T) {
	s := testServer(t)
	s.store = nil // every use of it panics
	w := call(s, http.MethodGet, "/api/state", "")
	assert.Equal(t, http.StatusInternalServerError, w.Code)
	assert.Contains(t, w.Body.String(), "What was kept before it is kept")
}

// A body that stops coming in is given up; the time allowed is the server's, here
// only shown to be set anew with everything that comes.
func TestAStalledUploadIsGivenUp(t *testing.T) {
	var set []time.Time
	p := &patient{ReadCloser: http.NoBody, give: http.NewResponseController(&deadlines{ResponseRecorder: httptest.NewRecorder(), set: &set})}
	_, _ = p.Read(make([]byte, 4))
	require.NotEmpty(t, set)
	assert.InDelta(t, stalled.Seconds(), time.Until(set[0]).Seconds(), 2)
	assert.True(t, set[len(set)-1].IsZero(), "and taken away at the end")
}

type deadlines struct {
	*httptest.ResponseRecorder
	set *[]time.Time
}

func (d *deadlines) SetReadDeadline(t time.Time) error { *d.set = append(*d.set, t); return nil }

// The data file over the page: backup, what changed meanwhile, restore, check, zip.
func TestYourDataOverTheAPI(t *testing.T) {
	s := testServer(t)
	var d Data
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/data", "").Body.Bytes(), &d))
	assert.FileExists(t, d.Path)
	backup := call(s, http.MethodGet, "/api/data/backup.db", "")
	require.Equal(t, http.StatusOK, backup.Code)
	assert.Contains(t, backup.Header().Get("Content-Disposition"), "attachment")
	require.Equal(t, http.StatusNoContent, call(s, http.MethodDelete, "/api/cards/moth", "").Code)
	r := call(s, http.MethodPost, "/api/data/restore", backup.Body.String())
	require.Equal(t, http.StatusOK, r.Code, r.Body)
	assert.Equal(t, http.StatusOK, call(s, http.MethodGet, "/api/cards/moth", "").Code, "it is back")
	assert.FileExists(t, read[Restored](t, r).Before)
	bad := call(s, http.MethodPost, "/api/data/restore", "this is no backup, though it is long enough to look at")
	assert.Equal(t, http.StatusUnprocessableEntity, bad.Code)
	assert.Contains(t, bad.Body.String(), "Nothing was changed")
	c := read[Checked](t, call(s, http.MethodGet, "/api/data/check", ""))
	assert.Contains(t, c.Say, "2 cards")
	assert.Contains(t, c.Say, "whole")
	z := call(s, http.MethodGet, "/api/data/everything.zip", "")
	require.Equal(t, http.StatusOK, z.Code)
	_, err := zip.NewReader(bytes.NewReader(z.Body.Bytes()), int64(z.Body.Len()))
	require.NoError(t, err)
	// Of backups and restores alone: other programs keep folders of their own there.
	var left []string
	for _, made := range []string{"ochrestone-backup-*", "ochrestone-restore-*"} {
		some, err := filepath.Glob(filepath.Join(os.TempDir(), made))
		require.NoError(t, err)
		left = append(left, some...)
	}
	assert.LessOrEqual(t, len(left), 2, "no copies are left behind: %v", left)
}

// Titles without Latin letters make file names too.
func TestFileNamesInAnyLetters(t *testing.T) {
	s := testServer(t)
	w := call(s, http.MethodPost, "/api/cards", `{"title":"感謝の夜","format":"a2","fold":"side"}`)
	require.Equal(t, http.StatusOK, w.Code, w.Body)
	id := read[View](t, w).ID
	h := call(s, http.MethodGet, "/api/cards/"+id+"/front.svg", "").Header().Get("Content-Disposition")
	assert.Contains(t, h, `filename="ochrestone.svg"`)
	assert.Contains(t, h, "filename*=UTF-8''%E6%84%9F%E8%AC%9D%E3%81%AE%E5%A4%9C.svg")
	assert.Equal(t, "same-origin", call(s, http.MethodGet, "/api/state", "").Header().Get("Cross-Origin-Resource-Policy"))
}
