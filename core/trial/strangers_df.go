package trial

import (
	"slices"
	"strings"

	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// boathouse is D.
func boathouse() *Stranger {
	s := begin("D", "Boathouse corner", "a2", false, "white110")
	s.panel("panel", "pattern", 0, liquid)
	s.shaped("rug", "cream", outline("rect 90x14"), 54, 116, liquid)
	s.shaped("cradle back", "white80", outline("rect 36x20"), 34, 86, liquid)
	body, foot, breast := outline("ell 30x36 + ell 10x22 @14,2"), outline("rect 6x8 @3,18"), outline("ell 16x22 @-2,4")
	s.image("owlet", 34, 80, liquid, part{name: "body", make: card.Cut, g: joined(body, foot), paper: "white80", ink: "brown-2"})
	s.again("owlet", "body", &card.Region{By: card.CutTwice, Line: round(joined(breast, foot))}, "cream")
	hull := outline("poly -34,-8 34,-8 24,8 -24,8")
	s.image("boat", 72, 100, liquid, part{name: "rockers", make: card.Cut, g: outline("rect 60x4 @0,10"), paper: "white80", ink: "brown-3", bonds: liquid},
		part{name: "hull", make: card.Cut, g: hull, paper: "white80", ink: "brown-3", bonds: liquid}, part{name: "top", make: card.Cut, g: grown(hull, -2), paper: "white80", ink: "brown-3", host: "hull", bonds: liquid})
	s.shaped("cradle front", "kraft", outline("rect 38x16 @0,6"), 34, 86, liquid)
	charms := []string{"ell 2.2x2.0", "circ 3", "circ 3.5 - circ 3 @1,0", "ell 2.2x3", "ell 2.2x3"}
	g := outline("rect 50x2")
	for i, c := range charms {
		x := -20 + 10*float64(i)
		g = joined(g, shape.Rect(x-0.3, 0, 0.6, 14), outline(c).Move(shape.Point{X: x, Y: 15}))
	}
	s.image("mobile", 30, 22, liquid, part{name: "mobile", make: card.Cut, g: g, paper: "palegreen"})
	for i, paper := range []string{"white80", "night", "cream"} {
		s.shaped(fmt.Sprintf("charm %d", i+1), paper, outline(charms[i]), 30-20+10*float64(i), 37, liquid)
	}
	s.image("net", 30, 31, liquid, part{name: "top", make: card.Cut, g: joined(outline("poly -26,-15 26,-15 20,15 -20,15"), outline("rect 54x3 @0,-16")), paper: "cream"})
	m := s.made["image net"]
	s.Do(card.Edit{Again: &card.Again{Motif: m, Layer: "top", Traced: 0.5}})
	s.treat("panel", card.DidWords, card.Treatment{Words: &card.Words{Text: "the old boats", Ink: "black", Letter: 6, Spot: card.Spot{X: 80 - s.Card.Base.W/2, Y: 60 - s.Card.Base.H/2}}})
	var scene []string
	for _, n := range []string{"rug", "cradle back", "owlet", "boat", "cradle front", "mobile", "charm 1", "charm 2", "charm 3", "net"} {
		scene = append(scene, s.Find(n))
	}
	s.Do(card.Edit{Lift: &card.Lift{Elements: scene, On: true}})
	s.gap("that a back is traced with a pencil, and so comes larger by the line: it is as large as it is said to be")
	s.Given = []Given{{"place", "net"}, {"place", "mobile"}, {"print", "panel"}}
	return s
}

// round is the line round an outline, closed.
func round(g shape.Region) (line []card.Offset) {
	ring := g.Simplify(0.05).Rings()[0]
	for _, p := range append(slices.Clone(ring), ring[0]) {
		line = append(line, card.Offset{X: p.X, Y: p.Y})
	}
	return line
}

// again uses a part once more, in another paper.
func (s *Stranger) again(name, layer string, r *card.Region, paper string) {
	id := s.made["image "+name]
	s.Do(card.Edit{Again: &card.Again{Motif: id, Layer: layer, Region: r}})
	m, _ := s.Card.Motif(id)
	for i, l := range m.Layers {
		if l.Region != nil && i > 0 {
			s.Do(card.Edit{Finish: &card.SetFinish{Motif: id, Colourway: m.Colourways[0].ID, Layers: map[string]card.Finish{l.ID: {Paper: paper, Impressions: 1}}}})
		}
	}
}

// pondOwls is E.
func pondOwls() *Stranger {
	s := begin("E", "Pond owls", "a2", false, "white110")
	s.sheet("front", "bluecard", 107.95, 139.7, 53.975, 69.85, liquid, func(sh *card.Sheet) {
		sh.Shape = &card.Outline{Kind: card.Scalloped, Pitch: 12, Depth: 3}
	})
	s.sheet("panel", "white80", 88.9, 120.65, 53.975, 69.85, []card.Bond{{Shims: []card.Shim{{Paper: "white110", N: 4}}}})
	body, ear2 := outline("ell 30x36 + ell 9x16 @-7,-24"), outline("ell 9x16 @12,-25")
	insert, beak, cheeks := outline("ell 8x15 @-7,-24"), outline("poly -2,-2 2,-2 0,2"), outline("circ 3.5 @-7,2 + circ 3.5 @7,2")
	tail := outline("circ 8 @16,12")
	d := grown(joined(body, ear2, tail), 1)
	id := s.image("amber", 33, 44, []card.Bond{{Spacer: "foam2", Level: 1, Pads: owlPads}},
		part{name: "die", make: card.Cut, g: d, paper: "white80", after: true},
		part{name: "1 body", make: card.Printed, g: body, ink: "amber-1", host: "die", stamp: "1B"},
		part{name: "2 ear", make: card.Printed, g: ear2, ink: "amber-1", host: "die", stamp: "2B"},
		part{name: "3 insert", make: card.Printed, g: insert, ink: "amber-3", host: "1 body", stamp: "3B", fit: "within"},
		part{name: "3 beak", make: card.Printed, g: beak, ink: "red-2", host: "1 body", stamp: "3B"},
		part{name: "3 cheeks", make: card.Printed, g: cheeks, ink: "red-2", host: "1 body", stamp: "3B"})
	_ = id
	owl := func(name, family string, x, y float64, bonds []card.Bond) {
		s.another(name, "amber", x, y, bonds, map[string]card.Finish{"1 body": {Ink: family + "-1", Impressions: 1}, "2 ear": {Ink: family + "-1", Impressions: 1}, "3 insert": {Ink: family + "-3", Impressions: 1}})
	}
	foam := []card.Bond{{Spacer: "foam2", Level: 1, Pads: owlPads}}
	owl("green", "green", 75, 44, foam)
	owl("blue", "blue", 33, 92, foam)
	owl("violet", "violet", 75, 92, nil)
	s.sheet("second phrase", "white80", 50, 10, 54, 150, liquid)
	beside := card.Beside
	s.Do(card.Edit{Sheet: &card.SetSheet{Element: s.Find("second phrase"), Face: &beside}})
	s.treat("panel", card.DidWords, card.Treatment{Words: &card.Words{Text: "four at the pond", Ink: "black", Letter: 5, Spot: card.Spot{Y: 122 - 69.85}}})
	s.Do(card.Edit{AddGems: &card.AddGems{}})
	g := s.last("pom-poms")
	n, size := 4, 8.0
	s.Do(card.Edit{Gems: &card.SetGems{Element: g, Count: &n, Size: &size}})
	x, y := 54.0, 131.0
	s.Do(card.Edit{Put: &card.Put{Element: g, X: &x, Y: &y}})
	s.gems(g, "pompom", "Pom-poms, 8 mm", "#d8b04a", 8, 4, 3)
	s.gap("one large and two small dots in one bond: a bond has one sort of pad, its pads may be of any size")
	s.sheets("white80", 3)
	s.sheets("bluecard", 1)
	s.stock("foam2", 3)
	s.stock("foam2-mini", 8)
	return s
}

// nineOwls is E as it was laid out first: three rows of three in its four colours.
func nineOwls() *Stranger {
	s := pondOwls()
	s.ID = "E2"
	s.OwlsIn("amber green violet amber blue green violet amber blue")
	return s
}

// OwlsIn lays the owls of E in three rows of three, in colours by name.
func (s *Stranger) OwlsIn(colours string) {
	first := s.Find("amber")
	e, _ := s.Card.Element(first)
	m, _ := s.Card.Motif(e.Image.Motif)
	for _, o := range s.Card.Elements {
		if o.Image != nil && o.ID != first {
			s.Do(card.Edit{Remove: &card.Remove{Element: o.ID}})
		}
	}
	var places []card.Place
	var ways []string
	for i, name := range strings.Fields(colours) {
		places = append(places, card.Place{X: 54 + 38*float64(i%3-1), Y: 70 + 54*float64(i/3-1)})
		for n, w := range m.Colourways {
			if w.Name == name || name == "amber" && n == 0 {
				ways = append(ways, w.ID)
				break
			}
		}
	}
	s.Do(card.Edit{Lay: &card.Lay{Element: first, Places: places, Colourways: ways}})
}

// owlPads are one large and two small dots.
var owlPads = []card.Pad{{Y: 4, W: 6, H: 6}, {X: -7, Y: -16, W: 3, H: 3}, {X: 8, Y: 12, W: 3, H: 3}}

// duneRing is F.
func duneRing() *Stranger {
	s := begin("F", "Ring of dune grass", "a2", false, "bluecard")
	s.sheet("panel", "white80", 101.6, 133.35, 53.975, 69.85, foam2, func(sh *card.Sheet) { sh.Shape = &card.Outline{Kind: card.Scalloped} })
	leaf := outline("ell 28x10")
	id := s.image("blade", 53.98, 24, liquid, part{name: "die", make: card.Cut, g: outline("ell 30x12"), paper: "sand", after: true}, print("leaf", leaf, "brown-2", "die"))
	s.Pitch("blade", "die", 10)
	e, _ := s.Card.Element(id)
	m := e.Image.Motif
	var choices []card.Choice
	for _, c := range [][2]string{{"kraft", "brown-3"}, {"greycard", "grey-3"}, {"night", "blue-4"}} {
		choices = append(choices, card.Choice{Name: c[0], Layers: map[string]card.Finish{"die": {Paper: c[0], Impressions: 1}, "leaf": {Ink: c[1], Impressions: 1}}})
	}
	s.Do(card.Edit{AddColourways: &card.AddColourways{Motif: m, Choices: choices}})
	mo, _ := s.Card.Motif(m)
	places := ring(12, 53.98, 62, 38)
	var ways []string
	for i := range places {
		ways = append(ways, mo.Colourways[i%4].ID)
	}
	s.Do(card.Edit{Lay: &card.Lay{Element: id, Places: places, Colourways: ways}})
	beetle := func(name string, g shape.Region, x, y float64) {
		line := lined(g, 0.8)
		b := g.Bounds()
		s.image(name, x, y, foam2, part{name: "die", make: card.Cut, g: grown(g, 1.4), paper: "white80", after: true}, print("outline", line, "black-b", "die"), print("wings", grown(g, -0.4), "m-amber-1", "die"),
			print("cheeks", joined(ellipse(2, 2).Move(shape.Point{X: -4, Y: b.Min.Y + 8}), ellipse(2, 2).Move(shape.Point{X: 4, Y: b.Min.Y + 8})), "m-red-1", "wings"),
			print("feelers", joined(shape.Rect(-5, b.Min.Y+1, 1, 8), shape.Rect(4, b.Min.Y+1, 1, 8)), "", "wings"))
	}
	beetle("b1", outline("ell 26x36"), 44, 62)
	beetle("b2", outline("ell 20x28"), 69, 64)
	s.sheet("strip", "greycard", 70, 12, 54, 80, foam2)
	s.treat("strip", card.DidWords, card.Treatment{Words: &card.Words{Text: "night walk", Ink: "clear", Letter: 5, Emboss: true}})
	s.Do(card.Edit{AddGems: &card.AddGems{}})
	g := s.last("sequins")
	n, size, high := 7, 3.0, 0.5
	x, y := 54.0, 44.0
	s.Do(card.Edit{Gems: &card.SetGems{Element: g, Count: &n, Size: &size, Height: &high}}, card.Edit{Put: &card.Put{Element: g, X: &x, Y: &y}})
	s.sheets("sand", 1)
	s.sheets("kraft", 1)
	s.sheets("greycard", 1)
	s.sheets("night", 1)
	s.stock("foam2", 40)
	s.Make("blade", 32)
	var blades []string
	for _, e := range s.Card.Elements {
		if e.Image != nil && e.Image.Motif == m {
			blades = append(blades, e.ID)
		}
	}
	s.Do(card.Edit{Lift: &card.Lift{Elements: blades, On: true}})
	return s
}
