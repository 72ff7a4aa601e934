package placing

import (
	"fmt"
	"ochrestone/core/shape"
)

// What a die and a hand can do; the first is common practice, no source, the rest
// our own defaults. Lengths in mm, areas in mm².
const (
	Thinnest  = 1.0 // a narrower bridge of card tears when it is popped out
	Narrowest = 0.5 // a narrower gap cannot be picked clean
	thinArea  = 1.2 // less is the tip of a corner
	gapArea   = 0.5
	long      = 2.0 // a thin place is at least so long

	// More is let out than was drawn in, so that curves do not count as lost.
	bridgeGive = 0.05
	gapGive    = 0.02
)

// Detail is what of a cut layer is too fine.
type Detail struct {
	Thin   float64 `json:"thin" doc:"area of bridges narrower than 1 mm, mm²"`
	ThinX  float64 `json:"thinX" doc:"where the largest lies, mm in the image's frame"`
	ThinY  float64 `json:"thinY"`
	Narrow float64 `json:"narrow" doc:"area of gaps narrower than 0.5 mm, mm²"`
}

// DetailOf finds what vanishes from a region when it is drawn in by half the
// thinnest bridge and let out again, and what fills up the other way round.
func DetailOf(g shape.Region) (Detail, error) {
	var d Detail
	g = g.Simplify(0.1)
	if g.Pinched(Thinnest/2, bridgeGive, long) {
		if err := d.bridges(g); err != nil {
			return d, err
		}
	}
	if g.Pinched(-Narrowest/2, gapGive, long) {
		if err := d.gaps(g); err != nil {
			return d, err
		}
	}
	return d, nil
}

func (d *Detail) bridges(g shape.Region) error {
	in, err := g.Offset(-Thinnest / 2)
	if err != nil {
		return fmt.Errorf("draw it in: %w", err)
	}
	back, err := in.Offset(Thinnest/2 + bridgeGive)
	if err != nil {
		return fmt.Errorf("let it out again: %w", err)
	}
	lost, err := g.Minus(back)
	if err != nil {
		return fmt.Errorf("find the thin places: %w", err)
	}
	most := 0.0
	for _, p := range lost.Pieces() {
		b := p.Bounds()
		if a := p.Area(); a >= thinArea && max(b.W(), b.H()) >= long {
			d.Thin += a
			if c := p.Centroid(); a > most {
				most, d.ThinX, d.ThinY = a, c.X, c.Y
			}
		}
	}
	return nil
}

func (d *Detail) gaps(g shape.Region) error {
	out, err := g.Offset(Narrowest / 2)
	if err != nil {
		return fmt.Errorf("let it out: %w", err)
	}
	shut, err := out.Offset(-Narrowest/2 - gapGive)
	if err != nil {
		return fmt.Errorf("draw it in again: %w", err)
	}
	filled, err := shut.Minus(g)
	if err != nil {
		return fmt.Errorf("find the narrow gaps: %w", err)
	}
	for _, p := range filled.Pieces() {
		b := p.Bounds()
		if a := p.Area(); a >= gapArea && max(b.W(), b.H()) >= long {
			d.Narrow += a
		}
	}
	return nil
}
