package advise

import (
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
)

// Even finds bonds with which a piece that rocks, rides, leans or has an end in the air
// lies level: pads beside what stands up beneath it, under its low end, of a height that
// clears it. What is glued stays glued where it is borne. It gives nothing where no way
// with at most so many tries helps.
func Even(m *depth.Memory, b *build.Build, stood []depth.Stood, i int) []card.Bond {
	s := stood[i]
	if s.Trouble() == depth.None || s.Uneven.Over < 0 {
		return nil
	}
	on := b.Thick
	for _, o := range stood {
		if o.ID == s.On && !o.Print() {
			on = o.Z1
		}
	}
	step := stood[s.Uneven.Over].Highest() - on
	var glue []card.Bond
	for _, h := range s.Holds {
		if !h.Raised {
			glue = append(glue, h.Bond)
		}
	}
	for n, r := range Rises(b.Stock, step, 0.05, SameHeight+0.3) {
		if n >= mostTries {
			break
		}
		sp, ok := b.Stock.Spacer(r.Bond.Spacer)
		if !ok || !sp.Pads() {
			continue
		}
		bonds := append(glue[:len(glue):len(glue)], r.Bond)
		if again := m.Again(b, stood, i, build.HoldsOf(b.Stock, bonds)); again.Trouble() == depth.None && again.Off == 0 && len(again.Supports) > 0 {
			return bonds
		}
	}
	return nil
}

// mostTries is how many ways to a height are tried.
const mostTries = 12
