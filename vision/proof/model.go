package proof

import (
	"context"
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/measure"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/core/together"
)

// pose is where a layer lies: turned about its middle, then moved.
type pose struct {
	x, y float64 // mm
	turn float64 // radians, clockwise
}

type layer struct {
	Layer
	field *shape.Field // the one in use
	fine  *shape.Field
	mid   shape.Point
	box   shape.Box // of the region about its middle
	reach float64   // mm from the middle to the furthest point
	grow  float64   // mm that the ink ran past the edge of the stamp
	pose  pose
}

// model foretells what a scan of the print looks like.
type model struct {
	paper   colour.Linear
	layers  []layer
	classes []colour.Linear // colour of every set of layers, by bits
	patches *patches        // those colours place by place, once learned
	near    [][]int32       // pixels near an edge, for the fine search
	unknown bool            // nobody knows the inks
	write   measure.Writing // of measures in notes
	soft    float64         // width of an edge, mm
	outlier float64         // of linear light; what misses more counts less
	askew   float64         // turn of the sheet, which round layers keep to, radians
	scale   float64         // of the print against the design, every layer about its own middle
}

// Grids of the distances, mm: the coarse one is small enough to be quick.
const (
	fineStep   = 0.15
	coarseStep = 0.35
)

func newModel(paper colour.Linear, ls []Layer) *model {
	m := &model{paper: paper, soft: 0.3, scale: 1}
	m.layers = make([]layer, len(ls))
	together.By(len(ls), func(i int) {
		l := ls[i]
		c := l.Region.Centroid()
		b := l.Region.Bounds()
		r := 0.0
		for _, p := range [4]shape.Point{b.Min, b.Max, {X: b.Min.X, Y: b.Max.Y}, {X: b.Max.X, Y: b.Min.Y}} {
			r = math.Max(r, p.Distance(c))
		}
		m.layers[i] = layer{Layer: l, field: shape.NewField(l.Region, coarseStep), fine: shape.NewField(l.Region, fineStep), mid: c, reach: r, pose: pose{x: c.X, y: c.Y}}
		m.layers[i].box = shape.Box{Min: b.Min.Sub(c), Max: b.Max.Sub(c)}
	})
	m.foretell()
	return m
}

// foretell works out the colour of every set of layers from their inks.
func (m *model) foretell() {
	m.classes = make([]colour.Linear, 1<<len(m.layers))
	for k := range m.classes {
		v := m.paper
		for i, l := range m.layers {
			if k>>i&1 == 1 {
				v = l.Film.Over(v, max(1, l.Strikes))
			}
		}
		m.classes[k] = v
	}
}

// fresh is the same model with nothing found yet; what never changes is shared.
func (m *model) fresh() *model {
	n := *m
	n.layers, n.classes = slices.Clone(m.layers), slices.Clone(m.classes)
	for i := range n.layers {
		n.layers[i].pose = pose{x: n.layers[i].mid.X, y: n.layers[i].mid.Y}
	}
	return &n
}

// alike lists the pairs of layers that change the paper too nearly alike to be
// told apart by their inks.
func (m *model) alike() (out [][2]int) {
	for i := range m.layers {
		for j := range i {
			if colour.Difference(m.classes[1<<i].Lab(), m.classes[1<<j].Lab()) < leastApart {
				out = append(out, [2]int{j, i})
			}
		}
	}
	return out
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
	return l.field.Inside(shape.Point{X: l.mid.X + dx*cos + dy*sin, Y: l.mid.Y - dx*sin + dy*cos}) + l.grow
}

// share is how much of a place of the picture layer l covers, its edge soft mm wide.
func (l *layer) share(x, y, sin, cos, scale, soft float64) float64 {
	dx, dy := (x-l.pose.x)/scale, (y-l.pose.y)/scale
	if dx*dx+dy*dy > (l.reach+1)*(l.reach+1) {
		return math.Max(0, 0.5-shape.Around/soft)
	}
	return l.field.Share(shape.Point{X: l.mid.X + dx*cos + dy*sin, Y: l.mid.Y - dx*sin + dy*cos}, l.grow, soft)
}

// sharpen has all layers use their fine distances from here on.
func (m *model) sharpen() {
	for i := range m.layers {
		m.layers[i].field = m.layers[i].fine
	}
}

// around is the box of the picture a layer may take when it is moved by up to
// room mm and turned by a few degrees.
func (l *layer) around(room float64) shape.Box {
	sin, cos := math.Sincos(l.pose.turn)
	out := shape.Box{Min: shape.Point{X: math.Inf(1), Y: math.Inf(1)}, Max: shape.Point{X: math.Inf(-1), Y: math.Inf(-1)}}
	for _, q := range [4]shape.Point{l.box.Min, l.box.Max, {X: l.box.Min.X, Y: l.box.Max.Y}, {X: l.box.Max.X, Y: l.box.Min.Y}} {
		x, y := l.pose.x+q.X*cos-q.Y*sin, l.pose.y+q.X*sin+q.Y*cos
		out.Min = shape.Point{X: math.Min(out.Min.X, x), Y: math.Min(out.Min.Y, y)}
		out.Max = shape.Point{X: math.Max(out.Max.X, x), Y: math.Max(out.Max.Y, y)}
	}
	room += 0.05 * l.reach
	out.Min, out.Max = out.Min.Sub(shape.Point{X: room, Y: room}), out.Max.Add(shape.Point{X: room, Y: room})
	return out
}

// covers fills c with the share of each layer at a place.
func (m *model) covers(c []float64, sc [][2]float64, x, y float64) {
	for i := range m.layers {
		c[i] = m.layers[i].share(x, y, sc[i][0], sc[i][1], m.scale, m.soft)
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
func (m *model) blend(classes []colour.Linear, c []float64, diff []colour.Linear) (v colour.Linear) {
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
		q := classes[mask]
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
// foretells, over every step-th pixel.
func (m *model) miss(p *Plane, step int) float64 {
	sc := m.turns()
	sums, ns := make([]float64, strips), make([]int, strips)
	strip(func(k int) {
		c := make([]float64, len(m.layers))
		for y := k * step; y < p.h; y += strips * step {
			for x := 0; x < p.w; x += step {
				m.covers(c, sc, (float64(x)+0.5)/p.perMM, (float64(y)+0.5)/p.perMM)
				v := m.blend(m.classes, c, nil)
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

// stake is what a pixel says of one layer while all others stay where they are:
// the foretold colour is linear in how much the layer covers, so that the square
// of what is missed is even + k·lean + k²·bow for a cover k.
type stake struct{ even, lean, bow float32 }

// stakes are those of a box of pixels.
type stakes struct {
	x0, y0, w, h int
	v            []stake
}

func (m *model) stakes(p *Plane, box shape.Box, but int) *stakes {
	o := &stakes{x0: max(0, int(box.Min.X*p.perMM)), y0: max(0, int(box.Min.Y*p.perMM))}
	o.w = max(0, min(p.w, int(box.Max.X*p.perMM)+1)-o.x0)
	o.h = max(0, min(p.h, int(box.Max.Y*p.perMM)+1)-o.y0)
	o.v = make([]stake, o.w*o.h)
	sc := m.turns()
	strip(func(k int) {
		c := make([]float64, len(m.layers))
		for y := k; y < o.h; y += strips {
			for x := range o.w {
				m.covers(c, sc, (float64(x+o.x0)+0.5)/p.perMM, (float64(y+o.y0)+0.5)/p.perMM)
				c[but] = 0
				off := m.blend(m.classes, c, nil)
				c[but] = 1
				on := m.blend(m.classes, c, nil)
				q := p.at(x+o.x0, y+o.y0)
				var s stake
				for ch := range q {
					a, b := float32(off[ch]-q[ch]), float32(on[ch]-off[ch])
					s.even, s.lean, s.bow = s.even+a*a, s.lean+2*a*b, s.bow+b*b
				}
				o.v[y*o.w+x] = s
			}
		}
	})
	return o
}

// missOf is what is missed over the stakes of a layer where it lies now, from
// every step-th pixel of them.
func (m *model) missOf(o *stakes, p *Plane, but, step int) float64 {
	l := &m.layers[but]
	sin, cos := math.Sincos(l.pose.turn)
	sums := make([]float64, strips)
	strip(func(k int) {
		for y := k * step; y < o.h; y += strips * step {
			py := (float64(y+o.y0) + 0.5) / p.perMM
			for x := 0; x < o.w; x += step {
				s := o.v[y*o.w+x]
				c := float32(l.share((float64(x+o.x0)+0.5)/p.perMM, py, sin, cos, m.scale, m.soft))
				switch {
				case c <= 0:
					sums[k] += float64(s.even)
				case c >= 1:
					sums[k] += float64(s.even + s.lean + s.bow)
				default:
					sums[k] += float64(s.even + c*s.lean + c*c*s.bow)
				}
			}
		}
	})
	sum := 0.0
	for _, v := range sums {
		sum += v
	}
	return sum * float64(step*step) / float64(3*max(1, o.w*o.h))
}

// strips is in how many parts the rows of a picture are worked on side by side;
// fixed, so that sums come out the same on every machine.
const strips = 4

// strip does f for every part.
func strip(f func(k int)) { together.By(strips, f) }

// findSheet looks for the whole print: shifted as its ink lies, turned by up to
// sheetTurn.
func (m *model) findSheet(ctx context.Context, p *Plane) error {
	m.soft = 0.9
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
		if v := m.miss(p, step); v < best {
			best, bt, bx, by = v, turn, x, y
		}
	}
	c, _ := p.inkedShare(m.paper)
	for turn := -sheetTurn; turn <= sheetTurn; turn += 1.5 {
		if err := ctx.Err(); err != nil {
			return err
		}
		for dy := -3.0; dy <= 3; dy += 1.5 {
			for dx := -3.0; dx <= 3; dx += 1.5 {
				try(turn*math.Pi/180, c.X+dx, c.Y+dy, 2)
			}
		}
	}
	for _, r := range [4]float64{0.8, 0.4, 0.2, 0.1} {
		for range 3 {
			t, x, y := bt, bx, by
			for _, d := range [3]float64{-1, 0, 1} {
				try(t+d*r*0.015, x, y, 1)
				try(t, x+d*r, y, 1)
				try(t, x, y+d*r, 1)
			}
		}
	}
	put(bt, bx, by)
	return nil
}

// sheetTurn is how far the sheet may lie askew, degrees.
const sheetTurn = 6.0
