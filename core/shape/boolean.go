package shape

import (
	"math"

	"github.com/tdewolff/canvas"
)

// jog is how far one outline is moved, in mm, when a boolean has to be tried
// again.
const jog = 0.005

type op int

const (
	opOr op = iota
	opAnd
	opNot
)

// Union returns what lies in g or in h.
func (g Region) Union(h Region) (Region, error) {
	switch {
	case g.Empty():
		return h, nil
	case h.Empty():
		return g, nil
	case !g.Bounds().Meets(h.Bounds()):
		return of(append(append([]Ring{}, g.rings...), h.rings...)), nil
	}
	return boolean(opOr, g, h)
}

// Intersect returns what lies in both g and h.
func (g Region) Intersect(h Region) (Region, error) {
	if g.Empty() || h.Empty() || !g.Bounds().Meets(h.Bounds()) {
		return Region{}, nil
	}
	return boolean(opAnd, g, h)
}

// Minus returns what lies in g but not in h.
func (g Region) Minus(h Region) (Region, error) {
	if g.Empty() || h.Empty() || !g.Bounds().Meets(h.Bounds()) {
		return g, nil
	}
	return boolean(opNot, g, h)
}

// Under returns what shows of g when h lies on it, and the two united, for the
// price of one boolean: the areas of the two answers check each other.
func (g Region) Under(h Region) (shown, both Region, err error) {
	if g.Empty() || h.Empty() || !g.Bounds().Meets(h.Bounds()) {
		both, err = g.Union(h)
		return g, both, err
	}
	if shown, both, ok := tryUnder(g, h); ok {
		return shown, both, nil
	}
	if shown, err = g.Minus(h); err != nil {
		return Region{}, Region{}, err
	}
	both, err = h.Union(g)
	return shown, both, err
}

func tryUnder(g, h Region) (shown, both Region, ok bool) {
	defer func() {
		if recover() != nil { // as in try
			ok = false
		}
	}()
	p, q := toPath(g.rings), toPath(h.rings)
	shown, both = fromPath(p.Not(q)), fromPath(p.Or(q))
	tol, s := slack(g, h), shown.Area()
	return shown, both, s <= g.Area()+tol && s >= g.Area()-h.Area()-tol && math.Abs(both.Area()-h.Area()-s) <= tol
}

// boolean runs the operation and keeps its result only where the areas add up;
// otherwise it tries again with h moved a hair, in a few directions, and gives
// an error at last rather than a wrong region.
//
// The checks: A∪B lies between max(A,B) and A+B, A∩B between 0 and min(A,B),
// A\B between A-B and A; and the area of the partner operation agrees.
func boolean(o op, g, h Region) (Region, error) {
	jogs := []Point{{}, {jog, jog * 0.6}, {-jog * 0.7, jog}, {jog * 0.3, -jog}}
	for i, d := range jogs {
		b := h
		if i > 0 {
			b = h.Move(d)
		}
		if out, ok := try(o, g, b); ok {
			return out, nil
		}
	}
	return Region{}, ErrBoolean
}

func try(o op, g, h Region) (out Region, ok bool) {
	defer func() {
		// The sweep of the path library panics on a few degenerate inputs; that
		// is one more breach to retry, not a reason to lose the person's card.
		if recover() != nil {
			out, ok = Region{}, false
		}
	}()
	p, q := toPath(g.rings), toPath(h.rings)
	run := func(o op) Region {
		var r *canvas.Path
		switch o {
		case opOr:
			r = p.Or(q)
		case opAnd:
			r = p.And(q)
		default:
			r = p.Not(q)
		}
		return fromPath(r)
	}
	out = run(o)
	a, b, r := g.Area(), h.Area(), out.Area()
	tol := slack(g, h)
	var and float64
	switch o {
	case opAnd:
		and = r
	case opNot:
		and = a - r
	default:
		and = a + b - r
	}
	if and < -tol || and > min(a, b)+tol {
		return out, false
	}
	// The partner operation must agree: A\B = A - A∩B, A∪B = A + B - A∩B.
	partner := opAnd
	if o == opAnd {
		partner = opNot
	}
	other := run(partner).Area()
	if partner == opNot {
		other = a - other
	}
	return out, math.Abs(other-and) <= tol
}

// slack is the area, mm², that snapping every corner to the grid may move.
func slack(g, h Region) float64 {
	return 1e-3 + 2*Grid*(g.Length()+h.Length())
}
