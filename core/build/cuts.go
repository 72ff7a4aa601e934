package build

import (
	"math"

	"ochrestone/core/card"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Tool is what a piece of card is cut with.
type Tool string

// Tools.
const (
	Trimmer  Tool = "trimmer"  // straight cuts from edge to edge
	Die      Tool = "die"      // through the machine
	Scissors Tool = "scissors" // along an outline, by hand or by an electronic cutter
)

// Cut is a piece of paper that a card needs, as it is cut out of a sheet.
type Cut struct {
	ID      ID           // for a layer of an image its element is empty, its part the layer
	Motif   string       // of a layer of an image
	Way     string       // its colourway
	Name    string       // what a person calls it
	Stock   string       // cardstock id
	Outline shape.Region // as it is cut, about its middle
	Size    measure.Size // of a rectangle, mm; of others of the box round them
	N       int          // for one card
	By      Tool
	Fold    Direction // how a fold or score runs; none where there is none
	Margin  float64   // card left round it until it is cut out, for printing on it, mm
	Hidden  bool      // its middle is covered by what lies on it, and may be cut out
	Shows   float64   // of a hidden one: how much of it shows round what covers it, at most, mm
}

// Direction is a direction on a piece of card.
type Direction string

// Directions.
const (
	NoWay  Direction = ""
	Across Direction = "across"
	Down   Direction = "down"
)

// printMargin is the card left round what is printed first and cut after, mm; our own default.
const printMargin = 6.0

// Cuts lists every piece of paper a card needs: the base, its mats and sheets wherever they
// lie, the layers of its images, letters, what a shaker is made of. What is cut out of a
// sheet of the card itself is not among them.
func (b *Build) Cuts() []Cut {
	out := []Cut{b.baseCut()}
	for i := range b.Made {
		out = append(out, b.imageCuts(&b.Made[i])...)
	}
	for i := range b.Things {
		t := &b.Things[i]
		e := t.Element
		switch {
		case e.Sheet != nil:
			out = append(out, b.sheetCut(t))
		case e.Letters != nil && e.Letters.From != nil:
		case e.Image != nil && e.Image.Cutout == nil:
		default:
			out = append(out, b.drawnCuts(t)...)
		}
	}
	merged := out[:0]
	for _, c := range out {
		if c.Stock != "" && c.N > 0 && c.Size.W > 0 && c.Size.H > 0 {
			merged = append(merged, c)
		}
	}
	return merged
}

// Flat is the base as it is cut, before it is folded, and how its fold runs.
func (b *Build) Flat() (measure.Size, Direction) {
	c := b.Card.Base
	switch c.Make {
	case card.Flat:
		return c.Size(), NoWay
	case card.Holder:
		return measure.Size{W: c.W, H: c.H + c.Pocket + c.Flap}, Across
	}
	cut := measure.BaseFor(c.Size(), c.Fold, measure.Letter)
	cut.Sheet.W, cut.Sheet.H = cut.Sheet.W-shorter(c, measure.FoldSide), cut.Sheet.H-shorter(c, measure.FoldTop)
	if c.Fold == measure.FoldTop {
		return cut.Sheet, Across
	}
	return cut.Sheet, Down
}

// shorter is what a shortened front leaf saves along a fold's direction.
func shorter(c card.Base, fold measure.Fold) float64 {
	if c.Fold == fold {
		return c.Short
	}
	return 0
}

func rectangle(s measure.Size) shape.Region { return shape.Rect(-s.W/2, -s.H/2, s.W, s.H) }

func (b *Build) baseCut() Cut {
	size, fold := b.Flat()
	name := "Card base"
	switch b.Card.Base.Make {
	case card.Flat:
		name = "Tag"
	case card.Holder:
		name = "Holder"
	}
	return Cut{Name: name, Stock: b.Card.Base.Paper, Outline: rectangle(size), Size: size, N: 1, By: Trimmer, Fold: fold}
}

// sheetCut is a sheet as it comes off its stock: larger where it is trimmed later, its flap
// folded out.
func (b *Build) sheetCut(t *Thing) Cut {
	e := t.Element
	s := *e.Sheet
	size := s.Size()
	c := Cut{ID: ID{Element: e.ID}, Name: t.Name, Stock: s.Paper, N: 1, By: Trimmer}
	if l := t.Leaf; l != nil {
		size = measure.Size{W: l.Size.W + 2*s.Trim, H: l.Size.H + 2*s.Trim}
		c.Hidden, c.Shows = b.hiddenMiddle(t)
	}
	if s.Flap != nil {
		flat := s.Flat(size)
		c.Fold = Across
		if flat.W > size.W {
			c.Fold = Down
		}
		size = flat
	}
	c.Size, c.Outline = size, rectangle(size)
	if o := s.Shape; o != nil && s.Flap == nil && (o.Kind != card.Rectangle || o.Pitch == 0) && !t.Whole.Empty() {
		c.Outline, c.By = centred(t.Whole), Scissors
		switch {
		case t.Died:
			c.By = Die
		case o.Kind == card.DiePart && square(c.Outline):
			c.By = Trimmer
		}
		box := c.Outline.Bounds()
		c.Size = measure.Size{W: box.W(), H: box.H()}
		if s.Shape.Kind == card.Fringe {
			c.By, c.Outline = Trimmer, rectangle(c.Size)
		}
	}
	return c
}

// hiddenMiddle reports whether the middle of a mat lies beneath the next leaf, flat and
// opaque, so that it may be cut out and used; and how much of the mat shows round it.
func (b *Build) hiddenMiddle(t *Thing) (bool, float64) {
	if card.Raised(t.Element.Bonds) {
		return false, 0 // its own pads stand behind its middle
	}
	if len(t.Openings) > 0 || t.Element.Sheet.Trim > 0 || t.Element.Sheet.Shape != nil || len(t.Element.Sheet.Treatments) > 0 {
		return false, 0
	}
	for i := range b.Things {
		o := &b.Things[i]
		if o.Leaf == nil || o.Element.On != t.Element.ID || o.Element.Inset == nil {
			continue
		}
		s := o.Element.Sheet
		if len(o.Openings) > 0 || s.Shape != nil || b.clear(s.Paper) || card.Raised(o.Element.Bonds) {
			return false, 0
		}
		m := *o.Element.Inset
		return true, max(m.Left, m.Right, m.Top, m.Bottom)
	}
	return false, 0
}

// imageCuts are the cut layers of an image, for all its places, and the card of those that
// are cut out.
func (b *Build) imageCuts(m *Made) (out []Cut) {
	places := 0
	for _, i := range m.Things {
		if b.Things[i].Element.ID != "" {
			places++
		}
	}
	for _, v := range m.Image.Shapes.Views {
		if v.Layer.Make != card.Cut || v.Outline.Empty() {
			continue
		}
		g := centred(v.Outline)
		box := g.Bounds()
		f := m.Colourway.Layers[v.Layer.ID]
		c := Cut{ID: ID{Part: v.Layer.ID}, Motif: m.Image.ID, Way: m.Colourway.ID, Name: m.Image.Name + ", " + v.Layer.Label, Stock: f.Paper, Outline: g,
			Size: measure.Size{W: box.W(), H: box.H()}, N: max(1, v.Layer.Copies) * places, By: Die}
		if v.Layer.Traced != 0 {
			c.By = Scissors // drawn round its die and cut by hand
		}
		out = append(out, c)
	}
	return out
}

// drawnCuts are the leaves of paper of what is neither a sheet nor an image on the panel.
func (b *Build) drawnCuts(t *Thing) (out []Cut) {
	for _, p := range t.Drawn {
		if p.Stock == "" || p.Local.Empty() {
			continue
		}
		if _, ok := b.Stock.Paper(p.Stock); !ok {
			continue
		}
		g := centred(p.Local)
		box := g.Bounds()
		c := Cut{ID: p.ID, Name: t.Name, Stock: p.Stock, Outline: g, Size: measure.Size{W: box.W(), H: box.H()}, N: max(1, p.Plies), By: Scissors}
		if p.ID.Part != "" && p.ID.Part != CutoutPart {
			c.Name += ", " + b.PartName(t.Element, p.ID.Part)
		}
		switch {
		case t.Element.Letters != nil && t.Element.Letters.Set != "" && p.ID.Part != ShadowPart:
			c.By = Die
		case t.Element.Image != nil:
			c.Margin = printMargin
		case square(g) && t.Element.Letters == nil:
			c.By = Trimmer
		}
		out = append(out, c)
	}
	return out
}

// square reports whether a region is one upright rectangle without holes.
func square(g shape.Region) bool {
	box := g.Bounds()
	return len(g.Rings()) == 1 && math.Abs(g.Area()-box.W()*box.H()) < 0.01
}

// centred moves a region to lie about its middle.
func centred(g shape.Region) shape.Region {
	c := g.Bounds().Centre()
	return g.Move(shape.Point{X: -c.X, Y: -c.Y})
}

// PaperArea is how much of a cardstock one card takes, by area alone.
type PaperArea struct {
	Stock string
	Area  float64 // mm²
}

// PaperAreas sums what is cut from every cardstock for one card, in the order in which they
// are first used: the base as it is cut flat, and every leaf on the front.
func (b *Build) PaperAreas() (out []PaperArea) {
	add := func(stock string, area float64) {
		for i := range out {
			if out[i].Stock == stock {
				out[i].Area += area
				return
			}
		}
		out = append(out, PaperArea{stock, area})
	}
	flat, _ := b.Flat()
	add(b.Card.Base.Paper, flat.W*flat.H)
	for _, p := range b.Pieces {
		if p.Stock != "" && p.Plies > 0 {
			add(p.Stock, p.Outline.Area()*float64(p.Plies))
		}
	}
	return out
}
