package trace

import (
	"math"
	"slices"

	"ochrestone/core/together"
)

// Devices that are tried: blurs, sharpenings and tone curves.
var (
	blurs    = []float64{0.75, 0.62, 0.5, 0.38, 0.9, 1.1, 1.4, 1.8, 2.3}
	sharpens = []float64{0, 0.4, 0.8, 1.2}
	tones    = []float64{0.8, 0.9, 1.12, 1.25}
)

// mostJudged is how many stretches the device is judged by.
const (
	mostJudged  = 16
	leastJudged = 4
)

// device finds how a picture was taken from the profiles of its edges: that under which the
// least of them is left unexplained.
func (t *finder) device(drafts []draft) device {
	dev := device{blur: 0.75, tone: 1, misfit: 1}
	var prs []profile
	var noise float64
	var casts []shadow
	for _, d := range drafts {
		if !d.p.hasEdge() {
			continue
		}
		noise, casts = d.p.noise(), d.p.casts
		marks := d.p.draw(d.lines)
		l := d.lines[0]
		normal := make([]xy, len(l))
		for i := range l {
			normal[i] = normalAt(l, i, 4)
		}
		each := max(1, mostJudged/max(1, len(drafts)))
		for k := range each {
			if pr, ok := d.p.profileAt(l, normal, (2*k+1)*len(l)/(2*each), stretchHalf, marks); ok && pr.rough < rougher*noise {
				prs = append(prs, pr)
			}
		}
	}
	if len(prs) > 2*mostJudged {
		prs = prs[:2*mostJudged]
	}
	if len(prs) < leastJudged {
		return dev
	}
	// Some stretches are no one edge under any device: they do not vote.
	cost := func(missed func(i int) float64) float64 {
		left := make([]float64, len(prs))
		together.By(len(prs), func(i int) { left[i] = min(mostMissed, missed(i)) })
		slices.Sort(left)
		left = left[:max(1, len(left)*voting/100)]
		sum := 0.0
		for _, v := range left {
			sum += math.Log(v) / float64(len(left))
		}
		return math.Exp(sum)
	}
	fits := make([]edgeFit, len(prs)) // without a rim, under the usual device
	withRims := func(dev device) float64 {
		return cost(func(i int) float64 {
			e := prs[i].even(dev, noise)
			f := e.look(dev.blur, casts, fits[i].cast)
			if !f.ok {
				return mostMissed
			}
			if !fits[i].ok {
				fits[i] = f
			}
			v := prs[i].missed(e, f, dev, noise)
			if v > plainly && t.showsRims() {
				if g := e.rimmed(dev.blur, t.scale.PerMM, f, casts); g.ok {
					v = min(v, rimsCost*prs[i].missed(e, g, dev, noise))
				}
			}
			return v
		})
	}
	usual := withRims(dev)
	without := func(casts []shadow) func(dev device) float64 { // rims, and shadows but of these
		return func(dev device) float64 {
			return cost(func(i int) float64 {
				if !fits[i].ok {
					return mostMissed
				}
				e := prs[i].even(dev, noise)
				f := e.plain(dev.blur, fits[i].at, casts, fits[i].cast)
				if !f.ok {
					return mostMissed
				}
				return prs[i].missed(e, f, dev, noise)
			})
		}
	}
	dev.misfit = max(1, usual)
	// A wider blur passes for a rim or a shadow of every piece: that the usual device explains the
	// picture with them says nothing until other blurs were asked without.
	bare := without(nil)
	if alone := bare(dev); usual >= plainly || alone >= plainly {
		if d, left := blurred(dev, alone, bare); left < plainly && left < alone*(1-worthWork) {
			d.misfit = max(1, left)
			return d
		}
	}
	if usual < plainly {
		return dev
	}
	plain := without(casts)
	found, best := dev, plain(dev)
	try := func(d device) {
		less := worthMore
		if d.sharpen != found.sharpen || d.tone != found.tone {
			if prs[0].chans == 1 {
				return // what pressing a picture leaves passes for a device's own work
			}
			if found.sharpen == 0 && found.tone == 1 {
				less = worthWork
			}
		}
		if c := plain(d); c < best*(1-less) {
			best, found = c, d
		}
	}
	for _, a := range sharpens {
		for _, v := range blurs {
			try(device{blur: v, sharpen: a, tone: 1})
		}
	}
	for range 4 {
		was := found
		for _, v := range tones {
			try(device{blur: was.blur, sharpen: was.sharpen, tone: v})
		}
		for _, by := range [2]float64{0.93, 1.07} {
			try(device{blur: was.blur * by, sharpen: was.sharpen, tone: found.tone})
		}
		for _, by := range [2]float64{0.95, 1.05} {
			// A wider blur with more sharpening looks much the same.
			try(device{blur: was.blur * by, sharpen: max(0, was.sharpen+5*(by-1)), tone: found.tone})
		}
		for _, by := range [2]float64{-0.15, 0.15} {
			try(device{blur: found.blur, sharpen: max(0, was.sharpen+by), tone: found.tone})
		}
		if found == was {
			break
		}
	}
	if min(best, usual) >= mostMisfit && t.showsRims() && len(casts) == 0 {
		// Rims there are, and another blur.
		if d, left := blurred(dev, usual, withRims); left < plainly && left < best/rimsCost {
			d.misfit = max(1, left)
			return d
		}
	}
	if best < usual/rimsCost {
		found.misfit = max(1, best)
		return found
	}
	return dev
}

// blurred is the device of another blur alone under which a cost is least, and that cost, from that of
// the usual one.
func blurred(dev device, cost float64, of func(device) float64) (device, float64) {
	found, best := dev, cost
	try := func(blur float64) bool {
		d := device{blur: blur, tone: 1}
		c := of(d)
		if c < best {
			found, best = d, c
			return true
		}
		return false
	}
	for _, v := range blurs {
		if v != dev.blur {
			try(v)
		}
	}
	for range 4 {
		was := found.blur
		if down := try(was * 0.93); !down && !try(was*1.07) {
			break
		}
	}
	return found, best
}

// voting is how many in a hundred of the stretches judge the device, worthMore how much better
// another blur has to explain them, and worthWork the same of another sharpening or tone curve.
const (
	voting    = 70
	worthMore = 0.03
	worthWork = 0.12
)

// mostMissed is as badly as a stretch can be explained, mostMisfit up to where a device is known.
const (
	mostMissed = 300.0
	mostMisfit = 3.0
	softMost   = 1.6 // the same where colour is smeared
)

// rimsCost is what more an explanation with a rim counts: it has levels of its own.
const rimsCost = 1.2

// plainly is up to how many squares left per value a picture is taken as the usual device
// would have: what is not needed is not looked for.
const plainly = 1.5

// missed is how far, in mean squares of its noise, a profile lies from what a fit says the
// device would have made of it.
func (pr *profile) missed(e *even, f edgeFit, dev device, noise float64) float64 {
	lo, hi := e.bins(f.at, 0)
	sum, n := 0.0, 0.0
	for c := range pr.chans {
		code := make([]float64, hi-lo)
		for b := lo; b < hi; b++ {
			code[b-lo] = math.Pow(coded(e.shows(f, dev.blur, b, c)), dev.tone)
		}
		if dev.sharpen > 0 {
			soft := haloed(code)
			for i := range code {
				code[i] += dev.sharpen * (code[i] - soft[i])
			}
		}
		for b := lo + 3; b < hi-3; b++ {
			if pr.n[b] > 0 {
				d := min(1, max(0, code[b-lo])) - pr.code[b][c]
				sum += d * d / (noise*noise/pr.n[b] + pr.misfit()*pr.misfit())
				n++
			}
		}
	}
	return sum / max(1, n)
}
