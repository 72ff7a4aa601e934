package layout

import (
	"math"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// mostRows keeps a repeat with tiny steps from never ending.
const mostRows = 500

// Rows lays something of w by h mm in rows over a box, from a spot on outwards to all
// sides, past the edges: every place whose box meets the box asked for, or lies wholly in
// it where the rows want whole ones. Places come row by row from the top left.
func Rows(r card.Rows, from card.Spot, w, h float64, in shape.Box) []card.Place {
	var out []card.Place
	reach := math.Hypot(w, h) / 2 // however it is turned
	rows := func(at, least, most, step float64) (int, int) {
		a, b := math.Ceil((least-reach-at)/step), math.Floor((most+reach-at)/step)
		return int(max(a, -mostRows)), int(min(b, mostRows))
	}
	j0, j1 := rows(from.Y, in.Min.Y, in.Max.Y, r.Down)
	n := 0
	for j := j0; j <= j1; j++ {
		x := from.X
		if j%2 != 0 {
			x += r.Shift * r.Across
		}
		i0, i1 := rows(x, in.Min.X, in.Max.X, r.Across)
		for i := i0; i <= i1; i++ {
			p := card.Place{X: x + float64(i)*r.Across, Y: from.Y + float64(j)*r.Down, Turn: from.Turn + r.Turn*float64(n)}
			s, c := math.Sincos(p.Turn * math.Pi / 180)
			hw, hh := (math.Abs(c)*w+math.Abs(s)*h)/2, (math.Abs(s)*w+math.Abs(c)*h)/2
			meets := p.X+hw > in.Min.X && p.X-hw < in.Max.X && p.Y+hh > in.Min.Y && p.Y-hh < in.Max.Y
			whole := p.X-hw >= in.Min.X-1e-9 && p.X+hw <= in.Max.X+1e-9 && p.Y-hh >= in.Min.Y-1e-9 && p.Y+hh <= in.Max.Y+1e-9
			if meets && (whole || !r.Whole) {
				p.Turn = math.Remainder(p.Turn, 360)
				out = append(out, p)
				n++
			}
		}
	}
	return out
}
