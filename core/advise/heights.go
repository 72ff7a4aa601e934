package advise

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/look"
	"ochrestone/core/measure"
)

// SameHeight is how near, mm, another way to a height has to come.
const SameHeight = 0.2

// sameCard is how near, mm, the calipers of cardstocks are that count as one; our own
// default.
const sameCard = 0.04

// How many spacers are looked at: of one kind and thickness, and in all; our own defaults.
const (
	sameSort  = 3
	mostSorts = 60
)

// Rise is a way to hold a part up by so much.
type Rise struct {
	Bond   card.Bond `json:"bond"`
	Height float64   `json:"height" doc:"mm"`
	Pieces int       `json:"pieces" doc:"how many spacers and scraps stand on each other"`
	Said   string    `json:"said" doc:"what it stands on, in words"`
	Short  []Short   `json:"short" nullable:"false" doc:"spacers of which there are not enough for the whole card so; empty: there are, or nobody counted"`
}

// Short is a spacer of which there is too little.
type Short struct {
	Spacer string `json:"spacer"`
	Name   string `json:"name"`
	Needs  int    `json:"needs" doc:"for the whole card"`
	Left   int    `json:"left" doc:"on hand"`
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
	// Pads of about one thickness, and of one kind, are as good as each other: the first few
	// stand for all. So however many there are in the stores, there are few sorts.
	like := map[string]int{}
	for _, sp := range s.Spacers {
		if sp.Thickness > 0 && sp.Thickness <= want+high+1e-9 && !sp.Away {
			key := fmt.Sprint(sp.Kind, int(sp.Thickness/sameCard))
			if like[key]++; like[key] > sameSort || len(sorts) >= mostSorts {
				continue
			}
			sorts = append(sorts, sort{spacer: sp.ID, thick: sp.Thickness, most: card.MaxLevel})
		}
	}
	seen := map[int]bool{}
	for _, p := range s.Papers {
		// Cardstocks of about one caliper are one sort.
		if c := s.Caliper(p.ID); c > 0 && !seen[int(c/sameCard)] && p.Opaque() && !p.Away {
			seen[int(c/sameCard)] = true
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

// Raised is how high a part is to be held, and the ways to do that.
type Raised struct {
	Height float64 `json:"height" doc:"that it is held off what is beneath, mm"`
	Within float64 `json:"within" doc:"how near the ways come to it, mm"`
	Ways   []Rise  `json:"ways" nullable:"false" doc:"the fewest pieces first, at most eight"`
	Why    string  `json:"why,omitempty" doc:"why there is none"`
}

// mostWays is how many ways to a height are shown.
const mostWays = 8

// HeightsFor lists the ways to hold a part as high as it stands, or, with another element
// named, so that their tops are level: those for which there are spacers enough first. The
// error wraps card.ErrGone.
func HeightsFor(m *depth.Memory, b *build.Build, stood []depth.Stood, element, part, with string, w measure.Writing) (Raised, error) {
	top := func(id string) (z float64, ok bool) {
		for _, s := range stood {
			if s.ID.Element == id && !s.Print() {
				z, ok = max(z, s.Highest()), true
			}
		}
		return z, ok
	}
	i := slices.IndexFunc(stood, func(s depth.Stood) bool {
		return s.ID.Element == element && !s.Print() && (part != "" && s.ID.Part == part || part == "" && s.On.Element != element)
	})
	if i < 0 {
		return Raised{}, fmt.Errorf("the height of %q: it %w", element, card.ErrGone)
	}
	out := Raised{Height: stood[i].Lift, Within: SameHeight, Ways: []Rise{}}
	if with != "" {
		to, ok := top(with)
		if !ok {
			return Raised{}, fmt.Errorf("level with %q: it %w", with, card.ErrGone)
		}
		from, _ := top(element)
		out.Height += to - from
	}
	if out.Height < SameHeight {
		out.Why = "Glued flat it stands higher than that already."
		if with == "" {
			out.Why = "It is glued flat: choose a spacer first, or what it is to be level with."
		}
		return out, nil
	}
	out.Ways = Rises(b.Stock, out.Height, SameHeight, SameHeight)
	out.Ways = out.Ways[:min(len(out.Ways), 2*mostWays)]
	for n, r := range out.Ways {
		out.Ways[n].Short = short(b.Stock, m.UsedWith(b, stood, i, build.HoldsOf(b.Stock, []card.Bond{r.Bond})), r.Bond)
	}
	slices.SortStableFunc(out.Ways, func(a, b Rise) int { return cmp.Compare(len(a.Short), len(b.Short)) })
	out.Ways = out.Ways[:min(len(out.Ways), mostWays)]
	for n := range out.Ways {
		out.Ways[n].Said = build.Held(b.Stock, []card.Bond{out.Ways[n].Bond}, w)
	}
	if len(out.Ways) == 0 {
		out.Why = "Nothing in the stores comes within " + w.Thin(SameHeight) + " of that height."
	}
	return out, nil
}

// short lists the spacers of a bond of which a card uses more than there are.
func short(s look.Stock, used map[string]int, b card.Bond) []Short {
	out := []Short{}
	add := func(id string) {
		if sp, ok := s.Spacer(id); ok && sp.Left != nil && used[id] > *sp.Left {
			out = append(out, Short{id, sp.Name, used[id], *sp.Left})
		}
	}
	add(b.Spacer)
	for _, m := range b.Shims {
		add(m.Spacer)
	}
	return out
}
