// Package drawn holds die sets of many trades, drawn for the benches of what puts pieces
// together: animals, buildings, plants, vessels, frames and words.
package drawn

import (
	"fmt"
	"math"

	"github.com/tdewolff/canvas"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// sketch draws a set for the bench: parts from the lowest, mm.
type sketch struct {
	err   error
	parts []kit.Part
}

func (d *sketch) keep(g shape.Region, err error) shape.Region {
	if err != nil {
		d.err = err
	}
	return g
}

func (d *sketch) path(data string) shape.Region {
	p, err := canvas.ParseSVGPath(data)
	if err != nil {
		d.err = err
	}
	return shape.FromPath(p, true)
}

func (d *sketch) part(label string, gs ...shape.Region) shape.Region {
	g := d.or(gs...)
	d.parts = append(d.parts, kit.Part{ID: fmt.Sprintf("p%d", len(d.parts)+1), Label: label, Outline: g, Copies: 1, Rank: 1})
	return g
}

func (d *sketch) grow(g shape.Region, by float64) shape.Region { return d.keep(g.Offset(by)) }
func (d *sketch) and(g, h shape.Region) shape.Region           { return d.keep(g.Intersect(h)) }
func (d *sketch) less(g, h shape.Region) shape.Region          { return d.keep(g.Minus(h)) }
func (d *sketch) or(gs ...shape.Region) shape.Region           { return d.keep(shape.UnionAll(gs...)) }

// both is a region and its mirror image across x = 0.
func (d *sketch) both(g shape.Region) shape.Region { return d.or(g, g.Mirror(0)) }

func disc(x, y, r float64) shape.Region { return shape.Disc(shape.Point{X: x, Y: y}, r) }

func oval(x, y, rx, ry, turn float64) shape.Region {
	var r shape.Ring
	s, c := math.Sincos(turn * math.Pi / 180)
	for i := range 72 {
		v, u := math.Sincos(2 * math.Pi * float64(i) / 72)
		r = append(r, shape.Point{X: x + u*rx*c - v*ry*s, Y: y + u*rx*s + v*ry*c})
	}
	return shape.New(true, r)
}

// Sets are those by which the rules were set:
// animals, buildings, plants, vessels, frames and words.
func Sets() ([]kit.Set, error) {
	return sketched([]drawing{
		{"Owl", func(d *sketch) {
			body := d.or(oval(0, 0, 24, 32, 0), d.both(d.path("M-22-20L-20-40L-6-30z")))
			d.part("Base", d.grow(body, 2))
			d.part("Body", body)
			d.part("Belly", oval(0, 10, 15, 19, 0))
			d.part("Wings", d.both(d.and(d.grow(body, -1.5), d.path("M-30-12C-20-8-16 8-14 26L-34 30z"))))
			d.part("Eye rings", d.both(disc(-9, -14, 8)))
			d.part("Eyes", d.both(disc(-9, -14, 4)))
			d.part("Beak", d.path("M-4-10L4-10L0-2z"))
		}},
		{"Lighthouse", func(d *sketch) {
			tower := d.path("M-14 50L-9-30L9-30L14 50z")
			d.part("Base", d.grow(d.or(tower, shape.Rect(-12, -36, 24, 6), shape.Rect(-7, -48, 14, 14), d.path("M-9-48L0-58L9-48z")), 2))
			d.part("Tower", tower)
			d.part("Gallery", shape.Rect(-12, -36, 24, 6))
			d.part("Lamp", shape.Rect(-7, -47, 14, 11))
			d.part("Roof", d.path("M-9-48L0-58L9-48z"))
			for i := range 3 {
				d.part(fmt.Sprintf("Band %d", i+1), d.and(d.grow(tower, -0.8), shape.Rect(-20, -24+24*float64(i), 40, 11)))
			}
			d.part("Door", d.path("M-4 49V40C-4 34 4 34 4 40V49z"))
		}},
		{"Butterfly", func(d *sketch) {
			fore := d.path("M-2-4C-10-34-44-36-42-14C-41 0-16 4-2 2z")
			hind := d.path("M-2 2C-16 4-34 12-28 26C-22 36-6 22-2 8z")
			d.part("Base", d.grow(d.or(d.both(fore), d.both(hind), oval(0, 0, 3, 16, 0)), 1.8))
			d.part("Fore wings", d.both(fore))
			d.part("Hind wings", d.both(hind))
			d.part("Fore marks", d.both(d.grow(fore, -4)))
			d.part("Hind marks", d.both(d.grow(hind, -3.5)))
			d.part("Spots", d.both(disc(-30, -16, 3)))
			d.part("Body", oval(0, 0, 2.6, 15, 0))
		}},
		{"Fox", func(d *sketch) {
			head := d.path("M-30-10L-28-36L-12-24H12L28-36L30-10L14 14L0 28L-14 14z")
			d.part("Base", d.grow(head, 1.6))
			d.part("Face", head)
			d.part("Cheeks", d.both(d.and(d.grow(head, -1.2), d.path("M-40-6C-22-8-8 4-3 30L-30 30z"))))
			d.part("Ears", d.both(d.grow(d.path("M-29-14L-28-36L-13-24z"), -2.2)))
			d.part("Nose", oval(0, 22, 4, 3, 0))
			d.part("Eyes", d.both(disc(-12, -4, 2.6)))
		}},
		{"Whale", func(d *sketch) {
			body := d.path("M-44 4C-44-22-6-26 14-12C26-4 32-10 34-22L42-28L40-14L50-10C44-2 36 2 32 10C22 28-40 28-44 4z")
			d.part("Base", d.grow(body, 1.5))
			d.part("Body", body)
			d.part("Belly", d.and(d.grow(body, -1.2), d.path("M-50 8C-30 16 0 16 26 12L20 40H-50z")))
			d.part("Fin", d.path("M-12 8C-4 8 2 14 0 22C-8 22-14 16-12 8z"))
			d.part("Eye", disc(-30, 0, 2.4))
		}},
		{"Ladybird", func(d *sketch) {
			shell := disc(0, 4, 24)
			d.part("Base", d.grow(d.or(shell, disc(0, -20, 11)), 1.6))
			d.part("Head", disc(0, -20, 11))
			d.part("Wings", d.both(d.and(shell, d.path("M-0.8-30L-3 40H-40V-30z"))))
			d.part("Spots", d.both(d.or(disc(-12, -4, 4), disc(-14, 10, 3.4), disc(-8, 20, 2.8))))
			d.part("Eyes", d.both(disc(-5, -23, 2)))
		}},
		{"Bear", func(d *sketch) {
			body, head := oval(0, 18, 20, 22, 0), disc(0, -16, 18)
			ears := d.both(disc(-14, -30, 7))
			d.part("Base", d.grow(d.or(body, head, ears, d.both(oval(-20, 8, 6, 12, 25)), d.both(disc(-14, 36, 8))), 1.6))
			d.part("Body", body)
			d.part("Head", d.or(head, ears))
			d.part("Arms", d.both(oval(-20, 8, 6, 12, 25)))
			d.part("Feet", d.both(disc(-14, 36, 8)))
			d.part("Pads", d.both(disc(-14, 36, 5)))
			d.part("Ear insides", d.both(disc(-14, -30, 4)))
			d.part("Muzzle", oval(0, -10, 8, 6, 0))
			d.part("Belly", oval(0, 18, 13, 15, 0))
		}},
		{"Hedgehog", func(d *sketch) {
			var r shape.Ring
			for i := range 40 {
				a := math.Pi * (0.95 + 1.15*float64(i)/39)
				k := 30.0 + 3*float64(i%2)
				r = append(r, shape.Point{X: k * math.Cos(a), Y: k * 0.8 * math.Sin(a)})
			}
			spines := shape.New(true, r)
			face := d.path("M14-12C26-10 36 2 44 8C44 14 30 16 12 16z")
			d.part("Base", d.grow(d.or(spines, face, oval(0, 8, 28, 10, 0)), 1.4))
			d.part("Belly", oval(0, 8, 28, 10, 0))
			d.part("Face", face)
			d.part("Spines", spines)
			d.part("Inner spines", d.grow(spines, -5))
			d.part("Eye", disc(26, 0, 2))
			d.part("Nose", disc(43, 9, 2.6))
		}},
		{"Cat", func(d *sketch) {
			sit := d.path("M-18 40C-26 20-16 4-10-2C-18-10-18-22-16-34L-6-28H6L16-34C18-22 18-10 10-2C16 4 26 20 18 40z")
			d.part("Base", d.grow(sit, 1.5))
			d.part("Coat", sit)
			for i := range 3 {
				y := 8 + 9*float64(i)
				d.part(fmt.Sprintf("Stripe %d", i+1), d.and(d.grow(sit, -1), shape.Rect(-30, y, 60, 4.5)))
			}
			d.part("Ears", d.both(d.grow(d.path("M-15-22L-16-34L-6-28z"), -1.6)))
			d.part("Bib", d.path("M-7 0C-3 4 3 4 7 0C8 8 4 16 0 18C-4 16-8 8-7 0z"))
		}},
		{"Castle", func(d *sketch) {
			tower := func(x float64) shape.Region {
				return d.path(fmt.Sprintf("M%g 36V-20H%gV-14H%gV-20H%gV-14H%gV-20H%gV36z", x-9, x-5, x-2, x+2, x+5, x+9))
			}
			wall := shape.Rect(-20, 0, 40, 36)
			d.part("Base", d.grow(d.or(tower(-26), tower(26), wall), 1.8))
			d.part("Wall", wall)
			d.part("Towers", tower(-26), tower(26))
			d.part("Gate", d.path("M-8 36V20C-8 10 8 10 8 20V36z"))
			d.part("Windows", d.both(d.path("M-29 4V-4C-29-8-23-8-23-4V4z")))
		}},
		{"Windmill", func(d *sketch) {
			mill := d.path("M-18 44L-10-14C-10-24 10-24 10-14L18 44z")
			d.part("Base", d.grow(mill, 1.6))
			d.part("Mill", mill)
			d.part("Cap", d.and(d.grow(mill, -0.6), shape.Rect(-20, -30, 40, 14)))
			d.part("Skirt", d.and(d.grow(mill, -0.6), shape.Rect(-30, 30, 60, 20)))
			d.part("Door", d.path("M-5 43V34C-5 29 5 29 5 34V43z"))
			d.part("Window", disc(0, 8, 4))
		}},
		{"Church", func(d *sketch) {
			nave, spire := d.path("M-6 40V8L16-6L38 8V40z"), d.path("M-26 40V-8L-16-50L-6-8V40z")
			d.part("Base", d.grow(d.or(nave, spire), 1.6))
			d.part("Nave", d.less(nave, d.grow(spire, 0.3)))
			d.part("Spire", spire)
			d.part("Roof", d.and(d.less(d.grow(nave, -0.8), d.grow(spire, 0.6)), shape.Rect(-40, -10, 90, 18)))
			d.part("Clock", disc(-16, 0, 5))
			d.part("Clock face", disc(-16, 0, 3.6))
			d.part("Door", d.path("M-20 39V30C-20 25-12 25-12 30V39z"))
		}},
		{"Tulip", func(d *sketch) {
			cup := d.path("M-16-30L-8-20L0-34L8-20L16-30C22-10 14 4 0 4C-14 4-22-10-16-30z")
			leaf := d.path("M-2 40C-24 34-26 14-24 6C-14 12-4 24-2 40z")
			stem := d.path("M-2 2H2V44H-2z")
			d.part("Base", d.grow(d.or(cup, d.both(leaf), stem), 1.5))
			d.part("Stem", stem)
			d.part("Leaves", d.both(leaf))
			d.part("Cup", cup)
			d.part("Mid petal", d.and(d.grow(cup, -1.2), oval(0, -12, 8, 24, 0)))
			d.part("Leaf lights", d.both(d.grow(leaf, -2.4)))
		}},
		{"Sunflower", func(d *sketch) {
			ring := func(n int, r, rx, ry, turn float64) shape.Region {
				var gs []shape.Region
				for i := range n {
					a := 360*float64(i)/float64(n) + turn
					s, c := math.Sincos(a * math.Pi / 180)
					gs = append(gs, oval(r*c, r*s, rx, ry, a))
				}
				return d.or(gs...)
			}
			back := d.or(ring(12, 24, 14, 6, 0), disc(0, 0, 22))
			d.part("Back petals", back)
			d.part("Petals", d.or(ring(12, 20, 11, 5, 15), disc(0, 0, 18)))
			d.part("Ring", disc(0, 0, 14))
			d.part("Seeds", disc(0, 0, 10))
			d.part("Heart", disc(0, 0, 5))
		}},
		{"Fir", func(d *sketch) {
			tier := func(y, w, h float64) shape.Region {
				return d.path(fmt.Sprintf("M0 %gL%g %gC%g %g %g %g %g %gz", y-h, w, y, w/2, y+3, -w/2, y+3, -w, y))
			}
			all := d.or(tier(30, 26, 26), tier(12, 21, 24), tier(-6, 15, 22), shape.Rect(-4, 30, 8, 12))
			d.part("Base", d.grow(all, 1.5))
			d.part("Trunk", shape.Rect(-4, 28, 8, 14))
			d.part("Low tier", tier(30, 26, 26))
			d.part("Mid tier", tier(12, 21, 24))
			d.part("Top tier", tier(-6, 15, 22))
			d.part("Snow", d.and(d.grow(tier(-6, 15, 22), -1), shape.Rect(-20, -40, 40, 20)))
		}},
		{"Cactus", func(d *sketch) {
			stem := d.path("M-10 30V-20C-10-34 10-34 10-20V30z")
			arm := d.path("M10 12H20V-4C20-10 30-10 30-4V16C30 22 26 24 20 24H10z")
			pot := d.path("M-18 30H18L13 52H-13z")
			d.part("Base", d.grow(d.or(stem, arm, pot), 1.6))
			d.part("Plant", d.or(stem, d.less(arm, stem)))
			d.part("Pot", pot)
			d.part("Rim", shape.Rect(-18, 30, 36, 6))
			for i := range 3 {
				x := -5.5 + 5.5*float64(i)
				d.part(fmt.Sprintf("Rib %d", i+1), d.path(fmt.Sprintf("M%g 26V-18C%g-22 %g-22 %g-18V26z", x-1.2, x-1.2, x+1.2, x+1.2)))
			}
		}},
		{"Vase", func(d *sketch) {
			v := d.path("M-10-40H10L8-26C26-16 30 14 12 40H-12C-30 14-26-16-8-26z")
			d.part("Base", d.grow(v, 1.5))
			d.part("Vase", v)
			d.part("Lip", d.and(d.grow(v, -0.7), shape.Rect(-20, -42, 40, 9)))
			for i := range 3 {
				d.part(fmt.Sprintf("Band %d", i+1), d.and(d.grow(v, -1), shape.Rect(-40, -14+16*float64(i), 80, 8)))
			}
		}},
		{"Teapot", func(d *sketch) {
			pot := oval(0, 6, 26, 22, 0)
			spout := d.path("M22 4C34 2 34-14 42-18L46-14C42-6 40 16 22 18z")
			handle := d.less(oval(-28, 4, 14, 15, 0), oval(-28, 4, 9, 10, 0))
			d.part("Base", d.grow(d.or(pot, spout, handle, oval(0, -16, 14, 6, 0), disc(0, -24, 4)), 1.5))
			d.part("Spout", d.less(spout, pot))
			d.part("Handle", d.less(handle, pot))
			d.part("Pot", pot)
			d.part("Lid", oval(0, -16, 14, 6, 0))
			d.part("Knob", disc(0, -24, 4))
			d.part("Sash", d.and(d.grow(pot, -1), shape.Rect(-40, 0, 80, 10)))
		}},
		{"Cup", func(d *sketch) {
			cup := d.path("M-22-24H22L16 26H-16z")
			d.part("Base", d.grow(d.or(cup, oval(0, -24, 22, 5, 0)), 1.6))
			d.part("Cup", cup)
			d.part("Sleeve", d.and(d.grow(cup, -0.8), shape.Rect(-40, -10, 80, 22)))
			d.part("Rim", oval(0, -24, 21, 4.4, 0))
			d.part("Heart", d.path("M0 8C-10 0-7-7-3-7C-1-7 0-5 0-4C0-5 1-7 3-7C7-7 10 0 0 8z"))
		}},
		{"Oval frame", func(d *sketch) {
			o := oval(0, 0, 42, 30, 0)
			d.part("Base", o)
			d.part("Ring", d.less(oval(0, 0, 39, 27, 0), oval(0, 0, 30, 19, 0)))
			d.part("Inner", oval(0, 0, 28, 17, 0))
			d.part("Middle", oval(0, 0, 22, 11, 0))
		}},
		{"Label", func(d *sketch) {
			l := d.path("M-40-16C-34-16-34-22-34-26H34C34-22 34-16 40-16V16C34 16 34 22 34 26H-34C-34 22-34 16-40 16z")
			d.part("Base", l)
			d.part("Mat", d.grow(l, -2))
			d.part("Panel", d.grow(l, -5))
			d.part("Corners", d.both(d.or(disc(-28, -15, 2.4), disc(-28, 15, 2.4))))
		}},
		{"Word hi", func(d *sketch) {
			h := d.path("M-26-24H-16V-6C-10-12 4-10 4 2V24H-6V4C-6 0-16 0-16 4V24H-26z")
			i := d.or(shape.Rect(12, -8, 10, 32), disc(17, -19, 6))
			d.part("Shadow", d.grow(d.or(h, i), 2.2))
			d.part("Letters", h, i)
			d.part("Inlay", d.grow(d.or(h, i), -2.2))
		}},
		{"Word oh", func(d *sketch) {
			o := d.less(oval(-20, 0, 18, 22, 0), oval(-20, 0, 8, 11, 0))
			h := d.path("M4-22H13V-4C18-9 30-8 30 2V22H21V4C21 0 13 0 13 4V22H4z")
			d.part("Shadow", d.grow(d.or(o, h), 2))
			d.part("Letters", o, h)
			d.part("Heart", oval(-20, 0, 6, 9, 0))
		}},
		{"Snowman", func(d *sketch) {
			low, mid, head := disc(0, 26, 18), disc(0, 0, 13), disc(0, -19, 10)
			hat := d.or(shape.Rect(-12, -30, 24, 3.5), shape.Rect(-7.5, -44, 15, 15))
			d.part("Base", d.grow(d.or(low, mid, head, hat), 1.7))
			d.part("Low ball", low)
			d.part("Middle ball", mid)
			d.part("Head", head)
			d.part("Hat", hat)
			d.part("Hat band", shape.Rect(-6.9, -34.5, 13.8, 4))
			d.part("Scarf", d.path("M-10-10C-4-7 4-7 10-10L11-6L6-4L8 8L3 8L2-4C-2-3-8-4-11-6z"))
		}},
		{"Robot", func(d *sketch) {
			body, head := shape.Rect(-18, -4, 36, 34), shape.Rect(-13, -30, 26, 22)
			arms := d.both(shape.Rect(-27, 0, 7, 24))
			legs := d.both(shape.Rect(-13, 31, 9, 16))
			d.part("Base", d.grow(d.or(body, head, arms, legs, shape.Rect(-3, -9, 6, 6)), 1.5))
			d.part("Body", body)
			d.part("Head", head)
			d.part("Arms", arms)
			d.part("Legs", legs)
			d.part("Panel", d.grow(body, -4))
			d.part("Face plate", d.grow(head, -3))
			d.part("Eyes", d.both(disc(-5, -20, 3)))
			d.part("Dial", disc(0, 8, 6))
		}},
		{"Boat", func(d *sketch) {
			hull := d.path("M-34 18H36L26 36H-24z")
			main, jib := d.path("M-2-40L-2 12H-30z"), d.path("M3-30L3 12H26z")
			d.part("Base", d.grow(d.or(hull, main, jib, shape.Rect(-2, -42, 4, 62)), 1.6))
			d.part("Hull", hull)
			d.part("Mast", shape.Rect(-1.6, -41.6, 3.2, 61))
			d.part("Main sail", main)
			d.part("Jib", jib)
			d.part("Hull stripe", d.and(d.grow(hull, -1), shape.Rect(-50, 22, 100, 6)))
			d.part("Main panel", d.grow(main, -3))
		}},
		{"Pear", func(d *sketch) {
			pear := d.path("M0-26C9-26 9-12 14-2C26 14 18 36 0 36C-18 36-26 14-14-2C-9-12-9-26 0-26z")
			leaf := d.path("M2-28C8-40 22-40 26-36C22-26 10-24 2-28z")
			d.part("Base", d.grow(d.or(pear, leaf, shape.Rect(-1.5, -36, 3, 12)), 1.6))
			d.part("Fruit", pear)
			d.part("Shade", d.and(d.grow(pear, -1.4), d.path("M40-40C6-10-4 20-20 40H40z")))
			d.part("Light", oval(-9, 12, 4, 9, 15))
			d.part("Leaf", leaf)
			d.part("Leaf heart", d.grow(leaf, -2))
			d.part("Stalk", shape.Rect(-1.5, -36, 3, 12))
		}},
		{"Crown", func(d *sketch) {
			crown := d.path("M-34 24L-40-16L-20 2L0-26L20 2L40-16L34 24z")
			d.part("Base", d.grow(crown, 2))
			d.part("Crown", crown)
			d.part("Band", d.and(d.grow(crown, -1.2), shape.Rect(-50, 10, 100, 20)))
			d.part("Points", d.both(disc(-38, -16, 4)), disc(0, -26, 4.6))
			d.part("Gems", disc(0, 16, 4.5), d.both(oval(-18, 16, 5, 3.4, 0)))
		}},
		{"Word joy", func(d *sketch) {
			j := d.path("M-34-22H-24V12C-24 26-44 26-44 12H-36C-36 16-34 16-34 12z")
			o := d.less(oval(-4, 0, 16, 20, 0), oval(-4, 0, 7, 10, 0))
			y := d.path("M16-20H26L32-2L38-20H48L34 24H24L28 10z")
			d.part("Shadow", d.grow(d.or(j, o, y), 2.4))
			d.part("Letters", j, o, y)
			d.part("Inlay", d.grow(d.or(j, o, y), -1.8))
		}},
	})
}

// HeldBack are sets drawn once the rules stood, which nothing was set by.
func HeldBack() ([]kit.Set, error) {
	return sketched([]drawing{
		{"Rabbit", func(d *sketch) {
			ears, head, body := d.both(oval(-7, -36, 4.5, 15, -8)), oval(0, -12, 14, 13, 0), oval(0, 18, 17, 20, 0)
			d.part("Base", d.grow(d.or(ears, head, body), 1.8))
			d.part("Body", body)
			d.part("Head", d.or(head, ears))
			d.part("Ear insides", d.both(oval(-7, -36, 2.4, 11, -8)))
			d.part("Tummy", oval(0, 20, 10, 13, 0))
			d.part("Cheeks", d.both(disc(-8, -8, 2.6)))
		}},
		{"Jug", func(d *sketch) {
			jug := d.path("M-14-30L-20-34L14-30L12-20C22-10 24 14 14 32H-14C-24 14-22-10-12-20z")
			grip := d.less(oval(20, 0, 13, 17, 0), oval(20, 0, 8, 12, 0))
			d.part("Base", d.grow(d.or(jug, grip), 1.5))
			d.part("Grip", d.less(grip, jug))
			d.part("Jug", jug)
			d.part("Glaze", d.and(d.grow(jug, -1.2), shape.Rect(-40, -40, 80, 34)))
			d.part("Belly band", d.and(d.grow(jug, -1.2), shape.Rect(-40, 4, 80, 8)))
		}},
		{"Gate", func(d *sketch) {
			post := d.both(shape.Rect(-34, -20, 8, 50))
			var rails []shape.Region
			for i := range 4 {
				rails = append(rails, shape.Rect(-26, -14+11*float64(i), 52, 5))
			}
			d.part("Base", d.grow(d.or(append(rails, post, d.path("M-26 24L22-14L26-12L-22 26z"))...), 1.5))
			d.part("Posts", post)
			d.part("Rails", rails...)
			d.part("Brace", d.path("M-26 24L22-14L26-12L-22 26z"))
			d.part("Caps", d.both(d.path("M-35-20H-25L-30-28z")))
		}},
		{"Acorn", func(d *sketch) {
			nut, cap := d.path("M-16-4C-16 20-6 30 0 36C6 30 16 20 16-4z"), d.path("M-21-4C-23-20-10-26 0-26C10-26 23-20 21-4C10 0-10 0-21-4z")
			d.part("Base", d.grow(d.or(nut, cap, shape.Rect(-2, -36, 4, 12)), 1.6))
			d.part("Nut", nut)
			d.part("Cup", cap)
			d.part("Cup top", d.and(d.grow(cap, -1.3), shape.Rect(-30, -30, 60, 16)))
			d.part("Shine", d.and(d.grow(nut, -2), shape.Rect(-30, -10, 24, 60)))
			d.part("Stalk", shape.Rect(-2, -36, 4, 12))
		}},
		{"Car", func(d *sketch) {
			low, roof := d.path("M-38 4C-38-4-30-6-24-6H26C34-6 38 0 38 8V14H-38z"), d.path("M-20-6L-12-22H14L24-6z")
			d.part("Base", d.grow(d.or(low, roof, d.both(disc(-20, 14, 9))), 1.5))
			d.part("Body", d.or(low, roof))
			d.part("Windows", d.grow(d.path("M-20-6L-12-22H0V-6z"), -2.5), d.grow(d.path("M2-6V-22H14L24-6z"), -2.5))
			d.part("Wheels", d.both(disc(-20, 14, 9)))
			d.part("Hubs", d.both(disc(-20, 14, 4)))
			d.part("Lower stripe", d.and(d.grow(low, -1), shape.Rect(-50, 4, 100, 4)))
		}},
		{"Heart nest", func(d *sketch) {
			h := d.path("M0 34C-40 4-36-26-16-26C-6-26 0-18 0-14C0-18 6-26 16-26C36-26 40 4 0 34z")
			d.part("Base", h)
			d.part("Second", d.grow(h, -2.5))
			d.part("Third", d.grow(h, -6))
			d.part("Window", d.grow(h, -12))
			d.part("Bow", d.both(d.path("M0-2C-6-10-14-8-12 0C-14 8-6 6 0-2z")))
		}},
	})
}

// drawing is a set to be drawn.
type drawing struct {
	name string
	draw func(d *sketch)
}

func sketched(all []drawing) (out []kit.Set, err error) {
	for _, s := range all {
		d := &sketch{}
		s.draw(d)
		if d.err != nil {
			return nil, fmt.Errorf("draw %s: %w", s.name, d.err)
		}
		out = append(out, kit.Set{ID: "drawn-" + s.name, Name: s.name, Kind: kit.DieSet, Parts: d.parts})
	}
	return out, nil
}
