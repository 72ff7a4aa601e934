package build

import (
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// leastJoint is how much of two things has to lie over each other for that to be a joint, mm²; our own
// default.
const leastJoint = 4.0

// Lifted is a thing that is lifted with tacky film together with others.
type Lifted struct {
	Thing int     // of Build.Things
	Share float64 // of its back that others of them cover: no glue gets there before the film is off
	Over  []int   // of Build.Things, the lowest first
}

// Lifted lists what is lifted with tacky film, the lowest first. They are glued from behind, face down:
// where a thing lies over another of them its back is covered.
func (b *Build) Lifted() (out []Lifted) {
	var below []int
	for i := range b.Things {
		t := &b.Things[i]
		if !t.Element.Film || t.Element.Face != card.Front || t.Leaves == 0 || t.Outline.Empty() {
			continue
		}
		l := Lifted{Thing: i}
		var joints []shape.Region
		for _, j := range below {
			both, err := t.Outline.Intersect(b.Things[j].Outline)
			if err == nil && both.Area() >= leastJoint {
				joints = append(joints, both)
				l.Over = append(l.Over, j)
			}
		}
		if all, err := shape.UnionAll(joints...); err == nil {
			l.Share = min(1, all.Area()/t.Outline.Area())
		}
		out = append(out, l)
		below = append(below, i)
	}
	if len(out) < 2 {
		return nil
	}
	return slices.Clip(out)
}
