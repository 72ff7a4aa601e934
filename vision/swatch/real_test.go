package swatch_test

import (
	"fmt"
	"image"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/swatch"
)

// device works over a picture as a device does of its own: f is given coded values, 0 to 1.
func worked(img *image.RGBA, f func(v float64, channel int) float64) *image.RGBA {
	var table [3][256]uint8
	for c := range table {
		for v := range 256 {
			table[c][v] = uint8(math.Min(255, math.Max(0, f(float64(v)/255, c)*255+0.5)))
		}
	}
	out := image.NewRGBA(img.Rect)
	for i, v := range img.Pix {
		out.Pix[i] = v
		if i%4 < 3 {
			out.Pix[i] = table[i%4][v]
		}
	}
	return out
}

// levels stretches every channel from its hundredth to its last hundredth, as automatic
// levels do.
func levels(img *image.RGBA) *image.RGBA {
	var hist [3][256]int
	for i, v := range img.Pix {
		if i%4 < 3 {
			hist[i%4][v]++
		}
	}
	var lo, hi [3]float64
	for c := range hist {
		n := len(img.Pix) / 4
		sum := 0
		for v, k := range hist[c] {
			if sum += k; sum < n/200 {
				lo[c] = float64(v) / 255
			}
			if sum < n*995/1000 {
				hi[c] = float64(v) / 255
			}
		}
	}
	return worked(img, func(v float64, c int) float64 { return (v - lo[c]) / (hi[c] - lo[c]) })
}

func exposed(k float64) func(v float64, _ int) float64 {
	return func(v float64, _ int) float64 { return picture.FromLinear(math.Min(1, k*picture.ToLinear(v))) }
}

// realSheet is a sheet of 96 cells as another device and another hand would have it.
type realSheet struct {
	name  string
	grade func(*sim.Grade)
	fill  func([]*colour.Linear) // another order in the cells
	bench func(*sim.Bench)       // what lies on it
	work  func(*image.RGBA) *image.RGBA
	told  bool // none of its cells may pass unsaid
}

func realSheets() []realSheet {
	tone := func(k float64) func(*image.RGBA) *image.RGBA {
		return func(i *image.RGBA) *image.RGBA {
			return worked(i, func(v float64, _ int) float64 { return math.Pow(v, k) })
		}
	}
	bright := func(k float64) func(*image.RGBA) *image.RGBA {
		return func(i *image.RGBA) *image.RGBA { return worked(i, exposed(k)) }
	}
	return []realSheet{
		{name: "even ink, own curve"},
		{name: "ink 10 % uneven", grade: func(g *sim.Grade) { g.Blotch, g.Mottle = 0, 0.10 }},
		{name: "tone curve 1.2", work: tone(1.2)},
		{name: "tone curve 0.85", work: tone(0.85)},
		{name: "S curve", work: func(i *image.RGBA) *image.RGBA {
			return worked(i, func(v float64, _ int) float64 { return v + 0.12*math.Sin(2*math.Pi*(v-0.5))/2 })
		}},
		{name: "automatic levels", work: levels},
		{name: "overexposed 1.3 times", work: bright(1.3), told: true},
		{name: "overexposed 2 times", work: bright(2), told: true},
		{name: "underexposed 0.7 times", work: bright(0.7)},
		{name: "ten pairs swapped", fill: func(c []*colour.Linear) {
			for k := range 10 {
				i, j := 3+k*9, 7+k*9
				c[i], c[j] = c[j], c[i]
			}
		}},
		{name: "every ink one cell late", told: true, fill: func(c []*colour.Linear) {
			for i := len(c) - 1; i > 0; i-- {
				c[i] = c[i-1]
			}
		}},
		{name: "another sheet's inks", told: true, fill: func(c []*colour.Linear) {
			for i := range c {
				j := (i*37 + 11) % len(c)
				if i < j {
					c[i], c[j] = c[j], c[i]
				}
			}
		}},
		{name: "the edge of a shadow", bench: func(b *sim.Bench) {
			for i := range b.Items {
				if box := b.Items[i].Outline.Bounds(); box.Max.X < 91 && box.Min.Y >= 60 && box.Max.Y <= 150 {
					for c := range b.Items[i].Colour {
						b.Items[i].Colour[c] *= 0.7
					}
				}
			}
			shade := [3]float64{0.7 * b.Sheet[0], 0.7 * b.Sheet[1], 0.7 * b.Sheet[2]}
			b.Items = append([]sim.Item{{Outline: shape.Rect(0, 60, 91, 90), Colour: shade, Print: false}}, b.Items...)
		}},
	}
}

// read reads such a sheet; expected are the drawer's colours, some units off the true ones.
func (r realSheet) read(t testing.TB, photo bool, seed uint64) (swatch.Sheet, []*colour.Linear) {
	want := drawer(t, 96)
	cells := append([]*colour.Linear{}, want...)
	if r.fill != nil {
		r.fill(cells)
	}
	b := sim.Filled(layout(), paper, cells, seed)
	if r.bench != nil {
		r.bench(&b)
	}
	g := grade()
	g.Blotch = 0.1
	if r.grade != nil {
		r.grade(&g)
	}
	var img *image.RGBA
	if photo {
		cam := sim.Phone()
		cam.W, cam.H = cam.W*3/4, cam.H*3/4
		cam.Tilt, cam.Lean, cam.Bend, cam.Fill = 8, 60, 0.015, 0.84
		img = b.Photo(cam, g, seed)
	} else {
		img = b.Scan(200, g, seed)
	}
	if r.work != nil {
		img = r.work(img)
	}
	p := sheetPicture(t, img)
	m, err := mat.Read(p)
	require.NoError(t, err, r.name)
	s, err := swatch.ReadSheet(p, m, 96, paper, want)
	require.NoError(t, err, r.name)
	return s, cells
}

// BenchmarkRealSwatches prints how near colours come with devices and hands of their own, and
// what is told: wrong are cells off by more than 5 that are called usable.
func BenchmarkRealSwatches(b *testing.B) {
	for b.Loop() {
		fmt.Printf("\n%-34s %8s %8s %8s %8s %8s\n", "swatch sheet, 96 cells", "usable", "mean", "worst", "wrong", "covered")
		for i, r := range realSheets() {
			for _, photo := range []bool{false, true} {
				s, truth := r.read(b, photo, uint64(20+i))
				mean, worst, n := apart(b, s.Cells, truth)
				wrong, covered := 0, 0
				for k, c := range s.Cells {
					if c.Usable && colour.Difference(c.Colour.Lab(), truth[k].Lab()) <= c.Sure {
						covered++
					}
					if c.Usable && colour.Difference(c.Colour.Lab(), truth[k].Lab()) > 5 {
						wrong++
					}
				}
				if n == 0 {
					mean = 0
				}
				fmt.Printf("%-34s %5d/96 %8.2f %8.2f %8d %7d of %d\n", r.name+map[bool]string{false: ", scan", true: ", photograph"}[photo], n, mean, worst, wrong, covered, n)
			}
		}
	}
}

// Devices and hands of their own: colours stay within what is asked, and what cannot be used
// is said and not used.
func TestOtherDevicesAndOtherHands(t *testing.T) {
	for _, r := range realSheets() {
		switch r.name {
		case "ink 10 % uneven", "tone curve 1.2", "S curve", "the edge of a shadow", "automatic levels", "overexposed 2 times", "every ink one cell late", "ten pairs swapped":
		default:
			continue
		}
		s, truth := r.read(t, false, 31)
		mean, _, n := apart(t, s.Cells, truth)
		if r.told {
			assert.Zero(t, n, "%s: nothing passes unsaid", r.name)
			continue
		}
		assert.Less(t, mean, 1.0, r.name)
		if r.name == "the edge of a shadow" {
			for k, c := range s.Cells {
				assert.True(t, !c.Usable || colour.Difference(c.Colour.Lab(), truth[k].Lab()) < 3, "cell %d: the shadow's edge crosses its foot", k)
			}
		}
		if r.name == "ten pairs swapped" {
			said := 0
			want := drawer(t, 96)
			for i, c := range s.Cells {
				if truth[i] != want[i] && !c.Usable {
					said++
				}
			}
			assert.GreaterOrEqual(t, said, 16, "of twenty cells; alike inks cannot be told apart")
		} else {
			assert.Greater(t, n, 85, r.name)
		}
	}
}

// A cell too uneven for one colour says so and is not used.
func TestPatchyCellsSaySo(t *testing.T) {
	r := realSheet{name: "very uneven", grade: func(g *sim.Grade) { g.Blotch, g.Mottle = 0, 0.6 }}
	s, _ := r.read(t, false, 33)
	said := 0
	for _, c := range s.Cells {
		if c.Trouble == swatch.Patchy {
			assert.False(t, c.Usable)
			assert.Greater(t, c.Spread, 10.0)
			said++
		}
	}
	assert.Greater(t, said, 20, "deep inks, of which six tenths more or less is much")
}
