package work

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// Group is a stretch of the work that is done in one go, as people work.
type Group string

// Groups, in the order they are usually met.
const (
	CutGroup    Group = "cut"
	InkGroup    Group = "ink and print"
	StackGroup  Group = "stack the images"
	BuildGroup  Group = "build the front"
	FinishGroup Group = "finish"
)

// groupOf is the group of a phase.
func groupOf(phase int) Group {
	switch phase {
	case phaseCut:
		return CutGroup
	case phaseInk, phaseHeat:
		return InkGroup
	case phasePop, phaseStack:
		return StackGroup
	case phaseFlat, phaseRaise, phaseMount:
		return BuildGroup
	}
	return FinishGroup
}

// Told returns acts in their order as they are told to a person: each with its group, and
// each caution once, where it first matters.
func Told(acts []Act) []Act {
	out := slices.Clone(acts)
	said := map[string]bool{}
	for i := range out {
		out[i].Group = groupOf(out[i].phase)
		fresh := []string{}
		for _, c := range out[i].Cautions {
			if !said[c] {
				fresh = append(fresh, c)
			}
			said[c] = true
		}
		out[i].Cautions = fresh
	}
	mindOnce(out)
	keep(out)
	final(out)
	alike(out)
	return out
}

// alike says how an act is done the same on all cards and pieces, where it is done on more
// than one: where the stamp stays while the paper is changed, and which way pieces face.
func alike(acts []Act) {
	for i := range acts {
		a := &acts[i]
		n := max(1, a.Cards) * max(1, a.times)
		switch {
		case n < 2:
		case a.stamp != "" && a.spots > 1 && max(1, a.Cards) > 1:
			a.Alike = fmt.Sprintf("One place after another: all %d cards at a place before the stamp is set to the next.", a.Cards)
		case a.stamp != "" && a.spots > 1:
		case a.stamp != "" && a.hole:
			a.Alike = fmt.Sprintf("All %d in the hole of the first waste sheet: the stamp need not be moved.", n)
		case a.stamp != "" && !a.stencil && a.leaf.Motif == "":
			a.Alike = fmt.Sprintf("All %d with the stamp where it is: only the paper is changed, into the same corner.", n)
		}
		if a.left > 0 && a.left < a.times {
			a.Alike = strings.TrimSpace(fmt.Sprintf("%s First the %d as drawn, then the %d left for right.", a.Alike, (a.times-a.left)*max(1, a.Cards), a.left*max(1, a.Cards)))
		}
	}
}

// keep marks the acts that leave a stamp in place for later strikes, one after the other.
func keep(acts []Act) {
	for i := 0; i < len(acts); i++ {
		a := &acts[i]
		if a.stamp == "" {
			continue
		}
		last := i
		for j := i + 1; j < len(acts); j++ {
			if acts[j].stamp == a.stamp && acts[j].laid == a.laid {
				last = j
			} else if acts[j].stamp != "" {
				break
			}
		}
		if last > i {
			what := "stamp"
			if a.stencil {
				what = "stencil"
			}
			a.Keep = fmt.Sprintf("Leave the %s where it is until step %d.", what, acts[last].Number)
			i = last
		}
	}
}

// points are the rules whose breaking cannot be mended once it is done, with what is over
// after the first act they keep back.
var points = map[string]string{
	"heat before foam": "From here on no hot air tool near this card: it warps what goes on now.",
	"closed":           "After this nothing more goes in.",
	"trimmed":          "After this what hangs over can no longer be trimmed.",
	"gems last":        "From here on nothing can be pressed flat.",
}

// final marks points of no return: each once, at the act after which there is no way back.
func final(acts []Act) {
	said := map[string]bool{}
	for i := range acts {
		a := &acts[i]
		for _, n := range a.After {
			over, ok := points[n.Rule]
			if !ok || said[n.Rule] || n.Rule == "closed" && a.ID.Part != build.BackPart || n.Rule == "trimmed" && a.ID.Verb != Mount {
				continue
			}
			said[n.Rule] = true
			a.Final = over
			break
		}
	}
}

// Supply is a sort of thing to have at hand before the work begins.
type Supply struct {
	Kind  string   `json:"kind" doc:"what sort: tools, cardstock, inks, ..."`
	Names []string `json:"names" nullable:"false"`
}

// Supplies are those of several cards together, each sort and each thing once.
func Supplies(lists ...[]Supply) []Supply {
	out := []Supply{}
	for _, list := range lists {
		for _, s := range list {
			at := slices.IndexFunc(out, func(o Supply) bool { return o.Kind == s.Kind })
			if at < 0 {
				at = len(out)
				out = append(out, Supply{s.Kind, []string{}})
			}
			for _, n := range s.Names {
				if !slices.Contains(out[at].Names, n) {
					out[at].Names = append(out[at].Names, n)
				}
			}
		}
	}
	return out
}

// AtHand lists what the acts of a card use: tools, cardstock with the number of pieces
// out of each where they are to be counted, sets, inks from the lightest, what holds parts.
// Kinds of which nothing is used are left out.
func AtHand(b *build.Build, acts []Act, counted bool) []Supply {
	return slices.DeleteFunc([]Supply{
		{"Tools", tools(b, acts)}, {"Cardstock", papers(b, counted)}, {"Sets", sets(b)}, {"Inks", inks(b, acts)}, {"To hold it", holders(b)},
	}, func(s Supply) bool { return len(s.Names) == 0 })
}

// tools are those that the kinds of acts ask for.
func tools(b *build.Build, acts []Act) []string {
	var out []string
	want := func(name string, used func(Act) bool) {
		if slices.ContainsFunc(acts, used) {
			out = append(out, name)
		}
	}
	stamped := slices.ContainsFunc(b.Made, func(m build.Made) bool { return of(b, m) == kit.StampSet })
	want("trimmer, score board", func(a Act) bool { return a.ID.Verb == Fold })
	want("die machine and its plates", func(a Act) bool { return a.ID.Verb == Cut && a.ID.Motif != "" })
	if stamped {
		want("hinged positioner, magnets", func(a Act) bool { return a.Kind == PrintAct })
	}
	want("tacky film", func(a Act) bool { return a.ID.Verb == LiftFilm })
	want("masking paper", func(a Act) bool { return a.Kind == MaskAct })
	want("a brush for each ink", func(a Act) bool { return a.Kind == InkAct })
	want("hot air tool", func(a Act) bool { return a.Kind == HeatAct })
	want("pick, tweezers, low-tack tape", func(a Act) bool { return a.Kind == PopAct })
	if small := tiny(b); len(small) > 0 {
		out = append(out, fmt.Sprintf("fine tweezers for the smallest: %s", strings.Join(small, ", ")))
	}
	want("tape and a straight edge for the bands", func(a Act) bool { return a.ID.Verb == Tape })
	if len(b.Patterns) > 0 {
		out = append(out, "turning jig: its plate, the stop, numbered corners on the sheet; Register prints it")
	}
	for _, m := range b.Made {
		for _, v := range m.Image.Shapes.Views {
			if name := "a stand-in for " + v.Part.Label + ", which is missing in its set"; v.Part.Missing && !slices.Contains(out, name) {
				out = append(out, name)
			}
		}
	}
	return out
}

// tinyPart is what is held with fine tweezers: smaller than this each way, mm; our own
// default.
const tinyPart = 8.0

// tiny names the pieces that are that small, each once.
func tiny(b *build.Build) (out []string) {
	for _, m := range b.Made {
		for _, v := range m.Image.Shapes.Views {
			box := v.Outline.Bounds()
			if v.Layer.Make == card.Cut && !v.Outline.Empty() && max(box.W(), box.H()) < tinyPart && !slices.Contains(out, v.Layer.Label) {
				out = append(out, v.Layer.Label)
			}
		}
	}
	return out
}

func of(b *build.Build, m build.Made) kit.SetKind {
	if s, ok := b.Stock.Set(m.Image.Motif.Set); ok {
		return s.Kind
	}
	return ""
}

func papers(b *build.Build, counted bool) []string {
	n := map[string]int{b.Card.Base.Paper: 1}
	order := []string{b.Card.Base.Paper}
	for _, p := range b.Pieces {
		if p.Print() || p.Stock == "" {
			continue
		}
		if n[p.Stock] == 0 {
			order = append(order, p.Stock)
		}
		n[p.Stock] += max(1, p.Plies)
	}
	var out []string
	for _, id := range order {
		if id == "" {
			continue
		}
		if !counted {
			out = append(out, b.Stock.PaperName(id))
			continue
		}
		what := "pieces"
		if n[id] == 1 {
			what = "piece"
		}
		out = append(out, fmt.Sprintf("%s (%d %s)", b.Stock.PaperName(id), n[id], what))
	}
	return out
}

func sets(b *build.Build) []string {
	var out []string
	for _, m := range b.Made {
		if s, ok := b.Stock.Set(m.Image.Motif.Set); ok && !slices.Contains(out, s.Name) {
			out = append(out, s.Name)
		}
	}
	return out
}

func inks(b *build.Build, acts []Act) []string {
	type shade struct {
		name string
		l    float64
	}
	tone := map[string]float64{}
	for _, a := range acts {
		if a.Ink != "" {
			tone[a.Ink] = a.tone.L
		}
	}
	var all []shade
	for id, l := range tone {
		all = append(all, shade{b.Stock.InkName(id), l})
	}
	slices.SortFunc(all, func(x, y shade) int {
		switch {
		case x.l != y.l:
			if x.l > y.l {
				return -1
			}
			return 1
		case x.name < y.name:
			return -1
		}
		return 1
	})
	var out []string
	for _, s := range all {
		out = append(out, s.name)
	}
	return out
}

func holders(b *build.Build) []string {
	var out []string
	add := func(bonds []card.Bond) {
		for _, h := range bonds {
			name := ""
			if s, ok := b.Stock.Spacer(h.Spacer); ok {
				name = s.Name
			} else if a, ok := b.Stock.Adhesive(h.Adhesive); ok {
				name = a.Name
			} else if h.Spacer == "" && h.Adhesive == "" {
				name = "glue"
			}
			if name != "" && !slices.Contains(out, name) {
				out = append(out, name)
			}
		}
	}
	for _, t := range b.Things {
		add(t.Element.Bonds)
	}
	for _, m := range b.Made {
		for _, l := range m.Image.Motif.Layers {
			if l.Make == card.Cut {
				add(l.Bonds)
			}
		}
	}
	return out
}
