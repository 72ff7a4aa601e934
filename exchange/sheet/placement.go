package sheet

import (
	"fmt"
	"io"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
)

// onPanel are the things that lie on the front beside its mats, in the order of the card.
func onPanel(b *build.Build) []build.Thing {
	return slices.DeleteFunc(slices.Clone(b.Things), func(t build.Thing) bool {
		return t.Leaf != nil || t.Element.Face != card.Front || t.Outline.Empty()
	})
}

// fewRows is how many things stand in one column of the list at the most.
const fewRows = 24

// fewLines is of how many things at the most the distances stand in the drawing too.
const fewLines = 8

// carriedBy is the leaf that distances of a thing are measured from: the panel, or the
// front itself for what lies on the base.
func carriedBy(b *build.Build, t build.Thing) card.Leaf {
	if t.Element.On == "" {
		return card.Leaf{Size: b.Card.Base.Size()}
	}
	return b.Panel()
}

// WriteLayout writes the layout of a front as a PDF at true size with the distances a
// person measures with a ruler: of every thing, numbered, from the left and the upper edge
// of what carries it to its box. *ErrJig where there is nothing to lay, or no room.
func WriteLayout(w io.Writer, pl plan.Plan, opts ...Option) error {
	b := &pl.Build
	things := onPanel(b)
	if len(things) == 0 {
		return &ErrJig{"There is nothing on the front to lay.", "Put something on it in Front."}
	}
	base := b.Card.Base
	// One row for each of a few things; many stand side by side, and the drawing makes room.
	columns := 1 + (len(things)-1)/fewRows
	const row = 4.6
	rows := (len(things) + columns - 1) / columns
	g0 := &guide{size: measure.A4}
	for _, o := range opts {
		o(g0)
	}
	room := g0.size.H - 22 - 48 - row*float64(rows+1)
	scale, drawn := min(1, room/base.H, (g0.size.W-2*margin)/base.W), "at true size"
	if scale < 1 {
		drawn = fmt.Sprintf("drawn %.0f %% as large", 100*scale)
	}
	return template(w, opts, "Layout of “"+b.Card.Title+"”",
		"Measure the check bar first. Distances are from the left and the upper edge of the panel, or of the card where it says so, to the thing's own left and upper edge; the card is "+drawn+". Lay everything out loose, from the top down, before the glue.",
		max(base.W*scale, 150), base.H*scale+8+row*float64(rows+1), func(g *guide, y float64) {
			p := g.p
			at := place{(g.size.W - base.W*scale) / 2, y, scale}
			to := func(x, y float64) (float64, float64) { return at.x + x*scale, at.y + y*scale }
			line := func(x0, y0, x1, y1 float64) {
				a, b := to(x0, y0)
				c, d := to(x1, y1)
				p.line(a, b, c, d, 0.12, quiet)
			}
			p.rect(at.x, at.y, base.W*scale, base.H*scale, none, inkText, 0.25)
			for _, l := range b.Leaves {
				p.region(layout.Region(l), at, none, rule, 0.2)
			}
			top := y + base.H*scale + 8
			wide := (g.size.W - 2*margin) / float64(columns)
			for i, t := range things {
				box, from := t.Outline.Bounds(), carriedBy(b, t)
				p.region(t.Outline, at, none, inkText, 0.18)
				c := box.Centre()
				cx, cy := to(c.X, c.Y)
				p.text(p.f.bold, 3.4, cx, cy+1.2, 0, inkText, fmt.Sprint(i+1))
				if len(things) <= fewLines {
					// A line from each of the two edges, as a ruler is laid.
					line(from.X, c.Y, box.Min.X, c.Y)
					line(c.X, from.Y, c.X, box.Min.Y)
					x, _ := to(from.X, 0)
					p.text(p.f.text, 2.2, x+0.6, cy-0.6, -1, quiet, g.write.Length(box.Min.X-from.X))
					_, y := to(0, from.Y)
					p.text(p.f.text, 2.2, cx+0.6, y+3, -1, quiet, g.write.Length(box.Min.Y-from.Y))
				}
				name := t.Name
				if t.Element.On == "" {
					name += " (from the card's edge)"
				}
				turn := ""
				if t.Element.Place.Turn != 0 {
					turn = fmt.Sprintf("%.4g°", t.Element.Place.Turn)
				}
				cells := []string{fmt.Sprint(i + 1), name, g.write.Length(box.Min.X - from.X), g.write.Length(box.Min.Y - from.Y)}
				stops := []float64{0, 0.06, 0.56, 0.78}
				if columns == 1 {
					cells = append(cells, fmt.Sprintf("%s × %s", g.write.Length(box.W()), g.write.Length(box.H())), turn)
					stops = []float64{0, 0.05, 0.4, 0.54, 0.68, 0.92}
				}
				x, ry := margin+wide*float64(i/rows), top+row*float64(i%rows+1)
				if i%rows == 0 {
					for k, head := range []string{"", "", "from the left", "from above", "size", "turned"}[:len(cells)] {
						p.text(p.f.bold, 2.4, x+wide*stops[k], top, -1, quiet, head)
					}
				}
				for k, s := range cells {
					p.text(p.f.text, 2.6, x+wide*stops[k], ry, -1, inkText, s)
				}
			}
		})
}

// WritePlacement writes a placement template of a front as a PDF at true size: the panel
// with the outline of everything on it let out by clear mm, to cut out as windows and lay
// over the panel; mirrored for gluing from behind.
func WritePlacement(w io.Writer, pl plan.Plan, clear float64, mirrored bool, opts ...Option) error {
	b := &pl.Build
	things := onPanel(b)
	if len(things) == 0 {
		return &ErrJig{"There is nothing on the front to lay.", "Put something on it in Front."}
	}
	windows := make([]shape.Region, len(things))
	for i, t := range things {
		windows[i] = window(t, clear)
	}
	panel := b.Panel()
	title, side := "Placement template", "Lay it on the panel, its edges flush."
	if mirrored {
		title, side = "Placement template, mirrored", "It is left for right: lay it face down work on it, or glue from behind; its edges flush with the panel's."
	}
	return template(w, opts, title+" of “"+b.Card.Title+"”",
		fmt.Sprintf("Measure the check bar first. Paste the sheet on card, cut it to the panel's outline and cut the windows out, a few at a time where they overlap; mind the blade, cut away from your hand. %s Windows are %s larger all round.", side, g2(clear)),
		panel.Size.W, panel.Size.H+6, func(g *guide, y float64) {
			p := g.p
			at := place{(g.size.W-panel.Size.W)/2 - panel.X, y - panel.Y, 1}
			mid := panel.X + panel.Size.W/2
			p.rect(at.x+panel.X, at.y+panel.Y, panel.Size.W, panel.Size.H, none, inkText, 0.3)
			for i, o := range windows {
				if mirrored {
					o = o.Mirror(mid)
				}
				p.region(o, at, none, inkText, 0.2)
				c := o.Bounds().Centre()
				p.text(p.f.bold, 3, at.x+c.X, at.y+c.Y+1, 0, quiet, fmt.Sprint(i+1))
			}
			if mirrored {
				p.text(p.f.text, 2.4, at.x+panel.X, at.y+panel.Y+panel.Size.H+4, -1, quiet, "Left and right are exchanged.")
			}
		})
}

// window is the outline of a thing let out by clear mm. One that cannot be let out as it is, is
// let out as it is true to a tenth of a millimetre, and at the worst as its box: a page is never
// lost for one outline.
func window(t build.Thing, clear float64) shape.Region {
	for _, of := range []shape.Region{t.Rough.Filled(), t.Outline.Filled(), t.Outline.Simplify(build.Hair).Filled()} {
		if g, err := of.Offset(clear); err == nil && !g.Empty() {
			return g
		}
	}
	b := t.Outline.Bounds()
	return shape.Rect(b.Min.X-clear, b.Min.Y-clear, b.W()+2*clear, b.H()+2*clear)
}

func g2(mm float64) string { return fmt.Sprintf("%.2g mm", mm) }

// CutLines writes the cut lines of all sheets, openings, letters and other leaves that are
// no images as SVG in mm for an electronic cutter: each leaf a group of its own with its
// name and card, flaps marked as scores, laid apart in rows.
func CutLines(w io.Writer, pl plan.Plan) error {
	b := &pl.Build
	type cut struct {
		name, stock string
		g           shape.Region
		copies      int
		score       *[4]float64
	}
	var cuts []cut
	for _, t := range b.Things {
		for _, p := range t.Drawn {
			if p.Stock == "" || t.Element.Image != nil {
				continue
			}
			c := cut{name: t.Name, stock: b.Stock.PaperName(p.Stock), g: p.Local, copies: max(1, p.Plies)}
			if p.ID.Part != "" {
				c.name += ", " + strings.ToLower(b.PartName(t.Element, p.ID.Part))
			}
			if s := t.Element.Sheet; s != nil && s.Flap != nil {
				box := t.Whole.Bounds()
				flap := shape.Rect(box.Min.X, box.Min.Y-s.Flap.Depth, box.W(), s.Flap.Depth)
				c.score = &[4]float64{box.Min.X, box.Min.Y, box.Max.X, box.Min.Y}
				if s.Flap.Side == card.LeftSide {
					flap = shape.Rect(box.Min.X-s.Flap.Depth, box.Min.Y, s.Flap.Depth, box.H())
					c.score = &[4]float64{box.Min.X, box.Min.Y, box.Min.X, box.Max.Y}
				}
				if g, err := c.g.Union(flap); err == nil {
					c.g = g
				}
			}
			cuts = append(cuts, c)
		}
	}
	if len(cuts) == 0 {
		return &ErrJig{"There are no sheets or letters to cut on this card.", "Add a sheet in Front; images have their own cut lines in the stores."}
	}
	const gap, across = 6.0, 300.0
	x, y, tall, wide := gap, gap, 0.0, 0.0
	var body strings.Builder
	for i, c := range cuts {
		box := c.g.Bounds()
		if x > gap && x+box.W() > across {
			x, y, tall = gap, y+tall+gap, 0
		}
		by := shape.Point{X: x - box.Min.X, Y: y - box.Min.Y}
		note := c.stock
		if c.copies > 1 {
			note += fmt.Sprintf(", %d times", c.copies)
		}
		fmt.Fprintf(&body, "<g id=\"cut%d\"><title>%s</title><desc>%s</desc><path fill=\"none\" stroke=\"#000000\" stroke-width=\"0.1\" d=\"%s\"/>", i+1, escapeXML(c.name), escapeXML(note), c.g.Move(by).Path())
		if s := c.score; s != nil {
			fmt.Fprintf(&body, "<path id=\"score%d\" fill=\"none\" stroke=\"#0000ff\" stroke-width=\"0.1\" stroke-dasharray=\"1 1\" d=\"M%.3f %.3fL%.3f %.3f\"/>", i+1, s[0]+by.X, s[1]+by.Y, s[2]+by.X, s[3]+by.Y)
		}
		body.WriteString("</g>\n")
		x += box.W() + gap
		tall, wide = max(tall, box.H()), max(wide, x)
	}
	_, err := fmt.Fprintf(w, "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%.3fmm\" height=\"%.3fmm\" viewBox=\"0 0 %.3f %.3f\">\n<title>%s</title>\n%s</svg>\n", wide, y+tall+gap, wide, y+tall+gap, escapeXML(b.Card.Title), body.String())
	if err != nil {
		return fmt.Errorf("write cut lines: %w", err)
	}
	return nil
}

// escapeXML writes a text so that it can stand in a drawing.
func escapeXML(s string) string {
	return strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;", "\"", "&quot;").Replace(s)
}
