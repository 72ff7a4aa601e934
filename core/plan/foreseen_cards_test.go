package plan_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
	"ochrestone/core/work"
)

// What the cards of the rules are made of: each takes a plain card and changes one thing of it.

func sheetsLeft(n int) func(*card.Card, *kit.Kit) {
	return func(_ *card.Card, k *kit.Kit) {
		for i := range k.Papers {
			if k.Papers[i].ID == "chalk" {
				k.Papers[i].Sheets = n
			}
		}
	}
}

// handOrder prints three layers with two stamps, in the person's own order: each stamp by
// itself, or one put aside between its strikes.
func handOrder(aside bool) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		m := &c.Motifs[0]
		for i := range m.Layers {
			m.Layers[i].Make = card.Printed
		}
		third := m.Layers[1]
		third.ID, third.Label, third.Part = "c", "Third", m.Layers[0].Part
		m.Layers = append(m.Layers, third)
		up, low := grey("upper", 40), grey("lower", 75)
		k.Inks = append(k.Inks, up, low)
		m.School = card.LocalColour
		m.Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "lower"}, "b": {Ink: "lower"}, "c": {Ink: "lower"}}
		var order []card.Step
		for _, a := range warm.Of(*c, *k).Steps {
			order = append(order, a.ID)
		}
		at := func(part string) int {
			return slices.IndexFunc(order, func(s card.Step) bool { return s.Verb == work.Print && s.Part == part })
		}
		if i, j := at("b"), at("c"); aside && i > at("a") && j > at("a") {
			order[i], order[j] = order[j], order[i]
		}
		c.Order = order
	}
}

// slow prints the second layer over the first in inks that dry so long.
func slow(minutes float64) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		laidOver(kit.Dye, kit.Dye, 60)(c, k)
		for i := len(k.Inks) - 2; i < len(k.Inks); i++ {
			k.Inks[i].DryMinutes = &minutes
		}
	}
}

// laidOver prints the second layer over the first: media of these kinds, the lower one so light.
func laidOver(upper, lower kit.InkKind, l float64) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		m := &c.Motifs[0]
		for i := range m.Layers {
			m.Layers[i].Make = card.Printed
		}
		up, low := grey("upper", 75), grey("lower", l)
		up.Kind, low.Kind = upper, lower
		k.Inks = append(k.Inks, up, low)
		m.Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "lower"}, "b": {Ink: "upper"}}
	}
}

// inAStrip lays two of the image that are stamped first and cut out after, printed so far apart.
func inAStrip(pitch float64) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		k.Sets[len(k.Sets)-1].Parts[0].Outline = shape.Rect(0, 0, 27, 40)
		m := &c.Motifs[0]
		m.Layers[0].After, m.Layers[0].Pitch, m.Layers[1].Make = true, pitch, card.Printed
		e := c.Elements[1]
		e.ID, e.Place.Y = "again", e.Place.Y+45
		c.Elements = append(c.Elements, e)
	}
}

// tonesWanted wants two tones of an image whose layers dry to two lightnesses.
func tonesWanted(a, b float64) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		m := &c.Motifs[0]
		m.Tones, m.Layers[0].Make, m.Layers[1].Make = 2, card.Printed, card.Printed
		one, two := grey("first", a), grey("second", b)
		whole := 1.0
		one.Hide, two.Hide = &whole, &whole
		k.Inks = append(k.Inks, one, two)
		m.Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "first"}, "b": {Ink: "second"}}
	}
}

// ringed lays n of the image in a ring, of which so many are made.
func ringed(n, made int) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		places, err := layout.Ring(n, shape.Point{X: c.Base.W / 2, Y: c.Base.H / 2}, 30)
		if err != nil {
			panic(err) // the ring is sound
		}
		e := c.Elements[1]
		c.Elements = c.Elements[:1]
		for i, at := range places {
			f := e
			f.ID, f.Place = fmt.Sprint("r", i), at
			c.Elements = append(c.Elements, f)
		}
		c.Motifs[0].Made = made
	}
}

// fourOf lays four of the image, each held its own way.
func fourOf(bonds ...[]card.Bond) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, _ *kit.Kit) {
		e := c.Elements[1]
		c.Elements = c.Elements[:1]
		for i, b := range bonds {
			f := e
			f.ID, f.Place, f.Bonds = fmt.Sprint("r", i), card.Place{X: 28 + 50*float64(i%2), Y: 35 + 60*float64(i/2)}, b
			c.Elements = append(c.Elements, f)
		}
	}
}

// shakerBack lays a shaker with a backing so much smaller.
func shakerBack(mm float64) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		out, err := c.Apply(*k, card.Edit{AddShaker: &card.AddShaker{}})
		if err != nil {
			panic(err) // a shaker can be added to any card
		}
		out.Elements[len(out.Elements)-1].Shaker.Back = mm
		*c = out
	}
}

// ribbed makes the small piece a comb of ribs so far apart, of so many plies.
func ribbed(t *testing.T, pitch float64, plies int) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		g := shape.Rect(10, 10, 20, 1)
		for x := 10.0; x < 30; x += pitch {
			var err error
			g, err = g.Union(shape.Rect(x, 10, pitch/2, 18))
			require.NoError(t, err)
		}
		k.Sets[len(k.Sets)-1].Parts[1].Outline = g
		c.Motifs[0].Layers[1].Copies = plies
	}
}

// familiesBlended blends bands of so many families of ink on the panel.
func familiesBlended(n int) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		b := card.Bands{Start: 4}
		for i := range n {
			ink := grey(fmt.Sprint("band", i), 50+float64(5*i))
			ink.Family = ink.ID
			k.Inks = append(k.Inks, ink)
			b.Bands = append(b.Bands, card.Band{Ink: ink.ID, W: 8})
		}
		e := &c.Elements[0]
		e.Sheet.Treatments = append(e.Sheet.Treatments, card.Treatment{Bands: &b})
	}
}

// onStock cuts the second layer from a stock and inks it with a medium.
func onStock(p kit.PaperKind, ink kit.InkKind) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		i := grey("medium", 60)
		i.Kind = ink
		k.Inks = append(k.Inks, i)
		k.Papers = append(k.Papers, kit.Cardstock{ID: "slick", Name: "Slick", Kind: p, Colour: "#d0d0d0", GSM: 200, Caliper: 0.25, W: 200, H: 280, Sheets: 9})
		c.Motifs[0].Colourways[0].Layers["b"] = card.Finish{Paper: "slick", Ink: "medium"}
	}
}

// shareStamp puts both layers on one stamp, the second in an ink.
func shareStamp(ink string) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		s := &k.Sets[len(k.Sets)-1]
		for i := range s.Parts {
			s.Parts[i].Stamp = "both"
			c.Motifs[0].Layers[i].Make = card.Printed
		}
		c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "one"}, "b": {Ink: ink}}
	}
}

// through prints with an ink that bleeds, on the front leaf itself or on a panel.
func through(leaf bool) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		shareStamp("one")(c, k)
		k.Inks[len(k.Inks)-2].Bleeds = true
		if leaf {
			c.Elements = c.Elements[1:]
			c.Elements[0].On = ""
		}
	}
}

// bridge makes the small piece two blocks that hang on a bridge.
func bridge(t *testing.T, g shape.Region) func(*card.Card, *kit.Kit) {
	return func(_ *card.Card, k *kit.Kit) {
		all, err := shape.UnionAll(shape.Rect(12, 12, 5, 16), shape.Rect(23, 12, 5, 16), g)
		require.NoError(t, err)
		in, err := all.Intersect(shape.Rect(12, 0, 16, 40))
		require.NoError(t, err)
		k.Sets[len(k.Sets)-1].Parts[1].Outline = in
	}
}

// pairOf lays three of the image in a row in two colourways, the first two alike or not.
func pairOf(alike bool) func(*card.Card, *kit.Kit) {
	return func(c *card.Card, k *kit.Kit) {
		m := &c.Motifs[0]
		k.Sets[len(k.Sets)-1].Parts[0].Outline = shape.Disc(shape.Point{X: 20, Y: 20}, 12)
		m.Colourways = append(m.Colourways, card.Colourway{ID: "w2", Name: "Second", Layers: map[string]card.Finish{"a": {Paper: "chalk", Ink: "two"}, "b": {Paper: "chalk", Ink: "one"}}})
		e := c.Elements[1]
		c.Elements = c.Elements[:1]
		for i, w := range []string{"w1", map[bool]string{true: "w1", false: "w2"}[alike], map[bool]string{true: "w2", false: "w1"}[alike]} {
			f := e
			f.ID, f.Place = []string{"x", "y", "z"}[i], card.Place{X: 25 + 28*float64(i), Y: 60}
			f.Image = &card.Image{Motif: m.ID, Colourway: w}
			c.Elements = append(c.Elements, f)
		}
	}
}

// bare is a card with nothing but its panel, changed.
func bare(change func(*card.Card, *kit.Kit)) on {
	return two(40, 70, func(c *card.Card, k *kit.Kit) {
		c.Elements = c.Elements[:1]
		change(c, k)
	})
}

// ribbonBeneathTrim is a ribbon beneath a strip that hangs over and is trimmed, laid so much lower, mm.
func ribbonBeneathTrim(lower float64) on {
	return bare(func(c *card.Card, _ *kit.Kit) {
		mid := c.Base.W / 2
		c.Elements = append(c.Elements, card.Element{ID: "ribbon", Face: card.Front, On: "panel", Place: card.Place{X: mid, Y: 40 + lower}, Bonds: card.Glue("liquid"),
			Ribbon: &card.Ribbon{W: 4, Thick: 0.4, Colour: "#804040", Points: []card.Offset{{X: -mid + 2}, {X: mid - 2}}}})
		laid(c, "strip", mid-4, 40-c.Base.H/2, card.Sheet{Paper: "oat", W: 30, H: 6})
		c.Elements[len(c.Elements)-1].Flush = true
	})
}

// lettersTrimmed is a word that is trimmed at the right edge, so far to the right of the middle, mm.
func lettersTrimmed(right float64) on {
	return bare(func(c *card.Card, _ *kit.Kit) {
		c.Elements = append(c.Elements, card.Element{ID: "word", Face: card.Front, On: "panel", Flush: true, Place: card.Place{X: c.Base.W/2 + right, Y: 40}, Bonds: card.Glue("liquid"), Letters: &card.Letters{Text: "hoot", Size: 14, Gap: 1, Paper: "oat"}})
	})
}
