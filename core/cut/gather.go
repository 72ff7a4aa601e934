package cut

import (
	"context"

	"ochrestone/core/card"
	"ochrestone/core/look"
)

// Gathering collects what cards take, one after another, so that of many cards no more than one
// is held whole. The zero value holds nothing yet.
type Gathering struct {
	plan  Plan
	stock look.Stock
	locks []card.Lock
	some  bool
}

// Add adds what a job takes. Of the first it minds what is laid by hand, as Of does.
func (g *Gathering) Add(j Job) {
	if !g.some {
		g.stock, g.locks, g.some = j.Build.Stock, j.Build.Card.Locks, true
	}
	g.plan.gather([]Job{j}, "")
}

// Stocks lays out what was added, each cardstock as Of lays it out. Where ctx ends it gives the
// best found so far.
func (g *Gathering) Stocks(ctx context.Context, opts ...Option) []Stock {
	return g.stocks(ctx, usual(opts))
}

func (g *Gathering) stocks(ctx context.Context, o options) []Stock {
	for i := range g.plan.Stocks {
		s := laying{Stock: &g.plan.Stocks[i], stock: g.stock, locks: g.locks, o: o, share: float64(i) / float64(len(g.plan.Stocks)), each: 1 / float64(len(g.plan.Stocks))}
		s.lay(ctx)
		o.progress(float64(i+1) / float64(len(g.plan.Stocks)))
	}
	return g.plan.Stocks
}
