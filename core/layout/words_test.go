package layout_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// Plain letters: a bar for I, an L, and a T that reaches over it.
func plain(r rune) (shape.Region, bool) {
	switch r {
	case 'I':
		return shape.Rect(0, -10, 2, 10), true
	case 'L':
		g, err := shape.Rect(0, -10, 2, 10).Union(shape.Rect(0, -2, 8, 2))
		return g, err == nil
	case 'T':
		g, err := shape.Rect(0, -10, 8, 2).Union(shape.Rect(3, -10, 2, 10))
		return g, err == nil
	}
	return shape.Region{}, false
}

func TestLettersKeepTheirGap(t *testing.T) {
	l, err := layout.SetLine("II LI", plain, layout.Setting{Gap: 1, Space: 4, Bounce: 0})
	require.NoError(t, err)
	require.Len(t, l.Letters, 4)
	x := func(i int) float64 { return l.Letters[i].Region.Bounds().Min.X }
	assert.InDelta(t, 0, x(0), 1e-6)
	assert.InDelta(t, 3, x(1), 1e-6)
	assert.InDelta(t, 3+2+1+4, x(2), 1e-6, "a space between the words")
	assert.InDelta(t, x(2)+8+1, x(3), 1e-6)
	assert.InDelta(t, x(3)+2, l.W, 1e-6)
	assert.Equal(t, 3, l.Passes)
	assert.Equal(t, []string{"I"}, l.Most)

	// T slips over the foot of L: nearer than box to box, and never nearer than the gap.
	l, err = layout.SetLine("LT", plain, layout.Setting{Gap: 1})
	require.NoError(t, err)
	assert.Less(t, l.Letters[1].Region.Bounds().Min.X, 8.0)
	d, _, _ := l.Letters[0].Region.Gap(l.Letters[1].Region)
	assert.InDelta(t, 1, d, 0.01)

	l, err = layout.SetLine("I?I", plain, layout.Setting{Gap: 1, Bounce: 3})
	require.NoError(t, err)
	assert.Equal(t, []string{"?"}, l.Missing)
	assert.InDelta(t, 3, l.Letters[0].Region.Bounds().Min.Y-l.Letters[1].Region.Bounds().Min.Y, 1e-6, "they bounce in turn")
	_, err = layout.SetLine(" ?", plain, layout.Setting{})
	require.ErrorIs(t, err, layout.ErrNoLetters)
}
