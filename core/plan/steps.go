package plan

import (
	"fmt"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/front"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/work"
)

// Phases of the work: steps that like to be done together.
const (
	phaseCut = iota
	phaseInk
	phaseHeat
	phasePop
	phaseStack
	phaseFlat
	phaseRaise
	phaseMount
	phaseEnd
)

// Reasons given for what must come first.
const (
	whyCutFirst   = "the piece must be cut before it is inked"
	whyDry        = "wet card tears and wet ink smears"
	whyUnder      = "it lies under the next piece"
	whyHeatFoam   = "a hot air tool warps foam and acetate"
	whyRaised     = "stamping beside raised work goes wrong"
	whyMade       = "it must be made before it is put on"
	whyHostFirst  = "the print needs what it is printed on"
	whyLightFirst = "lightest first carries less dirt and the dark covers small errors"
	whyFlatFirst  = "flat parts go on before raised ones"
	whyBaseLast   = "the panel is finished before it goes on its base"
	whySet        = "ink that needs heat stays wet until it is set"
)

// steps lists what there is to do and puts it in order.
func (b *builder) steps() {
	var l work.List
	b.baseSteps(&l)
	for mi := range b.plan.Motifs {
		if b.plan.Motifs[mi].Problem == "" {
			b.motifSteps(&l, &b.plan.Motifs[mi], b.card.Motifs[mi])
		}
	}
	b.patternSteps(&l)
	b.placeSteps(&l)
	b.heatBeforeFoam(&l)
	ordered, err := l.Order()
	if err != nil {
		b.add(Finding{ID: "steps", Severity: Spoils, What: "The steps wait for each other", Why: err.Error() + ".", Do: "Change which layer sits on which."})
		ordered = l.Steps()
	}
	b.ordered, b.breaches = work.Rearrange(ordered, b.card.Work.Order)
	done := map[string]bool{}
	for _, id := range b.card.Work.Done {
		done[id] = true
	}
	for i := range b.ordered {
		b.ordered[i].Done = done[b.ordered[i].ID]
	}
	b.plan.Steps = b.ordered
}

func (b *builder) size(s measure.Size) string {
	return fmt.Sprintf("%s × %s", b.o.format(s.W), b.o.format(s.H))
}

func (b *builder) paperName(id string) string {
	if p, ok := b.kit.paper[id]; ok {
		return p.Name
	}
	return "card"
}

func (b *builder) inkName(id string) string {
	if i, ok := b.kit.ink[id]; ok {
		return i.Name
	}
	return "ink"
}

func (b *builder) baseSteps(l *work.List) {
	c := b.card.Base
	stock := measure.Letter
	if p, ok := b.kit.paper[c.Paper]; ok && p.W > 0 && p.H > 0 {
		stock = measure.Size{W: p.W, H: p.H}
	}
	cut := measure.BaseFor(c.Size(), c.Fold, stock)
	from := fmt.Sprintf("One stock sheet gives %d.", cut.PerSheet)
	if cut.PerSheet == 0 {
		from = "The stock sheet in the stores is too small for it."
	}
	l.Add(phaseCut, work.Step{ID: "base", Kind: work.CutStep, Title: "Cut and score the card base",
		Detail: fmt.Sprintf("%s, %s; score at %s, fold at the %s. %s", b.paperName(c.Paper), b.size(cut.Sheet), b.o.format(cut.ScoreAt), c.Fold, from)})
	panels, err := front.Sheets(b.card)
	if err != nil {
		return
	}
	for i, s := range b.card.Sheets {
		l.Add(phaseCut, work.Step{ID: "cut:" + s.ID, Kind: work.CutStep, Title: "Cut " + b.sheetName(s.ID),
			Detail: fmt.Sprintf("%s, %s. %s shows all round.", b.paperName(s.Paper), b.size(panels[i].Size), b.o.format(s.Border))})
	}
}

// panelStep is the id of the step that makes the sheet images lie on.
func (b *builder) panelStep() string {
	if n := len(b.card.Sheets); n > 0 {
		return "cut:" + b.card.Sheets[n-1].ID
	}
	return "base"
}

// motifSteps adds the making of every colourway of an image that is used.
func (b *builder) motifSteps(l *work.List, pm *Motif, m card.Motif) {
	for _, w := range m.Colourways {
		times := 0
		for _, e := range b.card.Elements {
			if e.Motif == m.ID && e.Colourway == w.ID {
				times++
			}
		}
		if times == 0 {
			continue
		}
		mk := maker{b: b, l: l, pm: pm, m: m, w: w, times: times, dry: map[int]string{}, made: map[int][]string{}}
		mk.run()
	}
}

// maker adds the steps of one colourway of one image.
type maker struct {
	b     *builder
	l     *work.List
	pm    *Motif
	m     card.Motif
	w     card.Colourway
	times int
	dry   map[int]string   // per layer: the step after which its ink is dry
	made  map[int][]string // per layer: steps that finish the piece itself
}

func (k *maker) id(what string, layer int) string {
	return fmt.Sprintf("%s:%s:%s:%s", what, k.m.ID, k.w.ID, k.pm.img.Views[layer].Layer.ID)
}

func (k *maker) name(layer int) string {
	n := k.pm.img.Views[layer].Layer.Label
	if len(k.m.Colourways) > 1 {
		n += ", " + k.w.Name
	}
	return n
}

func (k *maker) run() {
	for i, v := range k.pm.img.Views {
		switch {
		case v.Layer.Make != card.Cut:
			k.print(i)
		case v.Layer.After:
			k.inkSheet(i)
		default:
			k.cut(i)
		}
	}
	for i, v := range k.pm.img.Views {
		if v.Layer.Make == card.Cut && v.Layer.After {
			k.cutAfter(i)
		}
	}
	last := ""
	for i, v := range k.pm.img.Views {
		if v.Layer.Make != card.Cut {
			continue
		}
		k.pop(i)
		if v.Host >= 0 {
			last = k.glue(i, last)
		}
	}
}

func (k *maker) step(s work.Step, layer int) work.Step {
	s.Motif, s.Layer = k.m.ID, k.pm.img.Views[layer].Layer.ID
	return s
}

func (k *maker) cut(i int) {
	v := k.pm.img.Views[i]
	f := k.w.Layers[v.Layer.ID]
	n := k.times * max(1, v.Layer.Copies) * max(1, v.Part.Copies)
	id := k.id("cut", i)
	k.l.Add(phaseCut, k.step(work.Step{ID: id, Kind: work.CutStep, Title: fmt.Sprintf("Cut %s × %d", k.name(i), n),
		Detail: fmt.Sprintf("From %s. Leave the piece in its sheet for inking.", k.b.paperName(f.Paper))}, i))
	k.dry[i] = id
	if f.Ink == "" {
		k.dry[i] = k.heat(i, k.hottest(f), k.blends(i, f, id))
		return
	}
	ink := k.id("ink", i)
	k.l.Add(phaseInk, k.step(k.inked(work.Step{ID: ink, Kind: work.InkStep, Title: "Ink " + k.name(i),
		Detail: fmt.Sprintf("%s%s. Lightly, edges too, so that no white core shows.", k.b.inkName(f.Ink), strikes(f))}, f), i), work.Need{Step: id, Why: whyCutFirst})
	k.dry[i] = k.heat(i, k.hottest(f), k.blends(i, f, ink))
}

// inkSheet inks the sheet of a piece that is cut out after it is printed on.
func (k *maker) inkSheet(i int) {
	v := k.pm.img.Views[i]
	f := k.w.Layers[v.Layer.ID]
	if f.Ink == "" {
		return
	}
	id := k.id("ink", i)
	k.l.Add(phaseInk, k.step(k.inked(work.Step{ID: id, Kind: work.InkStep, Title: "Ink the sheet of " + k.name(i),
		Detail: fmt.Sprintf("%s%s, a little past where the die will cut.", k.b.inkName(f.Ink), strikes(f))}, f), i))
	k.dry[i] = k.heat(i, k.hottest(f), k.blends(i, f, id))
}

// cutAfter cuts a piece out once all that is printed on it is dry.
func (k *maker) cutAfter(i int) {
	v := k.pm.img.Views[i]
	f := k.w.Layers[v.Layer.ID]
	n := k.times * max(1, v.Layer.Copies) * max(1, v.Part.Copies)
	id := k.id("cut", i)
	need := []work.Need{{Step: k.dry[i], Why: whyDry}}
	for _, s := range k.made[i] {
		need = append(need, work.Need{Step: s, Why: whyDry})
	}
	k.l.Add(phaseInk, k.step(work.Step{ID: id, Kind: work.CutStep, Title: fmt.Sprintf("Cut %s out × %d", k.name(i), n),
		Detail:   fmt.Sprintf("Lay the die round the print on %s, even all round, and tape it down.", k.b.paperName(f.Paper)),
		Cautions: []string{"The cutting edge is sharp: hold the die by its rim. Keep fingers off the rollers."}}, i), need...)
	k.dry[i] = id
}

func strikes(f card.Finish) string {
	if n := f.Strikes(); n > 1 {
		return fmt.Sprintf(", %d impressions", n)
	}
	return ""
}

func (k *maker) inked(s work.Step, f card.Finish) work.Step {
	s.Ink = f.Ink
	if i, ok := k.b.kit.ink[f.Ink]; ok {
		s.Minutes = i.Minutes()
		if i.Kind == kit.Alcohol {
			s.Cautions = append(s.Cautions, "Alcohol ink: air the room, no flame, not near the heat tool.")
		}
		if i.Kind == kit.Embossing {
			s.Cautions = append(s.Cautions, "Embossing powder is not for breathing: pour low, lid on.")
		}
	}
	return s
}

// heat adds the heat setting of a layer's ink, and returns the step after which
// it is dry.
func (k *maker) heat(i int, f card.Finish, after string) string {
	ink, ok := k.b.kit.ink[f.Ink]
	if !ok || !ink.Heat() {
		return after
	}
	id := k.id("heat", i)
	k.l.Add(phaseHeat, k.step(work.Step{ID: id, Kind: work.HeatStep, Title: "Heat set " + k.name(i),
		Detail: fmt.Sprintf("%s needs heat. Warm it evenly, keep the tool moving.", ink.Name)}, i), work.Need{Step: after, Why: whySet})
	return id
}

func (k *maker) print(i int) {
	v := k.pm.img.Views[i]
	f := k.w.Layers[v.Layer.ID]
	if f.Ink == "" {
		return // bare paper is a legitimate layer
	}
	on, carrier := k.b.panelStep(), "the panel"
	if v.Host >= 0 {
		carrier = k.pm.img.Views[v.Host].Layer.Label
		if d := k.dry[v.Host]; d != "" {
			on = d
		}
	}
	need := []work.Need{{Step: on, Why: whyHostFirst}}
	if k.m.School == card.LightGround {
		for j := range i {
			if w := k.pm.img.Views[j]; w.Layer.Make != card.Cut && !w.Layer.Accent && !v.Layer.Accent && w.Layer.Rank < v.Layer.Rank && k.dry[j] != "" {
				need = append(need, work.Need{Step: k.dry[j], Why: whyLightFirst})
			}
		}
	}
	id := k.id("print", i)
	title, detail := "Stamp %s × %d", "%s%s%s on %s. Look before you lift the stamp."
	if v.Layer.Make == card.Stencilled {
		title, detail = "Stencil %s × %d", "%s%s%s through its opening, the etched lines laid over what is there on %s, one edge hinged with tape. Wipe the stencil before another colour."
	}
	k.l.Add(phaseInk, k.step(k.inked(work.Step{ID: id, Kind: work.PrintStep, Title: fmt.Sprintf(title, k.name(i), k.times),
		Detail: fmt.Sprintf(detail, k.b.inkName(f.Ink), strikes(f), k.dabbed(f), carrier)}, f), i), need...)
	k.dry[i] = k.heat(i, k.hottest(f), id)
	if v.Host >= 0 {
		k.made[k.piece(i)] = append(k.made[k.piece(i)], k.dry[i])
	}
}

// piece is the cut layer that carries layer i in the end, or Ground.
func (k *maker) piece(i int) int {
	for i >= 0 && k.pm.img.Views[i].Layer.Make != card.Cut {
		i = k.pm.img.Views[i].Host
	}
	return i
}

func (k *maker) pop(i int) {
	need := []work.Need{{Step: k.dry[i], Why: whyDry}}
	for _, s := range k.made[i] {
		need = append(need, work.Need{Step: s, Why: whyDry})
	}
	k.l.Add(phasePop, k.step(work.Step{ID: k.id("pop", i), Kind: work.PopStep, Title: "Pop out " + k.name(i),
		Detail: "Once it is dry. Lay the pieces on low-tack tape in gluing order."}, i), need...)
}

func (k *maker) glue(i int, last string) string {
	v := k.pm.img.Views[i]
	id := k.id("glue", i)
	need := []work.Need{{Step: k.id("pop", i), Why: whyMade}}
	if h := k.piece(v.Host); h >= 0 {
		need = append(need, work.Need{Step: k.id("pop", h), Why: whyUnder})
	}
	need = append(need, work.Need{Step: last, Why: whyUnder})
	k.l.Add(phaseStack, k.step(k.b.joined(work.Step{ID: id, Title: fmt.Sprintf("%s onto %s", k.name(i), k.pm.img.Views[v.Host].Layer.Label)}, v.Layer.Joint), i), need...)
	return id
}

// joined fills in how a part is held.
func (b *builder) joined(s work.Step, j card.Joint) work.Step {
	switch j.Kind {
	case card.Foamed:
		s.Kind = work.FoamStep
		name := "foam"
		if sp, ok := b.kit.spacer[j.Spacer]; ok {
			name = sp.Name
		}
		s.Detail = fmt.Sprintf("On %s, %d high, back from the edge. It grabs at once: sight first.", name, max(1, j.Levels))
	case card.Loose:
		s.Kind = work.GlueStep
		s.Detail = "Laid only, not stuck."
	default:
		s.Kind = work.GlueStep
		s.Detail = "Glue, back from the edge."
		if a, ok := b.kit.adhesive[j.Glue]; ok {
			s.Detail = a.Name + ", back from the edge."
			if a.Wiggle {
				s.Detail += " There is time to move it."
			}
			s.Minutes = a.SetMinutes
			if a.Kind == "spray" {
				s.Cautions = append(s.Cautions, "Spray adhesive: air the room, no flame, away from eyes and pets. The can's label goes first.")
			}
		}
	}
	return s
}

// placeSteps puts everything on the panel and the panel on the base.
func (b *builder) placeSteps(l *work.List) {
	var placed []string
	printed := b.printedOnPanel(l)
	for i, e := range b.card.Elements {
		id := "place:" + e.ID
		need := []work.Need{{Step: b.panelStep(), Why: whyMade}}
		for _, p := range printed {
			need = append(need, work.Need{Step: p, Why: whyRaised})
		}
		switch {
		case e.Kind == card.StripElement && e.Strip != nil:
			need = append(need, work.Need{Step: b.stripSteps(l, e), Why: whyMade})
		case b.isCut(e):
			m, _ := b.card.Motif(e.Motif)
			need = append(need, b.motifDone(l, m.ID, e.Colourway)...)
		default:
			continue // printed straight on the panel: nothing to put down
		}
		s := b.joined(work.Step{ID: id, Title: b.label(e) + " onto the panel", Element: e.ID}, e.Joint)
		phase := phaseFlat
		if s.Kind == work.FoamStep {
			phase = phaseRaise
		}
		for j := range i {
			if b.overlap(i, j) {
				need = append(need, work.Need{Step: placedStep(placed, b.card.Elements[j].ID), Why: whyUnder})
			}
		}
		l.Add(phase, s, need...)
		placed = append(placed, id)
	}
	b.mountSteps(l, append(placed, printed...))
}

func placedStep(placed []string, element string) string {
	for _, p := range placed {
		if p == "place:"+element {
			return p
		}
	}
	return ""
}

// overlap reports whether two elements, by their place in the card, lie over
// each other.
func (b *builder) overlap(i, j int) bool {
	return b.outlines[i].Overlaps(b.outlines[j])
}

func (b *builder) isCut(e card.Element) bool {
	m, ok := b.card.Motif(e.Motif)
	return ok && len(m.Layers) > 0 && m.Layers[0].Make == card.Cut
}

// printedOnPanel lists the steps that print on or heat the panel itself.
func (b *builder) printedOnPanel(l *work.List) []string {
	var out []string
	for _, s := range l.Steps() {
		m, ok := b.card.Motif(s.Motif)
		if ok && len(m.Layers) > 0 && m.Layers[0].Make == card.Printed && (s.Kind == work.PrintStep || s.Kind == work.HeatStep) {
			out = append(out, s.ID)
		}
	}
	return out
}

// motifDone lists the last steps of an image's making.
func (b *builder) motifDone(l *work.List, motif, way string) []work.Need {
	var out []work.Need
	for _, s := range l.Steps() {
		if s.Motif == motif && strings.Contains(s.ID, ":"+motif+":"+way+":") && (s.Kind == work.GlueStep || s.Kind == work.FoamStep || s.Kind == work.PopStep) {
			out = append(out, work.Need{Step: s.ID, Why: whyMade})
		}
	}
	return out
}

// stripSteps makes a text strip and returns its last step.
func (b *builder) stripSteps(l *work.List, e card.Element) string {
	s := e.Strip
	cut, print := "cut:"+e.ID, "print:"+e.ID
	ink := b.inkName(s.Ink)
	st := work.Step{ID: print, Kind: work.PrintStep, Title: "Stamp “" + s.Text + "”", Detail: fmt.Sprintf("%s on %s.", ink, b.paperName(s.Paper)), Ink: s.Ink, Element: e.ID}
	hot := s.Emboss
	if i, ok := b.kit.ink[s.Ink]; ok {
		st.Minutes, hot = i.Minutes(), hot || i.Heat()
	}
	l.Add(phaseInk, st)
	last := print
	if hot {
		last = "heat:" + e.ID
		h := work.Step{ID: last, Kind: work.HeatStep, Title: "Heat set the strip", Detail: "Warm it evenly, keep the tool moving.", Element: e.ID}
		if s.Emboss {
			h.Title, h.Detail = "Heat emboss the strip", "Powder on, flick off the excess, let it rest a moment, then melt it from beneath."
			h.Cautions = []string{"Embossing powder is not for breathing: pour low, lid on."}
		}
		l.Add(phaseHeat, h, work.Need{Step: print, Why: whySet})
	}
	l.Add(phasePop, work.Step{ID: cut, Kind: work.CutStep, Title: "Cut the strip", Detail: b.size(measure.Size{W: s.W, H: s.H}) + ", the words in its middle.", Element: e.ID}, work.Need{Step: last, Why: whyDry})
	return cut
}

// mountSteps joins the sheets from the top down and mounts them on the base.
func (b *builder) mountSteps(l *work.List, finished []string) {
	n := len(b.card.Sheets)
	above := finished
	for i := n - 1; i >= 0; i-- {
		s := b.card.Sheets[i]
		on := "the card base"
		under := "base"
		if i > 0 {
			on, under = b.sheetName(b.card.Sheets[i-1].ID), "cut:"+b.card.Sheets[i-1].ID
		}
		name := b.sheetName(s.ID)
		st := b.joined(work.Step{ID: "mount:" + s.ID, Title: strings.ToUpper(name[:1]) + name[1:] + " onto " + on}, s.Joint)
		need := []work.Need{{Step: "cut:" + s.ID, Why: whyMade}, {Step: under, Why: whyMade}}
		for _, a := range above {
			need = append(need, work.Need{Step: a, Why: whyBaseLast})
		}
		l.Add(phaseMount, st, need...)
		above = []string{st.ID}
	}
	need := []work.Need{{Step: "base", Why: whyMade}}
	for _, a := range above {
		need = append(need, work.Need{Step: a, Why: whyBaseLast})
	}
	end := work.Step{ID: "finish", Kind: work.CheckStep, Title: "The inside and the envelope", Detail: "Write inside, look over the edges, lay the card in its envelope before you seal it."}
	if e, ok := b.kit.Envelope(b.card.Base.Envelope); ok {
		end.Detail = fmt.Sprintf("Write inside, look over the edges, try it in the %s before you seal it.", e.Name)
	}
	l.Add(phaseEnd, end, need...)
}

// heatBeforeFoam lets no hot step follow a step with foam.
func (b *builder) heatBeforeFoam(l *work.List) {
	var hot, foam []string
	for _, s := range l.Steps() {
		switch s.Kind {
		case work.HeatStep:
			hot = append(hot, s.ID)
		case work.FoamStep:
			foam = append(foam, s.ID)
		}
	}
	for _, f := range foam {
		for _, h := range hot {
			l.Needs(f, h, whyHeatFoam)
		}
	}
}
