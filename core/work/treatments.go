package work

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/words"
)

// Verbs of what is done to sheets, beside printing and blending.
const (
	Splash = "splash" // drops of ink or water
	Paint  = "paint"  // a stroke
	Press  = "press"  // dry emboss
	Glaze  = "glaze"  // a clear coat
	Open   = "open"   // cut the openings
	Score  = "score"  // fold a flap
	Tape   = "tape"   // low-tack tape over what stays bare
)

// How long things stay wet, minutes: our own defaults; the product's label goes first.
const (
	waterWet = 5.0
	glazeWet = 60.0
	sprayWet = 10.0
	pasteWet = 30.0
)

// treats is a sheet in hand while its treatments are thought of.
type treats struct {
	*maker
	t    build.Thing
	leaf Thing
	n    int // of its treatments
	seq  int // acts so far, which go in turn
}

// treat does to a sheet what is to be done, in order.
func (k *maker) treat(t build.Thing, leaf Thing) {
	in := treats{maker: k, t: t, leaf: leaf}
	for n, tr := range t.Element.Sheet.Treatments {
		if in.n = n; n < len(t.Treated) && t.Treated[n].Problem != "" {
			continue
		}
		from := len(k.acts)
		switch {
		case tr.Words != nil:
			in.words(*tr.Words)
		case tr.Turned != nil:
			in.turned(*tr.Turned)
		case tr.Print != nil:
			in.print(*tr.Print)
		case tr.Fade != nil:
			in.fade(*tr.Fade)
		case tr.Bands != nil:
			in.bands(*tr.Bands)
		case tr.Stencil != nil:
			in.stencil(*tr.Stencil)
		case tr.Splash != nil:
			in.splash(*tr.Splash)
		case tr.Stroke != nil:
			in.stroke(*tr.Stroke)
		case tr.Pressed != nil:
			in.pressed(*tr.Pressed)
		case tr.Edged != nil:
			in.edged(*tr.Edged)
		case tr.Glaze != nil:
			in.glaze(*tr.Glaze)
		}
		in.marked(from)
		for i := range k.acts[from:] {
			k.acts[from+i].treats = n + 1
		}
	}
}

// layer is the ink of the treatment in hand, as rules of order name it.
func (k *treats) layer(part string) Thing {
	if k.n > 0 {
		part = fmt.Sprintf("%s %d", part, k.n+1)
	}
	return Thing{Element: k.t.Element.ID, Part: part}
}

// step names an act of the treatment in hand; the first of a sheet by the sheet alone.
func (k *treats) step(verb, part string, n int) card.Step {
	id := card.Step{Verb: verb, Element: k.t.Element.ID, Part: part, N: n}
	if k.n > 0 {
		id.Part = strings.TrimSpace(fmt.Sprintf("%s %d", part, k.n+1))
	}
	return id
}

// lay adds an act that lays something on the sheet, after all that was laid before.
func (k *treats) lay(phase int, a Act, f facts) {
	on := medium{}
	if s := k.t.Element.Sheet; s != nil {
		on.paper = s.Paper
	}
	k.layOn(phase, a, f, on)
}

// layOn is lay on what there is where it goes.
func (k *treats) layOn(phase int, a Act, f facts, on medium) {
	k.seq++
	f.leaf, f.seq, f.series = k.leaf, k.seq, k.leaf
	f.masked = append(f.masked, k.stand()...)
	if a.Ink != "" {
		a = k.minded(a, a.Ink, on)
	}
	k.add(phase, a, f)
}

// stand are the prints on the sheet that are masked while the treatment in hand is done.
func (k *treats) stand() (out []string) {
	for i := range k.Things {
		if under, inks := k.InkedAround(i); under != nil && under.Element.ID == k.t.Element.ID && slices.Contains(inks, k.n) {
			out = append(out, k.Things[i].Element.ID)
		}
	}
	return out
}

// on is where a treatment goes, in words.
func (k *treats) on() string { return words.Small(k.t.Name) }

// words stamps words on a sheet.
func (k *treats) words(w card.Words) {
	id := k.step(Print, "", 0)
	layer := k.layer(wordsOf)
	where := ""
	switch {
	case w.Bend > 0:
		where = fmt.Sprintf(" On an arc of %s.", k.format(w.Bend))
	case w.Bend < 0:
		where = fmt.Sprintf(" In an arc of %s.", k.format(-w.Bend))
	}
	kind, verb, with := PrintAct, "Stamp", "the stamp"
	if k.byHand(w.Ink) {
		kind, verb, with = InkAct, "Write", ""
	}
	if rest := w.Besides(); len(rest) > 0 && kind == PrintAct {
		where += fmt.Sprintf(" The stamp says more: cover “%s” with low-tack tape while you ink it and take the tape off before you strike, or ink “%s” alone with a marker. Don't cut the stamp.", strings.Join(rest, "” and “"), w.Text)
	}
	k.lay(phaseInk, k.inked(Act{ID: id, Kind: kind, Title: verb + " “" + w.Text + "”",
		Detail: fmt.Sprintf("%s on %s.%s", k.loaded(w.Finish(), with), k.Stock.PaperName(k.t.Element.Sheet.Paper), where)}, w.Ink), facts{inks: []Thing{layer}, tone: k.tone(w.Ink)})
	what := "the strip"
	if k.t.Leaf != nil || k.t.Element.Sheet.Words() == nil || len(k.t.Element.Sheet.Treatments) > 1 {
		what = "the words"
	}
	if !w.Emboss {
		k.heat(id, what, k.leaf, []Thing{layer}, inksOf(w.Finish())...)
		return
	}
	id.Verb = Heat
	k.add(phaseHeat, Act{ID: id, Kind: HeatAct, Title: "Heat emboss " + what, Detail: powdered, Cautions: []string{powderCaution}}, facts{leaf: k.leaf, heats: []Thing{layer}})
}

// froms says where fades begin, in words.
var froms = map[card.From]string{card.FromAll: "all over", card.FromLeft: "from the left edge", card.FromRight: "from the right edge", card.FromTop: "from the top", card.FromFoot: "from the foot",
	card.FromTopLeft: "from the top left corner", card.FromTopRight: "from the top right corner", card.FromBottomLeft: "from the bottom left corner", card.FromBottomRight: "from the bottom right corner",
	card.FromEdge: "from the edge all round", card.FromMiddle: "from the middle", card.FromSpot: "from its spot"}

func (k *treats) fade(f card.Fade) {
	for i, ink := range f.Inks {
		how := fmt.Sprintf("%s, %s", k.Stock.InkName(ink), froms[f.From])
		if f.From == card.FromImage {
			how = fmt.Sprintf("%s, a glow round %s, which is masked, or laid on after", k.Stock.InkName(ink), k.called(f.Round))
		}
		if f.From != card.FromAll {
			how += fmt.Sprintf(", faded out at %s", k.format(f.Reach*float64(i+1)/float64(len(f.Inks))))
		}
		how += ". " + offTheEdge(f.From) + "First touch on scrap, with little ink; little and often, in circles both ways."
		if i > 0 {
			how += " Go back over the join with the ink before."
		}
		if n := f.Passes(); n > 1 {
			how += fmt.Sprintf(" Go over it %d times.", n)
		}
		layer := k.layer(fmt.Sprint("fade ", i+1))
		id := k.step(Blend, "fade", i+1)
		k.lay(phaseInk, k.inked(Act{ID: id, Kind: InkAct, Title: fmt.Sprintf("Blend %s into %s", k.Stock.InkName(ink), k.on()), Detail: how}, ink), facts{inks: []Thing{layer}, tone: k.tone(ink)})
		k.heat(card.Step{Element: k.t.Element.ID, Part: layer.Part}, "the blend on "+k.on(), k.leaf, []Thing{layer}, ink)
	}
}

// offTheEdge says that a fade which begins at an edge begins beyond it.
func offTheEdge(from card.From) string {
	switch from {
	case card.FromMiddle, card.FromSpot, card.FromImage:
		return ""
	}
	return "Start off the sheet and work in. "
}

// called is what a person calls an element.
func (k *treats) called(element string) string {
	for _, t := range k.Things {
		if t.Element.ID == element {
			return t.Name
		}
	}
	return "an image"
}

func (k *treats) bands(b card.Bands) {
	sum := k.format(b.Sum())
	way := map[bool]string{true: "upright", false: "across"}[b.Up]
	edge := func(mm float64) string {
		if mm == 0 {
			return "the edge"
		}
		return k.format(mm)
	}
	k.lay(phaseInk, Act{ID: k.step(Tape, "bands", 0), Kind: MaskAct, Title: fmt.Sprintf("Mark %d bands %s on %s", len(b.Bands), way, k.on()),
		Detail: fmt.Sprintf("Lightly in pencil, from %s on: %s in all. Tape both sides of each band with low-tack tape while it is inked.", edge(b.Start), sum)}, facts{})
	inks, at := []string{}, map[string][]string{}
	pos := b.Start
	for i, x := range b.Bands {
		if at[x.Ink] == nil {
			inks = append(inks, x.Ink)
		}
		at[x.Ink] = append(at[x.Ink], fmt.Sprintf("band %d, %s to %s", i+1, edge(pos), k.format(pos+x.W)))
		pos += x.W + b.Gap
	}
	for n, ink := range inks {
		layer := k.layer("bands " + ink)
		k.lay(phaseInk, k.inked(Act{ID: k.step(Blend, "bands", n+1), Kind: InkAct, Title: fmt.Sprintf("Ink bands of %s in %s", k.on(), k.Stock.InkName(ink)),
			Detail: strings.Join(at[ink], "; ") + "."}, ink), facts{inks: []Thing{layer}, tone: k.tone(ink)})
		k.heat(card.Step{Element: k.t.Element.ID, Part: layer.Part}, "the bands on "+k.on(), k.leaf, []Thing{layer}, ink)
	}
}

func (k *treats) stencil(s card.Stencil) {
	name := "the stencil"
	if set, ok := k.Stock.Set(s.Set); ok {
		if p, ok := set.Part(s.Part); ok {
			name = p.Label + " of " + set.Name
		}
	}
	how := "Hinge it along one edge with low-tack tape, so that it comes back to its place."
	if n := len(s.Shifts); n > 0 {
		how += " Then " + words.Of(n, "once more, shifted", fmt.Sprintf("%d times more, shifted", n))
		flips := 0
		for _, x := range s.Shifts {
			if x.Flip {
				flips++
			}
		}
		if flips > 0 {
			some := fmt.Sprintf("%d of them ", flips)
			if n == flips {
				some = ""
			}
			how += fmt.Sprintf(", %sface down so that the repeat is not seen: wipe and dry it before it is turned over", some)
		}
		how += "."
	}
	a := Act{ID: k.step(Print, "stencil", 0), Kind: PrintAct, Title: fmt.Sprintf("Stencil %s on %s", name, k.on()), Detail: fmt.Sprintf("%s. %s", k.Stock.InkName(s.Ink), how)}
	if k.inOthers(s) {
		a.Detail += " Wipe it between colours."
	}
	a.Detail += k.through(s)
	a = k.inked(a, s.Ink)
	var over []Thing
	if s.Over {
		a.Detail += " Lay its etched lines over what is printed there."
		over = k.printedOn()
		if n := k.t.Treated[k.n].Taped; n > 0 {
			a.Detail += fmt.Sprintf(" First cover the %s that have no print beneath with tape.", openings(n))
		}
	}
	if s.Paste {
		a.Title, a.Minutes = strings.Replace(a.Title, "Stencil ", "Paste through ", 1), cmp.Or(s.Minutes, pasteWet)
		a.Detail += " Draw it level with the blade, lift straight up, and wash the stencil at once. Park it flat while it dries."
	}
	layer := k.layer("stencil")
	lies := fmt.Sprint(k.t.Element.ID, s.Spot)
	if len(s.Shifts) > 0 {
		lies = fmt.Sprint(lies, k.n) // it is taken up again and again
	}
	k.lay(phaseInk, a, facts{inks: []Thing{layer}, over: over, tool: tool{stamp: s.Set + "/" + s.Part, called: name, stencil: true}, tone: k.tone(s.Ink), laid: lies})
	if !s.Paste {
		k.heat(card.Step{Element: k.t.Element.ID, Part: layer.Part}, "the stencilling on "+k.on(), k.leaf, []Thing{layer}, s.Ink)
	}
}

// through says at the first inking of a stencil that goes over several images or inks which ink goes on
// what, and how often it is wiped when all is done in the lighter inks first.
func (k *treats) through(s card.Stencil) string {
	all := k.Throughs(s.Set, s.Part)
	table := k.Table(all)
	if len(table) == 0 || all[0].N != k.n || k.thingAt(all[0].Thing).ID != k.t.Element.ID {
		return ""
	}
	var tones []colour.Lab
	var seen []string
	for _, a := range all {
		if !slices.Contains(seen, a.Ink) {
			seen, tones = append(seen, a.Ink), append(tones, k.tone(a.Ink))
		}
	}
	_, washes := Washes(tones)
	say := fmt.Sprintf(" It is inked %s: %s.", words.Of(len(all), "once", fmt.Sprintf("%d times", len(all))), strings.Join(table, "; "))
	if len(tones) > 1 {
		say += fmt.Sprintf(" All of one ink after another, the lightest first, it is wiped %s.", words.Of(washes, "once", fmt.Sprintf("%d times", washes)))
	}
	return say
}

// thingAt is the element of a thing by its number; that of the front leaf for -1.
func (k *treats) thingAt(i int) card.Element {
	if i < 0 {
		return k.Base.Element
	}
	return k.Things[i].Element
}

// inOthers reports whether a stencil is inked in another ink too on the card.
func (k *treats) inOthers(s card.Stencil) bool {
	return slices.ContainsFunc(k.Things, func(t build.Thing) bool { return inkedOtherwise(t.Element.Sheet, s) }) || inkedOtherwise(k.Base.Element.Sheet, s)
}

func inkedOtherwise(on *card.Sheet, s card.Stencil) bool {
	return on != nil && slices.ContainsFunc(on.Treatments, func(t card.Treatment) bool {
		o := t.Stencil
		return o != nil && o.Set == s.Set && o.Part == s.Part && o.Ink != s.Ink
	})
}

func openings(n int) string {
	if n == 1 {
		return "opening"
	}
	return fmt.Sprintf("%d openings", n)
}

func (k *treats) splash(s card.Splash) {
	where := "all over"
	if s.Reach > 0 {
		where = fmt.Sprintf("within %s of its spot, the rest covered with scrap", k.format(s.Reach))
	}
	a := Act{ID: k.step(Splash, "", 0), Kind: InkAct, Title: "Splash water on " + k.on(), Minutes: waterWet,
		Detail: fmt.Sprintf("About %s of %s, %s: try it on scrap first. %s, then blot: the longer it lies, the more it lifts.", words.Count(s.Drops, "drop"), k.format(s.Size), where, dwells(s.Dwell))}
	if s.Ink != "" {
		a = k.inked(a, s.Ink)
		a.Title = fmt.Sprintf("Splash %s on %s", k.Stock.InkName(s.Ink), k.on())
		a.Detail = fmt.Sprintf("About %s of %s, %s. Tap a loaded brush over your finger; scrap all round. Park it flat while it dries.", words.Count(s.Drops, "drop"), k.format(s.Size), where)
		a.Minutes = max(a.Minutes, waterWet)
	}
	k.lay(phaseInk, a, facts{inks: []Thing{k.layer("splash")}, tone: k.tone(s.Ink)})
}

// usualDwell is how long water may lie where nobody said, seconds: our own default.
const usualDwell = 20.0

// dwells says how long water lies before it is blotted.
func dwells(seconds float64) string {
	if seconds <= 0 {
		return fmt.Sprintf("Nobody said how long it lies: wait about %.0f seconds", usualDwell)
	}
	return fmt.Sprintf("Wait %.0f %s", seconds, words.Of(int(seconds+0.5), "second", "seconds"))
}

func (k *treats) stroke(s card.Stroke) {
	layer := k.layer("stroke")
	k.lay(phaseInk, k.inked(Act{ID: k.step(Paint, "", 0), Kind: InkAct, Title: fmt.Sprintf("Paint a stroke on %s", k.on()),
		Detail: fmt.Sprintf("%s, %s wide, in one go, with a nearly dry brush: the first stroke on scrap.", k.Stock.InkName(s.Ink), k.format(s.W))}, s.Ink), facts{inks: []Thing{layer}, tone: k.tone(s.Ink)})
	k.heat(card.Step{Element: k.t.Element.ID, Part: layer.Part}, "the stroke on "+k.on(), k.leaf, []Thing{layer}, s.Ink)
}

func (k *treats) pressed(p card.Pressed) {
	k.lay(phaseInk, Act{ID: k.step(Press, "", 0), Kind: CutAct, Title: "Dry emboss " + k.on(),
		Detail: fmt.Sprintf("Press the %s in, with the machine's own stack of plates for it. Ink only after that runs over the raised parts.", p.Relief)}, facts{inks: []Thing{k.layer("press")}})
}

func (k *treats) edged(x card.Edged) {
	k.lay(phaseInk, Act{ID: k.step(Tape, "edge", 0), Kind: MaskAct, Title: "Tape off " + k.on(),
		Detail: fmt.Sprintf("Low-tack tape %s in from every edge, rubbed down along its inner side.", k.format(x.W))}, facts{})
	layer := k.layer("edge")
	k.lay(phaseInk, k.inked(Act{ID: k.step(Edge, "", 0), Kind: InkAct, Title: fmt.Sprintf("Ink the edge of %s", k.on()),
		Detail: fmt.Sprintf("%s, from the tape outwards. Take the tape off while it is moist.", k.Stock.InkName(x.Ink))}, x.Ink), facts{inks: []Thing{layer}, tone: k.tone(x.Ink)})
	k.heat(card.Step{Element: k.t.Element.ID, Part: layer.Part}, "the edge of "+k.on(), k.leaf, []Thing{layer}, x.Ink)
}

func (k *treats) glaze(g card.Glaze) {
	a := Act{ID: k.step(Glaze, "", 0), Kind: InkAct, Title: words.Capital(string(g.Kind)) + " on " + k.on(), Minutes: cmp.Or(g.Minutes, glazeWet),
		Detail: "An even coat, from the edge inwards; prick bubbles. Park it flat and level, and do other work meanwhile."}
	if g.Reach > 0 {
		a.Detail = fmt.Sprintf("Within %s of its spot. ", k.format(g.Reach)) + a.Detail
	}
	if g.Kind != card.Gloss {
		a.Minutes = cmp.Or(g.Minutes, sprayWet)
		a.Detail = "From a hand's length away, moving; the rest of the bench covered. Park it flat while it dries."
		a.Cautions = []string{"Sprays: air the room, no flame, away from eyes and pets. The can's label goes first."}
	}
	if p, ok := k.Stock.Paper(k.t.Element.Sheet.Paper); ok && p.GSM > 0 && p.GSM < thinCard {
		a.Mind = append(a.Mind, fmt.Sprintf("A wet coat warps %s: as soon as nothing comes off, let it dry to the end flat under a weight.", p.Name))
	}
	k.lay(phaseInk, a, facts{inks: []Thing{k.layer("glaze")}})
}
