package work

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/colour"
)

// A stamp may go from one ink to the next unwashed where the next is so much darker and
// either of about its hue or nearly grey: our own defaults.
const (
	cleanStep = 8.0  // L*
	cleanHue  = 50.0 // degrees
	greyish   = 12.0 // chroma
)

// Clean reports whether a stamp may take an ink after another without a wash: the next has
// to be darker, and of about the same hue, or one of them nearly grey.
func Clean(was, next colour.Lab) bool {
	if next.L > was.L-cleanStep {
		return false
	}
	c1, c2 := math.Hypot(was.A, was.B), math.Hypot(next.A, next.B)
	if c1 < greyish || c2 < greyish {
		return true
	}
	turn := math.Abs(math.Atan2(was.B, was.A)-math.Atan2(next.B, next.A)) * 180 / math.Pi
	return min(turn, 360-turn) <= cleanHue
}

// Washes is the order in which one stamp takes inks with the fewest washes, and how many
// those are: as few chains as there can be along which none is needed, by a largest
// matching of each ink with the one after it (Dilworth's theorem by Fulkerson's
// construction), the chain with the lightest ink first.
func Washes(inks []colour.Lab) (order []int, washes int) {
	n := len(inks)
	after, before := make([]int, n), make([]int, n) // -1: none
	for i := range n {
		after[i], before[i] = -1, -1
	}
	// Near lightnesses are joined first, so that chains run evenly from light to dark.
	near := func(i int) []int {
		var out []int
		for j := range n {
			if Clean(inks[i], inks[j]) {
				out = append(out, j)
			}
		}
		slices.SortStableFunc(out, func(a, b int) int { return cmp.Compare(inks[b].L, inks[a].L) })
		return out
	}
	var tried []bool
	var join func(i int) bool
	join = func(i int) bool {
		for _, j := range near(i) {
			if tried[j] {
				continue
			}
			tried[j] = true
			if before[j] < 0 || join(before[j]) {
				after[i], before[j] = j, i
				return true
			}
		}
		return false
	}
	for i := range n {
		tried = make([]bool, n)
		join(i)
	}
	var heads []int
	for i := range n {
		if before[i] < 0 {
			heads = append(heads, i)
		}
	}
	slices.SortStableFunc(heads, func(a, b int) int { return cmp.Compare(inks[b].L, inks[a].L) })
	for _, h := range heads {
		for i := h; i >= 0; i = after[i] {
			order = append(order, i)
		}
	}
	return order, max(0, len(heads)-1)
}
