package proof

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
)

// Numbers of the search for prints on a sheet.
const (
	seekPerMM = 2.0 // pixels to the mm
	leastInk  = 0.35
	mostInk   = 1.7
	dirt      = 0.02 // of the print's area; less is not worth a word
	bedDark   = 0.35 // of the brightest light: darker at the border is the bed or the mat, not card
	rimOff    = 1.5  // mm of a card's edge, and its shadow, that are left out
)

// found is a print on the sheet: what of the sheet it takes, and what of that
// belongs to others.
type found struct {
	box   shape.Box
	label int32
}

// sheet is a plane with its prints looked for.
type sheet struct {
	p      *Plane // coarse
	labels []int32
	card   []bool
	prints []found
	cut    int     // prints cut off by an edge
	merged int     // prints that run into one another
	other  int     // things printed beside
	dim    float64 // light of the card in its darkest channel against the paper
}

// seek finds the prints of a design on a sheet. gap is the largest gap inside
// the design, mm, area what it covers, mm².
func seek(p *Plane, paper colour.Linear, gap, area float64) *sheet {
	s := &sheet{p: p.reduce(seekPerMM)}
	s.findCard()
	s.dim = math.Inf(1)
	for c, v := range s.bareIn(0, 0, s.p.w, s.p.h) {
		s.dim = math.Min(s.dim, v/math.Max(0.02, paper[c]))
	}
	if s.dim < leastLight {
		return s
	}
	white := s.light()
	ink := make([]bool, len(s.card))
	for y := range s.p.h {
		for x := range s.p.w {
			k := y*s.p.w + x
			q := s.p.at(x, y)
			for c := range q {
				q[c] *= paper[c] / math.Max(0.01, white[c][0]+white[c][1]*float64(x)+white[c][2]*float64(y))
			}
			ink[k] = s.card[k] && inked(q, paper)
		}
	}
	r := int(math.Ceil((gap/2 + 0.9) * s.p.perMM))
	s.labels = label(dilate(ink, s.p.w, s.p.h, r), s.p.w, s.p.h)
	type blob struct {
		n     int
		box   [4]int
		edge  bool
		label int32
	}
	blobs := map[int32]*blob{}
	for y := range s.p.h {
		for x := range s.p.w {
			k := y*s.p.w + x
			l := s.labels[k]
			if l == 0 || !ink[k] {
				continue
			}
			b := blobs[l]
			if b == nil {
				b = &blob{box: [4]int{x, y, x, y}, label: l}
				blobs[l] = b
			}
			b.n++
			b.box = [4]int{min(b.box[0], x), min(b.box[1], y), max(b.box[2], x), max(b.box[3], y)}
			b.edge = b.edge || x < 2 || y < 2 || x >= s.p.w-2 || y >= s.p.h-2
		}
	}
	px := s.p.perMM * s.p.perMM
	for _, b := range blobs {
		a := float64(b.n) / px
		switch {
		case a < dirt*area:
		case a > mostInk*area:
			s.merged++
		case b.edge:
			s.cut++
		case a < leastInk*area:
			s.other++
		default:
			m := s.p.perMM
			s.prints = append(s.prints, found{label: b.label, box: shape.Box{Min: shape.Point{X: float64(b.box[0]) / m, Y: float64(b.box[1]) / m}, Max: shape.Point{X: float64(b.box[2]+1) / m, Y: float64(b.box[3]+1) / m}}})
		}
	}
	s.order()
	return s
}

// order puts the prints as one reads: by rows, each from the left.
func (s *sheet) order() {
	mid := func(f found) shape.Point { return f.box.Min.Add(f.box.Max).Scale(0.5) }
	slices.SortFunc(s.prints, func(a, b found) int { return cmp.Compare(mid(a).Y, mid(b).Y) })
	for i := 0; i < len(s.prints); {
		j := i + 1
		for j < len(s.prints) && mid(s.prints[j]).Y < mid(s.prints[i]).Y+s.prints[i].box.H()/2 {
			j++
		}
		slices.SortFunc(s.prints[i:j], func(a, b found) int { return cmp.Compare(mid(a).X, mid(b).X) })
		i = j
	}
}

// part cuts a print out of the full plane with so much round it, mm; what belongs
// to others, or is no card, is bare paper.
func (s *sheet) part(p *Plane, f found, paper colour.Linear, round float64) *Plane {
	b := shape.Box{Min: f.box.Min.Sub(shape.Point{X: round, Y: round}), Max: f.box.Max.Add(shape.Point{X: round, Y: round})}
	out := p.crop(b)
	white := s.bareNear(f)
	for y := range out.h {
		for x := range out.w {
			i := min(s.p.w-1, int(((float64(x)+0.5)/out.perMM+out.corner.X)*s.p.perMM))
			j := min(s.p.h-1, int(((float64(y)+0.5)/out.perMM+out.corner.Y)*s.p.perMM))
			if k := j*s.p.w + i; !s.card[k] || s.labels[k] != 0 && s.labels[k] != f.label {
				out.put(x, y, white)
			}
		}
	}
	out.even(paper)
	return out
}

// findCard tells the card from a dark bed or mat it lies on: what is dark and
// hangs together with the border is no card, nor is its shadowed rim.
func (s *sheet) findCard() {
	w, h := s.p.w, s.p.h
	s.card = make([]bool, w*h)
	luma := make([]float64, w*h)
	for k := range luma {
		luma[k] = 0.2126*float64(s.p.v[3*k]) + 0.7152*float64(s.p.v[3*k+1]) + 0.0722*float64(s.p.v[3*k+2])
	}
	sorted := slices.Clone(luma)
	slices.Sort(sorted)
	dark := sorted[len(sorted)*97/100] * bedDark
	bed := make([]bool, w*h)
	var todo []int
	visit := func(x, y int) {
		if k := y*w + x; x >= 0 && y >= 0 && x < w && y < h && !bed[k] && luma[k] < dark {
			bed[k] = true
			todo = append(todo, k)
		}
	}
	border := 0
	for x := range w {
		visit(x, 0)
		visit(x, h-1)
	}
	for y := range h {
		visit(0, y)
		visit(w-1, y)
	}
	border = len(todo)
	for len(todo) > 0 {
		k := todo[len(todo)-1]
		todo = todo[:len(todo)-1]
		x, y := k%w, k/w
		visit(x-1, y)
		visit(x+1, y)
		visit(x, y-1)
		visit(x, y+1)
	}
	// A dark part of a print at the border is not a bed: a bed runs all along it.
	if border < (w+h)/2 {
		for k := range s.card {
			s.card[k] = true
		}
		return
	}
	wide := dilate(bed, w, h, int(math.Ceil(rimOff*s.p.perMM)))
	for k := range s.card {
		s.card[k] = !wide[k]
	}
}

// light is the light of the bare card as a plane over the pixels, by channel: fitted
// to what is near the card's usual colour, twice.
func (s *sheet) light() (out [3][3]float64) {
	usual := s.bareIn(0, 0, s.p.w, s.p.h)
	for c := range out {
		out[c][0] = usual[c]
	}
	for range 2 {
		a, b := mat.NewSymDense(3, nil), mat.NewDense(3, 3, nil)
		for y := 0; y < s.p.h; y += 2 {
			for x := 0; x < s.p.w; x += 2 {
				if !s.card[y*s.p.w+x] {
					continue
				}
				row, q := [3]float64{1, float64(x), float64(y)}, s.p.at(x, y)
				near := true
				for c := range q {
					near = near && math.Abs(q[c]-out[c][0]-out[c][1]*row[1]-out[c][2]*row[2]) < 0.1*usual[c]
				}
				if !near {
					continue
				}
				for i := range 3 {
					for j := i; j < 3; j++ {
						a.SetSym(i, j, a.At(i, j)+row[i]*row[j])
					}
					for c := range 3 {
						b.Set(i, c, b.At(i, c)+row[i]*q[c])
					}
				}
			}
		}
		var x mat.Dense
		if err := x.Solve(a, b); err != nil {
			return out
		}
		for c := range out {
			out[c] = [3]float64{x.At(0, c), x.At(1, c), x.At(2, c)}
		}
	}
	return out
}

func (s *sheet) bareNear(f found) colour.Linear {
	m := s.p.perMM
	return s.bareIn(max(0, int((f.box.Min.X-round)*m)), max(0, int((f.box.Min.Y-round)*m)), min(s.p.w, int((f.box.Max.X+round)*m)), min(s.p.h, int((f.box.Max.Y+round)*m)))
}

func (s *sheet) bareIn(x0, y0, x1, y1 int) (out colour.Linear) {
	// Paper by far takes up most of a sheet and of the room round a print: its
	// colour is the one most pixels share.
	const steps = 24
	type bin struct {
		n   int
		sum colour.Linear
	}
	bins := map[[3]int]*bin{}
	for y := y0; y < y1; y++ {
		for x := x0; x < x1; x++ {
			k := y*s.p.w + x
			if !s.card[k] || s.labels != nil && s.labels[k] != 0 {
				continue
			}
			q := s.p.at(x, y)
			key := [3]int{int(q[0] * steps), int(q[1] * steps), int(q[2] * steps)}
			b := bins[key]
			if b == nil {
				b = &bin{}
				bins[key] = b
			}
			b.n++
			for c := range q {
				b.sum[c] += q[c]
			}
		}
	}
	most := &bin{n: 1, sum: colour.Linear{1, 1, 1}}
	for _, key := range sortedKeys(bins) {
		if b := bins[key]; b.n > most.n {
			most = b
		}
	}
	for c := range out {
		out[c] = math.Max(0.01, most.sum[c]/float64(most.n))
	}
	return out
}

func sortedKeys[V any](m map[[3]int]V) [][3]int {
	out := make([][3]int, 0, len(m))
	for k := range m {
		out = append(out, k)
	}
	slices.SortFunc(out, func(a, b [3]int) int {
		return cmp.Or(cmp.Compare(a[0], b[0]), cmp.Compare(a[1], b[1]), cmp.Compare(a[2], b[2]))
	})
	return out
}

// dilate grows what is set by r pixels, in a square.
func dilate(in []bool, w, h, r int) []bool {
	pass := func(in []bool, n, m, step, across int) []bool {
		out := make([]bool, len(in))
		for j := range m {
			last := -1 << 30
			for i := range n {
				if in[j*across+i*step] {
					last = i
				}
				if i-last <= r {
					out[j*across+i*step] = true
				}
			}
			last = 1 << 30
			for i := n - 1; i >= 0; i-- {
				if in[j*across+i*step] {
					last = i
				}
				if last-i <= r {
					out[j*across+i*step] = true
				}
			}
		}
		return out
	}
	return pass(pass(in, w, h, 1, w), h, w, w, 1)
}

// label numbers what hangs together, from 1.
func label(in []bool, w, h int) []int32 {
	out := make([]int32, len(in))
	n := int32(0)
	var todo []int
	for k := range in {
		if !in[k] || out[k] != 0 {
			continue
		}
		n++
		out[k] = n
		todo = append(todo[:0], k)
		for len(todo) > 0 {
			q := todo[len(todo)-1]
			todo = todo[:len(todo)-1]
			x, y := q%w, q/w
			for _, d := range [4][2]int{{-1, 0}, {1, 0}, {0, -1}, {0, 1}} {
				i, j := x+d[0], y+d[1]
				if i < 0 || j < 0 || i >= w || j >= h {
					continue
				}
				if at := j*w + i; in[at] && out[at] == 0 {
					out[at] = n
					todo = append(todo, at)
				}
			}
		}
	}
	return out
}

// spread is the largest gap inside a design, mm, and the area it covers, mm².
func spread(layers []Layer) (gap, area float64) {
	gs := make([]shape.Region, len(layers))
	for i, l := range layers {
		gs[i] = l.Region
	}
	all, err := shape.UnionAll(gs...)
	if err != nil {
		all = gs[0]
	}
	area = all.Area()
	ps := all.Pieces()
	// Grow one cluster by its nearest piece, and note the widest step.
	in := make([]bool, len(ps))
	if len(ps) == 0 {
		return 0, area
	}
	in[0] = true
	for range len(ps) - 1 {
		best, at := math.Inf(1), -1
		for i := range ps {
			for j := range ps {
				if in[i] && !in[j] {
					if d, _, _ := ps[i].Gap(ps[j]); d < best {
						best, at = d, j
					}
				}
			}
		}
		in[at] = true
		gap = math.Max(gap, best)
	}
	return gap, area
}
