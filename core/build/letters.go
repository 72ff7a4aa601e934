package build

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// letters are words cut letter by letter from card, stacked, on a shadow or without.
var letters = kind{
	is:    func(e card.Element) bool { return e.Letters != nil },
	name:  func(_ card.Card, e card.Element) string { return "Letters “" + e.Letters.Text + "”" },
	build: func(b *Build, i int, images []Image) { b.letters(i, images) },
}

// ShadowPart and BackingPart name the pieces beneath letters; the letters themselves are
// numbered from 1.
const (
	ShadowPart  = "shadow"
	BackingPart = "backing"
)

func (b *Build) letters(i int, images []Image) {
	t := &b.Things[i]
	e := t.Element
	l := *e.Letters
	t.At = e.Place
	if b.with.Face == nil && l.Set == "" {
		return // no typeface at hand: they are left out
	}
	line, err := layout.Set(b.with.Face, l, b.alphabet(l.Set))
	t.Line = &line
	if err != nil {
		t.Problem = "There is nothing to cut: no die or letter for any of them."
		return
	}
	cut := make([]shape.Region, len(line.Letters))
	for n, x := range line.Letters {
		cut[n] = x.Region
		t.Islands += len(x.Region.Holes())
	}
	all, err := shape.UnionAll(cut...)
	if err != nil {
		t.Problem = fmt.Sprintf("The letters cannot be cut: %v.", err)
		return
	}
	t.Local, t.Whole = all, all
	holds := HoldsOf(b.Stock, e.Bonds)
	var films [][]Film
	if l.From != nil {
		films = b.cutFrom(t, &l, cut, images)
	}
	body := b.Stock.PaperColour(l.Paper).Hex()
	on := b.Carrier(e)
	var ps []Piece
	if s := l.Shadow; s != nil {
		g, err := all.Offset(s.By)
		if err != nil {
			t.Problem = fmt.Sprintf("The shadow cannot be cut: %v.", err)
			return
		}
		t.Local, t.Whole = g, g
		c := b.Stock.PaperColour(s.Paper).Hex()
		p := Piece{ID: ID{e.ID, ShadowPart}, On: on, Local: g, Stock: s.Paper, Thick: b.Stock.Caliper(s.Paper), Plies: 1, Body: c, Top: c, Holds: holds, Clear: b.clear(s.Paper), frame: frame{at: t.At}}
		p.Lift, p.Foam = LiftOf(holds)
		ps, on, holds = append(ps, p), p.ID, HoldsOf(b.Stock, card.Glue(""))
	}
	holds = b.backed(holds, l.Backing)
	lift, foam := LiftOf(holds)
	for n, g := range cut {
		ps = append(ps, Piece{ID: ID{e.ID, fmt.Sprint(n + 1)}, On: on, Local: g, Stock: l.Paper, Thick: b.Stock.Caliper(l.Paper) * float64(l.Times()), Plies: l.Times(),
			Body: body, Top: body, Lift: lift, Foam: foam, Holds: holds, Clear: b.clear(l.Paper), frame: frame{at: t.At}})
		if n < len(films) && len(films[n]) > 0 {
			ps[len(ps)-1].Films, ps[len(ps)-1].Top = films[n], films[n][len(films[n])-1].Colour
		}
	}
	b.laid(t, ps)
}

// backed are the bonds of letters with a sheet of foam or adhesive cut with them, which
// reaches all over.
func (b *Build) backed(holds []Hold, id string) []Hold {
	if id == "" {
		return holds
	}
	more := HoldsOf(b.Stock, card.Glue(id))
	if s, ok := b.Stock.Spacer(id); ok {
		more = HoldsOf(b.Stock, card.Foam(s.ID, 1))
		more[0].Kind, more[0].W, more[0].H = "sheet", 0, 0
	}
	if a := more[0].Glue; a == nil && !more[0].Raised {
		return holds // it is not in the stores
	}
	below, foam := LiftOf(holds)
	more[0].Height += below
	more[0].Foam = more[0].Foam || foam
	return more
}
