package main

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/core/work"
	"ochrestone/exchange/inkfile"
)

// dryIsNotWet judges that every inked layer shows how it looks wet and dried.
func dryIsNotWet(t *told, image string) bool {
	id, _ := t.Made("image " + image)
	for _, m := range t.Motifs {
		if m.ID != id {
			continue
		}
		inked := 0
		for _, w := range m.Colourways {
			for _, l := range w.Layers {
				if l.InkName == "" {
					continue
				}
				inked++
				if l.Wet == "" || l.Wet == l.Dry {
					return false
				}
			}
		}
		return inked > 0
	}
	return false
}

// layer is the plan of a layer of an image of the trial.
func (t *told) layer(image, layer string) *plan.Layer {
	id, _ := t.Made("image " + image)
	for _, m := range t.Motifs {
		for i := range m.Layers {
			if m.ID == id && m.Layers[i].ID == layer {
				return &m.Layers[i]
			}
		}
	}
	return nil
}

// plain leaves all layers of an image without ink.
func plain(s *trial.Stranger, image string) {
	m, _ := s.Card.Motif(s.Find("image " + image))
	for _, l := range m.Layers {
		s.Ink(image, l.ID, "")
	}
}

var linesEK = []line{
	{id: "E.1", card: "E", what: "the insert has 0.5 mm of play: 64 in 100 by eye, 9 blanks for 4", told: func(t *told) (verdict, *foresee.Finding) {
		p := t.placing("amber", "3 insert", 4)
		chance, blanks := plainly(p, "eye")
		ok := p != nil && math.Abs(p.Plain.Tight-0.5) < 0.1
		return half(ok && p.Sighting.Say != "", ok && chance >= 0.6 && chance <= 0.7 && blanks >= 8 && blanks <= 11), nil
	}, twin: func(s *trial.Stranger) { s.Reshape("amber", "1 body", "ell 30x36 + ell 13x20 @-7,-24") }},
	{id: "E.2", card: "E", what: "the pale body is struck twice, or looked at before the lid is lifted", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Print, "amber", "1 body")
		return half(a != nil && anyMinds(t, "strike again"), minds(a, "strike again")), nil
	}, twin: func(s *trial.Stranger) { s.Ink("amber", "1 body", "") }},
	{id: "E.3", card: "E2", what: "nine owls of four colours can be laid with no like neighbours", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "beside")
		return half(f != nil, f != nil && f.Mend != nil), f
	}, twin: func(s *trial.Stranger) { s.OwlsIn("amber green violet blue") }},
	{id: "E.4", card: "E2", what: "in the nine, amber lies under amber once", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "beside")
		return half(f != nil, t.count("beside") == 1), f
	}, twin: func(s *trial.Stranger) { s.OwlsIn("amber green violet blue amber green green violet blue") }},
	{id: "E.5", card: "E", what: "4 pom-poms wanted, 3 owned", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "gems")
		return half(f != nil, within(f, "short", 1, 1)), f
	}, twin: func(s *trial.Stranger) { s.GemsLeft("pompom", 5) }},
	{id: "E.6", card: "E", what: "insert, beak and cheeks are one stamp and not one ink", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("3 beak", "stamp")
		if f == nil {
			f = t.note("3 cheeks", "stamp")
		}
		return half(f != nil, f != nil), f
	}, twin: func(s *trial.Stranger) {
		for i := range s.Kit.Sets {
			for j := range s.Kit.Sets[i].Parts {
				if p := &s.Kit.Sets[i].Parts[j]; p.ID == "3 beak" || p.ID == "3 cheeks" {
					p.Stamp = "another"
				}
			}
		}
	}},
	{id: "E.7", card: "E", what: "9 pads as entered, 12 when the fourth owl is held as its like", told: func(t *told) (verdict, *foresee.Finding) {
		f, g := t.note("", "spacers"), t.note("violet", "unlike", "unheld")
		return half(f != nil, within(f, "needs", 12, 12) || g != nil), f
	}, twin: func(s *trial.Stranger) {
		for _, o := range []string{"amber", "green", "blue", "violet"} {
			s.Hold(o, card.Glue("liquid"))
		}
	}},
	{id: "E.8", card: "E", what: "the second phrase is made and placed nowhere", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("second phrase", "unused")
		return half(f != nil, f != nil), f
	}, twin: func(s *trial.Stranger) {
		in := card.InsideRight
		s.Do(card.Edit{Sheet: &card.SetSheet{Element: s.Find("second phrase"), Face: &in}})
	}},
	{id: "E.9", card: "E", what: "a base as large as the front shows 3 mm in its valleys", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "behind")
		return half(f != nil, within(f, "in", 2.5, 3.5)), f
	}, twin: func(s *trial.Stranger) {
		s.Do(card.Edit{Around: &card.Around{W: 101.6, H: 133.35}})
		s.Lay("front", 50.8, 66.675, 0)
	}},
	{id: "E.10", card: "E", what: "the second ear's rim must fall in the die: the die is the guide", told: func(t *told) (verdict, *foresee.Finding) {
		p := t.placing("amber", "die", 4)
		eye, _ := plainly(p, "eye")
		taped, _ := plainly(p, "lines")
		ok := p != nil && p.Plain.Rim && p.Plain.Tight >= 0.9 && p.Plain.Tight <= 1.1
		return half(ok, ok && eye >= 0.82 && eye <= 0.9 && taped >= 0.93 && taped <= 0.98), nil
	}, twin: func(s *trial.Stranger) { s.CutAfter("amber", "die", false) }},

	{id: "F.1", card: "F", what: "12 close the ring, 32 cut are 20 over", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "ring")
		return half(f != nil, within(f, "closes", 11, 13) && within(f, "over", 16, 21)), f
	}, twin: func(s *trial.Stranger) { s.Make("blade", 12) }},
	{id: "F.2", card: "F", what: "two, three and four shades all go into twelve", told: func(t *told) (verdict, *foresee.Finding) {
		got, err := advise.LayMany(&t.Build, t.Find("blade"), advise.Many{Kind: "ring", N: 12, Radius: 38}, measure.Metric)
		return half(err == nil && strings.Contains(got.Say, "12 close the ring"), err == nil && strings.Contains(got.Say, "2, 3, 4")), nil
	}},
	{id: "F.3", card: "F", what: "this black runs under a marker", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("b1", "runs")
		return half(f != nil || t.count("runs") > 0, f != nil && t.note("b2", "runs") != nil), f
	}, twin: func(s *trial.Stranger) {
		s.Ink("b1", "outline", "black")
		s.Ink("b2", "outline", "black")
	}},
	{id: "F.4", card: "F", what: "the feelers have no ink", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("feelers", "uncoloured")
		return half(f != nil, f != nil), f
	}, twin: func(s *trial.Stranger) {
		s.Ink("b1", "feelers", "amber-3")
		s.Ink("b2", "feelers", "amber-3")
	}},
	{id: "F.5", card: "F", what: "three foams on one another: 7.4 mm, and what to lower", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "thick")
		return half(f != nil, within(f, "filled", 7.2, 7.9) && f.Mend != nil), f
	}, twin: func(s *trial.Stranger) { s.Lay("strip", 54, 122, 0) }},
	{id: "F.6", card: "F", what: "printed 10 apart, dies of 12 bite their neighbours by 2", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("blade", "bitten")
		return half(f != nil, within(f, "bite", 1.5, 2.5) && within(f, "pitch", 12.5, 15)), f
	}, twin: func(s *trial.Stranger) { s.Pitch("blade", "die", 15) }},
	{id: "F.7", card: "F", what: "the film comes off when the glue holds: 10 minutes, under a weight", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.PeelFilm, "", "")
		return half(a != nil, a != nil && a.Minutes >= 10 && strings.Contains(a.Detail, "under a weight")), nil
	}, twin: func(s *trial.Stranger) {
		for _, e := range s.Card.Elements {
			if e.Film {
				s.Do(card.Edit{Lift: &card.Lift{Elements: []string{e.ID}}})
			}
		}
	}},

	{id: "G.1", card: "G", what: "the breast stays white: the body is cut twice, or masked", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("owl", "spared")
		return half(f != nil, within(f, "cuts", 2, 2)), f
	}, twin: func(s *trial.Stranger) { s.Piece("owl", "breast piece", "ell 20x26 @0,6", "body", "white80") }},
	{id: "G.2", card: "G", what: "wet and dried of every layer", told: func(t *told) (verdict, *foresee.Finding) {
		return half(dryIsNotWet(t, "bloom L"), dryIsNotWet(t, "bloom L") && dryIsNotWet(t, "bloom M")), nil
	}, twin: func(s *trial.Stranger) { plain(s, "bloom L"); plain(s, "bloom M") }},
	{id: "G.3", card: "G", what: "eyes of 3.1 mm² are drowned by the nozzle: a dot with a pick", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("eyes", "joint", "dot")
		return half(f != nil, within(f, "area", 2.8, 3.4)), f
	}, twin: func(s *trial.Stranger) { s.Reshape("owl", "eyes", "circ 9 @-8,-12 + circ 9 @8,-12") }},
	{id: "G.4", card: "G", what: "bloom L passes its seat by 7 mm and hides it; its pads stay within", told: func(t *told) (verdict, *foresee.Finding) {
		f, g := t.note("bloom L", "seat"), t.note("bloom L", "pads")
		return half(f != nil || g != nil, within(f, "past", 6.5, 7.5)), f
	}},
	{id: "G.5", card: "G", what: "the phrase is held by nothing", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("phrase", "unheld")
		a := t.step(work.Place, "phrase", "")
		return half(f != nil || a != nil && strings.Contains(a.Detail, "not stuck"), f != nil), f
	}, twin: func(s *trial.Stranger) { s.Hold("phrase", card.Glue("liquid")); s.Lay("phrase", 54, 130, 0) }},
	{id: "G.6", card: "G", what: "the owl lies half on blooms 2.84 high: it tilts; 6.2 mm in all", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("owl", "leans", "uneven")
		return half(f != nil, (within(f, "lean", 2.5, 3.4) || within(f, "gap", 2.5, 3.0)) && t.Depth.Total >= 6.1 && t.Depth.Total <= 6.5), f
	}, twin: func(s *trial.Stranger) { s.Off("bloom L"); s.Off("bloom L 2") }},

	{id: "H.1", card: "H1", what: "the wing goes in before the phrase is stuck; 10 mm of its foam kept free", told: func(t *told) (verdict, *foresee.Finding) {
		a, wing := t.step(work.Place, "phrase", ""), t.step(work.Place, "amber moth", "")
		var deep float64
		if a != nil {
			if _, rest, ok := strings.Cut(a.Detail, "goes in beneath by "); ok {
				_, _ = fmt.Sscanf(rest, "%f mm", &deep)
			}
		}
		f := t.note("phrase", "no way in", "uneven", "step")
		return half(f != nil || deep > 0, deep >= 9 && deep <= 12 && wing != nil && strings.Contains(wing.Detail, "Slip")), f
	}, twin: func(s *trial.Stranger) {
		s.Do(card.Edit{Tucks: &card.SetTucks{Element: s.Find("amber moth"), With: s.Find("phrase"), Parts: []string{}}})
		s.Lay("amber moth", 65, 28, 0)
	}},
	{id: "H.2", card: "H1", what: "new stamps are primed", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Print, "blue moth", "1 body")
		return half(anyMinds(t, "is new"), minds(a, "is new") && minds(a, "second strike")), nil
	}, twin: func(s *trial.Stranger) {
		for i := range s.Kit.Sets {
			s.Kit.Sets[i].Fresh = false
		}
	}},
	{id: "H.3", card: "H1", what: "wet and dried of the moths' layers", told: func(t *told) (verdict, *foresee.Finding) {
		return half(dryIsNotWet(t, "blue moth"), dryIsNotWet(t, "amber moth")), nil
	}, twin: func(s *trial.Stranger) { plain(s, "blue moth"); plain(s, "amber moth") }},
	{id: "H.4", card: "H1", what: "one brush through five families is cleaned four times", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "brush")
		return half(f != nil, within(f, "washes", 4, 5)), f
	}},
	{id: "H.5", card: "H1", what: "8 settings of stamps instead of 20", told: func(t *told) (verdict, *foresee.Finding) {
		n := t.Time.Run.Setups
		return half(n <= 12, n >= 7 && n <= 9), nil
	}},
	{id: "H.6", card: "H1", what: "a rim of 1 mm by eye: 86 in 100, 7 blanks for 5", told: func(t *told) (verdict, *foresee.Finding) {
		p := t.placing("blue moth", "body die", 5)
		eye, blanks := plainly(p, "eye")
		ok := p != nil && p.Plain.Rim && eye >= 0.82 && eye <= 0.9
		return half(ok, ok && blanks >= 6 && blanks <= 8), nil
	}, twin: func(s *trial.Stranger) { s.Reshape("blue moth", "body die", "ell 18x38") }},
	{id: "H.7", card: "H1", what: "the blue moth on its blue band: only its rim is between", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("blue moth", "background")
		return half(f != nil, within(f, "apart", 0, 1)), f
	}, twin: func(s *trial.Stranger) {
		s.Treat("panel", 0, func(t *card.Treatment) {
			b := *t.Bands
			b.Bands = slices.Clone(b.Bands)
			for i := range b.Bands {
				b.Bands[i].Ink = "amber-1"
			}
			t.Bands = &b
		})
	}},
	{id: "H.8", card: "H2", what: "three tones of green want a deeper one", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("tide", "span")
		return half(f != nil, within(f, "span", 14.4, 21.6) && f.Mend != nil), f
	}, twin: func(s *trial.Stranger) {
		s.Treat("tide", 0, func(t *card.Treatment) { f := *t.Fade; f.Tones = 2; t.Fade = &f })
	}},
	{id: "H.9", card: "H1", what: "no amber shell in the stores", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("shell amber", "gems")
		return half(f != nil, within(f, "short", 1, 1) && f.Mend != nil), f
	}, twin: func(s *trial.Stranger) { s.GemsLeft("shell-amber", 3) }},
	{id: "H.10", card: "H2", what: "a shell of 5 mm in a hole of 4", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("shell", "fits")
		return half(f != nil, within(f, "over", 0.8, 1.2)), f
	}, twin: func(s *trial.Stranger) {
		size := 3.0
		s.Do(card.Edit{Gems: &card.SetGems{Element: s.Find("shell"), Size: &size}})
	}},
	{id: "H.11", card: "H2", what: "the envelope is on the list of the end", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Finish, "", "")
		return half(a != nil && t.Card.Base.Envelope != "", a != nil && t.Card.Base.Envelope != ""), nil
	}, twin: func(s *trial.Stranger) {
		none := ""
		s.Do(card.Edit{Base: &card.SetBase{Envelope: &none}})
	}},
	{id: "H.12", card: "H1", what: "the front is drawn with its shells", told: func(t *told) (verdict, *foresee.Finding) {
		drawn := slices.ContainsFunc(t.Front.Elements, func(e plan.Placed) bool { return e.ID == t.Find("shell white") && len(e.Drawn) == 1 })
		return half(drawn, drawn), nil
	}},
	{id: "H.13", card: "H1", what: "both inks of the phrase are kept, planned and used", told: func(t *told) (verdict, *foresee.Finding) {
		a, n := t.step(work.Print, "phrase", ""), 0
		for _, r := range inkfile.Recipes(t.Card, t.Kit, t.Plan, nil) {
			if strings.HasPrefix(strings.ToLower(r.Image), "phrase") {
				n++
			}
		}
		return half(n == 2, n == 2 && a != nil && strings.Contains(a.Detail, ", then ")), nil
	}, twin: func(s *trial.Stranger) {
		s.Treat("phrase", 0, func(t *card.Treatment) {
			w := *t.Words
			w.Shade = ""
			t.Words = &w
		})
	}},
	{id: "H.14", card: "H2", what: "the leaf has no second layer: ink its edge for two tones", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("leaf", "tones")
		return half(f != nil, f != nil && strings.Contains(f.Do, "Green, full over Green, soft")), f
	}, twin: func(s *trial.Stranger) { s.Tones("leaf", 0) }},
	{id: "H.15", card: "H1", what: "the curved phrase is stamped before the moths stand beside it", given: true, told: breach("panel"), twin: func(s *trial.Stranger) { s.Given = nil }},
	{id: "H.16", card: "H1", what: "a panel of 215.9 mm against a door of 152.4: two settings", told: func(t *told) (verdict, *foresee.Finding) {
		for _, f := range t.planner.Of(t.Card, t.Kit, face, door).Findings {
			if f.Rule == "door" {
				return half(true, within(&f, "over", 61, 66)), &f
			}
		}
		return no, nil
	}, twin: func(s *trial.Stranger) { s.Resize("panel", 107.95, 88.9) }},

	{id: "I.1", card: "I", what: "the panel hides most of the leaves: 13 % of the inner ones show", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("leaf", "hides", "background share")
		return half(f != nil, within(f, "share", 0.1, 0.33)), f
	}, twin: func(s *trial.Stranger) { s.Resize("panel", 63.5, 95.25) }},
	{id: "I.2", card: "I", what: "the stem of 1.4 mm is narrower than its tape, its tip bare", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("mace", "joint", "narrow tape")
		return half(f != nil, within(f, "wide", 1.2, 1.6)), f
	}},
	{id: "I.3", card: "I", what: "one strip of foam across the stem rocks, 1.1 mm of air at its ends", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("strip", "uneven", "leans")
		return half(f != nil, within(f, "bow", 1.0, 1.2) || within(f, "rise", 1.0, 1.2) || within(f, "gap", 1.0, 1.2)), f
	}, twin: func(s *trial.Stranger) {
		s.Resize("strip", 40, 12)
		s.Lay("strip", 30, 112, 0)
		s.Hold("strip", []card.Bond{{Spacer: "foam2-strip", Level: 1, Pads: []card.Pad{{W: 36, H: 6}}}})
	}},
	{id: "I.4", card: "I", what: "leaves held at the stalk catch when the panel is pressed down", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Place, "panel", "")
		return half(anyMinds(t, "held in part only"), minds(a, "glue what lies under it too") && minds(a, "leaf")), nil
	}, twin: func(s *trial.Stranger) {
		for _, e := range s.Card.Elements {
			if e.Image != nil && e.Image.Motif == s.Find("image leaf") {
				s.Do(card.Edit{Hold: &card.Hold{Element: e.ID, Bonds: card.Glue("liquid")}})
			}
		}
	}},
	{id: "I.5", card: "I", what: "five bluecard leaves on bluecard: 0.0 apart, said once", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("leaf", "one", "background")
		return half(f != nil, (within(f, "difference", 0, 1) || within(f, "apart", 0, 1)) && t.count("one")+t.count("background") == 1), f
	}, twin: func(s *trial.Stranger) {
		m, _ := s.Card.Motif(s.Find("image leaf"))
		all := map[string]string{}
		for _, e := range s.Card.Elements {
			if e.Image != nil && e.Image.Motif == m.ID {
				all[e.ID] = m.Colourways[1].ID
			}
		}
		s.Do(card.Edit{Recolour: &card.Recolour{Elements: all}})
	}},
	{id: "I.6", card: "I", what: "the whole front is drawn with its strip", told: func(t *told) (verdict, *foresee.Finding) {
		drawn := slices.ContainsFunc(t.Front.Elements, func(e plan.Placed) bool { return e.ID == t.Find("strip") && len(e.Drawn) > 0 })
		return half(drawn, drawn), nil
	}},
	{id: "I.7", card: "I", what: "four plies in the cut list, the step and the height alike", told: func(t *told) (verdict, *foresee.Finding) {
		n := t.pieces("mace", "mace")
		a := t.step(work.Plies, "mace", "")
		thick := 0.0
		for _, s := range t.Stood {
			if s.ID.Element == t.Find("mace") {
				thick = s.Thick
			}
		}
		return half(n == 4, a != nil && strings.Contains(a.Title, "4 ") && math.Abs(thick-1.12) < 0.01), nil
	}},
	{id: "I.8", card: "I", what: "the die of 3 x 4 1/4 in is not owned", first: func(s *trial.Stranger) { s.Resize("panel", 76.2, 107.95) }, told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("panel", "die lost", "die size")
		return half(f != nil, within(f, "w", 76, 76.4) && within(f, "h", 107.8, 108.1)), f
	}, twin: func(s *trial.Stranger) { s.Resize("panel", 88.9, 120.65) }},

	{id: "J.1", card: "J", what: "scene and bands take 114.3 of 101.6 mm: 12.7 too much", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("panel", "bands")
		return half(f != nil, within(f, "over", 12, 13.5)), f
	}, twin: func(s *trial.Stranger) {
		s.Treat("panel", 2, func(t *card.Treatment) {
			b := *t.Bands
			b.Bands = slices.Clone(b.Bands)
			for i := range b.Bands {
				b.Bands[i].W = 15.875
			}
			t.Bands = &b
		})
	}},
	{id: "J.2", card: "J2", what: "with the panel cut to 95.25 the base shows 12.7 mm at its foot", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("panel", "margins")
		return half(f != nil, within(f, "shows", 12, 13.5)), f
	}, twin: func(s *trial.Stranger) {
		s.Resize("panel", 133.35, 101.6)
		s.Lay("panel", 69.85, 53.975, 0)
	}},
	{id: "J.3", card: "J", what: "pencil dulls the black lines: draw them again", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("owl", "dulls")
		return half(f != nil || anyMinds(t, "draw them again"), f != nil && t.note("boat", "dulls") != nil && anyMinds(t, "draw them again")), f
	}, twin: func(s *trial.Stranger) {
		for _, of := range []string{"owl", "boat", "otter"} {
			s.Blend(of, of)
		}
	}},
	{id: "J.4", card: "J", what: "the stencil is hinged, and wiped three times for four inks", told: func(t *told) (verdict, *foresee.Finding) {
		a := t.step(work.Print, "panel", "stencil")
		hinged := a != nil && strings.Contains(a.Detail, "Hinge")
		return half(hinged, hinged && t.Time.Run.Washes >= 3 && t.Time.Run.Washes <= 4), nil
	}, twin: func(s *trial.Stranger) {
		for range 4 {
			s.Drop("panel", 3)
		}
		s.Drop("panel", 1)
	}},
	{id: "J.5", card: "J", what: "8 masks, five of them tiny; the front one first", told: func(t *told) (verdict, *foresee.Finding) {
		masks, err := t.Build.Masks(0.4)
		owl, boat := t.step(work.Print, "owl", ""), t.step(work.Print, "boat", "")
		n := 0
		for _, m := range masks {
			n += len(m.Region.Pieces())
		}
		mask, ground := t.step(work.Mask, "boat", ""), t.step(work.Blend, "panel", "fade")
		return half(err == nil && n > 0, n == 8 && before(boat, mask) && before(mask, owl) && before(mask, ground)), nil
	}, twin: func(s *trial.Stranger) {
		s.Lay("owl", 110, 18, 0)
		s.Off("signal line") // it crosses the others where the trial does not say how high it hangs
		s.Drop("panel", 1)
		s.Drop("panel", 0)
	}},

	{id: "K.1", card: "K", what: "the otter's arms and feet have no colour", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("otter", "uncoloured")
		return half(f != nil, within(f, "prints", 2, 2)), f
	}, twin: func(s *trial.Stranger) { s.Ink("otter", "arms", "m-brown-3"); s.Ink("otter", "feet", "m-brown-3") }},
	{id: "K.2", card: "K", what: "the stool is in the otter's own brown where they touch", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("stool", "background", "across")
		return half(f != nil, within(f, "apart", 0, 1)), f
	}, twin: func(s *trial.Stranger) { s.Ink("stool", "stool", "m-grey-2") }},
	{id: "K.3", card: "K", what: "8.5 mm against 6.35, and a mend that fits", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("", "thick")
		return half(f != nil && within(f, "filled", 7.9, 9.2), f != nil && f.Mend != nil), f
	}, twin: func(s *trial.Stranger) {
		for _, n := range []string{"disc", "hill 3", "otter", "lamp", "left pine", "right pine"} {
			s.Hold(n, card.Foam("foam1", 1))
		}
	}},
	{id: "K.4", card: "K", what: "the right pine is dark on the side of the lamp", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("right pine", "light")
		return half(f != nil, f != nil && t.note("left pine", "light") == nil), f
	}, twin: func(s *trial.Stranger) { s.Do(card.Edit{ShadeOther: &card.ShadeOther{Element: s.Find("right pine")}}) }},
	{id: "K.5", card: "K", what: "a trunk of 2.5 mm is too narrow for three tones", told: func(t *told) (verdict, *foresee.Finding) {
		f := t.note("trunk", "narrow blend")
		return half(f != nil, within(f, "wide", 2.3, 2.7)), f
	}},
}
