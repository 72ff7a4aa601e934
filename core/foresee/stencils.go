package foresee

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// mostStrays is how many openings a note says the place of.
const mostStrays = 4

// strays are the openings of one part of a stencil that have no print beneath, wherever it is laid.
type strays struct {
	set, part string
	at        []build.Through
	openings  int // in all its places
	misses    int
	area      float64 // of those that miss, mm²
	where     []string
}

// noPrintBeneath names, once for each stencil, the openings that have to colour prints and have none
// beneath.
func noPrintBeneath(v *View, add func(Hit)) {
	var all []*strays
	see := func(thing int, t *build.Thing) {
		if t.Element.Sheet == nil {
			return
		}
		for n, d := range t.Treated {
			if len(d.Misses) == 0 || n >= len(t.Element.Sheet.Treatments) {
				continue
			}
			s := t.Element.Sheet.Treatments[n].Stencil
			at := slices.IndexFunc(all, func(o *strays) bool { return o.set == s.Set && o.part == s.Part })
			if at < 0 {
				at, all = len(all), append(all, &strays{set: s.Set, part: s.Part})
			}
			all[at].note(v, thing, n, t, d)
		}
	}
	see(-1, &v.Build.Base)
	for i := range v.Build.Things {
		see(i, &v.Build.Things[i])
	}
	for _, s := range all {
		add(s.hit(v))
	}
}

// note adds the openings that miss on one sheet.
func (s *strays) note(v *View, thing, n int, t *build.Thing, d build.Treated) {
	s.at = append(s.at, build.Through{Thing: thing, N: n})
	s.openings, s.misses = s.openings+d.Openings, s.misses+len(d.Misses)
	size := v.Card.Base.Size()
	if thing >= 0 {
		b := t.Local.Bounds()
		size.W, size.H = b.W(), b.H()
	}
	for _, g := range d.Misses {
		s.area += g.Area()
		if len(s.where) < mostStrays {
			s.where = append(s.where, v.from(g.Centroid(), size.W, size.H))
		}
	}
}

// from says where a place about the middle of a sheet of w by h mm lies on it.
func (v *View) from(c shape.Point, w, h float64) string {
	return fmt.Sprintf("%s from the left and %s from the top", v.Format(c.X+w/2), v.Format(c.Y+h/2))
}

func (s *strays) hit(v *View) Hit {
	of := func(i int) *build.Thing {
		if i < 0 {
			return &v.Build.Base
		}
		return &v.Build.Things[i]
	}
	var on []string
	for _, a := range s.at {
		if name := words.Small(of(a.Thing).Name); !slices.Contains(on, name) {
			on = append(on, name)
		}
	}
	what := fmt.Sprintf("%d of %d openings of the stencil on %s have no print beneath", s.misses, s.openings, words.Listed(on))
	if s.misses == 1 {
		what = fmt.Sprintf("One of %d openings of the stencil on %s has no print beneath", s.openings, words.Listed(on))
	}
	more := ""
	if s.misses > len(s.where) {
		more = fmt.Sprintf("; and %d more", s.misses-len(s.where))
	}
	first := of(s.at[0].Thing).Element.ID
	h := Hit{Key: []string{first, fmt.Sprint(s.at[0].N)}, At: At{Element: first}, What: what,
		Why: "Ink through it lands beside the image: " + words.Listed(s.where) + more + "." + v.through(s.set, s.part), Do: "Cover it with tape before the stencil is used, move the stencil, or say that it is a background.",
		Numbers: map[string]float64{"openings": float64(s.misses), "area": s.area}}
	var mends []card.Edit
	for _, a := range s.at {
		id := of(a.Thing).Element.ID
		if id == "" {
			return h // the front leaf has no mend
		}
		taped := *of(a.Thing).Element.Sheet.Treatments[a.N].Stencil
		taped.Taped = true
		mends = append(mends, card.Edit{Treat: &card.Treat{Element: id, At: a.N, Treatment: &card.Treatment{Stencil: &taped}}})
	}
	h.Mend = &Mend{"Tape those openings", mends}
	return h
}

// through says image by ink what goes through a stencil; empty where it colours one image in one ink.
func (v *View) through(set, part string) string {
	table := v.Build.Table(v.Build.Throughs(set, part))
	if len(table) == 0 {
		return ""
	}
	return " Through this stencil go: " + strings.Join(table, "; ") + "."
}
