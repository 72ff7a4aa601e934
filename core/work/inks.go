package work

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
)

// How powder is laid on and melted, and the usual caution.
const (
	powdered      = "Powder on, let it rest a moment, flick off the excess, then melt it from beneath."
	powderCaution = "Embossing powder is not for breathing: pour low, lid on."
)

// inked fills in what an ink asks for: its time to dry and its cautions.
func (k *maker) inked(a Act, ink string) Act {
	a.Ink = ink
	i, ok := k.Stock.Ink(ink)
	if !ok {
		return a
	}
	a.Minutes = i.Minutes()
	switch i.Kind {
	case kit.Alcohol:
		a.Cautions = append(a.Cautions, "Alcohol ink: air the room, no flame, not near the heat tool.")
	case kit.Embossing:
		a.Cautions = append(a.Cautions, powderCaution)
	}
	return a
}

// hottest is the first of some inks that has to be heat set, or nil.
func (k *maker) hottest(inks ...string) *kit.Ink {
	for _, id := range inks {
		if i, ok := k.Stock.Ink(id); ok && i.Heat() {
			return i
		}
	}
	return nil
}

// heat sets a layer's ink where one of its inks needs it.
func (k *maker) heat(id card.Step, what string, leaf Thing, layers []Thing, inks ...string) {
	hot := k.hottest(inks...)
	if hot == nil {
		return
	}
	id.Verb = Heat
	if id.Motif == "" {
		id.N = 0 // one heating for all strikes of a pattern
	}
	a := Act{ID: id, Kind: HeatAct, Title: "Heat set " + what, Detail: fmt.Sprintf("%s needs heat. Warm it evenly, keep the tool moving.", hot.Name)}
	if hot.Kind == kit.Embossing {
		a.Title, a.Detail, a.Cautions = "Heat emboss "+what, powdered, []string{powderCaution}
	}
	k.add(phaseHeat, a, facts{leaf: leaf, heats: layers})
}

// inksOf are all inks of a finish.
func inksOf(f card.Finish) []string {
	out := []string{f.Ink}
	for _, b := range f.Blends {
		out = append(out, b.Ink)
	}
	return append(out, f.Edge, f.Back)
}

func strikes(f card.Finish) string {
	if n := f.Strikes(); n > 1 {
		return fmt.Sprintf(", %d impressions", n)
	}
	return ""
}

// tone is how light an ink dries on white, L*.
func (k *maker) tone(ink string) float64 {
	if i, ok := k.Stock.Ink(ink); ok {
		if l, ok := i.Lightness(); ok {
			return l
		}
	}
	return colour.Lab{L: 100}.L
}

// held fills in how a part is held.
func (k *maker) held(a Act, bonds []card.Bond) (Act, bool) {
	a.Kind = GlueAct
	if len(bonds) == 0 {
		a.Detail = "Laid only, not stuck."
		return a, false
	}
	b := bonds[0]
	if b.Raised() {
		a.Kind = FoamAct
		name := "foam"
		if sp, ok := k.Stock.Spacer(b.Spacer); ok {
			name = sp.Name
		}
		a.Detail = fmt.Sprintf("On %s, %d high, back from the edge. It grabs at once: sight first.", name, max(1, b.Level))
		return a, true
	}
	a.Detail = "Glue, back from the edge."
	if g, ok := k.Stock.Adhesive(b.Adhesive); ok {
		a.Detail = g.Name + ", back from the edge."
		if g.Wiggle {
			a.Detail += " There is time to move it."
		}
		a.Minutes = g.SetMinutes
		if g.Kind == "spray" {
			a.Cautions = append(a.Cautions, "Spray adhesive: air the room, no flame, away from eyes and pets. The can's label goes first.")
		}
	}
	return a, false
}
