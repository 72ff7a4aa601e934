package work

import (
	"fmt"

	"ochrestone/core/card"
)

// Tie is the verb of laying a ribbon.
const Tie = "tie"

// tieRibbons lays ribbons and cords: wrapped ones while the back of what carries them is
// still free.
func tieRibbons(k *maker) {
	for i, t := range k.Things {
		e := t.Element
		if e.Ribbon == nil || t.Outline.Empty() {
			continue
		}
		r := e.Ribbon
		a, raised := k.held(Act{ID: card.Step{Verb: Tie, Element: e.ID}, Title: fmt.Sprintf("Lay %s on %s", t.Name, k.LeafName(k.carrier(e).Element))}, e.Bonds)
		a.Kind = GlueAct
		if r.Wrapped {
			a.Detail = "Round it, its ends taped flat on the back."
		}
		switch r.Tied {
		case card.Knot:
			a.Detail += " Knot a short piece round it for the knot, and trim its ends."
		case card.Bow:
			a.Detail += " Tie the bow apart, and stick it on with a dot of glue."
		}
		a.Detail += k.crossed(i)
		k.add(phaseRaise, a, facts{leaf: Thing{Element: e.ID}, onto: k.carrier(e), raised: raised, stack: i, outline: t.Rough, bulky: r.Tied == card.Knot || r.Tied == card.Bow})
	}
}
