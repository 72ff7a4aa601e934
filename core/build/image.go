package build

import (
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/look"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
)

// images are motifs of the card in one of their colourways.
var images = kind{
	is:    func(e card.Element) bool { return e.Image != nil },
	name:  imageName,
	build: func(b *Build, i int, made []Image) { b.image(i, made) },
}

// imageName is the image's, with its colourway where it has several.
func imageName(c card.Card, e card.Element) string {
	m, ok := c.Motif(e.Image.Motif)
	if !ok {
		return "Image"
	}
	if w, ok := m.Colourway(e.Image.Colourway); ok && len(m.Colourways) > 1 {
		return m.Name + ", " + w.Name
	}
	return m.Name
}

// image builds the pieces and prints of an image in its place.
func (b *Build) image(i int, images []Image) {
	t := &b.Things[i]
	e := t.Element
	at := slices.IndexFunc(b.Card.Motifs, func(m card.Motif) bool { return m.ID == e.Image.Motif })
	if at < 0 || images[at].Problem != "" {
		return
	}
	m := images[at]
	wi := slices.IndexFunc(m.Colourways, func(w card.Colourway) bool { return w.ID == e.Image.Colourway })
	if wi < 0 {
		return
	}
	t.Made = b.made(m, wi)
	b.Made[t.Made].Things = append(b.Made[t.Made].Things, i)
	if e.Face != card.Front {
		if t.Printed = printedStraight(m.Image, e); t.Printed {
			t.Prints = layout.Place(b.Made[t.Made].rough, m.Shapes.Silhouette.Bounds(), e.Place)
		}
		return
	}
	carrier := b.Carrier(e)
	if cut := e.Image.Cutout; cut != nil {
		if carrier = b.cutOut(t, m, *cut); t.Problem != "" {
			return
		}
	}
	t.At = e.Place
	box := m.Shapes.Silhouette.Bounds()
	place := func(layer int, g shape.Region) shape.Region {
		work := func() (shape.Region, error) { return layout.Place(g, box, e.Place), nil }
		if b.with.Memory == nil {
			g, _ = work() // it has no error
			return g
		}
		g, _ = b.with.Memory.placed.Get(placedKey{m.Key, layer, e.Place.X, e.Place.Y, e.Place.Turn, e.Place.Mirror}, work)
		return g
	}
	t.Printed = printedStraight(m.Image, e)
	ps := pieces(b.Stock, m.Image, m.Colourways[wi], m.Looks[wi], place)
	for k := range ps {
		p := &ps[k]
		p.ID.Element = e.ID
		p.frame = frame{m.Shapes.Views[k].Outline, box, e.Place}
		v := m.Shapes.Views[k]
		if h := Leaf(m.Shapes, v.Host); h == motif.Ground {
			p.On = carrier
		} else {
			p.On = ID{e.ID, m.Shapes.Views[h].Layer.ID}
		}
		if v.Host != motif.Ground {
			t.Leaves += min(1, p.Plies)
			continue
		}
		// What lies on the ground is held as the element is, or higher where its own
		// bonds say so.
		if p.Print() {
			continue
		}
		t.Leaves++
		if e.Image.Cutout != nil {
			continue // it is glued on the cut-out
		}
		if !card.Raised(v.Layer.Bonds) || k == lowest(m.Shapes) {
			b.hold(p, e.Bonds)
		}
	}
	b.Pieces = append(b.Pieces, ps...)
	b.stencilledOver(t, m, m.Looks[wi])
	t.Outline, t.Rough = place(silhouette, m.Shapes.Silhouette), place(rough, b.Made[t.Made].rough)
	if t.Printed {
		t.Prints = t.Rough
		t.Tints = b.tintsOn(t, m, m.Colourways[wi], m.Looks[wi])
	}
	if e.Image.Cutout != nil {
		// With its margin.
		t.Outline = b.Pieces[t.From].Outline
		t.Rough = t.Outline.Simplify(Hair)
	}
}

// printedStraight reports whether some layer of an image is printed on what carries the image.
func printedStraight(m look.Image, e card.Element) bool {
	return e.Image.Cutout == nil && slices.ContainsFunc(m.Shapes.Views, func(v motif.View) bool { return v.Host == motif.Ground && v.Layer.Make != card.Cut })
}

// CutoutPart names the card that an image is printed on and cut out of.
const CutoutPart = "card"

// cutOut puts the card of an image that is cut out beneath its prints, and gives its id.
func (b *Build) cutOut(t *Thing, m Image, cut card.Cutout) ID {
	e := t.Element
	id := ID{e.ID, CutoutPart}
	c := m.Shapes.Silhouette.Bounds().Centre()
	g := m.Shapes.Silhouette.Move(shape.Point{X: -c.X, Y: -c.Y})
	work := func() (shape.Region, error) { return wholeLeaf(g, cut.Margin) }
	var whole shape.Region
	var err error
	if b.with.Memory == nil {
		whole, err = work()
	} else {
		whole, err = b.with.Memory.leaves.Get(leafKey{m.Key, cut.Margin}, work)
	}
	if err != nil {
		t.Problem = "It cannot be cut out with such a margin: choose another."
		return id
	}
	g = whole
	t.At = e.Place
	body := b.Stock.PaperColour(cut.Paper).Hex()
	p := Piece{ID: id, On: b.Carrier(e), Outline: t.Place(g), Local: g, Stock: cut.Paper, Thick: b.Stock.Caliper(cut.Paper), Plies: 1, Body: body, Top: body, Clear: b.clear(cut.Paper)}
	b.hold(&p, e.Bonds)
	p.frame.at = t.At
	t.Leaves++
	b.Pieces = append(b.Pieces, p)
	t.Drawn = b.Pieces[len(b.Pieces)-1:]
	t.Local, t.Whole = g, g
	return id
}

// How far lines of a print may lie apart and still be cut out as one leaf, mm, and how much more
// than the lines themselves that has to hold for them to be taken for an outline that is not
// quite closed: our own defaults.
const (
	openLine  = 2.0
	mostApart = 64.0
	openGain  = 1.3
)

// wholeLeaf is the leaf that a print with such an outline is cut out as with a margin of card
// round it, mm: always one piece and never with holes, also round lines and parts that lie
// apart. The error is that of its offsets.
func wholeLeaf(g shape.Region, margin float64) (shape.Region, error) {
	whole := g
	if margin > 0 {
		out, err := g.Offset(margin)
		if err != nil {
			return out, fmt.Errorf("let a cut-out out by its margin: %w", err)
		}
		whole = out
	}
	whole = whole.Filled()
	// Lines that nearly meet hold what lies between them, and parts that lie apart hang together.
	for r := openLine; r <= mostApart; r *= 2 {
		out, err := closed(whole, r)
		if err != nil {
			return out, err
		}
		parts := len(whole.Pieces())
		if r == openLine && out.Area() > openGain*whole.Area() || parts > 1 && len(out.Pieces()) == 1 {
			whole = out
		}
		if len(whole.Pieces()) <= 1 {
			break
		}
	}
	return whole, nil
}

// closed fills what of a region's surroundings a disc of radius r, mm, cannot reach from
// outside.
func closed(g shape.Region, r float64) (shape.Region, error) {
	out, err := g.Offset(r)
	if err != nil {
		return out, fmt.Errorf("close a cut-out: %w", err)
	}
	if out, err = out.Filled().Offset(-r); err != nil {
		return out, fmt.Errorf("close a cut-out: %w", err)
	}
	if out, err = out.Union(g); err != nil {
		return out, fmt.Errorf("close a cut-out: %w", err)
	}
	return out.Filled(), nil
}

// lowest is the first cut layer that lies on the ground.
func lowest(img motif.Image) int {
	return slices.IndexFunc(img.Views, func(v motif.View) bool { return v.Host == motif.Ground && v.Layer.Make == card.Cut })
}

// Leaf is the cut layer that carries a layer in the end, itself where it is cut, or
// motif.Ground for the panel.
func Leaf(img motif.Image, i int) int {
	for i != motif.Ground && img.Views[i].Layer.Make != card.Cut {
		i = img.Views[i].Host
	}
	return i
}

// made finds the image in a colourway among those to be made, or adds it.
func (b *Build) made(m Image, wi int) int {
	w := m.Colourways[wi]
	at := slices.IndexFunc(b.Made, func(o Made) bool { return o.Image.ID == m.ID && o.Colourway.ID == w.ID })
	if at >= 0 {
		return at
	}
	b.Made = append(b.Made, Made{Image: m.Image, Colourway: w, Look: m.Looks[wi], rough: m.Shapes.Silhouette.Simplify(Hair)})
	return len(b.Made) - 1
}

// Stack lists the pieces and prints of an image in a colourway by itself, lowest first,
// as if its lowest were laid on the table.
func Stack(s look.Stock, m look.Image, w card.Colourway, as look.Colourway) []Piece {
	ps := pieces(s, m, w, as, func(_ int, g shape.Region) shape.Region { return g })
	if k := lowest(m.Shapes); k >= 0 {
		ps[k].Lift, ps[k].Foam, ps[k].Holds = 0, false, nil
	}
	return ps
}

func pieces(s look.Stock, m look.Image, w card.Colourway, as look.Colourway, place func(layer int, g shape.Region) shape.Region) []Piece {
	out := make([]Piece, 0, len(m.Shapes.Views))
	for i, v := range m.Shapes.Views {
		l := as.Layers[i]
		p := Piece{ID: ID{Part: v.Layer.ID}, Outline: place(i, v.Outline), Body: l.Paper, Top: l.Dry, Bare: l.Bare}
		if l.Edge != "" {
			p.Body = l.Edge
		}
		if v.Layer.Make == card.Cut {
			p.Stock, p.Plies = w.Layers[v.Layer.ID].Paper, max(1, v.Layer.Copies)
			p.Thick = s.Caliper(p.Stock) * float64(p.Plies)
			p.Holds = HoldsOf(s, v.Layer.Bonds)
			p.Lift, p.Foam = LiftOf(p.Holds)
		}
		out = append(out, p)
	}
	return out
}
