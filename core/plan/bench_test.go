package plan_test

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/work"
)

// table is a small bench: card is cut, gets wet, dries, is heated, popped, stuck and
// covered on it, and what cannot be done says so. It knows the card and what paper and
// ink do (common practice, no source), and nothing of the rules the program orders by.
type table struct {
	b        build.Build
	acts     []work.Act
	cut      map[thing]bool
	inked    map[thing]bool // layers and words
	wet      map[thing]bool // inked with what stays wet until it is heated
	popped   map[thing]bool
	plied    map[thing]bool
	stuck    map[thing]bool // pieces onto pieces
	placed   map[string]bool
	mounted  map[string]bool
	masked   map[string]bool
	touched  map[string]bool // leaves that something was put on
	strikes  map[string]int  // of patterns, by element
	foamed   bool
	finished bool
	filmed   string          // where an arrangement is: in its film, or down and peeled
	gemmed   bool            // gems are on: nothing can be pressed flat any more
	opened   map[string]bool // sheets whose openings are cut
	done     map[string]int  // by sheet: which of its treatments came last
	trimmed  map[string]bool // panels whose overhang is off

}

type thing struct{ element, motif, colourway, part string }

func newTable(b build.Build, acts []work.Act) *table {
	t := &table{b: b, acts: acts, strikes: map[string]int{}, placed: map[string]bool{}, mounted: map[string]bool{}, masked: map[string]bool{}, touched: map[string]bool{}, opened: map[string]bool{}, done: map[string]int{}, trimmed: map[string]bool{}}
	t.cut, t.inked, t.wet, t.popped, t.plied, t.stuck = map[thing]bool{}, map[thing]bool{}, map[thing]bool{}, map[thing]bool{}, map[thing]bool{}, map[thing]bool{}
	return t
}

// made is the image in a colourway an act is about.
func (t *table) made(id card.Step) *build.Made {
	for i := range t.b.Made {
		if m := &t.b.Made[i]; m.Image.ID == id.Motif && m.Colourway.ID == id.Colourway {
			return m
		}
	}
	return nil
}

func (t *table) has(id card.Step) bool {
	return slices.ContainsFunc(t.acts, func(a work.Act) bool { return a.ID == id })
}

// hot tells whether an ink stays wet until it is heated.
func (t *table) hot(inks ...string) bool {
	return slices.ContainsFunc(inks, func(id string) bool { i, ok := t.b.Stock.Ink(id); return ok && i.Heat() })
}

func (t *table) do(a work.Act) error {
	if t.finished {
		return errors.New("the card is in its envelope already")
	}
	id := a.ID
	if m := t.made(id); m != nil {
		return t.image(a, m)
	}
	leaf := thing{element: id.Element}
	e, _ := t.b.Card.Element(id.Element)
	words := thing{element: id.Element, part: "words"}
	if e.Letters != nil {
		return t.letters(a, e)
	}
	if e.Shaker != nil {
		return t.shaker(a, e)
	}
	if id.Element == "" && id.Motif == "" && id.Verb != work.Fold && id.Verb != work.Finish && id.Verb != work.TrimEdge && id.Verb != work.LiftFilm && id.Verb != work.PeelFilm && id.Verb != work.GlueAgain {
		return t.onBase(a)
	}
	if e.Sheet != nil && len(a.Ink) > 0 && id.Verb != work.Print {
		return t.treat(a, e)
	}
	switch id.Verb {
	case work.Fold:
		t.cut[thing{}] = true
	case work.Cut:
		if e.Sheet != nil && plainStrip(e) {
			if !t.inked[words] || t.wet[words] {
				return errors.New("the strip is cut before its words stand dry in its middle")
			}
		}
		t.cut[leaf] = true
	case work.Tape, work.Press, work.Glaze, work.Splash:
		return t.treat(a, e)
	case work.Open, work.Score:
		if !t.cut[leaf] {
			return errors.New("there is no sheet to cut into")
		}
		for l := range t.wet {
			if l.element == id.Element && t.wet[l] {
				return errors.New("it is wet, and tears")
			}
		}
		for _, b := range t.acts {
			if b.ID.Element == id.Element && b.Ink != "" && !t.inked[thing{element: id.Element, part: b.Key}] {
				return fmt.Errorf("it is cut before “%s”, and ink runs through the hole", b.Title)
			}
		}
		t.opened[id.Element] = true
	case work.Elsewhere:
		for _, b := range t.acts {
			if b.ID.Element == id.Element && b.Ink != "" && !t.inked[thing{element: id.Element, part: b.Key}] {
				return fmt.Errorf("it is stuck in before “%s”", b.Title)
			}
		}
		if e.Sheet != nil && !t.cut[leaf] {
			return errors.New("it is not cut yet")
		}
		t.placed[id.Element] = true
	case work.TrimEdge:
		if t.mounted[id.Element] {
			return errors.New("the panel is on its base, and the blade would cut that too")
		}
		for i, th := range t.b.Things {
			if th.Overhang > 0 && !t.placed[th.Element.ID] {
				return fmt.Errorf("%s, which hangs over, is not on yet", th.Name)
			}
			for j, r := range t.b.Things {
				if th.Overhang > 0 && j > i && r.Element.Ribbon != nil && t.placed[r.Element.ID] && t.blade(th, r) {
					return fmt.Errorf("the blade goes through %s", r.Name)
				}
			}
		}
		t.trimmed[id.Element] = true
	case work.Tie:
		if t.mounted[t.b.Carrier(e).Element] && e.Ribbon.Wrapped {
			return errors.New("it cannot go round what is mounted already")
		}
		if t.gemmed {
			return errors.New("it is laid over the gems")
		}

		return t.place(e)
	case work.Print:
		if err := t.treat(a, e); err != nil {
			return err
		}
		if len(e.Sheet.Treatments) > 1 && e.Sheet.Turned() == nil || e.Sheet.Words() == nil && e.Sheet.Turned() == nil {
			break
		}
		if e.Sheet.Turned() != nil {
			if !t.cut[leaf] {
				return errors.New("there is no sheet to turn")
			}
			return t.strike(a, e)
		}
		t.inked[words], t.wet[words] = true, t.hot(a.Ink) || e.Sheet.Words().Emboss
	case work.Heat:
		if t.foamed {
			return errors.New("the heat tool warps the foam that is on already")
		}
		t.wet[words] = false
		for l := range t.wet {
			if l.element == id.Element {
				t.wet[l] = false
			}
		}
	case work.Trim:
		if want := t.prints(e); t.strikes[id.Element] < want {
			return fmt.Errorf("trimmed after %d of %d strikes", t.strikes[id.Element], want)
		}
	case work.Mask:
		return t.mask(id.Element)
	case work.Place:
		return t.place(e)
	case work.LiftFilm:
		t.filmed = "lifted"
	case work.PeelFilm:
		for _, th := range t.b.Things {
			if th.Element.Film && !t.placed[th.Element.ID] {
				return fmt.Errorf("%s is not glued yet", th.Name)
			}
		}
		if len(t.mounted) > 0 && t.filmed != "lifted" {
			return errors.New("nothing is in the film")
		}
		t.filmed = "peeled"
	case work.GlueAgain:
		if t.filmed != "peeled" {
			return errors.New("the film is on it")
		}
	case work.Mount:
		if t.has(card.Step{Verb: work.PeelFilm}) && t.filmed != "peeled" {
			return errors.New("the film is not off yet")
		}
		return t.mount(e)
	case work.Gems:
		t.gemmed = true
		t.placed[e.ID] = true
	case work.Finish:
		t.finished = true
		for _, th := range t.b.Things {
			if th.Leaf != nil && !t.mounted[th.Element.ID] {
				return fmt.Errorf("%s is not on the card yet", th.Name)
			}
			if th.Leaf == nil && th.Leaves > 0 && !(th.Printed && !t.grounded(th)) && !t.placed[th.Element.ID] {
				return fmt.Errorf("%s is not on the card yet", th.Name)
			}
		}
	default:
		return fmt.Errorf("nobody knows how to %s", id.Verb)
	}
	return nil
}

// prints is how many strikes of stamps a pattern takes.
func (t *table) prints(e card.Element) (n int) {
	for _, a := range t.acts {
		if a.ID.Element == e.ID && a.ID.Verb == work.Print {
			n++
		}
	}
	return n
}

// strike prints one strike of a pattern: the sheet is turned from the last by one step, so
// the count has to be kept.
func (t *table) strike(a work.Act, e card.Element) error {
	n, turns := t.strikes[e.ID], e.Sheet.Turned().Turns
	if a.ID.N != n%turns+1 {
		return fmt.Errorf("strike %d comes when the sheet stands for strike %d", a.ID.N, n%turns+1)
	}
	l := thing{element: e.ID, part: a.ID.Part}
	if n%turns > 0 && !t.inked[l] {
		return errors.New("the stamp was changed in the middle of the turns")
	}
	t.strikes[e.ID]++
	t.inked[l], t.wet[l] = true, t.hot(a.Ink)
	return nil
}

// grounded tells whether a piece of an image is laid on what carries it.
func (t *table) grounded(th build.Thing) bool {
	return th.Made >= 0 && slices.ContainsFunc(t.b.Made[th.Made].Image.Shapes.Views, func(v motif.View) bool { return v.Host == motif.Ground && v.Layer.Make == card.Cut })
}

func (t *table) place(e card.Element) error {
	i := slices.IndexFunc(t.b.Things, func(th build.Thing) bool { return th.Element.ID == e.ID })
	if e.Film && t.filmed != "lifted" {
		return errors.New("it is not in the film yet")
	}
	for _, o := range t.b.Things[:i] {
		if !e.Film && o.Element.Film && t.filmed != "peeled" && o.Outline.Overlaps(t.b.Things[i].Outline) && t.has(card.Step{Verb: work.PeelFilm}) {
			return fmt.Errorf("the film is on %s, and it lies over that", o.Name)
		}
	}
	if e.Sheet != nil && !t.cut[thing{element: e.ID}] {
		return errors.New("it is not cut yet")
	}
	if e.Sheet != nil && len(e.Sheet.Openings) > 0 && !t.opened[e.ID] {
		return errors.New("its openings are not cut")
	}
	if e.Sheet != nil && e.Sheet.Trim > 0 && t.strikes[e.ID] < t.prints(e) {
		return errors.New("it is not printed yet")
	}
	if m := t.b.Things[i].Made; m >= 0 {
		made := &t.b.Made[m]
		for k, v := range made.Image.Shapes.Views {
			l := thing{motif: made.Image.ID, colourway: made.Colourway.ID, part: v.Layer.ID}
			if v.Layer.Make == card.Cut && (!t.popped[l] || v.Host != motif.Ground && leafBelow(made, k) != motif.Ground && !t.stuck[l] || v.Layer.Copies > 1 && !t.plied[l]) {
				return fmt.Errorf("%s is not on it yet", v.Layer.Label)
			}
		}
	}
	if e.Image != nil && e.Image.Cutout != nil && !t.popped[thing{motif: e.Image.Motif, colourway: e.Image.Colourway, part: "its card"}] {
		return errors.New("it is not cut out yet")
	}
	on := t.b.Carrier(e)
	if !t.cut[thing{element: on.Element}] || t.mounted[on.Element] {
		return errors.New("what carries it is not there, or mounted already")
	}
	for j := i + 1; j < len(t.b.Things); j++ {
		if o := t.b.Things[j]; o.Element.On != e.ID && t.placed[o.Element.ID] && o.Outline.Overlaps(t.b.Things[i].Outline.Simplify(0.1)) && o.Outline.Simplify(0.1).Overlaps(t.b.Things[i].Outline.Simplify(0.1)) {
			return fmt.Errorf("%s lies over its place already", o.Name)
		}
	}
	if t.gemmed {
		return errors.New("it cannot be pressed down among the gems")
	}
	t.placed[e.ID], t.touched[on.Element] = true, true
	t.foamed = t.foamed || card.Raised(e.Bonds) || e.Sheet != nil && t.shy(e.Sheet.Paper)
	return nil
}

// plainStrip tells a strip of words and nothing else: it is cut round them.
func plainStrip(e card.Element) bool {
	s := e.Sheet
	return e.Face == card.Front && len(s.Treatments) == 1 && s.Words() != nil && e.Inset == nil && s.Shape == nil && len(s.Openings) == 0 && s.Flap == nil
}

// treat does something to a sheet: what is printed over something is printed after it, as
// the sheet says.
func (t *table) treat(a work.Act, e card.Element) error {
	if !t.cut[thing{element: e.ID}] && !plainStrip(e) {
		return errors.New("there is no sheet yet")
	}
	if t.opened[e.ID] {
		return errors.New("it has its holes already")
	}
	if t.mounted[e.ID] || t.placed[e.ID] || t.touched[e.ID] {
		return errors.New("it is stuck down already, or something is stuck on it")
	}
	// The treatment's number stands at the end of the part; the first has none.
	n := 1
	if _, err := fmt.Sscan(a.ID.Part[strings.LastIndex(a.ID.Part, " ")+1:], &n); err != nil || e.Sheet.Turned() != nil {
		n = 1
	}
	if n < t.done[e.ID] {
		return fmt.Errorf("it comes after treatment %d, which lies over it", t.done[e.ID])
	}
	t.done[e.ID] = n
	l := thing{element: e.ID, part: a.Key}
	t.inked[l] = true
	return nil
}

// onBase does something to the card base itself.
func (t *table) onBase(_ work.Act) error {
	if !t.cut[thing{}] {
		return errors.New("there is no base yet")
	}
	if t.touched[""] {
		return errors.New("something is stuck on it already")
	}
	for _, th := range t.b.Things {
		if t.mounted[th.Element.ID] && t.b.Carrier(th.Element).Element == "" {
			return errors.New("a mat is mounted on it already")
		}
	}
	return nil
}

// letters does an act on words cut from card.
func (t *table) letters(a work.Act, e card.Element) error {
	own, shadow := thing{element: e.ID, part: "letters"}, thing{element: e.ID, part: "shadow"}
	switch a.ID.Verb {
	case work.Cut:
		if a.ID.Part == build.ShadowPart {
			t.cut[shadow] = true
		} else {
			if from := e.Letters.From; from != nil {
				for _, b := range t.acts {
					if b.ID.Element == from.Sheet && b.Ink != "" && !t.inked[thing{element: from.Sheet, part: b.Key}] {
						return fmt.Errorf("they are cut out of the sheet before “%s”", b.Title)
					}
				}
				for l := range t.wet {
					if l.element == from.Sheet && t.wet[l] {
						return errors.New("the sheet they are cut out of is wet, and tears")
					}
				}
			}
			t.cut[own] = true
		}
	case work.Plies:
		if !t.cut[own] {
			return errors.New("no letter is cut")
		}
		t.plied[own] = true
	case work.Glue:
		if !t.cut[own] || !t.cut[shadow] || e.Letters.Times() > 1 && !t.plied[own] {
			return errors.New("the letters are not stacked yet, or there is no shadow")
		}
		t.stuck[own] = true
	case work.Place:
		if !t.cut[own] || e.Letters.Times() > 1 && !t.plied[own] || e.Letters.Shadow != nil && !t.stuck[own] {
			return errors.New("the letters are not ready")
		}
		return t.place(e)
	default:
		return fmt.Errorf("nobody knows how to %s letters", a.ID.Verb)
	}
	return nil
}

// shaker does an act on a shaker: it lies face down, and is built up from its front.
func (t *table) shaker(a work.Act, e card.Element) error {
	part := func(p string) thing { return thing{element: e.ID, part: p} }
	s := e.Shaker
	filmed := s.Film != "" && !s.Pouch
	switch {
	case a.ID.Verb == work.Cut:
		t.cut[part(a.ID.Part)] = true
	case a.ID.Verb == work.Fill:
		if !s.Pouch && !t.stuck[part("wall")] {
			return errors.New("there is no wall yet: it runs out at the sides")
		}
		if t.stuck[part("back")] {
			return errors.New("it is closed already")
		}
		t.stuck[part("filling")] = true
	case a.ID.Verb == work.Place:
		if !t.stuck[part("back")] {
			return errors.New("it is open at the back, and all falls out")
		}
		t.foamed = true
		return t.place(e)
	case a.ID.Part == "film":
		if !t.cut[part("film")] || !t.cut[part("front")] {
			return errors.New("there is no film yet, or no front")
		}
		if t.stuck[part("wall")] {
			return errors.New("the wall is on the front already: the film cannot lie flat behind the window")
		}
		t.stuck[part("film")], t.foamed = true, true
	case a.ID.Part == "wall":
		if !t.cut[part("front")] || filmed && !t.stuck[part("film")] || s.Pouch && len(s.Filling) > 0 && !t.stuck[part("filling")] {
			return errors.New("there is nothing to build the wall on yet")
		}
		t.stuck[part("wall")], t.foamed = true, true
	case a.ID.Part == "back":
		if !t.cut[part("back")] || !t.stuck[part("wall")] {
			return errors.New("there is no backing yet, or nothing to close")
		}
		if len(s.Filling) > 0 && !t.stuck[part("filling")] {
			return errors.New("it is closed with nothing in it")
		}
		t.stuck[part("back")] = true
	default:
		return fmt.Errorf("nobody knows how to %s a shaker", a.ID.Verb)
	}
	return nil
}

func (t *table) mount(e card.Element) error {
	on := t.b.Carrier(e)
	if !t.cut[thing{element: e.ID}] || !t.cut[thing{element: on.Element}] {
		return errors.New("it is not cut yet, or what it goes on")
	}
	if t.mounted[on.Element] {
		return errors.New("what it goes on is mounted already, and cannot be laid flat")
	}
	if t.gemmed {
		return errors.New("it cannot be pressed flat: gems are on it")
	}
	if t.has(card.Step{Verb: work.TrimEdge, Element: e.ID}) && !t.trimmed[e.ID] {
		return errors.New("what hangs over it is not trimmed")
	}
	if len(e.Sheet.Openings) > 0 && !t.opened[e.ID] {
		return errors.New("its openings are not cut")
	}
	t.mounted[e.ID] = true
	t.foamed = t.foamed || card.Raised(e.Bonds) || e.Sheet != nil && t.shy(e.Sheet.Paper)
	return nil
}

// shy tells whether heat warps a paper.
func (t *table) shy(paper string) bool {
	p, ok := t.b.Stock.Paper(paper)
	return ok && (p.Kind == kit.PaperVellum || p.Kind == kit.PaperAcetate || p.Kind == kit.PaperFoam)
}

// lay does all acts in order; it gives the first that cannot be done, and why.
func (t *table) lay(acts []work.Act) error {
	for _, a := range acts {
		if err := t.do(a); err != nil {
			return fmt.Errorf("step %d, “%s”: %w", a.Number, a.Title, err)
		}
	}
	if !t.finished {
		return errors.New("the card is not finished")
	}
	return nil
}
