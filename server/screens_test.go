package server

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/store"
)

// asGuest asks what another screen would, with a cookie or none.
func asGuest(s *Server, method, path, body string, cookie *http.Cookie) *httptest.ResponseRecorder {
	r := httptest.NewRequest(method, "http://192.168.7.7:8421"+path, strings.NewReader(body))
	if method == http.MethodPost && strings.HasPrefix(path, "/api/") {
		r.Header.Set("Content-Type", "application/json")
	} else if method == http.MethodPost {
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	}
	if cookie != nil {
		r.AddCookie(cookie)
	}
	w := httptest.NewRecorder()
	s.forGuests().ServeHTTP(w, r)
	return w
}

func letIn(t *testing.T, s *Server) Screens {
	w := call(s, http.MethodPost, "/api/screens", "")
	if w.Code == http.StatusUnprocessableEntity && strings.Contains(w.Body.String(), "no house network") {
		t.Skip("this machine is in no network")
	}
	require.Equal(t, http.StatusOK, w.Code, w.Body.String())
	var got Screens
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &got))
	return got
}

// Without the code another screen gets nothing at all; with it, once, it may look, tick and
// log; taken back, it gets nothing again.
func TestAnotherScreenGetsInByTheCodeAlone(t *testing.T) {
	s := testServer(t)
	t.Cleanup(s.Close)
	var before Screens
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/screens", "").Body.Bytes(), &before))
	assert.Equal(t, Screens{Addresses: []string{}, Joined: []ScreenSeen{}, Wrong: []WrongCodes{}}, before, "off until turned on")
	assert.Equal(t, http.StatusForbidden, asGuest(s, http.MethodPost, "/join", "code=", nil).Code, "and no empty code opens it")
	on := letIn(t, s)
	require.True(t, on.On)
	require.Len(t, on.Code, 8)

	for _, path := range []string{"/api/state", "/api/cards", "/api/data/backup.db", "/api/screens"} {
		assert.Equal(t, http.StatusUnauthorized, asGuest(s, http.MethodGet, path, "", nil).Code, path)
	}
	w := asGuest(s, http.MethodGet, "/card/beetles/work", "", nil)
	assert.Equal(t, "/join", w.Header().Get("Location"), "a page leads to the door")
	assert.Contains(t, asGuest(s, http.MethodGet, "/join?code="+url.QueryEscape(`"><script>`), "", nil).Body.String(), "&lt;script&gt;", "what is typed is not run")

	lower := strings.ToLower(on.Code[:4] + " " + on.Code[4:])
	w = asGuest(s, http.MethodPost, "/join", url.Values{"code": {lower}}.Encode(), nil)
	require.Equal(t, http.StatusSeeOther, w.Code, w.Body.String())
	cookie := w.Result().Cookies()[0]
	assert.True(t, cookie.HttpOnly)
	assert.Equal(t, http.SameSiteStrictMode, cookie.SameSite)
	assert.Equal(t, http.StatusForbidden, asGuest(s, http.MethodPost, "/join", url.Values{"code": {on.Code}}.Encode(), nil).Code, "it is used once")

	for path, want := range map[string]int{
		"GET /api/state": 200, "GET /api/cards": 200, "GET /api/cards/beetles": 200, "GET /api/cards/beetles/sitting": 200, "GET /api/cards/beetles/now": 200, "GET /api/log": 200, "GET /api/cards/beetles/entries": 200, "GET /api/learned": 200, "GET /api/cards/beetles/cutting": 200,
		"PUT /api/cards/beetles/entries/1": 403, "POST /api/cards/beetles/entries/1/photographs": 403, "POST /api/log": 403, "GET /api/drawer": 403, "GET /api/cards/beetles/sheet.pdf": 403, "GET /api/cards/beetles/bundle.ochre": 403, "GET /api/cards/beetles/placement.pdf": 403,
		"GET /api/data": 403, "GET /api/data/backup.db": 403, "GET /api/data/everything.zip": 403, "GET /api/about": 403, "GET /api/device/sets": 403,
		"PUT /api/settings": 403, "DELETE /api/cards/beetles": 403, "POST /api/cards/beetles/edits": 403, "POST /api/screens": 403, "DELETE /api/screens": 403, "DELETE /api/screens/1": 403,
		"POST /api/data/restore": 403, "POST /api/scan": 403, "PUT /api/kit/inks/x": 403, "GET /api/cards/../data": 403,
		"POST /api/cards/beetles/entries/1/again": 403, "DELETE /api/cards/beetles/entries/1/photographs/1": 403, "POST /api/cards/beetles/entries": 403, "PUT /api/cards/beetles/lying": 403,
	} {
		method, at, _ := strings.Cut(path, " ")
		assert.Equal(t, want, asGuest(s, method, at, "", cookie).Code, path)
	}
	var v struct {
		Plan struct {
			Steps []struct {
				ID json.RawMessage `json:"id"`
			} `json:"steps"`
		} `json:"plan"`
	}
	require.NoError(t, json.Unmarshal(asGuest(s, http.MethodGet, "/api/cards/beetles", "", cookie).Body.Bytes(), &v))
	w = asGuest(s, http.MethodPost, "/api/cards/beetles/run/done", `{"done":true,"steps":[`+string(v.Plan.Steps[0].ID)+`]}`, cookie)
	require.Equal(t, http.StatusOK, w.Code, w.Body.String())
	var now CardNow
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/cards/beetles/now", "").Body.Bytes(), &now))
	assert.Len(t, now.Run.Done, 1, "what it ticks is seen where Ochrestone runs")

	assert.Equal(t, http.StatusOK, call(s, http.MethodDelete, "/api/screens/1", "").Code)
	assert.Equal(t, http.StatusUnauthorized, asGuest(s, http.MethodGet, "/api/cards", "", cookie).Code, "taken back")
	next := letIn(t, s)
	w = asGuest(s, http.MethodPost, "/join", url.Values{"code": {next.Code}}.Encode(), nil)
	require.Equal(t, http.StatusSeeOther, w.Code)
	cookie = w.Result().Cookies()[0]
	assert.Equal(t, http.StatusOK, call(s, http.MethodDelete, "/api/screens", "").Code)
	assert.Equal(t, http.StatusUnauthorized, asGuest(s, http.MethodGet, "/api/cards", "", cookie).Code, "all shut out")
}

// Someone who tries one code after another gets a few guesses and then must wait, and so
// a code of eight letters is not found.
func TestCodesAreNotGuessed(t *testing.T) {
	s := testServer(t)
	t.Cleanup(s.Close)
	at := time.Date(2026, 11, 27, 10, 0, 0, 0, time.UTC)
	s.now = func() time.Time { return at }
	on := letIn(t, s)
	codes := map[int]int{}
	for range 100 {
		codes[asGuest(s, http.MethodPost, "/join", "code=AAAAAAAA", nil).Code]++
	}
	assert.Equal(t, map[int]int{http.StatusForbidden: triesAtOnce, http.StatusTooManyRequests: 100 - triesAtOnce}, codes)
	w := asGuest(s, http.MethodPost, "/join", url.Values{"code": {on.Code}}.Encode(), nil)
	assert.Equal(t, http.StatusTooManyRequests, w.Code, "the right one waits too")
	assert.NotEmpty(t, w.Header().Get("Retry-After"))
	var shown Screens
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/screens", "").Body.Bytes(), &shown))
	require.Len(t, shown.Wrong, 1, "the owner is told")
	assert.Equal(t, 101, shown.Wrong[0].N)
	// The owner's own tablet does not wait for somebody else's guesses.
	own := httptest.NewRequest(http.MethodPost, "http://192.168.7.7:8421/join", strings.NewReader(url.Values{"code": {on.Code}}.Encode()))
	own.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	own.RemoteAddr = "192.168.7.9:5000"
	in := httptest.NewRecorder()
	s.forGuests().ServeHTTP(in, own)
	assert.Equal(t, http.StatusSeeOther, in.Code)
	at = at.Add(time.Minute)
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/screens", "").Body.Bytes(), &shown))
	assert.Equal(t, http.StatusSeeOther, asGuest(s, http.MethodPost, "/join", url.Values{"code": {shown.Code}}.Encode(), nil).Code)
	// Letters that are mistaken for others are in no code.
	for range 200 {
		assert.NotContains(t, newCode(), "0")
		assert.False(t, strings.ContainsAny(newCode(), "01ILO"))
	}
}

// Addresses of the internet come to no door, whatever they ask and know; those of houses do
// (RFC 1918, RFC 3927), and what a carrier shares among its customers (RFC 6598) is no house.
func TestTheInternetIsNotTheHouse(t *testing.T) {
	s := testServer(t)
	t.Cleanup(s.Close)
	on := letIn(t, s)
	for from, want := range map[string]int{
		"8.8.8.8:4000": http.StatusForbidden, "172.32.0.1:4000": http.StatusForbidden, "[2001:4860::1]:4000": http.StatusForbidden, "": http.StatusForbidden,
		"10.0.0.9:4000": http.StatusOK, "172.16.3.4:4000": http.StatusOK, "192.168.1.7:4000": http.StatusOK, "100.64.0.9:4000": http.StatusForbidden, "[::ffff:192.168.1.7]:4000": http.StatusOK,
	} {
		r := httptest.NewRequest(http.MethodGet, "http://192.168.7.7/join?code="+on.Code, nil)
		r.RemoteAddr = from
		w := httptest.NewRecorder()
		s.forGuests().ServeHTTP(w, r)
		assert.Equal(t, want, w.Code, from)
	}
}

// Beyond this machine the program listens only while a screen is let in.
func TestTheDoorIsShut(t *testing.T) {
	s := testServer(t)
	t.Cleanup(s.Close)
	on := letIn(t, s)
	door := on.Addresses[0]
	c := http.Client{Timeout: 3 * time.Second, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	r, err := c.Get(door + "/")
	require.NoError(t, err)
	require.NoError(t, r.Body.Close())
	assert.Equal(t, http.StatusSeeOther, r.StatusCode)
	s.Close()
	_, err = c.Get(door + "/")
	assert.Error(t, err, "nobody answers")
}

// A web page elsewhere in the house cannot type codes through a visitor's browser, nor by another
// name for this address; who comes from outside of the house is not heard at all.
func TestTheDoorAsksWhoKnocks(t *testing.T) {
	s := testServer(t)
	t.Cleanup(s.Close)
	on := letIn(t, s)
	knock := func(host, from string, header ...string) int {
		r := httptest.NewRequest(http.MethodPost, "http://"+host+"/join", strings.NewReader(url.Values{"code": {on.Code}}.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		for i := 0; i+1 < len(header); i += 2 {
			r.Header.Set(header[i], header[i+1])
		}
		r.RemoteAddr = from
		w := httptest.NewRecorder()
		s.forGuests().ServeHTTP(w, r)
		return w.Code
	}
	assert.Equal(t, http.StatusForbidden, knock("192.168.7.7:8421", "192.168.7.9:5000", "Origin", "http://192.168.7.50"))
	assert.Equal(t, http.StatusForbidden, knock("192.168.7.7:8421", "192.168.7.9:5000", "Sec-Fetch-Site", "cross-site"))
	assert.Equal(t, http.StatusMisdirectedRequest, knock("elsewhere.invalid", "192.168.7.9:5000"))
	assert.Equal(t, http.StatusForbidden, knock("192.168.7.7:8421", "100.64.3.4:5000"), "what a carrier shares is no house")
	assert.Equal(t, http.StatusSeeOther, knock("192.168.7.7:8421", "192.168.7.9:5000", "Origin", "http://192.168.7.7:8421"))
}

// A guest writes to the run in hand and to no other, sees what things are called and no outline
// of a set, and what it has begun when it is taken back is not kept.
func TestAGuestWritesToTheRunInHand(t *testing.T) {
	s := testServer(t)
	t.Cleanup(s.Close)
	on := letIn(t, s)
	w := asGuest(s, http.MethodPost, "/join", url.Values{"code": {on.Code}}.Encode(), nil)
	cookie := w.Result().Cookies()[0]
	ctx := t.Context()
	old, err := s.store.Tick(ctx, "moth", true, store.Marks(card.Step{Verb: "glue"})...)
	require.NoError(t, err)
	_, err = s.store.Another(ctx, "moth")
	require.NoError(t, err)
	now, err := s.store.Tick(ctx, "moth", true, store.Marks(card.Step{Verb: "glue"})...)
	require.NoError(t, err)
	at := func(run int64) string { return fmt.Sprintf("/api/cards/moth/entries/%d", run) }
	assert.Equal(t, http.StatusForbidden, asGuest(s, http.MethodPut, at(old.ID), `{"well":1,"note":"mine now"}`, cookie).Code)
	put := httptest.NewRequest(http.MethodPut, "http://192.168.7.7:8421"+at(now.ID), strings.NewReader(`{"well":1,"note":"in hand"}`))
	put.Header.Set("Content-Type", "application/json")
	put.AddCookie(cookie)
	got := httptest.NewRecorder()
	s.forGuests().ServeHTTP(got, put)
	assert.Equal(t, http.StatusNoContent, got.Code, got.Body.String())
	assert.Equal(t, http.StatusOK, asGuest(s, http.MethodPost, "/api/cards/moth/run/another", "", cookie).Code, "a second run is begun at the bench")

	var st State
	require.NoError(t, json.Unmarshal(asGuest(s, http.MethodGet, "/api/state", "", cookie).Body.Bytes(), &st))
	require.NotEmpty(t, st.Kit.Sets)
	for _, set := range st.Kit.Sets {
		for _, p := range set.Parts {
			assert.True(t, p.Outline.Empty(), set.Name)
		}
	}
	assert.NotEmpty(t, st.Kit.Inks[0].Name)

	// A write that is still coming in when the screen is taken back.
	hand, err := s.store.Tick(ctx, "moth", true, store.Marks(card.Step{Verb: "cut"})...)
	require.NoError(t, err)
	body, half := io.Pipe()
	late := httptest.NewRequest(http.MethodPut, "http://192.168.7.7:8421"+at(hand.ID), body)
	late.Header.Set("Content-Type", "application/json")
	late.AddCookie(cookie)
	ended := make(chan *httptest.ResponseRecorder)
	go func() {
		w := httptest.NewRecorder()
		s.forGuests().ServeHTTP(w, late)
		ended <- w
	}()
	_, err = half.Write([]byte(`{"well":2,`)) // it has begun to be read
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, call(s, http.MethodDelete, "/api/screens/1", "").Code)
	_, err = half.Write([]byte(`"note":"after it was taken back"}`))
	require.NoError(t, err)
	require.NoError(t, half.Close())
	assert.NotEqual(t, http.StatusNoContent, (<-ended).Code)
	all, err := s.store.Entries(ctx, "moth")
	require.NoError(t, err)
	for _, e := range all {
		assert.NotContains(t, e.Note, "taken back")
	}
}

// One device cannot hold all lines, and a form that stays half sent is given up.
func TestLinesAreBounded(t *testing.T) {
	n := &lines{}
	a, b := netip.MustParseAddr("192.168.7.1"), netip.MustParseAddr("192.168.7.2")
	for range linesEach {
		assert.True(t, n.take(a))
	}
	assert.False(t, n.take(a))
	assert.True(t, n.take(b))
	n.give(a)
	assert.True(t, n.take(a))
	for i := range mostLines {
		n.take(netip.AddrFrom4([4]byte{10, 0, 0, byte(i)}))
	}
	assert.False(t, n.take(netip.MustParseAddr("10.0.1.1")))
}
