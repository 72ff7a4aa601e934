package depth

import (
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Uneven is how a part lies on things of several heights.
type Uneven struct {
	Rise  float64     // how much higher one end stands than the other, mm
	Lean  float64     // of that, what is not the lean of the part of its own thing that it lies on, mm
	High  shape.Point // its highest end
	Low   shape.Point // its lowest
	Over  int         // the piece beneath that stands highest under it; -1 for the card itself
	Bump  float64     // how far what stands beneath is above what its pads would stand on, mm; 0: it lies on its pads
	At    shape.Point // where that is
	Gap   float64     // the widest gap beneath a pad or glue that bears nothing, mm; 0: all bear
	GapAt shape.Point
	Rocks bool    // it touches along a line only, with nothing to bear it on either side
	Bow   float64 // the widest gap that closes by bending, mm: it holds there, and shows a hump
}

// Our own defaults of what is a trouble.
const (
	leansBy  = 1.4 // glued parts that overlap lean by less on every card, mm
	raisedBy = 0.6 // on foam one looks for level, mm
	apartBy  = 1.0 // glue reaches over less with a press, mm
)

// Trouble is what is wrong with how a part lies.
type Trouble string

// Troubles, the worst first; None where it lies as it should.
const (
	Rocking Trouble = "rocks"
	Riding  Trouble = "rides" // what stands up beneath it lifts it off its pads
	Airy    Trouble = "airy"  // a pad, or an end that is glued, is in the air
	Leaning Trouble = "leans"
	Bowing  Trouble = "bows" // it is bent down to what is beneath, and shows a hump
	None    Trouble = ""
)

// Trouble says what is wrong with how a part lies on what is beneath.
func (s Stood) Trouble() Trouble {
	u := s.Uneven
	if u == nil || s.Print() {
		return None
	}
	leans, apart := leansBy, apartBy
	if slices.ContainsFunc(s.Holds, func(h build.Hold) bool { return h.Raised }) {
		leans, apart = raisedBy, foamGive
	}
	switch {
	case u.Rocks && u.Gap > apart:
		return Rocking
	case u.Bump > foamGive:
		return Riding
	case u.Gap > apart:
		return Airy
	case u.Lean > leans:
		return Leaning
	case u.Bow > apartBy:
		return Bowing
	}
	return None
}

// borne is what a part could rest on.
type borne struct {
	bare []Bearing   // where nothing holds it: what is beneath
	held [][]Bearing // by support
	idle []bool      // by support: it bears nothing, and bending does not help
}

// spread is how far apart a part is looked at, mm.
const spread = 2.5

// bearings looks at what is beneath a part, along its edge, within it, at edges of what is
// beneath, and under each
// support.
func bearings(g shape.Region, supports []Support, edges []shape.Point, ground func(shape.Point) float64) borne {
	out := borne{held: make([][]Bearing, len(supports)), idle: make([]bool, len(supports))}
	for _, q := range scattered(g, spread) {
		out.bare = append(out.bare, Bearing{q, ground(q)})
	}
	at := len(out.bare)
	for _, q := range edges {
		out.bare = append(out.bare, Bearing{q, ground(q)})
	}
	edged := out.bare[at:]
	for i, s := range supports {
		for _, q := range scattered(s.Area, spread) {
			out.held[i] = append(out.held[i], Bearing{q, ground(q) + s.Height})
		}
		if len(edged) == 0 {
			continue
		}
		area := shape.Banded(s.Area)
		for _, e := range edged {
			if area.Contains(e.At) {
				out.held[i] = append(out.held[i], Bearing{e.At, e.Z + s.Height})
			}
		}
	}
	return out
}

// scattered spreads points over a region and along its edges.
func scattered(g shape.Region, step float64) []shape.Point {
	box := g.Bounds()
	step = max(step, math.Sqrt(box.W()*box.H())/24)
	out := shape.Along(g, step)
	for y := box.Min.Y + step/2; y < box.Max.Y; y += step {
		for _, c := range g.Cross(y) {
			for x := c[0] + step/2; x < c[1]; x += step {
				out = append(out, shape.Point{X: x, Y: y})
			}
		}
	}
	return out
}

func (b borne) all() []Bearing {
	out := slices.Clone(b.bare)
	for _, h := range b.held {
		out = append(out, h...)
	}
	return out
}

// onPads is where pads of one level hold a part that nothing else touches: stuck to them it does not
// tip, wherever the middle of its weight is.
func (b borne) onPads(supports []Support) (z float64, ok bool) {
	lo, hi := math.Inf(1), math.Inf(-1)
	for i, h := range b.held {
		for _, c := range h {
			if !supports[i].Raised {
				return 0, false
			}
			lo, hi = min(lo, c.Z), max(hi, c.Z)
		}
	}
	if hi-lo > touches {
		return 0, false // or none at all
	}
	for _, c := range b.bare {
		if c.Z > hi {
			return 0, false
		}
	}
	return hi, !math.IsInf(hi, -1)
}

// judge says how a part on pads lies on what bears it.
func (b borne) judge(p Stood) (u Uneven) {
	u.Rise, u.High, u.Low = p.Under.Rise(p.Outline)
	var touching []Bearing
	for _, c := range b.all() {
		if p.Under.Over(c.At)-c.Z < touches {
			touching = append(touching, c)
		}
	}
	touched := make([]shape.Point, len(touching))
	for i, c := range touching {
		touched[i] = c.At
	}
	nearTouching := within(touched)
	// What is beneath touches the part itself, and lifts it off its pads.
	lowest := math.Inf(1)
	for i, h := range b.held {
		for _, c := range h {
			if p.Supports[i].Raised {
				lowest = min(lowest, c.Z)
			}
		}
	}
	for _, c := range b.bare {
		if bump := c.Z - lowest; p.Under.Over(c.At)-c.Z < touches && bump > u.Bump && !math.IsInf(lowest, 1) && bump > foamGive {
			u.Bump, u.At = bump, c.At
		}
	}
	for i, h := range b.held {
		idle, gap, at := true, 0.0, shape.Point{}
		for _, c := range h {
			g := p.Under.Over(c.At) - c.Z
			near := g <= foamGive
			if !near && !nearTouching(c.At, Bends(g, p.Thick)) {
				near, u.Bow = true, max(u.Bow, g)
			}
			if near {
				idle = false
			} else if g > gap {
				gap, at = g, c.At
			}
		}
		b.idle[i] = idle && len(h) > 0
		if b.idle[i] && p.Supports[i].Raised && gap > u.Gap {
			u.Gap, u.GapAt = gap, at
		}
	}
	u.Rocks = len(touching) > 0 && u.Gap > 0 && thin(touching)
	return u
}

// within tells whether one of some points lies nearer to a place than so far. Places are asked for
// along a line mostly, so the point that was near the last time is tried first.
func within(points []shape.Point) func(q shape.Point, far float64) bool {
	last := 0
	return func(q shape.Point, far float64) bool {
		near := func(p shape.Point) bool {
			dx, dy := p.X-q.X, p.Y-q.Y
			if dx >= far || dx <= -far || dy >= far || dy <= -far {
				return false
			}
			return p.Distance(q) < far
		}
		if last < len(points) && near(points[last]) {
			return true
		}
		for i, p := range points {
			if near(p) {
				last = i
				return true
			}
		}
		return false
	}
}

// thin reports whether points lie along a line.
func thin(on []Bearing) bool {
	ps := make([]shape.Point, len(on))
	for i, c := range on {
		ps[i] = c.At
	}
	h := shape.Hull(ps)
	if len(h) < 3 {
		return true
	}
	return math.Abs(h.Area()) < rockWide*h.Length()/2
}

// rockWide is how narrow, mm, what a part touches may be before it rocks; our own default.
const rockWide = 3.0

// inOneZone reports whether a part is held in one zone only, or open at a side, on purpose.
func inOneZone(holds []build.Hold) bool {
	return slices.ContainsFunc(holds, func(h build.Hold) bool { return zoned(h.Bond) })
}

// zoned reports whether a bond leaves some of a part free on purpose.
func zoned(b card.Bond) bool {
	return len(b.Open) > 0 || b.Zone != "" && b.Zone != card.BondAllOver && b.Zone != card.BondEdge
}

// hangs is how far the furthest part of an outline lies from what holds or bears it, and where; 0
// where that is no further than Hang, or where it is held in one zone only, on purpose.
func hangs(g shape.Region, holds []build.Hold, supports []Support, borne []shape.Point) (float64, shape.Point) {
	if inOneZone(holds) {
		return 0, shape.Point{}
	}
	far, at := 0.0, shape.Point{}
	for _, q := range shape.Along(g, spread) {
		near := math.Inf(1)
		for _, p := range borne {
			near = min(near, p.Distance(q))
		}
		for _, s := range supports {
			if near <= Hang {
				break
			}
			if s.Area.Contains(q) {
				near = 0
			}
			near = min(near, s.Area.EdgeDistance(q))
		}
		if near > far && !math.IsInf(near, 1) {
			far, at = near, q
		}
	}
	if far <= Hang {
		return 0, shape.Point{}
	}
	return far, at
}
