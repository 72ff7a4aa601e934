package placing

import (
	"fmt"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/look"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// Print is a printed layer as a proof of it should look.
type Print struct {
	Layer   string
	Label   string
	Region  shape.Region
	Film    colour.Film
	Strikes int
	Play    register.Play
	Marks   []register.Feature // corners of it that can be pointed at
}

// Prints lists the printed layers of an image that carry ink and lie on one
// ground, lowest first, and the colour of that ground. Of an image with prints
// on several pieces the largest group counts.
func (t Study) Prints(colourway string) ([]Print, colour.Linear, error) {
	w, ok := t.Image.Colourway(colourway)
	if !ok {
		return nil, colour.Linear{}, fmt.Errorf("read a proof: %s has no colourway %q: %w", t.Image.Name, colourway, look.ErrUnknown)
	}
	look := t.dried(w)
	groups := map[int][]Print{}
	best := -2
	for i, v := range t.Image.Shapes.Views {
		f := w.Layers[v.Layer.ID]
		ink, ok := t.Stock.Ink(f.Ink)
		if v.Layer.Make == card.Cut || !ok {
			continue
		}
		film, _, err := t.Stock.Film(ink)
		if err != nil {
			continue
		}
		on := v.Host
		for on >= 0 && t.Image.Shapes.Views[on].Layer.Make != card.Cut {
			on = t.Image.Shapes.Views[on].Host
		}
		p, _, _, err := t.eased(look, i)
		if err != nil {
			return nil, colour.Linear{}, err
		}
		groups[on] = append(groups[on], Print{v.Layer.ID, v.Layer.Label, v.Outline, film, f.Strikes(), p, register.Marks(v.Outline, v.Outline, mostMarks)})
		if best == -2 || len(groups[on]) > len(groups[best]) {
			best = on
		}
	}
	if best == -2 {
		return nil, colour.Linear{}, nil
	}
	paper := t.Stock.PaperColour(t.Image.Ground)
	if best >= 0 {
		paper, _ = colour.ParseHex(look.Layers[best].Dry)
	}
	return groups[best], paper, nil
}

// mostMarks is how many corners of a layer are offered to point at.
const mostMarks = 4
