package foresee

import (
	"fmt"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/words"
)

// How many things a mend lowers at most, and how many ways are stood up to find it.
const (
	mostLowered = 6
	mostStood   = 40
)

// lowered is one thing held lower than it is.
type lowered struct {
	thing int
	bonds []card.Bond
	says  string
}

// thinner looks for what to lower so that the card is thin enough: of everything on foam that which
// brings most, on the next thinner foam of the stores or glued, one after another, each way stood up
// again. A way after which nothing lies worse than before goes first; else one after which a part
// leans or bows, and trying it says so. It is nil where a few of them do not do.
func (v *View) thinner(by float64) *Mend {
	if out := v.thinnerBut(by, depth.None); out != nil {
		return out
	}
	if out := v.allThinner(by); out != nil {
		return out
	}
	return v.thinnerBut(by, depth.Leaning)
}

// allThinner takes the next thinner foam beneath everything that stands on any, so that things stand to
// each other as they did; nil where that does not do, or something lies worse then.
func (v *View) allThinner(by float64) *Mend {
	if v.Tally || v.Pads == nil {
		return nil
	}
	now := *v.Build
	var done []lowered
	for i := range now.Things {
		if way, ok := v.lower(i, now.Things[i].Element.Bonds); ok && card.Raised(way.bonds) {
			now = v.holding(now, way)
			done = append(done, way)
		}
	}
	top, _, was := v.highest(*v.Build)
	low, _, lying := v.highest(now)
	if len(done) == 0 || top-low < by || worseLying(was, lying, depth.None) {
		return nil
	}
	return v.lowering(done)
}

// lowering is the mend that holds some things lower.
func (v *View) lowering(done []lowered) *Mend {
	out := &Mend{}
	var says []string
	for _, l := range done {
		says = append(says, l.says)
		out.Edits = append(out.Edits, card.Edit{Hold: &card.Hold{Element: v.Build.Things[l.thing].Element.ID, Bonds: l.bonds}})
	}
	out.Label = words.Capital(words.Listed(says))
	return out
}

// thinnerBut is thinner where what lies worse than before may lie so ill at most.
func (v *View) thinnerBut(by float64, ill depth.Trouble) *Mend {
	if v.Tally || v.Pads == nil || len(v.Build.Pieces) == 0 {
		return nil
	}
	now := *v.Build
	now.Pieces = slices.Clone(v.Build.Pieces)
	best, at, was := v.highest(now)
	top := best
	var done []lowered
	tried := 0
	for range mostLowered {
		var pick *lowered
		least := best
		for i := range now.Things {
			if !now.Things[i].Rough.Overlaps(now.Pieces[at].Outline) {
				continue // it bears nothing of what stands highest
			}
			bonds := now.Things[i].Element.Bonds
			for _, was := range done {
				if was.thing == i {
					bonds = was.bonds
				}
			}
			way, ok := v.lower(i, bonds)
			if !ok || tried >= mostStood {
				continue
			}
			tried++
			if z, _, lying := v.highest(v.holding(now, way)); z < least-0.05 && !worseLying(was, lying, ill) {
				least, pick = z, &way
			}
		}
		if pick == nil {
			return nil
		}
		now = v.holding(now, *pick)
		best, at, _ = v.highest(now)
		done = slices.DeleteFunc(done, func(l lowered) bool { return l.thing == pick.thing })
		done = append(done, *pick)
		if top-best >= by {
			return v.lowering(done)
		}
	}
	return nil
}

// lower is the next lower way to hold a thing that stands on foam.
func (v *View) lower(i int, bonds []card.Bond) (out lowered, ok bool) {
	t := &v.Build.Things[i]
	if !card.Raised(bonds) || t.Element.Face != card.Front || t.Outline.Empty() || t.Printed {
		return out, false
	}
	high := 0.0
	for _, h := range build.HoldsOf(v.Stock, bonds) {
		high = max(high, h.Height)
	}
	best := 0.0
	id := ""
	for _, s := range v.Stock.Spacers {
		if !s.Away && s.Foam() && s.Thickness < high-0.05 && s.Thickness > best && (s.Left == nil || *s.Left > 0) {
			best, id = s.Thickness, s.ID
		}
	}
	out.thing = i
	if id != "" {
		out.bonds = card.Foam(id, 1)
		sp, _ := v.Stock.Spacer(id)
		out.says = fmt.Sprintf("%s on %s", words.Small(t.Name), words.Small(sp.Name))
		return out, true
	}
	if len(v.Stock.Adhesives) == 0 {
		return out, false
	}
	out.bonds = card.Glue(v.Stock.Adhesives[0].ID)
	out.says = fmt.Sprintf("%s glued flat", words.Small(t.Name))
	return out, true
}

// holding is the card with one thing held otherwise.
func (v *View) holding(b build.Build, l lowered) build.Build {
	b.Pieces = slices.Clone(b.Pieces)
	b.Things = slices.Clone(b.Things)
	t := &b.Things[l.thing]
	was := build.HoldsOf(v.Stock, v.Build.Things[l.thing].Element.Bonds)
	t.Element.Bonds = l.bonds
	holds := build.HoldsOf(v.Stock, l.bonds)
	for k := t.From; k < t.To; k++ {
		p := &b.Pieces[k]
		// What the thing is held by, and not its parts by each other.
		if p.Print() || p.On.Element == t.Element.ID || len(v.Build.Pieces[k].Holds) != len(was) || len(was) > 0 && !v.Build.Pieces[k].Holds[0].Raised {
			continue
		}
		p.Holds = holds
		p.Lift, p.Foam = build.LiftOf(holds)
	}
	return b
}

// highest is how thick a card is that was put together so, mm, which piece reaches that, and the worst
// that is wrong with how each thing lies.
func (v *View) highest(b build.Build) (z float64, at int, ill map[string]depth.Trouble) {
	ill = map[string]depth.Trouble{}
	for i, s := range v.Pads.Stand(&b) {
		if t := s.Trouble(); slices.Index(graver, t) <= slices.Index(graver, ill[s.ID.Element]) {
			ill[s.ID.Element] = t
		}
		if h := s.Highest(); h > z {
			z, at = h, i
		}
	}
	return z, at, ill
}

// graver are the ways to lie ill, the worst first.
var graver = []depth.Trouble{depth.Rocking, depth.Riding, depth.Airy, depth.Leaning, depth.Bowing, depth.None}

// worseLying reports whether a thing lies worse than it did, and worse than it may.
func worseLying(was, now map[string]depth.Trouble, may depth.Trouble) bool {
	for id, t := range now {
		if at := slices.Index(graver, t); at < slices.Index(graver, was[id]) && at < slices.Index(graver, may) {
			return true
		}
	}
	return false
}
