package plan

import (
	"fmt"

	"ochrestone/core/advise"
	"ochrestone/core/standing"
)

// Standing tells how everything on the front of a plan stands. m remembers pads.
func (m *Planner) Standing(p Plan, opts ...Option) standing.Card {
	o := assumed(opts)
	return standing.Of(standing.View{Build: &p.Build, Stood: p.Stood, Pads: m.pads, Carriers: o.carriers, Write: o.write, Acts: p.Steps})
}

// Heights lists the ways to hold a part of a plan's card as high as it stands, or level with
// another element. The error wraps card.ErrGone.
func (m *Planner) Heights(p Plan, element, part, with string, opts ...Option) (advise.Raised, error) {
	out, err := advise.HeightsFor(m.pads, &p.Build, p.Stood, element, part, with, assumed(opts).write)
	if err != nil {
		return out, fmt.Errorf("the same height by other means: %w", err)
	}
	return out, nil
}
