package finished

import (
	"math"
	"slices"
)

// labels says which piece is in view in each cell; 0 for the ground, else one more.
func (s *scene) labels() []uint8 {
	out := make([]uint8, len(s.cells.lab))
	for _, i := range s.order {
		if s.at[i] >= 0 {
			for _, c := range s.covers[i][s.at[i]] {
				out[c] = uint8(i + 1)
			}
		}
	}
	return out
}

// energy is how unevenly coloured what is in view of the pieces is: the squares of what
// cells differ from the mean of their piece, those merely odd counted no more than so far.
func (s *scene) energy(labels []uint8) (sum float64) {
	n := len(s.pieces) + 1
	mean, count := make([][3]float64, n), make([]float64, n)
	for i, l := range labels {
		c := s.cells.lab[i]
		mean[l][0], mean[l][1], mean[l][2] = mean[l][0]+float64(c[0]), mean[l][1]+float64(c[1]), mean[l][2]+float64(c[2])
		count[l]++
	}
	for l := range mean {
		for k := range 3 {
			mean[l][k] /= math.Max(1, count[l])
		}
	}
	for i, l := range labels {
		c := s.cells.lab[i]
		a, b, d := float64(c[0])-mean[l][0], float64(c[1])-mean[l][1], float64(c[2])-mean[l][2]
		sum += math.Min(oddMost, a*a+b*b+d*d)
	}
	return sum
}

// value is how well the places chosen explain the picture: cells explained and edges followed.
func (s *scene) value() float64 {
	v := 1 - s.energy(s.labels())/math.Max(1, s.plain)
	var all, followed float64
	for i, g := range s.pieces {
		l := g.Length()
		all += l
		if s.at[i] >= 0 {
			followed += l * s.places[i][s.at[i]].edge
		}
	}
	return v + edgeCount*followed/all
}

// clash is the piece of about the same size that lies where a place is; -1 for none.
func (s *scene) clash(i, k int) int {
	mine := s.covers[i][k]
	for j := range s.pieces {
		if j == i || s.at[j] < 0 {
			continue
		}
		its := s.covers[j][s.at[j]]
		if float64(len(its)) > 1.15*float64(len(mine)) || float64(len(mine)) > 1.15*float64(len(its)) {
			continue
		}
		both := 0
		for a, b := 0, 0; a < len(mine) && b < len(its); {
			switch {
			case mine[a] == its[b]:
				both, a, b = both+1, a+1, b+1
			case mine[a] < its[b]:
				a++
			default:
				b++
			}
		}
		if float64(both) > 0.7*float64(len(mine)) {
			return j
		}
	}
	return -1
}

// with is the value of all with a piece in a place, and where another then lies best whose
// place that was: j is -1 when it was nobody's.
func (s *scene) with(i, k int) (v float64, j, its int) {
	was := s.at[i]
	defer func() { s.at[i] = was }()
	if k < 0 {
		s.at[i] = k
		return s.value(), -1, 0
	}
	j = s.clash(i, k)
	s.at[i] = k
	if j < 0 {
		return s.value(), -1, 0
	}
	if j == s.lie.piece {
		return math.Inf(-1), -1, 0
	}
	had := s.at[j]
	defer func() { s.at[j] = had }()
	s.at[j] = -1
	v, its = s.value(), -1
	for n := range s.places[j] {
		if n == had || s.clash(j, n) >= 0 {
			continue
		}
		s.at[j] = n
		if u := s.value(); u > v {
			v, its = u, n
		}
	}
	return v, j, its
}

// sweep gives every piece in turn the place that explains most, until none changes.
func (s *scene) sweep() {
	s.worth = s.value()
	for range sweeps {
		changed := false
		for _, i := range s.order {
			if i == s.lie.piece {
				continue
			}
			was := s.at[i]
			best, most, other, its := was, s.worth, -1, 0
			for k := range s.places[i] {
				if k == was {
					continue
				}
				if v, j, n := s.with(i, k); v > most+1e-9 {
					best, most, other, its = k, v, j, n
				}
			}
			s.at[i], s.worth = best, most
			if other >= 0 {
				s.at[other] = its
			}
			changed = changed || best != was
		}
		if !changed {
			return
		}
	}
}

// inOrder lets a smaller piece slip under larger ones where the picture says so: under those
// it meets where it is, or, where its edge is not followed well there, in another of its places.
func (s *scene) inOrder() {
	for n := 1; n < len(s.order); n++ {
		j := s.order[n]
		if s.at[j] < 0 || j == s.lie.piece {
			continue
		}
		was, best, most := s.at[j], s.at[j], s.worth+slipWorth
		to := n
		for k := range s.places[j] {
			if k != was && (s.places[j][was].edge >= wellFollowed || s.clash(j, k) >= 0) {
				continue
			}
			s.at[j] = k
			for m := n; m > 1; m-- {
				i := s.order[m-1]
				if i == s.base || i == s.lie.piece {
					break
				}
				if s.at[i] < 0 || !s.meet(i, j) {
					continue
				}
				if v := s.under(n, m-1, s.value); v > most {
					best, most, to = k, v, m-1
				}
			}
		}
		s.at[j] = best
		if to != n {
			s.worth = most
			s.order = moved(s.order, n, to)
		}
	}
}

// under is a value with a piece of the order put further down in it.
func (s *scene) under(from, to int, value func() float64) float64 {
	was := s.order
	s.order = moved(was, from, to)
	defer func() { s.order = was }()
	return value()
}

func moved(order []int, from, to int) []int {
	out := slices.Clone(order)
	i := out[from]
	return slices.Insert(slices.Delete(out, from, from+1), to, i)
}

// wellFollowed is the share of its edge from which a piece is not sought beneath others elsewhere.
const wellFollowed = 0.9

// slipWorth is how much better all must be explained for a larger piece to lie over a smaller.
const slipWorth = 0.004

func (s *scene) meet(i, j int) bool {
	mine := map[int32]bool{}
	for _, c := range s.covers[i][s.at[i]] {
		mine[c] = true
	}
	return slices.ContainsFunc(s.covers[j][s.at[j]], func(c int32) bool { return mine[c] })
}
