package assemble_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/assemble"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// A piece cut as its host less an even rim, put down a little off, comes home.
func TestSnapBringsAPieceHome(t *testing.T) {
	host := shape.Raw(shape.Ring{{X: -30, Y: -20}, {X: 34, Y: -16}, {X: 22, Y: 24}, {X: -26, Y: 18}})
	inner, err := host.Offset(-2)
	require.NoError(t, err)
	for _, off := range []register.Motion{{Turn: 3, Move: shape.Point{X: 1, Y: -0.8}}, {Turn: -5, Move: shape.Point{X: -1.5, Y: 1}}} {
		lies := off.Of(inner)
		m, why, ok := assemble.Snap(lies, []shape.Region{host})
		require.True(t, ok)
		assert.Contains(t, why, "at 2.00 mm")
		for _, d := range m.Of(lies).Strays(inner, 1) {
			assert.Less(t, d, 0.1)
		}
	}
}

func TestSnapFindsAHoleAndAnAxisAndGivesUpFarAway(t *testing.T) {
	plate, err := shape.Rect(-30, -20, 60, 40).Minus(shape.Rect(5, 5, 12, 8))
	require.NoError(t, err)
	m, why, ok := assemble.Snap(shape.Rect(5.6, 4.4, 11.7, 7.7), []shape.Region{plate})
	require.True(t, ok)
	assert.Contains(t, why, "hole")
	c := m.Of(shape.Rect(5.6, 4.4, 11.7, 7.7)).Centroid()
	assert.InDelta(t, 11, c.X, 0.05)
	assert.InDelta(t, 9, c.Y, 0.05)

	// An arrow head alone in the middle of a large plate has only the axis.
	arrow := shape.Raw(shape.Ring{{X: 1.2, Y: -4}, {X: 4, Y: 4}, {X: 1.2, Y: 2.4}, {X: -1.6, Y: 4}})
	m, why, ok = assemble.Snap(arrow, []shape.Region{shape.Rect(-40, -60, 80, 120)})
	require.True(t, ok, "an axis is near")
	assert.Contains(t, why, "axis")
	assert.InDelta(t, 0, m.Of(arrow).Centroid().X, 0.05)
	assert.InDelta(t, arrow.Centroid().Y, m.Of(arrow).Centroid().Y, 0.05, "it is not moved along the axis")

	_, _, ok = assemble.Snap(arrow.Move(shape.Point{X: 20, Y: 30}).Turn(40, shape.Point{}), []shape.Region{shape.Rect(-40, -60, 80, 120)})
	assert.False(t, ok)
}
