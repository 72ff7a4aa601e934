package remember_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/remember"
	"ochrestone/core/trial"
)

// Stamps that were inked are new no longer; dies, stamps without an ink and stamps of other cards stay
// as they are.
func TestStampsAreNewOnce(t *testing.T) {
	c, k := trial.Card("row"), trial.Kit()
	of := c.Motifs[0].Set
	for i := range k.Sets {
		k.Sets[i].Fresh = k.Sets[i].Kind == kit.StampSet
	}
	got := remember.Primed(c, k)
	require.Len(t, got, 1)
	assert.Equal(t, of, got[0].ID)
	assert.False(t, got[0].Fresh)
	for _, w := range c.Motifs[0].Colourways {
		for id := range w.Layers {
			w.Layers[id] = card.Finish{}
		}
	}
	assert.Empty(t, remember.Primed(c, k), "nothing is inked")
}
