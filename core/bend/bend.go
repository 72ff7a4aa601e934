// Package bend finds how a leaf of card comes to lie: as a thin elastic plate, pressed on by a
// hand, held where it stuck, over whatever is beneath it.
package bend

import (
	"math"

	"ochrestone/core/shape"
)

// Leaf is a thin elastic plate.
type Leaf struct {
	Outline shape.Region
	Stiff   float64 // against bending, N·mm, from Stiff
	Weight  float64 // N a mm²
	Cell    float64 // side of the cells it is worked out on, mm; 0: by its size
}

// Modulus is how stiff card is, N/mm²: 2 to 4 GPa is of the order of what is published for solid
// board bent across its weaker way (bending stiffness by ISO 2493-1); from memory. It is a stated
// default, not a measurement, and the grain is not told apart.
const Modulus = 3000.0

// poisson is by how much card that is bent one way bends the other way; from memory.
const poisson = 0.3

// Stiff is the bending stiffness of card of a thickness in mm, N·mm: E t³ / 12 (1 - ν²), by the
// theory of thin plates.
func Stiff(thick float64) float64 {
	return Modulus * thick * thick * thick / (12 * (1 - poisson*poisson))
}

// Bearing is a small area by which a leaf may be borne or held.
type Bearing struct {
	At    shape.Point
	Z     float64 // the underside stands so high where it touches, mm
	Area  float64 // how much of the leaf it stands for, mm²
	Gives float64 // how it gives beneath a push, N/mm² a mm; 0: as hard as card on card
	Holds float64 // pull that its joint bears, N/mm²; 0: it lies there loose
}

// Our own defaults.
const (
	hard   = 5.0  // N/mm² a mm: card pressed on card gives 0.006 mm beneath a thumb
	Hand   = 0.1  // N/mm²: a thumb that presses with 10 N on a square centimetre
	fine   = 1000 // parts of a mm in which heights are told
	slack  = 2e-3 // mm by which what touches may be off, where joints hold the leaf
	rounds = 300  // of coming off, and of looking for what touches
	loose  = 1e-9 // N a mm at each node, by which what nothing holds still has one place
)

// Lying is how a leaf came to lie.
type Lying struct {
	Field         // its underside
	Stuck []bool  // by bearing: its joint took, and holds
	Off   []bool  // by bearing: it has glue that did not take, for the card pulls too hard
	Most  float64 // the strongest pull on a joint that holds, N/mm²
}

// Press lays a leaf on what bears it and presses it down place by place wherever there is glue, so
// hard as a hand can, N/mm². Where card would have to be pulled down harder than that, or than the
// joint bears, it comes off, the front first. Nothing goes into what bears it but by what a push
// presses in. A leaf without bearings lies level at 0.
//
// The plate's energy of bending (Kirchhoff; Timoshenko and Woinowsky-Krieger, Theory of Plates and
// Shells, from memory) on a grid of finite differences, with springs that only push where it lies
// loose: an obstacle problem, convex, solved by Newton's method with exact steps.
func Press(l Leaf, on []Bearing, hand float64) Lying {
	out := Lying{Stuck: make([]bool, len(on)), Off: make([]bool, len(on))}
	if len(on) == 0 || l.Outline.Empty() {
		return out
	}
	p := newPlate(l, on)
	for i, b := range on {
		out.Stuck[i] = b.Holds > 0
	}
	p.keep(l.Stiff, hand, on, out.Stuck)
	for range rounds {
		p.settle(l.Weight, out.Stuck)
		worst := 0.0
		for i, b := range on {
			if out.Stuck[i] {
				worst = max(worst, p.pull(i)/min(hand, b.Holds))
			}
		}
		if worst <= 1 {
			break
		}
		// The front of a joint comes off first, and leaves its pull to what is behind it.
		var off []int
		for i, b := range on {
			if out.Stuck[i] && p.pull(i)/min(hand, b.Holds) > max(1, worst/2) {
				off = append(off, p.gives(on, out.Stuck, i)...)
			}
		}
		for _, i := range off {
			out.Stuck[i] = false
		}
	}
	for i, stuck := range out.Stuck {
		if out.Off[i] = on[i].Holds > 0 && !stuck; stuck {
			out.Most = max(out.Most, p.pull(i))
		}
	}
	// No finer than it is known, so that what lies on it far from a change does not change.
	out.Field = p.field()
	for i, z := range out.Z {
		out.Z[i] = math.Round(z*fine) / fine
	}
	return out
}

// Field is heights over a grid of square cells, linear within each along both ways.
type Field struct {
	From   shape.Point // the first node
	Cell   float64     // mm
	NX, NY int         // nodes
	Z      []float64   // mm, row by row; of nodes the leaf does not reach as at the nearest it does
}

// Flat reports whether the field is none: a level at 0.
func (f Field) Flat() bool { return len(f.Z) == 0 }

// At is the height at a point, mm; outside the grid as at its edge.
func (f Field) At(q shape.Point) float64 {
	if f.Flat() {
		return 0
	}
	i, u := f.cell((q.X-f.From.X)/f.Cell, f.NX)
	j, v := f.cell((q.Y-f.From.Y)/f.Cell, f.NY)
	k := j*f.NX + i
	return (1-v)*((1-u)*f.Z[k]+u*f.Z[k+1]) + v*((1-u)*f.Z[k+f.NX]+u*f.Z[k+f.NX+1])
}

// Node is where the k-th of the heights is.
func (f Field) Node(k int) shape.Point {
	return f.From.Add(shape.Point{X: float64(k%f.NX) * f.Cell, Y: float64(k/f.NX) * f.Cell})
}

// cell is the cell in which a place along the grid lies, and how far along it.
func (f Field) cell(t float64, n int) (int, float64) {
	t = min(max(t, 0), float64(n-1))
	i := min(int(t), n-2)
	return i, t - float64(i)
}

// Up is the field higher by so many mm; the heights are its own.
func (f Field) Up(by float64) Field {
	z := make([]float64, len(f.Z))
	for i, v := range f.Z {
		z[i] = v + by
	}
	f.Z = z
	return f
}

// Size is the side of the cells for a leaf, mm: about a tenth of what it is across.
func Size(g shape.Region) float64 {
	const finest, coarsest, across = 0.4, 3.0, 10.0
	return min(max(math.Sqrt(g.Area())/across, finest), coarsest)
}
