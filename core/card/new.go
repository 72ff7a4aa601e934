package card

import (
	"fmt"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// New returns an empty card of a known format with one panel, bordered by an
// eighth of an inch, on papers the person owns where there are any.
func New(title string, f measure.CardFormat, fold measure.Fold, k kit.Kit) Card {
	base, panel, envelope := "", "", ""
	for _, p := range k.Papers {
		if p.Kind != kit.PaperCard {
			continue
		}
		if panel == "" {
			panel = p.ID
		}
		if base == "" && p.GSM >= 280 {
			base = p.ID
		}
	}
	if base == "" {
		base = panel
	}
	for _, e := range k.Envelopes {
		if e.Size().Fits(f.Size, 1) {
			envelope = e.ID
			break
		}
	}
	w, h := f.Size.W, f.Size.H
	if onItsSide(f) {
		w, h = h, w
	}
	return Card{Version: Version, Title: title,
		Base:   Base{Format: f.ID, W: w, H: h, Fold: fold, Paper: base, Envelope: envelope},
		Motifs: []Motif{}, SetAside: []Aside{},
		Elements: []Element{{ID: "panel", Face: Front, Inset: Even(measure.Inch / 8), Bonds: Glue(""), Sheet: &Sheet{Paper: panel}}}}
}

// AddSet returns the card with an image made from all parts of a set, in one
// plain colourway, put in the middle of the front. Parts of dies and words are
// cut, those of stamps printed, those of stencils stencilled.
func (c Card) AddSet(s kit.Set, k kit.Kit) Card {
	paper := firstCard(k, "")
	m := Motif{ID: c.fresh("m"), Name: s.Name, Set: s.ID, School: DarkGround}
	kind, ok := makes[s.Kind]
	if !ok {
		kind = Cut
	}
	if kind != Cut {
		m.School = LightGround
	}
	w := Colourway{ID: "w1", Name: "First", Layers: map[string]Finish{}}
	for _, p := range s.Parts {
		l := Layer{ID: p.ID, Part: p.ID, Label: p.Label, Make: kind, On: p.Host, Rank: max(1, p.Rank), Fit: p.Fit, Copies: 1, Bonds: Glue(firstGlue(k))}
		f := Finish{Impressions: 1}
		if kind == Cut {
			f.Paper = paper
		}
		m.Layers = append(m.Layers, l)
		w.Layers[l.ID] = f
	}
	m.Colourways = []Colourway{w}
	c.Motifs = append(append([]Motif{}, c.Motifs...), m)
	on, _ := c.Panel()
	c.Elements = append(append([]Element{}, c.Elements...), Element{ID: c.fresh("e"), Face: Front, On: on, Place: Place{X: c.Base.W / 2, Y: c.Base.H / 2},
		Bonds: Glue(firstGlue(k)), Image: &Image{Motif: m.ID, Colourway: w.ID}})
	return c
}

// makes is how the parts of a set come onto a card.
var makes = map[kit.SetKind]Make{kit.DieSet: Cut, kit.WordSet: Cut, kit.StampSet: Printed, kit.StencilSet: Stencilled}

// freshName is a name like the one given that no thing of the card has: Band, Band 2.
func (c Card) freshName(name string) string {
	return unlike(name, func(s string) bool {
		return slices.ContainsFunc(c.Elements, func(e Element) bool { return e.Name == s })
	})
}

// unlike is the name itself, or with the first number after it under which nothing is known.
func unlike(name string, taken func(string) bool) string {
	for out, n := name, 2; ; n++ {
		if !taken(out) {
			return out
		}
		out = fmt.Sprintf("%s %d", name, n)
	}
}

// fresh returns an id beginning with prefix that nothing on the card has.
func (c Card) fresh(prefix string) string {
	used := map[string]bool{}
	for _, m := range c.Motifs {
		used[m.ID] = true
	}
	for _, e := range c.Elements {
		used[e.ID] = true
	}
	for i := 1; ; i++ {
		if id := fmt.Sprintf("%s%d", prefix, i); !used[id] {
			return id
		}
	}
}

// onItsSide reports whether cards of a format are mostly used lying on their long
// side.
func onItsSide(f measure.CardFormat) bool { return f.ID == "slimline" || f.ID == "dl" }
