package cover

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
)

// meeting is where two patches meet while it is counted.
type meeting struct {
	straight, aslant int
	x, y             int // sums of where
}

// evened sets the errors of lengths of straight edges, 5 % too short upright and 3 % too long at an
// eighth of a turn, evenly about nought.
const evened = 2 / (0.948 + 1.026)

// measure counts the patches and where they meet. The length of an edge is told from how often it
// parts neighbouring cells in four directions, as Cauchy and Crofton's formula has it: within a
// twentieth for a straight edge however it lies.
func (p *painting) measure() {
	m := p.Map
	met := map[[2]int32]*meeting{}
	sum := make([][2]int, len(m.Patches))
	// The same few edges are met again and again along a row.
	var near [64]struct {
		key [2]int32
		of  *meeting
	}
	meet := func(a, b int32, x, y int, aslant bool) {
		if a > b {
			a, b = b, a
		}
		key := [2]int32{a, b}
		kept := &near[(a*7+b)&63]
		if kept.of == nil || kept.key != key {
			one, ok := met[key]
			if !ok {
				one = &meeting{}
				met[key] = one
			}
			kept.of, kept.key = one, key
		}
		last := kept.of
		if aslant {
			last.aslant++
			return
		}
		last.straight++
		last.x, last.y = last.x+x, last.y+y
	}
	for y := range m.h {
		row := m.at[y*m.w : (y+1)*m.w]
		var below []int32
		if y+1 < m.h {
			below = m.at[(y+1)*m.w : (y+2)*m.w]
		}
		for x := 0; x < m.w; {
			id, from := row[x], x
			for x < m.w && row[x] == id {
				x++
			}
			n := x - from
			m.Patches[id].Cells += n
			sum[id][0] += n * (from + x - 1) / 2
			sum[id][1] += n * y
		}
		for x, id := range row {
			if x+1 < m.w && row[x+1] != id {
				meet(id, row[x+1], x, y, false)
			}
			if below == nil {
				continue
			}
			if below[x] != id {
				meet(id, below[x], x, y, false)
			}
			if x+1 < m.w && below[x+1] != id {
				meet(id, below[x+1], x, y, true)
			}
			if x > 0 && below[x-1] != id {
				meet(id, below[x-1], x, y, true)
			}
		}
	}
	for i := range m.Patches {
		one := &m.Patches[i]
		one.Area = float64(one.Cells) * m.cell * m.cell
		if one.Cells > 0 {
			n := float64(one.Cells)
			one.Centre = shape.Point{X: (float64(sum[i][0])/n + 0.5) * m.cell, Y: (float64(sum[i][1])/n + 0.5) * m.cell}
		}
		if one.Thing >= 0 {
			m.Shown[one.Thing] += one.Area
		}
	}
	for key, one := range met {
		e := Edge{A: int(key[0]), B: int(key[1]), Length: evened * math.Pi / 8 * m.cell * (float64(one.straight) + float64(one.aslant)/math.Sqrt2)}
		if one.straight > 0 {
			n := float64(one.straight)
			e.At = m.centre(0, 0).Add(shape.Point{X: float64(one.x) / n * m.cell, Y: float64(one.y) / n * m.cell})
		}
		e.Apart = colour.Difference(m.Patches[e.A].Colour, m.Patches[e.B].Colour)
		m.Edges = append(m.Edges, e)
	}
	slices.SortFunc(m.Edges, func(a, b Edge) int { return cmp.Or(cmp.Compare(a.A, b.A), cmp.Compare(a.B, b.B)) })
}
