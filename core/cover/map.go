package cover

import (
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/layout"
	"ochrestone/core/look"
	"ochrestone/core/shape"
)

// Cell is how finely the front is looked at, mm: a rim of a millimetre is two cells and a half.
const Cell = 0.4

// Base is the front leaf of the card among the things of a map.
const Base = -1

// Map is the front as it is seen when everything lies on it: after cutting, trimming, tucking,
// printing and blending, every place belongs to one patch, and patches meet along edges.
type Map struct {
	Patches []Patch
	Edges   []Edge
	// Shown is how much of every thing is seen, and Whole how large it is on the front, mm², by
	// Build.Things.
	Shown, Whole []float64

	grid
	at []int32 // patches by cell
}

// Patch is what is seen of a part in one dried colour.
type Patch struct {
	Thing  int    // of Build.Things; Base for the front leaf
	Part   string // of an image its layer; empty for sheets
	Print  bool   // ink and no leaf of its own
	Bare   bool   // card without ink
	Colour colour.Lab
	Area   float64 // mm²
	Cells  int
	Centre shape.Point // mm
}

// Edge is where two patches meet.
type Edge struct {
	A, B   int     // of Map.Patches, A the lower
	Length float64 // mm, within a twentieth
	At     shape.Point
	Apart  float64 // CIEDE2000
}

// Seen draws the map of a card that was put together.
func Seen(b *build.Build) *Map {
	return seen(b, Cell)
}

func seen(b *build.Build, cell float64) *Map {
	m := &Map{grid: grid{cell: cell, w: int(math.Ceil(b.Card.Base.W / cell)), h: int(math.Ceil(b.Card.Base.H / cell))}, Shown: make([]float64, len(b.Things)), Whole: make([]float64, len(b.Things))}
	m.at = make([]int32, m.w*m.h)
	p := painting{Map: m, b: b, fill: filler{grid: m.grid}, ids: map[patchKey]int32{}}
	p.base()
	order := b.Up
	if order == nil {
		order = make([]int, len(b.Pieces))
		for i := range order {
			order[i] = i
		}
	}
	thing := make([]int, len(b.Pieces))
	for i, t := range b.Things {
		for k := t.From; k < t.To; k++ {
			thing[k] = i
		}
	}
	for _, i := range order {
		p.piece(thing[i], i)
	}
	for i, t := range b.Things {
		if t.Element.Face == card.Front && !t.Outline.Empty() {
			n := 0
			p.fill.fill(t.Outline, func(_, from, to int) { n += to - from })
			m.Whole[i] = float64(n) * cell * cell
		}
	}
	p.measure()
	return m
}

// Of is how much of a region on a thing is seen, of how much, mm², and which things lie over the rest.
func (m *Map) Of(thing int, gs ...shape.Region) (shown, whole float64, over []int) {
	fill := filler{grid: m.grid}
	for _, g := range gs {
		fill.fill(g, func(y, from, to int) {
			for _, id := range m.at[y*m.w+from : y*m.w+to] {
				whole += m.cell * m.cell
				switch on := m.Patches[id].Thing; {
				case on == thing:
					shown += m.cell * m.cell
				case on != Base && !slices.Contains(over, on):
					over = append(over, on)
				}
			}
		})
	}
	return shown, whole, over
}

// At is the patch that is seen at a place of the front, mm; false past its edges.
func (m *Map) At(p shape.Point) (Patch, bool) {
	x, y := int(math.Floor(p.X/m.cell)), int(math.Floor(p.Y/m.cell))
	if x < 0 || y < 0 || x >= m.w || y >= m.h {
		return Patch{}, false
	}
	return m.Patches[m.at[y*m.w+x]], true
}

// Bare is the share of the front, 0 to 1, that shows nothing but the ground, without ink: the base, its
// mats and what is as good as the whole front.
func (m *Map) Bare(b *build.Build) float64 {
	bare, all := 0.0, 0.0
	for _, p := range m.Patches {
		all += p.Area
		if p.Bare && (p.Thing == Base || b.Things[p.Thing].Leaf != nil || b.AsFront(&b.Things[p.Thing])) {
			bare += p.Area
		}
	}
	return bare / max(all, 1e-9)
}

// patchKey is what cells of one patch have in common.
type patchKey struct {
	thing int
	part  string
	rgb   string
	bare  bool
}

// painting lays one thing over another on the map.
type painting struct {
	*Map
	b    *build.Build
	fill filler
	ids  map[patchKey]int32
}

// patch is the number of the patch of a part in a colour.
func (p *painting) patch(k patchKey, print bool) int32 {
	if id, ok := p.ids[k]; ok {
		return id
	}
	id := int32(len(p.Patches))
	out := Patch{Thing: k.thing, Part: k.part, Print: print, Bare: k.bare}
	if c, err := colour.ParseHex(k.rgb); err == nil {
		out.Colour = c.Lab()
	}
	p.Patches = append(p.Patches, out)
	p.ids[k] = id
	return id
}

// lay paints a region in one patch.
func (p *painting) lay(g shape.Region, id int32) {
	p.fill.fill(g, func(y, from, to int) {
		row := p.at[y*p.w : (y+1)*p.w]
		for x := from; x < to; x++ {
			row[x] = id
		}
	})
}

func (p *painting) base() {
	body := p.b.Stock.PaperColour(p.b.Card.Base.Paper).Hex()
	id := p.patch(patchKey{Base, "", body, true}, false)
	for i := range p.at {
		p.at[i] = id
	}
	for _, d := range p.b.Base.Drawn {
		for _, f := range d.Films {
			p.lay(p.b.Base.Place(f.Region), p.patch(patchKey{Base, "", f.Colour, false}, false))
		}
	}
}

// piece lays one leaf, or one print, with what is on it.
func (p *painting) piece(thing, i int) {
	piece := &p.b.Pieces[i]
	t := &p.b.Things[thing]
	if piece.Bare || piece.Outline.Empty() || t.Element.Face != card.Front {
		return
	}
	top := piece.Top
	if len(piece.Films) > 0 {
		top = piece.Body
	}
	bare := !piece.Print() && top == piece.Body
	if !p.clear(piece) {
		p.lay(piece.Outline, p.patch(patchKey{thing, piece.ID.Part, top, bare}, piece.Print()))
	}
	for _, f := range piece.Films {
		p.lay(p.film(t, piece, f.Region), p.patch(patchKey{thing, piece.ID.Part, f.Colour, false}, piece.Print()))
	}
	if t.Made >= 0 {
		p.blends(thing, piece)
	}
}

// clear reports whether a piece is seen through: the bare leaf of a stock that is.
func (p *painting) clear(piece *build.Piece) bool {
	s, ok := p.b.Stock.Paper(piece.Stock)
	return !piece.Print() && ok && !s.Opaque()
}

// film is ink on a piece, in place on the front and only as far as the piece goes.
func (p *painting) film(t *build.Thing, piece *build.Piece, g shape.Region) shape.Region {
	g = t.Place(g)
	if t.Overhang == 0 && len(t.Element.Snips) == 0 {
		return g
	}
	if in, err := g.Intersect(piece.Outline); err == nil {
		return in
	}
	return g
}

// blends lays the inks worked into zones of a layer of an image as far as they are seen as another
// tone: half as far as they go.
func (p *painting) blends(thing int, piece *build.Piece) {
	t := &p.b.Things[thing]
	m := &p.b.Made[t.Made]
	for k, v := range m.Image.Shapes.Views {
		if v.Layer.ID != piece.ID.Part {
			continue
		}
		box := m.Image.Shapes.Silhouette.Bounds()
		tint := func(g shape.Region, rgb string) {
			p.lay(layout.Place(g, box, t.Element.Place), p.patch(patchKey{thing, piece.ID.Part, rgb, false}, true))
		}
		if t.Tints != nil {
			for _, x := range t.Tints[k] {
				tint(x.Region, x.Colour)
			}
		} else {
			for _, x := range m.Look.Layers[k].Tints {
				tint(x.Region, x.Dry)
			}
		}
		for _, bl := range m.Look.Layers[k].Blends {
			if bl.Missing || bl.Dry == "" || bl.Zone == card.AllOver {
				continue
			}
			p.zone(thing, piece, v.Outline, m.Image.Shapes.Silhouette.Bounds(), bl)
		}
	}
}

// zone lays one blend.
func (p *painting) zone(thing int, piece *build.Piece, own shape.Region, box shape.Box, bl look.Blend) {
	id := p.patch(patchKey{thing, piece.ID.Part, bl.Dry, false}, piece.Print())
	far := bl.Reach / 2
	if bl.Zone == card.Rim {
		p.rim(piece.Outline, far, id)
		return
	}
	b := own.Bounds()
	part := map[card.Zone]shape.Region{
		card.Foot:  shape.Rect(b.Min.X, b.Max.Y-far, b.W(), far),
		card.Tip:   shape.Rect(b.Min.X, b.Min.Y, b.W(), far),
		card.Left:  shape.Rect(b.Min.X, b.Min.Y, far, b.H()),
		card.Right: shape.Rect(b.Max.X-far, b.Min.Y, far, b.H()),
	}[bl.Zone]
	in := map[int][][2]int{}
	p.fill.fill(layout.Place(part, box, p.b.Things[thing].Element.Place), func(y, from, to int) { in[y] = append(in[y], [2]int{from, to}) })
	p.fill.fill(piece.Outline, func(y, from, to int) {
		for _, c := range in[y] {
			for x := max(from, c[0]); x < min(to, c[1]); x++ {
				p.at[y*p.w+x] = id
			}
		}
	})
}

// rim lays a patch along the edge of a region, so far in.
func (p *painting) rim(g shape.Region, far float64, id int32) {
	in := map[int]bool{}
	p.fill.fill(g, func(y, from, to int) {
		for x := from; x < to; x++ {
			in[y*p.w+x] = true
		}
	})
	layer := make([]int, 0, len(in))
	for i := range in {
		if !in[i-1] || !in[i+1] || !in[i-p.w] || !in[i+p.w] {
			layer = append(layer, i)
		}
	}
	for steps := max(1, int(math.Round(far/p.cell))); steps > 0 && len(layer) > 0; steps-- {
		var next []int
		for _, i := range layer {
			if !in[i] {
				continue
			}
			in[i] = false
			p.at[i] = id
			for _, j := range [4]int{i - 1, i + 1, i - p.w, i + p.w} {
				if in[j] {
					next = append(next, j)
				}
			}
		}
		layer = next
	}
}
