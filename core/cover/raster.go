package cover

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/shape"
)

// grid is the front cut into square cells, row by row from its top left corner.
type grid struct {
	cell float64 // mm
	w, h int
}

// centre is the middle of a cell on the front, mm.
func (g grid) centre(x, y int) shape.Point {
	return shape.Point{X: (float64(x) + 0.5) * g.cell, Y: (float64(y) + 0.5) * g.cell}
}

// crossing is where an outline crosses the middle of a row, and which way it goes there.
type crossing struct {
	x  float64
	up int
}

// filler finds the cells of outlines, one after another, in memory it keeps.
type filler struct {
	grid
	rows [][]crossing
}

// fill calls f with every run of cells in a row whose middles lie within a region, from one cell to
// before another. Rings wind as those of regions do, so that what lies in a hole is none of it.
func (f *filler) fill(g shape.Region, run func(y, from, to int)) {
	if g.Empty() {
		return
	}
	if len(f.rows) < f.h {
		f.rows = make([][]crossing, f.h)
	}
	box := g.Bounds()
	first, last := max(0, int(math.Ceil(box.Min.Y/f.cell-0.5))), min(f.h-1, int(math.Floor(box.Max.Y/f.cell-0.5)))
	if first > last || box.Max.X < 0 || box.Min.X > float64(f.w)*f.cell {
		return
	}
	for y := first; y <= last; y++ {
		f.rows[y] = f.rows[y][:0]
	}
	for _, r := range g.Rings() {
		for i, a := range r {
			b := r[(i+1)%len(r)]
			f.edge(a, b, first, last)
		}
	}
	for y := first; y <= last; y++ {
		cs := f.rows[y]
		slices.SortFunc(cs, func(a, b crossing) int { return cmp.Compare(a.x, b.x) })
		winds := 0
		for i, c := range cs {
			winds += c.up
			if winds == 0 || i+1 == len(cs) {
				continue
			}
			from, to := max(0, int(math.Ceil(c.x/f.cell-0.5))), min(f.w, int(math.Floor(cs[i+1].x/f.cell-0.5))+1)
			if from < to {
				run(y, from, to)
			}
		}
	}
}

// edge notes where one side of an outline crosses the rows.
func (f *filler) edge(a, b shape.Point, first, last int) {
	up := 1
	if a.Y > b.Y {
		a, b, up = b, a, -1
	}
	from, to := max(first, int(math.Ceil(a.Y/f.cell-0.5))), min(last, int(math.Ceil(b.Y/f.cell-0.5))-1)
	if from > to {
		return
	}
	slope := (b.X - a.X) / (b.Y - a.Y)
	for y := from; y <= to; y++ {
		f.rows[y] = append(f.rows[y], crossing{a.X + slope*((float64(y)+0.5)*f.cell-a.Y), up})
	}
}
