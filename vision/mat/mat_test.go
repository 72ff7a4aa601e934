package mat_test

import (
	"context"
	"image"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"

	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

func pt(x, y float64) shape.Point { return shape.Point{X: x, Y: y} }

// The map of the unit square to a quadrilateral in closed form: P. Heckbert,
// Fundamentals of Texture Mapping and Image Warping (1989), section 2.2.3.
func heckbert(q [4]shape.Point) mat.Homography {
	sx, sy := q[0].X-q[1].X+q[2].X-q[3].X, q[0].Y-q[1].Y+q[2].Y-q[3].Y
	dx1, dx2, dy1, dy2 := q[1].X-q[2].X, q[3].X-q[2].X, q[1].Y-q[2].Y, q[3].Y-q[2].Y
	d := dx1*dy2 - dx2*dy1
	g, h := (sx*dy2-sy*dx2)/d, (dx1*sy-dy1*sx)/d
	return mat.Homography{q[1].X - q[0].X + g*q[1].X, q[3].X - q[0].X + h*q[3].X, q[0].X, q[1].Y - q[0].Y + g*q[1].Y, q[3].Y - q[0].Y + h*q[3].Y, q[0].Y, g, h}
}

func TestPerspectiveAgainstClosedForm(t *testing.T) {
	square := []shape.Point{pt(0, 0), pt(1, 0), pt(1, 1), pt(0, 1)}
	rapid.Check(t, func(t *rapid.T) {
		near := func(x, y float64, n string) shape.Point {
			return pt(x+rapid.Float64Range(-0.3, 0.3).Draw(t, n), y+rapid.Float64Range(-0.3, 0.3).Draw(t, n))
		}
		q := [4]shape.Point{near(0, 0, "a"), near(3, 0, "b"), near(3, 2, "c"), near(0, 2, "d")}
		got, err := mat.Fit(square, q[:])
		if err != nil {
			t.Fatal(err)
		}
		want := heckbert(q)
		p := pt(rapid.Float64Range(0, 1).Draw(t, "x"), rapid.Float64Range(0, 1).Draw(t, "y"))
		if d := got.At(p).Distance(want.At(p)); d > 1e-8 {
			t.Fatalf("off by %g", d)
		}
		inv, err := got.Inverse()
		if err != nil {
			t.Fatal(err)
		}
		if d := inv.At(got.At(p)).Distance(p); d > 1e-8 {
			t.Fatalf("inverse off by %g", d)
		}
	})
}

func TestPerspectiveRefusesPointsOnALine(t *testing.T) {
	line := []shape.Point{pt(0, 0), pt(1, 1), pt(2, 2), pt(0, 5)}
	_, err := mat.Fit(line, []shape.Point{pt(0, 0), pt(1, 0), pt(1, 1), pt(0, 1)})
	assert.ErrorIs(t, err, mat.ErrDegenerate)
	_, err = mat.Fit(line[:3], line[:3])
	assert.ErrorIs(t, err, mat.ErrDegenerate)
}

func TestLayoutKeepsItsDistances(t *testing.T) {
	for _, page := range []measure.Size{measure.A4, measure.Letter} {
		l := mat.For(page, false)
		dots := 0
		for i, m := range l.Marks {
			if m.Dot > 0 {
				dots++
			}
			assert.Greater(t, math.Min(m.At.X, m.At.Y)-m.Outer, 5.0, "printers leave 5 mm")
			for _, n := range l.Marks[:i] {
				assert.Greater(t, m.At.Distance(n.At), m.Outer+n.Outer+4, "marks stand apart")
			}
			f := l.Field
			inside := m.At.X+m.Outer > f.Min.X && m.At.X-m.Outer < f.Max.X && m.At.Y+m.Outer > f.Min.Y && m.At.Y-m.Outer < f.Max.Y
			assert.False(t, inside, "no mark stands in the field")
		}
		assert.Equal(t, 5, dots)
		assert.Len(t, mat.For(page, true).Ink(), len(l.Ink())+1)
	}
}

// snap takes a small picture of the mat with one disc and one square on it.
func snap(t *testing.T, page measure.Size, cam sim.Camera, g sim.Grade, change func(*sim.Bench)) *picture.Picture {
	l := mat.For(page, false)
	dark := sim.Papers[1]
	for i := range dark {
		dark[i] *= 0.1
	}
	items := []sim.Item{{Outline: shape.Disc(pt(40, 50), 15), Colour: dark}, {Outline: shape.Rect(80, 120, 40, 25), Colour: dark}}
	b, _ := sim.OnMat(l, nil, nil)
	for _, it := range items {
		it.Outline = it.Outline.Move(l.Field.Min)
		b.Items = append(b.Items, it)
	}
	if change != nil {
		change(&b)
	}
	return decode(t, b.Photo(cam, g, 7))
}

func decode(t *testing.T, img image.Image) *picture.Picture {
	raw, err := sim.JPEG(img, 72, 92)
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	return p
}

// small is a phone of five million pixels, for quick tests.
func small() sim.Camera { return sim.Camera{W: 1900, H: 2550, Fill: 0.86} }

func TestPhotographIsMeasured(t *testing.T) {
	cam := small()
	cam.Tilt, cam.Lean, cam.Roll, cam.Bend, cam.Fill = 18, 70, 4, 0.03, 0.78
	p := snap(t, measure.A4, cam, sim.Plain(), nil)
	r, err := mat.Read(p)
	require.NoError(t, err)
	assert.Equal(t, measure.A4, r.Layout.Page)
	assert.InDelta(t, 18, r.Tilt, 0.5)
	assert.Equal(t, r.Of, r.Marks)
	assert.Less(t, r.Off, 0.05)
	res, err := trace.Find(context.Background(), p, r.Scale)
	require.NoError(t, err)
	require.Equal(t, 2, len(res.Pieces))
	box, disc := res.Pieces[0].Region, res.Pieces[1].Region
	assert.InDelta(t, 1000, box.Area(), 3)
	assert.InDelta(t, 15, math.Sqrt(disc.Area()/math.Pi), 0.02, "scale within 0.1 %")
	assert.InDelta(t, 40, disc.Centroid().X, 0.1)
	assert.InDelta(t, 50, disc.Centroid().Y, 0.1)
}

func TestUpsideDownLetterPage(t *testing.T) {
	cam := small()
	cam.Roll = 178
	r, err := mat.Read(snap(t, measure.Letter, cam, sim.Plain(), nil))
	require.NoError(t, err)
	assert.Equal(t, measure.Letter, r.Layout.Page, "the page is told by its marks")
	at := r.Scale.Place(950, 1275)
	assert.InDelta(t, r.Layout.Field.W()/2, at.X, 3, "the middle stays the middle")
}

func TestBadPhotographsAreRefusedInWords(t *testing.T) {
	plain := sim.Plain()
	tilted := small()
	tilted.Tilt, tilted.Fill = 42, 0.62
	_, err := mat.Read(snap(t, measure.A4, tilted, plain, nil))
	assert.ErrorContains(t, err, "from straight above")

	blurred := plain
	blurred.Blur = 3.4
	_, err = mat.Read(snap(t, measure.A4, small(), blurred, nil))
	assert.ErrorContains(t, err, "blurred")

	_, err = mat.Read(snap(t, measure.A4, small(), plain, func(b *sim.Bench) {
		b.Items = append(b.Items, sim.Item{Outline: shape.Rect(0, 270, 30, 27), Colour: sim.White})
	}))
	assert.ErrorContains(t, err, "Only 4 of the 5 marks with a dot")

	p := snap(t, measure.A4, small(), plain, nil)
	for y := range p.H { // mirror it
		for x := range p.W / 2 {
			a, b := 3*(y*p.W+x), 3*(y*p.W+p.W-1-x)
			for c := range 3 {
				p.Pix[a+c], p.Pix[b+c] = p.Pix[b+c], p.Pix[a+c]
			}
		}
	}
	_, err = mat.Read(p)
	assert.ErrorContains(t, err, "mirrored")

	blank := image.NewGray(image.Rect(0, 0, 400, 500))
	_, err = mat.Read(decode(t, blank))
	assert.ErrorContains(t, err, "cannot be found")
}
