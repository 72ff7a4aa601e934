package advise

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/cover"
	"ochrestone/core/shape"
)

// Meeting is another thing that lies over an element or beneath it.
type Meeting struct {
	ID    string  `json:"id"`
	Label string  `json:"label"`
	Above bool    `json:"above" doc:"it lies over the element"`
	Shows float64 `json:"shows" doc:"share of the lower of the two that is left to see of all that lies over it, 0 to 1"`
	// Parts are those of the element that meet it, each of which may cross the other way.
	Parts []MeetingPart `json:"parts" nullable:"false"`
}

// MeetingPart is a part of an element that meets another.
type MeetingPart struct {
	ID    string `json:"id"`
	Label string `json:"label"`
	// X and Y are a point where it crosses the other, for a mark.
	X          float64 `json:"x" doc:"on the front, mm"`
	Y          float64 `json:"y" doc:"mm"`
	Over       bool    `json:"over" doc:"it goes over the other, by itself or with what carries it"`
	Other      bool    `json:"other" doc:"it crosses the other way than the rest"`
	Impossible bool    `json:"impossible,omitempty" doc:"asked for, and it cannot be: it would go in a circle"`
}

// neighbour is what a thing is drawn to that is drawn to the edge of another.
const neighbour = "edge of a neighbour"

// Meetings lists what an element lies over and beneath, the lowest first, mats left out.
// The error wraps card.ErrGone.
func Meetings(b *build.Build, element string) ([]Meeting, error) {
	at := slices.IndexFunc(b.Things, func(t build.Thing) bool { return t.Element.ID == element })
	if at < 0 {
		return nil, fmt.Errorf("what %q lies over: it %w", element, card.ErrGone)
	}
	me := b.Things[at]
	turn := make([]int, len(b.Pieces))
	for k, p := range b.Upward() {
		turn[p] = k
	}
	out := []Meeting{}
	for i, t := range b.Things {
		if i == at || t.Leaf != nil || t.Outline.Empty() || !t.Rough.Overlaps(me.Rough) {
			continue
		}
		m := Meeting{ID: t.Element.ID, Label: t.Name, Above: i > at, Parts: []MeetingPart{}}
		low := at
		if i < at {
			low = i
		}
		if share, err := cover.Share(b, low); err == nil {
			m.Shows = share
		}
		seen := map[string]bool{}
		for k, p := range b.Pieces[me.From:me.To] {
			if p.ID.Part == "" || seen[p.ID.Part] || !p.Outline.Overlaps(t.Rough) {
				continue
			}
			seen[p.ID.Part] = true
			tuck := card.Tuck{Part: p.ID.Part, With: t.Element.ID}
			at := markOf(p.Outline, t.Outline)
			m.Parts = append(m.Parts, MeetingPart{ID: p.ID.Part, X: at.X, Y: at.Y, Over: turn[me.From+k] > turn[t.From], Label: b.PartName(me.Element, p.ID.Part), Other: slices.Contains(me.Element.Tucks, tuck),
				Impossible: slices.Contains(b.Woven, build.Weave{Element: element, Part: p.ID.Part, With: t.Element.ID})})
		}
		out = append(out, m)
	}
	return out, nil
}

// markOf is a point well within where two outlines lie over each other: in the middle of
// the widest stretch across the middle of the largest piece of it.
func markOf(g, h shape.Region) shape.Point {
	both, err := g.Intersect(h)
	if err != nil || both.Empty() {
		return g.Bounds().Centre()
	}
	piece := both.Pieces()[0]
	y := piece.Bounds().Centre().Y
	at, wide := piece.Bounds().Centre(), 0.0
	for _, x := range piece.Cross(y) {
		if w := x[1] - x[0]; w > wide {
			at, wide = shape.Point{X: (x[0] + x[1]) / 2, Y: y}, w
		}
	}
	return at
}

// Snap is a place that a thing may be drawn to while it is moved.
type Snap struct {
	At  float64 `json:"at" doc:"of its centre, mm"`
	Say string  `json:"say"`
}

// Snaps are the places an element may be drawn to, across and down.
type Snaps struct {
	X []Snap `json:"x" nullable:"false"`
	Y []Snap `json:"y" nullable:"false"`
}

// mostSnaps is how many places are offered each way: the first of them matter most.
const mostSnaps = 80

// SnapsOf lists where an element may be drawn to: the middle and the edges of the panel,
// even gaps between neighbours, the middles and edges of other things, the middles of
// openings. The error wraps card.ErrGone.
func SnapsOf(b *build.Build, element string) (Snaps, error) {
	out := Snaps{X: []Snap{}, Y: []Snap{}}
	at := slices.IndexFunc(b.Things, func(t build.Thing) bool { return t.Element.ID == element })
	if at < 0 || b.Things[at].Outline.Empty() {
		return out, fmt.Errorf("where %q may lie: it %w", element, card.ErrGone)
	}
	me := b.Things[at]
	box := me.Outline.Bounds()
	// From the element's place to its box.
	l, r := me.Element.Place.X-box.Min.X, box.Max.X-me.Element.Place.X
	t, d := me.Element.Place.Y-box.Min.Y, box.Max.Y-me.Element.Place.Y
	panel := b.Panel()
	add := func(to *[]Snap, v float64, say string) {
		if len(*to) < mostSnaps && !slices.ContainsFunc(*to, func(s Snap) bool { return math.Abs(s.At-v) < 0.05 }) {
			*to = append(*to, Snap{v, say})
		}
	}
	midX, midY := (l-r)/2, (t-d)/2 // the box's middle lies so far from the place
	add(&out.X, panel.X+panel.Size.W/2+midX, "middle of the panel")
	add(&out.Y, panel.Y+panel.Size.H/2+midY, "middle of the panel")
	add(&out.X, panel.X+l, "left edge")
	add(&out.X, panel.X+panel.Size.W-r, "right edge")
	add(&out.Y, panel.Y+t, "top edge")
	add(&out.Y, panel.Y+panel.Size.H-d, "foot")
	var others []shape.Box
	for i, o := range b.Things {
		if i == at || o.Leaf != nil || o.Outline.Empty() || me.Element.Group != "" && o.Element.Group == me.Element.Group {
			continue
		}
		others = append(others, o.Outline.Bounds())
		for _, g := range o.Openings {
			c := o.Place(g).Bounds().Centre()
			add(&out.X, c.X+midX, "middle of an opening")
			add(&out.Y, c.Y+midY, "middle of an opening")
		}
		for _, g := range o.Seats {
			c := o.Place(g).Bounds().Centre()
			add(&out.X, c.X+midX, "middle of a seat")
			add(&out.Y, c.Y+midY, "middle of a seat")
		}
	}
	evenly(others, box.Min.Y, box.Max.Y, l+r, func(b shape.Box) (lo, hi, a, z float64) { return b.Min.Y, b.Max.Y, b.Min.X, b.Max.X }, panel.X, panel.X+panel.Size.W,
		func(v float64) { add(&out.X, v+l, "even gap") })
	evenly(others, box.Min.X, box.Max.X, t+d, func(b shape.Box) (lo, hi, a, z float64) { return b.Min.X, b.Max.X, b.Min.Y, b.Max.Y }, panel.Y, panel.Y+panel.Size.H,
		func(v float64) { add(&out.Y, v+t, "even gap") })
	for _, o := range others {
		add(&out.X, o.Centre().X+midX, "middle of a neighbour")
		add(&out.Y, o.Centre().Y+midY, "middle of a neighbour")
		add(&out.X, o.Min.X+l, neighbour)
		add(&out.X, o.Max.X-r, neighbour)
		add(&out.Y, o.Min.Y+t, neighbour)
		add(&out.Y, o.Max.Y-d, neighbour)
	}
	return out, nil
}

// evenly finds where a box of a size lies with the same gap to the neighbours on both
// sides, the panel's edges among them: those that stand beside it, by their span across.
func evenly(others []shape.Box, lo, hi, size float64, span func(shape.Box) (lo, hi, a, z float64), from, to float64, add func(v float64)) {
	type gap struct{ a, z float64 }
	var beside []gap
	for _, o := range others {
		l, h, a, z := span(o)
		if h > lo && l < hi {
			beside = append(beside, gap{a, z})
		}
	}
	slices.SortFunc(beside, func(x, y gap) int { return cmp.Compare(x.a, y.a) })
	last := from
	for _, o := range append(beside, gap{to, to}) {
		if room := o.a - last; room > size {
			add(last + (room-size)/2)
		}
		last = max(last, o.z)
	}
}
