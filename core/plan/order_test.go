package plan_test

import (
	"fmt"
	"hash/fnv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/core/work"
	"ochrestone/demo"
)

// benches are the demo's and the trial cards, built, with their acts.
func benches(t *testing.T) map[string]*table {
	k, err := demo.Kit()
	require.NoError(t, err)
	out := map[string]*table{}
	add := func(name string, c card.Card, k kit.Kit) {
		p := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
		out[name] = newTable(p.Build, work.Acts(&p.Build, p.Patterns, func(mm float64) string { return fmt.Sprint(mm) }))
	}
	for i, c := range demo.Cards(k) {
		add(fmt.Sprint("demo ", i), c, k)
	}
	for _, n := range trial.Cards() {
		add(n.Name, n.Card, trial.Kit())
	}
	return out
}

// shuffled prefers acts by chance, whatever their phase.
func shuffled(seed int) work.Option {
	chance := func(a *work.Act) uint32 {
		h := fnv.New32a()
		fmt.Fprint(h, seed, a.Key)
		return h.Sum32()
	}
	return work.Preferring(func(a, b *work.Act) int { return int(int64(chance(a)) - int64(chance(b))) })
}

// Every card can be made in the order proposed.
func TestEveryCardCanBeMadeAsProposed(t *testing.T) {
	t.Parallel()
	for name, b := range benches(t) {
		acts, err := work.Order(b.acts)
		require.NoError(t, err, name)
		assert.NoError(t, newTable(b.b, b.acts).lay(acts), name)
	}
}

// And in any other order the rules allow: it is they that keep it, not the phases.
func TestTheRulesAloneKeepTheOrder(t *testing.T) {
	t.Parallel()
	for name, b := range benches(t) {
		for seed := range 25 {
			acts, err := work.Order(b.acts, shuffled(seed))
			require.NoError(t, err, name)
			if !assert.NoError(t, newTable(b.b, b.acts).lay(acts), "%s, order %d", name, seed) {
				break
			}
		}
	}
}

// Each rule is seen to be broken by the bench when it is left out.
func TestEveryRuleIsMissed(t *testing.T) {
	t.Parallel()
	bs := benches(t)
	for _, r := range work.Rules() {
		missed := ""
		for name, b := range bs {
			for seed := 0; seed < 25 && missed == ""; seed++ {
				acts, err := work.Order(b.acts, work.Without(r.ID), shuffled(seed))
				require.NoError(t, err)
				if err := newTable(b.b, b.acts).lay(acts); err != nil {
					missed = fmt.Sprintf("%s: %v", name, err)
				}
			}
		}
		assert.NotEmpty(t, missed, "the rule %q can be left out and nobody sees it", r.ID)
		t.Logf("without %q: %s", r.ID, missed)
	}
}
