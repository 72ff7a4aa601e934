package foresee

import (
	"fmt"
	"maps"
	"math"
	"reflect"
	"slices"
	"strings"

	"ochrestone/core/advise"
	"ochrestone/core/blend"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/look"
	"ochrestone/core/motif"
	"ochrestone/core/words"
)

// Our own defaults.
const (
	vanishShare = 0.15 // of a layer's edge that has to meet the panel for it to vanish there
	partsByHue  = 4.0  // CIEDE2000 under which a pair that reads to ordinary eyes is lost to others
	jarShare    = 0.03 // a detail jars when it is so small a share of what shows
	jarDiff     = 68.0 // and stands so far off what it touches, CIEDE2000
	leastDoubt  = 5.0  // CIEDE2000 under which a colour is no guess
)

func inkRules() []Rule {
	return append(colourRules(),
		Rule{ID: "noink", Station: Inks, Severity: Tip, Source: practice, check: colourways(noInk)},
		stampRule(),
		Rule{ID: "guess", Station: Inks, Severity: Tip, Source: "Kubelka and Munk against Beer and Lambert; see docs/ARCHITECTURE.md",
			Limits: []Limit{{"doubt that counts", leastDoubt, "CIEDE2000", ""}}, check: inked(guesses)})
}

func stampRule() Rule {
	return Rule{ID: "stamp", Station: Inks, Severity: Shows, Source: practice, check: images(sharedStamps)}
}

// colourRules are those that a change of one ink can break.
func colourRules() []Rule {
	return []Rule{
		{ID: "one", Station: Inks, Severity: Shows, Source: "CIE 142-2001 (CIEDE2000); the limit is ours",
			Limits: []Limit{{"difference that reads", look.Readable, "CIEDE2000", ""}, {"shared edge that counts", look.MergesOver, "mm", ""}, {"share of the edge that vanishes", vanishShare, "share", ""}}, check: inked(readsAsOne)},
		{ID: "order", Station: Inks, Severity: Tip, Source: practice, Limits: []Limit{{"slack", look.OrderSlack, "L*", ""}}, check: inked(order)},
		{ID: "hue", Station: Inks, Severity: Tip, Source: "Brettel, Viénot and Mollon 1997; the limit is ours", Limits: []Limit{{"difference left", partsByHue, "CIEDE2000", ""}}, check: inked(hueAlone)},
		{ID: "jars", Station: Inks, Severity: Tip, Source: practice, Limits: []Limit{{"share of what shows", jarShare, "share", ""}, {"difference", jarDiff, "CIEDE2000", ""}}, check: inked(jars)},
		{ID: "blend", Station: Inks, Severity: Shows, Source: practice, Limits: []Limit{{"least step", blend.LeastRung, "L*", ""}, {"greatest step", blend.MostRung, "L*", ""}}, check: inked(ladders)},
	}
}

// plainWhite is the lightness, L*, from which card is white: what is cut from coloured card is coloured.
const plainWhite = 90.0

func noInk(v *View, m *Image, wi int, add func(Hit)) {
	if !m.bare(wi) {
		return
	}
	w := m.Colourways[wi]
	for _, l := range m.Layers {
		if c := v.Stock.PaperColour(w.Layers[l.ID].Paper).Lab(); l.Make == card.Cut && (c.L < plainWhite || math.Hypot(c.A, c.B) > 8) {
			return
		}
	}
	add(Hit{Key: []string{m.ID, w.ID}, At: At{Motif: m.ID, Colourway: w.ID},
		What: fmt.Sprintf("No layer of %s has an ink yet", m.Name), Why: "Until they have, all of it dries the colour of its card.",
		Do: "Press Suggest inks, or choose one for each layer. Leave it so if plain card is what you want."})
}

// sameAgain reports whether two layers are one part twice: one traced round it as its back,
// or put on offset over it.
func (m *Image) sameAgain(a, b string) bool {
	var of []card.Layer
	for _, l := range m.Layers {
		if l.ID == a || l.ID == b {
			of = append(of, l)
		}
	}
	return len(of) == 2 && of[0].Part == of[1].Part && (of[0].Traced != 0 || of[1].Traced != 0 || of[0].Shifted != 0 || of[1].Shifted != 0)
}

// plainBack reports whether a layer is traced round another as its back, and left plain.
func (m *Image) plainBack(w card.Colourway, layer string) bool {
	return w.Layers[layer].First() == "" && slices.ContainsFunc(m.Layers, func(l card.Layer) bool { return l.ID == layer && l.Traced != 0 })
}

// halves reports whether two layers are of one shape, as they are or left for right, and of one
// finish: two halves of a thing, or two of a row.
func (m *Image) halves(w card.Colourway, a, b string) bool {
	var of []motif.View
	for _, v := range m.Shapes.Views {
		if v.Layer.ID == a || v.Layer.ID == b {
			of = append(of, v)
		}
	}
	if len(of) != 2 || !reflect.DeepEqual(w.Layers[a], w.Layers[b]) {
		return false
	}
	s, t := of[0].Outline.Bounds(), of[1].Outline.Bounds()
	return math.Abs(of[0].Area-of[1].Area) < 0.01*of[0].Area && math.Abs(of[0].Edge-of[1].Edge) < 0.01*of[0].Edge && math.Abs(s.W()-t.W()) < 0.1 && math.Abs(s.H()-t.H()) < 0.1
}

func readsAsOne(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Looks[wi]
	for _, p := range w.Pairs {
		if p.Diff >= v.Readable || p.Length < look.MergesOver {
			continue
		}
		if p.A == "" && p.Length < vanishShare*m.edgeOf(p.B) {
			continue // a corner of it meets the panel; the rest is told from what it lies on
		}
		if p.A == "" && m.plainBack(m.Colourways[wi], p.B) {
			continue // a back that is not inked is there to be stood on
		}
		if p.A == "" && m.carries(m.Colourways[wi], p.B) {
			continue // the white rim round a print is its look
		}
		if p.A == "" && !v.trial {
			if fades, known := v.vanishes(m, w.ID, p.B); known && !fades {
				continue // on the card something else lies round it
			}
		}
		if v.seenThrough(m.Colourways[wi], m, p.A) || v.seenThrough(m.Colourways[wi], m, p.B) {
			continue // a pane is there to be looked through
		}
		if m.sameAgain(p.A, p.B) {
			continue // a back, or a copy put on offset, is there to be one with its layer
		}
		if p.A != "" && m.carries(m.Colourways[wi], p.A) && m.carries(m.Colourways[wi], p.B) {
			continue // two bare rims are one look
		}
		if m.halves(m.Colourways[wi], p.A, p.B) {
			continue // two of one shape in one finish are meant as one
		}
		h := Hit{Key: []string{m.ID, w.ID, p.A, p.B}, At: At{Motif: m.ID, Colourway: w.ID, Layer: p.B},
			What:    fmt.Sprintf("%s and %s will read as one", m.LabelOf(p.B), m.LabelOf(p.A)),
			Why:     fmt.Sprintf("They dry %.1f apart where they touch (%s of edge). Below %.0f they merge at arm's length.", p.Diff, v.Format(p.Length), v.Readable),
			Do:      "Give one of them an ink further away in lightness.",
			Numbers: map[string]float64{"difference": p.Diff, "edge": p.Length}}
		if p.A == "" {
			h.What = fmt.Sprintf("%s vanishes on %s", m.LabelOf(p.B), v.groundOf(m, wi))
			h.Do = "Take a deeper ink, or another panel."
		}
		if ink := v.settling(m, wi, p.B, h.Key); ink != "" {
			h.Do = v.Stock.InkName(ink) + " would make it."
			h.Mend = v.useInk(m, wi, p.B, ink)
		}
		add(h)
	}
}

// groundOf is what a person calls that which carries an image in a colourway; the panel where it is
// laid nowhere on the front.
func (v *View) groundOf(m *Image, wi int) string {
	for _, t := range v.Build.Things {
		if e := t.Element; e.Image != nil && e.Image.Motif == m.ID && e.Image.Colourway == m.Colourways[wi].ID && e.Face == card.Front && e.Image.Cutout == nil {
			return words.Small(v.Build.LeafName(v.Build.Carrier(e).Element))
		}
	}
	return "the panel"
}

// seenThrough tells whether a layer is a plain leaf of vellum or acetate.
func (v *View) seenThrough(w card.Colourway, m *Image, layer string) bool {
	f := w.Layers[layer]
	p, ok := v.Stock.Paper(f.Paper)
	return ok && !p.Opaque() && f.Ink == "" && len(f.Blends) == 0 && slices.ContainsFunc(m.Layers, func(l card.Layer) bool { return l.ID == layer && l.Make == card.Cut })
}

// useInk is the mend that gives a layer another ink and leaves its blends and edges.
func (v *View) useInk(m *Image, wi int, layer, ink string) *Mend {
	w := m.Colourways[wi]
	f := w.Layers[layer]
	f.Ink, f.Impressions = ink, 1
	return &Mend{"Use " + v.Stock.InkName(ink), []card.Edit{{Finish: &card.SetFinish{Motif: m.ID, Colourway: w.ID, Layers: map[string]card.Finish{layer: f}}}}}
}

// tries is how many inks are looked at for one mend.
const tries = 60

// settling looks for the ink that, on one layer, settles a hit of readsAsOne and makes
// nothing of the image's colours worse; empty when the drawer has none.
func (v *View) settling(m *Image, wi int, layer string, key []string) string {
	if v.mends++; v.mends > mostMends {
		return ""
	}
	w := m.Colourways[wi]
	before := v.colourHits(m, wi, w, m.Looks[wi])
	for _, ink := range v.advice(m).Inks(w, m.Looks[wi], layer, tries) {
		trial := w
		trial.Layers = maps.Clone(w.Layers)
		f := trial.Layers[layer]
		f.Ink, f.Impressions = ink, 1
		trial.Layers[layer] = f
		after := v.colourHits(m, wi, trial, v.Stock.Look(m.Image.Image, trial))
		if _, still := after["one:"+strings.Join(key, ":")]; !still && !worse(before, after) {
			return ink
		}
	}
	return ""
}

// colourHits are the findings about the colours of one colourway by their ids, as it would
// look.
func (v *View) colourHits(m *Image, wi int, w card.Colourway, as look.Colourway) map[string]Finding {
	trial := *m
	trial.Colourways, trial.Looks = slices.Clone(m.Colourways), slices.Clone(m.Looks)
	trial.Colourways[wi], trial.Looks[wi] = w, as
	trial.used = map[string]bool{w.ID: true}
	u := *v
	u.Images, u.mends, u.trial = []Image{trial}, mostMends, true
	out := map[string]Finding{}
	for _, r := range append(colourRules(), stampRule()) {
		r.check(&u, func(h Hit) { f := r.finding(h); out[f.ID] = f })
	}
	return out
}

// slight is a change of a number that nobody would see.
const slight = 0.05

// worseBy says by which number a finding of a rule grows worse, upwards or downwards.
var worseBy = map[string]struct {
	name string
	sign float64
}{"one": {"difference", -1}, "hue": {"other", -1}, "jars": {"difference", 1}, "order": {"pairs", 1}}

// worse reports whether any finding is new, or lies further from its limit than it did.
func worse(before, after map[string]Finding) bool {
	for id, f := range after {
		was, had := before[id]
		if !had || f.Severity != was.Severity && slices.Index(severities, f.Severity) < slices.Index(severities, was.Severity) {
			return true
		}
		if n, ok := worseBy[f.Rule]; ok && n.sign*(f.Numbers[n.name]-was.Numbers[n.name]) > slight {
			return true
		}
	}
	return false
}

// edgeOf is the length of a layer's outline, mm.
func (m *Image) edgeOf(layer string) float64 {
	for _, v := range m.Shapes.Views {
		if v.Layer.ID == layer {
			return v.Edge
		}
	}
	return 0
}

// carries tells whether a cut layer is bare card that prints lie on: its rim is meant
// to show as card, white on white too.
func (m *Image) carries(w card.Colourway, layer string) bool {
	for i, v := range m.Shapes.Views {
		if v.Layer.ID != layer {
			continue
		}
		f := w.Layers[layer]
		if v.Layer.Make != card.Cut || f.Ink != "" || len(f.Blends) > 0 {
			return false
		}
		for _, o := range m.Shapes.Views {
			if o.Host == i && o.Layer.Make != card.Cut && w.Layers[o.Layer.ID].Ink != "" {
				return true
			}
		}
	}
	return false
}

func order(_ *View, m *Image, wi int, add func(Hit)) {
	w := m.Looks[wi]
	cs := look.Crossings(m.Motif, w)
	if len(cs) == 0 {
		return
	}
	worst := slices.MinFunc(cs, func(a, b look.Crossing) int { return int(math.Copysign(1, a.Drop-b.Drop)) })
	lo, hi := m.Layers[worst.Low], m.Layers[worst.High]
	ll, hl := w.Layers[worst.Low].L, w.Layers[worst.High].L
	rule := "lightest first, darker details after"
	if m.School == card.DarkGround {
		rule = "the lowest darkest, rising to light"
	}
	what := fmt.Sprintf("%s and %s are out of order", lo.Label, hi.Label)
	if len(cs) > 1 {
		what = fmt.Sprintf("%d pairs of layers are out of order", len(cs))
	}
	add(Hit{Key: []string{m.ID, w.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: hi.ID}, What: what,
		Why:     fmt.Sprintf("%s dries at lightness %.0f, %s at %.0f. The school of this image is %s: %s.", lo.Label, ll, hi.Label, hl, m.School, rule),
		Do:      "Swap the inks, change the tone ranks, or mark one of them as an accent. It is a default, not a law.",
		Numbers: map[string]float64{"low": ll, "high": hl, "pairs": float64(len(cs))}, Facts: []string{lo.ID, hi.ID}})
}

// who names other eyes in a sentence.
var who = map[colour.Eyes]string{colour.Protan: "people without red cones", colour.Deutan: "people without green cones", colour.Tritan: "people without blue cones", colour.Grey: "a grey copy"}

// hueAlone warns of the pair that reads by its hue alone: clear to most eyes, lost to
// others. Colours meet as they are where they touch, blends and all.
func hueAlone(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Looks[wi]
	var worst look.Pair
	var seen colour.Eyes
	least := partsByHue
	for _, p := range w.Pairs {
		if p.Diff < v.Readable || p.Length < look.MergesOver {
			continue
		}
		if way := m.Colourways[wi]; m.carries(way, p.A) || m.carries(way, p.B) {
			continue // the bare rim round a print is card: how it looks to other eyes is told by its edge
		}
		for _, e := range look.OtherEyes {
			if e == colour.Grey {
				continue // a copy in grey is nobody's eyes
			}
			if d := p.SeenBy(e); d < least {
				worst, seen, least = p, e, d
			}
		}
	}
	if seen == "" {
		return
	}
	add(Hit{Key: []string{m.ID, w.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: worst.B},
		What:    fmt.Sprintf("Only hue parts %s from %s", m.LabelOf(worst.B), m.LabelOf(worst.A)),
		Why:     fmt.Sprintf("They are %.1f apart to most eyes, but %.1f for %s.", worst.Diff, least, who[seen]),
		Do:      "Step one of them lighter or darker if everyone should see it.",
		Numbers: map[string]float64{"difference": worst.Diff, "other": least}, Facts: []string{worst.A, worst.B, string(seen)}})
}

// jars warns of one small detail that stands off too far.
func jars(_ *View, m *Image, wi int, add func(Hit)) {
	w := m.Looks[wi]
	var whole float64
	visible, spared := map[string]float64{}, map[string]bool{}
	for _, v := range m.Shapes.Views {
		whole += v.Visible
		visible[v.Layer.ID], spared[v.Layer.ID] = v.Visible, v.Layer.Spares()
	}
	for _, p := range w.Pairs {
		// What is kept as it is, is meant to stand out.
		if p.A == "" || spared[p.A] || spared[p.B] || p.Diff < jarDiff || p.Length < look.MergesOver {
			continue
		}
		small, other := p.B, p.A
		if visible[p.A] < visible[small] {
			small, other = p.A, p.B
		}
		if visible[small] > jarShare*whole {
			continue
		}
		add(Hit{Key: []string{m.ID, w.ID, small}, At: At{Motif: m.ID, Colourway: w.ID, Layer: small},
			What:    fmt.Sprintf("%s may jar on %s", m.LabelOf(small), m.LabelOf(other)),
			Why:     fmt.Sprintf("It is %.0f %% of what shows and dries %.0f apart from what it touches; too much contrast on a detail jars as much as too little.", 100*visible[small]/whole, p.Diff),
			Do:      "Take an ink nearer to its neighbour, or keep it if it is meant to catch the eye.",
			Numbers: map[string]float64{"share": visible[small] / whole, "difference": p.Diff}})
		return // one such note is enough
	}
}

// guesses notes the layer whose dried colour is a guess that decides whether a pair
// reads: strong ink on strong card, of which no swatch was made. One note for an
// image in a colourway.
func guesses(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Looks[wi]
	looks := map[string]look.Layer{}
	for _, l := range w.Layers {
		looks[l.ID] = l
	}
	var which []string
	var worst look.Pair
	for _, p := range w.Pairs {
		of := p.B
		if looks[p.A].Card != "" && (looks[of].Card == "" || looks[p.A].Doubt > looks[of].Doubt) {
			of = p.A
		}
		// Only ink on card: what prints do to one another is seen as they are struck.
		if doubt := looks[of].Doubt; looks[of].Card == "" || p.Length < look.MergesOver || doubt < leastDoubt || math.Abs(p.Diff-v.Readable) > doubt {
			continue
		}
		if !slices.Contains(which, of) {
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
	what := fmt.Sprintf("%s on %s is a guess: swatch it", l.InkName, v.Stock.PaperName(l.Card))
	if len(which) > 1 {
		what = fmt.Sprintf("%s, and %d more", what, len(which)-1)
	}
	add(Hit{Key: []string{m.ID, w.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: which[0]}, What: what,
		Why: fmt.Sprintf("It was never seen on this colour; it may dry %.0f off what is shown, and %s and %s are foretold %.1f apart, where %.0f is needed to read.",
			l.Doubt, m.LabelOf(worst.B), m.LabelOf(worst.A), worst.Diff, v.Readable),
		Do:      "Strike it once on a scrap of that card before you ink the piece, or keep a swatch of it in the stores.",
		Numbers: map[string]float64{"doubt": l.Doubt, "difference": worst.Diff}, Facts: []string{strings.Join(which, ","), m.Colourways[wi].Layers[which[0]].Ink}})
}

// ladders notes blends that will not show, or leave a line.
func ladders(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Looks[wi]
	for li, l := range w.Layers {
		f := m.Colourways[wi].Layers[l.ID]
		label := m.Shapes.Views[li].Layer.Label
		from := l.L
		for n, bl := range l.Blends {
			if bl.Missing || bl.Zone == card.AllOver {
				continue
			}
			step := from - bl.L
			h := Hit{Key: []string{m.ID, w.ID, l.ID, fmt.Sprint(n)}, At: At{Motif: m.ID, Colourway: w.ID, Layer: l.ID}, Numbers: map[string]float64{"from": from, "to": bl.L}, Facts: []string{f.Blends[n].Ink}}
			switch {
			case math.Abs(step) < blend.LeastRung:
				h.Severity = Wastes
				h.What = fmt.Sprintf("%s at the %s of %s will not show", bl.InkName, bl.Zone, label)
				h.Why = fmt.Sprintf("It takes the lightness there from %.0f to %.0f; less than %.0f is not seen as a blend.", from, bl.L, blend.LeastRung)
				h.Do = "Take a deeper ink, or leave it out."
				add(h)
			case step > blend.MostRung:
				h.What = fmt.Sprintf("%s at the %s of %s will leave a line", bl.InkName, bl.Zone, label)
				h.Why = fmt.Sprintf("It drops the lightness from %.0f to %.0f at once; steps up to %.0f soften.", from, bl.L, blend.MostRung)
				h.Do = "Put an ink between them first."
				if mid := advise.Between(v.Stock, from, bl.L, f.Blends[n].Ink); mid != "" {
					h.Do = fmt.Sprintf("Work in %s between them first.", mid)
				}
				add(h)
			}
			from = bl.L
		}
	}
}
