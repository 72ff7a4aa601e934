package proof

import (
	"fmt"
	"math"

	"ochrestone/core/colour"
	"ochrestone/vision/picture"
)

// anyInk stands for an ink nobody knows while the whole print is looked for.
var anyInk = colour.FilmFrom(colour.Linear{0.4, 0.4, 0.4}, colour.Linear{0.9, 0.9, 0.9}, 0.04)

// Numbers for inks nobody knows.
const (
	fewInside = 5 // pixels
	dyeHides  = 0.04
)

// wellInside are distances, mm from every edge, at which colours are told before
// layers are found, the best first: no hand is off by more than the first, but a
// narrow layer has no place so far inside.
var wellInside = []float64{1.7, 1.2, 0.8, 0.5}

// guess learns what the layers are printed in from the places so far from every
// edge as it is taken to lie: they show the sets of layers whatever each is off
// by. A layer's film is what it does to the paper, or, where it lies on others
// only, what it does to those. Of several distances the first counts that tells
// of a layer.
func (m *model) guess(p *Plane, by ...float64) error {
	told := make([]bool, len(m.layers))
	classes := make([]*colour.Linear, len(m.classes))
	for _, mm := range by {
		g := m.gather(p, mm)
		for i := range m.layers {
			if told[i] {
				continue
			}
			if f, ok := g.film(i); ok {
				m.layers[i].Film, told[i] = colour.FilmFrom(f.Over(m.paper, 1), m.paper, dyeHides), true
			}
		}
		for mask := range classes {
			if c, ok := g.seen(mask); ok && classes[mask] == nil {
				classes[mask] = &c
			}
		}
	}
	for i, ok := range told {
		if !ok {
			return &picture.Problem{What: fmt.Sprintf("What %s is printed in cannot be told from the picture: it is too narrow.", m.layers[i].Label), Mend: "Give the colours the inks dry to."}
		}
	}
	m.foretell()
	for mask, c := range classes {
		if c != nil {
			m.classes[mask] = *c
		}
	}
	return nil
}

// gathered are the colours of the sets of layers at places clear of edges.
type gathered struct {
	sums   []colour.Linear
	counts []float64
}

func (m *model) gather(p *Plane, by float64) gathered {
	g := gathered{make([]colour.Linear, len(m.classes)), make([]float64, len(m.classes))}
	m.clearBy(p, 1, by, func(x, y, mask int) {
		q := p.at(x, y)
		for c := range q {
			g.sums[mask][c] += q[c]
		}
		g.counts[mask]++
	})
	return g
}

func (g gathered) seen(mask int) (c colour.Linear, ok bool) {
	for i := range c {
		c[i] = g.sums[mask][i] / g.counts[mask]
	}
	return c, g.counts[mask] >= fewInside
}

// film is what layer i adds where it lies, against the same without it: the mean
// over what it lies on, by how much of each is seen.
func (g gathered) film(i int) (f colour.Film, ok bool) {
	weight := 0.0
	for mask := range g.sums {
		if mask>>i&1 == 1 {
			continue
		}
		off, ok1 := g.seen(mask)
		on, ok2 := g.seen(mask | 1<<i)
		if !ok1 || !ok2 {
			continue
		}
		w := math.Min(g.counts[mask], g.counts[mask|1<<i])
		one := colour.FilmFrom(on, off, 0)
		for c := range f.T {
			f.T[c] += w * one.T[c]
		}
		weight += w
	}
	for c := range f.T {
		f.T[c] /= weight
	}
	return f, weight > 0
}
