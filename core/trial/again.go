package trial

import "ochrestone/core/card"

// Again is a card on which parts are used again: a piece with a back traced round it, one
// colour region masked, one cut twice, one swapped and a copy put on offset; a word cut out
// of a banded sheet; a print with a glow round it and a stencil laid over it, and its twin
// that looks the other way, in light from the left.
func Again() card.Card {
	c, k := Card("plies"), Kit()
	row := Card("row").Motifs[0]
	row.ID = "sprigs"
	c.Title = "Again"
	c.Light = card.LeftSide
	c.Motifs = append(c.Motifs, row)
	panel, _ := c.Panel()
	m := c.Motifs[0]
	across := []card.Offset{{X: 0, Y: 20}, {X: 40, Y: 20}}
	upright := []card.Offset{{X: 20, Y: 40}, {X: 20, Y: 0}}
	on := func(layer int, a card.Again) card.Edit {
		a.Motif, a.Layer = m.ID, m.Layers[layer].ID
		return card.Edit{Again: &a}
	}
	last := len(m.Layers) - 1
	out, err := c.Apply(k,
		on(0, card.Again{Region: &card.Region{By: card.Masked, Line: across}}),
		on(last, card.Again{Region: &card.Region{By: card.CutTwice, Line: upright}}),
		on(last, card.Again{Region: &card.Region{By: card.Swapped, Line: across}}),
		on(0, card.Again{Shifted: 5}),
		on(0, card.Again{Traced: 2}))
	if err != nil {
		panic(err) // the trial card is sound
	}
	for _, l := range out.Motifs[0].Layers {
		if l.Region == nil {
			continue
		}
		for _, w := range out.Motifs[0].Colourways {
			f := w.Layers[l.ID]
			f.Ink = "ember-deep"
			w.Layers[l.ID] = f
		}
	}
	way := row.Colourways[0].ID
	out.Elements = append(out.Elements,
		card.Element{ID: "ground", Name: "Ground", Face: card.Front, On: panel, Place: card.Place{X: out.Base.W / 2, Y: out.Base.H - 28}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "chalk", W: 92, H: 46, Treatments: []card.Treatment{
			{Fade: &card.Fade{From: card.FromImage, Round: "left-looking", Inks: []string{"gorse-pale"}, Reach: 9}},
			{Stencil: &card.Stencil{Set: "cloud", Part: "bank", Ink: "dusk-soft", Over: true, Spot: card.Spot{X: -20}}}}}},
		card.Element{ID: "left-looking", Face: card.Front, On: "ground", Place: card.Place{X: out.Base.W/2 - 20, Y: out.Base.H - 28}, Image: &card.Image{Motif: row.ID, Colourway: way}},
		card.Element{ID: "bands", Name: "Banded sheet", Face: card.Beside, Place: card.Place{X: 50, Y: 30}, Sheet: &card.Sheet{Paper: "oat", W: 80, H: 30, Treatments: []card.Treatment{
			{Bands: &card.Bands{Start: 3, Bands: []card.Band{{Ink: "gorse-soft", W: 8}, {Ink: "ember-soft", W: 8}, {Ink: "madder-full", W: 8}}}}}}},
		card.Element{ID: "word", Face: card.Front, On: panel, Place: card.Place{X: out.Base.W / 2, Y: 18}, Bonds: card.Glue("liquid"), Letters: &card.Letters{Text: "hoot", Size: 14, Gap: 1, Paper: "oat", From: &card.CutFrom{Sheet: "bands"}}},
	)
	return out
}

// Lifted is an arrangement of sheets over one another that is lifted with tacky film, with a cord and a
// label over it.
func Lifted() card.Card {
	c := Card("row")
	c.Title = "Lifted"
	panel, _ := c.Panel()
	sheet := func(id, name string, x, y float64, film bool) card.Element {
		return card.Element{ID: id, Name: name, Face: card.Front, On: panel, Film: film, Place: card.Place{X: x, Y: y}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "oat", W: 30, H: 24}}
	}
	c.Elements = append(c.Elements, sheet("boat", "Boat", 40, 50, true), sheet("sail", "Sail", 52, 42, true), sheet("flag", "Flag", 78, 66, true),
		sheet("label", "Label", 52, 46, false),
		card.Element{ID: "cord", Face: card.Front, On: panel, Place: card.Place{X: 60, Y: 58}, Bonds: card.Glue(""), Ribbon: &card.Ribbon{W: 2, Thick: 0.6, Colour: "#c8b48c", Points: []card.Offset{{X: -30}, {X: 30}}}})
	return c
}
