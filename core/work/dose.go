package work

import (
	"fmt"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// How much glue goes on; our own defaults. A drop spreads to about three times its width when the
// part is pressed down, and a bottle's nozzle gives one of some 2 mm.
const (
	oneDot    = 8.0 // mm: no longer than this, one dot holds it
	slender   = 3.0 // mm across, under which a line of glue comes out at the edges
	spreads   = 3.0 // times
	web       = 5.0 // mm: bars narrower than this, and
	webHoles  = 6   // so many openings make a web
	finestDot = 0.5 // mm: as small as a pick makes one
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
	dot := func(wide float64) string {
		return k.format(max(finestDot, math.Round(10*wide/spreads)/10))
	}
	switch {
	case max(box.W(), box.H()) <= oneDot:
		return fmt.Sprintf("A drop on scrap, and a dot of %s from it with a pick: what a nozzle gives comes out round it.", dot(min(box.W(), box.H())))
	case across < web && len(g.Holes()) >= webHoles:
		return fmt.Sprintf("Dots of %s where its bars cross, and all of it set down at once: it is open work.", dot(across))
	case across >= slender:
		return ""
	}
	return fmt.Sprintf("Dots of %s in a row, from a pick or a fine tip: it is %s across.", dot(across), k.format(across))
}
