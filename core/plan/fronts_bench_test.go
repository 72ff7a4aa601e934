package plan_test

import (
	"testing"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/demo"
)

// BenchmarkFronts plans the demo's cards from nothing, and after a thing on them was moved.
func BenchmarkFronts(b *testing.B) {
	k, err := demo.Kit()
	if err != nil {
		b.Fatal(err)
	}
	for _, c := range demo.Cards(k) {
		b.Run(c.Title+"/cold", func(b *testing.B) {
			for b.Loop() {
				plan.Of(c, k, plan.Typeface(trial.Blocks{}))
			}
		})
		b.Run(c.Title+"/after an edit", func(b *testing.B) {
			m := plan.NewPlanner()
			m.Of(c, k, plan.Typeface(trial.Blocks{}))
			last := c.Elements[len(c.Elements)-1].ID
			for n := 0; b.Loop(); n++ {
				c, err := c.Apply(k, card.Edit{Move: &card.Move{Element: last, DX: 0.5 * float64(n%3)}})
				if err != nil {
					b.Fatal(err)
				}
				m.Of(c, k, plan.Typeface(trial.Blocks{}))
			}
		})
	}
}
