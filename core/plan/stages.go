package plan

import (
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/foresee"
	"ochrestone/core/layout"
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
	b.plan.Build = build.Expand(b.card, b.kit, images)
	for _, e := range b.card.Elements {
		if e.Sheet == nil || e.Sheet.Turned() == nil {
			continue
		}
		i := slices.IndexFunc(images, func(m build.Image) bool { return m.ID == e.Sheet.Turned().Motif })
		m := build.Image{}
		if i >= 0 {
			m = images[i]
		}
		b.plan.Patterns = append(b.plan.Patterns, build.PatternOf(e, m, b.o.write.Length))
	}
}

// stand stands everything on the front up, and posts it.
func (b *builder) stand() {
	bd := &b.plan.Build
	stood := depth.Stack(bd.Pieces, bd.Thick)
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
			b.plan.Front.Sheets = append(b.plan.Front.Sheets, Sheet{ID: l.ID, Panel: l.ID == panel.ID, Colour: s.Body, X: l.X, Y: l.Y, W: l.Size.W, H: l.Size.H, Z0: s.Z0, Z1: s.Z1,
				Lift: s.Lift, Foam: s.Foam, Held: build.Held(b.kit, t.Element.Bonds, b.o.write)})
			continue
		}
		if t.Element.Inset != nil {
			continue // a mat that does not fit
		}
		room := layout.RoomOf(t.Outline, panel)
		least, _ := room.Least()
		box := t.Outline.Bounds()
		p := Placed{ID: t.Element.ID, Label: t.Name, Margins: room, Over: !t.Outline.Empty() && least < -overhangs, Printed: t.Printed, W: box.W(), H: box.H(),
			Held: build.Held(b.kit, t.Element.Bonds, b.o.write)}
		if p.Printed {
			p.Held = "printed on " + bd.LeafName(bd.Carrier(t.Element).Element)
		}
		for k, s := range stood[t.From:t.To] {
			if k == 0 {
				p.Z0 = s.Z0
			}
			if s.ID.Part == "" || bd.Carrier(t.Element) == s.On && !s.Print() && p.Lift == 0 {
				p.Lift, p.Foam = s.Lift, s.Foam
			}
			p.Z1 = max(p.Z1, s.Z1)
		}
		b.plan.Front.Elements = append(b.plan.Front.Elements, p)
	}
	b.post(stood, top)
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
	var env measure.Envelope
	wall := 0.0
	if e, ok := b.kit.Envelope(b.card.Base.Envelope); ok {
		env, wall = e.Size(), e.Caliper
	}
	d.Post = depth.Mail(depth.Girth(b.card.Base.Size(), bd.Thick, stood), d.Total, d.Total-top, env, wall)
	if env.ID == "" {
		d.Post.Fits, d.Post.Class = false, ""
	}
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
	acts, err := work.Order(work.Acts(&b.plan.Build, b.plan.Patterns, b.o.write.Length))
	b.circle = err
	b.plan.Steps, b.breaches = work.Rearrange(acts, b.card.Order)
	b.plan.Steps = work.Told(b.plan.Steps)
}

// findings foresees what will go wrong.
func (b *builder) findings() {
	v := foresee.View{Card: b.card, Stock: b.kit, Build: &b.plan.Build, Patterns: b.plan.Patterns, Images: make([]foresee.Image, len(b.plan.Motifs)),
		Total: b.plan.Depth.Total, Highest: b.plan.Depth.At, Post: b.plan.Depth.Post, Acts: b.plan.Steps, Breaches: b.breaches, Circle: b.circle,
		Hand: b.o.hand, Readable: b.o.readable, Format: b.o.write.Length, Write: b.o.write, Letters: b.o.letters, Width: b.o.width}
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
