package work

import (
	"fmt"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/measure"
)

func (k *maker) size(s measure.Size) string {
	return fmt.Sprintf("%s × %s", k.format(s.W), k.format(s.H))
}

// base cuts and scores the base.
func (k *maker) base() {
	c := k.Card.Base
	stock := measure.Letter
	if p, ok := k.Stock.Paper(c.Paper); ok && p.W > 0 && p.H > 0 {
		stock = measure.Size{W: p.W, H: p.H}
	}
	cut := measure.BaseFor(c.Size(), c.Fold, stock)
	from := fmt.Sprintf("One stock sheet gives %d.", cut.PerSheet)
	if cut.PerSheet == 0 {
		from = "The stock sheet in the stores is too small for it."
	}
	k.add(phaseCut, Act{ID: card.Step{Verb: Fold}, Kind: CutAct, Title: "Cut and score the card base",
		Detail: fmt.Sprintf("%s, %s; score at %s, fold at the %s. %s", k.Stock.PaperName(c.Paper), k.size(cut.Sheet), k.format(cut.ScoreAt), c.Fold, from)}, facts{})
}

// first reports whether a sheet is cut before anything is done to it: mats and the panel,
// sheets beside the card, and those that are turned under a stamp. Strips are cut when
// their words are dry, so that the words stand in the middle.
func first(t build.Thing) bool {
	return t.Leaf != nil || t.Element.Face == card.Beside || t.Element.Sheet.Turned() != nil
}

// sheet makes a mat or the panel, or a sheet beside the card, with all that is done to it.
func (k *maker) sheet(t build.Thing) {
	e := t.Element
	leaf := Thing{Element: e.ID}
	a := Act{ID: card.Step{Verb: Cut, Element: e.ID}, Kind: CutAct, Title: "Cut " + t.Name}
	if l := t.Leaf; l != nil {
		shows := fmt.Sprintf("%s of what lies beneath shows all round.", k.format(e.Inset.Left))
		if m := *e.Inset; m.Left != m.Right || m.Left != m.Top || m.Left != m.Bottom {
			shows = fmt.Sprintf("Of what lies beneath show %s at the left, %s at the right, %s above, %s below.", k.format(m.Left), k.format(m.Right), k.format(m.Top), k.format(m.Bottom))
		} else if m.Left == 0 {
			shows = "As large as what lies beneath: every skew of it will show."
		}
		a.Detail = fmt.Sprintf("%s, %s. %s", k.Stock.PaperName(e.Sheet.Paper), k.size(l.Size), shows)
	} else {
		a.Detail = fmt.Sprintf("%s, %s.", k.Stock.PaperName(e.Sheet.Paper), k.size(e.Sheet.Size()))
	}
	if e.Sheet.Turned() != nil {
		a.Title = "Cut the sheet of " + t.Name
		a.Detail = fmt.Sprintf("A square of %s, %s. Number its corners 1 to 4 clockwise on the back, in pencil.", k.format(e.Sheet.W), k.Stock.PaperName(e.Sheet.Paper))
	}
	k.add(phaseCut, a, facts{leaf: leaf})
	k.treat(t, leaf)
	if e.Sheet.Trim > 0 {
		s := e.Sheet.Size()
		k.add(phaseInk, Act{ID: card.Step{Verb: Trim, Element: e.ID}, Kind: CutAct, Title: "Trim " + t.Name,
			Detail: fmt.Sprintf("%s off each side leaves %s. Once it is dry; mind the blade, cut away from your hand.", k.format(e.Sheet.Trim), k.size(measure.Size{W: s.W - 2*e.Sheet.Trim, H: s.H - 2*e.Sheet.Trim}))},
			facts{leaf: leaf, cutsOut: true})
	}
}

// treat does to a sheet what is to be done, in order.
func (k *maker) treat(t build.Thing, leaf Thing) {
	for _, tr := range t.Element.Sheet.Treatments {
		switch {
		case tr.Words != nil:
			k.words(t, leaf, *tr.Words)
		case tr.Turned != nil:
			k.turned(t, leaf, *tr.Turned)
		}
	}
}

// words stamps words on a sheet.
func (k *maker) words(t build.Thing, leaf Thing, w card.Words) {
	id := card.Step{Verb: Print, Element: t.Element.ID}
	layer := Thing{Element: t.Element.ID, Part: wordsOf}
	k.add(phaseInk, k.inked(Act{ID: id, Kind: PrintAct, Title: "Stamp “" + w.Text + "”",
		Detail: fmt.Sprintf("%s on %s.", k.Stock.InkName(w.Ink), k.Stock.PaperName(t.Element.Sheet.Paper))}, w.Ink), facts{leaf: leaf, inks: []Thing{layer}, tone: k.tone(w.Ink)})
	what := "the strip"
	if !w.Emboss {
		k.heat(id, what, leaf, []Thing{layer}, w.Ink)
		return
	}
	id.Verb = Heat
	k.add(phaseHeat, Act{ID: id, Kind: HeatAct, Title: "Heat emboss " + what, Detail: powdered, Cautions: []string{powderCaution}}, facts{leaf: leaf, heats: []Thing{layer}})
}

// turned prints a pattern on a sheet that is turned: the count and the direction are kept
// by an act for each strike of each stamp.
func (k *maker) turned(t build.Thing, leaf Thing, p card.Turned) {
	q := k.patterns[t.Element.ID]
	m, ok := k.Card.Motif(p.Motif)
	if q.Problem != "" || !ok {
		return
	}
	way := map[bool]string{true: "anticlockwise", false: "clockwise"}[p.Anti]
	turn := 0
	for _, l := range m.Layers {
		if l.Make == card.Cut {
			continue
		}
		for _, s := range q.Strikes {
			w, _ := m.Colourway(s.Colourway)
			f := w.Layers[l.ID]
			if f.Ink == "" {
				continue
			}
			turn++
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
			layer := Thing{Element: t.Element.ID, Part: l.ID}
			k.add(phaseInk, k.inked(Act{ID: card.Step{Verb: Print, Element: t.Element.ID, Part: l.ID, N: s.Number}, Kind: PrintAct,
				Title:  fmt.Sprintf("%s: %s, strike %d of %d", t.Name, l.Label, s.Number, p.Turns),
				Detail: fmt.Sprintf("%s %s%s. The stamp stays where it is.", how, k.Stock.InkName(f.Ink), strikes(f))}, f.Ink),
				facts{leaf: leaf, inks: []Thing{layer}, seq: turn, series: leaf, stamp: t.Element.ID + "/" + l.ID, tone: k.tone(f.Ink)})
			k.heat(card.Step{Element: t.Element.ID, Part: l.ID}, l.Label+" of "+t.Name, leaf, []Thing{layer}, onlyOnce(s.Number == p.Turns, f.Ink))
		}
	}
}

// onlyOnce gives the ink where it is wanted, else none.
func onlyOnce(is bool, ink string) string {
	if is {
		return ink
	}
	return ""
}

// put lays an element on what carries it: a strip that has to be made first, or an image
// that was stacked.
func (k *maker) put(i int) {
	t := &k.Things[i]
	e := t.Element
	leaf := Thing{Element: e.ID}
	if e.Sheet != nil && !first(*t) {
		k.treat(*t, leaf)
		what := "the strip"
		detail := k.size(e.Sheet.Size()) + ", the words in its middle."
		if e.Sheet.Words() == nil {
			what, detail = strings.ToLower(t.Name[:1])+t.Name[1:], fmt.Sprintf("%s, %s.", k.Stock.PaperName(e.Sheet.Paper), k.size(e.Sheet.Size()))
		}
		k.add(phasePop, Act{ID: card.Step{Verb: Cut, Element: e.ID}, Kind: CutAct, Title: "Cut " + what, Detail: detail}, facts{leaf: leaf, cutsOut: true})
	}
	if t.Printed && !k.onGround(t) {
		return // printed straight on what carries it: nothing to put down
	}
	on := k.carrier(e)
	a, raised := k.held(Act{ID: card.Step{Verb: Place, Element: e.ID}, Title: t.Name + " onto " + k.LeafName(on.Element)}, e.Bonds)
	phase := phaseFlat
	if raised {
		phase = phaseRaise
	}
	f := facts{leaf: leaf, onto: on, raised: raised, stack: i, outline: t.Rough}
	if e.Sheet != nil {
		f.shy = k.shy(e.Sheet.Paper)
	}
	if e.Image != nil {
		f.leaf = Thing{Element: e.ID, Motif: e.Image.Motif, Colourway: e.Image.Colourway}
	}
	k.add(phase, a, f)
}

// mountSheets joins the mats from the top down and mounts them on the base.
func mountSheets(k *maker) {
	for i := len(k.Things) - 1; i >= 0; i-- {
		t := k.Things[i]
		if t.Leaf == nil {
			continue
		}
		on := k.carrier(t.Element)
		name := "the card base"
		if on.Element != "" {
			name = k.LeafName(on.Element)
		}
		a, raised := k.held(Act{ID: card.Step{Verb: Mount, Element: t.Element.ID}, Title: strings.ToUpper(t.Name[:1]) + t.Name[1:] + " onto " + name}, t.Element.Bonds)
		k.add(phaseMount, a, facts{leaf: Thing{Element: t.Element.ID}, onto: on, raised: raised, shy: k.shy(t.Element.Sheet.Paper)})
	}
}

// finish is the last look.
func (k *maker) finish() {
	end := Act{ID: card.Step{Verb: Finish}, Kind: CheckAct, Title: "The inside and the envelope", Detail: "Write inside, look over the edges, lay the card in its envelope before you seal it."}
	if e, ok := k.Stock.Envelope(k.Card.Base.Envelope); ok {
		end.Detail = fmt.Sprintf("Write inside, look over the edges, try it in the %s before you seal it.", e.Name)
	}
	k.add(phaseEnd, end, facts{})
}

// carrier is the leaf an element lies on.
func (k *maker) carrier(e card.Element) Thing { return Thing{Element: k.Carrier(e).Element} }

// shy reports whether heat warps a paper.
func (k *maker) shy(paper string) bool {
	p, ok := k.Stock.Paper(paper)
	return ok && p.HeatShy()
}
