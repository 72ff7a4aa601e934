package demo

import (
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"slices"
)

// only are the layers of a set with some labels, in the order of the set.
func only(ls []card.Layer, labels ...string) (out []card.Layer) {
	for _, l := range ls {
		for _, want := range labels {
			if l.Label == want {
				out = append(out, l)
			}
		}
	}
	have := map[string]bool{}
	for _, l := range out {
		have[l.ID] = true
	}
	for i := range out {
		if !have[out[i].On] {
			out[i].On = ""
		}
	}
	return out
}

func cutAll(string) card.Make { return card.Cut }

func base(title string, f measure.CardFormat, paper, envelope string, fold measure.Fold) card.Card {
	return card.Card{Version: card.Version, Title: title, SetAside: []card.Aside{},
		Base: card.Base{Format: f.ID, W: f.Size.W, H: f.Size.H, Fold: fold, Paper: paper, Envelope: envelope}}
}

// toadstoolCard is a square card whose panel was turned under the stamps: eight strikes of
// each, in two colourways by turns.
func toadstoolCard(k kit.Kit) card.Card {
	ls := layers(k, "toadstool", func(string) card.Make { return card.Printed })
	inks := func(cap, deep string) map[string]string {
		return map[string]string{"Step 1, stem": "fleece-soft", "Step 2, cap": cap, "Step 3, shade": deep, "Step 4, lines and grass": "loam-deep"}
	}
	m := card.Motif{ID: "toadstool", Name: "Toadstool", Set: "toadstool", School: card.LocalColour, Layers: ls,
		Colourways: []card.Colourway{way("madder", "Madder", ls, nil, inks("madder-full", "madder-deep")), way("ember", "Ember", ls, nil, inks("ember-soft", "ember-full"))}}
	f := measure.Formats()[3]
	c := base("Ring of toadstools", f, "moss", "square5", measure.FoldTop)
	c.Motifs = []card.Motif{m}
	panel := mat("panel", "", measure.Inch/8, "chalk", "double")
	panel.Sheet.Trim = measure.Inch / 8
	panel.Sheet.Treatments = []card.Treatment{
		{Fade: &card.Fade{From: card.FromMiddle, Inks: []string{"sedge-pale", "lichen-pale"}, Reach: 62}},
		{Turned: &card.Turned{Motif: "toadstool", Colourways: []string{"madder", "ember"}, Turns: 8, Start: 1, Y: -38}},
	}
	c.Elements = []card.Element{panel,
		{ID: "disc", Name: "Label", Face: card.Front, On: "panel", Place: card.Place{X: f.Size.W / 2, Y: f.Size.H / 2}, Bonds: card.Foam("foam-thin", 1),
			Sheet: &card.Sheet{Paper: "oat", W: 36, H: 36, Shape: &card.Outline{Kind: card.Scalloped, Pitch: 4.4, Depth: 1.2}, Treatments: []card.Treatment{
				{Edged: &card.Edged{Ink: "sedge-full", W: 1.6}},
				{Words: &card.Words{Text: "thank", Ink: "soot-deep", Letter: 4.2, Spot: card.Spot{Y: -4.6}}},
				{Words: &card.Words{Text: "you", Ink: "soot-deep", Letter: 4.2, Spot: card.Spot{Y: 4.4}}},
			}}}}
	return c
}

// lanternCard looks through the glass of a lantern at a flame, behind a leaf of vellum.
func lanternCard(k kit.Kit) card.Card {
	all := layers(k, "lantern", cutAll)
	lamp, flame := only(all, "Lantern", "Roof", "Foot"), only(all, "Flame", "Heart of the flame")
	glass := ""
	for _, l := range all {
		if l.Label == "Glass" {
			glass = l.Part
		}
	}
	f := measure.Formats()[0]
	c := base("Come to the light", f, "oat-heavy", "a2", measure.FoldTop)
	c.Motifs = []card.Motif{
		{ID: "lantern", Name: "Lantern", Set: "lantern", School: card.DarkGround, Layers: lamp, Colourways: []card.Colourway{
			way("peat", "Peat and kraft", lamp, map[string]string{"Lantern": "peat", "Roof": "kraft", "Foot": "kraft"}, nil)}},
		{ID: "flame", Name: "Flame", Set: "lantern", School: card.DarkGround, Layers: flame, Colourways: []card.Colourway{
			way("gorse", "Gorse", flame, nil, map[string]string{"Flame": "ember-full", "Heart of the flame": "gorse-pale"})}},
	}
	at := card.Place{X: f.Size.W / 2, Y: 68}
	window := card.Place{X: f.Size.W / 2, Y: f.Size.H / 2}
	glow := mat("glow", "", measure.Inch/8, "chalk", "double")
	glow.Name = "Glow panel"
	glow.Sheet.Treatments = []card.Treatment{{Fade: &card.Fade{From: card.FromSpot, Inks: []string{"gorse-soft", "gorse-pale"}, Reach: 44, Spot: card.Spot{Y: 8}}}}
	c.Elements = []card.Element{glow,
		{ID: "fire", Face: card.Front, On: "glow", Place: card.Place{X: at.X, Y: at.Y + 9}, Bonds: card.Glue("liquid"), Image: &card.Image{Motif: "flame", Colourway: "gorse"}},
		{ID: "window", Name: "Window panel", Face: card.Front, On: "glow", Place: window, Bonds: card.Foam("scrap", 1), Sheet: &card.Sheet{
			Paper: "night", W: 4 * measure.Inch, H: 5.25 * measure.Inch, Openings: []card.Opening{{Outline: card.Outline{Kind: card.DiePart, Set: "lantern", Part: glass}, W: 30, H: 36, Y: 6.9}},
			Treatments: []card.Treatment{{Splash: &card.Splash{Ink: "fleece-pale", Drops: 46, Size: 0.7}}}}},
		{ID: "lamp", Face: card.Front, On: "window", Place: at, Bonds: card.Glue("liquid"), Image: &card.Image{Motif: "lantern", Colourway: "peat"}},
		{ID: "leaf", Name: "Vellum leaf", Face: card.Front, Place: window, Sheet: &card.Sheet{Paper: "vellum", W: f.Size.W, H: f.Size.H, Flap: &card.Flap{Side: card.TopSide, Depth: measure.Inch / 2},
			Treatments: []card.Treatment{{Words: &card.Words{Text: "come to the light", Ink: "clear-emboss", Letter: 5, Emboss: true, Spot: card.Spot{Y: 56}}}}}},
	}
	return c
}

// frameCard is a moth that breaks out of its frame over a word stacked three times.
func frameCard(k kit.Kit) card.Card {
	c := mothCard(k)
	c.Title = "Moth night"
	c.Base.Paper = "chalk-heavy"
	moth := c.Motifs[0]
	dusk := way("dusk", "Heather and Dusk", moth.Layers, map[string]string{"Silhouette": "night"}, map[string]string{
		"Hind wings": "heather-full", "Hind-wing patches": "heather-pale", "Eyespots": "dusk-deep", "Pupils": "soot-deep",
		"Fore wings": "dusk-soft", "Fore-wing bands": "fleece-pale", "Body": "loam-full", "Body stripes": "fleece-pale"})
	moth.Colourways = []card.Colourway{dusk}
	c.Motifs = []card.Motif{moth}
	fore := ""
	for _, l := range moth.Layers {
		if l.Label == "Fore wings" {
			fore = l.ID // they and what lies on them break out over the frame
		}
	}
	panel := mat("panel", "", measure.Inch/8, "chalk", "runner")
	panel.Sheet.Treatments = []card.Treatment{{Fade: &card.Fade{From: card.FromTop, Inks: []string{"dusk-soft", "heather-pale", "gorse-pale"}, Reach: 128}}}
	w := c.Base.W
	c.Elements = []card.Element{panel,
		{ID: "word", Face: card.Front, On: "panel", Place: card.Place{X: w / 2, Y: 113}, Bonds: card.Glue("liquid"),
			Letters: &card.Letters{Text: "night", Size: 20, Fit: 74, Gap: 1.2, Paper: "night", Plies: 3, Shadow: &card.Shadow{Paper: "chalk", By: 1.4}}},
		{ID: "m1", Face: card.Front, On: "panel", Place: card.Place{X: w / 2, Y: 62}, Bonds: card.Glue("liquid"), Tucks: []card.Tuck{{Part: fore, With: "frame"}},
			Image: &card.Image{Motif: "moth", Colourway: "dusk"}},
		{ID: "frame", Name: "Frame", Face: card.Front, On: "panel", Place: card.Place{X: w / 2, Y: 52}, Bonds: []card.Bond{{Shims: []card.Shim{{Paper: "water", N: 2}}}}, Sheet: &card.Sheet{Paper: "chalk", W: 66, H: 72,
			Shape: &card.Outline{Kind: card.Rectangle, Pitch: 3}, Openings: []card.Opening{{Outline: card.Outline{Kind: card.Rectangle}, W: 54, H: 60}}}},
	}
	return c
}

// shellCard is a drift of shells in two layers, trimmed at the edges and bound with a cord.
func shellCard(k kit.Kit) card.Card {
	f := measure.Formats()[0]
	c := base("From the coast night", f, "mist", "a2", measure.FoldSide)
	c.Base.Paper = "kraft"
	type shade struct{ id, name, paper, ink string }
	sorts := []struct {
		id, name, upper string
		shades          []shade
	}{
		{"fan-shell", "Fan shell", "Ribs", []shade{{"sand", "Sand", "rosehip", "fleece-soft"}, {"dusk", "Dusk", "night", "dusk-soft"}}},
		{"whelk", "Whelk", "Whorls", []shade{{"loam", "Loam", "peat", "fleece-soft"}, {"sand", "Sand", "rosehip", "fleece-pale"}}},
		{"cockle", "Cockle", "Ribs", []shade{{"heather", "Heather", "flint", "heather-pale"}, {"mere", "Mere", "moss", "mere-pale"}}},
	}
	for _, s := range sorts {
		ls := layers(k, s.id, cutAll)
		m := card.Motif{ID: s.id, Name: s.name, Set: s.id, School: card.DarkGround, Layers: ls}
		for _, w := range s.shades {
			m.Colourways = append(m.Colourways, way(w.id, w.name, ls, map[string]string{"Shell": w.paper}, map[string]string{s.upper: w.ink}))
		}
		c.Motifs = append(c.Motifs, m)
	}
	panel := mat("panel", "", measure.Inch/8, "oat", "double")
	panel.Sheet.Treatments = []card.Treatment{
		{Fade: &card.Fade{From: card.FromTop, Inks: []string{"mere-soft", "mere-pale"}, Reach: 88}},
		{Splash: &card.Splash{Drops: 34, Size: 1.3, Dwell: 45}},
	}
	c.Elements = []card.Element{panel}
	for _, p := range []struct {
		motif, way string
		at         card.Place
	}{
		{"fan-shell", "sand", card.Place{X: 14, Y: 88, Turn: -38}},
		{"fan-shell", "sand", card.Place{X: 93, Y: 123, Turn: 24}},
		{"whelk", "loam", card.Place{X: 42, Y: 104, Turn: 62}},
		{"whelk", "sand", card.Place{X: 68, Y: 117, Turn: -28}},
		{"cockle", "mere", card.Place{X: 22, Y: 118, Turn: 18}},
		{"fan-shell", "dusk", card.Place{X: 48, Y: 131, Turn: -6}},
		{"cockle", "heather", card.Place{X: 67, Y: 92, Turn: -20}},
		{"cockle", "mere", card.Place{X: 92, Y: 99, Turn: 34}},
		{"cockle", "heather", card.Place{X: 9, Y: 133, Turn: -14}},
	} {
		c.Elements = append(c.Elements, card.Element{ID: "s" + string(rune('0'+len(c.Elements))), Face: card.Front, On: "panel", Place: p.at, Flush: true, Bonds: card.Glue("liquid"),
			Image: &card.Image{Motif: p.motif, Colourway: p.way}})
	}
	// Two lie half on their neighbours: with foam beneath their low ends they lie level.
	for id, foam := range map[string]string{"s6": "foam", "s9": "foam-tape"} {
		e, _ := c.Element(id)
		e.Bonds = append(card.Glue("liquid"), card.Foam(foam, 1)...)
		c.Elements[slices.IndexFunc(c.Elements, func(o card.Element) bool { return o.ID == id })] = e
	}
	c.Elements = append(c.Elements,
		card.Element{ID: "cord", Face: card.Front, On: "panel", Place: card.Place{X: f.Size.W / 2, Y: 62}, Bonds: card.Glue("liquid"),
			Ribbon: &card.Ribbon{W: 1.6, Thick: 1, Colour: "#b9975b", Wrapped: true, Tied: card.Bow, At: 0.3, Points: []card.Offset{{X: -60}, {X: 60}}}},
		card.Element{ID: "words", Face: card.Front, On: "panel", Place: card.Place{X: f.Size.W / 2, Y: 34}, Bonds: card.Foam("foam-thin", 1), Sheet: &card.Sheet{Paper: "chalk", W: 70, H: 13,
			Shape: &card.Outline{Kind: card.Fishtail}, Treatments: []card.Treatment{{Words: &card.Words{Text: "with thanks", Ink: "mere-deep", Letter: 4.6}}}}})
	return c
}
