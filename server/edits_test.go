package server

import (
	"encoding/json"
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/server/delta"
	"ochrestone/store"
)

// send makes edits on a version.
func send(s *Server, version int64, gesture string, edits ...card.Edit) (int, []byte) {
	body, err := json.Marshal(map[string]any{"edits": edits, "gesture": gesture})
	if err != nil {
		panic(err)
	}
	w := call(s, http.MethodPost, "/api/cards/moth/edits", string(body), "If-Match", fmt.Sprintf("%q", fmt.Sprint(version)))
	return w.Code, w.Body.Bytes()
}

// made is what an answer to a change makes of a card that was read before.
func made(t *testing.T, v View, answer []byte) View {
	t.Helper()
	var got Changed
	require.NoError(t, json.Unmarshal(answer, &got))
	raw, err := json.Marshal(told{v.Card, v.Plan})
	require.NoError(t, err)
	var doc any
	require.NoError(t, json.Unmarshal(raw, &doc))
	doc, err = delta.Apply(doc, got.Changes)
	require.NoError(t, err)
	raw, err = json.Marshal(doc)
	require.NoError(t, err)
	var is told
	require.NoError(t, json.Unmarshal(raw, &is))
	v.Version, v.CanUndo, v.CanRedo, v.Card, v.Plan = got.Version, got.CanUndo, got.CanRedo, is.Card, is.Plan
	return v
}

// An edit is answered with what changed, and nothing else; what was left out is as it was
// read before.
func TestAnEditIsAnsweredWithWhatChanged(t *testing.T) {
	s := testServer(t)
	v := read[View](t, call(s, http.MethodGet, "/api/cards/moth", ""))
	code, b := send(s, v.Version, "", card.Edit{Rename: &card.Rename{Title: "Another"}})
	require.Equal(t, 200, code, string(b))
	var got Changed
	require.NoError(t, json.Unmarshal(b, &got))
	assert.Equal(t, []delta.Change{{At: []string{"card", "title"}, Is: "Another"}}, got.Changes, "a name changes nothing of the plan")
	v = made(t, v, b)

	left := v.Plan.Front.Elements[0].Margins.Left
	code, b = send(s, v.Version, "", card.Edit{Move: &card.Move{Element: "e1", DX: 1}})
	require.Equal(t, 200, code, string(b))
	v = made(t, v, b)
	assert.InDelta(t, left+1, v.Plan.Front.Elements[0].Margins.Left, 1e-9)
	assert.Less(t, len(b), 6_000, "not the whole plan")

	f := v.Card.Motifs[0].Colourways[0].Layers["p7"]
	f.Ink = "soot-deep"
	code, b = send(s, v.Version, "", card.Edit{Finish: &card.SetFinish{Motif: "moth", Colourway: "bracken", Layers: map[string]card.Finish{"p7": f}}})
	require.Equal(t, 200, code, string(b))
	v = made(t, v, b)

	// All of it together is what is read anew.
	whole := read[View](t, call(s, http.MethodGet, "/api/cards/moth", ""))
	one, _ := json.Marshal(whole)
	two, _ := json.Marshal(v)
	assert.JSONEq(t, string(one), string(two))

	// A program that was started anew knows no more what it sent: it tells all.
	s.sent.Purge()
	code, b = send(s, v.Version, "", card.Edit{Move: &card.Move{Element: "e1", DX: -1}})
	require.Equal(t, 200, code, string(b))
	assert.InDelta(t, left, made(t, View{}, b).Plan.Front.Elements[0].Margins.Left, 1e-9)
}

// Keys held down send many edits without waiting; all are kept, and one undo takes them
// back.
func TestAHeldKeyIsKeptAndUndoneAtOnce(t *testing.T) {
	s := testServer(t)
	v := read[View](t, call(s, http.MethodGet, "/api/cards/moth", ""))
	at, _ := v.Card.Element("e1")
	for range 6 {
		var held []card.Edit
		for range 5 {
			held = append(held, card.Edit{Move: &card.Move{Element: "e1", DX: 0.5}})
		}
		code, b := send(s, v.Version, "hold-1", held...)
		require.Equal(t, 200, code, string(b))
		v = made(t, v, b)
	}
	e, _ := v.Card.Element("e1")
	assert.InDelta(t, at.Place.X+15, e.Place.X, 1e-9, "thirty presses of half a millimetre")
	w := call(s, http.MethodPost, "/api/cards/moth/undo", "", "If-Match", fmt.Sprintf("%q", fmt.Sprint(v.Version)))
	require.Equal(t, 200, w.Code)
	v = made(t, v, w.Body.Bytes())
	e, _ = v.Card.Element("e1")
	assert.InDelta(t, at.Place.X, e.Place.X, 1e-9)
	assert.False(t, v.CanUndo)
}

func TestEditsThatAreRefused(t *testing.T) {
	s := testServer(t)
	code, b := send(s, 1, "", card.Edit{Rename: &card.Rename{Title: "First tab"}}, card.Edit{Move: &card.Move{Element: "e1", DX: 1}})
	require.Equal(t, 200, code, string(b))
	code, b = send(s, 1, "", card.Edit{Rename: &card.Rename{Title: "Second tab"}})
	assert.Equal(t, http.StatusPreconditionFailed, code)
	assert.Contains(t, string(b), "in another window meanwhile: its title, Hawk-moth. Nothing was overwritten")
	code, b = send(s, 2, "", card.Edit{Remove: &card.Remove{Element: "gone"}})
	assert.Equal(t, http.StatusConflict, code)
	assert.Contains(t, string(b), "is not on this card any more")
	code, b = send(s, 2, "", card.Edit{})
	assert.Equal(t, http.StatusUnprocessableEntity, code, string(b))
	code, b = send(s, 2, "", card.Edit{Move: &card.Move{Element: "e1", DX: 9000}})
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, string(b), "out of reach of the card")
	assert.Equal(t, "First tab", read[View](t, call(s, http.MethodGet, "/api/cards/moth", "")).Card.Title)
}

// What is ticked is no change of the document.
func TestUndoNeverUnticks(t *testing.T) {
	s := testServer(t)
	v := read[View](t, call(s, http.MethodGet, "/api/cards/moth", ""))
	first := v.Plan.Steps[0].ID
	body, _ := json.Marshal(map[string]any{"steps": []card.Step{first}, "done": true})
	r := read[store.Run](t, call(s, http.MethodPost, "/api/cards/moth/run/done", string(body)))
	assert.Equal(t, []card.Step{first}, r.Done)
	code, b := send(s, 1, "", card.Edit{Rename: &card.Rename{Title: "x"}})
	require.Equal(t, 200, code, string(b))
	require.Equal(t, 200, call(s, http.MethodPost, "/api/cards/moth/undo", "", "If-Match", `"2"`).Code)
	r = read[store.Run](t, call(s, http.MethodGet, "/api/cards/moth/run", ""))
	assert.Equal(t, []card.Step{first}, r.Done)
	var tiles []Tile
	require.NoError(t, json.Unmarshal(call(s, http.MethodGet, "/api/cards", "").Body.Bytes(), &tiles))
	for _, tile := range tiles {
		if tile.ID == "moth" {
			assert.Equal(t, 1, tile.Done)
			assert.Equal(t, v.Plan.Steps[1].Title, tile.Next)
		}
	}
}

// A drag's drop: the edit saved on disk, planned and answered.
func BenchmarkADragsDrop(b *testing.B) {
	s := testServer(b)
	call(s, http.MethodGet, "/api/cards/moth", "")
	version := int64(1)
	for b.Loop() {
		if code, body := send(s, version, "", card.Edit{Move: &card.Move{Element: "e1", DX: 0.01}}); code != 200 {
			b.Fatal(string(body))
		}
		version++
	}
}

// The answer got lost and the page sends the same edits again: they are made once, and
// answered as if for the first time. Under another name they are a change of another window.
func TestEditsSentAgainAreMadeOnce(t *testing.T) {
	s := testServer(t)
	v := read[View](t, call(s, http.MethodGet, "/api/cards/moth", ""))
	at, _ := v.Card.Element("e1")
	again := func(batch string) (int, []byte) {
		w := call(s, http.MethodPost, "/api/cards/moth/edits", `{"edits":[{"move":{"element":"e1","dx":2}}],"batch":"`+batch+`"}`, "If-Match", fmt.Sprintf("%q", fmt.Sprint(v.Version)))
		return w.Code, w.Body.Bytes()
	}
	code, first := again("one")
	require.Equal(t, 200, code)
	code, second := again("one")
	require.Equal(t, 200, code)
	assert.Equal(t, string(first), string(second), "what it changed is told again")
	e, _ := made(t, v, second).Card.Element("e1")
	assert.InDelta(t, at.Place.X+2, e.Place.X, 1e-9)
	code, _ = again("two")
	assert.Equal(t, http.StatusPreconditionFailed, code)
}
