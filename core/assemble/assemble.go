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
	shown bool    // by the picture
	twin  int     // from 1, the placed piece it lies across the axis from; 0 for none
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
	sights  []Sight  // what a picture shows, lowest first
	stands  *float64 // how the picture shows the largest piece turned, degrees
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
	if a.stands != nil {
		if a.believed(order) {
			for n, s := range a.sights {
				order[n] = s.Piece
			}
		} else {
			a.sights, a.stands = nil, nil
		}
	}
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
			} else if !a.asShown(i) {
				a.place(i)
			}
		}
		if len(a.margins) == known {
			break
		}
	}
	a.layRest()
	a.inOrder(order)
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
	if by := a.stands; by != nil {
		turn := m.Turn
		switch {
		case !a.upright:
			turn, why = *by, "the largest piece, turned as the picture shows it"
		case math.Abs(math.Remainder(turn-*by, 360)) > 90:
			turn += 180
		}
		m = register.Motion{Turn: turn, Move: register.Motion{Turn: turn}.Point(c).Scale(-1)}
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
	p.share, p.Sure = best.share, a.worth(i, best.pose, best.host, best.lead, margin)
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

func boolTo(b bool) float64 {
	if b {
		return 1
	}
	return 0
}

// worth is how sure a place is by itself, 0 to 1, if what it sits on lies right: by the
// share of the edge that follows, by how much the next best place is worse, and less where
// the same would be seen of a wrong place.
func (a *assembler) worth(i int, p pose, h *host, lead, margin float64) (sure float64) {
	own := a.pieces[i].Filled()
	at := p.motion.After(register.Motion{Move: own.Centroid().Scale(-1)}).Of(own)
	sure = math.Min(1, (p.share+margin)*math.Min(1, 0.4+lead/clearLead*0.6))
	if lead < clearLead {
		sure = math.Min(sure, atMostGuess)
	}
	if !h.hole {
		// A rim that is wide beside a small piece may be chance.
		sure *= math.Min(1, math.Max(0.3, 1.5-2.8*p.rim/math.Sqrt(own.Area())))
	}
	// What would do as well a little further along is not known to lie here.
	sure *= math.Min(1, math.Max(0.1, p.held/heldBy))
	// An edge made to follow another does so to a hair.
	sure *= math.Min(1, 0.25+p.exact/p.share)
	// What is its own mirror image would do as well across the axis of the base.
	if a.upright && h.placed == 0 && math.Abs(at.Centroid().X) > 1 && a.ownMirror(i) && !a.twinned(i) {
		sure = math.Min(sure, atMostGuess)
	}
	// What keeps to the base's edge and yet lies on another piece that does goes by that one.
	if h.placed == 0 && !h.hole && a.covered(at) > 0.5 {
		sure = math.Min(sure, atMostGuess)
	}
	return sure
}

// trifling reports whether a region is small against the base.
func (a *assembler) trifling(g shape.Region) bool {
	return whole(g) < trifle*whole(a.out[0].Outline)
}

// onMargin is what it adds to a place on the base that it keeps the margin of others.
func (a *assembler) onMargin(p pose) float64 {
	if slices.ContainsFunc(a.margins, func(m float64) bool { return math.Abs(m-p.rim) < marginBy }) {
		return marginAdds
	}
	return 0
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
