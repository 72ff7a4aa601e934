package foresee

import (
	"fmt"
	"math"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// Our own defaults.
const (
	narrowBlend = 4.0  // mm across under which a part shows no three tones
	smallPiece  = 4.0  // mm under which a piece is tedious to ink by hand
	smallFrom   = 3    // so many inks on small pieces of one image are tedious
	strokeShort = 1.0  // mm that a stroke may be narrower than what lies along it
	alongStroke = 0.5  // share of a stroke's length that something has to lie along
	bareSide    = 0.22 // share of the front bare along a side from which it counts
	bareMuch    = 0.4  // the same, where it counts by itself
)

// smallRules are those of what is too small, too narrow, or leaves too much bare.
func smallRules() []Rule {
	return []Rule{
		{ID: "narrow blend", Station: Inks, Severity: Tip, Source: practice, Limits: []Limit{{"narrower than", narrowBlend, "mm", ""}}, check: inked(narrowBlends)},
		{ID: "small", Station: Pieces, Severity: Tip, Source: practice,
			Limits: []Limit{{"smaller than", smallPiece, "mm", ""}, {"colours of such pieces", smallFrom, "none", ""}}, check: smallPieces},
		{ID: "stroke", Station: Front, Severity: Shows, Source: practice, Limits: []Limit{{"narrower by", strokeShort, "mm", ""}}, check: strokes},
		{ID: "balance", Station: Front, Severity: Tip, Source: practice,
			Limits: []Limit{{"bare along two sides", bareSide, "share", ""}, {"bare along one", bareMuch, "share", ""}}, check: balance},
	}
}

// narrowBlends notes layers with blends that are too narrow to show them.
func narrowBlends(v *View, m *Image, wi int, add func(Hit)) {
	w := m.Colourways[wi]
	for _, view := range m.Shapes.Views {
		f := w.Layers[view.Layer.ID]
		tones := len(f.Blends)
		if f.Ink != "" {
			tones++
		}
		if tones < 3 {
			continue
		}
		box := view.Outline.Bounds()
		// A part is as wide as its box, or where that holds little of it as a stroke of its area and
		// its edge would be.
		wide := min(box.W(), box.H())
		if thin := 2 * view.Area / max(view.Edge, 1e-9); thin < wide/2 {
			wide = thin
		}
		if wide >= narrowBlend {
			continue
		}
		add(Hit{Key: []string{m.ID, w.ID, view.Layer.ID}, At: At{Motif: m.ID, Colourway: w.ID, Layer: view.Layer.ID},
			What: fmt.Sprintf("%s is too narrow for %s", view.Layer.Label, words.Count(tones, "tone")),
			Why:  fmt.Sprintf("It is %s wide, and under %s no three tones are told apart.", v.Write.Thin(wide), v.Format(narrowBlend)),
			Do:   "Ink it in one tone, the middle one, or in two at most.", Numbers: map[string]float64{"wide": wide, "tones": float64(tones)}})
	}
}

// smallPieces notes, once for the card, cut pieces that are small where they are of several colours,
// inked or of coloured card.
func smallPieces(v *View, add func(Hit)) {
	least, n := math.Inf(1), 0
	inks := map[string]bool{}
	var first At
	var names []string
	for i := range v.Build.Made {
		m := &v.Build.Made[i]
		if len(m.Things) == 0 {
			continue
		}
		for _, view := range m.Image.Shapes.Views {
			f := m.Colourway.Layers[view.Layer.ID]
			box := view.Outline.Bounds()
			across := max(box.W(), box.H())
			if view.Layer.Make != card.Cut || f.First() == "" || across >= smallPiece {
				continue
			}
			n += len(m.Things) * max(1, view.Layer.Copies)
			names = append(names, view.Layer.Label)
			inks[f.First()] = true
			for _, bl := range f.Blends {
				inks[bl.Ink] = true
			}
			if across < least {
				least = across
			}
			if first.Motif == "" {
				first = At{Motif: m.Image.ID, Colourway: m.Colourway.ID, Layer: view.Layer.ID, Element: v.Build.Things[m.Things[0]].Element.ID}
			}
		}
	}
	for _, t := range v.Build.Things {
		s := t.Element.Sheet
		if s == nil || t.Element.Face != card.Front || t.Leaf != nil || t.Outline.Empty() {
			continue
		}
		box := t.Outline.Bounds()
		if across := max(box.W(), box.H()); across < smallPiece {
			n++
			inks[s.Paper] = true
			names = append(names, t.Name)
			least = min(least, across)
			if first.Element == "" {
				first = At{Element: t.Element.ID}
			}
		}
	}
	if n == 0 || len(inks) < smallFrom {
		return
	}
	add(Hit{At: first, What: fmt.Sprintf("%s smaller than %s in %s", words.Count(n, "piece"), v.Format(smallPiece), words.Count(len(inks), "colour")),
		Why: fmt.Sprintf("%s: the smallest is %s across. By hand that is tedious, and they get lost.", words.Capital(words.Listed(names)), v.Write.Thin(least)),
		Do:  "Ink their sheet before they are cut, use a marker or one colour for all, or cut them larger.", Numbers: map[string]float64{"across": least, "pieces": float64(n), "inks": float64(len(inks))}})
}

// strokes notes strokes that are narrower than an image that lies along them.
func strokes(v *View, add func(Hit)) {
	for _, on := range append([]build.Thing{v.Build.Base}, v.Build.Things...) {
		if on.Element.Sheet == nil || on.Element.Face != card.Front {
			continue
		}
		for n, tr := range on.Element.Sheet.Treatments {
			if tr.Stroke == nil {
				continue
			}
			for i, t := range v.Build.Things {
				if t.Made < 0 || t.Outline.Empty() {
					continue
				}
				if wide, ok := along(on, *tr.Stroke, v.Build.Pieces[t.From:t.To]); ok && wide > tr.Stroke.W+strokeShort {
					add(Hit{Key: []string{on.Element.ID, fmt.Sprint(n), t.Element.ID}, At: At{Element: on.Element.ID},
						What: fmt.Sprintf("The stroke is narrower than %s on it", v.Build.Things[i].Name),
						Why:  fmt.Sprintf("It is %s wide, and %s along it is %s: nothing of it is seen at the sides.", v.Format(tr.Stroke.W), words.Small(t.Name), v.Format(wide)),
						Do:   fmt.Sprintf("Paint it %s wide, or a little more.", v.Format(wide)), Numbers: map[string]float64{"narrower": wide - tr.Stroke.W, "wide": wide},
						Mend: &Mend{"As wide as what stands on it", []card.Edit{{Treat: &card.Treat{Element: on.Element.ID, At: n, Treatment: &card.Treatment{Stroke: widened(*tr.Stroke, wide)}}}}}})
				}
			}
		}
	}
}

func widened(s card.Stroke, w float64) *card.Stroke {
	s.W = math.Ceil(2*w) / 2
	return &s
}

// along is how wide a thing is across a stroke where it lies along it, of the parts that lie on it with
// most of their length; not ok where none does.
func along(on build.Thing, s card.Stroke, pieces []build.Piece) (wide float64, ok bool) {
	a, b := s.Points[0], s.Points[len(s.Points)-1]
	place := func(o card.Offset) shape.Point {
		g := layout.Place(shape.Rect(o.X, o.Y, 1e-3, 1e-3), shape.Box{}, on.At)
		return g.Bounds().Centre()
	}
	from, to := place(a), place(b)
	d := to.Sub(from)
	long := d.Len()
	if long < 1 {
		return 0, false
	}
	u := d.Scale(1 / long)
	lo, hi, left, right := math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
	for _, p := range pieces {
		mid := p.Outline.Bounds().Centre().Sub(from)
		if p.Print() || p.Outline.Empty() || math.Abs(mid.X*u.Y-mid.Y*u.X) > s.W/2 || mid.X*u.X+mid.Y*u.Y < 0 || mid.X*u.X+mid.Y*u.Y > long {
			continue
		}
		for _, r := range p.Outline.Rings() {
			for _, q := range r {
				q = q.Sub(from)
				t, across := q.X*u.X+q.Y*u.Y, q.Y*u.X-q.X*u.Y
				if t < 0 || t > long {
					continue
				}
				lo, hi = min(lo, t), max(hi, t)
				left, right = min(left, across), max(right, across)
			}
		}
	}
	return right - left, hi-lo >= alongStroke*long
}

// balance remarks that much of the front is bare along two sides that meet, or very much along one,
// where its ground is plain.
func balance(v *View, add func(Hit)) {
	m := v.seen()
	box := shape.Box{Min: shape.Point{X: math.Inf(1), Y: math.Inf(1)}, Max: shape.Point{X: math.Inf(-1), Y: math.Inf(-1)}}
	some := false
	for i, t := range v.Build.Things {
		if t.Element.Face != card.Front || t.Outline.Empty() || t.Leaf != nil || m.Shown[i] == 0 {
			continue
		}
		b := t.Outline.Bounds()
		if v.Build.AsFront(&t) {
			if len(t.Element.Sheet.Treatments) > 0 {
				return // its ground is no bare card
			}
			continue // a panel
		}
		some = true
		box.Min.X, box.Min.Y, box.Max.X, box.Max.Y = min(box.Min.X, b.Min.X), min(box.Min.Y, b.Min.Y), max(box.Max.X, b.Max.X), max(box.Max.Y, b.Max.Y)
	}
	if !some || treatedGround(v) {
		return
	}
	left, right := max(0, box.Min.X)/v.Card.Base.W, max(0, v.Card.Base.W-box.Max.X)/v.Card.Base.W
	top, foot := max(0, box.Min.Y)/v.Card.Base.H, max(0, v.Card.Base.H-box.Max.Y)/v.Card.Base.H
	// What is bare on both sides alike is a border.
	sides := map[string]float64{"left": left - right, "right": right - left, "top": top - foot, "foot": foot - top}
	upright, level := "right", "foot"
	if sides["left"] > sides["right"] {
		upright = "left"
	}
	if sides["top"] > sides["foot"] {
		level = "top"
	}
	x, y := sides[upright], sides[level]
	if !(x >= bareSide && y >= bareSide || x >= bareMuch || y >= bareMuch) {
		return
	}
	var where []string
	if y >= bareSide {
		where = append(where, fmt.Sprintf("%s at the %s", v.Format(map[string]float64{"top": top, "foot": foot}[level]*v.Card.Base.H), level))
	}
	if x >= bareSide {
		where = append(where, fmt.Sprintf("%s at the %s", v.Format(map[string]float64{"left": left, "right": right}[upright]*v.Card.Base.W), upright))
	}
	add(Hit{What: "Much of the front is bare to one side", Why: fmt.Sprintf("Nothing lies on %s, and %.0f %% of the front is bare.", words.Listed(where), 100*m.Bare(v.Build)), Do: "Leave it if it is meant; else spread things out, or add one there.",
		Numbers: map[string]float64{"across": x, "down": y}})
}

// treatedGround reports whether the base or a mat has anything done to it.
func treatedGround(v *View) bool {
	if len(v.Card.Base.Treatments) > 0 {
		return true
	}
	for _, t := range v.Build.Things {
		if t.Leaf != nil && len(t.Element.Sheet.Treatments) > 0 {
			return true
		}
		if t.Leaf != nil {
			if p, ok := v.Stock.Paper(t.Element.Sheet.Paper); ok && p.Kind == kit.PaperPatterned {
				return true
			}
		}
	}
	return false
}
