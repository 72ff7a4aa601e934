package trial

import (
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// Shaking is a card with three shakers: a tall window with baffles, letters with islands,
// and a pouch; and something inked that is set by heat.
func Shaking() card.Card {
	k := Kit()
	c := card.New("Shaking", measure.Formats()[0], measure.FoldSide, k)
	on, _ := c.Panel()
	film := ""
	for _, p := range k.Papers {
		if p.Kind == kit.PaperAcetate {
			film = p.ID
		}
	}
	fill := []card.Filling{{Name: "Beads", High: 1.2, Colour: "#7aa0c8", N: 20}}
	shaker := func(id string, x, y float64, s card.Shaker) {
		s.Paper, s.Backing, s.Film, s.Filling = "oat", "chalk", film, fill
		c.Elements = append(c.Elements, card.Element{ID: id, Name: "Shaker " + id, Face: card.Front, On: on, Place: card.Place{X: x, Y: y}, Bonds: card.Glue("liquid"), Shaker: &s})
	}
	shaker("tall", 30, 70, card.Shaker{W: 44, H: 116, Wall: "foam", Baffles: true, Openings: []card.Opening{{Outline: card.Outline{Kind: card.Arch}, W: 28, H: 100}}})
	shaker("word", 78, 30, card.Shaker{W: 46, H: 30, Wall: "foam", Wide: 2.5, Openings: []card.Opening{{Text: "OD", H: 16}}})
	shaker("pouch", 78, 92, card.Shaker{W: 46, H: 60, Wall: "foam-thin", Level: 2, Pouch: true, Openings: []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 30, H: 44}}})
	return c
}
