package standing

import (
	"cmp"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"slices"
)

// Less is what the card comes to with one level less beneath a part.
type Less struct {
	Element string         `json:"element"`
	Name    string         `json:"name"`
	Total   float64        `json:"total" doc:"greatest thickness then, mm"`
	Mailed  []depth.Mailed `json:"mailed" nullable:"false"`
	Edits   []card.Edit    `json:"edits" nullable:"false"`
}

// less tries one level less beneath everything that stands on spacers.
func (v View) less(total float64) []Less {
	out := []Less{}
	bd := *v.Build
	panel := bd.Thick
	for _, s := range v.Stood {
		if s.ID == (build.ID{Element: bd.Panel().ID}) {
			panel = s.Z1
		}
	}
	_, highest := depth.Top(v.Stood, bd.Thick)
	if highest < 0 {
		return out
	}
	// Only what lies beneath the highest, or is it, can make the card thinner.
	beneath := func(t build.Thing) bool { return t.Rough.Overlaps(v.Stood[highest].Outline) }
	try := func(element, name string, bonds []card.Bond, hold card.Hold, goes func(build.Piece) bool) {
		if !card.Raised(bonds) {
			return
		}
		hold.Bonds = oneLess(bonds)
		holds := build.HoldsOf(bd.Stock, hold.Bonds)
		lower := bd
		lower.Pieces = slices.Clone(bd.Pieces)
		for k := range lower.Pieces {
			if x := &lower.Pieces[k]; !x.Print() && goes(*x) {
				x.Holds = holds
				x.Lift, x.Foam = build.LiftOf(holds)
			}
		}
		stood := v.Pads.Stand(&lower)
		then, _ := depth.Top(stood, bd.Thick)
		if then > total-leastLess {
			return
		}
		l := Less{Element: element, Name: name, Total: then, Mailed: []depth.Mailed{}, Edits: []card.Edit{{Hold: &hold}}}
		env, _ := bd.Stock.Envelope(bd.Card.Base.Envelope)
		size := bd.Card.Base.Size()
		_, _, l.Mailed = depth.Posting{Size: size, Girth: depth.Girth(size, bd.Thick, stood), Thick: then, Raised: max(0, then-panel), Grams: bd.Weight()}.Mail(env, v.Carriers, v.Write)
		out = append(out, l)
	}
	tried := map[string]bool{}
	for _, t := range bd.Things {
		e := t.Element
		if e.Face != card.Front || !beneath(t) {
			continue
		}
		try(e.ID, t.Name, e.Bonds, card.Hold{Element: e.ID}, func(x build.Piece) bool { return x.ID.Element == e.ID && x.On.Element != e.ID })
		if e.Image == nil || tried[e.Image.Motif] {
			continue
		}
		tried[e.Image.Motif] = true
		mo, _ := bd.Card.Motif(e.Image.Motif)
		for _, l := range mo.Layers {
			try(e.ID, mo.Name+", "+l.Label, l.Bonds, card.Hold{Motif: mo.ID, Layer: l.ID}, func(x build.Piece) bool {
				of, _ := bd.Card.Element(x.ID.Element)
				return of.Image != nil && of.Image.Motif == mo.ID && x.ID.Part == l.ID && x.On.Element == x.ID.Element
			})
		}
	}
	slices.SortStableFunc(out, func(a, b Less) int { return cmp.Compare(a.Total, b.Total) })
	return out
}

// oneLess are bonds with one spacer less, or none where there was one.
func oneLess(bonds []card.Bond) []card.Bond {
	out := slices.Clone(bonds)
	for i, b := range out {
		if !b.Raised() {
			continue
		}
		out[i].Pads = nil
		switch {
		case b.Level > 1:
			out[i].Level--
		case len(b.Shims) > 0 && b.Spacer != "":
			out[i].Shims = nil
		default:
			out[i] = card.Bond{Adhesive: b.Adhesive, Zone: b.Zone}
		}
	}
	return out
}

// leastLess is how much thinner, mm, a card must get for it to be said.
const leastLess = 0.05
