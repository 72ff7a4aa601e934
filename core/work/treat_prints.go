package work

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/words"
)

// medium is what a layer of an image comes upon that is printed on the sheet in hand: the same
// as wherever else the image is printed.
func (k *treats) medium(m card.Motif, w card.Colourway, layer string) medium {
	ground := Thing{Element: k.t.Element.ID}
	for _, img := range k.Images {
		if img.ID != m.ID || img.Problem != "" {
			continue
		}
		im := making{maker: k.maker, Made: &build.Made{Image: img.Image, Colourway: w}, views: img.Shapes.Views}
		for i, v := range im.views {
			if v.Layer.ID == layer {
				return im.on([]int{i}, ground)
			}
		}
	}
	return medium{paper: k.t.Element.Sheet.Paper}
}

// turned prints a pattern on a sheet that is turned: the count and the direction are kept
// by an act for each strike of each stamp.
func (k *treats) turned(p card.Turned) {
	q := k.patterns[patternKey{k.t.Element.ID, k.n}]
	m, ok := k.Card.Motif(p.Motif)
	if q.Problem != "" || !ok {
		return
	}
	called, nth := k.t.Name, 1
	for _, tr := range k.t.Element.Sheet.Treatments[:k.n] {
		if tr.Turned != nil {
			nth++
		}
	}
	if nth > 1 {
		called = fmt.Sprintf("%s, pattern %d", called, nth)
	}
	way := map[bool]string{true: "anticlockwise", false: "clockwise"}[p.Anti]
	// Strikes of the first pattern of a sheet go by its layers alone, those of a further one by
	// its number too.
	part := func(l card.Layer) string {
		for n, tr := range k.t.Element.Sheet.Treatments {
			if tr.Turned != nil && n < k.n {
				return fmt.Sprintf("%s %d", l.ID, k.n+1)
			}
		}
		return l.ID
	}
	for _, l := range m.Layers {
		if l.Make == card.Cut {
			continue
		}
		for _, s := range q.Strikes {
			w, _ := m.Colourway(s.Colourway)
			f := w.Layers[l.ID]
			ink := f.First()
			if ink == "" {
				continue
			}
			how := "As it lies."
			switch {
			case s.Number > 1:
				how = fmt.Sprintf("Turn the sheet %.4g° %s first", q.Step, way)
				if s.Corner > 0 {
					how += fmt.Sprintf(": corner %d to the top left", s.Corner)
				}
				how += "."
			case s.Corner > 0:
				how = fmt.Sprintf("Corner %d to the top left.", s.Corner)
			}
			layer := Thing{Element: k.t.Element.ID, Part: part(l)}
			kind, what, with, of, stays := PrintAct, "strike", laidWith(l), k.tool(m, l), "The stamp stays where it is."
			if k.handLaid(l, ink) {
				// A pen is no stamp: each place is coloured as it comes to lie.
				kind, what, with, of, stays = InkAct, "coloured, place", "", tool{}, "By hand, within its line."
			}
			k.layOn(phaseInk, k.inked(Act{ID: card.Step{Verb: Print, Element: k.t.Element.ID, Part: layer.Part, N: s.Number}, Kind: kind,
				Title:  fmt.Sprintf("%s: %s, %s %d of %d", words.Capital(called), l.Label, what, s.Number, p.Turns),
				Detail: fmt.Sprintf("%s %s. %s", how, k.loaded(f, with), stays)}, ink),
				facts{inks: []Thing{layer}, tool: of, tone: k.tone(ink), of: Thing{Motif: m.ID, Colourway: w.ID, Part: l.ID}, mark: k.struck(q, s, m.ID, l.ID)}, k.medium(m, w, l.ID))
			k.heat(card.Step{Element: k.t.Element.ID, Part: layer.Part}, l.Label+" of "+k.t.Name, k.leaf, []Thing{layer}, onlyOnce(s.Number == p.Turns, k.hottestOf(f)))
		}
		for _, id := range slices.Compact(slices.Sorted(slices.Values(p.Colourways))) {
			if w, ok := m.Colourway(id); ok {
				k.drawn(m, w, l, inColourway(m, w, l.Label+" of "+k.t.Name), Thing{Element: k.t.Element.ID, Part: part(l)})
			}
		}
	}
}

// drawn colours by hand what was printed of a layer, where its finish has inks no stamp takes.
func (k *treats) drawn(m card.Motif, w card.Colourway, l card.Layer, what string, layer Thing) {
	for _, a := range k.drawnOver(w.Layers[l.ID], what, k.medium(m, w, l.ID), func(n int) card.Step {
		return k.step(Blend, l.ID+" "+w.ID+" by hand", n)
	}) {
		k.seq++
		k.add(phaseInk, a, facts{leaf: k.leaf, seq: k.seq, series: k.leaf, inks: []Thing{layer}, tone: k.tone(a.Ink)})
	}
}

// inColourway adds the colourway to what is named where an image has several.
func inColourway(m card.Motif, w card.Colourway, what string) string {
	if len(m.Colourways) > 1 {
		what += ", " + w.Name
	}
	return what
}

// onlyOnce gives the ink where it is wanted, else none.
func onlyOnce(is bool, ink string) string {
	if is {
		return ink
	}
	return ""
}

// print prints an image on a sheet, once or in a repeat: all prints of one layer in one
// ink before the stamp is changed.
func (k *treats) print(p card.Print) {
	m, ok := k.Card.Motif(p.Motif)
	if !ok {
		return
	}
	done := build.Treated{Prints: 1}
	if k.n < len(k.t.Treated) {
		done = k.t.Treated[k.n]
	}
	ways := min(len(p.Colourways), max(1, done.Prints))
	for _, l := range m.Layers {
		if l.Make == card.Cut {
			continue
		}
		for wi := range ways {
			w, _ := m.Colourway(p.Colourways[wi])
			f := w.Layers[l.ID]
			ink := f.First()
			if ink == "" {
				continue
			}
			count := (done.Prints-1-wi)/len(p.Colourways) + 1
			how := "Once."
			if count > 1 {
				how = fmt.Sprintf("%d times; ink the stamp anew for each.", count)
			}
			if p.Rows != nil && len(p.Colourways) > 1 {
				how += " The colourways take turns along the rows."
			}
			if done.Off > 0.001 {
				how += " It runs over the edge: lay scrap beneath."
			}
			kind, verb, with, of := PrintAct, "Print", laidWith(l), k.tool(m, l)
			if k.handLaid(l, ink) {
				kind, verb, with, of, how = InkAct, "Colour", "", tool{}, strings.ReplaceAll(how, "; ink the stamp anew for each", ", by hand")
			}
			if kind == PrintAct && l.Make == card.Printed {
				how += " Look before you lift the stamp."
			}
			title := fmt.Sprintf("%s %s on %s: %s", verb, m.Name, k.on(), l.Label)
			if ways > 1 {
				title += ", " + w.Name
			}
			layer := k.layer(l.ID + " " + w.ID)
			id := k.step(Print, l.ID, wi+1)
			k.layOn(phaseInk, k.inked(Act{ID: id, Kind: kind, Title: title, Detail: fmt.Sprintf("%s. %s", k.loaded(f, with), how)}, ink),
				facts{inks: []Thing{layer}, tool: of, tone: k.tone(ink), of: Thing{Motif: m.ID, Colourway: w.ID, Part: l.ID}}, k.medium(m, w, l.ID))
			k.drawn(m, w, l, inColourway(m, w, l.Label+" on "+k.on()), layer)
			k.heat(card.Step{Element: k.t.Element.ID, Part: layer.Part}, l.Label+" on "+k.on(), k.leaf, []Thing{layer}, k.hottestOf(f))
		}
	}
}

// printedOn are the layers of the images that are printed straight on the sheet.
func (k *treats) printedOn() (out []Thing) {
	for _, t := range k.Things {
		if t.Made < 0 || !t.Printed || t.Element.On != k.t.Element.ID {
			continue
		}
		m := k.Made[t.Made]
		for _, v := range m.Image.Shapes.Views {
			// Printed with all the others, or by itself.
			for _, e := range []string{"", t.Element.ID} {
				out = append(out, Thing{e, m.Image.ID, m.Colourway.ID, v.Layer.ID})
			}
		}
	}
	return out
}
