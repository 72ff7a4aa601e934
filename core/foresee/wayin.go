package foresee

import (
	"fmt"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
)

// noWayIn notes parts that have to slip beneath something that is stuck down before them,
// with what holds it in the way on every side.
func noWayIn(v *View, add func(Hit)) {
	thing := map[string]int{}
	for i, t := range v.Build.Things {
		thing[t.Element.ID] = i
	}
	for cover, below := range v.Build.Beneath() {
		for _, j := range below {
			c, p := v.Stood[cover], v.Stood[j]
			if !v.sole(cover) {
				continue // a layer of an image is left unstuck until then, as its step says
			}
			if p.Print() || c.Print() || thing[p.ID.Element] <= thing[c.ID.Element] || len(c.Holds) == 0 || len(v.Pads.WaysIn(v.Build, v.Stood, cover, j)) > 0 {
				continue
			}
			h := Hit{Key: []string{p.ID.Element, p.ID.Part, c.ID.Element}, At: At{Element: c.ID.Element},
				What: fmt.Sprintf("%s cannot get beneath %s", v.pieceName(j), v.pieceName(cover)),
				Why:  "It is put down later, and what holds that is in its way from every side.",
				Do:   "Leave a side open where it slips in, deep enough for it.", Facts: []string{v.pieceName(j)}}
			if bonds := v.pocketFor(cover, j); bonds != nil {
				h.Mend = &Mend{"Leave a pocket for it", v.held(cover, bonds)}
			}
			add(h)
		}
	}
}

// pocketFor are bonds of a cover that leave one side open as deep as what slips in beneath
// it; nil where no side does.
func (v *View) pocketFor(cover, tucked int) []card.Bond {
	c := v.Stood[cover]
	for _, side := range card.Sides {
		for _, deep := range []float64{8, 15, 25, 40} {
			bonds := make([]card.Bond, len(c.Holds))
			for k, h := range c.Holds {
				bonds[k] = h.Bond
				bonds[k].Open, bonds[k].Pocket, bonds[k].Pads = []card.Side{side}, deep, nil
			}
			again := v.Pads.Again(v.Build, v.Stood, cover, build.HoldsOf(v.Stock, bonds))
			stood := append([]depth.Stood(nil), v.Stood...)
			stood[cover] = again
			held := 0.0
			for _, s := range v.Pads.HeldBy(v.Build, stood, cover) {
				held += s.Area.Area()
			}
			if held >= jointShare*again.Outline.Area() && again.Trouble() == depth.None && len(v.Pads.WaysIn(v.Build, stood, cover, tucked)) > 0 {
				return bonds
			}
		}
	}
	return nil
}
