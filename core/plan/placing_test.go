package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/plan"
	"ochrestone/core/register"
)

// Every layer of the moth that has to meet something is told how to be placed,
// with chances that follow the spread of the way, and the whole image comes out
// no more often than any of its layers.
func TestPlacingEveryLayer(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	m := c.Motifs[0]
	mk := plan.NewPlanner()
	judged := 0
	for _, l := range m.Layers {
		p, err := place(mk, c, k, m.ID).Of(m.Colourways[0].ID, l.ID, 12, 20)
		require.NoError(t, err, l.Label)
		if !p.Play.Judged || p.Play.Outside > 0 {
			assert.NotEmpty(t, p.Why)
			continue
		}
		judged++
		assert.NotContains(t, p.Sighting.Say, "beneath it", "what lies beneath is named")
		require.NotEmpty(t, p.Ways)
		require.GreaterOrEqual(t, p.Pick, 0)
		assert.LessOrEqual(t, p.Stack, p.Ways[p.Pick].Chance+1e-9, l.Label)
		assert.True(t, p.Spare == 0 || p.Spare >= 12)
		for _, w := range p.Ways[1:] {
			if w.Spread.Shift <= p.Ways[0].Spread.Shift && w.Spread.Turn <= p.Ways[0].Spread.Turn {
				assert.GreaterOrEqual(t, w.Chance, p.Ways[0].Chance-0.005, "%s does no worse than by eye", w.Name)
			}
		}
		for i := 1; i < len(p.Left); i++ {
			assert.LessOrEqual(t, p.Left[i].Clock, p.Left[i-1].Clock+5, "turn left goes down as the shift goes up")
		}
		for _, h := range p.Chain {
			assert.LessOrEqual(t, h.Left, h.Tight)
		}
		again, err := place(mk, c, k, m.ID).Of(m.Colourways[0].ID, l.ID, 12, 20)
		require.NoError(t, err)
		assert.Equal(t, p, again)
	}
	assert.Greater(t, judged, 3)
	_, err := place(mk, c, k, m.ID).Of("none", m.Layers[0].ID, 12, 20)
	assert.ErrorContains(t, err, "no colourway")
	_, err = place(mk, c, k, m.ID).Of(m.Colourways[0].ID, "none", 12, 20)
	assert.ErrorContains(t, err, "no layer")
}

// A layer with less play than any hand can keep is noted, with both numbers.
func TestPlayLessThanAnyHand(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	assert.Nil(t, finding(warm.Of(c, k), "play:"), "the demo can be made")
	p := warm.Of(c, k, plan.Limits(register.Limits{Spill: 0.01, RimShare: 0.99}))
	n := finding(p, "play:")
	require.NotNil(t, n)
	assert.Less(t, n.Numbers["play"], n.Numbers["spread"])
	assert.Equal(t, 0.15, n.Numbers["spread"], "back into its own hole, for a cut piece")
}

// The outline that goes over everything is no matter for the eye alone.
func TestALineIsNotLeftToTheEye(t *testing.T) {
	t.Parallel()
	c, k := beetles(t)
	m := c.Motifs[0]
	last := m.Layers[len(m.Layers)-1]
	require.Contains(t, last.Label, "lines")
	p, err := place(plan.NewPlanner(), c, k, m.ID).Of(m.Colourways[0].ID, last.ID, 8, 1)
	require.NoError(t, err)
	assert.False(t, p.Play.Judged)
	assert.NotContains(t, p.Why, "by eye will do")
	assert.Contains(t, p.Why, "an outline shows every slip")
	assert.NotEmpty(t, p.Sighting.Points)
	wash, err := place(plan.NewPlanner(), c, k, m.ID).Of(m.Colourways[0].ID, m.Layers[0].ID, 8, 1)
	require.NoError(t, err)
	assert.Contains(t, wash.Why, "by eye will do", "the first lies on nothing it has to meet")
}
