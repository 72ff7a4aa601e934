package work

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
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

// byHand reports whether an ink goes on by hand.
func (k *maker) byHand(ink string) bool {
	i, ok := k.Stock.Ink(ink)
	return ok && i.Kind.ByHand()
}

// loaded says what a layer is laid down with: its ink, how often, and what else goes on zones
// of what it is laid down with, such as the stamp.
func (k *maker) loaded(f card.Finish, with string) string {
	var out []string
	if with != "" {
		f, _ = k.byStamp(f)
	}
	if f.Ink != "" {
		out = append(out, k.Stock.InkName(f.Ink)+strikes(f))
	}
	for _, bl := range f.Blends {
		said := fmt.Sprintf("%s dabbed on the %s of %s", k.Stock.InkName(bl.Ink), bl.Zone, with)
		if with == "" {
			said = fmt.Sprintf("%s blended into its %s", k.Stock.InkName(bl.Ink), bl.Zone)
		}
		out = append(out, said)
	}
	if f.Return && f.Ink != "" && len(f.Blends) > 0 {
		out = append(out, k.Stock.InkName(f.Ink)+" over the joins")
	}
	return strings.Join(out, ", then ")
}

// handLaid reports whether a printed layer is coloured by hand within its line: in an ink that goes
// on so, or because it is no print but what the lines of one hold.
func (k *maker) handLaid(l card.Layer, ink string) bool {
	if l.Make != card.Printed {
		return false
	}
	return k.byHand(ink) || l.Region != nil && l.Region.By == card.Enclosed
}

// byStamp parts the blends of a finish that go on the stamp with its ink from those that no stamp
// takes: a pencil, a marker or a brush goes over the print once it is dry.
func (k *maker) byStamp(f card.Finish) (struck card.Finish, over []card.Blend) {
	if f.Ink == "" || k.byHand(f.Ink) {
		return f, nil
	}
	struck, struck.Blends = f, nil
	for _, bl := range f.Blends {
		if k.byHand(bl.Ink) {
			over = append(over, bl)
		} else {
			struck.Blends = append(struck.Blends, bl)
		}
	}
	return struck, over
}

// drawnOver are the acts that colour a print by hand where its finish has inks no stamp takes: of
// what is called so, in turn, on what lies beneath.
func (k *maker) drawnOver(f card.Finish, what string, on medium, id func(n int) card.Step) (out []Act) {
	struck, over := k.byStamp(f)
	on.area = 0
	on.beneath = append(slices.Clone(on.beneath), inksOf(struck)...)
	for n, bl := range over {
		title := "Colour " + what + " by hand"
		if bl.Zone != card.AllOver {
			title = fmt.Sprintf("Colour the %s of %s by hand", bl.Zone, what)
		}
		detail := k.Stock.InkName(bl.Ink)
		if bl.Strikes() > 1 {
			detail += fmt.Sprintf(", %d passes", bl.Strikes())
		}
		a := Act{ID: id(n + 1), Kind: InkAct, Title: title, Detail: detail + ", over the print once it is dry, within its line."}
		out = append(out, k.minded(k.inked(a, bl.Ink), bl.Ink, on))
		on.beneath = append(on.beneath, bl.Ink)
	}
	return out
}

// laidWith is what a layer is laid down with, as its blends go on it.
func laidWith(l card.Layer) string {
	switch {
	case l.Region != nil && (l.Region.By == card.Masked || l.Region.By == card.Enclosed):
		return ""
	case l.Make == card.Stencilled:
		return "the opening"
	}
	return "the stamp"
}

// hottestOf is the first ink of a finish that has to be heat set, else its first ink.
func (k *maker) hottestOf(f card.Finish) string {
	if hot := k.hottest(inksOf(f)...); hot != nil {
		return hot.ID
	}
	return f.First()
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

// tone is the colour an ink dries to on white.
func (k *maker) tone(ink string) colour.Lab {
	if i, ok := k.Stock.Ink(ink); ok {
		if c, ok := i.Shade(); ok {
			return c
		}
	}
	return colour.Lab{L: 100}
}

// held fills in how a part is held.
func (k *maker) held(a Act, bonds []card.Bond) (Act, bool) {
	a.Kind = GlueAct
	if len(bonds) == 0 {
		a.Detail = "Laid only, not stuck."
		return a, false
	}
	var said []string
	raised := false
	high := slices.ContainsFunc(bonds, card.Bond.Raised)
	for _, b := range bonds {
		where := "back from the edge"
		if z := build.ZoneSaid(b.Zone); z != "" {
			where = z
		} else if high && !b.Raised() {
			where = "where it touches what it crosses"
		}
		if len(b.Open) > 0 {
			where += ", its " + listed(b.Open) + " left open"
		}
		if b.Raised() {
			a.Kind, raised = FoamAct, true
			how := "It grabs at once: sight first."
			if b.Spacer == "" {
				how = "Glue them on each other, and the part on them."
			}
			said = append(said, fmt.Sprintf("On %s, %s. %s", k.standsOn(b), where, how))
			continue
		}
		glue := "Glue"
		if g, ok := k.Stock.Adhesive(b.Adhesive); ok {
			glue = g.Name
			a.Minutes = max(a.Minutes, g.SetMinutes)
			if g.Kind == "spray" {
				a.Cautions = append(a.Cautions, "Spray adhesive: air the room, no flame, away from eyes and pets. The can's label goes first.")
			}
			if g.Wiggle && !high { // else the pads grab first
				where += ". There is time to move it"
			}
		}
		said = append(said, glue+", "+where+".")
	}
	a.Detail = strings.Join(said, " ")
	return a, raised
}

// standsOn says what spacers and scraps a bond has on each other.
func (k *maker) standsOn(b card.Bond) string {
	var out []string
	if b.Spacer != "" || len(b.Shims) == 0 {
		name := "foam"
		if sp, ok := k.Stock.Spacer(b.Spacer); ok {
			name = sp.Name
		}
		out = append(out, levels(name, b.Levels()))
	}
	for _, m := range b.Shims {
		if sp, ok := k.Stock.Spacer(m.Spacer); ok {
			out = append(out, levels(sp.Name, m.N))
			continue
		}
		out = append(out, build.Scraps(m.N, k.Stock.PaperName(m.Paper)))
	}
	return strings.Join(out, " and ")
}

// levels says what stands how often on each other.
func levels(name string, n int) string {
	if n > 1 {
		return fmt.Sprintf("%s, %d on each other", name, n)
	}
	return name
}

// listed names sides.
func listed(sides []card.Side) string {
	var out []string
	for _, s := range sides {
		if s == card.BottomSide {
			s = "foot"
		}
		out = append(out, string(s))
	}
	return strings.Join(out, " and ")
}
