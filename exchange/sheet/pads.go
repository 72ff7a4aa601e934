package sheet

import (
	"cmp"
	"fmt"
	"image/color"
	"io"
	"math"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/standing"
)

// padded is a thing with what holds it up.
type padded struct {
	name  string
	held  string
	top   float64
	leafs []standing.Piece
	pads  int
}

// onPads are the things of a card that stand on pads, foam or board, as they are laid.
func onPads(pl plan.Plan, st standing.Card, g *guide) []padded {
	b := &pl.Build
	var out []padded
	for _, t := range b.Things {
		if t.Element.Face != card.Front {
			continue
		}
		p := padded{name: t.Name, held: build.Held(b.Stock, t.Element.Bonds, g.write)}
		var inner []string
		for _, l := range st.Pieces {
			if l.Element != t.Element.ID || l.Thick == 0 {
				continue
			}
			raised := false
			for _, s := range l.Supports {
				if s.Raised {
					raised = true
					if s.Pad != nil {
						p.pads++
					}
				}
			}
			if raised || len(l.Off) > 0 {
				p.leafs = append(p.leafs, l)
				if l.Motif != "" {
					inner = append(inner, strings.ToLower(b.PartName(t.Element, l.Part)))
				}
			}
		}
		for _, s := range pl.Stood[t.From:t.To] {
			p.top = max(p.top, s.Highest())
		}
		if len(inner) > 0 {
			p.held += "; within it on pads: " + strings.Join(inner, ", ")
		}
		if len(p.leafs) > 0 {
			out = append(out, p)
		}
	}
	return out
}

var (
	padInk    = color.RGBA{0xe0, 0xa0, 0x40, 0xff}
	ownInk    = color.RGBA{0xb8, 0x6a, 0x10, 0xff}
	cutOffInk = color.RGBA{0xa3, 0x3a, 0x3a, 0xff}
	sideCut   = 30.0 // room for the side view, mm
)

// WritePads writes the pad plan of a front as a PDF at true size: the outline of
// everything that stands on pads with the pads where they go, numbered, seen from the
// front or, mirrored, from the back as it lies face down; the list of levels beside it,
// and the side view through the highest part. *ErrJig where nothing stands on pads.
func WritePads(w io.Writer, pl plan.Plan, st standing.Card, mirrored bool, opts ...Option) error {
	b := &pl.Build
	g0 := &guide{}
	for _, o := range opts {
		o(g0)
	}
	things := onPads(pl, st, g0)
	if len(things) == 0 {
		return &ErrJig{"Nothing on this front stands on pads.", "Hold something up in Depth first."}
	}
	base := b.Card.Base
	title, words := "Pad plan", "Measure the check bar first. Seen from the front, through the parts: lay a part on its outline, mark its pads from behind."
	if mirrored {
		title, words = "Pad plan, from the back", "Measure the check bar first. Seen from the back, left and right exchanged: lay a part face down on its outline and stick the pads where they are drawn."
	}
	words += " Amber is foam, grey board or scraps, red what is cut off a part. Foam grabs at once; the packet's own label goes first."
	const row, list = 4.4, 70.0
	return template(w, opts, title+" of “"+b.Card.Title+"”", words, base.W, base.H+sideCut+12, func(g *guide, y float64) {
		p := g.p
		at := place{margin, y, 1}
		turn := func(r shape.Region) shape.Region {
			if mirrored {
				return r.Mirror(base.W / 2)
			}
			return r
		}
		p.rect(at.x, at.y, base.W, base.H, none, inkText, 0.3)
		for _, l := range b.Leaves {
			p.region(turn(shape.Rect(l.X, l.Y, l.Size.W, l.Size.H)), at, none, rule, 0.15)
		}
		for n, t := range things {
			for _, l := range t.leafs {
				p.region(turn(regionOf(l.Path)), at, none, quiet, 0.18)
				for _, off := range l.Off {
					p.region(turn(regionOf(off)), at, none, cutOffInk, 0.3)
				}
				for _, s := range l.Supports {
					if !s.Raised {
						continue
					}
					area := turn(regionOf(s.Path))
					p.region(area, at, fillOf(s.Foam), ownInk, 0.15)
					c := area.Bounds().Centre()
					if s.Pad != nil && min(s.Pad.W, s.Pad.H) >= 3 {
						p.text(p.f.bold, 2.2, at.x+c.X, at.y+c.Y+0.8, 0, inkText, fmt.Sprint(n+1))
					}
				}
			}
		}
		g.side(pl, y+base.H+8, pl.Depth.AtY)
		// The list stands beside the drawing, or beneath it; what has no room goes on.
		lx, ly, wide := margin+base.W+6, y+2, list
		if base.W+list+6 > g.size.W-2*margin {
			lx, ly, wide = margin, y+base.H+sideCut+14, g.size.W-2*margin
		}
		room := func(lines int) {
			if ly+row*float64(lines) <= g.size.H-22 || g.bad != nil {
				return
			}
			g.bad = g.another("")
			p, lx, ly, wide = g.p, margin, g.y, g.size.W-2*margin
		}
		room(3)
		p.text(p.f.bold, 2.8, lx, ly, -1, inkText, "Levels, from the lowest")
		ly += row + 1
		order := slices.Clone(things)
		slices.SortStableFunc(order, func(a, b padded) int { return cmp.Compare(a.top, b.top) })
		for _, t := range order {
			n := slices.IndexFunc(things, func(o padded) bool { return o.name == t.name && o.top == t.top }) + 1
			line := fmt.Sprintf("%d  %s: top at %s; %s", n, t.name, g.write.Thin(t.top), t.held)
			if t.pads > 0 {
				line += "; " + several(t.pads, "pad")
			}
			room(len(p.wrap(p.f.text, 2.6, wide, line)))
			for _, l := range p.wrap(p.f.text, 2.6, wide, line) {
				p.text(p.f.text, 2.6, lx, ly, -1, inkText, l)
				ly += row - 0.6
			}
			ly += 1.2
		}
	})
}

// side draws the side view along a cut across the front, heights magnified.
func (g *guide) side(pl plan.Plan, y, cut float64) {
	p, b := g.p, &pl.Build
	top := pl.Depth.Total
	k := math.Max(1, math.Floor((sideCut-6)/max(top, 1)))
	floor := y + 4 + top*k
	p.text(p.f.text, 2.6, margin, y, -1, quiet, fmt.Sprintf("Side view, cut %s from the top, heights %.0f times true; %s at its highest.", g.write.Length(cut), k, g.write.Thin(top)))
	z := func(mm float64) float64 { return floor - mm*k }
	p.rect(margin, z(b.Thick), b.Card.Base.W, b.Thick*k/2, none, inkText, 0.12)
	p.rect(margin, z(b.Thick/2), b.Card.Base.W, b.Thick*k/2, none, inkText, 0.12)
	for _, s := range depth.Section(pl.Stood, cut) {
		o := pl.Stood[s.Index]
		if o.Print() {
			continue
		}
		under := func(x float64) float64 { return o.Below(shape.Point{X: x, Y: cut}) }
		band := func(x0, x1, from, to float64) shape.Region {
			var below, above shape.Ring
			n := 1
			if !o.Bent.Flat() {
				n = max(1, int(math.Ceil(2*(x1-x0)/o.Bent.Cell)))
			}
			for i := range n + 1 {
				x := x0 + (x1-x0)*float64(i)/float64(n)
				below, above = append(below, shape.Point{X: margin + x, Y: z(under(x) + from)}), append(above, shape.Point{X: margin + x, Y: z(under(x) + to)})
			}
			slices.Reverse(above)
			return shape.Raw(append(below, above...))
		}
		for _, h := range o.Supports {
			if !h.Raised {
				continue
			}
			for _, x := range h.Area.Cross(cut) {
				p.region(band(x[0], x[1], -h.Height, 0), place{0, 0, 1}, fillOf(h.Foam), ownInk, 0.1)
			}
		}
		p.region(band(s.X0, s.X1, 0, o.Thick), place{0, 0, 1}, none, inkText, 0.14)
	}
}

// several counts things.
func several(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// fillOf tells foam from board.
func fillOf(foam bool) color.RGBA {
	if foam {
		return padInk
	}
	return rule
}

// regionOf reads an outline that we wrote ourselves.
func regionOf(path string) shape.Region {
	var g shape.Region
	if err := g.UnmarshalText([]byte(path)); err != nil {
		return shape.Region{}
	}
	return g
}

// PadLines writes the pad plan as SVG in mm: a group a part with its outline and its pads.
func PadLines(w io.Writer, pl plan.Plan, st standing.Card, mirrored bool) error {
	things := onPads(pl, st, &guide{})
	if len(things) == 0 {
		return &ErrJig{"Nothing on this front stands on pads.", "Hold something up in Depth first."}
	}
	base := pl.Build.Card.Base
	var body strings.Builder
	if mirrored {
		fmt.Fprintf(&body, "<g transform=\"translate(%.3f 0) scale(-1 1)\">", base.W)
	}
	for i, t := range things {
		fmt.Fprintf(&body, "<g id=\"part%d\"><title>%s</title><desc>%s</desc>", i+1, escapeXML(t.name), escapeXML(t.held))
		for _, l := range t.leafs {
			fmt.Fprintf(&body, "<path class=\"outline\" fill=\"none\" stroke=\"#4f5962\" stroke-width=\"0.2\" d=\"%s\"/>", l.Path)
			for _, s := range l.Supports {
				if s.Raised {
					fmt.Fprintf(&body, "<path class=\"pad\" fill=\"#e0a040\" fill-rule=\"evenodd\" stroke=\"#824a00\" stroke-width=\"0.1\" d=\"%s\"/>", s.Path)
				}
			}
		}
		body.WriteString("</g>\n")
	}
	if mirrored {
		body.WriteString("</g>\n")
	}
	if _, err := fmt.Fprintf(w, "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%.3fmm\" height=\"%.3fmm\" viewBox=\"0 0 %.3f %.3f\">\n<title>Pad plan of %s</title>\n%s</svg>\n", base.W, base.H, base.W, base.H, escapeXML(pl.Build.Card.Title), body.String()); err != nil {
		return fmt.Errorf("write the pad plan: %w", err)
	}
	return nil
}
