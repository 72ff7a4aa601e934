package main

import (
	"math"

	"ochrestone/core/shape"
)

// tapered is a rib from a narrow end to a wide one.
func tapered(a shape.Point, ra float64, b shape.Point, rb float64) shape.Region {
	ring := shape.Hull(append(shape.Disc(a, ra).Rings()[0], shape.Disc(b, rb).Rings()[0]...))
	return shape.New(true, ring)
}

// fan is ribs that spread from a hinge, so many degrees apart, each as long as it says.
func fan(hinge shape.Point, n int, step, from, narrow, wide float64, long func(i int) float64) shape.Region {
	var all []shape.Region
	for i := range n {
		a := (float64(i) - float64(n-1)/2) * step * math.Pi / 180
		at := func(r float64) shape.Point {
			return shape.Point{X: hinge.X + r*math.Sin(a), Y: hinge.Y - r*math.Cos(a)}
		}
		all = append(all, tapered(at(from), narrow, at(long(i)), wide))
	}
	return union(all...)
}

// furrows are the gaps between n ribs, from so far from the hinge out past the edge.
func furrows(hinge shape.Point, n int, step, from, to, narrow, wide float64) shape.Region {
	return fan(hinge, n-1, step, from, narrow, wide, func(int) float64 { return to })
}

// fanShell is a scallop in two layers: the shell with its ears, and the ribs.
func fanShell() []group {
	hinge := shape.Point{Y: 13}
	long := func(i int) float64 { return 25.5 - 0.55*math.Abs(float64(i)-4)*math.Abs(float64(i)-4)/2 }
	ears := region("M0 9.6 L8.4 9.2 L7 15.6 L0 16.4 Z", true)
	base := smooth(shut(union(fan(hinge, 9, 15.5, 2, 1.6, 4.4, long), ears), 0.6), 0.5)
	ribs := smooth(minus(minus(offset(base, -1.2), offset(ears, 0.1)), furrows(hinge, 9, 15.5, 8.5, 34, 0.36, 0.95)), 0.45)
	return []group{{name: "Shell", g: base}, {name: "Ribs", g: ribs}}
}

// cockle is a small round shell of seven ribs.
func cockle() []group {
	hinge := shape.Point{Y: 8.4}
	long := func(i int) float64 { return 13.6 - 0.35*math.Abs(float64(i)-3)*math.Abs(float64(i)-3) }
	base := smooth(shut(union(fan(hinge, 7, 21, 1, 2, 3.6, long), shape.Disc(hinge, 3.4)), 0.6), 0.5)
	ribs := smooth(minus(offset(base, -1), furrows(hinge, 7, 21, 5.4, 22, 0.36, 0.8)), 0.45)
	return []group{{name: "Shell", g: base}, {name: "Ribs", g: ribs}}
}

// whelk is a shell wound to a point: the shell, and the whorls that lie on it.
func whelk() []group {
	base := smooth(region("M1.4 -20 C4.4 -17 7.2 -12.4 9 -7.4 C11.6 -2.2 12.6 4 10.6 9.4 C9 13.8 5.6 17.4 1.6 20.4 C-0.8 19.6 -2.4 17.6 -3 15 C-7.6 13.8 -11 9.6 -11.4 4 C-11.8 -1 -9.4 -5.2 -7 -8.6 C-5 -12.8 -2.4 -17.4 1.4 -20 Z", false), 0.5)
	bands := union(
		line("M-2.4 -15.2 C0.4 -13.4 3 -13.2 5.8 -14.4", 2.2, false),
		line("M-5.6 -10.4 C-1.6 -7.4 3.8 -7.2 9 -9.4", 2.8, false),
		line("M-9.6 -4.6 C-4.4 -0.4 4.4 0.4 12.4 -2.8", 3.4, false),
		line("M-11.8 3.4 C-7 8.6 -1 9.4 3.6 6.4 C7.4 4.2 9.8 4.6 12.4 6.4", 3.6, false),
		line("M1.6 11.8 C3.4 13.6 3.2 15.6 1.6 17.8", 1.8, false),
	)
	whorls := smooth(and(bands, offset(base, -1.2)), 0.45)
	return []group{{name: "Shell", g: base}, {name: "Whorls", g: whorls}}
}
