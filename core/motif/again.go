package motif

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// far is further than any piece reaches, mm.
const far = 2000.0

// Why a layer is drawn as its whole part.
const (
	noRegion   = "The line does not part it: draw it across the piece."
	noOther    = "The part that bounds its region is not in the set any more: draw a line instead."
	noEnclosed = "No closed line of its part holds it any more: find what it holds again, in Pieces."
	noTrace    = "So much smaller nothing is left of it: trace it closer to its die."
	noShift    = "It would be moved past its own end: move it less."
)

// OutlineOf is the outline of a layer: that of its part, traced larger or smaller, put on
// offset, or only one region of it; and why it is the whole part where that cannot be.
func OutlineOf(l card.Layer, p kit.Part, set kit.Set) (g shape.Region, problem string, err error) {
	g = p.Outline
	if l.Traced != 0 {
		out, err := g.Offset(l.Traced)
		if err != nil {
			return g, "", fmt.Errorf("trace layer %q: %w", l.Label, err)
		}
		if out.Empty() {
			return g, noTrace, nil
		}
		g = out
	}
	if l.Shifted != 0 {
		out, ok, err := shifted(g, l.Shifted)
		if err != nil {
			return g, "", fmt.Errorf("put layer %q on offset: %w", l.Label, err)
		}
		if !ok {
			return g, noShift, nil
		}
		g = out
	}
	if r := l.Region; r != nil && r.By == card.Enclosed {
		for _, in := range g.Enclosed() {
			if in.Contains(shape.Point{X: r.Line[0].X, Y: r.Line[0].Y}) {
				return in, "", nil
			}
		}
		return g, noEnclosed, nil
	} else if r != nil {
		side := right(r.Line)
		if r.Part != "" {
			other, ok := set.Part(r.Part)
			if !ok {
				return g, noOther, nil
			}
			side = other.Outline
		}
		cut := g.Intersect
		if r.Other {
			cut = g.Minus
		}
		out, err := cut(side)
		if err != nil {
			return g, "", fmt.Errorf("part layer %q in two: %w", l.Label, err)
		}
		if a := out.Area(); a < crumb || a > g.Area()-crumb {
			return g, noRegion, nil
		}
		g = out
	}
	return g, "", nil
}

// closes is how near the ends of a line lie to each other, mm, for it to be closed; our own default.
const closes = 1.0

// within is what a closed line holds; false for a line that is open.
func within(line []card.Offset) (shape.Region, bool) {
	if len(line) < 4 || shape.Point(line[0]).Distance(shape.Point(line[len(line)-1])) > closes {
		return shape.Region{}, false
	}
	ring := make(shape.Ring, 0, len(line)-1)
	for _, p := range line[:len(line)-1] {
		ring = append(ring, shape.Point(p))
	}
	g, err := shape.Settle(true, ring)
	return g, err == nil
}

// right is all that lies to the right of a line as it runs, its ends run on straight, or what it holds
// where it is closed.
func right(line []card.Offset) shape.Region {
	if len(line) < 2 {
		return shape.Region{}
	}
	if g, closed := within(line); closed {
		return g
	}
	ps := make(shape.Ring, 0, len(line)+4)
	for _, p := range line {
		ps = append(ps, shape.Point(p))
	}
	on := func(from, to shape.Point) (shape.Point, bool) {
		d := to.Sub(from)
		if d.Len() < 1e-6 {
			return shape.Point{}, false
		}
		return to.Add(d.Scale(far / d.Len())), true
	}
	n := len(ps)
	first, ok := on(ps[1], ps[0])
	last, ok2 := on(ps[n-2], ps[n-1])
	if !ok || !ok2 {
		return shape.Region{}
	}
	ring := append(shape.Ring{first}, ps...)
	ring = append(ring, last)
	// Round behind: to the right of the line from its one far end to the other. On screen,
	// where y points down, that is its direction turned clockwise.
	a, b := first.Sub(ps[0]), last.Sub(ps[n-1])
	angle := func(p shape.Point) float64 { return math.Atan2(p.Y, p.X) }
	turn := math.Mod(angle(a)-angle(b)+4*math.Pi, 2*math.Pi)
	if turn < 1e-6 || turn > 2*math.Pi-1e-6 {
		// Its ends run on side by side: the region is between them, or all but that.
		if turn = 0; b.Cross(first.Sub(last)) < 0 {
			turn = 2 * math.Pi
		}
	}
	c := ps[0].Add(ps[n-1]).Scale(0.5)
	for i := 1; i < 8; i++ {
		t := angle(b) + turn*float64(i)/8
		ring = append(ring, c.Add(shape.Point{X: math.Cos(t), Y: math.Sin(t)}.Scale(2*far)))
	}
	g, err := shape.Settle(true, ring)
	if err != nil {
		return shape.Region{}
	}
	return g
}

// Lengthwise is the longer way of a piece: its direction, and where it begins and ends
// along that, mm.
func Lengthwise(g shape.Region) (u shape.Point, from, to float64) {
	b := g.Bounds()
	if b.H() > b.W() {
		return shape.Point{Y: 1}, b.Min.Y, b.Max.Y
	}
	return shape.Point{X: 1}, b.Min.X, b.Max.X
}

// shifted is a piece moved along its longer way, its end trimmed straight where the piece
// beneath ends, and the trimming put on at the other end.
func shifted(g shape.Region, by float64) (shape.Region, bool, error) {
	u, from, to := Lengthwise(g)
	long := to - from
	if math.Abs(by) >= long {
		return g, false, nil
	}
	moved := g.Move(u.Scale(by))
	// The band in which the piece beneath lies.
	band := shape.Rect(from, -far, long, 2*far)
	if u.Y == 1 {
		band = shape.Rect(-far, from, 2*far, long)
	}
	stays, err := moved.Intersect(band)
	if err != nil {
		return g, false, err
	}
	end, err := moved.Minus(band)
	if err != nil {
		return g, false, err
	}
	out, err := stays.Union(end.Move(u.Scale(-math.Copysign(long, by))))
	return out, err == nil, err
}

// pieceParted is the layer a swapped region is cut out of: the nearest beneath it of the
// same part that is no region itself; -1 for none.
func pieceParted(views []View, i int) int {
	for j := i - 1; j >= 0; j-- {
		if l := views[j].Layer; l.Part == views[i].Layer.Part && l.Region == nil && l.Make == card.Cut {
			return j
		}
	}
	return -1
}

// swapped reports whether a layer is a region let into the piece it was cut from.
func swapped(l card.Layer) bool { return l.Region != nil && l.Region.By == card.Swapped }

// let cuts the regions that are swapped out of the pieces they are let into.
func (img *Image) let() error {
	for i := range img.Views {
		v := &img.Views[i]
		if !swapped(v.Layer) || v.Problem != "" {
			continue
		}
		j := pieceParted(img.Views, i)
		if j < 0 {
			continue
		}
		rest, err := img.Views[j].Outline.Minus(v.Outline)
		if err != nil {
			return fmt.Errorf("let layer %q in: %w", v.Layer.Label, err)
		}
		if rest.Empty() {
			continue
		}
		img.Views[j].Outline, img.Views[j].Area, img.Views[j].Edge = rest, rest.Area(), rest.Length()
	}
	return nil
}

// Parted lists the regions of a layer's part that are other layers, by their places.
func (img Image) Parted(layer int) (out []int) {
	for i := layer + 1; i < len(img.Views); i++ {
		v := img.Views[i]
		if v.Layer.Region == nil || v.Problem != "" {
			continue
		}
		if on := v.Layer.On; on == img.Views[layer].Layer.ID || swapped(v.Layer) && pieceParted(img.Views, i) == layer {
			out = append(out, i)
		}
	}
	return slices.Clip(out)
}
