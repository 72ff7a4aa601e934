package trace_test

import (
	"context"
	"math"
	"slices"
	"strings"
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
	hard := sim.Plain()
	hard.Tone, hard.Sharpen = 1.25, 1.1
	deep := sim.Plain()
	deep.Shadow, deep.Cast = 0.45, &sim.Cast{Far: 0.5, Soft: 0.2, Side: 100}
	soft := sim.Plain()
	soft.Cast = &sim.Cast{Far: 0.3, Soft: 0.12, Side: 45}
	for _, c := range []int{2, 3, 5} {
		p := sim.Papers[c]
		it := sim.Item{Outline: disc, Colour: [3]float64{0.55 * p[0], 0.55 * p[1], 0.55 * p[2]}}
		got := read(sim.Bench{Sheet: sim.White, Items: []sim.Item{it}}, soft)
		assert.InDelta(t, 1, got.Region.Area()/area, 0.002, "a shadow, paper %d", c)
		it.Rim = &sim.Rim{W: 0.15, Colour: [3]float64{0.80, 0.79, 0.76}}
		got = read(sim.Bench{Sheet: sim.Black, Items: []sim.Item{it}}, sim.Plain())
		assert.InDelta(t, 1, got.Region.Area()/area, 0.003, "a white core, paper %d", c)
		assert.Less(t, off(got, disc), got.Sure, "it says how sure it is, paper %d", c)
		it.Rim.Colour = [3]float64{0.4 * it.Colour[0], 0.4 * it.Colour[1], 0.4 * it.Colour[2]}
		got = read(sim.Bench{Sheet: sim.Black, Items: []sim.Item{it}}, sim.Plain())
		assert.InDelta(t, 1, got.Region.Area()/area, 0.003, "a dark rim, paper %d", c)
		it.Rim = nil
		got = read(sim.Bench{Sheet: sim.White, Items: []sim.Item{it}}, hard)
		assert.InDelta(t, 1, got.Region.Area()/area, 0.004, "a device that sharpens, paper %d", c)
		got = read(sim.Bench{Sheet: sim.White, Items: []sim.Item{it}}, deep)
		assert.Less(t, off(got, disc), got.Sure, "a deep shadow, paper %d", c)
		assert.InDelta(t, 1, got.Region.Area()/area, 0.006, "a deep shadow, paper %d", c)
	}
}

// off is how far 95 of 100 points of an outline lie from the truth at most, mm.
func off(p trace.Piece, truth shape.Region) float64 {
	by := p.Region.Strays(truth, 0.2)
	slices.Sort(by)
	return by[len(by)*95/100]
}

// A core that is as light as the lid does not show beside it, and the picture says so; a piece
// as light as its own shadow has a stretch in doubt, and the doubt is where the shadow falls.
func TestWhatCannotBeSeenIsSaid(t *testing.T) {
	disc := shape.Disc(shape.Point{X: 30, Y: 30}, 12)
	deep := sim.Plain()
	deep.Shadow, deep.Cast = 0.45, &sim.Cast{Far: 0.5, Soft: 0.2, Side: 90}
	b := sim.Bench{W: 60, H: 60, Sheet: sim.White, Items: []sim.Item{{Outline: disc, Colour: [3]float64{0.5, 0.5, 0.47}}}}
	raw, err := sim.PNG(b.Scan(300, deep, 5), 300)
	require.NoError(t, err)
	pic, err := picture.Decode(raw)
	require.NoError(t, err)
	got, err := trace.Find(context.Background(), pic, trace.DPI(300))
	require.NoError(t, err)
	require.Len(t, got.Pieces, 1)
	require.NotEmpty(t, got.Pieces[0].Doubt)
	below, all := 0, 0
	for _, run := range got.Pieces[0].Doubt {
		for _, q := range run {
			all++
			if q.Y > 30 {
				below++
			}
		}
	}
	assert.Greater(t, below, all*8/10, "the shadow falls downward")
	assert.Less(t, off(got.Pieces[0], disc), got.Pieces[0].Sure)
	assert.Contains(t, strings.Join(got.Notes, " "), "white core of a card does not show")
}
