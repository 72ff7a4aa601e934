package layout

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/card"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

func TestRoomAndMend(t *testing.T) {
	panel := card.Leaf{Size: measure.Size{W: 100, H: 100}, X: 5, Y: 5}
	box := shape.Rect(0, 0, 20, 10).Bounds()
	g := Place(shape.Rect(0, 0, 20, 10), box, card.Place{X: 12, Y: 55})
	m := RoomOf(g, panel)
	assert.InDelta(t, -3, m.Left, 1e-9)
	least, side := m.Least()
	assert.InDelta(t, -3, least, 1e-9)
	assert.Equal(t, "left", side)
	dx, dy, fits := m.Mend()
	assert.True(t, fits)
	assert.InDelta(t, 3, dx, 1e-9)
	assert.Zero(t, dy)
	least, _ = RoomOf(g.Move(shape.Point{X: dx, Y: dy}), panel).Least()
	assert.InDelta(t, 0, least, 1e-9)

	turned := Place(shape.Rect(0, 0, 20, 10), box, card.Place{X: 50, Y: 50, Turn: 90}).Bounds()
	assert.InDelta(t, 10, turned.W(), 1e-9)
	assert.InDelta(t, 50, turned.Centre().X, 1e-9)
	_, _, fits = RoomOf(shape.Rect(0, 0, 120, 10), panel).Mend()
	assert.False(t, fits, "wider than the panel")
}
