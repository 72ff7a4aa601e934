package foresee

import (
	"fmt"
	"math"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// Our own defaults.
const (
	marginsApart = 3.0  // mm by which the borders of a panel differ from where it is told
	atSeat       = 3.0  // mm from the middle of a seat within which an image is meant for it
	pastSeat     = 0.5  // mm by which it has to pass its seat
	dotArea      = 6.0  // mm² of a piece that a nozzle floods
	tapeWide     = 6.0  // mm, of the usual tapes
	stemLong     = 12.0 // mm from which a narrow stretch is a stem
)

// edgeRules are those of what ends short of an edge, or stands out past one.
func edgeRules() []Rule {
	return []Rule{
		{ID: "peeks", Station: Front, Severity: Shows, Source: practice, check: peeking},
		{ID: "margins", Station: Front, Severity: Tip, Source: practice, Limits: []Limit{{"apart from", marginsApart, "mm", ""}}, check: margins},
		{ID: "seat", Station: Front, Severity: Tip, Source: practice, Limits: []Limit{{"past the seat from", pastSeat, "mm", ""}}, check: seats},
		{ID: "dot", Station: Depth, Severity: Tip, Source: practice, Limits: []Limit{{"smaller than", dotArea, "mm²", ""}}, check: dots},
		{ID: "narrow tape", Station: Depth, Severity: Tip, Source: practice, Limits: []Limit{{"tape", tapeWide, "mm", ""}, {"a stem is longer than", stemLong, "mm", ""}}, check: narrowTape},
		{ID: "ribs", Station: Pieces, Severity: Tip, Source: practice, Limits: []Limit{{"ribs", motif.RibsFrom, "none", ""}}, check: images(ribs)},
	}
}

// peeking notes shakers whose backing is larger than their frame.
func peeking(v *View, add func(Hit)) {
	v.shakers(func(t *build.Thing, s card.Shaker) (Hit, bool) {
		if s.Back >= 0 {
			return Hit{}, false
		}
		past := -s.Back
		s.Back = 1
		return Hit{What: fmt.Sprintf("The backing of %s stands out past its frame", t.Name), Why: fmt.Sprintf("It is %s larger all round, and peeks out.", v.Format(past)),
			Do: "Cut it smaller than the frame, by a millimetre or more.", Numbers: map[string]float64{"past": past},
			Mend: &Mend{"A millimetre smaller all round", []card.Edit{{Shaker: &card.SetShaker{Element: t.Element.ID, Shaker: s}}}}}, true
	}, add)
}

// margins notes a panel at a place of which the base shows more on one side than on the other.
func margins(v *View, add func(Hit)) {
	base := v.Card.Base.Size()
	for _, t := range v.Build.Things {
		if !v.Build.AsFront(&t) || t.Element.Face != card.Front || t.Leaf != nil || t.Element.On != "" {
			continue
		}
		box := t.Outline.Bounds()
		room := layout.RoomOf(t.Outline, card.Leaf{Size: base})
		if least, _ := room.Least(); least < -0.05 || math.Max(math.Abs(room.Left-room.Right), math.Abs(room.Top-room.Bottom)) < marginsApart {
			continue
		}
		sides := []struct {
			name string
			mm   float64
		}{{"left", room.Left}, {"right", room.Right}, {"top", room.Top}, {"foot", room.Bottom}}
		var says []string
		most := 0.0
		for _, s := range sides {
			most = max(most, s.mm)
			at := fmt.Sprintf("%s at the %s", v.Format(s.mm), s.name)
			if s.mm < 0.05 {
				at = "nothing at the " + s.name
			}
			says = append(says, at)
		}
		x, y := base.W/2, base.H/2
		add(Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("The base shows unevenly round %s", words.Small(t.Name)), Why: fmt.Sprintf("Of it shows %s.", words.Listed(says)),
			Do:      fmt.Sprintf("Lay it in the middle, or cut the base to it: the envelope is then larger than the card by as much. A border of %s all round wants a base of %s × %s.", v.Format(sides[0].mm), v.Format(box.W()+2*sides[0].mm), v.Format(box.H()+2*sides[0].mm)),
			Numbers: map[string]float64{"shows": most}, Mend: &Mend{"In the middle, with all that lies on it", v.along(t.Element.ID, x-box.Centre().X, y-box.Centre().Y)}})
	}
}

// along moves a sheet, and with it everything that it carries.
func (v *View) along(sheet string, dx, dy float64) []card.Edit {
	moved := map[string]bool{sheet: true}
	out := []card.Edit{{Move: &card.Move{Element: sheet, DX: dx, DY: dy}}}
	for _, t := range v.Build.Things {
		if moved[t.Element.On] && t.Element.Face == card.Front {
			moved[t.Element.ID] = true
			out = append(out, card.Edit{Move: &card.Move{Element: t.Element.ID, DX: dx, DY: dy}})
		}
	}
	return out
}

// seats notes images that lie on a seat smaller than they are, in one note for an image.
func seats(v *View, add func(Hit)) {
	type found struct {
		past float64
		ids  []string
		name string
	}
	by := map[string]*found{}
	var order []string
	for _, on := range v.Build.Things {
		for _, seat := range on.Seats {
			box := on.Place(seat).Bounds()
			for _, t := range v.Build.Things {
				if t.Element.Image == nil || t.Outline.Empty() || t.Printed {
					continue
				}
				b := t.Outline.Bounds()
				if b.Centre().Distance(box.Centre()) > atSeat {
					continue
				}
				past := min(b.W()-box.W(), b.H()-box.H()) / 2
				if past < pastSeat {
					continue
				}
				key := t.Element.Image.Motif
				if by[key] == nil {
					by[key] = &found{name: t.Name}
					order = append(order, key)
				}
				by[key].past = max(by[key].past, past)
				by[key].ids = append(by[key].ids, t.Element.ID)
			}
		}
	}
	for _, key := range order {
		f := by[key]
		add(Hit{Key: []string{key}, At: At{Motif: key, Element: f.ids[0]}, What: fmt.Sprintf("%s passes its seat by %s and hides it", f.name, v.Format(f.past)), Why: "The line it is to be laid by lies beneath it.",
			Do: "Mark the middle of the seat with a light pencil cross, or use the sheet Register prints; keep pads and glue within the seat.", Numbers: map[string]float64{"past": f.past, "things": float64(len(f.ids))}, Facts: f.ids})
	}
}

// dots notes, once for an image, glued pieces that a nozzle floods.
func dots(v *View, add func(Hit)) {
	for i := range v.Build.Made {
		m := &v.Build.Made[i]
		if len(m.Things) == 0 {
			continue
		}
		least := math.Inf(1)
		var names []string
		first := ""
		for _, view := range m.Image.Shapes.Views {
			if view.Layer.Make != card.Cut || view.Host == motif.Ground || card.Raised(view.Layer.Bonds) || len(view.Layer.Bonds) == 0 {
				continue
			}
			for _, p := range view.Outline.Pieces() {
				if a := p.Area(); a < dotArea {
					if first == "" {
						first = view.Layer.ID
					}
					if len(names) == 0 || names[len(names)-1] != view.Layer.Label {
						names = append(names, view.Layer.Label)
					}
					least = min(least, a)
				}
			}
		}
		if len(names) == 0 || v.dotted(m.Image.ID, i) {
			continue
		}
		add(Hit{Key: []string{m.Image.ID}, At: At{Motif: m.Image.ID, Layer: first}, What: fmt.Sprintf("Glue floods %s of %s", words.Listed(names), m.Image.Name),
			Why: fmt.Sprintf("The smallest is %s: a drop from a nozzle of 2 mm is as large.", v.Write.Area(least)), Do: "Put a drop on scrap and take up less than a millimetre of it with a pick.", Numbers: map[string]float64{"area": least}, Facts: names})
	}
}

// dotted reports whether an image was met in an earlier colourway.
func (v *View) dotted(image string, at int) bool {
	for i := range at {
		if d := &v.Build.Made[i]; d.Image.ID == image && len(d.Things) > 0 {
			return true
		}
	}
	return false
}

// narrowTape notes leaves held by tape that have a stem narrower than it, once for an image.
func narrowTape(v *View, add func(Hit)) {
	seen := map[string]bool{}
	for _, t := range v.Build.Things {
		for _, p := range v.Build.Pieces[t.From:t.To] {
			key := p.ID.Element
			at := At{Element: p.ID.Element, Layer: p.ID.Part}
			if t.Element.Image != nil {
				key = t.Element.Image.Motif + "/" + p.ID.Part
				at = At{Motif: t.Element.Image.Motif, Layer: p.ID.Part, Element: p.ID.Element}
			}
			if p.Print() || seen[key] || len(p.Holds) != 1 || p.Holds[0].Raised || p.Holds[0].Glue == nil || !strings.Contains(p.Holds[0].Glue.Kind, "tape") && p.Holds[0].Glue.Kind != "double-sided" {
				continue
			}
			seen[key] = true
			wide, ok := stem(p.Self())
			if !ok {
				continue
			}
			name := t.Name
			if t.Made >= 0 {
				name = v.Build.Made[t.Made].Image.LabelOf(p.ID.Part)
			}
			add(Hit{Key: strings.Split(key, "/"), At: at, What: fmt.Sprintf("A stem of %s is narrower than its tape", name), Why: fmt.Sprintf("It is %s wide, and the tape about %s: what the tape does not hold lifts.", v.Write.Thin(wide), v.Format(tapeWide)),
				Do: "Cut the tape to it, or put a line of glue along the stem, to its tip.", Numbers: map[string]float64{"wide": wide}})
		}
	}
}

// stem is how wide the longest stretch of a part is that is narrower than tape, mm; not ok where there
// is none, or all of the part is as narrow.
func stem(g shape.Region) (wide float64, ok bool) {
	in, err := g.Offset(-tapeWide / 2)
	if err != nil || in.Empty() {
		return 0, false
	}
	out, err := in.Offset(tapeWide/2 + 0.3)
	if err != nil {
		return 0, false
	}
	rest, err := g.Minus(out)
	if err != nil {
		return 0, false
	}
	longest := stemLong
	for _, p := range rest.Pieces() {
		if long := p.Length() / 2; long > longest && 2*p.Area() < tapeWide*p.Length()/2 {
			longest, wide, ok = long, 2*p.Area()/p.Length(), true
		}
	}
	return wide, ok
}

// ribs notes layers of several plies whose ribs lie exactly on each other.
func ribs(v *View, m *Image, add func(Hit)) {
	var names []string
	first, pitch := -1, 0.0
	for i, view := range m.Shapes.Views {
		if view.Layer.Make != card.Cut || view.Layer.Copies < 2 {
			continue
		}
		if p, ok := view.Ribbed(); ok {
			if first < 0 {
				first, pitch = i, p
			}
			names = append(names, view.Layer.Label)
		}
	}
	if first < 0 {
		return
	}
	l := m.Shapes.Views[first].Layer
	add(Hit{Key: []string{m.ID, l.ID}, At: At{Motif: m.ID, Layer: l.ID}, What: fmt.Sprintf("The plies of %s lie rib on rib", strings.Join(names, " and ")),
		Why: fmt.Sprintf("Stacked exactly, %s of ribs %s apart look as sparse as one.", words.Count(l.Copies, "ply", "plies"), v.Format(pitch)),
		Do:  fmt.Sprintf("Shift the middle one by half a pitch, %s, or an odd number of halves; trim that end, and put the trimming on at the other.", v.Format(pitch/2)), Numbers: map[string]float64{"pitch": pitch}, Facts: names})
}
