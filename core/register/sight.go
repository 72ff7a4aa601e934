package register

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"ochrestone/core/shape"
)

// Feature is a visible point of an outline that the eye can sight on.
type Feature struct {
	X     float64 `json:"x" doc:"mm, in the image's frame"`
	Y     float64 `json:"y" doc:"mm"`
	Tip   bool    `json:"tip" doc:"a tip stands out, else it is a notch"`
	Angle float64 `json:"angle" doc:"between its sides, degrees; small is sharp"`
	Where string  `json:"where" doc:"in words, such as upper left tip"`
	Ref   string  `json:"ref" doc:"what of the host it is sighted against"`
	Far   float64 `json:"far" doc:"mm from that"`
}

// Sighting is the set of features that pins a layer best.
type Sighting struct {
	Points []Feature `json:"points" nullable:"false" doc:"two or three, in the order to look at them; none when nothing helps"`
	Shift  float64   `json:"shift" doc:"spread of the shift when sighted so, mm"`
	Turn   float64   `json:"turn" doc:"spread of the turn, degrees"`
	Eye    float64   `json:"eye" doc:"how good the eye must be at each point for 95 of 100 to come out, mm; 0 when the play is not judged"`
	Say    string    `json:"say" doc:"what to do, in words"`
}

// beneath stands for the name of what lies beneath until Named gives it.
const beneath = " beneath it"

// Named says the sighting with the name of what it is sighted against.
func (s Sighting) Named(host string) Sighting {
	s.Points = slices.Clone(s.Points)
	name := func(text string) string { return strings.ReplaceAll(text, beneath, " of "+host) }
	for i, f := range s.Points {
		s.Points[i].Ref = name(f.Ref)
	}
	s.Say = name(s.Say)
	return s
}

// EyeError is how far off a practised eye sights a sharp feature that lies on
// what it is sighted against, mm; our own default.
const EyeError = 0.2

// cornerReach is how far along an outline its direction is taken to either side
// of a corner, mm: less is the wobble of a tracing.
const cornerReach = 1.6

// bluntest is the angle between the sides of a corner past which the eye has
// nothing to hold on to, degrees.
const bluntest = 135.0

// Rings shorter than dot, mm, are dots and small shapes, whose rounding is no tip
// unless it is narrower than this, degrees.
const (
	dot    = 40.0
	narrow = 90.0
)

// sharpestEye is the error below which no eye sights, mm; our own default.
const sharpestEye = 0.1

// Sight finds the two or three corners of a layer that pin its place and turn
// best. A corner is sighted with an error that grows as it is blunter and lies
// further from the nearest edge or corner of what it is sighted against (host);
// shown is what of the layer can be seen, and corners outside it do not count.
// Of all pairs the one with the least root mean square error over the layer's
// edge is taken: the error of a placement from two points with independent
// errors e is e/√2 in shift and e·√2/d in turn for a distance d between them.
//
// Without a host there is nothing to sight on, and no points come back.
func Sight(layer, host, shown shape.Region, p Play) Sighting {
	if host.Empty() {
		return Sighting{Points: []Feature{}, Say: "There is nothing beneath it to sight on: measure in from the edges, or use a template."}
	}
	fs := features(layer, host, shown)
	if len(fs) == 1 {
		return Sighting{Points: fs, Say: "Only 1, the " + fs[0].Where + ", gives the eye a hold; it does not tell the turn. Mark a line on layer and host to meet, or use a template."}
	}
	if len(fs) == 0 {
		return Sighting{Points: []Feature{}, Say: "Nothing on it tells its turn to the eye, as with round in round. Use a jig, or mark a line on layer and host to meet."}
	}
	c := layer.Centroid()
	radius := math.Sqrt(layer.Area() / math.Pi)
	best := Sighting{}
	least := math.Inf(1)
	for i := range fs {
		for j := range i {
			a, b := fs[j], fs[i]
			d := math.Hypot(a.X-b.X, a.Y-b.Y)
			if d < 2 {
				continue
			}
			ea, eb := a.blur(), b.blur()
			// Weighted mean of the two; the turn is pinned by their distance.
			shift := ea * eb / math.Hypot(ea, eb)
			turn := math.Hypot(ea, eb) / d
			w := eb * eb / (ea*ea + eb*eb)
			mid := shape.Point{X: a.X*w + b.X*(1-w), Y: a.Y*w + b.Y*(1-w)}
			over := math.Hypot(shift, turn*math.Hypot(radius, mid.Distance(c)))
			if over < least {
				least = over
				best = Sighting{Points: []Feature{a, b}, Shift: math.Hypot(shift, turn*mid.Distance(c)), Turn: turn * 180 / math.Pi}
			}
		}
	}
	if len(best.Points) == 0 {
		return Sighting{Points: []Feature{}, Say: "Its features stand too close together to tell its turn. Use a jig or a template."}
	}
	// A third, furthest from the line through both, to check by.
	a, b := best.Points[0], best.Points[1]
	off, at := 3.0, -1
	for i, f := range fs {
		d := math.Hypot(a.X-b.X, a.Y-b.Y)
		if h := math.Abs((b.X-a.X)*(f.Y-a.Y)-(b.Y-a.Y)*(f.X-a.X)) / d; h > off && f.blur() < 2*max(a.blur(), b.blur()) {
			off, at = h, i
		}
	}
	if at >= 0 {
		best.Points = append(best.Points, fs[at])
	}
	best.Say = "Bring 1, the " + a.Where + ", against " + a.Ref + "; then 2, the " + b.Where + ", against " + b.Ref + "."
	if at >= 0 {
		best.Say += " Check by 3, the " + best.Points[2].Where + "."
	}
	if p.Judged && p.Outside == 0 {
		if best.Eye = eyeFor(p, best); best.Eye < sharpestEye {
			best.Say += " That asks more than an eye can do: go by the way of placing named below."
		}
	}
	return best
}

// Marks are up to n corners of a layer to point at by hand, spread apart: the
// sharpest first, then always the one furthest from those taken. shown is what of
// the layer can be seen.
func Marks(layer, shown shape.Region, n int) []Feature {
	fs := features(layer, shape.Region{}, shown)
	var out []Feature
	for len(out) < n && len(fs) > 0 {
		best, at := -1.0, 0
		for i, f := range fs {
			d := math.Inf(1)
			for _, o := range out {
				d = math.Min(d, math.Hypot(f.X-o.X, f.Y-o.Y))
			}
			if len(out) == 0 {
				break // the sharpest
			}
			if d > best {
				best, at = d, i
			}
		}
		if len(out) > 0 && best < 2 {
			break
		}
		out = append(out, fs[at])
		fs = slices.Delete(slices.Clone(fs), at, at+1)
	}
	return out
}

// eyeFor is the error at each point, mm, at which 95 of 100 placements come out.
func eyeFor(p Play, s Sighting) float64 {
	lo, hi := 0.0, 4.0
	for range 9 {
		k := (lo + hi) / 2
		scale := k / EyeError
		if Chance(p, Spread{s.Shift * scale, s.Turn * scale}, 7) >= 0.95 {
			lo = k
		} else {
			hi = k
		}
	}
	return lo
}

// blur is the error with which a feature is sighted, mm.
func (f Feature) blur() float64 {
	return EyeError * (1 + f.Far/4) / math.Cos(f.Angle/2*math.Pi/180)
}

// features lists the corners of a layer that can be seen, sharpest first.
func features(layer, host, shown shape.Region) []Feature {
	box := layer.Bounds()
	var out []Feature
	for _, ring := range layer.Filled().Rings() {
		for _, k := range sharp(ring) {
			f := Feature{X: ring[k.at].X, Y: ring[k.at].Y, Tip: k.tip, Angle: k.angle}
			pt := ring[k.at]
			// Seen when a little of the layer shows at the corner.
			if near := shown.EdgeDistance(pt); near > 0.3 {
				continue
			}
			f.Where = where(pt, box) + map[bool]string{true: " tip", false: " notch"}[k.tip]
			f.Ref, f.Far = "the edge"+beneath, host.EdgeDistance(pt)
			if host.Empty() {
				f.Ref, f.Far = "", 2 // pointed at, not sighted
			}
			best := math.Inf(1)
			for _, hr := range host.Rings() {
				for _, h := range sharp(hr) {
					if d := hr[h.at].Distance(pt); d < best && d < f.Far+6 {
						best = d
						f.Ref = "the " + map[bool]string{true: "tip", false: "notch"}[h.tip] + beneath
						f.Far = math.Min(f.Far, d)
					}
				}
			}
			out = append(out, f)
		}
	}
	slices.SortStableFunc(out, func(a, b Feature) int { return cmp.Compare(a.blur(), b.blur()) })
	return out[:min(len(out), 24)]
}

type corner struct {
	at    int
	angle float64
	tip   bool
}

// sharp finds the corners of a ring: points at which its direction, taken
// cornerReach to either side, turns by more than 180° less bluntest, sharpest of
// their neighbourhood.
func sharp(r shape.Ring) []corner {
	n := len(r)
	if n < 3 {
		return nil
	}
	cum := make([]float64, n+1)
	for i := range r {
		cum[i+1] = cum[i] + r[i].Distance(r[(i+1)%n])
	}
	total := cum[n]
	along := func(s float64) shape.Point {
		s = math.Mod(math.Mod(s, total)+total, total)
		i := min(n-1, max(0, sortSearch(cum, s)-1))
		t := 0.0
		if d := cum[i+1] - cum[i]; d > 0 {
			t = (s - cum[i]) / d
		}
		a, b := r[i], r[(i+1)%n]
		return a.Add(b.Sub(a).Scale(t))
	}
	reach := math.Min(cornerReach, total/10)
	between := func(i int, d float64) (angle float64, u, v shape.Point) {
		u, v = along(cum[i]-d).Sub(r[i]), along(cum[i]+d).Sub(r[i])
		if u.Len() == 0 || v.Len() == 0 {
			return 180, u, v
		}
		return math.Acos(math.Max(-1, math.Min(1, u.Dot(v)/(u.Len()*v.Len())))) * 180 / math.Pi, u, v
	}
	all := make([]corner, 0, 16)
	area := 0.0
	for i := range r {
		area += r[i].Cross(r[(i+1)%n])
	}
	for i := range r {
		angle, u, v := between(i, reach)
		// On a small ring a curve straightens on a closer look and a corner does not;
		// on a large one a bend as tight as this is a tip, however rounded.
		if near, _, _ := between(i, reach/2); angle > bluntest || total < dot && angle > narrow && near > bluntest+10 {
			continue
		}
		tip := u.Cross(v)*area < 0
		all = append(all, corner{i, angle, tip})
	}
	slices.SortStableFunc(all, func(a, b corner) int { return cmp.Compare(a.angle, b.angle) })
	var out []corner
	for _, k := range all {
		if !slices.ContainsFunc(out, func(o corner) bool {
			d := math.Abs(cum[o.at] - cum[k.at])
			return math.Min(d, total-d) < 2*reach
		}) {
			out = append(out, k)
		}
	}
	return out
}

// sortSearch is the first index of a rising list whose value passes s.
func sortSearch(v []float64, s float64) int {
	i, _ := slices.BinarySearchFunc(v, s, func(a, b float64) int {
		if a <= b {
			return -1
		}
		return 1
	})
	return i
}

// where says in words in which part of a box a point lies.
func where(p shape.Point, b shape.Box) string {
	x, y := (p.X-b.Min.X)/math.Max(1e-9, b.W()), (p.Y-b.Min.Y)/math.Max(1e-9, b.H())
	across := map[int]string{0: "left", 1: "", 2: "right"}[min(2, int(x*3))]
	down := map[int]string{0: "upper", 1: "", 2: "lower"}[min(2, int(y*3))]
	switch {
	case across == "" && down == "":
		return "middle"
	case down == "upper" && across == "":
		return "top"
	case down == "lower" && across == "":
		return "bottom"
	case down == "":
		return across
	}
	return down + " " + across
}
