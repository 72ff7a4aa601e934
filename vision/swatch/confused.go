package swatch

import (
	"math"
	"slices"

	"ochrestone/core/colour"
)

// How much better another order has to explain a sheet to be asked about. Our own numbers,
// CIEDE2000: a drawer's colours are off by some units each, alike in every order.
const (
	shiftGain = 0.72 // of the difference as laid out, that a sheet one cell late leaves at most
	shiftMost = 3    // cells that a sheet may be late or early by
	swapGain  = 9.0  // by which a pair comes nearer when swapped, together
	swapShare = 0.55 // of what it was, at most
	swapEach  = 1.5  // by which each of the two comes nearer at least
	otherOver = 14.0 // median difference from which a sheet is another one
	leastSeen = 6    // cells that have to be known and filled
)

// confused looks for inks in the wrong cells: the whole sheet late or early, two inks swapped,
// or another sheet. A person is asked; until then the cells are not used.
func (s *Sheet) confused(expected []*colour.Linear) {
	n := min(len(s.Cells), len(expected))
	var cells []int
	for i := range n {
		if expected[i] != nil && (s.Cells[i].Usable || s.Cells[i].Trouble == Unlike) {
			cells = append(cells, i)
		}
	}
	if len(cells) < 2 {
		return
	}
	apart := func(i, j int) float64 { return colour.Difference(s.Cells[i].Colour.Lab(), expected[j].Lab()) }
	if len(cells) >= leastSeen {
		if by := s.shifted(cells, n, expected, apart); by != 0 {
			for _, i := range cells {
				s.Cells[i].Usable = false
				s.Cells[i].Trouble = Late
				if by > 0 {
					s.Cells[i].Trouble = Early
				}
			}
			return
		}
		var ds []float64
		for _, i := range cells {
			ds = append(ds, apart(i, i))
		}
		if middle(ds) > otherOver {
			for _, i := range cells {
				s.Cells[i].Trouble, s.Cells[i].Usable = Other, false
			}
			return
		}
	}
	for a, i := range cells {
		for _, j := range cells[a+1:] {
			ii, jj, ij, ji := apart(i, i), apart(j, j), apart(i, j), apart(j, i)
			if ii+jj-ij-ji > swapGain && ij+ji < swapShare*(ii+jj) && ji < jj-swapEach && ij < ii-swapEach {
				s.Cells[i].Trouble, s.Cells[i].Usable, s.Cells[i].With = Swap, false, j
				s.Cells[j].Trouble, s.Cells[j].Usable, s.Cells[j].With = Swap, false, i
			}
		}
	}
}

// shifted is by how many cells further on the inks that are seen stand on the list: 0 as laid
// out, below it where the sheet was filled late.
func (s *Sheet) shifted(cells []int, n int, expected []*colour.Linear, apart func(i, j int) float64) int {
	cost := func(by int) float64 {
		var ds []float64
		for _, i := range cells {
			if j := i + by; j >= 0 && j < n && expected[j] != nil {
				ds = append(ds, apart(i, j))
			}
		}
		if len(ds) < len(cells)*2/3 {
			return math.Inf(1)
		}
		return middle(ds)
	}
	best, least := 0, cost(0)*shiftGain
	for by := -shiftMost; by <= shiftMost; by++ {
		if by == 0 {
			continue
		}
		if c := cost(by); c < least {
			best, least = by, c
		}
	}
	return best
}

// middle is the median of some values.
func middle(v []float64) float64 {
	s := slices.Sorted(slices.Values(v))
	if len(s) == 0 {
		return 0
	}
	return s[len(s)/2]
}
