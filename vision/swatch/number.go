package swatch

import "ochrestone/core/shape"

// The number of a sheet is printed as small boxes between the cells of its first row, black
// or left out: one that is always there and one that never is, fifteen bits of the number,
// the highest first, and four of a sum over it.
const (
	numberBits  = 15
	sumBits     = 4
	boxesPer    = 3   // boxes in a gutter
	boxW        = 2.0 // mm
	boxH        = 2.4 // mm
	boxStep     = 3.6 // mm
	printedDark = 0.5 // of the paper's light: darker is a box
)

// MostNumber is the highest number that a sheet can be printed with.
const MostNumber = 1<<numberBits - 1

// places are the places of the boxes in the field, mm, in the order of the bits.
func (g Grid) places() (out []shape.Box) {
	for i := range 2 + numberBits + sumBits {
		column, row := i/boxesPer, i%boxesPer
		x := float64(column+1)*g.StepX - boxW/2
		y := g.Top + 0.8 + boxStep*float64(row)
		out = append(out, shape.Box{Min: shape.Point{X: x, Y: y}, Max: shape.Point{X: x + boxW, Y: y + boxH}})
	}
	return out
}

// Number is the boxes to print on a sheet of that number, in the field, mm. There are none
// for a number past MostNumber, or under 1.
func (g Grid) Number(n int) (out []shape.Box) {
	if n < 1 || n > MostNumber {
		return nil
	}
	code := bits(n)
	for i, b := range g.places() {
		if code[i] {
			out = append(out, b)
		}
	}
	return out
}

// bits are the boxes of a number, true where one is printed.
func bits(n int) []bool {
	out := []bool{true, false}
	for i := numberBits - 1; i >= 0; i-- {
		out = append(out, n>>i&1 == 1)
	}
	sum := sumOf(n)
	for i := sumBits - 1; i >= 0; i-- {
		out = append(out, sum>>i&1 == 1)
	}
	return out
}

// sumOf adds up the parts of a number, each by another weight, so that no one box misread, nor
// two neighbours for each other, passes.
func sumOf(n int) int {
	sum := 5
	for i := range numberBits {
		if n>>i&1 == 1 {
			sum += i%15 + 1
		}
	}
	return sum % (1<<sumBits - 1)
}

// number reads the number printed on a sheet; 0 where none is to be read, as on sheets
// printed before they had one.
func (e eye) number(g Grid) int {
	var seen []bool
	for _, b := range g.places() {
		var in, round float64
		for _, u := range [3]float64{0.3, 0.5, 0.7} {
			for _, v := range [3]float64{0.3, 0.5, 0.7} {
				in += luma(e.at(shape.Point{X: b.Min.X + u*boxW, Y: b.Min.Y + v*boxH})) / 9
			}
		}
		// The paper above and below it, between the boxes.
		between := (boxStep - boxH) / 2
		for _, y := range [2]float64{b.Min.Y - between, b.Max.Y + between} {
			for _, u := range [3]float64{0.2, 0.5, 0.8} {
				round += luma(e.at(shape.Point{X: b.Min.X + u*boxW, Y: y})) / 6
			}
		}
		seen = append(seen, in < printedDark*round)
	}
	n := 0
	for _, b := range seen[2 : 2+numberBits] {
		n <<= 1
		if b {
			n |= 1
		}
	}
	for i, b := range bits(n) {
		if seen[i] != b {
			return 0
		}
	}
	return n
}
