package colour

// Eyes is a way of seeing colours.
type Eyes string

// Ways of seeing: without one kind of cone, or in lightness alone.
const (
	Protan Eyes = "protan" // no long-wave cones
	Deutan Eyes = "deutan" // no middle-wave cones
	Tritan Eyes = "tritan" // no short-wave cones
	Grey   Eyes = "grey"   // lightness alone, as in a black-and-white copy
)

// seen are the matrices of G. M. Machado, M. M. Oliveira and L. A. F.
// Fernandes, "A Physiologically-based Model for Simulation of Color Vision
// Deficiency", IEEE TVCG 15 (2009), severity 1.0, here applied in linear light.
var seen = map[Eyes][3][3]float64{
	Protan: {{0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}},
	Deutan: {{0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.011820, 0.042940, 0.968881}},
	Tritan: {{1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.303900}},
}

// Seen is the colour as other eyes see it, shown in ordinary colours.
func (c Linear) Seen(e Eyes) Linear {
	if e == Grey {
		l := c.Lab()
		return Lab{L: l.L}.Linear()
	}
	if _, ok := seen[e]; !ok {
		return c
	}
	return Linear(through(e, c))
}

// through applies the matrix of some eyes to three channels.
func through(e Eyes, c [3]float64) (out [3]float64) {
	m := seen[e]
	for i := range out {
		out[i] = clamp(m[i][0]*c[0] + m[i][1]*c[1] + m[i][2]*c[2])
	}
	return out
}
