package ramp

import "slices"

// Spread gives every place one of n colourways so that as few neighbours as can
// be share one, and each is used about equally often. near lists the neighbours
// of every place, both ways. It returns the colourway of each place and how many
// pairs of neighbours share one: none where the search finds such a choice, else
// the fewest it found within its bound.
//
// A ring of odd count needs three colourways for its join to close, a grid of
// straight rows two (common practice, no source; Brooks 1941 bounds the number
// by the greatest count of neighbours but for odd rings and complete graphs).
func Spread(near [][]int, n int) (pick []int, clashes int) {
	if n < 1 || len(near) == 0 {
		return make([]int, len(near)), 0
	}
	// Places with most neighbours first, then along the neighbours: choices show
	// early whether they hold.
	order := make([]int, 0, len(near))
	seen := make([]bool, len(near))
	for len(order) < len(near) {
		best, links := -1, -1
		for i := range near {
			if seen[i] {
				continue
			}
			k := 0
			for _, j := range near[i] {
				if seen[j] {
					k++
				}
			}
			if k*len(near)+len(near[i]) > links {
				best, links = i, k*len(near)+len(near[i])
			}
		}
		seen[best] = true
		order = append(order, best)
	}
	s := spread{near: near, n: n, order: order, pick: make([]int, len(near)), used: make([]int, n), budget: spreadTries}
	for i := range s.pick {
		s.pick[i] = -1
	}
	s.least = len(near)*len(near) + 1
	s.place(0, 0)
	return s.best, s.least
}

// spreadTries bounds the search; 40 places in rows, rings and grids need a few
// hundred.
const spreadTries = 200000

type spread struct {
	near   [][]int
	n      int
	order  []int
	pick   []int
	used   []int
	best   []int
	least  int
	budget int
}

func (s *spread) place(at, clashes int) {
	s.budget--
	if clashes >= s.least || s.budget < 0 && s.best != nil {
		return
	}
	if at == len(s.order) {
		s.best, s.least = slices.Clone(s.pick), clashes
		return
	}
	i := s.order[at]
	// The least used first; one not used yet stands for all of them.
	ways := make([]int, 0, s.n)
	fresh := false
	for w := range s.n {
		if s.used[w] == 0 {
			if fresh {
				continue
			}
			fresh = true
		}
		ways = append(ways, w)
	}
	slices.SortStableFunc(ways, func(a, b int) int { return s.used[a] - s.used[b] })
	for _, w := range ways {
		c := 0
		for _, j := range s.near[i] {
			if s.pick[j] == w {
				c++
			}
		}
		s.pick[i] = w
		s.used[w]++
		s.place(at+1, clashes+c)
		s.used[w]--
		s.pick[i] = -1
		if s.least == 0 {
			return
		}
	}
}
