package trace

import (
	"math"
	"slices"
)

// hasEdge reports whether the profile of an edge can say more than its half level: ink has no
// card beneath it.
func (p *patch) hasEdge() bool { return !p.prints }

// mostRough is how much, coded, the inside of a stretch may vary for it to have a colour.
const mostRough = 0.08

// badFit is from how many squares left per value a stretch is not explained, mostBad the
// longest row of such stretches a line is laid across.
const (
	badFit  = 3.0
	mostBad = 5
)

// refine moves every point of a line to where the card ends there. A line that jumps from the
// edge to the end of its shadow explains nothing about the jump: it is laid across, and looked
// at again.
func (p *patch) refine(l []xy, marks drawn, dev device, likely bool) ([]xy, []stretch) {
	for round := range 3 {
		n := len(l)
		if n < 2*stretchHalf {
			return l, nil
		}
		normal := make([]xy, n)
		for i := range l {
			normal[i] = normalAt(l, i, 4)
		}
		found := p.stretches(l, normal, marks, dev, likely)
		if len(found) < 3 {
			return l, nil
		}
		var bad [][2]int
		if p.casts != nil {
			bad = unexplained(found)
		}
		if round == 2 || len(bad) == 0 {
			widths := rims(found, p.scale.PerMM, dev, likely)
			ring, share := slices.Max(widths) > 0, past(found, widths, p.scale.PerMM)
			for i := range found {
				found[i].ring = ring
				found[i].take(widths[i], p.scale.PerMM, share)
			}
			agree(found)
			return p.moved(l, normal, found), found
		}
		if round == 0 {
			found = p.closely(l, normal, marks, dev, found, bad)
		}
		for i := range found {
			found[i].take(0, p.scale.PerMM, 0)
		}
		agree(found)
		out := p.moved(l, normal, found)
		if round > 0 {
			out = across(out, normal, found, bad)
		}
		l = resample(out, 1)
	}
	return l, nil
}

// closeHalf is half of how much of a line is looked at together where it jumps, pixels.
const closeHalf = 5

// closely looks at shorter stretches in place of those that nothing explains.
func (p *patch) closely(l, normal []xy, marks drawn, dev device, found []stretch, bad [][2]int) (out []stretch) {
	n := len(l)
	drop := make([]bool, len(found))
	for _, run := range bad {
		for k := run[0]; k < run[1]; k++ {
			drop[k%len(found)] = true
		}
		from, to := found[(run[0]+len(found)-1)%len(found)].mid, found[run[1]%len(found)].mid
		for i := from + closeHalf; ((to-i)%n+n)%n > closeHalf && ((i-from)%n+n)%n < ((to-from)%n+n)%n; i += closeHalf {
			if s, ok := p.stretch(l, normal, i%n, closeHalf, marks, dev, nil); ok {
				out = append(out, s)
			}
		}
	}
	for i, s := range found {
		if !drop[i] {
			out = append(out, s)
		}
	}
	slices.SortFunc(out, func(a, b stretch) int { return a.mid - b.mid })
	return out
}

// across lays a line across short rows of stretches that nothing explains.
func across(l, normal []xy, found []stretch, bad [][2]int) []xy {
	n := len(l)
	var unsure []int
	for _, run := range bad {
		if run[1]-run[0] > mostBad {
			continue
		}
		from, to := found[(run[0]+len(found)-1)%len(found)].mid, found[run[1]%len(found)].mid
		var gap []int
		for i := from + 1; i%n != to; i++ {
			if turned(normal, i%n) {
				gap = nil // a corner is not laid across
				break
			}
			gap = append(gap, i%n)
		}
		unsure = append(unsure, gap...)
	}
	if len(unsure) > n/2 {
		return l
	}
	return bridge(l, unsure)
}

// unexplained are the rows of stretches that no fit explains, first and past the last,
// between others that are.
func unexplained(s []stretch) (runs [][2]int) {
	n := len(s)
	bad := func(i int) bool {
		q := &s[i%n]
		least := q.plain.chi
		if q.asked {
			least = min(least, q.first.chi)
		}
		if q.told {
			for _, f := range q.fits {
				least = min(least, f.chi)
			}
		}
		return least > badFit*q.plain.n && q.seen.rough < mostRough/2
	}
	for i := range s {
		if !bad(i) || bad(i+n-1) {
			continue
		}
		k := 0
		for k < n && bad(i+k) {
			k++
		}
		if k < n {
			runs = append(runs, [2]int{i, i + k})
		}
	}
	return runs
}

// stays reports whether the half level will do: it follows what a stretch has of its own, and
// the fit finds nothing but the end of the card there.
func (s *stretch) stays() bool {
	near := nearEnough
	if s.seen.chans == 1 {
		near = nearSmeared
	}
	return !s.ring && math.Abs(s.fit.at) < near
}

// nearEnough is how far, pixels, a plain edge may lie from its half level by noise alone;
// nearSmeared the same where colour is smeared.
const (
	nearEnough  = 0.25
	nearSmeared = 0.6
)

// moved is a line with every point where the stretches to both sides say that the card ends.
func (p *patch) moved(l, normal []xy, found []stretch) []xy {
	n := len(l)
	out := make([]xy, n)
	for i := range l {
		a, b, t := between(found, i, n)
		if a.stays() && b.stays() {
			out[i] = l[i]
			continue
		}
		by := a.fit.at + t*(b.fit.at-a.fit.at)
		q := xy{l[i].x + by*normal[i].x, l[i].y + by*normal[i].y}
		if k, ok := p.crossAt(q, normal[i], a, b, t); ok {
			q = xy{q.x + k*normal[i].x, q.y + k*normal[i].y}
		}
		out[i] = q
	}
	return out
}

// askedEach is of how many stretches one is asked how wide its rim is: rims change slowly.
// Those that are not explained without are asked in any case.
const askedEach = 3

// showsRims reports whether a picture is fine and true enough in colour to tell a rim by.
func (t *finder) showsRims() bool { return t.scale.PerMM > fineEnough && !t.pic.Soft }

// asks reports whether the rim of the kth stretch is to be looked at. On a dark sheet a rim
// leaves much unexplained without it; on a pale one a shadow may stand in for it, mostly.
func (p *patch) asks(s stretch, k int) bool {
	left := s.plain.chi / max(1, s.plain.n)
	switch {
	case !p.showsRims() || s.seen.rough > mostRough/2:
		return false
	case p.casts == nil:
		return left > needsRim
	default:
		return left > goodFit || k%askedEach == 0 && left > leastLeft
	}
}

const (
	needsRim  = 1.0 // squares left per value from which a rim may be there on a dark sheet
	leastLeft = 0.8 // the same on a pale one
)

// shadedEach is of how many stretches one is asked how well it tells a shadow's end and the card's from
// each other.
const shadedEach = 8

// stretches looks at a line all along.
func (p *patch) stretches(l, normal []xy, marks drawn, dev device, likely bool) (found []stretch) {
	n := len(l)
	noise := p.noise()
	var hint *shadow
	shades := -1.0
	count := max(4, n/stretchStep)
	for k := range count {
		s, ok := p.stretch(l, normal, k*n/count, stretchHalf, marks, dev, hint)
		if !ok {
			continue
		}
		hint = s.plain.cast
		if p.casts != nil {
			if k%shadedEach == 0 || shades < 0 {
				shades = s.seen.even(dev, noise).shaded(dev.blur, s.plain, p.casts)
			}
			s.shades = shades
		}
		s.needless = p.casts == nil && p.showsRims() && s.seen.rough < mostRough/2 && s.plain.chi < needsRim*s.plain.n
		if p.asks(s, k) {
			s.asked = true
			s.first = s.seen.even(dev, noise).firstRim(dev.blur, p.scale.PerMM, s.plain)
		}
		found = append(found, s)
	}
	if worthAsking(found, likely) {
		for i := range found {
			if s := &found[i]; s.asked {
				s.fits = s.seen.even(dev, noise).widths(dev.blur, p.scale.PerMM, s.plain, p.casts)
				s.told = true
			}
		}
	}
	return found
}

// stretch looks at a line about one of its points.
func (p *patch) stretch(l, normal []xy, mid, half int, marks drawn, dev device, hint *shadow) (s stretch, ok bool) {
	if s.seen, ok = p.profileAt(l, normal, mid, half, marks); !ok || s.seen.rough > mostRough || p.steady != steady && p.casts == nil {
		return s, false
	}
	s.mid = mid
	e := s.seen.even(dev, p.noise())
	s.plain = e.look(dev.blur, p.casts, hint)
	if !s.plain.ok || s.plain.at < -profileIn+2 || s.plain.at > profileOut-2 {
		return s, false
	}
	s.plain.sigma = e.unsure(s.plain, dev.blur)
	if p.casts != nil {
		s.faint = e.faint(s.plain)
	}
	return s, true
}

// pale reports whether a shadow would show on the sheet.
func (t *finder) pale() bool { return grey([3]float64(t.ground.colour())) >= paleSheet }

// noise is the standard deviation of a coded value of the picture, 0 to 1.
func (p *patch) noise() float64 { return max(1, p.ground.sigma) / 255 }

// agree lets neighbours outvote a stretch that lies far from them.
func agree(s []stretch) {
	n := len(s)
	was := slices.Clone(s)
	for i := range s {
		var at []float64
		for k := -2; k <= 2; k++ {
			at = append(at, was[((i+k)%n+n)%n].fit.at)
		}
		slices.Sort(at)
		if m := at[len(at)/2]; math.Abs(s[i].fit.at-m) > 1.5 {
			s[i].fit.at = m
			s[i].fit.sigma = max(s[i].fit.sigma, 1)
		}
	}
}

// between are the stretches before and after a point of a line of n, and how far it is from
// the one to the other.
func between(s []stretch, i, n int) (a, b stretch, t float64) {
	j, _ := slices.BinarySearchFunc(s, i, func(q stretch, i int) int { return q.mid - i })
	b, a = s[j%len(s)], s[(j+len(s)-1)%len(s)]
	gap := ((b.mid-a.mid)%n + n) % n
	if gap == 0 {
		return a, b, 0
	}
	return a, b, float64(((i-a.mid)%n+n)%n) / float64(gap)
}

// crossAt is how far from a place the picture has the level it has, nearby, where the card ends.
func (p *patch) crossAt(q, normal xy, a, b stretch, t float64) (float64, bool) {
	chans := 3
	if p.pic.Soft {
		chans = 1
	}
	var level, fall [3]float64
	size := 0.0
	for c := range chans {
		level[c] = a.level[c] + t*(b.level[c]-a.level[c])
		fall[c] = a.fall[c] + t*(b.fall[c]-a.fall[c])
		size += fall[c] * fall[c]
	}
	if size < 1e-6 {
		return 0, false
	}
	value := func(k float64) (s float64) {
		x, y := q.x+k*normal.x, q.y+k*normal.y
		if chans == 1 {
			return (p.sampleGrey(x, y) - level[0]) * fall[0]
		}
		v := p.sample(x, y)
		for c := range v {
			s += (v[c] - level[c]) * fall[c]
		}
		return s
	}
	k, ok := crossing(value)
	return k, ok && math.Abs(k) < 1
}
