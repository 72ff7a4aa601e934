// Package palette takes the main colours out of a photograph: of a bird, a
// petal, a stone.
package palette

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/vision/picture"
)

// Main is one main colour of a picture.
type Main struct {
	Colour colour.Linear
	Share  float64 // of the picture, 0 to 1
}

// Limits of what counts as a colour of its own; our own defaults.
const (
	samples    = 30_000
	firstCut   = 32   // boxes before colours alike are joined
	joinUnder  = 9.0  // CIEDE2000
	leastShare = 0.01 // of the picture
	rounds     = 8
)

// Of finds at most most main colours, lightest first, with the share of the
// picture each takes up. The picture is cut into boxes of colour half way along
// their longest side, colours alike are joined, and every pixel then goes to
// its nearest (Lloyd's method).
func Of(p *picture.Picture, most int) []Main {
	step := max(1, int(math.Sqrt(float64(p.W*p.H)/samples)))
	var labs []colour.Lab
	for y := step / 2; y < p.H; y += step {
		for x := step / 2; x < p.W; x += step {
			r, g, b := p.At(x, y)
			labs = append(labs, colour.Linear{float64(picture.Linear(r)), float64(picture.Linear(g)), float64(picture.Linear(b))}.Lab())
		}
	}
	centres := cut(labs)
	centres = join(centres, max(1, most))
	counts := settle(labs, centres)
	// Settled centres may have come near each other: join and settle again.
	for {
		fewer := join(slices.Clone(centres), max(1, most))
		if len(fewer) == len(centres) {
			break
		}
		centres = fewer
		counts = settle(labs, centres)
	}
	var out []Main
	for i, c := range centres {
		if share := float64(counts[i]) / float64(len(labs)); share >= leastShare {
			out = append(out, Main{c.Linear(), share})
		}
	}
	slices.SortStableFunc(out, func(a, b Main) int { return cmp.Compare(b.Colour.Lab().L, a.Colour.Lab().L) })
	return out
}

// settle moves the centres to the means of what is nearest to them and counts
// it.
func settle(labs, centres []colour.Lab) []int {
	var counts []int
	for range rounds {
		sums := make([]colour.Lab, len(centres))
		counts = make([]int, len(centres))
		for _, l := range labs {
			i := nearest(centres, l)
			counts[i]++
			sums[i] = colour.Lab{L: sums[i].L + l.L, A: sums[i].A + l.A, B: sums[i].B + l.B}
		}
		for i, n := range counts {
			if n > 0 {
				k := 1 / float64(n)
				centres[i] = colour.Lab{L: sums[i].L * k, A: sums[i].A * k, B: sums[i].B * k}
			}
		}
	}
	return counts
}

func nearest(centres []colour.Lab, l colour.Lab) int {
	best, at := math.Inf(1), 0
	for i, c := range centres {
		dl, da, db := c.L-l.L, c.A-l.A, c.B-l.B
		if d := dl*dl + da*da + db*db; d < best {
			best, at = d, i
		}
	}
	return at
}

// cut parts the colours into boxes, always the one with the longest side of
// all, and returns the means of the boxes.
func cut(labs []colour.Lab) []colour.Lab {
	boxes := [][]colour.Lab{slices.Clone(labs)}
	axes := []func(colour.Lab) float64{func(l colour.Lab) float64 { return l.L }, func(l colour.Lab) float64 { return l.A }, func(l colour.Lab) float64 { return l.B }}
	for len(boxes) < firstCut {
		widest, at, axis := 0.0, -1, 0
		for i, b := range boxes {
			for k, f := range axes {
				lo, hi := f(b[0]), f(b[0])
				for _, l := range b {
					lo, hi = math.Min(lo, f(l)), math.Max(hi, f(l))
				}
				if hi-lo > widest && len(b) > 1 {
					widest, at, axis = hi-lo, i, k
				}
			}
		}
		if at < 0 || widest < 2 {
			break
		}
		b := boxes[at]
		f := axes[axis]
		slices.SortStableFunc(b, func(x, y colour.Lab) int { return cmp.Compare(f(x), f(y)) })
		half := (f(b[0]) + f(b[len(b)-1])) / 2
		mid, _ := slices.BinarySearchFunc(b, half, func(x colour.Lab, v float64) int { return cmp.Compare(f(x), v) })
		mid = min(max(mid, 1), len(b)-1)
		boxes[at] = b[:mid]
		boxes = append(boxes, b[mid:])
	}
	out := make([]colour.Lab, len(boxes))
	for i, b := range boxes {
		k := 1 / float64(len(b))
		for _, l := range b {
			out[i] = colour.Lab{L: out[i].L + k*l.L, A: out[i].A + k*l.A, B: out[i].B + k*l.B}
		}
	}
	return out
}

// join puts colours alike together, nearest first, until none are alike and
// there are at most most.
func join(cs []colour.Lab, most int) []colour.Lab {
	weight := make([]float64, len(cs))
	for i := range weight {
		weight[i] = 1
	}
	for len(cs) > 1 {
		best, i, j := math.Inf(1), 0, 0
		for b := range cs {
			for a := range b {
				if d := colour.Difference(cs[a], cs[b]); d < best {
					best, i, j = d, a, b
				}
			}
		}
		if best > joinUnder && len(cs) <= most {
			break
		}
		w := weight[i] + weight[j]
		mix := func(x, y float64) float64 { return (x*weight[i] + y*weight[j]) / w }
		cs[i] = colour.Lab{L: mix(cs[i].L, cs[j].L), A: mix(cs[i].A, cs[j].A), B: mix(cs[i].B, cs[j].B)}
		weight[i] = w
		cs, weight = slices.Delete(cs, j, j+1), slices.Delete(weight, j, j+1)
	}
	return cs
}
