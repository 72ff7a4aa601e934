package plan

import (
	"fmt"
	"math"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/look"
)

// guesses notes the layer whose dried colour is a guess that decides whether a pair
// reads: strong ink on strong card, of which no swatch was made. One note for an
// image in a colourway.
func (b *builder) guesses(pm *Motif, m card.Motif, wi int) {
	w := pm.Colourways[wi]
	looks := map[string]look.Layer{}
	for _, l := range w.Layers {
		looks[l.ID] = l
	}
	seen := map[string]bool{}
	var which []string
	var worst look.Pair
	for _, p := range w.Pairs {
		of := p.B
		if looks[p.A].Card != "" && (looks[of].Card == "" || looks[p.A].Doubt > looks[of].Doubt) {
			of = p.A
		}
		// Only ink on card: what prints do to one another is seen as they are struck.
		if doubt := looks[of].Doubt; looks[of].Card == "" || p.Length < look.MergesOver || doubt < leastDoubt || math.Abs(p.Diff-b.o.readable) > doubt {
			continue
		}
		if !seen[of] {
			seen[of] = true
			which = append(which, of)
		}
		if worst.B == "" {
			worst = p
		}
	}
	if len(which) == 0 {
		return
	}
	l := looks[which[0]]
	what := fmt.Sprintf("%s on %s is a guess: swatch it", l.InkName, b.kit.PaperName(l.Card))
	if len(which) > 1 {
		what = fmt.Sprintf("%s, and %d more", what, len(which)-1)
	}
	b.add(Finding{ID: fmt.Sprintf("guess:%s:%s", pm.ID, w.ID), Station: "inks", Severity: Tip, Motif: pm.ID, Colourway: w.ID, Layer: which[0], What: what,
		Why: fmt.Sprintf("It was never seen on this colour; it may dry %.0f off what is shown, and %s and %s are foretold %.1f apart, where %.0f is needed to read.",
			l.Doubt, pm.img.LabelOf(worst.B), pm.img.LabelOf(worst.A), worst.Diff, b.o.readable),
		Do:      "Strike it once on a scrap of that card before you ink the piece, or keep a swatch of it in the stores.",
		Numbers: map[string]float64{"doubt": l.Doubt, "difference": worst.Diff}}, strings.Join(which, ","), m.Colourways[wi].Layers[which[0]].Ink)
}

// leastDoubt is the uncertainty, CIEDE2000, under which a colour is no guess; our
// own default.
const leastDoubt = 5.0
