package shape

import "math"

// Field is the signed distance of a region's edge on a grid: mm inside it,
// negative outside.
type Field struct {
	x0, y0, step float64
	nx, ny       int
	d            []float32
}

// Around is how far outside a region a field keeps its distances, mm; further
// out it says as much.
const Around = 4.0

// NewField measures a region on a grid of the given step, mm.
func NewField(g Region, step float64) *Field {
	b := g.Bounds()
	r := &Field{x0: b.Min.X - Around, y0: b.Min.Y - Around, step: step}
	r.nx, r.ny = int((b.W()+2*Around)/step)+2, int((b.H()+2*Around)/step)+2
	r.d = make([]float32, r.nx*r.ny)
	// Every cell remembers the nearest edge point known, spread outward from
	// points set along the edges (a brushfire with exact distances to points).
	near := make([]Point, r.nx*r.ny)
	far := float32(math.Inf(1))
	for i := range r.d {
		r.d[i] = far
	}
	try := func(i, j int, p Point) bool {
		if i < 0 || j < 0 || i >= r.nx || j >= r.ny {
			return false
		}
		k := j*r.nx + i
		if d := float32(r.at(i, j).Distance(p)); d < r.d[k] {
			r.d[k], near[k] = d, p
			return true
		}
		return false
	}
	for _, p := range Along(g, step/3) {
		i, j := int((p.X-r.x0)/step), int((p.Y-r.y0)/step)
		for dj := range 2 {
			for di := range 2 {
				try(i+di, j+dj, p)
			}
		}
	}
	pass := func(i, j int, from [4][2]int) {
		for _, f := range from {
			if a, b := i+f[0], j+f[1]; a >= 0 && b >= 0 && a < r.nx && b < r.ny && r.d[b*r.nx+a] < far {
				try(i, j, near[b*r.nx+a])
			}
		}
	}
	for range 2 {
		for j := range r.ny {
			for i := range r.nx {
				pass(i, j, [4][2]int{{-1, 0}, {0, -1}, {-1, -1}, {1, -1}})
			}
			for i := r.nx - 1; i >= 0; i-- {
				pass(i, j, [4][2]int{{1, 0}, {0, -1}, {1, -1}, {-1, -1}})
			}
		}
		for j := r.ny - 1; j >= 0; j-- {
			for i := r.nx - 1; i >= 0; i-- {
				pass(i, j, [4][2]int{{1, 0}, {0, 1}, {1, 1}, {-1, 1}})
			}
			for i := range r.nx {
				pass(i, j, [4][2]int{{-1, 0}, {0, 1}, {-1, 1}, {1, 1}})
			}
		}
	}
	for j := range r.ny {
		in := g.Cross(r.y0 + float64(j)*step)
		for i := range r.nx {
			x := r.x0 + float64(i)*step
			inside := false
			for _, s := range in {
				inside = inside || x >= s[0] && x <= s[1]
			}
			if !inside {
				r.d[j*r.nx+i] *= -1
			}
		}
	}
	return r
}

func (r *Field) at(i, j int) Point {
	return Point{X: r.x0 + float64(i)*r.step, Y: r.y0 + float64(j)*r.step}
}

// Inside is how far inside the edge a point lies, mm, between grid points.
func (r *Field) Inside(p Point) float64 {
	x, y := (p.X-r.x0)/r.step, (p.Y-r.y0)/r.step
	i, j := int(math.Floor(x)), int(math.Floor(y))
	if i < 0 || j < 0 || i >= r.nx-1 || j >= r.ny-1 {
		return -Around
	}
	fx, fy := x-float64(i), y-float64(j)
	k := j*r.nx + i
	a, b, c, d := float64(r.d[k]), float64(r.d[k+1]), float64(r.d[k+r.nx]), float64(r.d[k+r.nx+1])
	return (a*(1-fx)+b*fx)*(1-fy) + (c*(1-fx)+d*fx)*fy
}

// Share is how much of a soft edge lies inside at a point: 0 where that is more than half of soft
// mm outside, 1 where it is so far inside, and evenly between; grow mm are added to what Inside
// says.
func (r *Field) Share(p Point, grow, soft float64) float64 {
	x, y := (p.X-r.x0)/r.step, (p.Y-r.y0)/r.step
	if !(x >= 0 && y >= 0 && x < float64(r.nx-1) && y < float64(r.ny-1)) {
		return math.Max(0, math.Min(1, 0.5+(grow-Around)/soft))
	}
	// A point is no nearer to the edge or further from it than the grid point beside it by more
	// than lies between the two.
	near := float64(r.d[int(y)*r.nx+int(x)]) + grow
	if sure := soft/2 + 1.5*r.step; near > sure {
		return 1
	} else if near < -sure {
		return 0
	}
	return math.Max(0, math.Min(1, 0.5+(r.Inside(p)+grow)/soft))
}

// Along spreads points along the edges of a region, step mm apart or a little
// less.
func Along(g Region, step float64) []Point {
	var out []Point
	for _, r := range g.Rings() {
		for i, a := range r {
			b := r[(i+1)%len(r)]
			n := max(1, int(math.Ceil(a.Distance(b)/step)))
			for k := range n {
				out = append(out, a.Add(b.Sub(a).Scale(float64(k)/float64(n))))
			}
		}
	}
	return out
}

// Nearest is the distance at the nearest grid point.
func (r *Field) Nearest(x, y float64) float64 {
	i, j := int((x-r.x0)/r.step+0.5), int((y-r.y0)/r.step+0.5)
	if i < 0 || j < 0 || i >= r.nx || j >= r.ny {
		return -Around
	}
	return float64(r.d[j*r.nx+i])
}
