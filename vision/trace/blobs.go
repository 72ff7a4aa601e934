package trace

import (
	"cmp"
	"math"
	"slices"
)

// run is a stretch of a row that is not ground.
type run struct {
	y, x0, x1 int // x1 is past the end
	blob      int
}

// blob is a connected set of runs.
type blob struct {
	runs           []run
	x0, y0, x1, y1 int // box, past the end
	n              int
}

// cell is the side, in pixels, of the squares in which the sheet counts as one
// colour.
const cell = 16

// blobs finds the connected parts of the picture that are not ground.
func (t *finder) blobs() []blob {
	t.differ()
	t.level = uint8(min(60, max(11, 4.5*t.ground.sigma+5)))
	rows := t.mark()
	return t.join(rows)
}

// differ fills diff: the greatest difference of a channel from the ground.
func (t *finder) differ() {
	w, h := t.pic.W, t.pic.H
	t.diff = make([]uint8, w*h)
	parallelRows((h+cell-1)/cell, func(j int) {
		var sheet [3]uint8
		for i := range (w + cell - 1) / cell {
			for c, v := range t.ground.at(float64(i*cell)+cell/2, float64(j*cell)+cell/2) {
				sheet[c] = uint8(v + 0.5)
			}
			for y := j * cell; y < min(h, (j+1)*cell); y++ {
				a, b := i*cell, min(w, (i+1)*cell)
				if len(t.scale.Field) > 0 {
					fa, fb := t.span(float64(y) + 0.5)
					a, b = max(a, int(math.Ceil(fa))), min(b, int(fb))
				}
				for x := a; x < b; x++ {
					p := t.pic.Pix[3*(y*w+x) : 3*(y*w+x)+3 : 3*(y*w+x)+3]
					t.diff[y*w+x] = max(absDiff(p[0], sheet[0]), absDiff(p[1], sheet[1]), absDiff(p[2], sheet[2]))
				}
			}
		}
	})
}

// mark lists the runs of each row whose mean over three by three pixels is not
// ground.
func (t *finder) mark() [][]run {
	w, h := t.pic.W, t.pic.H
	rows := make([][]run, h)
	limit := 9 * int(t.level)
	parallelRows((h+63)/64, func(band int) {
		sum := make([]int, w)
		for y := band * 64; y < min(h, (band+1)*64); y++ {
			up, mid, down := t.diff[max(0, y-1)*w:][:w], t.diff[y*w:][:w], t.diff[min(h-1, y+1)*w:][:w]
			for x := range sum {
				sum[x] = int(up[x]) + int(mid[x]) + int(down[x])
			}
			in := false
			for x := range sum {
				on := sum[max(0, x-1)]+sum[x]+sum[min(w-1, x+1)] > limit
				switch {
				case on && !in:
					rows[y] = append(rows[y], run{y: y, x0: x, x1: w})
				case !on && in:
					rows[y][len(rows[y])-1].x1 = x
				}
				in = on
			}
		}
	})
	return rows
}

// join connects runs that touch, corners included, and keeps the blobs large
// enough to be something.
func (t *finder) join(rows [][]run) []blob {
	var up []int // union-find over blob numbers
	root := func(i int) int {
		for up[i] != i {
			up[i] = up[up[i]]
			i = up[i]
		}
		return i
	}
	var prev []run
	for y := range rows {
		k := 0
		for i := range rows[y] {
			r := &rows[y][i]
			r.blob = -1
			for k < len(prev) && prev[k].x1 < r.x0 {
				k++
			}
			for j := k; j < len(prev) && prev[j].x0 <= r.x1; j++ {
				b := root(prev[j].blob)
				if r.blob < 0 {
					r.blob = b
				} else if a := root(r.blob); a != b {
					up[max(a, b)] = min(a, b)
					r.blob = min(a, b)
				}
			}
			if r.blob < 0 {
				r.blob = len(up)
				up = append(up, r.blob)
			}
		}
		prev = rows[y]
	}
	least := t.area(leastPiece) * 0.5
	if t.prints {
		least = t.area(leastPrint) * 0.5
	}
	sizes := make([]int, len(up))
	for _, row := range rows {
		for _, r := range row {
			sizes[root(r.blob)] += r.x1 - r.x0
		}
	}
	at := make([]int, len(up))
	var out []blob
	for i, n := range sizes {
		at[i] = -1
		if float64(n) >= least {
			at[i] = len(out)
			out = append(out, blob{x0: math.MaxInt, y0: math.MaxInt, n: n})
		}
	}
	for _, row := range rows {
		for _, r := range row {
			i := at[root(r.blob)]
			if i < 0 {
				continue
			}
			b := &out[i]
			b.runs = append(b.runs, r)
			b.x0, b.x1 = min(b.x0, r.x0), max(b.x1, r.x1)
			b.y0, b.y1 = min(b.y0, r.y), max(b.y1, r.y+1)
		}
	}
	// Large ones first, so that the last to finish is a small one.
	slices.SortStableFunc(out, func(a, b blob) int { return cmp.Compare(b.n, a.n) })
	return out
}
