package motif

import (
	"cmp"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Propose orders loose parts from the lowest up, larger ones under smaller ones, and
// gives each what InOrder gives it. It is a proposal; the person changes it by hand.
func Propose(parts []kit.Part) []kit.Part {
	out := slices.Clone(parts)
	slices.SortStableFunc(out, func(a, b kit.Part) int {
		return cmp.Compare(b.Outline.Area(), a.Outline.Area())
	})
	return InOrder(out)
}

// InOrder takes parts as they lie, the lowest first, and gives each a host, a tone
// rank and a fit: a part that lies inside an earlier one goes on it, and tone ranks
// follow the depth of nesting. It too is a proposal.
func InOrder(parts []kit.Part) []kit.Part {
	out := slices.Clone(parts)
	views := make([]View, len(out))
	depth := make([]int, len(out))
	for i := range out {
		views[i] = View{Outline: out[i].Outline}
		h := hostOf(views[:i], out[i].Outline)
		out[i].Order, out[i].Host, out[i].Fit = i+1, "", kit.FitFree
		if out[i].Copies < 1 {
			out[i].Copies = 1
		}
		if h != Ground {
			out[i].Host = out[h].ID
			depth[i] = depth[h] + 1
			out[i].Fit = proposeFit(out[i].Outline, out[h].Outline)
		}
		out[i].Rank = depth[i] + 1
	}
	return out
}

// proposeFit calls the rim even where the part follows its host's edge closely
// on most of its length, within where it lies inside, and free otherwise.
func proposeFit(g, host shape.Region) kit.Fit {
	const close = 3.0 // mm; a rim wider than this is no border to the eye
	if grown, err := g.Minus(host); err != nil || grown.Area() > 0.01*g.Area() {
		return kit.FitFree
	}
	if g.Shared(host, close) > 0.7*g.Length() && g.Area() > 0.4*host.Area() {
		return kit.FitEvenRim
	}
	return kit.FitWithin
}
