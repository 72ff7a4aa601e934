package work

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/words"
)

// backingIn is how far foam or adhesive that is cut with letters stays back from the edge of their
// card, mm: our own default.
const backingIn = 2.0

// unlined says how letters with a sheet on their backs are set down, given how their bond says they
// are: an adhesive sheet is all that holds them, foam may stick by itself.
func (k *maker) unlined(t build.Thing, bond string) string {
	l := t.Element.Letters
	if l == nil || l.Backing == "" {
		return bond
	}
	liner := "its liner comes off letter by letter, each set down at once, the islands of closed ones last."
	if _, ok := k.Stock.Adhesive(l.Backing); ok {
		return fmt.Sprintf("%s: %s", words.Capital(k.backingName(l.Backing)), liner)
	}
	return fmt.Sprintf("%s Where the sheet on their backs sticks by itself, no glue: %s", bond, liner)
}

// cutLetters cuts words letter by letter and stacks them: with one die of each letter a
// text takes as many passes as its most frequent letter comes, for every ply.
func (k *maker) cutLetters(t build.Thing) {
	e := t.Element
	l := e.Letters
	if t.Line == nil || t.Problem != "" {
		return
	}
	leaf := Thing{Element: e.ID, Part: "letters"}
	n, plies := len(t.Line.Letters), l.Times()
	how := fmt.Sprintf("%s, each %s.", words.Count(n, "letter"), times(plies))
	if l.Set != "" {
		how += fmt.Sprintf(" %s through the machine with one die of each%s. Count the dies back into their tray.", words.Count(t.Line.Passes*plies, "pass", "passes"), most(*t.Line))
	}
	if l.Backing != "" {
		how += fmt.Sprintf(" One ply with %s beneath it in the same pass, %s smaller than the card all round: where it sticks out it glues itself to the plate. So thick a sandwich may want a second run.", k.backingName(l.Backing), k.format(backingIn))
	}
	if t.Islands > 0 {
		n := t.Islands * plies
		how += fmt.Sprintf(" %s out of the closed letters", words.Count(n, "loose island falls", "loose islands fall"))
		if l.Bare {
			how += words.Of(n, ": it is not needed.", ": they are not needed.")
		} else {
			how += words.Of(n, ": keep it", ": keep them") + " for a stencilled word."
		}
	}
	from := k.Stock.PaperName(l.Paper) + ". "
	f := facts{leaf: leaf}
	phase := phaseCut
	if s := k.cutFrom(l); s != nil {
		f.from, phase = Thing{Element: s.Element.ID}, phasePop
		from = fmt.Sprintf("From %s, when it is dry: lay the dies on it in reading order as they will stand on the card, its middle %s, so that what is on it runs on through the word. ", s.Name, k.off(l.From.Spot))
	}
	k.add(phase, Act{ID: card.Step{Verb: Cut, Element: e.ID}, Kind: CutAct, Title: fmt.Sprintf("Cut the letters of “%s”", l.Text),
		Detail: from + how}, f)
	if s := l.Shadow; s != nil {
		k.add(phaseCut, Act{ID: card.Step{Verb: Cut, Element: e.ID, Part: build.ShadowPart}, Kind: CutAct, Title: fmt.Sprintf("Cut the shadow of “%s”", l.Text),
			Detail: fmt.Sprintf("%s, %s larger all round.", k.Stock.PaperName(s.Paper), k.format(s.By))}, facts{leaf: Thing{Element: e.ID, Part: build.ShadowPart}})
	}
	if plies > 1 {
		k.add(phaseStack, Act{ID: card.Step{Verb: Plies, Element: e.ID}, Kind: GlueAct, Title: fmt.Sprintf("Stack the letters of “%s”", l.Text),
			Detail: fmt.Sprintf("%d plies each, edges flush: small dots of glue, press under a block.", plies)}, facts{leaf: leaf})
	}
	if l.Shadow != nil {
		k.add(phaseStack, Act{ID: card.Step{Verb: Glue, Element: e.ID, Part: build.ShadowPart}, Kind: GlueAct, Title: fmt.Sprintf("“%s” onto its shadow", l.Text),
			Detail: "The same rim all round; the sheet they were cut from, laid on the shadow, is the guide."}, facts{leaf: leaf, onto: Thing{Element: e.ID, Part: build.ShadowPart}})
	}
}

func times(n int) string {
	switch n {
	case 1:
		return "once"
	case 2:
		return "twice"
	}
	return fmt.Sprintf("%d times", n)
}

// most names the letters that decide the passes.
func most(l layout.Line) string {
	if len(l.Most) == 0 {
		return ""
	}
	return fmt.Sprintf(", as %s comes %s", strings.Join(l.Most, " and "), times(l.Passes))
}

func (k *maker) backingName(id string) string {
	if s, ok := k.Stock.Spacer(id); ok {
		return s.Name
	}
	if a, ok := k.Stock.Adhesive(id); ok {
		return a.Name
	}
	return "a sheet"
}

// foamed reports whether a backing is foam.
func (k *maker) foamed(id string) bool {
	s, ok := k.Stock.Spacer(id)
	return ok && s.Foam()
}

// crossed tells which parts of a thing go the other way than the rest when it is put down,
// and which edges of it stay open for parts of others.
func (k *maker) crossed(i int) string {
	t := k.Things[i]
	out := ""
	impossible := func(e, part, with string) bool {
		return slices.Contains(k.Woven, build.Weave{Element: e, Part: part, With: with})
	}
	say := func(parts []string, how string) {
		if len(parts) == 0 {
			return
		}
		// Of two alike things it is said once.
		if s := fmt.Sprintf(how, strings.Join(parts, ", ")); !strings.Contains(out, s) {
			out += s
		}
	}
	for j := range k.Things {
		o := &k.Things[j]
		if j == i || len(o.Element.Tucks)+len(t.Element.Tucks) == 0 {
			continue
		}
		var mine, theirs, labels []string
		for _, c := range t.Element.Tucks {
			if c.With == o.Element.ID && !impossible(t.Element.ID, c.Part, c.With) {
				mine = append(mine, k.partOrIt(t.Element, c.Part, "it"))
			}
		}
		for _, c := range o.Element.Tucks {
			if c.With == t.Element.ID && !impossible(o.Element.ID, c.Part, c.With) {
				theirs = append(theirs, k.partOf(o, c.Part))
				labels = append(labels, k.partOrIt(o.Element, c.Part, ""))
			}
		}
		if len(labels) > 1 && !slices.Contains(labels, "") { // whose they are is said once
			theirs = []string{words.Listed(labels) + " of " + o.Name}
		}
		if j < i {
			if !slices.Equal(mine, []string{"it"}) {
				say(mine, " Slip %s beneath "+escaped(o.Name)+"; the rest lies over it.")
			} else {
				say(mine, " Slip %s beneath "+escaped(o.Name)+".")
			}
			say(theirs, " Slip it beneath %s.")
			continue
		}
		say(mine, " Leave %s unstuck: "+escaped(o.Name)+" is slipped beneath it later.")
		deep := k.goesIn(i, o)
		in := " Glue nothing along the edge where %s goes in beneath" + deep + ", until it is in; then glue that too."
		if len(labels) > 1 {
			in = " Glue nothing along the edge where %s go in beneath" + deep + ", until they are in; then glue that too."
		}
		say(theirs, in)
	}
	return out
}

// goesIn says how deep the parts of another thing that cross a thing go in beneath it, and how much is
// to be kept free for them.
func (k *maker) goesIn(i int, o *build.Thing) string {
	const spare = 1.0 // mm that more is kept free
	t := &k.Things[i]
	deep := 0.0
	for _, c := range o.Element.Tucks {
		if c.With != t.Element.ID {
			continue
		}
		for _, p := range k.Pieces[o.From:o.To] {
			if p.ID.Part != c.Part || p.Outline.Empty() {
				continue
			}
			if in, err := p.Outline.Intersect(t.Outline); err == nil && !in.Empty() {
				b := in.Bounds()
				deep = max(deep, min(b.W(), b.H()))
			}
		}
	}
	if deep < spare {
		return ""
	}
	return fmt.Sprintf(" by %s (%s are kept free)", escaped(k.format(deep)), escaped(k.format(deep+spare)))
}

// escaped is a name within a format.
func escaped(name string) string { return strings.ReplaceAll(name, "%", "%%") }

// partOrIt is what a person calls a part within a sentence, or the whole where that is meant.
func (k *maker) partOrIt(e card.Element, part, it string) string {
	if part == "" {
		return it
	}
	return k.partName(e, part)
}

// partOf is a part with the thing it is of; the thing itself where all of it is meant.
func (k *maker) partOf(t *build.Thing, part string) string {
	if part == "" {
		return words.Small(t.Name)
	}
	return k.partName(t.Element, part) + " of " + t.Name
}

// partName is what a person calls a part of an element within a sentence.
func (k *maker) partName(e card.Element, part string) string {
	name := k.PartName(e, part)
	return words.Small(name)
}

// cutFrom is the sheet letters are cut out of; nil for plain card, and for a sheet that is
// gone.
func (k *maker) cutFrom(l *card.Letters) *build.Thing {
	if l.From == nil {
		return nil
	}
	for i := range k.Things {
		if t := &k.Things[i]; t.Element.ID == l.From.Sheet && t.Element.Sheet != nil && t.Element.Face == card.Beside {
			return t
		}
	}
	return nil
}

// off says how far a spot is off the middle.
func (k *maker) off(s card.Spot) string {
	say := func(v float64, more, less string) string {
		if v < 0 {
			v, more = -v, less
		}
		return k.format(v) + " " + more
	}
	switch {
	case s.X == 0 && s.Y == 0:
		return "on the sheet's"
	case s.Y == 0:
		return say(s.X, "to the right of", "to the left of") + " the sheet's"
	case s.X == 0:
		return say(s.Y, "below", "above") + " the sheet's"
	}
	return say(s.X, "to the right of", "to the left of") + " and " + say(s.Y, "below", "above") + " the sheet's"
}
