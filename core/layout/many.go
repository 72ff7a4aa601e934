package layout

import (
	"errors"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// ErrFew is returned when there are too few pieces for what they are to make.
var ErrFew = errors.New("a ring takes three pieces or more, a row or a grid one")

// ErrRadius is returned when a ring has no radius, or one too small for its pieces.
var ErrRadius = errors.New("the ring is too small: its pieces would lie on its centre")

// Chord is how far the middles of neighbours lie apart in a ring of n at radius r:
// 2 r sin(180°/n).
func Chord(n int, r float64) float64 { return 2 * r * math.Sin(math.Pi/float64(n)) }

// RingCount is how many pieces of a width, mm, close a ring of a radius best when gap mm
// are wanted between neighbours; a negative gap is an overlap. At least 3; 0 where the
// pieces are wider than the ring.
func RingCount(r, w, gap float64) int {
	s := (w + gap) / (2 * r)
	if !(r > 0) || !(s > 0) || s >= 1 {
		return 0
	}
	return max(3, int(math.Round(math.Pi/math.Asin(s))))
}

// Ring lays n pieces evenly round a centre at a radius: the first at the top, the others
// on clockwise, each turned with the ring, so that its foot looks to the centre.
func Ring(n int, centre shape.Point, r float64) ([]card.Place, error) {
	switch {
	case n < 3:
		return nil, ErrFew
	case !(r > 0):
		return nil, ErrRadius
	}
	out := make([]card.Place, n)
	for i := range out {
		t := 360 * float64(i) / float64(n)
		s, c := math.Sincos(t * math.Pi / 180)
		out[i] = card.Place{X: centre.X + r*s, Y: centre.Y - r*c, Turn: t}
	}
	return out, nil
}

// Grid lays cols by rows pieces of w by h mm in a box so that every gap is alike across,
// and every gap alike down, those to the edges too. It returns the gaps, mm; negative
// ones are overlaps. A row is a grid of one row.
func Grid(cols, rows int, w, h float64, in shape.Box) (places []card.Place, across, down float64, err error) {
	if cols < 1 || rows < 1 {
		return nil, 0, 0, ErrFew
	}
	across = (in.W() - float64(cols)*w) / float64(cols+1)
	down = (in.H() - float64(rows)*h) / float64(rows+1)
	for j := range rows {
		for i := range cols {
			places = append(places, card.Place{X: in.Min.X + across + w/2 + float64(i)*(w+across), Y: in.Min.Y + down + h/2 + float64(j)*(h+down)})
		}
	}
	return places, across, down, nil
}
