package card_test

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
)

// Cards as version 1 of the document stored them, with everything odd in them.
func old(t *testing.T, name string) []byte {
	b, err := os.ReadFile(filepath.Join("testdata", "v1", name+".json"))
	require.NoError(t, err)
	return b
}

// Every stored card of version 1 is brought up, and nothing of it is lost.
func TestVersion1IsBroughtUp(t *testing.T) {
	files, err := filepath.Glob(filepath.Join("..", "trial", "cards", "*.json"))
	require.NoError(t, err)
	require.Greater(t, len(files), 12)
	for _, f := range files {
		b, err := os.ReadFile(f)
		require.NoError(t, err)
		var was struct {
			Version  int
			Sheets   []json.RawMessage
			Elements []json.RawMessage
			Patterns []json.RawMessage
		}
		require.NoError(t, json.Unmarshal(b, &was))
		if was.Version != 1 {
			continue
		}
		c, err := card.Read(b)
		require.NoError(t, err, f)
		assert.Equal(t, card.Version, c.Version)
		assert.Len(t, c.Elements, len(was.Sheets)+len(was.Elements)+len(was.Patterns), f)
		assert.Len(t, c.Mats(), len(was.Sheets), f)
		assert.NoError(t, c.Validate(), f)
		again, err := json.Marshal(c)
		require.NoError(t, err)
		twice, err := card.Read(again)
		require.NoError(t, err)
		assert.Equal(t, c, twice, "%s: read again as written", f)
	}
}

func TestWhatTheUpgradeMakesOfThings(t *testing.T) {
	c, err := card.Read(old(t, "odd"))
	require.NoError(t, err)
	assert.Equal(t, []string{"mat", "panel", "p1", "e1", "e2", "e3"}, ids(c))
	mats, panel := c.Mats(), c.Elements[1]
	assert.Len(t, mats, 2)
	assert.Equal(t, "mat", panel.On)
	assert.Equal(t, card.Even(1.5), panel.Inset)
	assert.Equal(t, card.Foam("foam", 2), panel.Bonds)
	assert.Equal(t, card.Beside, c.Elements[2].Face, "a pattern was never laid on the card")
	assert.Equal(t, 8, c.Elements[2].Sheet.Turned().Turns)
	assert.InDelta(t, 101.6, c.Elements[2].Sheet.W, 0)
	e := c.Elements[3]
	assert.Equal(t, "panel", e.On)
	assert.Equal(t, card.Place{X: 40, Y: 50, Turn: 7}, e.Place)
	assert.Equal(t, &card.Image{Motif: "m1", Colourway: "w1"}, e.Image)
	assert.Equal(t, card.Glue("liquid"), e.Bonds)
	strip := c.Elements[4]
	assert.Empty(t, strip.Bonds, "laid loose")
	assert.Equal(t, "thank you", strip.Sheet.Words().Text)
	assert.True(t, strip.Sheet.Words().Emboss)
	assert.Equal(t, card.Foam("foam", 1), c.Motifs[0].Layers[1].Bonds, "no level counts as one")
	assert.Equal(t, []card.Step{{Verb: "fold"}, {Verb: "blend", Motif: "m1", Colourway: "w1", Part: "a", N: 2}, {Verb: "place", Element: "e1"}, {Verb: "print", Element: "p1", Part: "a", N: 3}}, c.Order)
	done, used, err := card.Done1(old(t, "odd"))
	require.NoError(t, err)
	assert.Equal(t, []card.Step{{Verb: "cut", Element: "mat"}, {Verb: "ink", Motif: "m1", Colourway: "w1", Part: "a"}}, done)
	assert.Equal(t, map[card.Step]string{{Verb: "ink", Motif: "m1", Colourway: "w1", Part: "a"}: "blue"}, used)
	// A colourway nobody knows is no reason not to read the card; it is said when it is checked.
	assert.ErrorContains(t, c.Validate(), "elements[5].image.colourway")
}

func ids(c card.Card) (out []string) {
	for _, e := range c.Elements {
		out = append(out, e.ID)
	}
	return out
}

// What a later minor version may add is kept at every level, known or not.
func TestWhatIsNotKnownIsKept(t *testing.T) {
	doc := `{"version":2,"title":"T","base":{"format":"a2","w":108,"h":140,"fold":"side","paper":"","envelope":"","lining":{"x":1}},"motifs":[],
		"elements":[{"id":"r","face":"front","place":{"x":1,"y":2,"turn":0,"z":9},"tassel":{"length":120,"knots":[1,2]}},
		{"id":"s","face":"front","place":{"x":1,"y":2,"turn":0},"bonds":[{"adhesive":"g","zone":"edge"}],"sheet":{"paper":"","w":9,"h":9,"shape":{"kind":"wavy","gilt":1},"openings":[{"kind":"oval","w":3,"h":3},{"kind":"oval","w":4,"h":4,"hem":{"x":1}}],"treatments":[{"marble":{"ink":"i"}},{"edged":{"ink":"i","w":2,"deckle":{"n":[1]}}},{"bands":{"bands":[{"ink":"i","w":2,"nap":"soft"}]}}]}}],
		"setAside":[],"mood":"calm"}`
	c, err := card.Read([]byte(doc))
	require.NoError(t, err)
	assert.NoError(t, c.Validate(), "a thing of a kind not known is no fault")
	c.Title = "Another"
	b, err := json.Marshal(c)
	require.NoError(t, err)
	assert.JSONEq(t, strings.Replace(doc, `"title":"T"`, `"title":"Another"`, 1), string(b))
}

func TestNewerVersionsAreRefused(t *testing.T) {
	_, err := card.Read([]byte(`{"version":3}`))
	assert.ErrorIs(t, err, card.ErrNewer)
	assert.ErrorContains(t, err, "bring this program up to date")
	_, err = card.Read([]byte(`{"version":`))
	assert.Error(t, err)
	_, err = card.Read([]byte(`[]`))
	assert.Error(t, err)
	// An empty card of version 1, without a single list.
	c, err := card.Read([]byte(`{"version":1,"title":"x","base":{"w":100,"h":100}}`))
	require.NoError(t, err)
	assert.Empty(t, c.Elements)
	assert.NoError(t, c.Validate())
}

// Four hundred images, as many as a card may have, and one more.
func TestManyElementsAreBroughtUp(t *testing.T) {
	doc := func(n int) []byte {
		var es []string
		for i := range n {
			es = append(es, fmt.Sprintf(`{"id":"x%d","kind":"motif","x":%d,"y":%d,"turn":%d,"joint":{"kind":"glue"},"motif":"m1","colourway":"w1"}`, i, i%100, i/4, i))
		}
		return []byte(`{"version":1,"title":"` + strings.Repeat("n", 120) + `","base":{"format":"a2","w":108,"h":140,"fold":"side","paper":"","envelope":""},"sheets":[],"motifs":[{"id":"m1","name":"M","set":"s","school":"local colour","layers":[{"id":"a","part":"a","label":"A","make":"printed","rank":1,"fit":"free","copies":1,"joint":{"kind":"glue"}}],"colourways":[{"id":"w1","name":"First","layers":null}]}],"elements":[` + strings.Join(es, ",") + `],"work":{"done":null},"setAside":null}`)
	}
	c, err := card.Read(doc(400))
	require.NoError(t, err)
	assert.Len(t, c.Elements, 400)
	assert.NoError(t, c.Validate())
	c, err = card.Read(doc(401))
	require.NoError(t, err, "it is read")
	assert.ErrorContains(t, c.Validate(), "at most 400 elements")
}

// Pieces were popped out one by one: the one step of today is done when all of them were.
func TestPoppedPiecesBecomeOneStep(t *testing.T) {
	doc := func(done string) []byte {
		return []byte(`{"version":1,"title":"x","motifs":[{"id":"m","layers":[{"id":"a","make":"cut"},{"id":"b","make":"printed"},{"id":"c","make":"cut"}]}],"work":{"done":[` + done + `]}}`)
	}
	done, _, err := card.Done1(doc(`"pop:m:w:a","base"`))
	require.NoError(t, err)
	assert.Equal(t, []card.Step{{Verb: "fold"}}, done, "one of two is not all")
	done, _, err = card.Done1(doc(`"pop:m:w:a","pop:m:w:c"`))
	require.NoError(t, err)
	assert.Equal(t, []card.Step{{Verb: "pop", Motif: "m", Colourway: "w"}}, done)
}
