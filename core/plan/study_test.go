package plan_test

import (
	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/placing"
	"ochrestone/core/plan"
)

// place sets an image out to be placed; an image the card has not gives an empty study.
func place(p *plan.Planner, c card.Card, k kit.Kit, motif string, opts ...plan.Option) placing.Study {
	s, _ := p.Placing(c, k, motif, opts...)
	return s
}

// coloured sets an image out to be coloured.
func coloured(p *plan.Planner, c card.Card, k kit.Kit, ask advise.Ask) advise.Study {
	s, _ := p.Advise(c, k, ask.Motif)
	return s
}
