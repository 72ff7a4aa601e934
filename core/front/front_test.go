package front

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Common practice, no source: on A2 an eighth of border leaves 4 x 5 1/4.
func TestSheetsAreCentred(t *testing.T) {
	c := card.Card{Base: card.Base{W: 4.25 * measure.Inch, H: 5.5 * measure.Inch}, Sheets: []card.Sheet{{ID: "mat", Border: measure.Inch / 8}, {ID: "panel", Border: measure.Inch / 8}}}
	ps, err := Sheets(c)
	require.NoError(t, err)
	assert.InDelta(t, 4*measure.Inch, ps[0].Size.W, 1e-9)
	assert.InDelta(t, 5.25*measure.Inch, ps[0].Size.H, 1e-9)
	assert.InDelta(t, measure.Inch/4, ps[1].X, 1e-9)
	c.Sheets = nil
	ps, err = Sheets(c)
	require.NoError(t, err)
	assert.Equal(t, "front", ps[0].ID)
	c.Sheets = []card.Sheet{{ID: "x", Border: 80}}
	_, err = Sheets(c)
	assert.Error(t, err)
}

func TestMarginsAndMend(t *testing.T) {
	panel := Panel{Size: measure.Size{W: 100, H: 100}, X: 5, Y: 5}
	box := shape.Rect(0, 0, 20, 10).Bounds()
	g := Place(shape.Rect(0, 0, 20, 10), box, card.Element{X: 12, Y: 55})
	m := MarginsOf(g, panel)
	assert.InDelta(t, -3, m.Left, 1e-9)
	least, side := m.Least()
	assert.InDelta(t, -3, least, 1e-9)
	assert.Equal(t, "left", side)
	dx, dy, fits := m.Mend()
	assert.True(t, fits)
	assert.InDelta(t, 3, dx, 1e-9)
	assert.Zero(t, dy)
	least, _ = MarginsOf(g.Move(shape.Point{X: dx, Y: dy}), panel).Least()
	assert.InDelta(t, 0, least, 1e-9)

	turned := Place(shape.Rect(0, 0, 20, 10), box, card.Element{X: 50, Y: 50, Turn: 90}).Bounds()
	assert.InDelta(t, 10, turned.W(), 1e-9)
	assert.InDelta(t, 50, turned.Centre().X, 1e-9)
	_, _, fits = MarginsOf(shape.Rect(0, 0, 120, 10), panel).Mend()
	assert.False(t, fits, "wider than the panel")
}
