package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/foresee"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/demo"
)

// What is only counted is counted the same: with the ways to mend left out the same things are
// found, for the same causes.
func TestTallyFindsTheSame(t *testing.T) {
	t.Parallel()
	maker := plan.NewPlanner()
	found := func(fs []foresee.Finding) (out []string) {
		for _, f := range fs {
			out = append(out, f.ID+" "+f.Cause)
		}
		return out
	}
	k, err := demo.Kit()
	assert.NoError(t, err)
	for _, c := range demo.Cards(k) {
		c.Copies = 40 // more than there is card for
		assert.Equal(t, found(maker.Of(c, k, plan.Typeface(trial.Blocks{})).Findings), found(maker.Of(c, k, plan.Typeface(trial.Blocks{}), plan.Tally()).Findings), c.Title)
	}
	for _, s := range trial.Strangers() {
		assert.Equal(t, found(maker.Of(s.Card, s.Kit, plan.Typeface(trial.Blocks{})).Findings), found(maker.Of(s.Card, s.Kit, plan.Typeface(trial.Blocks{}), plan.Tally()).Findings), s.ID)
	}
}
