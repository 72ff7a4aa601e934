package placing

import (
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// Harm says what is to be seen when a layer of an image in a colourway lies off
// its place: shifted, then turned about its own middle.
func (t Study) Harm(colourway, layer string, off register.Placed) (register.Harm, error) {
	w, i, err := t.layerOf(colourway, layer)
	if err != nil {
		return register.Harm{}, err
	}
	p, lim, _, err := t.eased(t.dried(w), i)
	if err != nil {
		return register.Harm{}, err
	}
	v, shift := t.Image.Shapes.Views[i], shape.Point{X: off.X, Y: off.Y}
	if PieceOf(t.Image.Shapes, i) == register.DieRound {
		print, err := printsOn(t.Image.Shapes, i)
		if err != nil || print.Empty() {
			return register.Harm{}, err
		}
		return register.HarmRound(print, v.Outline, lim, shift, off.Turn)
	}
	if v.Host < 0 {
		return register.Harm{}, nil
	}
	return register.HarmOf(v.Outline, t.Image.Shapes.Views[v.Host].Outline, v.Layer.Fit, lim, p.Rim, shift, off.Turn)
}
