package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/look"
)

// partsByHue is the difference under which a pair that reads to ordinary eyes
// is lost to others; our own default.
const partsByHue = 4.0

// who names other eyes in a sentence.
var who = map[colour.Eyes]string{colour.Protan: "people without red cones", colour.Deutan: "people without green cones", colour.Tritan: "people without blue cones", colour.Grey: "a grey copy"}

// hueAlone warns of the pair that reads by its hue alone: clear to most eyes,
// lost to others.
func (b *builder) hueAlone(pm *Motif, wi int) {
	w := pm.Colourways[wi]
	lin := w.Dried()
	var worst look.Pair
	var seen colour.Eyes
	least := partsByHue
	for _, p := range w.Pairs {
		if p.Diff < b.o.readable || p.Length < look.MergesOver {
			continue
		}
		for _, e := range look.OtherEyes {
			if d := colour.Difference(lin[p.A].Seen(e).Lab(), lin[p.B].Seen(e).Lab()); d < least {
				worst, seen, least = p, e, d
			}
		}
	}
	if seen == "" {
		return
	}
	b.add(Finding{ID: fmt.Sprintf("hue:%s:%s", pm.ID, w.ID), Station: "inks", Severity: Tip, Motif: pm.ID, Colourway: w.ID, Layer: worst.B,
		What:    fmt.Sprintf("Only hue parts %s from %s", pm.img.LabelOf(worst.B), pm.img.LabelOf(worst.A)),
		Why:     fmt.Sprintf("They are %.1f apart to most eyes, but %.1f for %s.", worst.Diff, least, who[seen]),
		Do:      "Step one of them lighter or darker if everyone should see it.",
		Numbers: map[string]float64{"difference": worst.Diff, "other": least}}, worst.A, worst.B, string(seen))
}

// A detail jars when it is so small a share of what shows and stands so far
// off what it touches; our own defaults.
const (
	jarShare = 0.03
	jarDiff  = 68.0
)

// jars warns of a small detail that stands off too far.
func (b *builder) jars(pm *Motif, wi int) {
	w := pm.Colourways[wi]
	var whole float64
	visible := map[string]float64{}
	for _, l := range pm.Layers {
		whole += l.Visible
		visible[l.ID] = l.Visible
	}
	for _, p := range w.Pairs {
		if p.A == "" || p.Diff < jarDiff || p.Length < look.MergesOver {
			continue
		}
		small := p.B
		if visible[p.A] < visible[small] {
			small = p.A
		}
		if visible[small] > jarShare*whole {
			continue
		}
		other := p.A
		if small == p.A {
			other = p.B
		}
		b.add(Finding{ID: fmt.Sprintf("jars:%s:%s:%s", pm.ID, w.ID, small), Station: "inks", Severity: Tip, Motif: pm.ID, Colourway: w.ID, Layer: small,
			What:    fmt.Sprintf("%s may jar on %s", pm.img.LabelOf(small), pm.img.LabelOf(other)),
			Why:     fmt.Sprintf("It is %.0f %% of what shows and dries %.0f apart from what it touches; too much contrast on a detail jars as much as too little.", 100*visible[small]/whole, p.Diff),
			Do:      "Take an ink nearer to its neighbour, or keep it if it is meant to catch the eye.",
			Numbers: map[string]float64{"share": visible[small] / whole, "difference": p.Diff}})
		return // one such note is enough
	}
}

// sharedStamps warns where parts of one stamp were given different inks.
func (b *builder) sharedStamps(pm *Motif, m card.Motif, wi int) {
	way := m.Colourways[wi]
	set, ok := b.kit.Set(m.Set)
	if !ok {
		return
	}
	first := map[string]card.Layer{}
	for _, l := range m.Layers {
		p, ok := set.Part(l.Part)
		if !ok || p.Stamp == "" || l.Make != card.Printed {
			continue
		}
		was, seen := first[p.Stamp]
		if !seen {
			first[p.Stamp] = l
			continue
		}
		if way.Layers[was.ID].Ink == way.Layers[l.ID].Ink {
			continue
		}
		b.add(Finding{ID: fmt.Sprintf("stamp:%s:%s:%s", pm.ID, way.ID, l.ID), Station: "inks", Severity: Shows, Motif: pm.ID, Colourway: way.ID, Layer: l.ID,
			What: fmt.Sprintf("%s and %s share a stamp but not an ink", was.Label, l.Label),
			Why:  fmt.Sprintf("Both are on the stamp %q, which takes one ink at a time.", p.Stamp),
			Do:   "Give both the same ink, mask one while you ink the other, or ink the stamp in part.",
			Mend: &Mend{Label: "One ink for both", Kind: "finish", Ink: way.Layers[was.ID].Ink, Layer: l.ID, Motif: m.ID, Colourway: way.ID}}, way.Layers[was.ID].Ink, way.Layers[l.ID].Ink)
	}
}

// besideItself warns of images in one colourway that lie next to each other
// where the card has others to alternate with.
func (b *builder) besideItself() {
	es := b.card.Elements
	used := map[string]map[string]bool{}
	var motifs []string
	for _, e := range es {
		if e.Kind != card.MotifElement {
			continue
		}
		if used[e.Motif] == nil {
			used[e.Motif] = map[string]bool{}
			motifs = append(motifs, e.Motif)
		}
		used[e.Motif][e.Colourway] = true
	}
	for _, id := range motifs {
		if len(used[id]) < 2 {
			continue
		}
		for _, p := range advise.Neighbours(es, id) {
			i, j := p[0], p[1]
			if es[i].Colourway != es[j].Colourway {
				continue
			}
			d := math.Hypot(es[i].X-es[j].X, es[i].Y-es[j].Y)
			b.add(Finding{ID: "beside:" + es[i].ID + ":" + es[j].ID, Station: "front", Severity: Tip, Element: es[j].ID,
				What:    fmt.Sprintf("%s lies beside itself", b.label(es[j])),
				Why:     fmt.Sprintf("Two images in the same colourway stand %s apart, as near as any here.", b.o.format(d)),
				Do:      "Change the colourway of one, swap it with another, or have the colourways spread anew in Inks.",
				Numbers: map[string]float64{"apart": d}}, es[i].Colourway)
		}
	}
}

// lettersOf notes letters of a strip that cannot be drawn.
func (b *builder) lettersOf(e card.Element) {
	var lack []string
	for _, r := range e.Strip.Text {
		if !b.o.letters(r) && !slices.Contains(lack, string(r)) {
			lack = append(lack, string(r))
		}
	}
	if len(lack) == 0 {
		return
	}
	b.add(Finding{ID: "letters:" + e.ID, Station: "front", Severity: Shows, Element: e.ID,
		What: fmt.Sprintf("“%s” has letters the typeface lacks", e.Strip.Text),
		Why:  fmt.Sprintf("%s cannot be drawn, so the picture and the printed sheet leave them out.", strings.Join(lack, ", ")),
		Do:   "Stamp the words from a set of your own, or write them in Latin letters."}, lack...)
}

// readable words stand this far from their paper in lightness; our own default.
const wordsApart = 30.0

// words notes strips whose text is hard to read, and names the ink of those the
// card uses anyway, or else of the drawer, that reads best.
func (b *builder) words() {
	inUse := map[string]bool{}
	for _, m := range b.card.Motifs {
		for _, w := range m.Colourways {
			for _, f := range w.Layers {
				inUse[f.Ink] = true
			}
		}
	}
	for _, e := range b.card.Elements {
		if e.Strip == nil || e.Strip.Text == "" {
			continue
		}
		b.lettersOf(e)
		if e.Strip.Emboss {
			continue
		}
		paper := b.kit.PaperColour(e.Strip.Paper)
		apart := func(ink *kit.Ink) float64 {
			film, _, err := b.kit.Film(ink)
			if err != nil {
				return 0
			}
			dry, _, _ := b.kit.On(ink, film, paper, e.Strip.Paper, 1)
			return math.Abs(dry.Lab().L - paper.Lab().L)
		}
		ink, ok := b.kit.Ink(e.Strip.Ink)
		if !ok || apart(ink) >= wordsApart {
			continue
		}
		best, reads, used := "", wordsApart, false
		for i := range b.kit.Inks {
			k := &b.kit.Inks[i]
			if k.Gone || k.Kind == kit.Embossing {
				continue
			}
			if d := apart(k); d >= wordsApart && (inUse[k.ID] && !used || inUse[k.ID] == used && d > reads) {
				best, reads, used = k.ID, d, inUse[k.ID]
			}
		}
		f := Finding{ID: "words:" + e.ID, Station: "front", Severity: Shows, Element: e.ID,
			What:    fmt.Sprintf("“%s” will be hard to read", e.Strip.Text),
			Why:     fmt.Sprintf("%s dries %.0f from %s in lightness; words want %.0f.", ink.Name, apart(ink), b.kit.PaperName(e.Strip.Paper), wordsApart),
			Do:      "Heat emboss it, or put it on another card.",
			Numbers: map[string]float64{"apart": apart(ink)}}
		if best != "" {
			f.Do = b.kit.InkName(best) + " would read."
			f.Mend = &Mend{Label: "Use " + b.kit.InkName(best), Kind: "words", Element: e.ID, Ink: best}
		}
		b.add(f, e.Strip.Ink, e.Strip.Paper)
	}
}
