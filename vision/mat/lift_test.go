package mat_test

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/mat"
	"ochrestone/vision/trace"
)

// Pieces whose tops lie nearer to the camera than the mat, as rays from the eye show them:
// what is measured with their thickness comes nearer than without, and within what is stated.
func TestThickCardIsNoLarger(t *testing.T) {
	const thick = 1.2
	l := mat.For(measure.A4, true)
	discs := []shape.Point{{X: 22, Y: 22}, {X: 140, Y: 230}}
	for _, tilt := range []float64{0, 18} {
		cam := small()
		cam.Tilt, cam.Lean, cam.Fill = tilt, 70, 0.78
		far := 0.8 * l.Page.H / cam.Fill // the simulated camera's own distance
		sin, cos := math.Sincos(tilt * math.Pi / 180)
		lean := 70 * math.Pi / 180
		up := far * cos
		foot := shape.Point{X: l.Page.W/2 - far*sin*math.Cos(lean), Y: l.Page.H/2 - far*sin*math.Sin(lean)}
		b, _ := sim.OnMat(l, nil, nil)
		for _, c := range discs {
			at := c.Add(l.Field.Min)
			seen := foot.Add(at.Sub(foot).Scale(up / (up - thick)))
			b.Items = append(b.Items, sim.Item{Outline: shape.Disc(seen, 12*up/(up-thick)), Colour: sim.Papers[1]})
		}
		p := decode(t, b.Photo(cam, sim.Plain(), 7))
		r, err := mat.Read(p)
		require.NoError(t, err)
		off := func(s trace.Scale) (place, radius float64) {
			res, err := trace.Find(context.Background(), p, s)
			require.NoError(t, err)
			require.Len(t, res.Pieces, 2)
			for _, q := range res.Pieces {
				c := q.Region.Centroid()
				place = math.Max(place, math.Min(c.Distance(discs[0]), c.Distance(discs[1])))
				radius = math.Max(radius, math.Abs(math.Sqrt(q.Region.Area()/math.Pi)/12-1))
			}
			return place, radius
		}
		lift, err := r.Raised(thick)
		require.NoError(t, err)
		assert.InDelta(t, up, lift.Up, 0.1*up, "the camera's height, tilted %g", tilt)
		was, wide := off(r.Scale)
		place, radius := off(lift.Scale)
		assert.Greater(t, was, 0.35, "uncorrected it is plainly off")
		assert.Greater(t, wide, 0.0025)
		assert.Less(t, place, 0.15, "tilted %g", tilt)
		assert.Less(t, place, lift.Left, "within what is said")
		assert.Less(t, radius, 0.0016, "tilted %g", tilt)
	}
	_, err := mat.Reading{}.Raised(9)
	assert.ErrorContains(t, err, "cannot be 9.00 mm thick")
}
