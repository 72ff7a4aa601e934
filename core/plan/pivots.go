package plan

import (
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// HingeSide is the side of the work a positioner or a taped stencil is hinged on.
type HingeSide string

// Sides.
const (
	HingeLeft   HingeSide = "left"
	HingeRight  HingeSide = "right"
	HingeTop    HingeSide = "top"
	HingeBottom HingeSide = "bottom"
)

// Hinge is where the hinge lies: the middle of it is so many mm past the edge of
// the layer on that side.
type Hinge struct {
	Side HingeSide `json:"side" enum:"left,right,top,bottom"`
	Far  float64   `json:"far" minimum:"0" maximum:"400" doc:"mm from the edge of the layer"`
}

// HingeAt sets where the hinge lies.
func HingeAt(h Hinge) Option { return func(o *options) { o.hinge = h } }

// of is the place of the hinge for a layer, mm in the image's frame.
func (h Hinge) of(g shape.Region) shape.Point {
	b, c := g.Bounds(), g.Centroid()
	switch h.Side {
	case HingeRight:
		return shape.Point{X: b.Max.X + h.Far, Y: c.Y}
	case HingeTop:
		return shape.Point{X: c.X, Y: b.Min.Y - h.Far}
	case HingeBottom:
		return shape.Point{X: c.X, Y: b.Max.Y + h.Far}
	}
	return shape.Point{X: b.Min.X - h.Far, Y: c.Y}
}

// Pivot is the turn a layer can stand about a point.
type Pivot struct {
	Name  string  `json:"name" doc:"what it turns about"`
	Clock float64 `json:"clock" doc:"degrees"`
	Anti  float64 `json:"anti" doc:"degrees"`
}

// pivots are the turns about the first two sighting points, as when one is held in
// its place, and about the hinge.
func (b *builder) pivots(p *Placing, layer, bound shape.Region) []Pivot {
	out := []Pivot{}
	add := func(name string, at shape.Point) {
		if cw, acw := layer.Swing(bound, at); cw < 90 {
			out = append(out, Pivot{name, cw, acw})
		}
	}
	for i, f := range p.Sighting.Points[:min(2, len(p.Sighting.Points))] {
		add([]string{"sighting point 1", "sighting point 2"}[i], shape.Point{X: f.X, Y: f.Y})
	}
	add("the hinge", b.o.hinge.of(layer))
	return out
}

// Harm says what is to be seen when a layer of an image in a colourway lies off
// its place: shifted, then turned about its own middle.
func (m *Maker) Harm(c card.Card, k kit.Kit, motif, way, layer string, off register.Placed, opts ...Option) (register.Harm, error) {
	b, pm, mo, err := m.image(c, k, Ask{Motif: motif}, opts)
	if err != nil {
		return register.Harm{}, err
	}
	w, i, err := b.layerOf(pm, mo, way, layer)
	if err != nil {
		return register.Harm{}, err
	}
	p, lim, _, err := b.eased(pm, b.look(pm, w), i)
	if err != nil {
		return register.Harm{}, err
	}
	v, shift := pm.img.Views[i], shape.Point{X: off.X, Y: off.Y}
	if placed(pm.img, i) == register.DieRound {
		print, err := printsOn(pm.img, i)
		if err != nil || print.Empty() {
			return register.Harm{}, err
		}
		return register.HarmRound(print, v.Outline, lim, shift, off.Turn)
	}
	if v.Host < 0 {
		return register.Harm{}, nil
	}
	return register.HarmOf(v.Outline, pm.img.Views[v.Host].Outline, v.Layer.Fit, lim, p.Rim, shift, off.Turn)
}
