package foresee

import (
	"fmt"
	"math"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// Our own defaults.
const (
	slender   = 4.0  // mm mean width up to which a thing is a stem, a post or a stroke
	timesLong = 4.0  // times as long as it is wide
	nearlyAt  = 3.0  // mm within which an end nearly reaches what it points at
	touching  = 0.3  // mm within which it reaches it
	sticksOut = 6.0  // mm that an end comes out past what hides the rest
	stump     = 0.25 // share of a thing that such an end is at the most
	straight  = 0.6  // cosine of the angle an end may point past something
)

func reachRules() []Rule {
	return []Rule{
		{ID: "short", Station: Front, Severity: Tip, Source: practice, Limits: []Limit{{"nearly reaches", nearlyAt, "mm", ""}, {"how slender", slender, "mm", ""}}, check: endsShort},
		{ID: "past", Station: Front, Severity: Shows, Source: practice, Limits: []Limit{{"comes out by up to", sticksOut, "mm", ""}, {"how slender", slender, "mm", ""}}, check: past},
	}
}

// post is a slender thing.
type post struct {
	i int // of Build.Things
	w float64
	*build.Thing
}

// stems are the slender things on the front: stems, posts, strokes.
func (v *View) stems() (out []post) {
	for i := range v.Build.Things {
		t := &v.Build.Things[i]
		if t.Leaf != nil || t.Leaves == 0 || t.Element.Face != card.Front || t.Element.Ribbon != nil || t.Element.Gems != nil || t.Element.Letters != nil || t.Outline.Empty() {
			continue
		}
		w := 2 * t.Outline.Area() / t.Outline.Length()
		if w <= slender && t.Outline.Length()/2 >= timesLong*w && len(t.Outline.Pieces()) == 1 {
			out = append(out, post{i, w, t})
		}
	}
	return out
}

// pointedAt reports whether a stem may be meant to meet a thing.
func (v *View) pointedAt(s post, j int) bool {
	o := &v.Build.Things[j]
	return j != s.i && o.Leaf == nil && !o.Outline.Empty() && o.Element.Face == card.Front && !v.carries(j, s.i) && !v.carries(s.i, j) && !v.kin(j, s.i) && !v.Build.AsFront(o)
}

// carries reports whether a thing lies on another, or on what lies on that.
func (v *View) carries(by, thing int) bool {
	id := v.Build.Things[thing].Element.On
	for range v.Build.Things {
		if id == "" {
			return false
		}
		if id == v.Build.Things[by].Element.ID {
			return true
		}
		e, ok := v.Build.Card.Element(id)
		if !ok {
			return false
		}
		id = e.On
	}
	return false
}

// endsShort asks once about every end that nearly reaches what it points at.
func endsShort(v *View, add func(Hit)) {
	for _, s := range v.stems() {
		best, with, from, to := math.Inf(1), -1, shape.Point{}, shape.Point{}
		for j := range v.Build.Things {
			o := &v.Build.Things[j]
			if !v.pointedAt(s, j) || s.Outline.Overlaps(o.Outline) {
				continue
			}
			gap, on, at := s.Outline.Gap(o.Outline)
			if gap <= touching || gap > nearlyAt || gap >= best || !s.endsAt(on, at) {
				continue
			}
			best, with, from, to = gap, j, on, at
		}
		if with < 0 || v.heldAt(s, from) {
			continue
		}
		o := v.Build.Things[with]
		way := to.Sub(from).Scale((best + 1) / best)
		add(Hit{Key: []string{s.Element.ID}, At: At{Element: s.Element.ID}, What: fmt.Sprintf("%s ends %s short of %s", s.Name, v.Format(best), words.Small(o.Name)),
			Why: fmt.Sprintf("Its end, %s, points at it and does not meet it.", v.where(from)), Do: "Move it on, or say what it is meant to do.",
			Numbers: map[string]float64{"short": best}, Facts: []string{o.Element.ID},
			Mend: &Mend{"Move it by " + v.Format(way.Len()), []card.Edit{{Move: &card.Move{Element: s.Element.ID, DX: way.X, DY: way.Y}}}}})
	}
}

// endsAt reports whether a stem ends at a point of its edge, and points from there to another.
func (s post) endsAt(on, at shape.Point) bool {
	r := max(2*s.w, 2)
	end, err := s.Outline.Intersect(shape.Disc(on, r))
	if err != nil || end.Area() > 1.4*r*s.w {
		return false // it goes on to both sides
	}
	a, b := on.Sub(end.Centroid()), at.Sub(on)
	return a.Dot(b) >= straight*a.Len()*b.Len()
}

// heldAt reports whether an end lies over or beneath something beside what carries it.
func (v *View) heldAt(s post, end shape.Point) bool {
	for j := range v.Build.Things {
		if v.pointedAt(s, j) && v.Build.Things[j].Outline.Contains(end) {
			return true
		}
	}
	return false
}

// past notes ends that come out past what hides the rest.
func past(v *View, add func(Hit)) {
	for _, s := range v.stems() {
		for j := s.i + 1; j < len(v.Build.Things); j++ {
			o := &v.Build.Things[j]
			if !v.pointedAt(s, j) || !covers(o) || len(s.Element.Tucks)+len(o.Element.Tucks) > 0 || !s.Outline.Overlaps(o.Outline) || o.Outline.Covers(s.Outline) {
				continue
			}
			left, err := s.Outline.Minus(o.Outline)
			if err != nil {
				continue
			}
			by, at, ok := s.comesOut(left, o.Outline)
			if !ok {
				continue
			}
			add(Hit{Key: []string{s.Element.ID, o.Element.ID}, At: At{Element: s.Element.ID}, What: fmt.Sprintf("%s comes out past %s by %s", s.Name, words.Small(o.Name), v.Format(by)),
				Why: fmt.Sprintf("Its end shows beyond what lies over it, %s.", v.where(at)), Do: "Shorten it, or move it back.",
				Numbers: map[string]float64{"past": by}, Facts: []string{o.Element.ID}})
		}
	}
}

// covers reports whether a thing is one that ends are hidden behind: a figure or a sheet, and no cord, gem
// or word that lies across.
func covers(o *build.Thing) bool {
	return (o.Element.Sheet != nil || o.Element.Image != nil) && 2*o.Outline.Area() > slender*o.Outline.Length()
}

// comesOut is by how much the smaller end of a stem comes out past what lies over its middle.
func (s post) comesOut(left, over shape.Region) (by float64, at shape.Point, ok bool) {
	ends := left.Pieces()
	if len(ends) < 2 {
		return 0, at, false
	}
	small := ends[0]
	for _, e := range ends {
		if e.Area() < small.Area() {
			small = e
		}
	}
	for _, p := range shape.Along(small, 0.3) {
		if d := over.EdgeDistance(p); d > by {
			by, at = d, p
		}
	}
	return by, at, by > touching && by <= sticksOut && small.Area() <= stump*s.Outline.Area()
}
