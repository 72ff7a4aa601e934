package main

import (
	"math"
	"slices"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

// line is one fact that a good plan of a trial card tells.
type line struct {
	id, card string
	what     string
	given    bool // looked for in the person's own order of work
	// first is what the person chooses before the line is looked for; nil where the card is as it was given.
	first func(s *trial.Stranger)
	// told judges a plan, and gives the finding that tells it where one does.
	told func(t *told) (verdict, *foresee.Finding)
	// twin changes one thing after which it must not be told; nil where that cannot be entered.
	twin func(s *trial.Stranger)
	// lacks is the field that is missing to enter the line, where one is.
	lacks string
}

// never is a line that nothing in the program tells yet.
func never(*told) (verdict, *foresee.Finding) { return no, nil }

// minds reports whether an act minds a sentence with a word in it.
func minds(a *work.Act, word string) bool {
	return a != nil && slices.ContainsFunc(a.Mind, func(m string) bool { return strings.Contains(m, word) })
}

// before reports whether one act stands before another.
func before(a, b *work.Act) bool { return a != nil && b != nil && a.Number < b.Number }

// breach judges a line that is told by a step put before what it needs.
func breach(of ...string) func(t *told) (verdict, *foresee.Finding) {
	return func(t *told) (verdict, *foresee.Finding) {
		for _, name := range of {
			for i := range t.Findings {
				f := &t.Findings[i]
				if f.Rule != "step" && f.Rule != "hot" && f.Rule != "no way in" {
					continue
				}
				if t.about(f, name) {
					return said, f
				}
				if id, ok := t.Made(name); ok {
					for _, a := range t.Steps {
						if a.Key == f.Step && a.ID.Element == id {
							return said, f
						}
					}
				}
			}
		}
		return no, nil
	}
}

var linesAD = []line{
	{id: "A.1", card: "A1", what: "the big solid is struck twice, nothing moved between", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Print, "big shell", "solid")
		return half(a != nil && (minds(a, "strike again") || anyMinds(t, "strike again")), minds(a, "strike again")), nil
	}, twin: func(s *trial.Stranger) {
		s.Ink("big shell", "solid", "")
		s.Ink("scallop", "solid", "")
	}},
	{id: "A.2", card: "A1", what: "12 or 13 close the ring, 20 cut leave 7 or 8 over", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "ring")
		return half(f != nil, within(f, "closes", 12, 13) && within(f, "over", 7, 8)), f
	}, twin: func(s *trial.Stranger) { s.Make("scallop", 13) }},
	{id: "A.3", card: "A2", what: "fringes 50.8 mm too long, trimmed from the back", told: func(t *told) (verdict, *foresee.Finding) {
		f, g := t.note("fringe 1", "edge"), t.note("fringe 2", "edge")
		return half(f != nil, within(f, "over", 24, 52) && within(g, "over", 24, 52) && f.Mend != nil), f
	}, twin: func(s *trial.Stranger) {
		s.Resize("fringe 1", 101.6, 25.4)
		s.Resize("fringe 2", 101.6, 25.4)
	}},
	{id: "A.4", card: "A3", what: "the backing stands 1 mm past the frame", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("shaker", "peeks")
		return half(f != nil, within(f, "past", 0.8, 1.2)), f
	}, twin: func(s *trial.Stranger) {
		e, _ := s.Card.Element(s.Find("shaker"))
		k := *e.Shaker
		k.Back = 1
		s.Do(card.Edit{Shaker: &card.SetShaker{Element: e.ID, Shaker: k}})
	}},
	{id: "A.5", card: "A4", what: "the hull goes beneath reeds that are glued all over", given: true, told: breach("boat", "reeds"), twin: func(s *trial.Stranger) { s.Do(card.Edit{Shift: &card.Shift{Element: s.Find("boat"), By: 1}}) }},
	{id: "A.6", card: "A4", what: "the front is lopsided, its lower third bare", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "balance")
		return half(len(t.Front.Elements) > 0, f != nil), f
	}},
	{id: "A.7", card: "A2", what: "one line of a stamp of three: mask the others", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Print, "panel", "")
		if a == nil || !strings.Contains(a.Title, "NIGHT") {
			a = t.step(work.Print, "panel", "2")
		}
		return half(a != nil && strings.Contains(a.Detail, "GOOD"), a != nil && strings.Contains(a.Detail, "GOOD” and “OWL") && strings.Contains(a.Detail, "tape")), nil
	}, twin: func(s *trial.Stranger) {
		s.Treat("panel", 1, func(t *card.Treatment) {
			w := *t.Words
			w.Text, w.Stamp = "GOOD NIGHT OWL", "GOOD / NIGHT / OWL"
			t.Words = &w
		})
	}},
	{id: "A.8", card: "A2", what: "the blend starts off the panel, with little ink", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Blend, "panel", "")
		return half(a != nil && strings.Contains(a.Detail, "scrap"), a != nil && strings.Contains(a.Detail, "off the")), nil
	}, twin: func(s *trial.Stranger) { s.Drop("panel", 0) }},
	{id: "A.9", card: "A3", what: "heat for BEAM before the acetate", given: true, told: breach("panel", "shaker"), twin: func(s *trial.Stranger) {
		s.Treat("panel", 0, func(t *card.Treatment) {
			w := *t.Words
			w.Ink, w.Emboss = "black", false
			t.Words = &w
		})
		s.Given = nil
	}},
	{id: "A.10", card: "A2", what: "NIGHT is stamped before the owl stands beside it", given: true, told: breach("panel", "owl"), twin: func(s *trial.Stranger) {
		s.Given = []trial.Given{{Verb: "print", Of: "panel"}, {Verb: "place", Of: "owl"}}
	}},
	{id: "A.11", card: "A3", what: "6 islands of HARBOR, glued to the film first", told: func(t *told) (verdict, *foresee.Finding) {
		n := 0
		for _, x := range t.Build.Things {
			if x.Element.ID == t.Find("panel") {
				n = x.Islands
			}
		}
		a := t.step(work.Open, "panel", "")
		return half(n == 6 && a != nil, a != nil && strings.Contains(a.Detail, "film")), nil
	}, twin: func(s *trial.Stranger) {
		e, _ := s.Card.Element(s.Find("panel"))
		sheet := *e.Sheet
		sheet.Openings = []card.Opening{{Text: "LIT", H: 9, Y: sheet.Openings[0].Y, Islands: true}}
		s.Do(card.Edit{Sheet: &card.SetSheet{Element: e.ID, Sheet: &sheet}})
	}},
	{id: "A.12", card: "A3", what: "a window 90 mm tall wants baffles", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("shaker", "baffles")
		return half(f != nil, within(f, "tall", 86, 96)), f
	}, twin: func(s *trial.Stranger) {
		e, _ := s.Card.Element(s.Find("shaker"))
		k := *e.Shaker
		k.Openings = []card.Opening{{Outline: card.Outline{Kind: card.Rectangle}, W: 46, H: 30}}
		s.Do(card.Edit{Shaker: &card.SetShaker{Element: e.ID, Shaker: k}})
	}},

	{id: "B.1", card: "B", what: "the crook is 0.9 mm wide: left in its sheet, inked flat", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("crook lantern", "thin")
		return half(f != nil, f != nil), f
	}, twin: func(s *trial.Stranger) {
		s.Reshape("L1", "crook lantern", "ell 44x30 + rect 3x46 @0,38 + rect 8x4 @3,60")
	}},
	{id: "B.2", card: "B", what: "one die in three colours: mask, or cut twice", told: func(t *told) (verdict, *foresee.Finding) {
		a, b := t.step(work.Print, "L1", "canopy"), t.step(work.Print, "L1", "tip")
		masked := func(a *work.Act) bool { return a != nil && strings.Contains(a.Detail, "mask") }
		return half(masked(a) || masked(b), masked(a) && masked(b)), nil
	}, twin: func(s *trial.Stranger) {
		s.Ink("L1", "canopy", "")
		s.Ink("L1", "tip", "")
		s.Ink("L1", "crook lantern", "blue-2")
	}},
	{id: "B.3", card: "B", what: "L1 dries 2 minutes before it is glued", told: func(t *told) (verdict, *foresee.Finding) {
		a, b := t.step(work.Print, "L1", "canopy"), t.step(work.Place, "L1", "")
		return half(a != nil && a.Minutes >= 2, before(a, b)), nil
	}, twin: func(s *trial.Stranger) {
		s.Ink("L1", "canopy", "")
		s.Ink("L1", "tip", "")
	}},
	{id: "B.4", card: "B", what: "L3's crook hangs 49 mm past its pads, 4 mm in the air", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("L3", "hangs")
		return half(f != nil, within(f, "off", 46, 52) && within(f, "gap", 3.9, 4.6)), f
	}, twin: func(s *trial.Stranger) {
		s.Hold("L2", card.Glue("liquid"))
		s.Hold("L3", card.Glue("liquid"))
	}},
	{id: "B.5", card: "B", what: "L3 passes the card by 8.3 mm and does not go in its envelope", told: func(t *told) (verdict, *foresee.Finding) {
		f, g := t.note("L3", "edge"), t.note("", "envelope")
		return half(f != nil || g != nil, within(f, "over", 7.5, 9.1) && g != nil), f
	}, twin: func(s *trial.Stranger) {
		s.Hold("L2", card.Glue("liquid"))
		s.Hold("L3", card.Glue("liquid"))
		s.Lay("L3", 114, 34, 0)
	}},
	{id: "B.6", card: "B", what: "the splash: how much, how long, blotted, tried first", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Splash, "band", "")
		return half(a != nil, a != nil && strings.Contains(a.Detail, "blot") && !strings.Contains(a.Detail, " 0 seconds") && strings.Contains(a.Detail, "scrap") && before(a, t.step(work.Place, "L2", ""))), nil
	}, twin: func(s *trial.Stranger) { s.Drop("band", 1) }},

	{id: "C.1", card: "C", what: "the middle ply is shifted by half a pitch; 12 pieces", told: func(t *told) (verdict, *foresee.Finding) {
		n := t.pieces("broom G", "mop left") + t.pieces("broom G", "mop right") + t.pieces("broom B", "mop left") + t.pieces("broom B", "mop right")
		f := t.note("mop left", "ribs")
		return half(n == 12, f != nil), f
	}},
	{id: "C.2", card: "C", what: "the handle passes the card by 32 mm", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("broom G", "edge")
		return half(f != nil, within(f, "over", 30, 36)), f
	}, twin: func(s *trial.Stranger) {
		s.Reshape("broom G", "handle", "rect 10x60 @0,-76")
		s.Lay("broom G", 35, 120, 15)
	}},
	{id: "C.3", card: "C", what: "the stroke is 8 mm narrower than the mop on it", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("front", "stroke")
		return half(f != nil, within(f, "narrower", 7, 9)), f
	}},
	{id: "C.4", card: "C", what: "a nearly dry brush, the first stroke on scrap", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Paint, "front", "")
		return half(a != nil && (minds(a, "scrap") || strings.Contains(a.Detail, "scrap")), a != nil && strings.Contains(a.Detail, "dry brush")), nil
	}, twin: func(s *trial.Stranger) { s.Drop("front", 3); s.Drop("front", 2) }},
	{id: "C.5", card: "C", what: "soaked mops dry before they are let out of the sheet", told: func(t *told) (verdict, *foresee.Finding) {
		a, b := t.step(work.Ink, "broom G", "mop left"), t.step(work.Pop, "broom G", "")
		return half(before(a, b) && a.Minutes > 0, before(a, b) && a.Minutes >= 15), nil
	}, twin: func(s *trial.Stranger) {
		for _, b := range []string{"broom G", "broom B"} {
			s.Ink(b, "mop left", "")
			s.Ink(b, "mop right", "")
		}
	}},
	{id: "C.6", card: "C", what: "ribs are open: their backs are coloured too", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Ink, "broom G", "mop left")
		return half(t.step(work.Back, "broom G", "") != nil || minds(a, "back") || anyMinds(t, "colour its back"), minds(a, "back") || anyMinds(t, "colour its back")), nil
	}, twin: func(s *trial.Stranger) {
		for _, b := range []string{"broom G", "broom B"} {
			s.Reshape(b, "mop left", "rect 14x36 @-7,-18")
			s.Reshape(b, "mop right", "rect 14x36 @7,-18")
		}
	}},

	{id: "D.1", card: "D", what: "charms of 2 to 3.5 mm by hand in three colours are tedious", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("charm 1", "tiny", "small")
		return half(f != nil, within(f, "across", 1.8, 4)), f
	}, twin: func(s *trial.Stranger) {
		for i, n := range []string{"charm 1", "charm 2", "charm 3"} {
			_ = i
			s.Off(n)
		}
	}},
	{id: "D.2", card: "D", what: "the body is cut twice, its foot hangs by 1.3 mm", told: func(t *told) (verdict, *foresee.Finding) {
		n := t.pieces("owlet", "")
		neck := false
		for _, a := range t.Steps {
			neck = neck || a.ID.Verb == work.Cut && strings.Contains(a.Detail, "neck of 1.") && strings.Contains(a.Detail, "with the die of body")
		}
		return half(n == 2, n == 2 && neck), nil
	}},
	{id: "D.3", card: "D", what: "the net has no back; one traced round comes 0.5 mm too large", told: func(t *told) (verdict, *foresee.Finding) {
		m, _ := t.Card.Motif(t.Find("image net"))
		traced := slices.ContainsFunc(m.Layers, func(l card.Layer) bool { return math.Abs(l.Traced) > 0 })
		return half(traced, traced && anyDetail(t, "cut inside it")), nil
	}},
	{id: "D.4", card: "D", what: "joints that the film does not reach", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.GlueAgain, "", "")
		if a == nil {
			return no, nil
		}
		n := strings.Count(a.Detail, ";") + 1
		return half(true, n >= 3 && n <= 5 && strings.Contains(a.Detail, "wlet") && strings.Contains(a.Detail, "oat") && strings.Contains(a.Detail, "obile")), nil
	}, twin: func(s *trial.Stranger) {
		for i, n := range []string{"rug", "cradle back", "owlet", "boat", "cradle front", "mobile", "charm 1", "charm 2", "charm 3", "net"} {
			s.Lay(n, 60+110*float64(i%4), 60+110*float64(i/4), 0)
		}
	}},
	{id: "D.5", card: "D", what: "the net glued all round shuts the mobile out", given: true, told: breach("mobile", "net"), twin: func(s *trial.Stranger) {
		s.Given = []trial.Given{{Verb: "place", Of: "mobile"}, {Verb: "place", Of: "net"}}
	}},
	{id: "D.6", card: "D", what: "white edges of the boat and the owlet are inked", told: func(t *told) (verdict, *foresee.Finding) {
		a, b := t.step(work.Ink, "boat", "hull"), t.step(work.Ink, "owlet", "body")
		return half(a != nil, a != nil && b != nil && strings.Contains(a.Detail, "edges") && strings.Contains(b.Detail, "edges")), nil
	}, twin: func(s *trial.Stranger) {
		for _, l := range []string{"rockers", "hull", "top"} {
			s.Ink("boat", l, "")
		}
	}},
	{id: "D.7", card: "D", what: "the words are stamped before the scene", given: true, told: breach("panel"), twin: func(s *trial.Stranger) {
		s.Given = []trial.Given{{Verb: "print", Of: "panel"}, {Verb: "place", Of: "net"}}
	}},
}

// anyMinds reports whether any step minds a sentence with a word in it.
func anyMinds(t *told, word string) bool {
	for i := range t.Steps {
		if minds(&t.Steps[i], word) {
			return true
		}
	}
	return false
}

// anyDetail reports whether a step says something.
func anyDetail(t *told, words string) bool {
	return slices.ContainsFunc(t.Steps, func(a work.Act) bool { return strings.Contains(a.Detail, words) })
}
