package build

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"hash"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/memory"
	"ochrestone/core/shape"
)

// Memory remembers sheets with all that is done to them, by everything they depend on.
type Memory struct {
	sheets  *memory.Of[[32]byte, leafed]
	trims   *memory.Of[trimKey, trimmed]
	ribbons *memory.Of[string, tied]
	words   *memory.Of[[32]byte, [][]Film]
	leaves  *memory.Of[leafKey, shape.Region]
	placed  *memory.Of[placedKey, shape.Region]
	tints   *memory.Of[[32]byte, [][]Film]
}

// placedKey is everything an outline in an image's frame depends on, once it is laid in place:
// that of a layer, or the image's own, as it is or made simple.
type placedKey struct {
	image [32]byte
	layer int
	x, y  float64
	turn  float64
	over  bool
}

// Outlines that are no layer's.
const (
	silhouette = -1
	rough      = -2
)

// mostPlaced is how many outlines in place a Memory remembers.
const mostPlaced = 2000

// leafKey is everything the leaf depends on that an image is cut out as.
type leafKey struct {
	image  [32]byte
	margin float64
}

// mostLeaves is how many sheets a Memory remembers.
const mostLeaves = 256

// mostTrims is how many images trimmed at an edge a Memory remembers.
const mostTrims = 512

// NewMemory returns an empty Memory.
func NewMemory() *Memory {
	return &Memory{memory.New[[32]byte, leafed](mostLeaves), memory.New[trimKey, trimmed](mostTrims), memory.New[string, tied](mostLeaves), memory.New[[32]byte, [][]Film](mostLeaves), memory.New[leafKey, shape.Region](mostLeaves), memory.New[placedKey, shape.Region](mostPlaced), memory.New[[32]byte, [][]Film](mostLeaves)}
}

// With is what a card is put together with, beside its stock and images.
type With struct {
	Face   layout.Typeface // draws its words; nil leaves them out
	Memory *Memory         // of sheets put together before; nil: none
}

// leafed is a sheet with all that is done to it, in its own frame.
type leafed struct {
	local, whole shape.Region
	died         bool
	openings     []shape.Region
	seats        []shape.Region
	islands      int
	problem      string
	treated      []Treated
	patches      []Patch
	films        []Film
	top          string
	patterns     []Pattern
}

// remembered gives a sheet of w by h mm at a place with all that is done to it.
func (b *Build) remembered(e card.Element, at card.Place, w, h float64, images []Image) leafed {
	if b.with.Memory == nil || len(e.Sheet.Treatments)+len(e.Sheet.Openings) == 0 && e.Sheet.Shape == nil {
		return b.leafed(e, at, w, h, images)
	}
	out, _ := b.with.Memory.sheets.Get(b.sheetKey(e, at, w, h, images), func() (leafed, error) { return b.leafed(e, at, w, h, images), nil })
	return out
}

// sheetKey is everything a sheet depends on: what is said of it, the colours of its card
// and inks, the outlines of its parts and images, and the letters there are.
func (b *Build) sheetKey(e card.Element, at card.Place, w, h float64, images []Image) [32]byte {
	k := sha256.New()
	note := func(v any) {
		if err := json.NewEncoder(k).Encode(v); err != nil {
			fmt.Fprint(k, err)
		}
	}
	note(e.Sheet)
	fmt.Fprintln(k, e.ID, e.Name, w, h, b.Stock.PaperColour(e.Sheet.Paper))
	ink := func(id string) {
		if i, ok := b.Stock.Ink(id); ok {
			note(i)
			film, _, _ := b.Stock.Film(i)
			for _, n := range []int{1, 2, 3, 4, 5, 6} {
				d, _, _ := b.Stock.On(i, film, b.Stock.PaperColour(e.Sheet.Paper), e.Sheet.Paper, n)
				fmt.Fprintln(k, d)
			}
			fmt.Fprintln(k, film)
		}
	}
	for _, t := range e.Sheet.Treatments {
		for _, id := range t.Inks() {
			ink(id)
		}
		motif := t.Motif()
		if i := slices.IndexFunc(images, func(m Image) bool { return m.ID == motif }); motif != "" && i >= 0 {
			m := images[i]
			fmt.Fprintln(k, m.Key, m.Problem)
			note(m.Motif.Layers)
			note(m.Motif.Colourways)
			for _, w := range m.Motif.Colourways {
				for _, l := range m.Motif.Layers {
					ink(w.Layers[l.ID].Ink)
					for _, bl := range w.Layers[l.ID].Blends {
						ink(bl.Ink)
					}
				}
			}
		}
		if s := t.Stencil; s != nil {
			b.noteParts(k, s.Set, s.Part)
			if s.Over {
				for _, g := range b.printedOn(e, at, images) {
					noteRegion(k, g)
				}
			}
		}
		if f := t.Fade; f != nil && f.From == card.FromImage {
			if g, ok := b.imageOn(f.Round, e, at, images); ok {
				noteRegion(k, g)
			}
		}
		if p := t.Pressed; p != nil {
			b.noteParts(k, p.Set, p.Part)
		}
	}
	if o := e.Sheet.Shape; o != nil {
		b.noteParts(k, o.Set, o.Part)
	}
	for _, o := range e.Sheet.Openings {
		b.noteParts(k, o.Set, o.Part)
	}
	fmt.Fprintf(k, "%T", b.with.Face)
	return [32]byte(k.Sum(nil))
}

func (b *Build) noteParts(k hash.Hash, set, part string) {
	if p, ok := b.partOf(set, part); ok {
		noteRegion(k, p.Outline)
		fmt.Fprintln(k, p.Lines)
	}
}

func noteRegion(k hash.Hash, g shape.Region) {
	t, _ := g.MarshalText()
	k.Write(t)
}
