package advise

import (
	"cmp"
	"maps"
	"math"
	"ochrestone/core/blend"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"slices"
)

// mostTried is how many inks are looked at, the nearest first: one that is further off than so
// many others is no mend but another card.
const mostTried = 200

// Inks lists the first n inks of the drawer that, on this layer alone, make every pair of it read
// and keep the order of lightness where it is kept now, the nearest in colour to the one
// it has first; fewer where there are no more among the nearest. Blends and edges of the layer
// stay.
func (a Study) Inks(w card.Colourway, now look.Colourway, layer string, n int) []string {
	have := w.Layers[layer]
	was, _ := now.Of(layer)
	c, _ := colour.ParseHex(was.Dry)
	under, _ := colour.ParseHex(was.Paper)
	old := c.Lab()
	type found struct {
		ink string
		far float64
	}
	with := func(ink string) card.Finish {
		f := have
		f.Ink, f.Impressions = ink, 1
		return f
	}
	var all []found
	for i := range a.Stock.Inks {
		ink := &a.Stock.Inks[i]
		if ink.ID == have.Ink || ink.Gone || ink.Kind == kit.Embossing {
			continue
		}
		d, ok := a.Stock.Dried(with(ink.ID), under, was.Card)
		if !ok {
			continue
		}
		all = append(all, found{ink.ID, colour.Difference(d.Dry.Lab(), old)})
	}
	nearer := func(p, q found) int { return cmp.Compare(p.far, q.far) }
	slices.SortStableFunc(all, nearer)
	var out []found
	ordered := look.InOrder(a.Image.Motif, now)
	trial := w
	for _, f := range all[:min(len(all), mostTried)] {
		if len(out) == n {
			break
		}
		trial.Layers = maps.Clone(w.Layers)
		trial.Layers[layer] = with(f.ink)
		then := a.Stock.Look(a.Image, trial)
		ok := !ordered || look.InOrder(a.Image.Motif, then)
		for _, p := range then.Pairs {
			if (p.A == layer || p.B == layer) && p.Length >= look.MergesOver && p.Diff < a.Readable {
				ok = false
			}
		}
		if !ok {
			continue
		}
		l, _ := then.Of(layer)
		c, _ := colour.ParseHex(l.Dry)
		out = append(out, found{f.ink, colour.Difference(c.Lab(), old)})
	}
	slices.SortStableFunc(out, nearer) // blends over it change what it dries to
	ids := make([]string, len(out))
	for i, f := range out {
		ids[i] = f.ink
	}
	return ids
}

// Between names an owned ink of the family of another whose lightness on white
// lies between two values, the nearest to the middle; empty when there is none.
func Between(s look.Stock, hi, lo float64, like string) string {
	best, off := "", math.Inf(1)
	kin, ok := s.Ink(like)
	for i := range s.Inks {
		ink := &s.Inks[i]
		if !ok || ink.ID == like || ink.Gone || ink.Family != kin.Family {
			continue
		}
		c, err := colour.ParseHex(ink.Dry)
		if err != nil {
			continue
		}
		l := c.Lab().L
		if d := math.Abs(l - (hi+lo)/2); l < hi-blend.LeastRung && l > lo+blend.LeastRung && d < off {
			best, off = ink.Name, d
		}
	}
	return best
}
