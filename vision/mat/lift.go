package mat

import (
	"fmt"
	"math"

	"ochrestone/core/shape"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// Lift is what the thickness of card does in a photograph: its top lies nearer to the camera
// than the mat, and is seen larger and further out.
type Lift struct {
	Scale trace.Scale
	Up    float64 // how high the camera stood, mm
	Share float64 // by how much pieces looked too large, share
	Left  float64 // how far, mm, a piece at the rim of the field may still be out of place, 95 of 100
}

// Focal lengths of phones' main cameras, in half diagonals of the picture: 26 mm on a frame of
// 43.27 mm across (common practice, no source), from 22 to 31 mm.
const (
	focal     = 26 / (43.27 / 2)
	focalSure = 0.20 // share, 95 of 100
	leastLean = 10.0 // degrees from which the tilt of the picture tells the focal length itself
)

// MostThick is the thickest that is corrected for, mm.
const MostThick = 3.0

// Raised is the scale for the tops of pieces of a thickness, mm. What is known of the camera is
// its place over the mat: a plane seen in perspective tells it once the focal length is known
// (R. Hartley and A. Zisserman, Multiple View Geometry, 2nd ed., section 8.8).
func (r Reading) Raised(thick float64) (Lift, error) {
	if thick < 0 || thick > MostThick || math.IsNaN(thick) {
		return Lift{}, &picture.Problem{What: fmt.Sprintf("Card cannot be %.2f mm thick.", thick), Mend: fmt.Sprintf("Give its thickness, 0 to %.0f mm: ordinary cardstock is 0.3 mm.", MostThick)}
	}
	foot, up, sure := r.camera()
	k := thick / up
	near := r.Scale.Place
	origin := r.Layout.Field.Min
	foot = foot.Sub(origin)
	l := Lift{Scale: r.Scale, Up: up, Share: k / (1 - k)}
	l.Scale.Place = func(x, y float64) shape.Point {
		p := near(x, y)
		return foot.Add(p.Sub(foot).Scale(1 - k))
	}
	reach := 0.0
	for _, q := range []shape.Point{{}, {X: r.Layout.Field.W()}, {Y: r.Layout.Field.H()}, {X: r.Layout.Field.W(), Y: r.Layout.Field.H()}} {
		reach = max(reach, q.Distance(foot))
	}
	// The camera's height by its focal length; the side toward it shows the edge of the card to
	// its foot, so that half the thickness is in doubt there.
	l.Left = reach * k * math.Hypot(sure, 0.5)
	return l, nil
}

// camera is where on the mat the camera's foot stands, how high above it, mm, and how sure
// that is, share.
func (r Reading) camera() (foot shape.Point, up, sure float64) {
	f, sure := focal, focalSure
	g := r.inverse
	// The first two columns of the plane's map, divided by the focal length, stand square and are of one length.
	a := [2]float64{g[0]*g[1] + g[3]*g[4], g[0]*g[0] + g[3]*g[3] - g[1]*g[1] - g[4]*g[4]}
	b := [2]float64{g[6] * g[7], g[6]*g[6] - g[7]*g[7]}
	if bb := b[0]*b[0] + b[1]*b[1]; r.Tilt > leastLean && bb > 0 {
		if ff := -(a[0]*b[0] + a[1]*b[1]) / bb; ff > 0.5 && ff < 9 {
			f, sure = math.Sqrt(ff), focalSure/2
		}
	}
	col := func(x, y, z float64) [3]float64 { return [3]float64{x / f, y / f, z} }
	c1, c2, c3 := col(g[0], g[3], g[6]), col(g[1], g[4], g[7]), col(g[2], g[5], 1)
	size := func(v [3]float64) float64 { return math.Sqrt(v[0]*v[0] + v[1]*v[1] + v[2]*v[2]) }
	n := 2 / (size(c1) + size(c2))
	for i := range 3 {
		c1[i], c2[i], c3[i] = c1[i]*n, c2[i]*n, c3[i]*n
	}
	c0 := [3]float64{c1[1]*c2[2] - c1[2]*c2[1], c1[2]*c2[0] - c1[0]*c2[2], c1[0]*c2[1] - c1[1]*c2[0]}
	dot := func(a, b [3]float64) float64 { return a[0]*b[0] + a[1]*b[1] + a[2]*b[2] }
	return shape.Point{X: -dot(c1, c3), Y: -dot(c2, c3)}, math.Abs(dot(c0, c3)), sure
}
