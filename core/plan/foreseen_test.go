package plan_test

import (
	"errors"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

// hidden is an adhesive that does not show through.
const hidden = "dots"

// on is a card with the kit it is made from.
type on struct {
	c card.Card
	k kit.Kit
}

// foretold are the rules that find something on a card.
func (o on) foretold() map[string]foresee.Finding {
	out := map[string]foresee.Finding{}
	// A positioner whose door is larger than most cards.
	p := warm.Of(o.c, o.k, plan.Typeface(trial.Blocks{}), plan.HingeAt(placing.Hinge{Side: placing.HingeLeft, Far: 40, DoorW: 200, DoorH: 200}))
	for _, f := range p.Findings {
		if _, had := out[f.Rule]; !had {
			out[f.Rule] = f
		}
	}
	return out
}

// pair is a card that has what a rule looks for, and one that only just has not.
type pair struct{ has, not on }

// between finds, between a card that has it and one that has not, the two that lie as near
// as a number can be told apart.
func between(t *testing.T, rule string, has, not float64, make func(x float64) on) pair {
	t.Helper()
	_, yes := make(has).foretold()[rule]
	_, no := make(not).foretold()[rule]
	require.True(t, yes, "%s at %g", rule, has)
	require.False(t, no, "%s at %g", rule, not)
	for range 14 {
		mid := (has + not) / 2
		if _, yes := make(mid).foretold()[rule]; yes {
			has = mid
		} else {
			not = mid
		}
	}
	return pair{make(has), make(not)}
}

// grey is an ink that dries to a lightness on white and hides what is beneath it.
func grey(id string, l float64) kit.Ink {
	hide := 1.0
	return kit.Ink{ID: id, Name: id, Kind: kit.Pigment, NeedsHeat: new(bool), Dry: colour.Lab{L: l}.Linear().Hex(), Hide: &hide}
}

// two is a card with one disc of one ink on another of another.
func two(l1, l2 float64, change func(*card.Card, *kit.Kit)) on {
	k := trial.Kit()
	k.Inks = append(k.Inks, grey("one", l1), grey("two", l2))
	k.Sets = append(k.Sets, kit.Set{ID: "discs", Name: "Discs", Kind: kit.DieSet, Parts: []kit.Part{
		{ID: "a", Label: "Big", Outline: shape.Disc(shape.Point{X: 20, Y: 20}, 20), Rank: 1, Copies: 1},
		{ID: "b", Label: "Small", Outline: shape.Disc(shape.Point{X: 20, Y: 20}, 10), Rank: 2, Copies: 1, Host: "a"}}})
	s, _ := k.Set("discs")
	c := card.New("Two", measure.Formats()[0], measure.FoldSide, k).AddSet(s, k)
	c.Motifs[0].School = card.LocalColour
	c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Paper: "chalk", Ink: "one"}, "b": {Paper: "chalk", Ink: "two"}}
	c.Elements[0].Sheet.Paper = "rosehip"
	if change != nil {
		change(&c, &k)
	}
	return on{c, k}
}

// strip adds a strip of words.
func strip(c *card.Card, y float64, s card.Sheet, w card.Words) {
	panel, _ := c.Panel()
	s.Treatments = []card.Treatment{{Words: &w}}
	c.Elements = append(c.Elements, card.Element{ID: "strip", Face: card.Front, On: panel, Place: card.Place{X: c.Base.W / 2, Y: y}, Bonds: card.Glue(hidden), Sheet: &s})
}

// foreseen gives for every rule a card that has what it looks for, and one that only just
// has not.
func foreseen(t *testing.T) map[string]pair {
	quiet := two(40, 70, nil)
	with := func(change func(*card.Card, *kit.Kit)) on { return two(40, 70, change) }
	plainPair := func(change func(*card.Card, *kit.Kit)) pair { return pair{with(change), quiet} }
	out := map[string]pair{
		"image": plainPair(func(c *card.Card, _ *kit.Kit) { c.Motifs[0].Set = "gone" }),
		"kind": plainPair(func(c *card.Card, _ *kit.Kit) {
			d, err := card.Read([]byte(`{"version":2,"title":"x","base":{"format":"a2","w":107.95,"h":139.7,"fold":"side","paper":"chalk","envelope":""},"motifs":[],"elements":[{"id":"r","face":"front","place":{"x":1,"y":1,"turn":0},"tassel":{"length":120}}],"setAside":[]}`))
			require.NoError(t, err)
			c.Elements = append(c.Elements, d.Elements...)
		}),
		"hidden": between(t, "hidden", 10.2, 9, func(r float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				s := &k.Sets[len(k.Sets)-1]
				s.Parts[1].Outline, s.Parts[1].Host = shape.Disc(shape.Point{X: 20, Y: 20}, 10), ""
				s.Parts = append([]kit.Part{{ID: "z", Label: "Beneath", Outline: shape.Disc(shape.Point{X: 20, Y: 20}, 20-(10.2-r)/2), Rank: 1, Copies: 1}}, s.Parts...)
				s.Parts[0].Outline = shape.Disc(shape.Point{X: 20, Y: 20}, 20+(10.2-r))
				m := &c.Motifs[0]
				m.Layers = append([]card.Layer{{ID: "z", Part: "z", Label: "Beneath", Make: card.Cut, Rank: 1, Fit: kit.FitFree, Copies: 1, Bonds: card.Glue("")}}, m.Layers...)
				m.Colourways[0].Layers["z"] = card.Finish{Paper: "chalk", Ink: "one"}
			})
		}),
		"noink": {with(func(c *card.Card, _ *kit.Kit) {
			c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Paper: "chalk"}, "b": {Paper: "chalk"}}
		}), with(func(c *card.Card, _ *kit.Kit) {
			c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Paper: "chalk"}, "b": {Paper: "chalk", Ink: "one"}}
		})},
		"one": between(t, "one", 45, 60, func(l float64) on { return two(40, l, nil) }),
		"order": between(t, "order", 35, 60, func(l float64) on {
			return two(40, l, func(c *card.Card, _ *kit.Kit) { c.Motifs[0].School = card.DarkGround })
		}),
		"hue": between(t, "hue", 0, 40, func(apart float64) on {
			return with(func(_ *card.Card, k *kit.Kit) {
				n := len(k.Inks)
				k.Inks[n-2].Dry = colour.Lab{L: 50, A: 0, B: -40}.Linear().Hex()
				k.Inks[n-1].Dry = colour.Lab{L: 54 + apart, A: 40, B: -30}.Linear().Hex()
			})
		}),
		"jars": between(t, "jars", 100, 60, func(l float64) on {
			return two(8, l, func(_ *card.Card, k *kit.Kit) {
				k.Sets[len(k.Sets)-1].Parts[1].Outline = shape.Disc(shape.Point{X: 20, Y: 20}, 3)
			})
		}),
		"blend": between(t, "blend", 66, 50, func(l float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Inks = append(k.Inks, grey("three", l))
				f := c.Motifs[0].Colourways[0].Layers["b"]
				f.Blends = []card.Blend{{Ink: "three", Zone: card.Foot}}
				c.Motifs[0].Colourways[0].Layers["b"] = f
			})
		}),
		"stamp": {with(shareStamp("two")), with(shareStamp("one"))},
		"guess": {with(func(c *card.Card, _ *kit.Kit) {
			c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Paper: "rosehip"}, "b": {Paper: "rosehip", Ink: "madder-deep"}}
		}), with(func(c *card.Card, k *kit.Kit) {
			c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Paper: "rosehip"}, "b": {Paper: "rosehip", Ink: "madder-deep"}}
			k.Swatches = append(k.Swatches, kit.Swatch{Ink: "madder-deep", Paper: "rosehip", Impressions: 1, Dry: "#802020"})
		})},
		"outside": between(t, "outside", 22, 19, func(r float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Sets[len(k.Sets)-1].Parts[1].Outline = shape.Disc(shape.Point{X: 20, Y: 20}, r)
				c.Motifs[0].Layers[1].Fit = kit.FitWithin
			})
		}),
		"play": between(t, "play", 19.9, 15, func(r float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Sets[len(k.Sets)-1].Parts[1].Outline = shape.Disc(shape.Point{X: 20, Y: 20}, r)
				c.Motifs[0].Layers[1].Fit = kit.FitEvenRim
			})
		}),
		"rim": between(t, "rim", 9, 0, func(off float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Sets[len(k.Sets)-1].Parts[1].Outline = shape.Disc(shape.Point{X: 20 + off, Y: 20}, 10)
				c.Motifs[0].Layers[1].Fit = kit.FitEvenRim
			})
		}),
		"thin": between(t, "thin", 0.6, 2, func(w float64) on { return with(bridge(t, shape.Rect(0, 20-w/2, 60, w))) }),
		"narrow": between(t, "narrow", 0.2, 2, func(w float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				g, err := shape.Disc(shape.Point{X: 20, Y: 20}, 10).Minus(shape.Rect(15, 20-w/2, 30, w))
				require.NoError(t, err)
				k.Sets[len(k.Sets)-1].Parts[1].Outline = g
			})
		}),
		"mats": between(t, "mats", 60, 10, func(mm float64) on {
			return with(func(c *card.Card, _ *kit.Kit) { c.Elements[0].Inset = card.Even(mm) })
		}),
		"edge": between(t, "edge", 0, 54, func(x float64) on {
			return with(func(c *card.Card, _ *kit.Kit) { c.Elements[1].Place.X = x })
		}),
		"beside": {with(pairOf(true)), with(pairOf(false))},
		"letters": {with(func(c *card.Card, _ *kit.Kit) {
			strip(c, 120, card.Sheet{Paper: "chalk", W: 60, H: 12}, card.Words{Text: "hello 感", Ink: "soot-deep", Letter: 4})
		}), with(func(c *card.Card, _ *kit.Kit) {
			strip(c, 120, card.Sheet{Paper: "chalk", W: 60, H: 12}, card.Words{Text: "hello é", Ink: "soot-deep", Letter: 4})
		})},
		"words": between(t, "words", 80, 40, func(l float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Inks = append(k.Inks, grey("pale", l))
				strip(c, 120, card.Sheet{Paper: "chalk", W: 60, H: 12}, card.Words{Text: "hello", Ink: "pale", Letter: 4})
			})
		}),
		"strip": between(t, "strip", 10, 40, func(w float64) on {
			return with(func(c *card.Card, _ *kit.Kit) {
				strip(c, 120, card.Sheet{Paper: "chalk", W: w, H: 12}, card.Words{Text: "hello", Ink: "soot-deep", Letter: 4})
			})
		}),
		"covered": between(t, "covered", 70, 40, func(y float64) on {
			return with(func(c *card.Card, _ *kit.Kit) {
				strip(c, 96, card.Sheet{Paper: "chalk", W: 60, H: 12}, card.Words{Text: "hello", Ink: "soot-deep", Letter: 8})
				n := len(c.Elements)
				c.Elements[n-1], c.Elements[n-2] = c.Elements[n-2], c.Elements[n-1]
				c.Elements[n-1].Place.Y = y + 10
			})
		}),
		"buried": between(t, "buried", 30, 46, func(w float64) on {
			return with(func(c *card.Card, _ *kit.Kit) {
				panel, _ := c.Panel()
				low := card.Element{ID: "low", Name: "Low", Face: card.Front, On: panel, Place: card.Place{X: 54, Y: 70}, Bonds: card.Glue(hidden), Sheet: &card.Sheet{Paper: "chalk", W: w, H: 20}}
				c.Elements = slices.Insert(c.Elements, 1, low)
			})
		}),
		"across": between(t, "across", 40, 70, func(l float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Inks = append(k.Inks, grey("third", l))
				s, _ := k.Set("discs")
				s.ID = "others"
				k.Sets = append(k.Sets, s)
				*c = c.AddSet(s, *k)
				c.Motifs[1].School = card.LocalColour
				c.Motifs[1].Colourways[0].Layers = map[string]card.Finish{"a": {Paper: "chalk", Ink: "third"}, "b": {Paper: "chalk", Ink: "two"}}
				c.Elements[2].Place = card.Place{X: c.Elements[1].Place.X + 36, Y: c.Elements[1].Place.Y}
			})
		}),
		"hides": between(t, "hides", 38, 20, func(w float64) on {
			return with(func(c *card.Card, _ *kit.Kit) {
				strip(c, 70, card.Sheet{Paper: "oat", W: w, H: 60}, card.Words{Text: "hello", Ink: "soot-deep", Letter: 4})
				c.Elements[2].Place = c.Elements[1].Place
			})
		}),
		"narrow blend": between(t, "narrow blend", 3, 9, func(w float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Sets[len(k.Sets)-1].Parts[1].Outline = shape.Rect(20-w/2, 12, w, 16)
				c.Motifs[0].Colourways[0].Layers["b"] = card.Finish{Paper: "chalk", Ink: "two", Blends: []card.Blend{{Ink: "one", Zone: card.Foot}, {Ink: "two", Zone: card.Foot}}}
			})
		}),
		"small": between(t, "small", 3, 5, func(w float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Sets[len(k.Sets)-1].Parts[1].Outline = shape.Rect(20, 12, w, w)
				c.Motifs[0].Colourways[0].Layers["b"] = card.Finish{Paper: "chalk", Ink: "two", Blends: []card.Blend{{Ink: "one", Zone: card.Foot}, {Ink: "mere-full", Zone: card.Tip}}}
			})
		}),
		"stroke": between(t, "stroke", 20, 46, func(w float64) on {
			return with(func(c *card.Card, _ *kit.Kit) {
				at := c.Elements[1].Place
				x := at.X - c.Base.W/2
				c.Elements[0].Sheet.Treatments = []card.Treatment{{Stroke: &card.Stroke{Ink: "one", W: w, Points: []card.Offset{{X: x, Y: at.Y - c.Base.H/2 - 22}, {X: x, Y: at.Y - c.Base.H/2 + 22}}}}}
			})
		}),
		"balance": between(t, "balance", 24, 54, func(x float64) on {
			return with(func(c *card.Card, _ *kit.Kit) { c.Elements[1].Place = card.Place{X: x, Y: x} })
		}),
		"ring": {with(ringed(12, 16)), with(ringed(12, 13))},
		"unlike": {with(fourOf(card.Foam("foam", 1), card.Foam("foam", 1), card.Foam("foam", 1), card.Glue("liquid"))),
			with(fourOf(card.Foam("foam", 1), card.Foam("foam", 1), card.Glue("liquid"), card.Glue("liquid")))},
		"unheld": {with(func(c *card.Card, _ *kit.Kit) { c.Elements[1].Bonds = nil; c.Motifs[0].Layers[0].Bonds = nil }), quiet},
		"peeks":  {with(shakerBack(-1)), with(shakerBack(1))},
		"margins": between(t, "margins", 12, 2, func(off float64) on {
			return with(func(c *card.Card, _ *kit.Kit) {
				c.Elements = slices.Insert(c.Elements, 0, card.Element{ID: "sheet", Face: card.Front, Place: card.Place{X: c.Base.W / 2, Y: c.Base.H/2 - off/2}, Bonds: card.Glue(hidden), Sheet: &card.Sheet{Paper: "chalk", W: c.Base.W - 14, H: c.Base.H - 14}})
			})
		}),
		"seat": between(t, "seat", 15, 30, func(r float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Sets = append(k.Sets, kit.Set{ID: "seated", Name: "Seated", Kind: kit.DieSet, Parts: []kit.Part{{ID: "p", Label: "P", Rank: 1, Order: 1, Copies: 1, Outline: shape.Rect(-45, -45, 90, 90), Lines: shape.Disc(shape.Point{}, r).Path()}}})
				at := c.Elements[1].Place
				c.Elements = slices.Insert(c.Elements, 1, card.Element{ID: "sheet", Face: card.Front, On: c.Elements[0].ID, Place: card.Place{X: at.X, Y: at.Y}, Bonds: card.Glue(hidden), Sheet: &card.Sheet{Paper: "oat", W: 90, H: 90, Shape: &card.Outline{Kind: card.DiePart, Set: "seated", Part: "p"}}})
			})
		}),
		"dot": between(t, "dot", 1, 3, func(r float64) on {
			return with(func(_ *card.Card, k *kit.Kit) {
				k.Sets[len(k.Sets)-1].Parts[1].Outline = shape.Disc(shape.Point{X: 20, Y: 20}, r)
			})
		}),
		"narrow tape": between(t, "narrow tape", 2, 9, func(w float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Adhesives = append(k.Adhesives, kit.Adhesive{ID: "strip tape", Name: "Strip tape", Kind: "double-sided"})
				g, err := shape.Disc(shape.Point{X: 20, Y: 20}, 14).Union(shape.Rect(20-w/2, 30, w, 30))
				require.NoError(t, err)
				k.Sets[len(k.Sets)-1].Parts[0].Outline = g
				c.Elements[1].Bonds = card.Glue("strip tape")
			})
		}),
		"ribs": {with(ribbed(t, 2, 2)), with(ribbed(t, 2, 1))},
		"unused": {with(func(c *card.Card, _ *kit.Kit) {
			c.Elements = append(c.Elements, card.Element{ID: "q", Name: "Square", Face: card.Beside, Sheet: &card.Sheet{Paper: "chalk", W: 40, H: 40}})
		}), with(func(c *card.Card, _ *kit.Kit) {
			c.Elements = append(c.Elements, card.Element{ID: "q", Name: "Square", Face: card.Front, On: "panel", Place: card.Place{X: 30, Y: 110}, Bonds: card.Glue(hidden), Sheet: &card.Sheet{Paper: "chalk", W: 40, H: 40}})
		})},
		"thick": between(t, "thick", 7, 1, func(mm float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Spacers = append(k.Spacers, kit.Spacer{ID: "block", Name: "Block", Kind: "board", Thickness: mm})
				c.Elements[1].Bonds = card.Foam("block", 1)
			})
		}),
		"paper": between(t, "paper", 40, 2, func(n float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				c.Copies = int(math.Round(n))
				for i := range k.Papers {
					k.Papers[i].Sheets, k.Papers[i].W, k.Papers[i].H = 6, 215.9, 279.4
				}
			})
		}),
		"spacers": between(t, "spacers", 90, 1, func(n float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				c.Copies = int(math.Round(n))
				left := 40
				for i := range k.Papers {
					k.Papers[i].Sheets = 9000
				}
				k.Spacers = []kit.Spacer{{ID: "pads", Name: "Pads", Kind: "square", Thickness: 1, W: 6, H: 6, Left: &left}}
				c.Elements[1].Bonds = card.Foam("pads", 1)
			})
		}),
		"loose": between(t, "loose", 30, 4, func(high float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Envelopes = append(k.Envelopes, kit.Envelope{ID: "own", Name: "Own", W: 120, H: 160, Caliper: 0.5, Depth: high})
				c.Base.Envelope = "own"
			})
		}),
		"envelope": between(t, "envelope", 105, 130, func(w float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Envelopes = append(k.Envelopes, kit.Envelope{ID: "own", Name: "Own", W: w, H: 160, Caliper: 0.1})
				c.Base.Envelope = "own"
			})
		}),
		"glue": {with(func(c *card.Card, _ *kit.Kit) {
			strip(c, 120, card.Sheet{Paper: "vellum", W: 60, H: 12}, card.Words{Text: "hello", Ink: "soot-deep", Letter: 4})
			c.Elements[2].Bonds = card.Glue("liquid")
		}), with(func(c *card.Card, _ *kit.Kit) {
			strip(c, 120, card.Sheet{Paper: "vellum", W: 60, H: 12}, card.Words{Text: "hello", Ink: "soot-deep", Letter: 4})
		})},
		"step": {with(func(c *card.Card, _ *kit.Kit) {
			c.Order = []card.Step{{Verb: work.Finish}, {Verb: work.Fold}}
		}), with(func(c *card.Card, _ *kit.Kit) {
			c.Order = []card.Step{{Verb: work.Fold}, {Verb: work.Finish}}
		})},
		"settings": {with(handOrder(true)), with(handOrder(false))},
		"brush":    {with(familiesBlended(4)), with(familiesBlended(3))},
		"waits":    between(t, "waits", 60, 5, func(min float64) on { return with(slow(min)) }),
		"hot": {with(func(c *card.Card, k *kit.Kit) {
			c.Motifs[0].Colourways[0].Layers["b"] = card.Finish{Paper: "vellum", Ink: "dusk-full"}
		}),
			with(func(c *card.Card, k *kit.Kit) {
				c.Motifs[0].Colourways[0].Layers["b"] = card.Finish{Paper: "vellum", Ink: "madder-full"}
			})},
		"missing": plainPair(func(c *card.Card, _ *kit.Kit) {
			c.Motifs[0].Colourways[0].Layers["b"] = card.Finish{Paper: "chalk", Ink: "no such"}
		}),
		"away": plainPair(func(_ *card.Card, k *kit.Kit) {
			for i := range k.Papers {
				k.Papers[i].Away = k.Papers[i].Away || k.Papers[i].ID == "rosehip"
			}
		}),
		"gone":   plainPair(func(_ *card.Card, k *kit.Kit) { k.Inks[len(k.Inks)-1].Gone = true }),
		"out":    {with(sheetsLeft(0)), with(sheetsLeft(1))},
		"lost":   plainPair(func(_ *card.Card, k *kit.Kit) { k.Sets[len(k.Sets)-1].Parts[1].Missing = true }),
		"bleeds": {with(through(true)), with(through(false))},
		"bitten": {with(inAStrip(26)), with(inAStrip(28))},
		"tones":  {with(tonesWanted(50, 45)), with(tonesWanted(50, 40))},
		"runs":   {with(laidOver(kit.Watercolor, kit.Dye, 60)), with(laidOver(kit.Watercolor, kit.Waterproof, 60))},
		"dulls":  {with(laidOver(kit.Pencil, kit.Dye, 34)), with(laidOver(kit.Pencil, kit.Dye, 36))},
		"smears": {with(onStock(kit.PaperFoil, kit.Dye)), with(onStock(kit.PaperFoil, kit.Alcohol))},
	}
	return out
}

// Every rule finds what it looks for, and is silent where it only just is not there.
func TestEveryRuleHasItsCard(t *testing.T) {
	t.Parallel()
	cases := allForeseen(t)
	for _, r := range foresee.Rules() {
		if r.ID == "steps" {
			continue // no card brings it about; see the next test
		}
		p, ok := cases[r.ID]
		if !assert.True(t, ok, "rule %q has no card", r.ID) {
			continue
		}
		f, has := p.has.foretold()[r.ID]
		assert.True(t, has, "rule %q does not find what it looks for", r.ID)
		_, not := p.not.foretold()[r.ID]
		assert.False(t, not, "rule %q speaks where it only just is not so", r.ID)
		assert.Equal(t, r.Station, f.Station)
		for _, text := range []string{f.What, f.Why, f.Do, r.Source} {
			assert.NotEmpty(t, strings.TrimSpace(text), r.ID)
		}
		assert.GreaterOrEqual(t, slices.Index([]foresee.Severity{foresee.Spoils, foresee.Shows, foresee.Wastes, foresee.Tip}, f.Severity),
			slices.Index([]foresee.Severity{foresee.Spoils, foresee.Shows, foresee.Wastes, foresee.Tip}, r.Severity), "%s is worse than it says", r.ID)
	}
	for id := range cases {
		assert.True(t, slices.ContainsFunc(foresee.Rules(), func(r foresee.Rule) bool { return r.ID == id }), "%q is no rule", id)
	}
}

func TestStepsInACircleAreSaid(t *testing.T) {
	t.Parallel()
	quiet := two(40, 70, nil)
	b := plan.NewPlanner().Build(quiet.c, quiet.k)
	v := foresee.View{Card: quiet.c, Build: &b, Circle: errors.New("these steps wait for each other: A; B"), Face: trial.Blocks{}}
	got := foresee.Of(v)
	require.NotEmpty(t, got)
	assert.Equal(t, "steps", got[0].Rule)
	assert.Contains(t, got[0].Why, "A; B")
}
