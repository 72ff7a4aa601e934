package foresee

import (
	"fmt"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/words"
)

// asLarge is by which share of its size a gem may differ that stands in for another; our own default.
const asLarge = 0.3

// tooFewGems notes gems of which a sitting takes more than there are, with what stands in for them.
func tooFewGems(v *View, add func(Hit)) {
	each := v.Card.Gems()
	for _, g := range v.Stock.Gems {
		n := each[g.ID] * v.Card.Run()
		if g.Left == nil || n <= *g.Left {
			continue
		}
		h := Hit{Key: []string{g.ID}, What: fmt.Sprintf("There are too few %s", g.Name),
			Why:     fmt.Sprintf("%s %s %d, and %d %s left: %d short.", words.Capital(cards(v.Card.Run())), words.Of(v.Card.Run(), "takes", "take"), n, *g.Left, words.Of(*g.Left, "is", "are"), n-*g.Left),
			Do:      "Make fewer at once, leave some out, or count them in the stores.",
			Numbers: map[string]float64{"needs": float64(n), "has": float64(*g.Left), "short": float64(n - *g.Left)}, Facts: []string{g.ID}}
		for _, e := range v.Card.Elements {
			if e.Gems != nil && e.Gems.Gem == g.ID {
				h.At = At{Element: e.ID}
				break
			}
		}
		if other, ok := v.standsIn(g, n, each); ok {
			h.Do = fmt.Sprintf("%s stands in for it: %.1f mm across, and enough of them. Or make fewer at once.", other.Name, other.Size)
			var edits []card.Edit
			for _, e := range v.Card.Elements {
				if e.Gems != nil && e.Gems.Gem == g.ID {
					edits = append(edits, card.Edit{Gems: &card.SetGems{Element: e.ID, Gem: &other.ID}})
				}
			}
			h.Mend = &Mend{"Take " + other.Name, edits}
		}
		add(h)
	}
}

// standsIn is the gem nearest in colour of those about as large of which there are enough beside what the
// card takes of them already.
func (v *View) standsIn(g kit.Gem, n int, each map[string]int) (best kit.Gem, ok bool) {
	near := math.Inf(1)
	own, err := colour.ParseHex(g.Colour)
	if err != nil {
		return best, false
	}
	for _, o := range v.Stock.Gems {
		if o.ID == g.ID || o.Away || o.Left == nil || *o.Left-each[o.ID]*v.Card.Run() < n || math.Abs(o.Size-g.Size) > asLarge*g.Size {
			continue
		}
		c, err := colour.ParseHex(o.Colour)
		if err != nil {
			continue
		}
		if d := colour.Difference(own.Lab(), c.Lab()); d < near {
			near, best, ok = d, o, true
		}
	}
	return best, ok
}
