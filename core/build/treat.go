package build

import (
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Treated is what a treatment comes to on its sheet.
type Treated struct {
	Regions []shape.Region // what it lays ink on, in the sheet's own frame; of words by letter
	Wide    float64        // of words: how wide they come out, mm
	Prints  int            // of a repeat: how many prints fall on the sheet
	Off     float64        // share of what is printed that misses the sheet
	Sum     float64        // of bands: how much of the sheet they take up, mm
	Room    float64        // of bands: how much there is, mm
	Plain   bool           // of a print: no layer of its image has an ink yet
	Problem string         // why it cannot be done
	// Of a stencil laid over prints: how many openings it has in all its places, and those
	// that have no print beneath.
	Openings int
	Misses   []shape.Region
	Taped    int      // of those openings: how many are covered with tape
	Read     *Reading // of words: how they stand out; nil where none of them lies on the sheet
}

// Reading is how words stand out from what lies round them.
type Reading struct {
	Ink, Ground colour.Linear // as they dry, on the whole
	Bare        bool          // round them is card without ink
}

// around is how far round words the ground counts that they have to stand out from, as a
// share of their height.
const around = 0.35

// read is how words stand out on the finished sheet.
func (g *ground) read(letters []shape.Region, high float64) *Reading {
	all, err := shape.UnionAll(letters...)
	if err != nil || all.Empty() {
		return nil
	}
	b := all.Bounds()
	m := around * high
	ring, err := shape.Rect(b.Min.X-m, b.Min.Y-m, b.W()+2*m, b.H()+2*m).Minus(all)
	if err != nil {
		return nil
	}
	out := Reading{}
	var on, round float64
	out.Ink, on = MeanOf(g.patches, all)
	out.Ground, round = MeanOf(g.patches, ring)
	if on == 0 || round == 0 {
		return nil
	}
	out.Bare = colour.Difference(out.Ground.Lab(), g.b.Stock.PaperColour(g.paper).Lab()) < 0.5
	return &out
}

// treating is a sheet while it is treated.
type treating struct {
	*ground
	e      card.Element
	at     card.Place   // where it lies
	whole  shape.Region // the sheet without its openings
	size   shape.Box    // of the sheet as it is cut, before it is trimmed, about its middle
	images []Image
	round  shape.Region   // of a glow: the outline it goes round
	prints []shape.Region // of the treatments so far
	seats  []shape.Region // pressed into it

	patterns []Pattern
}

// treat does one treatment.
func (t *treating) treat(tr card.Treatment) (out Treated, err error) {
	switch {
	case tr.Words != nil:
		return t.words(*tr.Words)
	case tr.Turned != nil:
		return t.turned(*tr.Turned)
	case tr.Print != nil:
		return t.print(*tr.Print)
	case tr.Fade != nil:
		return t.fade(*tr.Fade)
	case tr.Bands != nil:
		return t.bands(*tr.Bands)
	case tr.Stencil != nil:
		return t.stencil(*tr.Stencil)
	case tr.Splash != nil:
		return t.splash(*tr.Splash)
	case tr.Stroke != nil:
		return t.stroke(*tr.Stroke)
	case tr.Pressed != nil:
		return t.pressed(*tr.Pressed)
	case tr.Edged != nil:
		return t.edged(*tr.Edged)
	case tr.Glaze != nil:
		return t.glaze(*tr.Glaze)
	}
	return out, nil
}

// part is the outline of a part of the stores about its middle.
func (b *Build) part(set, part string) (shape.Region, bool) {
	p, ok := b.partOf(set, part)
	return p.Outline, ok
}

func (b *Build) partOf(set, part string) (kit.Part, bool) {
	s, ok := b.Stock.Set(set)
	if !ok {
		return kit.Part{}, false
	}
	return s.Part(part)
}

// noPart says that a part is gone.
const noPart = "Its part is not in the stores any more: choose another, or bring the set in again."

// alphabet is the letters of a set of dies by their labels.
func (b *Build) alphabet(set string) func(rune) (shape.Region, bool) {
	s, ok := b.Stock.Set(set)
	return func(r rune) (shape.Region, bool) {
		if !ok {
			return shape.Region{}, false
		}
		i := slices.IndexFunc(s.Parts, func(p kit.Part) bool { return p.Label == string(r) })
		if i < 0 {
			return shape.Region{}, false
		}
		return s.Parts[i].Outline, true
	}
}
