package ramp

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"
)

func ring(n int) [][]int {
	out := make([][]int, n)
	for i := range out {
		out[i] = []int{(i + n - 1) % n, (i + 1) % n}
	}
	return out
}

// An odd ring cannot close with two colours and does with three; an even one
// closes with two (common practice, no source; and the textbook case of graph
// colouring).
func TestRingsClose(t *testing.T) {
	for n := 3; n <= 13; n++ {
		_, clash := Spread(ring(n), 2)
		assert.Equal(t, n%2, clash, "a ring of %d with two", n)
		pick, clash := Spread(ring(n), 3)
		assert.Zero(t, clash, "a ring of %d with three", n)
		used := map[int]int{}
		for _, p := range pick {
			used[p]++
		}
		assert.Len(t, used, 3)
	}
}

// A grid of rows and columns does with two; all colourways given are used.
func TestGridsAlternate(t *testing.T) {
	const w, h = 4, 3
	near := make([][]int, w*h)
	join := func(a, b int) { near[a], near[b] = append(near[a], b), append(near[b], a) }
	for y := range h {
		for x := range w {
			if x+1 < w {
				join(y*w+x, y*w+x+1)
			}
			if y+1 < h {
				join(y*w+x, y*w+x+w)
			}
		}
	}
	_, clash := Spread(near, 2)
	assert.Zero(t, clash)
	pick, clash := Spread(near, 5)
	assert.Zero(t, clash)
	used := map[int]int{}
	for _, p := range pick {
		used[p]++
	}
	assert.Len(t, used, 5)
	for _, n := range used {
		assert.LessOrEqual(t, n, 3)
	}
	pick, clash = Spread(nil, 3)
	assert.Empty(t, pick)
	assert.Zero(t, clash)
	_, clash = Spread(ring(4), 1)
	assert.Equal(t, 4, clash)
}

// Against trying everything.
func TestSpreadAgainstBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n, k := rapid.IntRange(1, 7).Draw(t, "places"), rapid.IntRange(1, 3).Draw(t, "colours")
		near := make([][]int, n)
		for i := range n {
			for j := range i {
				if rapid.Bool().Draw(t, "near") {
					near[i], near[j] = append(near[i], j), append(near[j], i)
				}
			}
		}
		count := func(pick []int) (c int) {
			for i := range near {
				for _, j := range near[i] {
					if j < i && pick[i] == pick[j] {
						c++
					}
				}
			}
			return c
		}
		least := n * n
		pick := make([]int, n)
		var all func(i int)
		all = func(i int) {
			if i == n {
				least = min(least, count(pick))
				return
			}
			for w := range k {
				pick[i] = w
				all(i + 1)
			}
		}
		all(0)
		got, clashes := Spread(near, k)
		if clashes != least || count(got) != clashes {
			t.Fatalf("%d clashes counted %d, least is %d", clashes, count(got), least)
		}
	})
}
