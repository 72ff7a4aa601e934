package work

import (
	"fmt"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/measure"
	"ochrestone/core/words"
)

func (k *maker) size(s measure.Size) string {
	return fmt.Sprintf("%s × %s", k.format(s.W), k.format(s.H))
}

// base cuts and scores the base: a folded card, a flat tag, or a holder with a pocket.
func (k *maker) base() {
	defer func() { k.treat(k.Base, Thing{}) }() // once it is cut
	c := k.Card.Base
	paper := k.Stock.PaperName(c.Paper)
	id := card.Step{Verb: Fold}
	switch c.Make {
	case card.Flat:
		k.add(phaseCut, Act{ID: id, Kind: CutAct, Title: "Cut the tag", Detail: fmt.Sprintf("%s, %s.%s", paper, k.size(c.Size()), k.leaf(c))}, facts{})
		return
	case card.Holder:
		flat := measure.Size{W: c.W, H: c.H + c.Pocket + c.Flap}
		a := Act{ID: id, Kind: CutAct, Title: "Cut, score and glue the holder",
			Detail: fmt.Sprintf("%s, %s. Score at %s from the foot for the pocket", paper, k.size(flat), k.format(c.Pocket))}
		if c.Flap > 0 {
			a.Detail += fmt.Sprintf(" and at %s from the top for the flap, which a banner or a band latches", k.format(c.Flap))
		}
		a.Detail += ". Fold the pocket up and glue its two sides only; leave its upper edge open."
		k.add(phaseCut, a, facts{})
		return
	}
	stock := measure.Letter
	if p, ok := k.Stock.Paper(c.Paper); ok && p.W > 0 && p.H > 0 {
		stock = measure.Size{W: p.W, H: p.H}
	}
	cut := measure.BaseFor(c.Size(), c.Fold, stock)
	from := fmt.Sprintf("One stock sheet gives %d.", cut.PerSheet)
	if cut.PerSheet == 0 {
		from = "The stock sheet in the stores is too small for it."
	}
	k.add(phaseCut, Act{ID: id, Kind: CutAct, Title: "Cut and score the card base",
		Detail: fmt.Sprintf("%s, %s; score at %s, fold at the %s. %s%s", paper, k.size(cut.Sheet), k.format(cut.ScoreAt), c.Fold, from, k.leaf(c))}, facts{})
}

// leaf says what is cut off the front leaf, or off the tag.
func (k *maker) leaf(c card.Base) string {
	out := ""
	if c.Short > 0 {
		out = fmt.Sprintf(" Cut the front leaf %s shorter, away from the fold.", k.format(c.Short))
	}
	if o := c.Leaf; o != nil {
		what := "front leaf"
		if c.Make == card.Flat {
			what = "tag"
		}
		switch {
		case o.Kind == card.Rectangle:
			out += fmt.Sprintf(" Round the corners of the %s to %s.", what, k.format(o.Pitch))
		case o.Kind == card.DiePart:
			out += fmt.Sprintf(" Cut the %s with its die, the fold outside the cutting edge.", what)
		default:
			out += fmt.Sprintf(" Cut the edge of the %s: %s.", what, o.Kind)
		}
	}
	return out
}

// first reports whether a sheet is cut before anything is done to it: mats and the panel,
// sheets beside the card, and all to which more is done than words. Strips are cut when
// their words are dry, so that the words stand in the middle.
func first(t build.Thing) bool {
	if t.Leaf != nil || t.Element.Face != card.Front || t.Element.Sheet.Turned() != nil || t.Element.Sheet.Trim > 0 {
		return true
	}
	for _, tr := range t.Element.Sheet.Treatments {
		if tr.Words == nil {
			return true
		}
	}
	return t.Element.Sheet.Shape != nil || len(t.Element.Sheet.Openings) > 0 || t.Element.Sheet.Flap != nil
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
		a.Detail = fmt.Sprintf("%s, %s.", k.Stock.PaperName(e.Sheet.Paper), k.size(k.sized(&t)))
	}
	size := e.Sheet.Size()
	if l := t.Leaf; l != nil {
		size = measure.Size{W: l.Size.W + 2*e.Sheet.Trim, H: l.Size.H + 2*e.Sheet.Trim}
	}
	switch {
	case e.Sheet.Turned() != nil:
		what := "A sheet of " + k.size(size)
		if size.W == size.H {
			what = "A square of " + k.format(size.W)
		}
		a.Title = "Cut the sheet of " + t.Name
		a.Detail = fmt.Sprintf("%s, %s. Number its corners 1 to 4 clockwise on the back, in pencil.", what, k.Stock.PaperName(e.Sheet.Paper))
	case e.Sheet.Trim > 0:
		a.Detail = fmt.Sprintf("%s, %s for now: it is trimmed when all is printed.", k.Stock.PaperName(e.Sheet.Paper), k.size(size))
	}
	a.Detail += k.outlined(&t)
	k.add(phaseCut, a, facts{leaf: leaf})
	k.treat(t, leaf)
	if e.Sheet.Trim > 0 {
		s := size
		k.add(phaseInk, Act{ID: card.Step{Verb: Trim, Element: e.ID}, Kind: CutAct, Title: "Trim " + t.Name,
			Detail: fmt.Sprintf("%s off each side leaves %s. Once it is dry; mind the blade, cut away from your hand.", k.format(e.Sheet.Trim), k.size(measure.Size{W: s.W - 2*e.Sheet.Trim, H: s.H - 2*e.Sheet.Trim}))},
			facts{leaf: leaf, cutsOut: true})
	}
	k.open(t, leaf)
}

// dieName is what a person calls the die of an outline; empty where it is not in the stores.
func (k *maker) dieName(o card.Outline) string {
	if set, ok := k.Stock.Set(o.Set); ok {
		if p, ok := set.Part(o.Part); ok {
			return p.Label + " of " + set.Name
		}
	}
	return ""
}

// sized is how large a sheet is when it is cut: as its die where it has one, whatever it was
// drawn as.
func (k *maker) sized(t *build.Thing) measure.Size {
	s := t.Element.Sheet
	if s.Shape != nil && s.Shape.Kind == card.DiePart && !t.Whole.Empty() {
		b := t.Whole.Bounds()
		return measure.Size{W: b.W(), H: b.H()}
	}
	return s.Size()
}

// outlined says how a sheet gets its outline and its flap; nothing for a plain rectangle.
func (k *maker) outlined(t *build.Thing) string {
	out, s := "", t.Element.Sheet
	if o := s.Shape; o != nil {
		switch o.Kind {
		case card.DiePart:
			if !t.Died && t.Problem == "" && !t.Whole.Empty() {
				return " No die cuts that size: cut it with the trimmer, or draw its outline and cut it by hand."
			}
			if name := k.dieName(*o); name != "" {
				out = fmt.Sprintf(" Cut with %s.", name)
			}
		case card.Rectangle:
			if o.Pitch > 0 {
				out = fmt.Sprintf(" Corners rounded to %s.", k.format(o.Pitch))
			}
		case card.Fringe:
			out = " Cut in from the edge, strip by strip; leave the rest whole."
		default:
			out = fmt.Sprintf(" Outline: %s.", o.Kind)
		}
	}
	if f := s.Flap; f != nil {
		out += fmt.Sprintf(" With a flap of %s at the %s.", k.format(f.Depth), f.Side)
	}
	return out
}

// open cuts the openings of a sheet when all on it is dry, and folds its flap.
func (k *maker) open(t build.Thing, leaf Thing) {
	e := t.Element
	if n := len(e.Sheet.Openings); n > 0 {
		a := Act{ID: card.Step{Verb: Open, Element: e.ID}, Kind: CutAct, Title: "Cut the opening of " + t.Name}
		if n > 1 {
			a.Title = fmt.Sprintf("Cut %d openings of %s", n, t.Name)
		}
		var how []string
		for _, o := range e.Sheet.Openings {
			at := "in the middle"
			if o.X != 0 || o.Y != 0 {
				at = fmt.Sprintf("its middle %s", k.off(card.Spot{X: o.X, Y: o.Y}))
			}
			if o.Text != "" {
				how = append(how, fmt.Sprintf("“%s”, %s high, %s", o.Text, k.format(o.H), at))
				continue
			}
			name := string(o.Kind)
			if o.Kind == card.DiePart {
				name = k.dieName(o.Outline)
			}
			how = append(how, fmt.Sprintf("%s, %s, %s", name, k.size(measure.Size{W: o.W, H: o.H}), at))
		}
		a.Detail = words.Capital(strings.Join(how, "; ")) + ". Keep what falls out."
		if t.Islands > 0 {
			a.Detail += fmt.Sprintf(" %s: glue %s to the film or card behind while the letters are still in, then push those out; with nothing behind, keep %s on low-tack tape in %s.",
				words.Count(t.Islands, "loose island"), words.Of(t.Islands, "it", "them"), words.Of(t.Islands, "it", "them"), words.Of(t.Islands, "its place", "their order"))
		}
		k.add(phasePop, a, facts{leaf: leaf, cutsOut: true})
	}
	if f := e.Sheet.Flap; f != nil {
		k.add(phasePop, Act{ID: card.Step{Verb: Score, Element: e.ID}, Kind: CutAct, Title: "Score and fold the flap of " + t.Name,
			Detail: fmt.Sprintf("%s from the %s edge, folded to the back.", k.format(f.Depth), f.Side)}, facts{leaf: leaf, cutsOut: true})
	}
}

// put lays an element on what carries it: a strip that has to be made first, or an image
// that was stacked.
func (k *maker) put(i int) {
	t := &k.Things[i]
	e := t.Element
	leaf := Thing{Element: e.ID}
	if e.Letters != nil {
		k.cutLetters(*t)
	}
	if e.Sheet != nil && !first(*t) {
		k.treat(*t, leaf)
		what := "the strip"
		detail := k.size(k.sized(t)) + ", the words in its middle."
		if e.Sheet.Words() == nil {
			what, detail = words.Small(t.Name), fmt.Sprintf("%s, %s.", k.Stock.PaperName(e.Sheet.Paper), k.size(k.sized(t)))
		}
		detail += k.outlined(t)
		k.add(phasePop, Act{ID: card.Step{Verb: Cut, Element: e.ID}, Kind: CutAct, Title: "Cut " + what, Detail: detail}, facts{leaf: leaf, cutsOut: true})
		k.open(*t, leaf)
	}
	if t.Printed && !k.onGround(t) {
		return // printed straight on what carries it: nothing to put down
	}
	on := k.carrier(e)
	a, raised := k.held(Act{ID: card.Step{Verb: Place, Element: e.ID}, Title: t.Name + " onto " + k.LeafName(on.Element)}, e.Bonds)
	if e.Sheet != nil && e.Sheet.Flap != nil {
		a.Detail = fmt.Sprintf("Glue its flap of %s beneath the panel, between two sheets; the leaf itself stays free.", k.format(e.Sheet.Flap.Depth))
	}
	a, glues := k.filmed(i, a, raised)
	if d := k.dose(e.Bonds, t.Outline); d != "" && glues && e.Letters == nil && e.Image == nil {
		a.Detail += " " + d
	}
	a.Detail = k.unlined(*t, a.Detail) + k.crossed(i)
	a.Mind = append(a.Mind, k.freeBeneath(i)...)
	phase := phaseFlat
	if raised {
		phase = phaseRaise
	}
	f := facts{leaf: leaf, onto: on, raised: raised, stack: i, outline: t.Rough}
	if e.Sheet != nil {
		f.shy = k.shy(e.Sheet.Paper)
	}
	if e.Letters != nil {
		f.shy, f.raised = k.shy(e.Letters.Paper), raised || k.foamed(e.Letters.Backing)
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
		a, raised := k.held(Act{ID: card.Step{Verb: Mount, Element: t.Element.ID}, Title: words.Capital(t.Name) + " onto " + name}, t.Element.Bonds)
		k.add(phaseMount, a, facts{leaf: Thing{Element: t.Element.ID}, onto: on, raised: raised, shy: k.shy(t.Element.Sheet.Paper)})
	}
}

// elsewhere makes and puts down what lies inside or on the envelope: when the front is
// whole.
func elsewhere(k *maker) {
	for i, t := range k.Things {
		e := t.Element
		where := map[card.Face]string{card.InsideLeft: "inside, on the left", card.InsideRight: "inside, on the right", card.OnEnvelope: "on the envelope"}[e.Face]
		if where == "" {
			continue
		}
		leaf := Thing{Element: e.ID}
		switch {
		case e.Sheet != nil:
			k.sheet(t)
		case e.Letters != nil:
			k.cutLetters(t)
		}
		if e.Image != nil && e.Image.Cutout == nil && t.Made >= 0 && !k.onGround(&t) {
			continue // printed straight on what carries it: nothing to put down
		}
		a, raised := k.held(Act{ID: card.Step{Verb: Elsewhere, Element: e.ID}, Title: words.Capital(t.Name) + " " + where}, e.Bonds)
		if e.Sheet != nil && len(e.Bonds) > 0 && !raised && e.Face != card.OnEnvelope {
			a.Detail += " At its edges only: glue in the middle ripples under the pen."
		}
		if e.Face == card.OnEnvelope {
			a.Detail += " Keep the address space clear: the carrier's current rules go first."
		}
		f := facts{leaf: leaf, raised: raised, stack: i}
		if e.Image != nil {
			f.leaf = Thing{Element: e.ID, Motif: e.Image.Motif, Colourway: e.Image.Colourway}
		}
		k.add(phaseEnd, a, f)
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

// snipped says of what bits are cut off, in the step in which it is put down.
func (k *maker) snipped() {
	for _, t := range k.Things {
		if len(t.Element.Snips) == 0 {
			continue
		}
		for i := range k.acts {
			if a := &k.acts[i]; a.ID.Element == t.Element.ID && (a.ID.Verb == Place || a.ID.Verb == Tie) {
				a.Detail = strings.TrimSpace("First cut off what would meet the pads, along the line on the pad plan; cut away from your hand. " + a.Detail)
			}
		}
	}
}

// carrier is the leaf an element lies on.
func (k *maker) carrier(e card.Element) Thing { return Thing{Element: k.Carrier(e).Element} }

// shy reports whether heat warps a paper.
func (k *maker) shy(paper string) bool {
	p, ok := k.Stock.Paper(paper)
	return ok && p.HeatShy()
}
