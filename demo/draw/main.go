// Command draw writes the demo's art, demo/art/*.svg, from its curves: the
// hawk-moth, lantern and shell die sets, the beetle and toadstool layering stamps. Run:
// go run ./demo/draw
//
// Every layer is one group of closed outlines in millimetres, as a person
// would draw a set; the program reads them through the same importer.
package main

import (
	"fmt"
	"log"
	"os"
	"strings"

	"github.com/tdewolff/canvas"

	"ochrestone/core/shape"
)

func main() {
	for name, groups := range map[string][]group{"hawk-moth": moth(), "beetle": beetle(), "toadstool": toadstool(), "lantern": lantern(),
		"fan-shell": fanShell(), "whelk": whelk(), "cockle": cockle(), "tide-tray": tray()} {
		if err := os.WriteFile("demo/art/"+name+".svg", []byte(svg(groups)), 0o644); err != nil {
			log.Fatal(err)
		}
	}
}

type group struct {
	name    string
	g       shape.Region
	pressed shape.Region // edges of it are pressed in, and not cut
}

// region turns path data into a region and adds its mirror image across x = 0.
func region(d string, mirror bool) shape.Region {
	p := canvas.MustParseSVGPath(d)
	g := shape.FromPath(p, true)
	if !mirror {
		return g
	}
	return must(g.Union(shape.FromPath(p.Transform(canvas.Identity.Scale(-1, 1)), true)))
}

// line is a stroked curve, mirrored when asked.
func line(d string, width float64, mirror bool) shape.Region {
	p := canvas.MustParseSVGPath(d).Stroke(width, canvas.RoundCap, canvas.RoundJoin, 0.01)
	g := shape.FromPath(p, true)
	if !mirror {
		return g
	}
	return must(g.Union(shape.FromPath(p.Transform(canvas.Identity.Scale(-1, 1)), true)))
}

func must(g shape.Region, err error) shape.Region {
	if err != nil {
		log.Fatal(err)
	}
	return g
}

func union(gs ...shape.Region) shape.Region         { return must(shape.UnionAll(gs...)) }
func and(a, b shape.Region) shape.Region            { return must(a.Intersect(b)) }
func minus(a, b shape.Region) shape.Region          { return must(a.Minus(b)) }
func offset(g shape.Region, d float64) shape.Region { return must(g.Offset(d)) }

// smooth takes off slivers and rounds corners to what a die can cut.
func smooth(g shape.Region, r float64) shape.Region {
	g = offset(offset(offset(g, -r), 2*r), -r)
	var rings []shape.Ring
	for _, p := range g.Pieces() {
		if p.Area() > 0.8 { // a crumb is no piece
			rings = append(rings, p.Rings()...)
		}
	}
	return shape.Raw(rings...)
}

const (
	foreWing = "M2.5 -13 C11 -19 27 -27 40.5 -27.5 C42.6 -27.4 43.2 -25.8 42.2 -24.2 C38.8 -19 38.4 -14.5 35 -8.5 C32.4 -4 28.6 -0.6 23.6 1.2 C17 3.4 9 1.6 2.5 -3 Z"
	hindWing = "M2.5 -4 C9 -1.6 18 1.2 25 0.6 C29.6 2.8 31.2 9 28.6 14.6 C26 20.4 20 23.8 14 21.8 C8.4 19.8 4.6 12.6 2.5 4.5 Z"
	body     = "M0 -21.5 C3 -21.5 4.8 -19.4 5 -17.2 C7.2 -15 7.8 -10.6 7 -6.4 C6.3 -3 6.7 1 6.2 5.6 C5.4 13.2 3 21.4 0 28 Z"
	antenna  = "M1.2 -19 C4.6 -24.6 9.4 -30.4 16.6 -34.4 C17.8 -34.9 18.4 -33.8 17.5 -32.9 C12.6 -27.6 9 -22.8 5.2 -16.6 Z"
)

func moth() []group {
	fore, hind, trunk := region(foreWing, true), region(hindWing, true), region(body, true)
	silhouette := smooth(union(offset(union(fore, hind, trunk), 1.5), offset(region(antenna, true), 0.2)), 0.6)
	patch := smooth(offset(hind, -2.4), 0.5)
	bands := union(
		line("M13.4 -24 C16.4 -16 16.2 -8 12.4 6", 3.4, true),
		line("M27.6 -30 C30 -20 28.4 -10 20.4 6", 4.4, true),
	)
	tips := minus(region("M34 -32 L48 -32 L48 4 L32 4 C37.6 -4 38 -14 34 -32 Z", true), shape.Region{})
	bands = smooth(and(union(bands, tips), offset(fore, -1.5)), 0.5)
	stripes := union(
		line("M0 -1.4 C2.4 -1.8 4.8 -2.6 8 -4", 1.7, true),
		line("M0 4.4 C2.4 4 4.6 3.2 8 1.6", 1.7, true),
		line("M0 9.8 C2.2 9.4 4.2 8.6 8 6.8", 1.6, true),
		line("M0 14.8 C2 14.4 3.6 13.6 8 11.6", 1.5, true),
	)
	collar := line("M0 -13.2 C2.6 -13 4.8 -13.6 6.4 -15.4", 1.8, true)
	stripes = smooth(and(union(stripes, collar), offset(trunk, -1.1)), 0.45)
	eye := func(r float64) shape.Region {
		return union(shape.Disc(shape.Point{X: 17.4, Y: 10.6}, r), shape.Disc(shape.Point{X: -17.4, Y: 10.6}, r))
	}
	return []group{
		{name: "Silhouette", g: silhouette}, {name: "Hind wings", g: hind}, {name: "Hind-wing patches", g: patch},
		{name: "Eyespots", g: eye(5.6)}, {name: "Pupils", g: eye(2.8)},
		{name: "Fore wings", g: fore}, {name: "Fore-wing bands", g: bands}, {name: "Body", g: trunk}, {name: "Body stripes", g: stripes},
	}
}

func beetle() []group {
	cases := region("M0 -6.4 C5 -8 10.4 -6 11.6 -0.4 C12.8 6.8 9.4 15.4 0 19.4 Z", true)
	plate := region("M0 -13.6 C4.2 -13.8 8.4 -12 9 -7.4 C6.2 -6.2 3 -6 0 -6.4 Z", true)
	head := region("M0 -17.6 C3 -17.6 4.8 -15.8 5 -13 L0 -13 Z", true)
	wash := smooth(offset(union(cases, plate, head), 0.05), 0.4)
	// Shade hugs the outer edges and leaves a light high on each wing case.
	glow := union(region("M4.8 -5 C8.2 -4.6 9.2 1 8 6 C7 10 4.6 12.8 2.6 13.6 C1.8 10 2 -1 4.8 -5 Z", true))
	shade := smooth(minus(offset(union(cases, minus(plate, region("M0 -12.2 C3 -12.2 5.6 -11.2 6.2 -9 C4 -8.2 2 -8 0 -8.2 Z", true))), -0.7), glow), 0.45)
	spots := union(
		shape.Disc(shape.Point{X: 5.6, Y: -1.2}, 1.9), shape.Disc(shape.Point{X: -5.6, Y: -1.2}, 1.9),
		shape.Disc(shape.Point{X: 6.4, Y: 5.2}, 1.7), shape.Disc(shape.Point{X: -6.4, Y: 5.2}, 1.7),
		shape.Disc(shape.Point{X: 4.2, Y: 10.8}, 1.4), shape.Disc(shape.Point{X: -4.2, Y: 10.8}, 1.4),
		smooth(offset(head, -0.7), 0.4),
	)
	lines := union(
		line("M0 -5.6 L0 18.2", 1.2, false), line("M0 -6.4 C3 -6 6.2 -6.2 9 -7.4", 1.2, true),
		line("M8.2 -10.4 L13 -12 L15.2 -17", 1.7, true), line("M11.6 0 L16.4 0.6 L19 6.4", 1.7, true), line("M9.6 9.6 L14.4 12.6 L15.6 19", 1.7, true),
		line("M2.6 -16.8 C4 -20 7 -22.6 10.6 -23.4", 1.2, true),
		shape.Disc(shape.Point{X: 4.2, Y: -14.8}, 1), shape.Disc(shape.Point{X: -4.2, Y: -14.8}, 1),
	)
	return []group{{name: "Step 1, wash", g: wash}, {name: "Step 2, shade", g: shade}, {name: "Step 3, spots", g: spots}, {name: "Step 4, lines and legs", g: lines}}
}

func svg(groups []group) string {
	all := make([]shape.Region, len(groups))
	for i, g := range groups {
		all[i] = g.g
	}
	b := union(all...).Bounds()
	var s strings.Builder
	fmt.Fprintf(&s, "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%.2fmm\" height=\"%.2fmm\" viewBox=\"%.2f %.2f %.2f %.2f\">\n",
		b.W()+4, b.H()+4, b.Min.X-2, b.Min.Y-2, b.W()+4, b.H()+4)
	for _, g := range groups {
		fmt.Fprintf(&s, "<g id=\"%s\"><path fill-rule=\"evenodd\" d=\"%s\"/>", strings.ReplaceAll(g.name, " ", "_"), g.g.Path())
		if !g.pressed.Empty() {
			fmt.Fprintf(&s, "<path fill=\"none\" stroke=\"#000\" stroke-width=\"0.1\" stroke-dasharray=\"1 0.6\" d=\"%s\"/>", g.pressed.Path())
		}
		s.WriteString("</g>\n")
	}
	s.WriteString("</svg>\n")
	return s.String()
}
