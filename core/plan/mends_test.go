package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/demo"
)

// Every mend offered is made: its finding is gone, and none is new or graver.
func TestEveryMendSettlesAndMakesNothingWorse(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("not in a short run")
	}
	k, err := demo.Kit()
	require.NoError(t, err)
	m := plan.NewPlanner()
	tried := map[string]int{}
	try := func(name string, c card.Card, k kit.Kit) {
		type face = plan.Option
		opts := []face{plan.Typeface(trial.Blocks{})}
		before := map[string]foresee.Finding{}
		found := m.Of(c, k, opts...).Findings
		for _, f := range found {
			before[f.ID] = f
		}
		for _, f := range found {
			if f.Mend == nil {
				continue
			}
			tried[f.Rule]++
			got, err := c.Apply(k, f.Mend.Edits...)
			require.NoError(t, err, "%s: %s", name, f.ID)
			for _, g := range m.Of(got, k, opts...).Findings {
				assert.NotEqual(t, f.ID, g.ID, "%s: its mend leaves it standing: %s", name, g.Why)
				was, had := before[g.ID]
				if assert.True(t, had, "%s: mending %s brings %s: %s", name, f.ID, g.ID, g.Why) {
					assert.Equal(t, was.Severity, g.Severity, "%s: mending %s changes %s", name, f.ID, g.ID)
				}
			}
		}
	}
	for _, c := range demo.Cards(k) {
		try(c.Title, c, k)
	}
	for _, n := range trial.Cards() {
		try(n.Name, n.Card, trial.Kit())
	}
	for rule, cases := range allForeseen(t) {
		try("the card that has "+rule, cases.has.c, cases.has.k)
	}
	t.Log(tried)
	for _, rule := range []string{"one", "edge", "beside", "words", "strip", "unused", "step", "kind"} {
		assert.Positive(t, tried[rule], "no mend of %q was tried", rule)
	}
}
