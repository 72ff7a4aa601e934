package trace_test

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// Discs, whose area is known: of coloured card with a narrow shadow on a lid, and of card
// whose white core shows all round on a dark sheet. Both were read as larger.
func TestCardThatLooksLikeCard(t *testing.T) {
	disc := shape.Disc(shape.Point{X: 30, Y: 30}, 12)
	area := math.Pi * 12 * 12
	read := func(b sim.Bench, g sim.Grade) trace.Piece {
		b.W, b.H = 60, 60
		raw, err := sim.PNG(b.Scan(300, g, 5), 300)
		require.NoError(t, err)
		pic, err := picture.Decode(raw)
		require.NoError(t, err)
		got, err := trace.Find(context.Background(), pic, trace.DPI(300))
		require.NoError(t, err)
		require.Len(t, got.Pieces, 1)
		return got.Pieces[0]
	}
	soft := sim.Plain()
	soft.Cast = &sim.Cast{Far: 0.3, Soft: 0.12, Side: 45}
	for _, c := range []int{2, 3, 5} {
		p := sim.Papers[c]
		it := sim.Item{Outline: disc, Colour: [3]float64{0.55 * p[0], 0.55 * p[1], 0.55 * p[2]}}
		got := read(sim.Bench{Sheet: sim.White, Items: []sim.Item{it}}, soft)
		assert.InDelta(t, 1, got.Region.Area()/area, 0.002, "a shadow, paper %d", c)
		it.Rim = &sim.Rim{W: 0.15, Colour: [3]float64{0.80, 0.79, 0.76}}
		got = read(sim.Bench{Sheet: sim.Black, Items: []sim.Item{it}}, sim.Plain())
		assert.InDelta(t, 1, got.Region.Area()/area, 0.006, "a white core, paper %d", c)
	}
}
