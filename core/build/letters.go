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
	lift, foam := Lift(b.Stock, e.Bonds)
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
		p := Piece{ID: ID{e.ID, ShadowPart}, On: on, Local: g, Stock: s.Paper, Thick: b.Stock.Caliper(s.Paper), Plies: 1, Body: c, Top: c, Lift: lift, Foam: foam, Clear: b.clear(s.Paper)}
		ps, on, lift, foam = append(ps, p), p.ID, glueFilm, false
	}
	backing, foamed := b.backing(l.Backing)
	for n, g := range cut {
		ps = append(ps, Piece{ID: ID{e.ID, fmt.Sprint(n + 1)}, On: on, Local: g, Stock: l.Paper, Thick: b.Stock.Caliper(l.Paper) * float64(l.Times()), Plies: l.Times(),
			Body: body, Top: body, Lift: lift + backing, Foam: foam || foamed, Clear: b.clear(l.Paper)})
		if n < len(films) && len(films[n]) > 0 {
			ps[len(ps)-1].Films, ps[len(ps)-1].Top = films[n], films[n][len(films[n])-1].Colour
		}
	}
	if e.Face != card.Front {
		t.Drawn = ps
		return
	}
	t.Leaves = len(ps)
	for k := range ps {
		ps[k].Outline = t.Place(ps[k].Local)
	}
	t.Outline = t.Place(t.Local)
	t.Rough = t.Outline.Simplify(Hair)
	from := len(b.Pieces)
	b.Pieces = append(b.Pieces, ps...)
	t.Drawn = b.Pieces[from:]
}

// backing is how much a sheet of foam or adhesive cut with letters lifts them, mm.
func (b *Build) backing(id string) (mm float64, foam bool) {
	if s, ok := b.Stock.Spacer(id); ok {
		return s.Thickness, s.Foam()
	}
	if a, ok := b.Stock.Adhesive(id); ok {
		return a.Thickness, false
	}
	return 0, false
}
