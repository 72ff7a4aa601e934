package build

import (
	"crypto/sha256"
	"fmt"

	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// trimKey is everything that trimming a thing at the panel's edge depends on: the outlines of
// its pieces, its own, and the panel's.
type trimKey [32]byte

// trimmed is an image as it is left, by its pieces, and as a whole, and what is cut off it.
type trimmed struct {
	pieces   []shape.Region
	cut      []bool // which of them lose something
	all, off shape.Region
}

// BladeClear is how far a blade that trims a thing keeps from what must not be cut, mm; our own default.
const BladeClear = 3.0

// InBlade is where the blade that trims what hangs over of a thing passes another: what of its outline
// lies within BladeClear of the cut; empty where it passes clear of it, or nothing is trimmed.
func (t *Thing) InBlade(other *Thing) shape.Region {
	if t.Offcut.Empty() || !grown(t.Offcut.Bounds(), BladeClear).Meets(other.Outline.Bounds()) {
		return shape.Region{}
	}
	near, err := t.Offcut.Offset(BladeClear)
	if err != nil {
		return shape.Region{}
	}
	if near, err = near.Intersect(other.Outline); err != nil {
		return shape.Region{}
	}
	return near
}

func grown(b shape.Box, by float64) shape.Box {
	pad := shape.Point{X: by, Y: by}
	return shape.Box{Min: b.Min.Sub(pad), Max: b.Max.Add(pad)}
}

// trim cuts off what hangs over the edge of what carries them of things that are to be flush with it.
func (b *Build) trim() {
	for i := range b.Things {
		t := &b.Things[i]
		if !t.Element.Flush || t.Outline.Empty() || t.Leaf != nil {
			continue
		}
		panel := layout.Region(b.Edge(t.Element))
		if panel.Covers(t.Outline) {
			continue
		}
		got := b.cutAt(panel, t)
		if got.all.Empty() {
			continue // nothing of it lies on the panel: it is noted as hanging over
		}
		for k, g := range got.pieces {
			b.Pieces[t.From+k].Outline, b.Pieces[t.From+k].cut = g, got.cut[k]
		}
		if t.Leaves > 0 { // of prints the ink past the edge is on no card
			t.Overhang, t.Offcut = t.Outline.Area()-got.all.Area(), got.off
		}
		t.Outline, t.Rough = got.all, got.all
	}
}

// cutAt is a thing cut off at the panel's edge; an image in the same place is remembered.
func (b *Build) cutAt(panel shape.Region, t *Thing) trimmed {
	work := func() (out trimmed, err error) {
		for k := t.From; k < t.To; k++ {
			g := b.Pieces[k].Outline
			over := !panel.Covers(g)
			if out.cut = append(out.cut, over); over {
				if in, err := g.Intersect(panel); err == nil {
					g = in
				}
			}
			out.pieces = append(out.pieces, g)
		}
		if out.all, err = t.Outline.Intersect(panel); err != nil {
			return out, fmt.Errorf("trim a thing at an edge: %w", err)
		}
		if out.off, err = t.Outline.Minus(panel); err != nil {
			return out, fmt.Errorf("trim a thing at an edge: %w", err)
		}
		return out, nil
	}
	if t.Made < 0 || b.with.Memory == nil {
		out, _ := work()
		return out
	}
	h := sha256.New()
	noteRegion(h, panel)
	noteRegion(h, t.Outline)
	for k := t.From; k < t.To; k++ {
		noteRegion(h, b.Pieces[k].Outline)
	}
	key := trimKey(h.Sum(nil))
	out, _ := b.with.Memory.trims.Get(key, work)
	return out
}

// snip cuts off parts what the person cuts off them.
func (b *Build) snip() {
	for i := range b.Things {
		t := &b.Things[i]
		if len(t.Element.Snips) == 0 || t.Outline.Empty() {
			continue
		}
		for _, s := range t.Element.Snips {
			for k := t.From; k < t.To; k++ {
				p := &b.Pieces[k]
				if s.Part != "" && p.ID.Part != s.Part || p.Print() {
					continue
				}
				left, err := p.Outline.Minus(p.FromSelf(s.Off))
				if err != nil || left.Empty() {
					continue
				}
				p.Outline, p.cut = left, true
			}
		}
		var all []shape.Region
		for _, p := range b.Pieces[t.From:t.To] {
			all = append(all, p.Outline)
		}
		if g, err := shape.UnionAll(all...); err == nil && !g.Empty() {
			t.Outline, t.Rough = g, g
		}
	}
}
