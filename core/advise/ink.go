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

// Inks lists the inks of the drawer that, on this layer alone, make every pair of it read
// and keep the order of lightness where it is kept now, the nearest in colour to the one
// it has first. Blends and edges of the layer stay.
func (a Study) Inks(w card.Colourway, now look.Colourway, layer string) []string {
	have := w.Layers[layer]
	was, _ := now.Of(layer)
	c, _ := colour.ParseHex(was.Dry)
	old := c.Lab()
	type found struct {
		ink string
		far float64
	}
	var out []found
	ordered := look.InOrder(a.Image.Motif, now)
	trial := w
	for i := range a.Stock.Inks {
		ink := &a.Stock.Inks[i]
		if ink.ID == have.Ink || ink.Gone || ink.Kind == kit.Embossing {
			continue
		}
		trial.Layers = maps.Clone(w.Layers)
		with := have
		with.Ink, with.Impressions = ink.ID, 1
		trial.Layers[layer] = with
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
		out = append(out, found{ink.ID, colour.Difference(c.Lab(), old)})
	}
	slices.SortStableFunc(out, func(p, q found) int { return cmp.Compare(p.far, q.far) })
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
