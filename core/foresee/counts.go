package foresee

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/words"
)

func countRules() []Rule {
	return []Rule{
		{ID: "paper", Station: Cut, Severity: Spoils, Source: "the cut list", check: tooLittlePaper},
		{ID: "spacers", Station: Cut, Severity: Spoils, Source: "the stores", check: tooFewSpacers},
		{ID: "gems", Station: Cut, Severity: Spoils, Source: "the stores", check: tooFewGems},
	}
}

// tooLittlePaper notes cardstocks of which all cards of a sitting take more sheets than there
// are, laid out as they are cut.
func tooLittlePaper(v *View, add func(Hit)) {
	if v.Sheets == nil {
		return
	}
	run := v.Card.Run()
	for _, a := range v.Build.PaperAreas() {
		p, ok := v.Stock.Paper(a.Stock)
		if !ok || p.Sheets == 0 || p.W <= 0 || p.H <= 0 {
			continue // that it is not there, or there is none, is noted of it elsewhere
		}
		s, short := v.Sheets(p.ID, run)
		if !short {
			continue
		}
		h := Hit{Key: []string{p.ID}, What: fmt.Sprintf("There is too little %s", p.Name),
			Why: fmt.Sprintf("Laid out, %s %s %s of it, and there %s %d.", cards(run), words.Of(run, "takes", "take"), sheets(s.Needs), words.Of(p.Sheets, "is", "are"), p.Sheets),
			Do:  "Make fewer at once, take another card for some of it, or count your sheets in the stores.", Numbers: map[string]float64{"needs": float64(s.Needs), "has": float64(p.Sheets)}, Facts: []string{p.ID}}
		if v.Tally {
			add(h)
			continue
		}
		if fewer := v.enough(p.ID, run, s.Needs, p.Sheets); fewer >= 1 && len(v.Card.Lots) == 0 {
			h.Mend = &Mend{"Make " + cards(fewer) + " at once", []card.Edit{{Copies: &card.SetCopies{N: fewer}}}}
		}
		add(h)
	}
}

// enough is the most cards, fewer than a run of which so many sheets are needed and so many
// there, that there are enough for. It is sought from where it lies if sheets go by cards.
func (v *View) enough(stock string, run, needs, has int) int {
	n := min(run*has/max(1, needs), run-1)
	for n > 0 && v.short(stock, n) {
		n--
	}
	for n > 0 && n+1 < run && !v.short(stock, n+1) {
		n++
	}
	return n
}

func (v *View) short(stock string, copies int) bool {
	_, is := v.Sheets(stock, copies)
	return is
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
