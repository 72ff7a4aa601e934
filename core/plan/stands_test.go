package plan_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/bend"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
)

// standing gives how the sheets of a card stand, by their ids, and the top of the panel.
func standing(change func(*card.Card, *kit.Kit)) (map[string]depth.Stood, float64) {
	o := two(40, 70, func(c *card.Card, k *kit.Kit) {
		c.Elements = c.Elements[:1]
		k.Spacers = []kit.Spacer{{ID: "one", Name: "One", Kind: "square", Thickness: 1, W: 6, H: 6}, {ID: "two", Name: "Two", Kind: "square", Thickness: 2, W: 6, H: 6}}
		k.Adhesives = []kit.Adhesive{{ID: "wet", Name: "Wet", Kind: "liquid", Thickness: 0.02}}
		change(c, k)
	})
	p := warm.Of(o.c, o.k, plan.Typeface(trial.Blocks{}))
	out := map[string]depth.Stood{}
	for _, s := range p.Stood {
		out[s.ID.Element] = s
	}
	panel, _ := o.c.Panel()
	return out, out[panel].Z1
}

// A label of 60 that lies 5 on a block is bent down beyond it and lies flat farther off: the card
// comes down over about (12 E I s / p)^(1/3), p what a mm of its front is pulled at most.
func TestALabelHalfOnABlockLeans(t *testing.T) {
	s, panel := standing(func(c *card.Card, _ *kit.Kit) {
		laid(c, "block", -40, 0, card.Sheet{Paper: "oat", W: 30, H: 30}).Bonds = card.Foam("two", 1)
		laid(c, "label", 0, 0, card.Sheet{Paper: "chalk", W: 60, H: 16}).Bonds = card.Glue("wet")
	})
	high := s["block"].Z1 - panel
	assert.InDelta(t, 2+s["block"].Thick, high, 1e-9)
	l := s["label"]
	require.NotNil(t, l.Uneven)
	at := func(x float64) float64 {
		b := l.Outline.Bounds()
		return l.Below(shape.Point{X: b.Min.X + x, Y: b.Centre().Y}) - panel - 0.02
	}
	assert.InDelta(t, high, at(3), 0.05, "it keeps to the block")
	down := math.Cbrt(12 * bend.Stiff(l.Thick) * high / (bend.Hand * bend.Size(l.Outline)))
	assert.Greater(t, at(5+down/2), high/4)
	for x := 5 + 2.2*down; x < 60; x += 2 {
		assert.InDelta(t, 0, at(x), 0.03, "%g mm along it lies on the panel", x)
	}
	assert.InDelta(t, high, l.Uneven.Rise, 0.06)
	assert.Equal(t, depth.Leaning, l.Trouble())
	assert.InDelta(t, l.Over(l.Uneven.High), l.Highest(), 1e-9)
}

// A strip glued across a stem is highest on it, and its ends have to be bent down by the
// height of the stem; on pads as high as the stem, beside it, it lies level.
func TestAStripAcrossAStem(t *testing.T) {
	across := func(bonds []card.Bond) (depth.Stood, float64) {
		s, panel := standing(func(c *card.Card, _ *kit.Kit) {
			laid(c, "stem", 0, 0, card.Sheet{Paper: "oat", W: 6, H: 60}).Bonds = card.Foam("one", 2)
			laid(c, "strip", 0, 0, card.Sheet{Paper: "chalk", W: 70, H: 12}).Bonds = bonds
		})
		return s["strip"], s["stem"].Z1 - panel
	}
	s, stem := across(card.Glue("wet"))
	assert.Equal(t, depth.Bowing, s.Trouble())
	assert.InDelta(t, 0, s.Under.Slope(), 1e-3, "both ways alike")
	assert.InDelta(t, stem, s.Uneven.Bow, 0.06)
	assert.Less(t, s.Uneven.Lean, 0.05)

	s, _ = across(card.Foam("one", 1))
	assert.Equal(t, depth.Riding, s.Trouble(), "its pads do not reach")
	assert.InDelta(t, stem-1, s.Uneven.Bump, 1e-6)
	for _, p := range s.Supports {
		assert.Greater(t, max(p.Area.Bounds().Min.X-(107.95/2+3), (107.95/2-3)-p.Area.Bounds().Max.X), 0.9, "no pad stands on the stem")
	}

	s, _ = across([]card.Bond{{Spacer: "two", Shims: []card.Shim{{Paper: "oat", N: 1}}}})
	assert.Equal(t, depth.None, s.Trouble())
	assert.Zero(t, s.Off)
}

const ringOf = 20

// scallops lays twenty scallops of 24 mm in a ring, each a fifth over the one before.
func scallops(c *card.Card) {
	const wide = 24.0
	r := 0.8 * wide / (2 * math.Sin(math.Pi/ringOf))
	c.Base.W, c.Base.H = 2*r+wide+20, 2*r+wide+20
	for i := range ringOf {
		a := 2 * math.Pi * float64(i) / ringOf
		laid(c, fmt.Sprint("petal", i), r*math.Sin(a), -r*math.Cos(a), card.Sheet{Paper: "oat", W: wide, H: wide, Shape: &card.Outline{Kind: card.Oval}}).Bonds = card.Glue("wet")
	}
}

// A ring of twenty stood up from nothing.
func BenchmarkRingOfScallops(b *testing.B) {
	o := two(40, 70, func(c *card.Card, k *kit.Kit) {
		c.Elements = c.Elements[:1]
		k.Adhesives = []kit.Adhesive{{ID: "wet", Name: "Wet", Kind: "liquid", Thickness: 0.02}}
		scallops(c)
	})
	p := warm.Of(o.c, o.k, plan.Typeface(trial.Blocks{}))
	for b.Loop() {
		depth.NewMemory().Stand(&p.Build)
	}
}

// Twenty glued scallops in a ring, each a fifth over the one before, stand as such rings do: two
// leaves at the least, four at the most, and nothing is wrong with them. Twelve leaves glued flat on
// each other lie flat. Common practice, no source.
func TestARingOfScallopsAndAPileLieAsCardDoes(t *testing.T) {
	const n = ringOf
	s, panel := standing(func(c *card.Card, _ *kit.Kit) {
		scallops(c)
		for i := range 12 {
			laid(c, fmt.Sprint("pile", i), 0, 0, card.Sheet{Paper: "oat", W: 40 - float64(i), H: 30}).Bonds = card.Glue("wet")
		}
	})
	top := 0.0
	for i := range n {
		p := s[fmt.Sprint("petal", i)]
		top = max(top, p.Highest()-panel)
		assert.Equal(t, depth.None, p.Trouble(), "petal %d", i)
	}
	t.Logf("the ring stands %.2f mm above its ground", top)
	assert.GreaterOrEqual(t, top, 2*0.28)
	assert.LessOrEqual(t, top, 4*0.28)
	for i := range 12 {
		p := s[fmt.Sprint("pile", i)]
		assert.Nil(t, p.Uneven)
		assert.InDelta(t, panel+float64(i+1)*(0.28+0.02), p.Z1, 1e-9)
	}
}

// Pads leave a pocket for what is tucked beneath; what is tucked lifts a cover whose pads
// are too low.
func TestWhatIsTuckedFindsRoom(t *testing.T) {
	tucked := func(level int) depth.Stood {
		s, _ := standing(func(c *card.Card, _ *kit.Kit) {
			panel, _ := c.Panel()
			laid(c, "cover", 0, 0, card.Sheet{Paper: "chalk", W: 50, H: 40}).Bonds = card.Foam("one", level)
			c.Elements = append(c.Elements, card.Element{ID: "tab", Face: card.Front, On: panel, Place: card.Place{X: c.Base.W / 2, Y: c.Base.H/2 + 12}, Bonds: card.Foam("two", 1),
				Letters: &card.Letters{Text: "I", Size: 24, Paper: "oat"}, Tucks: []card.Tuck{{Part: "1", With: "cover"}}})
		})
		return s["cover"]
	}
	low, high := tucked(1), tucked(3)
	assert.Equal(t, depth.Riding, low.Trouble())
	assert.Equal(t, depth.None, high.Trouble())
	require.NotEmpty(t, high.Supports)
}

// A cover of 40 by 30 with one side open lets in from that side alone, by hand; glued in
// its middle only, from any side; on an open side too shallow, from none.
func TestAWayInIsOnTheOpenSide(t *testing.T) {
	ways := func(bond card.Bond, dx, dy float64) map[card.Side]bool {
		o := two(40, 70, func(c *card.Card, _ *kit.Kit) {
			c.Elements = c.Elements[:1]
			panel, _ := c.Panel()
			laid(c, "cover", 0, 0, card.Sheet{Paper: "chalk", W: 40, H: 30}).Bonds = []card.Bond{bond}
			c.Elements = append(c.Elements, card.Element{ID: "tab", Face: card.Front, On: panel, Place: card.Place{X: c.Base.W/2 + dx, Y: c.Base.H/2 + dy}, Bonds: card.Glue(""),
				Letters: &card.Letters{Text: "I", Size: 6, Paper: "oat"}, Tucks: []card.Tuck{{Part: "1", With: "cover"}}})
		})
		p := warm.Of(o.c, o.k, plan.Typeface(trial.Blocks{}))
		cover, tab := -1, -1
		for i, s := range p.Stood {
			switch s.ID.Element {
			case "cover":
				cover = i
			case "tab":
				tab = i
			}
		}
		out := map[card.Side]bool{}
		for _, deg := range depth.NewMemory().WaysIn(&p.Build, p.Stood, cover, tab) {
			out[depth.SideOf(deg)] = true
		}
		return out
	}
	for side, at := range map[card.Side][2]float64{card.LeftSide: {-15, 0}, card.RightSide: {15, 0}, card.TopSide: {0, -10}, card.BottomSide: {0, 10}} {
		got := ways(card.Bond{Open: []card.Side{side}, Pocket: 12}, at[0], at[1])
		assert.True(t, got[side], "%s: %v", side, got)
		opposite := map[card.Side]card.Side{card.LeftSide: card.RightSide, card.RightSide: card.LeftSide, card.TopSide: card.BottomSide, card.BottomSide: card.TopSide}[side]
		assert.False(t, got[opposite], "%s: %v", side, got)
	}
	assert.Empty(t, ways(card.Bond{}, -15, 0), "glued all over, nothing gets in")
	assert.Empty(t, ways(card.Bond{Open: []card.Side{card.LeftSide}, Pocket: 4}, -10, 0), "the pocket is too shallow")
	right := ways(card.Bond{Zone: card.BondRight}, -15, 0)
	assert.True(t, right[card.LeftSide] && right[card.TopSide] && right[card.BottomSide], "glued at its right alone, from three sides: %v", right)
	assert.Len(t, ways(card.Bond{Zone: card.BondLeft}, -15, 0), 0, "it lies on the glue")
}

// However fine a stem is, and wherever, a leaf laid across it lies on it.
func TestAFineStemBears(t *testing.T) {
	for _, dx := range []float64{0, 0.7, 1.4, 2.1, 2.8} {
		s, panel := standing(func(c *card.Card, _ *kit.Kit) {
			laid(c, "stem", dx, 0, card.Sheet{Paper: "oat", W: 1, H: 60}).Bonds = card.Foam("two", 1)
			laid(c, "leaf", 0, 0, card.Sheet{Paper: "chalk", W: 80, H: 90}).Bonds = card.Glue("wet")
		})
		leaf, stem := s["leaf"], s["stem"]
		for _, y := range []float64{-25, 0, 25} {
			at := stem.Outline.Centroid().Add(shape.Point{Y: y})
			assert.GreaterOrEqual(t, leaf.Below(at), stem.Z1-0.03, "%g off the middle", dx)
		}
		assert.Greater(t, leaf.Z0, panel+2)
	}
}

// A spacer of no thickness is said, and holds nothing up.
func TestASpacerOfNoThicknessIsSaid(t *testing.T) {
	o := two(40, 70, func(c *card.Card, k *kit.Kit) {
		c.Elements = c.Elements[:1]
		k.Spacers = []kit.Spacer{{ID: "flat", Name: "Flat", Kind: "square", W: 6, H: 6}, {ID: "one", Name: "One", Kind: "square", Thickness: 1, W: 6, H: 6}}
		laid(c, "tag", 0, 0, card.Sheet{Paper: "chalk", W: 40, H: 30}).Bonds = card.Foam("flat", 2)
	})
	said := func(c card.Card) (out []string) {
		for _, f := range warm.Of(c, o.k).Findings {
			if f.Rule == "no pad" {
				out = append(out, f.What)
				require.NotNil(t, f.Mend)
				c, err := c.Apply(o.k, f.Mend.Edits...)
				require.NoError(t, err)
				assert.Contains(t, c.Elements[1].Bonds[0].Spacer, "one")
			}
		}
		return out
	}
	assert.Equal(t, []string{"What tag stands on has no thickness"}, said(o.c))
}

// By hand: of two tags on two pads each, one on a block, it is the higher that makes the
// card thinner with a level less, by that level; the lower is not named.
func TestOneLevelLess(t *testing.T) {
	o := two(40, 70, func(c *card.Card, k *kit.Kit) {
		c.Elements = c.Elements[:1]
		k.Spacers = []kit.Spacer{{ID: "one", Name: "One", Kind: "square", Thickness: 1, W: 6, H: 6}}
		laid(c, "high", -25, 0, card.Sheet{Paper: "chalk", W: 40, H: 30}).Bonds = card.Foam("one", 3)
		laid(c, "low", 25, 0, card.Sheet{Paper: "chalk", W: 40, H: 30}).Bonds = card.Foam("one", 1)
	})
	m := plan.NewPlanner()
	p := m.Of(o.c, o.k)
	less := m.Standing(p).Less
	require.Len(t, less, 1)
	assert.Equal(t, "high", less[0].Element)
	assert.InDelta(t, p.Depth.Total-1, less[0].Total, 1e-9)
	c, err := o.c.Apply(o.k, less[0].Edits...)
	require.NoError(t, err)
	assert.InDelta(t, less[0].Total, m.Of(c, o.k).Depth.Total, 1e-9, "and so it is, once taken")
}

// What lies wholly past the card, or is held by something nobody owns, is said with its
// mend, and settled by it.
func TestPastTheCardAndHeldByNothingOwned(t *testing.T) {
	for rule, change := range map[string]func(*card.Card){
		"edge": func(c *card.Card) {
			laid(c, "tag", 200, 0, card.Sheet{Paper: "chalk", W: 30, H: 20}).Bonds = card.Glue(hidden)
		},
		"no pad": func(c *card.Card) {
			laid(c, "tag", 0, 0, card.Sheet{Paper: "chalk", W: 30, H: 20}).Bonds = card.Foam("sold", 1)
		},
	} {
		o := two(40, 70, func(c *card.Card, k *kit.Kit) {
			c.Elements = c.Elements[:1]
			k.Spacers = []kit.Spacer{{ID: "one", Name: "One", Kind: "square", Thickness: 1, W: 6, H: 6}}
			change(c)
		})
		f := finding(warm.Of(o.c, o.k), rule)
		require.NotNil(t, f, rule)
		assert.Equal(t, foresee.Spoils, f.Severity, f.What)
		require.NotNil(t, f.Mend, rule)
		c, err := o.c.Apply(o.k, f.Mend.Edits...)
		require.NoError(t, err)
		assert.Nil(t, finding(warm.Of(c, o.k), rule), rule)
	}
}

// What a glue bears is part of how a leaf lies: with another kind of it in the stores, its name the
// same, a planner that remembers says what one that does not says.
func TestAnotherKindOfGlueLiesAnew(t *testing.T) {
	made := func(kind string) on {
		return two(40, 70, func(c *card.Card, k *kit.Kit) {
			c.Elements = c.Elements[:1]
			k.Adhesives = []kit.Adhesive{{ID: "wet", Name: "Wet", Kind: kind, Thickness: 0.02}}
			k.Spacers = []kit.Spacer{{ID: "two", Name: "Two", Kind: "square", Thickness: 2, W: 6, H: 6}}
			laid(c, "block", -40, 0, card.Sheet{Paper: "oat", W: 30, H: 30}).Bonds = card.Foam("two", 1)
			laid(c, "label", 0, 0, card.Sheet{Paper: "chalk", W: 60, H: 16}).Bonds = card.Glue("wet")
		})
	}
	field := func(p plan.Plan) []float64 {
		for _, s := range p.Stood {
			if s.ID.Element == "label" {
				return s.Bent.Z
			}
		}
		return nil
	}
	m := plan.NewPlanner()
	strong, weak := made("liquid"), made("repositionable")
	was := field(m.Of(strong.c, strong.k))
	require.NotEmpty(t, was)
	cold := field(plan.Of(weak.c, weak.k))
	assert.NotEqual(t, was, cold, "what bears less comes down farther off")
	assert.Equal(t, cold, field(m.Of(weak.c, weak.k)))
}

// A small leaf that lies nearly half on something 2.28 high is too short beyond it to come down: its
// glue meets nothing there, and it has an end in the air. A longer one comes down, and leans; one that
// hardly reaches beyond lies flat, and nobody would say a word.
func TestHalfOfItsGlueMeetsNothing(t *testing.T) {
	lies := func(wide, dx float64) depth.Stood {
		s, _ := standing(func(c *card.Card, _ *kit.Kit) {
			laid(c, "block", -30, 0, card.Sheet{Paper: "oat", W: 60, H: 60}).Bonds = card.Foam("two", 1)
			laid(c, "leaf", dx, 0, card.Sheet{Paper: "chalk", W: wide, H: 24}).Bonds = card.Glue("wet")
		})
		return s["leaf"]
	}
	short := lies(24, 1)
	require.Equal(t, depth.Airy, short.Trouble())
	assert.InDelta(t, 2.28, short.Uneven.Gap, 0.15)
	assert.Equal(t, depth.Leaning, lies(36, 6).Trouble())
	assert.Equal(t, depth.None, lies(36, -14).Trouble())
	// Most of it holds, and its end still stands out further than anything may hang.
	far := lies(60, -10)
	require.Equal(t, depth.Airy, far.Trouble())
	assert.Greater(t, far.Uneven.GapAt.X, far.Outline.Bounds().Max.X-2)
	assert.InDelta(t, 2.28, far.Uneven.Gap, 0.15)
	assert.Equal(t, depth.None, lies(60, -17).Trouble())
}

// A part on pads at one of its ends does not tip off them, for it is stuck to them: what stands lower
// beneath its other end bears nothing.
func TestAPartDoesNotTipOffItsPads(t *testing.T) {
	s, panel := standing(func(c *card.Card, _ *kit.Kit) {
		laid(c, "low", 22, 0, card.Sheet{Paper: "oat", W: 20, H: 30}).Bonds = card.Foam("one", 1)
		laid(c, "strip", 0, 0, card.Sheet{Paper: "chalk", W: 60, H: 12}).Bonds = []card.Bond{{Spacer: "two", Level: 1, Pads: []card.Pad{{X: -24, W: 6, H: 6}, {X: -15, W: 6, H: 6}}}}
	})
	assert.Zero(t, s["strip"].Under.Slope())
	assert.InDelta(t, panel+2, s["strip"].Z0, 1e-9)
	assert.Greater(t, s["strip"].Off, depth.Hang, "its other end hangs")
}
