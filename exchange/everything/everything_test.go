package everything

import (
	"archive/zip"
	"bytes"
	"encoding/csv"
	"encoding/json"
	"io"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/demo"
	"ochrestone/exchange/svgin"
)

// What goes out is read back by readers of the formats: JSON, CSV, and drawings by
// our own importer.
func TestEverythingIsInTheZip(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	cards := demo.Cards(k)
	a := All{Kit: k, Settings: map[string]string{"unit": "mm"}, Log: [][]string{{"at", "layer"}, {"now", "=x"}}, At: time.Date(2026, 1, 2, 3, 4, 6, 0, time.UTC)}
	for _, c := range cards {
		a.Cards = append(a.Cards, Named{ID: "x", Card: c}, Named{ID: "y", Card: c})
	}
	a.Apart = []Raw{{"sets", "far", []byte("{broken")}}
	var b bytes.Buffer
	require.NoError(t, Write(&b, a, func(c card.Card) plan.Plan { return plan.Of(c, k) }))
	z, err := zip.NewReader(bytes.NewReader(b.Bytes()), int64(b.Len()))
	require.NoError(t, err)
	got := map[string][]byte{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		got[f.Name], err = io.ReadAll(r)
		require.NoError(t, err)
		require.NoError(t, r.Close())
	}
	var c card.Card
	require.NoError(t, json.Unmarshal(got["cards/Lamp-sitters-thanks.json"], &c))
	assert.Equal(t, cards[0].Elements, c.Elements)
	assert.Contains(t, got, "cards/Lamp-sitters-thanks-2.json", "two cards of one name")
	d, err := svgin.Read(got["sets/Hawk-moth.svg"])
	require.NoError(t, err)
	assert.Len(t, d.Parts, 9)
	inks, err := csv.NewReader(bytes.NewReader(got["stores/inks.csv"])).ReadAll()
	require.NoError(t, err)
	assert.Len(t, inks, len(k.Inks)+1)
	for _, name := range []string{"papers", "spacers", "adhesives", "envelopes", "swatches"} {
		assert.Contains(t, got, "stores/"+name+".csv")
	}
	assert.Contains(t, string(got["log.csv"]), "'=x")
	assert.Equal(t, "{broken", string(got["apart/sets-far.txt"]))
}

func TestFileNames(t *testing.T) {
	for title, want := range map[string]string{
		"Lamp-sitters’ thanks": "Lamp-sitters-thanks", "感謝": "感謝", "Спасибо!": "Спасибо", "../../etc": "etc", "  ": "untitled", "🙂": "untitled", "con": "con-",
	} {
		assert.Equal(t, want, FileName(title), title)
	}
	assert.LessOrEqual(t, len([]rune(FileName(strings.Repeat("a b", 100)))), 61)
	assert.Equal(t, "ochrestone", ASCII("感謝"))
}
