package colour

import "math"

// Sample is a dried colour that was measured: an ink struck so many times on a
// paper.
type Sample struct {
	Under       Linear // the paper
	Dry         Linear
	Impressions int
}

// Fit finds the film that best explains measured samples of one ink: the
// hiding power, and per channel what it lets through and the body it covers
// with, as Film.Over has it. What the samples do not settle stays
// with the film given, which counts as a faint sample of its own.
//
// Errors are weighted by (R+0.05)^(-4/3), about as the eye weighs them
// (the slope of CIE L*). For one hiding power the body is linear and has a
// closed form, and the transmittance is found by golden section; hiding powers
// are tried on a grid and between its best points.
func Fit(prior Film, samples []Sample) Film {
	if len(samples) == 0 {
		return prior
	}
	best, least := prior, math.Inf(1)
	try := func(h float64) {
		f := Film{Hide: h}
		var cost float64
		for c := range f.T {
			t, body, e := fitChannel(prior, samples, h, c)
			f.T[c], f.Body[c] = t, body
			cost += e
		}
		cost += hideFaint * (h - prior.Hide) * (h - prior.Hide)
		if cost < least {
			best, least = f, cost
		}
	}
	for h := 0.0; h <= 0.96; h += 0.06 {
		try(h)
	}
	for step := 0.03; step > 0.002; step /= 2 {
		at := best.Hide
		try(math.Max(0, at-step))
		try(math.Min(1, at+step))
	}
	return best
}

// How faintly the prior counts beside measured samples.
const (
	hideFaint = 0.02
	bodyFaint = 0.01
)

// fitChannel is the transmittance and body of one channel for a hiding power,
// and the cost left.
func fitChannel(prior Film, samples []Sample, h float64, c int) (t, body, cost float64) {
	at := func(t float64) (float64, float64) {
		num, den := bodyFaint*prior.Body[c], bodyFaint
		for _, s := range samples {
			e := Impressions(s.Impressions)
			hide := 1 - math.Pow(1-h, e)
			w := math.Pow(s.Dry[c]+0.05, -4.0/3)
			a := (1 - hide) * soaked(s.Under[c], t, e)
			num += w * hide * (s.Dry[c] - a)
			den += w * hide * hide
		}
		b := clamp(num / den)
		cost := bodyFaint * (b - prior.Body[c]) * (b - prior.Body[c])
		for _, s := range samples {
			e := Impressions(s.Impressions)
			hide := 1 - math.Pow(1-h, e)
			d := (1-hide)*soaked(s.Under[c], t, e) + hide*b - s.Dry[c]
			cost += math.Pow(s.Dry[c]+0.05, -4.0/3) * d * d
		}
		return b, cost
	}
	const phi = 0.6180339887498949
	lo, hi := minTransmit, 1.0
	x, y := hi-phi*(hi-lo), lo+phi*(hi-lo)
	_, fx := at(x)
	_, fy := at(y)
	for range 30 {
		if fx < fy {
			hi, y, fy = y, x, fx
			x = hi - phi*(hi-lo)
			_, fx = at(x)
		} else {
			lo, x, fx = x, y, fy
			y = lo + phi*(hi-lo)
			_, fy = at(y)
		}
	}
	t = (lo + hi) / 2
	body, cost = at(t)
	return t, body, cost
}
