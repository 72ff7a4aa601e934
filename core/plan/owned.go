package plan

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/card"
)

// onCard tells which colourways of an image are on the card, on its own or in a
// pattern. An image that is not placed anywhere has all of them looked at.
func (b *builder) onCard(m card.Motif) map[string]bool {
	used := map[string]bool{}
	for _, e := range b.card.Elements {
		if e.Motif == m.ID {
			used[e.Colourway] = true
		}
	}
	for _, p := range b.card.Patterns {
		if p.Motif == m.ID {
			for _, w := range p.Colourways {
				used[w] = true
			}
		}
	}
	if len(used) == 0 {
		for _, w := range m.Colourways {
			used[w.ID] = true
		}
	}
	return used
}

// bare notes, once, a colourway in which nothing was chosen yet: no layer has an ink
// and all are cut from one card. It reports whether that is so.
func (b *builder) bare(m card.Motif, w card.Colourway) bool {
	papers := map[string]bool{}
	for _, l := range m.Layers {
		f := w.Layers[l.ID]
		if f.Ink != "" || len(f.Blends) > 0 {
			return false
		}
		if l.Make == card.Cut {
			papers[f.Paper] = true
		}
	}
	if len(m.Layers) < 2 || len(papers) > 1 {
		return false
	}
	b.add(Finding{ID: fmt.Sprintf("noink:%s:%s", m.ID, w.ID), Station: "inks", Severity: Tip, Motif: m.ID, Colourway: w.ID,
		What: fmt.Sprintf("No layer of %s has an ink yet", m.Name), Why: "Until they have, all of it dries the colour of its card.",
		Do: "Press Suggest inks, or choose one for each layer. Leave it so if plain card is what you want."})
	return true
}

// owned notes what a colourway uses that the stores no longer hold: inks that are
// empty, papers without a sheet, parts that are lost. One note for each kind.
func (b *builder) owned(pm *Motif, m card.Motif, w card.Colourway) {
	var inks, papers, parts []string
	put := func(list *[]string, name string) {
		if name != "" && !slices.Contains(*list, name) {
			*list = append(*list, name)
		}
	}
	for _, v := range pm.img.Shapes.Views {
		f := w.Layers[v.Layer.ID]
		used := []string{f.Ink, f.Edge, f.Back}
		for _, bl := range f.Blends {
			used = append(used, bl.Ink)
		}
		for _, id := range used {
			if i, ok := b.kit.Ink(id); ok && i.Gone {
				put(&inks, i.Name)
			}
		}
		if p, ok := b.kit.Paper(f.Paper); ok && v.Layer.Make == card.Cut && p.Sheets == 0 {
			put(&papers, p.Name)
		}
		if v.Part.Missing {
			put(&parts, v.Layer.Label)
		}
	}
	note := func(id, what, why, do string, names []string) {
		if len(names) == 0 {
			return
		}
		is := "is"
		if len(names) > 1 {
			is = "are"
		}
		b.add(Finding{ID: fmt.Sprintf("%s:%s:%s", id, m.ID, w.ID), Station: "stores", Severity: Spoils, Motif: m.ID, Colourway: w.ID,
			What: fmt.Sprintf(what, listed(names), is), Why: why, Do: do}, names...)
	}
	note("gone", "%s %s marked empty", "The card uses it, and the stores say that there is none left.", "Choose another ink, or take the mark off in the stores when you have it again.", inks)
	note("out", "There is no sheet of %[1]s left", "The card is cut from it, and the stores count none.", "Choose another paper, or count your sheets in the stores.", papers)
	note("lost", "%s %s marked missing in its set", "The card needs it, and it was lost or never in the pack.", "Trace it from the part above or below it, leave the layer out, or take the mark off when it turns up.", parts)
}

// listed joins names as a sentence does.
func listed(names []string) string {
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return names[0]
}

// carries tells whether a cut layer is bare card that prints lie on: its rim is meant
// to show as card, white on white too.
func (b *builder) carries(pm *Motif, w card.Colourway, layer string) bool {
	for i, v := range pm.img.Shapes.Views {
		if v.Layer.ID != layer {
			continue
		}
		f := w.Layers[layer]
		if v.Layer.Make != card.Cut || f.Ink != "" || len(f.Blends) > 0 {
			return false
		}
		for _, o := range pm.img.Shapes.Views {
			if o.Host == i && o.Layer.Make != card.Cut && w.Layers[o.Layer.ID].Ink != "" {
				return true
			}
		}
	}
	return false
}
