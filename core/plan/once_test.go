package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
)

// One cause is one note: of four copies that nothing holds one is told, with the others as its places,
// and mended with them; what is held otherwise is told by itself.
func TestOneCauseIsOneNote(t *testing.T) {
	t.Parallel()
	made := two(40, 70, func(c *card.Card, k *kit.Kit) {
		fourOf(nil, nil, nil, card.Glue("liquid"))(c, k)
		c.Motifs[0].Layers[0].Bonds = nil
	})
	of := func(c card.Card) (out []foresee.Finding) {
		for _, f := range warm.Of(c, made.k).Findings {
			if f.Rule == "unheld" {
				out = append(out, f)
			}
		}
		return out
	}
	found := of(made.c)
	require.Len(t, found, 1)
	assert.Equal(t, []string{"r1", "r2"}, found[0].Places)
	assert.Contains(t, found[0].What, "2 more")
	require.NotNil(t, found[0].Mend)
	mended, err := made.c.Apply(made.k, found[0].Mend.Edits...)
	require.NoError(t, err)
	assert.Empty(t, of(mended))
	quiet := two(40, 70, nil)
	quiet.c.Elements = quiet.c.Elements[:1]
	quiet.c.Motifs = nil
	assert.NotNil(t, warm.Of(quiet.c, quiet.k).Findings, "a list of none is a list")
}
