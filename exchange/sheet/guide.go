package sheet

import (
	"fmt"
	"image/color"
	"io"
	"strings"

	"github.com/tdewolff/canvas/renderers/pdf"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/words"
	"ochrestone/core/work"
)

// margin of the printed page, mm; printers leave about 5.
const margin = 14.0

// Option changes the printed sheet.
type Option func(*guide)

// Page sets the size of the page.
func Page(s measure.Size) Option { return func(g *guide) { g.size = s } }

// Writing sets how measures are written; millimetres unless told.
func Writing(w measure.Writing) Option { return func(g *guide) { g.write = w } }

// Done marks steps that are done already.
func Done(steps ...card.Step) Option {
	return func(g *guide) {
		for _, s := range steps {
			g.done[s] = true
		}
	}
}

// Sitting prints the steps of a sitting, with a box for every card of it, in the place of
// those of the card alone.
func Sitting(s plan.Sitting) Option { return func(g *guide) { g.sitting = &s } }

// guide lays out the pages one after another.
type guide struct {
	size  measure.Size
	write measure.Writing
	done  map[card.Step]bool
	card  card.Card
	kit   kit.Kit
	plan  plan.Plan
	// sitting is set where what is made is more than this card.
	sitting *plan.Sitting

	pages []*paper
	p     *paper
	y     float64
	what  string // what is printed, on each of its pages
	title string // of a template, on each of its pages
	bad   error  // why a further page of a template could not begin
}

// newGuide begins pages of what is called so about a card.
func newGuide(what string, c card.Card, k kit.Kit, pl plan.Plan, opts []Option) *guide {
	g := &guide{size: measure.A4, write: measure.Metric, card: c, kit: k, plan: pl, done: map[card.Step]bool{}, what: what}
	for _, o := range opts {
		o(g)
	}
	return g
}

// Guide writes the layering guide and work sheet: the assembled front, a table
// of layers, the parts laid apart at true size, and the steps with boxes.
func Guide(w io.Writer, c card.Card, k kit.Kit, pl plan.Plan, opts ...Option) error {
	g := newGuide("Layering guide and work sheet", c, k, pl, opts)
	if err := g.run(); err != nil {
		return fmt.Errorf("lay out the guide: %w", err)
	}
	return g.save(w)
}

// save writes the pages that were laid out.
func (g *guide) save(w io.Writer) error {
	out := pdf.New(w, g.size.W, g.size.H, nil)
	out.SetInfo(g.card.Title, g.what, "", "", "Ochrestone")
	for i, p := range g.pages {
		if i > 0 {
			out.NewPage(g.size.W, g.size.H)
		}
		p.text(p.f.text, 2.8, g.size.W-margin, g.size.H-8, 1, quiet, fmt.Sprintf("page %d of %d", i+1, len(g.pages)))
		p.c.RenderTo(out)
	}
	if err := out.Close(); err != nil {
		return fmt.Errorf("write %s: %w", words.Small(g.what), err)
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
		if err := g.apart(m); err != nil {
			return err
		}
	}
	if s := g.sitting; s != nil {
		g.plan.Steps, g.plan.Time = s.Steps, s.Time
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
	p.text(p.f.text, 2.8, g.size.W-margin, margin+4, 1, quiet, g.what+". Print at 100 %, no fitting.")
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

// assembled draws the front at true size, with what it comes to and what to have at hand
// beside it, or beneath where the front is wide.
func (g *guide) assembled() error {
	pages := len(g.pages)
	right, err := g.whole("The front", drawing{g.card.Base.W, g.card.Base.H, func(p *paper, x, y float64) error {
		return front(p, g.card, g.kit, g.plan, x, y)
	}})
	if err != nil {
		return err
	}
	x, y, w := right+8, top, g.size.W-margin-right-8
	beneath := w < 52 || len(g.pages) > pages
	if beneath {
		x, y, w = margin, g.y+4, (g.size.W-2*margin-gutter)/2
	}
	facts := g.list(x, y, w, "This card", g.facts())
	var hand []string
	for _, h := range work.AtHand(&g.plan.Build, g.plan.Steps, g.sitting == nil || g.sitting.Time.Run.Copies == 1) {
		hand = append(hand, h.Kind+": "+strings.Join(h.Names, "; ")+".")
	}
	if beneath {
		g.y = max(facts, g.list(x+w+gutter, y, w, "Have at hand", hand)) + 2
		return nil
	}
	under := g.list(x, facts+4, w, "Have at hand", hand)
	g.y = max(g.y, g.strata(x, under+4, w, min(52, g.y-under-18))) + 2
	return nil
}

// facts are what the card comes to.
func (g *guide) facts() []string {
	d := g.plan.Depth
	out := []string{
		fmt.Sprintf("Front %s × %s, %s at its highest, %.0f g without its envelope.", g.write.Length(g.card.Base.W), g.write.Length(g.card.Base.H), g.write.Thin(d.Total), d.Weight),
	}
	if d.Post.Class != "" {
		out = append(out, fmt.Sprintf("In its envelope %s; as a US letter %s. The carrier's current rules go first.", g.write.Thin(d.Post.Filled), d.Post.Class))
	}
	if n := len(g.plan.Steps); n > 0 {
		wait := 0.0
		for _, s := range g.plan.Steps {
			wait += s.Minutes
		}
		say := words.Count(n, "step")
		if wait > 0 {
			say += fmt.Sprintf("; drying takes %.0f min when each is waited for by itself", wait)
		}
		out = append(out, say+".")
	}
	return out
}

// list writes a heading and lines beneath it, wrapped to w mm, and returns the y beneath.
func (g *guide) list(x, y, w float64, name string, lines []string) float64 {
	g.p.text(g.p.f.head, 3.6, x, y+3.6, -1, inkText, name)
	y += 8.2
	for _, l := range lines {
		for _, s := range g.p.wrap(g.p.f.text, 2.9, w, l) {
			g.p.text(g.p.f.text, 2.9, x, y, -1, inkText, s)
			y += 3.9
		}
		y += 1.1
	}
	return y
}
