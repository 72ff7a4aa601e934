package trace

import (
	"math"
)

// Reach of a fit from the edge, in pixels: into the piece past its rim, and onto the sheet.
const (
	fitIn  = 6.0
	fitOut = 9.0
)

// How nearly the sheet beside a piece is what the whole picture says of it, and how even it
// is over the reach of a fit, shares.
const (
	sheetKnown = 0.02
	sheetEven  = 0.02
)

// mostTerms is how many terms a fit can have: two inside, a rim and two outside per channel.
const mostTerms = 15

// edgeFit is one explanation of a profile: the piece, perhaps the core of its card, then the
// sheet, which a shadow may darken.
type edgeFit struct {
	at    float64 // where the card ends, pixels from the line
	rim   float64 // how wide its core shows, pixels; 0 if it does not
	chi   float64 // weighted sum of squares left
	n     float64 // values explained
	in    [3]float64
	core  [3]float64
	out   [3]float64 // the sheet at the edge
	cast  *shadow
	terms [mostTerms]float64
	sigma float64 // standard deviation of at by noise and misfit, pixels
	ok    bool
}

// explain fits levels by least squares where the card ends at a place and its rim is so wide.
// A shadow of that shape may lie on a pale sheet; nil: the sheet is dark, and its levels are free.
func (e *even) explain(blur, at, rim float64, lo, hi int, dark *shadow) (f edgeFit) {
	pale := dark != nil
	f.at, f.rim, f.cast = at, rim, dark
	inside := 2
	if rim > 0 {
		inside = 3
	}
	outside, shared := 2, 0
	if pale {
		outside, shared = 0, 3
	}
	each := inside + outside
	terms := e.chans*each + shared
	var m [mostTerms][mostTerms]float64
	var y [mostTerms]float64
	var row [6]float64
	var shade [3]float64
	base := e.chans * each
	for b := lo; b < hi; b++ {
		d := e.at[b]
		a := step(d, at, blur)
		ai := a
		if rim > 0 {
			ai = step(d, at-rim, blur)
			row[2] = a - ai
		}
		row[0], row[1] = ai, ai*(d-at+rim)/fitIn
		t := max(0, d-at) / fitOut
		if pale {
			shade = [3]float64{1 - a, (1 - a) * t, (1 - a) * dark.at(d-at)}
		} else {
			row[inside], row[inside+1] = 1-a, (1-a)*t
		}
		for c := range e.chans {
			w := e.weight[b][c]
			if w == 0 {
				continue
			}
			v, s, o := e.v[b][c], e.sheet[c], c*each
			for i := range each {
				wi := w * row[i]
				for j := 0; j <= i; j++ {
					m[o+i][o+j] += wi * row[j]
				}
				y[o+i] += wi * v
			}
			for i := range shared {
				wi := w * s * shade[i]
				for j := range each {
					m[base+i][o+j] += wi * row[j]
				}
				for j := 0; j <= i; j++ {
					m[base+i][base+j] += wi * s * shade[j]
				}
				y[base+i] += wi * v
			}
			f.chi += w * v * v
			f.n++
		}
	}
	if pale {
		// The sheet is known, nearly, and nearly even.
		m[base][base] += 1 / (sheetKnown * sheetKnown)
		y[base] += 1 / (sheetKnown * sheetKnown)
		f.chi += 1 / (sheetKnown * sheetKnown)
		m[base+1][base+1] += 1 / (sheetEven * sheetEven)
	}
	if int(f.n) <= terms+2 || !solve(&m, &y, terms, &f.chi) {
		return edgeFit{chi: math.Inf(1)}
	}
	for c := range e.chans {
		o := c * each
		f.in[c] = y[o]
		f.core[c] = y[o]
		if rim > 0 {
			f.core[c] = y[o+2]
		}
		if pale {
			f.out[c] = e.sheet[c] * (y[base] + y[base+2]*dark.at(0))
		} else {
			f.out[c] = y[o+inside]
		}
	}
	f.terms = y
	f.n -= float64(terms)
	f.ok = !pale || y[base+2] < 0.02 && y[base]+y[base+2]*dark.at(0) > 0.15
	if !f.ok {
		f.chi = math.Inf(1) // no shadow is brighter than the sheet, none quite black
	}
	return f
}

// shows is what a fit says that a profile shows, in linear light.
func (e *even) shows(f edgeFit, blur float64, b, c int) float64 {
	d := e.at[b]
	a, ai := step(d, f.at, blur), step(d, f.at-f.rim, blur)
	t := max(0, d-f.at) / fitOut
	inside, outside := 2, 2
	if f.rim > 0 {
		inside = 3
	}
	if f.cast != nil {
		outside = 0
	}
	k := f.terms[(inside+outside)*c:]
	v := ai * (k[0] + k[1]*(d-f.at+f.rim)/fitIn)
	if f.rim > 0 {
		v += (a - ai) * k[2]
	}
	if f.cast == nil {
		return v + (1-a)*(k[inside]+k[inside+1]*t)
	}
	s := f.terms[inside*e.chans:]
	return v + (1-a)*e.sheet[c]*(s[0]+s[1]*t+s[2]*f.cast.at(d-f.at))
}

// solve is Cholesky's for the lower triangle of a symmetric system in place; what the
// solution explains is taken off the sum of squares.
func solve(m *[mostTerms][mostTerms]float64, y *[mostTerms]float64, n int, left *float64) bool {
	for i := range n {
		m[i][i] += 1e-6*m[i][i] + 1e-9
		for j := 0; j <= i; j++ {
			s := m[i][j]
			for k := range j {
				s -= m[i][k] * m[j][k]
			}
			if i == j {
				if s <= 0 {
					return false
				}
				m[i][i] = math.Sqrt(s)
			} else {
				m[i][j] = s / m[j][j]
			}
		}
		s := y[i]
		for k := range i {
			s -= m[i][k] * y[k]
		}
		y[i] = s / m[i][i]
		*left -= y[i] * y[i]
	}
	for i := n - 1; i >= 0; i-- {
		for k := i + 1; k < n; k++ {
			y[i] -= m[k][i] * y[k]
		}
		y[i] /= m[i][i]
	}
	*left = max(0, *left)
	return true
}

// Widths of a rim that are tried, mm: none, then from the least on.
const (
	rimFirst = 0.06
	rimEach  = 0.045
	rimTried = 8
)

// rimWide is the width of a rim tried, pixels.
func rimWide(k int, perMM float64) float64 {
	if k == 0 {
		return 0
	}
	return (rimFirst + rimEach*float64(k-1)) * perMM
}

// plain explains a profile without a rim, from a place on; a hint is the shadow a neighbour has.
func (e *even) plain(blur, at float64, casts []shadow, hint *shadow) (f edgeFit) {
	lo, hi := e.bins(at, 0)
	dark := hint
	if dark == nil || len(casts) == 0 {
		dark = e.fitting(blur, at, 0, lo, hi, casts)
	}
	f = e.settle(blur, at, 0, lo, hi, dark)
	if len(casts) == 0 || f.ok && f.chi < goodFit*f.n {
		return f
	}
	for range 3 {
		from := at
		if f.ok {
			from = f.at
		}
		g := e.settle(blur, from, 0, lo, hi, e.fitting(blur, from, 0, lo, hi, casts))
		if !g.ok || g.chi > 0.98*f.chi {
			break
		}
		f = g
	}
	return f
}

// bins are those of a fit whose card ends about a place, and whose rim may be so wide.
func (e *even) bins(at, rim float64) (lo, hi int) {
	return max(e.lo, int((at-rim-fitIn+profileIn)/profileBin)), min(e.hi, int((at+rim+fitOut+profileIn)/profileBin))
}

// firstRim is the explanation with a rim of a middling width, outward or inward of where the
// card seems to end without one.
func (e *even) firstRim(blur, perMM float64, plain edgeFit) edgeFit {
	w := rimWide(3, perMM)
	lo, hi := e.bins(plain.at, 0)
	best := edgeFit{chi: math.Inf(1)}
	for _, from := range [2]float64{plain.at + w, plain.at} {
		if f := e.settle(blur, from, w, lo, hi, plain.cast); f.ok && f.chi < best.chi {
			best = f
		}
	}
	return best
}

// widths explains a profile with every width of rim, the inner or the outer foot of which lies
// where the card seems to end without one.
func (e *even) widths(blur, perMM float64, plain edgeFit, casts []shadow) (fits [rimTried]edgeFit) {
	lo, hi := e.bins(plain.at, rimWide(rimTried-1, perMM))
	mid := rimWide(3, perMM)
	trial := []*shadow{nil}
	if len(casts) > 0 {
		trial = []*shadow{plain.cast, e.fitting(blur, plain.at+mid, mid, lo, hi, casts)}
	}
	fits[0] = e.settle(blur, plain.at, 0, lo, hi, plain.cast)
	if len(casts) > 0 && (!fits[0].ok || fits[0].chi > goodFit*fits[0].n) {
		if f := e.settle(blur, plain.at, 0, lo, hi, e.fitting(blur, plain.at, 0, lo, hi, casts)); f.chi < fits[0].chi {
			fits[0] = f
		}
	}
	if len(casts) > 0 && fits[0].ok {
		fits[0] = e.shaped(blur, fits[0], lo, hi, perMM)
	}
	least := math.Inf(1)
	for k := 1; k < rimTried; k++ {
		w := rimWide(k, perMM)
		fits[k] = edgeFit{chi: math.Inf(1)}
		for _, from := range [2]float64{plain.at + w, plain.at} {
			for _, dark := range trial {
				if f := e.settle(blur, from, w, lo, hi, dark); f.ok && f.chi < fits[k].chi {
					fits[k] = f
				}
			}
		}
		least = min(least, fits[k].chi)
	}
	if len(casts) == 0 || fits[0].chi-least < rimMean {
		return fits
	}
	// Each width near the best has the shadow that suits it.
	for k := 1; k < rimTried; k++ {
		for fits[k].ok && fits[k].chi < least+3*rimMean {
			f := fits[k]
			if g := e.settle(blur, f.at, f.rim, lo, hi, e.fitting(blur, f.at, f.rim, lo, hi, casts)); g.ok && g.chi < 0.99*f.chi {
				fits[k] = g
				continue
			}
			break
		}
	}
	return fits
}

// rimmed is the best explanation of a profile with a rim, its width settled too.
func (e *even) rimmed(blur, perMM float64, plain edgeFit, casts []shadow) edgeFit {
	fits := e.widths(blur, perMM, plain, casts)
	best := edgeFit{chi: math.Inf(1)}
	for _, f := range fits[1:] {
		if f.ok && f.chi < best.chi {
			best = f
		}
	}
	lo, hi := e.bins(plain.at, rimWide(rimTried-1, perMM))
	for h := rimEach * perMM / 2; h > 0.1 && best.ok; h /= 2 {
		was := best
		for _, by := range [2]float64{-h, h} {
			for _, at := range [2]float64{was.at, was.at + by} {
				if f := e.settle(blur, at, was.rim+by, lo, hi, was.cast); f.ok && f.chi < best.chi {
					best = f
				}
			}
		}
	}
	return best
}

// shaped moves a shadow between the shapes tried: before a rim is said to be there, the sheet
// gets all the shadow it may have.
func (e *even) shaped(blur float64, f edgeFit, lo, hi int, perMM float64) edgeFit {
	scale := 1.25
	for range 8 {
		was := f.chi
		d := *f.cast
		var more []shadow
		if d.fall > 0 {
			more = []shadow{{fall: d.fall * scale}, {fall: d.fall / scale}}
		} else if d != noShadow {
			by := (scale - 1) * max(d.soft, 0.2*perMM)
			more = []shadow{{far: d.far + by, soft: d.soft}, {far: d.far - by, soft: d.soft}, {far: d.far, soft: d.soft * scale}, {far: d.far, soft: d.soft / scale}}
		}
		for _, m := range more {
			if g := e.explain(blur, f.at, 0, lo, hi, &m); g.ok && g.chi < f.chi {
				f = g
			}
		}
		if g := e.settle(blur, f.at, 0, lo, hi, f.cast); g.ok && g.chi < f.chi {
			f = g
		}
		if f.chi > 0.99*was {
			if scale < 1.1 {
				break
			}
			scale = math.Sqrt(scale)
		}
	}
	return f
}

// fitting is the shadow that explains most with the card ending at a place; nil if there is
// none to choose from.
func (e *even) fitting(blur, at, rim float64, lo, hi int, casts []shadow) (best *shadow) {
	least := math.Inf(1)
	for i := range casts {
		if f := e.explain(blur, at, rim, lo, hi, &casts[i]); f.chi < least {
			least, best = f.chi, &casts[i]
		}
	}
	if best == nil && len(casts) > 0 {
		best = &casts[0]
	}
	return best
}

// settle moves the end of the card to where the least is left unexplained.
func (e *even) settle(blur, at, rim float64, lo, hi int, dark *shadow) edgeFit {
	if hi-lo < 10 {
		return edgeFit{chi: math.Inf(1)}
	}
	start := at
	best := e.explain(blur, at, rim, lo, hi, dark)
	h := 0.5
	for range 6 {
		a, c := e.explain(blur, best.at-h, rim, lo, hi, dark), e.explain(blur, best.at+h, rim, lo, hi, dark)
		bend := a.chi - 2*best.chi + c.chi
		was := best.at
		next := best
		for _, t := range [2]edgeFit{a, c} {
			if t.ok && t.chi < next.chi {
				next = t
			}
		}
		if bend > 0 && !math.IsInf(bend, 0) {
			to := best.at + min(max(h*(a.chi-c.chi)/(2*bend), -1.5), 1.5)
			if t := e.explain(blur, to, rim, lo, hi, dark); t.ok && t.chi < next.chi {
				next = t
			}
		}
		best = next
		if math.Abs(best.at-start) > 4 {
			break
		}
		if math.Abs(best.at-was) < 0.02 {
			if h < 0.2 {
				break
			}
			h /= 3
		}
	}
	return best
}

// unsure is the standard deviation of where a fit ends its card, pixels, by noise and by what
// the fit leaves unexplained: from how fast that grows as the end is moved.
func (e *even) unsure(f edgeFit, blur float64) float64 {
	const h = 0.3
	lo, hi := e.bins(f.at, 0)
	f = e.explain(blur, f.at, f.rim, lo, hi, f.cast)
	a, c := e.explain(blur, f.at-h, f.rim, lo, hi, f.cast), e.explain(blur, f.at+h, f.rim, lo, hi, f.cast)
	bend := min(a.chi, c.chi) - f.chi
	if !f.ok || bend <= 0 || math.IsInf(bend, 0) {
		return mostUnsure
	}
	return min(mostUnsure, h*math.Sqrt(max(1, f.chi/max(1, f.n))/bend))
}

// mostUnsure is as unsure as a fit can be, pixels.
const mostUnsure = 3.0
