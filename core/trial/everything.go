package trial

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/measure"
)

// Everything is a card with every treatment, every sort of outline, openings of shapes and
// of letters, letters cut from card, a cord, gems, a leaf of vellum, things inside and on
// the envelope.
func Everything() card.Card {
	c := Card("mats")
	c.Title = "Everything"
	c.Elements = c.Elements[:0]
	c.Motifs = Card("turned").Motifs
	f := measure.Formats()[4]
	c.Base = card.Base{Format: f.ID, W: f.Size.W, H: f.Size.H, Fold: measure.FoldSide, Paper: "chalk-heavy", Envelope: "a7", Short: 6, Leaf: &card.Outline{Kind: card.Wavy, Sides: []card.Side{card.RightSide}},
		Treatments: []card.Treatment{{Edged: &card.Edged{Ink: "dusk-full", W: 3}}, {Words: &card.Words{Text: "quill", Ink: "soot-deep", Letter: 4, Spot: card.Spot{Y: 84}}}}}
	c.Elements = append(c.Elements, card.Element{ID: "panel", Face: card.Front, Inset: card.Even(9), Bonds: card.Glue("double"), Sheet: &card.Sheet{Paper: "chalk"}})
	m := c.Motifs[0]
	way := m.Colourways[0].ID
	treatments := []card.Treatment{
		{Words: &card.Words{Text: "go on", Ink: "soot-deep", Letter: 3, Bend: 20}},
		{Print: &card.Print{Motif: m.ID, Colourways: []string{way}, Rows: &card.Rows{Across: 18, Down: 16, Shift: 0.5, Turn: 30}}},
		{Turned: &card.Turned{Motif: m.ID, Colourways: []string{way}, Turns: 4, Start: 1, X: -5, Y: -5}},
		{Fade: &card.Fade{From: card.FromTopLeft, Inks: []string{"mere-pale", "mere-soft"}, Reach: 20}},
		{Bands: &card.Bands{Bands: []card.Band{{Ink: "gorse-soft", W: 4}, {Ink: "ember-soft", W: 5}, {Ink: "gorse-soft", W: 4}}, Gap: 1, Start: 2}},
		{Stencil: &card.Stencil{Set: "cloud", Part: "bank", Ink: "dusk-soft", Shifts: []card.Shifted{{X: 9, Y: 6, Flip: true}}}},
		{Splash: &card.Splash{Ink: "heather-soft", Drops: 12, Size: 1.5}},
		{Stroke: &card.Stroke{Ink: "lichen-soft", W: 4, Points: []card.Offset{{X: -10, Y: 2}, {X: 0, Y: -3}, {X: 10, Y: 2}}}},
		{Pressed: &card.Pressed{Relief: card.Weave}},
		{Edged: &card.Edged{Ink: "sedge-full", W: 2}},
		{Glaze: &card.Glaze{Kind: card.Gloss, Reach: 6}},
	}
	outlines := []*card.Outline{nil, {Kind: card.Rectangle, Pitch: 4}, nil, {Kind: card.Oval}, {Kind: card.Arch}, {Kind: card.Scalloped}, {Kind: card.Wavy}, {Kind: card.Fishtail},
		{Kind: card.Tag}, {Kind: card.Pointed}, {Kind: card.Fringe}}
	for i, t := range treatments {
		s := &card.Sheet{Paper: "chalk", W: 26, H: 22, Shape: outlines[i], Treatments: []card.Treatment{t}}
		if t.Turned != nil {
			s.W, s.H, s.Trim = 30, 30, 2
		}
		c.Elements = append(c.Elements, card.Element{ID: fmt.Sprintf("s%d", i+1), Name: fmt.Sprintf("Sheet %d", i+1), Face: card.Front, On: "panel",
			Place: card.Place{X: 24 + float64(i%4)*28, Y: 24 + float64(i/4)*30, Turn: float64(i%3) * 5}, Bonds: []card.Bond{{Adhesive: "dots"}}, Sheet: s})
	}
	c.Elements = append(c.Elements,
		card.Element{ID: "frame", Name: "Frame", Face: card.Front, On: "panel", Place: card.Place{X: 36, Y: 122}, Bonds: card.Foam("foam-thin", 1), Sheet: &card.Sheet{Paper: "night", W: 40, H: 32,
			Openings: []card.Opening{{Outline: card.Outline{Kind: card.Rectangle}, W: 30, H: 12, Y: -5}, {Text: "oh", H: 7, Y: 9, Islands: true}}}},
		card.Element{ID: "letters", Face: card.Front, On: "panel", Place: card.Place{X: 88, Y: 118}, Bonds: card.Glue("liquid"), Letters: &card.Letters{Text: "hoot", Size: 10, Fit: 40, Gap: 1, Paper: "moss", Plies: 2,
			Shadow: &card.Shadow{Paper: "chalk", By: 1}}},
		card.Element{ID: "cord", Face: card.Front, On: "panel", Place: card.Place{X: 63.5, Y: 140}, Bonds: card.Glue(""), Ribbon: &card.Ribbon{W: 1.5, Thick: 0.9, Colour: "#c8b48c", Wrapped: true, Tied: card.Bow, At: 0.7, Points: []card.Offset{{X: -60}, {X: 60}}}},
		card.Element{ID: "gems", Face: card.Front, On: "panel", Place: card.Place{X: 88, Y: 150}, Bonds: card.Glue(""), Gems: &card.Gems{Size: 4, Height: 1.5, Colour: "#e8e2d4", Places: []card.Offset{{X: -8}, {}, {X: 8}}}},
		card.Element{ID: "leaf", Name: "Leaf", Face: card.Front, Place: card.Place{X: f.Size.W / 2, Y: f.Size.H / 2}, Sheet: &card.Sheet{Paper: "vellum", W: 100, H: 150, Flap: &card.Flap{Side: card.TopSide, Depth: 12}}},
		card.Element{ID: "inside", Name: "Inside panel", Face: card.InsideRight, Place: card.Place{X: 60, Y: 80}, Bonds: card.Glue("runner"), Sheet: &card.Sheet{Paper: "oat", W: 100, H: 150,
			Treatments: []card.Treatment{{Words: &card.Words{Text: "with thanks", Ink: "soot-deep", Letter: 5}}}}},
	)
	return c
}

// Twins is a row of prints of which one is raised over its printed twin, and one is cut out
// with a margin of another card.
func Twins() card.Card {
	c := Card("row")
	c.Title = "Twins"
	k := Kit()
	for _, e := range c.Elements {
		if e.Image != nil {
			out, err := c.Apply(k, card.Edit{Twin: &card.Twin{Element: e.ID}}, card.Edit{Repeat: &card.Repeat{Element: e.ID}})
			if err != nil {
				panic(err) // the trial card is sound
			}
			last := out.Elements[len(out.Elements)-1]
			if out, err = out.Apply(k, card.Edit{Cutout: &card.SetCutout{Element: last.ID, Cutout: &card.Cutout{Paper: "oat", Margin: 1.6}}}); err != nil {
				panic(err)
			}
			return out
		}
	}
	return c
}

// Woven is an image of which the highest part goes over a strip that lies over the rest.
func Woven() card.Card {
	c := Card("plies")
	for i := range c.Elements {
		if c.Elements[i].Image == nil {
			continue
		}
		e := &c.Elements[i]
		m, _ := c.Motif(e.Image.Motif)
		strip := card.Element{ID: "across", Name: "Strip across", Face: card.Front, On: e.On, Place: card.Place{X: e.Place.X, Y: e.Place.Y}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "oat", W: 80, H: 8}}
		e.Tucks = []card.Tuck{{Part: m.Layers[len(m.Layers)-1].ID, With: "across"}}
		c.Elements = append(c.Elements, strip)
		break
	}
	c.Title = "Woven"
	return c
}
