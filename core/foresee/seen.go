package foresee

import (
	"fmt"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/cover"
	"ochrestone/core/look"
	"ochrestone/core/words"
)

// Our own defaults.
const (
	rimFades   = 0.6  // share of a thing's outline that fades into its background
	rimReads   = 0.5  // share of the edge between a bare rim and what is printed in it that has to read
	sameAs     = 3.0  // CIEDE2000 under which two colours are as good as one
	rimSame    = 0.25 // share of what is printed in a bare rim that is of the colour beyond it
	meetsLeast = 5.0  // mm of edge from which two things meet
	meetsShare = 0.4  // of the edge along which they meet that has to merge
	mostHidden = 0.33 // share of a thing that shows at least
)

// seenRules are those that read the map of the front as it is seen.
func seenRules() []Rule {
	return []Rule{
		{ID: "background", Station: Front, Severity: Shows, Source: practice,
			Limits: []Limit{{"share of the outline", rimFades, "share", ""}, {"as good as one colour", sameAs, "CIEDE2000", ""}}, check: fades},
		{ID: "across", Station: Front, Severity: Shows, Source: practice,
			Limits: []Limit{{"shared edge that counts", meetsLeast, "mm", ""}, {"share of that edge", meetsShare, "share", ""}}, check: across},
		{ID: "hides", Station: Front, Severity: Wastes, Source: practice, Limits: []Limit{{"share that shows", mostHidden, "share", ""}}, check: hides},
	}
}

// seen is the map of the front as it is seen, drawn once.
func (v *View) seen() *cover.Map {
	if v.Front == nil {
		m := cover.Seen(v.Build)
		v.Front = func() *cover.Map { return m }
	}
	return v.Front()
}

// figure reports whether a thing is something to be told from its ground, and no sheet of it.
func (v *View) figure(thing int) bool {
	return thing >= 0 && (v.Build.Things[thing].Made >= 0 || v.Build.Things[thing].Element.Letters != nil)
}

// outlined is what the edges of one thing come to against its ground.
type outlined struct {
	all, near   float64 // mm of edge against the ground, and of that where it fades
	bare        float64 // where the bare card of the thing fades into bare ground
	worst       float64 // CIEDE2000
	who         []string
	rim, reads  float64      // mm of edge between its bare card and what is printed in it, and of that where it reads
	past        []cover.Edge // where its bare card meets the ground
	within      []cover.Edge // where it meets what is printed in it
	mostly      string       // the part most of the edge is of
	ground, own []colour.Lab
}

// outlines looks at the edges of every figure on the front.
func (v *View) outlines() map[int]*outlined {
	m := v.seen()
	out := map[int]*outlined{}
	of := func(thing int) *outlined {
		if out[thing] == nil {
			out[thing] = &outlined{worst: 1000}
		}
		return out[thing]
	}
	for _, e := range m.Edges {
		a, b := m.Patches[e.A], m.Patches[e.B]
		if a.Thing == b.Thing {
			if v.figure(a.Thing) && a.Bare != b.Bare {
				o := of(a.Thing)
				o.rim += e.Length
				if e.Apart >= v.Readable {
					o.reads += e.Length
				}
				if b.Bare {
					e.A, e.B = e.B, e.A
				}
				o.within = append(o.within, e)
			}
			continue
		}
		if v.figure(b.Thing) && !v.figure(a.Thing) {
			a, b, e.A, e.B = b, a, e.B, e.A
		}
		if !v.figure(a.Thing) || v.figure(b.Thing) {
			continue
		}
		o := of(a.Thing)
		o.all += e.Length
		if a.Bare {
			o.past = append(o.past, e)
		}
		switch {
		case e.Apart >= v.Readable:
		case a.Bare:
			o.bare += e.Length
			o.worst = min(o.worst, e.Apart)
		case v.plainUnder(a.Thing, b):
			// It is told by the rule for one image on its own paper.
		default:
			o.near += e.Length
			o.worst = min(o.worst, e.Apart)
			if name := v.partName(a.Thing, a.Part); !slices.Contains(o.who, name) {
				o.who = append(o.who, name)
			}
		}
	}
	return out
}

// plainUnder reports whether a patch is the bare paper that the colours of an image are judged on
// anyway.
func (v *View) plainUnder(thing int, under cover.Patch) bool {
	t := &v.Build.Things[thing]
	if t.Made < 0 || !under.Bare {
		return false
	}
	return colour.Difference(v.Stock.PaperColour(v.Build.Made[t.Made].Image.Ground).Lab(), under.Colour) < 0.5
}

// partName is what a person calls a part of a thing.
func (v *View) partName(thing int, part string) string {
	t := &v.Build.Things[thing]
	if t.Made < 0 || part == build.CutoutPart {
		return t.Name
	}
	return v.Build.Made[t.Made].Image.LabelOf(part)
}

// fades notes figures whose outline is hardly told from what is round it as the card is seen, and
// those that only a bare rim keeps apart from ground of their own colour.
func fades(v *View, add func(Hit)) {
	outlines := v.outlines()
	for i, t := range v.Build.Things {
		o := outlines[i]
		if o == nil || o.all == 0 {
			continue
		}
		if o.bare > 0 && (o.rim == 0 && len(o.who) > 0 || o.rim > 0 && o.reads < rimReads*o.rim) {
			o.near += o.bare // its rim is no look: nothing in it reads
			if len(o.who) == 0 {
				o.who = append(o.who, t.Name)
			}
		}
		key, at := []string{t.Element.ID}, At{Element: t.Element.ID}
		if o.near >= rimFades*o.all {
			add(Hit{Key: key, At: at, What: fmt.Sprintf("%s fades into its background", t.Name),
				Why: fmt.Sprintf("%s dries %.1f from what is round it, along %.0f %% of the outline. Below %.0f it is lost at arm's length.", words.Listed(o.who), o.worst, 100*o.near/o.all, v.Readable),
				Do:  "Move it where the background is lighter or deeper, outline it, or blend less there.", Numbers: map[string]float64{"apart": o.worst, "share": o.near / o.all}, Facts: o.who})
			continue
		}
		if apart, part, ok := v.onlyRim(o); ok {
			add(Hit{Key: key, At: at, Severity: Tip, What: fmt.Sprintf("Only its bare rim parts %s from what is round it", t.Name),
				Why: fmt.Sprintf("%s dries %.1f from the ground beyond the rim.", part, apart),
				Do:  "Leave it if the rim is meant to do that, or lay it where the ground has another colour.", Numbers: map[string]float64{"apart": apart, "share": o.rim / (o.rim + o.all)}, Facts: []string{part}})
		}
	}
}

// onlyRim reports whether what is printed within a bare rim is of the colour of the ground beyond it
// along most of the rim.
func (v *View) onlyRim(o *outlined) (apart float64, part string, ok bool) {
	m := v.seen()
	long := 0.0
	for _, e := range o.past {
		long += e.Length
	}
	in := 0.0
	for _, e := range o.within {
		in += e.Length
	}
	apart = 1000
	same := 0.0
	for _, g := range o.past {
		if g.Length < rimReads*long || m.Patches[g.A].Colour.L < plainWhite {
			continue // not the ground most of the rim meets; or a rim of coloured card, which is an outline
		}
		for _, e := range o.within {
			if d := colour.Difference(m.Patches[e.B].Colour, m.Patches[g.B].Colour); d < sameAs {
				same += e.Length
				if d < apart {
					apart, part = d, v.partName(m.Patches[e.B].Thing, m.Patches[e.B].Part)
				}
			}
		}
	}
	return apart, part, long >= meetsLeast && in > 0 && same >= rimSame*in
}

// across notes two figures that merge where they touch: one note for each two.
func across(v *View, add func(Hit)) {
	m := v.seen()
	type two struct{ a, b int }
	type met struct {
		all, near, worst float64
		at               cover.Edge
		a, b             string
	}
	found := map[two]*met{}
	var order []two
	for _, e := range m.Edges {
		a, b := m.Patches[e.A], m.Patches[e.B]
		if a.Thing == b.Thing || !v.figure(a.Thing) || !v.figure(b.Thing) || v.kin(a.Thing, b.Thing) {
			continue
		}
		if a.Thing > b.Thing {
			a, b = b, a
		}
		key := two{a.Thing, b.Thing}
		if found[key] == nil {
			found[key] = &met{worst: 1000}
			order = append(order, key)
		}
		x := found[key]
		x.all += e.Length
		if e.Apart >= v.Readable || a.Bare && b.Bare {
			continue
		}
		x.near += e.Length
		if e.Apart < x.worst {
			x.worst, x.at, x.a, x.b = e.Apart, e, v.partName(a.Thing, a.Part), v.partName(b.Thing, b.Part)
		}
	}
	for _, key := range order {
		x := found[key]
		if x.near < meetsLeast || x.near < meetsShare*x.all {
			continue
		}
		s, t := v.Build.Things[key.a], v.Build.Things[key.b]
		add(Hit{Key: []string{s.Element.ID, t.Element.ID}, At: At{Element: s.Element.ID},
			What:    fmt.Sprintf("%s and %s read as one where they touch", s.Name, t.Name),
			Why:     fmt.Sprintf("%s and %s dry %.1f apart there, along %s of edge, %s from the left and %s from the top. Below %.0f they merge at arm's length.", x.a, x.b, x.worst, v.Format(x.near), v.Format(x.at.At.X), v.Format(x.at.At.Y), v.Readable),
			Do:      "Give one of them another family, or a deeper or paler ink, or move them apart.",
			Numbers: map[string]float64{"apart": x.worst, "edge": x.near}, Facts: []string{x.a, x.b}})
	}
}

// kin reports whether two things are one image twice: what they do to each other is meant, or told
// of that image.
func (v *View) kin(a, b int) bool {
	s, t := v.Build.Things[a].Element.Image, v.Build.Things[b].Element.Image
	return s != nil && t != nil && s.Motif == t.Motif
}

// hides notes figures of which hardly anything is seen, in one note for an image.
func hides(v *View, add func(Hit)) {
	m := v.seen()
	by := map[string][]int{}
	var order []string
	for i, t := range v.Build.Things {
		if !v.figure(i) || t.Printed || t.Leaves == 0 || len(t.Element.Tucks) > 0 || m.Whole[i] <= 0 || m.Shown[i] == 0 || m.Shown[i] >= mostHidden*m.Whole[i] || m.Whole[i] < t.Outline.Area()/2 {
			continue
		}
		key := t.Element.ID
		if t.Element.Image != nil {
			key = t.Element.Image.Motif
		}
		if by[key] == nil {
			order = append(order, key)
		}
		by[key] = append(by[key], i)
	}
	for _, key := range order {
		things := by[key]
		first := v.Build.Things[things[0]]
		least, most := 1.0, 0.0
		var ids []string
		for _, i := range things {
			share := m.Shown[i] / m.Whole[i]
			least, most = min(least, share), max(most, share)
			ids = append(ids, v.Build.Things[i].Element.ID)
		}
		_, over, err := cover.Left(v.Build, things[0], first.Rough)
		if err != nil || len(over) == 0 {
			continue
		}
		share := fmt.Sprintf("%.0f %%", max(1, 100*least))
		if 100*(most-least) >= 1 {
			share = fmt.Sprintf("%.0f to %.0f %%", max(1, 100*least), 100*most)
		}
		what := fmt.Sprintf("Hardly anything of %s is seen", first.Name)
		if m, ok := v.Card.Motif(key); ok && len(things) > 1 {
			what = fmt.Sprintf("Hardly anything is seen of %d of %s", len(things), m.Name)
		}
		h := Hit{Key: []string{key}, At: At{Element: first.Element.ID}, What: what, Why: fmt.Sprintf("%s over it: %s shows.", words.Capital(words.Listed(over))+words.Of(len(over), " lies", " lie"), share),
			Do: "Move it out from beneath, make what covers it smaller, or leave it off.", Numbers: map[string]float64{"share": least, "most": most, "things": float64(len(things))}, Facts: ids}
		if first.Element.Image != nil {
			h.At.Motif = key
		}
		add(h)
	}
}

// vanishes reports whether a layer of an image fades into what is round it as the front is seen, on any
// of the places where the image lies in a colourway; known is false where it lies on none.
func (v *View) vanishes(m *Image, way, layer string) (fades, known bool) {
	seen := v.seen()
	near := map[int]float64{}
	for i, t := range v.Build.Things {
		if img := t.Element.Image; img != nil && img.Motif == m.ID && img.Colourway == way && t.Element.Face == card.Front && !t.Outline.Empty() {
			known = true
			near[i] = 0
		}
	}
	if !known {
		return false, false
	}
	least := max(look.MergesOver, vanishShare*m.edgeOf(layer))
	for _, e := range seen.Edges {
		for _, side := range [2][2]int{{e.A, e.B}, {e.B, e.A}} {
			own, other := seen.Patches[side[0]], seen.Patches[side[1]]
			if _, is := near[own.Thing]; !is || own.Part != layer || v.figure(other.Thing) || e.Apart >= v.Readable {
				continue
			}
			if near[own.Thing] += e.Length; near[own.Thing] >= least {
				return true, true
			}
		}
	}
	return false, true
}
