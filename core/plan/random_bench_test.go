package plan_test

import (
	"fmt"
	"testing"

	"pgregory.net/rapid"

	"ochrestone/core/plan"
	"ochrestone/core/work"
)

// Cards by chance, each made on the small bench in the order that is proposed; a thousand of
// them by make explore.
func TestRandomCardsCanBeMadeAsProposed(t *testing.T) {
	t.Parallel()
	k := manySets(t)
	maker := plan.NewPlanner()
	rapid.Check(t, func(t *rapid.T) {
		c := anyCard(t, k)
		if c.Validate() != nil {
			t.Skip("not sound")
		}
		p := maker.Of(c, k)
		acts := work.Acts(&p.Build, p.Patterns, func(mm float64) string { return fmt.Sprint(mm) })
		order, err := work.Order(acts)
		if err != nil {
			t.Fatal(err)
		}
		if err := newTable(p.Build, acts).lay(order); err != nil {
			t.Fatal(err)
		}
	})
}
