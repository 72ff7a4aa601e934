package mat_test

import (
	"context"
	"fmt"
	"math"
	"os"
	"slices"
	"testing"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/demo"
	"ochrestone/demo/sim"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// points spreads points along the edges of a region.
func points(g shape.Region, step float64) []shape.Point {
	var out []shape.Point
	for _, r := range g.Rings() {
		for i, a := range r {
			b := r[(i+1)%len(r)]
			n := max(1, int(a.Distance(b)/step))
			for k := range n {
				out = append(out, a.Add(b.Sub(a).Scale(float64(k)/float64(n))))
			}
		}
	}
	return out
}

// align moves g onto h: its shape is judged apart from its place.
func align(g, h shape.Region) shape.Region {
	g = g.Move(h.Centroid().Sub(g.Centroid()))
	for range 6 {
		from := points(g, 1)
		to := make([]shape.Point, len(from))
		hs := points(h, 0.05)
		for i, p := range from {
			to[i] = slices.MinFunc(hs, func(a, b shape.Point) int { return int(math.Copysign(1, p.Distance(a)-p.Distance(b))) })
		}
		m, _, _, err := register.Rigid(from, to)
		if err != nil {
			return g
		}
		g = m.Of(g)
	}
	return g
}

type shot struct {
	name  string
	cam   sim.Camera
	grade sim.Grade
	dark  bool
	seed  uint64
}

func shots() []shot {
	var out []shot
	for i, g := range []struct {
		name  string
		grade sim.Grade
	}{{"plain", sim.Plain()}, {"hard", sim.Hard()}} {
		for j, c := range []struct{ tilt, lean, roll, bend float64 }{{0, 0, 1, 0}, {10, 40, -3, 0.015}, {20, 200, 5, 0.03}, {20, 110, 2, -0.02}} {
			cam := sim.Phone()
			cam.Tilt, cam.Lean, cam.Roll, cam.Bend = c.tilt, c.lean, c.roll, c.bend
			if c.tilt > 15 {
				cam.Fill = 0.78
			}
			out = append(out, shot{fmt.Sprintf("%s, tilt %.0f, k1 %.3f", g.name, c.tilt, c.bend), cam, g.grade, j%2 == 0, uint64(10*i + j + 1)})
		}
	}
	return out
}

func set(t testing.TB) kit.Set {
	k, err := demo.Kit()
	if err != nil {
		t.Fatal(err)
	}
	return k.Sets[0]
}

func (s shot) take(t testing.TB) (mat.Reading, []sim.Laid, trace.Result) {
	l := mat.For(measure.A4, s.dark)
	laid, err := sim.Lay(set(t), l.Field.W(), l.Field.H(), 10, s.seed)
	if err != nil {
		t.Fatal(err)
	}
	b, truth := sim.OnMat(l, laid, sim.Pieces(laid, s.dark))
	img := b.Photo(s.cam, s.grade, s.seed)
	raw, err := sim.JPEG(img, 72, 92)
	if err != nil {
		t.Fatal(err)
	}
	if dir := os.Getenv("KEEP"); dir != "" {
		_ = os.WriteFile(dir+"/"+s.name+".jpg", raw, 0o644)
	}
	p, err := picture.Decode(raw)
	if err != nil {
		t.Fatal(err)
	}
	r, err := mat.Read(p)
	if err != nil {
		t.Fatal(s.name, err)
	}
	res, err := trace.Find(context.Background(), p, r.Scale)
	if err != nil {
		t.Fatal(s.name, err)
	}
	return r, truth, res
}

// BenchmarkPhotoAccuracy prints how near shapes measured on the mat come to
// the truth; the seeds are in the table.
func BenchmarkPhotoAccuracy(b *testing.B) {
	for b.Loop() {
		fmt.Printf("\n%-26s %5s %6s %8s %9s %9s %8s %8s %6s %6s %6s\n", "photograph", "seed", "px/mm", "tilt", "scale %", "sure %", "shape mm", "95% mm", "place", "missed", "false")
		for _, s := range shots() {
			r, truth, res := s.take(b)
			var all []float64
			var place, area float64
			missed, used := 0, 0
			for _, l := range truth {
				i := slices.IndexFunc(res.Pieces, func(p trace.Piece) bool { return p.Region.Centroid().Distance(l.Outline.Centroid()) < 2.5 })
				if i < 0 {
					missed++
					continue
				}
				used++
				g := res.Pieces[i].Region
				place = math.Max(place, g.Centroid().Distance(l.Outline.Centroid()))
				all = append(all, align(g, l.Outline).Strays(l.Outline, 0.3)...)
				area += (math.Sqrt(g.Area()/l.Outline.Area()) - 1) * l.Outline.Area()
			}
			total, mean := 0.0, 0.0
			for _, l := range truth {
				total += l.Outline.Area()
			}
			slices.Sort(all)
			for _, d := range all {
				mean += d / float64(len(all))
			}
			fmt.Printf("%-26s %5d %6.1f %8.1f %9.3f %9.3f %8.4f %8.4f %6.2f %6d %6d\n", s.name, s.seed, r.PerMM, r.Tilt, 100*area/total, 100*r.Certain, mean, all[len(all)*95/100], place, missed, len(res.Pieces)-used)
		}
	}
}
