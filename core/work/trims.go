package work

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// coversFree is how much of what is held in part only has to lie beneath a thing to be told of, mm².
const coversFree = 20.0

// freeBeneath minds what lies beneath a thing with ends that are not glued: pressed down on them they catch,
// and lift or crease.
func (k *maker) freeBeneath(i int) []string {
	t := &k.Things[i]
	// What lies beneath what carries it is no matter of its own.
	from := slices.IndexFunc(k.Things, func(o build.Thing) bool { return o.Element.ID == t.Element.On })
	var names []string
	for j := range k.Things {
		if j < from {
			continue
		}
		o := &k.Things[j]
		// What is tucked beneath it lies there too.
		if j == i || (j < i) == k.crosses(t.Element, o.Element) || j > i && inPart(t.Element.Bonds) {
			continue
		}
		if o.Leaf != nil || o.Element.ID == t.Element.On || len(o.Element.Bonds) == 0 || !o.Outline.Bounds().Meets(t.Outline.Bounds()) || !inPart(o.Element.Bonds) {
			continue
		}
		if both, err := o.Outline.Intersect(t.Outline); err != nil || both.Area() < coversFree {
			continue
		}
		if n := k.plainName(j); !slices.Contains(names, n) {
			names = append(names, n)
		}
	}
	if len(names) == 0 {
		return nil
	}
	return []string{fmt.Sprintf("Beneath it %s %s held in part only: glue what lies under it too, mark the middle, and put it down once, or their free ends catch as it is pressed.", words.Listed(names), words.Of(len(names), "is", "are"))}
}

// inPart reports whether bonds hold a part at one end only.
func inPart(bonds []card.Bond) bool {
	for _, b := range bonds {
		if b.Zone != card.BondFoot && b.Zone != card.BondHead && b.Zone != card.BondLeft && b.Zone != card.BondRight {
			return false
		}
	}
	return true
}

// crosses reports whether one of two things is tucked with the other.
func (k *maker) crosses(a, b card.Element) bool {
	of := func(e card.Element, with string) bool {
		return slices.ContainsFunc(e.Tucks, func(t card.Tuck) bool { return t.With == with })
	}
	return of(a, b.ID) || of(b, a.ID)
}

// trimEdges trims what hangs over the edge of what carries it, from the back: when the glue is dry,
// and before that is mounted. It is one act for each such edge.
func trimEdges(k *maker) {
	var edges []card.Leaf
	over := map[string][]int{}
	for i, t := range k.Things {
		if t.Overhang <= 0 {
			continue
		}
		edge := k.Edge(t.Element)
		if over[edge.ID] == nil {
			edges = append(edges, edge)
		}
		over[edge.ID] = append(over[edge.ID], i)
	}
	for _, edge := range edges {
		id := edge.ID
		f := facts{leaf: Thing{Element: id, Part: TrimEdge}, onto: Thing{Element: id}}
		var what []string
		clear := ""
		for _, i := range over[id] {
			t := &k.Things[i]
			what = append(what, words.Small(t.Name)+" "+k.sides(t.Offcut, edge))
			b := blade{element: t.Element.ID, stack: i, passes: map[string]bool{}}
			for j := range k.Things {
				if r := &k.Things[j]; j != i && r.Element.Ribbon != nil && !t.InBlade(r).Empty() {
					b.passes[r.Element.ID] = true
					clear = " Mind the ribbon there."
				}
			}
			f.blades = append(f.blades, b)
		}
		k.add(phaseRaise, Act{ID: card.Step{Verb: TrimEdge, Element: id}, Kind: CutAct, Title: "Trim the overhang from the back of " + k.LeafName(id),
			Detail: fmt.Sprintf("Flush with the edge, face down on the mat, when the glue is dry: %s.%s Keep the trimmings for gaps.", strings.Join(what, "; "), clear)}, f)
	}
}

// sides says by how much an offcut stands out past each side of a leaf.
func (k *maker) sides(off shape.Region, edge card.Leaf) string {
	b := off.Bounds()
	var out []string
	for _, s := range []struct {
		side string
		by   float64
	}{{"left", edge.X - b.Min.X}, {"right", b.Max.X - edge.X - edge.Size.W}, {"top", edge.Y - b.Min.Y}, {"foot", b.Max.Y - edge.Y - edge.Size.H}} {
		if s.by >= leastOff {
			out = append(out, fmt.Sprintf("%s at the %s", k.format(s.by), s.side))
		}
	}
	return words.Listed(out)
}

// leastOff is how much of an overhang is worth saying, mm.
const leastOff = 0.1

// blade is one cut of a trimming: along the edge where a thing hangs over.
type blade struct {
	element string
	stack   int             // of the thing
	passes  map[string]bool // ribbons that it would cut
}

// trims are the elements whose overhang an act trims.
func (f *facts) trims() (out []string) {
	for _, b := range f.blades {
		out = append(out, b.element)
	}
	return out
}

// cutsInto reports whether a trimming would cut a ribbon that is tied before it and can be tied after:
// it lies over what is trimmed there.
func (f *facts) cutsInto(tie *Act) bool {
	if tie.bulky && !slices.ContainsFunc(f.blades, func(b blade) bool { return b.stack > tie.stack }) {
		return true // nothing lies flat, face down, on a bow
	}
	return slices.ContainsFunc(f.blades, func(b blade) bool { return b.passes[tie.ID.Element] && tie.stack > b.stack })
}
