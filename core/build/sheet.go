package build

import (
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
	"slices"
)

// sheets are mats, the panel, strips and other plain leaves.
var sheets = kind{
	is:    func(e card.Element) bool { return e.Sheet != nil },
	name:  sheetName,
	build: func(b *Build, i int, _ []Image) { b.sheet(i) },
}

// sheetName is what a sheet is called: a mat by its place, a strip by its words.
func sheetName(c card.Card, e card.Element) string {
	if e.Inset != nil {
		mats := c.Mats()
		if i := slices.IndexFunc(mats, func(o card.Element) bool { return o.ID == e.ID }); i >= 0 {
			return card.MatName(i, len(mats))
		}
		return "Sheet"
	}
	if w := e.Sheet.Words(); w != nil && w.Text != "" {
		return "Strip “" + w.Text + "”"
	}
	return "Strip"
}

// sheet builds a plain leaf of paper: one that lies on the front in its place, or by its
// margins.
func (b *Build) sheet(i int) {
	t := &b.Things[i]
	e := t.Element
	var g shape.Region
	switch {
	case e.Face != card.Front:
		return
	case e.Inset != nil:
		at := leafOf(b.Leaves, e.ID)
		if at == nil {
			return // the mats do not fit
		}
		t.Leaf, g = at, layout.Region(*at)
	default:
		w, h := e.Sheet.W-2*e.Sheet.Trim, e.Sheet.H-2*e.Sheet.Trim
		g = layout.Place(shape.Rect(0, 0, w, h), shape.Box{Max: shape.Point{X: w, Y: h}}, e.Place)
	}
	t.Outline, t.Rough = g, g
	body := b.Stock.PaperColour(e.Sheet.Paper).Hex()
	p := Piece{ID: ID{Element: e.ID}, On: b.Carrier(e), Outline: g, Stock: e.Sheet.Paper, Thick: b.Stock.Caliper(e.Sheet.Paper), Plies: 1, Body: body, Top: body}
	p.Lift, p.Foam = Lift(b.Stock, e.Bonds)
	b.Pieces = append(b.Pieces, p)
	t.Leaves = 1
}

func leafOf(leaves []card.Leaf, id string) *card.Leaf {
	for i := range leaves {
		if leaves[i].ID == id {
			return &leaves[i]
		}
	}
	return nil
}
