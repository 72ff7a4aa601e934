package foresee

import (
	"fmt"
	"math"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
)

func shakerRules() []Rule {
	return []Rule{
		{ID: "wall", Station: Depth, Severity: Spoils, Source: practice, check: wall},
		{ID: "filling", Station: Depth, Severity: Spoils, Source: practice, check: filling},
		{ID: "baffles", Station: Depth, Severity: Tip, Source: practice, Limits: []Limit{{"one bar for each", build.BaffleEach, "mm", ""}}, check: baffles},
	}
}

// shakers calls f for the shakers of the card, as far as they can be made.
func (v *View) shakers(f func(t *build.Thing, s card.Shaker) (Hit, bool), add func(Hit)) {
	for i := range v.Build.Things {
		t := &v.Build.Things[i]
		if t.Element.Shaker == nil || t.Shaking == nil || t.Problem != "" || t.Shaking.Wall.Empty() {
			continue
		}
		if h, ok := f(t, *t.Element.Shaker); ok {
			h.Key, h.At = []string{t.Element.ID}, At{Element: t.Element.ID}
			add(h)
		}
	}
}

// reshaken is the edit that changes a shaker.
func reshaken(t *build.Thing, s card.Shaker) []card.Edit {
	return []card.Edit{{Shaker: &card.SetShaker{Element: t.Element.ID, Shaker: s}}}
}

// shakerRim is what a front wants beyond its windows for a wall of the usual width, mm.
const shakerRim = 7.0

func wall(v *View, add func(Hit)) {
	v.shakers(func(t *build.Thing, s card.Shaker) (Hit, bool) {
		if s.Pouch {
			return Hit{}, false // it is closed in itself
		}
		if film, ok := v.Stock.Paper(s.Film); !ok || film.Opaque() {
			h := Hit{What: t.Name + " has no film behind its window", Why: "All of the filling falls out in front.", Do: "Choose a clear film, or put the filling in a pouch."}
			for _, p := range v.Stock.Papers {
				if p.Kind == kit.PaperAcetate && !p.Away {
					s.Film = p.ID
					h.Mend = &Mend{"Take " + p.Name, reshaken(t, s)}
					break
				}
			}
			return h, true
		}
		if t.Shaking.Lacks > 0 {
			h := Hit{What: fmt.Sprintf("The wall of %s is not closed", t.Name),
				Why: fmt.Sprintf("There is no room for it behind the front %s: %s of it would stand over the edge.", v.where(t.Shaking.LacksAt), v.Write.Area(t.Shaking.Lacks)),
				Do:  "Make the front larger, the window smaller, or the wall narrower.", Numbers: map[string]float64{"lacks": t.Shaking.Lacks}}
			box := t.Shaking.Chambers.Bounds()
			s.Wide = 0
			s.W = max(s.W, 2*(max(-box.Min.X, box.Max.X)+shakerRim))
			s.H = max(s.H, 2*(max(-box.Min.Y, box.Max.Y)+shakerRim))
			h.Mend = &Mend{fmt.Sprintf("Make its front %s × %s", v.Format(s.W), v.Format(s.H)), reshaken(t, s)}
			return h, true
		}
		back, err := t.Whole.Offset(-max(s.Back, 0.01))
		if err == nil && s.Back > 0 && !back.Covers(t.Shaking.Chambers) {
			s.Back = 0
			return Hit{What: fmt.Sprintf("The backing of %s leaves it open", t.Name), Why: fmt.Sprintf("It is %s smaller all round, and ends within the chamber.", v.Format(t.Element.Shaker.Back)),
				Do: "Make it less small.", Mend: &Mend{"The usual size", reshaken(t, s)}}, true
		}
		return Hit{}, false
	}, add)
}

func filling(v *View, add func(Hit)) {
	v.shakers(func(t *build.Thing, s card.Shaker) (Hit, bool) {
		for _, f := range s.Filling {
			if f.High < t.Shaking.High-1e-9 {
				continue
			}
			h := Hit{What: fmt.Sprintf("%s are higher than the wall of %s", f.Name, t.Name), Why: fmt.Sprintf("They lie %s high, the wall is %s.", v.Write.Thin(f.High), v.Write.Thin(t.Shaking.High)),
				Do: "Take a higher wall, or a flatter filling.", Numbers: map[string]float64{"high": f.High, "wall": t.Shaking.High}, Facts: []string{f.Name}}
			if sp, ok := v.Stock.Spacer(s.Wall); ok {
				if n := int(math.Floor(f.High/sp.Thickness)) + 1; n <= card.MaxLevel {
					s.Level = n
					h.Mend = &Mend{fmt.Sprintf("Make the wall %d high", n), reshaken(t, s)}
				}
			}
			return h, true
		}
		return Hit{}, false
	}, add)
}

// tallBy is from how much higher than wide on a window is tall; our own default.
const tallBy = 1.25

func baffles(v *View, add func(Hit)) {
	v.shakers(func(t *build.Thing, s card.Shaker) (Hit, bool) {
		if s.Baffles || s.Pouch {
			return Hit{}, false
		}
		tall := 0.0
		for _, c := range t.Shaking.Chambers.Pieces() {
			if box := c.Bounds(); box.H() > tallBy*box.W() {
				tall = max(tall, box.H())
			}
		}
		n := build.TallWindow(tall)
		if n == 0 {
			return Hit{}, false
		}
		s.Baffles = true
		return Hit{What: fmt.Sprintf("%s is tall: all of its filling lies at the foot", t.Name), Why: fmt.Sprintf("Its window is %s high.", v.Format(tall)),
			Do: fmt.Sprintf("Put %s of foam across, each compartment filled by itself.", bars(n)), Numbers: map[string]float64{"tall": tall}, Mend: &Mend{"Put baffles in", reshaken(t, s)}}, true
	}, add)
}

func bars(n int) string {
	if n == 1 {
		return "a bar"
	}
	return fmt.Sprintf("%d bars", n)
}
