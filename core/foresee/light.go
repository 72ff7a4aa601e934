package foresee

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/words"
)

func lightRules() []Rule {
	return []Rule{
		{ID: "light", Station: Front, Severity: Shows, Title: "Images shaded on the side the light comes from", Explain: "Light falls from one side of a front: left and right twins are shaded on different sides of themselves.", Source: practice, check: wrongLight},
		{ID: "openings", Station: Front, Severity: Shows, Title: "Openings of a stencil with no print beneath", Explain: "A stencil made for the whole image has openings that a smaller one lacks: ink through those lands beside it.", Source: practice, check: noPrintBeneath},
	}
}

func wrongLight(v *View, add func(Hit)) {
	if v.Card.Light == "" {
		return
	}
	for _, t := range v.Build.Things {
		if t.Element.Image == nil || v.Build.Shaded(t) != v.Card.Light {
			continue
		}
		id := t.Element.ID
		how := "as it is laid"
		if t.Element.Place.Mirror {
			how = "as it is mirrored"
		}
		other := card.RightSide
		if v.Card.Light == card.RightSide {
			other = card.LeftSide
		}
		add(Hit{Key: []string{id}, At: At{Element: id}, What: fmt.Sprintf("%s is shaded on its %s, where the light comes from", words.Capital(t.Name), v.Card.Light),
			Why: fmt.Sprintf("Light is set to come from the %s, and its darker inks lie on that side %s.", v.Card.Light, how),
			Do:  fmt.Sprintf("Shade it on its %s, or turn the light.", other), Facts: []string{string(v.Card.Light)},
			Mend: &Mend{"Shade its other side", []card.Edit{{ShadeOther: &card.ShadeOther{Element: id}}}}})
	}
}

// noPrintBeneath names the openings of a stencil that has to colour prints and has none
// beneath.
func noPrintBeneath(v *View, add func(Hit)) {
	for _, t := range v.Build.Things {
		if t.Element.Sheet == nil {
			continue
		}
		noPrintOn(v, t.Element, t.Name, add)
	}
	if len(v.Build.Base.Treated) > 0 {
		noPrintOn(v, v.Build.Base.Element, v.Build.Base.Name, add)
	}
}

func noPrintOn(v *View, e card.Element, name string, add func(Hit)) {
	treated := v.Build.Base.Treated
	size := v.Card.Base.Size()
	for _, t := range v.Build.Things {
		if t.Element.ID == e.ID && e.ID != "" {
			treated = t.Treated
			b := t.Local.Bounds()
			size.W, size.H = b.W(), b.H()
		}
	}
	for n, d := range treated {
		if len(d.Misses) == 0 {
			continue
		}
		area := 0.0
		var where []string
		for _, g := range d.Misses {
			area += g.Area()
			if c := g.Centroid(); len(where) < 4 {
				where = append(where, fmt.Sprintf("%s from the left and %s from the top", v.Format(c.X+size.W/2), v.Format(c.Y+size.H/2)))
			}
		}
		what := fmt.Sprintf("%d of %d openings of the stencil on %s have no print beneath", len(d.Misses), d.Openings, name)
		if len(d.Misses) == 1 {
			what = fmt.Sprintf("One of %d openings of the stencil on %s has no print beneath", d.Openings, name)
		}
		more := ""
		if len(d.Misses) > len(where) {
			more = fmt.Sprintf("; and %d more", len(d.Misses)-len(where))
		}
		h := Hit{Key: []string{e.ID, fmt.Sprint(n)}, At: At{Element: e.ID}, What: what,
			Why: "Ink through it lands beside the image: " + words.Listed(where) + more + ".", Do: "Cover it with tape before the stencil is used, move the stencil, or say that it is a background.",
			Numbers: map[string]float64{"openings": float64(len(d.Misses)), "area": area}}
		if e.ID != "" {
			s := *e.Sheet.Treatments[n].Stencil
			s.Taped = true
			h.Mend = &Mend{"Tape those openings", []card.Edit{{Treat: &card.Treat{Element: e.ID, At: n, Treatment: &card.Treatment{Stencil: &s}}}}}
		}
		add(h)
	}
}
