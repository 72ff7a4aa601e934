package main

import "ochrestone/core/shape"

// shut fills gaps narrower than 2 r and rounds the corners that leave: what a die cannot
// cut, and a stamp would clog.
func shut(g shape.Region, r float64) shape.Region { return offset(offset(g, r), -r) }

const (
	cap   = "M-13.4 -2.2 C-13.8 -11.6 -7.6 -17.4 0 -17.4 C7.6 -17.4 13.8 -11.6 13.4 -2.2 C9.4 0.9 -9.4 0.9 -13.4 -2.2 Z"
	stem  = "M-3.3 -1.6 C-3 3.4 -3.7 8.6 -5.3 12.4 C-5.8 14.2 -3.2 15.4 0 15.4 C3.2 15.4 5.8 14.2 5.3 12.4 C3.7 8.6 3 3.4 3.3 -1.6 Z"
	skirt = "M-3.1 1.2 C-4.6 2 -5.8 3.4 -6.2 5.2 C-4.6 4.6 -3.4 5.4 -2.2 6 C-1.2 5.2 1.2 5.2 2.2 6 C3.4 5.4 4.6 4.6 6.2 5.2 C5.8 3.4 4.6 2 3.1 1.2 Z"
)

// spots are the bare flecks of a cap.
func spots(grow float64) shape.Region {
	var all []shape.Region
	for _, s := range [][3]float64{{-5.2, -9.4, 2.3}, {3.4, -12.6, 1.7}, {7.2, -6.6, 2}, {0.6, -5.4, 1.5}, {-10.2, -4.6, 1.4}, {-1.6, -15, 0.9}} {
		all = append(all, shape.Disc(shape.Point{X: s[0], Y: s[1]}, s[2]+grow))
	}
	return union(all...)
}

// toadstool is a set of layering stamps: the wash of the stem with its skirt, the cap
// around its bare flecks, the shade on it, the lines with grass at the foot.
func toadstool() []group {
	capAll := region(cap, false)
	stemAll := union(region(stem, false), region(skirt, false))
	pale := smooth(minus(stemAll, offset(capAll, 0.2)), 0.4)
	red := smooth(minus(capAll, spots(0)), 0.35)
	lit := capAll.Move(shape.Point{X: -2.6, Y: -2.8})
	shade := smooth(minus(and(minus(capAll, lit), offset(capAll, -0.5)), spots(0.5)), 0.42)
	foot := smooth(and(minus(region(stem, false), region(stem, false).Move(shape.Point{X: -2, Y: -1})), offset(pale, -0.4)), 0.42)
	gills := union(
		line("M-11 -1.6 C-7 0.6 7 0.6 11 -1.6", 1.1, false),
		line("M-3.6 5.2 C-1.6 4.2 1.6 4.2 3.6 5.2", 1.0, false),
		line("M-1.6 8 C-1.8 10 -2.2 12 -2.8 13.4", 1.0, false),
		line("M1 8.6 C1.1 10.2 1.4 12 2 13.4", 1.0, false),
	)
	grass := union(
		line("M-9.6 15.2 C-9 12.4 -8.8 10.8 -9.8 8.2", 1.1, false),
		line("M-7.4 15.4 C-7 13 -6.2 11 -5 9.4", 1.1, false),
		line("M8 15.4 C7.6 12.6 7.8 10.6 9.2 8.4", 1.1, false),
		line("M10.2 15.2 C10.2 13.4 10.8 11.8 12.2 10.6", 1.1, false),
		line("M-11 15.4 C-4 16.4 4 16.4 11.4 15.4", 1.2, false),
	)
	return []group{{name: "Step 1, stem", g: pale}, {name: "Step 2, cap", g: red}, {name: "Step 3, shade", g: union(shade, foot)}, {name: "Step 4, lines and grass", g: union(gills, grass)}}
}

const (
	lamp  = "M0 -34 C8 -34 14 -30 17 -25 L21 -22 L19.4 -17.6 L17.4 -17.6 L19.6 23 L22.4 24.6 L22.4 31 L0 31 Z"
	glass = "M0 -13.6 C7.4 -13.6 12.6 -11.6 13 -8 L14.6 18 C14.6 19.8 13.6 20.6 12 20.6 L0 20.6 Z"
	roof  = "M0 -31.4 C6.8 -31.4 12 -28.2 14.8 -24 L18 -21.8 L17.4 -20 L0 -20 Z"
	plate = "M0 26.6 L20 26.6 L20 28.8 L0 28.8 Z"
	flame = "M0 -7.6 C3.4 -3 6 1.4 6 5.8 C6 9.6 3.4 12.2 0 12.2 Z"
	heart = "M0 0 C1.8 2.4 3 4.4 3 6.8 C3 8.8 1.7 10 0 10 Z"
)

// lantern is a set of dies: the lantern with its glass cut out, the glass itself, roof and
// foot to go on, and the flame in two layers.
func lantern() []group {
	ring := shape.RingDisc(shape.Point{Y: -38.6}, 6.2, 3.8)
	body := smooth(minus(union(region(lamp, true), ring), region(glass, true)), 0.5)
	return []group{{name: "Lantern", g: body}, {name: "Glass", g: region(glass, true)}, {name: "Roof", g: smooth(region(roof, true), 0.5)}, {name: "Foot", g: smooth(region(plate, true), 0.4)},
		{name: "Flame", g: smooth(region(flame, true), 0.4)}, {name: "Heart of the flame", g: smooth(region(heart, true), 0.4)}}
}
