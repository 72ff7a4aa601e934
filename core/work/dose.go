package work

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// How much glue goes on; our own defaults. A bottle's nozzle gives a drop of some 2 mm, and pressed down
// it spreads.
const (
	oneDot   = 8.0 // mm: no longer than this, one dot holds it
	slender  = 3.0 // mm across, under which a line of glue comes out at the edges
	web      = 5.0 // mm: bars narrower than this, and
	webHoles = 6   // so many openings make a web
)

// dose says how wet glue goes on a part for which as it comes from the bottle it is too much; nothing
// where it is glued otherwise.
func (k *maker) dose(bonds []card.Bond, g shape.Region) string {
	if len(bonds) != 1 || bonds[0].Zone != "" || g.Empty() {
		return ""
	}
	if a, ok := k.Stock.Adhesive(bonds[0].Adhesive); !ok || a.Kind != "liquid" {
		return ""
	}
	box := g.Bounds()
	across := 2 * g.Area() / max(g.Length(), 1e-9) // of a long part its width, of a web that of its bars
	switch {
	case max(box.W(), box.H()) <= oneDot:
		return "A drop on scrap, and from it a dot a third as wide as the part with a pick: what a nozzle gives comes out round it."
	case across < web && len(g.Holes()) >= webHoles:
		return fmt.Sprintf("It is open work, its bars about %s wide: small dots where they cross, and all of it set down at once.", k.format(across))
	case across >= slender:
		return ""
	}
	return fmt.Sprintf("It is about %s across: small dots in a row, from a pick or a fine tip.", k.format(across))
}
