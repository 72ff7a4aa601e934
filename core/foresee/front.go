package foresee

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"ochrestone/core/advise"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/cover"
	"ochrestone/core/kit"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// Our own defaults.
const (
	overhangs   = 0.05 // mm an outline must pass the panel's edge to count
	frameFrom   = 3    // images of one kind over the edge are a frame that is meant to run over
	wordsApart  = 30.0 // L* that words stand from their paper to be read
	wordsRoom   = 2.0  // mm left and right of the words on their strip
	wordsBare   = 6.0  // a strip is too long when its words fill less than one in so many
	buriedUnder = 0.02 // share of a thing that shows at most when it is buried
	wordsCover  = 0.15 // share of the words that may lie under something
)

func frontRules() []Rule {
	return []Rule{
		{ID: "mats", Station: Front, Severity: Spoils, Title: "Mats that do not fit", Explain: "Their borders leave nothing of a sheet.", Source: "arithmetic", check: mats},
		{ID: "edge", Station: Front, Severity: Shows, Title: "Things that hang over the panel", Explain: "Meant or not, what hangs over has to be trimmed before the panel is mounted, or it bends in the envelope.", Source: practice, Limits: []Limit{{"overhang", overhangs, "mm", ""}}, check: overEdge},
		{ID: "beside", Station: Front, Severity: Tip, Title: "Images beside themselves", Explain: "In a row, a grid or a ring neighbours in one colourway read as one mass.", Source: practice, check: besideItself},
		{ID: "letters", Station: Front, Severity: Shows, Title: "Letters that cannot be drawn", Explain: "The picture and the printed sheets leave them out.", Source: "the typeface", check: letters},
		{ID: "words", Station: Front, Severity: Shows, Title: "Words that are hard to read", Explain: "Ink too near its card in lightness.", Source: practice, Limits: []Limit{{"lightness apart", wordsApart, "L*", ""}}, check: words},
		{ID: "strip", Station: Front, Severity: Shows, Title: "Strips too short for their words, or far too long", Explain: "Words run off the strip, or stand lost on it.", Source: "the typeface; the room is ours", Limits: []Limit{{"room at each end", wordsRoom, "mm", ""}}, check: wordsWidth},
		{ID: "covered", Station: Front, Severity: Shows, Title: "Words under something", Explain: "A word has to stay readable; a little over it may be wanted.", Source: practice, Limits: []Limit{{"share that may be covered", wordsCover, "share", ""}}, check: wordsCovered},
		{ID: "buried", Station: Front, Severity: Wastes, Title: "Things that lie wholly under others", Explain: "What nobody sees is made for nothing, or was meant to lie higher.", Source: practice, check: buried},
		{ID: "unused", Station: Front, Severity: Wastes, Title: "Sheets made and not used", Explain: "Card and ink for nothing, or forgotten.", Source: practice, check: unused},
	}
}

func mats(v *View, add func(Hit)) {
	mat := v.Build.Mats
	if mat == nil {
		return
	}
	m := mat.Margins
	add(Hit{At: At{Element: mat.ID}, What: "The mats do not fit",
		Why: fmt.Sprintf("The border of %s round %s is wider than what it lies on, so nothing is left of it.", v.Format(max(m.Left, m.Right, m.Top, m.Bottom)), mat.Name()),
		Do:  "Make the borders narrower in Front.", Numbers: map[string]float64{"border": max(m.Left, m.Right, m.Top, m.Bottom), "sheet": float64(mat.At)}})
}

// hanging is a thing that hangs over the panel.
type hanging struct {
	i    int // of Build.Things
	room layout.Room
}

func overEdge(v *View, add func(Hit)) {
	panel := v.Build.Panel()
	kin := map[string][]hanging{} // images of one motif
	for i, t := range v.Build.Things {
		if t.Leaf != nil || t.Outline.Empty() {
			continue
		}
		room := layout.RoomOf(t.Outline, panel)
		if least, _ := room.Least(); least >= -overhangs {
			continue
		}
		key := t.Element.ID
		if t.Element.Image != nil {
			key = "image " + t.Element.Image.Motif
		}
		kin[key] = append(kin[key], hanging{i, room})
	}
	for i, t := range v.Build.Things {
		for _, key := range []string{t.Element.ID, "image " + imageOf(t.Element)} {
			hs := kin[key]
			if len(hs) == 0 || hs[0].i != i {
				continue
			}
			if len(hs) >= frameFrom {
				v.frame(hs, add)
				continue
			}
			for _, h := range hs {
				v.over(h, add)
			}
		}
	}
}

func imageOf(e card.Element) string {
	if e.Image == nil {
		return ""
	}
	return e.Image.Motif
}

// frame is one note for a frame of images that runs over the edge.
func (v *View) frame(hs []hanging, add func(Hit)) {
	most := 0.0
	var ids []string
	for _, h := range hs {
		least, _ := h.room.Least()
		most = max(most, -least)
		ids = append(ids, v.Build.Things[h.i].Element.ID)
	}
	m, _ := v.Card.Motif(imageOf(v.Build.Things[hs[0].i].Element))
	add(Hit{Key: []string{"frame", m.ID}, Severity: Tip, At: At{Motif: m.ID, Element: ids[0]},
		What:    fmt.Sprintf("%d of %s run over the edge of the panel", len(hs), m.Name),
		Why:     fmt.Sprintf("The furthest by %s. A frame is meant to; what stands over bends in the envelope.", v.Format(most)),
		Do:      "Trim them from the back when the glue is dry, before the panel is mounted, and keep the trimmings for gaps.",
		Numbers: map[string]float64{"over": most, "images": float64(len(hs))}, Facts: ids})
}

func (v *View) over(h hanging, add func(Hit)) {
	t := v.Build.Things[h.i]
	least, side := h.room.Least()
	hit := Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("%s hangs over the panel", t.Name),
		Why: fmt.Sprintf("It passes the %s edge by %s.", side, v.Format(-least)),
		Do:  "Move it in, or trim it from the back after the glue is dry and before the panel is mounted.", Numbers: map[string]float64{"over": -least}, Facts: []string{side}}
	if dx, dy, fits := h.room.Mend(); fits {
		hit.Mend = &Mend{"Move it in", []card.Edit{{Move: &card.Move{Element: t.Element.ID, DX: dx, DY: dy}}}}
	} else {
		hit.Do = "It is larger than the panel. Take a larger panel, or trim it from the back before the panel is mounted."
	}
	add(hit)
}

// besideItself warns of images in one colourway that lie next to each other where the
// card has others to alternate with. The mend shares the colourways out anew.
func besideItself(v *View, add func(Hit)) {
	es := v.Card.Elements
	for _, m := range v.Images {
		if len(m.used) < 2 || m.Problem != "" {
			continue
		}
		first := true
		for _, p := range advise.Neighbours(es, m.ID) {
			a, b := es[p[0]], es[p[1]]
			if a.Image.Colourway != b.Image.Colourway {
				continue
			}
			d := math.Hypot(a.Place.X-b.Place.X, a.Place.Y-b.Place.Y)
			h := Hit{Key: []string{a.ID, b.ID}, At: At{Motif: m.ID, Element: b.ID}, What: v.Build.Things[p[1]].Name + " lies beside itself",
				Why:     fmt.Sprintf("Two images in the same colourway stand %s apart, as near as any here.", v.Format(d)),
				Do:      "Change the colourway of one, swap it with another, or have the colourways spread anew in Inks.",
				Numbers: map[string]float64{"apart": d}, Facts: []string{a.Image.Colourway}}
			if spread, clashes := advise.Spread(v.Card, m.ID); clashes == 0 && first {
				h.Mend = &Mend{"Share them out anew", []card.Edit{{Recolour: &card.Recolour{Elements: spread}}}}
			}
			first = false
			add(h)
		}
	}
}

// texts runs over the sheets with words on them.
func texts(v *View, each func(i int, e card.Element, w card.Words)) {
	for i, e := range v.Card.Elements {
		if e.Sheet != nil {
			if w := e.Sheet.Words(); w != nil && w.Text != "" {
				each(i, e, *w)
			}
		}
	}
}

func letters(v *View, add func(Hit)) {
	texts(v, func(_ int, e card.Element, w card.Words) {
		var lack []string
		for _, r := range w.Text {
			if !v.Letters(r) && !slices.Contains(lack, string(r)) {
				lack = append(lack, string(r))
			}
		}
		if len(lack) > 0 {
			add(Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: fmt.Sprintf("“%s” has letters the typeface lacks", w.Text),
				Why: fmt.Sprintf("%s cannot be drawn, so the picture and the printed sheet leave them out.", strings.Join(lack, ", ")),
				Do:  "Stamp the words from a set of your own, or write them in Latin letters.", Facts: lack})
		}
	})
}

// words notes texts that are hard to read, and names the ink of those the card uses
// anyway, or else of the drawer, that reads best.
func words(v *View, add func(Hit)) {
	inUse := map[string]bool{}
	for _, m := range v.Card.Motifs {
		for _, w := range m.Colourways {
			for _, f := range w.Layers {
				inUse[f.Ink] = true
			}
		}
	}
	texts(v, func(_ int, e card.Element, w card.Words) {
		if w.Emboss {
			return
		}
		paper := v.Stock.PaperColour(e.Sheet.Paper)
		apart := func(ink *kit.Ink) float64 {
			film, _, err := v.Stock.Film(ink)
			if err != nil {
				return 0
			}
			dry, _, _ := v.Stock.On(ink, film, paper, e.Sheet.Paper, 1)
			return math.Abs(dry.Lab().L - paper.Lab().L)
		}
		ink, ok := v.Stock.Ink(w.Ink)
		if !ok || apart(ink) >= wordsApart {
			return
		}
		best, reads, used := "", wordsApart, false
		for i := range v.Stock.Inks {
			k := &v.Stock.Inks[i]
			if k.Gone || k.Kind == kit.Embossing {
				continue
			}
			if d := apart(k); d >= wordsApart && (inUse[k.ID] && !used || inUse[k.ID] == used && d > reads) {
				best, reads, used = k.ID, d, inUse[k.ID]
			}
		}
		h := Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: fmt.Sprintf("“%s” will be hard to read", w.Text),
			Why: fmt.Sprintf("%s dries %.0f from %s in lightness; words want %.0f.", ink.Name, apart(ink), v.Stock.PaperName(e.Sheet.Paper), wordsApart),
			Do:  "Heat emboss it, or put it on another card.", Numbers: map[string]float64{"apart": apart(ink)}, Facts: []string{w.Ink, e.Sheet.Paper}}
		if best != "" {
			h.Do = v.Stock.InkName(best) + " would read."
			h.Mend = &Mend{"Use " + v.Stock.InkName(best), []card.Edit{withWords(e, func(w *card.Words) { w.Ink = best })}}
		}
		add(h)
	})
}

// withWords is the edit that changes the words on a sheet.
func withWords(e card.Element, change func(w *card.Words)) card.Edit {
	s := *e.Sheet
	s.Treatments = slices.Clone(s.Treatments)
	for i, t := range s.Treatments {
		if t.Words != nil {
			w := *t.Words
			change(&w)
			s.Treatments[i].Words = &w
			break
		}
	}
	return card.Edit{Sheet: &card.SetSheet{Element: e.ID, Sheet: &s}}
}

// wordsWidth notes strips that their words run off, or are lost on. Only those with a size
// of their own count: a mat or the panel has other things to show.
func wordsWidth(v *View, add func(Hit)) {
	if v.Width == nil {
		return
	}
	texts(v, func(_ int, e card.Element, w card.Words) {
		wide := v.Width(w.Text, w.Letter)
		if e.Inset != nil || wide <= 0 {
			return
		}
		room := e.Sheet.W - wide
		h := Hit{Key: []string{e.ID}, At: At{Element: e.ID}, Numbers: map[string]float64{"words": wide, "strip": e.Sheet.W}}
		s := *e.Sheet
		switch {
		case room < 2*wordsRoom:
			h.What = fmt.Sprintf("“%s” does not fit on its strip", w.Text)
			h.Why = fmt.Sprintf("The words come out %s wide, the strip is %s.", v.Format(wide), v.Format(e.Sheet.W))
			s.W = math.Ceil(wide + 4*wordsRoom)
			h.Do = fmt.Sprintf("Make the strip %s, or the letters smaller.", v.Format(s.W))
		case e.Sheet.W > wordsBare*wide:
			h.Severity = Tip
			h.What = fmt.Sprintf("“%s” is lost on its strip", w.Text)
			h.Why = fmt.Sprintf("The words come out %s wide on a strip of %s.", v.Format(wide), v.Format(e.Sheet.W))
			s.W = math.Ceil(2 * wide)
			h.Do = fmt.Sprintf("Make the strip %s, or the letters larger.", v.Format(s.W))
		default:
			return
		}
		if s.W <= 400 {
			h.Mend = &Mend{"Make it " + v.Format(s.W), []card.Edit{{Sheet: &card.SetSheet{Element: e.ID, Sheet: &s}}}}
		}
		add(h)
	})
}

// wordsCovered notes words that lie under what is put on after them.
func wordsCovered(v *View, add func(Hit)) {
	if v.Width == nil {
		return
	}
	texts(v, func(i int, e card.Element, w card.Words) {
		t := v.Build.Things[i]
		wide := v.Width(w.Text, w.Letter)
		if wide <= 0 || t.Outline.Empty() || e.Inset != nil {
			return
		}
		g := layout.Place(shape.Rect(0, 0, wide, w.Letter), shape.Box{Max: shape.Point{X: wide, Y: w.Letter}}, e.Place)
		left, over, err := cover.Left(v.Build, i, g)
		if err != nil {
			return
		}
		if share := 1 - left.Area()/g.Area(); share > wordsCover {
			add(Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: fmt.Sprintf("“%s” lies under %s", w.Text, listed(over)),
				Why: fmt.Sprintf("%.0f %% of the words are covered; up to %.0f %% they can be read.", 100*share, 100*wordsCover),
				Do:  "Move it clear, or lay it higher in the pile.", Numbers: map[string]float64{"covered": share}, Facts: over})
		}
	})
}

// buried notes things of which nothing is left to see.
func buried(v *View, add func(Hit)) {
	for i, t := range v.Build.Things {
		if t.Leaf != nil || t.Outline.Empty() {
			continue
		}
		over, is, err := cover.Buried(v.Build, i, buriedUnder)
		if err != nil || !is {
			continue
		}
		id := t.Element.ID
		h := Hit{Key: []string{id}, At: At{Element: id}, What: fmt.Sprintf("%s lies wholly under %s", t.Name, listed(over)), Why: "Nothing of it is left to see.",
			Do: "Lay it higher in the pile, move it clear, or take it off.", Facts: over}
		add(h)
	}
}

// unused notes sheets made beside the card that lie on nothing. Where the middle of the
// front has room for one, the mend lays it there.
func unused(v *View, add func(Hit)) {
	for i, e := range v.Card.Elements {
		if e.Face != card.Beside {
			continue
		}
		h := Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: v.Build.Things[i].Name + " is made and not used",
			Why: "It is cut and printed beside the card, and lies on nothing.", Do: "Lay it on the front, keep it for another card, or take it off."}
		if v.roomFor(e) {
			front := card.Front
			h.Mend = &Mend{"Lay it on the front", []card.Edit{{Sheet: &card.SetSheet{Element: e.ID, Face: &front}}, {Put: &card.Put{Element: e.ID, X: half(v.Card.Base.W), Y: half(v.Card.Base.H)}}}}
		}
		add(h)
	}
}

// roomFor reports whether a sheet laid in the middle of the front would stay on the panel
// and lie over nothing.
func (v *View) roomFor(e card.Element) bool {
	if e.Sheet == nil {
		return false
	}
	w, h := e.Sheet.W-2*e.Sheet.Trim, e.Sheet.H-2*e.Sheet.Trim
	g := shape.Rect((v.Card.Base.W-w)/2, (v.Card.Base.H-h)/2, w, h)
	if least, _ := layout.RoomOf(g, v.Build.Panel()).Least(); least < 0 {
		return false
	}
	return !slices.ContainsFunc(v.Build.Things, func(t build.Thing) bool { return t.Leaf == nil && t.Rough.Overlaps(g) })
}

func half(mm float64) *float64 { mm /= 2; return &mm }
