package trial

import (
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// lilies is G.
func lilies() *Stranger {
	s := begin("G", "The lily panel again", "a2", false, "white110")
	panel := shape.Rect(0, 0, 107.95, 139.7)
	seats := []shape.Point{{X: 24, Y: 30}, {X: 76, Y: 58}, {X: 92, Y: 20}, {X: 30, Y: 112}, {X: 76, Y: 92}, {X: 94, Y: 124}}
	lines := ""
	for _, at := range seats {
		lines += ellipse(10, 10).Move(at).Path()
	}
	s.Kit.Sets = append(s.Kit.Sets, kit.Set{ID: "lily panel", Name: "Lily panel", Kind: kit.DieSet, Parts: []kit.Part{{ID: "panel", Label: "panel", Outline: panel, Rank: 1, Copies: 1, Fit: kit.FitFree, Lines: pressed(lines)}}})
	s.sheet("panel", "bluecard", 107.95, 139.7, 53.975, 69.85, liquid, func(sh *card.Sheet) {
		sh.Shape = &card.Outline{Kind: card.DiePart, Set: "lily panel", Part: "panel"}
	})
	s.treat("panel", card.DidFade, card.Treatment{Fade: &card.Fade{From: card.FromEdge, Inks: []string{"blue-4"}, Reach: 30}})
	bloom := func(name string, sizes []float64, inks []string, pad float64, at shape.Point) {
		var parts []part
		for i, d := range sizes {
			p := part{name: fmt.Sprintf("ring %d", i+1), make: card.Cut, g: ellipse(d/2, d/2), paper: "white80", ink: inks[i], bonds: liquid}
			if i > 0 {
				p.host = fmt.Sprintf("ring %d", i)
			}
			parts = append(parts, p)
		}
		parts = append(parts, part{name: "centre", make: card.Cut, g: ellipse(4, 4), paper: "cream", bonds: liquid, host: parts[len(parts)-1].name})
		s.image(name, at.X, at.Y, []card.Bond{{Spacer: "foam2", Level: 1, Pads: []card.Pad{{W: pad, H: pad}}}}, parts...)
	}
	bloom("bloom L", []float64{34, 28, 22}, []string{"violet-3", "violet-2", "violet-1"}, 30, seats[1])
	s.another("bloom L 2", "bloom L", seats[4].X, seats[4].Y, []card.Bond{{Spacer: "foam2", Level: 1, Pads: []card.Pad{{W: 30, H: 30}}}}, nil)
	bloom("bloom M", []float64{26, 18}, []string{"violet-2", "violet-1"}, 22, seats[0])
	for i, at := range []shape.Point{seats[2], seats[3], seats[5]} {
		s.another(fmt.Sprintf("bloom M %d", i+2), "bloom M", at.X, at.Y, []card.Bond{{Spacer: "foam2", Level: 1, Pads: []card.Pad{{W: 22, H: 22}}}}, nil)
	}
	body := outline("ell 40x50 + poly -14,-26 -6,-24 -12,-18 + poly 14,-26 12,-18 6,-24")
	s.image("owl", 54, 74, foam2, part{name: "body", make: card.Cut, g: body, paper: "white80", ink: "brown-3", bonds: liquid},
		part{name: "eyes", make: card.Cut, g: outline("circ 2 @-6,-10 + circ 2 @6,-10"), paper: "black", bonds: liquid, host: "body"},
		part{name: "beak", make: card.Cut, g: outline("poly -1.5,-6.5 1.5,-6.5 0,-3.5"), paper: "black", bonds: liquid, host: "body"},
		part{name: "cheeks", make: card.Printed, g: outline("circ 5 @-10,-4 + circ 5 @10,-4"), ink: "brown-2", host: "body"})
	s.sheet("phrase", "white80", 44, 10, 54, 134, nil)
	s.treat("phrase", card.DidWords, card.Treatment{Words: &card.Words{Text: "still water", Ink: "black", Letter: 4}})
	breast := ellipse(10, 13).Move(shape.Point{Y: 6})
	s.Do(card.Edit{Again: &card.Again{Motif: s.Find("image owl"), Layer: "body", Label: "breast", Region: &card.Region{By: card.Kept, Line: round(breast)}}})
	s.gap("the nozzle of a glue bottle, and dots of a white pen")
	s.stock("foam2", 30)
	s.sheets("white80", 3)
	s.Given = []Given{{"place", "bloom L"}, {"place", "owl"}}
	return s
}

// pressed turns closed path data into lines that come back to where they began.
func pressed(path string) string {
	out := ""
	start := ""
	for i := 0; i < len(path); i++ {
		switch path[i] {
		case 'M':
			j := i + 1
			for j < len(path) && path[j] != 'L' {
				j++
			}
			start = path[i+1 : j]
			out += path[i:j]
			i = j - 1
		case 'Z':
			out += "L" + start
		default:
			out += path[i : i+1]
		}
	}
	return out
}

// longMoths is H, the slim card.
func longMoths() *Stranger {
	s := begin("H1", "Five moths", "slimline", true, "white110")
	s.sheet("panel", "white80", 215.9, 88.9, 107.95, 44.45, liquid)
	s.stencil("dots", dots(200, 150, 14, 6))
	s.treat("panel", card.DidBands, card.Treatment{Bands: &card.Bands{Up: true, Bands: []card.Band{{Ink: "blue-2", W: 43}, {Ink: "violet-2", W: 43}, {Ink: "amber-1", W: 43}, {Ink: "brown-1", W: 43}, {Ink: "green-2", W: 43}}}})
	s.Do(card.Edit{AddSheet: &card.AddSheet{As: card.AsPlain}})
	phrase := s.last("phrase")
	e, _ := s.Card.Element(phrase)
	sh := *e.Sheet
	sh.Paper, sh.W, sh.H = "white80", 150, 20
	x, y, name := 108.0, 68.0, "phrase"
	s.Do(card.Edit{Sheet: &card.SetSheet{Element: phrase, Name: &name, Sheet: &sh}}, card.Edit{Put: &card.Put{Element: phrase, X: &x, Y: &y}}, card.Edit{Hold: &card.Hold{Element: phrase, Bonds: foam2}})
	s.treat("phrase", card.DidWords, card.Treatment{Words: &card.Words{Text: "come to the lamp with us", Ink: "violet-3", Shade: "violet-4", Letter: 7}})
	body, layer, face := outline("ell 14x34"), outline("ell 10x28"), outline("circ 6 @0,-13")
	wings := outline("ell 40x26 @0,-6 - ell 12x26 @0,-6")
	moth := func(name, family string, x, y float64) {
		s.image(name, x, y, foam2,
			part{name: "wing die", make: card.Cut, g: grown(outline("ell 40x26 @0,-6"), 1), paper: "white80", after: true, bonds: liquid}, part{name: "body die", make: card.Cut, g: grown(body, 1), paper: "white80", after: true, bonds: liquid, host: "wing die"},
			print("3 wings", wings, family+"-3", "wing die"), print("1 body", body, family+"-2", "body die"), print("2 layer", layer, family+"-3", "1 body"), print("4 face", face, "brown-4", "1 body"))
	}
	moth("blue moth", "blue", 22, 28)
	s.another("grey moth", "blue moth", 108, 28, foam2, ways("grey"))
	s.another("violet moth", "blue moth", 194, 28, foam2, ways("violet"))
	moth("amber moth", "amber", 65, 49)
	s.another("brown moth", "amber moth", 151, 28, foam2, ways("brown"))
	// Its head lies over the phrase, its left wing goes beneath it.
	s.at(s.Find("amber moth"), 65, 49, 180)
	s.Do(card.Edit{Tucks: &card.SetTucks{Element: s.Find("amber moth"), With: phrase, Parts: []string{"wing die"}}})
	s.treat("panel", card.DidWords, card.Treatment{Words: &card.Words{Text: "at dusk", Ink: "black", Letter: 4, Bend: 40, Spot: card.Spot{Y: 50 - 44.45}}})
	for i, shell := range []struct {
		name, rgb string
		left      int
	}{{"blue", "#5b93bc", 2}, {"grey", "#77797c", 2}, {"violet", "#8a6bb0", 2}, {"amber", "#d99b2a", 0}, {"brown", "#8e6a4c", 2}, {"white", "#f7f6f2", 4}} {
		s.Do(card.Edit{AddGems: &card.AddGems{}})
		g := s.last("shell " + shell.name)
		n := 1
		gx, gy := 83+10*float64(i), 82.0
		s.Do(card.Edit{Gems: &card.SetGems{Element: g, Count: &n}}, card.Edit{Put: &card.Put{Element: g, X: &gx, Y: &gy}})
		s.gems(g, "shell-"+shell.name, "Shells, "+shell.name, shell.rgb, 5, 5, shell.left)
	}
	for i := range s.Kit.Sets {
		s.Kit.Sets[i].Fresh = s.Kit.Sets[i].Kind == kit.StampSet
	}
	s.gap("an image laid on words printed on the panel before it: order only")
	s.stock("foam2", 60)
	s.sheets("white80", 6)
	s.Given = []Given{{"place", "phrase"}, {"place", "blue moth"}, {"print", "panel"}}
	return s
}

// ways are the finishes of a moth in a family.
func ways(family string) map[string]card.Finish {
	return map[string]card.Finish{"1 body": {Ink: family + "-2", Impressions: 1}, "2 layer": {Ink: family + "-3", Impressions: 1}, "3 wings": {Ink: family + "-3", Impressions: 1}}
}

// seaPinks is H, the second card.
func seaPinks() *Stranger {
	s := begin("H2", "Sea pinks", "a2", false, "white110")
	s.panel("panel", "white80", 3.175, liquid)
	s.stencil("chevrons", dots(95, 120, 12, 7))
	s.treat("panel", card.DidStencil, card.Treatment{Stencil: &card.Stencil{Set: "chevrons", Part: "all", Ink: "amber-1"}})
	inks := []string{"violet-1", "violet-2", "violet-3", "violet-3", "amber-2"}
	parts := []part{{name: "die", make: card.Cut, g: ellipse(15, 15), paper: "white80", bonds: liquid}}
	for i, g := range []string{"ell 12x16", "ell 8x12", "ell 6x9", "circ 8", "circ 3"} {
		parts = append(parts, print(fmt.Sprintf("stamp %d", i+1), outline(g), inks[i], "die"))
	}
	id := s.image("sea pink", 30, 36, liquid, parts...)
	s.Do(card.Edit{Lay: &card.Lay{Element: id, Places: []card.Place{{X: 24, Y: 30}, {X: 54, Y: 30}, {X: 84, Y: 30}, {X: 24, Y: 62}, {X: 54, Y: 62}, {X: 84, Y: 62}}}})
	leaf := s.image("leaf", 30, 90, liquid, die(outline("ell 10x26"), 1), print("leaf", outline("ell 10x26"), "green-2", "die"))
	s.Tones("leaf", 2)
	s.Do(card.Edit{Lay: &card.Lay{Element: leaf, Places: []card.Place{{X: 20, Y: 92}, {X: 34, Y: 92}, {X: 48, Y: 92}, {X: 62, Y: 92}, {X: 76, Y: 92}, {X: 90, Y: 92}}}})
	s.sheet("tide", "white80", 70, 20, 54, 150, liquid)
	beside := card.Beside
	s.Do(card.Edit{Sheet: &card.SetSheet{Element: s.Find("tide"), Face: &beside}})
	s.treat("tide", card.DidFade, card.Treatment{Fade: &card.Fade{From: card.FromLeft, Inks: []string{"green-2", "green-3"}, Reach: 70, Tones: 3}})
	s.Do(card.Edit{AddLetters: &card.AddLetters{Text: "FAR TIDE"}})
	// As high as makes the hole of its D 4.0 mm wide, in the face that the printed sheets set words in.
	s.letters("phrase", "FAR TIDE", "white80", 7.485, 54, 118, func(l *card.Letters) { l.From = &card.CutFrom{Sheet: s.Find("tide")} })
	s.Do(card.Edit{AddGems: &card.AddGems{}})
	g := s.last("shell")
	n, size, high := 1, 5.0, 5.0
	x, y := 67.13, 118.0
	s.Do(card.Edit{Gems: &card.SetGems{Element: g, Count: &n, Size: &size, Height: &high}}, card.Edit{Put: &card.Put{Element: g, X: &x, Y: &y}})
	s.gap("the envelope to be stamped")
	return s
}

// reedMace is I.
func reedMace() *Stranger {
	s := begin("I", "Reed mace", "a2", false, "white110")
	s.panel("ground", "bluecard", 3.175, liquid)
	leaf := outline("ell 12x30")
	outer := []shape.Point{{X: 10, Y: 4}, {X: 32, Y: 4}, {X: 54, Y: 4}, {X: 76, Y: 4}, {X: 98, Y: 4}, {X: 10, Y: 136}, {X: 32, Y: 136}, {X: 54, Y: 136}, {X: 76, Y: 136}, {X: 98, Y: 136}}
	var places []card.Place
	var of []string
	for i, at := range outer {
		p := card.Place{X: at.X, Y: at.Y + 15}
		if i >= 5 {
			p.Y, p.Turn = at.Y-15, 180
		}
		places = append(places, p)
		of = append(of, []string{"w1", "w2"}[i%2])
	}
	stalk := []card.Bond{{Adhesive: "liquid", Zone: card.BondFoot}}
	id := s.image("leaf", 10, 19, stalk, part{name: "leaf", make: card.Cut, g: leaf, paper: "bluecard"})
	m := s.made["image leaf"]
	s.Do(card.Edit{AddColourways: &card.AddColourways{Motif: m, Choices: []card.Choice{{Name: "grey", Layers: map[string]card.Finish{"leaf": {Paper: "greycard", Impressions: 1}}}}}})
	s.Do(card.Edit{Lay: &card.Lay{Element: id, Places: places, Colourways: of}})
	s.sheet("panel", "white80", 88.9, 120.65, 53.98, 69.85, card.Foam("craft2", 1), s.nested("stitched rectangles", "3.5x4.75", []string{"3.75x5", "3.5x4.75"}, []string{"3x4.25"}))
	s.image("mace", 54, 74, card.Glue("runner"), part{name: "mace", make: card.Cut, g: outline("ell 14x44 @0,-38 + rect 1.4x70 @0,19"), paper: "white80", ink: "m-violet-2", copies: 4})
	strip := []card.Bond{{Spacer: "foam2-strip", Level: 1, Pads: []card.Pad{{W: 50, H: 6}}}}
	s.sheet("strip", "white80", 60, 12, 54, 112, strip)
	s.gap("two colours on the top ply of a piece cut four times, its lower plies bare")
	s.gap("plies joined by tape so wide, only over a part of the piece")
	s.gap("\"run over the edge, meant\"; a bow that is undecided")
	s.sheets("white80", 2)
	s.sheets("bluecard", 2)
	s.sheets("greycard", 1)
	return s
}

// harbour is J.
func harbour() *Stranger {
	s := begin("J", "Masked harbour", "a2", true, "white110")
	s.sheet("panel", "white80", 133.35, 101.6, 69.85, 50.8, tape)
	s.stencil("dots", dots(130, 36, 9, 4))
	s.stencil("waves", dots(130, 18, 9, 5))
	top := -50.8
	s.treat("panel", card.DidFade, card.Treatment{Fade: &card.Fade{From: card.FromTop, Inks: []string{"brown-1"}, Reach: 38}})
	s.treat("panel", card.DidStencil, card.Treatment{Stencil: &card.Stencil{Set: "dots", Part: "all", Ink: "brown-1", Spot: card.Spot{Y: top + 19}}})
	inks := []string{"amber-2", "red-2", "brown-2", "blue-2"}
	var bands []card.Band
	for _, i := range inks {
		bands = append(bands, card.Band{Ink: i, W: 19.05})
	}
	s.treat("panel", card.DidBands, card.Treatment{Bands: &card.Bands{Start: 38.1, Bands: bands}})
	for i, ink := range inks {
		s.treat("panel", card.DidStencil, card.Treatment{Stencil: &card.Stencil{Set: "waves", Part: "all", Ink: ink, Spot: card.Spot{Y: top + 38.1 + 19.05*(float64(i)+0.5)}}})
	}
	figure := func(name string, g shape.Region, x, y float64) {
		id := s.image(name, x, y, nil, part{name: name, make: card.Printed, g: g, ink: "black"})
		s.Do(card.Edit{Masked: &card.SetMasked{Element: id, Masked: true}})
	}
	figure("owl", outline("ell 20x26"), 84, 18)
	figure("boat", outline("poly -20,0 20,0 14,12 -14,12 + rect 1x20 @0,-10"), 70, 24)
	figure("otter", outline("ell 26x30"), 30, 20)
	line := shape.Rect(-50, -1, 100, 0.8)
	for i := range 5 {
		line = joined(line, outline("poly -2,0 2,0 0,5").Move(shape.Point{X: -40 + 20*float64(i)}))
	}
	figure("signal line", line, 69.85, 6)
	for of, pencil := range map[string]string{"owl": "p-brown-2", "boat": "p-red-2", "otter": "p-brown-2"} {
		s.Blend(of, of, card.Blend{Ink: pencil, Zone: card.AllOver})
	}
	s.Do(card.Edit{AddLetters: &card.AddLetters{Text: "SHORELEAVE"}})
	s.letters("word", "SHORELEAVE", "white80", 11, 70, 80, func(l *card.Letters) { l.Plies = 3 })
	s.Do(card.Edit{Hold: &card.Hold{Element: s.Find("word"), Bonds: card.Glue("matte")}})
	s.gap("a word in two halves; masking paper and tape as stores")
	s.gap("glitter glue on parts of an image")
	s.sheets("white80", 3)
	s.sheets("white110", 1)
	return s
}

// harbourCut is J with three bands kept, its panel cut to them and laid flush with the upper edge.
func harbourCut() *Stranger {
	s := harbour()
	s.ID = "J2"
	s.Treat("panel", 2, func(t *card.Treatment) {
		b := *t.Bands
		b.Bands = slices.Clone(b.Bands[:3])
		t.Bands = &b
	})
	s.Drop("panel", 6)
	s.Resize("panel", 133.35, 95.25)
	s.Lay("panel", 69.85, 47.625, 0)
	return s
}

// marsh is K.
func marsh() *Stranger {
	s := begin("K", "Otter by a lamp", "a2", false, "white110")
	s.panel("panel", "white80", 3.175, liquid)
	s.sheet("disc", "white110", 98.4, 98.4, 53.98, 56, foam2, oval)
	s.treat("disc", card.DidFade, card.Treatment{Fade: &card.Fade{From: card.FromAll, Inks: []string{"violet-1"}, Reach: 60}})
	disc := ellipse(49.2, 49.2).Move(shape.Point{X: 53.98, Y: 56})
	hill := func(name, paper string, high float64, bonds []card.Bond) {
		g, err := disc.Intersect(shape.Rect(3.98, 105-high, 100, high))
		if err != nil {
			panic(err)
		}
		s.shaped(name, paper, g, 0, 0, bonds)
	}
	hill("hill 1", "sand", 40, liquid)
	hill("hill 2", "kraft", 32, liquid)
	hill("hill 3", "night", 24, foam2)
	s.image("stool", 40, 88, liquid, part{name: "stool", make: card.Cut, g: outline("ell 30x12"), paper: "white80", ink: "m-brown-2"})
	s.image("otter", 40, 68, foam2,
		part{name: "tail", make: card.Cut, g: outline("ell 6x22 @16,14"), paper: "white80", ink: "m-brown-2", bonds: liquid}, part{name: "body", make: card.Cut, g: outline("ell 26x40 @0,4"), paper: "white80", ink: "m-brown-2", bonds: liquid},
		part{name: "head", make: card.Cut, g: outline("ell 20x18 @0,-20"), paper: "white80", ink: "m-brown-2", bonds: liquid},
		print("arms", outline("rect 6x18 @-12,2 + rect 6x18 @12,2"), "", "body"), print("feet", outline("ell 9x5 @-6,25 + ell 9x5 @6,25"), "", "body"),
		print("ears", outline("circ 3 @-6,-26 + circ 3 @6,-26"), "m-red-1", "head"), print("nose", outline("circ 3 @0,-18"), "m-brown-4", "head"), print("cheeks", outline("circ 4 @-5,-16 + circ 4 @5,-16"), "m-red-1", "head"))
	s.image("lamp", 68, 62, foam2, part{name: "lamp", make: card.Cut, g: outline("rect 8x16 + circ 10 @0,-12"), paper: "white80", ink: "m-amber-2"})
	side := []card.Blend{{Ink: "m-blue-4", Zone: card.Left}}
	s.image("left pine", 24, 60, foam2, part{name: "pine", make: card.Cut, g: outline("poly 0,-24 10,20 -10,20"), paper: "white80", ink: "m-blue-2", blends: side, bonds: liquid},
		part{name: "trunk", make: card.Cut, g: outline("rect 2.5x8 @0,24"), paper: "white80", ink: "m-grey-2", bonds: liquid, blends: []card.Blend{{Ink: "m-grey-3", Zone: card.Foot}, {Ink: "m-grey-4", Zone: card.Foot}}})
	s.Do(card.Edit{Repeat: &card.Repeat{Element: s.Find("left pine")}})
	right := s.last("right pine")
	s.at(right, 84, 60, 0)
	yes := true
	s.Do(card.Edit{Put: &card.Put{Element: right, Mirror: &yes}}, card.Edit{ShadeOther: &card.ShadeOther{Element: right}}, card.Edit{Light: &card.SetLight{Lamp: s.Find("lamp")}})
	s.treat("panel", card.DidWords, card.Treatment{Words: &card.Words{Text: "down by the water", Ink: "black", Letter: 5, Spot: card.Spot{Y: 126 - s.Card.Base.H/2}}})
	s.Do(card.Edit{AddGems: &card.AddGems{}})
	g := s.last("gems")
	n := 4
	x, y := 54.0, 114.0
	s.Do(card.Edit{Gems: &card.SetGems{Element: g, Count: &n}}, card.Edit{Put: &card.Put{Element: g, X: &x, Y: &y}})
	s.gap("each half of a mirrored piece in its own ink: it is shaded on one side")
	s.gap("hills cut with the disc's own die, all in one pass")
	s.gap("gems without a place")
	s.stock("foam2", 30)
	s.stock("foam1", 30)
	s.sheets("white110", 2)
	s.sheets("white80", 3)
	return s
}
