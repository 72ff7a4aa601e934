package foresee

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"ochrestone/core/advise"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/cover"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// Our own defaults.
const (
	overhangs   = 0.05 // mm an outline must pass the panel's edge to count
	frameFrom   = 3    // images of one kind over the edge are a frame that is meant to run over
	wordsApart  = 30.0 // L* that words stand from their paper to be read
	wordsRoom   = 2.0  // mm left and right of the words on their strip
	wordsBare   = 6.0  // a strip is too long when its words fill less than one in so many
	buriedUnder = 0.02 // share of a thing that shows at most when it is buried
	wordsCover  = 0.15 // share of the words that may lie under something
	wordsOff    = 0.01 // share of the words that may miss their sheet
	leastLetter = 1.5  // mm, capitals smaller than that cannot be stamped to be read
)

func frontRules() []Rule {
	return []Rule{
		{ID: "mats", Station: Front, Severity: Spoils, Source: "arithmetic", check: mats},
		{ID: "edge", Station: Front, Severity: Shows, Source: practice, Limits: []Limit{{"overhang", overhangs, "mm", ""}}, check: overEdge},
		{ID: "beside", Station: Front, Severity: Tip, Source: practice, check: besideItself},
		{ID: "letters", Station: Front, Severity: Shows, Source: "the typeface", check: letters},
		{ID: "words", Station: Front, Severity: Shows, Source: practice, Limits: []Limit{{"lightness apart", wordsApart, "L*", ""}}, check: readable},
		{ID: "strip", Station: Front, Severity: Shows, Source: "the typeface; the room is ours", Limits: []Limit{{"room at each end", wordsRoom, "mm", ""}}, check: wordsWidth},
		{ID: "covered", Station: Front, Severity: Shows, Source: practice, Limits: []Limit{{"share that may be covered", wordsCover, "share", ""}}, check: wordsCovered},
		{ID: "buried", Station: Front, Severity: Wastes, Source: practice, check: buried},
		{ID: "unused", Station: Front, Severity: Wastes, Source: practice, check: unused},
	}
}

func mats(v *View, add func(Hit)) {
	mat := v.Build.Mats
	if mat == nil {
		return
	}
	m := mat.Margins
	add(Hit{At: At{Element: mat.ID}, What: "The mats do not fit",
		Why: fmt.Sprintf("The border of %s round %s is wider than what it lies on, so nothing is left of it.", v.Format(max(m.Left, m.Right, m.Top, m.Bottom)), mat.Name()),
		Do:  "Make the borders narrower in Front.", Numbers: map[string]float64{"border": max(m.Left, m.Right, m.Top, m.Bottom), "sheet": float64(mat.At)}})
}

// hanging is a thing that hangs over the panel.
type hanging struct {
	i    int // of Build.Things
	room layout.Room
}

func overEdge(v *View, add func(Hit)) {
	kin := map[string][]hanging{} // images of one motif
	for i, t := range v.Build.Things {
		if t.Leaf != nil || t.Outline.Empty() || t.Overhang > 0 {
			continue
		}
		room := layout.RoomOf(t.Outline, v.Build.Edge(t.Element))
		if least, _ := room.Least(); least >= -overhangs {
			continue
		}
		key := t.Element.ID
		if t.Element.Image != nil {
			key = "image " + t.Element.Image.Motif
		}
		kin[key] = append(kin[key], hanging{i, room})
	}
	for i, t := range v.Build.Things {
		for _, key := range []string{t.Element.ID, "image " + imageOf(t.Element)} {
			hs := kin[key]
			if len(hs) == 0 || hs[0].i != i {
				continue
			}
			if len(hs) >= frameFrom {
				v.frame(hs, add)
				continue
			}
			for _, h := range hs {
				v.over(h, add)
			}
		}
	}
}

// edge is what a thing hangs over, in words, and until when it can be trimmed.
func (v *View) edge(t build.Thing) (name, before string) {
	leaf := v.Build.Edge(t.Element)
	if leaf.ID == "" {
		return "the card front", ""
	}
	name = words.Small(v.Build.LeafName(leaf.ID))
	return name, " and before " + name + " is mounted"
}

func imageOf(e card.Element) string {
	if e.Image == nil {
		return ""
	}
	return e.Image.Motif
}

// frame is one note for a frame of images that runs over the edge.
func (v *View) frame(hs []hanging, add func(Hit)) {
	most := 0.0
	var ids []string
	for _, h := range hs {
		least, _ := h.room.Least()
		most = max(most, -least)
		ids = append(ids, v.Build.Things[h.i].Element.ID)
	}
	m, _ := v.Card.Motif(imageOf(v.Build.Things[hs[0].i].Element))
	edge, before := v.edge(v.Build.Things[hs[0].i])
	add(Hit{Key: []string{"frame", m.ID}, Severity: Tip, At: At{Motif: m.ID, Element: ids[0]},
		What:    fmt.Sprintf("%d of %s run over the edge of %s", len(hs), m.Name, edge),
		Why:     fmt.Sprintf("The furthest by %s. A frame is meant to; what stands over bends in the envelope.", v.Format(most)),
		Do:      "Trim them from the back when the glue is dry" + before + ", and keep the trimmings for gaps.",
		Numbers: map[string]float64{"over": most, "images": float64(len(hs))}, Facts: ids,
		Mend: &Mend{"Trim them flush", []card.Edit{{Flush: &card.Flush{Elements: ids, On: true}}}}})
}

// roomy is the room in which a thing that hangs over an edge is moved in: that of the panel for one that
// hangs over the card front but would then lie on the panel mostly, and over its edge.
func (v *View) roomy(t build.Thing, room layout.Room) layout.Room {
	panel, _ := v.Card.Panel()
	if panel == "" || t.Element.Carried != nil || v.Build.Edge(t.Element).ID != "" {
		return room
	}
	leaf := v.Build.Edge(card.Element{On: panel})
	dx, dy, _ := room.Mend()
	there := t.Outline.Move(shape.Point{X: dx, Y: dy})
	on, err := there.Intersect(layout.Region(leaf))
	onto := layout.RoomOf(t.Outline, leaf)
	if _, _, fits := onto.Mend(); err != nil || !fits || 2*on.Area() < there.Area() {
		return room
	}
	return onto
}

func (v *View) over(h hanging, add func(Hit)) {
	t := v.Build.Things[h.i]
	least, side := h.room.Least()
	edge, before := v.edge(t)
	hit := Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("%s hangs over %s", t.Name, edge),
		Why: fmt.Sprintf("It passes the %s edge by %s.", side, v.Format(-least)),
		Do:  "Move it in, or trim it from the back after the glue is dry" + before + ".", Numbers: map[string]float64{"over": -least}, Facts: []string{side}}
	if dx, dy, fits := v.roomy(t, h.room).Mend(); fits {
		hit.Mend = movedIn(t.Element.ID, dx, dy)
	} else {
		hit.Do = fmt.Sprintf("It is larger than %s. Take a smaller one, or trim it from the back after the glue is dry%s.", edge, before)
		hit.Mend = &Mend{"Trim it flush", []card.Edit{{Flush: &card.Flush{Elements: []string{t.Element.ID}, On: true}}}}
	}
	if leaf := shape.Rect(0, 0, v.Card.Base.W, v.Card.Base.H); !t.Outline.Overlaps(leaf) {
		hit.What, hit.Severity = fmt.Sprintf("%s lies wholly past the card", t.Name), Spoils
		hit.Why, hit.Do = fmt.Sprintf("Nothing is beneath it: it passes the %s edge by %s.", side, v.Format(-least)), "Move it onto the card, or put it beside the card until it has a place."
		x, y := v.Card.Base.W/2, v.Card.Base.H/2
		hit.Mend = &Mend{"Put it in the middle", []card.Edit{{Put: &card.Put{Element: t.Element.ID, X: &x, Y: &y}}}}
	}
	add(hit)
}

// besideItself warns of images in one colourway that lie next to each other where the
// card has others to alternate with. The mend shares the colourways out anew.
func besideItself(v *View, add func(Hit)) {
	es := v.Card.Elements
	for _, m := range v.Images {
		if len(m.used) < 2 || m.Problem != "" {
			continue
		}
		for n, p := range v.alike(m.ID) {
			a, b := es[p[0]], es[p[1]]
			d := math.Hypot(a.Place.X-b.Place.X, a.Place.Y-b.Place.Y)
			h := Hit{Key: []string{a.ID, b.ID}, At: At{Motif: m.ID, Element: b.ID}, What: v.Build.Things[p[1]].Name + " lies beside itself",
				Why:     fmt.Sprintf("Two images in the same colourway stand %s apart, with none of it between.", v.Format(d)),
				Do:      "Change the colourway of one, swap it with another, or have the colourways spread anew in Inks.",
				Numbers: map[string]float64{"apart": d}, Facts: []string{a.Image.Colourway}}
			// One sharing out mends them all; it is a search, so it is made once.
			if n == 0 {
				if spread, clashes := advise.Spread(v.Card, m.ID); clashes == 0 {
					h.Mend = &Mend{"Share them out anew", []card.Edit{{Recolour: &card.Recolour{Elements: spread}}}}
				}
			}
			add(h)
		}
	}
}

// alike lists the neighbours of one image that are in one colourway.
func (v *View) alike(motif string) [][2]int {
	es := v.Card.Elements
	return slices.DeleteFunc(advise.Neighbours(es, motif), func(p [2]int) bool {
		return es[p[0]].Image.Colourway != es[p[1]].Image.Colourway
	})
}

// buried notes things of which nothing is left to see, those under the same in one note.
func buried(v *View, add func(Hit)) {
	var all []Hit
	under := map[string]int{}
	names := [][]string{}
	for i, t := range v.Build.Things {
		if t.Leaf != nil || t.Outline.Empty() {
			continue
		}
		over, is, err := cover.Buried(v.Build, i, buriedUnder)
		if err != nil || !is {
			continue
		}
		id, key := t.Element.ID, strings.Join(over, "|")
		if at, had := under[key]; had {
			names[at] = append(names[at], words.Small(t.Name))
			all[at].Facts = append(all[at].Facts, id)
			continue
		}
		under[key] = len(all)
		names = append(names, []string{t.Name})
		all = append(all, Hit{Key: []string{id}, At: At{Element: id}, What: words.Listed(over), Why: "Nothing of it is left to see.",
			Do: "Lay it higher in the pile, move it clear, or take it off.", Facts: slices.Clone(over)})
	}
	for i, h := range all {
		who := names[i]
		if len(who) > 1 {
			h.Why, h.Do = "Nothing of them is left to see.", "Lay them higher in the pile, move them clear, or take them off."
		}
		h.What = fmt.Sprintf("%s %s wholly under %s", words.Listed(who), words.Of(len(who), "lies", "lie"), h.What)
		add(h)
	}
}

// unused notes sheets made beside the card that lie on nothing. Where the middle of the
// front has room for one, the mend lays it there.
func unused(v *View, add func(Hit)) {
	for i, e := range v.Card.Elements {
		if e.Face != card.Beside || slices.ContainsFunc(v.Card.Elements, func(o card.Element) bool {
			return o.Letters != nil && o.Letters.From != nil && o.Letters.From.Sheet == e.ID
		}) {
			continue
		}
		h := Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: v.Build.Things[i].Name + " is made and not used",
			Why: "It is cut and printed beside the card, and lies on nothing.", Do: "Lay it on the front, keep it for another card, or take it off."}
		if v.roomFor(e) {
			front := card.Front
			h.Mend = &Mend{"Lay it on the front", []card.Edit{{Sheet: &card.SetSheet{Element: e.ID, Face: &front}}, {Put: &card.Put{Element: e.ID, X: half(v.Card.Base.W), Y: half(v.Card.Base.H)}}}}
			if len(e.Bonds) == 0 && len(v.Stock.Adhesives) > 0 {
				h.Mend.Edits = append(h.Mend.Edits, card.Edit{Hold: &card.Hold{Element: e.ID, Bonds: card.Glue(v.Stock.Adhesives[0].ID)}})
			}
		}
		add(h)
	}
}

// roomFor reports whether a sheet laid in the middle of the front would stay on the panel
// and lie over nothing.
func (v *View) roomFor(e card.Element) bool {
	if e.Sheet == nil {
		return false
	}
	w, h := e.Sheet.W-2*e.Sheet.Trim, e.Sheet.H-2*e.Sheet.Trim
	g := shape.Rect((v.Card.Base.W-w)/2, (v.Card.Base.H-h)/2, w, h)
	if least, _ := layout.RoomOf(g, v.Build.Panel()).Least(); least < 0 {
		return false
	}
	return !slices.ContainsFunc(v.Build.Things, func(t build.Thing) bool { return t.Leaf == nil && t.Rough.Overlaps(g) })
}

func half(mm float64) *float64 { mm /= 2; return &mm }

// movedIn moves an element by so much, mm, to where it lies within its ground.
func movedIn(element string, dx, dy float64) *Mend {
	return &Mend{"Move it in", []card.Edit{{Move: &card.Move{Element: element, DX: dx, DY: dy}}}}
}
