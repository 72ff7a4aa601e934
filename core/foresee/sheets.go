package foresee

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// Our own defaults.
const (
	bandsOver   = 0.1  // mm that bands may want more than there is
	detailShows = 0.33 // share of what was printed that has to show
	nearlyFrom  = 0.25 // mm off the middle that are seen ...
	nearlyTo    = 1.5  // ... and still look like a slip and not like intent
	valleyArea  = 1.0  // mm² of the base that may show behind a wavy front
	frontShare  = 0.85 // of the base that a sheet covers to be its front
	leafFlap    = measure.Inch / 2
	insideAt    = 1.6 // a thing is meant for an opening that is no smaller than so many times less
)

func sheetRules() []Rule {
	return []Rule{
		{ID: "made", Station: Front, Severity: Spoils, Source: "geometry", check: cannotBe},
		{ID: "bands", Station: Front, Severity: Shows, Source: practice, Limits: []Limit{{"they may want more by", bandsOver, "mm", ""}}, check: bandSums},
		{ID: "behind", Station: Front, Severity: Shows, Source: practice, Limits: []Limit{{"area that may show", valleyArea, "mm²", ""}}, check: baseShows},
		{ID: "hides", Station: Front, Severity: Wastes, Source: practice, Limits: []Limit{{"share that has to show", detailShows, "share", ""}}, check: workHidden},
		{ID: "nearly", Station: Front, Severity: Tip, Source: practice, Limits: []Limit{{"from", nearlyFrom, "mm", ""}, {"to", nearlyTo, "mm", ""}}, check: nearlyMiddle},
		{ID: "weave", Station: Front, Severity: Shows, Source: "geometry", check: impossible},
		{ID: "mirrored", Station: Front, Severity: Shows, Source: practice, check: mirrored},
		{ID: "leaf", Station: Front, Severity: Shows, Source: practice, check: looseLeaf},
		{ID: "fits", Station: Front, Severity: Shows, Source: "geometry", check: intoOpenings},
		{ID: "thickness inside", Station: Front, Severity: Shows, Source: practice, check: thickInside},
		{ID: "address", Station: Front, Severity: Shows, Source: "USPS Domestic Mail Manual 202, from memory; the carrier's current rules go first",
			Limits: []Limit{{"from the sides", measure.AddressSide, "mm", ""}, {"from the foot", measure.AddressLow, "mm", ""}, {"up to", measure.AddressHigh, "mm", ""}}, check: addressField},
	}
}

func cannotBe(v *View, add func(Hit)) {
	if v.Build.LeafBad != "" {
		add(Hit{Key: []string{"base"}, What: "The front leaf cannot be cut so", Why: v.Build.LeafBad, Do: "Choose another outline for it under Make of it, in Front."})
	}
	for i, m := range v.Build.Made {
		if slices.ContainsFunc(v.Build.Made[:i], func(o build.Made) bool { return o.Image.ID == m.Image.ID }) {
			continue // in another colourway: said already
		}
		for _, w := range m.Image.Shapes.Views {
			if w.Problem != "" {
				add(Hit{Key: []string{m.Image.ID, w.Layer.ID}, At: At{Motif: m.Image.ID, Layer: w.Layer.ID}, What: words.Capital(w.Layer.Label) + " cannot be made so", Why: w.Problem, Do: "Mend it under Pieces, or take its layer off.", Facts: []string{w.Problem}})
			}
		}
	}
	for _, t := range v.Build.Things {
		if t.Problem != "" {
			add(Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: words.Capital(t.Name) + " cannot be made so", Why: t.Problem, Do: "Mend it under Outline and openings, or take it off.", Facts: []string{t.Problem}})
		}
		for n, d := range t.Treated {
			if d.Problem != "" {
				add(Hit{Key: []string{t.Element.ID, fmt.Sprint(n)}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("What is done to %s cannot be done", t.Name), Why: d.Problem,
					Do: "Mend it under Done to it, or leave it out.", Facts: []string{d.Problem},
					Mend: &Mend{"Leave it out", []card.Edit{{Treat: &card.Treat{Element: t.Element.ID, At: n, Drop: true}}}}})
			}
		}
	}
}

func bandSums(v *View, add func(Hit)) {
	for _, t := range v.Build.Things {
		if t.Element.Sheet == nil {
			continue
		}
		for n, tr := range t.Element.Sheet.Treatments {
			if tr.Bands == nil || n >= len(t.Treated) {
				continue
			}
			d := t.Treated[n]
			over := d.Sum - d.Room
			if over <= bandsOver {
				continue
			}
			b := *tr.Bands
			b.Bands = slices.Clone(b.Bands)
			gaps := b.Gap * float64(len(b.Bands)-1)
			h := Hit{Key: []string{t.Element.ID, fmt.Sprint(n)}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("The bands do not fit on %s", t.Name),
				Why: fmt.Sprintf("They take %s, and there are %s: the last is cut off by %s.", v.Format(d.Sum), v.Format(d.Room), v.Format(over)),
				Do:  "Make them narrower, or leave one out.", Numbers: map[string]float64{"over": over}}
			if room := d.Room - gaps; room > 0.5*float64(len(b.Bands)) {
				k := room / (d.Sum - gaps)
				for i := range b.Bands {
					b.Bands[i].W *= k
				}
				h.Mend = &Mend{"Share the room out", []card.Edit{{Treat: &card.Treat{Element: t.Element.ID, At: n, Treatment: &card.Treatment{Bands: &b}}}}}
			}
			add(h)
		}
	}
}

// baseShows notes a base that is seen behind the valleys of the sheet that is its front.
func baseShows(v *View, add func(Hit)) {
	base := v.Card.Base
	whole := shape.Rect(0, 0, base.W, base.H)
	for _, t := range v.Build.Things {
		o := t.Element.Sheet
		if o == nil || o.Shape == nil || t.Element.On != "" || t.Outline.Empty() || o.Shape.Kind != card.Scalloped && o.Shape.Kind != card.Wavy {
			continue
		}
		filled := t.Outline.Filled()
		box := filled.Bounds()
		if both, err := whole.Intersect(shape.Rect(box.Min.X, box.Min.Y, box.W(), box.H())); err != nil || both.Area() < frontShare*whole.Area() {
			continue
		}
		rest, err := whole.Minus(filled)
		if err != nil || rest.Area() <= valleyArea {
			continue
		}
		// How far the base has to go in on each side to hide: the depth of the valleys there.
		in := 0.0
		for range 40 {
			in += 0.25
			if inner := shape.Rect(in, in, base.W-2*in, base.H-2*in); base.W > 2*in+20 && filled.Covers(inner) {
				break
			}
		}
		add(Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("The base shows behind %s", t.Name),
			Why: fmt.Sprintf("%.0f mm² of it stand out between the hills of its edge.", rest.Area()),
			Do:  fmt.Sprintf("Cut the base %s smaller on every side: %s × %s hides behind the valleys.", v.Format(in), v.Format(base.W-2*in), v.Format(base.H-2*in)), Numbers: map[string]float64{"shows": rest.Area(), "in": in}})
	}
}

// detailed are the treatments that are looked at for what they show.
func detailed(t card.Treatment) bool {
	return t.Print != nil || t.Turned != nil || t.Stencil != nil || t.Bands != nil || t.Pressed != nil && t.Pressed.Relief == card.InPart
}

func workHidden(v *View, add func(Hit)) {
	for i, t := range v.Build.Things {
		if t.Element.Sheet == nil || t.Outline.Empty() {
			continue
		}
		for n, tr := range t.Element.Sheet.Treatments {
			if !detailed(tr) || n >= len(t.Treated) || len(t.Treated[n].Regions) == 0 {
				continue
			}
			if !v.mayHide(i, t.Treated[n].Regions) {
				continue
			}
			var gs []shape.Region
			for _, g := range t.Treated[n].Regions {
				gs = append(gs, t.Place(g))
			}
			shown, whole, over := v.seen().Of(i, gs...)
			var under []string
			for _, o := range over {
				under = append(under, v.Build.Things[o].Name)
			}
			share := shown / max(whole, 1e-9)
			if whole == 0 || share >= detailShows || len(under) == 0 {
				continue
			}
			add(Hit{Key: []string{t.Element.ID, fmt.Sprint(n)}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("Most of what is done to %s is hidden", t.Name),
				Why: fmt.Sprintf("%.0f %% of it shows beside %s.", 100*share, words.Listed(under)),
				Do:  "Make what lies over it smaller, move it, or leave out what nobody sees.", Numbers: map[string]float64{"shows": share}, Facts: under})
		}
	}
}

// mayHide reports whether what lies over a sheet is large enough to hide what is done to it.
func (v *View) mayHide(thing int, regions []shape.Region) bool {
	done, over := 0.0, 0.0
	for _, g := range regions {
		done += g.Area()
	}
	for i, t := range v.Build.Things {
		if (i > thing || v.Build.Up != nil) && i != thing && t.Leaf == nil {
			over += t.Rough.Area()
		}
	}
	return over >= (1-detailShows)*done
}

func nearlyMiddle(v *View, add func(Hit)) {
	panel := v.Build.Panel()
	for _, t := range v.Build.Things {
		e := t.Element
		if t.Leaf != nil || t.Outline.Empty() || e.Image != nil || e.Gems != nil || e.Ribbon != nil || e.On != panel.ID || e.Group != "" || t.Overhang > 0 {
			continue
		}
		c := t.Outline.Bounds().Centre()
		off := c.X - (panel.X + panel.Size.W/2)
		if a := math.Abs(off); a < nearlyFrom || a > nearlyTo {
			continue
		}
		side := "right"
		if off < 0 {
			side = "left"
		}
		x := e.Place.X - off
		add(Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: words.Capital(t.Name) + " stands a little off the middle",
			Why: fmt.Sprintf("It is %s to the %s: too little to look meant.", v.Format(math.Abs(off)), side), Do: "Move it to the middle, or well off it.",
			Numbers: map[string]float64{"off": off}, Mend: &Mend{"To the middle", []card.Edit{{Put: &card.Put{Element: e.ID, X: &x}}}}})
	}
}

func impossible(v *View, add func(Hit)) {
	for _, w := range v.Build.Woven {
		e, _ := v.Card.Element(w.Element)
		var keep []string
		for _, t := range e.Tucks {
			if t.With == w.With && t.Part != w.Part {
				keep = append(keep, t.Part)
			}
		}
		if keep == nil {
			keep = []string{}
		}
		add(Hit{Key: []string{w.Element, w.Part, w.With}, At: At{Element: w.Element}, What: fmt.Sprintf("%s cannot cross %s so", v.Build.PartName(e, w.Part), v.name(w.With)),
			Why: "What lies on it, or under it, would have to lie both over and beneath.", Do: "Let what lies on it cross the same way, or let the part go with the rest.",
			Mend: &Mend{"Let it go with the rest", []card.Edit{{Tucks: &card.SetTucks{Element: w.Element, With: w.With, Parts: keep}}}}})
	}
}

// name is what a person calls an element.
func (v *View) name(id string) string {
	for _, t := range v.Build.Things {
		if t.Element.ID == id {
			return t.Name
		}
	}
	return "what it crosses"
}

func mirrored(v *View, add func(Hit)) {
	for _, t := range v.Build.Things {
		if !t.Element.Place.Mirror || t.Made < 0 {
			continue
		}
		m := v.Build.Made[t.Made].Image
		var prints []string
		for _, l := range m.Shapes.Views {
			if l.Layer.Make == card.Printed {
				prints = append(prints, l.Layer.Label)
			}
		}
		if len(prints) == 0 {
			continue
		}
		no := false
		add(Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: t.Name + " is printed left for right", Why: fmt.Sprintf("%s: a stamp prints one way only.", words.Listed(prints)),
			Do: "Turn it instead, cut it from card, or stamp it off a sheet of silicone first.", Facts: prints, Mend: &Mend{"As it prints", []card.Edit{{Put: &card.Put{Element: t.Element.ID, Mirror: &no}}}}})
	}
}

func looseLeaf(v *View, add func(Hit)) {
	for _, t := range v.Build.Things {
		s := t.Element.Sheet
		if s == nil || s.Flap != nil || len(t.Element.Bonds) > 0 || t.Outline.Empty() || t.Element.Inset != nil || v.Stock.Hides(s.Paper) >= 1 {
			continue
		}
		if base := v.Card.Base; t.Outline.Area() < 0.5*base.W*base.H {
			continue
		}
		held := *s
		held.Flap = &card.Flap{Side: card.TopSide, Depth: leafFlap}
		add(Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: t.Name + " has nothing to hold it", Why: "It is see-through, laid loose, and has no flap.",
			Do: "Give it a flap to glue between two panels.", Mend: &Mend{"A flap of " + v.Format(leafFlap), []card.Edit{{Sheet: &card.SetSheet{Element: t.Element.ID, Sheet: &held}}}}})
	}
}

// bridges is how much longer than an opening, mm, what lies across it is; our own default.
const bridges = 6.0

// intoOpenings notes things that lie in an opening, or in the hole of a letter, and do not
// go in.
func intoOpenings(v *View, add func(Hit)) {
	for i, host := range v.Build.Things {
		holes := host.Openings
		if host.Line != nil {
			for _, l := range host.Line.Letters {
				holes = append(holes, l.Region.Holes()...)
			}
		}
		for _, hole := range holes {
			g := host.Place(hole)
			for j, t := range v.Build.Things {
				// What lies beneath is seen through it.
				if j <= i || t.Leaf != nil || t.Outline.Empty() || t.Element.On != host.Element.On && t.Element.On != host.Element.ID {
					continue
				}
				box, room := t.Outline.Bounds(), g.Bounds()
				if !g.Contains(box.Centre()) || t.Outline.Area() > insideAt*insideAt*g.Area() || box.W() > insideAt*room.W() || box.H() > insideAt*room.H() || g.Covers(t.Outline) {
					continue
				}
				if t.Printed || t.Element.Sheet != nil && v.Stock.Hides(t.Element.Sheet.Paper) < 1 {
					continue
				}
				over := max(box.W()-room.W(), box.H()-room.H())
				if box.W() > room.W()+bridges && box.H() < room.H()/2 || box.H() > room.H()+bridges && box.W() < room.W()/2 {
					continue // it lies across the opening from side to side
				}
				add(Hit{Key: []string{t.Element.ID, host.Element.ID}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("%s does not go into the opening of %s", t.Name, host.Name),
					Why: fmt.Sprintf("It is %s × %s, the opening %s × %s.", v.Format(box.W()), v.Format(box.H()), v.Format(room.W()), v.Format(room.H())),
					Do:  "Make it smaller, move it to the middle of the opening, or make the opening larger.", Numbers: map[string]float64{"over": over}})
			}
		}
	}
}

func thickInside(v *View, add func(Hit)) {
	for i, e := range v.Card.Elements {
		if e.Face != card.InsideLeft && e.Face != card.InsideRight && e.Face != card.OnEnvelope {
			continue
		}
		lift, _ := build.Lift(v.Stock, e.Bonds)
		if !card.Raised(e.Bonds) {
			continue
		}
		h := Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: fmt.Sprintf("%s stands up %s", v.Build.Things[i].Name, map[bool]string{true: "on the envelope", false: "inside"}[e.Face == card.OnEnvelope]),
			Why: fmt.Sprintf("It is held %s up, where it is written on or handled.", v.Write.Thin(lift)), Do: "Glue it flat.", Numbers: map[string]float64{"lift": lift}}
		h.Mend = &Mend{"Glue it flat", []card.Edit{{Hold: &card.Hold{Element: e.ID, Bonds: card.Glue("")}}}}
		add(h)
	}
}

func addressField(v *View, add func(Hit)) {
	env, ok := v.Stock.Envelope(v.Card.Base.Envelope)
	if !ok {
		return
	}
	f := measure.AddressField(measure.Size{W: env.W, H: env.H})
	field := shape.Rect(f.X, f.Y, f.W, f.H)
	for _, t := range v.Build.Things {
		if t.Element.Face != card.OnEnvelope {
			continue
		}
		g := t.Place(t.Local)
		if t.Element.Image != nil {
			g = v.imageAt(t)
		}
		if g.Empty() || !g.Overlaps(field) {
			continue
		}
		b := g.Bounds()
		x, y := measure.AddressSide/2+b.W()/2, measure.AddressSide/2+b.H()/2
		h := Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: t.Name + " lies where the address is read",
			Why: fmt.Sprintf("The carrier reads the field from %s to %s above the foot, %s from the sides. The carrier's current rules go first.", v.Format(measure.AddressLow), v.Format(measure.AddressHigh), v.Format(measure.AddressSide)),
			Do:  "Move it to the top left, or to the back."}
		if y+b.H()/2 < env.H-measure.AddressHigh {
			h.Mend = &Mend{"To the top left", []card.Edit{{Put: &card.Put{Element: t.Element.ID, X: &x, Y: &y}}}}
		}
		add(h)
	}
}

// imageAt is the outline of an image where it lies, on whatever face.
func (v *View) imageAt(t build.Thing) shape.Region {
	for _, m := range v.Images {
		if m.ID == t.Element.Image.Motif && m.Problem == "" {
			g := m.Shapes.Silhouette
			c := g.Bounds().Centre()
			return build.Thing{At: t.Element.Place}.Place(g.Move(shape.Point{X: -c.X, Y: -c.Y}))
		}
	}
	return shape.Region{}
}
