package assemble

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// beside lays a piece under the stack for the person to put in place; others may lie on it.
func (a *assembler) beside(i int) {
	base := a.out[0]
	m := register.Motion{Turn: base.Motion.Turn}
	g := m.Of(a.pieces[i]).Bounds()
	m.Move = shape.Point{X: base.Outline.Bounds().Min.X - g.Min.X, Y: base.Outline.Bounds().Max.Y + 2*between - g.Min.Y}
	for _, q := range a.out {
		if q.aside {
			m.Move.Y = math.Max(m.Move.Y, q.Outline.Bounds().Max.Y+between-g.Min.Y)
		}
	}
	a.add(Placed{Piece: i, Motion: m, Host: 0, Fit: kit.FitFree, aside: true, Why: "nothing tells where it goes: laid beside, put it in place"})
}

// between is the room between pieces laid beside, mm.
const between = 3.0

// layRest puts what is laid beside, with what lies on it, in rows under the stack, as one
// reads the sheet it was found on.
func (a *assembler) layRest() {
	base := a.out[0].Outline.Bounds()
	x, y, tall := base.Min.X, base.Max.Y+2*between, 0.0
	for _, n := range a.reading() {
		b := a.out[n].Outline.Bounds()
		if x > base.Min.X && x+b.W() > base.Max.X {
			x, y, tall = base.Min.X, y+tall+between, 0
		}
		by := shape.Point{X: x, Y: y}.Sub(b.Min)
		x, tall = x+b.W()+between, math.Max(tall, b.H())
		for k := range a.out {
			if a.liesOn(k, n) {
				a.out[k].Motion.Move = a.out[k].Motion.Move.Add(by)
				a.out[k].Outline = a.out[k].Outline.Move(by)
			}
		}
	}
}

// liesOn reports whether piece k is piece n or lies on it, however high.
func (a *assembler) liesOn(k, n int) bool {
	for k > 0 && k != n {
		k = a.out[k].Host
	}
	return k == n
}

// reading lists what is laid beside as one reads where it lay: by rows from the top, each
// from the left.
func (a *assembler) reading() (out []int) {
	for n, p := range a.out {
		if p.aside {
			out = append(out, n)
		}
	}
	box := func(n int) shape.Box { return a.pieces[a.out[n].Piece].Bounds() }
	mid := func(n int) shape.Point { return box(n).Centre() }
	slices.SortStableFunc(out, func(i, j int) int { return cmp.Compare(mid(i).Y, mid(j).Y) })
	for i := 0; i < len(out); {
		j := i + 1
		for j < len(out) && mid(out[j]).Y < mid(out[i]).Y+box(out[i]).H()/2 {
			j++
		}
		slices.SortStableFunc(out[i:j], func(p, q int) int { return cmp.Compare(mid(p).X, mid(q).X) })
		i = j
	}
	return out
}

// inOrder has the pieces come in an order, those laid beside among the rest: the larger
// before the smaller, as what is smaller lies on what is larger wherever that goes, or as a
// picture shows them.
func (a *assembler) inOrder(pieces []int) {
	rank := make([]int, len(pieces))
	for n, i := range pieces {
		rank[i] = n
	}
	order := make([]int, len(a.out))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(i, j int) int { return cmp.Compare(rank[a.out[i].Piece], rank[a.out[j].Piece]) })
	at := make([]int, len(order))
	out := make([]Placed, len(order))
	for n, i := range order {
		at[i], out[n] = n, a.out[i]
	}
	for n := range out {
		if out[n].Host >= 0 {
			out[n].Host = at[out[n].Host]
		}
		if out[n].twin > 0 {
			out[n].twin = at[out[n].twin-1] + 1
		}
	}
	a.out = out
}
