package depth

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Support is an area on the back of a part by which it is held.
type Support struct {
	Hold   int          // which of the holds of its piece
	Area   shape.Region // in the frame of the front, mm
	Height float64      // it holds the part off what is beneath, mm
	Foam   bool
	Raised bool     // on spacers; else glue
	Own    bool     // stands where the person put it
	Pad    card.Pad // as it lies in the part's own frame; of glue and of what is cut to shape it has no size
}

// Supports lists what holds a piece, in the frame of the front: its pads where they stand
// or are proposed, foam and board cut to its shape, and where there is glue. avoid is what
// pads keep clear of, opaque what bonds hide behind that are to be seen through no leaf,
// both in the frame of the front. What is laid loose has none.
func (m *Memory) Supports(p build.Piece, avoid []shape.Region, opaque shape.Region) []Support {
	if len(p.Holds) == 0 || p.Outline.Empty() {
		return nil
	}
	self := p.Left()
	room := Room{Opaque: p.ToSelf(opaque)}
	for _, a := range avoid {
		room.Avoid = append(room.Avoid, p.ToSelf(a))
	}
	key, err := supportKey(self, p.Holds, room)
	var own []Support
	if err == nil {
		own, err = m.pads.Get(key, func() ([]Support, error) { return supports(self, p.Holds, room), nil })
	}
	if err != nil {
		own = supports(self, p.Holds, room)
	}
	out := slices.Clone(own)
	for i := range out {
		out[i].Area = p.FromSelf(out[i].Area)
	}
	return out
}

// supportKey is all that the supports of a part depend on.
func supportKey(self shape.Region, holds []build.Hold, room Room) (key [32]byte, err error) {
	h := sha256.New()
	fmt.Fprintln(h, self.Path(), room.Opaque.Path())
	for _, a := range room.Avoid {
		fmt.Fprintln(h, a.Path())
	}
	for _, x := range holds {
		doc, err := json.Marshal(x.Bond)
		if err != nil {
			return key, fmt.Errorf("remember pads: %w", err)
		}
		fmt.Fprintln(h, string(doc), x.Height, x.Kind, x.W, x.H, flapOf(x))
	}
	h.Sum(key[:0])
	return key, nil
}

// flapOf is the flap a hold is on, as a word.
func flapOf(h build.Hold) string {
	if h.Flap == nil {
		return ""
	}
	return fmt.Sprint(*h.Flap)
}

// supports lists what holds a part in its own frame.
func supports(self shape.Region, holds []build.Hold, room Room) []Support {
	var out []Support
	for i, h := range holds {
		s := Support{Hold: i, Height: h.Height, Foam: h.Foam, Raised: h.Raised}
		if !h.Raised {
			for _, g := range gluedBy(self, h, room) {
				s.Area = g
				out = append(out, s)
			}
			continue
		}
		pads := h.Bond.Pads
		s.Own = len(pads) > 0
		if !s.Own && len(padSizes(h)) == 0 {
			if g := cutTo(self, h.Bond, room); !g.Empty() {
				s.Area = g
				out = append(out, s)
			}
			continue
		}
		if !s.Own {
			pads = Propose(self, h, room)
		}
		for _, p := range pads {
			s.Pad, s.Area = p, PadArea(p)
			out = append(out, s)
		}
	}
	return out
}

// cutTo is foam or board cut to a part's own shape: back from its edge, in its zone, clear
// of what is to be avoided. It is empty where nothing is left of it. Where nobody said how far back, it
// goes nearer to the edge of a part that is too fine for its slender ends to be held else.
func cutTo(self shape.Region, b card.Bond, room Room) shape.Region {
	if b.Inset > 0 {
		return cutBack(self, b, room, b.Inset)
	}
	inset := padInset
	for try, far := padInset, math.Inf(1); !zoned(b) && far > Hang && try >= finestInset; try /= 2 {
		g, err := self.Offset(-try)
		if err != nil {
			break
		}
		if f := hangsFrom(self, g); f < far {
			far, inset = f, try
		}
	}
	return cutBack(self, b, room, inset)
}

// finestInset is how near to the edge foam is cut at the least, mm: our own default.
const finestInset = 0.5

// hangsFrom is how far the furthest part of an outline is from a region, mm; far where there is none.
func hangsFrom(g, from shape.Region) (far float64) {
	if from.Empty() {
		return math.Inf(1)
	}
	for _, q := range shape.Along(g, spread) {
		if !from.Contains(q) {
			far = max(far, from.EdgeDistance(q))
		}
	}
	return far
}

// cutBack is foam or board cut to a part's own shape, so far back from its edge.
func cutBack(self shape.Region, b card.Bond, room Room, inset float64) shape.Region {
	g, err := self.Offset(-inset)
	if err != nil {
		return shape.Region{}
	}
	if g = inZoneOf(g, self, b, inset, room.Opaque); g.Empty() {
		return g
	}
	for _, a := range slices.Concat(room.Avoid, open(b, self.Bounds())) {
		if wide, err := a.Offset(clearOf); err == nil {
			a = wide
		}
		if rest, err := g.Minus(a); err == nil {
			g = rest
		}
	}
	return g
}

// edgeWide is how wide a bond along the edge is, mm; our own default.
const edgeWide = 6.0

// inZoneOf is what of a region, itself within self, lies in the zone of a bond.
func inZoneOf(g, self shape.Region, b card.Bond, inset float64, opaque shape.Region) shape.Region {
	box := self.Bounds()
	strip := func(x, y, w, h float64) shape.Region {
		out, err := g.Intersect(shape.Rect(box.Min.X+x*box.W(), box.Min.Y+y*box.H(), w*box.W(), h*box.H()))
		if err != nil {
			return shape.Region{}
		}
		return out
	}
	switch b.Zone {
	case card.BondEdge:
		in, err := self.Offset(-inset - edgeWide)
		if err != nil {
			return g
		}
		out, err := g.Minus(in)
		if err != nil {
			return g
		}
		return out
	case card.BondFoot:
		return strip(0, 1-zoneShare, 1, zoneShare)
	case card.BondHead:
		return strip(0, 0, 1, zoneShare)
	case card.BondLeft:
		return strip(0, 0, zoneShare, 1)
	case card.BondRight:
		return strip(1-zoneShare, 0, zoneShare, 1)
	case card.BondMiddle:
		return strip(0.5-zoneShare/2, 0.5-zoneShare/2, zoneShare, zoneShare)
	case card.BondOpaque:
		out, err := g.Intersect(opaque)
		if err != nil {
			return shape.Region{}
		}
		return out
	}
	return g
}

// glued is where a part has glue on its back: its zone, back from the edge as far as it is
// wide enough, or dots.
func glued(self shape.Region, b card.Bond, room Room) []shape.Region {
	if b.Zone == card.BondSpots {
		return dots(self, b, room)
	}
	inset, least := glueInset, glueLeast
	if b.Inset > 0 {
		inset, least = b.Inset, 0 // as the person wants it
	}
	g, tried := self, false
	for try := inset; !tried || least > 0 && try > 0.2; try /= 2 {
		in, err := self.Offset(-try)
		if tried = true; err == nil && in.Area() >= least*self.Area() {
			g = in
			break
		}
	}
	g = inZoneOf(g, self, b, inset, room.Opaque)
	for _, o := range open(b, self.Bounds()) {
		if rest, err := g.Minus(o); err == nil {
			g = rest
		}
	}
	if g.Empty() {
		return nil
	}
	return []shape.Region{g}
}

// gluedBy is where a hold has glue: of a leaf that is held by its flap, only where the flap lies.
func gluedBy(self shape.Region, h build.Hold, room Room) []shape.Region {
	if h.Flap == nil {
		return glued(self, h.Bond, room)
	}
	box := self.Bounds()
	strip := shape.Rect(box.Min.X, box.Min.Y, box.W(), h.Flap.Depth)
	if h.Flap.Side == card.LeftSide {
		strip = shape.Rect(box.Min.X, box.Min.Y, h.Flap.Depth, box.H())
	}
	g, err := self.Intersect(strip)
	if err != nil || g.Empty() {
		return nil
	}
	return []shape.Region{g}
}

// glueLeast is how much of a part glue covers at least: of a fine one it goes nearer to the
// edge. Our own default.
const glueLeast = 0.25

// Dots of glue; our own defaults.
const (
	dotShare = 0.08 // of the length of the side of a square as large as the part
	dotLeast = 1.5  // mm across
	dotMost  = 4.0  // mm across
)

// dots are dots of glue sized to the part.
func dots(self shape.Region, b card.Bond, room Room) []shape.Region {
	d := min(dotMost, max(dotLeast, dotShare*math.Sqrt(self.Area())))
	h := build.Hold{Bond: b, Kind: "square", W: d, H: d}
	h.Bond.Zone = ""
	if h.Bond.Inset == 0 {
		h.Bond.Inset = glueInset
	}
	// Where the part is too fine for dots they are smaller, and nearer to its edge.
	for {
		var out []shape.Region
		for _, p := range Propose(self, h, room) {
			out = append(out, shape.Disc(shape.Point{X: p.X, Y: p.Y}, h.W/2))
		}
		if len(out) > 0 || h.W < dotFinest {
			return out
		}
		h.W, h.H, h.Bond.Inset = h.W*0.7, h.H*0.7, h.Bond.Inset*0.5
	}
}

// dotFinest is how small a dot of glue is made with a pick at the least, mm: our own default.
const dotFinest = 0.4
