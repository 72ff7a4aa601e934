package sim

import (
	"fmt"
	"math"

	"github.com/tdewolff/canvas"

	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
)

// Sets are die sets that lie beside the simulated device and are in nobody's
// stores: what a person would take out of a drawer to scan.
func Sets() ([]kit.Set, error) {
	var out []kit.Set
	for _, d := range []struct {
		id, name string
		draw     func(*drawing)
	}{
		{"toadstool", "Toadstool", toadstool}, {"leaf", "Beech leaf", leaf}, {"flower", "Marsh mallow", flower}, {"lantern", "Night lantern", lantern},
		{"fish", "Stickleback", fish}, {"snail", "Hedge snail", snail}, {"cottage", "Sluice cottage", cottage},
	} {
		w := &drawing{}
		d.draw(w)
		if w.err != nil {
			return nil, fmt.Errorf("draw %s: %w", d.name, w.err)
		}
		out = append(out, kit.Set{ID: "sim-" + d.id, Name: d.name, Kind: kit.DieSet, Parts: motif.Propose(w.parts)})
	}
	return out, nil
}

// drawing collects parts and the first thing that went wrong.
type drawing struct {
	parts []kit.Part
	err   error
}

func (d *drawing) part(label string, g shape.Region) {
	d.parts = append(d.parts, kit.Part{ID: fmt.Sprintf("p%d", len(d.parts)+1), Label: label, Outline: g, Copies: 1, Rank: 1})
}

func (d *drawing) keep(g shape.Region, err error) shape.Region {
	if err != nil && d.err == nil {
		d.err = err
	}
	return g
}

func (d *drawing) path(data string) shape.Region {
	p, err := canvas.ParseSVGPath(data)
	if err != nil {
		d.keep(shape.Region{}, err)
		return shape.Region{}
	}
	return shape.FromPath(p, true)
}

func (d *drawing) grow(g shape.Region, by float64) shape.Region { return d.keep(g.Offset(by)) }

func (d *drawing) and(g, h shape.Region) shape.Region { return d.keep(g.Intersect(h)) }

func (d *drawing) less(g, h shape.Region) shape.Region { return d.keep(g.Minus(h)) }

func (d *drawing) or(gs ...shape.Region) shape.Region { return d.keep(shape.UnionAll(gs...)) }

func at(x, y float64) shape.Point { return shape.Point{X: x, Y: y} }

func toadstool(d *drawing) {
	top := d.path("M-30 6C-31 -24 -14 -34 1 -34C18 -34 31 -22 30 6C30 13 16 15 0 15C-16 15 -30 13 -30 6Z")
	stalk := d.path("M-9 8C-8 24 -12 36 -13 42C-12 48 12 48 13 42C12 36 8 24 9 8Z")
	d.part("Base", d.grow(d.or(top, stalk), 1.6))
	d.part("Cap", top)
	d.part("Stalk", d.less(stalk, d.grow(top, 0.4)))
	d.part("Cap light", d.and(d.grow(top, -2.2), d.path("M-40 -40H4L-6 4H-40Z")))
	d.part("Gills", d.and(d.grow(top, -1.2), shape.Rect(-40, 8.5, 80, 10)))
}

func leaf(d *drawing) {
	blade := d.path("M0 -42C20 -30 27 -6 20 14C15 29 6 36 2 38L2 50H-2L-2 38C-6 36 -15 29 -20 14C-27 -6 -20 -30 0 -42Z")
	d.part("Leaf", blade)
	inner := d.less(d.grow(blade, -1.8), shape.Rect(-1.3, -50, 2.6, 120))
	for i, g := range inner.Pieces() {
		if g.Area() > 60 {
			d.part([]string{"Left half", "Right half", "More", "More"}[min(i, 3)], g)
		}
	}
}

func flower(d *drawing) {
	petals := func(r, wave float64) shape.Region {
		var ring shape.Ring
		for i := range 240 {
			a := 2 * math.Pi * float64(i) / 240
			k := r * (1 + wave*math.Cos(5*a) + 0.03*math.Cos(10*a))
			ring = append(ring, at(k*math.Sin(a), -k*math.Cos(a)))
		}
		return shape.New(true, ring)
	}
	outer := petals(27, 0.2)
	d.part("Outer petals", outer)
	mid := d.less(d.grow(outer, -2.4), shape.Disc(at(0, 0), 6.5))
	d.part("Inner petals", mid)
	d.part("Eye", shape.Disc(at(0, 0), 6.4))
	d.part("Ring of the eye", shape.RingDisc(at(0, 0), 5, 3))
}

func lantern(d *drawing) {
	frame := d.path("M-17 -26L17 -26L22 34L-22 34ZM-9 -26C-9 -44 9 -44 9 -26L5.5 -26C5.5 -39 -5.5 -39 -5.5 -26Z")
	left, right := d.path("M-14 -20L-2 -20L-2 28L-17.5 28Z"), d.path("M2 -20L14 -20L17.5 28L2 28Z")
	d.part("Frame", d.less(d.less(frame, left), right))
	d.part("Left pane", d.grow(left, -0.15))
	d.part("Right pane", d.grow(right, -0.15))
	d.part("Lid", d.and(d.grow(frame, -1), shape.Rect(-30, -26, 60, 4.6)))
	d.part("Foot", d.and(d.grow(frame, -1), shape.Rect(-30, 29.2, 60, 10)))
}

func fish(d *drawing) {
	body := d.path("M-34 0C-26 -17 2 -21 24 -3L24 4C2 20 -26 16 -34 0Z")
	tail := d.path("M20 -2C28 -8 33 -14 38 -15C35 -5 35 5 38 15C32 14 28 8 20 3Z")
	fin := d.path("M-12 -13C-6 -26 8 -26 12 -20L14 -9C4 -14 -6 -15 -12 -13Z")
	base := d.grow(d.or(body, tail, fin), 1.5)
	d.part("Base", base)
	d.part("Body", d.less(body, d.grow(tail, 0.3)))
	d.part("Tail", tail)
	d.part("Back fin", d.less(fin, d.grow(body, 0.5)))
	d.part("Belly", d.and(d.grow(body, -1.6), d.path("M-40 3C-20 9 4 8 30 4L30 30L-40 30Z")))
	d.part("Eye", shape.Disc(at(-24, -3), 2.4))
}

func snail(d *drawing) {
	shell := shape.Disc(at(6, -8), 20)
	foot := d.path("M-36 20C-40 6 -38 -8 -33 -16C-30 -19 -26 -17 -27 -13C-29 -4 -27 4 -20 8L30 9C36 12 40 16 42 21C20 23 -20 23 -36 20Z")
	d.part("Base", d.grow(d.or(shell, foot), 1.5))
	d.part("Foot", d.less(foot, d.grow(shell, 0.5)))
	d.part("Shell", shell)
	d.part("Whorl", shape.RingDisc(at(6, -8), 17.5, 10.5))
	d.part("Heart", shape.Disc(at(6, -8), 10.2))
}

func cottage(d *drawing) {
	walls := d.path("M-28 -6L-28 30L28 30L28 -6Z")
	roof := d.path("M-34 -4L-20 -30L22 -30L34 -4Z")
	door := d.path("M-6 30L-6 10C-6 4 6 4 6 10L6 30Z")
	window := d.path("M13 6H23V17H13Z")
	d.part("Base", d.grow(d.or(walls, roof), 1.4))
	face := d.less(d.less(walls, window), door)
	d.part("Front", d.less(face, d.grow(roof, 0.4)))
	d.part("Roof", roof)
	d.part("Door", d.grow(door, -0.15))
	d.part("Window", d.grow(window, -0.15))
	d.part("Roof light", d.and(d.grow(roof, -1.8), shape.Rect(-40, -40, 80, 18)))
}
