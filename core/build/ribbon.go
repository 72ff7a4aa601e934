package build

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// ribbons are bands and cords along a line, with a knot or a bow.
var ribbons = kind{
	is: func(e card.Element) bool { return e.Ribbon != nil },
	name: func(_ card.Card, e card.Element) string {
		what := "Ribbon"
		if e.Ribbon.W < cord {
			what = "Cord"
		}
		if t := e.Ribbon.Tied; t == card.Knot || t == card.Bow {
			return fmt.Sprintf("%s with a %s", what, t)
		}
		return what
	},
	build: func(b *Build, i int, _ []Image) { b.ribbon(i) },
}

// cord is how wide a ribbon is at least, mm; what is narrower is a cord.
const cord = 3.0

// Parts of a ribbon that is tied.
const (
	LoopsPart = "loops"
	KnotPart  = "knot"
)

func (b *Build) ribbon(i int) {
	t := &b.Things[i]
	e := t.Element
	r := e.Ribbon
	t.At = e.Place
	tied, err := b.tied(e)
	if err != nil {
		t.Problem = fmt.Sprintf("It cannot be drawn: %v.", err)
		return
	}
	on := b.Carrier(e)
	var ps []Piece
	add := func(part string, g shape.Region, bonds []card.Bond) {
		if !g.Empty() {
			p := Piece{ID: ID{e.ID, part}, On: on, Local: g, Thick: r.Thick, Body: r.Colour, Top: r.Colour, frame: frame{at: t.At}}
			b.hold(&p, bonds)
			ps = append(ps, p)
		}
	}
	add("", tied.band, e.Bonds)
	add(LoopsPart, tied.loops, nil)
	add(KnotPart, tied.knot, nil)
	t.Local = tied.all
	t.Whole = t.Local
	b.laid(t, ps)
}

// tied is a ribbon as it lies, about its middle.
type tied struct{ band, loops, knot, all shape.Region }

// tied draws a ribbon; one drawn before is remembered.
func (b *Build) tied(e card.Element) (tied, error) {
	r := e.Ribbon
	panel := layout.Region(b.Panel())
	work := func() (out tied, err error) {
		if out.band, err = layout.LineOf(r.Points, r.W); err != nil {
			return out, err
		}
		// Wrapped round the panel it ends at its edges.
		if r.Wrapped && e.Face == card.Front {
			at := toSheet(panel, e.Place)
			if in, err := out.band.Intersect(at); err == nil && !in.Empty() {
				out.band = in
			}
		}
		knot, loops, err := layout.Tied(r.Tied, r.W)
		if err != nil {
			return out, err
		}
		at, _ := layout.Along(r.Points, r.At)
		out.loops, out.knot = loops.Move(at), knot.Move(at)
		out.all, err = shape.UnionAll(out.band, out.loops, out.knot)
		return out, err
	}
	if b.with.Memory == nil {
		return work()
	}
	key := fmt.Sprint(e.Face, e.Place.X, e.Place.Y, e.Place.Turn, e.Place.Mirror, panel.Bounds(), r.W, r.Points, r.Wrapped, r.Tied, r.At)
	return b.with.Memory.ribbons.Get(key, work)
}
