package foresee

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

func depthRules() []Rule {
	return []Rule{
		{ID: "thick", Station: Depth, Severity: Spoils, Title: "Cards too thick for a letter", Explain: "A carrier takes letters only so thick; the carrier's current rules go first.", Source: "USPS Domestic Mail Manual 101", Limits: []Limit{{"letter at most", measure.LetterMaxThickness, "mm", ""}}, check: tooThick},
		{ID: "envelope", Station: Depth, Severity: Spoils, Title: "Envelopes too small", Explain: "A raised card takes up more of its envelope than it measures.", Source: "geometry", check: tooLarge},
		{ID: "glue", Station: Depth, Severity: Shows, Title: "Glue that shows through", Explain: "Vellum and acetate show every glue that is not behind something opaque.", Source: practice, check: glueShows},
	}
}

func tooThick(v *View, add func(Hit)) {
	if v.Post.Class != measure.ClassTooThick {
		return
	}
	add(Hit{What: "Thicker than a letter may be",
		Why:     fmt.Sprintf("In its envelope it is %s, a US letter at most %s. %s is the highest. The carrier's current rules go first.", v.Write.Thin(v.Post.Filled), v.Write.Thin(v.Post.Limit), capital(v.Highest)),
		Do:      fmt.Sprintf("Take %s off: glue a foamed part flat, or use thinner foam. Or send it as a parcel.", v.Write.Thin(v.Post.Filled-v.Post.Limit)),
		Numbers: map[string]float64{"filled": v.Post.Filled, "limit": v.Post.Limit}, Facts: []string{v.Highest}})
}

func tooLarge(v *View, add func(Hit)) {
	if v.Post.Envelope == "" || v.Post.Fits {
		return
	}
	b := v.Card.Base
	add(Hit{What: "The envelope is too small",
		Why: fmt.Sprintf("The card is %s × %s and %s thick; wrapped round, it takes up %s × %s of the inside.", v.Format(b.W), v.Format(b.H), v.Write.Thin(v.Total), v.Format(v.Post.NeedsW), v.Format(v.Post.NeedsH)),
		Do:  "Choose a larger envelope in Front, or make the card flatter.", Numbers: map[string]float64{"total": v.Total, "needsW": v.Post.NeedsW, "needsH": v.Post.NeedsH}, Facts: []string{b.Envelope}})
}

// glueShows notes what is see-through and held by a glue that shows.
func glueShows(v *View, add func(Hit)) {
	shows := func(bonds []card.Bond) (*kit.Adhesive, bool) {
		if len(bonds) == 0 || bonds[0].Raised() {
			return nil, false
		}
		a, ok := v.Stock.Adhesive(bonds[0].Adhesive)
		return a, ok && a.Shows
	}
	clear := func(paper string) bool { p, ok := v.Stock.Paper(paper); return ok && !p.Opaque() }
	hit := func(h Hit, what string, a *kit.Adhesive) {
		h.What = fmt.Sprintf("%s will show through %s", a.Name, what)
		h.Why = "What it holds is see-through, and this glue is seen behind it."
		h.Do = "Take one that does not show, glue only behind something opaque, or back it with a second cut."
		h.Facts = []string{a.ID}
		add(h)
	}
	for i, e := range v.Card.Elements {
		if a, yes := shows(e.Bonds); yes && e.Sheet != nil && clear(e.Sheet.Paper) {
			hit(Hit{Key: []string{e.ID}, At: At{Element: e.ID}}, v.Build.Things[i].Name, a)
		}
	}
	images(func(v *View, m *Image, _ func(Hit)) {
		for _, l := range m.Layers {
			a, yes := shows(l.Bonds)
			for _, w := range m.Colourways {
				if yes && l.Make == card.Cut && m.used[w.ID] && clear(w.Layers[l.ID].Paper) {
					hit(Hit{Key: []string{m.ID, w.ID, l.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: l.ID}}, l.Label, a)
				}
			}
		}
	})(v, add)
}
