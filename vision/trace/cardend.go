package trace

import (
	"math"

	"ochrestone/vision/picture"
)

// goodFit is up to how many squares left per value an explanation will do.
const goodFit = 1.6

// stretch is what was made of one stretch of an edge.
type stretch struct {
	mid      int // point of the line in its middle
	seen     profile
	plain    edgeFit           // without a rim
	shades   float64           // variance of where the card ends over the shadows that may lie beside it, pixels²
	fits     [rimTried]edgeFit // with a rim of every width, where they were looked at
	asked    bool
	first    edgeFit // with a rim of a middling width, where it was asked
	told     bool    // every width was looked at
	needless bool    // all is explained without one, on a sheet where nothing stands in for it
	fit      edgeFit // the one taken
	ring     bool    // its line shows the core of the card somewhere
	faint    float64 // how much less the piece stands off at its edge than further in: 0 not at all, 1 not to be seen
	sd       float64 // standard deviation of where the card ends, pixels
	level    [3]float64
	fall     [3]float64 // towards the outside
}

// mostOff is how far from the line, pixels, its half level can be from the end of the card
// without the line having followed something else.
const mostOff = 1.5

// leastFall is the share of a piece's contrast with the sheet that its edge has at least, in
// whatever shadow it lies.
const leastFall = 0.3

// look finds where the card ends in a profile if it has no rim.
func (e *even) look(blur float64, casts []shadow, hint *shadow) edgeFit {
	if e.hi-e.lo < 16 {
		return edgeFit{}
	}
	f := e.plain(blur, 0, casts, hint)
	if len(casts) == 0 {
		return f
	}
	if f.ok && f.chi < goodFit*f.n && math.Abs(f.at) < mostOff && e.stands(f) {
		return f
	}
	for _, at := range e.places(blur) {
		if f.ok && math.Abs(at-f.at) < 0.7 {
			continue
		}
		g := e.plain(blur, at, casts, nil)
		if !g.ok || f.ok && e.stands(f) && !e.stands(g) {
			continue
		}
		if !f.ok || !e.stands(f) && e.stands(g) || g.chi/g.n < f.chi/f.n {
			f = g
		}
	}
	return f
}

// stands reports whether a piece stands off the sheet at the edge of a fit much as it does anywhere further in.
func (e *even) stands(f edgeFit) bool { return 1-e.faint(f) > leastFall }

// faint is how much less a piece stands off the sheet at the edge of a fit than anywhere further in.
func (e *even) faint(f edgeFit) float64 {
	at, whole := 0.0, 0.0
	for c := range e.chans {
		at += (f.in[c] - f.out[c]) * (f.in[c] - f.out[c])
	}
	to := min(e.hi, int((f.at+profileIn)/profileBin))
	for b := e.lo + 1; b < to-1; b++ {
		one := 0.0
		for c := range e.chans {
			d := (e.v[b-1][c]+e.v[b][c]+e.v[b+1][c])/3 - e.sheet[c]
			one += d * d
		}
		whole = max(whole, one)
	}
	if whole == 0 {
		return 1
	}
	return max(0, 1-math.Sqrt(at/whole))
}

// take settles on a width of rim between two tried.
func (s *stretch) take(width, perMM, share float64) {
	pr := &s.seen
	s.fit = s.plain
	if width > 0 {
		s.fit = s.with(width, perMM, share)
	}
	s.level = pr.linearAt(s.fit.at)
	a, b := pr.linearAt(s.fit.at-0.8), pr.linearAt(s.fit.at+0.8)
	for c := range s.fall {
		s.fall[c] = a[c] - b[c]
	}
}

// with is the fit with a rim of a width between two tried; where none were tried, as much of
// it lies past where the card seemed to end as where others were.
func (s *stretch) with(width, perMM, share float64) edgeFit {
	k := 0
	for k+2 < rimTried && rimWide(k+1, perMM) <= width {
		k++
	}
	a, b := rimWide(k, perMM), rimWide(k+1, perMM)
	t := min(1, (width-a)/(b-a))
	if !s.told || !s.fits[k].ok || !s.fits[k+1].ok {
		f := s.plain
		f.at, f.rim = f.at+share*width, width
		return f
	}
	f := s.fits[k]
	f.at, f.rim = f.at+t*(s.fits[k+1].at-f.at), width
	return f
}

// past is the share of the widths of rims that lies past where the card seemed to end without.
func past(s []stretch, widths []float64, perMM float64) float64 {
	var shares []float64
	for i := range s {
		if s[i].told && widths[i] > 0 {
			shares = append(shares, (s[i].with(widths[i], perMM, 1).at-s[i].plain.at)/widths[i])
		}
	}
	if len(shares) == 0 {
		return 1
	}
	return median(shares)
}

func coded(v float64) float64 { return picture.FromLinear(min(1, max(0, v))) }

// muchOf is the share of the sharpest step that another has to have to be an edge too.
const muchOf = 0.05

// places are where the card may end: at the sharp steps, and inside of a line that has
// followed the end of a shadow.
func (e *even) places(blur float64) []float64 {
	steps := e.steps(blur)
	most := 0.0
	for _, s := range steps {
		most = max(most, s.gain)
	}
	out := []float64{-2, -4}
	for _, s := range steps {
		if s.gain >= muchOf*most {
			out = append(out, s.at)
		}
	}
	return out
}

// linearAt is the picture's own linear light at a distance.
func (pr *profile) linearAt(d float64) (v [3]float64) {
	k := (d+profileIn)/profileBin - 0.5
	b := int(math.Floor(k))
	for c := range pr.chans {
		lo, hi := min(max(0, b), profileLen-1), min(max(0, b+1), profileLen-1)
		for lo > 0 && pr.n[lo] == 0 {
			lo--
		}
		for hi < profileLen-1 && pr.n[hi] == 0 {
			hi++
		}
		if pr.n[lo] == 0 || pr.n[hi] == 0 {
			continue
		}
		t := (d - pr.at[lo]) / max(1e-6, pr.at[hi]-pr.at[lo])
		v[c] = picture.ToLinear(pr.code[lo][c]) + t*(picture.ToLinear(pr.code[hi][c])-picture.ToLinear(pr.code[lo][c]))
	}
	return v
}
