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

// Film is an ink over what is beneath, after one impression: T is what it leaves
// of a perfect white per channel, Hide covers with Body.
//
// Ink for cardmaking soaks into the card, so what it absorbs adds to what the
// card absorbs (Kubelka and Munk 1931, as Duncan 1940 mixes by one constant):
// K/S = (1-R)²/2R of the card and of the ink are summed. An ink on card of its own
// hue then all but vanishes, where light through a film upon the card (Beer and
// Lambert) would come back far too dark.
type Film struct {
	T    Linear  // reflectance left of a perfect white by one impression
	Body Linear  // colour of the covering part
	Hide float64 // share of what is beneath hidden by one impression, 0 to 1
}

// minTransmit keeps a film from being perfectly black, which no ink is.
const minTransmit = 0.002

// absorbs is K/S of a reflectance, the ratio of absorption to scattering by
// Kubelka and Munk; reflects is its inverse.
func absorbs(r float64) float64 {
	r = min(1, max(1e-4, r))
	return (1 - r) * (1 - r) / (2 * r)
}

func reflects(ks float64) float64 {
	return 1 / (1 + ks + math.Sqrt(ks*ks+2*ks))
}

// FilmFrom returns the film whose single impression on paper gives the dried
// swatch colour exactly, wherever the swatch is darker than the paper. The
// covering body is taken to have the swatch's colour, whatever the hiding power.
func FilmFrom(swatch, paper Linear, hide float64) Film {
	f := Film{Body: swatch, Hide: clamp(hide)}
	for i := range f.T {
		f.T[i] = max(minTransmit, reflects(max(0, absorbs(swatch[i])-absorbs(paper[i]))))
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
// beneath: R = (1-h)·KM(K/S(under) + n·K/S(T)) + h·body per linear channel, with n
// saturating as Impressions says and h growing with it.
func (f Film) Over(under Linear, n int) Linear {
	if n <= 0 {
		return under
	}
	e := Impressions(n)
	h := 1 - math.Pow(1-f.Hide, e)
	var out Linear
	for i := range out {
		out[i] = clamp((1-h)*soaked(under[i], f.T[i], e) + h*f.Body[i])
	}
	return out
}

// soaked is the reflectance of a card with so many impressions of ink in it.
func soaked(under, t, e float64) float64 { return reflects(absorbs(under) + e*absorbs(t)) }

// Doubt is how far, CIEDE2000, n impressions of the film on what is beneath may
// dry from what Over foretells: the distance to what they would be if all ink
// stayed on top and light went through it twice, under·(T/white)ⁿ by Beer's and
// Lambert's law, with least added for what was typed or estimated. The truth lies
// between a film on the card and an ink in it. On the paper the ink was seen on
// both agree, but for more impressions than one.
func (f Film) Doubt(under, seenOn Linear, n int, least float64) float64 {
	if n <= 0 {
		return 0
	}
	e := Impressions(n)
	h := 1 - math.Pow(1-f.Hide, e)
	var out Linear
	for i := range out {
		t := min(1, soaked(seenOn[i], f.T[i], 1)/max(seenOn[i], 1e-4))
		out[i] = clamp((1-h)*under[i]*math.Pow(t, e) + h*f.Body[i])
	}
	return least + Difference(f.Over(under, n).Lab(), out.Lab())
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
