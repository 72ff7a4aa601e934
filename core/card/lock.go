package card

import (
	"fmt"
	"slices"

	"ochrestone/core/kit"
)

// Lock is a piece that the person laid on a sheet by hand: the others are laid round it.
type Lock struct {
	Stock   string  `json:"stock" doc:"cardstock id"`
	Element string  `json:"element,omitempty"`
	Motif   string  `json:"motif,omitempty" doc:"of a layer of an image"`
	Way     string  `json:"way,omitempty" doc:"its colourway"`
	Part    string  `json:"part,omitempty" doc:"layer, or number of a letter"`
	Copy    int     `json:"copy" minimum:"0" maximum:"2000" doc:"which of several alike, from 0"`
	Sheet   int     `json:"sheet" minimum:"0" maximum:"400" doc:"which of the sheets that are not cut straight, from 0"`
	X       float64 `json:"x" doc:"its middle on the sheet, mm"`
	Y       float64 `json:"y" doc:"mm"`
	Turn    float64 `json:"turn,omitempty" doc:"clockwise, degrees"`
}

// maxLocks is how many pieces are laid by hand at most.
const maxLocks = 500

// same reports whether two locks are about one piece.
func (l Lock) same(o Lock) bool {
	l.Sheet, l.X, l.Y, l.Turn = o.Sheet, o.X, o.Y, o.Turn
	return l == o
}

// LayByHand lays a piece on a sheet by hand, or lets it lie as it comes again.
type LayByHand struct {
	Piece Lock `json:"piece"`
	Free  bool `json:"free,omitempty" doc:"it is laid as it comes again"`
	All   bool `json:"all,omitempty" doc:"with free: all pieces of this cardstock"`
}

func (e *LayByHand) apply(c *Card, _ kit.Kit) error {
	c.Locks = slices.DeleteFunc(slices.Clone(c.Locks), func(l Lock) bool {
		return l.same(e.Piece) || e.Free && e.All && l.Stock == e.Piece.Stock
	})
	if !e.Free {
		c.Locks = append(c.Locks, e.Piece)
	}
	return nil
}

// locks checks what is laid by hand.
func (k *checker) locks(all []Lock) {
	k.bad(len(all) > maxLocks, "locks", fmt.Sprintf("at most %d pieces are laid by hand", maxLocks))
	for i, l := range all {
		k.bad(!sane(l.X, 0, 2000) || !sane(l.Y, 0, 2000) || !sane(l.Turn, -360, 360) || l.Copy < 0 || l.Sheet < 0, fmt.Sprintf("locks[%d].x", i), "the piece lies off its sheet: drag it back on, or let it lie as it comes")
	}
}
