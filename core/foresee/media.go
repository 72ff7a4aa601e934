package foresee

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
)

func mediaRules() []Rule {
	return []Rule{
		{ID: "runs", Station: Inks, Severity: Spoils, Source: practice,
			Limits: []Limit{{"a line is narrower than", lineBroad, "mm", ""}, {"a marker keeps clear by", clearOfLine, "mm", ""}}, check: inked(runs)},
		{ID: "dulls", Station: Inks, Severity: Shows, Source: practice, check: inked(dulls)},
		{ID: "smears", Station: Inks, Severity: Spoils, Source: practice, check: inked(smears)},
	}
}

// blackish is the L* below which a line is black or nearly; our own default.
const blackish = 35.0

// beneathIt calls f with every ink that lies under a layer and that is printed there, and
// the layer it is of, down to the card.
func (v *View) beneathIt(m *Image, wi, layer int, f func(of card.Layer, ink *kit.Ink)) {
	w := m.Colourways[wi]
	views := m.Shapes.Views
	for h := views[layer].Host; h != motif.Ground; h = views[h].Host {
		l := views[h].Layer
		if i, ok := v.Stock.Ink(w.Layers[l.ID].Ink); ok && l.Make != card.Cut {
			f(l, i)
		}
		if l.Make == card.Cut {
			return
		}
	}
}

// waterproof reports whether a print stands water.
func waterproof(i *kit.Ink) bool {
	if i.Water {
		return false
	}
	return !slices.Contains([]kit.InkKind{kit.Dye, kit.Hybrid, kit.Watercolor}, i.Kind)
}

// Where markers take lines along: our own defaults, mm.
const (
	lineBroad   = 2.0 // what is broader is no line
	clearOfLine = 0.5 // a tip that comes nearer to a line touches it
)

// marked notes dye lines, and dye that is as good as black, that a marker comes upon: its alcohol
// takes them along wherever it touches them, over them or beside them. Pigment and waterproof inks
// stand.
// What a stamp laid of the layer itself, where it did, is among them.
func marked(v *View, m *Image, wi, layer int, ink, struck *kit.Ink, add func(Hit)) {
	w := m.Colourways[wi]
	views := m.Shapes.Views
	for i := range layer + 1 {
		l := views[i].Layer
		if i == layer && struck == nil {
			continue
		}
		under, ok := v.Stock.Ink(w.Layers[l.ID].Ink)
		if !ok || under.Kind != kit.Dye || l.Make == card.Cut || build.Leaf(m.Shapes, i) != build.Leaf(m.Shapes, layer) {
			continue
		}
		g := views[i].Outline
		tone, known := under.Shade()
		if !(known && tone.L < blackish) && 2*g.Area() > lineBroad*g.Length() {
			continue
		}
		if !g.Overlaps(views[layer].Outline) && !g.Nearer(views[layer].Outline, clearOfLine) {
			continue
		}
		h := Hit{Key: []string{m.ID, w.ID, views[layer].Layer.ID, l.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: l.ID},
			What: fmt.Sprintf("%s will run into %s", l.Label, handling(views[layer].Layer, l, ink)), Why: fmt.Sprintf("%s is a marker, and its alcohol takes %s along, which is a dye.", ink.Name, under.Name),
			Do: "Print the lines in a pigment or waterproof ink, or keep the tip off them.", Facts: []string{ink.ID, under.ID}}
		if stands := v.standing(under); stands != "" {
			h.Mend = v.useInk(m, wi, l.ID, stands)
		}
		add(h)
	}
}

// asBlack is how far, CIEDE2000, an ink may lie from another to stand in for it as a line.
const asBlack = 10.0

// standing is the ink of the stores that comes nearest to one and stands a marker; empty where
// none comes near.
func (v *View) standing(like *kit.Ink) (id string) {
	tone, known := like.Shade()
	if !known {
		return ""
	}
	best := asBlack
	for i := range v.Stock.Inks {
		o := &v.Stock.Inks[i]
		if o.Gone || o.Away || o.Kind != kit.Pigment && o.Kind != kit.Waterproof {
			continue
		}
		if t, ok := o.Shade(); ok {
			if d := colour.Difference(tone, t); d < best {
				best, id = d, o.ID
			}
		}
	}
	return id
}

func runs(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Colourways[wi]
	for i, view := range m.Shapes.Views {
		if view.Layer.Make == card.Cut {
			continue
		}
		said := map[string]bool{}
		once := func(h Hit) {
			if id := strings.Join(h.Key, ":"); !said[id] {
				said[id] = true
				add(h)
			}
		}
		wet := func(ink *kit.Ink, of card.Layer, under *kit.Ink) {
			if !waterproof(under) {
				once(Hit{Key: []string{m.ID, w.ID, view.Layer.ID, of.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: of.ID},
					What: fmt.Sprintf("%s will run into %s", of.Label, handling(view.Layer, of, ink)), Why: fmt.Sprintf("%s is laid wet over %s, which is not waterproof.", ink.Name, under.Name),
					Do: "Print what lies beneath in a waterproof ink, or lay the colour dry.", Facts: []string{ink.ID, under.ID}})
			}
		}
		v.handled(w.Layers[view.Layer.ID], func(ink, struck *kit.Ink) {
			switch ink.Kind {
			case kit.Alcohol:
				marked(v, m, wi, i, ink, struck, once)
			case kit.Watercolor:
				if struck != nil {
					wet(ink, view.Layer, struck)
				}
				v.beneathIt(m, wi, i, func(of card.Layer, under *kit.Ink) { wet(ink, of, under) })
			}
		})
	}
}

// handled calls f with every ink that goes on a print by hand: its own, or one laid over it where a
// stamp laid the first; struck is that first, or nil.
func (v *View) handled(f card.Finish, do func(ink, struck *kit.Ink)) {
	first, ok := v.Stock.Ink(f.Ink)
	if ok && first.Kind.ByHand() {
		do(first, nil)
		first = nil
	}
	for _, bl := range f.Blends {
		if ink, ok := v.Stock.Ink(bl.Ink); ok && ink.Kind.ByHand() && ink != first {
			do(ink, first)
		}
	}
}

func dulls(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Colourways[wi]
	for i, view := range m.Shapes.Views {
		if view.Layer.Make == card.Cut {
			continue
		}
		said := map[string]bool{}
		note := func(ink *kit.Ink, of card.Layer, under *kit.Ink) {
			if tone, known := under.Shade(); known && tone.L < blackish && !said[of.ID] {
				said[of.ID] = true
				add(Hit{Key: []string{m.ID, w.ID, view.Layer.ID, of.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: view.Layer.ID},
					What: fmt.Sprintf("%s will dull %s", handling(view.Layer, of, ink), of.Label), Why: fmt.Sprintf("%s is drawn over %s, which is as good as black.", ink.Name, under.Name),
					Do: "Print the dark layer last, or draw its lines again when the pencil is done.", Numbers: map[string]float64{"l": tone.L}, Facts: []string{ink.ID, under.ID}})
			}
		}
		v.handled(w.Layers[view.Layer.ID], func(ink, struck *kit.Ink) {
			if ink.Kind != kit.Pencil {
				return
			}
			if struck != nil {
				note(ink, view.Layer, struck)
			}
			v.beneathIt(m, wi, i, func(of card.Layer, under *kit.Ink) { note(ink, of, under) })
		})
	}
}

// handling names what comes upon a layer by hand: another that is laid over it, or the ink that is
// laid over the layer itself.
func handling(l, of card.Layer, ink *kit.Ink) string {
	if l.ID == of.ID {
		return ink.Name
	}
	return l.Label
}

func smears(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Colourways[wi]
	for i, view := range m.Shapes.Views {
		ink, ok := v.Stock.Ink(w.Layers[view.Layer.ID].Ink)
		if !ok || ink.Heat() || !slices.Contains([]kit.InkKind{kit.Dye, kit.Pigment, kit.Watercolor}, ink.Kind) {
			continue // what needs heat is noted for its heat
		}
		l := i
		for l != motif.Ground && m.Shapes.Views[l].Layer.Make != card.Cut {
			l = m.Shapes.Views[l].Host
		}
		if l == motif.Ground {
			continue
		}
		p, ok := v.Stock.Paper(w.Layers[m.Shapes.Views[l].Layer.ID].Paper)
		if ok && slices.Contains([]kit.PaperKind{kit.PaperAcetate, kit.PaperFoil, kit.PaperGlitter}, p.Kind) || ok && p.Kind == kit.PaperVellum && ink.Kind == kit.Watercolor {
			add(Hit{Key: []string{m.ID, w.ID, view.Layer.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: view.Layer.ID},
				What: fmt.Sprintf("%s will smear on %s", view.Layer.Label, p.Kind), Why: fmt.Sprintf("%s takes no ink in, and %s does not set by itself.", p.Name, ink.Name),
				Do: "Take an ink that sets on it, such as an alcohol or a waterproof one, or cut it from card.", Facts: []string{ink.ID, p.ID}})
		}
	}
}
