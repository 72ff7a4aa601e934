package trace

import (
	"math"
	"slices"
)

// What a rim costs against the squares it explains: to be there at all, in each stretch, and
// for each width that it is away from its neighbour's. A rim has levels of its own, and would
// explain a few squares of noise. Our own numbers.
const (
	rimAtAll    = 60.0
	rimMean     = 20.0 // gain in every stretch on the mean
	rimWorked   = 2.5  // so much more where the device works over its pictures
	rimLikely   = 5.0  // the same where most other pieces show theirs
	rimHere     = 3.0
	rimNeedless = 15.0 // in a stretch that is well explained without
	rimChange   = 10.0
	mostCost    = 120.0 // that one stretch can say against a width: card is not the same everywhere
)

// rims are the widths of the rim along a closed line, pixels: those that explain its stretches
// best while they change little from one to the next (Viterbi's way round the ring, from the
// width it ends with).
func rims(s []stretch, perMM float64, dev device, likely bool) []float64 {
	var cost [][rimTried]float64
	var at []int
	none := 0.0
	for i := range s {
		if s[i].needless {
			var c [rimTried]float64
			for k := 1; k < rimTried; k++ {
				c[k] = rimNeedless
			}
			cost, at = append(cost, c), append(at, i)
			continue
		}
		if !s[i].told {
			continue
		}
		// Misfit that no width takes away counts for nothing: squares are told in its terms.
		least := math.Inf(1)
		for _, f := range s[i].fits {
			least = min(least, f.chi)
		}
		unit := max(dev.misfit, least/max(1, s[i].plain.n))
		var c [rimTried]float64
		for k, f := range s[i].fits {
			c[k] = min(mostCost, (f.chi-least)/unit)
			if k > 0 {
				c[k] += rimHere
			}
		}
		none += c[0]
		cost, at = append(cost, c), append(at, i)
	}
	out := make([]float64, len(s))
	if len(cost) == 0 {
		return out
	}
	path, total := cheapest(cost)
	thin := 0
	for _, k := range path {
		if k == 1 {
			thin++
		}
	}
	least := rimMean
	if likely {
		least = rimLikely
	}
	if dev.sharpen > 0 || dev.tone != 1 {
		least *= rimWorked
	}
	if none-total < max(rimAtAll, least*float64(len(cost))) || 2*thin > len(path) {
		return out
	}
	for i := range s {
		// Between two that were asked, in proportion.
		j, _ := slices.BinarySearch(at, i)
		a, b := (j+len(at)-1)%len(at), j%len(at)
		if j < len(at) && at[j] == i {
			a = b
		}
		t := 0.0
		if gap := ((at[b]-at[a])%len(s) + len(s)) % len(s); gap > 0 {
			t = float64(((i-at[a])%len(s)+len(s))%len(s)) / float64(gap)
		}
		out[i] = (1-t)*rimWide(path[a], perMM) + t*rimWide(path[b], perMM)
	}
	return out
}

// cheapest is the path round a ring of costs with what its changes cost.
func cheapest(cost [][rimTried]float64) ([]int, float64) {
	n := len(cost)
	best, bestAt := math.Inf(1), []int(nil)
	for first := range rimTried {
		var sum [rimTried]float64
		from := make([][rimTried]int8, n)
		for k := range sum {
			sum[k] = rimChange*math.Abs(float64(k-first)) + cost[0][k]
		}
		for i := 1; i < n; i++ {
			var next [rimTried]float64
			for k := range next {
				next[k] = math.Inf(1)
				for j := range sum {
					if v := sum[j] + rimChange*math.Abs(float64(k-j)); v < next[k] {
						next[k], from[i][k] = v, int8(j)
					}
				}
				next[k] += cost[i][k]
			}
			sum = next
		}
		if sum[first] < best {
			best = sum[first]
			path := make([]int, n)
			for i, k := n-1, first; i >= 0; i-- {
				path[i] = k
				if i > 0 {
					k = int(from[i][k])
				}
			}
			bestAt = path
		}
	}
	return bestAt, best
}

// worthAsking reports whether rims of every width are to be looked at along a line: one of a
// middling width explains something of it. That they are likely asks for less.
func worthAsking(s []stretch, likely bool) bool {
	gain, n := 0.0, 0.0
	for i := range s {
		if s[i].asked {
			gain, n = gain+min(mostCost, max(0, s[i].plain.chi-s[i].first.chi)), n+1
		}
	}
	least := rimMean / 2
	if likely {
		least = rimLikely / 2
	}
	return n > 0 && gain > least*n
}
