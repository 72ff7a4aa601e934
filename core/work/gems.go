package work

import (
	"fmt"

	"ochrestone/core/card"
)

// Gems is the verb of sticking gems on.
const Gems = "gems"

// spareGems is how many more gems are had at hand: one in so many, at least one; our own
// default.
const spareGems = 10

// stickGems adds the gems: counted, with some to spare.
func stickGems(k *maker) {
	for i, t := range k.Things {
		e := t.Element
		if e.Gems == nil || t.Outline.Empty() {
			continue
		}
		n := len(e.Gems.Places)
		a, raised := k.held(Act{ID: card.Step{Verb: Gems, Element: e.ID}, Title: fmt.Sprintf("Stick on %s", t.Name)}, e.Bonds)
		a.Kind = GlueAct
		a.Detail = fmt.Sprintf("%d of %s across, and %d to spare. %s They cover a slip, so look the card over first.", n, k.format(e.Gems.Size), 1+n/spareGems, a.Detail)
		a.Cautions = append(a.Cautions, "Gems are small parts: not for children under three.")
		k.add(phaseEnd, a, facts{leaf: Thing{Element: e.ID}, onto: k.carrier(e), raised: raised, stack: i})
	}
}

// gemsLast: gems go on when all else lies: they catch, and the panel cannot be pressed on
// its base over them.
func gemsLast(t *table, need func(first, then int)) {
	for _, g := range t.verb[Gems] {
		for _, i := range t.joins() {
			need(i, g)
		}
	}
}
