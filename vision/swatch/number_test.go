package swatch_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/measure"
	"ochrestone/demo/sim"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/swatch"
)

// The number printed on a sheet is read from a scan and from a tilted photograph, on white card
// and on kraft; a box more or less is no number at all.
func TestASheetsNumberIsRead(t *testing.T) {
	l := mat.For(measure.A4, false)
	kraft, err := colour.ParseHex("#b58f66")
	require.NoError(t, err)
	ink := colour.Linear{0.1, 0.2, 0.3}
	read := func(paper colour.Linear, number int, photo, blot bool) int {
		cells := make([]*colour.Linear, 20)
		for i := range cells {
			cells[i] = &ink
		}
		b := sim.Numbered(sim.Filled(l, paper, cells, 3), l, number)
		if blot {
			q := swatch.For(l).Number(swatch.MostNumber)[5]
			b.Items = append(b.Items, sim.Item{Outline: sim.Numbered(sim.Bench{}, l, swatch.MostNumber).Items[5].Outline, Colour: sim.Black, Print: true, Even: true})
			require.Positive(t, q.W())
		}
		img := b.Scan(200, sim.Hard(), 5)
		if photo {
			cam := sim.Phone()
			cam.Tilt, cam.Lean, cam.Bend = 12, 50, 0.01
			img = b.Photo(cam, sim.Plain(), 5)
		}
		raw, err := sim.PNG(img, 200)
		require.NoError(t, err)
		pic, err := picture.Decode(raw)
		require.NoError(t, err)
		m, err := mat.Read(pic)
		require.NoError(t, err)
		got, err := swatch.ReadSheet(pic, m, len(cells), paper, nil)
		require.NoError(t, err)
		return got.Number
	}
	for _, n := range []int{1, 2, 77, 4095, swatch.MostNumber} {
		assert.Equal(t, n, read(sim.White, n, false, false))
	}
	assert.Equal(t, 1234, read(kraft, 1234, false, false))
	assert.Equal(t, 1234, read(sim.White, 1234, true, false))
	assert.Zero(t, read(sim.White, 0, false, false), "a sheet of before, without a number")
	assert.Zero(t, read(sim.White, 1, false, true), "a blot where no box was")
}
