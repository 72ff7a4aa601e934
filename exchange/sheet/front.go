package sheet

import (
	"fmt"
	"io"
	"math"
	"slices"

	"image/color"
	"image/png"

	"github.com/tdewolff/canvas/renderers/svg"

	"ochrestone/core/blend"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
)

// front draws the assembled front at true size on the surface.
func front(p *paper, c card.Card, k kit.Kit, pl plan.Plan, x, y float64) error {
	return frontAt(p, c, k, pl, place{x, y, 1}, true)
}

// frontAt draws what stands on the front at a place and scale, with its base beneath or
// without.
func frontAt(p *paper, c card.Card, k kit.Kit, pl plan.Plan, at place, bare bool) error {
	base := "#ffffff"
	if s, ok := k.Paper(c.Base.Paper); ok {
		base = s.Colour
	}
	if bare {
		p.rect(at.x, at.y, c.Base.W*at.k, c.Base.H*at.k, hex(base), rule, 0.1)
		if g := pl.Build.Leaf; !g.Empty() {
			p.region(g, at, hex(base), rule, 0.15)
		}
		for _, d := range pl.Build.Base.Drawn {
			for _, f := range d.Films {
				p.region(pl.Build.Base.Place(f.Region), at, hex(f.Colour), none, 0)
			}
		}
	}
	for _, s := range slices.SortedFunc(slices.Values(pl.Stood), func(a, b depth.Stood) int { return a.Turn - b.Turn }) {
		if s.Bare {
			continue
		}
		fill := s.Top
		if s.ID.Part == "" {
			fill = s.Body
		}
		edge, width := none, 0.0
		if s.Thick > 0 {
			edge, width = color.RGBA{130, 130, 130, 255}, 0.08
		}
		ink := hex(fill)
		if s.Clear {
			ink = veil(ink, look.NewStock(k).Hides(s.Stock))
		}
		p.region(s.Outline, at, ink, edge, width)
		if len(s.Films) > 0 {
			if t := thingOf(pl, s.ID.Element); t != nil {
				for _, f := range s.Films {
					p.region(t.Place(f.Region), at, hex(f.Colour), none, 0)
				}
			}
			p.region(s.Outline, at, none, edge, width)
		}
		if err := p.shades(s.Outline, at, blendsOf(pl, c, s)); err != nil {
			return err
		}
	}
	return nil
}

// veil is the colour of a see-through leaf that hides a share of what lies behind.
func veil(c color.RGBA, k float64) color.RGBA {
	return color.RGBA{uint8(k * float64(c.R)), uint8(k * float64(c.G)), uint8(k * float64(c.B)), uint8(k * 255)}
}

// thingOf is what a plan has built of an element.
func thingOf(pl plan.Plan, element string) *build.Thing {
	for i := range pl.Build.Things {
		if t := &pl.Build.Things[i]; t.Element.ID == element {
			return t
		}
	}
	return nil
}

// blendsOf are the inks worked into the zones of a layer as it stands on the
// front.
func blendsOf(pl plan.Plan, c card.Card, s depth.Stood) []look.Blend {
	for _, e := range c.Elements {
		if e.ID != s.ID.Element {
			continue
		}
		for _, m := range pl.Motifs {
			for _, w := range m.Colourways {
				if e.Image == nil || m.ID != e.Image.Motif || w.ID != e.Image.Colourway {
					continue
				}
				for _, l := range w.Layers {
					if l.ID == s.ID.Part {
						return turnedZones(l.Blends, e.Place)
					}
				}
			}
		}
	}
	return nil
}

// turnedZones names the zones of an image as it lies turned on the card, to the
// nearest quarter turn.
func turnedZones(bs []look.Blend, at card.Place) []look.Blend {
	round := []card.Zone{card.Tip, card.Right, card.Foot, card.Left}
	quarters := ((int(math.Round(at.Turn/90)) % 4) + 4) % 4
	out := slices.Clone(bs)
	for i := range out {
		if at.Mirror && out[i].Zone == card.Left {
			out[i].Zone = card.Right
		} else if at.Mirror && out[i].Zone == card.Right {
			out[i].Zone = card.Left
		}
		if k := slices.Index(round, out[i].Zone); k >= 0 {
			out[i].Zone = round[(k+quarters)%4]
		}
	}
	return out
}

// shadeBands is how many steps a blend is printed in.
const shadeBands = 6

// shades draws the inks worked into the zones of a piece.
func (p *paper) shades(g shape.Region, at place, bs []look.Blend) error {
	for _, b := range bs {
		if b.Dry == "" || b.Zone == card.AllOver {
			continue
		}
		bands, err := blend.Bands(g, b.Zone, b.Reach, shadeBands)
		if err != nil {
			return fmt.Errorf("draw a blend: %w", err)
		}
		for _, band := range bands {
			c := hex(b.Dry)
			k := band.Cover
			c = color.RGBA{uint8(k * float64(c.R)), uint8(k * float64(c.G)), uint8(k * float64(c.B)), uint8(k * 255)}
			p.region(band.Region, at, c, none, 0)
		}
	}
	return nil
}

func frontPaper(c card.Card, k kit.Kit, pl plan.Plan) (*paper, error) {
	box := shape.Rect(0, 0, c.Base.W, c.Base.H).Bounds()
	for _, s := range pl.Stood {
		if b := s.Outline.Bounds(); !s.Outline.Empty() {
			box.Min.X, box.Min.Y = min(box.Min.X, b.Min.X), min(box.Min.Y, b.Min.Y)
			box.Max.X, box.Max.Y = max(box.Max.X, b.Max.X), max(box.Max.Y, b.Max.Y)
		}
	}
	p, err := newPaper(box.W(), box.H())
	if err != nil {
		return nil, err
	}
	return p, front(p, c, k, pl, -box.Min.X, -box.Min.Y)
}

// FrontSVG writes the assembled front in mm.
func FrontSVG(w io.Writer, c card.Card, k kit.Kit, pl plan.Plan) error {
	p, err := frontPaper(c, k, pl)
	if err != nil {
		return fmt.Errorf("draw the front: %w", err)
	}
	r := svg.New(w, p.w, p.h, nil)
	p.c.RenderTo(r)
	if err := r.Close(); err != nil {
		return fmt.Errorf("write the front as SVG: %w", err)
	}
	return nil
}

// FrontPNG writes the assembled front at the given resolution.
func FrontPNG(w io.Writer, c card.Card, k kit.Kit, pl plan.Plan, dpi float64) error {
	p, err := frontPaper(c, k, pl)
	if err != nil {
		return fmt.Errorf("draw the front: %w", err)
	}
	img := drawn(p.c, dpi)
	if err := png.Encode(w, img); err != nil {
		return fmt.Errorf("write the front as PNG: %w", err)
	}
	return nil
}
