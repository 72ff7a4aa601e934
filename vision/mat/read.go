package mat

import (
	"fmt"
	"math"

	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// Reading is a photograph of the mat, measured.
type Reading struct {
	Layout  Layout
	Scale   trace.Scale
	Pixel   func(shape.Point) shape.Point // where a place in the field, mm, is seen
	PerMM   float64                       // pixels to the mm in the middle of the mat
	Tilt    float64                       // degrees from looking straight down
	Marks   int                           // seen
	Of      int                           // printed
	Off     float64                       // root mean square distance of the marks' middles from where they were printed, mm
	Certain float64                       // standard error of the scale, share
	Blur    float64                       // standard deviation of the blur, mm
	inverse Homography                    // mm to straight, scaled pixels
}

// What a picture must be to be measured; our own limits.
const (
	mostTilt   = 36.0 // degrees
	mostBlur   = 0.22 // mm
	leastPerMM = 5.0
	mostOff    = 0.35 // mm
	leastSeen  = 0.7  // share of the marks
)

// Read finds the mat in a photograph. Either size of page is tried.
func Read(p *picture.Picture) (Reading, error) {
	found := rings(p)
	var bulls []seen
	for _, s := range found {
		if s.dot {
			bulls = append(bulls, s)
		}
	}
	if len(found) < 6 && len(bulls) < 2 {
		return Reading{}, &picture.Problem{What: "The measuring mat cannot be found in this picture.", Mend: "Print the mat, lay the pieces in its field, and take the whole page from straight above."}
	}
	if len(bulls) < 5 {
		return Reading{}, &picture.Problem{What: fmt.Sprintf("Only %d of the 5 marks with a dot (four corners, and one beside the top left) can be seen.", len(bulls)),
			Mend: "Get the whole page into the picture, with nothing on its corners, and no glare."}
	}
	if len(bulls) > 8 {
		bulls = bulls[:8]
	}
	var best Reading
	var why error
	for _, page := range []measure.Size{measure.A4, measure.Letter} {
		r, err := read(p, found, bulls, For(page, false))
		if err != nil {
			if why == nil {
				why = err
			}
			continue
		}
		if best.Marks == 0 || r.Off < best.Off {
			best = r
		}
	}
	if best.Marks == 0 {
		return Reading{}, why
	}
	return best, best.check()
}

func (r Reading) check() error {
	switch {
	case r.Tilt > mostTilt:
		return &picture.Problem{What: fmt.Sprintf("The picture was taken %.0f degrees from straight above; at most %.0f can be measured.", r.Tilt, mostTilt), Mend: "Hold the camera over the middle of the mat, level with it."}
	case r.PerMM < leastPerMM:
		return &picture.Problem{What: fmt.Sprintf("The mat is small in the picture: %.1f pixels to the mm.", r.PerMM), Mend: "Go nearer until the page fills the picture."}
	case r.Blur > mostBlur:
		return &picture.Problem{What: fmt.Sprintf("The picture is blurred: edges spread over %.2f mm.", 2*r.Blur), Mend: "Hold still, give it more light, let the camera find its focus."}
	case r.Off > mostOff:
		return &picture.Problem{What: fmt.Sprintf("The marks lie %.1f mm off where they were printed.", r.Off), Mend: "Lay the mat flat, and print it at 100 % without fitting it to the page."}
	}
	return nil
}

// read tries one layout.
func read(p *picture.Picture, found, bulls []seen, l Layout) (Reading, error) {
	v := view{cx: float64(p.W) / 2, cy: float64(p.H) / 2}
	v.half = math.Hypot(v.cx, v.cy)
	most, mirrored := 0, false
	var start Homography
	corners := []shape.Point{l.Marks[0].At, l.Marks[1].At, l.Marks[2].At, l.Marks[3].At}
	choose4(len(bulls), func(k [4]int) {
		var px [4]shape.Point
		for i := range k {
			px[i] = v.straighten(bulls[k[i]].at)
		}
		h, err := Fit(px[:], corners)
		if err != nil {
			return
		}
		turn := px[1].Sub(px[0]).Cross(px[3].Sub(px[0]))
		n := 0
		top := false
		for i, m := range l.Marks {
			if s := nearestSeen(h, v, found, m.At, 6); s != nil && (m.Dot == 0 || s.dot) {
				n++
				top = top || i == 4
			}
		}
		if !top || n <= most {
			return
		}
		most, mirrored, start = n, turn < 0, h
	})
	if float64(most) < leastSeen*float64(len(l.Marks)) {
		return Reading{}, &picture.Problem{What: fmt.Sprintf("Only %d of the mat's %d marks can be seen.", most, len(l.Marks)), Mend: "Keep pieces, fingers and glare off the marks, and get the whole page into the picture."}
	}
	if mirrored {
		return Reading{}, &picture.Problem{What: "The mat is seen mirrored.", Mend: "Turn the picture back, or take it with the camera that faces away from you."}
	}
	v.plane = start
	var ss []sighting
	marks := 0
	var blur float64
	for range 2 { // match again once the lens is known
		ss, marks, blur = nil, 0, 0
		for i, m := range l.Marks {
			s := nearestSeen(v.plane, v, found, m.At, 6)
			if s == nil || m.Dot > 0 && !s.dot {
				continue
			}
			marks++
			blur += s.spread
			for k, e := range s.edges {
				r, sign := []float64{m.Outer, m.Inner, m.Dot}[k], []float64{1, -1, 1}[k]
				if r == 0 {
					continue
				}
				for j := 0; j < len(e); j += max(1, len(e)/60) {
					ss = append(ss, sighting{e[j], i, m.At, r, sign})
				}
			}
		}
		var err error
		if v, err = v.settle(ss); err != nil {
			return Reading{}, err
		}
	}
	r := Reading{Layout: l, Marks: marks, Of: len(l.Marks)}
	r.certainty(v, ss)
	if err := r.geometry(v, blur/float64(marks)); err != nil {
		return Reading{}, err
	}
	return r, nil
}

// nearestSeen is the ring seen nearest to where a mark should be, within mm.
func nearestSeen(h Homography, v view, found []seen, at shape.Point, within float64) *seen {
	var best *seen
	for i := range found {
		if d := h.At(v.straighten(found[i].at)).Distance(at); d < within {
			best, within = &found[i], d
		}
	}
	return best
}

// choose4 calls f with every ordered choice of four of n.
func choose4(n int, f func([4]int)) {
	for a := range n {
		for b := range n {
			for c := range n {
				for d := range n {
					if a != b && a != c && a != d && b != c && b != d && c != d {
						f([4]int{a, b, c, d})
					}
				}
			}
		}
	}
}

// certainty compares where the marks were found with where they were printed:
// the scale's standard error is that of a fitted similarity, σ/√Σ|p-p̄|².
func (r *Reading) certainty(v view, ss []sighting) {
	type ring struct {
		n    float64
		x, y float64
	}
	got := map[int]*ring{}
	for _, s := range ss {
		g := got[s.mark]
		if g == nil {
			g = &ring{}
			got[s.mark] = g
		}
		d := v.mm(s.px).Sub(s.at)
		m := v.miss(s) / math.Max(d.Len(), 1e-9)
		// The middle of a ring is off by twice the mean of its radial misses.
		g.n, g.x, g.y = g.n+1, g.x+2*m*d.X, g.y+2*m*d.Y
	}
	var sum, reach float64
	c := shape.Point{X: r.Layout.Page.W / 2, Y: r.Layout.Page.H / 2}
	for i, g := range got {
		sum += (g.x*g.x + g.y*g.y) / (g.n * g.n)
		d := r.Layout.Marks[i].At.Sub(c)
		reach += d.Dot(d)
	}
	n := float64(len(got))
	r.Off = math.Sqrt(sum / n)
	r.Certain = r.Off / math.Sqrt2 / math.Sqrt(reach)
}

// geometry turns the view into a scale for tracing.
func (r *Reading) geometry(v view, blurPx float64) error {
	l := r.Layout
	mid := l.Field.Min.Add(l.Field.Max).Scale(0.5)
	pixels, err := v.pixels()
	if err != nil {
		return err
	}
	if r.inverse, err = v.plane.Inverse(); err != nil {
		return err
	}
	c := pixels(mid)
	// How a pixel's step across and down shows on the mat.
	a, b := v.mm(c.Add(shape.Point{X: 1})).Sub(v.mm(c)), v.mm(c.Add(shape.Point{Y: 1})).Sub(v.mm(c))
	var svd svd2
	svd.of(a.X, b.X, a.Y, b.Y)
	r.PerMM = 1 / math.Sqrt(svd.big*svd.small)
	r.Tilt = math.Acos(math.Min(1, svd.small/svd.big)) * 180 / math.Pi
	r.Blur = blurPx / r.PerMM
	r.Scale = trace.Scale{PerMM: r.PerMM, Place: func(x, y float64) shape.Point { return v.mm(shape.Point{X: x, Y: y}).Sub(l.Field.Min) }}
	r.Pixel = func(at shape.Point) shape.Point { return pixels(at.Add(l.Field.Min)) }
	const inset, steps = 1.2, 24
	box := shape.Box{Min: l.Field.Min.Add(shape.Point{X: inset, Y: inset}), Max: l.Field.Max.Sub(shape.Point{X: inset, Y: inset})}
	cs := []shape.Point{box.Min, {X: box.Max.X, Y: box.Min.Y}, box.Max, {X: box.Min.X, Y: box.Max.Y}}
	for i, q := range cs {
		next := cs[(i+1)%4]
		for k := range steps {
			r.Scale.Field = append(r.Scale.Field, pixels(q.Add(next.Sub(q).Scale(float64(k)/steps))))
		}
	}
	return nil
}

// svd2 holds the singular values of a two by two matrix, in closed form.
type svd2 struct{ big, small float64 }

func (s *svd2) of(a, b, c, d float64) {
	q, r := math.Hypot(a+d, c-b)/2, math.Hypot(a-d, c+b)/2
	s.big, s.small = q+r, math.Abs(q-r)
}
