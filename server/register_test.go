package server

import (
	"encoding/json"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/advise"
	"ochrestone/core/placing"
	"ochrestone/demo/sim"
)

// firstOf names the first image and colourway of a card, and its layers.
func firstOf(t *testing.T, s *Server, id string) (motif, way string, layers []string) {
	v := read[View](t, call(s, http.MethodGet, "/api/cards/"+id, ""))
	m := v.Card.Motifs[0]
	for _, l := range m.Layers {
		layers = append(layers, l.ID)
	}
	return m.ID, m.Colourways[0].ID, layers
}

func TestPlacingOverTheAPI(t *testing.T) {
	s := testServer(t)
	m, w, layers := firstOf(t, s, "beetles")
	q := url.Values{"motif": {m}, "colourway": {w}, "layer": {layers[1]}, "run": {"30"}}
	p := read[placing.Placing](t, call(s, http.MethodGet, "/api/cards/beetles/placing?"+q.Encode(), ""))
	assert.Equal(t, layers[1], p.Layer)
	assert.True(t, p.Play.Judged)
	assert.Len(t, p.Layers, len(layers))
	require.NotEmpty(t, p.Ways)
	for _, way := range p.Ways {
		assert.True(t, way.Blanks == 0 || way.Blanks >= 30)
	}
	q.Set("layer", "none")
	assert.Equal(t, 404, call(s, http.MethodGet, "/api/cards/beetles/placing?"+q.Encode(), "").Code)
	q.Set("run", "0")
	assert.Equal(t, 422, call(s, http.MethodGet, "/api/cards/beetles/placing?"+q.Encode(), "").Code)
	assert.Equal(t, 404, call(s, http.MethodGet, "/api/cards/none/placing?"+"motif=a&colourway=b&layer=c", "").Code)
}

// A ring of six: the chord is the radius (geometry), and a jig for it is printed,
// or refused in words when it is too large for the page.
func TestRingsAndJigsOverTheAPI(t *testing.T) {
	s := testServer(t)
	type ring struct {
		Step, Radius, Touch, Across float64
		Fits                        bool
	}
	r := read[ring](t, call(s, http.MethodGet, "/api/ring?turns=6&width=20&gap=4", ""))
	assert.Equal(t, 60.0, r.Step)
	assert.InDelta(t, 24, r.Radius, 1e-9)
	assert.InDelta(t, 20, r.Touch, 1e-9)
	assert.InDelta(t, 68, r.Across, 1e-9)
	assert.True(t, r.Fits)
	assert.False(t, read[ring](t, call(s, http.MethodGet, "/api/ring?turns=12&width=60&gap=4", "")).Fits)
	assert.Equal(t, 422, call(s, http.MethodGet, "/api/ring?turns=2&width=20", "").Code)

	w := call(s, http.MethodGet, "/api/jig.pdf?turns=6&width=20&gap=4&kind=disc", "")
	require.Equal(t, 200, w.Code)
	assert.True(t, strings.HasPrefix(w.Body.String(), "%PDF-"))
	assert.Contains(t, w.Header().Get("Content-Disposition"), "turning-jig-6.pdf")
	w = call(s, http.MethodGet, "/api/jig.pdf?turns=12&width=60&gap=4", "")
	kind, detail, _ := problemOf(t, w)
	assert.Equal(t, 422, w.Code)
	assert.Equal(t, "/problems/jig", kind)
	assert.Contains(t, detail, "Take fewer turns")
	assert.Equal(t, 422, call(s, http.MethodGet, "/api/jig.pdf?turns=six&width=20", "").Code)
}

// Five beetles from the drawer, all different, then shared out so that no two
// neighbours on the slimline are alike.
func TestSetsOfColourwaysOverTheAPI(t *testing.T) {
	s := testServer(t)
	m, w, _ := firstOf(t, s, "beetles")
	type ways struct {
		Colourways []advise.Suggestion
		Least      float64
		Say        string
	}
	ask := `{"motif":"` + m + `","colourway":"` + w + `","school":"light ground"}`
	got := read[ways](t, call(s, http.MethodPost, "/api/cards/beetles/colourways?n=4", ask))
	require.Len(t, got.Colourways, 4)
	assert.Greater(t, got.Least, 10.0)
	names := map[string]bool{}
	for _, x := range got.Colourways {
		names[x.Name] = true
	}
	assert.Len(t, names, 4)
	assert.Contains(t, got.Say, "4 colourways")
	assert.Equal(t, 422, call(s, http.MethodPost, "/api/cards/beetles/colourways?n=1", ask).Code)

	type spread struct {
		Elements map[string]string
		Clashes  int
	}
	sp := read[spread](t, call(s, http.MethodGet, "/api/cards/beetles/spread?motif="+m, ""))
	assert.Len(t, sp.Elements, 5)
	assert.Zero(t, sp.Clashes)
	v := read[View](t, call(s, http.MethodGet, "/api/cards/beetles", ""))
	last := ""
	for _, e := range v.Card.Elements {
		if e.Image != nil && e.Image.Motif == m {
			assert.NotEqual(t, last, sp.Elements[e.ID], "in a row each differs from the one before")
			last = sp.Elements[e.ID]
		}
	}
}

// A proof from the simulated scanner, sent as a file: every layer is measured
// with its certainty; what is no proof is refused and says what to do.
func TestProofOverTheAPI(t *testing.T) {
	s := testServer(t)
	m, w, layers := firstOf(t, s, "beetles")
	q := url.Values{"motif": {m}, "colourway": {w}}
	send := func(picture []byte, dpi, kind string) json.RawMessage {
		x := url.Values{"motif": {m}, "colourway": {w}, "dpi": {dpi}}
		all := events(t, s, "/api/cards/beetles/proof?"+x.Encode(), "application/octet-stream", picture)
		last := all[len(all)-1]
		require.Equal(t, kind, last.name, string(last.data))
		return last.data
	}
	q.Set("card", "beetles")
	q.Set("seed", "7")
	scan := call(s, http.MethodGet, "/api/device/proof?"+q.Encode(), "").Body.Bytes()
	var got Proofed
	require.NoError(t, json.Unmarshal(send(scan, "0", "measured"), &got))
	require.Len(t, got.Prints, 1)
	require.Len(t, got.Prints[0].Layers, len(layers)-1)
	for _, l := range got.Prints[0].Layers {
		assert.False(t, l.Lost, l.Label)
		assert.Greater(t, l.SureShift, 0.0)
		assert.Less(t, l.SureShift, 0.05, "told to a twentieth of a mm")
		assert.NotEmpty(t, l.Say)
	}
	assert.Contains(t, got.Prints[0].Sure, "explains the picture to 9")
	assert.Empty(t, got.Run, "one print is no run")

	refusedAs := func(picture []byte, dpi string) string {
		var r Refusal
		require.NoError(t, json.Unmarshal(send(picture, dpi, "refused"), &r))
		assert.Equal(t, "/problems/picture", r.Type)
		return r.Detail
	}
	assert.Contains(t, refusedAs([]byte("no picture"), "0"), "not a picture")
	assert.Contains(t, refusedAs(scan, "72"), "200 dpi or more")
	assert.Contains(t, refusedAs(scan, "180"), "dots to the inch are right", "a wrong scale is noticed")
	dark, err := sim.PNG(sim.Bench{W: 60, H: 60, Sheet: sim.Black}.Scan(200, sim.Plain(), 1), 200)
	require.NoError(t, err)
	assert.Contains(t, refusedAs(dark, "0"), "bare paper all round")

	// The moth has cut pieces; two prints on one of them are all there is.
	m2, w2, _ := firstOf(t, s, "moth")
	x := url.Values{"motif": {m2}, "colourway": {w2}}
	all := events(t, s, "/api/cards/moth/proof?"+x.Encode(), "application/octet-stream", scan)
	assert.Equal(t, "refused", all[len(all)-1].name, "a beetle is no moth")
}
