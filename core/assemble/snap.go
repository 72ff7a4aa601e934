package assemble

import (
	"fmt"
	"math"

	"ochrestone/core/measure"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// How far a piece may be drawn when it is snapped; our own defaults.
const (
	snapMove  = 4.0  // mm
	snapTurn  = 12.0 // degrees
	snapNear  = 0.1  // of its share that a place loses for each mm it is away
	snapShare = 0.3  // of its edge that must follow in the end
)

// Snap draws a piece, put roughly where it goes by hand, to the nearest edge or
// hole it can follow among the pieces beneath, or else onto the axis of symmetry
// of one of them. It returns the motion from where the piece stands and what it
// went by; ok is false, and nothing is to be moved, when nothing near helps.
func Snap(piece shape.Region, beneath []shape.Region, opts ...Option) (m register.Motion, why string, ok bool) {
	a := assembler{write: measure.Metric}
	for _, o := range opts {
		o(&a)
	}
	own := piece.Filled()
	c := own.Centroid()
	pts := even(own, fineN)
	for i := range pts {
		pts[i] = pts[i].Sub(c)
	}
	widest := rimFor(own)
	best := math.Inf(-1)
	for n, host := range beneath {
		for k, h := range append([]shape.Region{host.Filled()}, host.Holes()...) {
			hole := k > 0
			if !hole && h.Area() < own.Area() || hole && h.Area() < leastSeat {
				continue
			}
			r := shape.NewField(h, 0.2)
			p := polish(pts, r, draw(pts, r, register.Motion{Move: c}, widest, 0), widest, 0)
			away := p.motion.Move.Distance(c)
			score := p.score() - snapNear*away
			if p.share < snapShare || p.out > 0.06 || !hole && p.rim < leastKept ||
				away > snapMove || math.Abs(math.Remainder(p.motion.Turn, 360)) > snapTurn || score <= best {
				continue
			}
			best, ok = score, true
			m = p.motion.After(register.Motion{Move: c.Scale(-1)})
			why = fmt.Sprintf("%.0f %% of its edge follows that of piece %d at %s", 100*p.share, n+1, a.write.Thin(p.rim))
			if hole {
				why = fmt.Sprintf("sits in a hole of piece %d, %s from its edge", n+1, a.write.Thin(p.rim))
			}
		}
	}
	if ok {
		return m, why, true
	}
	mine, has := Axis(own)
	if !has {
		return m, "", false
	}
	for n := len(beneath) - 1; n >= 0; n-- {
		its, has := Axis(beneath[n])
		if !has {
			continue
		}
		// Onto the line through the host's middle along its axis: turned, and moved
		// across it only.
		turn := math.Remainder(its.Deg-mine.Deg, 180)
		s, k := math.Sincos(its.Deg * math.Pi / 180)
		across := shape.Point{X: -s, Y: k}
		off := beneath[n].Centroid().Sub(c).Dot(across)
		if math.Abs(turn) > snapTurn || math.Abs(off) > snapMove {
			continue
		}
		m = register.Motion{Turn: turn}
		m.Move = c.Add(across.Scale(off)).Sub(m.Point(c))
		return m, fmt.Sprintf("on the axis of piece %d", n+1), true
	}
	return m, "", false
}
