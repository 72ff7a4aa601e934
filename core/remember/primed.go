package remember

import (
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// Primed are the sets of new stamps that are new no longer once a card is made: those that something
// on it is stamped with.
func Primed(c card.Card, k kit.Kit) (out []kit.Set) {
	for _, s := range k.Sets {
		stamped := slices.ContainsFunc(c.Motifs, func(m card.Motif) bool {
			return m.Set == s.ID && slices.ContainsFunc(m.Layers, func(l card.Layer) bool {
				return l.Make == card.Printed && slices.ContainsFunc(m.Colourways, func(w card.Colourway) bool { return w.Layers[l.ID].Ink != "" })
			})
		})
		if s.Fresh && stamped {
			s.Fresh = false
			out = append(out, s)
		}
	}
	return out
}
