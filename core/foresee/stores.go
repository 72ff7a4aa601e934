package foresee

import (
	"fmt"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/words"
)

// chooseOwned is what is done about something that is not in the stores.
const chooseOwned = "Choose one you own."

func storeRules() []Rule {
	return []Rule{
		{ID: "missing", Station: Inks, Severity: Spoils, Source: "the stores", check: colourways(missing)},
		{ID: "gone", Station: Stores, Severity: Spoils, Source: "the stores", check: colourways(gone)},
		{ID: "out", Station: Stores, Severity: Spoils, Source: "the stores", check: colourways(outOfPaper)},
		{ID: "lost", Station: Stores, Severity: Spoils, Source: "the stores", check: colourways(lost)},
		{ID: "away", Station: Stores, Severity: Spoils, Source: "the stores", check: away},
		{ID: "bleeds", Station: Inks, Severity: Shows, Source: practice, check: colourways(bleeds)},
	}
}

func missing(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Colourways[wi]
	for li, l := range m.Looks[wi].Layers {
		f, label := w.Layers[l.ID], m.Shapes.Views[li].Layer.Label
		at := At{Motif: m.ID, Colourway: w.ID, Layer: l.ID}
		if l.Missing != "" {
			add(Hit{Key: []string{m.ID, w.ID, l.ID}, At: at, What: fmt.Sprintf("%s has no %s", label, l.Missing), Why: "Plain white stands in for it until one of the stores is chosen.",
				Do: chooseOwned, Facts: []string{l.Missing, f.Ink, f.Paper}})
		}
		for n, bl := range l.Blends {
			if bl.Missing {
				add(Hit{Key: []string{m.ID, w.ID, l.ID, fmt.Sprint(n)}, At: at, What: fmt.Sprintf("%s has no ink for its %s", label, bl.Zone), Why: "What it names is not in the stores.",
					Do: chooseOwned, Facts: []string{f.Blends[n].Ink}})
			}
		}
	}
}

// short is one note for all things of a kind that a colourway lacks.
func short(m *Image, wi int, names []string, what, why, do string, add func(Hit)) {
	if len(names) == 0 {
		return
	}
	is := "is"
	if len(names) > 1 {
		is = "are"
	}
	w := m.Colourways[wi]
	add(Hit{Key: []string{m.ID, w.ID}, At: At{Motif: m.ID, Colourway: w.ID}, What: fmt.Sprintf(what, words.Listed(names), is), Why: why, Do: do, Facts: names})
}

// inksIn lists the inks a colourway uses that are so, by name.
func (v *View) inksIn(m *Image, wi int, is func(layer card.Layer, ink string) bool) (out []string) {
	for _, view := range m.Shapes.Views {
		f := m.Colourways[wi].Layers[view.Layer.ID]
		used := []string{f.Ink, f.Edge, f.Back}
		for _, bl := range f.Blends {
			used = append(used, bl.Ink)
		}
		for _, id := range used {
			if i, ok := v.Stock.Ink(id); ok && is(view.Layer, id) && !slices.Contains(out, i.Name) {
				out = append(out, i.Name)
			}
		}
	}
	return out
}

func gone(v *View, m *Image, wi int, add func(Hit)) {
	names := v.inksIn(m, wi, func(_ card.Layer, id string) bool { i, _ := v.Stock.Ink(id); return i.Gone && !i.Away })
	short(m, wi, names, "%s %s marked empty", "The card uses it, and the stores say that there is none left.", "Choose another ink, or take the mark off in the stores when you have it again.", add)
}

func outOfPaper(v *View, m *Image, wi int, add func(Hit)) {
	var names []string
	for _, l := range m.Layers {
		if p, ok := v.Stock.Paper(m.Colourways[wi].Layers[l.ID].Paper); ok && l.Make == card.Cut && p.Sheets == 0 && !p.Away && !slices.Contains(names, p.Name) && v.lacks(p.ID) {
			names = append(names, p.Name)
		}
	}
	short(m, wi, names, "There is no sheet of %[1]s left", "The card is cut from it, and the stores count none.", "Choose another paper, or count your sheets in the stores.", add)
}

// lacks reports whether the card, as it is made, takes more of a cardstock than there is.
func (v *View) lacks(stock string) bool { return v.Sheets == nil || v.short(stock, v.Card.Run()) }

func lost(v *View, m *Image, wi int, add func(Hit)) {
	var names []string
	for _, view := range m.Shapes.Views {
		if view.Part.Missing {
			names = append(names, view.Layer.Label)
		}
	}
	short(m, wi, names, "%s %s marked missing in its set", "The card needs it, and it was lost or never in the pack.", "Trace it from the part above or below it, leave the layer out, or take the mark off when it turns up.", add)
}

// bleeds notes inks that go through where nothing opaque lies behind: prints straight on
// the front leaf of a card without a panel, whose other side is the inside.
func bleeds(v *View, m *Image, wi int, add func(Hit)) {
	on := false
	for _, t := range v.Build.Things {
		if e := t.Element; e.Image != nil && e.Image.Motif == m.ID && e.Image.Colourway == m.Colourways[wi].ID && t.Printed && e.Face == card.Front && v.Build.Carrier(e).Element == "" {
			on = true
		}
	}
	if !on {
		return
	}
	names := v.inksIn(m, wi, func(l card.Layer, id string) bool { i, _ := v.Stock.Ink(id); return i.Bleeds && l.Make != card.Cut })
	short(m, wi, names, "%[1]s will show inside the card", "It goes through the card, and it is printed on the front leaf itself.", "Print it on a panel, or cover the inside with a sheet.", add)
}

// away notes every thing of the stores that the card uses and that is not there any more: kept for
// this card where it was taken out, stood in for where nothing is known of it. Inks and papers of
// layers that were never there are noted with their layers.
func away(v *View, add func(Hit)) {
	type gone struct {
		card.Use
		name   string
		kept   bool
		places []string
	}
	var all []*gone
	for _, u := range v.Card.Uses() {
		name, away, ok := v.Stock.Item(u.Kind, u.ID)
		if ok && !away || !ok && (u.Motif != "" || u.Kind == kit.KindEnvelope) {
			continue
		}
		if !ok && u.Kind == kit.KindAdhesive || (u.Kind == kit.KindSpacer || u.Kind == kit.KindGem) && !ok {
			continue // what holds a part is noted where it stands, a backing is of one sort or the other
		}
		if !v.onFace(u) {
			continue
		}
		i := slices.IndexFunc(all, func(g *gone) bool { return g.Kind == u.Kind && g.ID == u.ID })
		if i < 0 {
			i = len(all)
			all = append(all, &gone{Use: u, name: name, kept: ok})
		}
		if at := v.whereUsed(u); !slices.Contains(all[i].places, at) {
			all[i].places = append(all[i].places, at)
		}
	}
	what := map[kit.Kind]string{kit.KindPaper: "card", kit.KindInk: "ink", kit.KindSet: "set", kit.KindSpacer: "foam", kit.KindAdhesive: "glue", kit.KindEnvelope: "envelope", kit.KindGem: "gems"}
	for _, g := range all {
		h := Hit{Key: []string{string(g.Kind), g.ID}, At: At{Element: g.Element, Motif: g.Motif, Layer: g.Layer}, Facts: []string{g.ID}, Numbers: map[string]float64{"places": float64(len(g.places))},
			What: fmt.Sprintf("%s is no longer in the stores", g.name),
			Why:  fmt.Sprintf("Used for %s. The card is planned with it as it was.", words.Listed(g.places)),
			Do:   "Put it back into the stores if you have it again, or choose another."}
		if !g.kept {
			h.What = fmt.Sprintf("The %s of %s is not in the stores", what[g.Kind], words.Listed(g.places))
			h.Why = "Nothing is known of it, so plain white stands in for card, and nothing is laid for ink."
			h.Do = chooseOwned
		}
		add(h)
	}
}

// onFace reports whether what uses a thing is on the card at all: an image that is placed nowhere
// and a colourway that is not on the card need nothing.
func (v *View) onFace(u card.Use) bool {
	if u.Motif == "" {
		return true
	}
	ways := v.Card.Ways(u.Motif)
	return len(ways) > 0 && (u.Colourway == "" || slices.Contains(ways, u.Colourway))
}

// whereUsed is what a person calls the place of a use.
func (v *View) whereUsed(u card.Use) string {
	switch {
	case u.Motif != "":
		m, _ := v.Card.Motif(u.Motif)
		for _, l := range m.Layers {
			if l.ID == u.Layer {
				return m.Name + ", " + l.Label
			}
		}
		return m.Name
	case u.Element != "":
		e, _ := v.Card.Element(u.Element)
		return build.Name(v.Card, e)
	}
	return "the card base"
}
