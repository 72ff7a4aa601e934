package plan_test

import (
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// lay adds a sheet to a card in the middle of the panel, or off it.
func laid(c *card.Card, id string, dx, dy float64, s card.Sheet) *card.Element {
	panel, _ := c.Panel()
	c.Elements = append(c.Elements, card.Element{ID: id, Name: id, Face: card.Front, On: panel, Place: card.Place{X: c.Base.W/2 + dx, Y: c.Base.H/2 + dy}, Bonds: card.Glue(hidden), Sheet: &s})
	return &c.Elements[len(c.Elements)-1]
}

// foreseenSheets are the cards of the rules about sheets, openings, letters and what
// crosses.
func foreseenSheets(t *testing.T) map[string]pair {
	with := func(change func(*card.Card, *kit.Kit)) on { return two(40, 70, change) }
	nested := func(size float64, lost bool) on {
		return with(func(c *card.Card, k *kit.Kit) {
			part := func(id string, s float64) kit.Part {
				return kit.Part{ID: id, Label: id, Rank: 1, Order: 1, Copies: 1, Outline: shape.Rect(-s/2, -s/2, s, s)}
			}
			parts := []kit.Part{part("large", 60), part("small", 40)}
			parts[1].Missing = lost
			k.Sets = append(k.Sets, kit.Set{ID: "nested", Name: "Squares", Kind: kit.DieSet, Parts: parts})
			at := c.Elements[1].Place
			c.Elements = slices.Insert(c.Elements, 1, card.Element{ID: "square", Name: "Square", Face: card.Front, On: c.Elements[0].ID, Place: card.Place{X: at.X, Y: at.Y}, Bonds: card.Glue(hidden), Sheet: &card.Sheet{Paper: "oat", W: size, H: size, Shape: &card.Outline{Kind: card.DiePart, Set: "nested", Part: "small"}}})
		})
	}
	out := map[string]pair{
		"die lost": {nested(40, true), nested(40, false)},
		"spared":   {with(kept(card.Kept, nil)), with(kept(card.Kept, ownPiece))},
		"die size": {nested(44, false), nested(40, false)},
		"made": between(t, "made", 40, 20, func(w float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "frame", 0, 0, card.Sheet{Paper: "oat", W: 30, H: 20, Openings: []card.Opening{{Outline: card.Outline{Kind: card.Rectangle}, W: w, H: 40}}})
			})
		}),
		"bands": between(t, "bands", 12, 6, func(w float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "stripes", 0, 0, card.Sheet{Paper: "oat", W: 40, H: 30, Treatments: []card.Treatment{{Bands: &card.Bands{Gap: 2, Bands: []card.Band{{Ink: "one", W: w}, {Ink: "two", W: w}, {Ink: "one", W: w}}}}}})
			})
		}),
		"behind": between(t, "behind", 0, 14, func(larger float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				c.Elements = nil
				e := laid(c, "front", 0, 0, card.Sheet{Paper: "oat", W: c.Base.W + larger, H: c.Base.H + larger, Shape: &card.Outline{Kind: card.Scalloped, Pitch: 8, Depth: 4}})
				e.On = ""
			})
		}),
		"hides": between(t, "hides", 39, 10, func(w float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "stripes", 0, 0, card.Sheet{Paper: "oat", W: 40, H: 30, Treatments: []card.Treatment{{Bands: &card.Bands{Bands: []card.Band{{Ink: "one", W: 15}, {Ink: "two", W: 15}}}}}})
				laid(c, "over", 0, 0, card.Sheet{Paper: "chalk", W: w, H: 29})
			})
		}),
		"nearly": between(t, "nearly", 1, 4, func(x float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) { laid(c, "label", x, 0, card.Sheet{Paper: "oat", W: 40, H: 20}) })
		}),
		"gems": between(t, "gems", 1, 4, func(left float64) on {
			return bare(func(c *card.Card, k *kit.Kit) {
				n, id := int(left), "pearl"
				k.Gems = append(k.Gems, kit.Gem{ID: id, Name: "Pearls", Size: 4, Height: 2, Colour: "#f0e8d8", Left: &n})
				out, err := c.Apply(*k, card.Edit{AddGems: &card.AddGems{}})
				require.NoError(t, err)
				out, err = out.Apply(*k, card.Edit{Gems: &card.SetGems{Element: out.Elements[len(out.Elements)-1].ID, Gem: &id}})
				require.NoError(t, err)
				*c = out
			})
		}),
		"door": between(t, "door", 230, 150, func(w float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "banner", 0, 0, card.Sheet{Paper: "oat", W: w, H: 20, Treatments: []card.Treatment{{Words: &card.Words{Text: "hoot", Ink: "one", Letter: 6}}}})
			})
		}),
		"span": between(t, "span", 45, 32, func(l float64) on {
			return bare(func(c *card.Card, k *kit.Kit) {
				deep := grey("deep end", l)
				k.Inks = append(k.Inks, deep)
				laid(c, "label", 0, 0, card.Sheet{Paper: "oat", W: 40, H: 20, Treatments: []card.Treatment{{Fade: &card.Fade{From: card.FromLeft, Inks: []string{"two", "deep end"}, Reach: 40, Tones: 4}}}})
			})
		}),
		"short": between(t, "short", 2, 4, func(gap float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "bloom", 0, -20, card.Sheet{Paper: "oat", W: 40, H: 20})
				laid(c, "stalk", 0, 5+gap, card.Sheet{Paper: "oat", W: 2, H: 30})
			})
		}),
		"past": between(t, "past", 4, 0, func(by float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "stalk", 0, -10+by, card.Sheet{Paper: "oat", W: 2, H: 40})
				laid(c, "vase", 0, 0, card.Sheet{Paper: "oat", W: 30, H: 20})
			})
		}),
		"meant": between(t, "meant", 1, 5, func(apart float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "one", 0, -20, card.Sheet{Paper: "oat", W: 40, H: 20})
				laid(c, "other", 0, apart, card.Sheet{Paper: "oat", W: 40, H: 20}).Meant = []card.Meant{{Do: card.KeepsOff, With: "one", By: 2}}
			})
		}),
		"blade":   between(t, "blade", 0, 14, ribbonBeneathTrim),
		"severed": between(t, "severed", 40, 0, lettersTrimmed),
		"weave":   {with(crossed(false)), with(crossed(true))},
		// As mirrored its shade falls on the other side.
		"light": {with(lit(card.LeftSide, false)), with(lit(card.LeftSide, true))},
		"openings": between(t, "openings", 40, 0, func(x float64) on {
			return bare(func(c *card.Card, k *kit.Kit) {
				k.Sets = append(k.Sets, kit.Set{ID: "through", Name: "Through", Kind: kit.StencilSet, Parts: []kit.Part{{ID: "hole", Label: "Hole", Outline: shape.Rect(0, 0, 10, 10)}}})
				shareStamp("one")(c, k)
				k.Sets[len(k.Sets)-1], k.Sets[len(k.Sets)-2] = k.Sets[len(k.Sets)-2], k.Sets[len(k.Sets)-1]
				laid(c, "print", 0, 0, card.Sheet{Paper: "oat", W: 90, H: 60, Treatments: []card.Treatment{
					{Print: &card.Print{Motif: c.Motifs[0].ID, Colourways: []string{c.Motifs[0].Colourways[0].ID}}},
					{Stencil: &card.Stencil{Set: "through", Part: "hole", Ink: "two", Over: true, Spot: card.Spot{X: x}}}}})
			})
		}),
		"uncoloured": {with(func(c *card.Card, k *kit.Kit) {
			shareStamp("")(c, k)
			k.Sets[len(k.Sets)-1].Parts[1].Stamp = "own"
		}), with(func(c *card.Card, k *kit.Kit) {
			shareStamp("two")(c, k)
			k.Sets[len(k.Sets)-1].Parts[1].Stamp = "own"
		})},
		"mirrored": {with(overTurned(card.Printed)), with(overTurned(card.Cut))},
		"leaf": {bare(func(c *card.Card, _ *kit.Kit) {
			e := laid(c, "leaf", 0, 0, card.Sheet{Paper: "vellum", W: 100, H: 130})
			e.On, e.Bonds = "", nil
		}), bare(func(c *card.Card, _ *kit.Kit) {
			e := laid(c, "leaf", 0, 0, card.Sheet{Paper: "vellum", W: 100, H: 130, Flap: &card.Flap{Side: card.TopSide, Depth: 12}})
			e.On, e.Bonds = "", nil
		})},
		"fits": between(t, "fits", 14, 6, func(w float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "frame", 0, 0, card.Sheet{Paper: "oat", W: 30, H: 30, Openings: []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 12, H: 12}}})
				laid(c, "dot", 0, 0, card.Sheet{Paper: "chalk", W: w, H: w, Shape: &card.Outline{Kind: card.Oval}})
			})
		}),
		"thickness inside": {bare(func(c *card.Card, _ *kit.Kit) {
			e := laid(c, "note", 0, 0, card.Sheet{Paper: "oat", W: 60, H: 60})
			e.Face, e.On, e.Bonds = card.InsideRight, "", card.Foam("foam", 1)
		}), bare(func(c *card.Card, _ *kit.Kit) {
			e := laid(c, "note", 0, 0, card.Sheet{Paper: "oat", W: 60, H: 60})
			e.Face, e.On = card.InsideRight, ""
		})},
		"address": between(t, "address", 100, 20, func(y float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				e := laid(c, "mark", 0, 0, card.Sheet{Paper: "oat", W: 20, H: 10})
				e.Face, e.On, e.Place.Y = card.OnEnvelope, "", y
			})
		}),
		"background": between(t, "background", 40, 70, func(l float64) on {
			return with(func(c *card.Card, k *kit.Kit) {
				k.Inks = append(k.Inks, grey("sky", l))
				c.Elements[0].Sheet.Treatments = []card.Treatment{{Fade: &card.Fade{From: card.FromAll, Inks: []string{"sky"}, Reach: 1}}}
			})
		}),
	}
	return out
}

// crossed is two discs of which neither lies on the other's paper, and a strip over both:
// the big one, which the small one lies over, alone cannot be laid over the strip.
func crossed(both bool) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		s := &k.Sets[len(k.Sets)-1]
		s.Parts[1].Outline = shape.Disc(shape.Point{X: 47, Y: 20}, 10)
		s.Parts[1].Host = ""
		for i := range c.Motifs[0].Layers {
			c.Motifs[0].Layers[i].On = ""
		}
		laid(c, "strip", 0, 0, card.Sheet{Paper: "oat", W: 90, H: 6})
		e := &c.Elements[1]
		e.Place = card.Place{X: c.Base.W / 2, Y: c.Base.H / 2}
		e.Tucks = []card.Tuck{{Part: "a", With: "strip"}}
		if both {
			e.Tucks = append(e.Tucks, card.Tuck{Part: "b", With: "strip"})
		}
	}
}

// overTurned lays the image left for right, its layers made so.
func overTurned(m card.Make) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		if m == card.Printed {
			shareStamp("one")(c, k)
		}
		c.Elements[1].Place.Mirror = true
	}
}

// allForeseen are the cards of every rule.
func allForeseen(t *testing.T) map[string]pair {
	out := foreseen(t)
	maps.Copy(out, foreseenSheets(t))
	maps.Copy(out, foreseenStands(t))
	return out
}

// lit shades the image on its left side and lets light fall from one.
func lit(from card.Side, mirror bool) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		k.Inks = append(k.Inks, grey("three", 57))
		c.Light = from
		c.Elements[0].Sheet.Paper = "chalk"
		c.Motifs[0].Colourways[0].Layers["b"] = card.Finish{Paper: "chalk", Ink: "two", Blends: []card.Blend{{Ink: "three", Zone: card.Left}}}
		for i := range c.Elements {
			if c.Elements[i].Image != nil {
				c.Elements[i].Place.Mirror = mirror
			}
		}
	}
}
