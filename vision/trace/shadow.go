package trace

import "math"

// step is the shape of an edge blurred by the device: 1 well inside of at.
func step(d, at, blur float64) float64 { return tail((d - at) / blur) }

// tail is the share of a normal distribution above z, from a table.
func tail(z float64) float64 {
	f := (z + tailReach) * tailFine
	if f <= 0 {
		return 1
	}
	i := int(f)
	if i >= len(tails)-1 {
		return 0
	}
	return tails[i] + (f-float64(i))*(tails[i+1]-tails[i])
}

const (
	tailReach = 5.0
	tailFine  = 128
)

var tails = func() (t [2*tailReach*tailFine + 2]float64) {
	for i := range t {
		t[i] = 0.5 * math.Erfc((float64(i)/tailFine-tailReach)/math.Sqrt2)
	}
	return t
}()

// shadow is the shape of a shadow beside an edge, in pixels from it: the penumbra of what
// stands off the sheet, or what is left of the light near a step.
type shadow struct {
	far, soft float64 // where it is half as deep, and how soft its end is
	fall      float64 // over which it falls to 1/e; 0: a penumbra
}

func (s shadow) at(u float64) float64 {
	if s.fall > 0 {
		return math.Exp(-max(0, u) / s.fall)
	}
	return tail((u - s.far) / s.soft)
}

// noShadow is that of a sheet in even light.
var noShadow = shadow{far: -1000, soft: 1}

// shadows are the shapes tried, for a picture of so many pixels to the millimetre.
func shadows(perMM float64) []shadow {
	out := []shadow{noShadow}
	for _, soft := range [5]float64{0.1, 0.16, 0.25, 0.4, 0.7} {
		for _, far := range [8]float64{-2, -1, -0.3, 0.3, 1, 1.8, 3, 5} {
			if f := far * soft; f < 1.2 {
				out = append(out, shadow{far: f * perMM, soft: soft * perMM})
			}
		}
	}
	for _, fall := range [5]float64{0.12, 0.2, 0.35, 0.6, 1.2} {
		out = append(out, shadow{fall: fall * perMM})
	}
	return out
}
