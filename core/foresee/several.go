package foresee

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// Our own defaults.
const (
	ringFrom  = 5    // pieces from which a circle of them is a ring
	ringRound = 0.04 // of the radius by which they may lie off it
	ringEven  = 1.4  // of the even step the widest gap in a closed ring is
	likeFrom  = 3    // raised things of one image beside which one that is glued is told
)

// likeOthers is the mend that holds a thing as those that are alike are held.
const likeOthers = "Hold it like the others"

// severalRules are those of several of one thing.
func severalRules() []Rule {
	return []Rule{
		{ID: "ring", Station: Cut, Severity: Wastes, Source: "geometry", check: leftOver},
		{ID: "unlike", Station: Depth, Severity: Tip, Source: practice, Limits: []Limit{{"of so many", likeFrom, "none", ""}}, check: unlike},
		{ID: "unheld", Station: Depth, Severity: Shows, Source: practice, check: unheld},
	}
}

// leftOver notes images of which more are made than are laid, and how many close the ring they lie in.
func leftOver(v *View, add func(Hit)) {
	for _, m := range v.Card.Motifs {
		var at []shape.Point
		laid := 0
		for _, e := range v.Card.Elements {
			if e.Image != nil && e.Image.Motif == m.ID {
				laid++
				if e.Face == card.Front {
					at = append(at, shape.Point{X: e.Place.X, Y: e.Place.Y})
				}
			}
		}
		if laid == 0 || m.Made <= laid+1 {
			continue // one to spare is prudent
		}
		over := m.Made - laid
		h := Hit{Key: []string{m.ID}, At: At{Motif: m.ID}, What: fmt.Sprintf("%d of %s are made, and %d are laid", m.Made, m.Name, laid),
			Why: fmt.Sprintf("%s left over.", words.Capital(words.Of(over, "One is", fmt.Sprintf("%d are", over)))), Do: fmt.Sprintf("Make %d, and as many to spare as Register counts.", laid),
			Numbers: map[string]float64{"over": float64(over), "laid": float64(laid)}}
		if r, ok := ringOf(at); ok && len(at) == laid {
			h.Numbers["closes"] = float64(laid)
			h.What = fmt.Sprintf("%d of %s close the ring, and %d are made", laid, m.Name, m.Made)
			h.Why = fmt.Sprintf("At a radius of %s they lie %s from middle to middle: %d are left over.", v.Format(r), v.Format(2*r*math.Sin(math.Pi/float64(laid))), over)
		}
		h.Mend = &Mend{fmt.Sprintf("Make %d", laid), []card.Edit{{Wanted: &card.SetWanted{Motif: m.ID, Made: &laid}}}}
		add(h)
	}
}

// ringOf is the radius of the closed ring that some places lie in, evenly round their middle; not ok
// where they do not.
func ringOf(at []shape.Point) (r float64, ok bool) {
	if len(at) < ringFrom {
		return 0, false
	}
	var mid shape.Point
	for _, p := range at {
		mid = mid.Add(p.Scale(1 / float64(len(at))))
	}
	var turns []float64
	for _, p := range at {
		d := p.Sub(mid)
		r += d.Len() / float64(len(at))
		turns = append(turns, math.Atan2(d.Y, d.X))
	}
	for _, p := range at {
		if math.Abs(p.Sub(mid).Len()-r) > ringRound*r {
			return 0, false
		}
	}
	slices.Sort(turns)
	step := 2 * math.Pi / float64(len(at))
	for i, t := range turns {
		next := turns[(i+1)%len(turns)]
		if i+1 == len(turns) {
			next += 2 * math.Pi
		}
		if next-t > ringEven*step {
			return 0, false
		}
	}
	return r, true
}

// unlike notes the one of several of an image that is glued where the others are raised.
func unlike(v *View, add func(Hit)) {
	for _, m := range v.Card.Motifs {
		var raised, flat []int
		for i, t := range v.Build.Things {
			if t.Element.Image == nil || t.Element.Image.Motif != m.ID || t.Element.Face != card.Front || t.Printed || t.Leaves == 0 || len(t.Element.Bonds) == 0 {
				continue
			}
			if card.Raised(t.Element.Bonds) {
				raised = append(raised, i)
			} else {
				flat = append(flat, i)
			}
		}
		if len(flat) != 1 || len(raised) < likeFrom {
			continue // one that is raised among others is meant
		}
		t, like := v.Build.Things[flat[0]], v.Build.Things[raised[0]]
		if slices.ContainsFunc(raised, func(i int) bool { return !v.asHigh(v.Build.Things[i].Element.Bonds, like.Element.Bonds) }) {
			continue // they stand at several heights on purpose
		}
		add(Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID, Motif: m.ID}, What: fmt.Sprintf("%s is glued flat, and the other %d stand on foam", words.Capital(t.Name), len(raised)),
			Why: "Things that are alike are looked at together: one that stands otherwise looks forgotten.", Do: "Hold it like the others, or leave it if it is meant.",
			Numbers: map[string]float64{"others": float64(len(raised))}, Mend: &Mend{likeOthers, []card.Edit{{Hold: &card.Hold{Element: t.Element.ID, Bonds: plainly(like.Element.Bonds)}}}}})
	}
}

// asHigh reports whether two ways to hold a thing hold it as high.
func (v *View) asHigh(a, b []card.Bond) bool {
	x, _ := build.LiftOf(build.HoldsOf(v.Stock, a))
	y, _ := build.LiftOf(build.HoldsOf(v.Stock, b))
	return math.Abs(x-y) < 0.3
}

// like is how others of an image on the front are held; nil where none is.
func (v *View) like(e card.Element) []card.Bond {
	for _, o := range v.Card.Elements {
		if e.Image != nil && o.Image != nil && o.Image.Motif == e.Image.Motif && o.ID != e.ID && o.Face == card.Front && len(o.Bonds) > 0 {
			return plainly(o.Bonds)
		}
	}
	return nil
}

// plainly are bonds without places of their own for their pads: those go by each part.
func plainly(bonds []card.Bond) []card.Bond {
	out := slices.Clone(bonds)
	for i := range out {
		out[i].Pads = nil
	}
	return out
}

// unheld notes leaves that nothing holds.
func unheld(v *View, add func(Hit)) {
	for _, t := range v.Build.Things {
		e := t.Element
		if e.Face != card.Front || t.Leaves == 0 || t.Outline.Empty() || len(e.Bonds) > 0 || e.Ribbon != nil || e.Gems != nil || e.Sheet != nil && e.Sheet.Flap != nil {
			continue
		}
		if e.Image != nil && e.Image.Cutout == nil && held(v.Build.Pieces[t.From:t.To]) {
			continue
		}
		h := Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: fmt.Sprintf("%s is held by nothing", words.Capital(t.Name)), Why: "It is only laid: nothing was chosen to hold it.", Do: "Choose what holds it, in Depth."}
		if bonds := v.like(e); bonds != nil {
			h.Do = "Hold it as the others of it are held."
			h.Mend = &Mend{likeOthers, []card.Edit{{Hold: &card.Hold{Element: e.ID, Bonds: bonds}}}}
		} else if len(v.Stock.Adhesives) > 0 && !v.Build.Pieces[t.From].Clear {
			g := v.Stock.Adhesives[0]
			h.Mend = &Mend{"Hold it by " + words.Small(g.Name), []card.Edit{{Hold: &card.Hold{Element: e.ID, Bonds: card.Glue(g.ID)}}}}
		}
		add(h)
	}
}

// held reports whether any of some pieces is held to what carries them.
func held(ps []build.Piece) bool {
	return slices.ContainsFunc(ps, func(p build.Piece) bool { return !p.Print() && p.On.Element != p.ID.Element && len(p.Holds) > 0 })
}
