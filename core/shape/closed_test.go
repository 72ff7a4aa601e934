package shape

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A sheet with a small hole and a large one, an island in each: by hand.
func TestSmallHolesAreClosed(t *testing.T) {
	g, err := Rect(0, 0, 100, 50).Minus(Rect(10, 10, 6, 6))
	require.NoError(t, err)
	g, err = g.Minus(Rect(40, 10, 30, 30))
	require.NoError(t, err)
	g, err = UnionAll(g, Rect(12, 12, 2, 2), Rect(50, 20, 4, 4))
	require.NoError(t, err)
	c := g.Closed(60)
	assert.InDelta(t, 100*50-900+16, c.Area(), 1e-6, "the large one stays, with its island")
	assert.True(t, c.Contains(Point{X: 11, Y: 11}))
	assert.False(t, c.Contains(Point{X: 42, Y: 12}))
	assert.InDelta(t, 5000, g.Closed(1000).Area(), 1e-6)
	assert.InDelta(t, g.Area(), g.Closed(30).Area(), 1e-9)
	assert.True(t, Region{}.Closed(9).Empty())
}
