package assemble_test

import (
	"context"
	"fmt"
	"testing"
	"time"

	"ochrestone/core/assemble"
	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/demo"
	"ochrestone/demo/drawn"
	"ochrestone/demo/sim"
)

func allSets(t testing.TB) []kit.Set {
	k, err := demo.Kit()
	if err != nil {
		t.Fatal(err)
	}
	more, err := sim.Sets()
	if err != nil {
		t.Fatal(err)
	}
	return append([]kit.Set{k.Sets[0]}, more...)
}

// result holds a proposal against the set it came from.
type result struct {
	pieces, edged, right, claimed, wrong int // right of edged; claimed sure, wrong of those
	pairs, ordered                       int
	lines                                []string
	said                                 [3]struct{ n, right int } // by "a guess", "likely", "sure"
	places                               int                       // of all but the base within 0.3 mm
}

func meanOf(v []float64) (m float64) {
	for _, x := range v {
		m += x / float64(len(v))
	}
	return m
}

func apart(g, h shape.Region) float64 { return meanOf(g.Strays(h, 0.5)) }

// try lays a set's pieces on a table, turned, and has them put together.
func try(t testing.TB, set kit.Set, turn float64, seed uint64) result {
	laid, err := sim.Lay(set, 280, 400, turn, seed)
	if err != nil {
		t.Fatal(err)
	}
	var pieces []shape.Region
	for _, l := range laid {
		pieces = append(pieces, l.Outline)
	}
	got, err := assemble.Pieces(context.Background(), pieces)
	if err != nil {
		t.Fatal(err)
	}
	// The set's own frame as the base was put down.
	frame := got[0].Motion.After(register.Motion{Turn: laid[got[0].Piece].Turn, Move: laid[got[0].Piece].Move})
	want := make([]shape.Region, len(laid))
	for i, l := range laid {
		back := register.Motion{Turn: -l.Turn}.Of(l.Outline.Move(l.Move.Scale(-1)))
		want[i] = frame.Of(back)
	}
	r := result{pieces: len(laid)}
	rank := make([]int, len(laid))
	for n, p := range got {
		rank[p.Piece] = n
		off := apart(p.Outline, want[p.Piece])
		for j := range laid {
			if j != p.Piece && assemble.Twins(pieces[j], pieces[p.Piece]) == assemble.Same {
				off = min(off, apart(p.Outline, want[j]))
			}
		}
		if n > 0 {
			k := 0
			if p.Sure >= 0.75 {
				k = 2
			} else if p.Sure >= 0.4 {
				k = 1
			}
			r.said[k].n++
			if off <= 0.3 {
				r.said[k].right++
				r.places++
			}
		}
		sure := p.Sure >= 0.4
		if n > 0 && sure {
			r.claimed++
			if off > 0.3 {
				r.wrong++
			}
		}
		// A piece has an edge to go by when half of its own, as designed, keeps
		// one distance from an edge or hole of a piece beneath it.
		goes := false
		for _, q := range got[:n] {
			share, _ := assemble.Follows(want[p.Piece], want[q.Piece])
			goes = goes || share >= 0.5
		}
		if n > 0 && goes {
			r.edged++
			if off <= 0.3 {
				r.right++
			} else {
				r.lines = append(r.lines, "   this one has an edge to go by:")
			}
		}
		r.lines = append(r.lines, fmt.Sprintf("   %-18s sure %.2f off %.2f mm: %s", partLabel(set, laid[p.Piece].Part), p.Sure, off, p.Why))
	}
	order := map[string]int{}
	for i, p := range set.Parts {
		order[p.ID] = i
	}
	for i := range laid {
		for j := range laid {
			if order[laid[i].Part] < order[laid[j].Part] && want[i].Overlaps(want[j]) {
				r.pairs++
				if rank[i] < rank[j] {
					r.ordered++
				}
			}
		}
	}
	return r
}

func partLabel(s kit.Set, id string) string {
	p, _ := s.Part(id)
	return p.Label
}

// BenchmarkProposals prints how often pieces laid out at random are put back
// in their order and place.
func BenchmarkProposals(b *testing.B) {
	for b.Loop() {
		fmt.Printf("\n%-16s %5s %6s %8s %8s %8s %8s\n", "set", "seed", "pieces", "order", "edge", "right", "time")
		var pairs, ordered, edged, right int
		for i, s := range allSets(b) {
			for _, seed := range []uint64{1, 2} {
				start := time.Now()
				r := try(b, s, 30, seed+uint64(10*i))
				fmt.Printf("%-16s %5d %6d %4d/%-3d %5d/%-4d %10d/%-3d %8s\n", s.Name, seed+uint64(10*i), r.pieces, r.ordered, r.pairs, r.right, r.edged, r.wrong, r.claimed, time.Since(start).Round(time.Millisecond))
				if testing.Verbose() {
					for _, l := range r.lines {
						fmt.Println(l)
					}
				}
				pairs, ordered, edged, right = pairs+r.pairs, ordered+r.ordered, edged+r.edged, right+r.right
			}
		}
		fmt.Printf("order right in %.0f %%, place right in %.0f %% of the pieces with an edge to go by\n", 100*float64(ordered)/float64(pairs), 100*float64(right)/float64(edged))
	}
}

// BenchmarkDrawn prints, over sets of many trades drawn for it, and over some drawn when the
// rules stood, how often pieces laid out at random come back to their place, and how often what is called likely (0.4 and more) and
// sure (0.75 and more) is. Asked for: likely right in 9 of 10, sure in 99 of 100.
func BenchmarkDrawn(b *testing.B) {
	for b.Loop() {
		fmt.Printf("\n%-12s %6s %8s %8s %8s %8s %8s %8s %8s\n", "set", "pieces", "order", "edge", "places", "guess", "likely", "sure", "time")
		for k, of := range []func() ([]kit.Set, error){drawn.Sets, drawn.HeldBack} {
			sets, err := of()
			if err != nil {
				b.Fatal(err)
			}
			var all result
			for i, s := range sets {
				for _, seed := range []uint64{1, 2} {
					start := time.Now()
					r := try(b, s, 30, seed+uint64(100+10*i))
					fmt.Printf("%-12s %6d %4d/%-3d %4d/%-3d %4d/%-3d %4d/%-3d %4d/%-3d %4d/%-3d %8s\n", s.Name, r.pieces, r.ordered, r.pairs, r.right, r.edged, r.places, r.pieces-1,
						r.said[0].right, r.said[0].n, r.said[1].right, r.said[1].n, r.said[2].right, r.said[2].n, time.Since(start).Round(time.Millisecond))
					if testing.Verbose() {
						for _, l := range r.lines {
							fmt.Println(l)
						}
					}
					all.pieces, all.pairs, all.ordered, all.edged, all.right, all.places = all.pieces+r.pieces-1, all.pairs+r.pairs, all.ordered+r.ordered, all.edged+r.edged, all.right+r.right, all.places+r.places
					for k := range r.said {
						all.said[k].n, all.said[k].right = all.said[k].n+r.said[k].n, all.said[k].right+r.said[k].right
					}
				}
			}
			fmt.Printf("%-12s %6d %4d/%-3d %4d/%-3d %4d/%-3d %4d/%-3d %4d/%-3d %4d/%-3d\n", [2]string{"all", "held back"}[k], all.pieces, all.ordered, all.pairs, all.right, all.edged, all.places, all.pieces,
				all.said[0].right, all.said[0].n, all.said[1].right, all.said[1].n, all.said[2].right, all.said[2].n)
		}
	}
}
