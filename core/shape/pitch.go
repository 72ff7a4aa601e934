package shape

import (
	"math"
	"slices"
)

// Pitch is from middle to middle of the ribs, teeth or slits of a region that go across it or along
// it alike, mm: of those that at least half of some rows across it show, so many at least. A region
// without any has none.
func (g Region) Pitch(least int) (mm float64, ok bool) {
	if mm, ok = g.pitch(least); ok {
		return mm, true
	}
	return g.Turn(90, Point{}).pitch(least)
}

// pitch is Pitch from left to right.
func (g Region) pitch(least int) (mm float64, ok bool) {
	const rows = 12
	const uneven = 0.15 // of the pitch by which ribs may stand off
	box := g.Bounds()
	var all []float64
	for i := range rows {
		row := g.Cross(box.Min.Y + (float64(i)+0.5)/rows*box.H())
		if len(row) < least {
			continue
		}
		var steps []float64
		for k := 1; k < len(row); k++ {
			steps = append(steps, (row[k][0]+row[k][1]-row[k-1][0]-row[k-1][1])/2)
		}
		slices.Sort(steps)
		mid := steps[len(steps)/2]
		even := 0
		for _, s := range steps {
			if math.Abs(s-mid) <= uneven*mid {
				even++
			}
		}
		if 2*even > len(steps) {
			all = append(all, mid)
		}
	}
	if 2*len(all) < rows {
		return 0, false
	}
	slices.Sort(all)
	return all[len(all)/2], true
}
