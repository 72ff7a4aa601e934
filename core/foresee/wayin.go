package foresee

import (
	"fmt"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/words"
)

// noWayIn notes parts that have to slip beneath something that is stuck down before them,
// with what holds it in the way on every side.
func noWayIn(v *View, add func(Hit)) {
	thing := map[string]int{}
	for i, t := range v.Build.Things {
		thing[t.Element.ID] = i
	}
	type pair struct{ cover, of int } // a piece that covers, and the thing that slips in
	blocked := map[pair][]int{}
	var pairs []pair
	for cover, below := range v.Build.Beneath() {
		for _, j := range below {
			c, p := v.Stood[cover], v.Stood[j]
			if !v.sole(cover) {
				continue // a layer of an image is left unstuck until then, as its step says
			}
			if p.Print() || c.Print() || thing[p.ID.Element] <= thing[c.ID.Element] || len(c.Holds) == 0 || len(v.Pads.WaysIn(v.Build, v.Stood, cover, j)) > 0 {
				continue
			}
			at := pair{cover, thing[p.ID.Element]}
			if len(blocked[at]) == 0 {
				pairs = append(pairs, at)
			}
			blocked[at] = append(blocked[at], j)
		}
	}
	for _, at := range pairs {
		name := words.Capital(v.Build.Things[at.of].Name)
		if len(blocked[at]) == 1 {
			name = v.pieceName(blocked[at][0])
		}
		c, e := v.Stood[at.cover], v.Build.Things[at.of].Element.ID
		h := Hit{Key: []string{e, c.ID.Element}, At: At{Element: c.ID.Element},
			What: fmt.Sprintf("%s cannot get beneath %s", name, v.pieceName(at.cover)),
			Why:  "It is put down later, and what holds that is in its way from every side.",
			Do:   "Leave a side open where it slips in, deep enough for it.", Facts: []string{name}}
		if bonds := v.pocketFor(at.cover, blocked[at]); bonds != nil {
			h.Mend = &Mend{"Leave a pocket for it", v.held(at.cover, bonds)}
		}
		add(h)
	}
}

// pocketFor are bonds of a cover that leave one side open as deep as what slips in beneath
// it; nil where no side does.
func (v *View) pocketFor(cover int, tucked []int) []card.Bond {
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
			if held >= jointShare*again.Outline.Area() && again.Trouble() == depth.None && !slices.ContainsFunc(tucked, func(j int) bool { return len(v.Pads.WaysIn(v.Build, stood, cover, j)) == 0 }) {
				return bonds
			}
		}
	}
	return nil
}
