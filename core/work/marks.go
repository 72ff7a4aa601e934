package work

import (
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// markBy is how finely it is told where a step lays ink, mm: it is drawn, and not measured.
const markBy = 0.15

// mostMarked is of how many corners a mark is at most.
const mostMarked = 600

// marked tells of the acts of a treatment, from one on, where on the front they lay their ink: of those
// of which nobody knows more, wherever the treatment does.
func (k *treats) marked(from int) {
	if k.n >= len(k.t.Treated) || k.t.Element.Face != card.Front {
		return
	}
	var all shape.Region
	for i := range k.acts[from:] {
		a := &k.acts[from+i]
		if !a.mark.Empty() || len(a.inks) == 0 {
			continue
		}
		if all.Empty() {
			g, err := shape.UnionAll(k.t.Treated[k.n].Regions...)
			if err != nil || g.Empty() {
				return
			}
			if all = k.t.Place(g).Simplify(markBy); all.Points() > mostMarked {
				return // of so much, all of the leaf tells as well
			}
		}
		a.mark = all
	}
}

// struck is where on the front a strike of a turned sheet prints a layer.
func (k *treats) struck(q build.Pattern, s build.Strike, motif, layer string) shape.Region {
	if k.t.Element.Face != card.Front {
		return shape.Region{}
	}
	for i := range k.Images {
		m := &k.Images[i]
		if m.ID != motif {
			continue
		}
		for _, v := range m.Shapes.Views {
			if v.Layer.ID == layer {
				mid := shape.Point{X: -q.MidX, Y: -q.MidY}
				return k.t.Place(layout.Place(v.Outline.Move(mid), shape.Box{}, card.Place{X: s.X, Y: s.Y, Turn: s.Turn})).Simplify(markBy)
			}
		}
	}
	return shape.Region{}
}
