package inkfile_test

import (
	"bytes"
	"encoding/csv"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/core/work"
	"ochrestone/demo"
	"ochrestone/exchange/inkfile"
)

func TestRecipeOfACard(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	cards := demo.Cards(k)
	moth := inkfile.Recipes(cards[0], k, plan.Of(cards[0], k), nil)
	require.Len(t, moth, 10)
	assert.Equal(t, "print", moth[9].Layer, "the words of its strip")
	assert.NotEmpty(t, moth[9].Dry)
	assert.Equal(t, "Silhouette", moth[0].Layer)
	assert.Equal(t, "Flint, 80 lb", moth[0].Paper)
	assert.Zero(t, moth[0].Impressions, "cut plain")
	assert.Equal(t, "Madder, full", moth[1].Ink)
	assert.Empty(t, moth[3].Paper, "a print has no paper of its own")

	rows := inkfile.Recipes(cards[1], k, plan.Of(cards[1], k), nil)
	rows = rows[:20]
	assert.Len(t, rows, 20, "five colourways of four steps")
	var b bytes.Buffer
	require.NoError(t, inkfile.WriteRecipe(&b, rows))
	table, err := csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	require.Len(t, table, 21)
	assert.Equal(t, "lightness", table[0][10])
	assert.Equal(t, "all over", table[1][4])
	assert.Equal(t, "1", table[1][7])
	assert.Empty(t, table[1][6], "used as planned")

	// A blend is a line of its own, and so is what was really used.
	layer := cards[0].Motifs[0].Layers[1].ID
	way := cards[0].Motifs[0].Colourways[0]
	f := way.Layers[layer]
	f.Blends, f.Edge = []card.Blend{{Ink: f.Ink, Zone: card.Foot, Impressions: 2}}, f.Ink
	way.Layers[layer] = f
	used := inkfile.Used{card.Step{Verb: "blend", Motif: cards[0].Motifs[0].ID, Colourway: way.ID, Part: layer, N: 1}: k.Inks[0].ID}
	blended := inkfile.Recipes(cards[0], k, plan.Of(cards[0], k), used)
	require.Len(t, blended, 12)
	assert.Equal(t, "foot", blended[2].Zone)
	assert.Equal(t, 2, blended[2].Impressions)
	assert.Equal(t, k.Inks[0].Name, blended[2].Used)
	assert.Equal(t, "edge", blended[3].Zone)

	b.Reset()
	require.NoError(t, inkfile.WriteGPL(&b, "moth", inkfile.Palette(moth)))
	back, err := inkfile.ReadGPL(b.Bytes())
	require.NoError(t, err)
	assert.Len(t, back.Inks, 10)

	cards[0].Motifs[0].Set = "gone"
	for _, r := range inkfile.Recipes(cards[0], k, plan.Of(cards[0], k), nil) {
		assert.NotEqual(t, "Hawk-moth", r.Image, "an image that cannot be worked out has no recipe")
	}
}

// Words in two tones are two lines: the first ink all over, the second on the foot; their step
// loads the stamp with both, and the picture shows both.
func TestWordsInTwoTones(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[0]
	i := slices.IndexFunc(c.Elements, func(e card.Element) bool { return e.Sheet != nil && e.Sheet.Words() != nil })
	require.GreaterOrEqual(t, i, 0)
	was := plan.Of(c, k, plan.Typeface(trial.Blocks{}))
	w := *c.Elements[i].Sheet.Words()
	w.Ink, w.Shade = "mere-soft", "mere-deep"
	for n, tr := range c.Elements[i].Sheet.Treatments {
		if tr.Words != nil {
			c.Elements[i].Sheet.Treatments[n].Words = &w
		}
	}
	require.NoError(t, c.Validate())
	p := plan.Of(c, k, plan.Typeface(trial.Blocks{}))
	var zones []string
	for _, r := range inkfile.Recipes(c, k, p, nil) {
		if r.Layer == "print" {
			zones = append(zones, r.Zone+" "+r.Ink)
		}
	}
	assert.Equal(t, []string{"all over Mere, soft", "foot Mere, deep"}, zones)
	at := slices.IndexFunc(p.Steps, func(a work.Act) bool { return strings.Contains(a.Title, w.Text) })
	require.GreaterOrEqual(t, at, 0)
	assert.Contains(t, p.Steps[at].Detail, "Mere, soft, then Mere, deep dabbed on the foot of the stamp")
	films := func(p plan.Plan) (n int) {
		for _, e := range p.Front.Elements {
			if e.ID == c.Elements[i].ID {
				for _, d := range e.Drawn {
					n += len(d.Films)
				}
			}
		}
		return n
	}
	assert.Greater(t, films(p), films(was))
	assert.Contains(t, c.Elements[i].Sheet.Treatments[0].Inks(), "mere-deep", "the stores are asked for it")
}

// Everything that holds ink is in the recipe: each ink that a step of any of the cards takes,
// on images, sheets, the base, letters, their edges and their backs.
func TestEveryInkIsInTheRecipe(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	for _, c := range append(demo.Cards(k), trial.Everything()) {
		p := plan.Of(c, k)
		rows := inkfile.Recipes(c, k, p, nil)
		n := 0
		for _, a := range p.Steps {
			ink, ok := k.Ink(a.Ink)
			if !ok {
				continue
			}
			n++
			assert.True(t, slices.ContainsFunc(rows, func(r inkfile.Recipe) bool { return r.Ink == ink.Name }), "%s: %s of “%s”", c.Title, ink.Name, a.Title)
		}
		assert.Positive(t, n, c.Title)
		for _, r := range rows {
			if r.Ink != "" {
				assert.NotEmpty(t, r.Dry, "%s: %+v", c.Title, r)
			}
		}
	}
}

// What was used on one strike of a turned pattern, or on one lot of a sitting, is told, and how
// that dries.
func TestWhatWasUsedOnAStrike(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	for _, c := range demo.Cards(k) {
		p := plan.Of(c, k)
		if len(p.Patterns) == 0 {
			continue
		}
		for _, a := range p.Steps {
			m, w, l := a.Layer()
			if a.ID.N == 0 || a.ID.Element == "" || m == "" {
				continue
			}
			of := a.ID
			of.Lot = "lot"
			other := k.Inks[len(k.Inks)-1]
			require.NotEqual(t, other.ID, a.Ink)
			mo, _ := c.Motif(m)
			way, _ := mo.Colourway(w)
			at := slices.IndexFunc(mo.Layers, func(o card.Layer) bool { return o.ID == l })
			told := 0
			for _, r := range inkfile.Recipes(c, k, p, inkfile.Used{of: other.ID}) {
				if r.Used == "" {
					continue
				}
				told++
				assert.Equal(t, [3]string{mo.Name, way.Name, mo.Layers[at].Label}, [3]string{r.Image, r.Colourway, r.Layer})
				assert.Equal(t, other.Name, r.Used)
				assert.NotEmpty(t, r.UsedDry)
				assert.NotEqual(t, r.Dry, r.UsedDry, "the swatch is of the ink that was used")
			}
			assert.Equal(t, 1, told)
			return
		}
	}
	t.Fatal("no demo card turns a pattern")
}
