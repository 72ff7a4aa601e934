package sim

import (
	"math"
	"math/rand/v2"
	"slices"
)

// blotches makes a solid print patchy: slow waves and pin holes of bare paper.
type blotches struct {
	deep  float64
	waves [5][4]float64
}

func newBlotches(rnd *rand.Rand, deep float64) blotches {
	b := blotches{deep: deep}
	for i := range b.waves {
		b.waves[i] = [4]float64{rnd.NormFloat64() * 2.2, rnd.NormFloat64() * 2.2, rnd.Float64() * 2 * math.Pi, 1}
	}
	return b
}

func (b blotches) at(x, y float64) float64 {
	return 1 - b.deep*math.Max(0, b.wave(x, y)*math.Sqrt(2.0/float64(len(b.waves)))/2+0.2)
}

// wave is a slow wave of mean 0 and standard deviation 1.
func (b blotches) wave(x, y float64) float64 {
	var s float64
	for _, w := range b.waves {
		s += math.Sin(w[0]*x + w[1]*y + w[2])
	}
	return s * math.Sqrt(2/float64(len(b.waves)))
}

// grains is where a print took its ink, 0 or 1 but for the edges of a grain: bare is the
// share that did not, in grains of 0.2 mm that are thicker where the patches are.
func grains(w, h int, perMM, bare float64, patches blotches, rnd *rand.Rand) *plane {
	out := newPlane(w, h)
	for i := range out.v {
		out.v[i] = float32(rnd.NormFloat64())
	}
	spread := 0.1 * perMM
	out.blur(spread)
	k := 2 * math.Sqrt(math.Pi) * spread
	values := make([]float64, 0, len(out.v)/7+1)
	for y := range h {
		for x := range w {
			at := y*w + x
			v := 0.8*k*float64(out.v[at]) + 0.6*patches.wave(float64(x)/perMM, float64(y)/perMM)
			out.v[at] = float32(v)
			if at%7 == 0 {
				values = append(values, v)
			}
		}
	}
	slices.Sort(values)
	limit := values[min(len(values)-1, int(bare*float64(len(values))))]
	for i, v := range out.v {
		out.v[i] = float32(math.Max(0, math.Min(1, 0.5+(float64(v)-limit)/0.4)))
	}
	return &out
}
