package remember_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/cut"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/remember"
	"ochrestone/demo"
)

// The cut list, the note about a card and what is to be bought for it count the same sheets,
// and of the mend as many cards as there is enough for.
func TestSheetsAreCountedOnce(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	noted := 0
	for _, c := range demo.Cards(k) {
		for has, copies := range map[int]int{1: 1, 2: 9} {
			c.Copies = copies
			for i := range k.Papers {
				k.Papers[i].Sheets, k.Papers[i].Offcuts = has, nil
			}
			maker := plan.NewPlanner()
			p := maker.Of(c, k)
			laid := maker.Cutting(t.Context(), []plan.Job{{Card: c}}, k, nil)
			buys := remember.Shopping(k, wanted(k, remember.Make{Card: c, Plan: p}), laid.Stocks)
			for _, s := range laid.Stocks {
				f := slices.IndexFunc(p.Findings, func(f foresee.Finding) bool {
					return f.Rule == "paper" && slices.Contains(strings.Fields(f.Cause), s.Stock)
				})
				b := slices.IndexFunc(buys, func(b remember.ToBuy) bool { return b.Kind == "papers" && b.ID == s.Stock })
				require.Equal(t, s.Owned && s.Needs > s.Has, f >= 0, "%s, %d of %s: takes %d, has %d", c.Title, copies, s.Name, s.Needs, s.Has)
				require.Equal(t, f >= 0, b >= 0, "%s, %s", c.Title, s.Name)
				if f < 0 {
					continue
				}
				noted++
				assert.Equal(t, float64(s.Needs), p.Findings[f].Numbers["needs"], "%s, %s", c.Title, s.Name)
				assert.Equal(t, s.Needs-has, buys[b].N, "%s, %s", c.Title, s.Name)
				if m := p.Findings[f].Mend; m != nil {
					fewer, err := c.Apply(k, m.Edits...)
					require.NoError(t, err)
					require.Less(t, fewer.Run(), c.Run())
					q := maker.Cutting(t.Context(), []plan.Job{{Card: fewer}}, k, nil)
					assert.LessOrEqual(t, stockOf(q, s.Stock).Needs, has)
				}
			}
		}
	}
	assert.Greater(t, noted, 10)
}

func wanted(k kit.Kit, makes ...remember.Make) (out []remember.Wanted) {
	for _, m := range makes {
		out = append(out, remember.WantedFor(m, k))
	}
	return out
}

func stockOf(p cut.Plan, id string) cut.Stock {
	return p.Stocks[slices.IndexFunc(p.Stocks, func(s cut.Stock) bool { return s.Stock == id })]
}

// Where kept offcuts hold every piece no sheet is asked for, though there is none left.
func TestOffcutsAreSheetsToo(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[0]
	var papers []string // of the layers that are card of their own; the fills are a map without order
	for _, f := range c.Motifs[0].Colourways[0].Layers {
		if f.Paper != "" {
			papers = append(papers, f.Paper)
		}
	}
	slices.Sort(papers)
	of := papers[0]
	at := slices.IndexFunc(k.Papers, func(p kit.Cardstock) bool { return p.ID == of })
	rules := func() (out []string) {
		p := plan.Of(c, k)
		for _, f := range p.Findings {
			if slices.Contains(strings.Fields(f.Cause), of) || f.Rule == "out" {
				out = append(out, f.Rule)
			}
		}
		return out
	}
	k.Papers[at].Sheets, k.Papers[at].Offcuts = 0, nil
	assert.Contains(t, rules(), "out")
	k.Papers[at].Offcuts = []kit.Offcut{{W: k.Papers[at].W, H: k.Papers[at].H, N: 3}}
	assert.NotContains(t, rules(), "out")
	assert.NotContains(t, rules(), "paper")
	k.Papers[at].Offcuts = []kit.Offcut{{W: 20, H: 20, N: 300}}
	assert.Contains(t, rules(), "out", "their area would do, their size does not")
}

// What the base, a sentiment, a treatment or a traced word is inked with is looked after like
// what images are inked with.
func TestEveryInkOfACardIsShoppedFor(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	for _, c := range demo.Cards(k) {
		for _, u := range c.Uses() {
			if u.Kind != kit.KindInk {
				continue
			}
			k := k
			k.Inks = slices.Clone(k.Inks)
			at := slices.IndexFunc(k.Inks, func(i kit.Ink) bool { return i.ID == u.ID })
			if at < 0 {
				continue
			}
			k.Inks[at].Gone = true
			got := remember.Shopping(k, wanted(k, remember.Make{Card: c}), nil)
			assert.True(t, slices.ContainsFunc(got, func(b remember.ToBuy) bool { return b.ID == u.ID && b.Kind == "inks" }), "%s on %s", k.Inks[at].Name, c.Title)
		}
	}
}
