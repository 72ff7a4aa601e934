package placing_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// Points made from a known motion give that motion back.
func TestPointsGiveTheMotionBack(t *testing.T) {
	corners := []shape.Point{{X: 0, Y: 0}, {X: 40, Y: 0}, {X: 40, Y: 30}, {X: 0, Y: 30}}
	prints := []placing.Print{{Layer: "a", Label: "Wash", Region: shape.Rect(0, 0, 40, 30)}, {Layer: "b", Label: "Spots", Region: shape.Rect(0, 0, 40, 30)}}
	const dpi = 300.0
	see := func(m register.Motion) (out []shape.Point) {
		for _, p := range corners {
			out = append(out, m.Point(p).Scale(dpi/25.4))
		}
		return out
	}
	sheet := register.Motion{Turn: 7, Move: shape.Point{X: 15, Y: 40}}
	// The second layer is printed 0.4 mm to the right and 0.3 down of where it belongs, on the same sheet.
	off := sheet.After(register.Motion{Move: shape.Point{X: 0.4, Y: 0.3}})
	got, err := placing.Points(prints, dpi, []placing.PointedAt{{"a", corners, see(sheet)}, {"b", corners, see(off)}}, measure.Metric)
	require.NoError(t, err)
	require.Len(t, got.Layers, 1)
	v := got.Layers[0]
	assert.InDelta(t, 0.4, v.X, 1e-6)
	assert.InDelta(t, 0.3, v.Y, 1e-6)
	assert.InDelta(t, 0, v.Turn, 1e-6)
	assert.Positive(t, v.SureShift)
	assert.Empty(t, got.Notes)

	// Without dots to the inch the first layer gives the size.
	got, err = placing.Points(prints, 0, []placing.PointedAt{{"a", corners, see(sheet)}, {"b", corners, see(off)}}, measure.Metric)
	require.NoError(t, err)
	assert.InDelta(t, 0.4, got.Layers[0].X, 1e-6)
	assert.Contains(t, got.Notes[0], "11.8 pixels to the mm")

	// One point on the wrong corner is doubted.
	wrong := see(off)
	wrong[2] = wrong[2].Add(shape.Point{X: 60})
	got, err = placing.Points(prints, dpi, []placing.PointedAt{{"a", corners, see(sheet)}, {"b", corners, wrong}}, measure.Metric)
	require.NoError(t, err)
	assert.Contains(t, got.Notes[0], "wrong corner")

	_, err = placing.Points(prints, dpi, []placing.PointedAt{{"b", corners, see(off)}}, measure.Metric)
	assert.ErrorContains(t, err, "lowest printed layer first")
	_, err = placing.Points(prints, dpi, []placing.PointedAt{{"a", corners[:1], see(sheet)[:1]}}, measure.Metric)
	assert.ErrorContains(t, err, "two corners")
	assert.False(t, math.IsNaN(v.SureTurn))
}
