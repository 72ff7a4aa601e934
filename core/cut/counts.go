package cut

import (
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/depth"
)

// Count is how many of a thing that is not cut from paper a run takes.
type Count struct {
	Name  string `json:"name"`
	Each  int    `json:"each" doc:"for one card"`
	N     int    `json:"n" doc:"for all"`
	Has   int    `json:"has" doc:"on hand; -1 where nobody counted"`
	Short bool   `json:"short,omitempty" doc:"there are too few"`
	Said  string `json:"said,omitempty" doc:"what to mind"`

	gems int
}

// gemSpare is one gem more for so many: they spring out of the tweezers; our own default.
const gemSpare = 10

// countsOf counts what a sitting takes beside paper: pads and strips of the spacers, gems,
// loose islands of letters, envelopes, as the cards stand. What is the same for several
// designs is counted together.
func countsOf(jobs []Job) []Count {
	out := []Count{}
	for _, j := range jobs {
		for _, c := range j.counts() {
			i := slices.IndexFunc(out, func(o Count) bool { return o.Name == c.Name })
			if i < 0 {
				out = append(out, c)
				continue
			}
			o := &out[i]
			o.N += c.N
			o.Each = max(o.Each, c.Each)
			o.Short = o.Has >= 0 && o.N > o.Has
		}
	}
	for i := range out {
		if c := &out[i]; c.gems > 0 {
			spare := (c.N + gemSpare - 1) / gemSpare
			c.N += spare
			c.Said = fmt.Sprintf("%d of them spare: they spring out of tweezers", spare)
		}
	}
	return out
}

// counts counts what one job takes beside paper.
func (j Job) counts() []Count {
	b, copies := j.Build, max(1, j.Copies)
	out := []Count{}
	used := depth.Used(b.Stock, j.Stood)
	for _, sp := range b.Stock.Spacers {
		n := used[sp.ID]
		if n == 0 {
			continue
		}
		c := Count{Name: sp.Name, Each: n, N: n * copies, Has: -1}
		if sp.Left != nil {
			c.Has, c.Short = *sp.Left, c.N > *sp.Left
		}
		if !sp.Pads() {
			c.Said = "cut to shape; several may come from one"
		}
		out = append(out, c)
	}
	islands := 0
	for _, t := range b.Things {
		switch {
		case t.Element.Gems != nil && t.Element.Face != card.Beside:
			n := len(t.Element.Gems.Places)
			c := Count{Name: "Gems of " + t.Name, Each: n, N: n * copies, Has: -1, gems: n}
			if g, ok := b.Stock.Gem(t.Element.Gems.Gem); ok {
				c.Name = g.Name
				if g.Left != nil {
					c.Has, c.Short = *g.Left, c.N > *g.Left
				}
			}
			out = append(out, c)
		case t.Element.Letters != nil && !t.Element.Letters.Bare:
			islands += t.Islands * t.Element.Letters.Times()
		case t.Element.Ribbon != nil:
			out = append(out, Count{Name: t.Name, Each: 1, N: copies, Has: -1})
		}
		if s := t.Shaking; s != nil {
			out = append(out, Count{Name: "Fillings of " + t.Name, Each: len(t.Element.Shaker.Filling), N: len(t.Element.Shaker.Filling) * copies, Has: -1})
		}
	}
	if islands > 0 {
		out = append(out, Count{Name: "Loose islands of letters", Each: islands, N: islands * copies, Has: -1, Said: "keep them for a stencilled word"})
	}
	if e, ok := b.Stock.Envelope(b.Card.Base.Envelope); ok {
		out = append(out, Count{Name: e.Name, Each: 1, N: copies, Has: -1})
	}
	return out
}
