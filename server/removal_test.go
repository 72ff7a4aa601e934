package server

import (
	"encoding/json"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
)

// What a card uses is kept for it when it is taken out, is offered no more, and comes back as it
// was; what no card uses goes, and comes back too.
func TestATakenItemIsKeptForItsCardsAndCanBeUndone(t *testing.T) {
	s := testServer(t)
	before := read[View](t, call(s, http.MethodGet, "/api/cards/moth", ""))
	mat := before.Card.Elements[0].Sheet.Paper
	used := read[Used](t, call(s, http.MethodGet, "/api/kit/papers/"+mat+"/uses", ""))
	assert.Contains(t, used.Cards, before.Card.Title)

	took := read[Took[kit.Cardstock]](t, call(s, http.MethodDelete, "/api/kit/papers/"+mat, ""))
	assert.True(t, took.Kept)
	assert.Equal(t, used.Cards, took.Cards)
	after := read[View](t, call(s, http.MethodGet, "/api/cards/moth", ""))
	assert.Equal(t, before.Plan.Front.Sheets, after.Plan.Front.Sheets, "the mat is no other colour")
	notes := 0
	for _, f := range after.Plan.Findings {
		if f.Rule == "away" {
			notes++
			assert.Contains(t, f.What, took.Item.Name)
		}
	}
	assert.Equal(t, 1, notes)
	st := read[State](t, call(s, http.MethodGet, "/api/state", ""))
	_, offered := st.Kit.Paper(mat)
	assert.False(t, offered)
	_, kept := st.Away.Paper(mat)
	assert.True(t, kept)

	doc, err := json.Marshal(took.Item)
	require.NoError(t, err)
	require.Equal(t, 200, call(s, http.MethodPut, "/api/kit/papers/"+mat, string(doc)).Code)
	undone := read[View](t, call(s, http.MethodGet, "/api/cards/moth", ""))
	assert.Equal(t, before.Plan.Findings, undone.Plan.Findings)

	spare := kit.Cardstock{ID: "spare", Name: "Spare", Kind: kit.PaperCard, Colour: "#ffffff", GSM: 200, Caliper: 0.3}
	doc, err = json.Marshal(spare)
	require.NoError(t, err)
	require.Equal(t, 200, call(s, http.MethodPut, "/api/kit/papers/spare", string(doc)).Code)
	gone := read[Took[kit.Cardstock]](t, call(s, http.MethodDelete, "/api/kit/papers/spare", ""))
	assert.False(t, gone.Kept)
	assert.Equal(t, spare.Name, gone.Item.Name)
	assert.Equal(t, http.StatusNotFound, call(s, http.MethodDelete, "/api/kit/papers/spare", "").Code)
}
