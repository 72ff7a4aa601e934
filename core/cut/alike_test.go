package cut

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Parts of one outline keep each its own gap and its own turns.
func TestPartsOfOneOutlineDiffer(t *testing.T) {
	g := shape.Rect(-15, -5, 30, 10)
	parts := []Part{{Outline: g, Gap: 0}, {Outline: g, Gap: 8, Turns: []float64{90}}, {Outline: g, Gap: 0}}
	got, _ := Nest(context.Background(), parts, []Bin{{60, 60, 1}}, nil, 0, 1, nil)
	for i := range got {
		require.GreaterOrEqual(t, got[i].Bin, 0, "part %d", i)
	}
	assert.InDelta(t, 90, got[1].Turn, 1e-9, "it may lie only so")
	for _, i := range []int{0, 2} {
		d, _, _ := laidDown(parts[1], got[1]).Gap(laidDown(parts[i], got[i]))
		assert.GreaterOrEqual(t, d, 4-1e-6, "half of its own gap is kept round it")
	}
}

// What is dropped at one place lies at one place, whatever lies there already and in what order
// that was laid; an edge that it lies on keeps it.
func TestADropLandsWhereItWasDropped(t *testing.T) {
	rects := []Rect{{40, 30, false}, {40, 30, false}, {40, 30, false}, {40, 30, false}}
	laid := map[int]Spot{0: {X: 0, Y: 0}, 1: {X: 43, Y: 0}, 2: {X: 0, Y: 33}}
	seen := map[Spot]bool{}
	for range 200 { // a map comes in another order each time
		h := handSheet{laid: map[int]Spot{}}
		for k, s := range laid {
			h.laid[k] = s
		}
		spot := Spot{X: 41.5, Y: 31.5}
		seen[h.snapped(spot, boxOf(rects[3], spot), rects, measure.Letter)] = true
	}
	assert.Len(t, seen, 1)
	h := handSheet{laid: map[int]Spot{0: {X: 0, Y: 0}, 1: {X: 43, Y: 0}}}
	on := Spot{X: 40, Y: 60}
	assert.InDelta(t, 40, h.snapped(on, boxOf(rects[3], on), rects, measure.Letter).X, 1e-9, "it lies on that edge already")
}
