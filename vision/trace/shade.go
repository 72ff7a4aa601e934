package trace

import "math"

// closeBy are the distances outside at which a shadow that ends within a few pixels is
// followed to the edge.
var closeBy = [2]float64{2.2, 3.2}

// coreBy are the distances inside at which the white core of card shows beside what is
// printed on it; it is brighter than that, and has less colour. A device's own sharpening
// makes a brighter line there too, but of the same colour. Our own numbers.
var coreBy = [3]float64{0.8, 1.4, 2.0}

const (
	coreBright = 1.12 // of the light further in
	corePale   = 0.80 // of the colour further in, for its light
	corePlain  = 0.15 // colour for its light under which a card has too little to tell by
)

// saturation is how much colour a colour has for its light.
func saturation(c [3]float64) float64 {
	m := (c[0] + c[1] + c[2]) / 3
	if m <= 0 {
		return 0
	}
	return math.Sqrt((c[0]-m)*(c[0]-m)+(c[1]-m)*(c[1]-m)+(c[2]-m)*(c[2]-m)) / m
}

// A shadow takes light from a pale sheet and leaves its colour: along what of a piece's
// colour the sheet has nothing of, no shadow shows. Our own numbers.
const (
	paleSheet  = 0.25 // linear light above which a shadow can be told
	colourful  = 0.12 // least of a colour apart from the sheet's, linear
	shadowLess = 0.93 // of the sheet's light, under which it lies in a shadow to be minded
	fineEnough = 7.0  // pixels to the millimetre from which a core can be told
)

// unshaded is the part of the difference between a piece and a pale sheet that no shadow on the
// sheet changes; false where there is too little of it to go by.
func unshaded(in, sheet [3]float64) (u [3]float64, ok bool) {
	l := math.Sqrt(sheet[0]*sheet[0] + sheet[1]*sheet[1] + sheet[2]*sheet[2])
	if grey(sheet) < paleSheet || l == 0 {
		return u, false
	}
	along := 0.0
	for j := range in {
		along += (in[j] - sheet[j]) * sheet[j] / l
	}
	size := 0.0
	for j := range in {
		u[j] = in[j] - sheet[j] - along*sheet[j]/l
		size += u[j] * u[j]
	}
	return u, math.Sqrt(size) > colourful
}
