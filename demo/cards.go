package demo

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// Cards are the demo's cards.
func Cards(k kit.Kit) []card.Card {
	return []card.Card{mothCard(k), beetleCard(k), toadstoolCard(k), lanternCard(k), frameCard(k), shellCard(k)}
}

func layers(k kit.Kit, set string, make func(label string) card.Make, accents ...string) []card.Layer {
	s, _ := k.Set(set)
	var out []card.Layer
	for _, p := range s.Parts {
		l := card.Layer{ID: p.ID, Part: p.ID, Label: p.Label, Make: make(p.Label), Rank: p.Rank, Fit: p.Fit, Copies: 1, On: p.Host, Bonds: card.Glue("liquid")}
		for _, a := range accents {
			l.Accent = l.Accent || a == p.Label
		}
		out = append(out, l)
	}
	return out
}

func way(id, name string, ls []card.Layer, paper map[string]string, ink map[string]string) card.Colourway {
	w := card.Colourway{ID: id, Name: name, Layers: map[string]card.Finish{}}
	for _, l := range ls {
		f := card.Finish{Ink: ink[l.Label], Impressions: 1}
		if l.Make == card.Cut {
			f.Paper = "chalk"
			if p := paper[l.Label]; p != "" {
				f.Paper = p
			}
		}
		w.Layers[l.ID] = f
	}
	return w
}
func mothCard(k kit.Kit) card.Card {
	ls := layers(k, "hawk-moth", func(label string) card.Make {
		if label == "Eyespots" || label == "Pupils" {
			return card.Printed
		}
		return card.Cut
	}, "Eyespots", "Pupils")
	for i := range ls {
		if ls[i].Label == "Body" {
			ls[i].Bonds = card.Foam("foam-thin", 1)
		}
	}
	bracken := way("bracken", "Bracken and Madder", ls, map[string]string{"Silhouette": "flint"}, map[string]string{
		"Hind wings": "madder-full", "Hind-wing patches": "madder-pale", "Eyespots": "heather-deep", "Pupils": "soot-deep",
		"Fore wings": "bracken-soft", "Fore-wing bands": "fleece-full", "Body": "loam-full", "Body stripes": "fleece-pale"})
	m := card.Motif{ID: "moth", Name: "Hawk-moth", Set: "hawk-moth", School: card.DarkGround, Layers: ls, Colourways: []card.Colourway{bracken}}
	f := measure.Formats()[0]
	return card.Card{Version: card.Version, Title: "Lamp-sitters' thanks",
		Base:   card.Base{Format: f.ID, W: f.Size.W, H: f.Size.H, Fold: measure.FoldSide, Paper: "oat-heavy", Envelope: "a2"},
		Motifs: []card.Motif{m}, SetAside: []card.Aside{},
		Elements: []card.Element{
			mat("mat", "", measure.Inch/8, "night", "runner"),
			mat("panel", "mat", measure.Inch/16, "mist", "runner"),
			{ID: "e1", Face: card.Front, On: "panel", Place: card.Place{X: f.Size.W / 2, Y: 56}, Bonds: card.Glue("liquid"), Image: &card.Image{Motif: "moth", Colourway: "bracken"}},
			strip("e2", card.Place{X: f.Size.W / 2, Y: 115}, card.Sheet{Paper: "chalk", W: 76.2, H: 12.7}, card.Words{Text: "thank you for watching", Ink: "soot-deep", Letter: 3.4}),
		}}
}

// mat is a sheet laid by its border on another, or on the base.
func mat(id, on string, border float64, paper, glue string) card.Element {
	return card.Element{ID: id, Face: card.Front, On: on, Inset: card.Even(border), Bonds: card.Glue(glue), Sheet: &card.Sheet{Paper: paper}}
}

// strip is a strip of words on thin foam on the panel.
func strip(id string, at card.Place, s card.Sheet, w card.Words) card.Element {
	s.Treatments = []card.Treatment{{Words: &w}}
	return card.Element{ID: id, Face: card.Front, On: "panel", Place: at, Bonds: card.Foam("foam-thin", 1), Sheet: &s}
}

func beetleCard(k kit.Kit) card.Card {
	ls := layers(k, "beetle", func(string) card.Make { return card.Printed })
	m := card.Motif{ID: "beetle", Name: "Beetle", Set: "beetle", School: card.LightGround, Layers: ls}
	es := []card.Element{mat("panel", "", measure.Inch/8, "chalk", "double")}
	f := measure.Formats()[1]
	for i, c := range []struct{ id, name, line string }{{"madder", "Madder", "soot-deep"}, {"gorse", "Gorse", "loam-deep"}, {"sedge", "Sedge", "soot-deep"}, {"mere", "Mere", "soot-deep"}, {"heather", "Heather", "soot-deep"}} {
		m.Colourways = append(m.Colourways, way(c.id, c.name, ls, nil, map[string]string{
			"Step 1, wash": c.id + "-pale", "Step 2, shade": c.id + "-soft", "Step 3, spots": c.id + "-full", "Step 4, lines and legs": c.line}))
		es = append(es, card.Element{ID: fmt.Sprintf("b%d", i+1), Face: card.Front, On: "panel", Place: card.Place{X: 29.95 + float64(i)*39, Y: 36 + float64(i%2)*5, Turn: float64(i-2) * 4},
			Bonds: card.Glue("liquid"), Image: &card.Image{Motif: "beetle", Colourway: c.id}})
	}
	es = append(es, strip("s1", card.Place{X: f.Size.H / 2, Y: 75}, card.Sheet{Paper: "kraft", W: 82.55, H: 11.1}, card.Words{Text: "five for the night list", Ink: "soot-deep", Letter: 3}))
	return card.Card{Version: card.Version, Title: "Five beetles",
		Base:   card.Base{Format: f.ID, W: f.Size.H, H: f.Size.W, Fold: measure.FoldTop, Paper: "kraft", Envelope: "slimline"},
		Motifs: []card.Motif{m}, Elements: es, SetAside: []card.Aside{}}
}
