package trace_test

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"math"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"gonum.org/v1/gonum/stat/distuv"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
	"ochrestone/demo"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// score is how one reading compares with the truth.
type score struct {
	mean, p95, area float64 // mm, mm, share; the worst piece over 25 mm²
	missed, false_  int
	holes           int     // lost or made up
	covered, judged int     // pieces whose outline lies within what is stated, and all of them
	stated          float64 // mm, on the mean
}

func compare(laid []sim.Laid, found []trace.Piece) score {
	var s score
	var all []float64
	used := make([]bool, len(found))
	for _, l := range laid {
		best := -1
		for i, f := range found {
			if used[i] {
				continue
			}
			if d := f.Region.Centroid().Distance(l.Outline.Centroid()); d < 3 && (best < 0 || math.Abs(f.Region.Area()-l.Outline.Area()) < math.Abs(found[best].Region.Area()-l.Outline.Area())) {
				best = i
			}
		}
		if best < 0 {
			s.missed++
			continue
		}
		used[best] = true
		g := found[best].Region
		if len(g.Rings()) != len(l.Outline.Rings()) {
			s.holes++
		}
		one := g.Strays(l.Outline, 0.2)
		if os.Getenv("EACH") != "" {
			slices.Sort(one)
			fmt.Printf("   %-24s area %7.1f off %6.2f %%  95%% %.4f most %.4f stated %.4f rings %d of %d\n", l.Part, l.Outline.Area(), 100*(g.Area()/l.Outline.Area()-1), one[len(one)*95/100], one[len(one)-1], found[best].Sure, len(g.Rings()), len(l.Outline.Rings()))
		}
		all = append(all, one...)
		slices.Sort(one)
		s.judged++
		s.stated += found[best].Sure
		if one[len(one)*95/100] <= found[best].Sure {
			s.covered++
		}
		// The area of a sliver is all edge; it is judged by its outline.
		if e := math.Abs(g.Area()/l.Outline.Area() - 1); l.Outline.Area() > 25 {
			s.area = math.Max(s.area, e)
		}
	}
	for _, u := range used {
		if !u {
			s.false_++
		}
	}
	slices.Sort(all)
	for _, d := range all {
		s.mean += d / float64(len(all))
	}
	if len(all) > 0 {
		s.p95 = all[len(all)*95/100]
	}
	return s
}

func demoSets(t testing.TB) []kit.Set {
	k, err := demo.Kit()
	if err != nil {
		t.Fatal(err)
	}
	return k.Sets
}

// basics is a set of plain shapes with small holes and slivers.
func basics() kit.Set {
	disc := func(r float64) shape.Region { return shape.Disc(shape.Point{}, r) }
	star := shape.Ring{}
	for i := range 10 {
		r := 12.0
		if i%2 == 1 {
			r = 5
		}
		a := math.Pi * float64(i) / 5
		star = append(star, shape.Point{X: r * math.Cos(a), Y: r * math.Sin(a)})
	}
	plate := shape.Rect(0, 0, 40, 26)
	for i := range 5 {
		h := shape.Disc(shape.Point{X: 6 + float64(i)*7, Y: 8}, 0.42+0.3*float64(i))
		plate, _ = plate.Minus(h)
	}
	var set kit.Set
	for i, g := range []shape.Region{plate, disc(15), disc(6), disc(1.6), shape.RingDisc(shape.Point{}, 11, 8), shape.Raw(star), shape.Rect(0, 0, 30, 1.2), shape.Rect(0, 0, 12, 12).Turn(45, shape.Point{})} {
		set.Parts = append(set.Parts, kit.Part{ID: fmt.Sprint(i), Label: fmt.Sprint("Part ", i), Outline: g, Copies: 1, Rank: 1})
	}
	return set
}

type scene struct {
	name   string
	set    kit.Set
	dark   bool
	dpi    float64
	grade  sim.Grade
	jpeg   bool
	seed   uint64
	size   float64
	height float64
}

func scenes(t testing.TB) []scene {
	moth := demoSets(t)[0]
	var out []scene
	for i, s := range []struct {
		name string
		set  kit.Set
	}{{"moth", moth}, {"basics", basics()}} {
		for j, g := range []struct {
			name  string
			grade sim.Grade
		}{{"plain", sim.Plain()}, {"hard", sim.Hard()}} {
			for k, dark := range []bool{true, false} {
				ground := "light sheet"
				if dark {
					ground = "dark sheet"
				}
				for _, jpg := range []bool{false, true} {
					f := "PNG"
					if jpg {
						f = "JPEG 85"
					}
					out = append(out, scene{fmt.Sprintf("%s, %s, %s, %s", s.name, g.name, ground, f), s.set, dark, 300, g.grade, jpg, uint64(100*i + 10*j + k + 1), 210, 220})
				}
			}
		}
		out = append(out, scene{s.name + ", plain, dark sheet, 150 dpi", s.set, true, 150, sim.Plain(), false, 77, 210, 220})
	}
	return out
}

func (s scene) run(t testing.TB) (score, time.Duration) {
	laid, err := sim.Lay(s.set, s.size, s.height, 20, s.seed)
	if err != nil {
		t.Fatal(err)
	}
	b := sim.Bench{W: s.size, H: s.height, Sheet: sim.White, Items: sim.Pieces(laid, s.dark)}
	if s.dark {
		b.Sheet = sim.Black
	}
	img := b.Scan(s.dpi, s.grade, s.seed)
	raw, err := sim.PNG(img, s.dpi)
	if s.jpeg {
		raw, err = sim.JPEG(img, s.dpi, 85)
	}
	if err != nil {
		t.Fatal(err)
	}
	if dir := os.Getenv("KEEP"); dir != "" {
		_ = os.WriteFile(dir+"/"+s.name+".png", raw, 0o644)
	}
	p, err := picture.Decode(raw)
	if err != nil {
		t.Fatal(err)
	}
	start := time.Now()
	res, err := trace.Find(context.Background(), p, trace.DPI(p.DPI))
	if err != nil {
		t.Fatal(s.name, err)
	}
	return compare(laid, res.Pieces), time.Since(start)
}

// real is a scene as card looks like card: shadows on a lid, cores that show, card that curls.
type real struct {
	name  string
	dark  bool
	grade func(*sim.Grade)
	bench func(*sim.Bench)
	item  func(i int, it *sim.Item)
	frame *frame
}

// frame is what shows round the sheet: the lid about a small sheet, or a dark border.
type frame struct {
	colour colour.Linear
	wide   float64 // mm
}

// bound is the least standard error, mm, with which the place of an edge can be known from one
// line across it: noise over contrast, times the root of twice the root of pi times the blur
// (Cramer and Rao's bound for a step seen through a Gauss of blur pixels under white noise; see
// Kay, Fundamentals of Statistical Signal Processing, 1993, example 3.13, time delay). It is
// that of the middle piece; a stretch of 1 mm has as many lines as pixels.
func bound(b sim.Bench, g sim.Grade, dpi float64) (line, stretch float64) {
	var all []float64
	for _, it := range b.Items {
		var contrast float64
		for k := range 3 {
			d := picture.FromLinear(b.Sheet[k]) - picture.FromLinear(it.Colour[k])
			contrast += d * d
		}
		all = append(all, math.Sqrt(contrast))
	}
	slices.Sort(all)
	// The area of a pixel blurs as well: a box has a variance of 1/12.
	blur := math.Sqrt(g.Blur*g.Blur + 1.0/12)
	line = g.Noise / all[len(all)/2] * math.Sqrt(2*math.SqrtPi*blur) * 25.4 / dpi
	return line, line / math.Sqrt(dpi/25.4)
}

// tooFew is how likely so few of so many would be covered if 95 of 100 were: the binomial law.
func tooFew(covered, of int) float64 {
	return distuv.Binomial{N: float64(of), P: 0.95}.CDF(float64(covered))
}

// middling are colours of card on a lid, neither pale nor black.
func middling(i int, it *sim.Item) {
	c := sim.Papers[i%len(sim.Papers)]
	it.Colour = [3]float64{0.55 * c[0], 0.55 * c[1], 0.55 * c[2]}
	it.Stripe = nil
}

func reals() []real {
	core := [3]float64{0.80, 0.79, 0.76}
	rim := func(dark bool, sided bool) func(int, *sim.Item) {
		return func(i int, it *sim.Item) {
			middling(i, it)
			r := &sim.Rim{W: 0.15, Colour: core, Sided: sided, Side: 200}
			if dark {
				r.Colour = [3]float64{0.4 * it.Colour[0], 0.4 * it.Colour[1], 0.4 * it.Colour[2]}
			}
			it.Rim = r
		}
	}
	return []real{
		{"soft shadow, white lid", false, func(g *sim.Grade) { g.Cast = &sim.Cast{Far: 0.3, Soft: 0.12, Side: 45} }, nil, middling, nil},
		{"scanner's shadow, white lid", false, func(g *sim.Grade) { g.Shadow, g.Cast = 0.45, &sim.Cast{Far: 0.5, Soft: 0.2, Side: 100} }, nil, middling, nil},
		{"scanner's shadow, grey card", false, func(g *sim.Grade) { g.Shadow, g.Cast = 0.45, &sim.Cast{Far: 0.5, Soft: 0.2, Side: 100} }, nil, func(i int, it *sim.Item) {
			v := 0.08 + 0.08*float64(i%5)
			it.Colour = [3]float64{v, v, v * 0.97}
		}, nil},
		{"curled up to 1.5 mm, white lid", false, func(g *sim.Grade) { g.Shadow, g.Cast = 0.35, &sim.Cast{Far: 0.2, Soft: 0.15, Side: 60} }, nil, func(i int, it *sim.Item) {
			middling(i, it)
			it.Lift = 1.5 * float64(i%4) / 3
		}, nil},
		{"white core, white lid", false, nil, nil, rim(false, false), nil},
		{"white core on one side, white lid", false, nil, nil, rim(false, true), nil},
		{"white core, dark sheet", true, nil, nil, rim(false, false), nil},
		{"white core on one side, dark sheet", true, nil, nil, rim(false, true), nil},
		{"dark rim, dark sheet", true, nil, nil, rim(true, false), nil},
		{"strong tone and sharpening, white lid", false, func(g *sim.Grade) { g.Tone, g.Sharpen = 1.25, 1.1 }, nil, middling, nil},
		{"strong tone and sharpening, dark sheet", true, func(g *sim.Grade) { g.Tone, g.Sharpen = 1.25, 1.1 }, nil, middling, nil},
		{"textured lid", false, nil, func(b *sim.Bench) { b.Texture = 0.03 }, middling, nil},
		{"grey sheet", false, nil, func(b *sim.Bench) { b.Sheet = [3]float64{0.30, 0.30, 0.30} }, middling, nil},
		{name: "dark sheet smaller than the glass", dark: true, item: middling, frame: &frame{sim.White, 20}},
		{name: "dark border round a white lid", dark: false, item: middling, frame: &frame{sim.Black, 5}},
		{"all striped, dark sheet", true, nil, nil, func(i int, it *sim.Item) {
			s := sim.Papers[(i+2)%len(sim.Papers)]
			it.Stripe = &s
		}, nil},
	}
}

// run reads one such scene of a set.
func (r real) run(t testing.TB, set kit.Set, seed uint64) ([]sim.Laid, trace.Result, float64, error) {
	laid, err := sim.Lay(set, 210, 220, 20, seed)
	if err != nil {
		t.Fatal(err)
	}
	b := sim.Bench{W: 210, H: 220, Sheet: sim.White, Items: sim.Pieces(laid, r.dark)}
	if r.dark {
		b.Sheet = sim.Black
	}
	for i := range b.Items {
		if r.item != nil {
			r.item(i, &b.Items[i])
		}
	}
	if r.bench != nil {
		r.bench(&b)
	}
	g := sim.Plain()
	if r.grade != nil {
		r.grade(&g)
	}
	_, limit := bound(b, g, 300)
	if f := r.frame; f != nil {
		b = sim.Framed(b, f.colour, f.wide, 0)
		for i := range laid {
			laid[i].Outline = laid[i].Outline.Move(shape.Point{X: f.wide, Y: f.wide})
		}
	}
	p := scanned(t, b, g, seed)
	res, err := trace.Find(context.Background(), p, trace.DPI(p.DPI))
	return laid, res, limit, err
}

// BenchmarkRealCard prints how near the outlines come where card looks like card.
func BenchmarkRealCard(b *testing.B) {
	for b.Loop() {
		fmt.Printf("\n%-48s %8s %8s %7s %6s %5s %5s %6s %5s\n", "scan", "mean mm", "95% mm", "area %", "missed", "false", "holes", "stated", "covered")
		for _, r := range reals() {
			if !strings.Contains(r.name, os.Getenv("REAL")) {
				continue
			}
			for n, set := range []kit.Set{demoSets(b)[0], basics()} {
				laid, res, limit, err := r.run(b, set, uint64(300+n))
				if err != nil {
					fmt.Printf("%-48s refused: %v\n", r.name+", "+[]string{"moth", "basics"}[n], err)
					continue
				}
				s := compare(laid, res.Pieces)
				fmt.Printf("%-48s %8.4f %8.4f %7.2f %6d %5d %5d %6.3f %5d of %d, so few by chance %.2f, bound %.4f mm over 1 mm, %.0f times it, cores told %t\n", r.name+", "+[]string{"moth", "basics"}[n], s.mean, s.p95, 100*s.area, s.missed, s.false_, s.holes, s.stated/float64(max(1, s.judged)), s.covered, s.judged, tooFew(s.covered, s.judged), limit, s.mean/limit, strings.Contains(strings.Join(res.Notes, " "), "white core of a card does not show"))
			}
		}
	}
}

// BenchmarkScanAccuracy prints how near the outlines of scenes of its own come
// to the truth; the seeds are in the table.
func BenchmarkScanAccuracy(b *testing.B) {
	for b.Loop() {
		fmt.Printf("\n%-40s %5s %8s %8s %7s %6s %5s %5s %7s\n", "scan", "seed", "mean mm", "95% mm", "area %", "missed", "false", "holes", "time")
		for _, s := range scenes(b) {
			r, d := s.run(b)
			fmt.Printf("%-40s %5d %8.4f %8.4f %7.2f %6d %5d %5d %7s\n", s.name, s.seed, r.mean, r.p95, 100*r.area, r.missed, r.false_, r.holes, d.Round(time.Millisecond))
		}
	}
}

// BenchmarkA4 compares tracing a page with decoding it.
func BenchmarkA4(b *testing.B) {
	moth := demoSets(b)[0]
	laid, err := sim.Lay(moth, 210, 297, 20, 5)
	if err != nil {
		b.Fatal(err)
	}
	raw, err := sim.PNG(sim.Bench{W: 210, H: 297, Sheet: sim.Black, Items: sim.Pieces(laid, true)}.Scan(300, sim.Plain(), 5), 300)
	if err != nil {
		b.Fatal(err)
	}
	b.Run("decode", func(b *testing.B) {
		for b.Loop() {
			if _, err := png.Decode(bytes.NewReader(raw)); err != nil {
				b.Fatal(err)
			}
		}
	})
	p, err := picture.Decode(raw)
	if err != nil {
		b.Fatal(err)
	}
	b.Run("trace", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			if _, err := trace.Find(context.Background(), p, trace.DPI(p.DPI)); err != nil {
				b.Fatal(err)
			}
		}
	})
}

var _ image.Image
