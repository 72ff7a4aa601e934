package plan

import (
	"errors"
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/front"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// overhangs is how far, mm, an outline must pass the panel's edge to count.
const overhangs = 0.05

// layOut places everything on the front and stands it up.
func (b *builder) layOut() {
	panels, err := front.Sheets(b.card)
	b.sheets = b.card.Sheets
	if err != nil {
		f := Finding{ID: "mats", Station: "front", Severity: Spoils, What: "The mats do not fit", Why: "Their borders are wider than the front.", Do: "Make the borders narrower in Front."}
		var mat *card.MatError
		if errors.As(err, &mat) {
			f.Why = fmt.Sprintf("The border of %s round %s is wider than what it lies on, so nothing is left of it.", b.o.format(mat.Border), mat.Name())
			f.Numbers = map[string]float64{"border": mat.Border, "sheet": float64(mat.At)}
		}
		b.add(f)
		// The rest is planned as if there were no mats.
		panels, b.sheets = []front.Panel{{ID: "front", Size: b.card.Base.Size()}}, nil
	}
	wall := defaultCaliper
	if p, ok := b.kit.paper[b.card.Base.Paper]; ok {
		wall = p.Caliper
		b.plan.Depth.Weight += depth.Weigh(2*b.card.Base.W*b.card.Base.H, p.GSM)
	}
	base := 2 * wall
	var solids []depth.Solid
	for i, s := range b.sheets {
		lift, foam := b.lift(s.Joint)
		so := depth.Solid{ID: s.ID, Outline: panels[i].Region(), Thick: defaultCaliper, Lift: lift, Foam: foam, Colour: b.paperColour(s.Paper).Hex()}
		if p, ok := b.kit.paper[s.Paper]; ok {
			so.Thick = p.Caliper
			b.plan.Depth.Weight += depth.Weigh(so.Outline.Area(), p.GSM)
		}
		so.Top = so.Colour
		solids = append(solids, so)
	}
	sheets := len(solids)
	panel := panels[len(panels)-1]
	type span struct{ from, to int }
	spans := make([]span, len(b.card.Elements))
	for i, e := range b.card.Elements {
		from := len(solids)
		placed, outline := b.element(e)
		solids = append(solids, placed...)
		b.outlines = append(b.outlines, outline)
		spans[i] = span{from, len(solids)}
		m := front.MarginsOf(outline, panel)
		least, _ := m.Least()
		box := outline.Bounds()
		b.plan.Front.Elements = append(b.plan.Front.Elements, Placed{ID: e.ID, Label: b.label(e), Margins: m,
			Over: !outline.Empty() && least < -overhangs, W: box.W(), H: box.H()})
	}
	stood := depth.Stack(solids, base)
	for i := range sheets {
		s := stood[i]
		b.plan.Front.Sheets = append(b.plan.Front.Sheets, Sheet{ID: s.ID, Panel: i == sheets-1, Colour: s.Colour,
			X: panels[i].X, Y: panels[i].Y, W: panels[i].Size.W, H: panels[i].Size.H, Z0: s.Z0, Z1: s.Z1})
	}
	for i, sp := range spans {
		p := &b.plan.Front.Elements[i]
		for k := sp.from; k < sp.to; k++ {
			if k == sp.from {
				p.Z0 = stood[k].Z0
			}
			p.Z1 = max(p.Z1, stood[k].Z1)
		}
	}
	b.plan.Stood = stood
	b.post(stood, base, sheets)
}

// element returns the solids of an element in place and its outline.
func (b *builder) element(e card.Element) ([]depth.Solid, shape.Region) {
	lift, foam := b.lift(e.Joint)
	if e.Kind == card.StripElement && e.Strip != nil {
		g := front.Place(shape.Rect(0, 0, e.Strip.W, e.Strip.H), shape.Box{Max: shape.Point{X: e.Strip.W, Y: e.Strip.H}}, e)
		s := depth.Solid{ID: e.ID, Outline: g, Thick: defaultCaliper, Lift: lift, Foam: foam, Colour: b.paperColour(e.Strip.Paper).Hex()}
		if p, ok := b.kit.paper[e.Strip.Paper]; ok {
			s.Thick = p.Caliper
			b.plan.Depth.Weight += depth.Weigh(g.Area(), p.GSM)
		}
		s.Top = s.Colour
		return []depth.Solid{s}, g
	}
	for mi := range b.plan.Motifs {
		pm := &b.plan.Motifs[mi]
		if pm.ID != e.Motif || pm.Problem != "" {
			continue
		}
		for wi, w := range b.card.Motifs[mi].Colourways {
			if w.ID != e.Colourway {
				continue
			}
			box := pm.img.Silhouette.Bounds()
			place := func(g shape.Region) shape.Region { return front.Place(g, box, e) }
			solids := b.solids(pm, w, pm.Colourways[wi], place)
			for i := range solids {
				solids[i].ID = e.ID
				if p, ok := b.kit.paper[w.Layers[solids[i].Layer].Paper]; ok && solids[i].Thick > 0 {
					b.plan.Depth.Weight += depth.Weigh(solids[i].Outline.Area()*float64(max(1, pm.img.Views[i].Layer.Copies)), p.GSM)
				}
			}
			if len(solids) > 0 && pm.img.Views[0].Layer.Make == card.Cut {
				solids[0].Lift, solids[0].Foam = lift, foam
			}
			return solids, place(pm.img.Silhouette)
		}
	}
	return nil, shape.Region{}
}

func (b *builder) post(stood []depth.Stood, base float64, sheets int) {
	d := &b.plan.Depth
	var at int
	d.Base = base
	d.Total, at = depth.Top(stood, base)
	panelTop := base
	if sheets > 0 {
		panelTop = stood[sheets-1].Z1
	}
	if at >= 0 {
		d.At = b.nameOf(stood[at].Solid)
		box := stood[at].Outline.Bounds()
		d.AtY = box.Centre().Y
	}
	var env measure.Envelope
	wall := 0.0
	if e, ok := b.kit.Envelope(b.card.Base.Envelope); ok {
		env, wall = e.Size(), e.Caliper
	}
	d.Post = depth.Mail(depth.Girth(b.card.Base.Size(), base, stood), d.Total, d.Total-panelTop, env, wall)
	if env.ID == "" {
		d.Post.Fits, d.Post.Class = false, ""
	}
}

// nameOf is what a person calls a solid.
func (b *builder) nameOf(s depth.Solid) string {
	for _, e := range b.card.Elements {
		if e.ID != s.ID {
			continue
		}
		if m, ok := b.card.Motif(e.Motif); ok {
			for _, l := range m.Layers {
				if l.ID == s.Layer {
					return fmt.Sprintf("%s, %s", m.Name, l.Label)
				}
			}
		}
		return b.label(e)
	}
	return b.sheetName(s.ID)
}

func (b *builder) sheetName(id string) string {
	for i, s := range b.card.Sheets {
		if s.ID == id {
			return card.SheetName(i, len(b.card.Sheets))
		}
	}
	return "the front"
}

// panelName is what a person calls the sheet that images lie on.
func (b *builder) panelName() string {
	if len(b.sheets) == 0 {
		return "the card front"
	}
	return "the panel"
}

// label is what a person calls an element.
func (b *builder) label(e card.Element) string {
	if e.Kind == card.StripElement {
		if e.Strip != nil && e.Strip.Text != "" {
			return "Strip “" + e.Strip.Text + "”"
		}
		return "Strip"
	}
	m, ok := b.card.Motif(e.Motif)
	if !ok {
		return "Image"
	}
	if len(m.Colourways) > 1 {
		if w, ok := m.Colourway(e.Colourway); ok {
			return m.Name + ", " + w.Name
		}
	}
	return m.Name
}
