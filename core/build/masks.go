package build

import (
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// Mask is a mask over an image printed on what carries it.
type Mask struct {
	Element string
	Label   string
	Region  shape.Region // in place on its face, mm
	Over    []string     // images printed while it is masked
}

// opening is how large an opening of a mask is that is worth cutting, mm²: our own default.
const opening = 60.0

// Masks lists the masks for printed images that overlap, in the order they are printed:
// what stands in front first, its mask over it while those behind are printed. Every
// mask is the image's outline inset by so many mm, so that no white line is left beside
// it.
func (b *Build) Masks(inset float64) ([]Mask, error) {
	var out []Mask
	for i := len(b.Things) - 1; i >= 0; i-- {
		t := b.Things[i]
		if !t.Printed {
			continue
		}
		var over []string
		under, inks := b.InkedAround(i)
		for _, n := range inks {
			over = append(over, Inking(under.Element.Sheet.Treatments[n]))
		}
		for j := i - 1; j >= 0; j-- {
			if b.Overprint(i, j) {
				over = append(over, b.Things[j].Name)
			}
		}
		if len(over) == 0 {
			continue
		}
		whole := t.Outline
		if t.Element.Face != card.Front {
			m := b.Made[t.Made].Image.Shapes.Silhouette
			whole = layout.Place(m, m.Bounds(), t.Element.Place)
		}
		// Nobody cuts small openings into a mask: bare spots of a print stay covered.
		g, err := whole.Closed(opening).Offset(-inset)
		if err != nil {
			return nil, fmt.Errorf("draw the mask of %s: %w", t.Name, err)
		}
		out = append(out, Mask{t.Element.ID, t.Name, g, over})
	}
	return b.regionMasks(out)
}

// Overprint reports whether two images that are printed straight on one face lie over one another.
func (b *Build) Overprint(i, j int) bool {
	t, o := &b.Things[i], &b.Things[j]
	return i != j && t.Printed && o.Printed && t.Element.Face == o.Element.Face && t.Prints.Overlaps(o.Prints)
}

// InkedAround are the treatments that lay ink where a masked print stands, by their number, and what
// they are done to; none for a print that is not masked.
func (b *Build) InkedAround(i int) (under *Thing, treatments []int) {
	t := &b.Things[i]
	if t.Element.Image == nil || !t.Element.Image.Masked || !t.Printed || t.Element.On == "" && t.Element.Face != card.Front {
		return nil, nil
	}
	under = &b.Base
	if t.Element.On != "" {
		under = b.thing(t.Element.On)
	}
	if under == nil || under.Element.Sheet == nil {
		return nil, nil
	}
	for n, tr := range under.Element.Sheet.Treatments {
		if n >= len(under.Treated) || Inking(tr) == "" || tr.Stencil != nil && tr.Stencil.Over {
			continue
		}
		if slices.ContainsFunc(under.Treated[n].Regions, func(g shape.Region) bool { return t.Prints.Overlaps(under.Place(g)) }) {
			treatments = append(treatments, n)
		}
	}
	return under, treatments
}

// Inking is what a treatment that inks the ground is called; empty for one that does not.
func Inking(t card.Treatment) string {
	switch {
	case t.Fade != nil:
		return "the blend"
	case t.Bands != nil:
		return "the bands"
	case t.Stencil != nil:
		return "the stencilling"
	case t.Splash != nil:
		return "the splash"
	case t.Stroke != nil:
		return "the stroke"
	case t.Edged != nil:
		return "the edge"
	case t.Print != nil || t.Turned != nil:
		return "the pattern"
	}
	return ""
}

// maskRound is how far a mask of a region goes past the piece, so that no ink runs over it, mm.
const maskRound = 8.0

// regionMasks adds the masks that cover the rest of a piece while one colour region of it
// is inked: each ends on the line that parts the piece.
func (b *Build) regionMasks(out []Mask) ([]Mask, error) {
	var seen []string
	for _, m := range b.Made {
		if slices.Contains(seen, m.Image.ID) {
			continue
		}
		seen = append(seen, m.Image.ID)
		views := m.Image.Shapes.Views
		for i, v := range views {
			if v.Layer.Region == nil || v.Problem != "" || v.Host < 0 {
				continue
			}
			of := views[v.Host]
			if v.Layer.Region.By == card.Covered {
				out = append(out, Mask{Label: v.Layer.Label, Region: v.Outline, Over: []string{of.Layer.Label}})
			}
			if v.Layer.Region.By != card.Masked {
				continue
			}
			g, err := maskOf(v.Part.Outline, v.Outline)
			if err != nil {
				return nil, fmt.Errorf("draw the mask of %s: %w", views[i].Layer.Label, err)
			}
			out = append(out, Mask{Label: "All of " + of.Layer.Label + " but its second colour", Region: g, Over: []string{v.Layer.Label}})
		}
	}
	return out, nil
}

// maskOf covers all of a piece but one region, and goes past the piece on that side.
func maskOf(whole, region shape.Region) (g shape.Region, err error) {
	rest, err := whole.Minus(region)
	if err != nil {
		return g, err
	}
	wide, err := rest.Offset(maskRound)
	if err != nil {
		return g, err
	}
	open, err := region.Offset(maskRound)
	if err != nil {
		return g, err
	}
	if wide, err = wide.Minus(open); err != nil {
		return g, err
	}
	return rest.Union(wide)
}
