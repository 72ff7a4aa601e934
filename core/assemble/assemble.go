// Package assemble proposes how loose pieces go together: which lies on which,
// and where, by the edge they follow, the hole they fill, or their axis of
// symmetry. It proposes; the person decides.
package assemble

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/core/together"
)

// Placed is where one piece goes.
type Placed struct {
	Piece   int             // index of the piece given
	Motion  register.Motion // from where it lay
	Outline shape.Region    // where it goes, mm, in the set's own frame
	Host    int             // index into the placed pieces; -1 for the base
	Fit     kit.Fit
	Sure    float64 // how sure, 0 to 1
	Why     string  // what it went by, for people
	Layer   int     // twins and mirror twins share one, lowest 0
	Rim     float64 // distance it keeps from its host's edge, mm

	alone float64 // how sure by itself, if its host lies right
	share float64 // of its edge that keeps that distance
	aside bool    // laid beside
}

// Option changes how pieces are put together.
type Option func(*assembler)

// Progress is told how far the work is, 0 to 1.
func Progress(f func(float64)) Option { return func(a *assembler) { a.tell = f } }

// Writing sets how measures are written in sentences; millimetres unless told.
func Writing(w measure.Writing) Option { return func(a *assembler) { a.write = w } }

// Upright keeps the base as it lies instead of turning its axis upright.
func Upright() Option { return func(a *assembler) { a.asIs = true } }

type assembler struct {
	tell    func(float64)
	write   measure.Writing
	asIs    bool
	upright bool // the base has an axis, and it is x = 0
	pieces  []shape.Region
	out     []Placed
	hosts   []*host
	margins []float64 // rims that pieces keep to the base which are sure of their place
	sought  map[seat][]pose
}

// seat is a piece on a host where that lies: what was found for it once is found again.
type seat struct {
	piece, host, hole int
	at                register.Motion
}

// host is a placed piece, or a hole of one, that others may sit on.
type host struct {
	placed int
	hole   bool
	number int // of the hole, from 1
	region shape.Region
	coarse *shape.Field
	fine   *shape.Field
}

// What counts as going by an edge; our own defaults.
const (
	sureShare  = 0.36 // of a piece's edge that must follow its host's
	holeShare  = 0.8  // that must meet a hole's
	clearLead  = 0.08 // by which the best place must beat the next
	hostMargin = 0.15 // mm; a host is larger by at least so much rim
	leastKept  = 0.25 // mm; less is no rim but a copy of the host
	roundShare = 0.62 // of the edge of a disc that must: a lobe takes half of any disc
	trifle     = 0.04 // of the base's area: pieces so small fit in many places
	leastSeat  = 3.0  // mm²; smaller holes hold no piece
	// A base is as a rule one margin wider than all that lies on it: pieces that keep the
	// margin others keep (to within marginBy, mm) go by it with less of their edge.
	marginBy, marginAdds, marginSure, marginShare = 0.1, 0.2, 0.6, 0.25

	atMostGuess = 0.39 // how sure a place is that another is nearly as good as
	heldBy      = 0.06 // of its edge must hold it along the direction it might slide in
	trifleOn    = 0.9  // of a trifle's own edge that must follow that of a trifle
)

// Pieces proposes a stack from loose pieces: the largest is the base, each
// smaller one goes on the piece whose edge it follows.
func Pieces(ctx context.Context, pieces []shape.Region, opts ...Option) ([]Placed, error) {
	a := &assembler{pieces: pieces, sought: map[seat][]pose{}, write: measure.Metric, tell: func(float64) {}}
	for _, o := range opts {
		o(a)
	}
	order := make([]int, len(pieces))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(i, j int) int { return cmp.Compare(whole(pieces[j]), whole(pieces[i])) })
	// The margin of the base is known once something sure keeps it: what came before that
	// is looked at again.
	for pass := range 2 {
		known := len(a.margins)
		a.out, a.hosts, a.upright = nil, nil, false
		for n, i := range order {
			if err := ctx.Err(); err != nil {
				return nil, fmt.Errorf("put the pieces together: %w", err)
			}
			a.tell((float64(n)/float64(len(order)) + float64(pass)) / 2)
			if n == 0 {
				a.base(i)
			} else {
				a.place(i)
			}
		}
		if len(a.margins) == known {
			break
		}
	}
	a.layRest()
	a.inOrder()
	a.weigh()
	a.layers()
	a.tell(1)
	return a.out, nil
}

func (a *assembler) seat(i int, h *host) seat {
	over := a.out[h.placed]
	return seat{i, over.Piece, h.number, over.Motion}
}

// whole is the area of a piece with its holes filled.
func whole(g shape.Region) float64 { return g.Filled().Area() }

// base puts the first piece down, its axis of symmetry upright if it has one.
func (a *assembler) base(i int) {
	g := a.pieces[i]
	c := g.Centroid()
	m := register.Motion{Move: shape.Point{X: -c.X, Y: -c.Y}}
	why := "the largest piece; it lies as it was laid"
	if ax, ok := Axis(g); ok && !a.asIs {
		turn := math.Remainder(90-ax.Deg, 180)
		m = register.Motion{Turn: turn, Move: register.Motion{Turn: turn}.Point(c).Scale(-1)}
		why = "the largest piece, its axis of symmetry upright"
		a.upright = true
	}
	a.add(Placed{Piece: i, Motion: m, Host: -1, Fit: kit.FitFree, Sure: 1, Why: why})
}

func (a *assembler) add(p Placed) {
	p.Outline = p.Motion.Of(a.pieces[p.Piece])
	a.out = append(a.out, p)
	n := len(a.out) - 1
	a.hosts = append(a.hosts, &host{placed: n, region: p.Outline.Filled()})
	for k, h := range p.Outline.Holes() {
		if h.Area() > leastSeat {
			a.hosts = append(a.hosts, &host{placed: n, hole: true, number: k + 1, region: h})
		}
	}
}

// place finds where a piece goes among those placed.
func (a *assembler) place(i int) {
	own := a.pieces[i].Filled()
	c := own.Centroid() // poses turn about it
	type option struct {
		pose
		host *host
		lead float64
	}
	// Hosts are tried side by side; each writes only its own place.
	options, found := make([]*option, len(a.hosts)), make([][]pose, len(a.hosts))
	laid := a.out[0].Motion.Turn
	area := own.Area()
	together.By(len(a.hosts), func(k int) {
		h := a.hosts[k]
		if h.hole && (h.region.Area() < 0.9*area || h.region.Area() > 1.6*area) || !h.hole && h.region.Area() < area+hostMargin*own.Length() {
			return
		}
		ps, known := a.sought[a.seat(i, h)]
		if !known {
			if h.coarse == nil {
				h.coarse, h.fine = shape.NewField(h.region, 0.75), shape.NewField(h.region, 0.2)
			}
			ps = seekBoth(own, h, laid)
			found[k] = ps
		}
		ps = slices.Clone(ps)
		ps = slices.DeleteFunc(ps, func(p pose) bool { return !h.hole && p.rim < leastKept })
		if h.placed == 0 && !h.hole {
			slices.SortStableFunc(ps, func(p, q pose) int { return cmp.Compare(q.score()+a.onMargin(q), p.score()+a.onMargin(p)) })
		}
		if len(ps) == 0 || !h.hole && a.trifling(h.region) && ps[0].share < trifleOn {
			return
		}
		o := &option{pose: ps[0], host: h, lead: 1}
		for _, q := range ps[1:] {
			if !sameBySymmetry(own, ps[0], q) {
				o.lead = ps[0].score() - q.score()
				if h.placed == 0 && !h.hole {
					o.lead += a.onMargin(ps[0]) - a.onMargin(q)
				}
				break
			}
		}
		options[k] = o
	})
	for k, ps := range found {
		if ps != nil {
			a.sought[a.seat(i, a.hosts[k])] = ps
		}
	}
	// A hole it fills wins; else the closer follower; else the nearer host.
	var best *option
	rank := func(o *option) float64 {
		r := o.score() + boolTo(o.host.hole && o.share > holeShare)
		if o.host.placed == 0 && !o.host.hole {
			r += a.onMargin(o.pose)
		}
		return r
	}
	for _, o := range options {
		if o != nil && (best == nil || rank(o) > rank(best)+0.02) {
			best = o
		}
	}
	least := sureShare
	if round(own) {
		least = roundShare
	}
	margin := 0.0
	if best != nil && best.host.placed == 0 && !best.host.hole {
		if margin = a.onMargin(best.pose); margin > 0 {
			least = marginShare
		}
	}
	if best == nil || best.share < least || best.out > 0.06 {
		if !a.mirrored(i, 0) {
			a.fallBack(i)
		}
		return
	}
	about := register.Motion{Move: shape.Point{X: -c.X, Y: -c.Y}}
	m := best.motion.After(about)
	p := Placed{Piece: i, Motion: m, Host: best.host.placed, Rim: best.rim}
	p.share = best.share
	p.Sure = math.Min(1, (best.share+margin)*math.Min(1, 0.4+best.lead/clearLead*0.6))
	if best.lead < clearLead {
		p.Sure = math.Min(p.Sure, atMostGuess)
	}
	if !best.host.hole {
		// A rim that is wide beside a small piece may be chance.
		p.Sure *= math.Min(1, math.Max(0.3, 1.5-2.8*best.rim/math.Sqrt(own.Area())))
	}
	// What would do as well a little further along is not known to lie here.
	p.Sure *= math.Min(1, math.Max(0.1, best.held/heldBy))
	// An edge made to follow another does so to a hair.
	p.Sure *= math.Min(1, 0.25+best.exact/best.share)
	// What is its own mirror image would do as well across the axis of the base.
	if at := m.Of(own); a.upright && best.host.placed == 0 && math.Abs(at.Centroid().X) > 1 && a.ownMirror(i) && !a.twinned(i) {
		p.Sure = math.Min(p.Sure, atMostGuess)
	}
	// What keeps to the base's edge and yet lies on another piece that does goes by that one.
	if best.host.placed == 0 && !best.host.hole && a.covered(m.Of(own)) > 0.5 {
		p.Sure = math.Min(p.Sure, atMostGuess)
	}
	over := a.out[best.host.placed]
	// What it sits on may be put wrong, and then it is too.
	alone := p.Sure
	p.alone = alone
	p.Sure *= over.Sure
	if best.host.placed == 0 && !best.host.hole && p.Sure >= marginSure && a.onMargin(best.pose) == 0 {
		a.margins = append(a.margins, best.rim)
	}
	if alone < 0.4 && a.mirrored(i, alone) {
		return
	}
	if alone < 0.4 && a.trifling(own) {
		a.beside(i)
		return
	}
	switch {
	case best.host.hole && best.share > holeShare:
		p.Fit, p.Why = kit.FitFills, fmt.Sprintf("fills a hole of piece %d", over.Piece+1)
	case best.share > 0.7:
		p.Fit, p.Why = kit.FitEvenRim, fmt.Sprintf("follows the edge of piece %d at %s", over.Piece+1, a.write.Thin(best.rim))
	default:
		p.Fit, p.Why = kit.FitWithin, fmt.Sprintf("%.0f %% of its edge follows that of piece %d at %s", 100*best.share, over.Piece+1, a.write.Thin(best.rim))
	}
	if best.lead < clearLead {
		p.Why += "; another place fits nearly as well"
	}
	a.add(p)
}

// Follows measures how a piece lies on a host as both stand: the share of its
// edge that keeps one distance from the host's edge, or from a hole of it, and
// that distance, mm.
func Follows(piece, on shape.Region) (share, rim float64) {
	own := piece.Filled()
	c := own.Centroid()
	pts := even(own, fineN)
	for i := range pts {
		pts[i] = pts[i].Sub(c)
	}
	for i, h := range append([]shape.Region{on.Filled()}, on.Holes()...) {
		p := judge(pts, shape.NewField(h, 0.2), register.Motion{Move: c}, rimFor(own), 0)
		if p.out < 0.06 && p.share > share && (i > 0 || p.rim >= leastKept) {
			share, rim = p.share, p.rim
		}
	}
	return share, rim
}

func boolTo(b bool) float64 {
	if b {
		return 1
	}
	return 0
}

// seekBoth searches on the coarse grid and finishes on the fine one.
func seekBoth(g shape.Region, h *host, laid float64) []pose {
	ps := seek(g, h.coarse, h.region.Bounds(), laid)
	if len(ps) > 6 {
		ps = ps[:6]
	}
	c := g.Centroid()
	pts := even(g, fineN)
	for i := range pts {
		pts[i] = pts[i].Sub(c)
	}
	for i := range ps {
		ps[i] = polish(pts, h.fine, draw(pts, h.fine, ps[i].motion, rimFor(g), laid), rimFor(g), laid)
	}
	slices.SortStableFunc(ps, func(a, b pose) int { return cmp.Compare(b.score(), a.score()) })
	return ps
}

// sameBySymmetry reports whether two poses put the piece in one and the same
// place, as all turns of a disc do.
func sameBySymmetry(g shape.Region, p, q pose) bool {
	c := g.Centroid()
	to := register.Motion{Move: c.Scale(-1)}
	a, b := p.motion.After(to), q.motion.After(to)
	return apart(a.Of(g), b.Of(g)) < 0.4
}

// apart is the mean distance between the edges of two regions, mm.
func apart(g, h shape.Region) float64 {
	var s float64
	ds := g.Strays(h, math.Max(0.5, g.Length()/60))
	for _, d := range ds {
		s += d / float64(len(ds))
	}
	return s
}

// trifling reports whether a region is small against the base.
func (a *assembler) trifling(g shape.Region) bool {
	return whole(g) < trifle*whole(a.out[0].Outline)
}

// beside lays a piece under the stack for the person to put in place; others may lie on it.
func (a *assembler) beside(i int) {
	base := a.out[0]
	m := register.Motion{Turn: base.Motion.Turn}
	g := m.Of(a.pieces[i]).Bounds()
	m.Move = shape.Point{X: base.Outline.Bounds().Min.X - g.Min.X, Y: base.Outline.Bounds().Max.Y + 2*between - g.Min.Y}
	for _, q := range a.out {
		if q.aside {
			m.Move.Y = math.Max(m.Move.Y, q.Outline.Bounds().Max.Y+between-g.Min.Y)
		}
	}
	a.add(Placed{Piece: i, Motion: m, Host: 0, Fit: kit.FitFree, aside: true, Why: "nothing tells where it goes: laid beside, put it in place"})
}

// between is the room between pieces laid beside, mm.
const between = 3.0

// layRest puts what is laid beside, with what lies on it, in rows under the stack, as one
// reads the sheet it was found on.
func (a *assembler) layRest() {
	base := a.out[0].Outline.Bounds()
	x, y, tall := base.Min.X, base.Max.Y+2*between, 0.0
	for _, n := range a.reading() {
		b := a.out[n].Outline.Bounds()
		if x > base.Min.X && x+b.W() > base.Max.X {
			x, y, tall = base.Min.X, y+tall+between, 0
		}
		by := shape.Point{X: x, Y: y}.Sub(b.Min)
		x, tall = x+b.W()+between, math.Max(tall, b.H())
		for k := range a.out {
			if a.liesOn(k, n) {
				a.out[k].Motion.Move = a.out[k].Motion.Move.Add(by)
				a.out[k].Outline = a.out[k].Outline.Move(by)
			}
		}
	}
}

// liesOn reports whether piece k is piece n or lies on it, however high.
func (a *assembler) liesOn(k, n int) bool {
	for k > 0 && k != n {
		k = a.out[k].Host
	}
	return k == n
}

// reading lists what is laid beside as one reads where it lay: by rows from the top, each
// from the left.
func (a *assembler) reading() (out []int) {
	for n, p := range a.out {
		if p.aside {
			out = append(out, n)
		}
	}
	box := func(n int) shape.Box { return a.pieces[a.out[n].Piece].Bounds() }
	mid := func(n int) shape.Point { return box(n).Centre() }
	slices.SortStableFunc(out, func(i, j int) int { return cmp.Compare(mid(i).Y, mid(j).Y) })
	for i := 0; i < len(out); {
		j := i + 1
		for j < len(out) && mid(out[j]).Y < mid(out[i]).Y+box(out[i]).H()/2 {
			j++
		}
		slices.SortStableFunc(out[i:j], func(p, q int) int { return cmp.Compare(mid(p).X, mid(q).X) })
		i = j
	}
	return out
}

// inOrder has the larger pieces come before the smaller, those laid beside among the rest:
// what is smaller lies on what is larger, wherever that goes.
func (a *assembler) inOrder() {
	order := make([]int, len(a.out))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(i, j int) int {
		return cmp.Compare(whole(a.pieces[a.out[j].Piece]), whole(a.pieces[a.out[i].Piece]))
	})
	at := make([]int, len(order))
	out := make([]Placed, len(order))
	for n, i := range order {
		at[i], out[n] = n, a.out[i]
	}
	for n := range out {
		if out[n].Host >= 0 {
			out[n].Host = at[out[n].Host]
		}
	}
	a.out = out
}

// onMargin is what it adds to a place on the base that it keeps the margin of others.
func (a *assembler) onMargin(p pose) float64 {
	if slices.ContainsFunc(a.margins, func(m float64) bool { return math.Abs(m-p.rim) < marginBy }) {
		return marginAdds
	}
	return 0
}

// fallBack puts a piece with no edge to go by in the middle of the smallest one that can
// hold it, where that has a middle to the eye and so has the piece; else it is laid beside.
func (a *assembler) fallBack(i int) {
	g := a.pieces[i]
	best := -1
	for n, p := range a.out {
		b, own := p.Outline.Bounds(), g.Bounds()
		if p.Host < 0 && n > 0 || b.W() < own.W() || b.H() < own.H() || a.twinOn(i, n) || a.full(n) {
			continue
		}
		if best < 0 || whole(p.Outline) < whole(a.out[best].Outline) {
			best = n
		}
	}
	if best < 0 || a.twinned(i) || !centred(g) || !centred(a.out[best].Outline) {
		a.beside(i)
		return
	}
	host := a.out[best]
	turn := 0.0
	if mine, ok := Axis(g); ok {
		if its, ok := Axis(host.Outline); ok {
			turn = math.Remainder(its.Deg-mine.Deg, 180)
		}
	}
	m := register.Motion{Turn: turn}
	m.Move = host.Outline.Centroid().Sub(m.Point(g.Centroid()))
	a.add(Placed{Piece: i, Motion: m, Host: best, Fit: kit.FitFree, alone: centreSure, Sure: centreSure * host.Sure, share: 1, Why: fmt.Sprintf("in the middle of piece %d, as both look the same from two sides", host.Piece+1)})
}

// covered is the largest share of a region that lies on one piece of those on the base.
func (a *assembler) covered(g shape.Region) (most float64) {
	for n, q := range a.out {
		if n == 0 || q.Host != 0 || q.aside || !g.Bounds().Meets(q.Outline.Bounds()) {
			continue
		}
		if both, err := g.Intersect(q.Outline.Filled()); err == nil {
			most = math.Max(most, both.Area()/g.Area())
		}
	}
	return most
}

func (a *assembler) ownMirror(i int) bool {
	_, ok := Axis(a.pieces[i])
	return ok
}

// twinned reports whether another piece has the same outline, or its mirror image.
func (a *assembler) twinned(i int) bool {
	for j, g := range a.pieces {
		if j != i && Twins(a.pieces[i], g) != NotTwins {
			return true
		}
	}
	return false
}

// centreSure is how sure a piece is that lies in the middle of another for no better reason.
const centreSure = 0.38

// full reports whether something lies in the middle of piece n already.
func (a *assembler) full(n int) bool {
	c := a.out[n].Outline.Centroid()
	return slices.ContainsFunc(a.out, func(q Placed) bool {
		return q.Host == n && q.Outline.Centroid().Distance(c) < 0.5
	})
}

// centred reports whether a piece looks the same turned by half, so that it has a middle.
func centred(g shape.Region) bool {
	own := g.Filled()
	return apart(own, own.Turn(180, own.Centroid())) < math.Max(0.12, 0.006*math.Sqrt(own.Area()))
}

// mirrored puts a piece across the base's axis from its mirror twin, where one lies on one side
// of it and nothing lies there yet, if that is surer than what it would go by itself.
func (a *assembler) mirrored(i int, sure float64) bool {
	if !a.upright {
		return false
	}
	for n, q := range a.out {
		if q.Sure*acrossSure <= sure || q.Host < 0 || Twins(a.pieces[i], a.pieces[q.Piece]) != Mirror {
			continue
		}
		to := q.Outline.Mirror(0)
		c := to.Centroid()
		if math.Abs(c.X) < 1 || a.taken(to, n) {
			continue
		}
		m := turning(a.pieces[i], to)
		a.add(Placed{Piece: i, Motion: m, Host: q.Host, Fit: q.Fit, Rim: q.Rim, alone: q.Sure * acrossSure, share: 1, Sure: q.Sure * acrossSure, Why: fmt.Sprintf("across the axis from its mirror twin, piece %d", q.Piece+1)})
		return true
	}
	return false
}

// acrossSure is how sure a place across the axis is, against the twin's own.
const acrossSure = 0.9

// taken reports whether a piece of the same shape lies at a place already.
func (a *assembler) taken(at shape.Region, but int) bool {
	for n, q := range a.out {
		if n != but && q.Outline.Centroid().Distance(at.Centroid()) < 1 && math.Abs(q.Outline.Area()-at.Area()) < 0.1*at.Area() {
			return true
		}
	}
	return false
}

// turning is the motion that lays g on a region of the same outline.
func turning(g, on shape.Region) register.Motion {
	from, to := g.Centroid(), on.Centroid()
	deg := turnOnto(g.Move(from.Scale(-1)), on.Move(to.Scale(-1)))
	m := register.Motion{Turn: deg}
	m.Move = to.Sub(m.Point(from))
	return m
}

// twinOn reports whether a piece of the same shape already lies on host n.
func (a *assembler) twinOn(i, n int) bool {
	for _, p := range a.out {
		if p.Host == n && Twins(a.pieces[i], a.pieces[p.Piece]) != NotTwins {
			return true
		}
	}
	return false
}

// layers gives twins on the same kind of place one layer, and numbers layers
// from the lowest.
func (a *assembler) layers() {
	next := 0
	for i := range a.out {
		a.out[i].Layer = -1
		for j := range i {
			if a.out[j].Layer < 0 || Twins(a.pieces[a.out[i].Piece], a.pieces[a.out[j].Piece]) == NotTwins {
				continue
			}
			same := a.out[i].Host == a.out[j].Host
			if !same && a.out[i].Host >= 0 && a.out[j].Host >= 0 {
				same = a.out[a.out[i].Host].Layer == a.out[a.out[j].Host].Layer
			}
			if same {
				a.out[i].Layer = a.out[j].Layer
				break
			}
		}
		if a.out[i].Layer < 0 {
			a.out[i].Layer = next
			next++
		}
	}
}
