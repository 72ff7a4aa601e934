// Package scene tells what the picture of each step shows: which pieces of the card the step is about,
// and which of them lie in their place from then on. The page draws it from that and from how
// everything stands.
package scene

import (
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
	"ochrestone/core/work"
)

// Step is the picture of one step.
type Step struct {
	Key  string `json:"key" doc:"of the step"`
	Lit  []int  `json:"lit" nullable:"false" doc:"pieces it is about, by their place as they are laid; none: the base, or the whole card"`
	Mark string `json:"mark,omitempty" doc:"where on the front ink goes on, path data in mm; none: all over what is lit"`
	Puts bool   `json:"puts,omitempty" doc:"they lie in their place from then on"`
	// Bare lists sheets on which not all is done yet that is done to them.
	Bare []Unfinished `json:"bare,omitempty" doc:"sheets on which not all is done yet that is done to them"`
	// States tells of every piece how far it is when the step begins, a letter of State each, where all is
	// done in the order of the acts. A run may go in another; the page goes by what was done in it.
	States string `json:"-"`
	// From is measured where a thing is put down: to the nearer of two edges across, and of two up and down.
	From []Gauge `json:"from,omitempty" doc:"how far what is put down lies from edges of what it lies on, the nearer across and the nearer up and down"`
}

// Gauge is how far what is put down lies from an edge, and the line along which that is measured.
type Gauge struct {
	X1 float64 `json:"x1" doc:"at the edge, mm on the front"`
	Y1 float64 `json:"y1"`
	X2 float64 `json:"x2" doc:"at what is put down"`
	Y2 float64 `json:"y2"`
	MM float64 `json:"mm" doc:"its length"`
}

// leastGauge is what is not measured: flush is told by the fingers, mm; our own default.
const leastGauge = 0.5

// gauges measures a thing against the leaf it is to keep within; nothing on the sides where it stands out
// past it or ends flush, and of what is put down with film.
func gauges(b *build.Build, element string) (out []Gauge) {
	i := slices.IndexFunc(b.Things, func(t build.Thing) bool { return t.Element.ID == element })
	if i < 0 || b.Things[i].Outline.Empty() || b.Things[i].Element.Face != card.Front || b.Things[i].Element.Film {
		return nil
	}
	g, leaf := b.Things[i].Outline, b.Edge(b.Things[i].Element)
	room := layout.RoomOf(g, leaf)
	// The line is drawn where the outline is nearest; how long it is goes by the outline's box.
	left, top := reaches(g, -1, 0), reaches(g, 0, -1)
	right, foot := reaches(g, 1, 0), reaches(g, 0, 1)
	box := g.Bounds()
	across := Gauge{leaf.X, left.Y, box.Min.X, left.Y, room.Left}
	if room.Right < room.Left {
		across = Gauge{leaf.X + leaf.Size.W, right.Y, box.Max.X, right.Y, room.Right}
	}
	down := Gauge{top.X, leaf.Y, top.X, box.Min.Y, room.Top}
	if room.Bottom < room.Top {
		down = Gauge{foot.X, leaf.Y + leaf.Size.H, foot.X, box.Max.Y, room.Bottom}
	}
	for _, m := range []Gauge{across, down} {
		if m.MM >= leastGauge {
			out = append(out, m)
		}
	}
	return out
}

// Unfinished is a sheet of which not all treatments are begun.
type Unfinished struct {
	Piece int `json:"piece" doc:"by its place as they are laid"`
	Begun int `json:"begun" doc:"how many of its treatments are begun when the step is done; those after them have left nothing yet"`
}

// Of gives the picture of each act of a card, pieces by their place in Upward.
func Of(b *build.Build, acts []work.Act) []Step {
	up := b.Upward()
	out := make([]Step, len(acts))
	for n, a := range acts {
		on, puts := a.About()
		out[n] = Step{Key: a.Key, Lit: lit(b, up, on), Mark: a.Mark().Path(), Puts: puts}
		if a.ID.Verb == work.Place || a.ID.Verb == work.Tie {
			out[n].From = gauges(b, a.ID.Element)
		}
		if len(out[n].Lit) == 0 {
			out[n].Puts = false
			// What is no piece of its own, such as words on a strip, is shown by what it is on.
			for i := range on {
				on[i].Part = ""
			}
			if out[n].Lit = lit(b, up, on); len(out[n].Lit) == 0 {
				out[n].Lit = lit(b, up, []work.Thing{{Element: a.ID.Element, Motif: a.ID.Motif, Colourway: a.ID.Colourway}})
			}
		}
	}
	grow(out, len(up))
	treated(out, b, up, acts)
	return out
}

// reaches is where an outline reaches furthest one way; of a straight side its middle.
func reaches(g shape.Region, dx, dy float64) (at shape.Point) {
	const tie = 0.05 // mm
	far, n := math.Inf(-1), 0.0
	for _, r := range g.Rings() {
		for _, p := range r {
			switch d := p.X*dx + p.Y*dy; {
			case d > far+tie:
				far, n, at = d, 1, p
			case d >= far-tie:
				n++
				at = at.Add(p.Sub(at).Scale(1 / n))
				far = max(far, d)
			}
		}
	}
	return at
}

// lit lists the pieces of some things, by their place as they are laid.
func lit(b *build.Build, up []int, on []work.Thing) []int {
	out := []int{}
	for k, i := range up {
		if slices.ContainsFunc(on, func(t work.Thing) bool { return shows(b, t, i) }) {
			out = append(out, k)
		}
	}
	return out
}

// shows reports whether a piece is, or is part of, what an act works on.
func shows(b *build.Build, t work.Thing, i int) bool {
	p := &b.Pieces[i]
	if t == (work.Thing{}) {
		return false
	}
	if t.Element != "" && t.Element != p.ID.Element {
		return false
	}
	if t.Motif != "" {
		e, ok := b.Card.Element(p.ID.Element)
		if !ok || e.Image == nil || e.Image.Motif != t.Motif || t.Colourway != "" && e.Image.Colourway != t.Colourway {
			return false
		}
	}
	switch t.Part {
	case "", p.ID.Part, "letters", build.CutoutPart:
		return t.Part != "letters" || p.ID.Part != build.ShadowPart
	}
	return false
}
