package server

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/exchange/svgin"
	"ochrestone/vision/axes"
)

// event is one server-sent event.
type event struct {
	name string
	data json.RawMessage
}

func events(t *testing.T, s *Server, path, mime string, body []byte) []event {
	r := httptest.NewRequest(http.MethodPost, "http://127.0.0.1"+path, bytes.NewReader(body))
	r.Header.Set("Content-Type", mime)
	w := httptest.NewRecorder()
	s.ServeHTTP(w, r)
	require.Equal(t, 200, w.Code, w.Body.String())
	var out []event
	for _, block := range strings.Split(strings.TrimSpace(w.Body.String()), "\n\n") {
		var e event
		for _, line := range strings.Split(block, "\n") {
			if v, ok := strings.CutPrefix(line, "event: "); ok {
				e.name = v
			}
			if v, ok := strings.CutPrefix(line, "data: "); ok {
				e.data = json.RawMessage(v)
			}
		}
		out = append(out, e)
	}
	return out
}

func sheetOf(t *testing.T, dpi float64, items ...sim.Item) []byte {
	raw, err := sim.PNG(sim.Bench{W: 90, H: 60, Sheet: sim.Black, Items: items}.Scan(300, sim.Plain(), 1), dpi)
	require.NoError(t, err)
	return raw
}

func refusedWith(t *testing.T, es []event) Refusal {
	last := es[len(es)-1]
	require.Equal(t, "refused", last.name)
	var r Refusal
	require.NoError(t, json.Unmarshal(last.data, &r))
	return r
}

func TestScanToSetOverTheAPI(t *testing.T) {
	s := testServer(t)
	raw := sheetOf(t, 300, sim.Item{Outline: shape.Rect(8, 8, 36, 30), Colour: sim.Papers[0]}, sim.Item{Outline: shape.Rect(52, 8, 33, 27), Colour: sim.Papers[2]})
	es := events(t, s, "/api/scan?as=pieces", "application/octet-stream", raw)
	last := es[len(es)-1]
	require.Equal(t, "found", last.name)
	share := -1.0
	for _, e := range es[:len(es)-1] {
		var p Progress
		require.Equal(t, "progress", e.name)
		require.NoError(t, json.Unmarshal(e.data, &p))
		assert.GreaterOrEqual(t, p.Share, share, "progress only rises")
		share = p.Share
	}
	var found Traced
	require.NoError(t, json.Unmarshal(last.data, &found))
	require.Len(t, found.Pieces, 2)
	assert.InDelta(t, 1080, found.Pieces[0].Area, 2)
	assert.Contains(t, found.Sure, "as the file says")

	in := map[string]any{"pieces": []shape.Region{found.Pieces[0].Outline, found.Pieces[1].Outline}}
	body, _ := json.Marshal(in)
	es = events(t, s, "/api/scan/stack", "application/json", body)
	last = es[len(es)-1]
	require.Equal(t, "stacked", last.name)
	var st Stacked
	require.NoError(t, json.Unmarshal(last.data, &st))
	require.Len(t, st.Seats, 2)
	assert.Equal(t, kit.FitEvenRim, st.Seats[1].Fit)
	assert.Equal(t, 0, st.Seats[1].Host)

	layer := func(label string, seat Seat, host int) KeptLayer {
		return KeptLayer{Label: label, Fit: seat.Fit, Host: host, Pieces: []KeptPiece{{Outline: found.Pieces[seat.Piece].Outline, Turn: seat.Turn, X: seat.X, Y: seat.Y}}}
	}
	kept, _ := json.Marshal(map[string]any{"name": "Two leaves", "kind": "die", "tags": []string{"plain"}, "layers": []KeptLayer{layer("Base", st.Seats[0], -1), layer("Top", st.Seats[1], 0)}})
	w := call(s, http.MethodPost, "/api/scan/keep", string(kept))
	require.Equal(t, 200, w.Code, w.Body.String())
	var set kit.Set
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &set))
	assert.Equal(t, "p1", set.Parts[1].Host)
	assert.Equal(t, 2, set.Parts[1].Rank)
	gap, _, _ := set.Parts[1].Outline.Gap(set.Parts[0].Outline)
	assert.InDelta(t, 1.5, gap, 0.1, "laid evenly on the base")

	w = call(s, http.MethodGet, "/api/sets/"+set.ID+"/set.svg?as=cut", "")
	require.Equal(t, 200, w.Code)
	assert.Contains(t, w.Body.String(), `stroke-width="0.01"`)
	d, err := svgin.Read(call(s, http.MethodGet, "/api/sets/"+set.ID+"/set.svg", "").Body.Bytes())
	require.NoError(t, err)
	assert.Len(t, d.Parts, 2)
	assert.Equal(t, 404, call(s, http.MethodGet, "/api/sets/"+set.ID+"/set.svg?part=p9", "").Code)
}

func TestMirroredPiecesAreTurnedOver(t *testing.T) {
	tri := shape.New(true, shape.Ring{{X: 0, Y: 0}, {X: 10, Y: 0}, {X: 0, Y: 6}})
	g, err := place([]KeptPiece{{Outline: tri, Mirror: true}})
	require.NoError(t, err)
	assert.InDelta(t, 30, g.Area(), 1e-6)
	assert.InDelta(t, tri.Centroid().X, g.Centroid().X, 1e-6, "about its own middle")
	assert.True(t, g.Contains(shape.Point{X: 6, Y: 0.5}) && !tri.Contains(shape.Point{X: 6.6, Y: 4}))
}

func TestBadPicturesOverTheAPI(t *testing.T) {
	s := testServer(t)
	before, err := s.store.Kit(t.Context())
	require.NoError(t, err)
	send := func(q string, raw []byte) Refusal {
		return refusedWith(t, events(t, s, "/api/scan?"+q, "application/octet-stream", raw))
	}
	piece := sim.Item{Outline: shape.Rect(20, 20, 30, 20), Colour: sim.Papers[0]}
	assert.Contains(t, send("as=pieces", []byte("words")).Detail, "not a picture")
	assert.Contains(t, send("as=pieces", sheetOf(t, 1, piece)).Detail, "does not say at how many dots")
	assert.Contains(t, send("as=pieces&dpi=20", sheetOf(t, 300, piece)).Detail, "Scan at 150 dpi or more")
	assert.Contains(t, send("as=pieces", sheetOf(t, 300)).Detail, "No pieces can be told")
	assert.Contains(t, send("as=pieces&ground=light", sheetOf(t, 300, piece)).Detail, "The sheet is dark")
	assert.Contains(t, send("as=mat", sheetOf(t, 300, piece)).Detail, "mat cannot be found")
	assert.Contains(t, send("as=stencil", sheetOf(t, 300, piece)).Detail, "No openings")
	assert.Equal(t, "/problems/picture", send("as=pieces", nil2(t)).Type)
	sets, err := s.store.Kit(t.Context())
	require.NoError(t, err)
	assert.Len(t, sets.Sets, len(before.Sets), "nothing half-imported")
}

// nil2 is a PNG cut off in the middle.
func nil2(t *testing.T) []byte {
	raw := sheetOf(t, 300, sim.Item{Outline: shape.Rect(20, 20, 30, 20), Colour: sim.Papers[0]})
	return raw[:len(raw)/2]
}

func TestSplitOverTheAPI(t *testing.T) {
	s := testServer(t)
	box := shape.Rect(0, 0, 20, 10)
	body, _ := json.Marshal(map[string]any{"outline": box, "colour": "#aabbcc", "ax": 8, "ay": -1, "bx": 8, "by": 11})
	w := call(s, http.MethodPost, "/api/scan/split", string(body))
	require.Equal(t, 200, w.Code, w.Body.String())
	var parts []TracedOutline
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &parts))
	require.Len(t, parts, 2)
	assert.InDelta(t, 120, parts[0].Area, 0.5)
	body, _ = json.Marshal(map[string]any{"outline": box, "colour": "", "ax": 8, "ay": 2, "bx": 8, "by": 5})
	w = call(s, http.MethodPost, "/api/scan/split", string(body))
	assert.Equal(t, 422, w.Code)
	_, detail, _ := problemOf(t, w)
	assert.Contains(t, detail, "does not part")
}

func TestDrawnSetsScaleAndUses(t *testing.T) {
	s := testServer(t)
	w := call(s, http.MethodPost, "/api/sets/basic", `{"kind":"circle","w":80,"count":3,"step":5}`)
	require.Equal(t, 200, w.Code, w.Body.String())
	var set kit.Set
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &set))
	assert.Equal(t, "Circle", set.Name)
	w = call(s, http.MethodPost, "/api/sets/"+set.ID+"/scale", `{"width":40}`)
	require.Equal(t, 200, w.Code)
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &set))
	assert.InDelta(t, 40, set.Parts[0].Outline.Bounds().W(), 0.02)
	assert.InDelta(t, 30, set.Parts[2].Outline.Bounds().W(), 0.02, "60 mm of 80 become 30 of 40")
	assert.Equal(t, 422, call(s, http.MethodPost, "/api/sets/basic", `{"kind":"circle","w":10,"count":6,"step":2}`).Code)

	w = call(s, http.MethodPost, "/api/sets/basic", `{"kind":"stitched","w":60,"h":40}`)
	require.Equal(t, 200, w.Code, w.Body.String())
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &set))
	dashes := strings.Count(set.Parts[0].Lines, "M")
	w = call(s, http.MethodPost, "/api/sets/"+set.ID+"/scale", `{"width":30}`)
	require.Equal(t, 200, w.Code, w.Body.String())
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &set))
	assert.Equal(t, dashes, strings.Count(set.Parts[0].Lines, "M"), "every stitch is kept")
	assert.Contains(t, set.Parts[0].Lines, "M-14.25 ", "stitches 1.5 mm in from 60 mm lie 0.75 mm in from 30")

	w = call(s, http.MethodPost, "/api/sets/words", `{"text":"Moth","height":12,"shadow":1.5}`)
	require.Equal(t, 200, w.Code, w.Body.String())
	require.NoError(t, json.Unmarshal(w.Body.Bytes(), &set))
	assert.Equal(t, []string{"Shadow", "Words", "Islands, loose"}, []string{set.Parts[0].Label, set.Parts[1].Label, set.Parts[2].Label})
	assert.Equal(t, 422, call(s, http.MethodPost, "/api/sets/words", `{"text":"   ","height":12}`).Code)

	w = call(s, http.MethodGet, "/api/sets/uses", "")
	assert.Contains(t, w.Body.String(), `"set":"hawk-moth","cards":["Lamp-sitters' thanks"]`)
	w = call(s, http.MethodGet, "/api/mat.pdf?page=a4&field=dark", "")
	assert.True(t, strings.HasPrefix(w.Body.String(), "%PDF-"))
}

func TestSimulatedDeviceIsForTheDemo(t *testing.T) {
	s := testServer(t)
	w := call(s, http.MethodGet, "/api/device/sets", "")
	assert.Contains(t, w.Body.String(), "Toadstool")
	for as, mime := range map[string]string{"pieces": "image/png", "stencil": "image/png"} {
		w = call(s, http.MethodGet, fmt.Sprintf("/api/device/%s?set=sim-leaf&seed=2", as), "")
		require.Equal(t, 200, w.Code)
		assert.Equal(t, mime, w.Header().Get("Content-Type"))
	}
	assert.Equal(t, 404, call(s, http.MethodGet, "/api/device/pieces?set=none", "").Code)
	own := New(s.store)
	assert.Equal(t, 404, call(own, http.MethodGet, "/api/device/sets", "").Code, "a person's own stores have no pretend devices")
}

// What a measured scanner stretches is taken off everything found in its scans alike: the
// lines etched into a stencil stay with its openings.
func TestAMeasuredScannerCorrectsAllThatIsFound(t *testing.T) {
	s := testServer(t)
	sets, err := sim.Sets()
	require.NoError(t, err)
	raw, err := sim.PNG(sim.Stencil(sets[1], 10).Scan(300, sim.Plain(), 1), 300)
	require.NoError(t, err)
	require.NoError(t, s.keepScanners(t.Context(), []Scanner{{Name: "Hall", From: "card", On: "2026-01-02", Axes: axes.Axes{X: 1.02, Y: 0.98, Sure: 0.001, DPI: 300}}}))
	read := func(more string) (openings, lines shape.Box) {
		es := events(t, s, "/api/scan?as=stencil"+more, "application/octet-stream", raw)
		require.Equal(t, "found", es[len(es)-1].name, string(es[len(es)-1].data))
		var got Traced
		require.NoError(t, json.Unmarshal(es[len(es)-1].data, &got))
		var all []shape.Region
		for _, p := range got.Pieces {
			all = append(all, p.Outline)
		}
		u, err := shape.UnionAll(all...)
		require.NoError(t, err)
		runs, err := shape.Lines(got.Lines)
		require.NoError(t, err)
		var ring shape.Ring
		for _, r := range runs {
			ring = append(ring, r...)
		}
		require.NotEmpty(t, ring)
		return u.Bounds(), shape.Raw(ring).Bounds()
	}
	was, drawn := read("")
	is, moved := read("&scanner=Hall")
	for name, pair := range map[string][2]shape.Box{"openings": {was, is}, "lines": {drawn, moved}} {
		assert.InDelta(t, 1.02*pair[0].Max.X, pair[1].Max.X, 0.1, name)
		assert.InDelta(t, 0.98*pair[0].Max.Y, pair[1].Max.Y, 0.1, name)
	}
}
