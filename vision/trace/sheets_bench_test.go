package trace_test

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// onSheet is a plain scan of pieces on a sheet of a grey, by a scanner of a blur, with or without white
// cores that show.
type onSheet struct {
	grey float64 // sRGB, 0 to 255
	blur float64 // pixels
	core bool
	seed uint64
	set  kit.Set
}

func (s onSheet) run(t testing.TB) score {
	laid, err := sim.Lay(s.set, 210, 220, 20, s.seed)
	if err != nil {
		t.Fatal(err)
	}
	lit := picture.ToLinear(s.grey / 255)
	b := sim.Bench{W: 210, H: 220, Sheet: colour.Linear{lit, lit, lit}, Items: sim.Pieces(laid, s.grey < 128)}
	for i := range b.Items {
		it := &b.Items[i]
		it.Stripe = nil
		// Card as light as its sheet is another matter.
		for math.Abs(picture.FromLinear(it.Colour[1])*255-s.grey) < 40 {
			for k := range it.Colour {
				if s.grey < 128 {
					it.Colour[k] = min(0.9, it.Colour[k]*1.3+0.02)
				} else {
					it.Colour[k] *= 0.7
				}
			}
		}
		if s.core {
			it.Rim = &sim.Rim{W: 0.15, Colour: colour.Linear{0.80, 0.79, 0.76}}
		}
	}
	g := sim.Plain()
	g.Blur = s.blur
	p := scanned(t, b, g, s.seed)
	res, err := trace.Find(context.Background(), p, trace.DPI(p.DPI))
	if err != nil {
		t.Fatal(err)
	}
	return compare(laid, res.Pieces)
}

// sheets are the greys that scans are laid on.
var sheets = []float64{10, 45, 62, 70, 78, 95, 120, 160, 200, 235}

// BenchmarkSheets prints how near outlines come on sheets from black to white, by scanners of several
// blurs.
func BenchmarkSheets(b *testing.B) {
	for b.Loop() {
		fmt.Printf("\n%-52s %8s %8s %7s %6s %5s %5s %7s %s\n", "scan", "mean mm", "95% mm", "area %", "missed", "false", "holes", "stated", "covered")
		var all []score
		for n, grey := range sheets {
			for k, blur := range []float64{0.5, 0.75, 1.1, 1.6} {
				for c, core := range []bool{false, true} {
					if core && k != 1 || !strings.Contains(fmt.Sprintf("%.0f %.2f", grey, blur), os.Getenv("SHEET")) {
						continue
					}
					set := demoSets(b)[0]
					if (n+k+c)%2 == 1 {
						set = basics()
					}
					s := onSheet{grey: grey, blur: blur, core: core, seed: uint64(7000 + 10*n + k + 5*c), set: set}
					r := s.run(b)
					all = append(all, r)
					fmt.Printf("sheet %3.0f, blur %.2f, %-12s seed %d %6s %8.4f %8.4f %7.2f %6d %5d %5d %7.3f %d of %d\n", grey, blur, map[bool]string{true: "white cores", false: "plain"}[core], s.seed, set.Name, r.mean, r.p95, 100*r.area, r.missed, r.false_, r.holes, r.stated/float64(max(1, r.judged)), r.covered, r.judged)
				}
			}
		}
		covered, judged := 0, 0
		for _, r := range all {
			covered, judged = covered+r.covered, judged+r.judged
		}
		worst := slices.MaxFunc(all, func(a, b score) int { return cmp.Compare(a.mean, b.mean) })
		fmt.Printf("covered %d of %d; the worst is %.4f mm off on the mean\n", covered, judged, worst.mean)
	}
}
