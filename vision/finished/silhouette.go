package finished

import (
	"cmp"
	"math"
	"slices"

	mt "gonum.org/v1/gonum/mat"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
)

// lie is how a piece lies in a picture.
type lie struct {
	piece int
	to    mat.Homography // from the frame in which the piece lies, mm, to pixels
	scale float64        // pixels to the mm
	off   float64        // mean distance of its edge from that of the mask, mm
}

// How the image is told from its ground; our own defaults.
const (
	small       = 640  // pixels along the longer side while it is sought
	large       = 0.35 // of the largest piece's area that one must have to be what stands out
	closeBy     = 0.7  // mm
	leastClose  = 0.72 // of the edge that must lie so close
	nearlyGood  = 1.5  // times the least distance that another lie may have to be tried
	mostLies    = 4
	ofOne       = 2 // of them of one piece
	outlineN    = 240
	mostGrounds = 8
)

// silhouettes finds what stands out from the ground, and how a large piece must lie to
// look so; the likeliest first.
func silhouettes(p *picture.Picture, pieces []shape.Region) ([]lie, error) {
	lab, w, h, by := shrink(p, small)
	base := 0
	for i, g := range pieces {
		if g.Filled().Area() > pieces[base].Filled().Area() {
			base = i
		}
	}
	most := pieces[base].Filled().Area()
	var all []lie
	stood := false
	// What stands out may be the card the image lies on, or the paper under that: then what
	// stands out from it is looked for in turn.
	grounds := [][]bool{nil}
	var seen []*mask
	for n := 0; n < len(grounds) && n < mostGrounds; n++ {
		diff := fromGround(lab, w, h, grounds[n])
		last := 0.0
		for _, limit := range []float32{5, 8, 13, 20, 32} {
			m := largest(diff, w, h, limit)
			if m == nil || last > 0 && math.Abs(m.area-last) < 0.004*last {
				continue
			}
			fresh := last == 0 || m.area < 0.8*last
			last = m.area
			if fresh {
				grounds = append(grounds, m.in)
			}
			if m.cut || slices.ContainsFunc(seen, m.same) {
				continue
			}
			stood = true
			seen = append(seen, m)
			for i, g := range pieces {
				if own := g.Filled(); own.Area() >= large*most && !unlikely(m, own) {
					for _, l := range m.lies(own) {
						l.piece = i
						for k := range 6 {
							l.to[k] *= by
						}
						l.scale *= by
						all = append(all, l)
					}
				}
			}
		}
	}
	if len(all) == 0 {
		if !stood {
			return nil, unlike("nothing in it stands out from its ground")
		}
		return nil, unlike("nothing in it has the outline of the largest piece")
	}
	slices.SortStableFunc(all, func(a, b lie) int { return cmp.Compare(a.off, b.off) })
	var out []lie
	for _, l := range all {
		if l.off > nearlyGood*all[0].off+0.05 || len(out) == mostLies {
			break
		}
		same := 0
		for _, q := range out {
			if q.piece == l.piece {
				same++
			}
		}
		if same < ofOne && !slices.ContainsFunc(out, func(q lie) bool { return sameLie(pieces[l.piece], l, q) }) {
			out = append(out, l)
		}
	}
	return out, nil
}

// sameLie reports whether two lies of one piece put it in the same place.
func sameLie(g shape.Region, l, q lie) bool {
	if l.piece != q.piece {
		return false
	}
	for _, p := range shape.Along(g.Filled(), g.Length()/12) {
		if l.to.At(p).Distance(q.to.At(p)) > 1.0*l.scale {
			return false
		}
	}
	return true
}

// shrink gives a picture's colours at no more than most pixels along a side, and how many
// pixels of the picture one of them is.
func shrink(p *picture.Picture, most int) (lab []colour.Lab, w, h int, by float64) {
	by = math.Max(1, float64(max(p.W, p.H))/float64(most))
	w, h = int(float64(p.W)/by), int(float64(p.H)/by)
	lab = make([]colour.Lab, w*h)
	for y := range h {
		for x := range w {
			lab[y*w+x] = mean(p, float64(x)*by, float64(y)*by, float64(x+1)*by, float64(y+1)*by).Lab()
		}
	}
	return lab, w, h, by
}

// mean is the mean light of the pixels of a box.
func mean(p *picture.Picture, x0, y0, x1, y1 float64) (c colour.Linear) {
	n := 0.0
	for y := max(0, int(y0)); y < min(p.H, max(int(y0)+1, int(y1))); y++ {
		for x := max(0, int(x0)); x < min(p.W, max(int(x0)+1, int(x1))); x++ {
			r, g, b := p.At(x, y)
			c[0], c[1], c[2] = c[0]+float64(picture.Linear(r)), c[1]+float64(picture.Linear(g)), c[2]+float64(picture.Linear(b))
			n++
		}
	}
	for i := range c {
		c[i] /= math.Max(1, n)
	}
	return c
}

// fromGround is how far each pixel of a part of the picture, nil for all of it, is in colour
// from the ground, which is what the rim of that part shows: a plane through its colours, by
// what most of them agree on. Outside the part and on its very rim that is 0.
func fromGround(lab []colour.Lab, w, h int, in []bool) []float32 {
	band := max(3, min(w, h)/50)
	depth := newNearest(w+2, h+2, func(i int) bool {
		x, y := i%(w+2)-1, i/(w+2)-1
		return x < 0 || y < 0 || x >= w || y >= h || in != nil && !in[y*w+x]
	})
	far := func(x, y int) float32 { return depth.far[(y+1)*(w+2)+x+1] }
	type at struct{ v [3]float64 } // a place of the rim: 1, across, down
	var from []at
	var to [3][]float64
	for y := range h {
		for x := range w {
			// The edge of what the part stands out from blurs into it.
			if d := far(x, y); d >= 2.5 && d <= 2.5+float32(band) || in == nil && d > 0 && d <= float32(band) {
				q := lab[y*w+x]
				from = append(from, at{[3]float64{1, float64(x)/float64(w) - 0.5, float64(y)/float64(h) - 0.5}})
				to[0], to[1], to[2] = append(to[0], q.L), append(to[1], q.A), append(to[2], q.B)
			}
		}
	}
	out := make([]float32, w*h)
	if len(from) < 50 {
		return out
	}
	var plane [3][3]float64
	for k := range 3 {
		v := slices.Clone(to[k])
		slices.Sort(v)
		plane[k][0] = v[len(v)/2]
	}
	at3 := func(v [3]float64) (c [3]float64) {
		for k := range 3 {
			c[k] = plane[k][0]*v[0] + plane[k][1]*v[1] + plane[k][2]*v[2]
		}
		return c
	}
	for range 4 {
		ata := mt.NewSymDense(3, nil)
		var atb [3]*mt.VecDense
		for k := range atb {
			atb[k] = mt.NewVecDense(3, nil)
		}
		for i, f := range from {
			g := at3(f.v)
			d := math.Sqrt((to[0][i]-g[0])*(to[0][i]-g[0]) + (to[1][i]-g[1])*(to[1][i]-g[1]) + (to[2][i]-g[2])*(to[2][i]-g[2]))
			if d > 12 {
				continue
			}
			u := d / 12
			wt := (1 - u*u) * (1 - u*u)
			for a := range 3 {
				for k := range 3 {
					atb[k].SetVec(a, atb[k].AtVec(a)+wt*f.v[a]*to[k][i])
				}
				for b := a; b < 3; b++ {
					ata.SetSym(a, b, ata.At(a, b)+wt*f.v[a]*f.v[b])
				}
			}
		}
		for a := range 3 {
			ata.SetSym(a, a, ata.At(a, a)+0.01)
		}
		for k := range 3 {
			var x mt.VecDense
			if x.SolveVec(ata, atb[k]) == nil {
				plane[k] = [3]float64{x.AtVec(0), x.AtVec(1), x.AtVec(2)}
			}
		}
	}
	for y := range h {
		for x := range w {
			if d := far(x, y); in != nil && d < 3 || d == 0 {
				continue
			}
			g := at3([3]float64{1, float64(x)/float64(w) - 0.5, float64(y)/float64(h) - 0.5})
			q := lab[y*w+x]
			l := q.L - g[0]
			if l < 0 {
				l *= 0.7 // what is only darker may be a shadow
			}
			out[y*w+x] = float32(math.Sqrt(l*l + (q.A-g[1])*(q.A-g[1]) + (q.B-g[2])*(q.B-g[2])))
		}
	}
	return out
}
