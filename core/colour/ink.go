package colour

import "math"

// Source says how a colour is known.
type Source string

// Sources of a colour, best first.
const (
	Measured  Source = "measured"  // read from the person's own swatch
	Typed     Source = "typed"     // entered by hand
	Estimated Source = "estimated" // computed from another colour
)

// Film is an ink as a filter over what is beneath, after one impression:
// T lets light through per channel, Hide covers with Body.
type Film struct {
	T    Linear  // transmittance (both ways through) of one impression
	Body Linear  // colour of the covering part
	Hide float64 // share of what is beneath hidden by one impression, 0 to 1
}

// minTransmit keeps a film from being perfectly black, which no ink is.
const minTransmit = 0.002

// FilmFrom returns the film whose single impression on paper gives the dried
// swatch colour exactly, wherever the swatch is darker than the paper. The
// covering body is taken to have the swatch's colour, so T = swatch/paper
// whatever the hiding power.
func FilmFrom(swatch, paper Linear, hide float64) Film {
	f := Film{Body: swatch, Hide: clamp(hide)}
	for i := range f.T {
		f.T[i] = min(1, max(minTransmit, swatch[i]/max(paper[i], 1e-4)))
	}
	return f
}

// impressionGain is the share of an impression that each further one still
// adds: paper already full of ink takes less.
const impressionGain = 0.6

// Impressions returns how many single films n strikes amount to: 1, 1.6,
// 1.96 and so on towards 2.5. Our own default; swatches of two and three
// impressions replace it.
func Impressions(n int) float64 {
	if n <= 0 {
		return 0
	}
	return (1 - math.Pow(impressionGain, float64(n))) / (1 - impressionGain)
}

// Over returns the dried colour of n impressions of the film on what is
// beneath: R = (1-h)·under·tⁿ + h·body per linear channel, with n saturating
// as Impressions says and h growing with it.
func (f Film) Over(under Linear, n int) Linear {
	if n <= 0 {
		return under
	}
	e := Impressions(n)
	h := 1 - math.Pow(1-f.Hide, e)
	var out Linear
	for i := range out {
		t := f.T[i]
		if e != 1 {
			t = math.Pow(t, e)
		}
		out[i] = clamp((1-h)*under[i]*t + h*f.Body[i])
	}
	return out
}

// Drying is the change from wet to dry of one kind of ink: the share of the
// way to white that the lightness rises, and the factor left of the chroma.
type Drying struct {
	Lift float64 // 0 to 1
	Keep float64 // 0 to 1
}

// Dry estimates the dried colour from the wet one.
func (d Drying) Dry(wet Linear) Linear {
	c := wet.Lab()
	return Lab{c.L + d.Lift*(100-c.L), c.A * d.Keep, c.B * d.Keep}.Linear()
}

// Wet estimates how a dried colour looked while wet: the inverse of Dry, as
// far as sRGB can show it.
func (d Drying) Wet(dry Linear) Linear {
	c := dry.Lab()
	k := max(d.Keep, 0.1)
	return Lab{max(0, (c.L-100*d.Lift)/(1-d.Lift)), c.A / k, c.B / k}.Linear()
}
