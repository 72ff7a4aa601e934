package placing

import "ochrestone/core/shape"

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
	// DoorW and DoorH are how large the positioner's door is.
	DoorW float64 `json:"doorW,omitempty" minimum:"0" maximum:"1000" doc:"of the positioner's door, mm; 0: nobody said"`
	DoorH float64 `json:"doorH,omitempty" minimum:"0" maximum:"1000" doc:"mm"`
}

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
func (t Study) pivots(p *Placing, layer, bound shape.Region) []Pivot {
	out := []Pivot{}
	add := func(name string, at shape.Point) {
		if cw, acw := layer.Swing(bound, at); cw < 90 {
			out = append(out, Pivot{name, cw, acw})
		}
	}
	for i, f := range p.Sighting.Points[:min(2, len(p.Sighting.Points))] {
		add([]string{"sighting point 1", "sighting point 2"}[i], shape.Point{X: f.X, Y: f.Y})
	}
	add("the hinge", t.Hand.Hinge.of(layer))
	return out
}
