package foresee

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/meant"
	"ochrestone/core/words"
)

func meantRules() []Rule {
	return []Rule{
		{ID: "meant", Station: Front, Severity: Shows, Source: "your own word",
			Limits: []Limit{{"reaches by", meant.Least, "mm", "said with it"}, {"goes in by", meant.Deep, "mm", "said with it"}, {"stays clear by", meant.Off, "mm", "said with it"}, {"matches within", meant.Alike, "CIEDE2000", "said with it"}, {"lies over its like within", meant.Exactly, "mm", "said with it"}}, check: asMeant},
	}
}

// quiets are the rules that say nothing more of a thing that does on purpose what they warn of.
var quiets = map[card.Purpose][]string{
	card.RunsOver: {"edge"},
	card.IsHidden: {"hides", "buried", "covered", "background"},
	card.IsSeen:   {"hides", "buried", "covered"},
	card.Matches:  {"across", "background"},
	card.IsCopy:   {"across", "beside", "nearly", "background"},
	card.Reaches:  {"short", "past"},
	card.KeepsOff: {"short", "across"},
	card.GoesIn:   {"short", "past"},
}

// onPurpose reports whether a finding is of something that a thing is meant to do.
func (v *View) onPurpose(f Finding) bool {
	for _, e := range v.Card.Elements {
		if e.ID != f.Element {
			continue
		}
		return slices.ContainsFunc(e.Meant, func(m card.Meant) bool { return slices.Contains(quiets[m.Do], f.Rule) })
	}
	return false
}

// asMeant notes every purpose that is not kept.
func asMeant(v *View, add func(Hit)) {
	for _, k := range v.Meant {
		if k.Kept {
			continue
		}
		name, other := v.name(k.Element), words.Small(v.name(k.With))
		if k.With == "" {
			other = "it"
		}
		what, why, do := v.amiss(k, name, other)
		h := Hit{Key: []string{k.Element, fmt.Sprint(k.N)}, At: At{Element: k.Element}, What: what, Why: why, Do: do,
			Numbers: map[string]float64{"is": k.Is, "wanted": k.Wanted}, Facts: []string{string(k.Do), k.With}}
		if k.Way.Len() > 0.01 {
			label := "Move it by " + v.Format(k.Way.Len())
			if k.Do == card.IsCopy {
				label = "Put it back"
			}
			h.Mend = &Mend{label, []card.Edit{{Move: &card.Move{Element: k.Element, DX: k.Way.X, DY: k.Way.Y}}}}
		}
		add(h)
	}
}

// amiss words one purpose that is not kept.
func (v *View) amiss(k meant.Kept, name, other string) (what, why, do string) {
	by, wanted := v.Format(math.Abs(k.Is)), v.Format(k.Wanted)
	switch k.Do {
	case card.Reaches:
		if k.Is < 0 {
			return fmt.Sprintf("%s does not reach %s", name, other), fmt.Sprintf("It ends %s short of it.", by), "Move it, take a longer one, or move the other."
		}
		return fmt.Sprintf("%s hardly reaches %s", name, other), fmt.Sprintf("They meet by %s, and %s is wanted.", by, wanted), "Move it further in."
	case card.GoesIn:
		if k.Is < 0 {
			return fmt.Sprintf("%s does not go in beneath %s", name, other), fmt.Sprintf("It ends %s before its edge.", by), "Move it in."
		}
		return fmt.Sprintf("%s does not go deep enough beneath %s", name, other), fmt.Sprintf("It goes in by %s, and %s is wanted.", by, wanted), "Move it further in."
	case card.KeepsOff:
		if k.Is < 0 {
			return fmt.Sprintf("%s runs into %s", name, other), fmt.Sprintf("They overlap by %s, and are to stay %s apart.", by, wanted), "Move them apart."
		}
		return fmt.Sprintf("%s is too near %s", name, other), fmt.Sprintf("%s is between them, and %s is wanted.", words.Capital(by), wanted), "Move them apart."
	case card.IsSeen:
		return fmt.Sprintf("Too little of %s is seen", words.Small(name)), fmt.Sprintf("%.0f %% of it shows, and %.0f %% is wanted.", k.Is, k.Wanted), "Move it out from beneath what covers it, or lay it over that."
	case card.IsHidden:
		return fmt.Sprintf("%s is seen, and is to be hidden", name), fmt.Sprintf("%.0f %% of it shows.", k.Is), "Move it beneath what hides it, or make it smaller."
	case card.Matches:
		return fmt.Sprintf("%s does not match in colour", name), fmt.Sprintf("They dry %.1f apart; within %.1f they match.", k.Is, k.Wanted), "Give it the same ink on the same card, or the nearest the stores hold."
	case card.RunsOver:
		return fmt.Sprintf("%s does not run over the edge", name), fmt.Sprintf("It ends %s from it.", by), "Move it out past the edge."
	}
	return fmt.Sprintf("%s lies off what it is to lie over", name), fmt.Sprintf("It is moved by %s from %s.", by, other), "Put it back, or say that it is no copy of it."
}
