package plan

import (
	"fmt"
	"maps"
	"slices"
	"sort"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/front"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/motif"
	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/core/work"
)

// Severity ranks findings.
type Severity string

// Severities, worst first.
const (
	Spoils Severity = "spoils"
	Shows  Severity = "shows"
	Wastes Severity = "wastes"
	Tip    Severity = "tip"
)

// Finding is something the plan noticed.
type Finding struct {
	ID        string             `json:"id" doc:"stable for the same thing in the same place"`
	Station   string             `json:"station" enum:"pieces,inks,register,front,depth,work,stores"`
	Severity  Severity           `json:"severity" enum:"spoils,shows,wastes,tip"`
	What      string             `json:"what"`
	Why       string             `json:"why"`
	Do        string             `json:"do"`
	Motif     string             `json:"motif,omitempty"`
	Colourway string             `json:"colourway,omitempty"`
	Layer     string             `json:"layer,omitempty"`
	Element   string             `json:"element,omitempty"`
	Step      string             `json:"step,omitempty"`
	Numbers   map[string]float64 `json:"numbers,omitempty" doc:"the numbers behind it"`
	Cause     string             `json:"cause" doc:"changes when the cause changes, so that a note set aside comes back"`
	Aside     string             `json:"aside,omitempty" doc:"the reason it was set aside for"`
	Mend      *Mend              `json:"mend,omitempty"`

	prose string // by which notes were set aside before causes were facts
}

// Mend is a change of the card that would settle a finding.
type Mend struct {
	Label     string  `json:"label"`
	Kind      string  `json:"kind" enum:"finish,move,order,rank,words"`
	Ink       string  `json:"ink,omitempty"`
	Layer     string  `json:"layer,omitempty"`
	Motif     string  `json:"motif,omitempty"`
	Colourway string  `json:"colourway,omitempty"`
	Element   string  `json:"element,omitempty"`
	DX        float64 `json:"dx,omitempty" doc:"mm"`
	DY        float64 `json:"dy,omitempty" doc:"mm"`
}

// add keeps a finding. Its cause is made of what caused it, never of how that is
// worded or in which unit: the numbers behind it, rounded to what a person could
// tell apart, and the facts given, such as the ids of inks and papers.
func (b *builder) add(f Finding, facts ...string) {
	names := slices.Sorted(maps.Keys(f.Numbers))
	parts := make([]string, 0, len(names)+len(facts))
	for _, n := range names {
		parts = append(parts, fmt.Sprintf("%s=%.1f", n, f.Numbers[n]+0)) // +0: no minus nought
	}
	f.Cause = strings.Join(append(append(parts, string(f.Severity)), facts...), " ")
	f.prose = fmt.Sprintf("%s|%v", f.What, f.Why)
	b.plan.Findings = append(b.plan.Findings, f)
}

// Open counts the findings that are not set aside, and those of them that would
// spoil the card.
func Open(fs []Finding) (all, spoils int) {
	for _, f := range fs {
		if f.Aside != "" {
			continue
		}
		all++
		if f.Severity == Spoils {
			spoils++
		}
	}
	return all, spoils
}

func (b *builder) findings() {
	for mi := range b.plan.Motifs {
		pm, m := &b.plan.Motifs[mi], b.card.Motifs[mi]
		if pm.Problem != "" {
			b.add(Finding{ID: "image:" + m.ID, Station: "pieces", Severity: Spoils, What: m.Name + " cannot be worked out", Why: pm.Problem, Do: "Mend the set or take the image off the card.", Motif: m.ID})
			continue
		}
		b.hiddenLayers(pm)
		b.fits(pm)
		b.fine(pm)
		used := b.onCard(m)
		for wi := range pm.Colourways {
			if !used[m.Colourways[wi].ID] {
				continue
			}
			b.owned(pm, m, m.Colourways[wi])
			if b.bare(m, m.Colourways[wi]) {
				b.missing(pm, m, wi)
				continue
			}
			b.readAsOne(pm, m, wi)
			b.order(pm, m, wi)
			b.missing(pm, m, wi)
			b.heatOnShy(pm, m, wi)
			b.sharedStamps(pm, m, wi)
			b.guesses(pm, m, wi)
			b.hueAlone(pm, wi)
			b.jars(pm, wi)
			b.ladders(pm, m, wi)
		}
	}
	b.besideItself()
	b.words()
	b.overEdge()
	b.tooThick()
	b.outOfOrder()
	asides := map[string]card.Aside{}
	for _, a := range b.card.SetAside {
		asides[a.Finding] = a
	}
	for i := range b.plan.Findings {
		f := &b.plan.Findings[i]
		if a, ok := asides[f.ID]; ok && (a.Cause == f.Cause || a.Cause == f.prose) {
			f.Aside = a.Reason
			if f.Aside == "" {
				f.Aside = "no reason given"
			}
		}
	}
	rank := map[Severity]int{Spoils: 0, Shows: 1, Wastes: 2, Tip: 3}
	sort.SliceStable(b.plan.Findings, func(i, j int) bool {
		return rank[b.plan.Findings[i].Severity] < rank[b.plan.Findings[j].Severity]
	})
}

func (b *builder) hiddenLayers(pm *Motif) {
	for _, v := range pm.img.Shapes.Views {
		if v.Hidden() {
			b.add(Finding{ID: "hidden:" + pm.ID + ":" + v.Layer.ID, Station: "pieces", Severity: Wastes, Motif: pm.ID, Layer: v.Layer.ID,
				What: v.Layer.Label + " has nothing to show",
				Why:  fmt.Sprintf("All but %.1f mm² of its %.0f mm² lies under other layers.", v.Visible, v.Area),
				Do:   "Cut it from any scrap and leave it plain, or move it up the stack.", Numbers: map[string]float64{"visible": v.Visible, "area": v.Area}})
		}
	}
}

func (b *builder) fits(pm *Motif) {
	for i, v := range pm.img.Shapes.Views {
		p := pm.Layers[i].Play
		if !p.Judged || v.Host < 0 {
			continue
		}
		host := pm.img.Shapes.Views[v.Host].Layer.Label
		if p.Outside > 0 {
			b.add(Finding{ID: "outside:" + pm.ID + ":" + v.Layer.ID, Station: "register", Severity: Shows, Motif: pm.ID, Layer: v.Layer.ID,
				What: fmt.Sprintf("%s runs over %s", v.Layer.Label, host),
				Why:  fmt.Sprintf("%.1f mm² lie past what is forgiven, as designed.", p.Outside),
				Do:   "Set its fit to free if it is meant to stand over, or choose another layer for it to sit on.", Numbers: map[string]float64{"outside": p.Outside}})
			continue
		}
		if p.Fit == kit.FitEvenRim && p.Rim > 0 && p.RimWide > unevenRim*p.Rim {
			b.add(Finding{ID: "rim:" + pm.ID + ":" + v.Layer.ID, Station: "register", Severity: Tip, Motif: pm.ID, Layer: v.Layer.ID,
				What: fmt.Sprintf("The rim round %s is uneven as designed", v.Layer.Label),
				Why:  fmt.Sprintf("It goes from %.1f mm to %.1f mm, and its fit says that it must look even.", p.Rim, p.RimWide),
				Do:   "Move it in its set until the rim is even, or set its fit to within in Pieces.", Numbers: map[string]float64{"narrow": p.Rim, "wide": p.RimWide}})
		}
		way := register.Steadiest(placing.PieceOf(pm.img.Shapes, i), b.o.hand.Ways)
		if p.Tight < way.Spread.Shift {
			b.add(Finding{ID: "play:" + pm.ID + ":" + v.Layer.ID, Station: "register", Severity: Shows, Motif: pm.ID, Layer: v.Layer.ID,
				What: fmt.Sprintf("%s can hardly be placed on %s", v.Layer.Label, host),
				Why:  fmt.Sprintf("It may drift %.2f mm at the tightest; placed %s, the steadiest way for it, a hand repeats to %.2f mm.", p.Tight, way.Name, way.Spread.Shift),
				Do:   "Prepare spare blanks (Register counts them), let it run over a little more, or give it a wider rim.", Numbers: map[string]float64{"play": p.Tight, "spread": way.Spread.Shift}})
		}
	}
}

// unevenRim is by how much the widest rim may pass the narrowest; our own default.
const unevenRim = 2.5

func (b *builder) readAsOne(pm *Motif, m card.Motif, wi int) {
	w := pm.Colourways[wi]
	for _, p := range w.Pairs {
		if p.Diff >= b.o.readable || p.Length < look.MergesOver {
			continue
		}
		if p.A == "" && p.Length < vanishShare*edgeOf(pm, p.B) {
			continue // a corner of it meets the panel; the rest is told from what it lies on
		}
		if p.A == "" && b.carries(pm, m.Colourways[wi], p.B) {
			continue // the white rim round a print is its look
		}
		f := Finding{ID: fmt.Sprintf("one:%s:%s:%s:%s", pm.ID, w.ID, p.A, p.B), Station: "inks", Severity: Shows, Motif: pm.ID, Colourway: w.ID, Layer: p.B,
			What:    fmt.Sprintf("%s and %s will read as one", pm.img.LabelOf(p.B), pm.img.LabelOf(p.A)),
			Why:     fmt.Sprintf("They dry %.1f apart where they touch (%s of edge). Below %.0f they merge at arm's length.", p.Diff, b.o.format(p.Length), b.o.readable),
			Do:      "Give one of them an ink further away in lightness.",
			Numbers: map[string]float64{"difference": p.Diff, "edge": p.Length}}
		if p.A == "" {
			f.What = fmt.Sprintf("%s vanishes on the panel", pm.img.LabelOf(p.B))
			f.Do = "Take a deeper ink, or another panel."
		}
		f.Mend = b.mendInk(pm, m, wi, p.B)
		if f.Mend != nil {
			f.Do = b.kit.InkName(f.Mend.Ink) + " would make it."
		}
		b.add(f)
	}
}

// vanishShare is the share of a layer's edge that has to meet the panel for it to
// vanish there; our own default.
const vanishShare = 0.15

// edgeOf is the length of a layer's outline, mm.
func edgeOf(pm *Motif, layer string) float64 {
	for _, v := range pm.img.Shapes.Views {
		if v.Layer.ID == layer {
			return v.Edge
		}
	}
	return 0
}

// maxMends is how many notes of one plan get a mend looked for in the drawer;
// it takes trying every ink. The others get theirs when these are settled.
const maxMends = 6

// mendInk proposes the ink that settles every weak pair of a layer; nil when the
// drawer has none, or when enough was looked for already.
func (b *builder) mendInk(pm *Motif, m card.Motif, wi int, layer string) *Mend {
	if b.mends++; b.mends > maxMends {
		return nil
	}
	best := b.advice(pm.img).Ink(m.Colourways[wi], pm.Colourways[wi], layer)
	if best == "" {
		return nil
	}
	return &Mend{Label: "Use " + b.kit.InkName(best), Kind: "finish", Ink: best, Layer: layer, Motif: m.ID, Colourway: m.Colourways[wi].ID}
}

func (b *builder) order(pm *Motif, m card.Motif, wi int) {
	w := pm.Colourways[wi]
	cs := look.Crossings(m, w)
	if len(cs) == 0 {
		return
	}
	worst := cs[0]
	for _, c := range cs {
		if c.Drop < worst.Drop {
			worst = c
		}
	}
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
	b.add(Finding{ID: fmt.Sprintf("order:%s:%s", pm.ID, w.ID), Station: "inks", Severity: Tip, Motif: pm.ID, Colourway: w.ID, Layer: hi.ID,
		What: what,
		Why:  fmt.Sprintf("%s dries at lightness %.0f, %s at %.0f. The school of this image is %s: %s.", lo.Label, ll, hi.Label, hl, m.School, rule),
		Do:   "Swap the inks, change the tone ranks, or mark one of them as an accent. It is a default, not a law.", Numbers: map[string]float64{"low": ll, "high": hl, "pairs": float64(len(cs))}}, lo.ID, hi.ID)
}

func (b *builder) missing(pm *Motif, m card.Motif, wi int) {
	for _, l := range pm.Colourways[wi].Layers {
		if l.Missing != "" {
			b.add(Finding{ID: fmt.Sprintf("missing:%s:%s:%s", pm.ID, pm.Colourways[wi].ID, l.ID), Station: "inks", Severity: Spoils, Motif: pm.ID, Colourway: pm.Colourways[wi].ID, Layer: l.ID,
				What: fmt.Sprintf("%s has no %s", pm.img.LabelOf(l.ID), l.Missing), Why: "What it names is not in the stores, so plain white stands in for it.", Do: "Choose one you own."}, l.Missing, m.Colourways[wi].Layers[l.ID].Ink, m.Colourways[wi].Layers[l.ID].Paper)
		}
	}
}

// heatOnShy warns of ink that needs heat on vellum, acetate or foam.
func (b *builder) heatOnShy(pm *Motif, m card.Motif, wi int) {
	way := m.Colourways[wi]
	for i, v := range pm.img.Shapes.Views {
		f := way.Layers[v.Layer.ID]
		ink, ok := b.kit.Ink(f.Ink)
		if !ok || !ink.Heat() {
			continue
		}
		j := i
		for j != motif.Ground && pm.img.Shapes.Views[j].Layer.Make != card.Cut {
			j = pm.img.Shapes.Views[j].Host
		}
		if j == motif.Ground {
			continue
		}
		if p, ok := b.kit.Paper(way.Layers[pm.img.Shapes.Views[j].Layer.ID].Paper); ok && p.HeatShy() {
			b.add(Finding{ID: fmt.Sprintf("hot:%s:%s:%s", pm.ID, way.ID, v.Layer.ID), Station: "work", Severity: Spoils, Motif: pm.ID, Colourway: way.ID, Layer: v.Layer.ID,
				What: fmt.Sprintf("%s would be heated on %s", v.Layer.Label, p.Kind), Why: fmt.Sprintf("%s needs heat, and %s warps under it.", ink.Name, p.Name),
				Do: "Take an ink that dries by itself, or print it on card."}, ink.ID, p.ID)
		}
	}
}

func (b *builder) overEdge() {
	for i, p := range b.plan.Front.Elements {
		if !p.Over {
			continue
		}
		least, side := p.Margins.Least()
		f := Finding{ID: "edge:" + p.ID, Station: "front", Severity: Shows, Element: p.ID,
			What: fmt.Sprintf("%s hangs over the panel", p.Label),
			Why:  fmt.Sprintf("It passes the %s edge by %s.", side, b.o.format(-least)),
			Do:   "Move it in, or trim it from the back after the glue is dry and before the panel is mounted.", Numbers: map[string]float64{"over": -least}}
		if dx, dy, fits := front.Margins(p.Margins).Mend(); fits {
			f.Mend = &Mend{Label: "Move it in", Kind: "move", Element: b.card.Elements[i].ID, DX: dx, DY: dy}
		} else {
			f.Do = "It is larger than the panel. Take a larger panel, or trim it from the back before the panel is mounted."
		}
		b.add(f, side)
	}
}

func (b *builder) tooThick() {
	d := b.plan.Depth
	if d.Post.Class == measure.ClassTooThick {
		over := d.Post.Filled - d.Post.Limit
		b.add(Finding{ID: "thick", Station: "depth", Severity: Spoils, What: "Thicker than a letter may be",
			Why:     fmt.Sprintf("In its envelope it is %s, a US letter at most %s. %s is the highest. The carrier's current rules go first.", b.o.format(d.Post.Filled), b.o.format(d.Post.Limit), capital(d.At)),
			Do:      fmt.Sprintf("Take %s off: glue a foamed part flat, or use thinner foam. Or send it as a parcel.", b.o.format(over)),
			Numbers: map[string]float64{"filled": d.Post.Filled, "limit": d.Post.Limit}}, d.At)
	}
	if d.Post.Envelope != "" && !d.Post.Fits {
		b.add(Finding{ID: "envelope", Station: "depth", Severity: Spoils, What: "The envelope is too small",
			Why: fmt.Sprintf("The card is %s and %s thick; wrapped round, it takes up %s × %s of the inside.", b.size(b.card.Base.Size()), b.o.format(d.Total), b.o.format(d.Post.NeedsW), b.o.format(d.Post.NeedsH)),
			Do:  "Choose a larger envelope in Front, or make the card flatter.", Numbers: map[string]float64{"total": d.Total, "needsW": d.Post.NeedsW, "needsH": d.Post.NeedsH}}, b.card.Base.Envelope)
	}
}

func capital(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:]
}

// outOfOrder reports steps the person has moved before one they need.
func (b *builder) outOfOrder() {
	for _, br := range b.breaches {
		s, n := b.ordered[br.Step], b.ordered[br.Needs]
		what := fmt.Sprintf("“%s” stands before “%s”", s.Title, n.Title)
		if n.Kind == work.HeatStep && br.Why == whyHeatFoam {
			what = fmt.Sprintf("“%s” would come after foam", n.Title)
		}
		b.add(Finding{ID: "step:" + s.ID + ":" + n.ID, Station: "work", Severity: Spoils, Step: n.ID,
			What: what, Why: fmt.Sprintf("Step %d needs step %d first: %s.", s.Number, n.Number, br.Why),
			Do: fmt.Sprintf("Move “%s” up, or put the steps back in the proposed order.", n.Title), Mend: &Mend{Label: "Proposed order", Kind: "order"}}, br.Why)
	}
}
