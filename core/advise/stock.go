package advise

import (
	"math"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/ramp"
)

// Tone on tone is an ink on a card of its own hue, this much darker in L* and
// no more than so far round the circle of hues; our own defaults (ink a step
// darker than its card is common practice, no source).
const (
	toneLeast = 6.0
	toneMost  = 34.0
	toneHue   = 12.0 // in the plane of hues, chroma counting up to 25
)

// cardOptions adds what a cut piece may be when its card gives the colour:
// every opaque card owned, plain, or each with the inks that lie tone on tone
// on it. Nil when ink on the paper it has is asked for.
func (a Study) cardOptions(ask Ask, p *ramp.Problem, finishes *[]card.Finish) []int {
	if ask.By != ByCard && ask.By != ByTone {
		return nil
	}
	out := []int{}
	add := func(c colour.Linear, f card.Finish) {
		// A body that hides all shows its own colour whatever lies beneath.
		o := ramp.Option{Film: colour.Film{Body: c, Hide: 1}, Impressions: 1}
		if f.Ink == "" {
			o.Bare = f.Paper
		}
		p.Options = append(p.Options, o)
		*finishes = append(*finishes, f)
		out = append(out, len(p.Options)-1)
	}
	seen := map[string]bool{}
	for i := range a.Stock.Papers {
		paper := &a.Stock.Papers[i]
		if !paper.Opaque() || paper.Kind == kit.PaperFoam || paper.Kind == kit.PaperPatterned || paper.Sheets == 0 || paper.Away || seen[paper.Colour] {
			continue
		}
		under := a.Stock.PaperColour(paper.ID)
		if ask.By == ByCard {
			seen[paper.Colour] = true // one weight of a colour is enough to choose by
			add(under, card.Finish{Paper: paper.ID})
			continue
		}
		for j := range a.Stock.Inks {
			ink := &a.Stock.Inks[j]
			if ink.Gone || ink.Kind == kit.Embossing || ink.Kind == kit.Waterproof {
				continue
			}
			f := card.Finish{Paper: paper.ID, Ink: ink.ID, Impressions: 1}
			dry, ok := a.Stock.Dried(f, under, paper.ID)
			if ok && onTone(under.Lab(), dry.Dry.Lab()) {
				add(dry.Dry, f)
			}
		}
		seen[paper.Colour] = true
	}
	return out
}

// onTone reports whether an ink on its card lies tone on tone.
func onTone(paper, ink colour.Lab) bool {
	d := paper.L - ink.L
	u, v := paper.HueVector(), ink.HueVector()
	return d >= toneLeast && d <= toneMost && math.Hypot(u[0]-v[0], u[1]-v[1]) <= toneHue
}
