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
	tapTurn   = 15.0 // degrees between the turns tried where it was tapped
	tapAskew  = 0.12 // of its share that half a turn costs
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
	c := piece.Filled().Centroid()
	f := newFollower(piece, beneath)
	if d, ok := f.near(c, 0); ok {
		return d.motion.After(register.Motion{Move: c.Scale(-1)}), d.why(a.write), true
	}
	own := piece.Filled()
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

// Tap puts a piece where a finger says it goes, turned whatever way lets it follow an edge
// or fill a hole of the pieces beneath within some millimetres of there, the way it lies
// going first among ways alike. It returns the motion from where the piece lies and what
// it went by; ok is false when it follows nothing there, and the motion then only brings
// its middle to the place.
func Tap(piece shape.Region, at shape.Point, beneath []shape.Region, opts ...Option) (m register.Motion, why string, ok bool) {
	a := assembler{write: measure.Metric}
	for _, o := range opts {
		o(&a)
	}
	c := piece.Filled().Centroid()
	f := newFollower(piece, beneath)
	var best drawn
	for turn := 0.0; turn < 360; turn += tapTurn {
		d, found := f.near(at, turn)
		// Much the same another way about is no reason to turn it.
		d.score -= tapAskew * math.Abs(math.Remainder(turn, 360)) / 180
		if found && (!ok || d.score > best.score) {
			best, ok = d, true
		}
	}
	if !ok {
		return register.Motion{Move: at.Sub(c)}, "", false
	}
	return best.motion.After(register.Motion{Move: c.Scale(-1)}), best.why(a.write), true
}

// Across is where a piece goes that is the mirror twin of one in its place, on the other
// side of the axis of symmetry of a base: the motion from where it lies. ok is false when
// the base has no axis or the piece is no twin. A piece that is its own mirror image is one.
func Across(piece, twin, base shape.Region) (m register.Motion, ok bool) {
	ax, ok := Axis(base)
	if !ok {
		return m, false
	}
	// Mirrored left to right about the base's middle, then turned so that upright becomes
	// the axis.
	c := base.Centroid()
	to := twin.Mirror(c.X).Turn(2*(ax.Deg-90), c)
	if Twins(piece, to) != Same {
		return m, false
	}
	return turning(piece, to), true
}

// follower looks for edges and holes that a piece can follow.
type follower struct {
	pts    []shape.Point // of its edge, about its middle
	widest float64
	hosts  []followed
}

// followed is a host, or a hole of it.
type followed struct {
	piece int // from 1
	hole  bool
	field *shape.Field
}

// drawn is where a piece was drawn to.
type drawn struct {
	pose
	at    followed
	score float64
}

func (d drawn) why(w measure.Writing) string {
	if d.at.hole {
		return fmt.Sprintf("sits in a hole of piece %d, %s from its edge", d.at.piece, w.Thin(d.rim))
	}
	return fmt.Sprintf("%.0f %% of its edge follows that of piece %d at %s", 100*d.share, d.at.piece, w.Thin(d.rim))
}

func newFollower(piece shape.Region, beneath []shape.Region) follower {
	own := piece.Filled()
	c := own.Centroid()
	f := follower{pts: even(own, fineN), widest: rimFor(own)}
	for i := range f.pts {
		f.pts[i] = f.pts[i].Sub(c)
	}
	for n, host := range beneath {
		for k, h := range append([]shape.Region{host.Filled()}, host.Holes()...) {
			hole := k > 0
			if !hole && h.Area() < own.Area() || hole && h.Area() < leastSeat {
				continue
			}
			f.hosts = append(f.hosts, followed{n + 1, hole, shape.NewField(h, 0.2)})
		}
	}
	return f
}

// near is the best edge or hole to follow with the middle of the piece near a place, turned
// by about so many degrees from how it lies.
func (f follower) near(at shape.Point, turn float64) (best drawn, ok bool) {
	best.score = math.Inf(-1)
	for _, h := range f.hosts {
		p := polish(f.pts, h.field, draw(f.pts, h.field, register.Motion{Turn: turn, Move: at}, f.widest, turn), f.widest, turn)
		away := p.motion.Move.Distance(at)
		score := p.score() - snapNear*away
		if p.share < snapShare || p.out > 0.06 || !h.hole && p.rim < leastKept ||
			away > snapMove || math.Abs(math.Remainder(p.motion.Turn-turn, 360)) > snapTurn || score <= best.score {
			continue
		}
		best, ok = drawn{p, h, score}, true
	}
	return best, ok
}
