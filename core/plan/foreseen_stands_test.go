package plan_test

import (
	"testing"

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// foreseenStands are the cards of the rules about how parts lie on what is beneath, and
// about the pads they stand on.
func foreseenStands(t *testing.T) map[string]pair {
	bare := func(change func(*card.Card, *kit.Kit)) on {
		return two(40, 70, func(c *card.Card, k *kit.Kit) {
			c.Elements = c.Elements[:1]
			k.Spacers = []kit.Spacer{{ID: "thin", Name: "Thin pads", Kind: "square", Thickness: 1, W: 6, H: 6}, {ID: "thick", Name: "Thick pads", Kind: "square", Thickness: 2, W: 6, H: 6},
				{ID: "tape", Name: "Tape", Kind: "tape", Thickness: 1.5, W: 6, H: 4000}, {ID: "foam-sheet", Name: "Sheet", Kind: "sheet", Thickness: 2, W: 200, H: 200}}
			change(c, k)
		})
	}
	label := card.Sheet{Paper: "chalk", W: 60, H: 16}
	return map[string]pair{
		// A strip on thin pads across a stem that stands on so many of them.
		"uneven": {bare(func(c *card.Card, _ *kit.Kit) {
			laid(c, "stem", 0, 0, card.Sheet{Paper: "oat", W: 6, H: 60}).Bonds = card.Foam("thin", 2)
			laid(c, "label", 0, 0, label).Bonds = card.Foam("thin", 1)
		}), bare(func(c *card.Card, _ *kit.Kit) {
			laid(c, "stem", 0, 0, card.Sheet{Paper: "oat", W: 6, H: 60}).Bonds = card.Glue("")
			laid(c, "label", 0, 0, label).Bonds = card.Foam("thin", 1)
		})},
		// A sheet of copy paper on wet glue, and one a little heavier.
		"ripples": between(t, "ripples", 80, 121, func(gsm float64) on {
			return bare(func(c *card.Card, k *kit.Kit) {
				k.Papers = append(k.Papers, kit.Cardstock{ID: "copy", Name: "Copy", Kind: kit.PaperPatterned, Colour: "#eeeeee", GSM: gsm, Caliper: 0.1, Sheets: 9, W: 215.9, H: 279.4})
				laid(c, "sky", 0, 0, card.Sheet{Paper: "copy", W: 60, H: 40}).Bonds = card.Glue("liquid")
			})
		}),
		// A label with one end on a block that stands on so many pads.
		"leans": between(t, "leans", 2, 0.6, func(high float64) on {
			return bare(func(c *card.Card, k *kit.Kit) {
				k.Spacers = append(k.Spacers, kit.Spacer{ID: "block", Name: "Block", Kind: "square", Thickness: high, W: 6, H: 6})
				laid(c, "block", -40, 0, card.Sheet{Paper: "oat", W: 30, H: 30}).Bonds = card.Foam("block", 1)
				laid(c, "label", 0, 0, label).Bonds = card.Glue("")
			})
		}),
		// A pad at one end only; how far the other hangs from it is told by how far it stands in.
		"hangs": between(t, "hangs", -16, 0, func(x float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "tag", 0, 0, card.Sheet{Paper: "chalk", W: 32, H: 10}).Bonds = []card.Bond{{Spacer: "thin", Pads: []card.Pad{{X: x / 2, W: 6, H: 6}}}}
			})
		}),
		"pads": between(t, "pads", 7, 3, func(x float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "tag", 0, 0, card.Sheet{Paper: "chalk", W: 16, H: 16}).Bonds = []card.Bond{{Spacer: "thin", Pads: []card.Pad{{X: x, W: 6, H: 6}}}}
			})
		}),
		"no pad": between(t, "no pad", 3, 12, func(w float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "stalk", 0, 0, card.Sheet{Paper: "chalk", W: w, H: 40}).Bonds = card.Foam("thin", 1)
			})
		}),
		// Glue in a band along the edge of a disc; how far back it stands is how narrow it gets.
		"joint": between(t, "joint", 19.5, 5, func(inset float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				laid(c, "label", 0, 0, card.Sheet{Paper: "chalk", W: 40, H: 40}).Bonds = []card.Bond{{Inset: inset}}
			})
		}),
		"flush": between(t, "flush", 0.2, 2, func(border float64) on {
			return bare(func(c *card.Card, k *kit.Kit) {
				k.Adhesives = []kit.Adhesive{{ID: "runner", Name: "Runner", Kind: "tape runner"}, {ID: "wet", Name: "Wet", Kind: "liquid", Wiggle: true}}
				c.Elements[0].Inset, c.Elements[0].Bonds = card.Even(border), card.Glue("runner")
			})
		}),
		// A word that lies over a cover but for its first letter, which goes beneath; the cover is
		// glued all over, or with its left side open.
		"way in": {bare(slipped(nil)), bare(slipped([]card.Side{card.LeftSide}))},
		// A tag that is to be level with a block, and stands on so much.
		"level": between(t, "level", 1, 2, func(high float64) on {
			return bare(func(c *card.Card, k *kit.Kit) {
				k.Spacers = append(k.Spacers, kit.Spacer{ID: "own", Name: "Own", Kind: "square", Thickness: high, W: 6, H: 6})
				laid(c, "block", -30, 0, card.Sheet{Paper: "chalk", W: 30, H: 30}).Bonds = card.Foam("thick", 1)
				tag := laid(c, "tag", 30, 0, card.Sheet{Paper: "chalk", W: 30, H: 30})
				tag.Bonds, tag.Level = card.Foam("own", 1), "block"
			})
		}),
		"wall": between(t, "wall", 30, 50, func(side float64) on {
			return bare(func(c *card.Card, k *kit.Kit) { shaken(c, side, 26, 20, 1) })
		}),
		"filling": between(t, "filling", 2.4, 1.5, func(high float64) on {
			return bare(func(c *card.Card, k *kit.Kit) { shaken(c, 50, 26, 20, high) })
		}),
		"baffles": between(t, "baffles", 60, 30, func(tall float64) on {
			return bare(func(c *card.Card, k *kit.Kit) { shaken(c, 80, 20, tall, 1) })
		}),
		// A tab beneath a raised cover meets the pad that was put there by hand, or just not.
		"in the way": between(t, "in the way", 0, 12, func(x float64) on {
			return bare(func(c *card.Card, _ *kit.Kit) {
				panel, _ := c.Panel()
				laid(c, "cover", 0, 0, card.Sheet{Paper: "chalk", W: 40, H: 30}).Bonds = []card.Bond{{Spacer: "thick", Pads: []card.Pad{{X: x, W: 6, H: 6}, {X: -15, Y: -10, W: 6, H: 6}, {X: -15, Y: 10, W: 6, H: 6}}}}
				c.Elements = append(c.Elements, card.Element{ID: "word", Face: card.Front, On: panel, Place: card.Place{X: c.Base.W / 2, Y: c.Base.H / 2}, Bonds: card.Glue(hidden),
					Letters: &card.Letters{Text: "I", Size: 14, Paper: "oat"}, Tucks: []card.Tuck{{Part: "1", With: "cover"}}})
			})
		}),
	}
}

// shaken lays a shaker of a side with a window of w by h and a filling so high.
func shaken(c *card.Card, side, w, h, high float64) {
	on, _ := c.Panel()
	c.Elements = append(c.Elements, card.Element{ID: "k", Name: "Shaker", Face: card.Front, On: on, Place: card.Place{X: c.Base.W / 2, Y: c.Base.H / 2}, Bonds: card.Glue(hidden),
		Shaker: &card.Shaker{Paper: "oat", Backing: "chalk", Film: "acetate", Wall: "thick", W: side, H: side, Openings: []card.Opening{{Outline: card.Outline{Kind: card.Rectangle}, W: w, H: h}},
			Filling: []card.Filling{{Name: "Beads", High: high, Colour: "#7aa0c8", N: 10}}}})
}

// slipped lays a cover and a word of which the first letter slips in beneath it from the left.
func slipped(open []card.Side) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, _ *kit.Kit) {
		on, _ := c.Panel()
		laid(c, "cover", 10, 0, card.Sheet{Paper: "chalk", W: 40, H: 30}).Bonds = []card.Bond{{Adhesive: hidden, Open: open, Pocket: 30}}
		c.Elements = append(c.Elements, card.Element{ID: "word", Face: card.Front, On: on, Place: card.Place{X: c.Base.W/2 - 12, Y: c.Base.H / 2}, Bonds: card.Glue(hidden),
			Letters: &card.Letters{Text: "I", Size: 14, Paper: "oat"}, Tucks: []card.Tuck{{Part: "1", With: "cover"}}})
	}
}
