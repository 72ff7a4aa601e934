package inkfile_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/core/work"
	"ochrestone/exchange/inkfile"
)

// The recipe says the same of an image by whatever way it comes to be printed on a card, and an ink
// that was used instead of the planned one at any of its prints is in it.
func TestARecipeIsTheSameByAnyRoute(t *testing.T) {
	t.Parallel()
	planner := plan.NewPlanner()
	swapped := 0
	for seed := range uint64(6) {
		c, k := trial.Printed(rand.New(rand.NewPCG(seed, 41)), 8)
		want := inkfile.Recipes(c, k, planner.Of(c, k), inkfile.Used{})
		require.NotEmpty(t, want)
		for name, lay := range trial.Routes {
			doc, err := c.MarshalJSON()
			require.NoError(t, err)
			other, err := card.Read(doc)
			require.NoError(t, err)
			lay(&other)
			p := planner.Of(other, k)
			assert.Equal(t, want, inkfile.Recipes(other, k, p, inkfile.Used{}), "%s, card %d", name, seed)
			for _, a := range p.Steps {
				m, w, l := a.Layer()
				if m == "" || a.ID.Verb != work.Print {
					continue
				}
				swapped++
				found := false
				for _, r := range inkfile.Recipes(other, k, p, inkfile.Used{a.ID: k.Inks[0].ID}) {
					found = found || r.Used == k.Inks[0].Name
				}
				assert.True(t, found, "%s, card %d: %s of %s in %s", name, seed, l, m, w)
				break
			}
		}
	}
	assert.Greater(t, swapped, 20)
}
