package foresee

import (
	"fmt"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/words"
)

func lightRules() []Rule {
	return []Rule{
		{ID: "light", Station: Front, Severity: Shows, Source: practice, check: wrongLight},
		{ID: "openings", Station: Front, Severity: Shows, Source: practice, check: noPrintBeneath},
	}
}

// lit is the side a thing is lit from: that of the card, or of the lamp on it as the thing stands to it;
// empty where nobody minds, or it stands right above or below the lamp.
func (v *View) lit(t build.Thing) (side card.Side, lamp string) {
	const beside = 3.0 // mm
	for _, l := range v.Build.Things {
		if l.Element.ID != v.Card.Lamp || v.Card.Lamp == "" || l.Outline.Empty() {
			continue
		}
		if l.Element.ID == t.Element.ID || t.Outline.Empty() {
			return "", ""
		}
		switch d := l.Outline.Bounds().Centre().X - t.Outline.Bounds().Centre().X; {
		case d > beside:
			return card.RightSide, l.Name
		case d < -beside:
			return card.LeftSide, l.Name
		}
		return "", ""
	}
	return v.Card.Light, ""
}

func wrongLight(v *View, add func(Hit)) {
	for _, t := range v.Build.Things {
		if t.Element.Image == nil {
			continue
		}
		side, lamp := v.lit(t)
		if side == "" || v.Build.Shaded(t) != side {
			continue
		}
		id := t.Element.ID
		how := "as it is laid"
		if t.Element.Place.Mirror {
			how = "as it is mirrored"
		}
		other := card.RightSide
		if side == card.RightSide {
			other = card.LeftSide
		}
		why := fmt.Sprintf("Light is set to come from the %s, and its darker inks lie on that side %s.", side, how)
		do := fmt.Sprintf("Shade it on its %s, or turn the light.", other)
		if lamp != "" {
			why = fmt.Sprintf("%s stands to its %s, and its darker inks lie on that side %s.", words.Capital(lamp), side, how)
			do = fmt.Sprintf("Shade it on its %s, and mark its pieces so: two that look alike are not the same.", other)
		}
		add(Hit{Key: []string{id}, At: At{Element: id}, What: fmt.Sprintf("%s is shaded on its %s, where the light comes from", words.Capital(t.Name), side), Why: why, Do: do, Facts: []string{string(side)},
			Mend: &Mend{"Shade its other side", []card.Edit{{ShadeOther: &card.ShadeOther{Element: id}}}}})
	}
}
