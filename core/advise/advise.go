// Package advise says what to do: which inks from the drawer for an image, ladders for
// blends, colours after a picture, a set of colourways, the one ink that settles a weak
// pair, and how colourways are shared out on a card.
package advise

import (
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/look"
)

// Study is an image to be coloured, and the stock its inks are taken from.
type Study struct {
	Stock    look.Stock
	Image    look.Image
	Readable float64 // CIEDE2000 under which touching layers read as one
	Step     float64 // least difference of L* between tone ranks
}

// look is a colourway with its heights and how it holds for other eyes.
func (a Study) look(w card.Colourway) look.Colourway {
	out := a.Stock.Look(a.Image, w)
	out.Eyes = out.SeenOtherwise()
	depth.Image(a.Stock, a.Image, w, &out)
	return out
}
