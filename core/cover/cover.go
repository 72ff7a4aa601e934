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
	for i, t := range b.Things {
		if i == thing || t.Element.Face != card.Front || t.Outline.Empty() || t.Leaf != nil || clear(b, i) || !t.Rough.Overlaps(g) {
			continue
		}
		by := t.Outline
		if b.Up == nil {
			if i < thing {
				continue
			}
		} else if by, err = above(b, i, thing); err != nil {
			return g, over, err
		}
		if by.Empty() {
			continue
		}
		rest, err := g.Minus(by)
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

// Share is how much of a thing is left to see when everything lies on the front, 0 to 1: of
// its whole outline, or where parts cross others the other way of all its parts together.
func Share(b *build.Build, thing int) (float64, error) {
	t := b.Things[thing]
	if t.Outline.Empty() {
		return 0, nil
	}
	if b.Up == nil {
		left, _, err := Left(b, thing, t.Outline)
		return left.Area() / t.Outline.Area(), err
	}
	turn := make([]int, len(b.Pieces))
	for k, p := range b.Up {
		turn[p] = k
	}
	whole, shown := 0.0, 0.0
	for p := t.From; p < t.To; p++ {
		g := b.Pieces[p].Outline
		whole += g.Area()
		for i, o := range b.Things {
			if i == thing || o.Leaf != nil || clear(b, i) || !o.Rough.Overlaps(g) {
				continue
			}
			for q := o.From; q < o.To; q++ {
				if turn[q] < turn[p] || !b.Pieces[q].Outline.Overlaps(g) {
					continue
				}
				rest, err := g.Minus(b.Pieces[q].Outline)
				if err != nil {
					return 0, fmt.Errorf("what %s covers: %w", o.Name, err)
				}
				g = rest
			}
		}
		shown += g.Area()
	}
	return shown / max(whole, 1e-9), nil
}

// above is what of a thing is laid later than the last of another.
func above(b *build.Build, i, than int) (shape.Region, error) {
	turn := make(map[int]int, len(b.Up))
	for k, p := range b.Up {
		turn[p] = k
	}
	last := -1
	for p := b.Things[than].From; p < b.Things[than].To; p++ {
		last = max(last, turn[p])
	}
	var gs []shape.Region
	for p := b.Things[i].From; p < b.Things[i].To; p++ {
		if turn[p] > last {
			gs = append(gs, b.Pieces[p].Outline)
		}
	}
	g, err := shape.UnionAll(gs...)
	if err != nil {
		return g, fmt.Errorf("what of %s lies over %s: %w", b.Things[i].Name, b.Things[than].Name, err)
	}
	return g, nil
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
