package foresee

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/cover"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// text is words on a sheet, or on the base, as they come out.
type text struct {
	thing int // of Build.Things; -1 for the base
	on    *build.Thing
	e     card.Element
	n     int // of the sheet's treatments
	card.Words
	build.Treated
}

// texts runs over all words on sheets, and on the base.
func texts(v *View, each func(t text)) {
	run := func(thing int, on *build.Thing) {
		if on.Element.Sheet == nil {
			return
		}
		for n, tr := range on.Element.Sheet.Treatments {
			if tr.Words == nil || tr.Words.Text == "" {
				continue
			}
			t := text{thing: thing, on: on, e: on.Element, n: n, Words: *tr.Words}
			if n < len(on.Treated) {
				t.Treated = on.Treated[n]
			}
			each(t)
		}
	}
	run(-1, &v.Build.Base)
	for i := range v.Build.Things {
		run(i, &v.Build.Things[i])
	}
}

// key names a note about words: the first words of a sheet by the sheet alone.
func (t text) key() []string {
	id := t.e.ID
	if t.thing < 0 {
		id = "base"
	}
	for n, tr := range t.e.Sheet.Treatments {
		if tr.Words != nil && n < t.n {
			return []string{id, fmt.Sprint(t.n)}
		}
	}
	return []string{id}
}

func letters(v *View, add func(Hit)) {
	if v.Face == nil {
		return
	}
	lacking := func(text string) []string {
		var lack []string
		for _, r := range text {
			if !v.Face.Has(r) && !slices.Contains(lack, string(r)) {
				lack = append(lack, string(r))
			}
		}
		return lack
	}
	texts(v, func(t text) {
		if lack := lacking(t.Text); len(lack) > 0 {
			add(Hit{Key: t.key(), At: At{Element: t.e.ID}, What: fmt.Sprintf("“%s” has letters the typeface lacks", t.Text),
				Why: fmt.Sprintf("%s cannot be drawn, so the picture and the printed sheet leave them out.", strings.Join(lack, ", ")),
				Do:  "Stamp the words from a set of your own, or write them in Latin letters.", Facts: lack})
		}
	})
	for i, e := range v.Card.Elements {
		if l := v.Build.Things[i].Line; l != nil && len(l.Missing) > 0 {
			what, do := "the typeface", "Write them in Latin letters, or choose an alphabet of dies that has them."
			if e.Letters.Set != "" {
				what, do = "the alphabet", "Choose another alphabet, or write the word otherwise."
			}
			add(Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: fmt.Sprintf("“%s” has letters that %s lacks", e.Letters.Text, what),
				Why: strings.Join(l.Missing, ", ") + " cannot be cut, and is left out.", Do: do, Facts: l.Missing})
		}
	}
}

// readable notes texts that are hard to read, and names the ink of those the card uses
// anyway, or else of the drawer, that reads best.
func readable(v *View, add func(Hit)) {
	inUse := map[string]bool{}
	for _, m := range v.Card.Motifs {
		for _, w := range m.Colourways {
			for _, f := range w.Layers {
				inUse[f.Ink] = true
			}
		}
	}
	texts(v, func(t text) {
		named, known := v.Stock.Ink(t.Ink)
		if t.Emboss || t.Read == nil || !known {
			return
		}
		ink, ground := t.Read.Ink, t.Read.Ground
		apart := math.Abs(ink.Lab().L - ground.Lab().L)
		if apart >= wordsApart {
			return
		}
		paper, on := "", "what lies round it"
		if t.Read.Bare {
			paper, on = t.e.Sheet.Paper, v.Stock.PaperName(t.e.Sheet.Paper)
		}
		best, reads, used := "", wordsApart, false
		for i := range v.Stock.Inks {
			k := &v.Stock.Inks[i]
			if k.Gone || k.Kind == kit.Embossing {
				continue
			}
			d, ok := v.Stock.Dried(card.Finish{Ink: k.ID}, ground, paper)
			if !ok {
				continue
			}
			if a := math.Abs(d.Dry.Lab().L - ground.Lab().L); a >= wordsApart && (inUse[k.ID] && !used || inUse[k.ID] == used && a > reads) {
				best, reads, used = k.ID, a, inUse[k.ID]
			}
		}
		h := Hit{Key: t.key(), At: At{Element: t.e.ID}, What: fmt.Sprintf("“%s” will be hard to read", t.Text),
			Why: fmt.Sprintf("%s dries %.0f from %s in lightness, a contrast of %.1f to 1; words want %.0f.", named.Name, apart, on, colour.Contrast(ink, ground), wordsApart),
			Do:  "Heat emboss it, or put it on another card.", Numbers: map[string]float64{"apart": apart}, Facts: []string{t.Ink, t.e.Sheet.Paper}}
		if best != "" {
			h.Do = v.Stock.InkName(best) + " would read."
			h.Mend = &Mend{"Use " + v.Stock.InkName(best), []card.Edit{withWords(t, func(w *card.Words) { w.Ink = best })}}
		}
		add(h)
	})
}

// withWords is the edit that changes words.
func withWords(t text, change func(w *card.Words)) card.Edit {
	w := t.Words
	change(&w)
	return card.Edit{Treat: &card.Treat{Element: t.e.ID, At: t.n, Treatment: &card.Treatment{Words: &w}}}
}

// wordsWidth notes sheets that their words run off, or are lost on. Those laid by their
// margins are never too large for their words: they have other things to show.
func wordsWidth(v *View, add func(Hit)) {
	texts(v, func(t text) {
		if t.Wide <= 0 {
			return
		}
		if strip := t.thing >= 0 && t.e.Inset == nil && t.e.Sheet.Shape == nil && t.Spot == (card.Spot{}) && t.Bend == 0; !strip {
			v.runsOff(t, add)
			return
		}
		room := t.e.Sheet.W - t.Wide
		h := Hit{Key: t.key(), At: At{Element: t.e.ID}, Numbers: map[string]float64{"words": t.Wide, "strip": t.e.Sheet.W}}
		s := *t.e.Sheet
		switch {
		case room < 2*wordsRoom:
			h.What = fmt.Sprintf("“%s” does not fit on its strip", t.Text)
			h.Why = fmt.Sprintf("The words come out %s wide, the strip is %s.", v.Format(t.Wide), v.Format(t.e.Sheet.W))
			s.W = math.Ceil(t.Wide + 4*wordsRoom)
			h.Do = fmt.Sprintf("Make the strip %s, or the letters smaller.", v.Format(s.W))
		case t.e.Sheet.W > wordsBare*t.Wide && len(s.Treatments) == 1:
			h.Severity = Tip
			h.What = fmt.Sprintf("“%s” is lost on its strip", t.Text)
			h.Why = fmt.Sprintf("The words come out %s wide on a strip of %s.", v.Format(t.Wide), v.Format(t.e.Sheet.W))
			s.W = math.Ceil(2 * t.Wide)
			h.Do = fmt.Sprintf("Make the strip %s, or the letters larger.", v.Format(s.W))
		default:
			return
		}
		if s.W <= 400 {
			h.Mend = &Mend{"Make it " + v.Format(s.W), []card.Edit{{Sheet: &card.SetSheet{Element: t.e.ID, Sheet: &s}}}}
		}
		add(h)
	})
}

// runsOff notes words of which a part misses the sheet they are stamped on. The mend makes
// the letters so much smaller that they stay on it.
func (v *View) runsOff(t text, add func(Hit)) {
	all, err := shape.UnionAll(t.Regions...)
	if err != nil || all.Empty() {
		return
	}
	off, err := all.Minus(t.on.Local)
	if err != nil {
		return
	}
	share := off.Area() / all.Area()
	if share < wordsOff {
		return
	}
	h := Hit{Key: t.key(), At: At{Element: t.e.ID}, What: fmt.Sprintf("“%s” runs off %s", t.Text, t.on.Name),
		Why: fmt.Sprintf("%.0f %% of the letters miss it: they come out %s wide.", 100*share, v.Format(t.Wide)),
		Do:  "Make the letters smaller, or move the words.", Numbers: map[string]float64{"off": share}}
	if b := t.on.Whole.Bounds(); t.Bend == 0 && t.Wide+2*wordsRoom > b.W() {
		if size := t.Letter * (b.W() - 2*wordsRoom) / t.Wide; size >= leastLetter {
			size = math.Floor(size*10) / 10
			h.Mend = &Mend{"Letters of " + v.Format(size), []card.Edit{withWords(t, func(w *card.Words) { w.Letter, w.X = size, 0 })}}
		}
	}
	add(h)
}

// wordsCovered notes words that lie under what is put on after them, those cut from card
// too.
func wordsCovered(v *View, add func(Hit)) {
	judge := func(thing int, key []string, said string, letters []shape.Region) {
		t := v.Build.Things[thing]
		if t.Outline.Empty() {
			return
		}
		whole, hidden, worst := 0.0, 0.0, 0.0
		var under []string
		for _, l := range letters {
			g := t.Place(l)
			left, over, err := cover.Left(v.Build, thing, g)
			if err != nil || g.Empty() {
				return
			}
			a := g.Area()
			whole, hidden = whole+a, hidden+a-left.Area()
			worst = max(worst, 1-left.Area()/a)
			for _, o := range over {
				if !slices.Contains(under, o) {
					under = append(under, o)
				}
			}
		}
		if share := hidden / max(whole, 1e-9); share > wordsCover {
			add(Hit{Key: key, At: At{Element: t.Element.ID}, What: fmt.Sprintf("“%s” lies under %s", said, words.Listed(under)),
				Why: fmt.Sprintf("%.0f %% of the words are covered, of the worst letter %.0f %%; up to %.0f %% they can be read.", 100*share, 100*worst, 100*wordsCover),
				Do:  "Move it clear, or lay it higher in the pile.", Numbers: map[string]float64{"covered": share}, Facts: under})
		}
	}
	texts(v, func(t text) {
		if len(t.Regions) > 0 && t.thing >= 0 {
			judge(t.thing, t.key(), t.Text, t.Regions)
		}
	})
	for i, t := range v.Build.Things {
		if t.Line == nil {
			continue
		}
		var gs []shape.Region
		for _, l := range t.Line.Letters {
			gs = append(gs, l.Region)
		}
		judge(i, []string{t.Element.ID}, t.Element.Letters.Text, gs)
	}
}
