package main

import (
	"github.com/tdewolff/canvas"

	"ochrestone/core/shape"
)

// tray is a background die for the shells: seats pressed a little larger than they are, and
// one cut right through.
func tray() []group {
	plate := shape.FromPath(canvas.RoundedRectangle(96, 126, 5).Translate(-48, -63), true)
	seat := func(of []group, play, x, y, turn float64) shape.Region {
		g := of[0].g.Filled()
		c := g.Bounds().Centre()
		return smooth(offset(g, play), 0.6).Turn(turn, c).Move(shape.Point{X: x - c.X, Y: y - c.Y}).Simplify(0.03)
	}
	open := seat(cockle(), 1.4, 0, 44, 0)
	pressed := union(seat(fanShell(), 1.2, 0, -38, 0), seat(whelk(), 1, -28, 14, 0), seat(whelk(), 0.4, 28, 14, 0), seat(cockle(), 1, 0, 6, 0))
	return []group{{name: "Tray", g: minus(plate, open), pressed: pressed}}
}
