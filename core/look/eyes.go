package look

import (
	"math"
	"ochrestone/core/colour"
)

// Eye is how a colourway holds for other eyes.
type Eye struct {
	Eyes    colour.Eyes `json:"eyes" enum:"protan,deutan,tritan,grey"`
	Weakest float64     `json:"weakest" doc:"CIEDE2000 of the touching pair weakest to these eyes"`
	A       string      `json:"a" doc:"layer id; empty for the panel"`
	B       string      `json:"b"`
}

// OtherEyes are the ways of seeing a colourway is tried with.
var OtherEyes = []colour.Eyes{colour.Protan, colour.Deutan, colour.Tritan, colour.Grey}

// SeenOtherwise finds the weakest touching pair for every other way of seeing.
func (w Colourway) SeenOtherwise() []Eye {
	out := []Eye{}
	for _, e := range OtherEyes {
		look := Eye{Eyes: e, Weakest: math.Inf(1)}
		for _, p := range w.Pairs {
			if p.Length < MergesOver {
				continue
			}
			if d := p.SeenBy(e); d < look.Weakest {
				look.Weakest, look.A, look.B = d, p.A, p.B
			}
		}
		if !math.IsInf(look.Weakest, 1) {
			out = append(out, look)
		}
	}
	return out
}
