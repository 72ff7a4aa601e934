package build

import (
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/layout"
	"ochrestone/core/look"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
)

// glowRough is how far the outline that a glow goes round is simplified, mm: what fades out
// over many mm has no finer detail.
const glowRough = 0.4

// toSheet moves a region of the face into the frame of a sheet that lies at a place.
func toSheet(g shape.Region, at card.Place) shape.Region {
	g = g.Move(shape.Point{X: -at.X, Y: -at.Y}).Turn(-at.Turn, shape.Point{})
	if at.Mirror {
		g = g.Mirror(0)
	}
	return g
}

// imageOn is the outline of an image as it lies on a sheet, in the sheet's frame.
func (b *Build) imageOn(element string, sheet card.Element, at card.Place, images []Image) (shape.Region, bool) {
	e, ok := b.Card.Element(element)
	if !ok || e.Image == nil || e.Face != sheet.Face {
		return shape.Region{}, false
	}
	i := slices.IndexFunc(images, func(m Image) bool { return m.ID == e.Image.Motif })
	if i < 0 || images[i].Problem != "" || len(images[i].Shapes.Views) == 0 {
		return shape.Region{}, false
	}
	g := images[i].Shapes.Silhouette
	return toSheet(layout.Place(g, g.Bounds(), e.Place), at).Filled().Simplify(glowRough), true
}

// printedOn are the outlines of what images print straight on a sheet, in its frame.
func (b *Build) printedOn(sheet card.Element, at card.Place, images []Image) (out []shape.Region) {
	for _, e := range b.Card.Elements {
		if e.Image == nil || e.Image.Cutout != nil || e.Face != sheet.Face || e.On != sheet.ID {
			continue
		}
		i := slices.IndexFunc(images, func(m Image) bool { return m.ID == e.Image.Motif })
		if i < 0 || images[i].Problem != "" {
			continue
		}
		m := images[i]
		box := m.Shapes.Silhouette.Bounds()
		for k, v := range m.Shapes.Views {
			if v.Layer.Make != card.Cut && Leaf(m.Shapes, k) == motif.Ground && len(v.Outline.Rings()) > 0 {
				out = append(out, toSheet(layout.Place(v.Outline, box, e.Place), at))
			}
		}
	}
	return out
}

// missShare is the share of an opening that has to have a print beneath for the opening to
// count as having one; our own default.
const missShare = 0.1

// misses are the openings of a stencil, as laid, that have no print of the sheet beneath. What the
// lines of a print hold is part of it: there the stencil colours between them.
func (t *treating) misses(laid shape.Region) (out []shape.Region, err error) {
	var held []shape.Region
	for _, g := range slices.Concat(t.prints, t.b.printedOn(t.e, t.at, t.images)) {
		held = append(append(held, g), g.Enclosed()...)
	}
	prints, err := shape.UnionAll(held...)
	if err != nil {
		return nil, fmt.Errorf("look for prints beneath a stencil: %w", err)
	}
	for _, g := range laid.Pieces() {
		if !g.Overlaps(t.whole) {
			continue // it lies past the sheet
		}
		on, err := g.Intersect(prints)
		if err != nil {
			return nil, fmt.Errorf("look for prints beneath a stencil: %w", err)
		}
		if on.Area() < missShare*g.Area() {
			out = append(out, g)
		}
	}
	return out, nil
}

// StencilledPart names what a stencil that is laid over the images of a sheet leaves on
// one of them.
const StencilledPart = "stencilled"

// stencilledOver adds what the stencils of the sheet beneath, laid over its images, leave
// on one of them: on every print in its own colour.
func (b *Build) stencilledOver(t *Thing, m Image, as look.Colourway) {
	under := &b.Base
	if t.Element.On != "" {
		under = b.thing(t.Element.On)
	}
	if under == nil || under.Element.Sheet == nil || t.Element.Image.Cutout != nil {
		return
	}
	box := m.Shapes.Silhouette.Bounds()
	var films []Film
	var all []shape.Region
	for n, tr := range under.Element.Sheet.Treatments {
		if tr.Stencil == nil || !tr.Stencil.Over || n >= len(under.Treated) {
			continue
		}
		for _, r := range under.Treated[n].Regions {
			laid := under.Place(r)
			for k, v := range m.Shapes.Views {
				if v.Layer.Make == card.Cut || v.Hidden() || Leaf(m.Shapes, k) != motif.Ground {
					continue
				}
				in, err := layout.Place(v.Shown, box, t.Element.Place).Intersect(laid)
				if err != nil || in.Empty() {
					continue
				}
				beneath, err := colour.ParseHex(as.Layers[k].Dry)
				if err != nil {
					continue
				}
				d, ok := b.Stock.Dried(card.Finish{Ink: tr.Stencil.Ink}, beneath, "")
				if !ok {
					continue
				}
				films = append(films, Film{toSheet(in, t.Element.Place), d.Dry.Hex(), n})
				all = append(all, in)
			}
		}
	}
	if len(films) == 0 {
		return
	}
	g, err := shape.UnionAll(all...)
	if err != nil {
		return
	}
	p := Piece{ID: ID{t.Element.ID, StencilledPart}, On: ID{Element: t.Element.On}, Outline: g, Local: toSheet(g, t.Element.Place), Films: films, Top: films[len(films)-1].Colour}
	b.Pieces = append(b.Pieces, p)
	t.Drawn = append(slices.Clone(t.Drawn), p)
}
