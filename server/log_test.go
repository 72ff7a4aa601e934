package server

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// A run of six in one scan: every print is measured, and the layer whose paper
// slips is said to drift.
func TestARunInOneScan(t *testing.T) {
	s := testServer(t)
	m, w, layers := firstOf(t, s, "beetles")
	q := url.Values{"motif": {m}, "colourway": {w}, "card": {"beetles"}, "as": {"run"}, "seed": {"2"}}
	scan := call(s, http.MethodGet, "/api/device/proof?"+q.Encode(), "").Body.Bytes()
	all := events(t, s, "/api/cards/beetles/proof?"+url.Values{"motif": {m}, "colourway": {w}}.Encode(), "application/octet-stream", scan)
	last := all[len(all)-1]
	require.Equal(t, "measured", last.name, string(last.data))
	var got Proofed
	require.NoError(t, json.Unmarshal(last.data, &got))
	require.Len(t, got.Prints, 6)
	require.Len(t, got.Run, len(layers)-1)
	slips := got.Run[len(got.Run)-1]
	assert.Equal(t, 6, slips.N)
	assert.InDelta(t, 0.12, slips.DriftX, 0.06, "0.12 mm a print, among errors of up to 0.15 mm")
	assert.Contains(t, slips.Say, "drifts")
	assert.NotContains(t, got.Run[0].Say, "drifts")
}

// Points set by hand on corners of the picture give back how a layer lies, with
// the dots to the inch known or taken from the first layer.
func TestPointsOverTheAPI(t *testing.T) {
	s := testServer(t)
	m, w, _ := firstOf(t, s, "beetles")
	q := url.Values{"motif": {m}, "colourway": {w}}
	marks := read[struct{ Layers []LayerMarks }](t, call(s, http.MethodGet, "/api/cards/beetles/marks?"+q.Encode(), ""))
	require.Greater(t, len(marks.Layers), 1)
	const perMM = 300 / 25.4
	sheet := register.Motion{Turn: 3, Move: shape.Point{X: 20, Y: 12}}
	off := register.Motion{Turn: 0.8, Move: shape.Point{X: 0.7, Y: -0.4}}
	ask := func(dpi float64, use []LayerMarks) string {
		type pts struct {
			Layer        string
			Design, Seen []Spot
		}
		var ls []map[string]any
		for i, l := range use {
			move := sheet
			if i > 0 {
				move = sheet.After(off)
			}
			var p pts
			for _, f := range l.Points {
				d := shape.Point{X: f.X, Y: f.Y}
				at := move.Point(d).Scale(perMM)
				p.Design, p.Seen = append(p.Design, Spot{d.X, d.Y}), append(p.Seen, Spot{at.X, at.Y})
			}
			ls = append(ls, map[string]any{"layer": l.Layer, "design": p.Design, "seen": p.Seen})
		}
		b, err := json.Marshal(map[string]any{"motif": m, "colourway": w, "dpi": dpi, "layers": ls})
		require.NoError(t, err)
		return string(b)
	}
	use := []LayerMarks{}
	for _, l := range marks.Layers {
		if len(l.Points) >= 2 {
			use = append(use, l)
		}
	}
	require.GreaterOrEqual(t, len(use), 2)
	require.Equal(t, marks.Layers[0].Layer, use[0].Layer)
	for _, dpi := range []float64{300, 0} {
		got := read[ProofedPrint](t, call(s, http.MethodPost, "/api/cards/beetles/points", ask(dpi, use)))
		require.Len(t, got.Layers, len(use)-1)
		for _, l := range got.Layers {
			assert.InDelta(t, 0.8, l.Turn, 0.01)
			assert.Greater(t, l.SureShift, 0.05, "a hand's points are not so sure")
			assert.NotEmpty(t, l.Say)
		}
	}
	one := use[1]
	one.Points = one.Points[:1]
	r := call(s, http.MethodPost, "/api/cards/beetles/points", ask(300, []LayerMarks{use[0], one}))
	assert.Equal(t, 422, r.Code)
	assert.Contains(t, r.Body.String(), "two corners")
}

// Placements are kept, teach the spread of their way, change what is advised, and
// can be taken back; practice is kept apart.
func TestTheLogTeachesTheHand(t *testing.T) {
	s := testServer(t)
	m, w, layers := firstOf(t, s, "beetles")
	layer := layers[1]
	add := func(way, source string, n int, off float64) *Log {
		var ps []map[string]any
		for i := range n {
			ps = append(ps, map[string]any{"layer": layer, "x": off * float64(1-2*(i%2)), "y": off, "turn": 0.2, "sureShift": 0.01, "sureTurn": 0.05, "good": true})
		}
		b, err := json.Marshal(map[string]any{"card": "beetles", "motif": m, "way": way, "source": source, "placements": ps})
		require.NoError(t, err)
		got := read[Log](t, call(s, http.MethodPost, "/api/log", string(b)))
		return &got
	}
	wayOf := func(id string) register.Prospect {
		p := read[placing.Placing](t, call(s, http.MethodGet, "/api/cards/beetles/placing?"+url.Values{"motif": {m}, "colourway": {w}, "layer": {layer}}.Encode(), ""))
		for _, x := range p.Ways {
			if x.ID == id {
				return x
			}
		}
		t.Fatal("no way " + id)
		return register.Prospect{}
	}
	before := wayOf("corner")
	assert.False(t, before.Own)
	add("corner", "practice", 20, 3)
	assert.Equal(t, before.Chance, wayOf("corner").Chance, "practice on the screen is no placement")
	l := add("corner", "print", 6, 0.9)
	after := wayOf("corner")
	assert.True(t, after.Own)
	assert.InDelta(t, 0.9, after.Spread.Shift, 1e-9)
	assert.Less(t, after.Chance, before.Chance)
	assert.Equal(t, 20, l.Practice.N)
	assert.True(t, l.Practice.Leans)

	l2 := read[Log](t, call(s, http.MethodDelete, "/api/log/"+l.Placements[0].Batch, ""))
	assert.Len(t, l2.Placements, 20)
	assert.False(t, wayOf("corner").Own)
	bad := `{"card":"beetles","motif":"` + m + `","way":"guesswork","source":"print","placements":[{"layer":"` + layer + `","x":0,"y":0,"turn":0,"sureShift":0,"sureTurn":0,"good":true}]}`
	assert.Equal(t, 422, call(s, http.MethodPost, "/api/log", bad).Code)
}

// Limits the person sets widen the play; the harm of a drift is told in numbers.
func TestFittingAndHarm(t *testing.T) {
	s := testServer(t)
	m, w, layers := firstOf(t, s, "beetles")
	q := url.Values{"motif": {m}, "colourway": {w}, "layer": {layers[1]}}
	tight := func() float64 {
		return read[placing.Placing](t, call(s, http.MethodGet, "/api/cards/beetles/placing?"+q.Encode(), "")).Play.Tight
	}
	f := read[Fitting](t, call(s, http.MethodGet, "/api/fitting", ""))
	assert.Equal(t, register.Defaults(), f.Limits)
	was := tight()
	f.Limits.Spill, f.Limits.RimShare = 1.5, 0.1
	b, err := json.Marshal(f)
	require.NoError(t, err)
	require.Equal(t, 200, call(s, http.MethodPut, "/api/fitting", string(b)).Code)
	assert.Greater(t, tight(), was)
	assert.Equal(t, 422, call(s, http.MethodPut, "/api/fitting", `{"limits":{"spill":90,"rimShare":0.5,"gap":0,"overlap":0},"hinge":{"side":"left","far":10}}`).Code)

	h := func(x float64) register.Harm {
		q.Set("x", fmt.Sprint(x))
		return read[register.Harm](t, call(s, http.MethodGet, "/api/cards/beetles/harm?"+q.Encode(), ""))
	}
	assert.False(t, h(0).Shows)
	assert.True(t, h(12).Shows)
	assert.Greater(t, h(12).SpillArea, h(6).SpillArea)
}
