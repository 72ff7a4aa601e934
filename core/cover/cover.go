// Package cover says what shows of things on the front, and what lies under others.
package cover

import (
	"fmt"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Left is what is left to see of a region on a thing when everything that is put on after
// it lies there, and the names of what lies over it. Things that are see-through cover
// nothing.
func Left(b *build.Build, thing int, g shape.Region) (left shape.Region, over []string, err error) {
	for i := thing + 1; i < len(b.Things); i++ {
		t := b.Things[i]
		if t.Element.Face != card.Front || t.Outline.Empty() || t.Leaf != nil || clear(b, i) || !t.Rough.Overlaps(g) {
			continue
		}
		rest, err := g.Minus(t.Outline)
		if err != nil {
			return g, over, fmt.Errorf("what %s covers: %w", t.Name, err)
		}
		if rest.Area() < g.Area() {
			over = append(over, t.Name)
		}
		if g = rest; g.Empty() {
			break
		}
	}
	return g, over, nil
}

// clear reports whether a thing is seen through: nothing but leaves of a stock that is.
func clear(b *build.Build, i int) bool {
	t := b.Things[i]
	for _, p := range b.Pieces[t.From:t.To] {
		if s, ok := b.Stock.Paper(p.Stock); p.Print() || !ok || s.Opaque() {
			return false
		}
	}
	return t.To > t.From
}

// samples is how many corners of an outline are looked at before it is worked out.
const samples = 12

// Buried reports whether a thing lies under others with every corner, and at most a share
// of it shows between them; and what lies over it.
func Buried(b *build.Build, thing int, share float64) (over []string, is bool, err error) {
	t := b.Things[thing]
	// Mostly a corner shows, and that is told quickly.
	for _, r := range t.Rough.Rings() {
		for i := 0; i < len(r); i += 1 + len(r)/samples {
			if !covered(b, thing, r[i]) {
				return nil, false, nil
			}
		}
	}
	left, over, err := Left(b, thing, t.Rough)
	if err != nil {
		return nil, false, err
	}
	return over, len(over) > 0 && left.Area() <= share*t.Rough.Area(), nil
}

// covered reports whether something opaque that is put on later lies over a point.
func covered(b *build.Build, thing int, p shape.Point) bool {
	for i := thing + 1; i < len(b.Things); i++ {
		t := b.Things[i]
		if t.Element.Face == card.Front && t.Leaf == nil && !clear(b, i) && t.Rough.Bounds().Meets(shape.Box{Min: p, Max: p}) && t.Rough.Contains(p) {
			return true
		}
	}
	return false
}
