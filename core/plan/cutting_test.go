package plan_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/cut"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
	"ochrestone/demo"
)

func regionAt(t *testing.T, path string) shape.Region {
	var g shape.Region
	require.NoError(t, g.UnmarshalText([]byte(path)))
	return g
}

// Looked at by the outlines themselves: of every card, for one and for several, each piece
// is laid as often as it is needed, within its sheet, none over another.
func TestWhatIsCutLiesClear(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	cards := map[string]card.Card{"everything": trial.Everything(), "shaking": trial.Shaking()}
	for _, c := range demo.Cards(k) {
		cards[c.Title] = c
	}
	for name, c := range cards {
		kt := k
		if name == "everything" || name == "shaking" {
			kt = trial.Kit()
		}
		m := plan.NewPlanner()
		for _, copies := range []int{1, 5} {
			got := m.Cutting(context.Background(), sat(c, copies), kt, nil, plan.Typeface(trial.Blocks{}))
			require.NotEmpty(t, got.Stocks, name)
			for _, s := range got.Stocks {
				laid := make([]int, len(s.Wants))
				for n, sh := range s.Sheets {
					var all []shape.Region
					for _, pl := range sh.Placed {
						laid[pl.Want]++
						g := regionAt(t, pl.Path)
						b := g.Bounds()
						require.True(t, b.Min.X > -1e-3 && b.Min.Y > -1e-3 && b.Max.X < sh.W+1e-3 && b.Max.Y < sh.H+1e-3, "%s: %s leaves sheet %d of %s", name, s.Wants[pl.Want].Name, n, s.Name)
						in, err := g.Offset(-0.05)
						if err != nil || in.Empty() {
							continue
						}
						for _, o := range all {
							require.False(t, in.Overlaps(o), "%s: %s lies over another on sheet %d of %s", name, s.Wants[pl.Want].Name, n, s.Name)
						}
						all = append(all, g)
					}
				}
				for i, w := range s.Wants {
					lacks := 0
					for _, l := range s.Lacks {
						if l.Want == i {
							lacks += l.N
						}
					}
					assert.Equal(t, w.N, laid[i]+lacks, "%s: %s of %s", name, w.Name, s.Name)
					assert.GreaterOrEqual(t, w.N, w.Each*copies, "%s: %s", name, w.Name)
				}
				assert.LessOrEqual(t, s.Used, 1.0)
			}
		}
	}
}

// By hand: twelve A2 bases come from six letter sheets, two from each; the panels of 4 by
// 5 1/4 in four to a sheet, three sheets; with an offcut that takes one, that is used first.
// Common practice, no source.
func TestTwelveCardsByHand(t *testing.T) {
	o := two(40, 70, func(c *card.Card, k *kit.Kit) {
		c.Base = card.Base{Format: "a2", W: 107.95, H: 139.7, Fold: "side", Paper: "chalk"}
		c.Elements = c.Elements[:1]
		c.Elements[0].Inset = card.Even(3.175)
		c.Elements[0].Sheet = &card.Sheet{Paper: "oat"}
		for i := range k.Papers {
			k.Papers[i].W, k.Papers[i].H, k.Papers[i].Sheets, k.Papers[i].Grain = 215.9, 279.4, 5, ""
			if k.Papers[i].ID == "oat" {
				k.Papers[i].Offcuts = []kit.Offcut{{W: 110, H: 140}}
			}
		}
	})
	m := plan.NewPlanner()
	at := func(k kit.Kit, paper string) cut.Stock {
		for _, s := range m.Cutting(context.Background(), sat(o.c, 12), k, nil).Stocks {
			if s.Stock == paper {
				return s
			}
		}
		t.Fatal("no " + paper)
		return cut.Stock{}
	}
	bases := at(o.k, "chalk")
	assert.Equal(t, 6, bases.Needs)
	assert.Equal(t, 5, bases.Has)
	assert.InDelta(t, 1, bases.Used, 1e-6, "they fill their sheets")
	panels := at(o.k, "oat")
	assert.Equal(t, 3, panels.Needs, "eleven panels, four from a sheet")
	assert.Equal(t, "offcut", panels.Sheets[0].Kind)
	assert.Len(t, panels.Sheets[0].Placed, 1)

	// The fold runs down: where the fibres run across, a base is cut a quarter turned, and but
	// one comes from a sheet.
	with := o.k
	with.Papers = append([]kit.Cardstock(nil), o.k.Papers...)
	for i := range with.Papers {
		with.Papers[i].Grain = "across"
	}
	assert.Equal(t, 12, at(with, "chalk").Needs, "turned, one to a sheet")
	for i := range with.Papers {
		with.Papers[i].Grain = "down"
	}
	assert.Equal(t, 6, at(with, "chalk").Needs, "upright, one above the other")
}

// By hand: a mat of 100 by 130 beneath a panel that shows 3 mm of it all round has a hidden
// middle of 74 by 104 within 10 mm for its glue. Where the sheets are no larger than the mat,
// letters of its card come out of that middle; where there is room beside it, they do not.
func TestTheHiddenMiddleOfAMat(t *testing.T) {
	what := card.Element{ID: "word", Face: card.Front, On: "panel2", Place: card.Place{X: 53, Y: 68}, Bonds: card.Glue(hidden), Letters: &card.Letters{Text: "IO", Size: 20, Paper: "oat"}}
	letters := func(w, h float64, raised, matRaised bool) cut.Stock {
		o := two(40, 70, func(c *card.Card, k *kit.Kit) {
			c.Base = card.Base{Format: "custom", W: 106, H: 136, Fold: "side", Paper: "chalk"}
			mat := c.Elements[0]
			mat.ID, mat.Inset, mat.Sheet = "mat", card.Even(3), &card.Sheet{Paper: "oat"}
			panel := mat
			panel.ID, panel.On, panel.Inset, panel.Sheet = "panel2", "mat", card.Even(3), &card.Sheet{Paper: "chalk"}
			if raised {
				panel.Bonds = card.Foam("thin", 1)
			}
			if matRaised {
				mat.Bonds = card.Foam("thin", 1)
			}
			c.Elements = []card.Element{mat, panel}
			for i := range k.Papers {
				if k.Papers[i].ID == "oat" {
					k.Papers[i].W, k.Papers[i].H, k.Papers[i].Sheets = w, h, 9
				}
			}
			k.Spacers = []kit.Spacer{{ID: "thin", Name: "Thin", Kind: "square", Thickness: 1, W: 6, H: 6}}
			c.Elements = append(c.Elements, what)
		})
		require.NoError(t, o.c.Validate())
		m := plan.NewPlanner()
		for _, s := range m.Cutting(context.Background(), sat(o.c, 1), o.k, nil, plan.Typeface(trial.Blocks{})).Stocks {
			if s.Stock == "oat" {
				return s
			}
		}
		t.Fatal("no oat")
		return cut.Stock{}
	}
	tight := letters(100, 130, false, false)
	assert.Equal(t, 1, tight.Needs)
	middle := tight.Sheets[slices.IndexFunc(tight.Sheets, func(s cut.Sheet) bool { return s.Kind == "middle" })]
	assert.InDelta(t, 100-2*13, middle.W, 1e-6)
	assert.InDelta(t, 130-2*13, middle.H, 1e-6)
	assert.Len(t, middle.Placed, 2)
	for _, s := range letters(215.9, 279.4, false, false).Sheets {
		assert.NotEqual(t, "middle", s.Kind, "there is room beside the mat")
	}
	assert.Equal(t, 2, letters(100, 130, true, false).Needs, "the panel stands on foam: the hole would be seen from the side")
	assert.Equal(t, 2, letters(100, 130, false, true).Needs, "the mat stands on foam: its pads need its middle")

	what.Letters, what.Sheet = nil, &card.Sheet{Paper: "oat", W: 60, H: 20}
	strip := letters(100, 130, false, false)
	assert.Equal(t, 1, strip.Needs, "a strip is cut straight out of the middle too")
	i := slices.IndexFunc(strip.Sheets, func(s cut.Sheet) bool { return s.Kind == "middle" })
	require.GreaterOrEqual(t, i, 0)
	assert.Len(t, strip.Sheets[i].Placed, 1)
	assert.NotEmpty(t, strip.Sheets[i].Cuts)
	what.Sheet.W = 106
	assert.Equal(t, 2, letters(100, 130, false, false).Needs, "too long for the middle")
}

// sat is a sitting of so many of one card.
func sat(c card.Card, n int) []plan.Job {
	c.Copies, c.Lots = n, nil
	return []plan.Job{{Card: c}}
}

// A panel dragged on its sheet stays where it was put, the others are cut round it; a strip
// comes out of the hidden middle of a mat before a fresh sheet is begun.
func TestRectanglesAreMovedByHand(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	m := plan.NewPlanner()
	for _, c := range demo.Cards(k) {
		jobs := sat(c, 3)
		was := m.Cutting(context.Background(), jobs, k, nil)
		for _, s := range was.Stocks {
			n, at := -1, 0
			for i, sh := range s.Sheets {
				if sh.Kind == "sheet" && len(sh.Placed) > 0 && s.Wants[sh.Placed[0].Want].By == "trimmer" {
					n = i
					break
				}
				if sh.Kind == "sheet" {
					at++
				}
			}
			if n < 0 {
				continue
			}
			p := s.Sheets[n].Placed[0]
			w := s.Wants[p.Want]
			jobs[0].Card.Locks = []card.Lock{{Stock: s.Stock, Element: w.Element, Motif: w.Motif, Way: w.Way, Part: w.Part, Copy: p.Copy, Sheet: at, X: s.Sheets[n].W - w.W/2 - 9, Y: s.Sheets[n].H - w.H/2 - 9, Turn: p.Turn}}
			now := m.Cutting(context.Background(), jobs, k, nil)
			jobs[0].Card.Locks = nil
			i := slices.IndexFunc(now.Stocks, func(o cut.Stock) bool { return o.Stock == s.Stock })
			hand, laid := 0, 0
			for _, sh := range now.Stocks[i].Sheets {
				for _, q := range sh.Placed {
					laid++
					if q.Hand {
						hand++
						assert.Equal(t, p.Want, q.Want)
						assert.InDelta(t, s.Sheets[n].W-w.W/2-9, q.X, 4, "%s: %s, or at the next edge", c.Title, w.Name)
					}
				}
			}
			all := 0
			for _, w := range now.Stocks[i].Wants {
				all += w.N
			}
			if w.W <= s.Sheets[n].W-9 && w.H <= s.Sheets[n].H-9 && p.Turn == 0 {
				assert.Equal(t, 1, hand, "%s: %s of %s", c.Title, w.Name, s.Name)
				assert.Equal(t, all, laid, "%s: nothing is forgotten", c.Title)
				break
			}
		}
	}
}
