package sheet

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/plan"
)

// strata draws the section of the whole card, lowest first, every thickness by one factor,
// and says by how much it is magnified: sheets at their width, what stands on them side by
// side at its own height, an image as its own layers. It returns the y beneath.
func (g *guide) strata(x, y, w, h float64) float64 {
	p, pl := g.p, g.plan
	top := pl.Depth.Base
	for _, e := range pl.Front.Elements {
		top = max(top, e.Z1)
	}
	for _, s := range pl.Front.Sheets {
		top = max(top, s.Z1)
	}
	if top <= 0 || h < 20 {
		return y
	}
	k := math.Floor(h / top)
	p.text(p.f.head, 3.6, x, y+3.6, -1, inkText, "Strata")
	p.text(p.f.text, 2.6, x, y+7.6, -1, quiet, fmt.Sprintf("A section, thickness %.0f times true.", k))
	floor := y + 11 + top*k
	slab := func(x0, x1, z0, z1 float64, body, dry string) {
		p.rect(x0, floor-z1*k, x1-x0, max(0.3, (z1-z0)*k), hex(body), inkText, 0.1)
		if dry != "" {
			p.rect(x0, floor-z1*k, x1-x0, max(0.3, min(1, (z1-z0)*k*0.3)), hex(dry), none, 0)
		}
	}
	foam := func(x0, x1, z0, z1 float64) {
		p.rect(x0, floor-z1*k, x1-x0, (z1-z0)*k, hex("#ffffff"), quiet, 0.15)
		for q := x0 + 1; q < x1; q += 1.4 {
			p.line(q, floor-z1*k, q, floor-z0*k, 0.08, rule)
		}
	}
	base := "#ffffff"
	if s, ok := g.kit.Paper(g.card.Base.Paper); ok {
		base = s.Colour
	}
	leaf := pl.Depth.Base / 2
	slab(x, x+w, 0, leaf, base, "")
	slab(x, x+w, leaf, 2*leaf, base, "")
	for _, s := range pl.Front.Sheets {
		half := w / 2 * min(1, s.W/g.card.Base.W)
		slab(x+w/2-half, x+w/2+half, s.Z0, s.Z1, s.Colour, "")
	}
	inner := w * 0.86
	col := inner / float64(max(1, len(pl.Front.Elements)))
	for i, e := range pl.Front.Elements {
		x0, x1 := x+(w-inner)/2+float64(i)*col+0.6, x+(w-inner)/2+float64(i+1)*col-0.6
		in := (x1 - x0) * 0.15
		if e.Foam && e.Lift > 0 {
			foam(x0+in, x1-in, e.Z0-e.Lift, e.Z0)
		}
		body, layers := g.bodyOf(e)
		if len(layers) == 0 {
			slab(x0, x1, e.Z0, e.Z1, body, "")
			continue
		}
		for _, l := range beside(layers) {
			a, b := x0+l.from*(x1-x0), x0+l.to*(x1-x0)
			in := min(1, (b-a)*0.2)
			if l.foam {
				foam(a+in, b-in, e.Z0+l.z-l.lift, e.Z0+l.z)
			}
			slab(a, b, e.Z0+l.z, e.Z0+l.z+l.thick, l.body, l.dry)
		}
	}
	return floor + 3
}

// sliver is a cut layer in the section of its image.
type sliver struct {
	z, thick, lift float64 // over the image's underside, mm
	foam           bool
	body, dry      string
	from, to       float64 // its share of the width
}

// beside gives each layer its share of the width: those at one height stand beside each
// other, and what lies higher is a little narrower than what lies lower.
func beside(layers []sliver) []sliver {
	meet := func(a, b sliver) bool { return a.z < b.z+b.thick-1e-6 && b.z < a.z+a.thick-1e-6 }
	out := slices.Clone(layers)
	for i, l := range layers {
		at, of, deep := 0, 0, 0
		for k, o := range layers {
			switch {
			case meet(l, o):
				if k < i {
					at++
				}
				of++
			case o.z < l.z:
				deep++
			}
		}
		in := min(0.03*float64(deep), 0.24)
		w := (1 - 2*in) / float64(max(1, of))
		out[i].from, out[i].to = in+float64(at)*w, in+float64(at+1)*w
	}
	return out
}

// bodyOf is the colour of a thing, or the cut layers it is stacked of.
func (g *guide) bodyOf(e plan.Placed) (string, []sliver) {
	el, _ := g.card.Element(e.ID)
	if el.Sheet != nil {
		if s, ok := g.kit.Paper(el.Sheet.Paper); ok {
			return s.Colour, nil
		}
	}
	if el.Gems != nil {
		return el.Gems.Colour, nil
	}
	var out []sliver
	for _, d := range g.used() {
		if el.Image == nil || d.m.ID != el.Image.Motif || d.w.ID != el.Image.Colourway {
			continue
		}
		for _, l := range d.w.Layers {
			if l.Thick > 0 {
				out = append(out, sliver{z: l.Z1 - l.Thick, thick: l.Thick, lift: l.Lift, foam: l.Foam, body: l.Paper, dry: l.Dry})
			}
		}
		if len(out) == 0 && len(d.w.Layers) > 0 {
			return d.w.Layers[len(d.w.Layers)-1].Dry, nil
		}
	}
	return "#ffffff", out
}
