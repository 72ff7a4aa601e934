package build

import (
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/look"
	"ochrestone/core/shape"
)

// bearing is how far apart the points are by which it is told what bears a thing, as a share of its
// box; and letterWide how wide a letter is of its height where only that is asked.
const (
	bearing    = 1.0 / 15
	letterWide = 0.7
)

// Carry gives the card with every element on what carries it: of the sheets beneath it the one that
// bears most of it where it lies, the topmost at every place. What a person says of it goes first:
// Element.Carried, and On where that is a sheet that is not laid by its borders. silhouettes are the
// outlines of the images, in their own frame, by motif; an image without one stays where it is.
// Ribbons run over several things, and leaves
// hang by their flap: they stay on what they were laid on.
func Carry(c card.Card, s look.Stock, silhouettes map[string]shape.Region) card.Card {
	f := carrying{b: &Build{Card: c, Stock: s}, silhouettes: silhouettes, sheets: map[string]shape.Region{}}
	if leaves, err := c.Nest(); err == nil {
		for _, l := range leaves {
			if l.ID != "" {
				f.sheets[l.ID] = layout.Region(l)
			}
		}
	}
	var out []card.Element
	for i, e := range c.Elements {
		on := f.on(i, e)
		if on == e.On {
			continue
		}
		if out == nil {
			out = slices.Clone(c.Elements)
		}
		out[i].On = on
	}
	if out != nil {
		c.Elements = out
	}
	return c
}

// carrying looks for what carries the elements of a card.
type carrying struct {
	b           *Build
	silhouettes map[string]shape.Region
	sheets      map[string]shape.Region // in place on the front, by element
}

// on is the element that carries the ith.
func (f *carrying) on(i int, e card.Element) string {
	below := f.b.Card.Elements[:i]
	if e.Carried != nil {
		if *e.Carried == "" || slices.ContainsFunc(below, func(o card.Element) bool { return o.ID == *e.Carried && o.Sheet != nil }) {
			return *e.Carried
		}
	}
	if e.Face != card.Front || e.Inset != nil || e.Ribbon != nil || e.Sheet != nil && e.Sheet.Flap != nil {
		return e.On // a leaf that is held by its flap hangs from what its flap goes under
	}
	if on, ok := f.b.Card.Element(e.On); ok && on.Inset == nil {
		return e.On // said, of a sheet at a place
	}
	g, ok := f.outline(e)
	if !ok {
		return e.On
	}
	var under []card.Element
	box := g.Bounds()
	for _, o := range slices.Backward(below) {
		if o.Face == card.Front && o.Sheet != nil && f.sheet(o).Bounds().Meets(box) {
			under = append(under, o)
		}
	}
	if len(under) == 0 || len(under) == 1 && under[0].ID == e.On {
		return e.On // nothing else comes into question
	}
	count, all := map[string]int{}, 0
	rows := make([][][2]float64, len(under))
	for y := bearing / 2; y < 1; y += bearing {
		at := box.Min.Y + y*box.H()
		if at < 0 || at > f.b.Card.Base.H {
			continue
		}
		own := g.Cross(at)
		for n, o := range under {
			rows[n] = f.sheet(o).Cross(at)
		}
		for x := bearing / 2; x < 1; x += bearing {
			p := box.Min.X + x*box.W()
			if !within(own, p) || p < 0 || p > f.b.Card.Base.W {
				continue
			}
			all++
			id := ""
			for n, o := range under {
				if within(rows[n], p) {
					id = o.ID
					break
				}
			}
			count[id]++
		}
	}
	if all == 0 {
		return e.On // past the card with all of it
	}
	best, most := "", count[""]
	for _, o := range under {
		if count[o.ID] > most {
			best, most = o.ID, count[o.ID]
		}
	}
	return best
}

// within reports whether a place in a row lies in one of its runs.
func within(row [][2]float64, x float64) bool {
	for _, r := range row {
		if x >= r[0] && x <= r[1] {
			return true
		}
	}
	return false
}

// outline is an element in place on the front, roughly for what is no sheet and no image.
func (f *carrying) outline(e card.Element) (shape.Region, bool) {
	at := e.Place
	switch {
	case e.Sheet != nil:
		return f.sheet(e), true
	case e.Image != nil:
		g, ok := f.silhouettes[e.Image.Motif]
		if !ok || g.Empty() {
			return g, false
		}
		if e.Image.Cutout != nil {
			g = g.Filled()
		}
		return layout.Place(g, g.Bounds(), at), true
	case e.Letters != nil:
		w := letterWide * e.Letters.Size * float64(len([]rune(e.Letters.Text)))
		return layout.Place(shape.Rect(-w/2, -e.Letters.Size/2, w, e.Letters.Size), shape.Box{}, at), w > 0
	case e.Shaker != nil:
		k := e.Shaker
		return layout.Place(shape.Rect(-k.W/2, -k.H/2, k.W, k.H), shape.Box{}, at), true
	}
	return layout.Place(shape.Rect(-1, -1, 2, 2), shape.Box{}, at), true
}

// sheet is a sheet in place on the front, without its openings.
func (f *carrying) sheet(e card.Element) shape.Region {
	if g, ok := f.sheets[e.ID]; ok {
		return g
	}
	s := e.Sheet
	w, h := s.W-2*s.Trim, s.H-2*s.Trim
	g, _, err := layout.Sheet(*s, w, h, f.b.part)
	if err != nil {
		g = shape.Rect(-w/2, -h/2, w, h)
	}
	for _, o := range s.Openings {
		if hole, err := layout.Outline(&o.Outline, o.W, o.H, f.b.part); err == nil && o.Text == "" {
			at := card.Place{X: o.X, Y: o.Y, Turn: o.Turn}
			if rest, err := g.Minus(layout.Place(hole, shape.Box{}, at)); err == nil {
				g = rest
			}
		}
	}
	g = layout.Place(g, shape.Box{}, e.Place)
	f.sheets[e.ID] = g
	return g
}
