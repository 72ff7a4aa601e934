// Package look foretells how everything looks when it is dry: inks on cards and on one
// another, blends, outlines, and all of it to other eyes.
package look

import "errors"

// ErrUnknown is returned when a card has no image, colourway or layer of the name asked
// for.
var ErrUnknown = errors.New("not on this card")
