package inkfile_test

import (
	"bytes"
	"encoding/csv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/plan"
	"ochrestone/demo"
	"ochrestone/exchange/inkfile"
)

func TestRecipeOfACard(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	cards := demo.Cards(k)
	moth := inkfile.Recipes(cards[0], k, plan.Of(cards[0], k))
	require.Len(t, moth, 9)
	assert.Equal(t, "Silhouette", moth[0].Layer)
	assert.Equal(t, "Flint, 80 lb", moth[0].Paper)
	assert.Zero(t, moth[0].Impressions, "cut plain")
	assert.Equal(t, "Madder, full", moth[1].Ink)
	assert.Empty(t, moth[3].Paper, "a print has no paper of its own")

	rows := inkfile.Recipes(cards[1], k, plan.Of(cards[1], k))
	assert.Len(t, rows, 20, "five colourways of four steps")
	var b bytes.Buffer
	require.NoError(t, inkfile.WriteRecipe(&b, rows))
	table, err := csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	require.Len(t, table, 21)
	assert.Equal(t, "lightness", table[0][8])
	assert.Equal(t, "1", table[1][5])

	b.Reset()
	require.NoError(t, inkfile.WriteGPL(&b, "moth", inkfile.Palette(moth)))
	back, err := inkfile.ReadGPL(b.Bytes())
	require.NoError(t, err)
	assert.Len(t, back.Inks, 9)

	cards[0].Motifs[0].Set = "gone"
	assert.Empty(t, inkfile.Recipes(cards[0], k, plan.Of(cards[0], k)), "an image that cannot be worked out has no recipe")
}
