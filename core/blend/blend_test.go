package blend

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Closed forms: the rim of a disc fades over 0.35 of its radius, and its bands
// are rings of pi (R² - r²).
func TestRimOfADisc(t *testing.T) {
	d := shape.Disc(shape.Point{X: 3, Y: -2}, 20)
	reach := Reach(d, card.Rim, 0)
	assert.InDelta(t, 7, reach, 0.02)
	bands, err := Bands(d, card.Rim, reach, 4)
	require.NoError(t, err)
	require.Len(t, bands, 4)
	for k, b := range bands {
		r0, r1 := 20-7*float64(k)/4, 20-7*float64(k+1)/4
		assert.InEpsilon(t, math.Pi*(r0*r0-r1*r1), b.Region.Area(), 0.01)
		assert.InDelta(t, 1-(float64(k)+0.5)/4, b.Cover, 1e-12)
	}
}

// Bands never overlap and lie in the piece; a side's bands fill it up to its reach.
func TestBandsPartThePiece(t *testing.T) {
	leaf := shape.Raw(shape.Ring{{X: 0, Y: -20}, {X: 12, Y: 0}, {X: 0, Y: 25}, {X: -9, Y: 3}})
	for _, z := range card.Zones[1:] {
		reach := Reach(leaf, z, 0)
		assert.InDelta(t, reach*0.68, Reach(leaf, z, 1), 1e-9, z)
		bands, err := Bands(leaf, z, reach, 5)
		require.NoError(t, err)
		sum := 0.0
		all := make([]shape.Region, len(bands))
		for i, b := range bands {
			sum += b.Region.Area()
			all[i] = b.Region
			assert.True(t, i == 0 || b.Cover < bands[i-1].Cover)
		}
		u, err := shape.UnionAll(all...)
		require.NoError(t, err)
		assert.InDelta(t, sum, u.Area(), 0.05, "%s: bands do not overlap", z)
		assert.Less(t, u.Area(), leaf.Area()+0.01)
	}
	foot, err := Bands(leaf, card.Foot, Reach(leaf, card.Foot, 0), 5)
	require.NoError(t, err)
	assert.InDelta(t, 25, foot[0].Region.Bounds().Max.Y, 1e-6, "the foot is down")
	tip, err := Bands(leaf, card.Tip, Reach(leaf, card.Tip, 0), 5)
	require.NoError(t, err)
	assert.InDelta(t, -20, tip[0].Region.Bounds().Min.Y, 1e-6)
	_, err = Bands(leaf, "corner", 3, 5)
	assert.ErrorContains(t, err, "not a zone")
}
