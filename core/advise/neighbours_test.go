package advise

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/card"
)

// In a grid every image is the neighbour of those beside, above and below it, up to rows twice as far
// apart as columns, and never of those across a corner; in a row none is of the next but one.
func TestNeighboursInAGrid(t *testing.T) {
	for _, c := range []struct {
		name           string
		across, down   float64
		nx, ny, shared int
	}{
		{"square", 30, 30, 3, 3, 12},
		{"rows further apart", 30, 48, 3, 3, 12},
		{"rows far apart", 30, 80, 3, 3, 6},
		{"one row", 30, 30, 5, 1, 4},
	} {
		var es []card.Element
		for i := range c.nx * c.ny {
			es = append(es, card.Element{Image: &card.Image{Motif: "m"}, Face: card.Front, Place: card.Place{X: c.across * float64(i%c.nx), Y: c.down * float64(i/c.nx)}})
		}
		assert.Len(t, Neighbours(es, "m"), c.shared, c.name)
	}
}
