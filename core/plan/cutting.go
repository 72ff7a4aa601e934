package plan

import (
	"context"

	"ochrestone/core/card"
	"ochrestone/core/cut"
	"ochrestone/core/kit"
)

// Cutting lays out what a run of so many of a plan's card takes, with the spares that
// Register finds each layer needs. Where ctx ends it gives the best found so far. progress,
// where there is one, is told the share of the work that is done.
func (m *Planner) Cutting(ctx context.Context, p Plan, c card.Card, k kit.Kit, copies int, progress func(float64), opts ...Option) cut.Plan {
	spares := func(motif, way, part string, want int) int {
		study, err := m.Placing(c, k, motif, opts...)
		if err != nil {
			return want
		}
		n, err := study.Blanks(way, part, want, 1)
		if err != nil {
			return want
		}
		return n
	}
	cutting := []cut.Option{cut.Copies(copies), cut.Spares(spares), cut.Write(assumed(opts).write)}
	if progress != nil {
		cutting = append(cutting, cut.Progress(progress))
	}
	out := cut.Of(ctx, &p.Build, cutting...)
	if len(k.Machines) > 0 {
		out.Passes, out.By = cut.Passes(ctx, out, p.Build.Stock, k.Machines[0]), k.Machines[0].Name
		out.Runs = cut.Runs(out.Passes)
	}
	out.Counts = cut.CountsOf(&p.Build, p.Stood, copies)
	out.One = sheetsOf(out)
	if copies > 1 {
		one := cut.Of(ctx, &p.Build, cut.Write(assumed(opts).write), cut.Tries(8))
		out.One = copies * sheetsOf(one)
	}
	return out
}

// sheetsOf is how many whole sheets a plan takes in all.
func sheetsOf(p cut.Plan) (n int) {
	for _, s := range p.Stocks {
		n += s.Needs
	}
	return n
}
