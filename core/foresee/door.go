package foresee

import (
	"fmt"
	"math"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// doorSlack is by how much a sheet may pass the door of the positioner before it counts, mm; our own default.
const doorSlack = 1.0

// longerThanTheDoor notes sheets that are stamped on and are longer than the positioner's door, where the
// person said how large that is: whether what is stamped on them takes one setting or two.
func longerThanTheDoor(v *View, add func(Hit)) {
	h := v.Hand.Hinge
	if h.DoorW <= 0 || h.DoorH <= 0 {
		return
	}
	long, wide := max(h.DoorW, h.DoorH), min(h.DoorW, h.DoorH)
	see := func(t *build.Thing, w, hi float64) {
		prints, stamped := v.stamped(t)
		if !stamped {
			return
		}
		over := max(max(w, hi)-long, min(w, hi)-wide)
		if over <= doorSlack {
			return
		}
		b := prints.Bounds()
		one := max(b.W(), b.H()) <= long && min(b.W(), b.H()) <= wide
		hit := Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("%s is %s longer than the positioner's door", words.Capital(t.Name), v.Format(over)),
			Why:     fmt.Sprintf("It is %s × %s, and the door %s × %s.", v.Format(w), v.Format(hi), v.Format(h.DoorW), v.Format(h.DoorH)),
			Do:      "What is stamped on it lies within one setting: let it stick out on the open side.",
			Numbers: map[string]float64{"over": over, "settings": 1}}
		if !one {
			hit.Do = "Stamp it in two settings: one end, then shifted along by a mark; or by hand."
			hit.Numbers["settings"] = math.Ceil(max(b.W(), b.H()) / long)
		}
		add(hit)
	}
	base := v.Card.Base.Front()
	see(&v.Build.Base, base.W, base.H)
	for i := range v.Build.Things {
		if t := &v.Build.Things[i]; t.Element.Sheet != nil {
			box := t.Whole.Bounds()
			see(t, box.W(), box.H())
		}
	}
}

// stamped is what is stamped on a sheet, as it lies on its face: words, patterns, and images printed on it.
func (v *View) stamped(t *build.Thing) (all shape.Region, any bool) {
	if t.Element.Sheet == nil {
		return all, false
	}
	var gs []shape.Region
	for n, tr := range t.Element.Sheet.Treatments {
		if n < len(t.Treated) && (tr.Words != nil || tr.Print != nil || tr.Turned != nil) {
			for _, g := range t.Treated[n].Regions {
				gs = append(gs, t.Place(g))
			}
		}
	}
	for _, o := range v.Build.Things {
		if o.Printed && o.Element.Face == card.Front && o.Element.On == t.Element.ID {
			gs = append(gs, o.Prints)
		}
	}
	g, err := shape.UnionAll(gs...)
	return g, err == nil && !g.Empty()
}
