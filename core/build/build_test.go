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
func TestWhatBondsLift(t *testing.T) {
	s := look.NewStock(kit.Kit{Spacers: []kit.Spacer{{ID: "foam", Kind: "square", Thickness: 2}, {ID: "board", Kind: "board", Thickness: 0.7}},
		Adhesives: []kit.Adhesive{{ID: "runner", Thickness: 0.06}, {ID: "thin"}}})
	for _, c := range []struct {
		held []card.Bond
		mm   float64
		foam bool
	}{
		{card.Foam("foam", 1), 2, true},
		{card.Foam("foam", 2), 4, true},
		{card.Foam("foam", 0), 2, true},
		{card.Foam("board", 1), 0.7, false},
		{card.Glue("runner"), 0.06, false},
		{card.Glue("thin"), 0.02, false},
		{card.Glue(""), 0.02, false},
		{nil, 0, false},
	} {
		mm, foam := build.Lift(s, c.held)
		assert.InDelta(t, c.mm, mm, 1e-12, "%+v", c.held)
		assert.Equal(t, c.foam, foam, "%+v", c.held)
	}
}
