package depth

import (
	"math"

	"ochrestone/core/build"
	"ochrestone/core/look"
)

// Used counts the spacers that pieces stand on, by id: whole pads and strips, cut ones put
// together by their area, and one sheet or board for each level that is cut to shape.
func Used(s look.Stock, stood []Stood) map[string]int {
	area, whole := map[string]float64{}, map[string]int{}
	add := func(id string, n int, sup Support) {
		sp, ok := s.Spacer(id)
		if !ok || n < 1 {
			return
		}
		if one := sp.W * sp.H; sp.Pads() && one > 0 {
			area[id] += float64(n) * sup.Area.Area() / one
		} else {
			whole[id] += n
		}
	}
	for _, p := range stood {
		for _, sup := range p.Supports {
			if !sup.Raised || sup.Hold >= len(p.Holds) {
				continue
			}
			b := p.Holds[sup.Hold].Bond
			if b.Spacer != "" {
				add(b.Spacer, b.Levels(), sup)
			}
			for _, m := range b.Shims {
				add(m.Spacer, m.N, sup)
			}
		}
	}
	for id, a := range area {
		whole[id] += int(math.Ceil(a - 1e-6))
	}
	return whole
}

// UsedWith counts the spacers of all pieces with one of them held otherwise, and so
// supported.
func (m *Memory) UsedWith(b *build.Build, stood []Stood, i int, holds []build.Hold) map[string]int {
	all := append([]Stood(nil), stood...)
	all[i] = m.Again(b, stood, i, holds)
	return Used(b.Stock, all)
}
