package scene

import (
	"ochrestone/core/build"
	"ochrestone/core/work"
)

// State is how far a piece is at a step, one letter of Step.States.
type State byte

// States of a piece.
const (
	ToCome State = '.' // nothing was done to it yet
	Begun  State = 'b' // cut, inked or printed, and not in its place
	Down   State = 'd' // in its place
	Over   State = 'o' // in its place, over what the step is about
	Lit    State = 'l' // what the step is about
)

// grow gives each step the states of so many pieces: what the steps before it have made of them, in their
// order.
func grow(steps []Step, pieces int) {
	now := make([]State, pieces)
	for i := range now {
		now[i] = ToCome
	}
	for n := range steps {
		s := &steps[n]
		at := make([]byte, pieces)
		first := pieces
		for _, i := range s.Lit {
			first = min(first, i)
		}
		for i, was := range now {
			at[i] = byte(was)
			if was == Down && i > first {
				at[i] = byte(Over)
			}
		}
		for _, i := range s.Lit {
			at[i] = byte(Lit)
			if s.Puts {
				now[i] = Down
			} else if now[i] == ToCome {
				now[i] = Begun
			}
		}
		s.States = string(at)
	}
}

// Order lists the pieces of a step as they are drawn: what is lit over what is to come above it, and beneath
// what lies on it already.
func (s Step) Order() []int {
	out := make([]int, 0, len(s.States))
	for _, over := range []bool{false, true} {
		for i := range s.States {
			if st := State(s.States[i]); (st == Over || st == Lit) == over {
				out = append(out, i)
			}
		}
	}
	return out
}

// treated tells each step on which sheets not all treatments are begun.
func treated(steps []Step, b *build.Build, up []int, acts []work.Act) {
	for k, i := range up {
		p := &b.Pieces[i]
		if p.ID.Part != "" || len(p.Films) == 0 {
			continue
		}
		begun, last := 0, 0
		for _, a := range acts {
			if a.ID.Element == p.ID.Element {
				last = max(last, a.Treatment())
			}
		}
		for n, a := range acts {
			if a.ID.Element == p.ID.Element {
				begun = max(begun, a.Treatment())
			}
			if begun < last {
				steps[n].Bare = append(steps[n].Bare, Unfinished{k, begun})
			}
		}
	}
}

// Shows reports whether a film of a treatment, from 0, is on a piece when the step is done.
func (s Step) Shows(piece, treatment int) bool {
	for _, u := range s.Bare {
		if u.Piece == piece {
			return treatment < u.Begun
		}
	}
	return true
}
