package depth

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/build"
	"ochrestone/core/shape"
)

// A stiff lever over a fulcrum, in closed form, and what card makes of it: an end that would stand far
// up bends down to hardly above what bears it; one that is lifted little stays as a stiff one lies.
func TestAFarLeverBendsDown(t *testing.T) {
	g := shape.Rect(0, 0, 60, 10)
	over := func(high float64) []Bearing {
		return []Bearing{{shape.Point{X: 0, Y: 5}, 0}, {shape.Point{X: 20, Y: 0}, high}, {shape.Point{X: 20, Y: 10}, high}}
	}
	stiff := Plane{At: g.Centroid(), Z: 30 * 4.0 / 20, SX: 4.0 / 20}
	assert.InDelta(t, 12, stiff.Over(shape.Point{X: 60, Y: 5}), 1e-9, "60 mm along a slope of 4 in 20")
	bent := drooped(stiff, g, over(4))
	assert.InDelta(t, 4+bentTo, bent.Over(shape.Point{X: 60, Y: 5}), 1e-9)
	assert.InDelta(t, 4, bent.Over(shape.Point{X: 20, Y: 0}), 1e-9, "it keeps to what bears it highest")
	little := Plane{At: g.Centroid(), Z: 30 * 0.3 / 20, SX: 0.3 / 20}
	assert.Equal(t, little, drooped(little, g, over(0.3)), "0.6 mm above it is left")
}

// What pads keep clear of: common practice, no source; the shares are our own.
func TestWhatPadsStandClearOf(t *testing.T) {
	part := shape.Rect(0, 0, 40, 20)
	clear := func(height, top float64, g shape.Region) bool {
		s := &stand{tops: []float64{1, top}, out: make([]Stood, 2)}
		s.out[0].Outline, s.out[0].Z1 = shape.Rect(-10, -10, 100, 100), 1
		s.out[1].Outline = g
		s.boxes = []shape.Box{s.out[0].Outline.Bounds(), g.Bounds()}
		var out Stood
		out.Outline = part
		out.Holds = []build.Hold{{Raised: true, Height: height}}
		return len(s.stoodClear(out, 0, []int{1})) == 1
	}
	strip, half, all := shape.Rect(0, 0, 4, 20), shape.Rect(0, 0, 16, 20), shape.Rect(-1, -1, 42, 22)
	assert.True(t, clear(2, 2, strip), "a stem lower than the pads is stood over")
	assert.False(t, clear(2, 2, all), "what lies beneath all of it is stood on")
	assert.True(t, clear(2, 3.5, strip), "a corner of something as high is left alone")
	assert.False(t, clear(2, 3.5, half), "much of it cannot be stood over")
	assert.True(t, clear(2, 6, half), "far higher things are not climbed")
	assert.False(t, clear(2, 1.05, strip), "foam gives so much")
}
