package plan_test

import (
	"encoding/json"
	"testing"

	"ochrestone/core/card"
	"ochrestone/core/plan"
)

// Whatever document validates, it is planned, and the plan is made of numbers.
func FuzzCard(f *testing.F) {
	c, k := moth(f)
	c.Motifs[0].Layers = c.Motifs[0].Layers[:3]
	raw, err := json.Marshal(c)
	if err != nil {
		f.Fatal(err)
	}
	f.Add(raw)
	maker := plan.NewPlanner()
	f.Fuzz(func(t *testing.T, b []byte) {
		var c card.Card
		if json.Unmarshal(b, &c) != nil || c.Validate() != nil || len(c.Elements) > 20 {
			return
		}
		if _, err := json.Marshal(maker.Of(c, k)); err != nil {
			t.Fatal(err)
		}
	})
}
