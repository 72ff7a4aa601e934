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

// A wing part far away and turned by 130 degrees comes to its place by a tap near it; where
// nothing is to follow it only comes there, as it lay.
func TestATapTurnsAPieceIntoPlace(t *testing.T) {
	host := shape.Raw(shape.Ring{{X: -30, Y: -20}, {X: 34, Y: -16}, {X: 22, Y: 24}, {X: -26, Y: 18}})
	inner, err := host.Offset(-2)
	require.NoError(t, err)
	lies := inner.Turn(130, shape.Point{X: 3, Y: 5}).Move(shape.Point{X: 140, Y: 60})
	m, why, ok := assemble.Tap(lies, inner.Centroid().Add(shape.Point{X: 2, Y: -1.5}), []shape.Region{host})
	require.True(t, ok)
	assert.Contains(t, why, "at 2.00 mm")
	for _, d := range m.Of(lies).Strays(inner, 1) {
		assert.Less(t, d, 0.1)
	}
	far := shape.Point{X: 300, Y: 300}
	m, _, ok = assemble.Tap(lies, far, []shape.Region{host})
	assert.False(t, ok)
	assert.Less(t, m.Of(lies).Centroid().Distance(far), 1e-6)
	assert.Zero(t, m.Turn)
}

// Across an axis that leans by 30 degrees a mirror twin lies as the mirror image does, by
// the closed form of a reflection.
func TestAcrossTheAxis(t *testing.T) {
	base := shape.Raw(shape.Ring{{X: 0, Y: -40}, {X: 30, Y: 30}, {X: -30, Y: 30}})
	wing := shape.Raw(shape.Ring{{X: 4, Y: -2}, {X: 20, Y: 18}, {X: 3, Y: 10}})
	want := wing.Mirror(0)
	lean := func(g shape.Region) shape.Region { return g.Turn(30, shape.Point{}) }
	lies := want.Turn(77, shape.Point{X: 5}).Move(shape.Point{X: 90, Y: -20})
	m, ok := assemble.Across(lies, lean(wing), lean(base))
	require.True(t, ok)
	for _, d := range m.Of(lies).Strays(lean(want), 0.5) {
		assert.Less(t, d, 0.05)
	}
	_, ok = assemble.Across(wing.Move(shape.Point{X: 50}), lean(wing), lean(base))
	assert.False(t, ok, "the same again is no mirror twin")
}
