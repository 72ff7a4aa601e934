package build

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// gems are stuck on last, each a little piece of its own.
var gems = kind{
	is: func(e card.Element) bool { return e.Gems != nil },
	name: func(_ card.Card, e card.Element) string {
		if n := len(e.Gems.Places); n != 1 {
			return fmt.Sprintf("%d gems", n)
		}
		return "A gem"
	},
	build: buildGems,
}

func buildGems(b *Build, i int, _ []Image) {
	t := &b.Things[i]
	e := t.Element
	t.At = e.Place
	var all []shape.Region
	var ps []Piece
	for n, at := range e.Gems.Places {
		g := shape.Disc(shape.Point{X: at.X, Y: at.Y}, e.Gems.Size/2)
		all = append(all, g)
		p := Piece{ID: ID{e.ID, fmt.Sprint(n + 1)}, On: b.Carrier(e), Local: g, Thick: e.Gems.Height, Body: e.Gems.Colour, Top: e.Gems.Colour, frame: frame{at: t.At}}
		b.hold(&p, e.Bonds)
		ps = append(ps, p)
	}
	if g, err := shape.UnionAll(all...); err == nil {
		t.Local, t.Whole = g, g
	}
	b.laid(t, ps)
}
