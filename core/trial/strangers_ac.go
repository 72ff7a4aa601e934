package trial

import (
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// strangers enter the trial cards. A letter with a number is one of several cards of a trial.
var strangers = []struct {
	id    string
	enter func() *Stranger
}{{"A1", shellRing}, {"A2", nightOwl}, {"A3", lighthouse}, {"A4", boatHolder}, {"B", lanterns}, {"C", mops}, {"D", boathouse}, {"E", pondOwls}, {"E2", nineOwls}, {"F", duneRing}, {"G", lilies}, {"H1", longMoths}, {"H2", seaPinks},
	{"I", reedMace}, {"J", harbour}, {"J2", harbourCut}, {"K", marsh}}

// Strangers are the trial cards as they are entered, each afresh.
func Strangers() (out []*Stranger) {
	for _, s := range strangers {
		out = append(out, s.enter())
	}
	return out
}

// StrangerBy is one of them by its id, afresh; nil where there is none.
func StrangerBy(id string) *Stranger {
	for _, s := range strangers {
		if s.id == id {
			return s.enter()
		}
	}
	return nil
}

// die is the piece a print is cut out as.
func die(g shape.Region, by float64) part {
	return part{name: "die", make: card.Cut, g: grown(g, by), paper: "white80", after: true}
}

// within is a print on another part.
func print(name string, g shape.Region, ink, host string) part {
	return part{name: name, make: card.Printed, g: g, ink: ink, host: host, stamp: name}
}

// shellRing is A, the ring of shells.
func shellRing() *Stranger {
	s := begin("A1", "Shell ring", "a2", false, "white110")
	s.panel("panel", "pattern", 3.175, liquid)
	s.sheet("ring", "white80", 92, 92, 53.98, 56, foam2, s.cutWith("ring", outline("circ 92 - circ 68")))
	scallop := outline("arc 0,8 12,14 4,12")
	finish := func(ink string) map[string]card.Finish {
		return map[string]card.Finish{"solid": {Ink: ink, Impressions: 1}}
	}
	id := s.image("scallop", 53.98, 16, liquid, die(lined(scallop, 0.6), 1), print("outline", lined(scallop, 0.6), "black", "die"), print("solid", scallop, "red-2", "die"))
	s.Kit.Sets[len(s.Kit.Sets)-1].Parts[0].Outline = grown(scallop, 1.3)
	e, _ := s.Card.Element(id)
	m := e.Image.Motif
	for _, ink := range []string{"amber-2", "blue-2"} {
		base, _ := s.Card.Motif(m)
		all := map[string]card.Finish{}
		for l, f := range base.Colourways[0].Layers {
			all[l] = f
		}
		for l, f := range finish(ink) {
			all[l] = f
		}
		s.Do(card.Edit{AddColourways: &card.AddColourways{Motif: m, Choices: []card.Choice{{Name: ink, Layers: all}}}})
	}
	// As many as close the ring with a fifth of overlap, in turn.
	places := ring(13, 53.98, 56, 40)
	mo, _ := s.Card.Motif(m)
	var ways []string
	for i := range places {
		ways = append(ways, mo.Colourways[i%3].ID)
	}
	s.Do(card.Edit{Lay: &card.Lay{Element: id, Places: places, Colourways: ways}})
	big := outline("arc 0,10 18,20 6,16")
	s.image("big shell", 53.98, 118, liquid, die(big, 1.3), print("outline", lined(big, 0.6), "black", "die"), print("solid", big, "red-2", "die"))
	s.Do(card.Edit{AddLetters: &card.AddLetters{Text: "LIT"}})
	s.letters("LIT", "LIT", "white80", 14, 53.98, 56)
	s.Make("scallop", 20)
	return s
}

// letters sets the letters that were added last.
func (s *Stranger) letters(name, text, paper string, high, x, y float64, change ...func(*card.Letters)) string {
	id := s.last(name)
	e, _ := s.Card.Element(id)
	l := *e.Letters
	l.Text, l.Paper, l.Size, l.Fit, l.Plies = text, paper, high, 0, 1
	for _, f := range change {
		f(&l)
	}
	s.Do(card.Edit{Letters: &card.SetLetters{Element: id, Letters: l}}, card.Edit{Put: &card.Put{Element: id, X: &x, Y: &y}}, card.Edit{Hold: &card.Hold{Element: id, Bonds: liquid}})
	return id
}

// nightOwl is A, the owl with two fringes.
func nightOwl() *Stranger {
	s := begin("A2", "Night owl", "a2", false, "white110")
	s.panel("panel", "white80", 3.175, liquid)
	s.treat("panel", card.DidFade, card.Treatment{Fade: &card.Fade{From: card.FromTop, Inks: []string{"violet-1"}, Reach: 60}})
	owl := outline("ell 34x44")
	s.image("owl", 53.98, 62, foam2, die(owl, 1), print("print", owl, "black", "die"))
	s.treat("panel", card.DidWords, card.Treatment{Words: &card.Words{Text: "NIGHT", Stamp: "GOOD / NIGHT / OWL", Ink: "black", Letter: 6, Spot: card.Spot{Y: 98 - s.Card.Base.H/2}}})
	for i, y := range []float64{112, 120} {
		s.sheet([]string{"fringe 1", "fringe 2"}[i], "pattern", 152.4, 25.4, 53.98, y, []card.Bond{{Adhesive: "liquid", Zone: card.BondHead}}, func(sh *card.Sheet) { sh.Shape = &card.Outline{Kind: card.Fringe} })
	}
	s.Given = []Given{{"place", "owl"}, {"print", "panel"}, {"place", "fringe 1"}}
	return s
}

// lighthouse is A, the shaker.
func lighthouse() *Stranger {
	s := begin("A3", "Lighthouse shaker", "a2", false, "white110")
	s.panel("panel", "greencard", 0, liquid)
	e, _ := s.Card.Element(s.Find("panel"))
	sheet := *e.Sheet
	sheet.Openings = []card.Opening{{Text: "HARBOR", H: 9, Y: 116 - s.Card.Base.H/2, Islands: true}}
	s.Do(card.Edit{Sheet: &card.SetSheet{Element: e.ID, Sheet: &sheet}})
	s.treat("panel", card.DidWords, card.Treatment{Words: &card.Words{Text: "BEAM", Ink: "clear", Letter: 5, Emboss: true, Spot: card.Spot{Y: 130 - s.Card.Base.H/2}}})
	s.Do(card.Edit{AddShaker: &card.AddShaker{}})
	id := s.last("shaker")
	e, _ = s.Card.Element(id)
	k := *e.Shaker
	k.Paper, k.W, k.H, k.Shape = "sand", 54, 98, &card.Outline{Kind: card.Rectangle, Pitch: 8}
	k.Openings = []card.Opening{{Outline: card.Outline{Kind: card.Rectangle, Pitch: 6}, W: 46, H: 90}}
	k.Film, k.Wall, k.Level, k.Wide, k.Backing, k.Back = "acetate", "foam2-strip", 1, 3, "pink", -1
	k.Filling = []card.Filling{{Name: "Sequins, 3 mm", High: 1.2, Colour: "#e0a040", N: 30}}
	x, y := 53.98, 55.0
	s.Do(card.Edit{Shaker: &card.SetShaker{Element: id, Shaker: k}}, card.Edit{Put: &card.Put{Element: id, X: &x, Y: &y}}, card.Edit{Hold: &card.Hold{Element: id, Bonds: liquid}})
	s.gap("a film of its own behind the word that is cut through the panel")
	s.Given = []Given{{"place", "shaker"}, {"heat", "panel"}}
	return s
}

// boatHolder is A, the boat under the reeds.
func boatHolder() *Stranger {
	s := begin("A4", "Boat holder", "a2", false, "sand")
	s.shaped("boat", "sand", outline("poly -30,0 30,0 22,14 -22,14 + rect 2x46 @0,-23 + poly 2,-44 20,-4 2,-4"), 40, 76, liquid)
	reeds := outline("rect 70x6")
	for i := range 12 {
		reeds = joined(reeds, shape.Rect(-34+float64(i)*6, -43, 2, 40))
	}
	s.shaped("reeds", "palegreen", reeds, 40, 92, liquid)
	s.sheet("strip", "sand", 44, 10, 38, 16, liquid)
	s.Given = []Given{{"place", "reeds"}, {"place", "boat"}}
	return s
}

// lanterns is B.
func lanterns() *Stranger {
	s := begin("B", "Crook lanterns", "a2", true, "white110")
	s.sheet("wisp 1", "vellum", 46, 18, 38, 15, card.Glue("spray"), oval)
	s.sheet("wisp 2", "vellum", 46, 18, 84, 15, card.Glue("spray"), oval)
	s.sheet("mat", "pattern", 139.7, 66, 69.85, 48, liquid)
	s.sheet("band", "white80", 139.7, 60, 69.85, 48, tape)
	s.treat("band", card.DidFade, card.Treatment{Fade: &card.Fade{From: card.FromAll, Inks: []string{"green-2"}, Reach: 60}})
	s.treat("band", card.DidSplash, card.Treatment{Splash: &card.Splash{Drops: 24, Size: 1.4}})
	whole := outline("ell 44x30 + rect 0.9x46 @0,38 + rect 8x4 @3,60")
	pads := []card.Bond{{Spacer: "foam2", Level: 1, Pads: []card.Pad{{X: -12, Y: -26, W: 6, H: 6}, {X: 12, Y: -26, W: 6, H: 6}, {Y: -13.5, W: 6, H: 6}}}}
	high := []card.Bond{{Spacer: "foam2", Level: 2, Pads: pads[0].Pads}}
	s.image("L1", 40, 40, liquid, part{name: "crook lantern", make: card.Cut, g: whole, paper: "white80"})
	s.region("L1", "crook lantern", "canopy", 15, true)
	s.region("L1", "crook lantern", "tip", 58, false)
	s.Ink("L1", "canopy", "blue-2")
	s.Ink("L1", "tip", "grey-3")
	s.another("L2", "L1", 80, 38, pads, map[string]card.Finish{s.Layer("L1", "canopy"): {Ink: "brown-2", Impressions: 1}})
	s.another("L3", "L1", 126, 34, high, map[string]card.Finish{s.Layer("L1", "canopy"): {Ink: "red-2", Impressions: 1}})
	s.sheet("words", "black", 30, 7, 104, 100, card.Glue("spray"))
	s.Do(card.Edit{AddGems: &card.AddGems{}})
	g := s.last("drops")
	size, x, y := 3.0, 40.0, 92.0
	s.Do(card.Edit{Gems: &card.SetGems{Element: g, Size: &size}}, card.Edit{Put: &card.Put{Element: g, X: &x, Y: &y}})
	s.gap("no amount of a splash, and no wait: the form always has a number of drops")
	s.gap("gloss drops: entered as gems in a row")
	s.gap("how much light a vellum lets through")
	s.stock("foam2", 20)
	s.Given = []Given{{"place", "L1"}, {"place", "L2"}, {"place", "L3"}, {"place", "words"}, {"splash", "band"}}
	return s
}

// stock counts a spacer.
func (s *Stranger) stock(id string, n int) {
	for i := range s.Kit.Spacers {
		if s.Kit.Spacers[i].ID == id {
			s.Kit.Spacers[i].Left = &n
		}
	}
}

// sheets counts a cardstock.
func (s *Stranger) sheets(id string, n int) {
	for i := range s.Kit.Papers {
		if s.Kit.Papers[i].ID == id {
			s.Kit.Papers[i].Sheets = n
		}
	}
}

// mops is C.
func mops() *Stranger {
	s := begin("C", "Mop brooms", "a2", false, "white110")
	s.panel("front", "white80", 3.175, liquid)
	s.stencil("tiles", dots(90, 120, 10, 6))
	s.treat("front", card.DidEdged, card.Treatment{Edged: &card.Edged{Ink: "black", W: 4}})
	s.treat("front", card.DidStencil, card.Treatment{Stencil: &card.Stencil{Set: "tiles", Part: "all", Ink: "violet-1"}})
	w, h := s.Card.Base.W/2, s.Card.Base.H/2
	s.treat("front", card.DidStroke, card.Treatment{Stroke: &card.Stroke{Ink: "amber-3", W: 20, Points: []card.Offset{{X: 41 - w + 6, Y: 98 - h - 22.2}, {X: 41 - w - 6, Y: 98 - h + 22.2}}}})
	s.treat("front", card.DidStroke, card.Treatment{Stroke: &card.Stroke{Ink: "violet-3", W: 20, Points: []card.Offset{{X: 76 - w, Y: 102 - h - 23}, {X: 76 - w, Y: 102 - h + 23}}}})
	broom := func(name, ink string, foot shape.Point, turn, handle float64) {
		comb := outline("comb 14x36 pitch 2")
		left, right := comb.Move(shape.Point{X: -7, Y: -18}), comb.Move(shape.Point{X: 7, Y: -18})
		stick := shape.Rect(-5, -46-handle, 10, handle)
		id := s.image(name, foot.X, foot.Y, liquid,
			part{name: "handle", make: card.Cut, g: stick, paper: "sand", ink: "brown-3", bonds: liquid},
			part{name: "ferrule", make: card.Cut, g: shape.Rect(-14, -46, 28, 10), paper: "greycard", bonds: liquid},
			part{name: "mop left", make: card.Cut, g: left, paper: "white80", ink: ink, copies: 3, bonds: tape},
			part{name: "mop right", make: card.Cut, g: right, paper: "white80", ink: ink, copies: 3, bonds: tape})
		s.at(id, foot.X, foot.Y, turn)
		s.soak(name, "mop left")
		s.soak(name, "mop right")
	}
	broom("broom G", "amber-4", shape.Point{X: 35, Y: 120}, 15, 110)
	broom("broom B", "violet-4", shape.Point{X: 76, Y: 120}, 0, 60)
	s.treat("front", card.DidWords, card.Treatment{Words: &card.Words{Text: "HARBOUR MORNING", Ink: "black", Letter: 3.3, Spot: card.Spot{X: 30 - w, Y: 20 - h}}})
	s.Given = []Given{{"place", "broom G"}, {"place", "broom B"}, {"print", "front"}}
	return s
}
