package shape

import "math"

// Pinched reports whether the region may have a place narrower than 2r mm that is at least long
// mm from end to end: false only where drawing it in by r and letting it out again by r and give
// loses nothing so long. It looks at discs of radius r that touch the edge from within, one each
// fifth of a millimetre: all that matters of the sweep at a small part of its price. Of a
// negative r it looks at gaps, from without.
func (g Region) Pinched(r, give, long float64) bool {
	const step = 0.2
	in := math.Copysign(math.Abs(r)+give/2, r)
	b := g.Bounds()
	pad := Point{2 * math.Abs(in), 2 * math.Abs(in)}
	near := newEdgeGrid(g.edges(), Box{b.Min.Sub(pad), b.Max.Add(pad)})
	var tight []Box // stretches of the edge that no disc touches
	for _, e := range g.edges() {
		d := e.b.Sub(e.a)
		l := d.Len()
		if l == 0 {
			continue
		}
		to := Point{-d.Y, d.X}.Scale(in / l)
		n := math.Ceil(l / step)
		for i := 0.5; i < n; i++ {
			p := e.a.Add(d.Scale(i / n))
			if near.within(p.Add(to), math.Abs(r)) {
				tight = joined(tight, Box{p, p}, 2*math.Abs(in)+step)
			}
		}
	}
	for _, t := range tight {
		if max(t.W(), t.H())+2*step >= long {
			return true
		}
	}
	return false
}

// joined is boxes with one more, those that come within d of it made one with it.
func joined(all []Box, b Box, d float64) []Box {
	for i := 0; i < len(all); {
		o := all[i]
		if !(Box{b.Min.Sub(Point{d, d}), b.Max.Add(Point{d, d})}).Meets(o) {
			i++
			continue
		}
		b = Box{Point{min(b.Min.X, o.Min.X), min(b.Min.Y, o.Min.Y)}, Point{max(b.Max.X, o.Max.X), max(b.Max.Y, o.Max.Y)}}
		all[i] = all[len(all)-1]
		all, i = all[:len(all)-1], 0 // it is larger now
	}
	return append(all, b)
}
