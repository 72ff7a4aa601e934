package plan

import (
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/cover"
	"ochrestone/core/depth"
	"ochrestone/core/foresee"
	"ochrestone/core/layout"
	"ochrestone/core/look"
	"ochrestone/core/meant"
	"ochrestone/core/measure"
	"ochrestone/core/work"
)

// overhangs is how far, mm, an outline must pass the panel's edge to count.
const overhangs = 0.05

// together builds the card from its images, and the patterns turned on its sheets.
func (b *builder) together() {
	images := make([]build.Image, len(b.plan.Motifs))
	for i, m := range b.plan.Motifs {
		images[i] = build.Image{Image: m.img, Problem: m.Problem, Looks: m.Colourways}
		images[i].Motif = b.card.Motifs[i]
	}
	b.plan.Build = build.Expand(b.card, b.kit, images, build.With{Face: b.o.face, Memory: b.sheets})
	b.plan.Patterns = b.plan.Build.Patterns
	for i := range b.plan.Patterns {
		q := &b.plan.Patterns[i]
		e, _ := b.card.Element(q.ID)
		q.Say(e, b.o.write.Length)
	}
}

// stand stands everything on the front up, and posts it.
func (b *builder) stand() {
	bd := &b.plan.Build
	stood := b.pads.Stand(bd)
	b.plan.Stood = stood
	panel := bd.Panel()
	top := bd.Thick
	for _, t := range bd.Things {
		if t.Element.Face != card.Front {
			continue
		}
		if l := t.Leaf; l != nil {
			s := stood[t.From]
			top = s.Z1
			b.plan.Front.Sheets = append(b.plan.Front.Sheets, Sheet{ID: l.ID, Panel: l.ID == panel.ID, Colour: s.Body, Top: s.Top, X: l.X, Y: l.Y, W: l.Size.W, H: l.Size.H, Z0: s.Z0, Z1: s.Z1,
				Lift: s.Lift, Foam: s.Foam, Held: build.Held(b.kit, t.Element.Bonds, b.o.write), Drawn: b.drawn(t)})
			continue
		}
		if t.Element.Inset != nil {
			continue // a mat that does not fit
		}
		room := layout.RoomOf(t.Outline, bd.Edge(t.Element))
		least, _ := room.Least()
		box := t.Outline.Bounds()
		p := Placed{ID: t.Element.ID, Label: t.Name, Margins: room, Over: !t.Outline.Empty() && least < -overhangs, Printed: t.Printed, W: box.W(), H: box.H(),
			Held: build.Held(b.kit, t.Element.Bonds, b.o.write), Drawn: b.drawn(t), Shaded: bd.Shaded(t), Flush: t.Overhang > 0, On: bd.Carrier(t.Element).Element, Problem: t.Problem}
		if t.Element.Sheet != nil && t.Element.Sheet.Flap != nil && len(t.Element.Bonds) == 0 {
			p.Held = "by its flap"
		}
		if p.Tinted = tintedAt(bd, t); p.Printed {
			p.Held = "printed on " + bd.LeafName(bd.Carrier(t.Element).Element)
		}
		for k, s := range stood[t.From:t.To] {
			if t.Made < 0 || s.ID.Part == build.CutoutPart {
				p.Body, p.Top = s.Body, s.Top
			}
			if k == 0 {
				p.Z0 = s.Z0
			}
			if s.ID.Part == "" || s.ID.Part == build.CutoutPart || bd.Carrier(t.Element) == s.On && !s.Print() && p.Lift == 0 {
				p.Lift, p.Foam = s.Lift, s.Foam
			}
			p.Z1 = max(p.Z1, s.Z1)
		}
		p.Parts = parts(t, stood)
		b.plan.Front.Elements = append(b.plan.Front.Elements, p)
	}
	for _, t := range bd.Things {
		if t.Element.Face == card.Beside || t.Element.Face == card.InsideLeft || t.Element.Face == card.InsideRight || t.Element.Face == card.OnEnvelope {
			b.plan.Front.Others = append(b.plan.Front.Others, Other{ID: t.Element.ID, Label: t.Name, Face: t.Element.Face, Drawn: b.drawn(t)})
		}
	}
	for _, t := range bd.Things {
		if t.Element.Face == card.Front && t.Element.Sheet != nil && len(t.Seats)+len(t.Openings) > 0 {
			b.plan.Front.Seats = append(b.plan.Front.Seats, t.Element.ID)
		}
	}
	b.tell()
	b.plan.Front.Base = b.drawn(bd.Base)
	if e, ok := b.kit.Envelope(b.card.Base.Envelope); ok {
		if f := measure.AddressField(e.Size().Size); f.W > 0 && f.H > 0 {
			b.plan.Front.Address = &Field{f.X, f.Y, f.W, f.H}
		}
	}
	if !bd.Leaf.Empty() {
		b.plan.Front.Leaf = bd.Leaf.Path()
	}
	b.plan.Front.Upward, b.plan.Front.Crossings = b.upward(), b.crossings()
	b.post(stood, top)
}

// drawn are the leaves of a thing that is no image, with the ink on them, in its own frame.
// tintedAt are the colours the layers of an image have where it stands, where those are others than by itself.
func tintedAt(bd *build.Build, t build.Thing) (out []Tinted) {
	for k, films := range t.Tints {
		if l := bd.Made[t.Made].Look.Layers[k]; len(films)+len(l.Tints) > 0 {
			out = append(out, Tinted{l.ID, append([]look.Tint{}, tinted(films)...)})
		}
	}
	return out
}

func (b *builder) drawn(t build.Thing) []Drawn {
	out := []Drawn{}
	for _, p := range t.Drawn {
		d := Drawn{Part: p.ID.Part, Path: p.Local.Path(), Fill: p.Body, Hides: b.kit.Hides(p.Stock), Films: []Inked{}}
		for _, f := range p.Films {
			d.Films = append(d.Films, Inked{f.Region.Path(), f.Colour})
		}
		out = append(out, d)
	}
	return out
}

// parts are the leaves of a thing that is no image where they stand at several heights:
// each height once.
func parts(t build.Thing, stood []depth.Stood) []Part {
	out := []Part{}
	if t.Made >= 0 || t.To-t.From < 2 {
		return out
	}
	low := stood[t.From].Z0
	for _, s := range stood[t.From:t.To] {
		low = min(low, s.Z0)
	}
	seen := map[[2]float64]bool{}
	for _, s := range stood[t.From:t.To] {
		if at := [2]float64{s.Z0, s.Z1}; !seen[at] {
			seen[at] = true
			out = append(out, Part{s.Thick, s.Z0 - low, s.Lift, s.Foam, s.Body, s.Top})
		}
	}
	if len(out) < 2 {
		return []Part{}
	}
	return out
}

// crossings are the parts that cross another thing the other way than the rest, as far as
// that can be.
func (b *builder) crossings() []Crossing {
	out := []Crossing{}
	bd := &b.plan.Build
	for _, e := range b.card.Elements {
		for _, t := range e.Tucks {
			if !slices.Contains(bd.Woven, build.Weave{Element: e.ID, Part: t.Part, With: t.With}) {
				out = append(out, Crossing{e.ID, t.Part, t.With})
			}
		}
	}
	return out
}

// upward says in which order things are drawn: each with all of it, but where parts cross
// another thing the other way than the rest.
func (b *builder) upward() []Laid {
	bd := &b.plan.Build
	out := []Laid{}
	if bd.Up == nil {
		return out
	}
	for _, i := range bd.Up {
		id := bd.Pieces[i].ID
		if n := len(out); n == 0 || out[n-1].Element != id.Element {
			out = append(out, Laid{id.Element, []string{}})
		}
		last := &out[len(out)-1]
		last.Parts = append(last.Parts, id.Part)
	}
	return out
}

// post judges how thick the card is and how it goes by letter; top is how high the panel
// stands, mm.
func (b *builder) post(stood []depth.Stood, top float64) {
	bd, d := &b.plan.Build, &b.plan.Depth
	at := -1
	d.Base, d.Weight = bd.Thick, bd.Weight()
	d.Total, at = depth.Top(stood, bd.Thick)
	if at >= 0 {
		d.At, d.AtY = b.nameOf(stood[at].ID), stood[at].Outline.Bounds().Centre().Y
	}
	e, _ := b.kit.Envelope(b.card.Base.Envelope)
	d.Post, d.Filled, d.Mailed = depth.Posting{Size: b.card.Base.Size(), Girth: depth.Girth(b.card.Base.Size(), bd.Thick, stood), Thick: d.Total, Raised: d.Total - top, Grams: d.Weight}.Mail(e, b.o.carriers, b.o.write)
}

// nameOf is what a person calls a piece.
func (b *builder) nameOf(id build.ID) string {
	e, _ := b.card.Element(id.Element)
	if e.Image != nil {
		if m, ok := b.card.Motif(e.Image.Motif); ok && id.Part != "" {
			for _, l := range m.Layers {
				if l.ID == id.Part {
					return m.Name + ", " + l.Label
				}
			}
		}
	}
	return build.Name(b.card, e)
}

// steps lists what there is to do and puts it in order: the person's own where there is
// one.
func (b *builder) steps() {
	clock := work.Clock{Copies: 1, Room: b.o.room, Pace: b.o.pace}
	acts, err := work.Order(work.Acts(&b.plan.Build, b.plan.Patterns, b.o.write.Length), work.By(clock))
	b.circle, b.plan.acts = err, acts
	b.plan.Steps, b.breaches = work.Rearrange(acts, b.card.Order)
	b.plan.Steps = work.Told(b.plan.Steps)
	t := &b.plan.Time
	_, t.One = work.Timetable(b.plan.Steps, clock)
	clock.Copies = b.card.Run()
	t.Slots, t.Run = work.Timetable(b.plan.Steps, clock)
	_, t.Least = work.Least(b.plan.Steps, clock)
}

// laid says in the steps what there is to do because of how things lie, when it is known.
func (b *builder) laid() {
	lies := b.lies()
	b.plan.acts = work.Lying(b.plan.acts, lies, b.o.write.Length, b.o.write.Thin)
	b.plan.Steps = work.Lying(b.plan.Steps, lies, b.o.write.Length, b.o.write.Thin)
}

// lies is how the things on the front lie, as far as there is something to do for it. Of what is put
// down in several pieces, such as letters, nothing is told: one sentence would not be true of all.
func (b *builder) lies() (out []work.Lie) {
	pieces := map[string]int{}
	put := func(s depth.Stood) bool { return s.On.Element != s.ID.Element && len(s.Holds) > 0 }
	for _, s := range b.plan.Stood {
		if put(s) {
			pieces[s.ID.Element]++
		}
	}
	for _, s := range b.plan.Stood {
		e, _ := b.card.Element(s.ID.Element)
		if !put(s) || pieces[e.ID] > 1 || e.Film {
			continue // what film lifts lies under a weight till it holds
		}
		l := work.Lie{Element: e.ID}
		switch s.Trouble() {
		case depth.None, depth.Leaning, depth.Bowing: // else its ends do not come down far enough to hold
			if u := s.Uneven; u != nil && !s.Bent.Flat() {
				l.Down = u.Rise
			}
		}
		b.slivers(s, &l)
		if l.Down > 0 || l.Cut > 0 {
			out = append(out, l)
		}
	}
	return out
}

// slivers notes of a part that is narrower than its pads how they are cut; of others, and of those whose
// pads the person placed, nothing.
func (b *builder) slivers(s depth.Stood, l *work.Lie) {
	across, cut := 2*s.Outline.Area()/max(s.Outline.Length(), 1e-9), 0.0
	for _, p := range s.Supports {
		h := s.Holds[p.Hold]
		sp, ok := b.kit.Spacer(h.Bond.Spacer)
		if !ok || !p.Raised || p.Own || !sp.Pads() || across >= h.W || min(p.Pad.W, p.Pad.H) >= h.W {
			return
		}
		l.Of, cut = sp.Name, max(cut, min(p.Pad.W, p.Pad.H))
	}
	l.Pads, l.Cut, l.Across = len(s.Supports), cut, across
}

// findings foresees what will go wrong.
func (b *builder) findings(seen func() *cover.Map) {
	judged := meant.Judge(&b.plan.Build, seen)
	b.plan.Front.Meant, b.plan.Front.Bare = judged, seen().Bare(&b.plan.Build)
	v := foresee.View{Meant: judged, Card: b.card, Stock: b.kit, Build: &b.plan.Build, Patterns: b.plan.Patterns, Images: make([]foresee.Image, len(b.plan.Motifs)), Stood: b.plan.Stood, Pads: b.pads,
		Total: b.plan.Depth.Total, Highest: b.plan.Depth.At, Post: b.plan.Depth.Post, Acts: b.plan.Steps, Slots: b.plan.Time.Slots, Proposed: b.plan.acts, Breaches: b.breaches, Circle: b.circle,
		Hand: b.o.hand, Readable: b.o.readable, Format: b.o.write.Length, Write: b.o.write, Face: b.o.face, Sheets: b.sheetsOf, Tally: b.o.tally, Front: seen}
	for i, m := range b.plan.Motifs {
		img := foresee.Image{Image: build.Image{Image: m.img, Problem: m.Problem, Looks: m.Colourways}}
		img.Motif = b.card.Motifs[i]
		for _, l := range m.Layers {
			img.Plays, img.Details = append(img.Plays, l.Play), append(img.Details, l.Detail)
		}
		v.Images[i] = img
	}
	b.plan.Findings = foresee.Of(v)
}
