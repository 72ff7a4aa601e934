package build

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/look"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
)

// Tints are, by layer of an image in a colourway, the colours that a print has where it crosses
// something else than what it lies on for the most part, in the image's own frame, to be painted in
// order over the layer's one colour; none for a layer that has one colour only. They come of laying
// the prints on their leaf one after another, as on a sheet that is treated.
func Tints(s look.Stock, m look.Image, w card.Colourway, as look.Colourway, with *Memory) [][]Film {
	if !crosses(m, as) {
		return nil
	}
	if with == nil {
		return tints(s, m, w, as, nil)
	}
	out, _ := with.tints.Get(tintsKey(s, m, w, as), func() ([][]Film, error) { return tints(s, m, w, as, nil), nil })
	return out
}

// tintsOn are those of an image that is printed on a sheet with something else than bare card where it
// stands, or on the card front; none where it stands on bare card, or is masked while that is inked.
func (b *Build) tintsOn(t *Thing, m Image, w card.Colourway, as look.Colourway) [][]Film {
	under := &b.Base
	if t.Element.On != "" {
		under = b.thing(t.Element.On)
	}
	if under == nil || len(under.Patches) < 2 || t.Element.Image.Masked {
		return nil
	}
	mid := m.Shapes.Silhouette.Bounds().Centre()
	box := t.Rough.Bounds()
	var start []Patch
	for _, p := range under.Patches[1:] {
		g := under.Place(p.Region)
		if !g.Bounds().Meets(box) {
			continue
		}
		p.Region = toSheet(g, t.Element.Place).Move(mid)
		p.box = p.Region.Bounds()
		start = append(start, p)
	}
	if len(start) == 0 {
		return nil
	}
	if b.with.Memory == nil {
		return tints(b.Stock, m.Image, w, as, start)
	}
	k := sha256.New()
	key := tintsKey(b.Stock, m.Image, w, as)
	k.Write(key[:])
	for _, p := range start {
		noteRegion(k, p.Region)
		fmt.Fprintln(k, p.Colour, p.bare, p.nest)
	}
	out, _ := b.with.Memory.tints.Get([32]byte(k.Sum(nil)), func() ([][]Film, error) { return tints(b.Stock, m.Image, w, as, start), nil })
	return out
}

// crosses reports whether a print of an image may lie on more than one thing.
func crosses(m look.Image, as look.Colourway) bool {
	n := 0
	for i, v := range m.Shapes.Views {
		if v.Layer.Make != card.Cut && !as.Layers[i].Bare && !v.Hidden() {
			n++
		}
	}
	return n > 1
}

// tintsKey is everything the tints of an image depend on: its outlines, what is printed in which inks,
// and how those come out on the card they lie on.
func tintsKey(s look.Stock, m look.Image, w card.Colourway, as look.Colourway) [32]byte {
	k := sha256.New()
	fmt.Fprintln(k, m.Key, m.Ground, s.PaperColour(m.Ground))
	to := json.NewEncoder(k)
	for i, v := range m.Shapes.Views {
		f := w.Layers[v.Layer.ID]
		l := as.Layers[i]
		fmt.Fprintln(k, v.Layer.Make, l.Dry, l.Bare, f.Strikes(), f.Paper, s.PaperColour(f.Paper))
		for _, id := range f.Inks() {
			if ink, ok := s.Ink(id); ok {
				film, _, _ := s.Film(ink)
				_ = to.Encode(ink) // plain values: it has no error
				fmt.Fprintln(k, film)
			}
		}
	}
	return [32]byte(k.Sum(nil))
}

// tints lays the prints of an image; start are patches that its ground has already.
func tints(s look.Stock, m look.Image, w card.Colourway, as look.Colourway, start []Patch) [][]Film {
	views := m.Shapes.Views
	out := make([][]Film, len(views))
	leaves := map[int]*ground{}
	for i, v := range views {
		if v.Layer.Make == card.Cut || as.Layers[i].Bare || v.Outline.Empty() {
			continue
		}
		at := Leaf(m.Shapes, i)
		g := leaves[at]
		if g == nil {
			g = newLeaf(s, m, w, as, at)
			if at == motif.Ground {
				g.patches = append(g.patches, start...)
			}
			leaves[at] = g
		}
		if v.Layer.Spares() {
			// What is printed over it later lies on that, and not on the ink round it.
			if c, err := colour.ParseHex(as.Layers[i].Dry); err == nil {
				g.put(Patch{Region: v.Outline, Colour: c, bare: true})
			}
			continue
		}
		from := len(g.films)
		if err := g.print(v.Outline, w.Layers[v.Layer.ID]); err != nil {
			continue // it keeps its one colour
		}
		out[i] = apart(g.films[from:], as.Layers[i].Dry)
	}
	return out
}

// newLeaf is what an image is printed on: its ground, or a piece of it as it is inked. It goes on as far
// as the image, as ink past an edge is told of elsewhere.
func newLeaf(s look.Stock, m look.Image, w card.Colourway, as look.Colourway, at int) *ground {
	paper := m.Ground
	if at != motif.Ground {
		paper = w.Layers[m.Shapes.Views[at].Layer.ID].Paper
	}
	box := m.Shapes.Silhouette.Bounds()
	g := newGround(&Build{Stock: s}, paper, shape.Rect(box.Min.X-1, box.Min.Y-1, box.W()+2, box.H()+2))
	if at == motif.Ground {
		return g
	}
	if c, err := colour.ParseHex(as.Layers[at].Dry); err == nil {
		f := w.Layers[m.Shapes.Views[at].Layer.ID]
		g.put(Patch{Region: g.outline, Colour: c, bare: f.Ink == "" && len(f.Blends) == 0})
	}
	return g
}

// print lays one layer: its ink, and what is blended all over it.
func (g *ground) print(region shape.Region, f card.Finish) error {
	steps := []makes{}
	if f.Ink != "" {
		steps = append(steps, g.inked(f.Ink, f.Strikes()))
	}
	for _, bl := range f.Blends {
		if bl.Zone == card.AllOver {
			steps = append(steps, g.inked(bl.Ink, bl.Strikes()))
		}
	}
	return g.apply(region, func(under colour.Linear, bare bool) colour.Linear {
		for _, to := range steps {
			under, bare = to(under, bare), false
		}
		return under
	})
}

// apart are the films of a layer from the first on that is told apart from its one colour; none where
// all of them are that colour.
func apart(films []Film, dry string) []Film {
	own, err := colour.ParseHex(dry)
	if err != nil {
		return nil
	}
	for i, f := range films {
		c, err := colour.ParseHex(f.Colour)
		if err == nil && colour.Difference(own.Lab(), c.Lab()) >= sameColour {
			return append([]Film{}, films[i:]...)
		}
	}
	return nil
}
