package trace

import (
	"math"
	"slices"

	"ochrestone/core/shape"
)

// How sure an outline is besides what its fits say, in pixels of standard deviation. Our own
// numbers, set so that the bench's pieces are covered.
const (
	everUnsure  = 0.12 // what smoothing and corners leave
	faintUnsure = 4.0  // for each share that a piece stands off less than half as much at its edge
	darkUnlook  = 0.15 // of an edge that was not looked at, on a dark sheet
	paleUnlook  = 0.4  // the same on a pale one, where it may be a shadow's
	badUnsure   = 0.25 // variance, for each time that a stretch leaves as much again unexplained as it may
	rimUnsure   = 0.2  // of an edge at which the core of the card shows somewhere
	turnUnsure  = 0.25 // where an outline turns a corner
	blindGain   = 6.0  // squares by which a core that shows would tell, at least
	tempered    = 4.0  // squares are this much less sure than counting them would say
)

// doubtful is the 95 % bound, mm, from which a stretch of an outline is shown as in doubt.
const doubtful = 0.06

// unsure is the standard deviation of where a stretch ends its card, pixels.
func (s *stretch) unsure() float64 {
	v := s.fit.sigma * s.fit.sigma
	if k := s.faint - 0.5; k > 0 {
		v += k * faintUnsure * k * faintUnsure
	}
	least := s.plain.chi
	if s.asked {
		least = min(least, s.first.chi)
	}
	if s.told {
		for _, f := range s.fits {
			least = min(least, f.chi)
		}
	}
	if bad := least / max(1, s.plain.n) / badFit; bad > 1 {
		v += badUnsure * (bad - 1)
	}
	v += s.shades
	if s.ring {
		v += rimUnsure * rimUnsure
		if s.told {
			v += s.spread(least)
		}
	}
	return math.Sqrt(v)
}

// shaded is the variance of where the card ends over the shadows that explain a profile nearly as well
// as that of a fit.
func (e *even) shaded(blur float64, f edgeFit, casts []shadow) float64 {
	unit := max(1, f.chi/max(1, f.n))
	lo, hi := e.bins(f.at, 0)
	var w, square float64
	for i := range casts {
		g := e.settle(blur, f.at, 0, lo, hi, &casts[i])
		if !g.ok || !e.stands(g) {
			continue
		}
		k := math.Exp(-max(0, g.chi-f.chi) / (2 * tempered * unit))
		off := g.at - f.at
		w, square = w+k, square+k*off*off
	}
	if w == 0 {
		return 0
	}
	return square / w
}

// spread is the variance of where the card ends over the widths its rim may have.
func (s *stretch) spread(least float64) float64 {
	unit := max(1, least/max(1, s.plain.n))
	var w, sum, square float64
	for _, f := range s.fits {
		if !f.ok {
			continue
		}
		k := math.Exp(-(f.chi - least) / (2 * tempered * unit))
		w, sum, square = w+k, sum+k*f.at, square+k*f.at*f.at
	}
	if w == 0 {
		return 0
	}
	mean := sum / w
	off := s.fit.at - mean
	return max(0, square/w-mean*mean) + off*off
}

// blind reports whether a stretch would look the same if the core of the card showed.
func (s *stretch) blind(dev device) bool {
	if s.fit.rim > 0 {
		return false
	}
	return s.first.ok && s.first.chi-s.plain.chi < blindGain*dev.misfit
}

// unlooked is how sure an edge is whose profile was not read, pixels.
func (p *patch) unlooked() float64 {
	if p.casts == nil {
		return darkUnlook
	}
	return paleUnlook
}

// doubts is the standard deviation of every point of a line, pixels.
func doubts(found []stretch, l []xy, unlooked float64) []float64 {
	n := len(l)
	out := make([]float64, n)
	normal := make([]xy, n)
	for i := range l {
		normal[i] = normalAt(l, i, 3)
	}
	if len(found) == 0 {
		for i := range out {
			out[i] = math.Hypot(everUnsure, unlooked)
			if turned(normal, i) {
				out[i] = math.Hypot(out[i], turnUnsure)
			}
		}
		return out
	}
	for i := range found {
		found[i].sd = found[i].unsure()
	}
	for i := range out {
		a, b, t := between(found, i, n)
		// Between two the card is where they say as far as they agree.
		apart := (a.fit.at - b.fit.at) * t * (1 - t)
		out[i] = math.Sqrt(everUnsure*everUnsure + (1-t)*a.sd*a.sd + t*b.sd*b.sd + apart*apart)
		if turned(normal, i) {
			out[i] = math.Hypot(out[i], turnUnsure)
		}
	}
	return out
}

// sureness is how near its outline a piece is, and where it is in doubt.
func (t *finder) sureness(e edge) (mm float64, doubt []shape.Ring) {
	const each = 1.96
	var all []float64
	for i, l := range e.lines {
		if i >= len(e.sure) {
			continue
		}
		var run shape.Ring
		for k, sd := range e.sure[i] {
			by := each * sd / t.scale.PerMM
			all = append(all, by)
			if by > doubtful && k < len(l) {
				run = append(run, t.scale.Place(l[k].x, l[k].y))
				continue
			}
			if len(run) > 1 {
				doubt = append(doubt, run)
			}
			run = nil
		}
		if len(run) > 1 {
			doubt = append(doubt, run)
		}
	}
	if len(all) == 0 {
		return 0, nil
	}
	slices.Sort(all)
	return all[len(all)*95/100], doubt
}

// A sheet is white from so much light on: the core of card is as light, and does not show
// beside it where no shadow falls.
const whiteSheet = 0.5

// unseenCore says that white cores would not show, if there are any.
func (t *finder) unseenCore(edges []edge) []string {
	g := [3]float64(t.ground.colour())
	if grey(g) < whiteSheet || saturation(g) > corePlain || t.prints {
		return nil
	}
	blind, looked := 0, 0
	for _, e := range edges {
		blind, looked = blind+e.blind, looked+e.looked
	}
	if looked == 0 || 3*blind < looked {
		return nil
	}
	return []string{"On a white sheet the white core of a card does not show where no shadow falls beside it: outlines of card with a white core may lie up to its width, 0.1 to 0.3 mm, too far in. Scan such card on a dark sheet."}
}
