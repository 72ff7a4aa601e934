package foresee

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/advise"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

func standRules() []Rule {
	return []Rule{
		{ID: "uneven", Station: Depth, Severity: Spoils, Source: "statics of a plate on its supports; how far card bends is our own default", check: uneven},
		{ID: "leans", Station: Depth, Severity: Shows, Source: "statics of a plate on its supports", check: leans},
		{ID: "hangs", Station: Depth, Severity: Shows, Source: practice, Limits: []Limit{{"from the nearest pad at most", depth.Hang, "mm", ""}}, check: hangs},
		{ID: "level", Station: Depth, Severity: Shows, Source: practice, Limits: []Limit{{"apart at most", advise.SameHeight, "mm", ""}}, check: notLevel},
		{ID: "pads", Station: Depth, Severity: Shows, Source: practice, check: padsShow},
		{ID: "no pad", Station: Depth, Severity: Spoils, Source: practice, check: noPad},
		{ID: "in the way", Station: Depth, Severity: Spoils, Source: practice, check: inTheWay},
		{ID: "way in", Station: Depth, Severity: Spoils, Source: practice, check: noWayIn},
	}
}

// pieceName is what a person calls a piece.
func (v *View) pieceName(i int) string {
	if i < 0 {
		return "the card"
	}
	id := v.Stood[i].ID
	e, ok := v.Card.Element(id.Element)
	if !ok {
		return "the card"
	}
	name := build.Name(v.Card, e)
	if id.Part != "" && id.Part != build.CutoutPart {
		return name + ", " + v.Build.PartName(e, id.Part)
	}
	return name
}

// sole reports whether a piece lies on something else than its own thing, so that its
// bonds are those of the element.
func (v *View) sole(i int) bool { return v.Stood[i].On.Element != v.Stood[i].ID.Element }

// held is the edit that holds a piece otherwise.
func (v *View) held(i int, bonds []card.Bond) []card.Edit {
	id := v.Stood[i].ID
	e, _ := v.Card.Element(id.Element)
	if e.Image != nil && !v.sole(i) {
		return []card.Edit{{Hold: &card.Hold{Motif: e.Image.Motif, Layer: id.Part, Bonds: bonds}}}
	}
	return []card.Edit{{Hold: &card.Hold{Element: e.ID, Bonds: bonds}}}
}

// where says where on the front a point is.
func (v *View) where(p shape.Point) string {
	return fmt.Sprintf("%s from the left, %s from the top", v.Format(p.X), v.Format(p.Y))
}

// each calls f for the pieces, a layer of an image once for all places of the image.
func (v *View) each(f func(i int) (Hit, bool), add func(Hit)) {
	if len(v.Stood) == 0 {
		return // a view in which nothing was stood up
	}
	seen := map[At]bool{}
	for _, t := range v.Build.Things {
		for i := t.From; i < t.To; i++ {
			if v.Stood[i].Print() {
				continue
			}
			at := At{Element: t.Element.ID}
			if t.Element.Image != nil && !v.sole(i) {
				at = At{Motif: t.Element.Image.Motif, Layer: v.Stood[i].ID.Part}
			}
			if seen[at] {
				continue
			}
			if h, ok := f(i); ok {
				seen[at] = true
				h.Key, h.At = []string{at.Element, at.Motif, at.Layer}, at
				add(h)
			}
		}
	}
}

// astride is what is done about a part that lies across something.
const astride = "Put a pad on each side of what it crosses, as high as that stands."

// levelled is the mend that brings a piece level; nil where no pads do, or where they would make the
// card thicker than the letter it goes as.
func (v *View) levelled(i int) *Mend {
	if e, ok := v.Card.Element(v.Stood[i].ID.Element); ok && e.Gems != nil {
		return nil // nobody pads a gem
	}
	bonds := advise.Even(v.Pads, v.Build, v.Stood, i)
	if bonds == nil {
		return nil
	}
	out := &Mend{"Pads that bring it level", v.held(i, bonds)}
	if v.Post.Class == measure.ClassTooThick {
		return out
	}
	so := *v.Build
	so.Pieces = slices.Clone(so.Pieces)
	p := &so.Pieces[i]
	p.Holds = build.HoldsOf(v.Stock, bonds)
	p.Lift, p.Foam = build.LiftOf(p.Holds)
	if z, _, _ := v.highest(so); v.Post.Filled+z-v.Total > v.Post.Limit {
		return nil
	}
	return out
}

// asProposed is the mend that stands pads anew.
const asProposed = "Pads as proposed"

// mostEven is for how many pieces of a rule pads are tried: who sees more has to lay the card anew.
const mostEven = 8

func uneven(v *View, add func(Hit)) {
	tried := 0
	v.each(func(i int) (Hit, bool) {
		s := v.Stood[i]
		trouble := s.Trouble()
		if trouble == depth.None || trouble == depth.Leaning || trouble == depth.Bowing {
			return Hit{}, false
		}
		u, name, over := s.Uneven, v.pieceName(i), v.pieceName(s.Uneven.Over)
		h := Hit{Numbers: map[string]float64{"rise": u.Rise, "bump": u.Bump, "gap": u.Gap}, Facts: []string{string(trouble), over}}
		switch trouble {
		case depth.Rocking:
			h.What = fmt.Sprintf("%s rocks on %s", name, over)
			h.Why = fmt.Sprintf("It touches along a line only; %s, it is %s in the air.", v.where(u.GapAt), v.Write.Thin(u.Gap))
			h.Do = astride
		case depth.Riding:
			h.What = fmt.Sprintf("%s rides on %s, off its pads", name, over)
			h.Why = fmt.Sprintf("%s, what is beneath stands %s higher than its pads do.", v.where(u.At), v.Write.Thin(u.Bump))
			h.Do = "Take higher pads, or move them or the part clear of it."
		case depth.Airy:
			h.What = fmt.Sprintf("%s has an end in the air", name)
			h.Why = fmt.Sprintf("It lies on %s; %s, it is %s above what is beneath, further from where it holds than its card bends.", over, v.where(u.GapAt), v.Write.Thin(u.Gap))
			h.Do = "Support the free end with pads as high as the gap."
		}
		if tried++; tried <= mostEven {
			h.Mend = v.levelled(i)
		}
		return h, true
	}, add)
}

func leans(v *View, add func(Hit)) {
	tried := 0
	v.each(func(i int) (Hit, bool) {
		s := v.Stood[i]
		trouble := s.Trouble()
		if trouble != depth.Leaning && trouble != depth.Bowing {
			return Hit{}, false
		}
		u, over := s.Uneven, v.pieceName(s.Uneven.Over)
		h := Hit{What: fmt.Sprintf("%s leans by %s", v.pieceName(i), v.Write.Thin(u.Lean)),
			Why:     fmt.Sprintf("One end lies on %s: it is highest %s, lowest %s.", over, v.where(u.High), v.where(u.Low)),
			Do:      "Support its low end, or lay both ends on the same height.",
			Numbers: map[string]float64{"lean": u.Lean, "bow": u.Bow}, Facts: []string{string(trouble), over}}
		if trouble == depth.Bowing {
			h.What = fmt.Sprintf("%s bows over %s", v.pieceName(i), over)
			h.Why = fmt.Sprintf("Its ends are bent down by %s to hold, and the hump shows.", v.Write.Thin(u.Bow))
			h.Do = astride
		}
		if tried++; tried <= mostEven {
			h.Mend = v.levelled(i)
		}
		return h, true
	}, add)
}

func hangs(v *View, add func(Hit)) {
	v.each(func(i int) (Hit, bool) {
		s := v.Stood[i]
		if s.Off == 0 || s.Trouble() != depth.None || len(s.Supports) == 0 {
			return Hit{}, false
		}
		h := Hit{What: fmt.Sprintf("%s has an end without support", v.pieceName(i)),
			Why:     fmt.Sprintf("%s, it hangs %s from the nearest pad, %s in the air.", v.where(s.OffAt), v.Format(s.Off), v.Write.Thin(v.air(i))),
			Do:      "Put one more pad there, or smaller ones that reach further out; or bend the end down and glue it.",
			Numbers: map[string]float64{"off": s.Off, "gap": v.air(i)}}
		if bonds := v.proposed(i, 0); bonds != nil {
			h.Mend = &Mend{asProposed, v.held(i, bonds)}
			if sp, ok := v.Stock.Spacer(bonds[0].Spacer); ok && bonds[0].Spacer != s.Holds[0].Bond.Spacer {
				h.Mend.Label = "Take " + sp.Name
			}
		}
		return h, true
	}, add)
}

// air is how high the end of a piece that has no support hangs over what is beneath it, mm.
func (v *View) air(i int) float64 {
	s := v.Stood[i]
	below := v.Build.Thick
	for k, o := range v.Stood {
		if k != i && o.Turn < s.Turn && !o.Print() && o.Outline.Bounds().Meets(shape.Box{Min: s.OffAt, Max: s.OffAt}) && o.Outline.Contains(s.OffAt) {
			below = max(below, o.Over(s.OffAt))
		}
	}
	return max(0, s.Below(s.OffAt)-below)
}

// proposed are the bonds of a piece with pads as proposed instead of its own, or with
// another spacer as high where those do not reach; nil where that does not help either, or
// leaves more of it hanging than most, mm.
func (v *View) proposed(i int, most float64) []card.Bond {
	s := v.Stood[i]
	bonds := make([]card.Bond, len(s.Holds))
	own := false
	for k, h := range s.Holds {
		bonds[k] = h.Bond
		own = own || len(h.Bond.Pads) > 0
		bonds[k].Pads = nil
	}
	good := func(bonds []card.Bond) bool {
		again := v.Pads.Again(v.Build, v.Stood, i, build.HoldsOf(v.Stock, bonds))
		return again.Off <= most && again.Trouble() == depth.None && slices.ContainsFunc(again.Supports, func(p depth.Support) bool { return p.Raised })
	}
	if own && good(bonds) {
		return bonds
	}
	for n, r := range advise.Rises(v.Stock, s.Lift, advise.SameHeight, advise.SameHeight) {
		if n >= 8 {
			break
		}
		for k, h := range s.Holds {
			if h.Raised {
				other := slices.Clone(bonds)
				other[k].Spacer, other[k].Level, other[k].Shims = r.Bond.Spacer, r.Bond.Level, r.Bond.Shims
				if good(other) {
					return other
				}
			}
		}
	}
	return nil
}

// notLevel notes elements whose top is not level with what it is to be level with.
func notLevel(v *View, add func(Hit)) {
	top := map[string]float64{}
	for _, s := range v.Stood {
		if !s.Print() {
			top[s.ID.Element] = max(top[s.ID.Element], s.Highest())
		}
	}
	for _, t := range v.Build.Things {
		e := t.Element
		own, to := top[e.ID], top[e.Level]
		if e.Level == "" || own == 0 || to == 0 {
			continue
		}
		off := own - to
		if math.Abs(off) <= advise.SameHeight+1e-9 {
			continue
		}
		with, _ := v.Card.Element(e.Level)
		higher := "higher"
		if off < 0 {
			higher = "lower"
		}
		h := Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: fmt.Sprintf("%s is not level with %s", words.Capital(t.Name), build.Name(v.Card, with)),
			Why: fmt.Sprintf("It stands %s %s.", v.Write.Thin(math.Abs(off)), higher), Do: "Hold it up by other means, or let it be.", Numbers: map[string]float64{"off": off}, Facts: []string{e.Level}}
		if got, err := advise.HeightsFor(v.Pads, v.Build, v.Stood, e.ID, "", e.Level, v.Write); err == nil && len(got.Ways) > 0 {
			h.Mend = &Mend{words.Capital(got.Ways[0].Said), []card.Edit{{Hold: &card.Hold{Element: e.ID, Bonds: []card.Bond{got.Ways[0].Bond}}}}}
		}
		add(h)
	}
}

// peeks is how much, mm², of a pad may stand over the edge unseen.
const peeks = 0.5

func padsShow(v *View, add func(Hit)) {
	v.each(func(i int) (Hit, bool) {
		s := v.Stood[i]
		var own []depth.Support
		for _, p := range s.Supports {
			if p.Own {
				own = append(own, p)
			}
		}
		if len(own) == 0 {
			return Hit{}, false
		}
		h := Hit{Do: "Move it in, or take the pads as proposed."}
		mend := func() *Mend {
			if bonds := v.proposed(i, v.Stood[i].Off); bonds != nil {
				return &Mend{asProposed, v.held(i, bonds)}
			}
			return nil
		}
		for n, p := range own {
			out, err := p.Area.Minus(s.Outline)
			if err != nil {
				continue
			}
			if a := out.Area(); a > peeks {
				h.What = fmt.Sprintf("A pad peeks out behind %s", v.pieceName(i))
				h.Why = fmt.Sprintf("%s, %s of it stand over the edge.", v.where(p.Area.Bounds().Centre()), v.Write.Area(a))
				h.Numbers, h.Mend = map[string]float64{"over": a}, mend()
				return h, true
			}
			for _, o := range own[:n] {
				if o.Hold == p.Hold && o.Area.Overlaps(p.Area) {
					h.What = fmt.Sprintf("Two pads of %s stand in each other's way", v.pieceName(i))
					h.Why = fmt.Sprintf("They overlap, %s.", v.where(p.Area.Bounds().Centre()))
					h.Do, h.Mend = "Move them apart, or take the pads as proposed.", mend()
					return h, true
				}
			}
		}
		return Hit{}, false
	}, add)
}

func noPad(v *View, add func(Hit)) {
	v.each(func(i int) (Hit, bool) {
		s := v.Stood[i]
		if name, what := v.unowned(s.Holds); name != "" {
			hit := Hit{What: fmt.Sprintf("What holds %s is not in the stores", v.pieceName(i)), Why: fmt.Sprintf("%s %q is not there, so neither its height nor whether it holds is known.", words.Capital(what), name),
				Do: "Choose one that you own, or put it back in the stores.", Facts: []string{name}}
			if sp := v.ownPads(); sp != nil && what == "the spacer" {
				hit.Mend = &Mend{"Take " + sp.Name, v.held(i, card.Foam(sp.ID, 1))}
			} else if a := v.hides(); a != "" && what == "the glue" {
				hit.Mend = &Mend{"Take a glue you own", v.held(i, card.Glue(a))}
			}
			return hit, true
		}
		for _, h := range s.Holds {
			sp, ok := v.Stock.Spacer(h.Bond.Spacer)
			if !ok || h.Raised || sp.Thickness > 0 {
				continue
			}
			hit := Hit{What: fmt.Sprintf("What %s stands on has no thickness", v.pieceName(i)), Why: fmt.Sprintf("%s is kept in the stores with a thickness of nothing, so it counts as glue.", sp.Name),
				Do: "Measure it, and write its thickness in the stores; or take another.", Facts: []string{sp.ID}}
			if o := v.ownPads(); o != nil {
				hit.Mend = &Mend{"Take " + o.Name, v.held(i, card.Foam(o.ID, 1))}
			}
			return hit, true
		}
		raised := func(h build.Hold) bool { return h.Raised }
		if !slices.ContainsFunc(s.Holds, raised) || slices.ContainsFunc(s.Supports, func(p depth.Support) bool { return p.Raised }) {
			return Hit{}, false
		}
		h := Hit{What: fmt.Sprintf("No pad goes in behind %s", v.pieceName(i)),
			Why: fmt.Sprintf("It is about %s across, less than a pad needs that is cut small and hidden, or all of it is kept free.", v.Format(2*s.Outline.Area()/max(s.Outline.Length(), 1e-9))),
			Do:  "Take smaller pads, stand them less far back from the edge, or glue it onto a second cut for height."}
		if bonds := v.proposed(i, v.Stood[i].Off); bonds != nil {
			h.Mend = &Mend{"Pads that go in", v.held(i, bonds)}
		}
		return h, true
	}, add)
}

// ownPads is a spacer of the stores that comes as pads: one that the card uses already, else the
// first; nil where there is none.
func (v *View) ownPads() *kit.Spacer {
	for _, u := range v.Card.Uses() {
		if u.Kind != kit.KindSpacer {
			continue
		}
		if o, ok := v.Stock.Spacer(u.ID); ok && o.Thickness > 0 && o.Pads() && !o.Away {
			return o
		}
	}
	for i, o := range v.Stock.Spacers {
		if o.Thickness > 0 && o.Pads() && !o.Away {
			return &v.Stock.Spacers[i]
		}
	}
	return nil
}

// unowned is what of holds names something that is not in the stores, and what sort of
// thing that is; empty where all is there.
func (v *View) unowned(holds []build.Hold) (id, what string) {
	for _, h := range holds {
		for _, s := range append([]string{h.Bond.Spacer}, shimSpacers(h.Bond)...) {
			if _, ok := v.Stock.Spacer(s); !ok && s != "" {
				return s, "the spacer"
			}
		}
		if _, ok := v.Stock.Adhesive(h.Bond.Adhesive); !ok && h.Bond.Adhesive != "" && !h.Raised {
			return h.Bond.Adhesive, "the glue"
		}
	}
	return "", ""
}

func shimSpacers(b card.Bond) (out []string) {
	for _, m := range b.Shims {
		out = append(out, m.Spacer)
	}
	return out
}

// inTheWay notes pads, put by hand, where something is tucked beneath their part.
func inTheWay(v *View, add func(Hit)) {
	under := v.Build.Beneath()
	v.each(func(i int) (Hit, bool) {
		for _, j := range under[i] {
			for _, p := range v.Stood[i].Supports {
				if !p.Raised || !p.Area.Overlaps(v.Stood[j].Outline) {
					continue
				}
				both, err := p.Area.Intersect(v.Stood[j].Outline)
				if err != nil || both.Area() < peeks {
					continue
				}
				h := Hit{What: fmt.Sprintf("Foam is in the way of %s", v.pieceName(j)),
					Why:     fmt.Sprintf("It slips in beneath %s, and meets a pad %s: %s of it.", v.pieceName(i), v.where(both.Bounds().Centre()), v.Write.Area(both.Area())),
					Do:      "Move or cut the pad, leave a pocket, or cut the part along the pad.",
					Numbers: map[string]float64{"both": both.Area()}, Facts: []string{v.pieceName(j)}}
				if bonds := v.proposed(i, math.Inf(1)); bonds != nil {
					h.Mend = &Mend{"Pads with a pocket for it", v.held(i, bonds)}
				} else if edits := v.cutOff(j, p.Area); edits != nil {
					h.Mend = &Mend{"Cut it along the pad", edits}
				}
				return h, true
			}
		}
		return Hit{}, false
	}, add)
}

// A part that is cut to clear a pad: our own defaults.
const (
	padGap  = 0.5 // mm left between them
	mostOff = 0.5 // of the part that may be cut off
)

// cutOff are the edits that cut a piece where it meets a pad; nil where that leaves too
// little of it, or it falls in two.
func (v *View) cutOff(i int, pad shape.Region) []card.Edit {
	s := v.Stood[i]
	off, err := pad.Offset(padGap)
	if err != nil {
		return nil
	}
	if off, err = off.Intersect(s.Outline); err != nil || off.Empty() {
		return nil
	}
	left, err := s.Outline.Minus(off)
	if err != nil || left.Area() < (1-mostOff)*s.Outline.Area() || len(left.Pieces()) > len(s.Outline.Pieces()) {
		return nil
	}
	// A little more than what is seen to meet, so that no sliver is left along the edge.
	if off, err = off.Offset(0.05); err != nil {
		return nil
	}
	return []card.Edit{{SnipOff: &card.SnipOff{Element: s.ID.Element, Part: s.ID.Part, Off: s.ToSelf(off)}}}
}
