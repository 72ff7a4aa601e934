package cut

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/build"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/shape"
)

// By hand. A word needs as many runs as its most frequent letter, where all its letters go on
// the plate: “papaya” three. Two dies too large to lie together run apart. Card thicker than
// the machine cuts at once goes there and back; a die larger than the plate is said.
func TestPassesByHand(t *testing.T) {
	s := look.NewStock(kit.Kit{Papers: []kit.Cardstock{{ID: "thin", Caliper: 0.27}, {ID: "board", Caliper: 0.9}}})
	m := kit.Machine{W: 150, H: 300, Most: 0.6}
	w := func(name string, side float64, n int) Want {
		return Want{Name: name, W: side, H: side, N: n, By: "die", cut: build.Cut{Outline: shape.Rect(-side/2, -side/2, side, side)}}
	}
	of := func(stock string, ws ...Want) []Pass {
		return Passes(context.Background(), Plan{Stocks: []Stock{{Stock: stock, Wants: ws}}}, s, m)
	}
	word := of("thin", w("p", 20, 2), w("a", 20, 3), w("y", 10, 1))
	assert.Equal(t, []Pass{{Dies: []string{"a", "p", "y"}, Times: 3, Small: []string{"y"}}}, word)
	assert.Equal(t, 3, Runs(word))
	two := of("thin", w("large", 140, 2), w("larger", 145, 5), w("rim", 146, 1))
	assert.Len(t, two, 2, "two go on a plate of 300")
	assert.Equal(t, 5+1, Runs(two), "those that run most together")
	thick := of("board", w("badge", 40, 2))
	assert.True(t, thick[0].Back)
	assert.Equal(t, 4, Runs(thick))
	assert.True(t, of("thin", w("huge", 400, 1))[0].Over)
	assert.Empty(t, of("thin", Want{Name: "strip", W: 10, H: 10, N: 3, By: "trimmer"}))
}
