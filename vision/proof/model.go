package proof

import (
	"context"
	"math"
	"sync"

	"ochrestone/core/colour"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// pose is where a layer lies: turned about its middle, then moved.
type pose struct {
	x, y float64 // mm
	turn float64 // radians, clockwise
}

type layer struct {
	Layer
	field *shape.Field
	mid   shape.Point
	reach float64 // mm from the middle to the furthest point
	pose  pose
}

// model foretells what a scan of the print looks like.
type model struct {
	paper   colour.Linear
	layers  []layer
	classes []colour.Linear // colour of every set of layers, by bits
	soft    float64         // width of an edge, mm
	scale   float64         // of the print against the design, every layer about its own middle
}

// fieldStep is the grid of the distances, mm.
const fieldStep = 0.1

func newModel(paper colour.Linear, ls []Layer) *model {
	m := &model{paper: paper, soft: 0.3, scale: 1}
	for _, l := range ls {
		c := l.Region.Centroid()
		b := l.Region.Bounds()
		r := 0.0
		for _, p := range [4]shape.Point{b.Min, b.Max, {X: b.Min.X, Y: b.Max.Y}, {X: b.Max.X, Y: b.Min.Y}} {
			r = math.Max(r, p.Distance(c))
		}
		m.layers = append(m.layers, layer{Layer: l, field: shape.NewField(l.Region, fieldStep), mid: c, reach: r, pose: pose{x: c.X, y: c.Y}})
	}
	m.classes = make([]colour.Linear, 1<<len(ls))
	for k := range m.classes {
		v := paper
		for i, l := range ls {
			if k>>i&1 == 1 {
				v = l.Film.Over(v, max(1, l.Strikes))
			}
		}
		m.classes[k] = v
	}
	return m
}

// tooAlike finds the two layers that change the paper most alike.
func (m *model) tooAlike() (a, b int, d float64) {
	d = math.Inf(1)
	for i := range m.layers {
		for j := range i {
			if e := colour.Difference(m.classes[1<<i].Lab(), m.classes[1<<j].Lab()); e < d {
				a, b, d = j, i, e
			}
		}
	}
	return a, b, d
}

// motion of layer i from the design into the picture.
func (m *model) motion(i int) register.Motion {
	l := m.layers[i]
	t := register.Motion{Turn: l.pose.turn * 180 / math.Pi}
	t.Move = shape.Point{X: l.pose.x, Y: l.pose.y}.Sub(t.Point(l.mid))
	return t
}

// inside is how far inside layer l a place of the picture lies, mm.
func (l *layer) inside(x, y, sin, cos, scale float64) float64 {
	dx, dy := (x-l.pose.x)/scale, (y-l.pose.y)/scale
	if dx*dx+dy*dy > (l.reach+1)*(l.reach+1) {
		return -shape.Around
	}
	return l.field.Inside(shape.Point{X: l.mid.X + dx*cos + dy*sin, Y: l.mid.Y - dx*sin + dy*cos})
}

// covers fills c with the share of each layer at a place.
func (m *model) covers(c []float64, sc [][2]float64, x, y float64) {
	for i := range m.layers {
		c[i] = math.Max(0, math.Min(1, 0.5+m.layers[i].inside(x, y, sc[i][0], sc[i][1], m.scale)/m.soft))
	}
}

func (m *model) turns() [][2]float64 {
	out := make([][2]float64, len(m.layers))
	for i, l := range m.layers {
		out[i][0], out[i][1] = math.Sincos(l.pose.turn)
	}
	return out
}

// blend is the colour where layers cover partly: the mean over the sets of
// layers, each with its share. Where diff is wanted it is filled with the change
// of colour as each layer comes to cover.
func (m *model) blend(c []float64, diff []colour.Linear) (v colour.Linear) {
	var room [Most]int
	full, part := 0, room[:0]
	for i, k := range c {
		switch {
		case k >= 1:
			full |= 1 << i
		case k > 0:
			part = append(part, i)
		}
	}
	for i := range diff {
		diff[i] = colour.Linear{}
	}
	for s := range 1 << len(part) {
		w, mask := 1.0, full
		for n, i := range part {
			if s>>n&1 == 1 {
				w *= c[i]
				mask |= 1 << i
			} else {
				w *= 1 - c[i]
			}
		}
		q := m.classes[mask]
		for ch := range v {
			v[ch] += w * q[ch]
		}
		if diff == nil {
			continue
		}
		for n, i := range part {
			k, sign := c[i], 1.0
			if s>>n&1 == 0 {
				k, sign = 1-c[i], -1
			}
			for ch := range v {
				diff[i][ch] += sign * w / k * q[ch]
			}
		}
	}
	return v
}

// miss is the mean square difference between the scan and what the model
// foretells, over every step-th pixel of a box (all of it when empty).
func (m *model) miss(p *plane, box shape.Box, step int) float64 {
	return m.missBut(p, box, step, nil, 0)
}

// others are the covers of all layers but one over a box, worked out once while
// that one is moved about.
type others struct {
	x0, y0, w int
	c         [][Most]float64
}

func (m *model) others(p *plane, box shape.Box) *others {
	o := &others{x0: max(0, int(box.Min.X*p.perMM)), y0: max(0, int(box.Min.Y*p.perMM))}
	x1, y1 := min(p.w, int(box.Max.X*p.perMM)+1), min(p.h, int(box.Max.Y*p.perMM)+1)
	o.w = max(0, x1-o.x0)
	o.c = make([][Most]float64, o.w*max(0, y1-o.y0))
	sc := m.turns()
	strip(func(k int) {
		for y := o.y0 + k; y < y1; y += strips {
			for x := o.x0; x < x1; x++ {
				m.covers(o.c[(y-o.y0)*o.w+x-o.x0][:len(m.layers)], sc, (float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM)
			}
		}
	})
	return o
}

// missBut is miss with the covers of all layers but one known.
func (m *model) missBut(p *plane, box shape.Box, step int, known *others, but int) float64 {
	x0, y0, x1, y1 := 0, 0, p.w, p.h
	if box.W() > 0 {
		x0, y0 = max(0, int(box.Min.X*p.perMM)), max(0, int(box.Min.Y*p.perMM))
		x1, y1 = min(p.w, int(box.Max.X*p.perMM)+1), min(p.h, int(box.Max.Y*p.perMM)+1)
	}
	sc := m.turns()
	sums, ns := make([]float64, strips), make([]int, strips)
	strip(func(k int) {
		c := make([]float64, len(m.layers))
		for y := y0 + k*step; y < y1; y += strips * step {
			for x := x0; x < x1; x += step {
				px, py := (float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM
				if known != nil {
					copy(c, known.c[(y-known.y0)*known.w+x-known.x0][:len(c)])
					c[but] = math.Max(0, math.Min(1, 0.5+m.layers[but].inside(px, py, sc[but][0], sc[but][1], m.scale)/m.soft))
				} else {
					m.covers(c, sc, px, py)
				}
				v := m.blend(c, nil)
				q := p.at(x, y)
				for ch := range v {
					d := v[ch] - q[ch]
					sums[k] += d * d
				}
				ns[k]++
			}
		}
	})
	sum, n := 0.0, 0
	for k := range strips {
		sum, n = sum+sums[k], n+ns[k]
	}
	return sum / float64(3*max(1, n))
}

// strips is in how many parts the rows of a picture are worked on side by side;
// fixed, so that sums come out the same on every machine.
const strips = 4

// strip does f for every part.
func strip(f func(k int)) {
	var wg sync.WaitGroup
	for k := range strips {
		wg.Go(func() { f(k) })
	}
	wg.Wait()
}

// findSheet looks for the whole print: shifted as its ink lies, turned by up to
// sheetTurn.
func (m *model) findSheet(ctx context.Context, p *plane) error {
	m.soft = 0.7
	home := make([]pose, len(m.layers))
	var union shape.Point
	area := 0.0
	for i, l := range m.layers {
		home[i] = l.pose
		a := l.Region.Area()
		union, area = union.Add(l.mid.Scale(a)), area+a
	}
	union = union.Scale(1 / area)
	put := func(turn, x, y float64) {
		s, c := math.Sincos(turn)
		for i := range m.layers {
			d := m.layers[i].mid.Sub(union)
			m.layers[i].pose = pose{x + d.X*c - d.Y*s, y + d.X*s + d.Y*c, turn}
		}
	}
	best, bt, bx, by := math.Inf(1), 0.0, 0.0, 0.0
	try := func(turn, x, y float64, step int) {
		put(turn, x, y)
		if v := m.miss(p, shape.Box{}, step); v < best {
			best, bt, bx, by = v, turn, x, y
		}
	}
	c := p.centre
	for turn := -sheetTurn; turn <= sheetTurn; turn += 1.5 {
		if err := ctx.Err(); err != nil {
			return err
		}
		for dy := -3.0; dy <= 3; dy += 1.5 {
			for dx := -3.0; dx <= 3; dx += 1.5 {
				try(turn*math.Pi/180, c.X+dx, c.Y+dy, 3)
			}
		}
	}
	for _, r := range [4]float64{0.8, 0.4, 0.2, 0.1} {
		for range 3 {
			t, x, y := bt, bx, by
			for _, d := range [3]float64{-1, 0, 1} {
				try(t+d*r*0.015, x, y, 2)
				try(t, x+d*r, y, 2)
				try(t, x, y+d*r, 2)
			}
		}
	}
	put(bt, bx, by)
	return nil
}

// sheetTurn is how far the sheet may lie askew, degrees.
const sheetTurn = 6.0

// settle looks for every layer apart, the largest first, in the whole box of
// shifts and turns a hand may be off by; twice, since each search leans on where
// the others lie.
func (m *model) settle(ctx context.Context, p *plane) error {
	m.soft = 0.5
	for round := range 2 {
		for i := range m.layers {
			if err := ctx.Err(); err != nil {
				return err
			}
			l := &m.layers[i]
			box := shape.Box{Min: shape.Point{X: l.pose.x - l.reach - 3, Y: l.pose.y - l.reach - 3}, Max: shape.Point{X: l.pose.x + l.reach + 3, Y: l.pose.y + l.reach + 3}}
			known := m.others(p, box)
			from, best, at := l.pose, m.missBut(p, box, 2, known, i), l.pose
			try := func(q pose, step int) {
				l.pose = q
				if v := m.missBut(p, box, step, known, i); v < best {
					best, at = v, q
				}
			}
			if round == 0 {
				for _, turn := range [5]float64{-0.04, -0.02, 0, 0.02, 0.04} {
					for dy := -2.0; dy <= 2; dy += 0.5 {
						for dx := -2.0; dx <= 2; dx += 0.5 {
							try(pose{from.x + dx, from.y + dy, from.turn + turn}, 2)
						}
					}
				}
			}
			l.pose = at
			best = m.missBut(p, box, 1, known, i)
			for _, r := range [4]float64{0.3, 0.15, 0.08, 0.04} {
				for range 2 {
					q := at
					for _, d := range [2]float64{-1, 1} {
						try(pose{q.x + d*r, q.y, q.turn}, 1)
						try(pose{q.x, q.y + d*r, q.turn}, 1)
						try(pose{q.x, q.y, q.turn + d*r/math.Max(5, l.reach)}, 1)
					}
				}
			}
			l.pose = at
		}
	}
	return nil
}
