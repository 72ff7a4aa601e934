package register

import (
	"errors"
	"math"

	"ochrestone/core/shape"
)

// Motion turns a shape clockwise on screen by Turn degrees about the origin,
// then moves it.
type Motion struct {
	Turn float64     `json:"turn" doc:"clockwise, degrees"`
	Move shape.Point `json:"move" doc:"mm, after turning about the origin"`
}

// Of moves a region.
func (m Motion) Of(g shape.Region) shape.Region {
	return g.Turn(m.Turn, shape.Point{}).Move(m.Move)
}

// Point moves a point.
func (m Motion) Point(p shape.Point) shape.Point {
	s, c := math.Sincos(m.Turn * math.Pi / 180)
	return shape.Point{X: p.X*c - p.Y*s + m.Move.X, Y: p.X*s + p.Y*c + m.Move.Y}
}

// After is the motion n followed by m.
func (m Motion) After(n Motion) Motion {
	return Motion{math.Remainder(m.Turn+n.Turn, 360), m.Point(n.Move)}
}

// Inverse undoes m.
func (m Motion) Inverse() Motion {
	b := Motion{Turn: -m.Turn}
	b.Move = b.Point(m.Move).Scale(-1)
	return b
}

// ErrFew is returned when points do not settle a motion.
var ErrFew = errors.New("too few points to settle a motion")

// Rigid is the motion that brings from nearest to to in the sense of least
// squares: the orthogonal Procrustes problem in the plane, without mirroring
// (Schönemann 1966; Kabsch 1976), in closed form. Residue is the root mean
// square distance left, mm; Scale is by how much to is larger than from, which
// a rigid motion cannot mend.
func Rigid(from, to []shape.Point) (m Motion, residue, scale float64, err error) {
	n := float64(len(from))
	if len(from) < 2 || len(from) != len(to) {
		return Motion{}, 0, 0, ErrFew
	}
	var a, b shape.Point
	for i := range from {
		a, b = a.Add(from[i].Scale(1/n)), b.Add(to[i].Scale(1/n))
	}
	var dot, cross, size float64
	for i := range from {
		p, q := from[i].Sub(a), to[i].Sub(b)
		dot, cross, size = dot+p.Dot(q), cross+p.Cross(q), size+p.Dot(p)
	}
	if size == 0 {
		return Motion{}, 0, 0, ErrFew
	}
	turn := math.Atan2(cross, dot)
	m.Turn = turn * 180 / math.Pi
	m.Move = b.Sub(Motion{Turn: m.Turn}.Point(a))
	scale = math.Hypot(dot, cross) / size
	for i := range from {
		d := m.Point(from[i]).Distance(to[i])
		residue += d * d
	}
	return m, math.Sqrt(residue / n), scale, nil
}
