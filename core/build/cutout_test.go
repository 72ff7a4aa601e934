package build

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
)

// Whatever is printed is cut out as one leaf without holes: an outline, an outline that is not
// quite closed, parts that lie apart.
func TestACutOutIsAWholeLeaf(t *testing.T) {
	ring, err := shape.Disc(shape.Point{}, 15).Minus(shape.Disc(shape.Point{}, 14.4))
	require.NoError(t, err)
	open, err := ring.Minus(shape.Rect(-1, -16, 2, 4))
	require.NoError(t, err)
	apart, err := shape.Disc(shape.Point{}, 5).Union(shape.Disc(shape.Point{X: 13}, 3))
	require.NoError(t, err)
	star := shape.Rect(-10, -1, 20, 2)
	star, err = star.Union(shape.Rect(-1, -10, 2, 20))
	require.NoError(t, err)
	for name, c := range map[string]struct {
		g    shape.Region
		area float64
		by   float64
	}{
		"outline":    {ring, 706.9, 2},
		"not closed": {open, 706.9, 8},
		"apart":      {apart, 106.8, 40},
		"star":       {star, 76, 12}, // its inner corners stay near the print
	} {
		for _, margin := range []float64{0, 1.5} {
			g, err := wholeLeaf(c.g, margin)
			require.NoError(t, err, name)
			assert.Len(t, g.Pieces(), 1, "%s with %g mm", name, margin)
			assert.Empty(t, g.Holes(), "%s with %g mm", name, margin)
			bare, err := c.g.Minus(g)
			require.NoError(t, err, name)
			assert.Less(t, bare.Area(), 0.01, "%s with %g mm: it bears all of its print", name, margin)
			if margin == 0 {
				assert.InDelta(t, c.area, g.Area(), c.by, name)
			}
		}
	}
}
