package trace

import "ochrestone/core/shape"

// xy is a place in pixels.
type xy struct{ x, y float64 }

// field is a signal over a rectangle of the picture whose first pixel is
// (x0, y0).
type field struct {
	x0, y0, w, h int
	s            []float32
}

// contours follows the level line through the pixel centres (marching squares
// with linear interpolation). Lines run with the higher side to their right on
// screen, so that an outer line has positive area and a hole negative; a line
// that would leave the field is closed along its rim, where the signal counts
// as below the level.
func (f *field) contours(level float32) [][]xy {
	type side struct{ from, to int32 }
	var sides []side
	w := f.w
	at := func(x, y int) float32 {
		if x <= 0 || y <= 0 || x >= f.w-1 || y >= f.h-1 {
			return 0
		}
		return f.s[y*w+x]
	}
	add := func(a, b int) { sides = append(sides, side{int32(a), int32(b)}) }
	for y := range f.h - 1 {
		for x := range f.w - 1 {
			tl, tr, br, bl := at(x, y), at(x+1, y), at(x+1, y+1), at(x, y+1)
			k := 0
			if tl >= level {
				k |= 1
			}
			if tr >= level {
				k |= 2
			}
			if br >= level {
				k |= 4
			}
			if bl >= level {
				k |= 8
			}
			if k == 0 || k == 15 {
				continue
			}
			// Edges of the square by number: even ones lie across, odd ones down.
			t, l := 2*(y*w+x), 2*(y*w+x)+1
			b, r := 2*((y+1)*w+x), 2*(y*w+x+1)+1
			full := tl+tr+br+bl >= 4*level
			switch k {
			case 1:
				add(t, l)
			case 2:
				add(r, t)
			case 3:
				add(r, l)
			case 4:
				add(b, r)
			case 8:
				add(l, b)
			case 6:
				add(b, t)
			case 12:
				add(l, r)
			case 9:
				add(t, b)
			case 7:
				add(b, l)
			case 11:
				add(r, b)
			case 13:
				add(t, r)
			case 14:
				add(l, t)
			case 5:
				if full {
					add(t, r)
					add(b, l)
				} else {
					add(t, l)
					add(b, r)
				}
			case 10:
				if full {
					add(r, b)
					add(l, t)
				} else {
					add(r, t)
					add(l, b)
				}
			}
		}
	}
	next := make(map[int32]int32, len(sides))
	for _, s := range sides {
		next[s.from] = s.to
	}
	point := func(e int32) xy {
		i := int(e / 2)
		x, y := i%w, i/w
		a := at(x, y)
		b := at(x+1, y)
		if e&1 == 1 {
			b = at(x, y+1)
		}
		k := 0.5
		if a != b {
			k = float64((level - a) / (b - a))
		}
		p := xy{float64(f.x0+x) + 0.5, float64(f.y0+y) + 0.5}
		if e&1 == 1 {
			p.y += k
		} else {
			p.x += k
		}
		return p
	}
	var out [][]xy
	for _, s := range sides {
		if _, ok := next[s.from]; !ok {
			continue
		}
		var line []xy
		for e := s.from; ; {
			n, ok := next[e]
			if !ok {
				break
			}
			delete(next, e)
			line = append(line, point(e))
			e = n
		}
		if len(line) >= 4 {
			out = append(out, line)
		}
	}
	return out
}

// areaOf is the signed area of a closed line in square pixels.
func areaOf(l []xy) float64 {
	var s float64
	for i, p := range l {
		q := l[(i+1)%len(l)]
		s += p.x*q.y - q.x*p.y
	}
	return s / 2
}

// holds reports whether a place lies inside a closed line.
func holds(l []xy, p xy) bool {
	in := false
	for i, a := range l {
		b := l[(i+1)%len(l)]
		if (a.y > p.y) != (b.y > p.y) && p.x < a.x+(p.y-a.y)/(b.y-a.y)*(b.x-a.x) {
			in = !in
		}
	}
	return in
}

// shrink clears every pixel of a mask that has a clear pixel within r across
// or down (erosion by a square).
func shrink(mask []bool, w, h, r int) []bool {
	mid := make([]bool, len(mask))
	for y := range h {
		last := -1 // last clear pixel
		row := mask[y*w : (y+1)*w]
		for x, on := range row {
			if !on {
				last = x
			}
			if x-r >= 0 {
				mid[y*w+x-r] = row[x-r] && last < x-2*r && x-2*r >= 0
			}
		}
	}
	out := make([]bool, len(mask))
	last := make([]int, w)
	for x := range last {
		last[x] = -1
	}
	for y := range h {
		for x := range w {
			if !mid[y*w+x] {
				last[x] = y
			}
			if y-r >= 0 {
				out[(y-r)*w+x] = mid[(y-r)*w+x] && last[x] < y-2*r && y-2*r >= 0
			}
		}
	}
	return out
}

// Lines follows a level over a rectangle of w by h values whose first pixel is
// (x0, y0), sub-pixel, as closed lines in pixels of the picture. Lines round
// what is above the level have positive area, those round holes negative.
func Lines(x0, y0, w, h int, values []float32, level float32) [][]shape.Point {
	f := field{x0, y0, w, h, values}
	var out [][]shape.Point
	for _, l := range f.contours(level) {
		ps := make([]shape.Point, len(l))
		for i, p := range l {
			ps[i] = shape.Point{X: p.x, Y: p.y}
		}
		out = append(out, ps)
	}
	return out
}
