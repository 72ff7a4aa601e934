package foresee

import (
	"fmt"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/words"
)

// boxy is how much of its box an outline fills at least that a trimmer cuts as well; our own default.
const boxy = 0.96

func dieRules() []Rule {
	return []Rule{
		{ID: "die lost", Station: Front, Severity: Spoils, Source: "the stores", check: dieLost},
		{ID: "die size", Station: Front, Severity: Shows, Source: "geometry", Limits: []Limit{{"the same size within", kit.SameSize, "mm", ""}}, check: dieSize},
	}
}

// died is a sheet that is cut with a die.
type died struct {
	thing *build.Thing
	set   kit.Set
	part  kit.Part
}

// died lists the sheets that are cut with a die of the stores.
func (v *View) died() (out []died) {
	for i := range v.Build.Things {
		t := &v.Build.Things[i]
		s := t.Element.Sheet
		if s == nil || s.Shape == nil || s.Shape.Kind != card.DiePart {
			continue
		}
		set, ok := v.Stock.Set(s.Shape.Set)
		if !ok || set.Away {
			continue // told of with what is no longer in the stores
		}
		if p, ok := set.Part(s.Shape.Part); ok {
			out = append(out, died{t, *set, p})
		}
	}
	return out
}

// trimmed is the edit that makes a sheet a plain rectangle as large as it is to be; none where no trimmer
// cuts its outline.
func (d died) trimmed(w, h float64) *Mend {
	box := d.part.Outline.Bounds()
	if d.part.Outline.Area() < boxy*box.W()*box.H() {
		return nil
	}
	s := *d.thing.Element.Sheet
	s.Shape = nil
	if d.thing.Element.Inset == nil {
		s.W, s.H = w, h
	}
	return &Mend{"Cut it with the trimmer", []card.Edit{{Sheet: &card.SetSheet{Element: d.thing.Element.ID, Sheet: &s}}}}
}

// larger is the smallest die of the set that a piece of so many mm could be cut out of with.
func (d died) larger(w, h float64) (kit.Part, bool) {
	var best kit.Part
	for _, p := range d.set.Parts {
		b := p.Outline.Bounds()
		if p.Missing || p.ID == d.part.ID || b.W() < w-kit.SameSize || b.H() < h-kit.SameSize {
			continue
		}
		if best.ID == "" || p.Outline.Area() < best.Outline.Area() {
			best = p
		}
	}
	return best, best.ID != ""
}

func (v *View) sizeOf(p kit.Part) string {
	b := p.Outline.Bounds()
	return v.Format(b.W()) + " × " + v.Format(b.H())
}

func dieLost(v *View, add func(Hit)) {
	for _, d := range v.died() {
		if !d.part.Missing {
			continue
		}
		b := d.part.Outline.Bounds()
		hit := Hit{Key: []string{d.thing.Element.ID}, At: At{Element: d.thing.Element.ID}, What: fmt.Sprintf("The die for %s, %s of %s, is marked missing in its set", d.thing.Name, d.part.Label, d.set.Name),
			Why: fmt.Sprintf("It would cut %s, and it was lost or never in the pack.", v.sizeOf(d.part)), Numbers: map[string]float64{"w": b.W(), "h": b.H()}, Facts: []string{d.set.ID, d.part.ID}}
		hit.Mend = d.trimmed(b.W(), b.H())
		switch larger, ok := d.larger(b.W(), b.H()); {
		case hit.Mend != nil && ok:
			hit.Do = fmt.Sprintf("Cut it with the trimmer to that size; or cut it with %s, %s, and trim that down. What the die presses along its edge is lost either way.", larger.Label, v.sizeOf(larger))
		case hit.Mend != nil:
			hit.Do = "Cut it with the trimmer to that size. What the die presses along its edge is lost."
		case ok:
			hit.Do = fmt.Sprintf("Take another die of the set, or cut it from what %s cuts, %s, by hand.", larger.Label, v.sizeOf(larger))
		default:
			hit.Do = "Take another die, or draw its outline on the card and cut it by hand."
		}
		add(hit)
	}
}

func dieSize(v *View, add func(Hit)) {
	for _, d := range v.died() {
		w, h := d.thing.Element.Sheet.W, d.thing.Element.Sheet.H
		if l := d.thing.Leaf; l != nil && d.thing.Element.Inset != nil {
			w, h = l.Size.W, l.Size.H
		}
		b := d.part.Outline.Bounds()
		if d.part.Missing || w <= 0 || h <= 0 || d.part.Cuts(w, h) {
			continue
		}
		sizes := []string{}
		for _, p := range d.set.Parts {
			if s := v.sizeOf(p); !p.Missing && !slices.Contains(sizes, s) {
				sizes = append(sizes, s)
			}
		}
		hit := Hit{Key: []string{d.thing.Element.ID}, At: At{Element: d.thing.Element.ID},
			What:    words.Capital(fmt.Sprintf("%s is to be %s × %s, and its die cuts %s", d.thing.Name, v.Format(w), v.Format(h), v.sizeOf(d.part))),
			Why:     fmt.Sprintf("A die cuts one size. %s has %s.", d.set.Name, words.Listed(sizes)),
			Do:      "Choose another die for it, or let it be as large as its die.",
			Numbers: map[string]float64{"w": w, "h": h, "cut w": b.W(), "cut h": b.H()}, Facts: []string{d.set.ID, d.part.ID}}
		if hit.Mend = d.trimmed(w, h); hit.Mend != nil {
			hit.Do = "Cut it with the trimmer"
			if larger, ok := d.larger(w, h); ok || b.W() >= w && b.H() >= h {
				if !ok {
					larger = d.part
				}
				hit.Do += fmt.Sprintf(", or with %s, %s, and trim that down", larger.Label, v.sizeOf(larger))
			}
			hit.Do += "; or let it be as large as its die."
		} else if d.thing.Element.Inset == nil {
			s := *d.thing.Element.Sheet
			s.W, s.H = b.W(), b.H()
			hit.Mend = &Mend{"As large as its die", []card.Edit{{Sheet: &card.SetSheet{Element: d.thing.Element.ID, Sheet: &s}}}}
		}
		add(hit)
	}
}
