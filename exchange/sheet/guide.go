package sheet

import (
	"fmt"
	"image/color"
	"io"
	"math"

	"github.com/tdewolff/canvas"
	"github.com/tdewolff/canvas/renderers/pdf"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/motif"
	"ochrestone/core/placing"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
)

// margin of the printed page, mm; printers leave about 5.
const margin = 14.0

// Option changes the printed sheet.
type Option func(*guide)

// Page sets the size of the page.
func Page(s measure.Size) Option { return func(g *guide) { g.size = s } }

// Lengths sets how lengths are written.
func Lengths(f func(float64) string) Option { return func(g *guide) { g.format = f } }

// Done marks steps that are done already.
func Done(steps ...card.Step) Option {
	return func(g *guide) {
		for _, s := range steps {
			g.done[s] = true
		}
	}
}

// guide lays out the pages one after another.
type guide struct {
	size   measure.Size
	format func(float64) string
	done   map[card.Step]bool
	card   card.Card
	kit    kit.Kit
	plan   plan.Plan

	pages []*paper
	p     *paper
	y     float64
}

// Guide writes the layering guide and work sheet: the assembled front, a table
// of layers, the parts laid apart at true size, and the steps with boxes.
func Guide(w io.Writer, c card.Card, k kit.Kit, pl plan.Plan, opts ...Option) error {
	g := &guide{size: measure.A4, format: func(mm float64) string { return measure.Format(mm, measure.Millimetres, 0) }, card: c, kit: k, plan: pl, done: map[card.Step]bool{}}
	for _, o := range opts {
		o(g)
	}
	if err := g.run(); err != nil {
		return fmt.Errorf("lay out the guide: %w", err)
	}
	out := pdf.New(w, g.size.W, g.size.H, nil)
	out.SetInfo(c.Title, "Layering guide and work sheet", "", "", "Ochrestone")
	for i, p := range g.pages {
		if i > 0 {
			out.NewPage(g.size.W, g.size.H)
		}
		p.text(p.f.text, 2.8, g.size.W-margin, g.size.H-8, 1, quiet, fmt.Sprintf("page %d of %d", i+1, len(g.pages)))
		p.c.RenderTo(out)
	}
	if err := out.Close(); err != nil {
		return fmt.Errorf("write the guide: %w", err)
	}
	return nil
}

func (g *guide) run() error {
	if err := g.page(); err != nil {
		return err
	}
	if err := g.assembled(); err != nil {
		return err
	}
	for i, m := range g.plan.Motifs {
		if m.Problem != "" {
			continue
		}
		if err := g.layers(m, g.card.Motifs[i]); err != nil {
			return err
		}
		if err := g.apart(m, g.card.Motifs[i]); err != nil {
			return err
		}
	}
	return g.steps()
}

// page begins a new page with its heading and check bar.
func (g *guide) page() error {
	p, err := newPaper(g.size.W, g.size.H)
	if err != nil {
		return err
	}
	g.p, g.pages = p, append(g.pages, p)
	p.rect(0, 0, g.size.W, g.size.H, color.RGBA{255, 255, 255, 255}, none, 0)
	g.y = top
	return g.marks()
}

// marks draws what stands on every page: its heading and its check bar.
func (g *guide) marks() error {
	p := g.p
	p.text(p.f.head, 5, margin, margin+4, -1, inkText, fitting(p, p.f.head, 5, g.size.W-2*margin-78, g.card.Title))
	p.text(p.f.text, 2.8, g.size.W-margin, margin+4, 1, quiet, "Layering guide and work sheet. Print at 100 %, no fitting.")
	g.checkBar()
	return nil
}

// checkBar draws 100 mm and 4 in, to be measured after printing.
func (g *guide) checkBar() {
	p, y := g.p, g.size.H-12.0
	p.line(margin, y, margin+100, y, 0.25, inkText)
	for i := 0; i <= 10; i++ {
		p.line(margin+float64(i)*10, y, margin+float64(i)*10, y-2-2*float64((i+1)%2*(i%10/9+1)%2), 0.2, inkText)
	}
	p.text(p.f.text, 2.4, margin+102, y+0.8, -1, quiet, "100 mm")
	y += 5
	p.line(margin, y, margin+4*measure.Inch, y, 0.25, inkText)
	for i := 0; i <= 4; i++ {
		p.line(margin+float64(i)*measure.Inch, y, margin+float64(i)*measure.Inch, y-2, 0.2, inkText)
	}
	p.text(p.f.text, 2.4, margin+4*measure.Inch+2, y+0.8, -1, quiet, "4 in")
}

// room begins a new page when less than h is left on this one.
func (g *guide) room(h float64) error {
	if g.y+h > g.size.H-foot {
		return g.page()
	}
	return nil
}

func (g *guide) heading(s string) error {
	if err := g.room(20); err != nil {
		return err
	}
	g.y += 7
	g.p.text(g.p.f.head, 4, margin, g.y, -1, inkText, s)
	g.y += 3
	return nil
}

func (g *guide) assembled() error {
	pages := len(g.pages)
	right, err := g.whole("The front", drawing{g.card.Base.W, g.card.Base.H, func(p *paper, x, y float64) error {
		return front(p, g.card, g.kit, g.plan, x, y)
	}})
	if err != nil {
		return err
	}
	d := g.plan.Depth
	lines := []string{
		fmt.Sprintf("Front %s × %s", g.format(g.card.Base.W), g.format(g.card.Base.H)),
		fmt.Sprintf("Greatest thickness %.1f mm (%s)", d.Total, measure.Format(d.Total, measure.Inches, 64)),
		fmt.Sprintf("Weight %.0f g without envelope", d.Weight),
	}
	if d.Post.Class != "" {
		lines = append(lines, fmt.Sprintf("In its envelope %.1f mm; as a US letter: %s.", d.Post.Filled, d.Post.Class), "The carrier's current rules go first.")
	}
	under := float64(len(lines)) * 4.4
	tx, ty := right+6, top+4.0
	if tx > g.size.W-margin-50 || len(g.pages) > pages {
		if err := g.room(under + 8); err != nil {
			return err
		}
		tx, ty = margin, g.y+6
		g.y += under + 4
	}
	for i, s := range lines {
		g.p.text(g.p.f.text, 3, tx, ty+float64(i)*4.4, -1, inkText, s)
	}
	g.y += 4
	return nil
}

// layers is the table of one image, for each colourway in use.
func (g *guide) layers(m plan.Motif, cm card.Motif) error {
	for _, w := range m.Colourways {
		if err := g.heading(m.Name + ", " + w.Name + ": layers, lowest first"); err != nil {
			return err
		}
		for i, l := range w.Layers {
			if err := g.room(12); err != nil {
				return err
			}
			g.row(i, m.Layers[i], cm.Layers[i], l)
		}
	}
	return nil
}

func (g *guide) row(i int, l plan.Layer, cl card.Layer, look look.Layer) {
	p, y := g.p, g.y
	p.line(margin, y, g.size.W-margin, y, 0.1, rule)
	p.text(p.f.bold, 3.2, margin, y+5, -1, inkText, fmt.Sprintf("%d  %s", i+1, l.Label))
	p.rect(margin+58, y+1.5, 12, 6, hex(look.Dry), rule, 0.15)
	what := look.PaperName
	ink := look.InkName
	if ink == "" {
		ink = "plain"
	}
	if cl.Make != card.Cut {
		what = string(cl.Make)
	}
	for n, b := range look.Blends {
		if n < 3 && b.Dry != "" {
			p.rect(margin+66-3*float64(n), y+1.5+float64(n), 4, 6-2*float64(n), hex(b.Dry), none, 0)
		}
		ink += fmt.Sprintf(", %s at the %s", b.InkName, b.Zone)
	}
	p.text(p.f.text, 2.8, margin+73, y+3.8, -1, inkText, fitting(p, p.f.text, 2.8, 53, ink))
	p.text(p.f.text, 2.5, margin+73, y+7.6, -1, quiet, fmt.Sprintf("%s; lightness %.0f, %s", what, look.L, look.Source))
	p.text(p.f.text, 2.8, margin+128, y+3.8, -1, inkText, g.play(l))
	p.text(p.f.text, 2.5, margin+128, y+7.6, -1, quiet, fmt.Sprintf("copies %d; top at %.2f mm", max(1, cl.Copies), look.Z1))
	g.y += 9
}

// fitting is the text, cut short with a mark where it is wider than w mm.
func fitting(p *paper, f *canvas.FontFamily, size, w float64, s string) string {
	if lines := p.wrap(f, size, w, s); len(lines) > 1 {
		return lines[0] + " …"
	}
	return s
}

func (g *guide) play(l plan.Layer) string {
	switch {
	case !l.Play.Judged:
		return "place freely"
	case l.Play.Outside > 0:
		return "runs over its host"
	}
	turn := math.Min(l.Play.Clock, l.Play.Anti)
	if turn > 90 {
		return fmt.Sprintf("play %.1f mm, turns freely", l.Play.Tight)
	}
	return fmt.Sprintf("play %.1f mm, turn %.1f°", l.Play.Tight, turn)
}

// apart lays every layer out at true size, with its host in outline.
func (g *guide) apart(m plan.Motif, cm card.Motif) error {
	if err := g.page(); err != nil {
		return err
	}
	if err := g.heading(m.Name + ": laid apart at true size, with the points to sight on"); err != nil {
		return err
	}
	img := m.Image()
	x, rowH := margin, 0.0
	for i, v := range img.Views {
		b := v.Outline.Bounds()
		if v.Host != motif.Ground {
			h := img.Views[v.Host].Outline.Bounds()
			b.Min.X, b.Min.Y = min(b.Min.X, h.Min.X), min(b.Min.Y, h.Min.Y)
			b.Max.X, b.Max.Y = max(b.Max.X, h.Max.X), max(b.Max.Y, h.Max.Y)
		}
		if b.W() > g.size.W-2*margin || b.H() > g.size.H-foot-top-12 {
			if x > margin {
				x, g.y, rowH = margin, g.y+rowH+9, 0
			}
			name := fmt.Sprintf("%d  %s", i+1, v.Layer.Label)
			if _, err := g.whole(name, drawing{b.W(), b.H(), func(p *paper, x, y float64) error {
				return g.piece(p, m, i, place{x - b.Min.X, y - b.Min.Y, 1})
			}}); err != nil {
				return err
			}
			g.y += 9
			continue
		}
		if x+b.W() > g.size.W-margin && x > margin {
			x, g.y, rowH = margin, g.y+rowH+9, 0
		}
		if g.y+b.H()+8 > g.size.H-foot {
			if err := g.page(); err != nil {
				return err
			}
			x, rowH = margin, 0
		}
		at := place{x - b.Min.X, g.y + 4 - b.Min.Y, 1}
		if err := g.piece(g.p, m, i, at); err != nil {
			return err
		}
		g.p.text(g.p.f.bold, 2.8, x, g.y+2.5, -1, inkText, fmt.Sprintf("%d  %s", i+1, v.Layer.Label))
		x += b.W() + 7
		rowH = max(rowH, b.H())
	}
	g.y += rowH + 6
	return nil
}

// piece draws a layer on the outline of its host, with its sighting points.
func (g *guide) piece(p *paper, m plan.Motif, i int, at place) error {
	img := m.Image()
	v := img.Views[i]
	if v.Host != motif.Ground {
		p.region(img.Views[v.Host].Outline, at, none, rule, 0.2)
	}
	fill := "#dddddd"
	if len(m.Colourways) > 0 {
		fill = m.Colourways[0].Layers[i].Dry
	}
	p.region(v.Outline, at, hex(fill), inkText, 0.15)
	if len(m.Colourways) > 0 {
		if err := p.shades(v.Outline, at, m.Colourways[0].Layers[i].Blends); err != nil {
			return err
		}
	}
	sights(p, img, i, at)
	return nil
}

// sights numbers the points to bring a layer into place by.
func sights(p *paper, img motif.Image, i int, at place) {
	for n, f := range placing.Sights(img, i) {
		q := shape.Point{X: at.x + f.X, Y: at.y + f.Y}
		p.region(shape.Disc(q, 0.7), place{k: 1}, none, inkText, 0.25)
		p.region(shape.Disc(q.Add(shape.Point{X: 3}), 1.7), place{k: 1}, color.RGBA{255, 255, 255, 255}, inkText, 0.2)
		p.text(p.f.bold, 2.4, q.X+3, q.Y+0.9, 0, inkText, fmt.Sprint(n+1))
	}
}

func (g *guide) steps() error {
	if err := g.page(); err != nil {
		return err
	}
	if err := g.heading("Work, in this order"); err != nil {
		return err
	}
	g.y += 4
	w := g.size.W - 2*margin - 12
	for _, s := range g.plan.Steps {
		detail := g.p.wrap(g.p.f.text, 2.9, w, s.Detail)
		var care []string
		for _, c := range s.Cautions {
			care = append(care, g.p.wrap(g.p.f.bold, 2.6, w, "Care: "+c)...)
		}
		h := 6 + float64(len(detail))*3.9 + float64(len(care))*3.6
		if err := g.room(h); err != nil {
			return err
		}
		g.p.rect(margin, g.y-3.2, 4.4, 4.4, none, inkText, 0.3)
		if g.done[s.ID] {
			g.p.line(margin+0.8, g.y-1, margin+1.9, g.y+0.4, 0.5, inkText)
			g.p.line(margin+1.9, g.y+0.4, margin+3.8, g.y-2.6, 0.5, inkText)
		}
		title := fmt.Sprintf("%d  %s", s.Number, s.Title)
		if s.Minutes > 0 {
			title += fmt.Sprintf("  (then %.0f min)", s.Minutes)
		}
		g.p.text(g.p.f.bold, 3.3, margin+9, g.y, -1, inkText, title)
		g.y += 4.2
		for _, d := range detail {
			g.p.text(g.p.f.text, 2.9, margin+9, g.y, -1, inkText, d)
			g.y += 3.9
		}
		for _, d := range care {
			g.p.text(g.p.f.bold, 2.6, margin+9, g.y, -1, quiet, d)
			g.y += 3.6
		}
		g.y += 2.2
	}
	return nil
}
