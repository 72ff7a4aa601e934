package plan

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/work"
)

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
	return fmt.Sprintf("%s:%s:%s:%s", what, k.m.ID, k.w.ID, k.pm.img.Shapes.Views[layer].Layer.ID)
}

func (k *maker) name(layer int) string {
	n := k.pm.img.Shapes.Views[layer].Layer.Label
	if len(k.m.Colourways) > 1 {
		n += ", " + k.w.Name
	}
	return n
}

func (k *maker) run() {
	for i, v := range k.pm.img.Shapes.Views {
		switch {
		case v.Layer.Make != card.Cut:
			k.print(i)
		case v.Layer.After:
			k.inkSheet(i)
		default:
			k.cut(i)
		}
	}
	for i, v := range k.pm.img.Shapes.Views {
		if v.Layer.Make == card.Cut && v.Layer.After {
			k.cutAfter(i)
		}
	}
	last := ""
	for i, v := range k.pm.img.Shapes.Views {
		if v.Layer.Make != card.Cut {
			continue
		}
		k.pop(i)
		k.plies(i)
		if v.Host >= 0 {
			last = k.glue(i, last)
		}
	}
}

func (k *maker) step(s work.Step, layer int) work.Step {
	s.Motif, s.Layer = k.m.ID, k.pm.img.Shapes.Views[layer].Layer.ID
	return s
}

func (k *maker) cut(i int) {
	v := k.pm.img.Shapes.Views[i]
	f := k.w.Layers[v.Layer.ID]
	n := k.times * max(1, v.Layer.Copies) * max(1, v.Part.Copies)
	id := k.id("cut", i)
	k.l.Add(phaseCut, k.step(work.Step{ID: id, Kind: work.CutStep, Title: fmt.Sprintf("Cut %s × %d", k.name(i), n),
		Detail: fmt.Sprintf("From %s. Leave the piece in its sheet for inking.", k.b.kit.PaperName(f.Paper))}, i))
	k.dry[i] = id
	if f.Ink == "" {
		k.dry[i] = k.heat(i, k.hottest(f), k.blends(i, f, id))
		return
	}
	ink := k.id("ink", i)
	k.l.Add(phaseInk, k.step(k.inked(work.Step{ID: ink, Kind: work.InkStep, Title: "Ink " + k.name(i),
		Detail: fmt.Sprintf("%s%s. Lightly, edges too, so that no white core shows.", k.b.kit.InkName(f.Ink), strikes(f))}, f), i), work.Need{Step: id, Why: whyCutFirst})
	k.dry[i] = k.heat(i, k.hottest(f), k.blends(i, f, ink))
}

// inkSheet inks the sheet of a piece that is cut out after it is printed on.
func (k *maker) inkSheet(i int) {
	v := k.pm.img.Shapes.Views[i]
	f := k.w.Layers[v.Layer.ID]
	if f.Ink == "" {
		return
	}
	id := k.id("ink", i)
	k.l.Add(phaseInk, k.step(k.inked(work.Step{ID: id, Kind: work.InkStep, Title: "Ink the sheet of " + k.name(i),
		Detail: fmt.Sprintf("%s%s, a little past where the die will cut.", k.b.kit.InkName(f.Ink), strikes(f))}, f), i))
	k.dry[i] = k.heat(i, k.hottest(f), k.blends(i, f, id))
}

// cutAfter cuts a piece out once all that is printed on it is dry.
func (k *maker) cutAfter(i int) {
	v := k.pm.img.Shapes.Views[i]
	f := k.w.Layers[v.Layer.ID]
	n := k.times * max(1, v.Layer.Copies) * max(1, v.Part.Copies)
	id := k.id("cut", i)
	need := []work.Need{{Step: k.dry[i], Why: whyDry}}
	for _, s := range k.made[i] {
		need = append(need, work.Need{Step: s, Why: whyDry})
	}
	detail := fmt.Sprintf("Lay the die round the print on %s, even all round, and tape it down.", k.b.kit.PaperName(f.Paper))
	if len(k.made[i]) == 0 {
		detail = fmt.Sprintf("Lay the die on the inked sheet of %s and tape it down.", k.b.kit.PaperName(f.Paper))
		if f.Ink == "" {
			detail = fmt.Sprintf("From %s.", k.b.kit.PaperName(f.Paper))
		}
	}
	k.l.Add(phaseInk, k.step(work.Step{ID: id, Kind: work.CutStep, Title: fmt.Sprintf("Cut %s out × %d", k.name(i), n),
		Detail:   detail,
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
	if i, ok := k.b.kit.Ink(f.Ink); ok {
		s.Minutes = i.Minutes()
		if i.Kind == kit.Alcohol {
			s.Cautions = append(s.Cautions, "Alcohol ink: air the room, no flame, not near the heat tool.")
		}
		if i.Kind == kit.Embossing {
			s.Cautions = append(s.Cautions, powderCaution)
		}
	}
	return s
}

// heat adds the heat setting of a layer's ink, and returns the step after which
// it is dry.
func (k *maker) heat(i int, f card.Finish, after string) string {
	ink, ok := k.b.kit.Ink(f.Ink)
	if !ok || !ink.Heat() {
		return after
	}
	id := k.id("heat", i)
	s := work.Step{ID: id, Kind: work.HeatStep, Title: "Heat set " + k.name(i),
		Detail: fmt.Sprintf("%s needs heat. Warm it evenly, keep the tool moving.", ink.Name)}
	if ink.Kind == kit.Embossing {
		s.Title, s.Detail, s.Cautions = "Heat emboss "+k.name(i), powdered, []string{powderCaution}
	}
	k.l.Add(phaseHeat, k.step(s, i), work.Need{Step: after, Why: whySet})
	return id
}

func (k *maker) print(i int) {
	v := k.pm.img.Shapes.Views[i]
	f := k.w.Layers[v.Layer.ID]
	if f.Ink == "" {
		return // bare paper is a legitimate layer
	}
	on, carrier := k.b.panelStep(), k.b.panelName()
	if v.Host >= 0 {
		carrier = k.pm.img.Shapes.Views[v.Host].Layer.Label
		if d := k.dry[v.Host]; d != "" {
			on = d
		}
	}
	need := []work.Need{{Step: on, Why: whyHostFirst}}
	if k.m.School == card.LightGround {
		for j := range i {
			if w := k.pm.img.Shapes.Views[j]; w.Layer.Make != card.Cut && !w.Layer.Accent && !v.Layer.Accent && w.Layer.Rank < v.Layer.Rank && k.dry[j] != "" {
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
		Detail: fmt.Sprintf(detail, k.b.kit.InkName(f.Ink), strikes(f), k.dabbed(f), carrier)}, f), i), need...)
	k.dry[i] = k.heat(i, k.hottest(f), id)
	if p := k.piece(i); p >= 0 {
		k.made[p] = append(k.made[p], k.dry[i])
	} else {
		k.b.onPanel = append(k.b.onPanel, id)
		if k.dry[i] != id {
			k.b.onPanel = append(k.b.onPanel, k.dry[i])
		}
	}
}

// piece is the cut layer that carries layer i in the end, or Ground.
func (k *maker) piece(i int) int {
	for i >= 0 && k.pm.img.Shapes.Views[i].Layer.Make != card.Cut {
		i = k.pm.img.Shapes.Views[i].Host
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

// plies glues the copies of a layer that is cut more than once into one piece.
func (k *maker) plies(i int) {
	n := k.pm.img.Shapes.Views[i].Layer.Copies
	if n < 2 {
		return
	}
	k.l.Add(phasePop, k.step(work.Step{ID: k.id("plies", i), Kind: work.GlueStep, Title: fmt.Sprintf("Glue the %d plies of %s into one", n, k.name(i)),
		Detail: "Edge on edge, the inked one on top, dots of glue well inside; press it flat."}, i), work.Need{Step: k.id("pop", i), Why: whyMade})
}

// ready is the step after which a cut layer is one piece in the hand.
func (k *maker) ready(i int) string {
	if k.pm.img.Shapes.Views[i].Layer.Copies > 1 {
		return k.id("plies", i)
	}
	return k.id("pop", i)
}

func (k *maker) glue(i int, last string) string {
	v := k.pm.img.Shapes.Views[i]
	id := k.id("glue", i)
	need := []work.Need{{Step: k.ready(i), Why: whyMade}}
	if h := k.piece(v.Host); h >= 0 {
		need = append(need, work.Need{Step: k.ready(h), Why: whyUnder})
	}
	need = append(need, work.Need{Step: last, Why: whyUnder})
	k.l.Add(phaseStack, k.step(k.b.joined(work.Step{ID: id, Title: fmt.Sprintf("%s onto %s", k.name(i), k.pm.img.Shapes.Views[v.Host].Layer.Label)}, v.Layer.Joint), i), need...)
	return id
}
