package advise

import (
	"cmp"
	"math"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/look"
)

// SameHeight is how near, mm, another way to a height has to come.
const SameHeight = 0.2

// Rise is a way to hold a part up by so much.
type Rise struct {
	Bond   card.Bond `json:"bond"`
	Height float64   `json:"height" doc:"mm"`
	Pieces int       `json:"pieces" doc:"how many spacers and scraps stand on each other"`
}

// Rises lists the ways to come to a height, mm, with spacers of the stores and scraps of
// its cardstock, within low and high mm of it: at most two sorts of them, the
// fewest pieces first, of those the nearest. Sheets and board that are cut to shape count as spacers too.
func Rises(s look.Stock, want, low, high float64) []Rise {
	type sort struct {
		spacer, paper string
		thick         float64
		most          int
	}
	var sorts []sort
	for _, sp := range s.Spacers {
		if sp.Thickness > 0 {
			sorts = append(sorts, sort{spacer: sp.ID, thick: sp.Thickness, most: card.MaxLevel})
		}
	}
	seen := map[int]bool{}
	for _, p := range s.Papers {
		// Cardstocks of one caliper are one sort.
		if c := s.Caliper(p.ID); c > 0 && !seen[int(c*1000)] && p.Opaque() {
			seen[int(c*1000)] = true
			sorts = append(sorts, sort{paper: p.ID, thick: c, most: card.MaxPlies})
		}
	}
	var out []Rise
	add := func(a, b sort, n, m int) {
		h := float64(n)*a.thick + float64(m)*b.thick
		if h < want-low-1e-9 || h > want+high+1e-9 {
			return
		}
		r := Rise{Height: h, Pieces: n + m}
		for _, x := range []struct {
			sort
			n int
		}{{a, n}, {b, m}} {
			switch {
			case x.n == 0:
			case x.spacer != "" && r.Bond.Spacer == "":
				r.Bond.Spacer, r.Bond.Level = x.spacer, x.n
			default:
				r.Bond.Shims = append(r.Bond.Shims, card.Shim{Spacer: x.spacer, Paper: x.paper, N: x.n})
			}
		}
		out = append(out, r)
	}
	for i, a := range sorts {
		for n := 1; n <= a.most && float64(n)*a.thick <= want+high; n++ {
			add(a, sort{}, n, 0)
			for _, b := range sorts[i+1:] {
				for m := 1; m <= b.most && float64(n)*a.thick+float64(m)*b.thick <= want+high+1e-9; m++ {
					if a.spacer == "" && b.spacer == "" {
						continue // scraps of two sorts are a fiddle
					}
					add(a, b, n, m)
				}
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Rise) int {
		return cmp.Or(cmp.Compare(a.Pieces, b.Pieces), cmp.Compare(math.Abs(a.Height-want), math.Abs(b.Height-want)))
	})
	return out
}
