package shape

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestHolesFilledAndMirrorInClosedForm(t *testing.T) {
	plate, err := Rect(0, 0, 30, 20).Minus(Disc(Point{6, 10}, 4))
	require.NoError(t, err)
	hole := Disc(Point{6, 10}, 4).Area()
	assert.InDelta(t, 600, plate.Filled().Area(), 1e-9)
	require.Len(t, plate.Holes(), 1)
	assert.InDelta(t, hole, plate.Holes()[0].Area(), 0.01)
	assert.Empty(t, plate.Filled().Holes())
	assert.InDelta(t, 600-hole, plate.Area(), 0.01, "the plate itself is left as it was")

	over := plate.Mirror(15)
	assert.InDelta(t, plate.Area(), over.Area(), 1e-9, "holes stay holes")
	assert.True(t, plate.Contains(Point{24, 10}) && !over.Contains(Point{24, 10}))
	assert.True(t, over.Contains(Point{6, 10}) && !plate.Contains(Point{6, 10}))
	back := over.Mirror(15)
	for _, d := range plate.Strays(back, 1) {
		assert.InDelta(t, 0, d, 1e-9)
	}
}

func TestLinesScale(t *testing.T) {
	got, err := ScaleLines("M1 2L3 -4M10 10L11 10L11 12", 0.5)
	require.NoError(t, err)
	assert.Equal(t, "M0.5 1L1.5 -2M5 5L5.5 5L5.5 6", got)
	none, err := ScaleLines("", 2)
	require.NoError(t, err)
	assert.Empty(t, none)
	_, err = ScaleLines("M1 2L", 2)
	assert.Error(t, err)
}

func TestTextRoundTripAndRefusals(t *testing.T) {
	g := RingDisc(Point{3, 4}, 5, 2)
	text, err := g.MarshalText()
	require.NoError(t, err)
	var back Region
	require.NoError(t, back.UnmarshalText(text))
	assert.InDelta(t, g.Area(), back.Area(), 1e-3)
	assert.Len(t, back.Holes(), 1)
	for text, says := range map[string]string{"M0 0L1 1Z": "fewer than three", "M0 0L1 oneL2 2Z": "ring 1, corner 2", "M0 0L1e9 0L0 1Z": "not two numbers of mm"} {
		assert.ErrorContains(t, new(Region).UnmarshalText([]byte(text)), says)
	}
}
