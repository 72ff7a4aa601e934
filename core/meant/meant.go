// Package meant judges what things on a card are meant to do, where they lie: whether they reach what they
// are to reach, how deep they go in, how much of them is seen, how near their colours are.
package meant

import (
	"math"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/cover"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// What counts where the person names no number: our own defaults.
const (
	Least   = 0.5  // mm by which one thing reaches another
	Deep    = 3.0  // mm that a thing goes in beneath another
	Off     = 1.0  // mm that a thing keeps from another
	Share   = 0.5  // of a thing that is seen
	Unseen  = 0.02 // of a thing that may be seen when it is to be hidden
	Alike   = 3.0  // CIEDE2000 within which two colours match
	Exactly = 0.3  // mm by which a copy may lie off its like
)

// Unit is what a purpose is judged in.
type Unit string

// Units.
const (
	MM        Unit = "mm"
	Hundredth Unit = "%"
	DeltaE    Unit = "CIEDE2000"
)

// Kept is how one purpose of a thing stands.
type Kept struct {
	Element string       `json:"element"`
	N       int          `json:"n" doc:"which of its purposes, from 0"`
	Do      card.Purpose `json:"do" enum:"reach,go in beneath,stay clear of,be seen,be hidden,match,run over,lie over its like"`
	With    string       `json:"with,omitempty" doc:"the other element"`
	Is      float64      `json:"is" doc:"as it lies; of reach and of going in less than 0 where they do not meet, of staying clear where they do"`
	Wanted  float64      `json:"wanted" doc:"at least, or of a match, of a copy and of what is hidden at most"`
	Unit    Unit         `json:"unit" enum:"mm,%,CIEDE2000"`
	Kept    bool         `json:"kept"`
	Unknown bool         `json:"unknown,omitempty" doc:"it cannot be judged: something of it cannot be worked out, or lies elsewhere"`

	// Way is by how much the thing moved, mm, would keep it; nothing where moving it does not help.
	Way shape.Point `json:"-"`
}

// Judge judges every purpose on a card, in the card's order; seen gives its front as it is seen.
func Judge(b *build.Build, seen func() *cover.Map) []Kept {
	out := []Kept{}
	for i := range b.Things {
		t := &b.Things[i]
		for n, m := range t.Element.Meant {
			j := judging{b, seen, t, m, Kept{Element: t.Element.ID, N: n, Do: m.Do, With: m.With, Unit: MM}}
			j.judge()
			out = append(out, j.Kept)
		}
	}
	return out
}

type judging struct {
	b    *build.Build
	seen func() *cover.Map
	t    *build.Thing
	m    card.Meant
	Kept
}

// wanted is the person's number, or what counts without one.
func (j *judging) wanted(usual float64) {
	if j.Wanted = j.m.By; j.m.By == 0 {
		j.Wanted = usual
	}
}

func (j *judging) judge() {
	own, ok := j.outline(j.t, j.m.Part)
	if !ok {
		j.Unknown, j.Kept.Kept = true, true
		return
	}
	switch j.m.Do {
	case card.IsSeen, card.IsHidden:
		j.show(own)
	case card.Matches:
		j.match()
	case card.RunsOver:
		j.wanted(Least)
		least, _ := layout.RoomOf(own, j.b.Edge(j.t.Element)).Least()
		j.Is = -least
		j.Kept.Kept = j.Is >= j.Wanted
	default:
		j.between(own)
	}
}

// outline is a thing, or a layer of it, where it lies on the front.
func (j *judging) outline(t *build.Thing, part string) (shape.Region, bool) {
	if part == "" {
		return t.Outline, !t.Outline.Empty()
	}
	for _, p := range j.b.Pieces[t.From:t.To] {
		if p.ID.Part == part {
			return p.Outline, !p.Outline.Empty()
		}
	}
	return shape.Region{}, false
}

func (j *judging) other() *build.Thing {
	for i := range j.b.Things {
		if j.b.Things[i].Element.ID == j.m.With {
			return &j.b.Things[i]
		}
	}
	return nil
}

// between judges what is about another thing by where both lie.
func (j *judging) between(own shape.Region) {
	o := j.other()
	if o == nil {
		j.Unknown, j.Kept.Kept = true, true
		return
	}
	theirs, ok := j.outline(o, j.m.WithPart)
	if !ok {
		j.Unknown, j.Kept.Kept = true, true
		return
	}
	if j.m.Do == card.IsCopy {
		j.wanted(Exactly)
		d := o.Element.Place
		e := j.t.Element.Place
		j.Way = shape.Point{X: d.X - e.X, Y: d.Y - e.Y}
		j.Is = j.Way.Len()
		j.Kept.Kept = j.Is <= j.Wanted
		return
	}
	deep, way := Into(own, theirs)
	if j.m.Do == card.KeepsOff {
		j.wanted(Off)
		j.Is = -deep
		j.Kept.Kept = j.Is >= j.Wanted
		j.Way = away(way, j.Wanted-j.Is)
		return
	}
	j.wanted(map[card.Purpose]float64{card.Reaches: Least, card.GoesIn: Deep}[j.m.Do])
	j.Is = deep
	j.Kept.Kept = j.Is >= j.Wanted
	if short := j.Wanted - j.Is; short > 0 {
		j.Way = way.Scale(short)
	}
}

func away(way shape.Point, by float64) shape.Point {
	if by <= 0 {
		return shape.Point{}
	}
	return way.Scale(-by)
}

// along is how near points are looked at along an outline, mm.
const along = 0.4

// Into is how deep one outline goes into another, mm: how far the furthest of its points within the other
// lies from that one's edge; less than 0 by the gap where they do not meet. way is the direction, of length
// 1, in which it would go in deeper.
func Into(own, other shape.Region) (deep float64, way shape.Point) {
	gap, on, to := own.Gap(other)
	inside := func(p shape.Point) {
		if d := other.EdgeDistance(p); other.Contains(p) && d > deep {
			deep = d
		}
	}
	for _, p := range shape.Along(own, along) {
		inside(p)
	}
	if deep == 0 && own.Overlaps(other) {
		// It holds the other whole, or they cross with no point of its edge within.
		both, err := own.Intersect(other)
		if err == nil {
			b := both.Bounds()
			deep = min(b.W(), b.H()) / 2
		}
	}
	if deep == 0 && !own.Overlaps(other) {
		if gap <= 0 {
			return 0, towards(own, other)
		}
		return -gap, to.Sub(on).Scale(1 / gap)
	}
	return deep, towards(own, other)
}

// towards is the direction from the middle of one outline to that of another.
func towards(own, other shape.Region) shape.Point {
	d := other.Bounds().Centre().Sub(own.Bounds().Centre())
	if d.Len() < 1e-9 {
		return shape.Point{}
	}
	return d.Scale(1 / d.Len())
}

// show judges how much is seen.
func (j *judging) show(own shape.Region) {
	j.Unit = Hundredth
	shown, whole := 0.0, 0.0
	seen := j.seen()
	for i := range j.b.Things {
		if &j.b.Things[i] == j.t {
			shown, whole, _ = seen.Of(i, own)
		}
	}
	if whole == 0 {
		j.Unknown, j.Kept.Kept = true, true
		return
	}
	j.Is = 100 * shown / whole
	if j.m.Do == card.IsHidden {
		j.wanted(100 * Unseen)
		j.Kept.Kept = j.Is <= j.Wanted
		return
	}
	j.wanted(100 * Share)
	j.Kept.Kept = j.Is >= j.Wanted
}

// match judges how near a colour is to the one it is to match: the largest patch of each that is seen.
func (j *judging) match() {
	j.Unit = DeltaE
	j.wanted(Alike)
	a, ok := j.colour(j.t.Element.ID, j.m.Part)
	var c colour.Lab
	found := false
	switch {
	case j.m.Paper != "":
		if p, has := j.b.Stock.Paper(j.m.Paper); has {
			c, found = j.b.Stock.PaperColour(p.ID).Lab(), true
		}
	case j.m.Ink != "":
		paper := j.b.Card.Ground(j.t.Element)
		if d, has := j.b.Stock.Dried(card.Finish{Ink: j.m.Ink}, j.b.Stock.PaperColour(paper), paper); has {
			c, found = d.Dry.Lab(), true
		}
	default:
		c, found = j.colour(j.m.With, j.m.WithPart)
	}
	if !ok || !found {
		j.Unknown, j.Kept.Kept = true, true
		return
	}
	j.Is = colour.Difference(a, c)
	j.Kept.Kept = j.Is <= j.Wanted
}

// colour is that of the largest patch of a thing, or of one layer of it, that is seen.
func (j *judging) colour(element, part string) (c colour.Lab, ok bool) {
	most := math.Inf(-1)
	for _, p := range j.seen().Patches {
		if p.Thing < 0 || j.b.Things[p.Thing].Element.ID != element || part != "" && p.Part != part {
			continue
		}
		if p.Area > most {
			most, c, ok = p.Area, p.Colour, true
		}
	}
	return c, ok
}
