package swatch_test

import (
	"fmt"
	"image"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/demo"
	"ochrestone/demo/sim"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/swatch"
)

var paper = colour.Linear{0.92, 0.91, 0.87}

// drawer is the dried colours of the demo's inks on the paper.
func drawer(t testing.TB, n int) []*colour.Linear {
	k, err := demo.Kit()
	require.NoError(t, err)
	var out []*colour.Linear
	for i := 0; len(out) < n; i++ {
		ink := k.Inks[i%48]
		white, _ := colour.ParseHex("#f6f5f1")
		f, _, err := ink.Film(white)
		require.NoError(t, err)
		c := f.Over(paper, 1+i/48)
		out = append(out, &c)
	}
	return out
}

func sheetPicture(t testing.TB, img image.Image) *picture.Picture {
	raw, err := sim.JPEG(img, 300, 93)
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	return p
}

func layout() mat.Layout { return mat.For(measure.Letter, false) }

// grade has the noise and light of a device, and patchy ink; the sheet is dry.
func grade() sim.Grade {
	g := sim.Plain()
	g.Shadow, g.Dust = 0, 1
	return g
}

func apart(t testing.TB, rs []swatch.Reading, want []*colour.Linear) (mean, worst float64, n int) {
	for i, r := range rs {
		if want[i] == nil || !r.Usable {
			continue
		}
		d := colour.Difference(r.Colour.Lab(), want[i].Lab())
		mean += d
		worst = max(worst, d)
		n++
	}
	return mean / float64(n), worst, n
}

func TestScannedSheetIsReadToOneUnit(t *testing.T) {
	want := drawer(t, 60)
	b := sim.Filled(layout(), paper, want, 3)
	p := sheetPicture(t, b.Scan(200, grade(), 3))
	m, err := mat.Read(p)
	require.NoError(t, err)
	rs, err := swatch.Read(p, m, 60, paper, want)
	require.NoError(t, err)
	mean, worst, n := apart(t, rs, want)
	assert.Equal(t, 60, n, "every cell is read")
	assert.Less(t, mean, 1.0)
	assert.Less(t, worst, 9.0, "a cell that is patchy all over reads a little pale")
}

func TestTroublesAreToldByCell(t *testing.T) {
	want := drawer(t, 24)
	cells := append([]*colour.Linear{}, want...)
	cells[3] = nil
	cells[7], cells[20] = cells[20], cells[7] // two inks in each other's cell
	l := layout()
	b := sim.Filled(l, paper, cells, 4)
	g := swatch.For(l)
	at := func(i int) shape.Box {
		q := g.Box(i)
		return shape.Box{Min: q.Min.Add(l.Field.Min), Max: q.Max.Add(l.Field.Min)}
	}
	// Half of one is bare again, another runs well over its box.
	half, over := at(10), at(13)
	b.Items = append(b.Items,
		sim.Item{Outline: shape.Rect(half.Min.X, half.Min.Y, half.W()*0.55, half.H()), Colour: paper, Print: true},
		sim.Item{Outline: shape.Rect(over.Min.X-1.8, over.Min.Y-1.9, over.W()+3.6, over.H()+2.2), Colour: *cells[13], Print: true})
	p := sheetPicture(t, b.Scan(200, grade(), 4))
	m, err := mat.Read(p)
	require.NoError(t, err)
	rs, err := swatch.Read(p, m, 24, paper, want)
	require.NoError(t, err)
	assert.Equal(t, swatch.Empty, rs[3].Trouble)
	assert.Equal(t, swatch.Half, rs[10].Trouble)
	assert.Equal(t, swatch.Over, rs[13].Trouble)
	assert.True(t, rs[13].Usable, "its colour is still good")
	assert.Less(t, colour.Difference(rs[13].Colour.Lab(), cells[13].Lab()), 2.0)
	assert.Equal(t, swatch.Swap, rs[7].Trouble)
	assert.Equal(t, swatch.Swap, rs[20].Trouble)
	assert.Equal(t, 20, rs[7].With)
	assert.False(t, rs[7].Usable || rs[20].Usable)
	for _, i := range []int{0, 1, 5, 15, 23} {
		assert.Equal(t, swatch.None, rs[i].Trouble, "cell %d", i+1)
	}
}

func TestEmptySheetIsRefused(t *testing.T) {
	b := sim.Filled(layout(), paper, make([]*colour.Linear, 10), 1)
	p := sheetPicture(t, b.Scan(150, grade(), 1))
	m, err := mat.Read(p)
	require.NoError(t, err)
	_, err = swatch.Read(p, m, 10, paper, nil)
	assert.ErrorContains(t, err, "No cell of the sheet is filled")
	_, err = swatch.Read(p, m, 200, paper, nil)
	assert.Error(t, err)
}

// BenchmarkSwatchAccuracy prints how near swatches come to the truth, scanned
// and photographed under tinted, uneven light.
func BenchmarkSwatchAccuracy(b *testing.B) {
	want := drawer(b, 96)
	for b.Loop() {
		fmt.Printf("\n%-34s %5s %6s %8s %8s %8s\n", "swatch sheet, 96 cells", "seed", "cells", "mean", "worst", "read in")
		for i, s := range []struct {
			name  string
			photo bool
			tint  colour.Linear
		}{{"scan, 300 dpi", false, colour.Linear{1, 1, 1}}, {"photograph, tinted light, 12°", true, colour.Linear{1, 0.9, 0.74}}} {
			bench := sim.Filled(layout(), paper, want, uint64(i+1))
			for c := range bench.Sheet {
				bench.Sheet[c] *= s.tint[c]
			}
			for k := range bench.Items {
				for c := range s.tint {
					bench.Items[k].Colour[c] *= s.tint[c]
				}
			}
			g := grade()
			g.Uneven = 0.15
			var img image.Image = bench.Scan(300, g, uint64(i+1))
			if s.photo {
				cam := sim.Phone()
				cam.Tilt, cam.Lean, cam.Bend, cam.Fill = 12, 60, 0.015, 0.82
				img = bench.Photo(cam, g, uint64(i+1))
			}
			p := sheetPicture(b, img)
			start := time.Now()
			m, err := mat.Read(p)
			require.NoError(b, err)
			rs, err := swatch.Read(p, m, 96, paper, want)
			require.NoError(b, err)
			mean, worst, n := apart(b, rs, want)
			fmt.Printf("%-34s %5d %3d/96 %8.2f %8.2f %8s\n", s.name, i+1, n, mean, worst, time.Since(start).Round(time.Millisecond))
		}
	}
}

// On brown card a covering ink may be lighter than its paper: it is an ink all
// the same.
func TestInksLighterThanTheirPaper(t *testing.T) {
	kraft := colour.Linear{0.46, 0.27, 0.13}
	cells := []*colour.Linear{{0.70, 0.62, 0.50}, {0.20, 0.10, 0.05}, {0.60, 0.58, 0.62}, nil, {0.30, 0.40, 0.30}}
	b := sim.Filled(layout(), kraft, cells, 6)
	p := sheetPicture(t, b.Scan(200, grade(), 6))
	m, err := mat.Read(p)
	require.NoError(t, err)
	rs, err := swatch.Read(p, m, 5, kraft, nil)
	require.NoError(t, err)
	mean, _, n := apart(t, rs, cells)
	assert.Equal(t, 4, n)
	assert.Less(t, mean, 2.0)
	assert.Equal(t, swatch.Empty, rs[3].Trouble)
}

// Card on which a sheet is laid out can be read by the devices there are, and card darker by a
// third, which is refused, cannot.
func TestDarkCard(t *testing.T) {
	read := func(light float64, g sim.Grade) error {
		paper := colour.Linear{light, light, light}
		cells := []*colour.Linear{{light / 2, light / 2, light / 3}, {light / 3, light / 2, light / 2}}
		raw, err := sim.PNG(sim.Filled(layout(), paper, cells, 1).Scan(200, g, 1), 200)
		require.NoError(t, err)
		pic, err := picture.Decode(raw)
		require.NoError(t, err)
		_, err = mat.Read(pic)
		return err
	}
	assert.True(t, swatch.Readable(colour.Linear{0.205, 0.205, 0.205}))
	assert.False(t, swatch.Readable(colour.Linear{0.13, 0.13, 0.13}))
	for _, g := range []sim.Grade{sim.Plain(), sim.Hard()} {
		assert.NoError(t, read(0.205, g))
		assert.Error(t, read(0.13, g))
	}
}
