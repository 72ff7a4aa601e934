package build_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/look"
)

// Common practice, no source: foam about 1 and 2 mm, doubled foam doubles.
func TestWhatAJointLifts(t *testing.T) {
	s := look.NewStock(kit.Kit{Spacers: []kit.Spacer{{ID: "foam", Kind: "square", Thickness: 2}, {ID: "board", Kind: "board", Thickness: 0.7}},
		Adhesives: []kit.Adhesive{{ID: "runner", Thickness: 0.06}, {ID: "thin"}}})
	for _, c := range []struct {
		j    card.Joint
		mm   float64
		foam bool
	}{
		{card.Joint{Kind: card.Foamed, Spacer: "foam", Levels: 1}, 2, true},
		{card.Joint{Kind: card.Foamed, Spacer: "foam", Levels: 2}, 4, true},
		{card.Joint{Kind: card.Foamed, Spacer: "foam"}, 2, true},
		{card.Joint{Kind: card.Foamed, Spacer: "board", Levels: 1}, 0.7, false},
		{card.Joint{Kind: card.Glued, Glue: "runner"}, 0.06, false},
		{card.Joint{Kind: card.Glued, Glue: "thin"}, 0.02, false},
		{card.Joint{Kind: card.Glued}, 0.02, false},
		{card.Joint{Kind: card.Loose}, 0, false},
	} {
		mm, foam := build.Lift(s, c.j)
		assert.InDelta(t, c.mm, mm, 1e-12, "%+v", c.j)
		assert.Equal(t, c.foam, foam, "%+v", c.j)
	}
}
