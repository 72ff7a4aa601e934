package plan

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/front"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
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
	if p, ok := b.kit.Paper(id); ok {
		return p.Name
	}
	return "card"
}

func (b *builder) inkName(id string) string {
	if i, ok := b.kit.Ink(id); ok {
		return i.Name
	}
	return "ink"
}

func (b *builder) baseSteps(l *work.List) {
	c := b.card.Base
	stock := measure.Letter
	if p, ok := b.kit.Paper(c.Paper); ok && p.W > 0 && p.H > 0 {
		stock = measure.Size{W: p.W, H: p.H}
	}
	cut := measure.BaseFor(c.Size(), c.Fold, stock)
	from := fmt.Sprintf("One stock sheet gives %d.", cut.PerSheet)
	if cut.PerSheet == 0 {
		from = "The stock sheet in the stores is too small for it."
	}
	l.Add(phaseCut, work.Step{ID: "base", Kind: work.CutStep, Title: "Cut and score the card base",
		Detail: fmt.Sprintf("%s, %s; score at %s, fold at the %s. %s", b.kit.PaperName(c.Paper), b.size(cut.Sheet), b.o.format(cut.ScoreAt), c.Fold, from)})
	panels, err := front.Sheets(b.card)
	if err != nil {
		return // said in a finding of its own
	}
	for i, s := range b.sheets {
		shows := fmt.Sprintf("%s of what lies beneath shows all round.", b.o.format(s.Border))
		if s.Border == 0 {
			shows = "As large as what lies beneath: every skew of it will show."
		}
		l.Add(phaseCut, work.Step{ID: "cut:" + s.ID, Kind: work.CutStep, Title: "Cut " + b.sheetName(s.ID),
			Detail: fmt.Sprintf("%s, %s. %s", b.kit.PaperName(s.Paper), b.size(panels[i].Size), shows)})
	}
}

// panelStep is the id of the step that makes the sheet images lie on.
func (b *builder) panelStep() string {
	if n := len(b.sheets); n > 0 {
		return "cut:" + b.sheets[n-1].ID
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

// How powder is laid on and melted, and the usual caution.
const (
	powdered      = "Powder on, let it rest a moment, flick off the excess, then melt it from beneath."
	powderCaution = "Embossing powder is not for breathing: pour low, lid on."
)

// joined fills in how a part is held.
func (b *builder) joined(s work.Step, j card.Joint) work.Step {
	switch j.Kind {
	case card.Foamed:
		s.Kind = work.FoamStep
		name := "foam"
		if sp, ok := b.kit.Spacer(j.Spacer); ok {
			name = sp.Name
		}
		s.Detail = fmt.Sprintf("On %s, %d high, back from the edge. It grabs at once: sight first.", name, max(1, j.Levels))
	case card.Loose:
		s.Kind = work.GlueStep
		s.Detail = "Laid only, not stuck."
	default:
		s.Kind = work.GlueStep
		s.Detail = "Glue, back from the edge."
		if a, ok := b.kit.Adhesive(j.Glue); ok {
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
	var placed, onPrints []string
	printed := b.onPanel
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
			// Printed straight on the panel: nothing to put down, but what is glued on
			// the print belongs on it before the panel is mounted.
			for _, n := range b.motifDone(l, e.Motif, e.Colourway) {
				onPrints = append(onPrints, n.Step)
			}
			continue
		}
		s := b.joined(work.Step{ID: id, Title: b.label(e) + " onto " + b.panelName(), Element: e.ID}, e.Joint)
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
	b.mountSteps(l, slices.Concat(placed, onPrints, printed))
}

func placedStep(placed []string, element string) string {
	for _, p := range placed {
		if p == "place:"+element {
			return p
		}
	}
	return ""
}

// hair is how far, mm, two elements may lie over each other without it counting.
const hair = 0.1

// overlap reports whether two elements, by their place in the card, lie over
// each other.
func (b *builder) overlap(i, j int) bool {
	if b.rough == nil {
		b.rough = make([]shape.Region, len(b.outlines))
		for k, g := range b.outlines {
			b.rough[k] = g.Simplify(hair)
		}
	}
	return b.rough[i].Overlaps(b.rough[j])
}

func (b *builder) isCut(e card.Element) bool {
	m, ok := b.card.Motif(e.Motif)
	return ok && len(m.Layers) > 0 && m.Layers[0].Make == card.Cut
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
	ink := b.kit.InkName(s.Ink)
	st := work.Step{ID: print, Kind: work.PrintStep, Title: "Stamp “" + s.Text + "”", Detail: fmt.Sprintf("%s on %s.", ink, b.kit.PaperName(s.Paper)), Ink: s.Ink, Element: e.ID}
	hot := s.Emboss
	if i, ok := b.kit.Ink(s.Ink); ok {
		st.Minutes, hot = i.Minutes(), hot || i.Heat()
	}
	l.Add(phaseInk, st)
	last := print
	if hot {
		last = "heat:" + e.ID
		h := work.Step{ID: last, Kind: work.HeatStep, Title: "Heat set the strip", Detail: "Warm it evenly, keep the tool moving.", Element: e.ID}
		if s.Emboss {
			h.Title, h.Detail = "Heat emboss the strip", powdered
			h.Cautions = []string{powderCaution}
		}
		l.Add(phaseHeat, h, work.Need{Step: print, Why: whySet})
	}
	l.Add(phasePop, work.Step{ID: cut, Kind: work.CutStep, Title: "Cut the strip", Detail: b.size(measure.Size{W: s.W, H: s.H}) + ", the words in its middle.", Element: e.ID}, work.Need{Step: last, Why: whyDry})
	return cut
}

// mountSteps joins the sheets from the top down and mounts them on the base.
func (b *builder) mountSteps(l *work.List, finished []string) {
	above := finished
	for i := len(b.sheets) - 1; i >= 0; i-- {
		s := b.sheets[i]
		on := "the card base"
		under := "base"
		if i > 0 {
			on, under = b.sheetName(b.sheets[i-1].ID), "cut:"+b.sheets[i-1].ID
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
