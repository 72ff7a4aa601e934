package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
)

// A mend is tried on the whole plan: what it settles is gone, and what it costs is named.
func TestAMendIsTriedBeforeItIsMade(t *testing.T) {
	t.Parallel()
	made := two(40, 70, func(c *card.Card, _ *kit.Kit) { c.Elements[1].Place.X = c.Base.W })
	was, err := card.Read(mustDoc(t, made.c))
	require.NoError(t, err)
	got, err := warm.Try(made.c, made.k, "edge:"+made.c.Elements[1].ID)
	require.NoError(t, err)
	assert.True(t, got.Gone)
	assert.Empty(t, got.Costs)
	assert.Equal(t, mustDoc(t, was), mustDoc(t, made.c), "nothing of the card was changed")
	_, err = warm.Try(made.c, made.k, "edge:no such")
	assert.ErrorIs(t, err, plan.ErrNoMend)
	// Of all strangers' cards: a mend settles its note, and what it brings is said.
	for _, s := range trial.Strangers() {
		m := plan.NewPlanner()
		for _, f := range m.Of(s.Card, s.Kit).Findings {
			if f.Mend == nil {
				continue
			}
			got, err := m.Try(s.Card, s.Kit, f.ID)
			require.NoError(t, err, "%s: %s", s.ID, f.ID)
			assert.True(t, got.Gone, "%s: %s stands after its mend", s.ID, f.ID)
			for _, g := range got.Costs {
				assert.NotEqual(t, "spoils", string(g.Severity), "%s: mending %s spoils the card: %s", s.ID, f.ID, g.What)
			}
		}
	}
}
