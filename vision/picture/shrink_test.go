package picture_test

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/color"
	"image/jpeg"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/vision/picture"
)

// A photograph as a phone gives it, lying on its side, is kept upright, as large as asked, in
// proportion, and says nothing of where it was taken. It is read back by another decoder.
func TestAPhotographIsKeptShrunk(t *testing.T) {
	img := image.NewRGBA(image.Rect(0, 0, 1200, 800))
	for y := range 800 {
		for x := range 1200 {
			c := color.RGBA{40, 60, 160, 255}
			if x < 600 {
				c = color.RGBA{200, 140, 30, 255}
			}
			img.Set(x, y, c)
		}
	}
	file := withExif(t, img, exif(binary.BigEndian, 72, 2, 6)) // stands on its right side: turned by a quarter to the right
	require.Contains(t, string(file), "Exif")
	p, err := picture.Decode(file)
	require.NoError(t, err)
	data, w, h, err := p.JPEG(300, 85)
	require.NoError(t, err)
	assert.Equal(t, []int{200, 300}, []int{w, h})
	assert.NotContains(t, string(data), "Exif")
	got, err := jpeg.Decode(bytes.NewReader(data))
	require.NoError(t, err)
	assert.Equal(t, image.Rect(0, 0, 200, 300), got.Bounds())
	near := func(x, y int, want color.RGBA) {
		r, g, b, _ := got.At(x, y).RGBA()
		for i, v := range []uint32{r >> 8, g >> 8, b >> 8} {
			assert.InDelta(t, []uint8{want.R, want.G, want.B}[i], v, 6)
		}
	}
	near(100, 60, color.RGBA{200, 140, 30, 255})
	near(100, 240, color.RGBA{40, 60, 160, 255})
	small, w, h, err := p.JPEG(90, 95) // by squares of four first
	require.NoError(t, err)
	assert.Equal(t, []int{60, 90}, []int{w, h})
	got, err = jpeg.Decode(bytes.NewReader(small))
	require.NoError(t, err)
	near(30, 20, color.RGBA{200, 140, 30, 255})
	near(30, 70, color.RGBA{40, 60, 160, 255})
	_, w, h, err = p.JPEG(5000, 85)
	require.NoError(t, err)
	assert.Equal(t, []int{800, 1200}, []int{w, h}, "never enlarged")
}
