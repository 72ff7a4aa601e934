package trial

import (
	"fmt"
	"math/rand/v2"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Routes are the ways an image can be printed on a card, each by itself: given a card with the
// image as an element printed on the panel, they lay it that way instead.
var Routes = map[string]func(c *card.Card){
	"element": func(*card.Card) {},
	"sheet": func(c *card.Card) {
		e := c.Elements[len(c.Elements)-1]
		c.Elements = append(c.Elements[:len(c.Elements)-1], card.Element{ID: "sheet", Name: "Sheet", Face: card.Front, On: "panel", Place: e.Place, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "chalk", W: 70, H: 70}}, e)
		c.Elements[len(c.Elements)-1].On = "sheet"
	},
	"treatment": func(c *card.Card) { treat(c, func(p *card.Print) {}) },
	"repeat":    func(c *card.Card) { treat(c, func(p *card.Print) { p.Rows = &card.Rows{Across: 60, Down: 60} }) },
	"turned": func(c *card.Card) {
		m := c.Elements[len(c.Elements)-1].Image
		c.Elements = c.Elements[:len(c.Elements)-1]
		s := c.Elements[0].Sheet
		s.Treatments = append(s.Treatments, card.Treatment{Turned: &card.Turned{Motif: m.Motif, Colourways: []string{m.Colourway}, Turns: 2, Start: 1, X: 0, Y: -30}})
	},
	"base": func(c *card.Card) {
		m := c.Elements[len(c.Elements)-1].Image
		c.Elements = c.Elements[:0]
		c.Base.Treatments = []card.Treatment{{Print: &card.Print{Motif: m.Motif, Colourways: []string{m.Colourway}}}}
	},
	"inside":   func(c *card.Card) { face(c, card.InsideLeft) },
	"envelope": func(c *card.Card) { face(c, card.OnEnvelope) },
	"cut out": func(c *card.Card) {
		c.Elements[len(c.Elements)-1].Image.Cutout = &card.Cutout{Paper: "chalk", Margin: 1}
	},
}

// treat prints the image of the last element on the panel instead.
func treat(c *card.Card, how func(*card.Print)) {
	m := c.Elements[len(c.Elements)-1].Image
	c.Elements = c.Elements[:len(c.Elements)-1]
	p := card.Print{Motif: m.Motif, Colourways: []string{m.Colourway}}
	how(&p)
	s := c.Elements[0].Sheet
	s.Treatments = append(s.Treatments, card.Treatment{Print: &p})
}

func face(c *card.Card, f card.Face) {
	e := &c.Elements[len(c.Elements)-1]
	e.Face, e.On = f, ""
}

// Printed is a card whose panel, base and cut-outs are of one card, with an image of stamps laid on
// the panel: layers of any shapes, one over another or beside, in inks of any kind, some blended,
// some struck twice, some without ink. spread is how far its parts are strewn, mm.
func Printed(rng *rand.Rand, spread float64) (card.Card, kit.Kit) {
	k := Kit()
	kinds := []kit.InkKind{kit.Dye, kit.Pigment, kit.Waterproof, kit.Hybrid, kit.Alcohol, kit.Watercolor, kit.Pencil, kit.Embossing}
	for i, kind := range kinds {
		ink := greyInk(fmt.Sprint("ink", i), 15+70*rng.Float64())
		ink.Kind, ink.NeedsHeat, ink.Bleeds = kind, nil, rng.IntN(5) == 0
		if rng.IntN(3) > 0 {
			ink.Hide = nil // as its kind hides
		}
		k.Inks = append(k.Inks, ink)
	}
	set := kit.Set{ID: "steps", Name: "Steps", Kind: kit.StampSet, Fresh: rng.IntN(2) == 0}
	n := 1 + rng.IntN(4)
	for i := range n {
		r := 4 + 20*rng.Float64()
		g := shape.Disc(shape.Point{X: 25 + spread*rng.Float64(), Y: 25 + spread*rng.Float64()}, r)
		if rng.IntN(3) == 0 {
			g = shape.RingDisc(shape.Point{X: 25, Y: 25}, r, r-0.8)
		}
		set.Parts = append(set.Parts, kit.Part{ID: fmt.Sprint("p", i), Label: fmt.Sprint("Step ", i+1), Outline: g, Rank: i + 1, Order: i + 1, Copies: 1, Fit: kit.FitFree})
	}
	k.Sets = append(k.Sets, set)
	c := card.New("Prints", measure.Formats()[4], measure.FoldSide, k)
	c.Base.Paper, c.Base.Envelope = "chalk", "a7"
	c.Elements[0].Sheet.Paper = "chalk"
	c = c.AddSet(set, k)
	m := &c.Motifs[0]
	for i := range m.Layers {
		m.Layers[i].Make = card.Printed
		f := card.Finish{Ink: k.Inks[len(k.Inks)-1-rng.IntN(len(kinds))].ID, Impressions: rng.IntN(3)}
		switch rng.IntN(5) {
		case 0:
			for range 1 + rng.IntN(2) {
				f.Blends = append(f.Blends, card.Blend{Ink: k.Inks[len(k.Inks)-1-rng.IntN(len(kinds))].ID, Zone: []card.Zone{card.Foot, card.AllOver}[rng.IntN(2)]})
			}
		case 1:
			f = card.Finish{}
		}
		m.Colourways[0].Layers[m.Layers[i].ID] = f
	}
	e := &c.Elements[len(c.Elements)-1]
	e.On, e.Place = "panel", card.Place{X: c.Base.W / 2, Y: c.Base.H / 2}
	if p, _ := c.Panel(); p != "panel" {
		e.On = p
	}
	return c, k
}

// greyInk is a grey of such a lightness that hides what is beneath.
func greyInk(id string, l float64) kit.Ink {
	hide := 1.0
	return kit.Ink{ID: id, Name: id, Kind: kit.Pigment, NeedsHeat: new(bool), Dry: colour.Lab{L: l}.Linear().Hex(), Hide: &hide}
}
