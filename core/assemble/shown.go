package assemble

import (
	"fmt"
	"math"

	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// Sight is where a picture of the finished image shows a piece.
type Sight struct {
	Piece int             // index of the piece given
	At    register.Motion // from where it lies to its place in the frame of the largest piece, as that lies
	Sure  float64         // how sure, 0 to 1
}

// Shown has pieces go where a picture of the finished image shows them, in the order it
// shows, lowest first, and the largest be turned so that the image stands as in the picture,
// where that shows it turned by so many degrees. A place is drawn to the edge the piece then
// follows within what a picture is exact to; what the picture does not show goes by its
// edges as ever. Sights that do not name every piece once, the largest first, are left unused.
func Shown(sights []Sight, turn float64) Option {
	return func(a *assembler) { a.sights, a.stands = sights, &turn }
}

// What a picture tells; our own defaults.
const (
	sightSure = 0.4 // from which it is believed
	sightMove = 0.5 // mm by which an edge may be nearer
	sightTurn = 3.0 // degrees
	lieson    = 0.6 // of a piece that must lie on another to lie on it
)

// believed are the sights if they can be used: every piece once, the largest first.
func (a *assembler) believed(order []int) bool {
	if len(a.sights) != len(order) || len(order) == 0 || a.sights[0].Piece != order[0] {
		return false
	}
	once := make([]bool, len(order))
	for _, s := range a.sights {
		if s.Piece < 0 || s.Piece >= len(order) || once[s.Piece] {
			return false
		}
		once[s.Piece] = true
	}
	return true
}

// asShown puts a piece where the picture shows it; it reports whether it does.
func (a *assembler) asShown(i int) bool {
	var sight Sight
	for _, s := range a.sights {
		if s.Piece == i {
			sight = s
		}
	}
	if sight.Sure < sightSure {
		return false
	}
	m := a.out[0].Motion.After(sight.At)
	own := a.pieces[i].Filled()
	c := own.Centroid()
	p := Placed{Piece: i, Motion: m, Fit: kit.FitFree, alone: sight.Sure, Sure: sight.Sure, share: 1, shown: true, Host: a.beneath(m.Of(a.pieces[i])), Why: "where the picture shows it"}
	f := follower{pts: even(own, fineN), widest: rimFor(own)}
	for k := range f.pts {
		f.pts[k] = f.pts[k].Sub(c)
	}
	for _, h := range a.hosts {
		if a.out[h.placed].aside || !h.hole && h.region.Area() < own.Area() {
			continue
		}
		if h.fine == nil {
			h.coarse, h.fine = shape.NewField(h.region, 0.75), shape.NewField(h.region, 0.2)
		}
		f.hosts = append(f.hosts, followed{h.placed + 1, h.hole, h.fine})
	}
	at := m.Point(c)
	if d, ok := f.near(at, m.Turn); ok && d.share >= sureShare && d.motion.Move.Distance(at) < sightMove && math.Abs(math.Remainder(d.motion.Turn-m.Turn, 360)) < sightTurn {
		p.Motion = d.motion.After(register.Motion{Move: c.Scale(-1)})
		p.Host, p.Rim, p.alone = d.at.piece-1, d.rim, 1-(1-sight.Sure)/2
		over := a.out[p.Host].Piece + 1
		switch {
		case d.at.hole && d.share > holeShare:
			p.Fit = kit.FitFills
			p.Why += fmt.Sprintf(", filling a hole of piece %d", over)
		case d.share > 0.7:
			p.Fit = kit.FitEvenRim
			p.Why += fmt.Sprintf(", following the edge of piece %d at %s", over, a.write.Thin(d.rim))
		default:
			p.Fit = kit.FitWithin
			p.Why += fmt.Sprintf(", %.0f %% of its edge following that of piece %d at %s", 100*d.share, over, a.write.Thin(d.rim))
		}
	}
	a.add(p)
	return true
}

// beneath is the highest piece placed that most of a region lies on; the base if none.
func (a *assembler) beneath(g shape.Region) int {
	for n := len(a.out) - 1; n > 0; n-- {
		if a.out[n].aside || !g.Bounds().Meets(a.out[n].Outline.Bounds()) {
			continue
		}
		if both, err := g.Intersect(a.out[n].Outline); err == nil && both.Area() > lieson*g.Area() {
			return n
		}
	}
	return 0
}
