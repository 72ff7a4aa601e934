package plan

import (
	"errors"
	"fmt"

	"ochrestone/core/build"
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
	base := 2 * b.kit.Caliper(b.card.Base.Paper)
	b.plan.Depth.Weight += depth.Weigh(2*b.card.Base.W*b.card.Base.H, b.kit.GSM(b.card.Base.Paper))
	var solids []build.Piece
	for i, s := range b.sheets {
		solids = append(solids, b.sheet(s.ID, panels[i].Region(), s.Paper, s.Joint))
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
		b.plan.Front.Sheets = append(b.plan.Front.Sheets, Sheet{ID: s.ID.Element, Panel: i == sheets-1, Colour: s.Body,
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

// sheet is a plain leaf of paper.
func (b *builder) sheet(id string, g shape.Region, paper string, j card.Joint) build.Piece {
	body := b.kit.PaperColour(paper).Hex()
	p := build.Piece{ID: build.ID{Element: id}, Outline: g, Stock: paper, Thick: b.kit.Caliper(paper), Plies: 1, Body: body, Top: body}
	p.Lift, p.Foam = build.Lift(b.kit, j)
	b.plan.Depth.Weight += depth.Weigh(g.Area(), b.kit.GSM(paper))
	return p
}

// element returns the pieces of an element in place and its outline.
func (b *builder) element(e card.Element) ([]build.Piece, shape.Region) {
	if e.Kind == card.StripElement && e.Strip != nil {
		g := front.Place(shape.Rect(0, 0, e.Strip.W, e.Strip.H), shape.Box{Max: shape.Point{X: e.Strip.W, Y: e.Strip.H}}, e)
		return []build.Piece{b.sheet(e.ID, g, e.Strip.Paper, e.Joint)}, g
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
			box := pm.img.Shapes.Silhouette.Bounds()
			place := func(g shape.Region) shape.Region { return front.Place(g, box, e) }
			pieces := build.Image(b.kit, pm.img, w, pm.Colourways[wi], e.ID, place)
			for _, p := range pieces {
				b.plan.Depth.Weight += depth.Weigh(p.Outline.Area()*float64(p.Plies), b.kit.GSM(p.Stock))
			}
			if len(pieces) > 0 && !pieces[0].Print() {
				pieces[0].Lift, pieces[0].Foam = build.Lift(b.kit, e.Joint)
			}
			return pieces, place(pm.img.Shapes.Silhouette)
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
		d.At = b.nameOf(stood[at].ID)
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

// nameOf is what a person calls a piece.
func (b *builder) nameOf(s build.ID) string {
	for _, e := range b.card.Elements {
		if e.ID != s.Element {
			continue
		}
		if m, ok := b.card.Motif(e.Motif); ok {
			for _, l := range m.Layers {
				if l.ID == s.Part {
					return fmt.Sprintf("%s, %s", m.Name, l.Label)
				}
			}
		}
		return b.label(e)
	}
	return b.sheetName(s.Element)
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
