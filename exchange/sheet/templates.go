package sheet

import (
	"fmt"
	"io"
	"math"
	"strings"

	"github.com/tdewolff/canvas/renderers/pdf"

	"ochrestone/core/layout"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// template draws one page at true size: a title, what to do, the check bar, and
// then what draw puts beneath; height is what draw needs, mm.
func template(w io.Writer, opts []Option, title, words string, width, height float64, draw func(g *guide, y float64)) error {
	g := &guide{size: measure.A4, write: measure.Metric}
	for _, o := range opts {
		o(g)
	}
	// The page upright, or on its side where only that has room.
	var rooms []measure.Size
	var tops []float64
	fits := -1
	for i, size := range []measure.Size{g.size, {W: g.size.H, H: g.size.W}} {
		p, err := newPaper(size.W, size.H)
		if err != nil {
			return err
		}
		y := overline(p, size, "", words)
		room := measure.Size{W: size.W - 2*margin, H: size.H - 22 - y}
		rooms, tops = append(rooms, room), append(tops, y)
		if fits < 0 && width <= room.W && height <= room.H {
			fits = i
		}
	}
	if fits < 0 {
		return &ErrJig{fmt.Sprintf("It takes %s × %s; the page has room for %s × %s.", g.write.Length(width), g.write.Length(height), g.write.Length(rooms[0].W), g.write.Length(rooms[0].H)), "Choose a larger page, or make it smaller."}
	}
	if fits == 1 {
		g.size.W, g.size.H = g.size.H, g.size.W
	}
	g.title = title
	if err := g.another(words); err != nil {
		return err
	}
	draw(g, tops[fits])
	if g.bad != nil {
		return g.bad
	}
	r := pdf.New(w, g.size.W, g.size.H, &pdf.Options{Compress: true})
	for i, p := range g.pages {
		if i > 0 {
			r.NewPage(g.size.W, g.size.H)
		}
		p.c.RenderTo(r)
	}
	if err := r.Close(); err != nil {
		return fmt.Errorf("write %s: %w", title, err)
	}
	return nil
}

// overline writes a title and words at the top of a page and gives where what follows begins.
func overline(p *paper, size measure.Size, title, words string) float64 {
	p.text(p.f.head, 5, margin, 18, -1, inkText, title)
	y := 24.0
	for _, line := range p.wrap(p.f.text, 3, size.W-2*margin, words) {
		p.text(p.f.text, 3, margin, y, -1, inkText, line)
		y += 4.2
	}
	return y + 4
}

// another begins a further page of a template, with its title, its check bar and words.
func (g *guide) another(words string) error {
	p, err := newPaper(g.size.W, g.size.H)
	if err != nil {
		return err
	}
	g.p, g.pages = p, append(g.pages, p)
	g.checkBar()
	g.y = overline(p, g.size, g.title, words)
	return nil
}

// Corner is a corner jig: where the paper lies against two rails, and where the
// image comes to stand on it.
type Corner struct {
	Paper measure.Size // mm
	Image shape.Region // the whole image about its own frame, mm
	X, Y  float64      // of the middle of the image from the paper's top left, mm
	Name  string
}

// WriteCorner writes a corner jig as a PDF at true size: two rails to glue card
// on, the paper, a grid, and the image in its place with a cross.
func WriteCorner(w io.Writer, c Corner, opts ...Option) error {
	if !(c.Paper.W > 0) || !(c.Paper.H > 0) || c.Image.Empty() {
		return &ErrJig{"A corner jig needs a paper and an image.", "Give the paper's size."}
	}
	b := c.Image.Bounds()
	mid := b.Min.Add(b.Max).Scale(0.5)
	at := c.Image.Move(shape.Point{X: c.X, Y: c.Y}.Sub(mid))
	if o := at.Bounds(); o.Min.X < -0.01 || o.Min.Y < -0.01 || o.Max.X > c.Paper.W+0.01 || o.Max.Y > c.Paper.H+0.01 {
		return &ErrJig{"The image runs over the edge of the paper there.", "Move it in, or take a larger paper."}
	}
	const rail = 8.0
	return template(w, opts, "Corner jig, "+c.Name,
		"Measure the check bar first. Paste the sheet on heavy card and glue two strips of card on the hatched rails. Push every paper into the corner marked with the wedge, hold it with magnets or low-tack tape, and lay the stamp on the image drawn here, face down, before the lid takes it up. Strong magnets pinch: keep them from small children and from pacemakers.",
		c.Paper.W+rail, c.Paper.H+rail, func(g *guide, y float64) {
			p := g.p
			x := (g.size.W-c.Paper.W-rail)/2 + rail
			y += rail
			p.region(shape.Rect(x-rail, y-rail, rail, c.Paper.H+rail), place{0, 0, 1}, none, inkText, 0.25)
			p.region(shape.Rect(x, y-rail, c.Paper.W, rail), place{0, 0, 1}, none, inkText, 0.25)
			for d := 4.0; d < c.Paper.H+rail; d += 4 {
				p.line(x-rail, y-rail+d, x-rail+math.Min(rail, d), y-rail+math.Max(0, d-rail), 0.12, rule)
			}
			for d := 4.0; d < c.Paper.W; d += 4 {
				p.line(x+d, y, x+math.Min(c.Paper.W, d+rail), y-rail, 0.12, rule)
			}
			for d := 10.0; d < c.Paper.W; d += 10 {
				p.line(x+d, y, x+d, y+c.Paper.H, 0.08, rule)
			}
			for d := 10.0; d < c.Paper.H; d += 10 {
				p.line(x, y+d, x+c.Paper.W, y+d, 0.08, rule)
			}
			p.region(shape.Rect(x, y, c.Paper.W, c.Paper.H), place{0, 0, 1}, none, inkText, 0.3)
			p.region(shape.Raw(shape.Ring{{X: x, Y: y}, {X: x + 5, Y: y}, {X: x, Y: y + 5}}), place{0, 0, 1}, inkText, none, 0)
			p.region(at, place{x, y, 1}, none, inkText, 0.2)
			p.line(x+c.X-4, y+c.Y, x+c.X+4, y+c.Y, 0.2, inkText)
			p.line(x+c.X, y+c.Y-4, x+c.X, y+c.Y+4, 0.2, inkText)
			p.text(p.f.text, 2.6, x, y+c.Paper.H+4, -1, quiet, fmt.Sprintf("Paper %s × %s; middle of the image %s from the left, %s from the top", g.write.Length(c.Paper.W), g.write.Length(c.Paper.H), g.write.Length(c.X), g.write.Length(c.Y)))
		})
}

// DieGuide is a sheet for a die laid round a print as its guide.
type DieGuide struct {
	Die    shape.Region
	Layers []shape.Region // what is printed within, lowest first
	Labels []string
	Name   string
}

// WriteDieGuide writes the sheet as a PDF at true size.
func WriteDieGuide(w io.Writer, d DieGuide, opts ...Option) error {
	if d.Die.Empty() {
		return &ErrJig{"There is no die to lay round this image.", "Choose an image with a cut layer that carries its prints."}
	}
	b := d.Die.Bounds()
	return template(w, opts, "Die as a guide, "+d.Name,
		"Measure the check bar first. Lay the die on its outline: it must cover the heavy line all round. Each stamp is laid inside the die on its own outline, numbered from the first, and taken up by the lid from there. The cutting edge is sharp: hold the die by its rim.",
		b.W(), b.H()+10+4*float64(len(d.Labels)), func(g *guide, y float64) {
			p := g.p
			at := place{(g.size.W-b.W())/2 - b.Min.X, y - b.Min.Y, 1}
			p.region(d.Die, at, none, inkText, 0.5)
			for i, l := range d.Layers {
				p.region(l, at, none, quiet, 0.18)
				c := l.Centroid()
				p.text(p.f.bold, 3, at.x+c.X, at.y+c.Y+float64(i)*3.4, 0, inkText, fmt.Sprint(i+1))
			}
			for i, s := range d.Labels {
				p.text(p.f.text, 3, margin, y+b.H()+6+4*float64(i), -1, inkText, fmt.Sprintf("%d  %s", i+1, s))
			}
		})
}

// comes joins letters in a sentence: "l comes", "p, e and t come".
func comes(letters []string) string {
	switch n := len(letters); n {
	case 0:
		return "no letter comes"
	case 1:
		return letters[0] + " comes"
	default:
		return strings.Join(letters[:n-1], ", ") + " and " + letters[n-1] + " come"
	}
}

// WriteWords writes a window template for a line of letters as a PDF at true
// size: every letter's outline let out by clear mm, so that its cut letter drops
// in, numbered in order over the line they stand on.
func WriteWords(w io.Writer, text string, l layout.Line, clear float64, opts ...Option) error {
	if len(l.Letters) == 0 {
		return &ErrJig{"There are no letters to set.", "Type a word."}
	}
	var box shape.Box
	windows := make([]shape.Region, len(l.Letters))
	for i, s := range l.Letters {
		o, err := s.Region.Filled().Offset(clear)
		if err != nil {
			return fmt.Errorf("let out %q: %w", s.Letter, err)
		}
		windows[i] = o
		b := o.Bounds()
		if i == 0 {
			box = b
		}
		box.Min = shape.Point{X: math.Min(box.Min.X, b.Min.X), Y: math.Min(box.Min.Y, b.Min.Y)}
		box.Max = shape.Point{X: math.Max(box.Max.X, b.Max.X), Y: math.Max(box.Max.Y, b.Max.Y)}
	}
	passes := fmt.Sprintf("With one die of each letter it takes %s (%s most often).", words.Count(l.Passes, "pass", "passes"), comes(l.Most))
	if l.Passes == 1 {
		passes = "No letter comes twice: one pass cuts them all."
	}
	const round = 8.0
	return template(w, opts, "Window template, “"+text+"”",
		fmt.Sprintf("Measure the check bar first. Paste the sheet on card and cut the windows out; mind the blade, cut away from your hand. Lay it where the words go, square to the edge by its long line, drop the letters in, glue them, lift it off. The windows are %s larger than the letters all round. %s", fmt.Sprintf("%.2g mm", clear), passes),
		box.W()+2*round, box.H()+2*round+6, func(g *guide, y float64) {
			p := g.p
			at := place{(g.size.W-box.W())/2 - box.Min.X, y + round - box.Min.Y, 1}
			p.region(shape.Rect(at.x+box.Min.X-round, y, box.W()+2*round, box.H()+2*round), place{0, 0, 1}, none, inkText, 0.25)
			p.line(at.x+box.Min.X-round, at.y, at.x+box.Max.X+round, at.y, 0.12, rule)
			for i, o := range windows {
				p.region(o, at, none, inkText, 0.2)
				b := o.Bounds()
				p.text(p.f.text, 2.2, at.x+(b.Min.X+b.Max.X)/2, y+box.H()+2*round+4, 0, quiet, fmt.Sprintf("%d %s", i+1, l.Letters[i].Letter))
			}
		})
}

// Mask is a mask over an image that is printed, while others are printed over its
// edge.
type Mask struct {
	Label  string
	Region shape.Region // at the place and turn it has on the panel
	Over   []string     // what is printed while it is masked
}

// WriteMasks writes the masks in printing order as a PDF at true size, each upright
// in a row.
func WriteMasks(w io.Writer, masks []Mask, inset float64, opts ...Option) error {
	if len(masks) == 0 {
		return &ErrJig{"No printed images overlap on the panel, and no piece has a second colour that is masked: nothing needs a mask.", "Move one behind another in Front, or leave the masks."}
	}
	type put struct {
		x, y float64
	}
	puts := make([]put, len(masks))
	x, y, tall, wide := 0.0, 0.0, 0.0, 0.0
	const gap, across = 8.0, 180.0
	for i, m := range masks {
		b := m.Region.Bounds()
		if x > 0 && x+b.W() > across {
			x, y, tall = 0, y+tall+gap+9, 0
		}
		puts[i] = put{x - b.Min.X, y - b.Min.Y}
		x += b.W() + gap
		wide = math.Max(wide, x-gap)
		tall = math.Max(tall, b.H())
	}
	return template(w, opts, "Masks, in printing order",
		fmt.Sprintf("Measure the check bar first. What stands in front is printed first: print 1, lay mask 1 on it, and print what is named with it right over the mask's edge; then go on. Each mask of a print is %s smaller than it all round, so that no white line is left between; one for a second colour ends on its line. Cut them from masking paper or thin paper with low-tack glue; mind the blade.", fmt.Sprintf("%.2g mm", inset)),
		wide, y+tall+9, func(g *guide, top float64) {
			p := g.p
			left := (g.size.W - wide) / 2
			for i, m := range masks {
				p.region(m.Region, place{left + puts[i].x, top + puts[i].y, 1}, none, inkText, 0.25)
				b := m.Region.Bounds()
				p.text(p.f.bold, 3, left+puts[i].x+b.Min.X, top+puts[i].y+b.Max.Y+4, -1, inkText, fmt.Sprintf("%d  %s", i+1, m.Label))
				over := "then print: "
				for j, o := range m.Over {
					if j > 0 {
						over += ", "
					}
					over += o
				}
				p.text(p.f.text, 2.4, left+puts[i].x+b.Min.X, top+puts[i].y+b.Max.Y+7.5, -1, quiet, over)
			}
		})
}
