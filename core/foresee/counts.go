package foresee

import (
	"fmt"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/words"
)

func countRules() []Rule {
	return []Rule{
		{ID: "paper", Station: Cut, Severity: Spoils, Title: "More paper than the stores hold", Explain: "By its area alone what is cut takes more sheets than there are; laid out it takes more still.", Source: "areas", check: tooLittlePaper},
		{ID: "spacers", Station: Cut, Severity: Spoils, Title: "More pads than the stores hold", Explain: "One runs out of foam in the middle of a sitting.", Source: "the stores", check: tooFewSpacers},
	}
}

// tooLittlePaper notes cardstocks of which all cards of a sitting take more, by area alone.
func tooLittlePaper(v *View, add func(Hit)) {
	run := float64(v.Card.Run())
	for _, a := range v.Build.PaperAreas() {
		p, ok := v.Stock.Paper(a.Stock)
		if !ok || p.Sheets == 0 || p.W <= 0 || p.H <= 0 {
			continue // that it is not there, or there is none, is noted of it elsewhere
		}
		has := float64(p.Sheets) * p.W * p.H
		for _, o := range p.Offcuts {
			has += float64(o.Count()) * o.W * o.H
		}
		if a.Area*run <= has {
			continue
		}
		needs := int(math.Ceil(a.Area * run / (p.W * p.H)))
		h := Hit{Key: []string{p.ID}, What: fmt.Sprintf("There is too little %s", p.Name),
			Why: fmt.Sprintf("%s of it are cut for %s: %s at least, and there are %d.", v.Write.Area(a.Area*run), cards(v.Card.Run()), sheets(needs), p.Sheets),
			Do:  "Make fewer at once, take another card for some of it, or count your sheets in the stores.", Numbers: map[string]float64{"area": a.Area * run, "has": has}, Facts: []string{p.ID}}
		if fewer := int(has / a.Area); fewer >= 1 && len(v.Card.Lots) == 0 {
			h.Mend = &Mend{"Make " + cards(fewer) + " at once", []card.Edit{{Copies: &card.SetCopies{N: fewer}}}}
		}
		add(h)
	}
}

// tooFewSpacers notes pads and strips of which all cards of a sitting take more than are left.
func tooFewSpacers(v *View, add func(Hit)) {
	used := depth.Used(v.Stock, v.Stood)
	for _, sp := range v.Stock.Spacers {
		n := used[sp.ID] * v.Card.Run()
		if sp.Left == nil || !sp.Pads() || n <= *sp.Left {
			continue
		}
		h := Hit{Key: []string{sp.ID}, What: fmt.Sprintf("There are too few %s", sp.Name),
			Why: fmt.Sprintf("%s %s %d, and %d %s left.", words.Capital(cards(v.Card.Run())), words.Of(v.Card.Run(), "takes", "take"), n, *sp.Left, words.Of(*sp.Left, "is", "are")),
			Do:  "Make fewer at once, hold some parts up by other means in Depth, or count them in the stores.", Numbers: map[string]float64{"needs": float64(n), "has": float64(*sp.Left)}, Facts: []string{sp.ID}}
		if fewer := *sp.Left / max(1, used[sp.ID]); fewer >= 1 && len(v.Card.Lots) == 0 {
			h.Mend = &Mend{"Make " + cards(fewer) + " at once", []card.Edit{{Copies: &card.SetCopies{N: fewer}}}}
		}
		add(h)
	}
}

func cards(n int) string { return counted(n, "card") }

func sheets(n int) string { return counted(n, "sheet") }

func counted(n int, what string) string {
	if n == 1 {
		return "one " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}
